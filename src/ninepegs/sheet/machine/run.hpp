// The interpreter's loop. Part of machine.hpp.
//
// Every instruction ends by jumping to the next one's code: with a jump of its own for each
// instruction the processor foretells far better which comes next than with one switch. Labels as
// values are an extension that GCC and Clang share.
#pragma once

#include <limits>
#include <type_traits>

#include "ninepegs/sheet/machine/machine.hpp"

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

// What goes wrong on trial goes wrong when the move is made, too: it is legal, and a fault then.
#define WENT_WRONG()                           \
  do {                                         \
    if constexpr (onTrialNow) goneWrong(sink); \
    return;                                    \
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
  constexpr bool onTrialNow = std::is_same_v<Sink, TrialSink>;
  // A move that is being played ends with the tests for an end.
  auto isStuck = [this](int side) {
    if constexpr (std::is_same_v<Sink, NoSink>)
      return stuckNow(side);
    else
      return stuck(side);
  };
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
on_table:
  at(i->a) = inTable(i->n, num(i->b));
  NEXT();
on_tableAll : {
  Set out = Set::none();
  for (Set rest = at(i->b); rest.any(); rest.dropFirst()) out |= inTable(i->n, rest.first());
  at(i->a) = out;
  NEXT();
}
on_slide:
  at(i->a) = slid(at(i->b), at(i->c), i->n);
  NEXT();
on_tableOn:
  at(i->d) = inTable(i->n, num(i->b));
  at(i->a) = at(i->d) & at(i->c);
  i += 2;
  DISPATCH();
on_slideFrom:
  at(i->d) = cellAsSet(num(i->b));
  at(i->a) = slidFrom(num(i->b), at(i->c), i->n);
  i += 2;
  DISPATCH();
on_bothAny : {
  Set met = at(i->b) & at(i->c);
  at(i->a) = met;
  i = met.any() ? code + i->n : i + 2;
  DISPATCH();
}
on_bothNone : {
  Set met = at(i->b) & at(i->c);
  at(i->a) = met;
  i = met.any() ? i + 2 : code + i->n;
  DISPATCH();
}
on_copySetGo:
  at(i->a) = at(i->b);
  JUMP();
on_bracketing:
  at(i->a) = bracketing(at(i->b), at(i->c), i->n);
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
on_countLines:
  setNum(i->a, i->d == 0 ? countLines(at(i->b), program_->lineSets[i->n])
                         : countThrough(at(i->b), program_->lineSets[i->n], num(i->c)));
  NEXT();
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
on_divide:
  setNum(i->a, quotient(num(i->b), num(i->c)));
  NEXT();
on_remainder:
  setNum(i->a, remainder(num(i->b), num(i->c)));
  NEXT();
on_least:
  setNum(i->a, std::min(num(i->b), num(i->c)));
  NEXT();
on_greatest:
  setNum(i->a, std::max(num(i->b), num(i->c)));
  NEXT();
on_property:
  setNum(i->a, property(i->n, num(i->b), i->d));
  NEXT();
on_kindProperty:
  setNum(i->a, num(i->b) < 0 ? 0 : program_->properties[i->n][num(i->b)]);
  NEXT();
on_weight:
  setNum(i->a, num(i->b) < 0 ? 0 : program_->weights[num(i->b)]);
  NEXT();
on_cellNumber:
  setNum(i->a, num(i->c) < 0 ? 0 : num(static_cast<Slot>(i->b + num(i->c))));
  NEXT();
on_setCellNumber:
  if (num(i->c) >= 0) memory_[i->b + num(i->c)] = memory_[i->a];
  NEXT();
on_edgeOf:
  setNum(i->a, edgeOf(num(i->b), num(i->c), i->d));
  NEXT();
on_onTrack:
  setNum(i->a, alongTrack(i->n, num(i->c), num(i->b), i - code));
  if (exhaustedAt_ >= 0) return;
  NEXT();
on_kindAt:
  setNum(i->a, kindAt(num(i->b), i->d > 1 ? -1 : i->d, i->n));
  NEXT();
on_kindPlane:
  at(i->a) = kindCells(num(i->b), i->d > 1 ? -1 : i->d, i->n);
  NEXT();
on_handKinds:
  at(i->a) = handKinds(i->d, i->n);
  NEXT();
on_handTotal:
  setNum(i->a, handTotal(i->d, i->n));
  NEXT();
on_handOf:
  setNum(i->a, num(i->b) < 0
                   ? 0
                   : num(then(program_->layout.hands[i->d], i->n) + static_cast<int>(num(i->b))));
  NEXT();
on_touched:
  at(i->a) = touched();
  NEXT();
on_groups:
  at(i->a) = takeGroup(at(i->b), i->n);
  if (outOfSteps(i - code)) return;
  NEXT();
on_countMoves:
  setNum(i->a, movesOf(i->d));
  NEXT();
on_timesSeen:
  setNum(i->a, timesSeen(onTrialNow));
  NEXT();
on_linesThrough:
  at(i->a) = linesThrough(at(i->b), program_->lineSets[i->n], num(i->c));
  NEXT();
on_linesOfLength:
  at(i->a) = linesOfLength(at(i->b), lineSetOf(i->n, num(i->c)));
  NEXT();
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
on_jumpLineThrough:
  JUMP_IF(lineThrough(at(i->b), program_->lineSets[i->c], num(i->d)));
on_jumpNoLineThrough:
  JUMP_IF(!lineThrough(at(i->b), program_->lineSets[i->c], num(i->d)));
on_jumpSame:
  JUMP_IF(at(i->b) == at(i->c));
on_jumpOther:
  JUMP_IF(!(at(i->b) == at(i->c)));
on_jumpEqual:
  JUMP_IF(memory_[i->b] == memory_[i->c]);
on_jumpUnequal:
  JUMP_IF(memory_[i->b] != memory_[i->c]);
on_jumpLess:
  JUMP_IF(num(i->b) < num(i->c));
on_jumpLessEqual:
  JUMP_IF(num(i->b) <= num(i->c));
on_jumpStuck:
  JUMP_IF(isStuck(turn()));
on_jumpUnstuck:
  JUMP_IF(!isStuck(turn()));
on_jumpNobody:
  JUMP_IF(isStuck(turn()) && isStuck(1 - turn()));
on_jumpSomebody:
  JUMP_IF(!isStuck(turn()) || !isStuck(1 - turn()));
on_weigh:
  if (outOfSteps(i - code, i->d)) return;
  NEXT();
on_nextCell:
  if (!at(i->b).any()) JUMP();
  if (outOfSteps(i - code, i->d)) return;
  setNum(i->a, at(i->b).first());
  at(i->b).dropFirst();
  NEXT();
on_lineChosen : {
  const LineSet* lines = lineSetOf(i->n, num(i->c));
  at(i->a) = lines == nullptr ? Set::none() : lineMask(*lines, static_cast<int>(num(i->b)));
  NEXT();
}
on_nextLineOf:
  if (!nextLine(*i, lineSetOf(i->d, num(static_cast<Slot>(i->b + 1))))) JUMP();
  if (outOfSteps(i - code)) return;
  NEXT();
on_nextLine:
  if (!nextLine(*i, &program_->lineSets[i->d])) JUMP();
  if (outOfSteps(i - code)) return;
  NEXT();
on_emitOne:
  sink.one(i->n, choices, i->a);
  if (sink.enough()) return;
  NEXT();
on_emitMany:
  sink.many(i->n, choices, i->a, at(i->b));
  if (sink.enough()) return;
  NEXT();
on_emitManyGo:
  sink.many(i->d, choices, i->a, at(i->b));
  if (sink.enough()) return;
  JUMP();
on_emitLast:
  sink.many(i->n, choices, i->a, at(i->b));
  return;
on_emitPass:
  sink.pass();
  if (sink.enough()) return;
  NEXT();
on_tryMove:
  if constexpr (!onTrialNow) onTrial(i->n, i->a, sink);
  if (sink.enough() || exhaustedAt_ >= 0) return;
  NEXT();
on_tryMany:
  if constexpr (!onTrialNow) {
    for (Set rest = at(i->b); rest.any(); rest.dropFirst()) {
      setNum(static_cast<Slot>(program_->choicesAt + i->a - 1), rest.first());
      onTrial(i->n, i->a, sink);
      if (sink.enough() || exhaustedAt_ >= 0) return;
    }
  }
  NEXT();
on_keepBest:
  phase_ = i->n;
  if (phase_ == 1) best_ = std::numeric_limits<std::int64_t>::min();
  NEXT();
// Choices: followed one by one on trial, read back when the move is made.
on_pickCell:
  if constexpr (onTrialNow) {
    branchElements(i, sink);
    return;
  } else {
    std::uint64_t choice = nextChoice();
    memory_[i->a] = choice == noChoice ? ~std::uint64_t{0} : choice;
    NEXT();
  }
on_pickNumber:
  if constexpr (onTrialNow) {
    branchNumbers(i, sink);
    return;
  } else {
    memory_[i->a] = nextChoice();
    NEXT();
  }
on_pickLine:
  if constexpr (onTrialNow) {
    branchLines(i, sink);
    return;
  } else {
    chooseLine(*i, nextChoice());
    NEXT();
  }
on_round:
  if constexpr (onTrialNow) {
    branchRound(i, sink);
    return;
  } else {
    if (nextChoice() == 0) JUMP();
    ++memory_[i->a];
    NEXT();
  }
on_eachRound:
  if (outOfSteps(i - code)) return;
  if (num(i->a) >= num(i->b)) JUMP();
  ++memory_[i->a];
  NEXT();
on_attempt:
  if constexpr (onTrialNow) {
    branchAttempt(i, sink);
    return;
  } else {
    if (nextChoice() == 0) JUMP();
    ++memory_[i->a];
    NEXT();
  }
on_attempted:
  if constexpr (onTrialNow) made_[memory_[i->b]] = true;
  JUMP();
on_fail:
  return;
on_complete:
  if constexpr (onTrialNow) complete(*i, sink);
  return;
on_useHand : {
  int kind = kindOf(*i), statement = statementAt(i - code);
  if (kind < 0) {
    fault(statement, FaultReason::noKind);
    WENT_WRONG();
  }
  std::uint64_t& left = memory_[program_->layout.hands[i->d] + kind];
  if (left == 0) {
    if constexpr (!onTrialNow) fault(statement, FaultReason::handEmpty);
    return;  // on trial: no legal move
  }
  --left;
  NEXT();
}
on_tierEnd:
  if (sink.any()) return;
  NEXT();
on_put:
  if (!put(at(i->b), kindOf(*i), i->d, statementAt(i - code))) WENT_WRONG();
  NEXT();
on_putCell:
  if (!put(cellAsSet(num(i->b)), kindOf(*i), i->d, statementAt(i - code))) WENT_WRONG();
  NEXT();
on_putCellOver:
  if (!put(cellAsSet(num(i->b)), i->c, i->d, statementAt(i - code))) return;
  turnOver();
  JUMP();
on_take:
  take(at(i->b));
  NEXT();
on_shift:
  if (!shift(num(i->b), num(i->c), statementAt(i - code))) WENT_WRONG();
  NEXT();
on_flip:
  if (!flip(at(i->b), statementAt(i - code))) WENT_WRONG();
  NEXT();
on_shiftAll:
  if (!shiftAll(at(i->b), i->n, statementAt(i - code))) WENT_WRONG();
  NEXT();
on_change:
  if (!change(at(i->b), kindOf(*i), statementAt(i - code))) WENT_WRONG();
  NEXT();
on_countdown:
  if (num(i->b) < 0) {
    fault(statementAt(i - code), FaultReason::belowZero);
    return;
  }
  NEXT();
on_again:
  memory_[program_->againSlot] = 1;
  NEXT();
on_turnPass:
  passTurn();
  NEXT();
on_write:
  if constexpr (requires { sink.list; }) sink.list->push_back({i->d, i->n, num(i->a), at(i->a)});
  NEXT();
on_turnOver:
  turnOver();
  JUMP();
on_cover:
  if (!uses_.empty()) ++uses_[i->n];
  NEXT();
}

#undef WENT_WRONG
#undef DISPATCH
#undef NEXT
#undef JUMP
#undef JUMP_IF
#pragma GCC diagnostic pop

}  // namespace ninepegs::sheet
