// What clauses are made of; what the compiler makes of them, once.
#include "ninepegs/sheet/rules/clauses.hpp"

#include <utility>

namespace ninepegs::rules {

Clause::Clause() = default;
Clause::Clause(Span at, int number, ClauseForm what)
    : span(at), id(number), form(std::move(what)) {}
Clause::Clause(const Clause&) = default;
Clause::Clause(Clause&&) noexcept = default;
Clause& Clause::operator=(const Clause&) = default;
Clause& Clause::operator=(Clause&&) noexcept = default;
Clause::~Clause() = default;

bool isChoice(const Clause& clause) {
  return as<PickCell>(clause) != nullptr || as<PickLine>(clause) != nullptr ||
         as<ChooseKind>(clause) != nullptr || as<ChooseFromHand>(clause) != nullptr ||
         as<ChooseNumber>(clause) != nullptr;
}

NameId madeName(const Clause& clause) {
  if (const Let* let = as<Let>(clause)) return let->name;
  if (!isChoice(clause)) return -1;
  return std::visit(
      [](const auto& form) {
        if constexpr (requires { form.name; }) return form.name;
        return -1;
      },
      clause.form);
}

const std::vector<TextPart>* textParts(const Clause& clause) {
  return std::visit(
      [](const auto& form) -> const std::vector<TextPart>* {
        if constexpr (requires { form.parts; }) return &form.parts;
        return nullptr;
      },
      clause.form);
}

std::vector<const Clauses*> inner(const Clause& clause) {
  if (const When* when = as<When>(clause)) return {&when->then, &when->otherwise};
  if (const Repeat* repeat = as<Repeat>(clause)) return {&repeat->body};
  return {};
}

const Term* shown(const TextPart& part) {
  if (const Shown* value = std::get_if<Shown>(&part)) return value->value.get();
  if (const ColumnOf* column = std::get_if<ColumnOf>(&part)) return column->cell.get();
  if (const RowOf* row = std::get_if<RowOf>(&part)) return row->cell.get();
  return nullptr;
}

bool anyClause(const Clauses& list, FunctionRef<bool(const Clause&)> test) {
  for (const Clause& one : list) {
    if (test(one)) return true;
    for (const Clauses* deeper : inner(one))
      if (anyClause(*deeper, test)) return true;
  }
  return false;
}

void eachClause(const Clauses& list, FunctionRef<void(const Clause&)> look) {
  for (const Clause& one : list) {
    look(one);
    for (const Clauses* deeper : inner(one)) eachClause(*deeper, look);
  }
}

namespace {

struct OwnTerms {
  FunctionRef<void(const Term&)> look;
  void one(const TermPtr& term) const {
    if (term) look(*term);
  }
  void operator()(const PickCell& c) const { one(c.from); }
  void operator()(const PickLine& c) const { one(c.lines); }
  void operator()(const ChooseKind&) const {}
  void operator()(const ChooseFromHand&) const {}
  void operator()(const ChooseNumber& c) const { one(c.low), one(c.high); }
  void operator()(const Let& c) const { one(c.value); }
  void operator()(const Need& c) const { one(c.condition); }
  void operator()(const SetName& c) const { one(c.value); }
  void operator()(const SetVariable& c) const { one(c.value); }
  void operator()(const SetCellNumber& c) const { one(c.value), one(c.cell); }
  void operator()(const SetRemembered& c) const { one(c.value); }
  void operator()(const SetMark& c) const { one(c.value); }
  void operator()(const AddTo& c) const { one(c.cells); }
  void operator()(const RemoveFrom& c) const { one(c.cells); }
  void operator()(const Put& c) const { one(c.where), one(c.kind); }
  void operator()(const Change& c) const { one(c.where), one(c.kind); }
  void operator()(const Shift& c) const { one(c.from), one(c.to); }
  void operator()(const ShiftAll& c) const { one(c.cells); }
  void operator()(const Take& c) const { one(c.where); }
  void operator()(const Flip& c) const { one(c.where); }
  void operator()(const Again&) const {}
  void operator()(const When& c) const { one(c.condition); }
  void operator()(const Repeat& c) const { one(c.most); }
  void operator()(const Maximise& c) const { one(c.value); }
  void text(const std::vector<TextPart>& parts) const {
    for (const TextPart& part : parts)
      if (const Term* term = shown(part)) look(*term);
  }
  void operator()(const Tell& c) const { text(c.parts); }
  void operator()(const Write& c) const { text(c.parts); }
  void operator()(const WrittenAs& c) const { text(c.parts); }
  void operator()(const SeenAs& c) const { text(c.parts); }
};

}  // namespace

void eachTerm(const Clause& clause, FunctionRef<void(const Term&)> look) {
  std::visit(OwnTerms{look}, clause.form);
}

}  // namespace ninepegs::rules
