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
#include "ninepegs/sheet/program/instructions.hpp"
#include "ninepegs/sheet/program/move_class.hpp"
#include "ninepegs/sheet/program/sinks.hpp"

namespace ninepegs::sheet {

using Slot = std::uint16_t;

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
  using BySide = std::array<Slot, 2>;  // the same slot if it is one for both
  BySide sides{};                      // what each side has on the board
  BySide empty{};                      // differs on a board of one each
  std::vector<BySide> kinds;           // cells of each kind; none if there is only one kind
  int planesEnd = 0;                   // behind what stands on the board
  std::vector<BySide> marks, numbers;
  std::vector<BySide> cells;      // remembered cells, -1: none
  std::vector<Slot> cellNumbers;  // where the numbers of the cells begin; 0: not on cells
  BySide hands{};                 // a word for each kind; 0: no hands
  Slot passes = 0;                // made in a row; 0: not kept
  Slot seen = 0;                  // hash of what a repetition compares; 0: not kept
  Slot lastMover = 0;             // 1 or 2: which side moved last, 0: not known; slot 0: not kept
  int words = 0;                  // of the whole position, without what follows: earlier hashes
  bool layered = false;
};

// Codes of a result word: kind | winner << 8 | claim << 9 | number << 16 | cell << 40.
enum class Verdict : std::uint8_t { ongoing = 0, win = 1, draw = 2, fault = 3 };
// Of a fault, in the place of the winner: what the statement did that cannot be.
enum class FaultReason : std::uint8_t {
  occupied,   // a piece was put on another, which stands on the cell
  noKind,     // a kind that is none was put
  wrongSide,  // a piece of the kind cannot be the side's
  handEmpty,  // a piece was put from a hand that has none of it
  belowZero,  // a number became negative that a notation cannot write so
};
constexpr std::uint64_t resultWord(Verdict verdict, int winner, bool claim, int number) {
  return static_cast<std::uint64_t>(verdict) | static_cast<std::uint64_t>(winner) << 8 |
         static_cast<std::uint64_t>(claim) << 9 | static_cast<std::uint64_t>(number) << 16;
}

// Must the game stop here? An end that is only claimed lets it go on.
constexpr bool isFinal(std::uint64_t result) {
  return result != 0 && ((result >> 9) & 1) == 0;
}

// One step in a direction: cells move by `amount` bits, `mask` keeps those that arrive properly.
struct ShiftPart {
  int amount = 0;
  int mask = 0;  // where in Program::tables
};
// The rays along a direction: where they begin in Program::tables, and whether cell numbers grow.
struct RayPart {
  int at = 0;
  bool up = false;
};
// On boards of one word, steps whose cells all move by the same amount, four of them: the word is
// turned by so many bits, from 0 to 63, and `mask` removes what does not arrive properly. Those
// that are not used have no mask.
struct FourTurns {
  std::uint64_t by[4] = {}, mask[4] = {};
};
// On boards of one word, slides from a cell by what stands on `mask`: the bits of the stops there,
// gathered, count from `first` on in Program::slideSets.
struct SlideCell {
  std::uint64_t mask = 0;
  std::uint32_t first = 0;
};
// Lines along one axis: a set that is cut with itself, moved down by each of the shifts in turn, is
// left with the first cells of its runs of `length`; `starts` keeps those that are real lines.
struct LineAxis {
  std::array<int, 10> shifts{};  // in bits; ten halve any line of a board
  int starts = 0;                // where in Program::tables
  int first = 0;                 // the first line of the axis among `masks`
};
struct LineSet {
  int length = 0;
  bool exact = false;  // the runs must not go on at either end
  int shiftCount = 0;  // of each axis
  int axisCount = 0;   // 0: test each line of `masks`
  bool ordered =
      false;  // the lines of each axis stand in `masks` in the order of their first cells
  std::array<LineAxis, 13> axes;
  int masks = 0;                          // where in Program::tables all lines stand
  int ends = 0;                           // of exact lines: the cells at either end of each
  std::vector<std::vector<int>> through;  // for each cell the lines that hold it
  int count = 0;
};

// What a text is made of.
struct TextPart {
  enum class Kind {
    literal,
    cell,
    column,
    row,
    kind,
    number,
    chosenNumber,  // left out if it was not chosen
    set,
    kinds,
    line
  } kind = Kind::literal;
  std::string literal;
};
struct GroupCode {
  std::string name;
  int choices = 0;                    // made before the first effect
  std::vector<bool> choiceIsCell;     // of those
  std::array<int, 2> apply = {0, 0};  // routines, by side
  std::array<int, 2> trial = {-1, -1};
  std::array<int, 2> trialSteps = {0, 0};  // what a trial weighs beside its loops
  std::array<int, 2> text = {0, 0};        // replays the move and writes its texts
  MoveClass moveClass = MoveClass::flat;
  int classLine = 0;       // the line that sets the class
  bool mayRepeat = false;  // two moves may have the same text and position ...
  // ... only if one of these choices differs; empty: whatever differs.
  std::vector<int> unwritten;
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

// A part of a condition that is no `and`, `or` or `not` of others. How often it did not hold is
// counted behind the statements, in their order two for each, and behind that how often it held.
struct PartCode {
  int line = 0;
  std::string text;
};

// A line of what each side sees.
struct SeenCode {
  std::array<int, 2> value = {0, 0};  // routines, by looker: leave cells or kinds in `shownSlot`
  std::string letter;
  bool theirBoard = false, kinds = false;
};

// The numbers that the condition of a case compares.
struct ComparedCode {
  std::string word;               // = != < <= > >=; empty: it compares no numbers
  std::array<int, 2> value = {};  // routines: leave a number in `valueSlot`
};

// A condition of `forbid` in a position by itself; not of those that ask what was before.
struct ForbidCode {
  int line = 0;
  std::string reason;
  std::array<int, 2> value = {0, 0};  // by the side that has moved: leaves 0 or 1 in `valueSlot`
};

struct Program {
  int words = 1;  // 64-bit words of a set: 1, 2, 4 or 8
  Layout layout;
  std::vector<std::uint64_t> constants;
  Slot constantsAt = 0;
  Slot choicesAt = 0;  // where choices stand, one word each
  Slot againSlot = 0, valueSlot = 0, shownSlot = 0;
  Slot beforeAt = 0;            // a copy of the position before the move; 0: not kept
  Slot trialAt = 0;             // scratch of moves on trial,
  int trialEnd = 0;             // as far as it is used
  bool trialsChangeAll = true;  // moves on trial change more than what stands on the board
  bool trialsReadBefore = false;
  std::vector<Instruction> code;
  std::vector<int> statementOf;  // for each instruction, -1: none
  std::array<int, 2> generate = {0, 0};
  std::array<int, 2> generateNoPass = {0, 0};
  bool passAlone = true;  // a pass is legal only when no move is: those without passes are all
  std::array<int, 2> passApply = {0, 0};
  std::array<int, 2> ends = {0, 0};     // by the side that has just moved
  std::array<int, 2> worth = {-1, -1};  // leaves the worth in `valueSlot`
  std::vector<GroupCode> groups;
  std::vector<EndCode> endCodes;
  std::vector<PartCode> conditionParts;  // of programs that count them
  std::vector<InvariantCode> invariants;
  int invariantsAt = -1;    // a routine that works out all of them, each for both sides,
  Slot invariantSlots = 0;  // ... into numbers from here on
  std::vector<int> forbidStatements;
  std::vector<TextPart> parts;
  std::vector<ForbidCode> forbids;  // none where a side may pass
  std::vector<SeenCode> sees;
  std::vector<ComparedCode> compared;          // by condition of a case
  std::vector<int> expectations;               // conditions of cases: leave 0 or 1 in `valueSlot`
  std::array<int, 2> check = {-1, -1};         // of a notation, by the side that has just moved
  std::vector<std::pair<int, int>> seenWords;  // words that a repetition compares: first, number
  bool seenTurn = true;
  std::vector<std::array<int, 2>> seenMoves;  // generators whose moves it compares, by side

  std::vector<std::uint64_t> tables;                 // sets, `words` words each
  std::vector<std::vector<ShiftPart>> directions;    // by direction
  std::vector<std::vector<int>> groupsOfDirections;  // directions of each group
  std::vector<int> cellTables;                       // where each begins in `tables`
  std::vector<LineSet> lineSets;
  std::vector<std::vector<std::int64_t>> properties;  // by property, by kind
  std::vector<std::vector<std::int16_t>> next;        // by direction, by cell: the cell one step on
  std::vector<int> rays;    // by direction: where in `tables` the ray of each cell begins; or none
  std::vector<bool> rayUp;  // by direction: do cell numbers grow along it
  std::vector<std::vector<RayPart>> raysOfGroups;     // the same by group of directions
  std::vector<std::vector<FourTurns>> turnsOfGroups;  // by group; empty: not by turns
  int fillDoublings = 0;                              // that reach along the longest ray
  std::vector<std::vector<SlideCell>> slideTables;    // by cell
  std::vector<std::vector<int>> slidesOfGroups;       // by group: its tables; empty: by rays
  std::vector<std::uint64_t> slideSets;
  std::vector<std::vector<int>> lineFamilies;     // by family, by length: line set, or -1
  std::vector<std::vector<std::int64_t>> edges;   // by kind, by direction
  std::vector<std::vector<std::int16_t>> tracks;  // by track: for each cell the next, or -1
  std::vector<std::int64_t> weights;              // by cell
  std::vector<std::int16_t> rowNumbers, columnNumbers;
  bool slidesByTable(int group) const {
    return static_cast<std::size_t>(group) < slidesOfGroups.size() &&
           !slidesOfGroups[group].empty();
  }
  int allAt = 0;  // in `tables`: all cells
  int kinds = 0;
  // Which sides a kind can belong to: 0 both, 1 the first, 2 the second, 3 nobody.
  std::vector<std::uint8_t> kindSides;
  bool kindsDiffer = false;         // not all belong to both
  std::string source;               // the sheet's name, for messages
  std::vector<int> statementLines;  // of each statement
  // Each number of a position, as a person calls it: "seeds of c1", "quiet".
  struct NumberName {
    Slot slot = 0;
    std::string name;
    int line = 0;  // that declares it
  };
  std::vector<NumberName> numberNames;
};

// The program, one instruction a line, with the line of the sheet that it comes from and the class
// of every move.
std::string toText(const Program& program);

}  // namespace ninepegs::sheet
