// Questions about a sheet as cards: a board to look at, what the sheet says, and "right?".
#pragma once

#include <string>
#include <vector>

#include "ninepegs/report/paint.hpp"
#include "ninepegs/verify/questions.hpp"

namespace ninepegs::report {

// The card without what is asked at its end. Lines end in a newline.
std::string cardText(const verify::Mutants& mutants, const verify::Question& question,
                     const Paint& paint);

// Lines of the sheet on which the answer hangs, as they are written.
std::string hangsOn(const verify::Mutants& mutants, const verify::Question& question,
                    const Paint& paint);

// All questions with their cases, as JSON.
std::string questionsJson(const verify::Mutants& mutants,
                          const std::vector<verify::Question>& questions, std::uint64_t seed,
                          bool complete);

}  // namespace ninepegs::report
