// Expressions -> instructions, for one side at a time. Internal to compile().
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/sheet/emitter.hpp"

namespace ninepegs::sheet {

struct Value {
  Type type = Type::unknown;
  Slot slot = 0;
};

class Expressions {
 public:
  Expressions(const Checked& sheet, Program& program, Emitter& emit)
      : sheet_(sheet), program_(program), emit_(emit) {}

  // Begins a routine seen by `side`; forgets all names.
  void begin(int side, bool generator);
  // Sees what follows as the other side does, within the same routine.
  void see(int side) { me_ = side; }
  int side() const { return me_; }
  void bind(const std::string& name, Value value) { locals_[name] = value; }
  const Value* find(const std::string& name) const;

  Slot set(const Expr& expr);
  Slot number(const Expr& expr);
  Slot cell(const Expr& expr);
  Value value(const Expr& expr);
  // Goes to the label if the condition is as `sense` says; goes on otherwise.
  void branch(const Expr& expr, bool sense, int label);
  int lineSetOf(const Expr& lines);

 private:
  struct Origin {
    bool isCell = false;
    Slot slot = 0;
  };
  Slot binary(Op op, Slot b, Slot c);
  Slot nameSet(const Expr& expr);
  Slot kindSet(const std::vector<int>& kinds, int owner);
  Slot ownSet(const Expr& name, int owner);
  Slot reachOfSide(int owner);
  Slot reachOfCell(Slot cell);
  Slot from(const Expr& expr, const Origin& origin);
  Origin origin(const Expr& expr);
  Slot total(const Expr& expr);
  template <class Body>
  auto inDefine(const Expr& call, int side, Body body);
  template <class Body>
  auto asSide(int side, Body body);

  const Checked& sheet_;
  Program& program_;
  Emitter& emit_;
  int me_ = 0;
  std::map<std::string, Value> locals_;
  std::optional<Origin> piece_;  // where a piece's reach starts
};

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
  const DefineDecl& define = sheet_.tree.defines[sheet_.find(call.word)->index];
  std::map<std::string, Value> inner;
  for (std::size_t i = 0; i < call.args.size(); ++i)
    inner[define.parameters[i].text] = value(call.args[i]);
  std::swap(locals_, inner);
  auto result = asSide(side, [&] { return body(define.body); });
  std::swap(locals_, inner);
  return result;
}

bool mentions(const Expr& expr, const std::string& name);

}  // namespace ninepegs::sheet
