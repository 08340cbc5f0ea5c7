// The interpreter's loop. Part of machine.hpp.
//
// Every instruction ends by jumping to the next one's code: with a jump of its own for each
// instruction the processor foretells far better which comes next than with one switch. Labels as
// values are an extension that GCC and Clang share.
#pragma once

#include "ninepegs/sheet/machine.hpp"

namespace ninepegs::sheet {

#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wpedantic"

#define DISPATCH() goto* code_of[static_cast<int>(i->op)]
#define NEXT()  \
  do {          \
    ++i;        \
    DISPATCH(); \
  } while (false)
#define JUMP()       \
  do {               \
    i = code + i->n; \
    DISPATCH();      \
  } while (false)
#define JUMP_IF(condition)                 \
  do {                                     \
    i = (condition) ? code + i->n : i + 1; \
    DISPATCH();                            \
  } while (false)

template <int W>
template <class Sink>
void Machine<W>::run(int pc, Sink& sink) {
  static const void* const code_of[] = {
#define NINEPEGS_LABEL(name, meaning) &&on_##name,
      NINEPEGS_INSTRUCTIONS(NINEPEGS_LABEL)
#undef NINEPEGS_LABEL
  };
  const Instruction* const code = program_->code.data();
  const std::uint64_t* const choices = memory_ + program_->choicesAt;
  const Instruction* i = code + pc;
  DISPATCH();

on_stop:
  return;
on_jump:
  JUMP();
on_copySet:
  at(i->a) = at(i->b);
  NEXT();
on_both:
  at(i->a) = at(i->b) & at(i->c);
  NEXT();
on_either:
  at(i->a) = at(i->b) | at(i->c);
  NEXT();
on_minus:
  at(i->a) = minus(at(i->b), at(i->c));
  NEXT();
on_clear:
  at(i->a) = Set::none();
  NEXT();
on_cellSet:
  at(i->a) = cellAsSet(num(i->b));
  NEXT();
on_setCell:
  setNum(i->a, at(i->b).first());
  NEXT();
on_step:
  at(i->a) = stepped(at(i->b), i->n);
  NEXT();
on_stepMinus : {
  Set moved = stepped(at(i->c), i->n);
  at(i->d) = moved;
  at(i->a) = minus(at(i->b), moved);
  i += 2;
  DISPATCH();
}
on_steps : {
  Set out = Set::none();
  for (int direction : program_->groupsOfDirections[i->n]) out |= stepped(at(i->b), direction);
  at(i->a) = out;
  NEXT();
}
on_table : {
  std::int64_t cell = num(i->b);
  at(i->a) =
      cell < 0 ? Set::none() : tableSet(program_->cellTables[i->n] + static_cast<int>(cell) * W);
  NEXT();
}
on_tableAll : {
  Set rest = at(i->b), out = Set::none();
  for (; rest.any(); rest.dropFirst())
    out |= tableSet(program_->cellTables[i->n] + rest.first() * W);
  at(i->a) = out;
  NEXT();
}
on_slide:
  at(i->a) = slid(at(i->b), at(i->c), i->n);
  NEXT();
on_between:
  at(i->a) = between(num(i->b), num(i->c));
  NEXT();
on_beyond:
  setNum(i->a, beyond(num(i->b), num(i->c)));
  NEXT();
on_bracketed:
  at(i->a) = bracketed(at(i->b), num(i->c), at(i->d), i->n);
  NEXT();
on_lineCells:
  at(i->a) = lineCells(at(i->b), program_->lineSets[i->n]);
  NEXT();
on_spread:
  at(i->a) = spread(at(i->b), at(i->c), i->n);
  NEXT();
on_count:
  setNum(i->a, at(i->b).count());
  NEXT();
on_countLines : {
  const LineSet& lines = program_->lineSets[i->n];
  std::int64_t total = 0;
  for (int k = 0; k < lines.count; ++k)
    total += (at(i->b) & lineMask(lines, k)) == lineMask(lines, k) ? 1 : 0;
  setNum(i->a, total);
  NEXT();
}
on_copyNumber:
  memory_[i->a] = memory_[i->b];
  NEXT();
// Unsigned words, so that no overflow is undefined.
on_add:
  memory_[i->a] = memory_[i->b] + memory_[i->c];
  NEXT();
on_subtract:
  memory_[i->a] = memory_[i->b] - memory_[i->c];
  NEXT();
on_multiply:
  memory_[i->a] = memory_[i->b] * memory_[i->c];
  NEXT();
on_divide : {
  std::int64_t by = num(i->c);
  setNum(i->a, by == 0    ? 0
               : by == -1 ? static_cast<std::int64_t>(0 - memory_[i->b])
                          : num(i->b) / by);
  NEXT();
}
on_remainder : {
  std::int64_t by = num(i->c);
  setNum(i->a, by == 0 || by == -1 ? 0 : num(i->b) % by);
  NEXT();
}
on_least:
  setNum(i->a, std::min(num(i->b), num(i->c)));
  NEXT();
on_greatest:
  setNum(i->a, std::max(num(i->b), num(i->c)));
  NEXT();
on_property : {
  const std::vector<std::int64_t>& values = program_->properties[i->n];
  const Layout& layout = program_->layout;
  std::int64_t cell = num(i->b), value = 0;
  if (cell >= 0 && !at(layout.empty).has(static_cast<int>(cell))) {
    if (layout.kinds.empty()) value = values[0];
    for (std::size_t k = 0; k < layout.kinds.size(); ++k)
      if (at(layout.kinds[k]).has(static_cast<int>(cell))) value = values[k];
  }
  setNum(i->a, value);
  NEXT();
}
on_rowNumber:
  setNum(i->a, num(i->b) < 0 ? 0 : program_->rowNumbers[num(i->b)]);
  NEXT();
on_columnNumber:
  setNum(i->a, num(i->b) < 0 ? 0 : program_->columnNumbers[num(i->b)]);
  NEXT();
on_jumpAny:
  JUMP_IF(at(i->b).any());
on_stopAny:
  if (at(i->b).any()) return;
  NEXT();
on_jumpNone:
  JUMP_IF(!at(i->b).any());
on_jumpIn:
  JUMP_IF(num(i->b) >= 0 && at(i->c).has(static_cast<int>(num(i->b))));
on_jumpOut:
  JUMP_IF(num(i->b) < 0 || !at(i->c).has(static_cast<int>(num(i->b))));
on_jumpWithin:
  JUMP_IF(!minus(at(i->b), at(i->c)).any());
on_jumpBeyond:
  JUMP_IF(minus(at(i->b), at(i->c)).any());
on_jumpLine:
  JUMP_IF(hasLine(at(i->b), program_->lineSets[i->c]));
on_jumpNoLine:
  JUMP_IF(!hasLine(at(i->b), program_->lineSets[i->c]));
on_jumpEqual:
  JUMP_IF(memory_[i->b] == memory_[i->c]);
on_jumpUnequal:
  JUMP_IF(memory_[i->b] != memory_[i->c]);
on_jumpLess:
  JUMP_IF(num(i->b) < num(i->c));
on_jumpLessEqual:
  JUMP_IF(num(i->b) <= num(i->c));
on_jumpStuck:
  JUMP_IF(stuck(turn()));
on_jumpUnstuck:
  JUMP_IF(!stuck(turn()));
on_jumpNobody:
  JUMP_IF(stuck(0) && stuck(1));
on_jumpSomebody:
  JUMP_IF(!stuck(0) || !stuck(1));
on_nextCell:
  if (!at(i->b).any()) JUMP();
  if (outOfSteps(i - code)) return;
  setNum(i->a, at(i->b).first());
  at(i->b).dropFirst();
  NEXT();
on_nextLine : {
  const LineSet& lines = program_->lineSets[i->d];
  std::int64_t index = num(i->b);
  while (index < lines.count && (at(i->c) & lineMask(lines, static_cast<int>(index))) !=
                                    lineMask(lines, static_cast<int>(index)))
    ++index;
  setNum(i->b, index + 1);
  if (index >= lines.count) JUMP();
  if (outOfSteps(i - code)) return;
  at(i->a) = lineMask(lines, static_cast<int>(index));
  NEXT();
}
on_emitOne:
  sink.one(i->n, choices, i->a);
  if (sink.enough()) return;
  NEXT();
on_emitMany:
  sink.many(i->n, choices, i->a, at(i->b));
  if (sink.enough()) return;
  NEXT();
on_emitLast:
  sink.many(i->n, choices, i->a, at(i->b));
  return;
on_emitPass:
  sink.pass();
  if (sink.enough()) return;
  NEXT();
on_tierEnd:
  if (sink.any()) return;
  NEXT();
on_put:
  if (!put(at(i->b), kindOf(*i), i->d, statementAt(i - code))) return;
  NEXT();
on_putCell:
  if (!put(cellAsSet(num(i->b)), kindOf(*i), i->d, statementAt(i - code))) return;
  NEXT();
on_putCellOver:
  if (!put(cellAsSet(num(i->b)), i->c, i->d, statementAt(i - code))) return;
  turnOver();
  JUMP();
on_take:
  take(at(i->b));
  NEXT();
on_shift:
  if (!shift(num(i->b), num(i->c), statementAt(i - code))) return;
  NEXT();
on_flip:
  flip(at(i->b));
  NEXT();
on_change : {
  const Layout& layout = program_->layout;
  Set cells = minus(at(i->b), at(layout.empty));
  for (Slot kind : layout.kinds) at(kind).remove(cells);
  if (!layout.kinds.empty()) at(layout.kinds[kindOf(*i)]) |= cells;
  NEXT();
}
on_again:
  memory_[program_->againSlot] = 1;
  NEXT();
on_turnOver:
  turnOver();
  JUMP();
on_cover:
  if (!uses_.empty()) ++uses_[i->n];
  NEXT();
}

#undef DISPATCH
#undef NEXT
#undef JUMP
#undef JUMP_IF
#pragma GCC diagnostic pop

}  // namespace ninepegs::sheet
