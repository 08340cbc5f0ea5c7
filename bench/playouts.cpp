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

#include "ninepegs/game/library.hpp"
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

// Keeps the speed of every run for the ratios at the end.
class Ratios : public benchmark::ConsoleReporter {
 public:
  void ReportRuns(const std::vector<Run>& runs) override {
    for (const Run& run : runs) {
      auto it = run.counters.find("items_per_second");
      if (run.run_type == Run::RT_Iteration && it != run.counters.end())
        speeds[run.run_name.function_name] = it->second;
    }
    ConsoleReporter::ReportRuns(runs);
  }
  std::map<std::string, double> speeds;
};

}  // namespace

int main(int argc, char** argv) {
  using namespace yardstick;
  for (const char* name : {"tic-tac-toe", "connect-four"}) {
    bool four = std::string(name) == "connect-four";
    benchmark::RegisterBenchmark(
        (std::string("hand-written/") + name).c_str(), [name, four](benchmark::State& state) {
          if (four) handWritten<ConnectFour>(state, name);
          else handWritten<TicTacToe>(state, name);
        })->MinTime(2);
    benchmark::RegisterBenchmark((std::string("sheet/") + name).c_str(),
                                 [name](benchmark::State& state) { sheet(state, name); })->MinTime(2);
  }
  benchmark::Initialize(&argc, argv);
  if (benchmark::ReportUnrecognizedArguments(argc, argv)) return 2;
  Ratios reporter;
  benchmark::RunSpecifiedBenchmarks(&reporter);
  std::printf("\n%-14s %16s %16s %10s\n", "playouts", "hand-written/s", "sheet/s", "ratio");
  int exitCode = 0;
  for (const char* name : {"tic-tac-toe", "connect-four"}) {
    double hand = reporter.speeds[std::string("hand-written/") + name];
    double own = reporter.speeds[std::string("sheet/") + name];
    if (hand == 0 || own == 0) continue;
    std::printf("%-14s %16.0f %16.0f %10.3f\n", name, hand, own, own / hand);
    const Tally& a = tallies()[std::string("hand-written/") + name];
    const Tally& b = tallies()[std::string("sheet/") + name];
    double p = a.firstWins / a.games, q = b.firstWins / b.games;
    double sigma = std::sqrt(p * (1 - p) * (1 / a.games + 1 / b.games));
    if (std::abs(p - q) > 6 * sigma) {
      std::printf("the two programs do not play the same game: first side wins %.4f and %.4f\n", p, q);
      exitCode = 1;
    }
  }
  return exitCode;
}
