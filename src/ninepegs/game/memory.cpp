#include "ninepegs/game/memory.hpp"

#include <algorithm>
#include <charconv>

#include "ninepegs/base/text.hpp"

namespace ninepegs {
namespace {

std::vector<std::string> wordsOf(const std::string& text) {
  std::vector<std::string> words = splitTrimmed(text, ' ');
  std::erase_if(words, [](const std::string& word) { return word.empty(); });
  return words;
}

bool has(const std::vector<std::string>& names, const std::string& name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

}  // namespace

std::vector<std::string> rememberedParts(const Game& game, const Position& position) {
  std::vector<std::string> parts = splitTrimmed(game.positionText(position), ';');
  parts.erase(parts.begin());  // a picture
  std::string turn = game.info().sides[game.toMove(position)] + " to move";
  std::erase_if(parts, [&](const std::string& part) {
    return part == turn || part.rfind("picture of ", 0) == 0;
  });
  return parts;
}

Memory memoryOf(const Game& game, const Position& position) {
  Memory out;
  const GameInfo& info = game.info();
  const Geometry& board = game.board();
  for (const std::string& part : rememberedParts(game, position)) {
    std::vector<std::string> words = wordsOf(part);
    if (words.empty()) continue;
    if (has(info.cellNumbers, words[0])) {
      Memory::OnCells numbers{words[0], {}};
      std::size_t at = 1;
      for (Cell cell = 0; cell < board.size() && at < words.size(); ++cell) {
        if (!board.has(cell)) continue;
        std::int64_t value = 0;
        std::from_chars(words[at].data(), words[at].data() + words[at].size(), value);
        numbers.values.emplace_back(cell, value);
        ++at;
      }
      out.numbers.push_back(std::move(numbers));
    } else if (has(info.marks, words[0])) {
      bool each = words.size() > 2 && words[1] == "of";
      Memory::Marked mark{each ? joined({words[0], words[1], words[2]}, " ") : words[0], {}};
      for (std::size_t i = each ? 3 : 1; i < words.size(); ++i)
        if (std::optional<Cell> cell = board.find(words[i]))
          mark.cells.set(static_cast<std::size_t>(*cell));
      out.marks.push_back(std::move(mark));
    } else {
      out.others.push_back(part);
    }
  }
  return out;
}

}  // namespace ninepegs
