// The lines that are played at a table: backwards and forwards in them, kept, and taken up again.
#include <fmt/format.h>

#include <algorithm>
#include <functional>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/table.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/records/movetext.hpp"

namespace ninepegs::cli {

std::vector<Move> Table::wholeLine() const {
  std::vector<Move> line = moves_;
  line.insert(line.end(), ahead_.rbegin(), ahead_.rend());
  return line;
}

// Goes to a ply of the line, or the next one on that way at which a human is to move.
std::string Table::stand(std::size_t ply, Until until) {
  std::size_t was = moves_.size(), length = was + ahead_.size();
  if (game_->secrets() != nullptr && hasHuman() && hasComputer())
    return "where pieces are secret there is only undo\n";
  while (moves_.size() > ply) {
    ahead_.push_back(moves_.back());
    takeBack();
  }
  while (moves_.size() < ply || (until == Until::after && !ahead_.empty() && !humanToMove())) {
    Move next = ahead_.back();
    place(next);
  }
  while (moves_.size() != length && !moves_.empty() && !game_->ended(position_) && !humanToMove()) {
    ahead_.push_back(moves_.back());
    takeBack();
  }
  renew();
  if (moves_.size() == was) return fmt::format("this is ply {} of {}\n", was, length);
  return fmt::format("ply {} of {}\n", moves_.size(), length) + board();
}

std::string Table::back(const std::string& number) {
  std::optional<unsigned long long> plies = number.empty() ? 1 : wholeNumber(number);
  if (!plies || *plies == 0)
    return fmt::format("\"{}\" is no number of plies: say back, or back 3\n", number);
  return stand(moves_.size() - std::min<std::size_t>(*plies, moves_.size()), Until::before);
}

std::string Table::forward(const std::string& number) {
  std::optional<unsigned long long> plies = number.empty() ? 1 : wholeNumber(number);
  if (!plies || *plies == 0)
    return fmt::format("\"{}\" is no number of plies: say forward, or forward 3\n", number);
  // Against a computer a ply forward is its answer, too.
  return stand(moves_.size() + std::min<std::size_t>(*plies, ahead_.size()), Until::after);
}

std::string Table::goTo(const std::string& number) {
  std::optional<unsigned long long> ply = wholeNumber(number);
  std::size_t length = moves_.size() + ahead_.size();
  if (!ply || *ply > length)
    return fmt::format("\"{}\" is no ply of this game: they are 0 to {}\n", number, length);
  return stand(*ply, Until::before);
}

std::string Table::lines() const {
  std::string out;
  auto list = [&](const std::vector<Move>& line, const std::string& name) {
    out += name;
    Position at = from_;
    for (const Move& move : line) {
      out += " " + game_->moveText(at, move);
      game_->apply(at, move);
    }
    out += "\n";
  };
  if (game_->secrets() != nullptr && hasComputer())
    return "where pieces are secret no lines are shown\n";
  list(wholeLine(), fmt::format("this line, at ply {}:", moves_.size()));
  for (std::size_t i = 0; i < others_.size(); ++i)
    list(others_[i], fmt::format("left, {}:", i + 1));
  return out;
}

void Table::begin(const Position& from) {
  from_ = position_ = from;
  moves_.clear();
  before_.clear();
  ahead_.clear();
  others_.clear();
  picked_ = -1;
  draws_ = 0;
  renew();
}

std::string Table::setUp(const std::string& text) {
  if (game_->secrets() != nullptr && hasComputer())
    return "where pieces are secret a game begins where the rules say\n";
  if (text.empty()) return "setup " + game_->positionText(position_) + "\n";
  try {
    Position to = game_->readPosition(text, "setup");
    for (const std::string& broken : brokenInvariants(*game_, to)) return broken + "\n";
    begin(to);
    return board();
  } catch (const BadInput& error) {
    return std::string(error.what()) + "\n";
  }
}

void Table::goOn(records::GameRecord record, const std::string& source) {
  records::nameCells(*game_, record);
  records::Replayed played = records::replay(*game_, record, source);
  if (!played.faults.empty()) throw BadInput(played.faults);
  begin(played.from);
  // The lines that were left, each whole from the start.
  std::vector<Move> line;
  std::function<void(const std::vector<records::RecordedMove>&, Position)> walk =
      [&](const std::vector<records::RecordedMove>& moves, Position at) {
        for (const records::RecordedMove& one : moves) {
          for (const records::RecordedMove::Line& other : one.lines) {
            std::vector<Move> kept = line;
            walk(other.moves, at);
            others_.push_back(line);
            line = std::move(kept);
          }
          line.push_back(matchingMoves(*game_, at, one.text).front());
          game_->apply(at, line.back());
        }
      };
  walk(record.moves, from_);
  std::vector<std::vector<Move>> others = std::move(others_);
  others_.clear();
  for (const Move& move : played.moves) place(move);
  others_ = std::move(others);
}

std::string Table::save(const std::string& path) {
  if (path.empty()) return "say where to: save my-game.txt\n";
  try {
    writeFile(path, record());
    return fmt::format("saved to {}\n", path);
  } catch (const Failure& error) {
    return std::string(error.what()) + "\n";
  }
}

std::string Table::record() const {
  std::vector<Move> line = wholeLine();
  records::GameRecord record = records::makeRecord(*game_, from_, line);
  for (const std::vector<Move>& other : others_) {
    std::size_t same = 0;
    while (same < std::min(line.size(), other.size()) && line[same] == other[same]) ++same;
    if (same == line.size() || same == other.size()) continue;
    std::vector<records::RecordedMove> moves = records::makeRecord(*game_, from_, other).moves;
    moves.erase(moves.begin(), moves.begin() + static_cast<std::ptrdiff_t>(same));
    record.moves[same].lines.push_back({"", std::move(moves)});
  }
  record.setTag("White", seats_[0].text);
  record.setTag("Black", seats_[1].text);
  if (hasComputer()) record.setTag("Seed", std::to_string(seed_));
  return records::toText(record);
}

}  // namespace ninepegs::cli
