// Small changes to a text: slips of the hand, and hostile ones.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/base/random.hpp"

namespace ninepegs::soak {

// The sheets that mutations begin with: all .pegs files of the folders, in the order of their
// names.
std::vector<std::string> sheetsOf(const std::vector<std::string>& folders);

// Changes a sheet once to four times, a word or a line at a time; words and lines may come from
// `others`.
std::string mutatedSheet(const std::string& text, const std::vector<std::string>& others,
                         Stream& stream);

// Changes a line of text (a position, a move, an option) once to four times, a few signs at a time.
std::string mutatedText(const std::string& text, Stream& stream);

}  // namespace ninepegs::soak
