// Recipes: what a move does, line by line, as it is made, tried, or written as text.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

namespace {

// The names given by `let`, at any depth, that are read by a statement that `counts`, directly or
// through each other. What nobody reads is not worked out.
void allOf(const std::vector<Statement>& list, std::vector<const Statement*>& out) {
  for (const Statement& one : list) {
    out.push_back(&one);
    allOf(one.body, out);
    allOf(one.otherwise, out);
  }
}

bool readsItself(const Statement& one, const std::string& name) {
  if ((one.kind == Kind::put || one.kind == Kind::change || one.kind == Kind::set) &&
      one.name.text == name)
    return true;
  return std::any_of(one.args.begin(), one.args.end(),
                     [&](const Expr& arg) { return mentions(arg, name); });
}

bool takesSet(Type type) {
  return type == Type::set || type == Type::kinds;
}

void namesIn(const Expr& expr, std::set<std::string>& out) {
  if (expr.kind == ExprKind::name || expr.kind == ExprKind::ofName) out.insert(expr.word);
  for (const Expr& arg : expr.args) namesIn(arg, out);
}

template <class Counts>
std::set<std::string> neededLets(const std::vector<const Statement*>& list, Counts counts) {
  std::set<std::string> needed;
  for (bool grew = true; grew;) {
    grew = false;
    for (const Statement* let : list) {
      if (let->kind != Kind::let || needed.count(let->name.text) > 0) continue;
      for (const Statement* other : list) {
        if (other == let || !readsItself(*other, let->name.text)) continue;
        if (other->kind == Kind::let ? needed.count(other->name.text) == 0 : !counts(*other))
          continue;
        needed.insert(let->name.text);
        grew = true;
        break;
      }
    }
  }
  return needed;
}

}  // namespace

void Compiler::group(int index) {
  const MoveDecl& move = sheet_.tree.moves[index];
  GroupCode group;
  group.name = move.name.text;
  for (const Statement* one : shapeOf(index).head) {
    if (!isPick(*one)) continue;
    bool lines = picksLine(*one);
    group.choiceIsCell.push_back(one->kind == Kind::pick && !lines);
    ++group.choices;
  }
  program_.groups.push_back(std::move(group));
}

int Compiler::owner(const Statement& one) const {
  int me = express_.side();
  return one.names.empty() || one.names[0].text == "my" ? me : 1 - me;
}

// A value of its own, which later changes of the position or of a name leave alone.
Value Compiler::copied(Value value) {
  bool set = takesSet(value.type);
  Slot slot = set ? emit_.newSet() : emit_.newNumber();
  emit_.add(set ? Op::copySet : Op::copyNumber, slot, value.slot);
  value.slot = slot;
  return value;
}

void Compiler::name(const std::string& name, Value value) {
  bool inPosition = value.slot < program_.layout.words;
  if (inPosition || !shape_->assigned.empty()) value = copied(value);
  express_.bind(name, std::move(value));
}

// What was picked in the head stands in memory already.
void Compiler::bindHead(const MoveShape& shape) {
  int choice = 0;
  for (const Statement* one : shape.head) {
    if (!isPick(*one)) continue;
    Slot at = static_cast<Slot>(program_.choicesAt + choice++);
    bool lines = picksLine(*one);
    if (lines) continue;  // its length may ask for names that are not made yet: see headLine
    Type type = one->kind == Kind::pick            ? Type::cell
                : one->choose == ChooseKind::range ? Type::number
                                                   : Type::kind;
    Value value{type, at};
    if (shape.assigned.count(one->name.text) > 0) value = copied(value);
    express_.bind(one->name.text, value);
  }
}

// A line that was picked in the head, from the number of its choice.
void Compiler::headLine(const MoveShape& shape, const Statement& one) {
  int choice = 0;
  for (const Statement* other : shape.head) {
    if (other == &one) break;
    if (isPick(*other)) ++choice;
  }
  auto [family, length] = express_.lineFamilyOf(one.args[0]);
  Slot line = emit_.newSet();
  emit_.add(Op::lineChosen, line, static_cast<Slot>(program_.choicesAt + choice), length, 0,
            family);
  Value value{Type::set, line};
  value.lines = choice;
  express_.bind(one.name.text, value);
}

void Compiler::latePick(const Statement& one) {
  Slot at = madeSlots_.at({madeIn_, one.name.text});
  Type type = Type::cell;
  if (picksLine(one)) {
    Slot in = express_.set(one.args[0].args[1]);
    auto [family, length] = express_.lineFamilyOf(one.args[0]);
    emit_.add(Op::pickLine, at, in, length, 0, family);
    Value value{Type::set, at};
    value.lines = 0;
    express_.bind(one.name.text, value);
    return;
  }
  if (one.kind == Kind::pick) {
    emit_.add(Op::pickCell, at, express_.set(one.args[0]), 0, 0, one.ifAny ? 1 : 0);
  } else if (one.choose == ChooseKind::range) {
    Slot low = express_.number(one.args[0]);
    emit_.add(Op::pickNumber, at, low, express_.number(one.args[1]));
    type = Type::number;
  } else {
    Slot kinds = 0;
    if (one.choose == ChooseKind::hand) {
      kinds = emit_.newSet();
      emit_.add(Op::handKinds, kinds, 0, 0, static_cast<Slot>(express_.side()));
    } else {
      std::vector<int> list;
      for (const Name& kind : one.names) list.push_back(sheet_.kind(kind.text));
      kinds = emit_.constantKinds(list);
    }
    emit_.add(Op::pickCell, at, kinds);
    type = Type::kind;
  }
  Value value{type, at};
  if (auto it = shownSlots_.find({madeIn_, one.name.text}); it != shownSlots_.end()) {
    value.shown = it->second;
    emit_.add(Op::copyNumber, value.shown, at);
  }
  express_.bind(one.name.text, value);
}

void Compiler::repeat(const Statement& one) {
  Slot rounds = emit_.newNumber(), most = 0, attempt = 0;
  emit_.add(Op::copyNumber, rounds, emit_.constantNumber(0));
  if (one.repeat == RepeatKind::times || one.repeat == RepeatKind::upTo) {
    most = emit_.newNumber();
    emit_.add(Op::copyNumber, most, express_.number(one.args[0]));
  }
  if (one.repeat == RepeatKind::whilePossible) attempt = emit_.newNumber();
  int loop = emit_.label(), done = emit_.label(), begun = emit_.here();
  emit_.place(loop);
  switch (one.repeat) {
    case RepeatKind::whilePossible:
      emit_.jump(Op::attempt, done, rounds, attempt);
      break;
    case RepeatKind::anyTimes:
      emit_.jump(Op::round, done, rounds);
      break;
    case RepeatKind::upTo:
      emit_.jump(Op::round, done, rounds, most, 0, 1);
      break;
    case RepeatKind::times:
      emit_.jump(Op::eachRound, done, rounds, most);
      break;
  }
  statements(one.body);
  emit_.setStatement(one.id);
  if (one.repeat == RepeatKind::whilePossible)
    emit_.jump(Op::attempted, loop, 0, attempt);
  else
    emit_.weigh(begun), emit_.jump(Op::jump, loop);
  emit_.place(done);
}

void Compiler::assign(const Statement& one) {
  const Layout& layout = program_.layout;
  const Expr& value = one.args[0];
  if (const Value* local =
          one.names.empty() && !one.ifAny ? express_.find(one.name.text) : nullptr) {
    bool set = local->type == Type::set || local->type == Type::kinds;
    Slot slot = local->slot, shown = local->shown;
    if (set)
      emit_.add(Op::copySet, slot, express_.set(value));
    else
      emit_.add(Op::copyNumber, slot,
                local->type == Type::cell   ? express_.cell(value)
                : local->type == Type::kind ? express_.kind(value)
                                            : express_.number(value));
    if (shown != 0) emit_.add(Op::copyNumber, shown, slot);
    return;
  }
  const Symbol& symbol = *sheet_.find(one.name.text);
  int side = owner(one);
  if (symbol.kind == SymbolKind::mark) {
    emit_.add(Op::copySet, layout.marks[symbol.index][side], express_.set(value));
  } else if (symbol.kind == SymbolKind::remembered) {
    Slot slot = layout.cells[symbol.index][side];
    auto it = pending_.find({symbol.index, sheet_.tree.cells[symbol.index].each ? side : 0});
    if (it != pending_.end() && !inAfter_) slot = it->second;
    emit_.add(Op::copyNumber, slot, express_.cell(value));
  } else if (one.ifAny) {
    Slot number = express_.number(value);
    emit_.add(Op::setCellNumber, number, layout.cellNumbers[symbol.index],
              express_.cell(one.args[1]));
  } else {
    Slot number = layout.numbers[symbol.index][side];
    emit_.add(Op::copyNumber, number, express_.number(value));
    bool clock = sheet_.tree.notation && sheet_.tree.notation->clock.text == one.name.text;
    if (clock && mode_ == Recipe::apply) emit_.add(Op::countdown, 0, number);
  }
}

void Compiler::effect(const Statement& one) {
  const Layout& layout = program_.layout;
  auto kindOperand = [&](int& fromSlot) -> Slot {
    const Value* local = express_.find(one.name.text);
    fromSlot = local != nullptr ? 1 : 0;
    return local != nullptr ? local->slot : static_cast<Slot>(sheet_.kind(one.name.text));
  };
  auto isLocalCell = [&](const Expr& expr) {
    const Value* local = expr.kind == ExprKind::name ? express_.find(expr.word) : nullptr;
    return local != nullptr && local->type == Type::cell;
  };
  int fromSlot = 0;
  switch (one.kind) {
    case Kind::put: {
      Slot kind = kindOperand(fromSlot);
      bool neutral = fromSlot == 0 && sheet_.tree.pieces[kind].neutral;
      Slot side = static_cast<Slot>(neutral ? 2 : express_.side());
      if (one.fromHand)
        emit_.add(Op::useHand, 0, 0, kind, static_cast<Slot>(express_.side()), fromSlot);
      bool cell = isLocalCell(one.args[0]);
      Slot where = cell ? express_.cell(one.args[0]) : express_.set(one.args[0]);
      emit_.add(cell ? Op::putCell : Op::put, 0, where, kind, side, fromSlot);
      break;
    }
    case Kind::change: {
      Slot kind = kindOperand(fromSlot);
      emit_.add(Op::change, 0, express_.set(one.args[0]), kind, 0, fromSlot);
      break;
    }
    case Kind::shift: {
      if (!one.way.empty()) {
        Slot cells = express_.set(one.args[0]);
        emit_.add(Op::shiftAll, 0, cells, 0, 0,
                  sheet_.directions(one.way, express_.side()).front());
        break;
      }
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
      assign(one);
      break;
    case Kind::again:
      emit_.add(Op::again);
      break;
    case Kind::when: {
      int otherwise = emit_.label(), done = emit_.label();
      express_.branch(one.args[0], false, otherwise);
      statements(one.body);
      if (!one.otherwise.empty()) emit_.jump(Op::jump, done);
      emit_.place(otherwise);
      statements(one.otherwise);
      emit_.place(done);
      break;
    }
    case Kind::repeat:
      repeat(one);
      break;
    default:
      break;
  }
}

// A line behind the head.
void Compiler::statement(const Statement& one) {
  emit_.setStatement(one.id);
  if (mode_ == Recipe::trial && pruned_ && dropped(one)) return;
  if (mode_ == Recipe::apply) cover(one.id);
  switch (one.kind) {
    case Kind::let: {
      if (lets_.count(one.name.text) == 0) break;
      Value value = express_.value(one.args[0]);
      if (outside_.count({madeIn_, one.name.text}) > 0) {
        Slot slot = madeSlots_.at({madeIn_, one.name.text});
        emit_.add(takesSet(value.type) ? Op::copySet : Op::copyNumber, slot, value.slot);
        express_.bind(one.name.text, {value.type, slot});
        break;
      }
      name(one.name.text, std::move(value));
      break;
    }
    case Kind::pick:
    case Kind::choose:
      latePick(one);
      break;
    case Kind::need:
      if (mode_ == Recipe::trial) {
        int good = emit_.label();
        express_.branch(one.args[0], true, good);
        emit_.add(Op::fail);
        emit_.place(good);
      }
      break;
    case Kind::tell:
      if (mode_ == Recipe::text) write(one, 2);
      break;
    case Kind::write:
      if (mode_ == Recipe::text) write(one, 0);
      break;
    case Kind::maximise:
    case Kind::writtenAs:
    case Kind::seenAs:
      break;
    default:
      effect(one);
  }
}

void Compiler::statements(const std::vector<Statement>& list) {
  for (const Statement& one : list) statement(one);
}

// Cells that last one move are what the move set them to, or none.
void Compiler::settle() {
  for (const auto& [which, slot] : pending_)
    emit_.add(Op::copyNumber, program_.layout.cells[which.first][which.second], slot);
}

// What was not made has a value all the same: no cell, no cells, no kind, 0.
void Compiler::makeRoom(int index) {
  const MoveShape& shape = *shape_;
  madeSlots_.clear();
  shownSlots_.clear();
  outside_.clear();
  std::set<std::string> read;  // outside the blocks of the move
  auto collect = [&](auto&& self, const std::vector<Statement>& list, bool after) -> void {
    for (const Statement& one : list) {
      bool text = one.kind == Kind::write || one.kind == Kind::writtenAs ||
                  one.kind == Kind::seenAs || one.kind == Kind::tell;
      if (after || text) {
        if (one.kind == Kind::put || one.kind == Kind::change || one.kind == Kind::set)
          read.insert(one.name.text);
        for (const Expr& arg : one.args) namesIn(arg, read);
      }
      self(self, one.body, after);
      self(self, one.otherwise, after);
    }
  };
  collect(collect, sheet_.tree.moves[index].body, false);
  for (const AfterDecl* after : shape.afters) collect(collect, after->body, true);
  bool texts = mode_ == Recipe::text;
  std::set<const Statement*> head(shape.head.begin(), shape.head.end());
  auto room = [&](auto&& self, const std::vector<Statement>& list, int in, bool inner) -> void {
    for (const Statement& one : list) {
      bool lines = picksLine(one);
      bool pick = isPick(one) && head.count(&one) == 0;
      bool crosses = inner && (pick || one.kind == Kind::let) && read.count(one.name.text) > 0;
      MadeIn made{in, one.name.text};
      if ((pick || crosses) && madeSlots_.count(made) == 0) {
        bool set = lines || (one.kind == Kind::let && takesSet(one.args[0].type));
        bool number = (one.kind == Kind::choose && one.choose == ChooseKind::range) ||
                      (one.kind == Kind::let && one.args[0].type == Type::number);
        Slot slot = set ? emit_.newSet() : emit_.newNumber();
        madeSlots_[made] = slot;
        if (crosses || texts)
          emit_.add(set ? Op::clear : Op::copyNumber, slot,
                    set ? Slot{0} : emit_.constantNumber(number ? 0 : -1));
        if (texts && inner && one.kind == Kind::choose &&
            number) {  // left out if it was not chosen
          Slot shown = shownSlots_[made] = emit_.newNumber();
          emit_.add(Op::copyNumber, shown, emit_.constantNumber(-1));
        }
      }
      if (crosses) outside_.insert(made);
      self(self, one.body, in, true);
      self(self, one.otherwise, in, true);
    }
  };
  room(room, sheet_.tree.moves[index].body, 0, false);
  for (std::size_t i = 0; i < shape.afters.size(); ++i)
    room(room, shape.afters[i]->body, static_cast<int>(i) + 1, false);
}

void Compiler::recipe(int index, int side, Recipe mode) {
  GroupCode& group = program_.groups[index];
  const MoveShape& shape = shapes_[index];
  mode_ = mode;
  shape_ = &shape;
  inAfter_ = false;
  madeIn_ = 0;
  (mode == Recipe::apply   ? group.apply
   : mode == Recipe::trial ? group.trial
                           : group.text)[side] = emit_.here();
  express_.begin(side, mode == Recipe::trial ? Scratch::trial : Scratch::other);
  bindHead(shape);
  std::vector<const Statement*> all;
  allOf(sheet_.tree.moves[index].body, all);
  for (const AfterDecl* after : shape.afters) allOf(after->body, all);
  std::set<const Statement*> head(shape.head.begin(), shape.head.end());
  lets_ = neededLets(all, [&](const Statement& one) {
    bool text = one.kind == Kind::write || one.kind == Kind::writtenAs ||
                one.kind == Kind::seenAs || one.kind == Kind::tell;
    if (text) return mode == Recipe::text;
    if (mode == Recipe::trial && pruned_ && dropped(one)) return false;
    if (one.kind == Kind::maximise) return mode == Recipe::trial;
    return head.count(&one) == 0 || picksLine(one);
  });
  makeRoom(index);
  bool keepsState = mode != Recipe::trial || !pruned_;
  pending_.clear();
  const std::vector<StateDecl>& cells = sheet_.tree.cells;
  for (std::size_t i = 0; i < cells.size() && keepsState; ++i) {
    if (!cells[i].lastsOneMove) continue;
    for (int each = 0; each < (cells[i].each ? 2 : 1); ++each) {
      Slot slot = emit_.constantNumber(-1);
      if (shape.assigned.count(cells[i].name.text) > 0) {
        slot = emit_.newNumber();
        emit_.add(Op::copyNumber, slot, emit_.constantNumber(-1));
      }
      pending_[{static_cast<int>(i), each}] = slot;
    }
  }
  // A text that needs only what was picked stands before the effects, which may go wrong.
  bool early = writtenBy(shape);
  bool texts = mode == Recipe::text;
  for (const Statement& one : sheet_.tree.moves[index].body) {
    if (head.count(&one) == 0) {
      if (texts && early) moveText(index);
      texts = texts && !early;
      statement(one);
    } else {
      emit_.setStatement(one.id);
      if (mode == Recipe::apply) cover(one.id);
      if (one.kind == Kind::let && lets_.count(one.name.text) > 0)
        name(one.name.text, express_.value(one.args[0]));
      if (picksLine(one)) headLine(shape, one);
      if (mode == Recipe::text && (one.kind == Kind::write || one.kind == Kind::tell))
        write(one, one.kind == Kind::tell ? 2 : 0);
    }
  }
  settle();
  inAfter_ = true;
  if (texts) moveText(index);
  for (std::size_t i = 0; i < shape.afters.size(); ++i) {
    madeIn_ = static_cast<int>(i) + 1;
    statements(shape.afters[i]->body);
  }
  if (mode == Recipe::trial) {
    finishTrial(index);
  } else if (mode == Recipe::text) {
    emit_.add(Op::stop);
  } else {
    if (program_.layout.passes != 0)
      emit_.add(Op::copyNumber, program_.layout.passes, emit_.constantNumber(0));
    emit_.jump(Op::turnOver, endsLabel_[side]);
  }
}

void Compiler::finishTrial(int index) {
  if (!pruned_ && program_.layout.passes != 0)
    emit_.add(Op::copyNumber, program_.layout.passes, emit_.constantNumber(0));
  if (!pruned_) emit_.add(Op::turnPass);
  Slot measure = 0;
  if (shape_->maximise != nullptr) {
    Slot value = express_.number(shape_->maximise->args[0]);
    measure = emit_.newNumber();
    emit_.add(Op::copyNumber, measure, value);
  }
  for (const ForbidDecl& forbid : sheet_.tree.forbids) {
    emit_.setStatement(forbid.id);
    express_.forget();
    int next = emit_.label();
    express_.branch(forbid.condition, false, next);
    cover(forbid.id);
    emit_.add(Op::fail);
    emit_.place(next);
  }
  emit_.add(Op::complete, measure, 0, 0, 0, index);
}

}  // namespace ninepegs::sheet
