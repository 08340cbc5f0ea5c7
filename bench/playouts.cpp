// Random playouts and counting: sheets against hand-written programs; checks of a sheet against
// bare playouts of it; the search. One thread, in one run. Ends with the ratios. Both sides play
// the same games; that they do is tested by their shares of results here: a run whose shares differ
// by more than chance allows is refused.
//
//   ./run bench
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <map>
#include <string>
#include <vector>

#include "by_hand.hpp"
#include "ninepegs/base/processor.hpp"
#include "ninepegs/game/library.hpp"
#include "ninepegs/play/opponent.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/count.hpp"
#include "ninepegs/verify/mutants.hpp"

namespace {

using namespace ninepegs;

using Clock = std::chrono::steady_clock;

struct Tally {
  double games = 0, firstWins = 0, seconds = 0;
  double speed() const { return games / seconds; }
};

// What came of one pair of programs: speeds in items a second and how many times faster the
// hand-written one is, the median over all pairs of slices.
struct Outcome {
  double byHand = 0, sheet = 0, ratio = 0;
};
std::map<std::string, Outcome>& outcomes() {
  static std::map<std::string, Outcome> all;
  return all;
}
bool failed = false;

// Machines change their speed from one second to the next, so the two programs take turns, some
// milliseconds each, and a ratio is always of neighbours. `byHand` and `sheet` run one slice into
// a tally.
template <class ByHand, class Sheet>
void inTurns(benchmark::State& state, const std::string& name, ByHand byHand, Sheet sheet) {
  Tally hand, own;
  std::vector<double> ratios;
  auto timed = [](auto& run, Tally& into) {
    Tally slice;
    auto from = Clock::now();
    run(slice);
    slice.seconds = std::chrono::duration<double>(Clock::now() - from).count();
    into.games += slice.games;
    into.firstWins += slice.firstWins;
    into.seconds += slice.seconds;
    return slice.speed();
  };
  for (auto _ : state) {
    double before = timed(byHand, hand);
    ratios.push_back(before / timed(sheet, own));
  }
  std::nth_element(ratios.begin(), ratios.begin() + ratios.size() / 2, ratios.end());
  double ratio = ratios[ratios.size() / 2];
  state.counters["by_hand/s"] = hand.speed();
  state.counters["sheet/s"] = own.speed();
  state.counters["ratio"] = ratio;
  outcomes()[name] = {hand.speed(), own.speed(), ratio};
  double p = hand.firstWins / hand.games, q = own.firstWins / own.games;
  double sigma = std::sqrt(p * (1 - p) * (1 / hand.games + 1 / own.games));
  if (std::abs(p - q) > 6 * sigma) {
    std::printf("%s: not the same game: the first side wins %.4f and %.4f\n", name.c_str(), p, q);
    failed = true;
  }
}

std::shared_ptr<const Game> opened(const std::string& name) {
  return Library({NINEPEGS_SOURCE_SHEETS}).open(name);
}

// One bare playout from a sheet; did the first side win?
bool firstWins(LivePosition& live, const Position& start, std::uint64_t number) {
  Stream stream(1, number);
  live.setUp(start);
  for (int ply = 0; ply < 1000 && !live.ended() && live.playDrawn(stream); ++ply) {
  }
  return live.outcome().winner == 0;
}

// Random playouts; a slice of each program lasts some milliseconds.
void playouts(benchmark::State& state, const std::string& name, int byHandGames, int sheetGames) {
  std::shared_ptr<const Game> game = opened(name);
  yardstick::FirstWins byHand = yardstick::byHand(name);
  Position start = game->start();
  std::unique_ptr<LivePosition> live = game->live();
  std::uint64_t number = 0, random = 1;
  inTurns(
      state, name,
      [&](Tally& slice) {
        slice.firstWins = byHand(random, byHandGames);
        slice.games = byHandGames;
      },
      [&](Tally& slice) {
        for (int i = 0; i < sheetGames; ++i)
          slice.firstWins += firstWins(*live, start, number++) ? 1 : 0;
        slice.games = sheetGames;
      });
}

// A check with everything on but cases, against bare playouts of the same sheet.
void checks(benchmark::State& state, const std::string& name, int games) {
  std::shared_ptr<const Game> game = opened(name);
  Position start = game->start();
  std::unique_ptr<LivePosition> live = game->live();
  std::uint64_t number = 0, seed = 1;
  inTurns(
      state, "check of " + name,
      [&](Tally& slice) {
        for (int i = 0; i < games; ++i)
          slice.firstWins += firstWins(*live, start, number++) ? 1 : 0;
        slice.games = games;
      },
      [&](Tally& slice) {
        verify::CheckOptions options;
        options.playouts = static_cast<std::uint64_t>(games);
        options.seed = seed++;
        options.examples = false;
        for (const auto& [outcome, times] : verify::check(*game, options).evidence.outcomes)
          if (std::get<1>(outcome) == 0) slice.firstWins += static_cast<double>(times);
        slice.games = games;
      });
}

// Positions a second that the search looks at from the start.
void searches(benchmark::State& state, const std::string& name) {
  std::shared_ptr<const Game> game = opened(name);
  std::uint64_t number = 0;
  double nodes = 0;
  for (auto _ : state) {
    Stream stream(1, number++);
    play::Choice choice = play::makeSearch({.nodes = 50'000})->choose(*game, game->start(), stream);
    nodes += static_cast<double>(choice.nodes);
  }
  state.SetItemsProcessed(static_cast<std::int64_t>(nodes));
}

// Mutants a second that are made and asked in all scenes.
void mutants(benchmark::State& state, const std::string& name) {
  std::shared_ptr<const Game> game = opened(name);
  std::int64_t done = 0;
  for (auto _ : state) {
    verify::Mutants all(dynamic_cast<const SheetGame&>(*game), {.seed = 1});
    all.run();
    done += static_cast<std::int64_t>(all.all().size());
  }
  state.SetItemsProcessed(done);
}

// Move sequences of chess, the last ply counted in bulk. A wrong count fails the run.
constexpr std::uint64_t chessFour = 197281, chessFive = 4865609, chessSix = 119060324;

void require(std::uint64_t got, std::uint64_t wanted) {
  if (got == wanted) return;
  std::printf("counted %llu sequences of chess, not %llu\n", static_cast<unsigned long long>(got),
              static_cast<unsigned long long>(wanted));
  failed = true;
}

std::uint64_t counted(const Game& game, int depth) {
  verify::CountOptions options;
  options.depth = depth;
  return verify::count(game, game.start(), options).sequences;
}

void countChess(benchmark::State& state) {
  std::shared_ptr<const Game> game = opened("chess");
  inTurns(
      state, "count of chess",
      [&](Tally& slice) {
        require(yardstick::chessSequences(5), chessFive);
        slice.games = chessFive;
      },
      [&](Tally& slice) {
        require(counted(*game, 4), chessFour);
        slice.games = chessFour;
      });
}

void countDeep(benchmark::State& state) {
  std::shared_ptr<const Game> game = opened("chess");
  for (auto _ : state) require(counted(*game, 6), chessSix);
  state.SetItemsProcessed(static_cast<std::int64_t>(chessSix) * state.iterations());
}

}  // namespace

int main(int argc, char** argv) {
  using namespace yardstick;
  if (NINEPEGS_X86 &&
      !(ninepegs::processorAtHand().counts && ninepegs::processorAtHand().gathers)) {
    std::fputs("the programs written by hand need a processor with POPCNT and fast BMI2\n", stderr);
    return 2;
  }
  auto add = [](const char* name, auto run) {
    benchmark::RegisterBenchmark(name, run)->MinTime(4);
  };
  struct Slices {
    const char* name;
    int byHandGames, sheetGames;
  };
  for (Slices one : std::initializer_list<Slices>{{"tic-tac-toe", 50000, 8000},
                                                  {"connect-four", 20000, 3000},
                                                  {"othello", 1500, 400},
                                                  {"chess", 100, 10},
                                                  {"hex", 1000, 40},
                                                  {"five-in-a-row", 1500, 150},
                                                  {"battleship", 1500, 40}})
    add(one.name, [one](benchmark::State& state) {
      playouts(state, one.name, one.byHandGames, one.sheetGames);
    });
  add("count of chess", countChess);
  // As many playouts as `check` makes if nothing is said, where they take no more than a second or
  // two: what it does once, however many there are, counts as it does there.
  for (auto [name, games] :
       std::initializer_list<std::pair<const char*, int>>{{"tic-tac-toe", 10000},
                                                          {"connect-four", 10000},
                                                          {"othello", 2000},
                                                          {"chess", 200},
                                                          {"draughts", 400},
                                                          {"morris", 400},
                                                          {"hex", 400},
                                                          {"five-in-a-row", 400},
                                                          {"battleship", 10000}})
    benchmark::RegisterBenchmark((std::string("check of ") + name).c_str(), checks,
                                 std::string(name), games)
        ->MinTime(2);
  for (const char* name : {"tic-tac-toe", "connect-four", "othello", "chess"})
    benchmark::RegisterBenchmark((std::string("search of ") + name).c_str(), searches,
                                 std::string(name))
        ->MinTime(1);
  for (const char* name : {"tic-tac-toe", "connect-four", "othello", "draughts"})
    benchmark::RegisterBenchmark((std::string("mutants of ") + name).c_str(), mutants,
                                 std::string(name))
        ->MinTime(1);
  benchmark::RegisterBenchmark("count of chess to depth 6", countDeep)->Iterations(1);
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  benchmark::RunSpecifiedBenchmarks();
  std::printf("\n%-24s %16s %16s %10s\n", "", "hand-written/s", "sheet/s", "ratio");
  for (const auto& [name, outcome] : outcomes())
    std::printf("%-24s %16.0f %16.0f   1/%.1f\n", name.c_str(), outcome.byHand, outcome.sheet,
                outcome.ratio);
  return failed ? 1 : 0;
}
