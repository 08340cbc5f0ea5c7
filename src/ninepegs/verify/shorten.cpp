#include "ninepegs/verify/shorten.hpp"

#include <algorithm>
#include <set>

#include "ninepegs/verify/inspect.hpp"

namespace ninepegs::verify {
namespace {

class Shortener {
 public:
  Shortener(const Game& game, FindingKind kind, int line)
      : game_(game), inspector_(game), live_(game.live()), kind_(kind), line_(line) {}

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

  // Level by level through all different positions: the first fault met is at the least depth.
  std::optional<Shortened> all(std::size_t longest, std::size_t budget, const StopFlag* stop);

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
  FindingKind kind_;
  int line_;
  std::vector<Fault> faults_;
};

std::optional<Shortened> Shortener::all(std::size_t longest, std::size_t budget,
                                        const StopFlag* stop) {
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
  nodes.push_back({game_.start(), 0, {}});
  seen.insert(game_.identity(nodes[0].position));
  live_->setUp(nodes[0].position);
  if (shows()) return path(0);
  std::size_t levelEnd = 1, depth = 0;
  MoveList moves;
  Position after;
  for (std::size_t at = 0; at < nodes.size(); ++at) {
    if (at == levelEnd) {
      levelEnd = nodes.size();
      if (++depth >= longest) return std::nullopt;
    }
    if (nodes.size() > budget || wantsStop(stop)) return std::nullopt;
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
  live_->setUp(game_.start());
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

Shortened shorten(const Game& game, FindingKind kind, int line, const std::vector<Move>& moves,
                  std::size_t budget, const StopFlag* stop) {
  Shortener shortener(game, kind, line);
  if (std::optional<Shortened> best = shortener.all(moves.size(), budget, stop)) return *best;
  // Leave out ever smaller parts while the fault stays.
  std::vector<Move> kept = moves;
  for (std::size_t part = kept.size() / 2; part >= 1; part /= 2) {
    for (std::size_t from = 0; from + part <= kept.size();) {
      if (wantsStop(stop)) return {kept, false};
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

}  // namespace ninepegs::verify
