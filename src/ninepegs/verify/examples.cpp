#include "ninepegs/verify/examples.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/verify/count.hpp"

namespace ninepegs::verify {
namespace {

class Runner {
 public:
  Runner(const Game& game, const Example& example, int threads, const StopFlag* stop)
      : game_(game),
        example_(example),
        threads_(threads),
        stop_(stop),
        position_(example.position) {}

  ExampleRun run();

 private:
  using Kind = ExampleStep::Kind;
  // Empty if the step holds, else what is wrong.
  std::string step(const ExampleStep& step);
  std::string play(const std::vector<std::string>& moves);
  std::string end(const ExampleStep& step) const;
  std::string legal(const ExampleStep& step) const;
  std::string moves(const ExampleStep& step) const;
  std::string sequences(const ExampleStep& step) const;
  std::string leaves(const ExampleStep& step) const;
  std::string told(const ExampleStep& step) const;
  std::string seenBy(const ExampleStep& step) const;
  std::string edges(const ExampleStep& step) const;

  const Game& game_;
  const Example& example_;
  int threads_;
  const StopFlag* stop_;
  Position position_;
  std::vector<std::string> played_;
  std::vector<MoveTexts> texts_;
};

std::string Runner::play(const std::vector<std::string>& moves) {
  for (const std::string& typed : moves) {
    std::vector<Move> found = matchingMoves(game_, position_, typed);
    if (found.size() != 1)
      return found.empty() ? fmt::format("\"{}\" cannot be played: {}", typed,
                                         whyNot(game_, position_, typed))
                           : fmt::format("\"{}\" can be read as several moves", typed);
    texts_.push_back(game_.textsOf(position_, found.front()));
    played_.push_back(texts_.back().text);
    game_.apply(position_, found.front());
  }
  return "";
}

std::string Runner::end(const ExampleStep& step) const {
  Result result = game_.result(position_);
  bool kind = step.side < 0 ? result.kind == ResultKind::draw
                            : result.kind == ResultKind::win && result.winner == step.side;
  if (kind && (step.name.empty() || step.name == result.name)) return "";
  std::string wanted = step.side < 0 ? "a draw" : game_.info().sides[step.side] + " wins";
  if (!step.name.empty()) wanted += fmt::format(" \"{}\"", step.name);
  return fmt::format("expected: {}; but {}", wanted, resultText(game_, result));
}

std::string Runner::legal(const ExampleStep& step) const {
  bool wanted = step.kind == Kind::legal;
  for (const std::string& typed : step.moves) {
    bool there = !matchingMoves(game_, position_, typed).empty();
    if (there == wanted) continue;
    return wanted ? fmt::format("\"{}\" should be legal, but: {}", typed,
                                whyNot(game_, position_, typed))
                  : fmt::format("\"{}\" should not be legal, but it is", typed);
  }
  return "";
}

std::string Runner::moves(const ExampleStep& step) const {
  MoveList list;
  game_.listMoves(position_, list);
  std::vector<std::string> got, wanted = step.moves;
  Cell cell = step.cell.empty() ? -1 : game_.board().find(step.cell).value_or(-1);
  for (const Move& move : list) {
    std::vector<Cell> cells = game_.cellsOf(position_, move);
    if (cell >= 0 && (cells.empty() || (step.to ? cells.back() : cells.front()) != cell)) continue;
    got.push_back(game_.moveText(position_, move));
  }
  std::sort(got.begin(), got.end(), naturalLess);
  std::sort(wanted.begin(), wanted.end(), naturalLess);
  if (got == wanted) return "";
  auto shown = [](const std::vector<std::string>& texts) {
    return texts.empty() ? std::string("none") : joined(texts, ", ");
  };
  return fmt::format("expected the moves {}; but there are {}", shown(wanted), shown(got));
}

std::string Runner::sequences(const ExampleStep& step) const {
  for (std::size_t i = 0; i < step.numbers.size(); ++i) {
    CountOptions options;
    options.depth = step.firstDepth + static_cast<int>(i);
    options.threads = threads_;
    options.stop = stop_;
    std::uint64_t got = count(game_, position_, options).sequences;
    if (wantsStop(stop_)) return "";
    if (got != step.numbers[i])
      return fmt::format("expected {} sequences of depth {}, but there are {}", step.numbers[i],
                         options.depth, got);
  }
  return "";
}

std::string Runner::leaves(const ExampleStep& step) const {
  std::vector<std::string> different;
  for (int board = 0; board < game_.boards(); ++board) {
    for (Cell cell = 0; cell < game_.board().size(); ++cell) {
      if (!game_.board().has(cell)) continue;
      std::optional<Piece> got = game_.pieceAt(position_, cell, board);
      std::optional<Piece> wanted = game_.pieceAt(step.position, cell, board);
      if (got.has_value() != wanted.has_value() ||
          (got && (got->kind != wanted->kind || got->side != wanted->side)))
        different.push_back(game_.board().label(cell));
    }
  }
  std::string got = game_.positionText(position_);
  if (different.empty() && step.whole && got != game_.positionText(step.position))
    return fmt::format("expected the position {}; but it is {}", game_.positionText(step.position),
                       got);
  if (different.empty()) return "";
  return fmt::format("the picture differs on {}; the position is {}", joined(different, ", "), got);
}

std::string Runner::told(const ExampleStep& step) const {
  std::vector<std::string> got = texts_.empty() ? std::vector<std::string>{} : texts_.back().told;
  bool nothing = step.name.empty();
  if (nothing ? got.empty() : std::find(got.begin(), got.end(), step.name) != got.end()) return "";
  std::string wanted = nothing ? "nothing" : fmt::format("\"{}\"", step.name);
  return fmt::format("expected to be told {}, but told was {}", wanted,
                     got.empty() ? "nothing" : fmt::format("\"{}\"", joined(got, "\", \"")));
}

// The side sees the other's moves as the other lets it.
std::string Runner::seenBy(const ExampleStep& step) const {
  std::size_t ply = step.numbers.empty() ? texts_.size() : step.numbers.front();
  if (ply < 1 || ply > texts_.size())
    return fmt::format("there is no ply {}, only {} were played", ply, texts_.size());
  const std::string& got = texts_[ply - 1].seen;
  if (got == step.name) return "";
  return fmt::format("{} should see \"{}\" at ply {}, but sees \"{}\"",
                     game_.info().sides[step.side], step.name, ply, got);
}

// The numbers on a piece's sides.
std::string Runner::edges(const ExampleStep& step) const {
  std::string got, wanted = fmt::format("{}", fmt::join(step.numbers, " "));
  for (const GameInfo::Kind& kind : game_.info().kinds)
    if (kind.name == step.name) got = fmt::format("{}", fmt::join(kind.edges, " "));
  if (got == wanted) return "";
  return fmt::format("the sides of {} should say {}, but they say {}", step.name, wanted, got);
}

std::string Runner::step(const ExampleStep& step) {
  switch (step.kind) {
    case Kind::play:
      return play(step.moves);
    case Kind::ongoing: {
      Result result = game_.result(position_);
      if (result.kind == ResultKind::ongoing) return "";
      return fmt::format("the game should go on here, but {}", resultText(game_, result));
    }
    case Kind::end:
      return end(step);
    case Kind::legal:
    case Kind::notLegal:
      return legal(step);
    case Kind::moves:
      return moves(step);
    case Kind::moveCount: {
      std::uint64_t got = game_.countMoves(position_);
      return got == step.numbers.front()
                 ? ""
                 : fmt::format("expected {}, but there are {}",
                               plural(static_cast<long long>(step.numbers.front()), "move"), got);
    }
    case Kind::sequences:
      return sequences(step);
    case Kind::turn: {
      int got = game_.toMove(position_);
      return got == step.side ? ""
                              : fmt::format("{} should be to move, but {} is",
                                            game_.info().sides[step.side], game_.info().sides[got]);
    }
    case Kind::leaves:
      return leaves(step);
    case Kind::told:
      return told(step);
    case Kind::seenBy:
      return seenBy(step);
    case Kind::sees: {
      std::string got = viewText(game_, game_.viewFor(position_, step.side));
      return got == step.name ? ""
                              : fmt::format("{} should see \"{}\", but sees \"{}\"",
                                            game_.info().sides[step.side], step.name, got);
    }
    case Kind::edges:
      return edges(step);
    case Kind::condition:
      if (game_.checks()->conditionHolds(step.condition, position_)) return "";
      return fmt::format("`{}` does not hold{}", step.text,
                         game_.checks()->conditionValues(step.condition, position_));
  }
  return "";
}

ExampleRun Runner::run() {
  ExampleRun run;
  run.name = example_.name;
  run.line = example_.line;
  run.variant = example_.variant;
  if (example_.startsElsewhere) run.broken = brokenInvariants(game_, example_.position);
  for (const ExampleStep& one : example_.steps) {
    ++run.steps;
    std::string wrong;
    try {
      wrong = step(one);
    } catch (const RunawayRules& error) {
      wrong = error.diagnostics().front().message;
    }
    if (wrong.empty()) continue;
    Finding finding;
    finding.kind = FindingKind::example;
    finding.line = one.line;
    finding.example = example_.name;
    finding.variant = example_.variant;
    finding.message = fmt::format("case \"{}\": {}", example_.name, wrong);
    if (example_.startsElsewhere) finding.from = game_.positionText(example_.position);
    finding.moves = played_;
    finding.position = game_.positionText(position_);
    finding.last = position_;
    run.findings.push_back(std::move(finding));
    break;
  }
  return run;
}

}  // namespace

namespace {

// The game, and its variants if it is none itself, until `look` returns false.
template <class Look>
void eachGameOfCases(const Game& game, Look look) {
  if (game.checks() != nullptr && !look(game)) return;
  if (!game.info().variant.empty()) return;
  for (const auto& [name, says] : game.info().variants) {
    std::shared_ptr<const Game> variant = game.variant(name);
    if (variant->checks() != nullptr && !look(*variant)) return;
  }
}

// The examples of one game, those that count games last: they take longest.
std::vector<Example> lightFirst(const Game& game) {
  std::vector<Example> out = game.checks()->examples();
  std::stable_partition(out.begin(), out.end(), [](const Example& one) {
    return std::none_of(one.steps.begin(), one.steps.end(), [](const ExampleStep& step) {
      return step.kind == ExampleStep::Kind::sequences;
    });
  });
  return out;
}

// The runs of all cases, until `take` returns false.
template <class Take>
void eachRun(const Game& game, int threads, const StopFlag* stop, Take take) {
  StopScope scope(stop);
  eachGameOfCases(game, [&](const Game& played) {
    for (const Example& example : lightFirst(played)) {
      if (wantsStop(stop)) return false;
      try {
        ExampleRun one = Runner(played, example, threads, stop).run();
        if (!wantsStop(stop) && !take(std::move(one))) return false;
      } catch (const Stopped&) {
        return false;
      }
    }
    return true;
  });
}

}  // namespace

std::optional<ExampleRun> firstFailure(const Game& game, const StopFlag* stop) {
  std::optional<ExampleRun> failed;
  eachRun(game, 1, stop, [&](ExampleRun&& one) {
    if (!one.findings.empty()) failed = std::move(one);
    return !failed;
  });
  return failed;
}

std::vector<ExampleRun> runExamples(const Game& game, int threads, const StopFlag* stop) {
  std::vector<ExampleRun> runs;
  eachRun(game, threads, stop, [&](ExampleRun&& one) {
    runs.push_back(std::move(one));
    return true;
  });
  std::stable_sort(runs.begin(), runs.end(),
                   [](const ExampleRun& a, const ExampleRun& b) { return a.line < b.line; });
  return runs;
}

std::size_t exampleCount(const Game& game) {
  std::size_t all = 0;
  eachGameOfCases(game, [&](const Game& played) {
    all += played.checks()->examples().size();
    return true;
  });
  return all;
}

}  // namespace ninepegs::verify
