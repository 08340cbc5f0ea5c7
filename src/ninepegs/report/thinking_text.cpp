#include "ninepegs/report/thinking_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

#include "ninepegs/base/text.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/csv.hpp"
#include "ninepegs/report/json_text.hpp"

namespace ninepegs::report {
namespace {

std::string shortLine(const std::vector<std::string>& texts) {
  constexpr std::size_t shown = 6;
  std::vector<std::string> few(
      texts.begin(), texts.begin() + static_cast<std::ptrdiff_t>(std::min(shown, texts.size())));
  return joined(few, ", ") + (texts.size() > shown ? " ..." : "");
}

// A line for each of the best moves, and how many there are besides.
template <class LineOf>
std::string eachMove(const play::Thinking& thought, LineOf lineOf) {
  constexpr std::size_t most = 12;
  std::string out;
  for (std::size_t i = 0; i < std::min(most, thought.moves.size()); ++i)
    out += lineOf(thought.moves[i]);
  if (thought.moves.size() > most)
    out += fmt::format("  and {} more\n", thought.moves.size() - most);
  return out;
}

std::string meanText(std::int64_t score) {
  return fmt::format("{:+.2f}", static_cast<double>(score) / 1000);
}

// Where each legal move names one cell of one board: how good it is beside the best and the worst,
// in tenths. Empty if moves are of another form, or all are worth the same.
std::string meansOnBoard(const Game& game, const Position& position,
                         const play::Thinking& thought) {
  std::int64_t best = thought.moves.front().score, worst = thought.moves.back().score;
  if (best == worst) return "";
  std::map<std::string, std::string> letters;
  for (const play::Thinking::RootMove& one : thought.moves) {
    std::vector<Cell> cells = game.cellsOf(position, one.move);
    if (one.move.count != 1 || cells.size() != 1) return "";
    std::string cell = game.board().label(cells.front());
    if (!letters.emplace(cell, std::to_string((one.score - worst) * 9 / (best - worst))).second)
      return "";
  }
  Marks marks;
  marks.letters = &letters;
  marks.board = game.boards() == 2 ? 1 - game.toMove(position) : 0;
  return boardText(game, position, marks, Paint{});
}

// Where something is hidden from the side to move.
std::string unseenText(const Game& game, const Position& position, const play::Thinking& thought,
                       const Paint& paint) {
  if (thought.positions == 0)
    return "  no position was found that agrees with what the side knows\n";
  std::string out =
      fmt::format("  {} with what the side knows; {} looked ahead, {} in {:.2f} s\n",
                  thought.positions == 1 ? "1 position agrees"
                                         : grouped(thought.positions) + " positions agree",
                  pliesText(static_cast<unsigned long long>(thought.choice.depth)),
                  grouped(thought.choice.nodes) + " looked at", thought.choice.seconds);
  out += "\n" + paint.strong("Every move, and what it is worth on the mean") + "\n";
  out += eachMove(thought, [&](const play::Thinking::RootMove& one) {
    return fmt::format("  {:<10} {:>8}\n", game.moveText(position, one.move), meanText(one.score));
  });
  std::string board = meansOnBoard(game, position, thought);
  if (!board.empty())
    out += "\n" + paint.strong("Cell by cell, from 0, the worst, to 9, the best") + "\n" + board;
  return out;
}

// Of results that go from -1000 to 1000: the share that the side won, draws being half won.
double shareOf(std::int64_t score) {
  return 0.5 + static_cast<double>(score) / 2000;
}

std::string playoutsText(const Game& game, const Position& position, const play::Thinking& thought,
                         const Paint& paint) {
  std::string out =
      paint.strong(fmt::format("  {:>9}  {:>8} {:>9}  {}", "playouts", "won", "seconds", "line")) +
      "\n";
  for (const play::Choice::Step& step : thought.choice.steps)
    out += fmt::format("  {:>9}  {:>8} {:>9.3f}  {}\n", grouped(step.nodes), shareText(step.score),
                       step.seconds, shortLine(lineTexts(game, position, step.line)));
  if (thought.choice.solved) out += "\n  the result is proved\n";
  out += "\n" + paint.strong("Every move, and the share of its playouts that were won") + "\n";
  return out + eachMove(thought, [&](const play::Thinking::RootMove& one) {
           std::vector<std::string> texts = lineTexts(game, position, one.line);
           std::string share =
               one.nodes == 0 && !play::decides(one.score) ? "" : shareText(one.score);
           return fmt::format("  {:<10} {:>8} {:>9}  {}\n", texts.front(), share,
                              grouped(one.nodes),
                              paint.faint(shortLine({texts.begin() + 1, texts.end()})));
         });
}

using Json = nlohmann::ordered_json;

// A share, and whether it is proved who wins.
void addShare(Json& one, std::int64_t score) {
  bool proved = play::decides(score);
  one["won"] = !proved ? shareOf(score) : score > 0 ? 1.0 : 0.0;
  one["proved"] = proved;
}

void addPlayouts(const Game& game, const Position& position, const play::Thinking& thought,
                 Json& out) {
  out["steps"] = Json::array();
  for (const play::Choice::Step& step : thought.choice.steps) {
    Json one;
    one["playouts"] = step.nodes;
    addShare(one, step.score);
    one["line"] = lineTexts(game, position, step.line);
    out["steps"].push_back(one);
  }
  out["moves"] = Json::array();
  for (const play::Thinking::RootMove& move : thought.moves) {
    Json one;
    one["move"] = game.moveText(position, move.move);
    one["playouts"] = move.nodes;
    addShare(one, move.score);
    one["line"] = lineTexts(game, position, move.line);
    out["moves"].push_back(one);
  }
}

}  // namespace

std::vector<std::string> lineTexts(const Game& game, Position position,
                                   const std::vector<Move>& line, std::size_t most) {
  std::vector<std::string> out;
  for (const Move& move : line) {
    if (out.size() == most) break;
    out.push_back(game.moveText(position, move));
    game.apply(position, move);
  }
  return out;
}

std::string scoreText(std::int64_t score) {
  if (!play::decides(score)) return fmt::format("{:+}", score);
  auto plies = static_cast<unsigned long long>(play::winScore - std::abs(score));
  return (score > 0 ? "wins in " : "loses in ") + pliesText(plies);
}

std::string shareText(std::int64_t score) {
  if (play::decides(score)) return score > 0 ? "wins" : "loses";
  return fmt::format("{:.1f} %", 100 * shareOf(score));
}

std::string scaleText(const Game& game) {
  if (game.measure() != nullptr)
    return fmt::format("scores: what the sheet's `worth` says of {}, less that of the other side",
                       "the side to move");
  return "scores: learned from random games, for the side to move; 1000 decides about half of them";
}

std::string stepText(const play::Choice::Step& step) {
  if (step.byPlayouts)
    return fmt::format("{} playouts, {}", grouped(step.nodes), shareText(step.score));
  return fmt::format("{} ahead, {} positions, {}",
                     pliesText(static_cast<unsigned long long>(step.depth)), grouped(step.nodes),
                     scoreText(step.score));
}

std::string thinkingText(const Game& game, const Position& position, const play::Thinking& thought,
                         const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  out += fmt::format(": {} to move\n\n", game.info().sides[game.toMove(position)]);
  if (thought.stopped)
    out += paint.bad(thought.moves.empty() ? "  stopped early: moves were not looked at one by one"
                                           : "  stopped early: not all was looked at") +
           "\n";
  if (game.secrets() != nullptr) return out + unseenText(game, position, thought, paint);
  if (thought.choice.byPlayouts) return out + playoutsText(game, position, thought, paint);
  static constexpr char row[] = "  {:>5}  {:<16} {:>11} {:>6} {:>8} {:>10}  {:>11} {:>7}  {}";
  out += paint.strong(fmt::format(row, "depth", "score", "positions", "factor", "seconds",
                                  "a second", "minimax", "saved", "line")) +
         "\n";
  std::uint64_t before = 0, earlier = 0;
  double earlierSeconds = 0;
  for (std::size_t i = 0; i < thought.choice.steps.size(); ++i) {
    const play::Choice::Step& step = thought.choice.steps[i];
    std::uint64_t here = step.nodes - earlier;
    std::string factor =
        before == 0
            ? ""
            : fmt::format("{:.1f}", static_cast<double>(here) / static_cast<double>(before));
    std::string plain, saved;
    if (i < thought.plain.size()) {
      plain = grouped(thought.plain[i]);
      double left = static_cast<double>(here) /
                    static_cast<double>(std::max<std::uint64_t>(thought.plain[i], 1));
      saved = left < 1 ? fmt::format("{:.1f} %", 100 * (1 - left)) : "-";
    }
    double seconds = step.seconds - earlierSeconds;
    // Less time than a clock tells well says nothing of a rate.
    std::string rate =
        seconds < 0.001 ? ""
                        : grouped(static_cast<std::uint64_t>(static_cast<double>(here) / seconds));
    out += fmt::format(row, step.depth, scoreText(step.score), grouped(here), factor,
                       fmt::format("{:.3f}", seconds), rate, plain, saved,
                       shortLine(lineTexts(game, position, step.line))) +
           "\n";
    before = here;
    earlier = step.nodes;
    earlierSeconds = step.seconds;
  }
  double seconds = thought.choice.seconds;
  out += fmt::format("\n  {} in {:.2f} s", grouped(thought.choice.nodes) + " positions", seconds);
  if (seconds > 0)
    out += fmt::format(
        ", {} a second",
        grouped(static_cast<std::uint64_t>(static_cast<double>(thought.choice.nodes) / seconds)));
  out += thought.choice.whole ? "; every line was followed to its end\n"
         : play::decides(thought.choice.score)
             ? "; that is certain, so no further depth was looked at\n"
             : "\n";
  out += "  " + scaleText(game) + "\n";
  if (thought.choice.better)
    out += fmt::format("  of this level it played {} all the same, drawn from all moves\n",
                       game.moveText(position, thought.choice.move));
  if (thought.plain.size() < thought.choice.steps.size())
    out += "  minimax would look at too many positions where its column is empty\n";
  if (thought.moves.empty()) return out;
  out += "\n" + paint.strong("Every move") +
         (thought.movesDepth == 0
              ? std::string("\n")
              : fmt::format(": the best as the search has it, each other by itself, {} behind it\n",
                            pliesText(static_cast<unsigned long long>(thought.movesDepth))));
  out += eachMove(thought, [&](const play::Thinking::RootMove& one) {
    std::vector<std::string> texts = lineTexts(game, position, one.line);
    return fmt::format("  {:<10} {:<16} {}\n", texts.front(), scoreText(one.score),
                       paint.faint(shortLine({texts.begin() + 1, texts.end()})));
  });
  return out;
}

std::string thinkingJson(const Game& game, const Position& position,
                         const play::Thinking& thought) {
  Json out;
  out["game"] = game.info().id;
  out["complete"] = !thought.stopped;
  out["position"] = game.positionText(position);
  if (game.secrets() != nullptr) {
    // The position itself would tell what the side cannot know.
    out.erase("position");
    out["positions"] = thought.positions;
    out["plies"] = thought.choice.depth;
    out["moves"] = Json::array();
    for (const play::Thinking::RootMove& move : thought.moves)
      out["moves"].push_back({{"move", game.moveText(position, move.move)},
                              {"score", static_cast<double>(move.score) / 1000}});
    return jsonText(out, 1);
  }
  out["solved"] = thought.choice.solved;
  out["scores"] = scaleText(game);
  if (thought.choice.byPlayouts) {
    addPlayouts(game, position, thought, out);
    return jsonText(out, 1);
  }
  auto scored = [](Json& one, std::int64_t score) {
    one["score"] = play::decides(score) ? Json(nullptr) : Json(score);
    one["plies_to_win"] =
        play::decides(score) && score > 0 ? Json(play::winScore - score) : Json(nullptr);
    one["plies_to_loss"] =
        play::decides(score) && score < 0 ? Json(play::winScore + score) : Json(nullptr);
  };
  out["depths"] = Json::array();
  std::uint64_t earlier = 0;
  for (std::size_t i = 0; i < thought.choice.steps.size(); ++i) {
    const play::Choice::Step& step = thought.choice.steps[i];
    Json one;
    one["depth"] = step.depth;
    scored(one, step.score);
    one["nodes"] = step.nodes - earlier;
    one["minimax_nodes"] = i < thought.plain.size() ? Json(thought.plain[i]) : Json(nullptr);
    one["line"] = lineTexts(game, position, step.line);
    out["depths"].push_back(one);
    earlier = step.nodes;
  }
  out["moves"] = Json::array();
  for (const play::Thinking::RootMove& move : thought.moves) {
    Json one;
    one["move"] = game.moveText(position, move.move);
    scored(one, move.score);
    one["line"] = lineTexts(game, position, move.line);
    out["moves"].push_back(one);
  }
  return jsonText(out, 1);
}

std::string thinkingCsv(const Game& game, const Position& position, const play::Thinking& thought) {
  bool playouts = thought.choice.byPlayouts;
  std::string out =
      playouts ? "playouts,move,won,seconds\n" : "depth,move,score,nodes,seconds,minimax_nodes\n";
  std::uint64_t earlier = 0;
  for (std::size_t i = 0; i < thought.choice.steps.size(); ++i) {
    const play::Choice::Step& step = thought.choice.steps[i];
    std::string move =
        csvField(step.line.empty() ? "" : game.moveText(position, step.line.front()));
    if (playouts) {
      double share = play::decides(step.score) ? (step.score > 0 ? 1 : 0) : shareOf(step.score);
      out += fmt::format("{},{},{:.4f},{:.6f}\n", step.nodes, move, share, step.seconds);
      continue;
    }
    out +=
        fmt::format("{},{},{},{},{:.6f},{}\n", step.depth, move, step.score, step.nodes - earlier,
                    step.seconds, i < thought.plain.size() ? std::to_string(thought.plain[i]) : "");
    earlier = step.nodes;
  }
  return out;
}

}  // namespace ninepegs::report
