#include "ninepegs/play/worked_out.hpp"

#include <algorithm>
#include <bit>
#include <chrono>
#include <cmath>

namespace ninepegs::play {
namespace {

constexpr int longest = 300;          // plies of a game; then nobody has won
constexpr std::uint64_t fewest = 20;  // games, whatever the limits say
constexpr int shown = 3;              // positions of each game
constexpr std::size_t kept = 6000;    // examples, the newest
constexpr int rounds = 4;
constexpr double rate = 0.02, decay = 0.0005;
constexpr double scale = 1000;

}  // namespace

void WorkedOut::listBits(const Position& position, std::vector<std::uint32_t>& bits) const {
  bits.clear();
  std::size_t words = std::min(words_, position.words.size());
  for (std::size_t word = 0; word < words; ++word)
    for (std::uint64_t left = position.words[word]; left != 0; left &= left - 1)
      bits.push_back(static_cast<std::uint32_t>(word * 64) +
                     static_cast<std::uint32_t>(std::countr_zero(left)));
}

void WorkedOut::learn(const Game& game, const Position& from, const Limits& limits,
                      Stream& stream) {
  auto begun = std::chrono::steady_clock::now();
  auto over = [&](std::uint64_t games, std::uint64_t plies) {
    if (games < fewest) return false;
    if (games >= limits.games || (limits.plies > 0 && plies >= limits.plies)) return true;
    return limits.seconds > 0 &&
           std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count() >=
               limits.seconds;
  };
  // Earlier positions that a game remembers stand behind the words of its start.
  std::size_t words = game.start().words.size();
  if (weights_.size() != words * 64 + 1) {
    weights_.assign(words * 64 + 1, 0);
    examples_.clear();
  }
  words_ = words;
  std::unique_ptr<LivePosition> live = game.live();
  std::vector<Position> path;
  std::uint64_t plies = 0;
  for (std::uint64_t number = 0; !over(number, plies); ++number, plies += path.size()) {
    live->setUp(from);
    path.clear();
    while (live->plies() < longest && !live->ended() && live->playDrawn(stream)) {
      path.emplace_back();
      live->copyTo(path.back());
    }
    Outcome outcome = live->outcome();
    double result = outcome.kind != ResultKind::win ? 0 : outcome.winner == 0 ? 1 : -1;
    for (int i = 0; i < shown && !path.empty(); ++i) {
      const Position& one = path[stream.below(static_cast<std::uint32_t>(path.size()))];
      Example example;
      listBits(one, example.bits);
      example.result = result;
      examples_.push_back(std::move(example));
    }
  }
  if (examples_.size() > kept)
    examples_.erase(examples_.begin(), examples_.end() - static_cast<std::ptrdiff_t>(kept));
  fit(stream);
}

void WorkedOut::fit(Stream& stream) {
  for (std::size_t step = 0; step < rounds * examples_.size(); ++step) {
    const Example& one = examples_[stream.below(static_cast<std::uint32_t>(examples_.size()))];
    double sum = weights_.back();
    for (std::uint32_t bit : one.bits) sum += weights_[bit];
    double expected = sum / (1 + std::abs(sum));
    double change = rate * (one.result - expected);
    for (std::uint32_t bit : one.bits) weights_[bit] += change - decay * weights_[bit];
    weights_.back() += change;
  }
}

std::int64_t WorkedOut::worth(const LivePosition& live, int side) {
  live.copyTo(at_);
  listBits(at_, bits_);
  double sum = weights_.back();
  for (std::uint32_t bit : bits_) sum += weights_[bit];
  auto score = static_cast<std::int64_t>(sum * scale);
  return side == 0 ? score : -score;
}

}  // namespace ninepegs::play
