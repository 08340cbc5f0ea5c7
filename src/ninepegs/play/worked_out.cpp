#include "ninepegs/play/worked_out.hpp"

#include <algorithm>
#include <bit>
#include <chrono>
#include <cmath>

#include "ninepegs/base/processor.hpp"
#include "ninepegs/base/stop.hpp"

namespace ninepegs::play {
namespace {

constexpr int longest = 300;          // plies of a game; then nobody has won
constexpr std::uint64_t fewest = 20;  // games, whatever the limits say
constexpr int shown = 3;              // positions of each game
constexpr std::size_t kept = 6000;    // examples, the newest
constexpr int rounds = 4;
constexpr double rate = 0.02, decay = 0.0005;
constexpr double heldBack = 40;  // times the bits for each example
constexpr double scale = 1000;

}  // namespace

void WorkedOut::listBits(const Position& position, std::vector<std::uint32_t>& bits,
                         std::vector<double>& counts) const {
  bits.clear();
  counts.assign(words_, 0);
  std::size_t words = std::min(words_, position.words.size());
  for (std::size_t word = 0; word < words; ++word) {
    counts[word] = bitsIn(position.words[word]);
    if (measured_) continue;
    for (std::uint64_t left = position.words[word]; left != 0; left &= left - 1)
      bits.push_back(static_cast<std::uint32_t>(word * 64) +
                     static_cast<std::uint32_t>(std::countr_zero(left)));
  }
}

void WorkedOut::learn(const Game& game, const Position& from, const Limits& limits,
                      Stream& stream) {
  auto begun = std::chrono::steady_clock::now();
  std::int64_t atBegin = ambient.left;
  auto over = [&](std::uint64_t games, std::uint64_t plies) {
    if (games < fewest) return false;
    if (games >= limits.games || (limits.plies > 0 && plies >= limits.plies)) return true;
    if (limits.steps > 0 && atBegin - ambient.left >= limits.steps) return true;
    return limits.seconds > 0 &&
           std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count() >=
               limits.seconds;
  };
  // Earlier positions that a game remembers stand behind the words of its start.
  std::size_t words = game.start().words.size();
  if (weights_.size() != words * 64 + 1) {
    weights_.assign(words * 64 + 1, 0);
    examples_.clear();
    counted_.assign(words, 0);
    spreads_.clear();
    spread_ = 1, weight_ = 0;
  }
  measured_ = game.measure() != nullptr;
  words_ = words;
  std::unique_ptr<LivePosition> live = game.live();
  std::vector<Position> path;
  std::vector<double> measures;
  std::uint64_t plies = 0;
  for (std::uint64_t number = 0; !over(number, plies); ++number, plies += path.size()) {
    live->setUp(from);
    path.clear();
    measures.clear();
    while (live->plies() < longest && !live->ended() && live->playDrawn(stream)) {
      path.emplace_back();
      live->copyTo(path.back());
      if (measured_) measures.push_back(static_cast<double>(live->worth(0)));
    }
    Outcome outcome = live->outcome();
    double result = outcome.kind != ResultKind::win ? 0 : outcome.winner == 0 ? 1 : -1;
    for (int i = 0; i < shown && !path.empty(); ++i) {
      std::uint32_t drawn = stream.below(static_cast<std::uint32_t>(path.size()));
      Example example;
      listBits(path[drawn], example.bits, example.counts);
      if (measured_) example.measure = measures[drawn];
      example.result = result;
      examples_.push_back(std::move(example));
    }
  }
  if (examples_.size() > kept)
    examples_.erase(examples_.begin(), examples_.end() - static_cast<std::ptrdiff_t>(kept));
  fit(stream);
}

// Root of the mean square; 1 where there is nothing.
double WorkedOut::spreadOf(const std::function<double(const Example&)>& value) const {
  double squares = 0;
  for (const Example& one : examples_) squares += value(one) * value(one);
  double spread =
      std::sqrt(squares / static_cast<double>(std::max<std::size_t>(1, examples_.size())));
  return spread > 0 ? spread : 1;
}

// What many examples are needed for is held back where there are few of them.
double WorkedOut::holdOfBits() const {
  std::vector<bool> met(weights_.size(), false);
  for (const Example& one : examples_)
    for (std::uint32_t bit : one.bits) met[bit] = true;
  auto many = static_cast<double>(std::count(met.begin(), met.end(), true));
  return decay * std::max(1.0, heldBack * many / static_cast<double>(examples_.size()));
}

void WorkedOut::fit(Stream& stream) {
  if (spreads_.empty()) {
    if (measured_) spread_ = spreadOf([](const Example& one) { return one.measure; });
    for (std::size_t word = 0; word < words_; ++word)
      spreads_.push_back(spreadOf([&](const Example& one) { return one.counts[word]; }));
  }
  double hold = holdOfBits();
  for (std::size_t step = 0; step < rounds * examples_.size(); ++step) {
    const Example& one = examples_[stream.below(static_cast<std::uint32_t>(examples_.size()))];
    double measure = one.measure / spread_;
    double sum = sumOf(one.bits, one.counts) + weight_ * measure;
    double expected = sum / (1 + std::abs(sum));
    double change = rate * (one.result - expected);
    for (std::uint32_t bit : one.bits) weights_[bit] += change - hold * weights_[bit];
    for (std::size_t word = 0; word < words_; ++word)
      counted_[word] += change * one.counts[word] / spreads_[word] - decay * counted_[word];
    weights_.back() += change;
    // More of what an end asks for is never worse.
    weight_ = std::max(0.0, weight_ + change * measure - decay * weight_);
  }
}

double WorkedOut::sumOf(const std::vector<std::uint32_t>& bits,
                        const std::vector<double>& counts) const {
  double sum = weights_.back();
  for (std::uint32_t bit : bits) sum += weights_[bit];
  for (std::size_t word = 0; word < words_; ++word)
    sum += counted_[word] * counts[word] / spreads_[word];
  return sum;
}

std::int64_t WorkedOut::worth(LivePosition& live, int side) {
  live.copyTo(at_);
  listBits(at_, bits_, counts_);
  double sum = sumOf(bits_, counts_);
  if (weight_ > 0) sum += weight_ * static_cast<double>(live.worth(0)) / spread_;
  auto score = static_cast<std::int64_t>(sum * scale);
  return side == 0 ? score : -score;
}

}  // namespace ninepegs::play
