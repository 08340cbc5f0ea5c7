#include "ninepegs/report/thinking_text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/csv.hpp"

namespace ninepegs::report {
namespace {

// As many moves as fit into so many columns, six at most; the first stands in any case.
std::string lineWithin(const std::vector<std::string>& texts, int columns) {
  constexpr std::size_t most = 6;
  std::string out;
  for (std::size_t i = 0; i < texts.size(); ++i) {
    std::string longer = i == 0 ? texts[i] : out + ", " + texts[i];
    bool last = i + 1 == texts.size();
    if (i == most || (i > 0 && columnsOf(longer) + (last ? 0 : 4) > columns)) return out + " ...";
    out = longer;
  }
  return out;
}

// Columns as wide as what stands in them, and a line of moves in what is left of the width.
class Rows {
 public:
  explicit Rows(const Paint& paint, std::vector<std::string> heads = {}, std::size_t texts = 0)
      : paint_(paint), heads_(std::move(heads)), texts_(texts) {
    note(heads_);
  }
  void add(std::vector<std::string> cells, std::vector<std::string> line) {
    note(cells);
    rows_.push_back({std::move(cells), std::move(line)});
  }
  std::string text() const {
    std::string out;
    if (!heads_.empty()) out += paint_.strong(cellsText(heads_) + "  line") + "\n";
    for (const auto& [cells, line] : rows_) {
      std::string row = cellsText(cells);
      std::string moves = lineWithin(line, paint_.width() - columnsOf(row) - 2);
      if (moves.empty()) row.erase(row.find_last_not_of(' ') + 1);
      if (!moves.empty()) row += "  " + (heads_.empty() ? paint_.faint(moves) : moves);
      out += row + "\n";
    }
    return out;
  }

 private:
  void note(const std::vector<std::string>& cells) {
    widths_.resize(std::max(widths_.size(), cells.size()));
    for (std::size_t i = 0; i < cells.size(); ++i)
      widths_[i] = std::max(widths_[i], columnsOf(cells[i]));
  }
  // The first columns hold texts and stand left, numbers stand right.
  std::string cellsText(const std::vector<std::string>& cells) const {
    std::string out;
    for (std::size_t i = 0; i < cells.size(); ++i) {
      std::string room(static_cast<std::size_t>(widths_[i] - columnsOf(cells[i])), ' ');
      out += "  " + (i < texts_ ? cells[i] + room : room + cells[i]);
    }
    return out;
  }
  const Paint& paint_;
  std::vector<std::string> heads_;
  std::size_t texts_;
  std::vector<std::pair<std::vector<std::string>, std::vector<std::string>>> rows_;
  std::vector<int> widths_;
};

// The best moves in rows, and how many there are besides.
template <class RowOf>
std::string eachMove(const play::Thinking& thought, Rows rows, RowOf rowOf) {
  constexpr std::size_t most = 12;
  for (std::size_t i = 0; i < std::min(most, thought.moves.size()); ++i)
    rowOf(rows, thought.moves[i]);
  std::string out = rows.text();
  if (thought.moves.size() > most)
    out += fmt::format("  and {} more\n", thought.moves.size() - most);
  return out;
}

std::vector<std::string> rest(const std::vector<std::string>& texts) {
  return {texts.begin() + 1, texts.end()};
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
  std::string out = paint.wrapped(
      fmt::format("{} with what the side knows; {} looked ahead, {} in {:.2f} s",
                  thought.positions == 1 ? "1 position agrees"
                                         : grouped(thought.positions) + " positions agree",
                  pliesText(static_cast<unsigned long long>(thought.choice.depth)),
                  grouped(thought.choice.nodes) + " looked at", thought.choice.seconds),
      "  ");
  out += "\n" + paint.strong("Every move, and what it is worth on the mean") + "\n";
  out +=
      eachMove(thought, Rows(paint, {}, 1), [&](Rows& rows, const play::Thinking::RootMove& one) {
        rows.add({game.moveText(position, one.move), meanText(one.score)}, {});
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
  Rows steps(paint, {"playouts", "won", "seconds"});
  for (const play::Choice::Step& step : thought.choice.steps)
    steps.add({grouped(step.nodes), shareText(step.score), fmt::format("{:.3f}", step.seconds)},
              lineTexts(game, position, step.line));
  std::string out = steps.text();
  if (thought.choice.solved) out += "\n  the result is proved\n";
  out += "\n" + paint.strong("Every move, and the share of its playouts that were won") + "\n";
  return out + eachMove(thought, Rows(paint, {}, 1),
                        [&](Rows& rows, const play::Thinking::RootMove& one) {
                          std::vector<std::string> texts = lineTexts(game, position, one.line);
                          std::string share = one.nodes == 0 && !play::decides(one.score)
                                                  ? ""
                                                  : shareText(one.score);
                          rows.add({texts.front(), share, grouped(one.nodes)}, rest(texts));
                        });
}

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
  Rows rows(paint, {"depth", "score", "positions", "factor", "seconds", "minimax", "saved"});
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
    rows.add({std::to_string(step.depth), scoreText(step.score), grouped(here), factor,
              fmt::format("{:.3f}", seconds), plain, saved},
             lineTexts(game, position, step.line));
    before = here;
    earlier = step.nodes;
    earlierSeconds = step.seconds;
  }
  out += rows.text() + "\n";
  auto say = [&](const std::string& text) { out += paint.wrapped(text, "  "); };
  double seconds = thought.choice.seconds;
  std::string looked =
      fmt::format("{} positions in {:.2f} s", grouped(thought.choice.nodes), seconds);
  // Less time than a clock tells well says nothing of a rate.
  if (seconds >= 0.001)
    looked += fmt::format(
        ", {} a second",
        grouped(static_cast<std::uint64_t>(static_cast<double>(thought.choice.nodes) / seconds)));
  say(looked + (thought.choice.whole ? "; every line was followed to its end"
                : play::decides(thought.choice.score)
                    ? "; that is certain, so no further depth was looked at"
                    : ""));
  say(scaleText(game));
  if (thought.choice.better)
    say(fmt::format("of this level it played {} all the same, drawn from all moves",
                    game.moveText(position, thought.choice.move)));
  if (thought.plain.size() < thought.choice.steps.size())
    say("minimax would look at too many positions where its column is empty");
  if (thought.moves.empty()) return out;
  out += "\n" + paint.strong("Every move") + "\n";
  if (thought.movesDepth > 0)
    say(fmt::format("the best as the search has it, each other by itself, {} behind it",
                    pliesText(static_cast<unsigned long long>(thought.movesDepth))));
  return out + eachMove(thought, Rows(paint, {}, 2),
                        [&](Rows& moves, const play::Thinking::RootMove& one) {
                          std::vector<std::string> texts = lineTexts(game, position, one.line);
                          moves.add({texts.front(), scoreText(one.score)}, rest(texts));
                        });
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
