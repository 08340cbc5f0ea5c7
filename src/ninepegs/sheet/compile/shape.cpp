// What is known of a move before code is made for it: its head, its class, what a trial may leave
// out, and which attacks can be foreseen.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

bool isPick(const Statement& one) {
  return one.kind == Kind::pick || one.kind == Kind::choose;
}

bool picksLine(const Statement& one) {
  return one.kind == Kind::pick && one.args[0].kind == ExprKind::lines && one.args[0].plural;
}

bool isName(const Expr& expr, const std::string& name) {
  return expr.kind == ExprKind::name && expr.word == name;
}

bool isEffect(const Statement& one) {
  switch (one.kind) {
    case Kind::pick:
    case Kind::choose:
    case Kind::let:
    case Kind::need:
    case Kind::maximise:
    case Kind::writtenAs:
    case Kind::seenAs:
    case Kind::write:
    case Kind::tell:
      return false;
    default:
      return true;
  }
}

bool holdsChoices(const std::vector<Statement>& list) {
  return std::any_of(list.begin(), list.end(), [](const Statement& one) {
    return one.kind == Kind::pick || one.kind == Kind::choose || one.kind == Kind::need ||
           one.kind == Kind::repeat || holdsChoices(one.body) || holdsChoices(one.otherwise);
  });
}

namespace {

void collectAssigned(const std::vector<Statement>& list, std::set<std::string>& out) {
  for (const Statement& one : list) {
    if (one.kind == Kind::set) out.insert(one.name.text);
    collectAssigned(one.body, out);
    collectAssigned(one.otherwise, out);
  }
}

}  // namespace

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

MoveShape Compiler::shapeOf(int index) const {
  MoveShape shape;
  const MoveDecl& move = sheet_.tree.moves[index];
  for (const AfterDecl& after : sheet_.tree.afters) {
    bool named = std::any_of(after.moves.begin(), after.moves.end(),
                             [&](const Name& name) { return name.text == move.name.text; });
    if (after.moves.empty() || named) shape.afters.push_back(&after);
  }
  bool head = true;
  for (const Statement& one : move.body) {
    shape.all.push_back(&one);
    if (one.kind == Kind::maximise) shape.maximise = &one;
    head = head && !isEffect(one) && !(one.kind == Kind::pick && one.ifAny);
    if (head) {
      shape.head.push_back(&one);
      continue;
    }
    bool inner = holdsChoices(one.body) || holdsChoices(one.otherwise);
    shape.latePicks = shape.latePicks || isPick(one) || one.kind == Kind::repeat || inner;
    shape.lateNeeds = shape.lateNeeds || one.kind == Kind::need;
  }
  for (const AfterDecl* after : shape.afters) {
    for (const Statement& one : after->body) {
      shape.all.push_back(&one);
      bool inner = holdsChoices(one.body) || holdsChoices(one.otherwise);
      shape.latePicks = shape.latePicks || isPick(one) || one.kind == Kind::repeat || inner;
      shape.lateNeeds = shape.lateNeeds || one.kind == Kind::need;
    }
    collectAssigned(after->body, shape.assigned);
  }
  collectAssigned(move.body, shape.assigned);
  shape.handSettled = handSettled(shape);
  shape.lateNeeds = shape.lateNeeds || !shape.handSettled;
  return shape;
}

// Is it known before the first effect that the hand holds what the move puts? So it is for one
// piece of a kind that is named, or that is chosen in the head, if nothing can go wrong before it
// is put.
bool Compiler::handSettled(const MoveShape& shape) const {
  auto fromHand = [](auto&& self, const Statement& one) -> int {
    int total = one.kind == Kind::put && one.fromHand ? 1 : 0;
    int factor = one.kind == Kind::repeat ? 2 : 1;
    for (const std::vector<Statement>* list : {&one.body, &one.otherwise})
      for (const Statement& inner : *list) total += factor * self(self, inner);
    return total;
  };
  int total = 0;
  const Statement* put = nullptr;
  bool mayFail = false;
  for (const Statement* one : shape.all) {
    int here = fromHand(fromHand, *one);
    if (here > 0 && mayFail) return false;
    total += here;
    if (one->kind == Kind::put && one->fromHand) put = one;
    mayFail = mayFail || one->kind == Kind::put || one->kind == Kind::shift ||
              one->kind == Kind::flip || one->kind == Kind::change || !one->body.empty();
  }
  if (total == 0) return true;
  if (total > 1 || put == nullptr) return false;
  if (sheet_.kind(put->name.text) >= 0) return true;
  return shape.assigned.count(put->name.text) == 0 &&
         std::any_of(shape.head.begin(), shape.head.end(), [&](const Statement* one) {
           return one->kind == Kind::choose && one->name.text == put->name.text;
         });
}

namespace {

// Sets in which only empty cells can be.
bool onlyEmpty(const Expr& expr) {
  switch (expr.kind) {
    case ExprKind::name:
      return expr.word == "empty";
    case ExprKind::on:
      return onlyEmpty(expr.args[0]) || onlyEmpty(expr.args[1]);
    case ExprKind::either:
      return onlyEmpty(expr.args[0]) && onlyEmpty(expr.args[1]);
    case ExprKind::except:
      return onlyEmpty(expr.args[0]);
    default:
      return false;
  }
}

// Sets in which no cell with a piece of the side that moves can be.
bool noneOfMine(const Checked& sheet, const Expr& expr) {
  switch (expr.kind) {
    case ExprKind::name:
      return expr.word == "empty" || expr.word == "theirs";
    case ExprKind::own: {
      const Symbol* symbol =
          expr.args[0].kind == ExprKind::name ? sheet.find(expr.args[0].word) : nullptr;
      return expr.word == "their" && symbol != nullptr &&
             (symbol->kind == SymbolKind::kind || symbol->kind == SymbolKind::group);
    }
    case ExprKind::on:
      return noneOfMine(sheet, expr.args[0]) || noneOfMine(sheet, expr.args[1]);
    case ExprKind::either:
      return noneOfMine(sheet, expr.args[0]) && noneOfMine(sheet, expr.args[1]);
    case ExprKind::except:
      return noneOfMine(sheet, expr.args[0]) || isName(expr.args[1], "mine");
    default:
      return false;
  }
}

}  // namespace

// Recognises: take there, shift here to there, and perhaps a further choice on some cells. What
// such a move uncovers can be seen before it is made.
void Compiler::foresee(MoveShape& shape) const {
  std::string from, to;
  std::optional<Expr> choiceOn;
  std::vector<std::string> picks;
  for (const Statement* one : shape.head)
    if (isPick(*one)) picks.push_back(one->kind == Kind::pick ? one->name.text : "");
  if (picks.size() < 2) return;
  // A piece goes to another cell than its own, and nothing can go wrong on the way: what goes wrong
  // is legal, attacked or not.
  const Statement* last = nullptr;
  for (const Statement* one : shape.head)
    if (isPick(*one)) last = one;
  if (last->kind != Kind::pick || !noneOfMine(sheet_, last->args[0])) return;
  bool free = onlyEmpty(last->args[0]);
  for (const Statement* one : shape.all) {
    bool inHead = std::find(shape.head.begin(), shape.head.end(), one) != shape.head.end();
    if (one->kind == Kind::maximise) return;
    if (inHead || one->kind == Kind::let || dropped(*one)) continue;
    if (!isEffect(*one)) return;  // what decides behind an effect is settled on trial
    if (one->kind == Kind::take && from.empty() && isName(one->args[0], picks.back())) {
      free = true;
      continue;
    }
    if (one->kind == Kind::shift && from.empty() && free && one->way.empty() &&
        one->args[0].kind == ExprKind::name && isName(one->args[1], picks.back()) &&
        std::find(picks.begin(), picks.end() - 1, one->args[0].word) != picks.end() - 1) {
      from = one->args[0].word;
      to = picks.back();
      continue;
    }
    // when there in CELLS: choose a kind, change there into it
    const Expr* test = one->kind == Kind::when && one->otherwise.empty() ? &one->args[0] : nullptr;
    bool fits = test != nullptr && test->kind == ExprKind::inside && !choiceOn && !from.empty() &&
                isName(test->args[0], to) && sheet_.constantSet(test->args[1], 0).has_value();
    for (const Statement& inner : one->body)
      fits = fits && ((inner.kind == Kind::choose && inner.choose == ChooseKind::kinds) ||
                      (inner.kind == Kind::change && isName(inner.args[0], to)));
    if (!fits) return;
    choiceOn = test->args[1];
  }
  if (from.empty()) return;
  for (const Statement* one : shape.head)
    if (one->name.text == from && express_.known(one->args[0]).owner != express_.side()) return;
  shape.from = from;
  shape.to = to;
  shape.choiceOn = choiceOn;
}

void Compiler::shapes() {
  int moves = static_cast<int>(sheet_.tree.moves.size());
  for (int index = 0; index < moves; ++index) shapes_.push_back(shapeOf(index));
  // Trials leave out what no check reads, if none reads what it would change.
  pruned_ = true;
  bool state = false;
  for (const ForbidDecl& forbid : sheet_.tree.forbids)
    state = state || readsState(forbid.condition);
  for (const MoveShape& shape : shapes_) {
    if (shape.maximise != nullptr) state = state || readsState(shape.maximise->args[0]);
    for (const Statement* one : shape.all) {
      bool inHead = std::find(shape.head.begin(), shape.head.end(), one) != shape.head.end();
      if (!inHead && !dropped(*one)) state = state || readsState(std::vector<Statement>{*one});
    }
  }
  pruned_ = !state && emit_.takes(Shortcut::pruned);
  program_.trialsChangeAll = !pruned_;
  // One forbidden attack on pieces of some kinds can be foreseen.
  if (pruned_ && sheet_.tree.forbids.size() == 1 && emit_.takes(Shortcut::foreseen)) {
    const Expr& condition = sheet_.tree.forbids[0].condition;
    std::optional<Expressions::Attack> attack;
    if (condition.kind == ExprKind::any) attack = express_.attackOf(condition.args[0]);
    std::vector<Expressions::Slides> slides;
    bool theirs = attack && attack->attacker != express_.side() && attack->targets.size() == 1 &&
                  attack->targets[0]->kind == ExprKind::own && attack->targets[0]->word == "my";
    // Round joined edges a piece may attack its own cell, and one cell along two lines.
    bool plain = !program_.layout.layered && !program_.rays.empty();
    if (theirs && plain && express_.slidesOf(0, slides) && express_.slidesOf(1, slides))
      guardedKinds_ = express_.known(*attack->targets[0]).kinds;
  }
  for (int index = 0; index < moves; ++index) {
    if (!guardedKinds_.empty()) foresee(shapes_[index]);
    classify(index);
  }
}

void Compiler::classify(int index) {
  const MoveShape& shape = shapes_[index];
  GroupCode& group = program_.groups[index];
  auto lineOf = [&](auto&& test) {
    for (const Statement* one : shape.all)
      if (test(*one)) return one->span.line;
    return sheet_.tree.moves[index].name.span.line;
  };
  auto late = [&](const Statement& one) {
    return std::find(shape.head.begin(), shape.head.end(), &one) == shape.head.end();
  };
  if (shape.latePicks) {
    group.moveClass = MoveClass::walked;
    group.classLine = lineOf([&](const Statement& one) {
      return late(one) && (isPick(one) || one.kind == Kind::repeat || holdsChoices(one.body) ||
                           holdsChoices(one.otherwise));
    });
  } else if (shape.lateNeeds || shape.maximise != nullptr || !sheet_.tree.forbids.empty()) {
    group.moveClass = MoveClass::tested;
    group.classLine = lineOf([&](const Statement& one) {
      return (late(one) && one.kind == Kind::need) || one.kind == Kind::maximise;
    });
    if (!shape.lateNeeds && shape.maximise == nullptr)
      group.classLine = sheet_.tree.forbids.front().span.line;
  } else {
    bool needBehindPick = false, picked = false;
    for (const Statement* one : shape.head) {
      needBehindPick = needBehindPick || (picked && one->kind == Kind::need);
      picked = picked || isPick(*one);
    }
    bool mask = group.choices == 1 && !needBehindPick;
    group.moveClass = mask ? MoveClass::mask : MoveClass::flat;
    group.classLine = lineOf([&](const Statement& one) {
      return mask ? isPick(one) : (needBehindPick ? one.kind == Kind::need : isPick(one));
    });
  }
  group.mayRepeat =
      !emit_.takes(Shortcut::distinct) || mayRepeat(shape, sheet_.tree.moves[index].body);
}

// Does it read anything but what stands on the board and names of the move?
bool Compiler::readsState(const Expr& expr) const {
  if (expr.kind == ExprKind::was || expr.kind == ExprKind::hand || expr.kind == ExprKind::movesOf)
    return true;
  // What a piece reaches may depend on more than what stands where.
  bool reach = expr.kind == ExprKind::reachOf ||
               (expr.kind == ExprKind::name && !expr.plural && expr.word == "reach");
  if (reach &&
      std::any_of(sheet_.tree.pieces.begin(), sheet_.tree.pieces.end(),
                  [&](const PieceDecl& piece) { return piece.reach && readsState(*piece.reach); }))
    return true;
  if (expr.kind == ExprKind::name || expr.kind == ExprKind::call || expr.kind == ExprKind::ofName) {
    for (const char* word : {"touched", "plies", "passes", "times seen", "next"})
      if (expr.word == word) return true;
    const Symbol* symbol = sheet_.find(expr.word);
    if (symbol != nullptr &&
        (symbol->kind == SymbolKind::mark || symbol->kind == SymbolKind::number ||
         symbol->kind == SymbolKind::remembered))
      return true;
    if (symbol != nullptr && symbol->kind == SymbolKind::define &&
        readsState(sheet_.tree.defines[symbol->index].body))
      return true;
  }
  return std::any_of(expr.args.begin(), expr.args.end(),
                     [&](const Expr& arg) { return readsState(arg); });
}

bool Compiler::readsState(const std::vector<Statement>& list) const {
  return std::any_of(list.begin(), list.end(), [&](const Statement& one) {
    if (one.fromHand || (one.kind == Kind::choose && one.choose == ChooseKind::hand)) return true;
    return std::any_of(one.args.begin(), one.args.end(),
                       [&](const Expr& arg) { return readsState(arg); }) ||
           readsState(one.body) || readsState(one.otherwise);
  });
}

bool Compiler::touchesBoard(const std::vector<Statement>& list) const {
  return std::any_of(list.begin(), list.end(),
                     [&](const Statement& one) { return one.kind != Kind::let && !dropped(one); });
}

// What changes nothing on the board and decides on no move.
bool Compiler::dropped(const Statement& one) const {
  switch (one.kind) {
    case Kind::addTo:
    case Kind::removeFrom:
    case Kind::again:
    case Kind::tell:
    case Kind::write:
    case Kind::writtenAs:
    case Kind::seenAs:
      return true;
    case Kind::set: {
      const Symbol* symbol = sheet_.find(one.name.text);
      return symbol != nullptr;  // else a name of the move
    }
    case Kind::when:
      return !touchesBoard(one.body) && !touchesBoard(one.otherwise);
    default:
      return false;
  }
}

}  // namespace ninepegs::sheet
