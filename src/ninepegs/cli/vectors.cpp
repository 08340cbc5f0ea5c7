#include "ninepegs/compare/vectors.hpp"

#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/vectors_json.hpp"

namespace ninepegs::cli {
namespace {

struct VectorsOptions {
  GameOptions game;
  DrawOptions drawing;
  std::string most = "100", out;
  TimeOption time;
};

void runVectors(const VectorsOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet has test vectors");
  compare::VectorOptions how;
  options.drawing.into(how);
  how.most = wholeOption(options.most, "--vectors", 1, 100'000);
  requireWritable(options.out);
  options.time.begin();
  compare::VectorSet set = compare::makeVectors(sheet, how);
  if (endedByInterrupt(context, "no vectors are written")) return;
  writeFile(options.out, report::vectorsJsonLines(*game, set, how.seed));
  if (!set.complete)
    print("time is up: fewer games were played and fewer mutants asked than there are\n");
  print(
      fmt::format("{} written to {}; seed {}\n"
                  "  of {} with one slip each they notice {}; {} differ in no position tried\n"
                  "  {} of {} statements are used, {} of {} ends are reached\n",
                  plural(static_cast<long long>(set.vectors.size()), "test vector"), options.out,
                  how.seed, plural(static_cast<long long>(set.mutants), "mutant"), set.noticed,
                  set.silent, set.linesUsed, set.lines, set.endsReached, set.ends));
}

}  // namespace

void addVectors(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runVectors, "vectors",
      "Write positions with all that the rules say of them, to test a program against",
      "Each line has the moves that lead to a position, how it stands, and how it stands after\n"
      "each legal move: docs/programs.md, with a reader in three languages. They are chosen so\n"
      "that they notice as many mutants of the sheet as possible.\n"
      "Example:\n"
      "  ninepegs vectors othello --out othello.jsonl");
  options.game.addGame(command);
  needed(command, "--out FILE", options.out, "the file to write, JSON Lines");
  option(command, "--vectors N", options.most, "so many at most (default 100)");
  options.drawing.add(command);
  options.time.add(command);
}

}  // namespace ninepegs::cli
