// The terms that a clause holds. Internal to the rooms of the sheet.
#pragma once

#include "ninepegs/sheet/rules/clauses.hpp"

namespace ninepegs::rules {

// The terms of a clause itself but for those of its texts, in no particular order.
template <class Form, class One>
void ownTerms(Form& c, const One& one) {
  if constexpr (requires { c.from; }) one(c.from);
  if constexpr (requires { c.lines; }) one(c.lines);
  if constexpr (requires { c.low; }) one(c.low), one(c.high);
  if constexpr (requires { TermPtr(c.cell); }) one(c.cell);
  if constexpr (requires { c.value; }) one(c.value);
  if constexpr (requires { c.condition; }) one(c.condition);
  if constexpr (requires { c.cells; }) one(c.cells);
  if constexpr (requires { c.kind; }) one(c.kind);
  if constexpr (requires { c.where; }) one(c.where);
  if constexpr (requires { c.to; }) one(c.to);
  if constexpr (requires { c.most; }) one(c.most);
}

}  // namespace ninepegs::rules
