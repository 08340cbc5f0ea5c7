// Our search for programs that speak UCI (the Universal Chess Interface), of games whose sheet has
// FEN.
//
//   auto say = [](const std::string& line) { texts.push_back(line); };
//   engines::UciServer server(*game, "Nine Pegs", say);
//   server.take("position startpos moves e2e4");
//   server.take("go nodes 1000");
//   server.wait();
//
// Lines it does not know are passed over, as the protocol asks; what is wrong with a position or a
// move is said as `info string`. `go` thinks on a thread of its own, which says its lines, too; a
// server belongs to one thread otherwise.
#pragma once

#include <atomic>
#include <functional>
#include <mutex>
#include <string>
#include <string_view>
#include <thread>
#include <vector>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::engines {

class UciServer {
 public:
  // `say` takes a line without its newline; never two at a time.
  using Say = std::function<void(const std::string& line)>;
  // Requires that the game has FEN (GameNotation::notation). The game must outlive the server.
  UciServer(const Game& game, std::string name, Say say);
  ~UciServer();  // ends what is under way
  UciServer(const UciServer&) = delete;
  UciServer& operator=(const UciServer&) = delete;

  // Takes a line; false: it was `quit`.
  bool take(std::string_view line);
  // Waits until the move that is thought about is found.
  void wait();
  // No more lines come: waits for the move that is thought about, but for one without a limit,
  // which is broken off.
  void finish();

 private:
  using Words = std::vector<std::string>;
  void greet();
  void position(const Words& words);
  void option(const Words& words);
  void go(const Words& words);
  void ponderHit();
  play::SearchLimits limitsOf(const Words& words) const;
  std::vector<Move> onlyThese(const Words& words) const;
  bool mayMove() const;
  void begin(const play::SearchLimits& limits, bool waits, bool ponders);
  void think(const play::SearchLimits& limits, bool waits);
  std::string oneLine(const play::SearchLimits& limits);
  std::string severalLines(const play::SearchLimits& limits);
  std::string bestOf(const play::Choice& choice) const;
  void tell(const play::Choice::Step& step, int number);
  void halt();
  void line(const std::string& text);

  const Game& game_;
  std::string name_;
  Say say_;
  std::mutex saying_;
  Position position_;
  Words from_ = {"startpos"}, told_;  // how the position was told: where it began, and moves
  std::uint64_t megabytes_ = 16;
  bool endless_ = false;             // what is thought about has no limit but `stop`
  bool ponders_ = false;             // ... and is what the other side is expected to play
  play::SearchLimits afterHit_;      // of the move, once that was played
  std::atomic<bool> silent_{false};  // what was begun is given up: nobody is told its move
  bool sound_ = true;                // is the position what was told last?
  int lines_ = 1;
  int level_ = 0;  // 0: as strong as it can
  StopFlag stop_{false};
  std::thread thinking_;
};

}  // namespace ninepegs::engines
