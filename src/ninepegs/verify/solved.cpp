#include "ninepegs/verify/solved.hpp"

#include <algorithm>

namespace ninepegs::verify {
namespace {

constexpr std::uint32_t nobody = 0xffffffffu;
constexpr std::size_t longestLine = 200;  // of best play where nobody wins

// What leads to each position.
struct Before {
  explicit Before(const PositionGraph& graph) : first(graph.size() + 1, 0) {
    for (std::uint32_t to : graph.followers) ++first[to + 1];
    for (std::size_t i = 1; i < first.size(); ++i) first[i] += first[i - 1];
    from.resize(graph.followers.size());
    std::vector<std::uint64_t> next(first.begin(), first.end() - 1);
    for (std::uint32_t at = 0; at < graph.size(); ++at)
      for (std::uint64_t i = graph.first[at]; i < graph.first[at + 1]; ++i)
        from[next[graph.followers[i]]++] = at;
  }
  std::vector<std::uint64_t> first;
  std::vector<std::uint32_t> from;
};

// Wins, backwards from where they stand on the board: a position is won by the side to move if one
// follower is, and by the other if all are. Positions come in order of plies.
void backwards(const PositionGraph& graph, const Before& before, Solved& out) {
  std::vector<std::uint32_t> left(graph.size()), queue;
  for (std::uint32_t at = 0; at < graph.size(); ++at) {
    left[at] = static_cast<std::uint32_t>(graph.first[at + 1] - graph.first[at]);
    if (graph.result[at] < 0 || graph.result[at] == Solved::neither) continue;
    out.winner[at] = graph.result[at];
    queue.push_back(at);
  }
  for (std::size_t next = 0; next < queue.size(); ++next) {
    std::uint32_t at = queue[next];
    std::int8_t winner = out.winner[at];
    for (std::uint64_t i = before.first[at]; i < before.first[at + 1]; ++i) {
      std::uint32_t from = before.from[i];
      if (graph.result[from] >= 0 || out.winner[from] != Solved::neither) continue;
      if (graph.mover[from] != winner && --left[from] > 0) continue;
      out.winner[from] = winner;
      out.plies[from] = out.plies[at] + 1;
      queue.push_back(from);
    }
  }
}

// A longest way by taking positions only after all that lead to them; none if some never come.
std::optional<std::vector<std::uint32_t>> longestWay(const PositionGraph& graph,
                                                     const Before& before) {
  std::vector<std::uint32_t> left(graph.size()), plies(graph.size(), 0), from(graph.size(), nobody),
      queue;
  for (std::uint32_t at = 0; at < graph.size(); ++at) {
    left[at] = static_cast<std::uint32_t>(before.first[at + 1] - before.first[at]);
    if (left[at] == 0) queue.push_back(at);
  }
  for (std::size_t next = 0; next < queue.size(); ++next) {
    std::uint32_t at = queue[next];
    for (std::uint64_t i = graph.first[at]; i < graph.first[at + 1]; ++i) {
      std::uint32_t to = graph.followers[i];
      if (from[to] == nobody || plies[at] + 1 > plies[to]) plies[to] = plies[at] + 1, from[to] = at;
      if (--left[to] == 0) queue.push_back(to);
    }
  }
  if (queue.size() < graph.size()) return std::nullopt;
  auto last = std::max_element(plies.begin(), plies.end());
  std::vector<std::uint32_t> way;
  for (auto at = static_cast<std::uint32_t>(last - plies.begin()); at != nobody; at = from[at])
    way.push_back(at);
  std::reverse(way.begin(), way.end());
  return way;
}

// The winner hurries, the loser puts it off; where nobody wins, both go where nobody does, to a
// drawn end where one follows.
std::vector<std::uint32_t> bestPlay(const PositionGraph& graph, const Solved& solved) {
  std::vector<std::uint32_t> line = {0};
  std::vector<bool> met(graph.size(), false);
  met[0] = true;
  while (graph.result[line.back()] < 0) {
    std::uint32_t at = line.back(), best = nobody;
    std::int8_t winner = solved.winner[at];
    if (winner == Solved::neither && line.size() > longestLine) break;
    auto better = [&](std::uint32_t a, std::uint32_t b) {
      if (winner == Solved::neither) return graph.result[a] >= 0 && graph.result[b] < 0;
      bool hurries = graph.mover[at] == winner;
      return hurries ? solved.plies[a] < solved.plies[b] : solved.plies[a] > solved.plies[b];
    };
    for (std::uint64_t i = graph.first[at]; i < graph.first[at + 1]; ++i) {
      std::uint32_t to = graph.followers[i];
      if (solved.winner[to] != winner || (winner == Solved::neither && met[to])) continue;
      if (best == nobody || better(to, best)) best = to;
    }
    if (best == nobody) break;
    met[best] = true;
    line.push_back(best);
  }
  return line;
}

}  // namespace

std::uint64_t PositionGraph::bytes() const {
  return first.capacity() * sizeof(std::uint64_t) + followers.capacity() * sizeof(std::uint32_t) +
         mover.capacity() + result.capacity();
}

std::uint64_t PositionGraph::bytesToSolve() const {
  constexpr std::uint64_t aPosition = 2 * 8 + 5 * 4 + 1;  // before, its sums, lists of numbers
  return size() * aPosition + followers.size() * sizeof(std::uint32_t);
}

Solved solve(const PositionGraph& graph) {
  Solved out;
  out.winner.assign(graph.size(), Solved::neither);
  out.plies.assign(graph.size(), 0);
  Before before(graph);
  backwards(graph, before, out);
  out.longest = longestWay(graph, before);
  out.best = bestPlay(graph, out);
  return out;
}

}  // namespace ninepegs::verify
