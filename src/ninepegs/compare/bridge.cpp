#include "ninepegs/compare/bridge.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"

namespace ninepegs::compare {
namespace {

// The place in a text that a byte stands at.
Place placeOf(const std::string& text, std::size_t byte, const std::string& source) {
  byte = std::min(byte, text.size());
  std::size_t begin = byte == 0 ? 0 : text.rfind('\n', byte - 1) + 1;
  std::size_t end = std::min(text.find('\n', byte), text.size());
  Place place;
  place.source = source;
  place.line =
      1 + static_cast<int>(std::count(text.begin(), text.begin() + static_cast<long>(begin), '\n'));
  place.column = 1 + static_cast<int>(byte - begin);
  place.text = text.substr(begin, end - begin);
  return place;
}

// Where a key or a value is written; the first place, if several.
Place placeOf(const std::string& text, const std::string& word, const std::string& source) {
  std::string quoted = jsonText(Json(word));
  std::size_t at = text.find(quoted);
  if (at == std::string::npos) return placeOf(text, std::size_t{0}, source);
  Place place = placeOf(text, at, source);
  place.length = columnsOf(quoted);
  return place;
}

std::string filled(const std::string& pattern, int column, int row, int columns) {
  std::string out;
  auto number = [&](const std::string& name) -> std::optional<int> {
    int zero = name.ends_with('0') ? 0 : 1;
    std::string plain = zero == 0 ? name.substr(0, name.size() - 1) : name;
    if (plain == "column") return column + zero;
    if (plain == "row") return row + zero;
    if (plain == "number") return row * columns + column + zero;
    return std::nullopt;
  };
  for (std::size_t at = 0; at < pattern.size();) {
    std::size_t end = pattern[at] == '{' ? pattern.find('}', at) : std::string::npos;
    std::optional<int> value;
    if (end != std::string::npos) value = number(pattern.substr(at + 1, end - at - 1));
    if (!value) {
      out += pattern[at++];
      continue;
    }
    out += std::to_string(*value);
    at = end + 1;
  }
  return out;
}

}  // namespace

std::size_t cellAt(const Geometry& board, const std::string& text, std::size_t at, Cell& cell) {
  auto is = [&](std::size_t place, auto sort) {
    return place < text.size() && sort(static_cast<unsigned char>(text[place])) != 0;
  };
  auto letter = [](int c) { return std::isalpha(c); };
  auto digit = [](int c) { return std::isdigit(c); };
  std::size_t longest = 0;
  for (std::size_t length = 1; length <= 4 && at + length <= text.size(); ++length) {
    std::optional<Cell> found = board.find(text.substr(at, length));
    if (!found) continue;
    // d3 may follow another label or a letter, as in e2xd3; a label of letters alone is a word, and
    // one of digits a number.
    bool letters = is(at + length - 1, letter), digits = is(at, digit);
    if (letters && (is(at + length, letter) || (at > 0 && is(at - 1, letter)))) continue;
    if (!letters && is(at + length, digit)) continue;
    if (digits && at > 0 && is(at - 1, digit)) continue;
    cell = *found;
    longest = length;
  }
  return longest;
}

Bridge Bridge::read(const Game& game, const std::string& text, const std::string& source) {
  Json json;
  try {
    json = readJson(text);
  } catch (const Json::parse_error& error) {
    throw BadInput(placeOf(text, error.byte == 0 ? 0 : error.byte - 1, source), "this is no JSON",
                   "a map is an object such as {\"moves\": {\"pass\": \"--\"}}");
  } catch (const Json::exception&) {
    throw BadInput(placeOf(text, std::size_t{0}, source), "this JSON cannot be read");
  }
  Bridge bridge(game);
  const std::string names = "sides, letters, moves, cells";
  if (!json.is_object() || json.empty())
    throw BadInput(placeOf(text, std::size_t{0}, source),
                   "a map is a JSON object and names something", "it may have " + names);
  for (const auto& [key, value] : json.items()) {
    Place place = placeOf(text, key, source);
    std::map<std::string, std::string>* into = key == "sides"     ? &bridge.sides_
                                               : key == "letters" ? &bridge.letters_
                                               : key == "moves"   ? &bridge.moves_
                                               : key == "cells"   ? &bridge.cells_
                                                                  : nullptr;
    if (into == nullptr)
      throw BadInput(place, fmt::format("a map has no \"{}\"", key), "it may have " + names);
    if (key == "cells" && value.is_string()) {
      bridge.pattern_ = value.get<std::string>();
      if (filled(bridge.pattern_, 0, 0, 1) == bridge.pattern_)
        throw BadInput(
            placeOf(text, bridge.pattern_, source), "this pattern is the same for all cells",
            "it holds {column} and {row}, or {number}, counted from 1 from the top left; "
            "{column0}, {row0} and {number0} count from 0");
      continue;
    }
    if (!value.is_object()) throw BadInput(place, fmt::format("\"{}\" is an object of names", key));
    for (const auto& [ours, theirs] : value.items()) {
      if (!theirs.is_string())
        throw BadInput(placeOf(text, ours, source), "what it is called by the program is a text");
      bool known =
          key == "moves" || (key == "cells" && game.board().find(ours)) ||
          (key == "sides" && (ours == game.info().sides[0] || ours == game.info().sides[1]));
      if (key == "letters") {
        known = ours == ".";
        for (const GameInfo::Kind& kind : game.info().kinds)
          known = known || kind.letters[0] == ours || kind.letters[1] == ours;
      }
      if (!known)
        throw BadInput(placeOf(text, ours, source), fmt::format("the game has no such {}: \"{}\"",
                                                                key == "sides"     ? "side"
                                                                : key == "letters" ? "letter"
                                                                                   : "cell",
                                                                ours));
      (*into)[ours] = theirs.get<std::string>();
    }
  }
  return bridge;
}

std::string Bridge::cell(Cell cell) const {
  const Geometry& board = game_->board();
  auto found = cells_.find(board.label(cell));
  if (found != cells_.end()) return found->second;
  if (pattern_.empty()) return board.label(cell);
  return filled(pattern_, board.drawnX(cell), board.drawnY(cell), board.columns());
}

std::string Bridge::move(const std::string& ours) const {
  auto found = moves_.find(ours);
  if (found != moves_.end()) return found->second;
  if (pattern_.empty() && cells_.empty()) return ours;
  return withCells(ours, [&](Cell at) { return cell(at); });
}

std::optional<int> Bridge::side(const std::string& theirs) const {
  for (int side = 0; side < 2; ++side) {
    const std::string& ours = game_->info().sides[side];
    auto found = sides_.find(ours);
    if (lowered(theirs) == lowered(found == sides_.end() ? ours : found->second)) return side;
  }
  return std::nullopt;
}

std::string Bridge::letter(const std::string& theirs) const {
  for (const auto& [ours, mapped] : letters_)
    if (mapped == theirs) return ours == "." ? "" : ours;
  return theirs == "." || theirs == " " ? "" : theirs;
}

std::optional<Cell> Bridge::cellNamed(const std::string& theirs) const {
  const Geometry& board = game_->board();
  if (pattern_.empty() && cells_.empty()) return board.find(theirs);
  for (Cell at = 0; at < board.size(); ++at)
    if (board.has(at) && cell(at) == theirs) return at;
  return std::nullopt;
}

}  // namespace ninepegs::compare
