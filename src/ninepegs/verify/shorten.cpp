#include "ninepegs/verify/shorten.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/inspect.hpp"

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

Shortened shorten(const Game& game, FindingKind kind, int line, const Evidence::FirstSeen& seen,
                  const ShortenOptions& options) {
  Shortener shortener(game, kind, line, seen);
  std::vector<Move> kept = seen.moves;
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

// The whole numbers of a position's text by what stands before them.
static std::map<std::string, long long> numbersOf(const std::string& text) {
  std::map<std::string, long long> out;
  for (const std::string& part : splitTrimmed(text, ';')) {
    std::size_t blank = part.rfind(' ');
    if (blank == std::string::npos) continue;
    std::string digits = part.substr(blank + 1);
    bool below = !digits.empty() && digits[0] == '-';
    if (std::optional<unsigned long long> value = wholeNumber(digits.substr(below ? 1 : 0)))
      out[part.substr(0, blank)] =
          below ? -static_cast<long long>(*value) : static_cast<long long>(*value);
  }
  return out;
}

Endless endlessWay(const Game& game, const std::vector<Move>& moves) {
  constexpr std::size_t enough = 24;  // plies that show numbers running away
  std::map<std::vector<std::uint64_t>, std::size_t> met;
  std::vector<Position> positions = {game.start()};
  met[game.identity(positions[0])] = 0;
  Endless out;
  for (const Move& move : moves) {
    positions.push_back(positions.back());
    game.apply(positions.back(), move);
    out.moves.push_back(move);
    std::size_t ply = positions.size() - 1;
    auto [it, fresh] = met.insert({game.identity(positions.back()), ply});
    if (fresh) continue;
    out.message = fmt::format(
        "a playout went on for {} plies without an end; after ply {} the position of ply {} comes "
        "again",
        moves.size(), ply, it->second);
    return out;
  }
  out.message = fmt::format("a playout went on for {} plies without an end", moves.size());
  std::size_t middle = positions.size() / 2;
  std::map<std::string, long long> was = numbersOf(game.positionText(positions[middle])),
                                   is = numbersOf(game.positionText(positions.back()));
  for (const auto& [name, value] : is) {
    auto before = was.find(name);
    if (before == was.end() || before->second == value) continue;
    out.message += fmt::format("; {} ran away, from {} after ply {} to {}", name, before->second,
                               middle, value);
  }
  out.moves.resize(std::min(out.moves.size(), enough));
  return out;
}

}  // namespace ninepegs::verify
