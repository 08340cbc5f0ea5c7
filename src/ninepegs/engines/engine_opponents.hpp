// Opponents that are programs of their own: any that answers the protocol of docs/programs.md, or,
// where the sheet has FEN, any chess program that speaks UCI.
//
//   std::unique_ptr<play::Opponent> opponent =
//       engines::makeOpponent("program:python3 my_game.py", "--second");
//
// Texts: `program:COMMAND`, `uci:COMMAND`, with limits in front of the command, divided by commas:
// `program:time=10 COMMAND` (seconds to answer), `uci:nodes=1000 COMMAND`, `uci:depth=4 COMMAND`,
// `uci:time=0.5 COMMAND` (seconds to think; 0.1 if nothing is said). A program is told every move,
// so it plays no game with secrets. One that fails throws BadInput out of choose().
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::engines {

// Those, and all of play::makeOpponent.
std::unique_ptr<play::Opponent> makeOpponent(std::string_view text, const std::string& source);

// The words that texts may begin with.
std::vector<std::string> opponentNames();

// What is played where nobody waits for a program any more: the first of the legal moves.
play::Choice anyMove(const Game& game, const Position& position);

struct EngineLimits {
  double seconds = 0;       // program: to answer; uci: to think
  std::uint64_t nodes = 0;  // of uci; 0: none
  int depth = 0;            // of uci; 0: none
};
std::unique_ptr<play::Opponent> makeProgram(const std::string& command, const std::string& source,
                                            const EngineLimits& limits);
std::unique_ptr<play::Opponent> makeUci(const std::string& command, const std::string& source,
                                        const EngineLimits& limits);

}  // namespace ninepegs::engines
