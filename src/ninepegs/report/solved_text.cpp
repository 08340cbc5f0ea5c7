#include "ninepegs/report/solved_text.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::report {
namespace {

const char* const noWin = "nobody can force a win";

// Of the position, or of one of its moves; `neither`: what it is called if nobody wins.
template <class One>
std::string resultOf(const Game& game, const One& one, const char* neither) {
  if (!one.known) return "not known";
  if (one.winner < 0) return neither;
  return fmt::format("{} wins in {}{}", game.info().sides[one.winner],
                     pliesText(static_cast<unsigned long long>(one.plies)),
                     one.atMost ? " at most" : "");
}

// By how much a side leads: "Black leads by 3 to 8".
std::string marginText(const Game& game, const play::Margin& margin) {
  if (margin.known() && *margin.least == 0) return "level";
  bool first = margin.least && *margin.least > 0, second = margin.most && *margin.most < 0;
  if (!first && !second) return "margin not known";
  // From the side that leads.
  std::optional<std::int64_t> least = first ? margin.least : margin.most;
  std::optional<std::int64_t> most = first ? margin.most : margin.least;
  std::string by = std::to_string(std::abs(*least));
  if (!most) by += " or more";
  if (most && *most != *least) by += " to " + std::to_string(std::abs(*most));
  return fmt::format("{} leads by {}", game.info().sides[first ? 0 : 1], by);
}

std::string movesText(const Game& game, const Position& position, const play::Solved& solved,
                      const play::Margins* margins, const char* neither, const Paint& paint) {
  std::string out = "\n" + paint.strong("Every move") + "\n";
  for (std::size_t i = 0; i < solved.moves.size(); ++i) {
    const play::Solved::RootMove& one = solved.moves[i];
    std::string result = resultOf(game, one, neither);
    out += fmt::format("  {:<12} {}\n", game.moveText(position, one.move),
                       margins == nullptr
                           ? result
                           : fmt::format("{:<28} {}", result, marginText(game, margins->moves[i])));
  }
  return out;
}

// Who is to move, and what best play comes to.
std::string headText(const Game& game, const Position& position, const play::Solved& solved,
                     const char* neither, const std::string& otherwise, const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  out += fmt::format(": {} to move\n\n", game.info().sides[game.toMove(position)]);
  out += solved.known ? "  " + paint.good(resultOf(game, solved, neither)) + " with best play\n"
                      : "  " + paint.bad("not settled") + ": " + otherwise + "\n";
  if (!solved.line.empty() && solved.known)
    out += paint.wrapped("line: " + joined(lineTexts(game, position, solved.line), ", "), "  ");
  return out;
}

Json jsonOf(const Game& game, const Position& position, const play::Solved& solved,
            const play::Margins* margins) {
  auto result = [&](Json& one, const auto& of) {
    bool won = of.known && of.winner >= 0;
    one["known"] = of.known;
    one["winner"] = won ? Json(game.info().sides[of.winner]) : Json(nullptr);
    one["plies"] = won ? Json(of.plies) : Json(nullptr);
    one["at_most"] = of.atMost;
  };
  // Of the first side.
  auto lead = [&](Json& one, const play::Margin& margin) {
    one["lead_least"] = margin.least ? Json(*margin.least) : Json(nullptr);
    one["lead_most"] = margin.most ? Json(*margin.most) : Json(nullptr);
  };
  Json out;
  out["game"] = game.info().id;
  out["position"] = game.positionText(position);
  result(out, solved);
  if (margins != nullptr) lead(out, margins->position);
  out["depth"] = solved.depth;
  out["line"] = lineTexts(game, position, solved.line);
  out["broken_off"] = solved.brokenOff;
  out["nodes"] = solved.nodes;
  out["moves"] = Json::array();
  for (std::size_t i = 0; i < solved.moves.size(); ++i) {
    Json one;
    one["move"] = game.moveText(position, solved.moves[i].move);
    result(one, solved.moves[i]);
    if (margins != nullptr) lead(one, margins->moves[i]);
    out["moves"].push_back(one);
  }
  return out;
}

}  // namespace

std::string solvedText(const Game& game, const Position& position, const play::Solved& solved,
                       const play::Margins* margins, const Paint& paint) {
  std::string out = headText(
      game, position, solved, "a draw",
      fmt::format("{} within {}", noWin, pliesText(static_cast<unsigned long long>(solved.depth))),
      paint);
  if (margins != nullptr && margins->noEnd)
    out += "  " + paint.bad("the lead is not known") +
           ": there are games from here in which nobody can move and no end holds\n";
  else if (margins != nullptr && (margins->position.least || margins->position.most))
    out += fmt::format("  {} if both play for that\n",
                       paint.good(marginText(game, margins->position)));
  out += movesText(game, position, solved, margins, "a draw", paint);
  out += fmt::format("\n  {} in {:.2f} s{}\n", grouped(solved.nodes) + " positions", solved.seconds,
                     solved.brokenOff ? "; broken off, and what is known until then" : "");
  return out;
}

std::string solvedSoFar(const Game& game, const Position& position, const play::Solved& solved) {
  std::string out = resultOf(game, solved, "a draw");
  if (solved.moves.empty()) return out;
  const play::Solved::RootMove& last = solved.moves.back();
  return fmt::format("{}; {}: {}, {} of {} moves", out, game.moveText(position, last.move),
                     resultOf(game, last, "a draw"), solved.moves.size(),
                     game.countMoves(position));
}

std::string solvedJson(const Game& game, const Position& position, const play::Solved& solved,
                       const play::Margins* margins) {
  return jsonText(jsonOf(game, position, solved, margins), 1);
}

std::string endingText(const verify::Ending& ending, const Paint& paint) {
  const Game& game = *ending.game;
  const verify::EveryReport& every = ending.every;
  std::string many = grouped(every.positions) + " positions";
  std::string out = headText(game, ending.position, ending.solved, noWin,
                             "more than " + many + " can come from here", paint);
  if (every.solved) {
    out += movesText(game, ending.position, ending.solved, nullptr, noWin, paint);
    out +=
        "\n" + paint.wrapped(
                   fmt::format("{} can come from here: {} wins {}, {} wins {}, and in {} {}", many,
                               game.info().sides[0], grouped(every.won[0]), game.info().sides[1],
                               grouped(every.won[1]), grouped(every.won[2]), noWin),
                   "  ");
    if (every.longestWinFrom)
      out += paint.wrapped(
          fmt::format("the longest win takes {}, from {}", pliesText(every.longestWin),
                      game.positionText(*every.longestWinFrom)),
          "  ");
  }
  if (!ending.ends.empty())
    out += paint.wrapped("while nobody claims: " + joined(ending.ends, ", "), "  ");
  if (!ending.numbers.empty())
    out += paint.wrapped(
        "counted no further, as nothing else reads it: " + joined(ending.numbers, ", "), "  ");
  return out + fmt::format("  {:.2f} s\n", ending.solved.seconds);
}

std::string endingJson(const verify::Ending& ending) {
  const Game& game = *ending.game;
  const verify::EveryReport& every = ending.every;
  Json out = jsonOf(game, ending.position, ending.solved, nullptr);
  out["positions"] = every.positions;
  out["complete"] = every.complete();
  out["won"] = Json::object();
  for (std::size_t side = 0; side < 2; ++side)
    out["won"][game.info().sides[side]] = every.won[side];
  out["won_by_neither"] = every.won[2];
  out["longest_win"] = every.longestWin;
  out["longest_win_from"] =
      every.longestWinFrom ? Json(game.positionText(*every.longestWinFrom)) : Json(nullptr);
  out["not_claimed"] = ending.ends;
  out["not_counted"] = ending.numbers;
  return jsonText(out, 1);
}

}  // namespace ninepegs::report
