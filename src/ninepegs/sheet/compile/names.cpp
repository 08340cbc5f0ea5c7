// Names of a move: which of them a recipe works out, and where they are kept.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

// A value of its own, which later changes of the position or of a name leave alone.
Value Compiler::copied(Value value) {
  bool set = takesSet(value.type);
  Slot slot = set ? emit_.newSet() : emit_.newNumber();
  emit_.add(set ? Op::copySet : Op::copyNumber, slot, value.slot);
  value.slot = slot;
  return value;
}

void Compiler::name(NameId name, Value value) {
  bool inPosition = value.slot < program_.layout.words;
  if (inPosition || move_->sets) value = copied(value);
  express_.bind(name, std::move(value));
}

namespace {

bool readsItself(const Clause& one, NameId name) {
  if (const rules::SetName* set = as<rules::SetName>(one); set != nullptr && set->name == name)
    return true;
  bool found = false;
  rules::eachTerm(one, [&](const Term& term) { found = found || mentions(term, name); });
  return found;
}

void namesIn(const Term& term, std::set<NameId>& out) {
  if (const rules::Name* name = as<rules::Name>(term)) out.insert(name->name);
  rules::eachPart(term, [&](const Term& part) { namesIn(part, out); });
}

}  // namespace

// The names given by `let`, at any depth, that are read by what counts in this recipe, directly or
// through each other. What nobody reads is not worked out.
void Compiler::findLets(int index) {
  std::vector<const Clause*> all;
  auto take = [&](const Clause& one) { all.push_back(&one); };
  rules::eachClause(rules_.moves[index].body, take);
  for (const rules::AfterRule* after : move_->afters) rules::eachClause(after->body, take);
  auto counts = [&](const Clause& one) {
    if (rules::textParts(one) != nullptr) return mode_ == Recipe::text;
    if (mode_ == Recipe::trial && plan_.pruned && isDropped(one)) return false;
    if (as<rules::Maximise>(one) != nullptr) return mode_ == Recipe::trial;
    bool line = as<rules::PickLine>(one) != nullptr;
    if (rules::isChoice(one) && mode_ != Recipe::trial) return line;
    return !move_->inHead(one) || line;
  };
  lets_.clear();
  for (bool grew = true; grew;) {
    grew = false;
    for (const Clause* one : all) {
      const rules::Let* let = as<rules::Let>(*one);
      if (let == nullptr || lets_.count(let->name) > 0) continue;
      for (const Clause* other : all) {
        if (other == one || !readsItself(*other, let->name)) continue;
        const rules::Let* reader = as<rules::Let>(*other);
        if (reader != nullptr ? lets_.count(reader->name) == 0 : !counts(*other)) continue;
        lets_.insert(let->name);
        grew = true;
        break;
      }
    }
  }
}

// What was not made has a value all the same: no cell, no cells, no kind, 0.
void Compiler::makeRoom(int index) {
  madeSlots_.clear();
  shownSlots_.clear();
  outside_.clear();
  std::set<NameId> read;  // outside the blocks of the move
  auto collect = [&](const Clause& one) {
    if (const rules::SetName* set = as<rules::SetName>(one)) read.insert(set->name);
    rules::eachTerm(one, [&](const Term& term) { namesIn(term, read); });
  };
  const Clauses& body = rules_.moves[index].body;
  rules::eachClause(body, [&](const Clause& one) {
    if (rules::textParts(one) != nullptr) collect(one);
  });
  for (const rules::AfterRule* after : move_->afters) rules::eachClause(after->body, collect);
  bool texts = mode_ == Recipe::text;
  auto room = [&](auto&& self, const Clauses& list, int in, bool inner) -> void {
    for (const Clause& one : list) {
      const rules::Let* let = as<rules::Let>(one);
      bool pick = rules::isChoice(one) && !move_->inHead(one);
      MadeIn made{in, rules::madeName(one)};
      bool crosses = inner && (pick || let != nullptr) && read.count(made.second) > 0;
      if ((pick || crosses) && madeSlots_.count(made) == 0) {
        bool chosen = as<rules::ChooseNumber>(one) != nullptr;
        bool set =
            as<rules::PickLine>(one) != nullptr || (let != nullptr && takesSet(let->value->type));
        bool number = chosen || (let != nullptr && let->value->type == Type::number);
        Slot slot = set ? emit_.newSet() : emit_.newNumber();
        madeSlots_[made] = slot;
        if (crosses || texts)
          emit_.add(set ? Op::clear : Op::copyNumber, slot,
                    set ? Slot{0} : emit_.constantNumber(number ? 0 : -1));
        if (texts && inner && chosen) {  // left out if it was not chosen
          Slot shown = shownSlots_[made] = emit_.newNumber();
          emit_.add(Op::copyNumber, shown, emit_.constantNumber(-1));
        }
      }
      if (crosses) outside_.insert(made);
      for (const Clauses* deeper : rules::inner(one)) self(self, *deeper, in, true);
    }
  };
  room(room, body, 0, false);
  for (std::size_t i = 0; i < move_->afters.size(); ++i)
    room(room, move_->afters[i]->body, static_cast<int>(i) + 1, false);
}

}  // namespace ninepegs::sheet
