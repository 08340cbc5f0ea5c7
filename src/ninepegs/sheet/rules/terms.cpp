// What the compiler makes of values that hold one of many forms, once.
#include "ninepegs/sheet/rules/terms.hpp"

#include <utility>

namespace ninepegs::rules {

Term::~Term() = default;

namespace {

using LookAt = FunctionRef<void(const TermPtr&)>;

template <class F>
constexpr bool hasParts = requires(const F& form, LookAt look) {
  form.parts(look);
};

}  // namespace

void eachSharedPart(const Term& term, LookAt look) {
  auto there = [&](const TermPtr& part) {
    if (part) look(part);
  };
  std::visit(
      [&]<class F>(const F& form) {
        if constexpr (hasParts<F>) form.parts(LookAt(there));
      },
      term.form);
}

void eachPart(const Term& term, FunctionRef<void(const Term&)> look) {
  eachSharedPart(term, [&](const TermPtr& part) { look(*part); });
}

TermPtr withParts(const TermPtr& term, FunctionRef<TermPtr(const TermPtr&)> change) {
  bool changed = false;
  auto exchange = [&](const TermPtr& part) {
    if (!part) return;
    TermPtr now = change(part);
    if (now == part) return;
    const_cast<TermPtr&>(part) = std::move(now);  // of the copy below, which is ours
    changed = true;
  };
  auto each = [&]<class F>(const F& form) -> TermPtr {
    if constexpr (hasParts<F>) {
      F copy = form;
      copy.parts(LookAt(exchange));
      if (changed) return make(term->type, term->span, std::move(copy));
    }
    return term;
  };
  return std::visit(each, term->form);
}

bool anyInside(const Term& term, FunctionRef<bool(const Term&)> test) {
  bool found = test(term);
  eachPart(term, [&](const Term& part) { found = found || anyInside(part, test); });
  return found;
}

}  // namespace ninepegs::rules
