#include "judge/same_games.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/random.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::judge {
namespace {

struct Made {
  std::string key;
  Position after;
  std::string text;
};

std::string ofResult(Result result, bool lines) {
  if (!lines) result.line = 0;
  return outcomeText(result);
}

// All legal moves with what comes of them, in the order of their texts.
std::vector<Made> movesOf(const SheetGame& game, const Position& position, bool lines) {
  MoveList moves;
  game.listMoves(position, moves);
  std::vector<Made> out;
  for (const Move& move : moves) {
    MoveTexts texts = game.textsOf(position, move);
    Made one{"", position, texts.text};
    game.apply(one.after, move);
    Result result = game.result(one.after);
    bool fault = result.kind == ResultKind::fault;
    // A move that goes wrong says as much as was known until then.
    one.key = fault ? ofResult(result, lines)
                    : fmt::format("{} [{}] {} -> {} ({})", texts.text, texts.seen,
                                  joined(texts.told, "|"), game.positionText(one.after),
                                  ofResult(result, lines));
    out.push_back(std::move(one));
  }
  std::stable_sort(out.begin(), out.end(),
                   [](const Made& a, const Made& b) { return a.key < b.key; });
  out.erase(std::unique(out.begin(), out.end(),
                        [](const Made& a, const Made& b) {
                          return a.key == b.key && a.key.starts_with("fault");
                        }),
            out.end());
  return out;
}

std::string looks(const SheetGame& game, const Position& position, const Position& before,
                  bool lines) {
  std::string out = game.positionText(position) + " " + ofResult(game.result(position), lines);
  for (const Result& end : game.endsThatHold(position, &before)) out += "; " + ofResult(end, lines);
  if (game.measure() != nullptr)
    out += fmt::format("; worth {} {}", game.worth(position, 0), game.worth(position, 1));
  return out;
}

}  // namespace

std::string outcomeText(const Result& result) {
  switch (result.kind) {
    case ResultKind::ongoing:
      return "ongoing";
    case ResultKind::win:
      return fmt::format("win of {} by end {} {}{}", result.winner, result.end, result.name,
                         result.claim ? ", claim" : "");
    case ResultKind::draw:
      return fmt::format("draw by end {} {}{}", result.end, result.name,
                         result.claim ? ", claim" : "");
    case ResultKind::fault:
      return fmt::format("fault of line {}", result.line);
  }
  return "";
}

std::string parted(const SheetGame& one, const SheetGame& other, const CompareOptions& options,
                   bool lines) {
  std::vector<std::string> path;
  auto at = [&](const std::string& what, const std::string& a, const std::string& b) {
    return fmt::format("{} after [{}]:\n  one {}\n  other {}", what, joined(path, ", "), a, b);
  };
  try {
    for (int number = 0; number < options.games; ++number) {
      Stream stream(options.seed, static_cast<std::uint64_t>(number));
      path.clear();
      Position here = one.start(), there = other.start(), hereBefore = here, thereBefore = there;
      for (int ply = 0; ply <= options.plies; ++ply) {
        std::string a = looks(one, here, hereBefore, lines),
                    b = looks(other, there, thereBefore, lines);
        if (a != b) return at("the position", a, b);
        std::vector<Made> mine = movesOf(one, here, lines), theirs = movesOf(other, there, lines);
        for (std::size_t i = 0; i < std::max(mine.size(), theirs.size()); ++i) {
          std::string x = i < mine.size() ? mine[i].key : "no such move",
                      y = i < theirs.size() ? theirs[i].key : "no such move";
          if (x != y)
            return at(fmt::format("legal moves ({} and {})", mine.size(), theirs.size()), x, y);
        }
        if (mine.empty()) break;
        std::size_t chosen = stream.below(static_cast<std::uint32_t>(mine.size()));
        path.push_back(mine[chosen].text);
        hereBefore = here, thereBefore = there;
        here = mine[chosen].after, there = theirs[chosen].after;
        if (one.result(here).kind == ResultKind::fault) break;
      }
    }
  } catch (const BadInput&) {  // a position that is too much for the rules' limits
  }
  return "";
}

}  // namespace ninepegs::judge
