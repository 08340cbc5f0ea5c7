// Small text helpers: splitting, UTF-8, "did you mean", natural order, plurals.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace ninepegs {

std::string_view trimmed(std::string_view text);

// The parts between separators, each trimmed; an empty text has no parts.
std::vector<std::string> splitTrimmed(std::string_view text, char separator);

// The characters of a UTF-8 text, one string each; a malformed byte stands alone.
std::vector<std::string> utf8Symbols(std::string_view text);

// How many columns of a terminal the text takes: a wide character takes two, a combining one none.
int columnsOf(std::string_view text);

// The beginning of the text that takes so many columns at most, cut behind a whole character.
std::string clipped(std::string_view text, int columns);

// Where the first malformed UTF-8 sequence starts; npos if the text is sound.
std::size_t firstBadUtf8(std::string_view text);

// The candidate nearest to `word` by edits (insert, drop, replace, swap of neighbours; Damerau
// 1964, restricted form), if it is near enough to be a likely slip.
std::optional<std::string> nearest(std::string_view word,
                                   const std::vector<std::string>& candidates);

// `did you mean "..."?`, or the fallback if nothing is near.
std::string didYouMean(std::string_view word, const std::vector<std::string>& candidates,
                       std::string fallback = {});

// Order in which digits compare by value: a2 < a10 < b1.
bool naturalLess(std::string_view a, std::string_view b);

// "1 move", "2 moves".
std::string plural(long long count, std::string_view noun);

// 12345678 -> "12,345,678".
// Latin letters in lower case.
std::string lowered(std::string_view text);
std::string grouped(unsigned long long number);
// "1 ply", "1,200 plies".
std::string pliesText(unsigned long long number);

// The text broken between words into lines of at most `width` characters, each behind `indent`.
// Ends in a newline.
std::string wrapped(std::string_view text, std::size_t width, std::string_view indent);

std::string joined(const std::vector<std::string>& parts, std::string_view separator);

// A whole text as a non-negative decimal number; none if it is anything else or over the limit.
std::optional<unsigned long long> wholeNumber(std::string_view text,
                                              unsigned long long limit = ~0ull);

}  // namespace ninepegs
