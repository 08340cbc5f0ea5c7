// Expressions -> instructions, for one side at a time. Internal to compile().
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/sheet/compile/emitter.hpp"

namespace ninepegs::sheet {

struct Value {
  Type type = Type::unknown;
  Slot slot = 0;
  int constantKind = -1;        // of a kind that is known now
  int owner = -1;               // of a cell: whose piece stands there, where that is known,
  std::vector<int> kinds = {};  // and which kinds it may be; none: not known
  Slot shown = 0;               // of a number chosen inside a block: where its text stands, -1 if
                                // it was not chosen
  int lines = -1;               // of a picked line: the number of its choice, else -1
};

class Expressions {
 public:
  Expressions(const Checked& sheet, Program& program, Emitter& emit)
      : sheet_(sheet), program_(program), emit_(emit) {}

  // Begins a routine seen by `side`; forgets all names.
  void begin(int side, Scratch scratch);
  // Sees what follows as the other side does, within the same routine.
  void see(int side) { me_ = side; }
  int side() const { return me_; }
  void bind(const std::string& name, Value value) { locals_[name] = std::move(value); }
  void forget() { locals_.clear(); }  // all names
  void unbind(const std::string& name) { locals_.erase(name); }
  const Value* find(const std::string& name) const;

  Slot set(const Expr& expr);
  Slot number(const Expr& expr);
  Slot cell(const Expr& expr);
  Value value(const Expr& expr);
  // Goes to the label if the condition is as `sense` says; goes on otherwise.
  void branch(const Expr& expr, bool sense, int label);
  int lineSetOf(const Expr& lines);
  // The family of `lines of N in S` and the slot of N.
  std::pair<int, Slot> lineFamilyOf(const Expr& lines);
  Slot kind(const Expr& expr);   // the number of a kind
  Slot kinds(const Expr& expr);  // kinds as bits of a set
  // What is known of the pieces on the cells of a set: whose and which.
  Value known(const Expr& set) const;
  // The cells of `on`, `reach` and so on that make up an attack: A of `any A on their reach`.
  struct Attack {
    std::vector<const Expr*> targets;
    int attacker = 0;
  };
  std::optional<Attack> attackOf(const Expr& set) const;
  // Goes to the label if the cells are attacked, worked out backwards from them.
  bool branchAttacked(Slot cells, int attacker, bool sense, int label);
  // Directions along which kinds of the side slide, with those kinds; nothing if a reach is of
  // another form.
  struct Slides {
    std::vector<int> directions, kinds;
  };
  bool slidesOf(int side, std::vector<Slides>& slides) const;
  // What a side's pieces attack if `through` are the empty cells; only where slidesOf is true.
  Slot reachThrough(int side, Slot through);
  Slot kindSet(const std::vector<int>& kinds, int owner);

 private:
  struct Origin {
    bool isCell = false;
    Slot slot = 0;
  };
  Slot binary(Op op, Slot b, Slot c);
  Slot nameSet(const Expr& expr);
  Slot kindNamed(const Value& kind, int owner);
  Slot place(Slot slot) const {
    return before_ ? static_cast<Slot>(slot + program_.beforeAt) : slot;
  }
  // What is looked up is looked up in the position before the move.
  int past() const { return before_ ? 1 : 0; }
  Slot ownSet(const Expr& name, int owner);
  Slot reachOfSide(int owner);
  Slot reachOfCell(const Expr& cell);
  int leapTable(const Expr& expr);
  int stepTable(const std::vector<int>& directions);
  Slot from(const Expr& expr, const Origin& origin);
  Origin origin(const Expr& expr);
  Slot total(const Expr& expr);
  void countLines(const Expr& lines, Slot out);
  Slot setOf(const Expr& expr);
  Slot linesSet(const Expr& expr);
  Slot groupsSet(const Expr& expr);
  Slot choiceOf(const Expr& expr, Op copy, Slot out);
  Slot numberOf(const Expr& expr);
  Slot numberOfName(const Expr& expr);
  template <class Body>
  auto earlier(Body body);
  template <class Body>
  auto inDefine(const Expr& call, int side, Body body);
  template <class Body>
  auto asSide(int side, Body body);

  const Checked& sheet_;
  Program& program_;
  Emitter& emit_;
  int me_ = 0;
  Scratch scratch_ = Scratch::other;
  std::optional<Slot> emptyCells_;  // stands in for the empty cells in slides
  bool before_ = false;             // seen as it was before the move
  std::map<std::string, Value> locals_;
  std::optional<Origin> piece_;  // where a piece's reach starts
};

// Sees what the body says as it was before the move; a generator is before it anyway.
template <class Body>
auto Expressions::earlier(Body body) {
  bool outer = before_;
  before_ = scratch_ != Scratch::generator;
  if (scratch_ == Scratch::trial) program_.trialsReadBefore = true;
  auto result = body();
  before_ = outer;
  return result;
}

template <class Body>
auto Expressions::asSide(int side, Body body) {
  int before = me_;
  me_ = side;
  auto result = body();
  me_ = before;
  return result;
}

// Works out the arguments where the definition is used, then its body, which sees nothing else.
template <class Body>
auto Expressions::inDefine(const Expr& call, int side, Body body) {
  const DefineInstance& instance = sheet_.instances[call.instance];
  const DefineDecl& define = sheet_.tree.defines[instance.define];
  std::map<std::string, Value> inner;
  for (std::size_t i = 0; i < call.args.size(); ++i)
    inner[define.parameters[i].text] = value(call.args[i]);
  std::swap(locals_, inner);
  auto result = asSide(side, [&] { return body(instance.body); });
  std::swap(locals_, inner);
  return result;
}

bool mentions(const Expr& expr, const std::string& name);

}  // namespace ninepegs::sheet
