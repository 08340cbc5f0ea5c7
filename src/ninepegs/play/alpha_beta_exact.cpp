// Exact results: whole games, and the soonest win.
#include <algorithm>
#include <cstdlib>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/play/alpha_beta.hpp"

namespace ninepegs::play {

std::uint64_t AlphaBeta::keyOfImages(std::uint64_t hash) {
  if (lines_ != nullptr) return lines_->leastHash();
  live_->copyTo(imaged_);
  for (const Symmetry& one : images_)
    hash = std::min(hash, game_->hash(game_->checks()->mapped(imaged_, one)));
  return hash;
}

std::optional<int> AlphaBeta::lookToEnds(std::uint64_t nodes) {
  if (!open_ || found_ != 0 || wholeGames_ == 0 || game_->remembersPositions()) return std::nullopt;
  rootDepth_ = wholeGames_;
  pauseAt_ = nodes_ + nodes;
  std::optional<int> result;
  bool whole = true;
  std::int64_t score = look(0, wholeGames_, 0, 1, whole);
  if (!stopped_ && decides(score) && score > 0) {
    result = 1;
  } else if (!stopped_ && whole) {
    score = look(0, wholeGames_, -1, 0, whole);
    if (!stopped_ && decides(score)) result = -1;
    if (!stopped_ && !decides(score) && whole) result = 0;
  }
  if (result && *result != 0) note(score);
  goOn();
  return result;
}

std::optional<std::int64_t> AlphaBeta::lookForSooner(std::uint64_t nodes) {
  if (found_ == 0) return std::nullopt;
  pauseAt_ = nodes_ + nodes;
  std::optional<std::int64_t> settled;
  while (!settled && !stopped_) {
    auto plies = static_cast<int>(winScore - std::abs(found_));
    std::int64_t low = found_ > 0 ? found_ : found_ - 1;
    if (plies <= 1 || plies > limits::searchDepth) break;
    rootDepth_ = plies - 1;
    bool whole = true;
    std::int64_t score = look(0, plies - 1, low, low + 1, whole);
    if (stopped_) break;
    if (std::abs(score) > std::abs(found_) && (score > 0) == (found_ > 0)) {
      note(score);
    } else {
      settled = found_;
      // Of a side that loses, the move that holds out so long was looked for last.
      if (found_ < 0 && !line().empty()) lineFound_ = line();
    }
  }
  goOn();
  return settled;
}

std::optional<bool> AlphaBeta::forces(bool wins, int plies) {
  rootDepth_ = plies;
  bool whole = true;
  std::int64_t bound = winScore - plies;  // the score of a win in so many plies
  std::int64_t low = wins ? bound - 1 : -bound;
  std::int64_t score = look(0, plies, low, low + 1, whole);
  if (stopped_) return std::nullopt;
  return wins ? score > low : score <= low;
}

// A win for one side that the last look has found.
void AlphaBeta::note(std::int64_t score) {
  if (std::abs(score) <= std::abs(found_)) return;
  found_ = score;
  lineFound_ = line();
}

}  // namespace ninepegs::play
