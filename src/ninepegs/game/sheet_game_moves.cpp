// Which moves a position has, and those that come to the same.
#include <fmt/format.h>

#include <unordered_set>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/game/sinks.hpp"
#include "ninepegs/game/with_machine.hpp"

namespace ninepegs {

using sheet::Layout;

void SheetGame::listMoves(const Position& position, MoveList& moves) const {
  moves.clear();
  if (sheet::isFinal(position.words[Layout::result])) return;
  bool over = withMachine(program_, [&](auto& machine) {
    load(machine, position);
    ListSink sink(moves);
    machine.generate(sink);
    return sink.over;
  });
  if (over)
    throw BadInput(
        Place{info_.source, rules_.moves.front().span.line, 0, 1, {}},
        fmt::format("a position has more than {} legal moves, the limit", limits::movesInPosition),
        "narrow the sets from which cells are picked");
  if (mayRepeat_ && doubtful(moves)) dropRepeated(position, moves);
}

// Are there ways among the moves that may come to the same?
bool SheetGame::doubtful(const MoveList& moves) const {
  std::vector<const Move*> firsts(program_.groups.size(), nullptr);  // of each move of the sheet
  for (const Move& move : moves) {
    if (move.group == sheet::passGroup || !program_.groups[move.group].mayRepeat) continue;
    const Move*& first = firsts[move.group];
    if (first == nullptr) {
      first = &move;
      continue;
    }
    const std::vector<int>& unwritten = program_.groups[move.group].unwritten;
    if (unwritten.empty()) return true;
    for (int place : unwritten)
      if (move.choices[static_cast<std::size_t>(place)] !=
          first->choices[static_cast<std::size_t>(place)])
        return true;
  }
  return false;
}

// Of moves with the same text that lead to the same position, the first stays.
void SheetGame::dropRepeated(const Position& position, MoveList& moves) const {
  struct Reached {  // two ways of one move
    int group;
    std::string text;
    std::vector<std::uint64_t> words;
    bool operator==(const Reached&) const = default;
  };
  struct ReachedHash {
    std::size_t operator()(const Reached& one) const {
      std::uint64_t hash =
          std::hash<std::string>()(one.text) + static_cast<std::uint64_t>(one.group);
      for (std::uint64_t word : one.words) hash = scrambled(hash ^ word);
      return static_cast<std::size_t>(hash);
    }
  };
  std::unordered_set<Reached, ReachedHash> seen;
  std::int64_t left = limits::loopSteps;  // for all of them
  // What one costs in any case: a position, made, kept and looked up.
  const auto words = static_cast<std::int64_t>(program_.layout.words);
  const std::int64_t least = 100 + 2 * words;
  std::erase_if(moves, [&](const Move& move) {
    if (move.group == sheet::passGroup || !program_.groups[move.group].mayRepeat) return false;
    Position after = position;
    std::string text = moveText(position, move);
    auto written = static_cast<std::int64_t>(text.size());  // some write out whole sets of cells
    left -= least + 2 * written + applied(after, move);
    if (countsAsTooMuch(words + written)) throwBrokenOff(program_, position.words.data());
    if (left < 0)
      throw RunawayRules(
          Place{info_.source, rules_.moves[move.group].span.line, 0, 1, {}},
          fmt::format("the ways of this move take more than {} steps in one position, the limit",
                      limits::loopSteps),
          "pick from smaller sets, or write every choice in the move's text");
    return !seen.insert({move.group, std::move(text), std::move(after.words)}).second;
  });
}

std::uint64_t SheetGame::countMoves(const Position& position) const {
  if (sheet::isFinal(position.words[Layout::result])) return 0;
  if (mayRepeat_) {
    // Ways that may come to the same are rarely two in one position.
    std::optional<std::uint64_t> total =
        withMachine(program_, [&]<int W>(sheet::Machine<W>& machine) {
          sheet::BundleSink<W> sink;
          load(machine, position);
          machine.generate(sink);
          return doubtful(sink) ? std::nullopt : std::optional<std::uint64_t>(sink.total);
        });
    return total ? *total : Game::countMoves(position);
  }
  return withMachine(program_, [&](auto& machine) {
    load(machine, position);
    sheet::CountSink sink;
    machine.generate(sink);
    return sink.total;
  });
}

bool SheetGame::isLegal(const Position& position, const Move& move) const {
  if (sheet::isFinal(position.words[Layout::result])) return false;
  // Of ways that come to the same only the first is a move.
  if (move.group != sheet::passGroup &&
      (move.group >= program_.groups.size() || program_.groups[move.group].mayRepeat))
    return Game::isLegal(position, move);
  return withMachine(program_, [&](auto& machine) {
    load(machine, position);
    sheet::FindSink sink(move.group, move.choices.data(), move.count);
    machine.generate(sink);
    return sink.found;
  });
}

}  // namespace ninepegs
