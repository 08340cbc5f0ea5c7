#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/sheet/text/tidy.hpp"

namespace ninepegs::cli {
namespace {

struct TidyOptions {
  std::vector<std::string> files;
  bool check = false, print = false;
};

struct Tidied {
  std::string file, before, after;
};

// All files are read before one is written, so that bad input changes nothing.
void runTidy(const TidyOptions& options, Context& context) {
  std::vector<Tidied> sheets;
  for (const std::string& file : options.files) {
    std::string text = readFile(file, limits::sheetBytes);
    sheet::requireText(file, text);
    sheets.push_back({file, text, sheet::tidied(sheet::Source(file, text))});
  }
  for (const Tidied& sheet : sheets) {
    if (options.print) {
      print(sheet.after);
    } else if (sheet.after == sheet.before) {
      print(fmt::format("{} is tidy\n", sheet.file));
    } else if (options.check) {
      context.exitCode = exitFault;
      print(fmt::format("{} is not tidy\n", sheet.file));
    } else {
      writeFile(sheet.file, sheet.after);
      print(fmt::format("tidied {}\n", sheet.file));
    }
  }
}

}  // namespace

void addTidy(CLI::App& app, Context& context) {
  auto [options, command] =
      newCommand(app, context, runTidy, "tidy", "Bring sheets into their standard layout",
                 "Comments stay. Running it twice changes nothing more.\n"
                 "Examples:\n"
                 "  ninepegs tidy mine.pegs\n"
                 "  ninepegs tidy --check sheets/*.pegs");
  needed(command, "FILE", options.files, "game sheets; they are written over");
  option(command, "--check", options.check, "change nothing; exit code 1 if it would change");
  option(command, "--print", options.print, "print the tidied sheet, change nothing");
}

}  // namespace ninepegs::cli
