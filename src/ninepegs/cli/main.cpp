// The program: finds the command, runs it, turns what went wrong into a message and an exit code.
#include <fmt/format.h>
#include <unistd.h>

#include <cstdlib>
#include <new>

#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/usage.hpp"

namespace {

using namespace ninepegs;

// Shipped sheets: beside the installed program, where it was installed to, or in the source tree.
std::vector<std::filesystem::path> sheetFolders() {
  std::vector<std::filesystem::path> folders;
  std::error_code error;
  if (const char* given = std::getenv("NINEPEGS_SHEETS"); given != nullptr && *given != '\0') {
    if (!std::filesystem::is_directory(given, error))
      throw BadInput(Place{"NINEPEGS_SHEETS", 0, 0, 1, {}},
                     fmt::format("there is no folder \"{}\"", given),
                     "it names the folder of the shipped sheets; unset it to use the usual one");
    if (Library({given}).names().empty())
      throw BadInput(Place{"NINEPEGS_SHEETS", 0, 0, 1, {}},
                     fmt::format("the folder \"{}\" holds no sheet", given));
    return {given};
  }
  std::filesystem::path self = std::filesystem::read_symlink("/proc/self/exe", error);
  if (!error) folders.push_back(self.parent_path().parent_path() / "share/ninepegs/sheets");
  folders.emplace_back(NINEPEGS_SOURCE_SHEETS);
  folders.emplace_back(NINEPEGS_INSTALLED_SHEETS);
  return folders;
}

int run(int argc, char** argv) {
  bool colours = std::getenv("NO_COLOR") == nullptr || *std::getenv("NO_COLOR") == '\0';
  Library library(sheetFolders());
  cli::Context context(library);
  context.outputIsTerminal = isatty(STDOUT_FILENO) != 0;
  context.errorIsTerminal = isatty(STDERR_FILENO) != 0;
  context.inputIsTerminal = isatty(STDIN_FILENO) != 0;
  context.paint =
      report::Paint(colours && context.outputIsTerminal, cli::lineWidth(context.outputIsTerminal));
  context.errorPaint = report::Paint(colours && context.errorIsTerminal);

  CLI::App app("Encode two-player grid games and verify that their rules are right.", "ninepegs");
  app.set_version_flag("--version", std::string("ninepegs ") + NINEPEGS_VERSION);
  app.require_subcommand(1);
  app.get_formatter()->column_width(34);
  app.footer(
      "Exit codes: 0 fine, 1 the check found a fault, 2 bad input or usage, 130 interrupted.\n"
      "Shipped games: " +
      [&] {
        std::string names;
        for (const std::string& name : context.library.names())
          names += (names.empty() ? "" : ", ") + name;
        return names;
      }() +
      "\nExample: ninepegs play tic-tac-toe --second search");
  cli::addShow(app, context);
  cli::addMoves(app, context);
  cli::addCount(app, context);
  cli::addPlay(app, context);
  cli::addCheck(app, context);
  cli::addThink(app, context);
  cli::addTune(app, context);
  cli::addReview(app, context);
  cli::addReplay(app, context);
  cli::addSolve(app, context);
  cli::addMatch(app, context);
  cli::addServe(app, context);
  cli::addMutate(app, context);
  cli::addAsk(app, context);
  cli::addCompare(app, context);
  cli::addVectors(app, context);
  cli::addExplain(app, context);
  cli::addBook(app, context);
  cli::addLint(app, context);
  cli::addTidy(app, context);
  cli::addNew(app, context);
  cli::addDemo(app, context);
  cli::addCompletion(app, context);

  std::vector<std::string> arguments(argv + 1, argv + argc);
  try {
    app.parse(argc, argv);
  } catch (const cli::ReaderGone&) {  // what was found holds all the same
    return context.exitCode != cli::exitFine ? context.exitCode : cli::exitReaderGone;
  } catch (const CLI::CallForHelp&) {
    std::string help = app.help();
    for (const CLI::App* command : app.get_subcommands()) help = command->help("ninepegs");
    cli::print(help);
  } catch (const CLI::CallForVersion& version) {
    cli::print(std::string(version.what()) + "\n");
  } catch (const CLI::ParseError& error) {
    cli::printError(cli::usageError(app, error, arguments));
    return cli::exitBadInput;
  } catch (const BadInput& error) {
    cli::printError(std::string(error.what()) + "\n");
    return cli::exitBadInput;
  }
  return context.exitCode;
}

}  // namespace

int main(int argc, char** argv) {
  cli::catchInterrupts();
  try {
    return run(argc, argv);
  } catch (const cli::ReaderGone&) {
    return cli::exitReaderGone;
  } catch (const Stopped&) {
    cli::printError("interrupted; nothing is reported\n");
    return cli::exitInterrupted;
  } catch (const BadInput& error) {
    cli::printError(std::string(error.what()) + "\n");
  } catch (const std::bad_alloc&) {
    cli::printError("ninepegs: there is not enough memory for this\n");
  } catch (const std::exception& error) {
    cli::printError(fmt::format("ninepegs: an error inside the program: {}\n", error.what()));
  }
  return cli::exitBadInput;
}
