#include "ninepegs/play/opponent.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::play {
namespace {

class Random final : public Opponent {
 public:
  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    game.listMoves(position, moves_);
    Choice choice;
    choice.nodes = 1;
    choice.move = moves_[stream.below(static_cast<std::uint32_t>(moves_.size()))];
    choice.line = {choice.move};
    return choice;
  }
  std::string name() const override { return "random"; }

 private:
  MoveList moves_;
};

class Greedy final : public Opponent {
 public:
  Choice choose(const Game& game, const Position& position, Stream& stream) override {
    int side = game.toMove(position);
    std::unique_ptr<LivePosition> live = game.live();
    live->setUp(position);
    MoveList moves, winning, safe;
    Choice choice;
    choice.depth = 2;
    live->listMoves(moves);
    for (const Move& move : moves) {
      live->play(move);
      ++choice.nodes;
      Outcome outcome = live->outcome();
      if (outcome.kind == ResultKind::win && outcome.winner == side)
        winning.push_back(move);
      else if (outcome.kind != ResultKind::win &&  // else it loses at once
               !canWinAtOnce(*live, 1 - side, choice.nodes))
        safe.push_back(move);
      live->takeBack();
    }
    const MoveList& from = !winning.empty() ? winning : !safe.empty() ? safe : moves;
    choice.move = from[stream.below(static_cast<std::uint32_t>(from.size()))];
    choice.line = {choice.move};
    if (!winning.empty()) choice.score = winScore - 1;
    return choice;
  }
  std::string name() const override { return "greedy"; }

 private:
  bool canWinAtOnce(LivePosition& live, int side, std::uint64_t& nodes) {
    if (live.ended() || live.toMove() != side) return false;
    live.listMoves(replies_);
    for (const Move& move : replies_) {
      live.play(move);
      ++nodes;
      Outcome outcome = live.outcome();
      live.takeBack();
      if (outcome.kind == ResultKind::win && outcome.winner == side) return true;
    }
    return false;
  }

  MoveList replies_;
};

[[noreturn]] void refuse(const std::string& source, std::string_view text, std::size_t at,
                         std::size_t length, const std::string& message, const std::string& hint) {
  throw BadInput(Place{source, 1, static_cast<int>(utf8Symbols(text.substr(0, at)).size()) + 1,
                       static_cast<int>(std::max<std::size_t>(length, 1)), std::string(text)},
                 message, hint);
}

}  // namespace

std::unique_ptr<Opponent> makeRandom() {
  return std::make_unique<Random>();
}
std::unique_ptr<Opponent> makeGreedy() {
  return std::make_unique<Greedy>();
}

std::vector<std::string> opponentNames() {
  return {"random", "greedy", "search"};
}

std::unique_ptr<Opponent> makeOpponent(std::string_view text, const std::string& source) {
  std::size_t colon = text.find(':');
  std::string_view kind = text.substr(0, colon);
  if (kind != "random" && kind != "greedy" && kind != "search")
    refuse(source, text, 0, kind.size(),
           fmt::format("there is no opponent \"{}\"", std::string(kind.substr(0, 40))),
           didYouMean(kind, opponentNames(), "there are: random, greedy, search, search:depth=6"));
  if (colon == text.npos) {
    if (kind == "random") return makeRandom();
    if (kind == "greedy") return makeGreedy();
    return makeSearch({.nodes = 100'000});
  }
  if (kind != "search")
    refuse(source, text, colon, text.size() - colon, fmt::format("\"{}\" takes no settings", kind),
           "only `search` does");
  SearchLimits limits;
  std::size_t from = colon + 1;
  while (true) {
    std::size_t to = std::min(text.find(',', from), text.size());
    std::string_view setting = text.substr(from, to - from);
    std::size_t equals = setting.find('=');
    std::string_view word = setting.substr(0, equals);
    std::string_view value = equals == setting.npos ? "" : setting.substr(equals + 1);
    std::size_t valueAt = from + (equals == setting.npos ? setting.size() : equals + 1);
    if (word != "depth" && word != "time" && word != "nodes")
      refuse(source, text, from, word.size(),
             fmt::format("`search` has no setting \"{}\"", std::string(word.substr(0, 40))),
             didYouMean(word, {"depth", "time", "nodes"},
                        "there are: depth=PLIES, time=SECONDS, nodes=POSITIONS"));
    bool said = word == "depth"   ? limits.depth > 0
                : word == "nodes" ? limits.nodes > 0
                                  : limits.seconds > 0;
    if (said)
      refuse(source, text, from, word.size(),
             fmt::format("\"{}\" is said twice", std::string(word)), "");
    if (word == "depth") {
      std::optional<unsigned long long> number = wholeNumber(value, limits::searchDepth);
      if (!number || *number < 1)
        refuse(source, text, valueAt, value.size(),
               fmt::format("depth is a whole number from 1 to {}", limits::searchDepth), "");
      limits.depth = static_cast<int>(*number);
    } else if (word == "nodes") {
      std::optional<unsigned long long> number = wholeNumber(value, 1'000'000'000'000ull);
      if (!number || *number < 1)
        refuse(source, text, valueAt, value.size(), "nodes is a whole number from 1 up", "");
      limits.nodes = *number;
    } else {
      double seconds = 0;
      auto [end, error] = std::from_chars(value.data(), value.data() + value.size(), seconds);
      if (value.empty() || error != std::errc() || end != value.data() + value.size() ||
          !std::isfinite(seconds) || seconds <= 0 || seconds > 86400)
        refuse(source, text, valueAt, value.size(),
               "time is a number of seconds above 0 and at most 86400", "such as: search:time=0.5");
      limits.seconds = seconds;
    }
    if (to == text.size()) break;
    from = to + 1;
  }
  return makeSearch(limits);
}

}  // namespace ninepegs::play
