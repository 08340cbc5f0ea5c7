#include "ninepegs/report/board_csv.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/text/blocks.hpp"

namespace ninepegs::report {
namespace {

void requireOneBoard(const Game& game) {
  if (game.boards() > 1)
    throw BadInput(Place{}, "a game with a board for each side has no rows of fields",
                   "its positions are written as `show` prints them");
}

struct Field {
  std::string text;
  std::size_t at = 0;  // where it begins in its line
};

std::vector<Field> fieldsOf(const std::string& line) {
  char divider = ',';
  if (line.find(',') == line.npos) divider = line.find(';') != line.npos ? ';' : '\t';
  std::vector<Field> out;
  for (std::size_t from = 0; from <= line.size();) {
    std::size_t to = std::min(line.find(divider, from), line.size());
    std::string text(trimmed(line.substr(from, to - from)));
    if (text.size() >= 2 && text.front() == '"' && text.back() == '"')
      text = trimmed(text.substr(1, text.size() - 2));
    out.push_back({std::move(text), from});
    from = to + 1;
  }
  return out;
}

class Reader {
 public:
  Reader(const Game& game, std::string_view text, const std::string& source)
      : game_(game), source_(source, text) {
    for (const GameInfo::Kind& kind : game.info().kinds)
      for (const std::string& letter : kind.letters)
        if (!letter.empty()) letters_.push_back(letter);
  }

  CsvBoard read() {
    const std::vector<PictureRow>& rows = game_.board().picture();
    std::vector<std::string> picture;
    std::string turn;
    int number = 0, last = 0;  // lines; the last that says anything
    for (const std::string& line : source_.lines()) {
      ++number;
      if (line.find_first_not_of(" \r") == line.npos) continue;  // a tab divides fields
      last = number;
      if (picture.size() < rows.size())
        picture.push_back(row(number, line, rows[picture.size()]));
      else if (turn.empty())
        turn = side(number, line);
      else
        refuse(number, 0, line.size(), "nothing may stand behind the side to move", "");
    }
    if (picture.size() < rows.size())
      throw BadInput(Place{source_.name(), last, 0, 1, {}},
                     fmt::format("{} should stand here, but there {} {}",
                                 plural(static_cast<long long>(rows.size()), "row"),
                                 picture.size() == 1 ? "is" : "are", picture.size()),
                     "a line for each row of the board, from the top");
    std::string text = joined(picture, "/");
    auto of = [&](int who) {
      return game_.readPosition(text + "; " + game_.info().sides[who] + " to move", source_.name());
    };
    if (!turn.empty()) return {of(turn == game_.info().sides[0] ? 0 : 1), true};
    Position first = of(0), second = of(1);
    bool ends[2] = {game_.ended(first), game_.ended(second)};
    if (ends[0] != ends[1]) return {ends[0] ? first : second, false};
    std::size_t has[2] = {0, 0};
    for (Cell cell = 0; cell < game_.board().size(); ++cell)
      if (auto piece = game_.pieceAt(first, cell); piece && piece->side >= 0) ++has[piece->side];
    return {has[0] > has[1] ? second : first, false};
  }

 private:
  [[noreturn]] void refuse(int number, std::size_t at, std::size_t length,
                           const std::string& message, const std::string& hint) const {
    const std::string& line = source_.lines()[static_cast<std::size_t>(number - 1)];
    throw BadInput(Place{source_.name(), number, columnsOf(line.substr(0, at)) + 1,
                         std::max(1, columnsOf(line.substr(at, length))), line},
                   message, hint);
  }

  std::string row(int number, const std::string& line, const PictureRow& cells) const {
    std::vector<Field> fields = fieldsOf(line);
    // A divider behind the last field begins none.
    if (fields.size() == cells.cells.size() + 1 && fields.back().text.empty()) fields.pop_back();
    if (fields.size() != cells.cells.size())
      refuse(number, 0, line.size(),
             fmt::format("this row has {}, the board has {} in it",
                         plural(static_cast<long long>(fields.size()), "field"),
                         plural(static_cast<long long>(cells.cells.size()), "cell")),
             "a field for each cell, divided by commas; nothing for an empty cell");
    std::string out;
    for (std::size_t i = 0; i < fields.size(); ++i) {
      const Field& field = fields[i];
      if (!game_.board().has(cells.cells[i])) {
        if (!field.text.empty() && field.text != "_" && field.text != ".")
          refuse(number, field.at, std::max<std::size_t>(field.text.size(), 1),
                 "the board leaves this place out", "");
        out += '_';
      } else if (field.text.empty() || field.text == ".") {
        out += '.';
      } else if (std::find(letters_.begin(), letters_.end(), field.text) != letters_.end()) {
        out += field.text;
      } else {
        refuse(number, field.at, std::max<std::size_t>(field.text.size(), 1),
               fmt::format("no piece is written \"{}\"", clipped(field.text, 20)),
               "pieces are: " + joined(letters_, ", "));
      }
    }
    return out;
  }

  std::string side(int number, const std::string& line) const {
    std::string text(trimmed(line));
    while (!text.empty() && (text.back() == ',' || text.back() == ';')) text.pop_back();
    if (text.ends_with(" to move")) text.resize(text.size() - 8);
    for (const std::string& one : game_.info().sides)
      if (text == one) return text;
    refuse(number, 0, line.size(), "behind the rows only the side to move may stand",
           fmt::format("such as: {} to move", game_.info().sides[0]));
  }

  const Game& game_;
  sheet::Source source_;
  std::vector<std::string> letters_;
};

}  // namespace

std::string boardCsv(const Game& game, const Position& position) {
  requireOneBoard(game);
  std::string out;
  for (const PictureRow& row : game.board().picture()) {
    std::vector<std::string> fields;
    for (Cell cell : row.cells) {
      std::string field = game.board().has(cell) ? "" : "_";
      if (std::optional<Piece> piece = game.pieceAt(position, cell))
        field = game.info().kinds[piece->kind].letters[std::max(piece->side, 0)];
      fields.push_back(std::move(field));
    }
    out += joined(fields, ",") + "\n";
  }
  return out + game.info().sides[game.toMove(position)] + " to move\n";
}

CsvBoard readBoardCsv(const Game& game, std::string_view text, const std::string& source) {
  requireOneBoard(game);
  if (!trimmed(text).empty()) sheet::requireText(source, text);
  return Reader(game, text, source).read();
}

}  // namespace ninepegs::report
