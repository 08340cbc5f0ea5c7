// Moves: heads as nested loops, effects as routines, texts.
#include <algorithm>
#include <set>

#include "ninepegs/sheet/compiler_parts.hpp"

namespace ninepegs::sheet {
namespace {

using Kind = StatementKind;

bool isEffect(const Statement& one) {
  switch (one.kind) {
    case Kind::pick:
    case Kind::choose:
    case Kind::let:
    case Kind::need:
    case Kind::writtenAs:
      return false;
    default:
      return true;
  }
}

// Does the statement, with all it holds, read the name?
bool reads(const Statement& one, const std::string& name) {
  if ((one.kind == Kind::put || one.kind == Kind::change) && one.name.text == name) return true;
  auto inside = [&](const std::vector<Statement>& list) {
    return std::any_of(list.begin(), list.end(),
                       [&](const Statement& inner) { return reads(inner, name); });
  };
  return std::any_of(one.args.begin(), one.args.end(),
                     [&](const Expr& arg) { return mentions(arg, name); }) ||
         inside(one.body) || inside(one.otherwise);
}

// The names given by `let` that are read, directly or through each other, by a statement that
// `counts`. What nobody reads is not worked out.
template <class Counts>
std::set<std::string> neededLets(const std::vector<const Statement*>& list, Counts counts) {
  std::set<std::string> needed;
  for (auto it = list.rbegin(); it != list.rend(); ++it) {
    const Statement& let = **it;
    if (let.kind != Kind::let) continue;
    for (auto later = list.begin(); later != list.end(); ++later) {
      const Statement& other = **later;
      if (&other == &let || !reads(other, let.name.text)) continue;
      if (other.kind == Kind::let ? needed.count(other.name.text) > 0 : counts(other))
        needed.insert(let.name.text);
    }
  }
  return needed;
}

}  // namespace

std::vector<const AfterDecl*> Compiler::aftersOf(int index) const {
  std::vector<const AfterDecl*> out;
  const std::string& name = sheet_.tree.moves[index].name.text;
  for (const AfterDecl& after : sheet_.tree.afters) {
    bool named = std::any_of(after.moves.begin(), after.moves.end(),
                             [&](const Name& move) { return move.text == name; });
    if (after.moves.empty() || named) out.push_back(&after);
  }
  return out;
}

std::vector<const Statement*> Compiler::withAfter(int index) const {
  std::vector<const Statement*> out;
  for (const Statement& one : sheet_.tree.moves[index].body) out.push_back(&one);
  for (const AfterDecl* after : aftersOf(index))
    for (const Statement& one : after->body) out.push_back(&one);
  return out;
}

void Compiler::bindChoices(const std::vector<Statement>& list) {
  int choice = 0;
  for (const Statement& one : list) {
    if (one.kind != Kind::pick && one.kind != Kind::choose) continue;
    Type type = one.kind == Kind::pick ? Type::cell : Type::kind;
    express_.bind(one.name.text, {type, static_cast<Slot>(program_.choicesAt + choice++)});
  }
}

// The head of a move as nested loops: each pick runs through its cells, a `need` that fails goes on
// with the next cell of the innermost pick.
void Compiler::generateGroup(int index, int side) {
  const std::vector<Statement>& body = sheet_.tree.moves[index].body;
  std::vector<const Statement*> head;
  for (const Statement& one : body) {
    if (isEffect(one)) break;
    head.push_back(&one);
  }
  std::set<std::string> lets = neededLets(head, [](const Statement& one) {
    return one.kind != Kind::let && one.kind != Kind::writtenAs;
  });
  std::size_t last = head.size();  // the last line that decides on moves
  for (std::size_t i = 0; i < head.size(); ++i)
    if (head[i]->kind != Kind::let && head[i]->kind != Kind::writtenAs) last = i;
  express_.begin(side, true);
  int done = emit_.label(), fail = done, choice = 0;
  bool emitted = false;
  for (std::size_t i = 0; i < head.size() && !emitted; ++i) {
    const Statement& one = *head[i];
    emit_.setStatement(one.id);
    if (one.kind == Kind::let && lets.count(one.name.text) > 0) {
      express_.bind(one.name.text, express_.value(one.args[0]));
    } else if (one.kind == Kind::need) {
      express_.branch(one.args[0], false, fail);
    } else if (one.kind == Kind::pick || one.kind == Kind::choose) {
      Slot cells;
      if (one.kind == Kind::pick) {
        cells = express_.set(one.args[0]);
      } else {
        std::vector<int> kinds;
        for (const Name& kind : one.names) kinds.push_back(sheet_.kind(kind.text));
        cells = emit_.constantKinds(kinds);
      }
      Slot chosen = static_cast<Slot>(program_.choicesAt + choice++);
      if (i == last) {
        emit_.add(Op::emitMany, static_cast<Slot>(choice), cells, 0, 0, index);
        emitted = true;
        break;
      }
      Slot rest = emit_.newSet();
      emit_.add(Op::copySet, rest, cells);
      int loop = emit_.label();
      emit_.place(loop);
      emit_.jump(Op::nextCell, fail, chosen, rest);
      fail = loop;
      express_.bind(one.name.text, {one.kind == Kind::pick ? Type::cell : Type::kind, chosen});
    }
  }
  if (!emitted) emit_.add(Op::emitOne, static_cast<Slot>(choice), 0, 0, 0, index);
  if (fail != done) emit_.jump(Op::jump, fail);
  emit_.place(done);
}

void Compiler::generator(int side, bool withPass) {
  (withPass ? program_.generate : program_.generateNoPass)[side] = emit_.here();
  std::vector<std::vector<Name>> tiers;
  if (sheet_.tree.turn)
    tiers = sheet_.tree.turn->tiers;
  else {
    tiers.emplace_back();
    for (const MoveDecl& move : sheet_.tree.moves) tiers.back().push_back(move.name);
  }
  for (std::size_t t = 0; t < tiers.size(); ++t) {
    for (const Name& name : tiers[t]) {
      if (name.text != "pass")
        generateGroup(sheet_.find(name.text)->index, side);
      else if (withPass)
        emit_.add(Op::emitPass);
    }
    if (t + 1 < tiers.size()) emit_.add(Op::tierEnd);
  }
  emit_.add(Op::stop);
}

int Compiler::owner(const Statement& one) const {
  int me = express_.side();
  return one.names.empty() || one.names[0].text == "my" ? me : 1 - me;
}

void Compiler::effect(const Statement& one) {
  emit_.setStatement(one.id);
  cover(one.id);
  const Layout& layout = program_.layout;
  auto kindOperand = [&](int& fromSlot) -> Slot {
    const Value* local = express_.find(one.name.text);
    fromSlot = local != nullptr ? 1 : 0;
    return local != nullptr ? local->slot : static_cast<Slot>(sheet_.kind(one.name.text));
  };
  auto isLocalCell = [&](const Expr& expr) {
    if (expr.kind != ExprKind::name) return false;
    const Value* local = express_.find(expr.word);
    return local != nullptr && local->type == Type::cell;
  };
  switch (one.kind) {
    case Kind::put: {
      int fromSlot = 0;
      Slot kind = kindOperand(fromSlot);
      bool cell = isLocalCell(one.args[0]);
      Slot where = cell ? express_.cell(one.args[0]) : express_.set(one.args[0]);
      emit_.add(cell ? Op::putCell : Op::put, 0, where, kind, static_cast<Slot>(express_.side()),
                fromSlot);
      break;
    }
    case Kind::change: {
      int fromSlot = 0;
      Slot kind = kindOperand(fromSlot);
      Slot where = express_.set(one.args[0]);
      emit_.add(Op::change, 0, where, kind, 0, fromSlot);
      break;
    }
    case Kind::shift: {
      Slot from = express_.cell(one.args[0]), to = express_.cell(one.args[1]);
      emit_.add(Op::shift, 0, from, to);
      break;
    }
    case Kind::take:
      emit_.add(Op::take, 0, express_.set(one.args[0]));
      break;
    case Kind::flip:
      emit_.add(Op::flip, 0, express_.set(one.args[0]));
      break;
    case Kind::addTo:
    case Kind::removeFrom: {
      Slot mark = layout.marks[sheet_.find(one.name.text)->index][owner(one)];
      emit_.add(one.kind == Kind::addTo ? Op::either : Op::minus, mark, mark,
                express_.set(one.args[0]));
      break;
    }
    case Kind::set:
      emit_.add(Op::copyNumber, layout.numbers[sheet_.find(one.name.text)->index][owner(one)],
                express_.number(one.args[0]));
      break;
    case Kind::again:
      emit_.add(Op::again);
      break;
    case Kind::when: {
      int otherwise = emit_.label(), done = emit_.label();
      express_.branch(one.args[0], false, otherwise);
      effects(one.body);
      emit_.jump(Op::jump, done);
      emit_.place(otherwise);
      effects(one.otherwise);
      emit_.place(done);
      break;
    }
    default:
      break;
  }
}

void Compiler::effects(const std::vector<Statement>& list) {
  for (const Statement& one : list) {
    if (one.kind == Kind::let) {
      cover(one.id);
      express_.bind(one.name.text, express_.value(one.args[0]));
    } else if (isEffect(one)) {
      effect(one);
    } else {
      cover(one.id);
    }
  }
}

void Compiler::applyGroup(int index, int side) {
  GroupCode& group = program_.groups[index];
  group.apply[side] = emit_.here();
  express_.begin(side, false);
  const std::vector<Statement>& body = sheet_.tree.moves[index].body;
  bindChoices(body);
  std::vector<const Statement*> all = withAfter(index);
  std::set<std::string> lets = neededLets(all, isEffect);
  for (const Statement& one : body) {
    if (isEffect(one)) {
      effect(one);
      continue;
    }
    cover(one.id);
    if (one.kind == Kind::let && lets.count(one.name.text) > 0)
      express_.bind(one.name.text, express_.value(one.args[0]));
  }
  for (const AfterDecl* after : aftersOf(index)) effects(after->body);
  emit_.jump(Op::turnOver, endsLabel_[side]);
}

void Compiler::textOf(int index, int side) {
  GroupCode& group = program_.groups[index];
  group.text[side] = emit_.here();
  express_.begin(side, false);
  const std::vector<Statement>& body = sheet_.tree.moves[index].body;
  bindChoices(body);
  const Statement* written = nullptr;
  std::vector<const Statement*> all;
  for (const Statement& one : body) {
    all.push_back(&one);
    if (one.kind == Kind::writtenAs) written = &one;
  }
  std::set<std::string> lets =
      neededLets(all, [](const Statement& one) { return one.kind == Kind::writtenAs; });
  for (const Statement& one : body)
    if (one.kind == Kind::let && lets.count(one.name.text) > 0)
      express_.bind(one.name.text, express_.value(one.args[0]));
  std::vector<TextPart> parts;
  auto add = [&](const std::string& name, TextPart::Kind wanted) {
    const Value& value = *express_.find(name);
    TextPart part{wanted, "", value.slot};
    if (wanted == TextPart::Kind::cell) {
      part.kind = value.type == Type::kind     ? TextPart::Kind::kind
                  : value.type == Type::number ? TextPart::Kind::number
                  : value.type == Type::set    ? TextPart::Kind::set
                                               : TextPart::Kind::cell;
    } else if (value.type == Type::set) {
      part.slot = emit_.newNumber();
      emit_.add(Op::setCell, part.slot, value.slot);
    }
    parts.push_back(part);
  };
  if (written != nullptr) {
    for (const Expr& expr : written->args) {
      if (expr.kind == ExprKind::name && expr.plural)
        parts.push_back({TextPart::Kind::literal, expr.word, 0});
      else if (expr.kind == ExprKind::ofName)
        add(expr.args[0].word,
            expr.word == "column" ? TextPart::Kind::column : TextPart::Kind::row);
      else
        add(expr.word, TextPart::Kind::cell);
    }
  } else {  // what was picked, in order
    for (const Statement& one : body) {
      if (one.kind != Kind::pick && one.kind != Kind::choose) continue;
      if (!parts.empty()) parts.push_back({TextPart::Kind::literal, "-", 0});
      add(one.name.text, TextPart::Kind::cell);
    }
    if (parts.empty()) parts.push_back({TextPart::Kind::literal, group.name, 0});
  }
  group.parts = parts;
  emit_.add(Op::stop);
}

void Compiler::group(int index) {
  const MoveDecl& move = sheet_.tree.moves[index];
  GroupCode group;
  group.name = move.name.text;
  for (const Statement& one : move.body) {
    if (one.kind != Kind::pick && one.kind != Kind::choose) continue;
    group.choiceIsKind.push_back(one.kind == Kind::choose);
    ++group.choices;
  }
  program_.groups.push_back(std::move(group));
}

}  // namespace ninepegs::sheet
