// The parts of compile(): moves (compile_moves.cpp), ends and measures (compile_ends.cpp).
// Internal.
#pragma once

#include <vector>

#include "ninepegs/sheet/compiler.hpp"
#include "ninepegs/sheet/emitter.hpp"
#include "ninepegs/sheet/expressions.hpp"

namespace ninepegs::sheet {

class Compiler {
 public:
  Compiler(const Checked& sheet, const Source& source, CompileOptions options)
      : sheet_(sheet),
        source_(source),
        options_(options),
        emit_(sheet, program_),
        express_(sheet, program_, emit_) {}

  Program run();

 private:
  void group(int index);
  void generator(int side, bool withPass);
  void generateGroup(int index, int side);
  void applyGroup(int index, int side);
  void textOf(int index, int side);
  void effects(const std::vector<Statement>& list);
  void effect(const Statement& one);
  void bindChoices(const std::vector<Statement>& list);
  void ends();
  void endTest(std::size_t index, int mover, int next);
  void shown();
  void worthAndInvariants();
  void cover(int statement) {
    if (options_.coverage && statement >= 0) emit_.add(Op::cover, 0, 0, 0, 0, statement);
  }
  std::vector<const Statement*> withAfter(int index) const;
  std::vector<const AfterDecl*> aftersOf(int index) const;
  int owner(const Statement& one) const;

  const Checked& sheet_;
  const Source& source_;
  CompileOptions options_;
  Program program_;
  Emitter emit_;
  Expressions express_;
  int endsLabel_[2] = {-1, -1};
};

}  // namespace ninepegs::sheet
