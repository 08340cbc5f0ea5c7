#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/sheet/tidy.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  std::string file;
  bool check = false, print = false;
};

void run(const Options& options, Context& context) {
  std::string text = readFile(options.file, limits::sheetBytes);
  sheet::requireText(options.file, text);
  std::string tidy = sheet::tidied(sheet::Source(options.file, text));
  if (options.print) {
    print(tidy);
    return;
  }
  if (tidy == text) {
    print(fmt::format("{} is tidy\n", options.file));
    return;
  }
  if (options.check) {
    context.exitCode = exitFault;
    print(fmt::format("{} is not tidy\n", options.file));
    return;
  }
  writeFile(options.file, tidy);
  print(fmt::format("tidied {}\n", options.file));
}

}  // namespace

void addTidy(CLI::App& app, Context& context) {
  auto options = std::make_shared<Options>();
  CLI::App* command = app.add_subcommand("tidy", "Bring a sheet into its standard layout");
  command->add_option("FILE", options->file, "a game sheet; it is written over")->required();
  command->add_flag("--check", options->check, "change nothing; exit code 1 if it would change");
  command->add_flag("--print", options->print, "print the tidied sheet, change nothing");
  command->footer(
      "Comments stay. Running it twice changes nothing more.\n"
      "Examples:\n"
      "  ninepegs tidy mine.pegs\n"
      "  ninepegs tidy mine.pegs --check");
  command->callback([options, &context] { run(*options, context); });
}

}  // namespace ninepegs::cli
