// What every command shares: the library of games, the terminal, the exit code.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/cli/options.hpp"
#include "ninepegs/draw/chart_options.hpp"
#include "ninepegs/game/library.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs {
class SheetGame;
}

namespace ninepegs::cli {

inline constexpr int exitFine = 0, exitFault = 1, exitBadInput = 2, exitInterrupted = 130;
inline constexpr int exitReaderGone = 141;  // nobody read the output, as if ended by SIGPIPE

// Mutants that show nothing are proved the same where all positions have no more moves than this.
inline constexpr std::size_t proofMoves = 60'000;

struct Context {
  explicit Context(Library games) : library(std::move(games)) {}
  Library library;
  bool outputIsTerminal = false;
  bool errorIsTerminal = false;
  bool inputIsTerminal = false;
  report::Paint paint;       // for standard output
  report::Paint errorPaint;  // for standard error
  int exitCode = exitFine;
};

// Set by Ctrl-C, SIGTERM and the end of --time. Who asks for it promises to look at it: until then,
// and at a second Ctrl-C, the program ends at once. What takes longer than most of a second of
// processor time to answer a Ctrl-C is ended, with nothing reported.
StopFlag& stopFlag();
void catchInterrupts();
// Was it a signal that stopped the work? Not if --time ran out: then what was done is the result.
bool interrupted();
// Sets the exit code and says that nothing is reported, if there was an interrupt.
bool endedByInterrupt(Context& context, const std::string& what);
// Was there a Ctrl-C (and no SIGTERM)? Then it counts as answered, and nothing stops.
bool takeInterrupt();

// Columns of a report: those of the terminal, from 60 to 100; 80 in a pipe.
int lineWidth(bool terminal);

// Writes all of it to standard output. Throws ReaderGone if nobody reads it any more; what a
// command has found until then is in Context::exitCode.
struct ReaderGone {};
void print(const std::string& text);
void printError(const std::string& text);

// The options that name a game and a position in it.
struct GameOptions {
  std::string game;
  Said variant, at, after;

  void addGame(CLI::App& command);
  void addPosition(CLI::App& command);
  std::shared_ptr<const Game> open(const Context& context) const;
  // For commands that judge a sheet: its variants must be sound, too.
  std::shared_ptr<const Game> openWithVariants(const Context& context) const;
  // A position that breaks what must always hold is named on standard error.
  Position position(const Game& game) const;
  // The same in two: where it begins, and behind the moves of --after, which are added to `moves`.
  Position from(const Game& game) const;
  Position played(const Game& game, const Position& from, MoveList* moves = nullptr) const;
};

// The options of commands that draw games on several threads.
struct DrawOptions {
  std::string seed = "1", threads = "0";

  void add(CLI::App& command);
  // Says them to the options of a computation, and what stops it. Throws BadInput.
  template <class How>
  void into(How& how) const {
    how.seed = seedGiven(), how.threads = threadsGiven(), how.stop = &stopFlag();
  }

 private:
  std::uint64_t seedGiven() const;
  int threadsGiven() const;  // at least 1
};

// As much as can be done in so many seconds.
struct TimeOption {
  Said seconds;
  void add(CLI::App& command);
  std::optional<double> limit() const;  // throws BadInput
  void begin() const;  // the clock runs from here on; its end sets stopFlag(). Throws BadInput
};

// The game as one that a sheet made. Throws BadInput with that message if it is none.
const SheetGame& sheetOf(const Game& game, const std::string& otherwise);

// The cell that a text names. Throws BadInput; `option` is named in the message.
Cell cellNamed(const Game& game, const std::string& text, const std::string& option);

// The side that a text names, 0 or 1. Throws BadInput.
int sideNamed(const Game& game, const std::string& text, const std::string& option);

// Reads a whole number for an option. Throws BadInput.
std::uint64_t wholeOption(const std::string& text, const std::string& option, std::uint64_t least,
                          std::uint64_t most);

// Where a chart is wanted: its file can be written and is a .png or .svg one. Throws BadInput if
// not.
void requirePicture(const Said& file);
// How it is drawn; Ctrl-C ends it.
draw::ChartOptions chartOptions(const std::string& file);

// A line on the terminal's standard error that is written over and cleared at the end; nothing
// elsewhere. It appears after a second of work. A total that is only guessed may be passed.
class Progress {
 public:
  Progress(const Context& context, std::string what, std::uint64_t total, bool guessed = false);
  ~Progress();
  void at(std::uint64_t done);   // from any thread, as the next
  void says(std::string found);  // what is known so far: stands behind the numbers from now on
  void doing(std::string what);  // something that has no numbers, until the next at()

 private:
  struct State;
  std::unique_ptr<State> state_;
};

// One function a command; each adds itself to the program.
void addShow(CLI::App& app, Context& context);
void addMoves(CLI::App& app, Context& context);
void addCount(CLI::App& app, Context& context);
void addPlay(CLI::App& app, Context& context);
void addExplain(CLI::App& app, Context& context);
void addBook(CLI::App& app, Context& context);
void addLint(CLI::App& app, Context& context);
void addTidy(CLI::App& app, Context& context);
void addNew(CLI::App& app, Context& context);
void addCheck(CLI::App& app, Context& context);
void addMatch(CLI::App& app, Context& context);
void addThink(CLI::App& app, Context& context);
void addTune(CLI::App& app, Context& context);
void addReview(CLI::App& app, Context& context);
void addReplay(CLI::App& app, Context& context);
void addServe(CLI::App& app, Context& context);
void addSolve(CLI::App& app, Context& context);
void addMutate(CLI::App& app, Context& context);
void addAsk(CLI::App& app, Context& context);
void addCompare(CLI::App& app, Context& context);
void addVectors(CLI::App& app, Context& context);
void addDemo(CLI::App& app, Context& context);
void addCompletion(CLI::App& app, Context& context);

}  // namespace ninepegs::cli
