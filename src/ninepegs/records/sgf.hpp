// Records in the Smart Game Format, FF[4] (A. Hollosi, 1999): a tree of nodes with properties.
//
//   std::string text = records::toSgf(*game, records::makeRecord(*game, position, moves));
//
// The side that begins is B. A move is the point of its cell where the format has points for the
// game (Othello, five in a row), else our text of it. What the format has no property for stands in
// properties of our own: the sheet in NPSHEET, its variant in NPVARIANT, the position that a game
// starts from in NPSTART, other tags in NPTAG, annotation glyphs in NPGLYPH.
#pragma once

#include <string>

#include "ninepegs/records/game_reader.hpp"

namespace ninepegs::records {

class SgfReader final : public GameReader {
 public:
  SgfReader(std::istream& in, std::string source) : in_(in), source_(std::move(source)) {}
  std::optional<GameRecord> next() override;

 private:
  struct Property {
    std::string name;
    std::vector<std::string> values;
    int line = 0, column = 0;
  };

  [[noreturn]] void refuse(const std::string& message, const std::string& hint = {}) const;
  int get();
  int peek();
  void skipBlanks();
  std::string value();
  bool property(Property& out);
  void readTree(GameRecord& record, std::vector<RecordedMove>& moves, std::string& intro,
                int depth);
  void take(GameRecord& record, std::vector<RecordedMove>& moves, std::string& intro,
            const Property& property, bool root);

  std::istream& in_;
  std::string source_;
  int line_ = 1, column_ = 1;
  std::size_t moves_ = 0;
};

std::string toSgf(const Game& game, const GameRecord& record);

}  // namespace ninepegs::records
