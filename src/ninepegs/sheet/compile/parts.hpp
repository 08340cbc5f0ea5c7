// The parts of compile(): what is known of a move beforehand (compile_shape.cpp) and whether two
// ways of it may come to the same (compile_distinct.cpp), generators (compile_generate.cpp),
// recipes (compile_moves.cpp), texts (compile_texts.cpp), ends and measures (compile_ends.cpp).
// Internal.
#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/sheet/compile/compiler.hpp"
#include "ninepegs/sheet/compile/emitter.hpp"
#include "ninepegs/sheet/compile/expressions.hpp"

namespace ninepegs::sheet {

// A move is compiled three times: to make it, to try whether it is legal, and to write its texts.
enum class Recipe { apply, trial, text };

// What is known of a move before code is made for it.
struct MoveShape {
  std::vector<const Statement*> head;  // up to the first effect, block or optional pick
  std::vector<const Statement*> all;   // the move's own lines and those of its `after` blocks
  std::vector<const AfterDecl*> afters;
  std::set<std::string> assigned;  // names that `set` changes
  const Statement* maximise = nullptr;
  bool latePicks = false, lateNeeds = false;
  bool handSettled = true;  // what is put from the hand can be looked for before the first effect
  // The last pick moves what stands on `from`, for which a forbidden attack can be foreseen.
  std::string from, to;
  std::optional<Expr> choiceOn;  // cells of the last pick where a further choice is made
};

bool isPick(const Statement& one);     // picks or chooses
bool picksLine(const Statement& one);  // one of the lines of a set
bool isEffect(const Statement& one);   // changes the position, or holds lines that may
bool isName(const Expr& expr, const std::string& name);
bool holdsChoices(const std::vector<Statement>& list);
bool reads(const Statement& one, const std::string& name);

class Compiler {
 public:
  Compiler(const Checked& sheet, const Source& source, CompileOptions options)
      : sheet_(sheet),
        source_(source),
        options_(options),
        emit_(sheet, program_, options.without),
        express_(sheet, program_, emit_) {}

  Program run();

 private:
  // compile_shape.cpp
  void shapes();
  MoveShape shapeOf(int index) const;
  bool handSettled(const MoveShape& shape) const;
  void foresee(MoveShape& shape) const;
  void classify(int index);
  bool readsState(const Expr& expr) const;
  bool readsState(const std::vector<Statement>& list) const;
  bool touchesBoard(const std::vector<Statement>& list) const;
  bool dropped(const Statement& one) const;  // from moves on trial

  // compile_distinct.cpp
  bool mayRepeat(const MoveShape& shape, const std::vector<Statement>& body) const;
  bool textsRunTogether(const MoveShape& shape, const std::vector<Statement>& body) const;

  // compile_generate.cpp
  void generator(int side, bool withPass);
  void generateGroup(int index, int side);
  void guards(const MoveShape& shape, int done);
  void handNeeds(const MoveShape& shape, int fail);
  void foreseen(int side);
  void offerGuarded(int index, int choices, Slot cells, int fail, int otherwise);
  void offer(int index, int choices, Slot cells, int fail);
  bool bracketedPick(const std::vector<const Statement*>& head, std::size_t pick,
                     std::set<std::size_t>& settled, const Expr*& run) const;

  // compile_moves.cpp
  void recipe(int index, int side, Recipe recipe);
  void bindHead(const MoveShape& shape);
  void headLine(const MoveShape& shape, const Statement& one);
  void makeRoom(int index);
  void statements(const std::vector<Statement>& list);
  void statement(const Statement& one);
  void effect(const Statement& one);
  void assign(const Statement& one);
  void latePick(const Statement& one);
  void repeat(const Statement& one);
  void settle();
  void finishTrial(int index);
  void name(const std::string& name, Value value);
  Value copied(Value value);

  // compile_texts.cpp
  void write(const Statement& one, int channel);
  void writePart(TextPart part, Slot slot, int channel);
  void moveText(int index);
  bool writtenBy(const MoveShape& shape) const;  // the head alone?

  // compile_ends.cpp
  void ends();
  void endTest(std::size_t index, int mover, int next);
  void shown();
  void worthAndInvariants();
  void truth(const Expr& condition);  // 0 or 1 in `valueSlot`
  void views();
  void repetition();

  void group(int index);
  void cover(int statement) {
    if (options_.coverage && statement >= 0) emit_.add(Op::cover, 0, 0, 0, 0, statement);
  }
  int owner(const Statement& one) const;

  const Checked& sheet_;
  const Source& source_;
  CompileOptions options_;
  Program program_;
  Emitter emit_;
  Expressions express_;
  std::vector<MoveShape> shapes_;
  int endsLabel_[2] = {-1, -1};
  bool pruned_ = false;  // moves on trial leave out what no check reads
  // Of the foreseen attack: the attacked kinds, and where the generator keeps what it knows.
  std::vector<int> guardedKinds_;
  Slot risky_ = 0, alone_ = 0, danger_ = 0, dangerKnown_ = 0;

  // While a recipe is compiled.
  Recipe mode_ = Recipe::apply;
  const MoveShape* shape_ = nullptr;
  bool inAfter_ = false;
  std::set<std::string> lets_;  // that are worked out
  // Places of names that are not made in the head: of picks behind it, and of names made inside
  // blocks and read outside of them. By the block they belong to (0: the move, else the `after`).
  using MadeIn = std::pair<int, std::string>;
  std::map<MadeIn, Slot> madeSlots_;
  std::map<MadeIn, Slot> shownSlots_;  // of chosen numbers: their texts
  std::set<MadeIn> outside_;           // of those, the ones made inside blocks and read outside
  int madeIn_ = 0;
  std::map<std::pair<int, int>, Slot> pending_;  // one-move cells: what they will be
};

}  // namespace ninepegs::sheet
