// Records of games as text: tags, moves with their numbers, comments and variations after the
// Portable Game Notation (S. J. Edwards, 1994), for every game; where a sheet has moves in standard
// algebraic notation, it is that;
// such as: [Event "Tic-tac-toe"] [Game "tic-tac-toe"] 1. 5 1 2. 3 {both ways} (2. 4 6) 7 1-0
//
// A move whose text has a blank, or a sign that the notation uses otherwise, stands in double
// quotes. Games of a file are read one after the other, so that a long file needs little memory.
//
//   std::istringstream in(text);
//   records::RecordReader reader(in, "games.txt");
//   while (auto record = reader.next()) texts.push_back(record->result);
#pragma once

#include <istream>
#include <optional>
#include <string>

#include "ninepegs/records/game_reader.hpp"

namespace ninepegs::records {

class RecordReader final : public GameReader {
 public:
  // `in` must outlive it; `source` is its name in messages.
  RecordReader(std::istream& in, std::string source) : in_(in), source_(std::move(source)) {}
  std::optional<GameRecord> next() override;

 private:
  struct Token {
    enum class Kind { end, move, comment, glyph, open, close, result, bracket } kind = Kind::end;
    std::string text;
    int line = 0, column = 0;
    std::vector<int> glyphs;  // of a move: written behind it
  };

  [[noreturn]] void refuse(int column, const std::string& message, const std::string& hint,
                           int length = 1) const;
  bool nextLine();
  bool skipBlanks();  // false: there is nothing more
  Token token();
  std::optional<Token> tokenOrNumber();
  std::string quoted();
  void readTag(GameRecord& record);
  void readLine(GameRecord& record, std::vector<RecordedMove>& moves, std::string& intro,
                int depth);

  std::istream& in_;
  std::string source_;
  std::string line_;       // the one being read
  std::size_t at_ = 0;     // in it
  int number_ = 0;         // of the line
  bool over_ = false;      // a result stood behind the moves
  std::size_t moves_ = 0;  // of the game so far
};

// Of a text of one game.
GameRecord readRecord(const std::string& text, const std::string& source);
std::string toText(const GameRecord& record);

}  // namespace ninepegs::records
