#include "ninepegs/compare/probes.hpp"

#include <algorithm>
#include <cctype>
#include <utility>

#include "ninepegs/game/move_text.hpp"

namespace ninepegs::compare {
namespace {

constexpr std::size_t asSamples = 4;  // legal moves that probes are made of

// The whole numbers of a text: where they stand, and how long they are.
std::vector<std::pair<std::size_t, std::size_t>> numbersOf(const std::string& text) {
  std::vector<std::pair<std::size_t, std::size_t>> out;
  auto digit = [&](std::size_t at) {
    return at < text.size() && std::isdigit(static_cast<unsigned char>(text[at])) != 0;
  };
  for (std::size_t at = 0; at < text.size(); ++at) {
    if (!digit(at)) continue;
    std::size_t end = at;
    while (digit(end)) ++end;
    out.emplace_back(at, end - at);
    at = end;
  }
  return out;
}

std::string replaced(std::string text, std::pair<std::size_t, std::size_t> stretch,
                     const std::string& with) {
  return text.replace(stretch.first, stretch.second, with);
}

// Row for column: two numbers change places, or the column's letter and the row's number do.
std::string swapped(const std::string& text, const Geometry& board) {
  std::vector<std::pair<std::size_t, std::size_t>> numbers = numbersOf(text);
  if (numbers.size() >= 2) {
    std::string one = text.substr(numbers[0].first, numbers[0].second);
    std::string two = text.substr(numbers[1].first, numbers[1].second);
    if (!std::isalpha(static_cast<unsigned char>(text[0])))
      return replaced(replaced(text, numbers[1], one), numbers[0], two);
  }
  for (std::size_t at = 0; at < text.size(); ++at) {
    Cell cell = -1;
    std::size_t length = cellAt(board, text, at, cell);
    if (length == 0) continue;
    if (board.shape().numbered) return text;
    return replaced(
        text, {at, length},
        Geometry::columnName(board.rowNumber(cell)) + std::to_string(board.columnNumber(cell)));
  }
  return text;
}

}  // namespace

std::vector<Probe> probesOf(const Game& game, const Position& position,
                            const std::vector<std::string>& legal,
                            const std::vector<std::string>& before, const Bridge& bridge) {
  std::vector<Probe> out;
  std::set<std::string> known(legal.begin(), legal.end());
  bool asOurs = legal.empty() || bridge.isPlain();
  auto add = [&](const std::string& text, const char* what) {
    if (!known.insert(text).second) return;
    // What the sheet would take for a move, however it is written, is none.
    if (asOurs && !matchingMoves(game, position, text).empty()) return;
    out.push_back({text, what});
  };
  bool over = game.result(position).kind != ResultKind::ongoing;
  for (const std::string& text : before)
    add(text, over ? "a move after the end of the game" : "a move that was legal before");
  const std::vector<std::string>& samples = legal.empty() ? before : legal;
  for (std::size_t i = 0; i < samples.size() && i < asSamples; ++i) {
    const std::string& text = samples[i * samples.size() / std::min(asSamples, samples.size())];
    add(swapped(text, game.board()), "a move with row and column exchanged");
    for (const auto& number : numbersOf(text)) {
      add(replaced(text, number, "-1"), "a move with a number below zero");
      add(replaced(text, number, "0"), "a move off the board");
      add(replaced(text, number, "99"), "a move off the board");
    }
  }
  add("", "an empty text");
  add("?", "a text that is no move");
  return out;
}

}  // namespace ninepegs::compare
