#include <fmt/format.h>

#include <filesystem>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/sheet/text/starter.hpp"

namespace ninepegs::cli {
namespace {

struct NewOptions {
  std::string name;
  Said like, fromWords;
};

void runNew(const NewOptions& options, Context& context) {
  if (options.like && options.fromWords)
    throw BadInput(Place{}, "--like and --from-words do not go together", "leave one of them out");
  const std::string& name = options.name;
  std::string sheet;
  if (options.like)
    sheet = sheet::sheetLike(name, context.library.like(*options.like));
  else if (options.fromWords)
    sheet = sheet::sheetFromWords(name, readFile(*options.fromWords, limits::sheetBytes),
                                  *options.fromWords);
  else
    sheet = sheet::starterSheet(name);
  std::string file = name + ".pegs";
  if (std::filesystem::exists(file))
    throw BadInput(Place{file, 0, 0, 1, {}}, "this file is there already", "choose another name");
  writeFile(file, sheet);
  print(fmt::format("wrote {}\ntry: ninepegs show {}\n     ninepegs check {}\n", file, file, file));
}

}  // namespace

void addNew(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runNew, "new", "Write a commented sheet to begin a game with",
      "The sheet is a small game that works; nothing is written over.\n"
      "WHAT is one of:\n"
      "  rows    pegs are placed, so many in a row win      turn    discs are turned over\n"
      "  drop    discs fall into columns                    join    two edges are joined\n"
      "  take    pieces move and take                       hexes   tiles are laid from the hand\n"
      "  heaps   a heap of nothing but numbers              fleet   what lies there is hidden\n"
      "  sow     seeds are sown round the board             lines   points joined by lines\n"
      "Examples:\n"
      "  ninepegs new peg-race && ninepegs check peg-race.pegs\n"
      "  ninepegs new wood-pile --like heaps\n"
      "  ninepegs new over-the-pass --from-words pass.txt");
  needed(command, "NAME", options.name, "the game's name; the file is NAME.pegs in this folder");
  option(command, "--like WHAT", options.like, "what the game is like; see below");
  option(command, "--from-words FILE", options.fromWords,
         "a description with the headings players, board, pieces, a turn, how it ends: it becomes "
         "the sheet's `about`, with a line to fill in for each part");
}

}  // namespace ninepegs::cli
