// An opponent that speaks UCI, for games whose sheet has FEN.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/coordinates.hpp"
#include "ninepegs/engines/engine_opponents.hpp"
#include "ninepegs/engines/json_rpc.hpp"
#include "ninepegs/engines/outside_opponent.hpp"

namespace ninepegs::engines {
namespace {

constexpr double usualThinking = 0.1;              // seconds
constexpr double patience = 10;                    // seconds more until it counts as silent
constexpr std::size_t mostAnswerLines = 1u << 20;  // of one answer

class UciOpponent : public OutsideOpponent {
 public:
  UciOpponent(std::string command, std::string source, const EngineLimits& limits)
      : OutsideOpponent(std::move(command), std::move(source)), limits_(limits) {
    if (limits_.seconds <= 0 && limits_.nodes == 0 && limits_.depth == 0)
      limits_.seconds = usualThinking;
  }

  void follow(const Game& game, const Position& start, const MoveList& moves) override {
    bool goesOn = !where_.empty() && start == start_ && told_.size() <= moves.size() &&
                  std::equal(told_.begin(), told_.end(), moves.begin());
    if (!goesOn) {
      std::string fen = game.notation(start);
      if (fen.empty())
        failed("speaks UCI, and this game has no FEN",
               "only a sheet with a `notation` section has it");
      where_ = "position fen " + fen;
      start_ = last_ = start;
      told_.clear();
    }
    for (std::size_t i = told_.size(); i < moves.size(); ++i) {
      where_ += (i == 0 ? " moves " : " ") + coordinatesOf(game, last_, moves[i]);
      game.apply(last_, moves[i]);
      told_.push_back(moves[i]);
    }
  }

  play::Choice choose(const Game& game, const Position& position, Stream&) override {
    try {
      if (child_ == nullptr) begin();
      return asked(game, position);
    } catch (const BadInput&) {
      if (wantsStop(stop_)) return anyMove(game, position);
      throw;
    }
  }

  std::string name() const override { return "uci:" + command_; }

 private:
  play::Choice asked(const Game& game, const Position& position) {
    std::string go = "go";
    if (limits_.depth > 0) go += fmt::format(" depth {}", limits_.depth);
    if (limits_.nodes > 0) go += fmt::format(" nodes {}", limits_.nodes);
    if (limits_.seconds > 0)
      go += fmt::format(" movetime {}",
                        std::max(1, static_cast<int>(std::lround(limits_.seconds * 1000))));
    std::vector<std::string> words = splitTrimmed(until(where_ + "\n" + go, "bestmove"), ' ');
    std::string text = words.size() < 2 ? "" : words[1];
    if (std::optional<Move> move = moveOfCoordinates(game, position, text)) {
      play::Choice out;
      out.move = *move;
      return out;
    }
    failed(fmt::format("chose \"{}\", which is no legal move", harmless(text)), "");
  }

  void begin() {
    ChildLimits limits;
    limits.seconds = limits_.seconds + patience;
    limits.stop = stop_;
    child_ = std::make_unique<Child>(command_, limits);
    until("uci", "uciok");
    until("ucinewgame\nisready", "readyok");
  }
  // Sends lines and waits for one that begins with that word, which is returned.
  std::string until(const std::string& lines, const std::string& word) {
    std::string line;
    Child::Came came = child_->ask(lines, line);
    for (std::size_t i = 0; i < mostAnswerLines && came == Child::Came::line; ++i) {
      if (trimmed(line).substr(0, word.size()) == word) return std::string(trimmed(line));
      came = child_->next(line);
    }
    std::string what = lines.substr(lines.rfind('\n') + 1);
    if (came == Child::Came::stopped) failed("was not waited for", "");
    if (came == Child::Came::end) {
      std::string how = child_->howItEnded();
      if (child_->exitCode() == 126 || child_->exitCode() == 127)
        failed("cannot be started", "the command is given to the shell as it stands");
      failed(fmt::format("{} when it was told \"{}\"", how, what), "");
    }
    failed(fmt::format("did not answer \"{}\" with \"{}\" within {:g} seconds", what, word,
                       limits_.seconds + patience),
           "");
  }

  std::string where_;
  Position start_, last_;  // of what was told
  MoveList told_;
  EngineLimits limits_;
  std::unique_ptr<Child> child_;
};

}  // namespace

std::unique_ptr<play::Opponent> makeUci(const std::string& command, const std::string& source,
                                        const EngineLimits& limits) {
  return std::make_unique<UciOpponent>(command, source, limits);
}

}  // namespace ninepegs::engines
