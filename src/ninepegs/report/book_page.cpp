#include "ninepegs/report/book_page.hpp"

#include <fmt/format.h>

#include "ninepegs/report/markup.hpp"

namespace ninepegs::report {
namespace {

constexpr const char* bookStyle = R"(
  body { margin: 0 auto; max-width: 60rem; padding: 1.5rem 2rem 3rem; background: #fdfaf5;
         color: #2b2622; font: 15px/1.5 "DejaVu Sans", Verdana, sans-serif; }
  h1 { margin: 0 0 .4rem; font-size: 2rem; border-bottom: 4px solid #b98a4e; }
  h2 { margin: 2.2rem 0 .6rem; font-size: 1.25rem; border-bottom: 2px solid #b98a4e; }
  h3 { margin: 1.2rem 0 .2rem; font-size: 1rem; color: #6d4f28; }
  ul { margin: .2rem 0; padding-left: 1.2rem; } li { margin: .15rem 0; }
  .boards { display: flex; flex-wrap: wrap; gap: 1.2rem; margin-top: .8rem; }
  figure { margin: 0; width: 17.5rem; break-inside: avoid; }
  .first figure { width: 24rem; }
  figure img { width: 100%; display: block; border: 1px solid #d9d0c4; }
  figcaption { color: #6d655d; font-size: .85rem; padding-top: .2rem; }
  code { font-family: "DejaVu Sans Mono", monospace; font-size: .92em; color: #5a3f1c; }
  @media print { body { background: #fff; padding: 0; } h2 { break-after: avoid; } }
)";

// Names between backticks as code.
std::string marked(const std::string& text) {
  std::string out, plain = escaped(text);
  bool open = false;
  for (char c : plain) {
    if (c == '`')
      out += (open = !open) ? "<code>" : "</code>";
    else
      out += c;
  }
  return open ? plain : out;
}

void sentences(const std::vector<BookPart::Sentence>& list, std::string& out) {
  int depth = -1;
  for (const BookPart::Sentence& one : list) {
    for (; depth < one.depth; ++depth) out += "<ul>\n";
    for (; depth > one.depth; --depth) out += "</ul>\n";
    out += "<li>" + marked(one.text) + "</li>\n";
  }
  for (; depth >= 0; --depth) out += "</ul>\n";
}

}  // namespace

std::string bookPage(const Book& book, const BookFigure& figure) {
  std::string out =
      "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n"
      "<meta name=\"viewport\" content=\"width=device-width\">\n<title>" +
      escaped(book.title) + "</title>\n<style>" + bookStyle + "</style>\n</head>\n<body>\n<h1>" +
      escaped(book.title) + "</h1>\n";
  bool first = true;
  for (const BookPart& part : book.parts) {
    if (!first)
      out += fmt::format("<{0}>{1}</{0}>\n", part.level ? "h2" : "h3", marked(part.heading));
    for (const std::string& paragraph : part.prose) out += "<p>" + marked(paragraph) + "</p>\n";
    sentences(part.sentences, out);
    if (!part.boards.empty()) {
      out += first ? "<div class=\"boards first\">\n" : "<div class=\"boards\">\n";
      for (const BookBoard& board : part.boards)
        out += "<figure><img alt=\"" + escaped(board.caption) +
               "\" src=\"data:image/svg+xml;base64," + base64(figure(board)) + "\"><figcaption>" +
               escaped(board.caption) + "</figcaption></figure>\n";
      out += "</div>\n";
    }
    first = false;
  }
  return out + "</body>\n</html>\n";
}

}  // namespace ninepegs::report
