// A game that was played, as a value: what is said of it, where it began, its moves with comments
// and other lines. Written as text by movetext.hpp and sgf.hpp.
//
//   records::GameRecord record = records::makeRecord(*game, position, moves);
//   records::Replayed played = records::replay(*game, record, "game.txt");
//   if (!played.faults.empty()) texts.push_back(played.faults.front().message);
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "ninepegs/game/game.hpp"

namespace ninepegs::records {

struct RecordedMove {
  std::string text;
  int line = 0, column = 0;  // where it stands in its file, counted from 1; 0: nowhere
  std::vector<int> glyphs;   // numeric annotation glyphs, 0 to 255
  std::string comment;       // behind the move
  struct Line;
  std::vector<Line> lines;  // that could have been played from here instead of this move
};
struct RecordedMove::Line {
  std::string comment;  // before its first move
  std::vector<RecordedMove> moves;
};

struct GameRecord {
  std::vector<std::pair<std::string, std::string>> tags;  // but for those of the start
  std::string start;    // text of the position the moves start from; empty: the start
  std::string comment;  // before the first move
  std::vector<RecordedMove> moves;
  std::string result = "*";  // 1-0: the first side won; 0-1, 1/2-1/2, *: not ended
  int line = 0;              // where it begins in its file
  bool points = false;       // moves are points of SGF: dc is the fourth column, third row

  std::string tag(const std::string& name) const;  // empty: there is none
  void setTag(const std::string& name, const std::string& value);
};

// With the seven tags that every record has. `White` is the side that the sheet names first.
// Requires that the moves are legal one after the other.
GameRecord makeRecord(const Game& game, const Position& from, const std::vector<Move>& moves);

// Names the cells of moves that are points.
void nameCells(const Game& game, GameRecord& record);

// The result as a record has it.
std::string resultToken(const Result& result);

// A record by the rules.
struct Replayed {
  Position from;
  std::vector<Move> moves;  // of the main line, up to the first that cannot be played
  Position last;
  // The first move of each line that cannot be played, and a result that is another; no faults: the
  // record is a game by these rules.
  std::vector<Diagnostic> faults;
};
// Requires that its moves are no points. Throws BadInput if the position that it starts from cannot
// be read. `source` names the file.
Replayed replay(const Game& game, const GameRecord& record, const std::string& source);

}  // namespace ninepegs::records
