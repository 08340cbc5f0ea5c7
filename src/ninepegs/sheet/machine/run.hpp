// The interpreter's loop. Part of machine.hpp.
//
// Every instruction ends with a jump of its own to the next one's code, which the processor
// foretells far better than one switch. Labels as values are an extension that GCC and Clang share.
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

// Instructions that only work out a set, a number or a word, or only test: on one line each.
#define AS_SET(name, value)     \
  on_##name : at(i->a) = value; \
  NEXT()
#define AS_NUMBER(name, value)     \
  on_##name : setNum(i->a, value); \
  NEXT()
#define AS_WORD(name, value)         \
  on_##name : memory_[i->a] = value; \
  NEXT()
#define AS_TEST(name, condition)                     \
  on_##name : i = (condition) ? code + i->n : i + 1; \
  DISPATCH()

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
#define NINEPEGS_LABEL(name, roles, meaning) &&on_##name,
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
on_fail:
  return;
on_jump:
  JUMP();
  AS_SET(copySet, at(i->b));
  AS_SET(both, at(i->b) & at(i->c));
  AS_SET(either, at(i->b) | at(i->c));
  AS_SET(minus, minus(at(i->b), at(i->c)));
  AS_SET(clear, Set::none());
  AS_SET(cellSet, cellAsSet(num(i->b)));
  AS_NUMBER(setCell, at(i->b).first());
  AS_SET(step, stepped(at(i->b), i->n));
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
  AS_SET(table, inTable(i->n, num(i->b)));
on_tableAll : {
  Set out = Set::none();
  for (Set rest = at(i->b); rest.any(); rest.dropFirst()) out |= inTable(i->n, rest.first());
  at(i->a) = out;
  NEXT();
}
  AS_SET(slide, slid(at(i->b), at(i->c), i->n));
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
on_countBoth:
  at(i->d) = at(i->b) & at(i->c);
  setNum(i->a, at(i->d).count());
  i += 2;
  DISPATCH();
on_bothNone : {
  Set met = at(i->b) & at(i->c);
  at(i->a) = met;
  i = met.any() ? i + 2 : code + i->n;
  DISPATCH();
}
on_copySetGo:
  at(i->a) = at(i->b);
  JUMP();
  AS_SET(bracketing, bracketing(at(i->b), at(i->c), i->n));
  AS_SET(between, between(num(i->b), num(i->c)));
  AS_NUMBER(beyond, beyond(num(i->b), num(i->c)));
  AS_SET(bracketed, bracketed(at(i->b), num(i->c), at(i->d), i->n));
  AS_SET(lineCells, lineCells(at(i->b), program_->lineSets[i->n]));
  AS_SET(spread, spread(at(i->b), at(i->c), i->n));
  AS_NUMBER(count, at(i->b).count());
  AS_NUMBER(countLines, i->d == 0 ? countLines(at(i->b), program_->lineSets[i->n])
                                  : countThrough(at(i->b), program_->lineSets[i->n], num(i->c)));
  AS_WORD(copyNumber, memory_[i->b]);
  // Unsigned words, so that no overflow is undefined.
  AS_WORD(add, memory_[i->b] + memory_[i->c]);
  AS_WORD(subtract, memory_[i->b] - memory_[i->c]);
  AS_WORD(multiply, memory_[i->b] * memory_[i->c]);
  AS_NUMBER(divide, quotient(num(i->b), num(i->c)));
  AS_NUMBER(remainder, remainder(num(i->b), num(i->c)));
  AS_NUMBER(least, std::min(num(i->b), num(i->c)));
  AS_NUMBER(greatest, std::max(num(i->b), num(i->c)));
  AS_NUMBER(property, property(i->n, num(i->b), i->d));
  AS_NUMBER(kindProperty, num(i->b) < 0 ? 0 : program_->properties[i->n][num(i->b)]);
  AS_NUMBER(weight, num(i->b) < 0 ? 0 : program_->weights[num(i->b)]);
  AS_NUMBER(cellNumber, num(i->c) < 0 ? 0 : num(static_cast<Slot>(i->b + num(i->c))));
on_setCellNumber:
  if (num(i->c) >= 0) memory_[i->b + num(i->c)] = memory_[i->a];
  NEXT();
  AS_NUMBER(edgeOf, edgeOf(num(i->b), num(i->c), i->d));
on_onTrack:
  setNum(i->a, alongTrack(i->n, num(i->c), num(i->b), i - code));
  if (exhaustedAt_ >= 0) return;
  NEXT();
  AS_NUMBER(kindAt, kindAt(num(i->b), i->d > 1 ? -1 : i->d, i->n));
  AS_SET(kindPlane, kindCells(num(i->b), i->d > 1 ? -1 : i->d, i->n));
  AS_SET(handKinds, handKinds(i->d, i->n));
  AS_NUMBER(handTotal, handTotal(i->d, i->n));
  AS_NUMBER(handOf, num(i->b) < 0 ? 0
                                  : num(then(program_->layout.hands[i->d], i->n) +
                                        static_cast<int>(num(i->b))));
  AS_SET(touched, touched());
on_groups:
  at(i->a) = takeGroup(at(i->b), i->n);
  if (outOfSteps(i - code)) return;
  NEXT();
  AS_NUMBER(countMoves, movesOf(i->d));
  AS_NUMBER(timesSeen, timesSeen(onTrialNow));
  AS_SET(linesThrough, linesThrough(at(i->b), program_->lineSets[i->n], num(i->c)));
  AS_SET(linesOfLength, linesOfLength(at(i->b), lineSetOf(i->n, num(i->c))));
  AS_NUMBER(rowNumber, num(i->b) < 0 ? 0 : program_->rowNumbers[num(i->b)]);
  AS_NUMBER(columnNumber, num(i->b) < 0 ? 0 : program_->columnNumbers[num(i->b)]);
  AS_TEST(jumpAny, at(i->b).any());
on_stopAny:
  if (at(i->b).any()) return;
  NEXT();
  AS_TEST(jumpNone, !at(i->b).any());
  AS_TEST(jumpIn, num(i->b) >= 0 && at(i->c).has(static_cast<int>(num(i->b))));
  AS_TEST(jumpOut, num(i->b) < 0 || !at(i->c).has(static_cast<int>(num(i->b))));
  AS_TEST(jumpWithin, !minus(at(i->b), at(i->c)).any());
  AS_TEST(jumpBeyond, minus(at(i->b), at(i->c)).any());
  AS_TEST(jumpLine, hasLine(at(i->b), program_->lineSets[i->c]));
  AS_TEST(jumpNoLine, !hasLine(at(i->b), program_->lineSets[i->c]));
  AS_TEST(jumpLineThrough, lineThrough(at(i->b), program_->lineSets[i->c], num(i->d)));
  AS_TEST(jumpNoLineThrough, !lineThrough(at(i->b), program_->lineSets[i->c], num(i->d)));
  AS_TEST(jumpSame, at(i->b) == at(i->c));
  AS_TEST(jumpOther, !(at(i->b) == at(i->c)));
  AS_TEST(jumpEqual, memory_[i->b] == memory_[i->c]);
  AS_TEST(jumpUnequal, memory_[i->b] != memory_[i->c]);
  AS_TEST(jumpLess, num(i->b) < num(i->c));
  AS_TEST(jumpLessEqual, num(i->b) <= num(i->c));
  AS_TEST(jumpStuck, isStuck(turn()));
  AS_TEST(jumpUnstuck, !isStuck(turn()));
  AS_TEST(jumpNobody, isStuck(turn()) && isStuck(1 - turn()));
  AS_TEST(jumpSomebody, !isStuck(turn()) || !isStuck(1 - turn()));
on_wholeBudget:
  carry();
  NEXT();
on_weigh:
  if (outOfSteps(i - code, i->d)) return;
  NEXT();
on_weighGo:
  if (outOfSteps(i - code, i->d)) return;
  JUMP();
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
on_emitLines:
  offerLines(*i, lineSetOf(i->d, num(i->c)), sink);
  if (sink.enough() || outOfSteps(i - code)) return;
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
on_attempt:
  if constexpr (onTrialNow) {
    branchAttempt(i, sink);
    return;
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
on_attempted:
  if constexpr (onTrialNow) made_[memory_[i->b]] = true;
  JUMP();
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
#undef AS_SET
#undef AS_NUMBER
#undef AS_WORD
#undef AS_TEST
#pragma GCC diagnostic pop

}  // namespace ninepegs::sheet
