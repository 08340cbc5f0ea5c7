// Reads the parts of a position's text: rows of a picture, and the lines behind it. Internal to
// position_text.
#pragma once

#include <map>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/game/position_text.hpp"

namespace ninepegs {

// One part of a text: a row of the picture or a line behind it, and where it stands.
struct PositionPart {
  std::string text;
  sheet::Span span;
};

// Puts pieces, marks and numbers into a position as their lines are read. Messages go to `found`.
class PositionReader {
 public:
  PositionReader(const rules::Rules& rules, const sheet::Layout& layout,
                 const sheet::Source& source, std::vector<Diagnostic>& found)
      : rules_(rules), layout_(layout), source_(source), found_(found) {
    position_ = emptyPosition(rules, layout);
  }

  Position finish() { return std::move(position_); }

  void picture(const std::vector<PositionPart>& rows, int board);
  void line(const PositionPart& part);
  // Parts of this block are read next: messages about its further lines point there.
  void begin(const sheet::Block& block) { blocks_[block.span.line] = &block; }

 private:
  struct Word {
    std::string text;
    sheet::Span span;
    bool comma = false;  // one follows
  };
  bool note(sheet::Span span, const std::string& message, const std::string& hint = {}) {
    addMessage(found_, {source_.place(placed(span)), message, hint});
    return false;
  }
  sheet::Span placed(sheet::Span span) const;
  std::vector<Word> words(const PositionPart& part);
  bool noCommas(const std::vector<Word>& list, std::size_t before);
  void put(Cell cell, int kind, int side, sheet::Span span);
  bool pieceOfLetter(const std::string& letter, int board, int& kind, int& side) const;
  void hand(const std::vector<Word>& list);
  void turn(const std::vector<Word>& list, const PositionPart& part);
  // False if there was a message.
  bool numbers(const std::vector<Word>& list, std::size_t at, std::vector<std::int64_t>& out);
  void state(const rules::Symbol& symbol, const std::vector<Word>& list);
  std::string sidesHint() const;
  std::string lettersHint() const;
  std::vector<std::string> names() const;

  const rules::Rules& rules_;
  const sheet::Layout& layout_;
  const sheet::Source& source_;
  std::vector<Diagnostic>& found_;
  Position position_;
  bool turnSaid_ = false;
  std::map<int, const sheet::Block*> blocks_;  // by their first line
};

}  // namespace ninepegs
