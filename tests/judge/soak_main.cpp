// Plays sheets drawn at random beside the slow judge, any number of them.
//
//   ninepegs_soak [--seed S] [--from N] [--sheets N] [--threads T] [--forms] [--keep DIR] [--show
//   N]
#include <fmt/format.h>

#include <atomic>
#include <chrono>
#include <csignal>
#include <cstring>
#include <fstream>
#include <map>
#include <mutex>

#include "judge/compare.hpp"
#include "judge/generate.hpp"
#include "ninepegs/base/parallel.hpp"

namespace {

using namespace ninepegs;

StopFlag stop{false};

void onInterrupt(int) {
  if (stop.exchange(true)) std::_Exit(130);
}

}  // namespace

int main(int argc, char** argv) {
  std::uint64_t seed = 1, from = 0, sheets = 300, show = ~0ull;
  int threads = availableThreads();
  bool forms = false;
  std::string keep;
  for (int i = 1; i < argc; ++i) {
    auto next = [&] { return i + 1 < argc ? argv[++i] : const_cast<char*>("0"); };
    if (std::strcmp(argv[i], "--seed") == 0) seed = std::strtoull(next(), nullptr, 10);
    if (std::strcmp(argv[i], "--from") == 0) from = std::strtoull(next(), nullptr, 10);
    if (std::strcmp(argv[i], "--sheets") == 0) sheets = std::strtoull(next(), nullptr, 10);
    if (std::strcmp(argv[i], "--threads") == 0) threads = std::atoi(next());
    if (std::strcmp(argv[i], "--keep") == 0) keep = next();
    if (std::strcmp(argv[i], "--show") == 0) show = std::strtoull(next(), nullptr, 10);
    if (std::strcmp(argv[i], "--forms") == 0) forms = true;
  }
  std::signal(SIGINT, onInterrupt);
  std::signal(SIGTERM, onInterrupt);
  if (show != ~0ull) {
    judge::Generated one = judge::generateSheet(seed, show);
    fmt::print("{}", one.text);
    try {
      SheetGame::fromText("drawn.pegs", one.text, one.variant);
    } catch (const BadInput& error) {
      fmt::print("{}\n", error.what());
    }
    judge::Compared compared = judge::compare(one.text, one.variant, {.seed = show});
    fmt::print("{}\n", compared.difference);
    return 0;
  }
  std::mutex mutex;
  std::uint64_t played = 0, refused = 0, tooMuch = 0, positions = 0, differences = 0;
  judge::FormUses all;
  std::map<std::string, std::uint64_t> sheetsWith;
  double longest = 0;
  inParallel(
      sheets, threads,
      [&](std::uint64_t piece, int) {
        std::uint64_t number = from + piece;
        judge::Generated one = judge::generateSheet(seed, number);
        judge::FormUses uses;
        judge::CompareOptions options;
        options.seed = number;
        options.games = 2;
        options.plies = 8;
        if (forms) options.uses = &uses;
        auto begun = std::chrono::steady_clock::now();
        judge::Compared compared = judge::compare(one.text, one.variant, options);
        if (!compared.refused && compared.difference.empty()) {
          // The same without shortcuts: all of them, or one.
          sheet::Shortcuts without =
              number % 2 == 0 ? sheet::allShortcuts : 1u << (number / 2 % sheet::shortcutCount);
          options.games = 1;
          options.uses = nullptr;
          auto slower = SheetGame::fromText("drawn.pegs", one.text, one.variant, without);
          judge::Compared again = judge::compare(*slower, one.text, options);
          if (!again.difference.empty())
            compared.difference =
                fmt::format("without shortcuts {:x}: {}", without, again.difference);
          compared.positions += again.positions;
        }
        double seconds =
            std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
        std::lock_guard lock(mutex);
        longest = std::max(longest, seconds);
        played += compared.refused ? 0 : 1;
        refused += compared.refused ? 1 : 0;
        tooMuch += compared.tooMuch ? 1 : 0;
        positions += compared.positions;
        for (const auto& [name, use] : uses) {
          all[name].asked += use.asked;
          all[name].answers.insert(use.answers.begin(), use.answers.end());
          ++sheetsWith[name];
        }
        if (compared.difference.empty()) return;
        ++differences;
        fmt::print("sheet {} of seed {}: {}\n", number, seed, compared.difference);
        std::fflush(stdout);
        if (!keep.empty())
          std::ofstream(fmt::format("{}/{}-{}.pegs", keep, seed, number)) << one.text;
      },
      &stop);
  if (forms)
    for (const auto& [name, use] : all)
      fmt::print(
          "{:<18} {:>8} sheets {:>12} times{}\n", name, sheetsWith[name], use.asked,
          use.answers.size() > 1 || name.rfind("line ", 0) == 0 ? "" : ", always one answer");
  fmt::print(
      "{} sheets played, {} refused, {} given up, {} positions, longest {:.1f} s: {} differences\n",
      played, refused, tooMuch, positions, longest, differences);
  return stop ? 130 : differences > 0 ? 1 : 0;
}
