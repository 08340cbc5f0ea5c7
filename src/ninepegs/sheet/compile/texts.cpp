// What a move's text, what the other side sees of it, and what is told are made of.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

void Compiler::writePart(TextPart part, Slot slot, int channel) {
  int number = static_cast<int>(program_.parts.size());
  program_.parts.push_back(std::move(part));
  emit_.add(Op::write, slot, 0, 0, static_cast<Slot>(channel), number);
}

void Compiler::write(const Statement& one, int channel) {
  using Part = TextPart::Kind;
  auto kindOf = [](const Value& value) {
    switch (value.type) {
      case Type::kind:
        return Part::kind;
      case Type::kinds:
        return Part::kinds;
      case Type::number:
        return value.shown != 0 ? Part::chosenNumber : Part::number;
      case Type::set:
        return value.lines >= 0 ? Part::line : Part::set;
      default:
        return Part::cell;
    }
  };
  if (channel == 2) writePart({Part::literal, "\n"}, 0, channel);  // every `tell` is a line
  for (const Expr& expr : one.args) {
    if (expr.kind == ExprKind::name && expr.plural) {
      writePart({Part::literal, expr.word}, 0, channel);
    } else if (isCellsText(expr)) {
      writePart({expr.word == "column" ? Part::column : Part::row, ""}, express_.cell(expr.args[0]),
                channel);
    } else {
      Value value = express_.value(expr);
      writePart({kindOf(value), ""}, value.shown != 0 ? value.shown : value.slot, channel);
    }
  }
}

// Are all parts of the move's texts names of its head, which nothing changes?
bool Compiler::writtenBy(const MoveShape& shape) const {
  if (!madeSlots_.empty()) return false;
  std::set<std::string> names;
  for (const Statement* one : shape.head)
    if (shape.assigned.count(one->name.text) == 0)
      names.insert(one->name.text);
    else if (isPick(*one))
      return false;  // a text of picks shows what they became
  for (const Statement* one : shape.all) {
    if (one->kind != Kind::writtenAs && one->kind != Kind::seenAs) continue;
    for (const Expr& part : one->args) {
      const Expr& name = isCellsText(part) ? part.args[0] : part;
      bool quoted = part.kind == ExprKind::name && part.plural;
      if (!quoted && (name.kind != ExprKind::name || names.count(name.word) == 0)) return false;
    }
  }
  return true;
}

// `written as` and `seen as`; without a text of its own, a move is what was picked, in order.
void Compiler::moveText(int index) {
  bool written = false;
  for (const Statement& one : sheet_.tree.moves[index].body) {
    if (one.kind == Kind::writtenAs) write(one, 0);
    if (one.kind == Kind::seenAs) write(one, 1);
    written = written || one.kind == Kind::writtenAs;
  }
  auto writes = [&](auto&& self, const std::vector<Statement>& list) -> bool {
    for (const Statement& one : list)
      if (one.kind == Kind::write || self(self, one.body) || self(self, one.otherwise)) return true;
    return false;
  };
  written = written || writes(writes, sheet_.tree.moves[index].body);
  for (const AfterDecl* after : shape_->afters) written = written || writes(writes, after->body);
  if (written) return;
  bool first = true;
  std::set<std::string> added;  // a name made in several blocks is one part
  auto add = [&](const std::string& name) {
    if (!added.insert(name).second) return;
    if (!first) writePart({TextPart::Kind::literal, "-"}, 0, 0);
    first = false;
    Statement part;
    Expr expr;
    expr.kind = ExprKind::name;
    expr.word = name;
    part.args.push_back(std::move(expr));
    write(part, 0);
  };
  for (const Statement* one : shape_->head)
    if (one->kind == Kind::pick || one->kind == Kind::choose) add(one->name.text);
  auto late = [&](auto&& self, const std::vector<Statement>& list) -> void {
    for (const Statement& one : list) {
      if (madeSlots_.count({0, one.name.text}) > 0 &&
          (one.kind == Kind::pick || one.kind == Kind::choose))
        add(one.name.text);
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  late(late, sheet_.tree.moves[index].body);
  if (first) writePart({TextPart::Kind::literal, program_.groups[index].name}, 0, 0);
}

}  // namespace ninepegs::sheet
