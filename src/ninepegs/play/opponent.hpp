// Computer opponents.
//
//   std::unique_ptr<Opponent> opponent = makeOpponent("search:depth=6", "--second");
//   Stream stream(seed, gameNumber);
//   Choice choice = opponent->choose(*game, position, stream);
//
// In a game with secrets opponents choose from what their side knows: see knowledge.hpp.
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "ninepegs/base/random.hpp"
#include "ninepegs/base/stop.hpp"
#include "ninepegs/game/game.hpp"

namespace ninepegs::play {

class Knowledge;  // knowledge.hpp
class WorkedOut;  // worked_out.hpp

// A move and how it was found.
struct Choice {
  Move move;
  int depth = 0;            // plies looked ahead in full
  std::uint64_t nodes = 0;  // positions looked at
  double seconds = 0;
  bool solved = false;     // a win, a loss, or `whole`: the result is certain
  bool whole = false;      // every line was followed to its end
  std::int64_t score = 0;  // for the side that moves; see winScore
  std::vector<Move> line;  // the play that was expected, beginning with the move
  // Of a level that drew its move from all legal ones this time: the best that it had found. The
  // score, the line and the steps are of that one.
  std::optional<Move> better;
  // Of an exact search: the score of a win is one that was found, and there may be a sooner one.
  bool bound = false;
  // Where something is hidden: the score of each legal move in thousandths, on the mean of so many
  // positions where the side may be, or fewer if it did badly in the first; none of an opponent
  // that does not weigh them.
  std::vector<std::int64_t> means;
  std::size_t positions = 0;
  // Each legal move as it was weighed; none of an opponent that does not weigh all of them.
  struct Weighed {
    Move move;
    std::int64_t score = 0;
    std::uint64_t nodes = 0;  // that were looked at behind it
    std::vector<Move> line;   // beginning with the move
  };
  std::vector<Weighed> weighed;
  // Nodes are games played to their ends, and scores go from -1000, all lost, to 1000, all won; one
  // that decides is proved, but its plies say nothing.
  bool byPlayouts = false;
  // How it went on, by depth or by number of playouts; none of an opponent that does not deepen.
  struct Step {
    int depth = 0;
    std::int64_t score = 0;
    std::uint64_t nodes = 0;  // up to here, as the seconds
    double seconds = 0;
    std::vector<Move> line;
    bool bound = false;       // likewise
    bool byPlayouts = false;  // likewise
  };
  std::vector<Step> steps;
};

// Scores above `winScore - limits::searchDepth` are wins: winScore less the plies until then.
inline constexpr std::int64_t winScore = 1'000'000'000;
// Is it the score of a win or of a loss?
bool decides(std::int64_t score);

// An opponent may keep what it learned between moves, so it belongs to one game at a time and to
// one thread.
class Opponent {
 public:
  virtual ~Opponent() = default;
  // A legal move. The position must have one. Draws only from the stream, so that equal streams
  // give equal games, unless a limit of time was set.
  virtual Choice choose(const Game& game, const Position& position, Stream& stream) = 0;
  // The same where something is hidden from the side to move (Game::secrets): nothing is read but
  // what that side knows. Requires that it is that side's turn, and that it has a move.
  virtual Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) = 0;
  // Before each choose(): where the game began and every move since then, for an opponent that
  // keeps the game itself. Not in a game with secrets.
  virtual void follow(const Game&, const Position& /*start*/, const MoveList& /*moves*/) {}
  virtual std::string name() const = 0;
  // Asks a choice under way to end soon with the best move found so far.
  void stopWith(const StopFlag* stop) { stop_ = stop; }
  // From now on each step of a choice is told as soon as it is done, from the thread that chooses;
  // an opponent that does not deepen tells none. Minimax goes depth by depth only if it is asked
  // to.
  void tellSteps(std::function<void(const Choice::Step&)> tell) { tell_ = std::move(tell); }
  // Called now and then with the positions looked at so far, from the thread that chooses; an
  // opponent that cannot tell calls it never.
  void tellProgress(std::function<void(std::uint64_t nodes)> tell) { progress_ = std::move(tell); }
  // Of a sheet without worth: as SearchLimits::measure. Counts for nothing where none is used.
  void measureBy(std::shared_ptr<WorkedOut> measure) { measure_ = std::move(measure); }

 protected:
  const StopFlag* stop_ = nullptr;
  std::function<void(std::uint64_t nodes)> progress_;
  std::shared_ptr<WorkedOut> measure_;
  std::function<void(const Choice::Step&)> tell_;
};

// From a text: random, greedy, minimax:depth=3, search, search:depth=6, search:time=2,
// search:nodes=50000, playouts:playouts=2000, and several limits divided by commas. Throws
// BadInput; `source` names the option in messages.
std::unique_ptr<Opponent> makeOpponent(std::string_view text, const std::string& source);

std::vector<std::string> opponentNames();

struct SearchLimits;
struct PlayoutLimits;
// The text that makes an opponent of these limits; but `exact` only a program can ask for.
std::string nameOf(const SearchLimits& limits);
std::string nameOf(const PlayoutLimits& limits);

// Each legal move is equally likely.
std::unique_ptr<Opponent> makeRandom();
// Wins at once if it can; else, if it can, keeps the other side from winning at once; else random.
std::unique_ptr<Opponent> makeGreedy();

// Every line is followed for so many plies, nothing is left out (minimax.cpp): to compare with.
std::unique_ptr<Opponent> makeMinimax(int depth);

// Of an opponent without limits of its own: some two seconds of heavy rules at most.
inline constexpr std::int64_t usualSteps = 30'000'000;

struct SearchLimits {
  int depth = 0;                // plies; 0: no limit
  double seconds = 0;           // 0: no limit
  std::uint64_t nodes = 0;      // 0: no limit
  std::uint64_t megabytes = 0;  // of the table; 0: 8
  // Steps of rules (limits::loopSteps) that may be made: a limit of time that is the same on every
  // machine, for heavy rules. 0: no limit.
  std::int64_t steps = 0;
  // Nothing is guessed: the measure counts for nothing and no line is looked at less deeply, so
  // that a win is a shortest one, and a draw is one if every line was followed to its end.
  bool exact = false;
  // 1 to 9: so strong a player, 1 being the weakest; then `nodes` is given by it. 0: none.
  int level = 0;
  // Where something is hidden: so many pasts that agree with what is known; 0: 120 or more.
  std::uint64_t pasts = 0;
  // Beside each other, with one table; 0: 1. With more than one the same seed may give another
  // move, and each looks at its share of `nodes`.
  int threads = 0;
  // Legal moves of the position, if only these may be chosen; empty: all.
  std::vector<Move> only{};
  // Of a sheet without worth, for several searches whose scores are compared: the first works it
  // out, the others take it as it is. Null: every search works it out for itself. Not for searches
  // at the same time.
  std::shared_ptr<WorkedOut> measure = nullptr;
  // Called now and then with the positions that the first thread has looked at, from that thread.
  std::function<void(std::uint64_t nodes)> progress = nullptr;
};
// Alpha-beta with iterative deepening and a table of positions seen (search.cpp).
std::unique_ptr<Opponent> makeSearch(const SearchLimits& limits);

struct PlayoutLimits {
  std::uint64_t playouts = 0;   // 0: no limit
  double seconds = 0;           // 0: no limit
  std::uint64_t megabytes = 0;  // of the tree; 0: 64
  std::uint64_t pasts = 0;      // as of SearchLimits
  // A tree each, beside each other, which decide together; 0: 1. Each plays its share of
  // `playouts`, so that the same seed gives the same move.
  int threads = 0;
  std::int64_t steps = 0;  // as of SearchLimits, for each tree
};
// A tree of moves that grows where playouts from it go well (playout_tree.cpp).
std::unique_ptr<Opponent> makePlayouts(const PlayoutLimits& limits);

}  // namespace ninepegs::play
