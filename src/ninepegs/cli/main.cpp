// The program: finds the command, runs it, turns what went wrong into a message and an exit code.
#include <fmt/format.h>
#include <sys/auxv.h>
#include <unistd.h>

#include <cstdlib>
#include <new>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"

namespace {

using namespace ninepegs;

// In the order of the help.
void addCommands(CLI::App& app, cli::Context& context) {
  for (auto* add :
       {cli::addShow,    cli::addMoves,   cli::addCount,     cli::addPlay,   cli::addCheck,
        cli::addThink,   cli::addTune,    cli::addReview,    cli::addReplay, cli::addSolve,
        cli::addMatch,   cli::addServe,   cli::addMutate,    cli::addAsk,    cli::addCompare,
        cli::addVectors, cli::addExplain, cli::addBook,      cli::addLint,   cli::addTidy,
        cli::addNew,     cli::addDemo,    cli::addCompletion})
    add(app, context);
}

// Where this program is; empty if nothing tells. Without /proc, such as in a bare root folder, it
// is what the program was started by.
std::filesystem::path ownPath() {
  std::error_code error;
  std::filesystem::path self = std::filesystem::read_symlink("/proc/self/exe", error);
  if (!error) return self;
  const char* started = reinterpret_cast<const char*>(getauxval(AT_EXECFN));
  return started == nullptr ? "" : std::filesystem::canonical(started, error);
}

// Shipped sheets: beside the program, or where they are installed with it.
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
  std::filesystem::path self = ownPath();
  if (self.empty()) return folders;
  folders.push_back(self.parent_path() / "sheets");
  folders.push_back((self.parent_path() / NINEPEGS_SHEETS_FROM_PROGRAM).lexically_normal());
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

  cli::ProgramWords words;
  words.what = "Encode two-player grid games and verify that their rules are right.";
  words.version = NINEPEGS_VERSION;
  words.footer =
      "Exit codes: 0 fine, 1 the check found a fault, 2 bad input or usage, 130 interrupted.\n"
      "Shipped games: " +
      joined(context.library.names(), ", ") +
      "\nExample: ninepegs play tic-tac-toe --second search";
  try {
    bool fine =
        cli::runCommand(argc, argv, words, [&](CLI::App& app) { addCommands(app, context); });
    return fine ? context.exitCode : cli::exitBadInput;
  } catch (const cli::ReaderGone&) {  // what was found holds all the same
    return context.exitCode != cli::exitFine ? context.exitCode : cli::exitReaderGone;
  }
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
  } catch (const Failure& error) {
    cli::printError(std::string(error.what()) + "\n");
    if (cli::interrupted()) return cli::exitInterrupted;  // such as a figure left undrawn
  } catch (const std::bad_alloc&) {
    cli::printError("ninepegs: there is not enough memory for this\n");
  } catch (const std::exception& error) {
    cli::printError(fmt::format("ninepegs: an error inside the program: {}\n", error.what()));
  }
  return cli::exitBadInput;
}
