// Random playouts: sheets against hand-written programs, one thread, in one run. Ends with the
// ratios. Both sides play the same games; that they do is tested by their shares of results here:
// a run whose shares differ by more than chance allows is refused.
//
//   ./run bench
#include <benchmark/benchmark.h>

#include <cmath>
#include <cstdio>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "ninepegs/game/library.hpp"
#include "ninepegs/verify/count.hpp"
#include "yardstick_chess.hpp"
#include "yardstick_othello.hpp"
#include "yardsticks.hpp"

namespace {

using namespace ninepegs;

struct Tally {
  double games = 0, firstWins = 0, plies = 0;
};
std::map<std::string, Tally>& tallies() {
  static std::map<std::string, Tally> all;
  return all;
}

template <class Yardstick>
void handWritten(benchmark::State& state, const std::string& name) {
  yardstick::Random random{1};
  Tally tally;
  for (auto _ : state) {
    int plies = 0;
    int winner = Yardstick::playOut(random, plies);
    benchmark::DoNotOptimize(winner);
    tally.games += 1;
    tally.firstWins += winner == 1 ? 1 : 0;
    tally.plies += plies;
  }
  state.SetItemsProcessed(static_cast<std::int64_t>(tally.games));
  tallies()["hand-written/" + name] = tally;
}

void sheet(benchmark::State& state, const std::string& name) {
  std::shared_ptr<const Game> game = Library({NINEPEGS_SOURCE_SHEETS}).open(name);
  Position start = game->start(), position = start;
  Tally tally;
  std::uint64_t number = 0;
  for (auto _ : state) {
    Stream stream(1, number++);
    position = start;
    PlayoutEnd end = game->playOut(position, stream, 1000);
    tally.games += 1;
    tally.firstWins += end.result.winner == 0 ? 1 : 0;
    tally.plies += end.plies;
  }
  state.SetItemsProcessed(static_cast<std::int64_t>(tally.games));
  tallies()["sheet/" + name] = tally;
}

// Move sequences of chess, the last ply counted in bulk; items are sequences. A wrong count ends
// the run.
constexpr std::uint64_t chessFive = 4865609, chessSix = 119060324;

void requireCount(benchmark::State& state, std::uint64_t got, std::uint64_t wanted) {
  if (got != wanted) state.SkipWithError(("counted " + std::to_string(got)).c_str());
}

void countByHand(benchmark::State& state) {
  for (auto _ : state) requireCount(state, yardstick::Chess{}.sequences<0>(5), chessFive);
  state.SetItemsProcessed(static_cast<std::int64_t>(chessFive) * state.iterations());
}

void countSheet(benchmark::State& state, int depth, std::uint64_t wanted) {
  std::shared_ptr<const Game> game = Library({NINEPEGS_SOURCE_SHEETS}).open("chess");
  verify::CountOptions options;
  options.depth = depth;
  for (auto _ : state)
    requireCount(state, verify::count(*game, game->start(), options).sequences, wanted);
  state.SetItemsProcessed(static_cast<std::int64_t>(wanted) * state.iterations());
}

// Keeps the speed of every run for the ratios at the end.
class Ratios : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) {
      failed = failed || run.error_occurred;
      auto it = run.counters.find("items_per_second");
      if (run.run_type == Run::RT_Iteration && it != run.counters.end())
        speeds[run.run_name.function_name] = it->second;
    }
    ConsoleReporter::ReportRuns(runs);
  }
  std::map<std::string, double> speeds;
  bool failed = false;
};

}  // namespace

int main(int argc, char** argv) {
  using namespace yardstick;
  const std::vector<std::pair<std::string, void (*)(benchmark::State&, const std::string&)>> games =
      {{"tic-tac-toe", handWritten<TicTacToe>},
       {"connect-four", handWritten<ConnectFour>},
       {"othello", handWritten<Othello>},
       {"chess", handWritten<Chess>}};
  for (const auto& [name, byHand] : games) {
    benchmark::RegisterBenchmark(("hand-written/" + name).c_str(), [name = name, byHand = byHand](
                                                                       benchmark::State& state) {
      byHand(state, name);
    })->MinTime(2);
    benchmark::RegisterBenchmark(("sheet/" + name).c_str(), [name = name](benchmark::State& state) {
      sheet(state, name);
    })->MinTime(2);
  }
  benchmark::RegisterBenchmark("hand-written/count of chess", countByHand)->MinTime(2);
  benchmark::RegisterBenchmark("sheet/count of chess", [](benchmark::State& state) {
    countSheet(state, 5, chessFive);
  })->MinTime(2);
  benchmark::RegisterBenchmark("sheet/count of chess to depth 6", [](benchmark::State& state) {
    countSheet(state, 6, chessSix);
  })->Iterations(1);
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  Ratios reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
  std::printf("\n%-16s %16s %16s %10s\n", "", "hand-written/s", "sheet/s", "ratio");
  int exitCode = reporter.failed ? 1 : 0;
  auto line = [&](const std::string& name) {
    double hand = reporter.speeds["hand-written/" + name], own = reporter.speeds["sheet/" + name];
    if (hand == 0 || own == 0) return false;
    std::printf("%-16s %16.0f %16.0f   1/%.1f\n", name.c_str(), hand, own, hand / own);
    return true;
  };
  for (const auto& [name, byHand] : games) {
    if (!line(name)) continue;
    const Tally& a = tallies()["hand-written/" + name];
    const Tally& b = tallies()["sheet/" + name];
    double p = a.firstWins / a.games, q = b.firstWins / b.games;
    double sigma = std::sqrt(p * (1 - p) * (1 / a.games + 1 / b.games));
    if (std::abs(p - q) > 6 * sigma) {
      std::printf("the two programs do not play the same game: first side wins %.4f and %.4f\n", p,
                  q);
      exitCode = 1;
    }
  }
  line("count of chess");
  return exitCode;
}
