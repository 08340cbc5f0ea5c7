// The rules of a sheet in plain sentences, made from what the tool understood, so that an author
// can compare what was meant with what was written.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

// A part of the rules: its heading, and sentences of which deeper ones belong to the one above.
struct Explanation {
  std::string heading;
  struct Sentence {
    int depth = 0;
    int line = 0;  // of the sheet
    std::string text;
  };
  std::vector<Sentence> sentences;
};

std::vector<Explanation> explain(const rules::Rules& rules);

// A term in words, such as "the empty cells but not those north of an empty cell".
std::string inWords(const rules::Rules& rules, const rules::Term& term);
// A line of a move as a sentence, without the lines inside it.
std::string clauseInWords(const rules::Rules& rules, const rules::Clause& clause);
std::string withArticle(const std::string& word);

}  // namespace ninepegs::sheet
