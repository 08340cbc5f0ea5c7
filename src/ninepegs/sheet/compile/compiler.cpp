#include "ninepegs/sheet/compile/compiler.hpp"

#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

Program Compiler::run() {
  program_.properties.assign(sheet_.properties.size(), std::vector<std::int64_t>(program_.kinds));
  for (int kind = 0; kind < program_.kinds; ++kind)
    for (const auto& [property, value] : sheet_.tree.pieces[kind].values)
      program_.properties[sheet_.find(property.text)->index][kind] = value;
  program_.source = source_.name();
  for (const StatementInfo& one : sheet_.statements) program_.statementLines.push_back(one.line);
  int moves = static_cast<int>(sheet_.tree.moves.size());
  for (int index = 0; index < moves; ++index) group(index);
  shapes();
  for (const ForbidDecl& forbid : sheet_.tree.forbids)
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
    }
    program_.passApply[side] = emit_.here();
    Slot passes = program_.layout.passes;
    if (passes != 0) emit_.add(Op::add, passes, passes, emit_.constantNumber(1));
    for (std::size_t i = 0; i < sheet_.tree.cells.size(); ++i)
      if (sheet_.tree.cells[i].lastsOneMove)
        for (Slot slot : program_.layout.cells[i])
          emit_.add(Op::copyNumber, slot, emit_.constantNumber(-1));
    emit_.jump(Op::turnOver, endsLabel_[side]);
  }
  ends();
  shown();
  worthAndInvariants();
  views();
  repetition();
  emit_.finish();
  if (emit_.overflown())
    throw BadInput(source_.place(sheet_.tree.board.span),
                   fmt::format("this sheet needs more than {} words of memory, the limit",
                               limits::memoryWords),
                   "a smaller board, fewer kinds of piece or shorter expressions need less");
  return std::move(program_);
}

Program compile(const Checked& sheet, const Source& source, CompileOptions options) {
  return Compiler(sheet, source, options).run();
}

}  // namespace ninepegs::sheet
