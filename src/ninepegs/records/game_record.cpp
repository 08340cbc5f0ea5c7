#include "ninepegs/records/game_record.hpp"

#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::records {
namespace {

std::string quoted(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (c == '"' || c == '\\') out += '\\';
    out += static_cast<unsigned char>(c) < 32 ? ' ' : c;
  }
  return out;
}

}  // namespace

GameRecord makeRecord(const Game& game, const Position& from, const std::vector<Move>& moves) {
  GameRecord record;
  record.tags.emplace_back("Game", game.info().id);
  if (!game.info().variant.empty()) record.tags.emplace_back("Variant", game.info().variant);
  if (!(from == game.start())) record.start = game.positionText(from);
  Position position = from;
  for (const Move& move : moves) {
    record.moves.push_back(game.moveText(position, move));
    game.apply(position, move);
  }
  Result result = game.result(position);
  record.tags.emplace_back(
      "Result", result.kind == ResultKind::ongoing ? "unfinished" : resultText(game, result));
  return record;
}

std::string toText(const GameRecord& record) {
  std::string out;
  for (const auto& [name, value] : record.tags)
    out += fmt::format("[{} \"{}\"]\n", name, quoted(value));
  if (!record.start.empty()) out += fmt::format("[Position \"{}\"]\n", quoted(record.start));
  out += "\n";
  std::string line;
  for (std::size_t i = 0; i < record.moves.size(); ++i) {
    std::string part =
        i % 2 == 0 ? fmt::format("{}. {}", i / 2 + 1, record.moves[i]) : record.moves[i];
    if (i + 1 < record.moves.size()) part += i % 2 == 0 ? "," : ";";
    // A line that begins with '[' would be a tag.
    if (!line.empty() && line.size() + part.size() + 1 > 78 && part.front() != '[') {
      out += line + "\n";
      line.clear();
    }
    line += (line.empty() ? "" : " ") + part;
  }
  return out + line + (line.empty() ? "" : "\n");
}

GameRecord readRecord(const std::string& text, const std::string& source) {
  GameRecord record;
  std::size_t from = 0;
  int number = 0;
  std::string all;
  auto refuse = [&](int line, int column, const std::string& shown, const std::string& message,
                    const std::string& hint) {
    throw BadInput(Place{source, line, column, 1, shown}, message, hint);
  };
  if (firstBadUtf8(text) != std::string::npos || text.find('\0') != std::string::npos)
    refuse(0, 0, "", "this is not UTF-8 text", "a game record is a plain text file");
  while (from <= text.size()) {
    std::size_t to = std::min(text.find('\n', from), text.size());
    std::string line = text.substr(from, to - from);
    if (!line.empty() && line.back() == '\r') line.pop_back();
    from = to + 1;
    ++number;
    std::string body(trimmed(line));
    if (body.empty()) continue;
    if (body.front() != '[') {
      all += body + " ";
      continue;
    }
    if (!all.empty()) refuse(number, 1, line, "a tag stands behind the moves", "");
    std::size_t space = body.find(' ');
    if (body.size() < 6 || body.back() != ']' || space == std::string::npos ||
        body[space + 1] != '"' || body[body.size() - 2] != '"' || space + 1 == body.size() - 2)
      refuse(number, 1, line, "this is no tag", "a tag looks like: [Game \"tic-tac-toe\"]");
    std::string value;
    for (std::size_t i = space + 2; i + 2 < body.size(); ++i) {
      if (body[i] == '\\' && i + 3 < body.size()) ++i;
      value += body[i];
    }
    std::string name = body.substr(1, space - 1);
    if (name == "Position")
      record.start = value;
    else
      record.tags.emplace_back(name, value);
  }
  // `1. a, b; 2. c, d`: numbers in front of a pair are taken off.
  for (const std::string& pair : splitTrimmed(all, ';')) {
    std::string moves = pair;
    std::size_t dot = moves.find(". ");
    if (dot != std::string::npos && wholeNumber(moves.substr(0, dot)))
      moves = moves.substr(dot + 2);
    for (const std::string& move : splitTrimmed(moves, ',')) {
      if (move.empty()) refuse(number, 0, "", "a move is missing between two commas", "");
      record.moves.push_back(move);
    }
  }
  return record;
}

}  // namespace ninepegs::records
