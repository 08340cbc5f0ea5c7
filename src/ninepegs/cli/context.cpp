#include "ninepegs/cli/context.hpp"

#include <fmt/format.h>
#include <sys/ioctl.h>
#include <sys/time.h>
#include <unistd.h>

#include <algorithm>
#include <atomic>
#include <cerrno>
#include <charconv>
#include <chrono>
#include <cmath>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <ctime>
#include <mutex>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::cli {
namespace {

StopFlag stop{false}, looked{false}, terminated{false}, signalled{false};
static_assert(StopFlag::is_always_lock_free);
constexpr long answerWithin = 850'000;  // microseconds of processor time

// Counts processor time from now on, or no longer.
void countdown(long microseconds) {
  itimerval timer{};
  timer.it_value.tv_usec = microseconds;
  setitimer(ITIMER_PROF, &timer, nullptr);
}

// Milliseconds of a clock that goes on.
std::int64_t clockNow() {
  timespec now{};
  clock_gettime(CLOCK_MONOTONIC, &now);
  return std::int64_t{now.tv_sec} * 1000 + now.tv_nsec / 1'000'000;
}

// Who sends a signal to a program and to its group sends it twice.
constexpr std::int64_t sameSignal = 250;  // milliseconds
std::atomic<std::int64_t> signalledAt{0};
static_assert(std::atomic<std::int64_t>::is_always_lock_free);

extern "C" void onInterrupt(int signal) {
  if (signal == SIGTERM) terminated = true;
  std::int64_t now = clockNow();
  if (!looked) _exit(exitInterrupted);
  if (signalled.exchange(true)) {
    if (now - signalledAt > sameSignal) _exit(exitInterrupted);
    return;
  }
  signalledAt = now;
  stop = true;
  countdown(answerWithin);
}

extern "C" void onNoAnswer(int) {
  constexpr char says[] = "\nninepegs: interrupted; nothing is reported of what was begun\n";
  [[maybe_unused]] auto written = write(STDERR_FILENO, says, sizeof says - 1);
  _exit(exitInterrupted);
}

extern "C" void onTimeUp(int) {
  stop = true;
}

// False if nobody reads the file any more.
bool writeAll(std::FILE* file, const std::string& text) {
  errno = 0;
  if (std::fwrite(text.data(), 1, text.size(), file) == text.size() && std::fflush(file) == 0)
    return true;
  if (file != stdout || errno == EPIPE) return false;
  throw SystemFailure(Place{},
                      fmt::format("standard output cannot be written ({})", std::strerror(errno)),
                      errno == ENOSPC ? "is the disk full?" : "");
}

// What an option was given, with a caret under all of it.
Place optionPlace(const std::string& option, const std::string& text) {
  return {option, 1, 1, std::max(1, static_cast<int>(utf8Symbols(text).size())), text};
}

}  // namespace

StopFlag& stopFlag() {
  looked = true;
  return stop;
}

void catchInterrupts() {
  struct sigaction action {};
  action.sa_handler = onInterrupt;
  sigemptyset(&action.sa_mask);
  sigaction(SIGINT, &action, nullptr);
  sigaction(SIGTERM, &action, nullptr);
  action.sa_handler = onNoAnswer;
  sigaction(SIGPROF, &action, nullptr);
  action.sa_handler = onTimeUp;
  action.sa_flags = SA_RESTART;
  sigaction(SIGALRM, &action, nullptr);
  std::signal(SIGPIPE, SIG_IGN);
}

bool takeInterrupt() {
  if (!signalled || terminated) return false;
  countdown(0);
  signalled = false;
  return stop.exchange(false);
}

bool interrupted() {
  return signalled;
}

bool endedByInterrupt(Context& context, const std::string& what) {
  if (!interrupted()) return false;
  context.exitCode = exitInterrupted;
  printError("interrupted; " + what + "\n");
  return true;
}

void TimeOption::add(CLI::App& command) {
  option(command, "--time SECONDS", seconds,
         "stop after so many seconds, and report what was done until then");
}

std::optional<double> TimeOption::limit() const {
  if (!seconds) return std::nullopt;
  double read = 0;
  auto [end, error] = std::from_chars(seconds->data(), seconds->data() + seconds->size(), read);
  std::optional<double> value;
  if (error == std::errc() && end == seconds->data() + seconds->size()) value = read;
  if (!value || !std::isfinite(*value) || *value < 0.05 || *value > 1e7)
    throw BadInput(optionPlace("--time", *seconds),
                   "a number of seconds from 0.05 to 10000000 should stand here",
                   "such as: --time 10");
  return value;
}

void TimeOption::begin() const {
  std::optional<double> value = limit();
  if (!value) return;
  stopFlag();
  itimerval timer{};
  timer.it_value.tv_sec = static_cast<time_t>(*value);
  timer.it_value.tv_usec = static_cast<suseconds_t>((*value - std::floor(*value)) * 1e6);
  setitimer(ITIMER_REAL, &timer, nullptr);
}

int lineWidth(bool terminal) {
  winsize size{};
  if (!terminal || ioctl(STDOUT_FILENO, TIOCGWINSZ, &size) != 0 || size.ws_col == 0) return 80;
  return std::clamp<int>(size.ws_col, 60, 100);
}

void print(const std::string& text) {
  if (!writeAll(stdout, text)) throw ReaderGone{};
}
void printError(const std::string& text) {
  writeAll(stderr, text);
}

void GameOptions::addGame(CLI::App& command) {
  needed(command, "GAME", game, "a shipped game's name, or the path of a game sheet");
  option(command, "--variant NAME", variant, "play the sheet's variant of this name");
}

void GameOptions::addPosition(CLI::App& command) {
  option(command, "--at POSITION", at,
         "start from this position, such as \"3/1X1/3; Nought to move\"");
  option(command, "--after MOVES", after, "play these moves first, divided by commas");
}

std::shared_ptr<const Game> GameOptions::open(const Context& context) const {
  if (variant && variant->empty())
    throw BadInput(Place{"--variant", 0, 0, 1, {}}, "the name of a variant should follow",
                   "`ninepegs explain GAME` lists a game's variants");
  return context.library.open(game, variant.value_or(""));
}

std::shared_ptr<const Game> GameOptions::openWithVariants(const Context& context) const {
  std::shared_ptr<const Game> opened = open(context);
  if (!variant)
    for (const auto& [name, says] : opened->info().variants) opened->variant(name);
  return opened;
}

Position GameOptions::from(const Game& rules) const {
  Position position = at ? rules.readPosition(*at, "--at") : rules.start();
  if (at)
    for (const std::string& broken : brokenInvariants(rules, position))
      printError(fmt::format("note: in the position of --at, {}\n", broken));
  return position;
}

Position GameOptions::played(const Game& rules, const Position& from, MoveList* moves) const {
  return playMoves(rules, from, after.value_or(""), "--after", moves);
}

Position GameOptions::position(const Game& rules) const {
  return played(rules, from(rules));
}

int sideNamed(const Game& game, const std::string& text, const std::string& option) {
  const std::string* sides = game.info().sides;
  for (int side = 0; side < 2; ++side)
    if (sides[side] == text) return side;
  throw BadInput(
      Place{option, 0, 0, 1, {}}, fmt::format("\"{}\" is no side", clipped(text, 80)),
      didYouMean(text, {sides[0], sides[1]}, fmt::format("there are: {}, {}", sides[0], sides[1])));
}

void DrawOptions::add(CLI::App& command) {
  option(command, "--seed S", seed, "seed of the random numbers (default 1)");
  option(command, "--threads T", threads, "threads (0: one for each core); changes no result");
}

std::uint64_t DrawOptions::seedGiven() const {
  return wholeOption(seed, "--seed", 0, ~0ull);
}

int DrawOptions::threadsGiven() const {
  int given = static_cast<int>(wholeOption(threads, "--threads", 0, 256));
  return given == 0 ? availableThreads() : given;
}

const SheetGame& sheetOf(const Game& game, const std::string& otherwise) {
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr) throw BadInput(Place{}, otherwise);
  return *sheet;
}

Cell cellNamed(const Game& game, const std::string& text, const std::string& option) {
  if (std::optional<Cell> cell = game.board().find(trimmed(text))) return *cell;
  std::vector<std::string> labels = game.board().labels();
  throw BadInput(optionPlace(option, text),
                 fmt::format("there is no cell \"{}\"", clipped(text, 40)),
                 didYouMean(text, labels,
                            fmt::format("cells run from {} to {}", labels.front(), labels.back())));
}

std::uint64_t wholeOption(const std::string& text, const std::string& option, std::uint64_t least,
                          std::uint64_t most) {
  std::optional<unsigned long long> value = wholeNumber(text, most);
  if (value && *value >= least) return *value;
  throw BadInput(optionPlace(option, text),
                 fmt::format("a whole number from {} to {} should stand here", least, most));
}

void requirePicture(const Said& file) {
  if (!file) return;
  if (!file->ends_with(".png") && !file->ends_with(".svg"))
    throw BadInput(optionPlace("--figure", *file), "the chart is a .png or .svg file",
                   "such as: --figure chart.png");
  requireWritable(*file);
}

draw::ChartOptions chartOptions(const std::string& file) {
  return {.form = file.ends_with(".svg") ? draw::ChartForm::svg : draw::ChartForm::png,
          .stop = &stopFlag()};
}

struct Progress::State {
  std::string what, found;
  std::uint64_t total = 0;
  bool guessed = false, shown = false;
  std::mutex mutex;
  std::chrono::steady_clock::time_point begun = std::chrono::steady_clock::now(), last = begun;
};

Progress::Progress(const Context& context, std::string what, std::uint64_t total, bool guessed) {
  if (!context.errorIsTerminal) return;
  state_ = std::make_unique<State>();
  state_->what = std::move(what);
  state_->total = total;
  state_->guessed = guessed;
}

Progress::~Progress() {
  if (state_ && state_->shown) printError("\r\x1b[K");
}

void Progress::at(std::uint64_t done) {
  if (!state_) return;
  std::lock_guard lock(state_->mutex);
  auto now = std::chrono::steady_clock::now();
  if (now - state_->begun < std::chrono::seconds(1) ||
      now - state_->last < std::chrono::milliseconds(200))
    return;
  state_->last = now;
  state_->shown = true;
  double seconds = std::chrono::duration<double>(now - state_->begun).count();
  double rate = static_cast<double>(done) / seconds;
  std::string text = grouped(done);
  if (done <= state_->total)
    text += fmt::format(" of {}{} {} ({:.0f} %)", state_->guessed ? "perhaps " : "",
                        grouped(state_->total), state_->what,
                        100.0 * static_cast<double>(done) / static_cast<double>(state_->total));
  else
    text += " " + state_->what;
  text += fmt::format(", {} a second", grouped(static_cast<std::uint64_t>(rate)));
  if (done > 0 && done <= state_->total && !state_->guessed)
    text += fmt::format(
        ", {} s left",
        grouped(static_cast<std::uint64_t>(static_cast<double>(state_->total - done) / rate + 1)));
  if (!state_->found.empty()) text += "; " + state_->found;
  printError("\r\x1b[K" + text);
}

void Progress::doing(std::string what) {
  if (!state_) return;
  std::lock_guard lock(state_->mutex);
  if (std::chrono::steady_clock::now() - state_->begun < std::chrono::seconds(1)) return;
  state_->shown = true;
  printError("\r\x1b[K" + what + " ...");
}

void Progress::says(std::string found) {
  if (!state_) return;
  std::lock_guard lock(state_->mutex);
  state_->found = std::move(found);
}

}  // namespace ninepegs::cli
