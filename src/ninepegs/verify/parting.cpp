// The shortest game on which a mutant and its sheet part.
#include <algorithm>
#include <unordered_set>

#include "ninepegs/verify/asked.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {

Parting Mutants::parting(const Mutant& mutant, std::size_t budget) const {
  Parting out;
  try {
    StopScope stop(options_.stop);
    WorkScope work(limits::mutantSteps);
    part(mutant, budget, out);
    return out;
  } catch (const Stopped&) {
  } catch (const BadInput&) {  // it takes too long, or comes to no end
  }
  out.shortest = false;  // not all were tried
  return out;
}

void Mutants::part(const Mutant& mutant, std::size_t budget, Parting& out) const {
  if (!mutant.shows.empty() && mutant.shows.front().kind == Difference::Kind::start) {
    out.shortest = true;
    out.difference = mutant.shows.front();
    return;
  }
  struct Node {
    Scene scene;
    std::size_t parent;
    Move move;
  };
  std::vector<Node> nodes;
  std::unordered_set<std::uint64_t> met;
  std::unique_ptr<LivePosition> live = game_.live();
  Asked asked(*this, *mutant.game);
  nodes.push_back({{game_.start(), Steer::uniform, 0, true, {}}, 0, {}});
  met.insert(game_.hash(game_.start()));
  std::vector<Difference> found;
  int best = 0;
  std::size_t work = 0;
  for (std::size_t at = 0; at < nodes.size() && !wantsStop(options_.stop); ++at) {
    if (out.shortest && nodes[at].scene.plies >= best) break;
    if (game_.ended(nodes[at].scene.position)) continue;
    Answer answer = answerOf(nodes[at].scene, *live);
    found.clear();
    asked.differences(answer, 0, 1, found);
    using enum Difference::Kind;
    Difference::Kind kind = found.empty() ? start : found.front().kind;
    bool made = kind == after || kind == result || kind == told || kind == seen;  // by the move
    int length = nodes[at].scene.plies + (made ? 1 : 0);
    if (!found.empty() && (!out.shortest || length < best)) {
      out.moves.clear();
      for (std::size_t i = at; i != 0; i = nodes[i].parent) out.moves.push_back(nodes[i].move);
      std::reverse(out.moves.begin(), out.moves.end());
      if (made) out.moves.push_back(answer.moves[found.front().move]);
      out.shortest = true;
      out.difference = found.front();
      best = length;
    }
    if (out.shortest) continue;
    work += answer.moves.size();
    if (work > budget) break;
    for (std::size_t i = 0; i < answer.moves.size(); ++i)
      if (met.insert(game_.hash(answer.after[i])).second)
        nodes.push_back({{answer.after[i], Steer::uniform, nodes[at].scene.plies + 1, true, {}},
                         at,
                         answer.moves[i]});
  }
}

}  // namespace ninepegs::verify
