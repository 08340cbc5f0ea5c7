#include "ninepegs/report/review_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::report {
namespace {

using play::ReviewedPly;

// What a move gave away, in words; empty for a plain one.
std::string verdictOf(const Game& game, const ReviewedPly& one, const std::string& best) {
  const std::string& other = game.info().sides[1 - one.side];
  switch (one.verdict) {
    case ReviewedPly::Verdict::plain:
      break;
    case ReviewedPly::Verdict::missedWin:
      return fmt::format("{} {}", best, scoreText(one.score));
    case ReviewedPly::Verdict::letsWin:
      return fmt::format("now {} {}; {} would have stopped that", other, scoreText(-one.played),
                         best);
    case ReviewedPly::Verdict::costs:
      return fmt::format("{} for {}: chances {:.0f} % instead of {:.0f}", best,
                         game.info().sides[one.side], 100 * one.chancePlayed, 100 * one.chance);
  }
  return "";
}

// A bar from the middle to the side that is ahead: its chances to win, all of it being certain.
std::string barOf(double forFirst) {
  constexpr int half = 10;
  double share = 2 * forFirst - 1;
  int filled = static_cast<int>(std::lround(std::abs(share) * half));
  std::string left(half, ' '), right(half, ' ');
  for (int i = 0; i < filled; ++i) {
    if (share < 0)
      left[static_cast<std::size_t>(half - 1 - i)] = '=';
    else
      right[static_cast<std::size_t>(i)] = '=';
  }
  return left + "|" + right;
}

}  // namespace

std::string reviewText(const Game& game, const Position& from,
                       const std::vector<ReviewedPly>& plies, std::size_t played,
                       const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  out += fmt::format(": {}\n\n", pliesText(plies.size()));
  if (plies.size() < played)
    out += paint.bad(fmt::format("  stopped early: {} of {} plies were looked at", plies.size(),
                                 played)) +
           "\n";
  std::size_t width = 4;
  Position position = from;
  for (const ReviewedPly& one : plies) {
    width = std::max(width, static_cast<std::size_t>(columnsOf(game.moveText(position, one.move))));
    game.apply(position, one.move);
  }
  std::string sides = fmt::format("{:>10}|{:<10}", clipped(game.info().sides[1], 9) + " ",
                                  " " + clipped(game.info().sides[0], 9));
  out += paint.strong(fmt::format("  {:>3}  {:<{}}  {:<16}  {}", "ply", "move", width,
                                  "for who moved", sides)) +
         "\n";
  position = from;
  std::size_t ply = 0, marked = 0;
  for (const ReviewedPly& one : plies) {
    std::string best = game.moveText(position, one.best);
    std::string says = verdictOf(game, one, best);
    double forFirst = one.side == 0 ? one.chancePlayed : 1 - one.chancePlayed;
    marked += !says.empty();
    out +=
        fmt::format("  {:>3}  {:<{}}  {:<16}  {}  {}\n", ++ply, game.moveText(position, one.move),
                    width, scoreText(one.played), barOf(forFirst), paint.bad(says));
    game.apply(position, one.move);
  }
  Result result = game.result(position);
  if (result.kind != ResultKind::ongoing) out += "\n  " + resultText(game, result) + "\n";
  out += marked == 0 ? "\n  no move was found that gave a result away\n"
                     : fmt::format("\n  {} gave a result or a good part of the chances away\n",
                                   plural(static_cast<long long>(marked), "move"));
  out += paint.wrapped(scaleText(game) + "; bars are chances to win, as random games go", "  ");
  if (std::any_of(plies.begin(), plies.end(),
                  [](const ReviewedPly& one) { return one.lookedAgain; }))
    out += "  what a later ply showed was looked at again, with more positions\n";
  return out;
}

std::string reviewJson(const Game& game, const Position& from,
                       const std::vector<ReviewedPly>& plies, std::size_t played) {
  static const char* const verdicts[] = {"plain", "missed win", "lets the other side win",
                                         "costs chances"};
  Json out;
  out["game"] = game.info().id;
  out["position"] = game.positionText(from);
  out["complete"] = plies.size() == played;
  out["plies_played"] = played;
  out["plies"] = Json::array();
  Position position = from;
  auto scored = [](std::int64_t score) {
    Json one;
    one["score"] = play::decides(score) ? Json(nullptr) : Json(score);
    one["plies_to_win"] =
        play::decides(score) && score > 0 ? Json(play::winScore - score) : Json(nullptr);
    one["plies_to_loss"] =
        play::decides(score) && score < 0 ? Json(play::winScore + score) : Json(nullptr);
    return one;
  };
  for (const ReviewedPly& ply : plies) {
    Json one;
    one["side"] = game.info().sides[ply.side];
    one["move"] = game.moveText(position, ply.move);
    one["played"] = scored(ply.played);
    one["best_move"] = game.moveText(position, ply.best);
    one["best"] = scored(ply.score);
    one["chance_played"] = ply.chancePlayed;
    one["chance_best"] = ply.chance;
    one["looked_again"] = ply.lookedAgain;
    one["verdict"] = verdicts[static_cast<int>(ply.verdict)];
    out["plies"].push_back(one);
    game.apply(position, ply.move);
  }
  return jsonText(out, 1);
}

}  // namespace ninepegs::report
