// What a table says of moves: warnings before bad ones, and how the computer came to its own.
#include <fmt/format.h>

#include <cstdlib>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/table.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::cli {

// Hints and warnings have streams that no computer's move uses.
constexpr std::uint64_t hintNodes = 50'000, coachNodes = 20'000;
constexpr std::uint64_t hintStream = 1u << 20, coachStream = 1u << 22;
constexpr std::size_t shownMoves = 8;  // of a line

// How the computer came to its choice in this position.
std::string Table::account(const play::Choice& choice) const {
  constexpr std::size_t shown = 6;  // moves of a line
  if (!choice.means.empty())
    return fmt::format("weighed in {} that agree with what is known",
                       plural(static_cast<long long>(choice.positions), "position"));
  if (choice.nodes <= 1) return "";
  bool decided = play::decides(choice.score);
  std::string out;
  if (choice.byPlayouts) {
    out = fmt::format("{} playouts{}{}", grouped(choice.nodes),
                      decided ? "; " : ", won: ", report::shareText(choice.score));
  } else {
    out = fmt::format("looked {} ahead, {} positions",
                      pliesText(static_cast<unsigned long long>(choice.depth)),
                      grouped(choice.nodes));
    if (decided) out += "; " + report::scoreText(choice.score);
  }
  if (choice.solved && choice.score == 0) out += "; a draw if both play well";
  std::vector<std::string> line = report::lineTexts(*game_, position_, choice.line, shown);
  if (line.size() > 1) out += "; expects " + joined(line, ", ");
  return out;
}

// Where something is hidden, from what the side to move knows.
std::string Table::hint() {
  if (over()) return "the game is over\n";
  if (game_->secrets() != nullptr && !play::Knowledge::knowable(*game_, from_))
    return "nobody can know what led to this position: there are no hints here\n";
  Stream stream(seed_, hintStream + moves_.size());
  std::unique_ptr<play::Opponent> search = play::makeSearch({.nodes = hintNodes});
  play::Choice choice = known_.choose(*search, position_, stream);
  return fmt::format("{} looks good ({})\n", game_->moveText(position_, choice.move),
                     account(choice));
}

// Another strength of the computers at the table.
std::string Table::level(const std::string& number) {
  if (!hasComputer()) return "no computer plays here\n";
  std::string out;
  try {
    for (int side = 0; side < 2; ++side) {
      Seat& seat = seats_[static_cast<std::size_t>(side)];
      if (!seat.computer) continue;
      if (!number.empty()) {
        std::string text = "search:level=" + number;
        seat = {text, play::makeOpponent(text, "level")};
      }
      out += fmt::format("{}: {}\n", game_->info().sides[side], seat.text);
    }
  } catch (const BadInput&) {
    return fmt::format("\"{}\" is no level: they are 1, the weakest, to 9\n", number);
  }
  return out + (number.empty() ? "another strength: level 1, the weakest, to level 9\n" : "");
}

std::string Table::coach() {
  if (game_->secrets() != nullptr)
    return "no warnings where pieces are secret: they would tell too much\n";
  coach_ = !coach_;
  return coach_ ? "you will be warned before a move that gives the other side a win\n"
                : "no more warnings\n";
}

// Empty: there is nothing to warn of, or the same move was warned of before.
std::string Table::warning(const Move& move) {
  if (!coach_ || game_->secrets() != nullptr) return "";
  std::string text = game_->moveText(position_, move);
  if (warnedOf_ == text) return "";
  Position after = position_;
  game_->apply(after, move);
  int side = game_->toMove(position_);
  if (game_->ended(after) || game_->countMoves(after) == 0) return "";
  auto look = [&](const Position& at) {
    Stream stream(seed_, coachStream + moves_.size());
    return play::makeSearch({.nodes = coachNodes})->choose(*game_, at, stream);
  };
  // Who is to move there may be the same side, which may move again.
  auto loses = [&](const Position& at, const play::Choice& choice) {
    return play::decides(choice.score) && (choice.score > 0) == (game_->toMove(at) != side);
  };
  play::Choice reply = look(after);
  if (!loses(after, reply)) return "";
  play::Choice best = look(position_);
  if (loses(position_, best)) return "";  // whatever it plays
  warnedOf_ = text;
  return fmt::format("careful: after {} {} {}: {}. Type it again to play it, or ask for a hint\n",
                     text, game_->info().sides[1 - side], report::scoreText(std::abs(reply.score)),
                     joined(report::lineTexts(*game_, after, reply.line, shownMoves), ", "));
}

std::string Table::thought() const {
  if (thought_.nodes == 0 && thought_.steps.empty()) return "no computer has moved yet\n";
  if (game_->secrets() != nullptr && hasHuman())
    return "what it thought is not shown where pieces are secret\n";
  if (thought_.steps.empty())
    return fmt::format("it looked at {}, and keeps no account of them by depth\n",
                       plural(static_cast<long long>(thought_.nodes), "position"));
  std::string out;
  if (thought_.better)
    out += fmt::format(
        "it is of a level that now and then draws its move from all of them: it "
        "played {} instead of {}\n",
        game_->moveText(thoughtAt_, thought_.move), game_->moveText(thoughtAt_, *thought_.better));
  out += paint_.strong(thought_.byPlayouts ? "   playouts       won  line"
                                           : "  depth     positions  score             line") +
         "\n";
  for (const play::Choice::Step& step : thought_.steps) {
    std::vector<std::string> line = report::lineTexts(*game_, thoughtAt_, step.line, shownMoves);
    if (thought_.byPlayouts) {
      out += fmt::format("  {:>9}  {:>8}  {}\n", grouped(step.nodes), report::shareText(step.score),
                         joined(line, ", "));
      continue;
    }
    out += fmt::format("  {:>5}  {:>12}  {:<16}  {}\n", step.depth, grouped(step.nodes),
                       report::scoreText(step.score), joined(line, ", "));
  }
  return out;
}

}  // namespace ninepegs::cli
