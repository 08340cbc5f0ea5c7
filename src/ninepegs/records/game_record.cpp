#include "ninepegs/records/game_record.hpp"

#include <fmt/format.h>

#include "ninepegs/game/move_text.hpp"

namespace ninepegs::records {
namespace {

// In standard algebraic notation where the game has it.
std::string recordedText(const Game& game, const Position& position, const Move& move) {
  std::vector<std::string> others = game.otherTexts(position, move);
  if (others.size() > 1) {
    std::vector<Move> found = matchingMoves(game, position, others[1]);
    if (found.size() == 1 && found.front() == move) return others[1];
  }
  return game.moveText(position, move);
}

// Plays lines and notes what cannot be played.
class Player {
 public:
  Player(const Game& game, const std::string& source, std::vector<Diagnostic>& faults)
      : game_(game), source_(source), faults_(faults) {}

  // Moves that were played are added to `played`, unless that is nullptr.
  void play(const std::vector<RecordedMove>& line, Position& position, std::vector<Move>* played) {
    for (const RecordedMove& one : line) {
      for (const RecordedMove::Line& other : one.lines) {
        Position branch = position;
        play(other.moves, branch, nullptr);
      }
      Result result = game_.result(position);
      if (result.kind != ResultKind::ongoing && !result.claim) {
        note(one,
             fmt::format("\"{}\" is played, though the game is over: {}", one.text,
                         resultText(game_, result)),
             "");
        return;
      }
      std::vector<Move> found = matchingMoves(game_, position, one.text);
      if (found.size() > 1) {
        note(one, fmt::format("\"{}\" can be read as several moves", one.text), "");
        return;
      }
      if (found.empty()) {
        std::string says = fmt::format("\"{}\" is no legal move here", one.text);
        std::string why = whyNot(game_, position, one.text);
        if (why.starts_with(says))
          note(one, why, "");
        else
          note(one, says, why);
        return;
      }
      if (played != nullptr) played->push_back(found.front());
      game_.apply(position, found.front());
    }
  }

 private:
  void note(const RecordedMove& at, const std::string& message, const std::string& hint) {
    faults_.push_back(
        {Place{source_, at.line, at.column, static_cast<int>(at.text.size()), {}}, message, hint});
  }

  const Game& game_;
  const std::string& source_;
  std::vector<Diagnostic>& faults_;
};

void nameCells(const Geometry& board, std::vector<RecordedMove>& moves) {
  for (RecordedMove& one : moves) {
    if (one.text.empty()) {
      one.text = "pass";
    } else if (one.text.size() == 2 && one.text[0] >= 'a' && one.text[1] >= 'a') {
      int x = one.text[0] - 'a', y = one.text[1] - 'a';
      if (x < board.columns() && y < board.rows())
        if (Cell cell = board.cellAt(x, y); board.has(cell)) one.text = board.label(cell);
    }
    for (RecordedMove::Line& other : one.lines) nameCells(board, other.moves);
  }
}

}  // namespace

void nameCells(const Game& game, GameRecord& record) {
  if (record.points) nameCells(game.board(), record.moves);
  record.points = false;
}

std::string GameRecord::tag(const std::string& name) const {
  for (const auto& [key, value] : tags)
    if (key == name) return value;
  return {};
}

void GameRecord::setTag(const std::string& name, const std::string& value) {
  for (auto& [key, old] : tags)
    if (key == name) {
      old = value;
      return;
    }
  tags.emplace_back(name, value);
}

std::string resultToken(const Result& result) {
  if (result.kind == ResultKind::win) return result.winner == 0 ? "1-0" : "0-1";
  return result.kind == ResultKind::draw ? "1/2-1/2" : "*";
}

GameRecord makeRecord(const Game& game, const Position& from, const std::vector<Move>& moves) {
  GameRecord record;
  if (!(from == game.start())) {
    record.start = game.notation(from);
    if (record.start.empty()) record.start = game.positionText(from);
  }
  Position position = from;
  for (const Move& move : moves) {
    RecordedMove one;
    one.text = recordedText(game, position, move);
    record.moves.push_back(std::move(one));
    game.apply(position, move);
  }
  Result result = game.result(position);
  record.result = resultToken(result);
  record.tags = {{"Event", game.info().title},
                 {"Site", "?"},
                 {"Date", "????.??.??"},
                 {"Round", "?"},
                 {"White", "?"},
                 {"Black", "?"},
                 {"Result", record.result},
                 {"Game", game.info().id}};
  if (!game.info().variant.empty()) record.setTag("Variant", game.info().variant);
  record.setTag("Outcome",
                result.kind == ResultKind::ongoing ? "not ended" : resultText(game, result));
  return record;
}

Replayed replay(const Game& game, const GameRecord& record, const std::string& source) {
  Replayed out;
  out.from = record.start.empty() ? game.start() : game.readPosition(record.start, source);
  out.last = out.from;
  Player(game, source, out.faults).play(record.moves, out.last, &out.moves);
  if (out.moves.size() < record.moves.size()) return out;
  // A side may have resigned, or both agreed: only a game that has ended says who won.
  Result result = game.result(out.last);
  std::string token = resultToken(result);
  if (token != "*" && !result.claim && record.result != "*" && record.result != token)
    out.faults.push_back({Place{source, record.line, 0, 1, {}},
                          fmt::format("the record says {}, but by the rules it is {}: {}",
                                      record.result, token, resultText(game, result)),
                          ""});
  return out;
}

}  // namespace ninepegs::records
