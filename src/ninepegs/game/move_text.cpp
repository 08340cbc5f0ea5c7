#include "ninepegs/game/move_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_form.hpp"

namespace ninepegs {
namespace {

// A notation as it is compared: without the marks of check, which people leave out, and castling
// with letters, which some write with noughts.
std::string standardNotation(std::string_view text) {
  while (!text.empty() && (text.back() == '+' || text.back() == '#')) text.remove_suffix(1);
  if (text == "0-0") return "O-O";
  if (text == "0-0-0") return "O-O-O";
  return std::string(text);
}

std::string pieceText(const Game& game, Piece piece) {
  if (piece.side < 0) return "a " + game.info().kinds[piece.kind].name;
  return fmt::format("a {} of {}", game.info().kinds[piece.kind].name,
                     game.info().sides[piece.side]);
}

std::string few(std::vector<std::string> texts) {
  constexpr std::size_t shown = 8;
  if (texts.size() <= shown) return joined(texts, ", ");
  std::size_t more = texts.size() - shown;
  texts.resize(shown);
  return fmt::format("{} and {} more", joined(texts, ", "), more);
}

// Words of letters and digits.
std::vector<std::string> words(std::string_view text) {
  std::vector<std::string> out;
  std::string word;
  for (char c : text) {
    if (std::isalnum(static_cast<unsigned char>(c)) != 0) {
      word += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    } else if (!word.empty()) {
      out.push_back(std::move(word));
      word.clear();
    }
  }
  if (!word.empty()) out.push_back(std::move(word));
  return out;
}

bool looksLikeCell(const Geometry& board, const std::string& word) {
  bool digits = std::all_of(word.begin(), word.end(), [](char c) {
    return std::isdigit(static_cast<unsigned char>(c)) != 0;
  });
  if (board.shape().numbered) return digits;
  std::size_t letters = 0;
  while (letters < word.size() && std::isalpha(static_cast<unsigned char>(word[letters])) != 0)
    ++letters;
  return letters > 0 && letters <= 2 && letters < word.size() &&
         std::all_of(word.begin() + static_cast<std::ptrdiff_t>(letters), word.end(),
                     [](char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; });
}

// Legal moves that begin on the cell.
std::vector<std::string> movesFrom(const Game& game, const Position& position, Cell cell) {
  MoveList moves;
  game.listMoves(position, moves);
  std::vector<std::string> texts;
  for (const Move& move : moves) {
    std::vector<Cell> cells = game.cellsOf(position, move);
    if (cells.size() > 1 && cells.front() == cell) texts.push_back(game.moveText(position, move));
  }
  std::sort(texts.begin(), texts.end(), naturalLess);
  return texts;
}

}  // namespace

std::vector<Move> matchingMoves(const Game& game, const Position& position,
                                std::string_view typed) {
  typed = trimmed(typed);
  MoveList moves;
  game.listMoves(position, moves);
  std::vector<Move> exact, near;
  std::string wanted = plainMove(typed);
  for (const Move& move : moves) {
    std::string text = game.moveText(position, move);
    if (text == typed)
      exact.push_back(move);
    else if (!wanted.empty() && plainMove(text) == wanted)
      near.push_back(move);
  }
  if (!exact.empty()) return exact;
  if (!near.empty() || wanted.empty()) return near;
  for (const Move& move : moves)
    for (const std::string& text : game.otherTexts(position, move))
      if (text == typed || standardNotation(text) == standardNotation(typed)) {
        near.push_back(move);
        break;
      }
  return near;
}

std::vector<std::string> moveTexts(const Game& game, const Position& position) {
  MoveList moves;
  game.listMoves(position, moves);
  std::vector<std::string> texts;
  for (const Move& move : moves) texts.push_back(game.moveText(position, move));
  std::sort(texts.begin(), texts.end(), naturalLess);
  return texts;
}

std::string whyNot(const Game& game, const Position& position, std::string_view typed) {
  typed = trimmed(typed);
  const Geometry& board = game.board();
  Result result = game.result(position);
  if (result.kind != ResultKind::ongoing)
    return fmt::format("the game is over ({}), no move can be made", resultText(game, result));
  if (typed.empty()) return "no move was given";
  std::string shown = clipped(typed, 60);
  std::vector<std::string> legal = moveTexts(game, position);
  std::vector<std::string> parts = words(typed);
  std::string mover = game.info().sides[game.toMove(position)];
  if (typed.find_first_of("-") == 0 && parts.size() == 1 && looksLikeCell(board, parts[0]))
    return fmt::format("\"{}\" is negative; cells run from {} to {}", shown, board.labels().front(),
                       board.labels().back());
  std::vector<Cell> cells;
  for (const std::string& part : parts) {
    if (std::optional<Cell> cell = board.find(part)) {
      cells.push_back(*cell);
    } else if (looksLikeCell(board, part)) {
      return fmt::format("there is no cell \"{}\"; cells run from {} to {}", part,
                         board.labels().front(), board.labels().back());
    }
  }
  if (cells.empty() && parts.size() == 1 && !legal.empty()) {
    // Games whose moves name a column.
    bool byColumn = std::all_of(legal.begin(), legal.end(), [&](const std::string& text) {
      return board.findColumn(text).has_value();
    });
    if (byColumn) {
      std::optional<int> column = board.findColumn(parts[0]);
      if (!column)
        return fmt::format("there is no column \"{}\"; columns run from a to {}", shown,
                           Geometry::columnName(board.columns()));
      bool full = true;
      for (Cell cell = 0; cell < board.size(); ++cell)
        if (board.has(cell) && board.columnNumber(cell) == *column)
          full = full && game.pieceAt(position, cell).has_value();
      if (full) return fmt::format("column {} is full", parts[0]);
    }
  }
  if (!cells.empty()) {
    MoveList moves;
    game.listMoves(position, moves);
    bool fromTo = std::any_of(moves.begin(), moves.end(), [&](const Move& move) {
      return game.cellsOf(position, move).size() > 1;
    });
    Cell first = cells.front();
    std::optional<Piece> piece = game.pieceAt(position, first);
    std::string label = board.label(first);
    if (!fromTo) {
      if (piece && cells.size() == 1)
        return fmt::format("{} is taken: {} stands there", label, pieceText(game, *piece));
    } else if (!piece) {
      return fmt::format("nothing stands on {}", label);
    } else if (piece->side != game.toMove(position)) {
      return fmt::format("{} holds {}, but it is {}'s turn", label, pieceText(game, *piece), mover);
    } else {
      std::vector<std::string> from = movesFrom(game, position, first);
      std::string kind = game.info().kinds[piece->kind].name;
      if (from.empty()) return fmt::format("the {} on {} cannot move", kind, label);
      return fmt::format("the {} on {} cannot do that; it can go: {}", kind, label, few(from));
    }
  }
  std::string hint = didYouMean(typed, legal);
  return fmt::format("\"{}\" is no legal move here{}{}", shown, hint.empty() ? "" : "; ",
                     hint.empty() ? fmt::format("; {} can play: {}", mover, few(legal)) : hint);
}

// Is each word a move by itself? Then commas are missing.
static std::string blanksForCommas(const Game& game, Position position, std::string_view typed) {
  std::vector<std::string> words = splitTrimmed(typed, ' ');
  std::erase(words, "");
  if (words.size() < 2) return "";
  for (const std::string& word : words) {
    std::vector<Move> found = matchingMoves(game, position, word);
    if (found.size() != 1) return "";
    game.apply(position, found.front());
  }
  return "moves are divided by commas: " + joined(words, ", ");
}

Position playMoves(const Game& game, Position position, std::string_view moves,
                   const std::string& source, MoveList* played) {
  if (moves.find('\0') != moves.npos || firstBadUtf8(moves) != moves.npos)
    throw BadInput(Place{source, 0, 0, 1, {}}, "moves are UTF-8 text, divided by commas");
  std::size_t from = 0;
  if (trimmed(moves).empty()) return position;
  for (int number = 1;; ++number) {
    std::size_t to = std::min(moves.find(',', from), moves.size());
    std::string_view part = moves.substr(from, to - from);
    std::string_view typed = trimmed(part);
    auto refuse = [&](const std::string& why, const std::string& hint) {
      std::size_t lead = part.find_first_not_of(' ');
      std::size_t before = from + (lead == part.npos ? 0 : lead);
      int column = static_cast<int>(utf8Symbols(moves.substr(0, before)).size()) + 1;
      throw BadInput(Place{source, 1, column,
                           static_cast<int>(std::max<std::size_t>(1, utf8Symbols(typed).size())),
                           std::string(moves)},
                     fmt::format("move {}: {}", number, why), hint);
    };
    std::vector<Move> found = matchingMoves(game, position, typed);
    if (found.empty())
      refuse(whyNot(game, position, typed), blanksForCommas(game, position, typed));
    if (found.size() > 1) {
      std::vector<std::string> texts;
      for (const Move& move : found) texts.push_back(game.moveText(position, move));
      refuse(fmt::format("\"{}\" can be read as several moves", typed),
             "say which: " + joined(texts, ", "));
    }
    game.apply(position, found.front());
    if (played != nullptr) played->push_back(found.front());
    if (to == moves.size()) return position;
    from = to + 1;
  }
}

}  // namespace ninepegs
