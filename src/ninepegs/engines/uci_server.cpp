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
constexpr double movesLeft = 30;     // where the clock does not say how many it is for
constexpr double mostOfClock = 0.4;  // of what is left, for one move
constexpr double reserve = 0.03;     // seconds that are lost on the way
constexpr std::uint64_t many = 1'000'000'000'000ull;

// The number behind a word of `go`.
std::optional<std::uint64_t> behind(const std::vector<std::string>& words, const char* word) {
  for (std::size_t i = 0; i + 1 < words.size(); ++i)
    if (words[i] == word) return wholeNumber(words[i + 1], many);
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
  if (word == "isready") line("readyok");
  if (word == "uci") greet();
  if (word == "ucinewgame" || word == "position" || word == "setoption" || word == "go") {
    halt();  // none of these may come while a move is thought about
    if (word == "ucinewgame") {
      position_ = game_.start();
      from_ = {"startpos"};
      told_.clear();
    }
    if (word == "position") position(words);
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
  line("uciok");
}

void UciServer::option(const Words& words) {
  auto value = std::find(words.begin(), words.end(), "value");
  if (words.size() < 5 || words[1] != "name" || value + 1 >= words.end()) return;
  std::optional<unsigned long long> number = wholeNumber(*(value + 1), mostMegabytes);
  if (words[2] == "Hash" && number && *number > 0) megabytes_ = *number;
  if (words[2] == "Level" && number && *number <= 9) level_ = static_cast<int>(*number);
}

// If anything of it is wrong, the position stays as it was. Programs tell all moves again each
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
  } catch (const BadInput& error) {
    line("info string " + error.diagnostics().front().message);
  }
}

void UciServer::go(const Words& words) {
  play::SearchLimits limits;
  limits.megabytes = megabytes_;
  limits.level = level_;
  if (auto depth = behind(words, "depth"))
    limits.depth = static_cast<int>(
        std::clamp<std::uint64_t>(*depth, 1, static_cast<std::uint64_t>(limits::searchDepth)));
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
  }
  bool waits = has(words, "infinite") || has(words, "ponder");
  bool limited = limits.depth > 0 || limits.nodes > 0 || limits.seconds > 0;
  if (waits || !limited) {
    limits = {};
    limits.depth = limits::searchDepth;
    limits.megabytes = megabytes_;
    waits = true;
  }
  endless_ = waits;
  thinking_ = std::thread([this, limits, waits] { think(limits, waits); });
}

void UciServer::think(const play::SearchLimits& limits, bool waits) {
  std::string best = "0000";  // no move
  try {
    if (!game_.ended(position_) && game_.countMoves(position_) > 0) {
      std::unique_ptr<play::Opponent> search = play::makeSearch(limits);
      search->stopWith(&stop_);
      Stream stream(1, 0);
      search->tellSteps([this](const play::Choice::Step& step) { tell(step); });
      play::Choice choice = search->choose(game_, position_, stream);
      best = coordinatesOf(game_, position_, choice.move);
    }
  } catch (const BadInput& error) {  // rules that come to no end
    line("info string " + error.diagnostics().front().message);
  }
  // What was asked for without a limit is answered when it is told to stop.
  while (waits && !wantsStop(&stop_)) std::this_thread::sleep_for(std::chrono::milliseconds(2));
  line("bestmove " + best);
}

void UciServer::tell(const play::Choice::Step& step) {
  std::string moves;
  Position at = position_;
  for (const Move& move : step.line) {
    moves += " " + coordinatesOf(game_, at, move);
    game_.apply(at, move);
  }
  line(fmt::format("info depth {} score {} nodes {} nps {:.0f} time {:.0f}{}", step.depth,
                   scoreText(step.score), step.nodes,
                   static_cast<double>(step.nodes) / std::max(step.seconds, 1e-6),
                   step.seconds * 1000, moves.empty() ? "" : " pv" + moves));
}

}  // namespace ninepegs::engines
