// A tree of moves that grows where playouts from it go well: upper confidence bounds for trees
// (L. Kocsis, C. Szepesvari, "Bandit based Monte-Carlo planning", 2006), with results that are
// proved backed up exactly (M. Winands, Y. Bjornsson, J. Saito, "Monte-Carlo tree search solver",
// 2008). Where moves stay possible for long, such as placing on an empty cell, a move also learns
// from playouts in which it came later (S. Gelly, D. Silver, "Combining online and offline
// knowledge in UCT", 2007).
#include <algorithm>
#include <chrono>
#include <cmath>

#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/over_pasts.hpp"

namespace ninepegs::play {
namespace {

constexpr std::uint64_t usualMegabytes = 64;
constexpr double exploration = 1.0;
constexpr int longestPlayout = 400;  // plies; then nobody has won
constexpr int measuredPlayout = 24;  // ... and the measure says who is ahead
constexpr int sightedPlies = 2;      // of a playout, that see a win at once
constexpr double rapidWeight = 600;  // visits at which its own results count as much as rapid ones
constexpr double rapidExploration = 0.25;
constexpr std::size_t moveKeys = 1 << 14;

// Who wins with best play, as far as it is known.
enum class Proven : std::uint8_t { firstWins, secondWins, draw, open };

struct Node {
  Move move;                   // that leads here
  std::uint32_t children = 0;  // where they begin; 0: not expanded
  std::uint16_t count = 0;
  std::uint8_t mover = 0;  // who made the move
  Proven proven = Proven::open;
  std::uint32_t visits = 0;
  float sum = 0;  // of results, for the mover: 1 a win, 1/2 a draw
  // The same of playouts in which the mover made the move later.
  std::uint32_t rapidVisits = 0;
  float rapidSum = 0;
};

// A number for moves that read alike, in whatever position; different moves may share one.
std::size_t keyOf(const Move& move) {
  std::size_t key = move.group;
  for (int i = 0; i < move.count; ++i) key = key * 1009 + move.choices[static_cast<std::size_t>(i)];
  return key % moveKeys;
}

class PlayoutTree final : public Opponent {
 public:
  explicit PlayoutTree(const PlayoutLimits& limits) : limits_(limits) {}

  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    auto begun = std::chrono::steady_clock::now();
    auto seconds = [&] {
      return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    };
    live_ = game.live();
    measured_ = game.measure() != nullptr;
    live_->setUp(position);
    std::uint64_t megabytes = limits_.megabytes == 0 ? usualMegabytes : limits_.megabytes;
    most_ = std::min<std::uint64_t>((megabytes << 20) / sizeof(Node), 0xfffffff0u);
    rapid_ = movesStay(position);
    for (std::vector<std::uint32_t>& keys : playedAt_) keys.assign(rapid_ ? moveKeys : 0, 0);
    playout_ = 0;
    nodes_.clear();
    nodes_.emplace_back();
    nodes_[0].mover = static_cast<std::uint8_t>(1 - live_->toMove());
    expand(0);
    std::uint64_t played = 0;
    while (nodes_[0].proven == Proven::open && nodes_[0].count > 1) {
      if (limits_.playouts > 0 && played >= limits_.playouts) break;
      if (played % 16 == 0 && played > 0 &&
          ((limits_.seconds > 0 && seconds() >= limits_.seconds) || wantsStop(stop_)))
        break;
      grow(stream);
      ++played;
    }
    return chosen(played, seconds());
  }

  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    OverPasts limits{limits_.pasts, 0, 0, limits_.playouts, limits_.seconds};
    return pasts_.playouts(game, knowledge, limits, stream, stop_);
  }

  std::string name() const override { return nameOf(limits_); }

 private:
  static Proven winOf(int side) { return side == 0 ? Proven::firstWins : Proven::secondWins; }

  // Requires that the live position is the node's. False: there is no room for its moves.
  bool expand(std::uint32_t at) {
    live_->listMoves(moves_);
    if (moves_.size() > 0xffff || nodes_.size() + moves_.size() > most_) return false;
    nodes_[at].children = static_cast<std::uint32_t>(nodes_.size());
    nodes_[at].count = static_cast<std::uint16_t>(moves_.size());
    auto mover = static_cast<std::uint8_t>(live_->toMove());
    for (const Move& move : moves_) {
      Node child;
      child.move = move;
      child.mover = mover;
      nodes_.push_back(child);
    }
    return true;
  }

  // Do most moves stay possible for a while?
  bool movesStay(const Position& position) {
    constexpr int games = 4, plies = 6;
    std::size_t stayed = 0, all = 0;
    MoveList first, later;
    for (int number = 0; number < games; ++number) {
      Stream stream(1, static_cast<std::uint64_t>(number));
      live_->setUp(position);
      int side = live_->toMove();
      live_->listMoves(first);
      for (int ply = 0; ply < plies && !live_->ended(); ++ply)
        if (!live_->playDrawn(stream)) break;
      if (live_->ended() || live_->toMove() != side) continue;
      live_->listMoves(later);
      for (const Move& move : first)
        stayed += std::find(later.begin(), later.end(), move) != later.end();
      all += first.size();
    }
    live_->setUp(position);
    return all > 0 && stayed * 3 >= all * 2;
  }

  // A move of this playout, at a ply counted from 1.
  void note(const Move& move, int side) {
    if (!rapid_) return;
    ++ply_;
    std::uint32_t& at = playedAt_[side][keyOf(move)];
    // The last time counts: so it is told whether it was behind a node of the path.
    at = (playout_ << 10) | static_cast<std::uint32_t>(std::min(ply_, 1023));
  }
  // Was the move made in this playout behind so many plies?
  bool madeAfter(const Move& move, int side, std::size_t plies) const {
    std::uint32_t at = playedAt_[side][keyOf(move)];
    return at >> 10 == playout_ && (at & 1023) > plies;
  }

  // One playout: down the tree, a new part of it, a game to its end, and back.
  void grow(Stream& stream) {
    playout_ = playout_ % ((1u << 22) - 1) + 1;
    ply_ = 0;
    path_.assign(1, 0);
    std::uint32_t at = 0;
    double forFirst = 0.5;  // the result for the first side
    while (true) {
      if (at != 0 && nodes_[at].children == 0) {
        if (ended(at, forFirst)) break;
        if (nodes_[at].visits == 0 || !expand(at)) {
          forFirst = playOut(stream);
          break;
        }
        if (nodes_[at].count == 0) {  // nobody can go on and no end holds
          nodes_[at].proven = Proven::draw;
          break;
        }
      }
      at = best(at, stream);
      path_.push_back(at);
      note(nodes_[at].move, nodes_[at].mover);
      live_->play(nodes_[at].move);
    }
    for (std::uint32_t node : path_) {
      Node& one = nodes_[node];
      ++one.visits;
      one.sum += static_cast<float>(one.mover == 0 ? forFirst : 1 - forFirst);
    }
    for (std::size_t depth = 0; rapid_ && depth < path_.size(); ++depth) {
      const Node& parent = nodes_[path_[depth]];
      for (std::uint32_t i = parent.children; i < parent.children + parent.count; ++i) {
        Node& child = nodes_[i];
        if (!madeAfter(child.move, child.mover, depth)) continue;
        ++child.rapidVisits;
        child.rapidSum += static_cast<float>(child.mover == 0 ? forFirst : 1 - forFirst);
      }
    }
    while (live_->plies() > 0) live_->takeBack();
    for (std::size_t i = path_.size(); i-- > 0;)
      if (nodes_[path_[i]].proven == Proven::open) prove(path_[i]);
  }

  bool ended(std::uint32_t at, double& forFirst) {
    Outcome outcome = live_->outcome();
    if (outcome.kind == ResultKind::ongoing) return false;
    bool win = outcome.kind == ResultKind::win;
    nodes_[at].proven = win ? winOf(outcome.winner) : Proven::draw;
    forFirst = !win ? 0.5 : outcome.winner == 0 ? 1 : 0;
    return true;
  }

  // The child with the highest bound; one that was never tried comes first.
  std::uint32_t best(std::uint32_t at, Stream& stream) {
    if (rapid_) return bestRapid(at, stream);
    const Node& node = nodes_[at];
    std::uint32_t fresh = 0, chosen = node.children;
    double most = -1, log = std::log(static_cast<double>(std::max(1u, node.visits)));
    for (std::uint32_t i = node.children; i < node.children + node.count; ++i) {
      const Node& child = nodes_[i];
      if (child.proven == winOf(child.mover)) return i;
      if (child.proven == winOf(1 - child.mover)) continue;
      if (child.visits == 0) {
        if (stream.below(++fresh) == 0) chosen = i;
        continue;
      }
      if (fresh > 0) continue;
      double bound = static_cast<double>(child.sum) / child.visits +
                     exploration * std::sqrt(log / static_cast<double>(child.visits));
      if (bound > most) most = bound, chosen = i;
    }
    return chosen;
  }

  // The same where rapid results stand in for those that are not there yet.
  std::uint32_t bestRapid(std::uint32_t at, Stream& stream) {
    const Node& node = nodes_[at];
    std::uint32_t chosen = node.children, alike = 0;
    double most = -1, log = std::log(static_cast<double>(std::max(1u, node.visits)));
    for (std::uint32_t i = node.children; i < node.children + node.count; ++i) {
      const Node& child = nodes_[i];
      if (child.proven == winOf(child.mover)) return i;
      if (child.proven == winOf(1 - child.mover)) continue;
      auto visits = static_cast<double>(child.visits);
      double rapid =
          child.rapidVisits == 0 ? 1 : static_cast<double>(child.rapidSum) / child.rapidVisits;
      double weight = child.visits == 0 ? 1 : std::sqrt(rapidWeight / (3 * visits + rapidWeight));
      double own = child.visits == 0 ? 0 : static_cast<double>(child.sum) / visits;
      double bound =
          (1 - weight) * own + weight * rapid + rapidExploration * std::sqrt(log / (visits + 1));
      if (bound > most)
        most = bound, chosen = i, alike = 1;
      else if (bound == most && stream.below(++alike) == 0)
        chosen = i;
    }
    return chosen;
  }

  void prove(std::uint32_t at) {
    Node& node = nodes_[at];
    if (node.children == 0) return;
    bool open = false, draw = false;
    int mover = nodes_[node.children].mover;
    for (std::uint32_t i = node.children; i < node.children + node.count; ++i) {
      if (nodes_[i].proven == winOf(mover)) {
        node.proven = winOf(mover);
        return;
      }
      open = open || nodes_[i].proven == Proven::open;
      draw = draw || nodes_[i].proven == Proven::draw;
    }
    if (!open) node.proven = draw ? Proven::draw : winOf(1 - mover);
  }

  // A game to its end, for the first side.
  double playOut(Stream& stream) {
    int longest = measured_ ? measuredPlayout : longestPlayout;
    std::uint64_t seen = 0;
    for (int ply = 0; ply < longest && !live_->ended(); ++ply) {
      if (ply < sightedPlies && winsAtOnce(*live_, live_->toMove(), moves_, seen))
        return live_->toMove() == 0 ? 1 : 0;
      if (!rapid_) {
        if (!live_->playDrawn(stream)) return 0.5;
        continue;
      }
      std::uint32_t count = live_->moveCount();
      if (count == 0) return 0.5;
      Move move = live_->moveAt(stream.below(count));
      note(move, live_->toMove());
      live_->play(move);
    }
    Outcome outcome = live_->outcome();
    if (outcome.kind == ResultKind::win) return outcome.winner == 0 ? 1 : 0;
    if (outcome.kind != ResultKind::ongoing || !measured_) return 0.5;
    std::int64_t worth = live_->worth(0);
    return worth > 0 ? 0.9 : worth < 0 ? 0.1 : 0.5;
  }

  // Of two moves, is the first to be preferred?
  bool better(const Node& a, const Node& b) const {
    auto rank = [](const Node& one) {
      return one.proven == winOf(one.mover) ? 2 : one.proven == winOf(1 - one.mover) ? 0 : 1;
    };
    if (rank(a) != rank(b)) return rank(a) > rank(b);
    return a.visits > b.visits;
  }

  std::uint32_t preferred(const Node& node) const {
    std::uint32_t best = node.children;
    for (std::uint32_t i = node.children; i < node.children + node.count; ++i)
      if (better(nodes_[i], nodes_[best])) best = i;
    return best;
  }

  Choice chosen(std::uint64_t played, double seconds) const {
    Choice choice;
    choice.nodes = played;
    choice.seconds = seconds;
    std::uint32_t at = preferred(nodes_[0]);
    const Node& node = nodes_[at];
    choice.move = node.move;
    choice.solved = nodes_[0].proven != Proven::open;
    double mean = node.visits == 0 ? 0.5 : static_cast<double>(node.sum) / node.visits;
    choice.score = node.proven == winOf(node.mover)       ? winScore - 1
                   : node.proven == winOf(1 - node.mover) ? 1 - winScore
                                                          : std::llround(2000 * (mean - 0.5));
    while (true) {
      choice.line.push_back(nodes_[at].move);
      ++choice.depth;
      if (nodes_[at].children == 0) break;
      at = preferred(nodes_[at]);
      if (nodes_[at].visits == 0 && nodes_[at].proven == Proven::open) break;
    }
    return choice;
  }

  PlayoutLimits limits_;
  std::unique_ptr<LivePosition> live_;
  bool measured_ = false;
  std::uint64_t most_ = 0;
  std::vector<Node> nodes_;
  std::vector<std::uint32_t> path_;
  bool rapid_ = false;
  // By side and key of a move: in which playout it was made last, and at which of its plies.
  std::vector<std::uint32_t> playedAt_[2];
  std::uint32_t playout_ = 0;
  int ply_ = 0;
  MoveList moves_;
  PastsPlayer pasts_;
};

}  // namespace

std::unique_ptr<Opponent> makePlayouts(const PlayoutLimits& limits) {
  return std::make_unique<PlayoutTree>(limits);
}

}  // namespace ninepegs::play
