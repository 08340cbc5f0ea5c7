#include "ninepegs/play/solver.hpp"

#include <algorithm>
#include <chrono>
#include <cstdlib>

#include "ninepegs/play/images.hpp"
#include "ninepegs/play/prover.hpp"

namespace ninepegs::play {

constexpr std::size_t longestLine = 200;  // plies

// For the side that moves: the higher, the better.
static std::int64_t rankOf(const Solved::RootMove& move, int side) {
  if (!move.known) return -1;
  if (move.winner < 0) return 0;
  return move.winner == side ? 1'000'000 - move.plies : move.plies - 1'000'000;
}

void putBestFirst(std::vector<Solved::RootMove>& moves, int side) {
  std::stable_sort(moves.begin(), moves.end(),
                   [&](const auto& a, const auto& b) { return rankOf(a, side) > rankOf(b, side); });
}

namespace {

// The score of a win or a loss, said of the position or of a move; `before`: so many plies lead to
// where `mover` is to move and has that score.
template <class One>
void say(One& one, std::int64_t score, bool bound, int mover, int before) {
  one.known = true;
  one.winner = score > 0 ? mover : 1 - mover;
  one.plies = before + static_cast<int>(winScore - std::abs(score));
  one.atMost = bound;
}
template <class One>
void say(One& one, const Choice& choice, int mover, int before) {
  one.known = choice.solved;
  if (choice.depth > 0 && decides(choice.score))
    say(one, choice.score, choice.bound, mover, before);
}

// Best play of a win that is known to take so many plies and no fewer: the winner hurries, the
// loser puts it off. Shorter, if it was stopped on the way.
std::vector<Move> bestPlay(const Game& game, Position at, const Solved& solved, const Move& first,
                           Prover& prover, const std::function<bool(std::uint64_t)>& goesOn) {
  std::vector<Move> line;
  MoveList moves;
  for (int left = solved.plies; left > 0; --left) {
    game.listMoves(at, moves);
    if (line.empty())
      std::rotate(moves.begin(), std::find(moves.begin(), moves.end(), first), moves.end());
    bool hurries = game.toMove(at) == solved.winner, found = false;
    for (const Move& move : moves) {
      Position after = at;
      game.apply(after, move);
      std::optional<bool> wins =
          prover.forces(game, after, solved.winner, hurries ? left - 1 : left - 2);
      if (!wins || !goesOn(prover.nodesAsked())) return line;
      if (*wins != hurries) continue;
      line.push_back(move);
      at = std::move(after);
      found = true;
      break;
    }
    if (!found) return line;
  }
  return line;
}

// The move of those that leads to an image of this position; null: none.
const Solved::RootMove* solvedAlready(const Game& game, const Position& after,
                                      const std::vector<Symmetry>& images,
                                      const std::vector<Position>& behind,
                                      const std::vector<Solved::RootMove>& moves) {
  for (const Symmetry& image : images) {
    Position mapped = game.checks()->mapped(after, image);
    for (std::size_t i = 0; i < behind.size(); ++i)
      if (behind[i] == mapped) return &moves[i];
  }
  return nullptr;
}

}  // namespace

Solved solve(const Game& game, const Position& position, const SolveOptions& options) {
  auto begun = std::chrono::steady_clock::now();
  auto spent = [&] {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
  };
  Solved out;
  Stream stream(1, 0);
  // One search for all, so that what it found of a position serves every move.
  SearchLimits limits;
  limits.exact = true;
  limits.megabytes = options.megabytes;
  limits.nodes = options.nodes;
  limits.seconds = options.seconds;
  limits.threads = options.threads;
  if (options.progress)
    limits.progress = [&](std::uint64_t nodes) { options.progress(out.nodes + nodes); };
  std::unique_ptr<Prover> search = makeProver(limits);
  search->stopWith(options.stop);
  int side = game.toMove(position);
  if (options.found)
    search->tellSteps([&](const Choice::Step& step) {
      if (!decides(step.score) || !step.bound) return;
      say(out, step.score, true, side, 0);
      options.found(out);
    });
  Choice choice = search->choose(game, position, stream);
  search->tellSteps(nullptr);
  out.nodes = choice.nodes;
  out.depth = choice.depth;
  say(out, choice, side, 0);
  if (out.known && options.found) options.found(out);
  auto over = [&] {
    return wantsStop(options.stop) || (options.nodes > 0 && out.nodes >= options.nodes) ||
           (options.seconds > 0 && spent() >= options.seconds);
  };
  out.brokenOff = over();
  // The line of a search ends where its table knew the rest, and who loses need not put it off.
  if (out.known && !out.atMost && out.winner >= 0)
    out.line = bestPlay(game, position, out, choice.move, *search, [&](std::uint64_t nodes) {
      out.nodes += nodes;
      return !over();
    });
  Position at = position;
  while (out.known && out.winner < 0 && !over() && !game.ended(at) && game.countMoves(at) > 0 &&
         out.line.size() < longestLine) {
    Choice next = out.line.empty() ? choice : search->choose(game, at, stream);
    if (!next.solved && !decides(next.score)) break;
    out.line.push_back(next.move);
    game.apply(at, next.move);
  }
  MoveList moves;
  game.listMoves(position, moves);
  const std::vector<Symmetry> images = imagesOf(game);
  std::vector<Solved::RootMove> settled;
  std::vector<Position> behind;  // those
  auto settle = [&](const Solved::RootMove& one, Position after) {
    if (!one.known || one.atMost) return;
    settled.push_back(one);
    behind.push_back(std::move(after));
  };
  if (out.known && !moves.empty()) {  // the best move comes to what the position does
    Position after = position;
    game.apply(after, choice.move);
    settle({choice.move, true, out.winner, out.plies, out.atMost}, std::move(after));
  }
  for (const Move& move : moves) {
    Solved::RootMove one{move, false, -1, 1, false};
    Position after = position;
    game.apply(after, move);
    Result result = game.result(after);
    const Solved::RootMove* same = solvedAlready(game, after, images, behind, settled);
    if (result.kind != ResultKind::ongoing || game.countMoves(after) == 0) {
      one.known = true;
      if (result.kind == ResultKind::win) one.winner = result.winner;
    } else if (out.known && move == choice.move) {
      one.known = true;
      one.winner = out.winner;
      one.plies = out.plies;
      one.atMost = out.atMost;
    } else if (same != nullptr) {
      one = *same;
      one.move = move;
    } else if (!over() && out.known) {
      Choice reply = search->choose(game, after, stream);
      out.nodes += reply.nodes;
      say(one, reply, game.toMove(after), 1);
    }
    out.brokenOff = out.brokenOff || !one.known || one.atMost;
    out.moves.push_back(one);
    settle(one, std::move(after));
    if (options.found) options.found(out);
  }
  putBestFirst(out.moves, side);
  out.seconds = spent();
  return out;
}

}  // namespace ninepegs::play
