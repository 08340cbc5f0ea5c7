// Third stage: tree -> checked tree. Every name is resolved, every expression has a type, every
// statement a number; what a later stage relies on has been refused here if it does not hold.
#pragma once

#include <array>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/board/geometry.hpp"
#include "ninepegs/sheet/syntax/tree.hpp"

namespace ninepegs::sheet {

// What a picture of worth is called inside.
inline constexpr const char* weightsName = "@weights";

enum class SymbolKind {
  side,
  kind,
  group,
  zone,
  mark,
  number,
  remembered,  // a cell variable
  track,
  property,
  define,
  move,
  cell,
  builtin
};

struct Symbol {
  SymbolKind kind = SymbolKind::builtin;
  int index = 0;
};

// A line of the sheet that something can be said about: a statement of a move or an end.
struct StatementInfo {
  enum class Role { move, after, forbid, end } role = Role::move;
  int line = 0;
  std::string text;  // as written, without comment
};

// The body of a definition, typed for one list of argument types.
struct DefineInstance {
  int define = 0;
  std::vector<Type> types;
  Expr body;
};

struct Checked {
  Tree tree;
  std::vector<DefineInstance> instances;
  Geometry board;
  std::map<std::string, Symbol> symbols;
  std::vector<std::string> properties;        // words with a number that pieces have
  std::vector<std::array<CellSet, 2>> zones;  // by side
  std::vector<bool> zoneBySide;
  std::vector<StatementInfo> statements;
  std::array<int, 2> facing = {0, 4};                    // direction that is `forward`, by side
  std::vector<std::array<std::vector<Cell>, 2>> tracks;  // in order, by side
  std::vector<bool> trackBySide;
  std::vector<std::int64_t> weights;  // of the picture of worth, one a cell number
  bool hasEdges = false, hasHands = false, hasSecrets = false;
  bool readsPlies = false, readsBefore = false, readsPasses = false;
  bool usesAgain = false;      // a side may move twice running
  bool readsTimes = false;     // `times seen`
  bool timesDecide = false;    // ... in `forbid`, or in an end that is not only claimed
  bool timesForbid = false;    // ... in `forbid`
  std::set<std::string> used;  // names that something reads
  int definitionUses = 0;      // so far, each counted with all it uses

  const Symbol* find(const std::string& name) const;
  // The number of the instance, which is kept if it is new.
  int instanceOf(int define, const std::vector<Type>& types, Expr body);
  bool layered() const { return tree.board.oneEach; }
  int side(const std::string& name) const;                     // -1: no side
  int kind(const std::string& name) const;                     // -1: no kind
  std::vector<int> groupKinds(const std::string& name) const;  // of a kind or a group

  // The directions that a group's name stands for, seen by a side.
  std::vector<int> directions(const std::string& group, int side) const;
  // The set, if it does not depend on the position.
  std::optional<CellSet> constantSet(const Expr& expr, int side) const;
};

// Of a tree that is not whole, because lines of it were refused: adds what is likely a slip of the
// pen in other lines, a name that is nearly another. Needs a game, sides and a board.
void addLikelySlips(Tree tree, const Source& source, std::vector<Diagnostic>& found);

// Messages go to `found`; the result is fit for compile() only if none came.
Checked check(Tree tree, const Source& source, std::vector<Diagnostic>& found);

}  // namespace ninepegs::sheet
