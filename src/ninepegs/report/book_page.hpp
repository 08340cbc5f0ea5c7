// The book of a game as one page of HTML that needs nothing else: no network, no scripts.
#pragma once

#include <functional>
#include <string>

#include "ninepegs/report/book.hpp"

namespace ninepegs::report {

// A board of the book as the bytes of an .svg file.
using BookFigure = std::function<std::string(const BookBoard& board)>;

std::string bookPage(const Book& book, const BookFigure& figure);

}  // namespace ninepegs::report
