// The parts of compile(): generators (generate.cpp, offers.cpp), recipes (moves.cpp, choices.cpp,
// effects.cpp, names.cpp), texts (texts.cpp), ends and measures (ends.cpp). Internal.
#pragma once

#include <map>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/sheet/compile/compiler.hpp"
#include "ninepegs/sheet/compile/emitter.hpp"
#include "ninepegs/sheet/compile/expressions.hpp"
#include "ninepegs/sheet/plan/plan.hpp"

namespace ninepegs::sheet {

using rules::Clause;
using rules::Clauses;

// A move is compiled three times: to make it, to try whether it is legal, and to write its texts.
enum class Recipe { apply, trial, text };

class Compiler {
 public:
  Compiler(const rules::Rules& rules, CompileOptions options)
      : rules_(rules),
        options_(options),
        plan_(planMoves(rules, options.without)),
        emit_(rules, program_, options.without),
        express_(rules, program_, emit_) {}

  Program run();

 private:
  // generate.cpp
  void generator(int side, bool withPass);
  void generateGroup(int index, int side);
  void guards(const MovePlan& plan, int done);
  void handNeeds(const MovePlan& plan, int fail);
  int numberLoop(const rules::ChooseNumber& one, Slot chosen, int fail);
  int lineLoop(const rules::PickLine& one, Slot chosen, int fail);
  void offerLines(int index, int choices, const rules::PickLine& one);
  Slot pickable(const MovePlan& plan, std::size_t place);  // cells, or kinds
  // offers.cpp
  void foreseen(int side);
  void offerGuarded(int index, int choices, Slot cells, int fail, int otherwise);
  void offer(int index, int choices, Slot cells, int fail);

  // moves.cpp
  void group(int index);
  void recipe(int index, int side, Recipe recipe);
  void headClause(const MovePlan& plan, const Clause& one);
  void keepOneMoveCells();
  void let(const rules::Let& one);
  void statements(const Clauses& list);
  void statement(const Clause& one);
  void settle();
  void finishTrial(int index);
  // names.cpp
  void makeRoom(int index);
  void name(NameId name, Value value);
  Value copied(Value value);
  void findLets(int index);
  // choices.cpp
  void bindHead(const MovePlan& plan);
  void headLine(const MovePlan& plan, const rules::PickLine& one);
  void latePick(const Clause& one);
  void repeat(const Clause& clause, const rules::Repeat& one);
  void measured(const rules::Maximise& one);
  // effects.cpp
  struct Effect;
  void effect(const Clause& one);

  // texts.cpp
  void write(const std::vector<rules::TextPart>& parts, int channel);
  void writePart(TextPart part, Slot slot, int channel);
  void writeValue(const Value& value, int channel);
  void moveText(int index);
  bool writtenBy(const MovePlan& plan) const;  // the head alone?

  // ends.cpp
  void ends();
  void endTest(std::size_t index, int mover, int next);
  void shown();
  void worthAndInvariants();
  void invariant(const rules::AlwaysRule& always, int side, Slot into);
  void truth(const Term& condition, Slot into);  // 0 or 1
  void views();
  void forbidden();
  void expectations();
  void repetition();
  void compared(const rules::Compared& one);

  void cover(int statement) {
    if (options_.coverage && statement >= 0) emit_.add(Op::cover, 0, 0, 0, 0, statement);
  }

  const rules::Rules& rules_;
  CompileOptions options_;
  Plan plan_;
  Program program_;
  Emitter emit_;
  Expressions express_;
  int endsLabel_[2] = {-1, -1};
  // Of the foreseen attack: where the generator keeps what it knows.
  Slot risky_ = 0, alone_ = 0, danger_ = 0, dangerKnown_ = 0;

  // While a recipe is compiled.
  Recipe mode_ = Recipe::apply;
  const MovePlan* move_ = nullptr;
  bool inAfter_ = false;
  Slot measure_ = 0;       // of the way that is tried
  std::set<NameId> lets_;  // that are worked out
  // Places of names that are not made in the head: of picks behind it, and of names made inside
  // blocks and read outside of them. By the block they belong to (0: the move, else the `after`).
  using MadeIn = std::pair<int, NameId>;
  std::map<MadeIn, Slot> madeSlots_;
  std::map<MadeIn, Slot> shownSlots_;  // of chosen numbers: their texts
  std::set<MadeIn> outside_;           // of those, the ones made inside blocks and read outside
  int madeIn_ = 0;
  std::map<std::pair<int, int>, Slot> pending_;  // one-move cells: what they will be
};

inline bool takesSet(Type type) {
  return type == Type::set || type == Type::kinds;
}

}  // namespace ninepegs::sheet
