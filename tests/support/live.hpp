// A live position beside the plain way that every Game has, and random playouts.
#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <string>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/plain_live.hpp"

namespace ninepegs::test {

// How a playout went.
struct PlayoutEnd {
  int plies = 0;
  bool stalled = false;  // nobody could move and no end held, or a limit of plies was reached
};

inline PlayoutEnd playOut(LivePosition& live, Stream& stream, int plyLimit) {
  PlayoutEnd end;
  for (; !live.ended(); ++end.plies)
    if (end.plies >= plyLimit || !live.playDrawn(stream)) {
      end.stalled = true;
      break;
    }
  return end;
}

// Plays the same moves on both, takes some back, and says where they part; empty: nowhere.
inline std::string liveParted(const Game& game, Stream stream, int steps) {
  std::unique_ptr<LivePosition> live = game.live();
  PlainLive plain(game);
  // What is called, or that it comes to no end.
  auto either = [](auto call) -> std::string {
    try {
      return call();
    } catch (const BadInput& error) {  // or too many moves
      return error.what();
    }
  };
  auto said = [&](LivePosition& one) {
    Outcome outcome = one.outcome();
    std::string out = fmt::format("turn {} outcome {} {} {} {} plies {} hash {}", one.toMove(),
                                  static_cast<int>(outcome.kind), outcome.claim, outcome.winner,
                                  outcome.end, one.plies(), one.hash());
    for (std::uint64_t word : one.position().words) out += fmt::format(" {:x}", word);
    return out;
  };
  auto movesOf = [](LivePosition& one) {
    std::string out = fmt::format("{} moves:", one.moveCount());
    MoveList moves;
    one.listMoves(moves);
    for (std::uint32_t i = 0; i < one.moveCount(); ++i) {
      if (!(one.moveAt(i) == moves[i])) out += " another at";
      out += fmt::format(" {}", moves[i].group);
      for (int k = 0; k < moves[i].count; ++k) out += fmt::format("-{}", moves[i].choices[k]);
    }
    return out;
  };
  auto judged = [&](LivePosition& one) {
    std::string out;
    std::size_t invariants = game.checks() == nullptr ? 0 : game.checks()->invariants().size();
    for (int side = 0; side < 2; ++side) {
      if (game.measure() != nullptr)
        out += " worth " + either([&] { return std::to_string(one.worth(side)); });
      for (std::size_t i = 0; i < invariants; ++i) {
        std::size_t at = 2 * i + static_cast<std::size_t>(side);
        out += " value " + either([&] { return std::to_string(one.invariantValues()[at]); });
        if (one.plies() > 0)
          out += " before " + either([&] { return std::to_string(one.invariantsBefore()[at]); });
      }
    }
    return out + " ends " + either([&] {
             std::string ends;
             for (const Result& end : one.endsThatHold()) ends += resultText(game, end) + ",";
             return ends;
           });
  };
  // Moves of this position, and of some before: each is legal if it is in the list.
  MoveList met;
  auto legalParted = [&]() -> std::string {
    MoveList moves;
    Position position = plain.position();
    std::int64_t before = ambient.left;
    try {
      game.listMoves(position, moves);
    } catch (const BadInput&) {
      return "";
    }
    constexpr std::size_t kept = 40;
    constexpr std::int64_t atMost = 3'000'000;
    bool heavy = before - ambient.left > atMost / 20;
    for (std::size_t i = 0; i < moves.size() && met.size() < (heavy ? 3 : kept); ++i)
      met.push_back(moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    // Each may be asked of all ways: of many of them, only of a few.
    auto most = static_cast<std::size_t>(std::clamp<std::int64_t>(
        atMost / std::max<std::int64_t>(before - ambient.left, 1), 3, 400));
    MoveList asked = met;
    for (std::size_t i = 0; i < moves.size(); i += moves.size() / most + 1)
      asked.push_back(moves[i]);
    if (asked.size() > most + kept) asked.resize(most);
    for (const Move& move : asked)
      if (bool listed = std::find(moves.begin(), moves.end(), move) != moves.end();
          listed != game.isLegal(position, move))
        return fmt::format("{} legal alone: {}", listed ? "listed, but not" : "not listed, but",
                           game.positionText(position));
    if (met.size() >= kept) met.resize(kept / 2);
    return "";
  };
  std::string here, there;
  auto part = [&](auto look) {
    here = look(*live);
    there = look(plain);
    return here != there;
  };
  auto parted = [&] { return "live: " + here + "\nplain: " + there; };
  for (int step = 0; step < steps; ++step) {
    // In any order, so that nothing hangs on what was asked before.
    std::uint32_t order = stream.below(4);
    if (order == 0 && part(judged)) return parted();
    if (part(said)) return parted();
    if (order != 1 && part([&](LivePosition& one) { return either([&] { return movesOf(one); }); }))
      return parted();
    if (order != 2 && part(judged)) return parted();
    if (part(said)) return parted();
    if (std::string legal = legalParted(); !legal.empty()) return legal;
    std::uint32_t moves = 0;
    Move move;
    try {
      moves = plain.moveCount();
      if (moves > 0) move = plain.moveAt(stream.below(moves));
    } catch (const BadInput&) {
      return "";
    }
    bool back = plain.plies() > 0 && (moves == 0 || stream.below(4) == 0);
    if (back) {
      live->takeBack();
      plain.takeBack();
      continue;
    }
    if (moves == 0) return "";
    if (part([&](LivePosition& one) {
          return either([&] {
            one.play(move);
            return std::string();
          });
        }))
      return parted();
  }
  return "";
}

}  // namespace ninepegs::test
