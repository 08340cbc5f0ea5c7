// Fourth stage: what a sheet says, as instructions that run on bit masks.
//
// A program works on one memory of 64-bit words:
//
//   [ position | scratch | constants ]
//
// and every operand of an instruction is a place in it (a Slot): a set of cells takes `words`
// words, a number or a cell (-1: none) takes one. The position's own words are operands like any
// other, so nothing is loaded or stored. Code exists once for each side: whatever depends on who
// moves is decided when the sheet is compiled. A Program is immutable once compiled and safe to
// share between threads.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/board/geometry.hpp"

namespace ninepegs::sheet {

using Slot = std::uint16_t;

// Name and meaning of every instruction; a b c d are slots, n the number behind them.
#define NINEPEGS_INSTRUCTIONS(X)                                                          \
  X(stop, "end of the routine")                                                           \
  X(jump, "go on at n")                                                                   \
  X(copySet, "a = b")                                                                     \
  X(both, "a = b on c")                                                                   \
  X(either, "a = b or c")                                                                 \
  X(minus, "a = b except c")                                                              \
  X(clear, "a = no cells")                                                                \
  X(cellSet, "a = the cell b as a set")                                                   \
  X(setCell, "a = the first cell of b")                                                   \
  X(step, "a = b moved one step along direction n")                                       \
  X(steps, "a = b moved one step along each direction of group n")                        \
  X(table, "a = what table n holds for the cell b")                                       \
  X(tableAll, "a = what table n holds for the cells of b, together")                      \
  X(slide, "a = from the cells of b along group n through c, up to the first other cell") \
  X(between, "a = cells between the cells b and c")                                       \
  X(beyond, "a = the cell behind b as seen from c")                                       \
  X(bracketed, "a = runs of b next to the cell c that end on d, along group n")           \
  X(lineCells, "a = the cells of all lines n within b")                                   \
  X(spread, "a = all of c joined to b along group n")                                     \
  X(count, "a = number of cells of b")                                                    \
  X(countLines, "a = number of lines n within b")                                         \
  X(copyNumber, "a = b")                                                                  \
  X(add, "a = b + c")                                                                     \
  X(subtract, "a = b - c")                                                                \
  X(multiply, "a = b * c")                                                                \
  X(divide, "a = b / c, towards zero; 0 if c is 0")                                       \
  X(remainder, "a = b % c; 0 if c is 0")                                                  \
  X(least, "a = the smaller of b and c")                                                  \
  X(greatest, "a = the greater of b and c")                                               \
  X(property, "a = property n of the piece on the cell b")                                \
  X(rowNumber, "a = the row of the cell b")                                               \
  X(columnNumber, "a = the column of the cell b")                                         \
  X(jumpAny, "go on at n if b has cells")                                                 \
  X(jumpNone, "go on at n if b has no cells")                                             \
  X(jumpIn, "go on at n if the cell b is in c")                                           \
  X(jumpOut, "go on at n if the cell b is not in c")                                      \
  X(jumpWithin, "go on at n if b lies within c")                                          \
  X(jumpBeyond, "go on at n if b does not lie within c")                                  \
  X(jumpLine, "go on at n if b holds one of the lines c")                                 \
  X(jumpNoLine, "go on at n if b holds none of the lines c")                              \
  X(jumpEqual, "go on at n if b = c")                                                     \
  X(jumpUnequal, "go on at n if b != c")                                                  \
  X(jumpLess, "go on at n if b < c")                                                      \
  X(jumpLessEqual, "go on at n if b <= c")                                                \
  X(jumpStuck, "go on at n if the side to move has no move but a pass")                   \
  X(jumpUnstuck, "go on at n if the side to move has a move that is no pass")             \
  X(jumpNobody, "go on at n if neither side has a move but a pass")                       \
  X(jumpSomebody, "go on at n if a side has a move that is no pass")                      \
  X(nextCell, "a = the first cell of b, taken out of b; go on at n if there is none")     \
  X(nextLine, "a = the next of the lines d within c, counted by b; go on at n if none")   \
  X(emitOne, "a legal move of group n")                                                   \
  X(emitMany, "a legal move of group n for every cell of b as the last choice")           \
  X(emitPass, "a pass is legal")                                                          \
  X(tierEnd, "stop if there was a legal move")                                            \
  X(put, "put kind c (n = 1: the kind that c holds) of side d on the cells of b")         \
  X(putCell, "put kind c (n = 1: the kind that c holds) of side d on the cell b")         \
  X(take, "take what stands on b")                                                        \
  X(shift, "move what stands on the cell b to the cell c")                                \
  X(flip, "what stands on b changes its side")                                            \
  X(change, "what stands on b becomes kind c (n = 1: the kind that c holds)")             \
  X(again, "the same side moves next")                                                    \
  X(turnOver, "the ply is over: the turn passes, go on at n")                             \
  X(stepMinus, "d = c moved one step along direction n; a = b except d; skip one")        \
  X(stopAny, "end of the routine if b has cells")                                         \
  X(emitLast, "as emitMany, then end of the routine")                                     \
  X(putCellOver, "as putCell, then turnOver")                                             \
  X(cover, "statement n was used")

enum class Op : std::uint16_t {
#define NINEPEGS_NAME(name, meaning) name,
  NINEPEGS_INSTRUCTIONS(NINEPEGS_NAME)
#undef NINEPEGS_NAME
};

struct Instruction {
  Op op = Op::stop;
  Slot a = 0, b = 0, c = 0, d = 0;
  std::int32_t n = 0;
};

// Where the parts of a position lie in memory. Every position begins with turn, result, plies.
struct Layout {
  static constexpr Slot turn = 0;    // 0 or 1
  static constexpr Slot result = 1;  // 0: the game goes on; else see the codes below
  static constexpr Slot plies = 2;
  Slot sides[2] = {0, 0};  // what each side has on the board
  Slot empty = 0;
  std::vector<Slot> kinds;  // cells of each kind; none if there is only one kind
  std::vector<std::array<Slot, 2>> marks, numbers;  // for each side; the same slot if shared
  int words = 0;                                    // of the whole position
};

// Codes of a result word: kind | winner << 8 | claim << 9 | number << 16 | cell << 40.
enum class Verdict : std::uint8_t { ongoing = 0, win = 1, draw = 2, fault = 3 };
constexpr std::uint64_t resultWord(Verdict verdict, int winner, bool claim, int number) {
  return static_cast<std::uint64_t>(verdict) | static_cast<std::uint64_t>(winner) << 8 |
         static_cast<std::uint64_t>(claim) << 9 | static_cast<std::uint64_t>(number) << 16;
}

// Must the game stop here? An end that is only claimed lets it go on.
constexpr bool isFinal(std::uint64_t result) {
  return result != 0 && ((result >> 9) & 1) == 0;
}

// A move of a sheet as numbers: which group, and what was picked and chosen in it.
inline constexpr int passGroup = 255;

// One step in a direction: cells move by `amount` bits, `mask` keeps those that arrive properly.
struct ShiftPart {
  int amount = 0;
  int mask = 0;  // where in Program::tables
};
// Lines along one axis: a set that is cut with itself, moved down by each of the shifts in turn, is
// left with the first cells of its runs of `length`; `starts` keeps those that are real lines.
struct LineAxis {
  std::array<int, 6> shifts{};  // in bits
  int starts = 0;               // where in Program::tables
};
struct LineSet {
  int length = 0;
  int shiftCount = 0;  // of each axis
  int axisCount = 0;   // 0: test each line of `masks`
  std::array<LineAxis, 4> axes;
  int masks = 0;  // where in Program::tables all lines stand
  int count = 0;
};

// What a move's text is made of.
struct TextPart {
  enum class Kind { literal, cell, column, row, kind, number, set } kind = Kind::literal;
  std::string literal;
  Slot slot = 0;
};
struct GroupCode {
  std::string name;
  int choices = 0;
  std::vector<bool> choiceIsKind;     // else a cell
  std::array<int, 2> apply = {0, 0};  // routines, by side
  std::array<int, 2> text = {0, 0};
  std::vector<TextPart> parts;
};
struct EndCode {
  std::string name, drawName;
  int line = 0;
  int statement = -1;
  bool claim = false;
  bool canWin = false;
  std::array<int, 2> test = {0, 0};     // by the side that has just moved: sets `result`, or not
  std::array<int, 2> shown = {-1, -1};  // leaves the cells that show the result in `shownSlot`
};
struct InvariantCode {
  int line = 0;
  std::string text;
  int change = 0;                     // as in AlwaysDecl
  std::array<int, 2> value = {0, 0};  // leaves 0/1 or the number in `valueSlot`, seen by a side
};

struct Program {
  int words = 1;  // 64-bit words of a set: 1, 2, 4 or 8
  Layout layout;
  std::vector<std::uint64_t> constants;
  Slot constantsAt = 0;
  Slot choicesAt = 0;  // where choices stand, one word each
  Slot againSlot = 0, valueSlot = 0, shownSlot = 0;
  std::vector<Instruction> code;
  std::vector<int> statementOf;  // for each instruction, -1: none
  std::array<int, 2> generate = {0, 0};
  std::array<int, 2> generateNoPass = {0, 0};
  std::array<int, 2> passApply = {0, 0};
  std::array<int, 2> ends = {0, 0};     // by the side that has just moved
  std::array<int, 2> worth = {-1, -1};  // leaves the worth in `valueSlot`
  std::vector<GroupCode> groups;
  std::vector<EndCode> endCodes;
  std::vector<InvariantCode> invariants;

  std::vector<std::uint64_t> tables;                 // sets, `words` words each
  std::vector<std::vector<ShiftPart>> directions;    // by direction
  std::vector<std::vector<int>> groupsOfDirections;  // directions of each group
  std::vector<int> cellTables;                       // where each begins in `tables`
  std::vector<LineSet> lineSets;
  std::vector<std::vector<std::int64_t>> properties;  // by property, by kind
  std::vector<std::vector<std::int16_t>> next;        // by direction, by cell: the cell one step on
  std::vector<std::int16_t> rowNumbers, columnNumbers;
  int allAt = 0;  // in `tables`: all cells
  int kinds = 0;
  std::string source;               // the sheet's name, for messages
  std::vector<int> statementLines;  // of each statement
};

std::string_view name(Op op);
std::string_view meaning(Op op);

// The program, one instruction a line.
std::string toText(const Program& program);

}  // namespace ninepegs::sheet
