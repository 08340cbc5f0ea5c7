// What a tree of playouts says: the best move, the play that is expected, how every move did.
#include <cmath>

#include "ninepegs/play/playout_tree.hpp"

namespace ninepegs::play {

// Of two moves, is the first to be preferred?
bool PlayoutTree::better(const Node& a, const Node& b) const {
  auto rank = [](const Node& one) {
    return one.proven == winOf(one.mover) ? 2 : one.proven == winOf(1 - one.mover) ? 0 : 1;
  };
  if (rank(a) != rank(b)) return rank(a) > rank(b);
  return a.visits > b.visits;
}

std::uint32_t PlayoutTree::preferred(const Node& node) const {
  std::uint32_t best = node.children;
  for (std::uint32_t i = node.children; i < node.children + node.count; ++i)
    if (better(nodes_[i], nodes_[best])) best = i;
  return best;
}

std::int64_t PlayoutTree::scoreOf(const Node& node) const {
  if (node.proven == winOf(node.mover)) return winScore - 1;
  if (node.proven == winOf(1 - node.mover)) return 1 - winScore;
  double mean = node.visits == 0 || node.proven == Proven::draw
                    ? 0.5
                    : static_cast<double>(node.sum) / node.visits;
  return std::llround(2000 * (mean - 0.5));
}

// The play that is expected from here, beginning with the move that leads here.
std::vector<Move> PlayoutTree::lineFrom(std::uint32_t at) const {
  std::vector<Move> line;
  while (true) {
    if (!nodes_[at].part) line.push_back(nodes_[at].move);
    if (nodes_[at].children == 0) return line;
    std::uint32_t next = preferred(nodes_[at]);
    if (!nodes_[at].part && nodes_[next].visits == 0 && nodes_[next].proven == Proven::open)
      return line;
    at = next;
  }
}

// The moves below a node, which is the root or a part of moves.
void PlayoutTree::weigh(std::uint32_t at, Choice& choice) const {
  for (std::uint32_t i = nodes_[at].children; i < nodes_[at].children + nodes_[at].count; ++i) {
    const Node& node = nodes_[i];
    if (node.part)
      weigh(i, choice);
    else
      choice.weighed.push_back({node.move, scoreOf(node), node.visits, lineFrom(i)});
  }
}

Choice PlayoutTree::chosen() const {
  Choice choice;
  std::uint32_t at = preferred(nodes_[0]);
  while (nodes_[at].part) at = preferred(nodes_[at]);
  choice.move = nodes_[at].move;
  choice.solved = nodes_[0].proven != Proven::open;
  choice.score = scoreOf(nodes_[at]);
  choice.line = lineFrom(at);
  choice.depth = static_cast<int>(choice.line.size());
  choice.byPlayouts = true;
  weigh(0, choice);
  return choice;
}

Choice::Step PlayoutTree::step(std::uint64_t playouts, double seconds) const {
  std::uint32_t at = preferred(nodes_[0]);
  while (nodes_[at].part) at = preferred(nodes_[at]);
  std::vector<Move> line = lineFrom(at);
  return {static_cast<int>(line.size()), scoreOf(nodes_[at]), playouts, seconds, line, false, true};
}

}  // namespace ninepegs::play
