#include "ninepegs/report/solved_text.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "ninepegs/base/text.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::report {
namespace {

std::string resultOf(const Game& game, bool known, int winner, int plies) {
  if (!known) return "not known";
  if (winner < 0) return "a draw";
  return fmt::format("{} wins in {}", game.info().sides[winner],
                     pliesText(static_cast<unsigned long long>(plies)));
}

}  // namespace

std::string solvedText(const Game& game, const Position& position, const play::Solved& solved,
                       const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  out += fmt::format(": {} to move\n\n", game.info().sides[game.toMove(position)]);
  std::string result = resultOf(game, solved.known, solved.winner, solved.plies);
  if (solved.known)
    out += "  " + paint.good(result) + " with best play\n";
  else
    out += "  " + paint.bad("not settled") +
           fmt::format(": nobody can force a win within {}\n",
                       pliesText(static_cast<unsigned long long>(solved.depth)));
  if (!solved.line.empty() && solved.known)
    out += wrapped("line: " + joined(lineTexts(game, position, solved.line), ", "), 88, "  ");
  out += "\n" + paint.strong("Every move") + "\n";
  for (const play::Solved::RootMove& one : solved.moves)
    out += fmt::format("  {:<12} {}\n", game.moveText(position, one.move),
                       resultOf(game, one.known, one.winner, one.plies));
  out += fmt::format("\n  {} in {:.2f} s{}\n", grouped(solved.nodes) + " positions", solved.seconds,
                     solved.brokenOff ? "; broken off, and what is known until then" : "");
  return out;
}

std::string solvedJson(const Game& game, const Position& position, const play::Solved& solved) {
  using Json = nlohmann::ordered_json;
  auto result = [&](Json& one, bool known, int winner, int plies) {
    one["known"] = known;
    one["winner"] = known && winner >= 0 ? Json(game.info().sides[winner]) : Json(nullptr);
    one["plies"] = known && winner >= 0 ? Json(plies) : Json(nullptr);
  };
  Json out;
  out["game"] = game.info().id;
  out["position"] = game.positionText(position);
  result(out, solved.known, solved.winner, solved.plies);
  out["depth"] = solved.depth;
  out["line"] = lineTexts(game, position, solved.line);
  out["broken_off"] = solved.brokenOff;
  out["nodes"] = solved.nodes;
  out["moves"] = Json::array();
  for (const play::Solved::RootMove& move : solved.moves) {
    Json one;
    one["move"] = game.moveText(position, move.move);
    result(one, move.known, move.winner, move.plies);
    out["moves"].push_back(one);
  }
  return out.dump(1);
}

}  // namespace ninepegs::report
