#include "ninepegs/play/playout_tree.hpp"

#include <algorithm>
#include <cmath>

#include "ninepegs/play/measure.hpp"

namespace ninepegs::play {
namespace {

constexpr double exploration = 1.0;
constexpr int wide = 20;             // children; then a bound of one that was never tried ...
constexpr double firstPlay = 1.3;    // ... is this
constexpr int longestPlayout = 400;  // plies; then nobody has won
constexpr int measuredPlayout = 24;  // ... and the measure says who is ahead
constexpr int sightedPlies = 2;      // of a playout, that see a win at once
constexpr double rapidWeight = 600;  // visits at which its own results count as much as rapid ones
constexpr double rapidExploration = 0.25;
constexpr std::size_t moveKeys = 1 << 14;
constexpr int keptPlies = 2;               // between the last position and one that goes on from it
constexpr std::uint64_t dearestSight = 4;  // positions to see a win in one, for each ply played
constexpr std::uint64_t mostSeenAtOnce = 400'000;  // positions, to see what loses at once
constexpr std::size_t manyMoves = 64;  // from so many on they are taken apart by their choices

// A number for moves that read alike, in whatever position; different moves may share one.
std::size_t nodeKey(const Move& move) {
  std::size_t key = move.group;
  for (int i = 0; i < move.count; ++i) key = key * 1009 + move.choices[static_cast<std::size_t>(i)];
  return key % moveKeys;
}

// What tells moves apart: first which move of the sheet it is, then choice by choice.
int keyAt(const Move& move, int level) {
  if (level == 0) return move.group;
  return level <= move.count ? move.choices[static_cast<std::size_t>(level - 1)] : -1;
}

}  // namespace

void PlayoutTree::begin(const Game& game, const Position& position, std::uint64_t megabytes) {
  most_ = std::min<std::uint64_t>((megabytes << 20) / sizeof(Node), 0xfffffff0u);
  measured_ = game.measure() != nullptr;
  bool kept = game_.is(game) && goOnFrom(position);
  if (!kept) live_ = game.live();
  game_ = game;
  live_->setUp(position);
  root_ = position;
  bool wasRapid = rapid_;
  rapid_ = movesStay(position);
  kept = kept && rapid_ == wasRapid;  // else it was grown in another way
  for (std::vector<std::uint32_t>& keys : playedAt_) keys.assign(rapid_ ? moveKeys : 0, 0);
  playout_ = 0;
  if (!kept) {
    nodes_.assign(1, {});
    nodes_[0].mover = static_cast<std::uint8_t>(1 - live_->toMove());
  }
  // There is room for the first moves in any case.
  most_ = std::max<std::uint64_t>(most_, nodes_.size() + 2 * live_->moveCount());
  if (nodes_[0].children == 0) expand(0);
  std::uint64_t left = mostSeenAtOnce;
  seeAtOnce(0, left);
}

// Which moves end the game, and after which can the other side win with its next?
void PlayoutTree::seeAtOnce(std::uint32_t at, std::uint64_t& left) {
  for (std::uint32_t i = nodes_[at].children; i < nodes_[at].children + nodes_[at].count; ++i) {
    if (nodes_[i].part) {
      seeAtOnce(i, left);
      prove(i);
      continue;
    }
    if (nodes_[i].proven != Proven::open || left == 0) continue;
    int mover = nodes_[i].mover;
    live_->play(nodes_[i].move);
    double unused = 0;
    std::uint64_t seen = 0;
    if (!ended(i, unused) && live_->toMove() != mover &&
        winsAtOnce(*live_, 1 - mover, moves_, seen))
      nodes_[i].proven = winOf(1 - mover);
    live_->takeBack();
    left -= std::min(left, seen + 1);
  }
  if (at == 0) prove(0);
}

// Is it the last position, a few moves on? Then what is known of it becomes the tree.
bool PlayoutTree::goOnFrom(const Position& position) {
  std::uint64_t wanted = game_->hash(position);
  live_->setUp(root_);
  auto look = [&](auto& again, std::uint32_t at) -> bool {
    if (!nodes_[at].part && live_->hash() == wanted && live_->position() == position)
      return keepFrom(at);
    if (live_->plies() == keptPlies || nodes_[at].children == 0) return false;
    for (std::uint32_t i = 0; i < nodes_[at].count; ++i) {
      std::uint32_t child = nodes_[at].children + i;
      if (nodes_[child].visits == 0) continue;
      if (nodes_[child].part) {
        if (again(again, child)) return true;
        continue;
      }
      live_->play(nodes_[child].move);
      bool found = again(again, child);
      live_->takeBack();
      if (found) return true;
    }
    return false;
  };
  return look(look, 0);
}

// Leaves only what is below a node, which becomes the root.
bool PlayoutTree::keepFrom(std::uint32_t at) {
  std::vector<Node> kept = {nodes_[at]};
  for (std::size_t i = 0; i < kept.size(); ++i) {
    if (kept[i].children == 0) continue;
    auto from = nodes_.begin() + kept[i].children;
    kept[i].children = static_cast<std::uint32_t>(kept.size());
    kept.insert(kept.end(), from, from + kept[i].count);
  }
  nodes_ = std::move(kept);
  return true;
}

void PlayoutTree::addMoves(const PlayoutTree& other, std::uint32_t mine, std::uint32_t theirs) {
  for (std::uint32_t i = 0; i < nodes_[mine].count; ++i) {
    Node& one = nodes_[nodes_[mine].children + i];
    const Node& more = other.nodes_[other.nodes_[theirs].children + i];
    one.visits += more.visits;
    one.sum += more.sum;
    if (one.proven == Proven::open) one.proven = more.proven;
    if (one.part) addMoves(other, nodes_[mine].children + i, other.nodes_[theirs].children + i);
  }
  prove(mine);
}

// Requires that the live position is the node's. False: there is no room for its moves.
bool PlayoutTree::expand(std::uint32_t at) {
  live_->listMoves(moves_);
  if (moves_.empty()) return true;  // it has no children, whenever it is come to
  bool apart = (!rapid_ && moves_.size() >= manyMoves) || moves_.size() > 0xffff;
  // Parts of moves are fewer than the moves.
  if (nodes_.size() + moves_.size() * (apart ? 2 : 1) > most_) return false;
  if (apart) {
    std::sort(moves_.begin(), moves_.end(), [](const Move& a, const Move& b) {
      for (int level = 0;; ++level)
        if (a == b || keyAt(a, level) != keyAt(b, level)) return keyAt(a, level) < keyAt(b, level);
    });
    addChildren(at, 0, moves_.size(), 0);
    return true;
  }
  nodes_[at].children = static_cast<std::uint32_t>(nodes_.size());
  nodes_[at].count = static_cast<std::uint16_t>(moves_.size());
  for (const Move& move : moves_) addNode(move, false);
  return true;
}

void PlayoutTree::addNode(const Move& move, bool part) {
  Node node;
  node.move = move;
  node.mover = static_cast<std::uint8_t>(live_->toMove());
  node.part = part;
  nodes_.push_back(node);
}

// The moves, sorted, from one to before another, which are alike before this level.
void PlayoutTree::addChildren(std::uint32_t at, std::size_t from, std::size_t to, int level) {
  while (keyAt(moves_[from], level) == keyAt(moves_[to - 1], level)) ++level;
  auto children = static_cast<std::uint32_t>(nodes_.size());
  auto endOf = [&](std::size_t first) {
    std::size_t end = first + 1;
    while (end < to && keyAt(moves_[end], level) == keyAt(moves_[first], level)) ++end;
    return end;
  };
  for (std::size_t first = from; first < to; first = endOf(first))
    addNode(moves_[first], endOf(first) > first + 1);
  nodes_[at].children = children;
  nodes_[at].count = static_cast<std::uint16_t>(nodes_.size() - children);
  std::uint32_t child = children;
  for (std::size_t first = from; first < to; first = endOf(first), ++child)
    if (nodes_[child].part) addChildren(child, first, endOf(first), level + 1);
}

// Do most moves stay possible for a while?
bool PlayoutTree::movesStay(const Position& position) {
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
void PlayoutTree::note(const Move& move, int side) {
  if (!rapid_) return;
  ++ply_;
  std::uint32_t& at = playedAt_[side][nodeKey(move)];
  // The last time counts: so it is told whether it was behind a node of the path.
  at = (playout_ << 10) | static_cast<std::uint32_t>(std::min(ply_, 1023));
}
// Was the move made in this playout behind so many plies?
bool PlayoutTree::madeAfter(const Move& move, int side, std::size_t plies) const {
  std::uint32_t at = playedAt_[side][nodeKey(move)];
  return at >> 10 == playout_ && (at & 1023) > plies;
}

// One playout: down the tree, a new part of it, a game to its end, and back.
void PlayoutTree::grow(Stream& stream) {
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
    if (nodes_[at].part) continue;
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

bool PlayoutTree::ended(std::uint32_t at, double& forFirst) {
  Outcome outcome = live_->outcome();
  if (outcome.kind == ResultKind::ongoing) return false;
  bool win = outcome.kind == ResultKind::win;
  nodes_[at].proven = win ? winOf(outcome.winner) : Proven::draw;
  forFirst = !win ? 0.5 : outcome.winner == 0 ? 1 : 0;
  return true;
}

// The child with the highest bound. One that was never tried comes first; where there are many
// children, only before those that did badly.
std::uint32_t PlayoutTree::best(std::uint32_t at, Stream& stream) {
  if (rapid_) return bestRapid(at, stream);
  const Node& node = nodes_[at];
  std::uint32_t fresh = 0, chosen = node.children;
  double most = -1, log = std::log(static_cast<double>(std::max(1u, node.visits)));
  for (std::uint32_t i = node.children; i < node.children + node.count; ++i) {
    const Node& child = nodes_[i];
    if (child.proven == winOf(child.mover)) return i;
    if (child.proven == winOf(1 - child.mover)) continue;
    if (child.visits == 0) {
      ++fresh;
      continue;
    }
    double bound = static_cast<double>(child.sum) / child.visits +
                   exploration * std::sqrt(log / static_cast<double>(child.visits));
    if (bound > most) most = bound, chosen = i;
  }
  if (fresh == 0 || (node.count >= wide && most >= firstPlay)) return chosen;
  std::uint32_t nth = stream.below(fresh);
  for (std::uint32_t i = node.children;; ++i) {
    bool lost = nodes_[i].proven == winOf(1 - nodes_[i].mover);
    if (nodes_[i].visits == 0 && !lost && nth-- == 0) return i;
  }
}

// The same where rapid results stand in for those that are not there yet.
std::uint32_t PlayoutTree::bestRapid(std::uint32_t at, Stream& stream) {
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

void PlayoutTree::prove(std::uint32_t at) {
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
double PlayoutTree::playOut(Stream& stream) {
  int longest = measured_ ? measuredPlayout : longestPlayout;
  for (int ply = 0; ply < longest && !live_->ended(); ++ply, ++played_) {
    if (ply < sightedPlies && seen_ <= played_ * dearestSight &&
        winsAtOnce(*live_, live_->toMove(), moves_, seen_))
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

}  // namespace ninepegs::play
