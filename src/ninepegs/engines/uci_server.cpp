#include "ninepegs/engines/uci_server.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <map>
#include <optional>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/coordinates.hpp"

namespace ninepegs::engines {
namespace {

constexpr std::uint64_t mostMegabytes = 4096;
constexpr int mostLines = 64;
constexpr double noClock = 1;        // seconds, where only the other side's clock is told
constexpr double movesLeft = 30;     // where the clock does not say how many it is for
constexpr double mostOfClock = 0.4;  // of what is left, for one move
constexpr double reserve = 0.03;     // seconds that are lost on the way
constexpr std::uint64_t mostNumber = 1'000'000'000'000ull;

// The number behind a word of `go`; one below 0, such as of a clock that has run out, is 0.
std::optional<std::uint64_t> behind(const std::vector<std::string>& words, const char* word) {
  for (std::size_t i = 0; i + 1 < words.size(); ++i) {
    if (words[i] != word) continue;
    bool below = words[i + 1].size() > 1 && words[i + 1][0] == '-';
    std::optional<unsigned long long> value =
        wholeNumber(std::string_view(words[i + 1]).substr(below ? 1 : 0), mostNumber);
    if (!value) return std::nullopt;
    return below ? 0 : std::min<std::uint64_t>(*value, mostNumber);
  }
  return std::nullopt;
}

bool has(const std::vector<std::string>& words, const char* word) {
  return std::find(words.begin(), words.end(), word) != words.end();
}

double secondsOf(std::uint64_t milliseconds) {
  return static_cast<double>(milliseconds) / 1000;
}

// "cp 31", "mate 2" (moves of the winner until it), "mate -3".
std::string scoreText(std::int64_t score) {
  if (!play::decides(score)) return fmt::format("cp {}", score);
  std::int64_t plies = play::winScore - std::abs(score);
  return fmt::format("mate {}", score > 0 ? (plies + 1) / 2 : -(plies / 2));
}

}  // namespace

UciServer::UciServer(const Game& game, std::string name, Say say)
    : game_(game), name_(std::move(name)), say_(std::move(say)), position_(game.start()) {}

UciServer::~UciServer() {
  halt();
}

bool UciServer::take(std::string_view text) {
  Words words = splitTrimmed(text, ' ');
  std::erase_if(words, [](const std::string& word) { return word.empty(); });
  if (words.empty()) return true;
  const std::string& word = words.front();
  if (word == "quit") {
    halt();
    return false;
  }
  if (word == "stop") halt();
  if (word == "ponderhit") ponderHit();
  if (word == "isready") line("readyok");
  if (word == "uci") greet();
  if (word == "ucinewgame" || word == "position" || word == "setoption" || word == "go") {
    halt();  // none of these may come while a move is thought about
    if (word == "ucinewgame") {
      position_ = game_.start();
      from_ = {"startpos"};
      told_.clear();
      sound_ = true;
    }
    if (word == "position") {
      sound_ = false;
      position(words);
    }
    if (word == "setoption") option(words);
    if (word == "go") go(words);
  }
  return true;
}

void UciServer::wait() {
  if (thinking_.joinable()) thinking_.join();
}

void UciServer::finish() {
  if (endless_) return halt();
  wait();
}

void UciServer::halt() {
  stop_ = true;
  wait();
  stop_ = false;
}

void UciServer::line(const std::string& text) {
  std::lock_guard<std::mutex> lock(saying_);
  say_(text);
}

void UciServer::greet() {
  line("id name " + name_);
  line("id author the makers of Nine Pegs");
  line(fmt::format("option name Hash type spin default 16 min 1 max {}", mostMegabytes));
  line("option name Level type spin default 0 min 0 max 9");
  line(fmt::format("option name MultiPV type spin default 1 min 1 max {}", mostLines));
  line("option name Ponder type check default false");
  line("uciok");
}

void UciServer::option(const Words& words) {
  auto value = std::find(words.begin(), words.end(), "value");
  if (words.size() < 5 || words[1] != "name" || value + 1 >= words.end()) return;
  std::optional<unsigned long long> number = wholeNumber(*(value + 1), mostMegabytes);
  if (words[2] == "Hash" && number && *number > 0) megabytes_ = *number;
  if (words[2] == "MultiPV" && number && *number > 0)
    lines_ = static_cast<int>(std::min<unsigned long long>(*number, mostLines));
  if (words[2] == "Level" && number && *number <= 9) level_ = static_cast<int>(*number);
}

// If anything of it is wrong, there is none until the next one. Programs tell all moves again each
// time: what was told before is not played again.
void UciServer::position(const Words& words) {
  auto moves = std::find(words.begin(), words.end(), "moves");
  if (words.size() < 2 || (words[1] != "startpos" && words[1] != "fen"))
    return line("info string a position begins with startpos or fen");
  Words from(words.begin() + 1, moves);
  Words told(moves == words.end() ? moves : moves + 1, words.end());
  try {
    bool goesOn = from == from_ && told_.size() <= told.size() &&
                  std::equal(told_.begin(), told_.end(), told.begin());
    Position to = position_;
    if (!goesOn)
      to = from[0] == "fen"
               ? game_.readPosition(joined(Words(from.begin() + 1, from.end()), " "), "position")
               : game_.start();
    for (std::size_t i = goesOn ? told_.size() : 0; i < told.size(); ++i) {
      std::optional<Move> found = moveOfCoordinates(game_, to, told[i]);
      if (!found) return line(fmt::format("info string no legal move: {}", clipped(told[i], 40)));
      game_.apply(to, *found);
    }
    position_ = std::move(to);
    from_ = std::move(from);
    told_ = std::move(told);
    sound_ = true;
  } catch (const BadInput& error) {
    line("info string " + error.diagnostics().front().message);
  }
}

// The moves behind `searchmoves`, as far as they are legal.
std::vector<Move> UciServer::onlyThese(const Words& words) const {
  std::vector<Move> out;
  auto at = std::find(words.begin(), words.end(), "searchmoves");
  for (at = at == words.end() ? at : at + 1; at != words.end(); ++at)
    if (std::optional<Move> found = moveOfCoordinates(game_, position_, *at)) out.push_back(*found);
  return out;
}

play::SearchLimits UciServer::limitsOf(const Words& words) const {
  play::SearchLimits limits;
  limits.megabytes = megabytes_;
  limits.level = level_;
  auto plies = [](std::uint64_t many) {
    return static_cast<int>(
        std::clamp<std::uint64_t>(many, 1, static_cast<std::uint64_t>(limits::searchDepth)));
  };
  if (auto depth = behind(words, "depth")) limits.depth = plies(*depth);
  // A mate in so many moves of the side to move.
  if (auto mate = behind(words, "mate"))
    limits.depth = plies(std::min<std::uint64_t>(*mate, limits::searchDepth) * 2 - (*mate > 0));
  if (auto nodes = behind(words, "nodes")) limits.nodes = std::max<std::uint64_t>(*nodes, 1);
  if (auto time = behind(words, "movetime"))
    limits.seconds = std::max(0.001, secondsOf(*time) - reserve);
  bool white = game_.toMove(position_) == 0;
  if (auto clock = behind(words, white ? "wtime" : "btime"); clock && limits.seconds <= 0) {
    double left = secondsOf(*clock);
    double more = secondsOf(behind(words, white ? "winc" : "binc").value_or(0));
    auto moves = static_cast<double>(behind(words, "movestogo").value_or(0));
    double share = left / (moves > 0 ? moves : movesLeft) + 0.8 * more;
    limits.seconds = std::max(0.001, std::min(share, mostOfClock * left) - reserve);
  } else if (has(words, "wtime") || has(words, "btime")) {
    if (limits.seconds <= 0) limits.seconds = noClock;
  }
  limits.only = onlyThese(words);
  return limits;
}

void UciServer::go(const Words& words) {
  play::SearchLimits limits = limitsOf(words);
  // Until `stop` or `ponderhit`.
  bool limited = limits.depth > 0 || limits.nodes > 0 || limits.seconds > 0;
  bool ponders = has(words, "ponder"), waits = ponders || has(words, "infinite") || !limited;
  afterHit_ = limits;
  if (waits) limits.nodes = 0, limits.seconds = 0, limits.depth = limits::searchDepth;
  begin(limits, waits, ponders);
}

void UciServer::begin(const play::SearchLimits& limits, bool waits, bool ponders) {
  endless_ = waits;
  ponders_ = ponders;
  silent_ = false;
  thinking_ = std::thread([this, limits, waits] { think(limits, waits); });
}

// The move that was pondered on was played: from now on the clock runs.
void UciServer::ponderHit() {
  if (!ponders_ || !thinking_.joinable()) return;
  play::SearchLimits limits = afterHit_;
  bool limited = limits.depth > 0 || limits.nodes > 0 || limits.seconds > 0;
  if (!limited) return halt();  // what was found until now is the answer
  silent_ = true;
  halt();
  begin(limits, false, false);
}

void UciServer::think(const play::SearchLimits& limits, bool waits) {
  std::string best = "0000";  // no move
  try {
    if (!sound_)
      line("info string there is no position to think about: the last one told was none");
    else if (mayMove())
      best = lines_ > 1 ? severalLines(limits) : oneLine(limits);
  } catch (const BadInput& error) {  // rules that come to no end
    line("info string " + error.diagnostics().front().message);
  }
  // What was asked for without a limit is answered when it is told to stop.
  while (waits && !wantsStop(&stop_)) std::this_thread::sleep_for(std::chrono::milliseconds(2));
  if (!silent_) line("bestmove " + best);
}

// An end that a side may claim leaves it the move.
bool UciServer::mayMove() const {
  Result result = game_.result(position_);
  return (result.kind == ResultKind::ongoing || result.claim) && game_.countMoves(position_) > 0;
}

// "e2e4", and what it expects of the other side.
std::string UciServer::bestOf(const play::Choice& choice) const {
  std::string out = coordinatesOf(game_, position_, choice.move);
  if (choice.better || choice.line.size() < 2 || !(choice.line.front() == choice.move)) return out;
  Position after = position_;
  game_.apply(after, choice.move);
  return out + " ponder " + coordinatesOf(game_, after, choice.line[1]);
}

std::string UciServer::oneLine(const play::SearchLimits& limits) {
  std::unique_ptr<play::Opponent> search = play::makeSearch(limits);
  search->stopWith(&stop_);
  Stream stream(1, 0);
  search->tellSteps([this](const play::Choice::Step& step) { tell(step, 0); });
  return bestOf(search->choose(game_, position_, stream));
}

// Depth by depth the best move, then the best of the others, and so on.
std::string UciServer::severalLines(const play::SearchLimits& limits) {
  MoveList legal;
  game_.listMoves(position_, legal);
  std::vector<Move> all =
      limits.only.empty() ? std::vector<Move>(legal.begin(), legal.end()) : limits.only;
  auto lines = std::min(static_cast<std::size_t>(lines_), all.size());
  int deepest = limits.depth > 0 ? limits.depth : limits::searchDepth;
  auto begun = std::chrono::steady_clock::now();
  std::uint64_t nodes = 0;
  std::string best;
  for (int depth = 1; depth <= deepest; ++depth) {
    std::vector<Move> left = all;
    bool whole = true;
    for (std::size_t number = 1; number <= lines; ++number) {
      std::chrono::duration<double> spent = std::chrono::steady_clock::now() - begun;
      play::SearchLimits own = limits;
      own.depth = depth, own.only = left;
      if (limits.seconds > 0) own.seconds = std::max(0.001, limits.seconds - spent.count());
      if (limits.nodes > 0) own.nodes = nodes < limits.nodes ? limits.nodes - nodes : 1;
      std::unique_ptr<play::Opponent> search = play::makeSearch(own);
      search->stopWith(&stop_);
      Stream stream(1, 0);
      play::Choice choice = search->choose(game_, position_, stream);
      nodes += choice.nodes;
      if (number == 1 && (best.empty() || choice.depth >= depth || choice.solved))
        best = bestOf(choice);
      bool finished = choice.depth >= depth || choice.solved;
      if (finished && !choice.steps.empty()) {
        play::Choice::Step step = choice.steps.back();
        step.nodes = nodes;
        step.seconds = spent.count() + choice.seconds;
        step.depth = depth;
        tell(step, static_cast<int>(number));
      }
      whole = whole && choice.whole;
      std::erase(left, choice.better.value_or(choice.move));
      bool over = wantsStop(&stop_) || (limits.nodes > 0 && nodes >= limits.nodes) ||
                  (limits.seconds > 0 && spent.count() + choice.seconds >= limits.seconds);
      if (over && !best.empty()) return best;
    }
    if (whole) break;
  }
  return best;
}

// `number`: which of several lines; 0: the only one.
void UciServer::tell(const play::Choice::Step& step, int number) {
  if (silent_) return;
  std::string moves;
  Position at = position_;
  for (const Move& move : step.line) {
    moves += " " + coordinatesOf(game_, at, move);
    game_.apply(at, move);
  }
  line(fmt::format("info depth {}{} score {} nodes {} nps {:.0f} time {:.0f}{}", step.depth,
                   number > 0 ? fmt::format(" multipv {}", number) : "", scoreText(step.score),
                   step.nodes, static_cast<double>(step.nodes) / std::max(step.seconds, 1e-6),
                   step.seconds * 1000, moves.empty() ? "" : " pv" + moves));
}

}  // namespace ninepegs::engines
