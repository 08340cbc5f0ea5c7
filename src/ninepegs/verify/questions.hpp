// The few questions about a sheet whose answers tell most: chosen so that each tells as many
// mutants apart from the sheet as possible that no earlier one told.
//
//   auto sheet = SheetGame::fromText("mine.pegs", text);
//   verify::Mutants mutants(*sheet, {.seed = 1});
//   mutants.run();
//   for (const verify::Question& one : verify::chooseQuestions(mutants, {.most = 10}))
//     texts.push_back(verify::caseOf(mutants, one));
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "ninepegs/verify/mutants.hpp"

namespace ninepegs::verify {

struct Question {
  enum class Kind {
    setUp,    // is this how the game begins?
    after,    // does the move lead to this?
    all,      // are these all moves?
    from,     // are these all moves of what stands on the cell?
    refused,  // is it right that this is no legal move?
    seen,     // is this what a side sees after the move?
  };
  Kind kind = Kind::after;
  std::uint32_t scene = 0;         // of Mutants::answers
  std::int32_t move = -1;          // of after and seen
  int side = -1;                   // of seen
  std::int32_t cell = -1;          // of from
  std::string text;                // of refused: the move
  std::vector<std::size_t> tells;  // the mutants that answer otherwise and were told by none before
  std::string name;                // in a few words, for a case
};

struct QuestionOptions {
  std::size_t most = 20;
  bool noticed = false;  // also tell mutants that the sheet's cases and playouts notice
};

// Until no question tells more, or there are `most`. Requires that `mutants` has run.
std::vector<Question> chooseQuestions(const Mutants& mutants, const QuestionOptions& options);

// The question with the sheet's answer, as a `case` block.
std::string caseOf(const Mutants& mutants, const Question& question);

// Lines of the sheet on which the answer hangs: those in which the told mutants differ, the most
// frequent first.
std::vector<int> linesOf(const Mutants& mutants, const Question& question);

// The scene's moves whose first picked cell is that one; all for -1.
std::vector<std::string> movesOf(const Mutants& mutants, std::uint32_t scene, std::int32_t cell);

}  // namespace ninepegs::verify
