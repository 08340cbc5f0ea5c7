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
    if (isPick(one) && mode != Recipe::trial) return picksLine(one);
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
