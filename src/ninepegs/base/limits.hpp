// Every limit of the tool, in one place. A sheet or a text that goes over one is refused with a
// message that names the line and the limit; nothing above grows without bound.
#pragma once

#include <cstddef>

namespace ninepegs::limits {

inline constexpr std::size_t sheetBytes = 1u << 20;  // a sheet's text
inline constexpr std::size_t lineBytes = 4096;       // one line of a sheet or a position text
inline constexpr int cells = 512;                    // cells of a board, with those left out
inline constexpr int nesting = 48;                   // brackets and blocks inside each other
inline constexpr int kinds = 60;                     // kinds of piece
inline constexpr int moveGroups = 200;               // `move` blocks
inline constexpr int choices = 40;                   // picks and rounds made in one move
inline constexpr int movesInPosition = 65536;        // legal moves in one position
inline constexpr int memoryWords = 4096;             // constants, position and scratch of a program
inline constexpr int diagnostics = 20;               // messages printed for one file
inline constexpr std::size_t diagnosticsKept = 100;  // then nobody reads on
inline constexpr int operators = 1000;               // operators in one line of a sheet
inline constexpr int expressionDepth = 2000;         // of an expression, definitions written out
inline constexpr int mayLast = 1'000'000;            // plies that a sheet may say of its games
inline constexpr int usualPlies = 2000;              // of a playout, where the sheet says nothing
inline constexpr int plies = 10000;                  // length of a playout
inline constexpr int definitionUses = 20000;         // all uses of definitions, written out
inline constexpr int loopSteps = 20'000'000;         // cells looked at one by one for one ply
inline constexpr int defineDepth = 32;               // defined names that use each other
inline constexpr std::size_t recordLine = 1u << 20;  // bytes of a record's line or comment
inline constexpr std::size_t recordMoves = 200'000;  // of a recorded game, with its variations
inline constexpr int recordDepth = 100;              // variations inside each other
inline constexpr int countDepth = 100;               // plies that `count` looks ahead
inline constexpr int searchDepth = 60;               // plies that an opponent looks ahead

}  // namespace ninepegs::limits
