// Plays sheets beside the slow judge and reads hostile texts, any number of them, in processes of
// their own. Each piece of work has a number and depends on the seed and its number alone, so that
// a run goes on with --from where another one was stopped.
#include <fmt/format.h>

#include <filesystem>
#include <fstream>
#include <map>

#include "judge/compare.hpp"
#include "judge/generate.hpp"
#include "judge/same_games.hpp"
#include "ninepegs/base/files.hpp"
#include "ninepegs/sheet/program/verify.hpp"
#include "ninepegs/sheet/text/tidy.hpp"
#include "ninepegs/sheet/words/explain.hpp"
#include "ninepegs/verify/lint.hpp"
#include "soak/mutate.hpp"
#include "soak/options.hpp"
#include "soak/reduce.hpp"
#include "soak/rewrite.hpp"
#include "soak/texts.hpp"
#include "soak/workers.hpp"
#include "support/live.hpp"
#include "support/messages.hpp"

namespace {

using namespace ninepegs;
using namespace ninepegs::soak;

using Game = std::shared_ptr<const SheetGame>;

Game openText(const std::string& text, const std::string& variant = {},
              sheet::Shortcuts without = 0) {
  return SheetGame::fromText("drawn.pegs", text, variant, without);
}

// One sheet, looked at in every way there is. The kinds of differences have names, so that a
// smaller sheet can be held against the whole one.
class Look {
 public:
  Look(const Options& options, std::uint64_t number, Tally& tally)
      : options_(options), number_(number), tally_(tally) {
    compare_.seed = number;
  }

  // A sheet drawn at random: beside the slow judge, and without shortcuts.
  std::string drawn(const judge::Generated& one) {
    judge::FormUses uses;
    compare_.games = 2;
    compare_.plies = 8;
    if (options_.forms) compare_.uses = &uses;
    judge::Compared compared = judge::compare(one.text, one.variant, compare_);
    compare_.uses = nullptr;
    for (const auto& [name, use] : uses) {
      tally_.add("form " + name);
      tally_.add("asked " + name, use.asked);
      if (use.answers.size() > 1) tally_.add("decides " + name);
    }
    tally_.add(compared.refused ? "refused" : "played");
    tally_.add("given up", compared.tooMuch ? 1 : 0);
    tally_.add("positions", compared.positions);
    if (compared.refused || !compared.difference.empty()) return compared.difference;
    return withoutShortcuts(one.text, one.variant);
  }

  // The same rules, written in another way.
  std::string rewritten(const judge::Generated& one) {
    Game game = opened(one.text, one.variant);
    if (game == nullptr) return "";
    compare_.games = 1;
    compare_.plies = 6;
    for (const Rewritten& other : rewritings(one.text)) {
      Game again;
      try {
        again = openText(other.text, one.variant);
      } catch (const BadInput& error) {
        return fmt::format("rewritten ({}): refused: {}\n{}", other.how, error.what(), other.text);
      }
      tally_.add("rewritten: " + other.how);
      std::string parted = judge::parted(*game, *again, compare_, false);
      if (!parted.empty())
        return fmt::format("rewritten ({}): {}\n{}", other.how, parted, other.text);
    }
    return "";
  }

  // A sheet with slips.
  std::string mutated(const std::string& text) {
    double begun = threadSeconds();
    Game game;
    std::string bad;
    try {
      game = openText(text);
    } catch (const BadInput& error) {
      bad = test::badMessage(error);
    }
    // A sheet with a variant that is none is refused as a whole.
    if (game != nullptr)
      for (const auto& [name, says] : game->info().variants)
        if (game != nullptr && opened(text, name) == nullptr) game = nullptr;
    if (threadSeconds() - begun > options_.slow)
      return fmt::format("slow: read in {:.1f} s", threadSeconds() - begun);
    if (!bad.empty()) return "message: " + bad;
    tally_.add(game == nullptr ? "refused" : "played");
    if (std::string wrong = tidies(text, game != nullptr); !wrong.empty()) return wrong;
    if (game == nullptr) return "";
    begun = threadSeconds();
    sheet::explain(game->rules());
    verify::LintOptions lint;
    lint.playouts = 0;
    try {
      verify::lint(*game, lint);
    } catch (const RunawayRules&) {
    }
    if (threadSeconds() - begun > options_.slow * 2)
      return fmt::format("slow: explained in {:.1f} s", threadSeconds() - begun);
    compare_.games = 1;
    compare_.plies = 4;
    if (number_ % static_cast<std::uint64_t>(options_.judgeEach) == 0) {
      compare_.cases = game->board().size() < 100;
      judge::Compared compared = judge::compare(*game, text, compare_);
      tally_.add("judged");
      tally_.add("given up", compared.tooMuch ? 1 : 0);
      tally_.add("positions", compared.positions);
      if (!compared.difference.empty()) return compared.difference;
    }
    return withoutShortcuts(text, "");
  }

 private:
  Game opened(const std::string& text, const std::string& variant) {
    try {
      return openText(text, variant);
    } catch (const BadInput&) {
      return nullptr;
    }
  }

  // Without all shortcuts, or without one.
  std::string withoutShortcuts(const std::string& text, const std::string& variant) {
    sheet::Shortcuts without =
        number_ % 2 == 0 ? sheet::allShortcuts : 1u << (number_ / 2 % sheet::shortcutCount);
    Game game = openText(text, variant), plain = openText(text, variant, without);
    compare_.games = 1;
    for (const Game& one : {game, plain})
      if (std::vector<std::string> faults = sheet::unsound(one->program()); !faults.empty())
        return fmt::format("program without shortcuts {:x}: {}", one == game ? 0 : without,
                           faults.front());
    std::string parted = judge::parted(*game, *plain, compare_, true);
    if (!parted.empty()) return fmt::format("without shortcuts {:x}: {}", without, parted);
    parted = test::liveParted(*game, Stream(options_.seed, number_), 12);
    return parted.empty() ? "" : "live positions: " + parted;
  }

  // A tidied sheet is the same sheet, and is tidy.
  std::string tidies(const std::string& text, bool accepted) {
    std::string tidy;
    try {
      tidy = sheet::tidied(sheet::Source("drawn.pegs", text));
    } catch (const BadInput& error) {
      if (accepted) return fmt::format("tidy: refuses what is accepted: {}", error.what());
      return "";
    }
    if (sheet::tidied(sheet::Source("drawn.pegs", tidy)) != tidy) return "tidy: not tidy at once";
    Game again = opened(tidy, "");
    if (again == nullptr && accepted) return "tidy: the tidied sheet is refused";
    return "";
  }

  const Options& options_;
  std::uint64_t number_;
  Tally& tally_;
  judge::CompareOptions compare_;
};

// What a difference is about, so that a smaller sheet shows the same.
std::string kindOf(const std::string& what) {
  std::size_t end = what.size();
  for (const char* mark : {" in ", " after ", ":", " ("}) end = std::min(end, what.find(mark));
  return what.substr(0, end);
}

class Soak {
 public:
  explicit Soak(Options options) : options_(std::move(options)) {
    if (options_.what == "mutated")
      bases_ = sheetsOf({options_.source + "/sheets", options_.source + "/examples/faulty",
                         options_.source + "/tests/corpus"});
    if (options_.what == "texts") {
      for (const std::string& text : sheetsOf({options_.source + "/sheets"})) {
        games_.push_back(openText(text));
        for (const auto& [name, says] : games_.back()->info().variants)
          if (!name.empty()) games_.push_back(openText(text, name));
      }
    }
  }

  int run() {
    WorkOptions work;
    work.from = options_.from;
    work.pieces = options_.many;
    work.processes = options_.processes;
    work.hang = options_.hang;
    std::uint64_t crashes = 0;
    Worked worked = soak::work(
        work, [&](std::uint64_t number, Tally& tally) { one(number, tally); },
        [&](std::uint64_t number, const std::string& what) {
          ++crashes;
          tell(number, what);
          if (options_.first) stopWork();
        });
    std::uint64_t found = worked.counts.count("found") > 0 ? worked.counts.at("found") : 0;
    found += crashes;
    std::map<std::string, std::array<std::uint64_t, 3>> forms;
    for (const auto& [name, many] : worked.counts) {
      if (name.starts_with("form ")) forms[name.substr(5)][0] = many;
      if (name.starts_with("asked ")) forms[name.substr(6)][1] = many;
      if (name.starts_with("decides ")) forms[name.substr(8)][2] = many;
    }
    for (const auto& [name, uses] : forms)
      fmt::print("{:<18} {:>8} sheets {:>12} times, two answers in {:>8}\n", name, uses[0], uses[1],
                 uses[2]);
    for (const auto& [name, many] : worked.counts)
      if (!name.starts_with("form ") && !name.starts_with("asked ") &&
          !name.starts_with("decides "))
        fmt::print("{}: {}\n", name, many);
    fmt::print("{} of seed {}, {} to {}: {} found\n", options_.what, options_.seed, options_.from,
               worked.next, found);
    return worked.stopped ? 130 : found > 0 ? 1 : 0;
  }

  // The sheet of a number, and what is found on it.
  void show(std::uint64_t number) {
    judge::Generated sheet = sheetOf(number);
    fmt::print("{}", sheet.text);
    std::fflush(stdout);
    std::map<std::string, std::uint64_t> counts;
    Tally tally(counts);
    try {
      openText(sheet.text, sheet.variant);
    } catch (const BadInput& error) {
      fmt::print("{}\n", error.what());
    }
    fmt::print("{}\n", look(sheet, number, tally));
  }

  // The smallest sheet that shows the same as this one.
  void reduce(const std::string& path, std::uint64_t number) {
    judge::Generated sheet{readFile(path, 1 << 20), ""};
    if (sheet.text.find("\nvariant other ") != std::string::npos) sheet.variant = "other";
    fmt::print("{}", smallest(sheet, number));
  }

 private:
  judge::Generated sheetOf(std::uint64_t number) const {
    if (options_.what != "mutated") return judge::generateSheet(options_.seed, number);
    Stream stream(options_.seed, number);
    auto any = [&] { return bases_[stream.below(static_cast<std::uint32_t>(bases_.size()))]; };
    std::string base =
        stream.below(2) == 0 ? any() : judge::generateSheet(options_.seed, number).text;
    std::vector<std::string> others = {any()};
    return {mutatedSheet(base, others, stream), ""};
  }

  std::string look(const judge::Generated& sheet, std::uint64_t number, Tally& tally) const {
    Look look(options_, number, tally);
    try {
      if (options_.what == "mutated") return look.mutated(sheet.text);
      if (options_.what == "rewritten") return look.rewritten(sheet);
      return look.drawn(sheet);
    } catch (const RunawayRules&) {
      return "";
    } catch (const std::exception& error) {
      return std::string("exception: ") + error.what();
    }
  }

  void one(std::uint64_t number, Tally& tally) const {
    std::string what;
    if (options_.what == "texts") {
      Stream stream(options_.seed, number);
      Reads reads;
      const SheetGame& game = *games_[number % games_.size()];
      try {
        what = readTexts(game, stream, reads);
      } catch (const std::exception& error) {
        what = std::string("exception: ") + error.what();
      }
      if (!what.empty()) what = game.info().id + " " + game.info().variant + ": " + what;
      tally.add("texts taken", reads.taken);
      tally.add("texts refused", reads.refused);
    } else {
      what = look(sheetOf(number), number, tally);
    }
    if (what.empty()) return;
    tally.add("found");
    tell(number, what);
    if (options_.first) stopWork();
  }

  void tell(std::uint64_t number, const std::string& what) const {
    fmt::print("{} {} of seed {}: {}\n", options_.what, number, options_.seed, what);
    std::fflush(stdout);
    if (options_.keep.empty() || options_.what == "texts") return;
    judge::Generated sheet = sheetOf(number);
    std::string stem =
        fmt::format("{}/{}-{}-{}", options_.keep, options_.what, options_.seed, number);
    std::ofstream(stem + ".pegs") << sheet.text;
    takeTime();
    std::ofstream(stem + "-small.pegs") << smallest(sheet, number);
  }

  std::string smallest(const judge::Generated& sheet, std::uint64_t number) const {
    auto kindOfText = [&](const std::string& text) {
      return kindOf(apart(
          [&] {
            std::map<std::string, std::uint64_t> counts;
            Tally tally(counts);
            return look({text, sheet.variant}, number, tally);
          },
          10));
    };
    std::string whole = kindOfText(sheet.text);
    if (whole.empty()) return sheet.text;
    return reduced(
        sheet.text, [&](const std::string& text) { return kindOfText(text) == whole; }, 3000);
  }

  Options options_;
  std::vector<std::string> bases_;
  std::vector<Game> games_;
};

}  // namespace

int main(int argc, char** argv) {
  Options options;
  if (int code = readOptions(argc, argv, options); code >= 0) return code;
  if (!options.keep.empty()) std::filesystem::create_directories(options.keep);
  Soak soak(options);
  if (options.show != ~0ull) return soak.show(options.show), 0;
  if (!options.reduce.empty()) return soak.reduce(options.reduce, options.from), 0;
  return soak.run();
}
