// How a search begins: what it knows of the game before it looks at the first move.
#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/play/alpha_beta.hpp"
#include "ninepegs/play/images.hpp"
#include "ninepegs/play/other_worth.hpp"

namespace ninepegs::play {
namespace {

constexpr std::uint64_t usualMegabytes = 8;
constexpr std::uint64_t workedGames = 400;        // that a measure is worked out from
constexpr std::int32_t usualThreat = 30;          // at first, beside what cuts have gained
constexpr int imagedShare = 8, fewestImaged = 4;  // of the plies of whole games

}  // namespace

std::vector<Symmetry> imagesOf(const Game& game) {
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr || game.remembersPositions()) return {};
  return sheet->keptSymmetries();
}

// Does anything take another piece in a few games from here? Where nothing does, there is no need
// to look for it at the end of every line.
bool AlphaBeta::anythingTakes(const Position& position) {
  constexpr int games = 6, plies = 60;
  if (!measured_) return false;
  MoveList moves;
  bool found = false;
  for (int number = 0; number < games && !found; ++number) {
    Stream stream(1, static_cast<std::uint64_t>(number));
    live_->setUp(position);
    for (int ply = 0; ply < plies && !live_->ended() && !found; ++ply) {
      live_->listMoves(moves);
      if (moves.empty()) break;
      for (const Move& move : moves) found = found || live_->takes(move);
      live_->play(moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    }
  }
  return found;
}

// The plies of the longest of some random games from here; 0 if one of them went on and on.
int AlphaBeta::lengthOfGames() {
  constexpr int games = 40;
  int longest = 0, most = limits::searchDepth;
  for (int number = 0; number < games; ++number) {
    Stream stream(1, static_cast<std::uint64_t>(number));
    int plies = 0;
    bool goesOn = false;
    try {
      while (plies <= most && !live_->ended() && live_->playDrawn(stream)) ++plies;
    } catch (const RunawayRules&) {  // further on than a search may come
      goesOn = true;
    }
    for (int i = 0; i < plies; ++i) live_->takeBack();
    if (goesOn || plies > most) return 0;
    longest = std::max(longest, plies);
  }
  return longest;
}

void AlphaBeta::liveOn(const Position& position) {
  std::unique_ptr<LineLive> lines;
  if (limits_.exact) lines = LineLive::of(*game_, position, images_);
  lines_ = lines.get();
  live_ = lines ? std::move(lines) : played().live();
}

void AlphaBeta::begin(const Game& game, const Position& position, const SearchLimits& limits,
                      const StopFlag* stop) {
  limits_ = limits;
  stop_ = stop;
  if (!game_.is(game) || table_->empty()) {
    table_->resize(limits_.megabytes == 0 ? usualMegabytes : limits_.megabytes);
    history_.assign(historySize, 0);
  }
  begun_ = std::chrono::steady_clock::now();
  stepsAtBegin_ = ambient.left;
  measured_ = game.measure() != nullptr;
  worksOut_ = !measured_ && !limits_.exact;
  if (!game_.is(game)) {
    live_.reset();
    workedOut_ = limits_.measure ? limits_.measure : std::make_shared<WorkedOut>();
    if (!measured_ && !workedOut_->known()) workedOut_->byLines = withOpenLines(game);
    images_ = limits_.exact ? imagesOf(game) : std::vector<Symmetry>{};
  }
  measured_ = measured_ || workedOut_->byLines;  // an exact search only orders moves by it
  game_ = game;
  table_->nextSearch();
  busy_ = nullptr;
  liveOn(position);
  if (worksOut_) {
    // As many games as cost little beside the search; at first more.
    std::uint64_t plies = workedOut_->known() ? limits_.nodes / 3 : limits_.nodes;
    Stream stream(1, position.words.empty() ? 0 : game.hash(position));
    if (!limits_.measure || !workedOut_->known())
      workedOut_->learn(played(), position,
                        {.games = workedGames,
                         .plies = plies,
                         .seconds = limits_.seconds / 4,
                         .steps = limits_.steps / 3},
                        stream);
    measured_ = true;
  }
  takes_ = !limits_.exact && anythingTakes(position);
  beginAt(position);
}

void AlphaBeta::beginBeside(AlphaBeta& other, const Position& position, const StopFlag* stop) {
  if (game_ != other.game_) history_.assign(historySize, 0);
  live_.reset();
  game_ = other.game_;
  images_ = other.images_;
  table_ = other.table_;
  if (other.busy_ == nullptr) other.busy_ = std::make_shared<BusyPositions>();
  busy_ = other.busy_;
  limits_ = other.limits_;
  limits_.nodes = 0, limits_.seconds = 0, limits_.steps = 0, limits_.progress = nullptr;
  stop_ = stop;
  begun_ = other.begun_;
  measured_ = other.measured_, takes_ = other.takes_;
  worksOut_ = other.worksOut_;
  workedOut_ = std::make_shared<WorkedOut>(*other.workedOut_);
  liveOn(position);
  beginAt(position);
}

// Everything but what is known of the game.
void AlphaBeta::beginAt(const Position& position) {
  nodes_ = asksAt_ = tellsAt_ = 0;
  stopped_ = false;
  lastScore_ = swing_ = 0;
  open_ = limits_.exact;
  found_ = 0;
  lineFound_.clear();
  live_->setUp(position);
  if (lines_ != nullptr) {
    // One ply for each empty cell, and one in which it is seen that there is none left.
    usualGames_ = wholeGames_ = std::min(lines_->left() + 1, limits::searchDepth);
  } else {
    usualGames_ = limits_.exact ? lengthOfGames() : 0;
    wholeGames_ = usualGames_ > 0 ? std::min(2 * usualGames_ + 8, limits::searchDepth) : 0;
  }
  imagedPlies_ = wholeGames_ > 0 ? wholeGames_ / imagedShare : fewestImaged;
  for (std::int32_t& one : history_) one /= 8;
  for (auto& worth : threatWorth_) worth.fill(usualThreat);
  if (lines_ != nullptr)
    for (Cell cell = 0; cell < game_->board().size(); ++cell)
      for (int side = 0; side < 2; ++side)
        history_[historyPlace(side, lines_->moveTo(cell))] += lines_->linesThrough(cell);
  // Forced moves lead deeper than the depth says.
  int deepest = limits_.depth > 0 ? limits_.depth : limits::searchDepth;
  levels_.resize(
      static_cast<std::size_t>(deepest * (limits_.exact ? 1 : 2) + (takes_ ? deepestTaking : 0)) +
      2);
  for (Level& level : levels_) {
    level.hasKillers[0] = level.hasKillers[1] = false;
    level.threats.clear();
  }
  Level& root = levels_.front();
  live_->listMoves(root.moves);
  root.order.resize(root.moves.size());
  for (std::size_t i = 0; i < root.moves.size(); ++i)
    root.order[i] = {0, static_cast<std::uint16_t>(i)};
  if (limits_.only.empty()) return;
  std::erase_if(root.order, [&](const auto& one) {
    const std::vector<Move>& only = limits_.only;
    return std::find(only.begin(), only.end(), root.moves[one.second]) == only.end();
  });
}

void AlphaBeta::drawOrder(Stream& stream) {
  auto& order = levels_.front().order;
  for (std::size_t i = order.size(); i > 1; --i)
    std::swap(order[i - 1], order[stream.below(static_cast<std::uint32_t>(i))]);
  if (lines_ == nullptr) return;
  std::stable_sort(order.begin(), order.end(), [&](const auto& one, const auto& other) {
    return lines_->linesThrough(moves()[one.second].choices[0]) >
           lines_->linesThrough(moves()[other.second].choices[0]);
  });
}

}  // namespace ninepegs::play
