// Alpha-beta search in the negamax form (D. Knuth, R. Moore, "An analysis of alpha-beta pruning",
// Artificial Intelligence 6, 1975) with a table of positions, null windows behind the first move
// (T. Marsland, M. Campbell, "Parallel search of strongly ordered game trees", 1982), moves ordered
// by what cut before (J. Schaeffer, "The history heuristic", 1989), late moves looked at less
// deeply first, forced ones more deeply, and at the end of each line all moves that take. Internal
// to the room.
//
//   AlphaBeta tree;
//   bool whole = true;
//   tree.begin(*game, position, {}, nullptr);
//   std::int64_t score = tree.look(4, whole);
#pragma once

#include <chrono>
#include <optional>
#include <utility>

#include "ninepegs/base/stop.hpp"
#include "ninepegs/play/busy_positions.hpp"
#include "ninepegs/play/line_live.hpp"
#include "ninepegs/play/measure.hpp"
#include "ninepegs/play/position_table.hpp"
#include "ninepegs/play/worked_out.hpp"

namespace ninepegs::play {

class AlphaBeta {
 public:
  // From now on this position, which must have a legal move. What the table and the order of moves
  // learned of the game is kept. `limits.nodes` 0: no limit.
  void begin(const Game& game, const Position& position, const SearchLimits& limits,
             const StopFlag* stop);
  // The same for a search beside another, which has begun: with its table, and what it knows of the
  // game. It has no limits but `stop`.
  void beginBeside(AlphaBeta& other, const Position& position, const StopFlag* stop);
  // Moves of equal worth at the root are tried in a drawn order, so that games differ by their
  // seed.
  void drawOrder(Stream& stream);
  const MoveList& moves() const { return levels_.front().moves; }
  const Move& firstMove() const { return moves()[levels_.front().order.front().second]; }

  // The score of the position for the side to move, so many plies on. `whole` becomes false if a
  // line was not followed to its end. Nothing counts if it stopped on the way.
  std::int64_t look(int depth, bool& whole);
  // Of an exact search: follows whole games. 1: the side to move wins, -1: it loses, 0: neither;
  // nothing if that was not settled with so many positions. What was found meanwhile is kept.
  std::optional<int> lookToEnds(std::uint64_t nodes);
  // Of an exact search, once a win is known (`found`): is there a sooner one, and a sooner one than
  // that? The score, if that was settled with so many positions.
  std::optional<std::int64_t> lookForSooner(std::uint64_t nodes);
  // Of an exact search: does the side to move win (else: does it lose) within so many plies,
  // whatever the other side does? Nothing if it stopped. Requires plies <= limits::searchDepth.
  std::optional<bool> forces(bool wins, int plies);
  // The best win that an exact search has found, a loss if it is the other side's; 0: none.
  std::int64_t found() const { return found_; }
  const std::vector<Move>& lineFound() const { return lineFound_; }  // how it goes on; may be empty
  // So many positions are worth a look at whole games before the next depth.
  std::uint64_t nodesToEnds() const { return nodes_ * (lines_ != nullptr ? 20 : 2); }
  bool stopped() const { return stopped_; }
  // The play that was expected when it looked last; may be empty.
  const std::vector<Move>& line() const { return levels_.front().line; }
  std::uint64_t nodes() const { return nodes_; }
  double seconds() const {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
  }

 private:
  static constexpr std::int64_t endless = winScore * 2;
  static constexpr std::size_t historySize = 1 << 13;
  static constexpr std::int32_t highestRank = 1 << 30;  // of the table's move
  static constexpr int sharedFrom = 4;                  // plies left
  static constexpr int deepestTaking = 12;              // plies behind the last, of moves that take

  // A move that takes, where the search has come to its depth.
  struct Taken {
    std::int64_t score = 0;   // for the side that moves, if that is all
    std::int64_t behind = 0;  // for the side to move behind it
    std::uint16_t move = 0;   // its number
    bool again = false, over = false;
  };
  // A move that is weighed before it is followed.
  struct Weighed {
    std::uint64_t hash = 0;  // of the position behind it
    bool again = false;      // the same side moves there
    bool open = false;       // neither over there, nor known to be too little
    std::int64_t worth = 0, replies = 0;
  };
  // What the table knows of the position behind a move: neither, if it knows too little.
  struct Behind {
    bool enough = false, tooLittle = false;
    bool whole = false;
    std::int64_t score = 0;  // of the move
  };
  struct Level {
    MoveList moves;
    std::vector<Weighed> weighed;
    std::vector<Taken> taken;
    std::vector<std::uint64_t> threats;  // of a game of lines, by number of the move; or none
    std::vector<std::pair<std::int32_t, std::uint16_t>> order;  // rank, number of the move
    std::vector<Move> line;
    Move killers[2];
    bool hasKillers[2] = {false, false};
  };

  void beginAt(const Position& position);
  // The game, measured by open lines if it has no measure and its rules speak of lines.
  const Game& played() const { return workedOut_->byLines ? *workedOut_->byLines : *game_; }
  void goOn() {  // after a pause
    pauseAt_ = 0;
    if (paused_) stopped_ = paused_ = false;
  }
  void note(std::int64_t score);
  bool anythingTakes(const Position& position);
  std::int64_t leaf() {
    return worksOut_ ? workedOut_->worth(*live_, live_->toMove()) : leafScore(*live_, measured_);
  }
  std::int64_t look(int ply, int depth, std::int64_t alpha, std::int64_t beta, bool& whole);
  std::int64_t below(int ply, int depth, std::int64_t alpha, std::int64_t beta, int side,
                     bool& whole);
  // `known`: the table knows the move that is first.
  std::int64_t lookAtMoves(int ply, int depth, std::int64_t alpha, std::int64_t beta, bool known,
                           std::uint16_t& bestMove, bool& whole);
  void weighTaking(Level& level, int ply);
  void takeLine(Level& level, const Move& move, int ply);
  void finishLine();
  std::int64_t taking(int ply, int deep, std::int64_t best, std::int64_t alpha, std::int64_t beta);
  int lengthOfGames();
  void weigh(Level& level, std::size_t from, int ply, int depth, std::int64_t alpha,
             std::int64_t beta);
  // `again`: the same side moves there.
  Behind knownOf(std::uint64_t hash, bool again, int ply, int depth, std::int64_t alpha,
                 std::int64_t beta) const;
  void sortOpen(Level& level, std::size_t from);
  // Scores of wins count plies from the position in the table, from the root outside it.
  static std::int64_t stored(std::int64_t score, int ply) {
    return !decides(score) ? score : score > 0 ? score + ply : score - ply;
  }
  static std::int64_t fetched(std::int64_t score, int ply) { return stored(score, -ply); }
  void putInOrder(Level& level, int ply, int depth, std::uint16_t first);
  void rank(Level& level, int depth, std::uint16_t first);
  // Of a game of lines: is it over now, with the next ply or with the one behind it? Then `score`
  // is said.
  bool settledAtOnce(Level& level, int ply, int depth, std::int64_t& score);
  void rankByLines(Level& level, int depth);
  // Likewise: does the table know a move that is enough? Those come last that are known to be too
  // little.
  bool knownBehind(Level& level, int ply, int depth, std::int64_t alpha, std::int64_t beta,
                   std::int64_t& score, bool& whole);
  // What the table knows the live position by: its hash, or near the root that of an image.
  std::uint64_t keyOf(int ply, std::uint64_t hash) {
    return images_.empty() || ply > imagedPlies_ ? hash : keyOfImages(hash);
  }
  std::uint64_t keyOfImages(std::uint64_t hash);
  void liveOn(const Position& position);
  // With several threads: is enough left below to leave it to another for the moment?
  bool shared(int ply, int depth) const {
    return busy_ != nullptr &&
           (wholeGames_ > 0 ? ply + sharedFrom <= usualGames_ : depth >= sharedFrom);
  }
  bool outOfBudget();
  bool spent() const { return limits_.nodes > 0 && nodes_ >= limits_.nodes; }
  bool outOfSteps() const {
    return limits_.steps > 0 && stepsAtBegin_ - ambient.left >= limits_.steps;
  }
  bool outOfTime() const { return limits_.seconds > 0 && seconds() >= limits_.seconds; }
  static std::size_t historyPlace(int side, const Move& move) {
    std::size_t key = move.group;
    key = key * 31 + (move.count > 0 ? move.choices[0] : 0u);
    key = key * 517 + (move.count > 1 ? move.choices[move.count - 1] : 0u);
    return (key * 2 + static_cast<std::size_t>(side)) % historySize;
  }
  void cutBy(Level& level, std::size_t at, int depth, int side);
  template <class Look>
  void eachThreat(const Level& level, std::size_t move, int side, Look look);
  void learnThreats(const Level& level, std::size_t at, int side);

  SearchLimits limits_;
  const StopFlag* stop_ = nullptr;
  KnownGame game_;
  std::unique_ptr<LivePosition> live_;
  LineLive* lines_ = nullptr;  // the live position, where an exact search follows lines
  bool measured_ = false, takes_ = false;
  // Of an exact search: images of a position that are worth the same; near the root all of them
  // have one place in the table.
  std::vector<Symmetry> images_;
  Position imaged_;
  std::shared_ptr<PositionTable> table_ = std::make_shared<PositionTable>();
  std::shared_ptr<BusyPositions> busy_;  // of the threads of this search; none: it is alone
  std::vector<Level> levels_;
  std::vector<std::int32_t> history_;
  // Of a game of lines: what a threat at a cell is worth in the order of moves, by side.
  std::array<std::array<std::int32_t, LineLive::most>, 2> threatWorth_{};
  std::uint64_t nodes_ = 0;
  int rootDepth_ = 0;
  std::int64_t lastScore_ = 0, swing_ = 0;  // of the depth before, and how much scores change
  // Of an exact search: nobody can force a win in a ply less, so that all there is to find out is
  // whether somebody can now.
  bool open_ = false;
  std::int64_t found_ = 0;
  std::vector<Move> lineFound_;
  std::uint64_t pauseAt_ = 0;               // nodes; 0: never
  std::uint64_t asksAt_ = 0, tellsAt_ = 0;  // nodes, where it looks at its limits next
  bool paused_ = false;
  int wholeGames_ = 0;   // plies that no game from here should exceed; 0: they have no end in sight
  int usualGames_ = 0;   // plies of a long one of the games that were tried; 0: likewise
  int imagedPlies_ = 0;  // from the root, where positions are held against their images
  std::int64_t stepsAtBegin_ = 0;  // that were left then, of this thread
  bool stopped_ = false;
  // What it looks at now is for the line alone, up to so many positions; 0: it is not.
  std::uint64_t finishesAt_ = 0;
  std::chrono::steady_clock::time_point begun_;
  std::shared_ptr<WorkedOut> workedOut_ = std::make_shared<WorkedOut>();
  bool worksOut_ = false;  // the sheet has no measure
};

}  // namespace ninepegs::play
