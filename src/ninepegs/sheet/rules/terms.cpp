// What the compiler makes of values that hold one of many forms, once.
#include "ninepegs/sheet/rules/terms.hpp"

#include <utility>

#include "ninepegs/sheet/rules/clauses.hpp"

namespace ninepegs::rules {

Term::Term() = default;
Term::Term(Type is, Span at, Form what) : type(is), span(at), form(std::move(what)) {}
Term::Term(const Term&) = default;
Term::Term(Term&&) noexcept = default;
Term& Term::operator=(const Term&) = default;
Term& Term::operator=(Term&&) noexcept = default;
Term::~Term() = default;

TermPtr madeTerm(Type type, Span span, Form form) {
  return std::make_shared<const Term>(type, span, std::move(form));
}

Clause::Clause() = default;
Clause::Clause(Span at, int number, ClauseForm what)
    : span(at), id(number), form(std::move(what)) {}
Clause::Clause(const Clause&) = default;
Clause::Clause(Clause&&) noexcept = default;
Clause& Clause::operator=(const Clause&) = default;
Clause& Clause::operator=(Clause&&) noexcept = default;
Clause::~Clause() = default;

}  // namespace ninepegs::rules
