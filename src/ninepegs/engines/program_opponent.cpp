// An opponent that answers JSON-RPC: docs/programs.md.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/engine_opponents.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/engines/json_rpc.hpp"
#include "ninepegs/engines/outside_opponent.hpp"
#include "ninepegs/game/move_text.hpp"

namespace ninepegs::engines {
namespace {

constexpr double usualSeconds = 30;  // to answer

class ProgramOpponent : public OutsideOpponent {
 public:
  ProgramOpponent(std::string command, std::string source, const EngineLimits& limits)
      : OutsideOpponent(std::move(command), std::move(source)) {
    seconds_ = limits.seconds > 0 ? limits.seconds : usualSeconds;
  }

  void follow(const Game& game, const Position& start, const MoveList& moves) override {
    if (start != game.start())
      failed("can only be told moves from the beginning of the game",
             "leave --at out, or play against another opponent");
    try {
      // What it was told before must be how the game began, else it is told all anew.
      if (child_ == nullptr || told_.size() > moves.size() ||
          !std::equal(told_.begin(), told_.end(), moves.begin()))
        begin(game);
      Position position = start;
      for (std::size_t i = 0; i < moves.size(); ++i) {
        if (i >= told_.size()) {
          tell(game.moveText(position, moves[i]));
          told_.push_back(moves[i]);
        }
        game.apply(position, moves[i]);
      }
    } catch (const ProgramFailed& failure) {
      if (!wantsStop(stop_)) failed(failure.what(), "");
    }
  }

  play::Choice choose(const Game& game, const Position& position, Stream& stream) override {
    RpcChild::Answer answer;
    if (wantsStop(stop_)) return anyMove(game, position);
    try {
      answer =
          child_->ask("choose", jsonText(Json{{"seed", stream.next()}, {"seconds", seconds_}}));
    } catch (const ProgramFailed& failure) {
      if (wantsStop(stop_)) return anyMove(game, position);
      failed(failure.what(), "");
    }
    if (answer.result.empty())
      failed(fmt::format("answered \"choose\" with an error: {}", answer.error),
             answer.code == methodNotFound
                 ? "an opponent answers one method more than `compare` asks for: docs/programs.md"
                 : "");
    Json said = readJson(answer.result);
    if (said.is_object() && said.contains("move")) said = Json(said["move"]);
    std::string text = said.is_string() ? said.get<std::string>() : jsonText(said);
    std::vector<Move> found = matchingMoves(game, position, text);
    if (found.size() != 1)
      failed(fmt::format("chose \"{}\", which is {}", harmless(text),
                         found.empty() ? "no legal move" : "more than one move"),
             "");
    play::Choice out;
    out.move = found.front();
    return out;
  }

  std::string name() const override { return "program:" + command_; }

 private:
  void begin(const Game& game) {
    if (child_ == nullptr) {
      ChildLimits limits;
      limits.seconds = seconds_;
      limits.stop = stop_;
      child_ = std::make_unique<RpcChild>(command_, source_, limits);
    }
    Json params;
    params["game"] = game.info().id;
    if (!game.info().variant.empty()) params["variant"] = game.info().variant;
    RpcChild::Answer answer = child_->ask("start", jsonText(params));
    if (answer.result.empty())
      throw ProgramFailed("answered \"start\" with an error: " + answer.error);
    told_.clear();
  }
  void tell(const std::string& text) {
    RpcChild::Answer answer = child_->ask("play", asciiJson(Json{{"move", text}}));
    if (answer.result.empty())
      throw ProgramFailed(fmt::format("refused the move \"{}\": {}", text, answer.error));
  }

  double seconds_ = 0;
  std::unique_ptr<RpcChild> child_;
  MoveList told_;
};

}  // namespace

std::unique_ptr<play::Opponent> makeProgram(const std::string& command, const std::string& source,
                                            const EngineLimits& limits) {
  return std::make_unique<ProgramOpponent>(command, source, limits);
}

}  // namespace ninepegs::engines
