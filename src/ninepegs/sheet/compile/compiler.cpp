#include "ninepegs/sheet/compile/compiler.hpp"

#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

Program Compiler::run() {
  program_.trialsChangeAll = !plan_.pruned;
  program_.properties.assign(rules_.properties.size(), std::vector<std::int64_t>(program_.kinds));
  for (int kind = 0; kind < program_.kinds; ++kind)
    for (const rules::PieceKind::Value& one : rules_.kinds[kind].values)
      program_.properties[one.property][kind] = one.value;
  program_.source = rules_.source->name();
  for (const rules::StatementInfo& one : rules_.statements)
    program_.statementLines.push_back(one.line);
  int moves = static_cast<int>(rules_.moves.size());
  express_.countParts(options_.coverage && options_.parts);
  for (int index = 0; index < moves; ++index) group(index);
  for (const rules::ForbidRule& forbid : rules_.forbids)
    program_.forbidStatements.push_back(forbid.id);
  for (int side = 0; side < 2; ++side) endsLabel_[side] = emit_.label();
  for (int side = 0; side < 2; ++side) {
    generator(side, true);
    generator(side, false);
    for (int index = 0; index < moves; ++index) {
      recipe(index, side, Recipe::apply);
      recipe(index, side, Recipe::text);
      if (program_.groups[index].moveClass < MoveClass::tested) continue;
      int begun = emit_.here();
      recipe(index, side, Recipe::trial);
      program_.groups[index].trialSteps[side] = emit_.weightSince(begun);
      emit_.weighPicks(begun);
    }
    program_.passApply[side] = emit_.here();
    Slot passes = program_.layout.passes;
    if (passes != 0) emit_.add(Op::add, passes, passes, emit_.constantNumber(1));
    for (std::size_t i = 0; i < rules_.remembered.size(); ++i)
      if (rules_.remembered[i].lastsOneMove)
        for (Slot slot : program_.layout.cells[i])
          emit_.add(Op::copyNumber, slot, emit_.constantNumber(-1));
    emit_.jump(Op::turnOver, endsLabel_[side]);
  }
  ends();
  express_.countParts(false);
  shown();
  worthAndInvariants();
  views();
  forbidden();
  expectations();
  repetition();
  emit_.finish();
  if (emit_.overflown())
    throw BadInput(rules_.source->place(rules_.boardRule.span),
                   fmt::format("this sheet needs more than {} words of memory, the limit",
                               limits::memoryWords),
                   "a smaller board, fewer kinds of piece or shorter expressions need less");
  return std::move(program_);
}

Program compile(const rules::Rules& rules, CompileOptions options) {
  if (options.parts) options.without = allShortcuts;
  return Compiler(rules, options).run();
}

}  // namespace ninepegs::sheet
