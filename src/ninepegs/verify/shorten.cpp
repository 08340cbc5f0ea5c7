#include "ninepegs/verify/shorten.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

class Shortener {
 public:
  Shortener(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen)
      : game_(game),
        inspector_(game),
        live_(game.live()),
        start_(seen.from ? *seen.from : game.start()),
        kind_(kind),
        line_(line) {}

  // Does the live position show the fault?
  bool shows() {
    try {
      return looksWrong();
    } catch (const RunawayRules& error) {
      return isWanted(error);
    }
  }
  // Is it this that is looked for?
  bool isWanted(const RunawayRules& error) const {
    Fault fault = runawayFault(error);
    return fault.kind == kind_ && fault.line == line_;
  }
  bool looksWrong() {
    faults_.clear();
    inspector_.position(*live_, faults_);
    if (has()) return true;
    Inspector::Closeness close;
    close.texts = kind_ == FindingKind::ambiguous;
    close.symmetries = kind_ == FindingKind::symmetry ? inspector_.symmetries() : 0;
    inspector_.moves(*live_, close, faults_);
    return has();
  }

  // Playouts that stop one ply sooner than the shortest game known, while one of them shows it.
  void cut(std::vector<Move>& moves, const ShortenOptions& options);
  // Level by level through all different positions: the first fault met is at the least depth. It
  // is known at `moves.size()` plies; nothing if the budget does not do.
  std::optional<Shortened> all(const std::vector<Move>& moves, const ShortenOptions& options);

  // How many of the moves, played in order, lead to the fault; none if one is illegal or the fault
  // does not come.
  std::optional<std::size_t> replay(const std::vector<Move>& moves);

 private:
  bool has() const {
    return std::any_of(faults_.begin(), faults_.end(), [&](const Fault& fault) {
      return fault.kind == kind_ && fault.line == line_;
    });
  }

  const Game& game_;
  Inspector inspector_;
  std::unique_ptr<LivePosition> live_;
  Position start_;
  FindingKind kind_;
  int line_;
  std::vector<Fault> faults_;
};

// Plies that a look at what can be played next costs.
constexpr std::size_t closeCost = 60;
constexpr std::uint64_t cutGames = 0x637574;  // the stream that draws them

void Shortener::cut(std::vector<Move>& moves, const ShortenOptions& options) {
  bool close = kind_ == FindingKind::ambiguous || kind_ == FindingKind::symmetry;
  std::vector<Move> played;
  std::size_t left = options.plies;
  for (std::uint64_t number = 0; left > 0 && moves.size() > 1; ++number) {
    if (wantsStop(options.stop)) return;
    Stream stream(cutGames, number);
    live_->setUp(start_);
    played.clear();
    try {
      while (played.size() + 1 < moves.size() && left > 0 && !live_->ended()) {
        std::uint32_t count = live_->moveCount();
        if (count == 0) break;
        played.push_back(live_->moveAt(stream.below(count)));
        left -= std::min<std::size_t>(left, close ? closeCost : 1);
        live_->play(played.back());
        if (!shows()) continue;
        moves = played;
        break;
      }
    } catch (const RunawayRules& error) {
      if (isWanted(error) && !played.empty() && played.size() < moves.size()) moves = played;
    }
    if (played.empty()) return;
  }
}

std::optional<Shortened> Shortener::all(const std::vector<Move>& known,
                                        const ShortenOptions& options) {
  struct Node {
    Position position;
    std::size_t parent;
    Move move;
  };
  std::vector<Node> nodes;
  std::set<std::vector<std::uint64_t>> seen;
  auto path = [&](std::size_t at) {
    std::vector<Move> moves;
    for (; at != 0; at = nodes[at].parent) moves.push_back(nodes[at].move);
    std::reverse(moves.begin(), moves.end());
    return Shortened{moves, true};
  };
  nodes.push_back({start_, 0, {}});
  seen.insert(game_.identity(nodes[0].position));
  live_->setUp(nodes[0].position);
  if (shows()) return path(0);
  std::size_t levelEnd = 1, depth = 0;
  MoveList moves;
  Position after;
  for (std::size_t at = 0; at < nodes.size(); ++at) {
    if (at == levelEnd) {
      levelEnd = nodes.size();
      if (++depth >= known.size()) return Shortened{known, true};
    }
    if (nodes.size() > options.budget || wantsStop(options.stop)) return std::nullopt;
    try {
      live_->setUp(nodes[at].position);
      live_->listMoves(moves);
    } catch (const RunawayRules&) {
      continue;
    }
    for (const Move& move : moves) {
      try {
        live_->play(move);
      } catch (const RunawayRules& error) {
        if (!isWanted(error)) continue;
        nodes.push_back({live_->position(), at, move});
        return path(nodes.size() - 1);
      }
      live_->copyTo(after);
      // Whether a number grew depends on the step, so such a fault is looked for even where the
      // position was met before.
      bool fresh = seen.insert(game_.identity(after)).second;
      bool found = (fresh || kind_ == FindingKind::invariant) && shows();
      live_->takeBack();
      if (fresh || found) nodes.push_back({after, at, move});
      if (found) return path(nodes.size() - 1);
    }
  }
  return std::nullopt;
}

std::optional<std::size_t> Shortener::replay(const std::vector<Move>& moves) {
  live_->setUp(start_);
  MoveList legal;
  for (std::size_t i = 0; i < moves.size(); ++i) {
    try {
      live_->listMoves(legal);
      if (std::find(legal.begin(), legal.end(), moves[i]) == legal.end()) return std::nullopt;
      live_->play(moves[i]);
      if (shows()) return i + 1;
    } catch (const RunawayRules& error) {
      return isWanted(error) ? std::optional<std::size_t>(i + 1) : std::nullopt;
    }
  }
  return std::nullopt;
}

}  // namespace

namespace {

// `kept` is the shortest that is known so far, whatever comes.
Shortened shortened(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                    std::vector<Move>& kept, const ShortenOptions& options) {
  Shortener shortener(game, kind, line, seen);
  shortener.cut(kept, options);
  if (std::optional<Shortened> best = shortener.all(kept, options)) return *best;
  // Leave out ever smaller parts while the fault stays.
  for (std::size_t part = kept.size() / 2; part >= 1; part /= 2) {
    for (std::size_t from = 0; from + part <= kept.size();) {
      if (wantsStop(options.stop)) return {kept, false};
      std::vector<Move> fewer = kept;
      fewer.erase(fewer.begin() + static_cast<std::ptrdiff_t>(from),
                  fewer.begin() + static_cast<std::ptrdiff_t>(from + part));
      std::optional<std::size_t> length = shortener.replay(fewer);
      if (length) {
        fewer.resize(*length);
        kept = std::move(fewer);
      } else {
        from += part;
      }
    }
  }
  return {kept, false};
}

}  // namespace

Shortened shorten(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                  const ShortenOptions& options) {
  std::vector<Move> kept = seen.moves;
  try {
    StopScope stop(options.stop);
    WorkScope work(limits::shortenSteps);
    return shortened(game, kind, line, seen, kept, options);
  } catch (const Stopped&) {
  } catch (const TooMuchWork&) {
  }
  return {kept, false};
}

// The whole numbers of a position's text by what stands before them; of numbers on cells their sum.
static std::map<std::string, long long> numbersOf(const std::string& text) {
  std::map<std::string, long long> out;
  for (const std::string& part : splitTrimmed(text, ';')) {
    std::vector<std::string> words = splitTrimmed(part, ' ');
    std::size_t numbers = 0;
    long long sum = 0;
    for (; numbers + 1 < words.size(); ++numbers) {
      const std::string& digits = words[words.size() - 1 - numbers];
      bool below = !digits.empty() && digits[0] == '-';
      std::optional<unsigned long long> value = wholeNumber(digits.substr(below ? 1 : 0));
      if (!value) break;
      sum += below ? -static_cast<long long>(*value) : static_cast<long long>(*value);
    }
    if (numbers == 0) continue;
    words.resize(words.size() - numbers);
    out[joined(words, " ")] = sum;
  }
  return out;
}

// Does it go one way all the time, and nowhere more slowly than a tenth of the whole?
static bool runsAway(const std::vector<long long>& values) {
  long long whole = values.back() - values.front();
  if (whole == 0) return false;
  for (std::size_t i = 1; i < values.size(); ++i) {
    long long step = values[i] - values[i - 1];
    if ((step > 0) != (whole > 0) || step == 0) return false;
    if (std::abs(step) * 10 * static_cast<long long>(values.size() - 1) < std::abs(whole))
      return false;
  }
  return true;
}

namespace {

// Follows a game that goes on, and keeps what comes again and what grows.
class EndlessWay {
 public:
  EndlessWay(const Game& game, const std::vector<Move>& moves, std::size_t limit)
      : game_(game), moves_(moves), limit_(limit), position_(game.start()) {}

  Endless run() {
    met_[game_.identity(position_)] = {0, claims_};
    std::size_t middle = limit_ / 2;
    std::size_t step = std::max<std::size_t>(1, (moves_.size() - middle) / looks);
    for (std::size_t ply = 1; ply <= moves_.size(); ++ply) {
      game_.apply(position_, moves_[ply - 1]);
      Result result = game_.result(position_);
      claims_ += result.claim ? 1 : 0;
      if (result.kind != ResultKind::ongoing && !result.claim) return {};  // only long
      if (ply <= limit_ && comesAgain(ply)) return std::move(out_);
      if (ply == enough) shown_ = numbersOf(game_.positionText(position_));
      if (ply < middle || (ply - middle) % step != 0) continue;
      for (const auto& [name, value] : numbersOf(game_.positionText(position_)))
        numbers_[name].push_back(value);
    }
    runningAway(middle);
    return std::move(out_);
  }

 private:
  static constexpr std::size_t enough = 24;  // plies that show numbers running away
  static constexpr std::size_t looks = 8;    // at numbers, evenly spread from the middle on

  std::string goesOn() const {
    return fmt::format("a playout went on for {} plies without an end", grouped(limit_));
  }
  bool comesAgain(std::size_t ply) {
    auto [it, fresh] = met_.insert({game_.identity(position_), {ply, claims_}});
    if (fresh || it->second.second != claims_) return false;  // somebody could have claimed an end
    out_.kind = FindingKind::endless;
    out_.moves.assign(moves_.begin(), moves_.begin() + static_cast<std::ptrdiff_t>(ply));
    out_.message = fmt::format("{}; after ply {} the position of ply {} comes again", goesOn(), ply,
                               it->second.first);
    out_.expects = "draw  # or whatever should hold when a position comes again";
    return true;
  }
  void runningAway(std::size_t middle) {
    for (const auto& [name, values] : numbers_) {
      if (values.size() < looks || !runsAway(values)) continue;
      if (!out_.kind) out_.message = goesOn();
      out_.kind = FindingKind::growing;
      out_.message += fmt::format("; {} ran away, from {} after ply {} to {} after ply {}", name,
                                  values.front(), middle, values.back(), moves_.size());
      if (out_.expects.empty()) out_.expects = expects(name, values.back() > values.front());
    }
    if (out_.kind)
      out_.moves.assign(moves_.begin(), moves_.begin() + static_cast<std::ptrdiff_t>(
                                                             std::min(moves_.size(), enough)));
  }
  std::string expects(const std::string& name, bool grows) const {
    std::string what = name;
    for (const std::string& number : game_.info().cellNumbers)
      if (name == number) what = "total " + name + " of c for c in all";
    auto it = shown_.find(name);
    long long value = it == shown_.end() ? 0 : it->second;
    if (!grows && value < 0) return what + " >= 0";
    return fmt::format("{} {} {}  # put the bound that should hold here", what, grows ? "<" : ">",
                       value);
  }

  const Game& game_;
  const std::vector<Move>& moves_;
  std::size_t limit_;
  Position position_;
  std::size_t claims_ = 0;  // positions so far in which an end could be claimed
  std::map<std::vector<std::uint64_t>, std::pair<std::size_t, std::size_t>> met_;
  std::map<std::string, std::vector<long long>> numbers_;
  std::map<std::string, long long> shown_;
  Endless out_;
};

}  // namespace

Endless endlessWay(const Game& game, const std::vector<Move>& moves, std::size_t limit) {
  return EndlessWay(game, moves, limit).run();
}

}  // namespace ninepegs::verify
