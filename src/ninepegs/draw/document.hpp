// Text and boards on pages of A4, as PDF.
//
//   draw::Document document("Connect four");
//   document.heading("The rules", 1);
//   document.paragraph("Four in a line win.");
//   document.boards(*game, {{game->start(), {}, "the start"}}, 3);
//   std::string bytes = document.bytes();
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "ninepegs/draw/board_figure.hpp"

namespace ninepegs::draw {

class Document {
 public:
  explicit Document(const std::string& title);
  ~Document();
  Document(const Document&) = delete;
  Document& operator=(const Document&) = delete;

  // Level 1 begins a part, 2 a part of it.
  void heading(const std::string& text, int level);
  void paragraph(const std::string& text);
  // With a dot in front, `depth` steps to the right.
  void item(const std::string& text, int depth);
  struct Board {
    Position position;
    FigureMarks marks;
    std::string caption;  // below it
  };
  // So many beside each other as `aRow` says.
  void boards(const Game& game, const std::vector<Board>& list, int aRow);

  // The whole file; after this nothing may be added. Throws BadInput if it could not be drawn.
  std::string bytes();

 private:
  class Pages;
  std::unique_ptr<Pages> pages_;
};

}  // namespace ninepegs::draw
