#include "ninepegs/play/margins.hpp"

#include <algorithm>
#include <chrono>

#include "ninepegs/play/prover.hpp"

namespace ninepegs::play {
namespace {

// From a bound, where there is no other; each step is twice the last.
constexpr std::int64_t firstStep = 4, farthest = std::int64_t{1} << 40;

// Do random games from here come to positions in which nobody can go on and no end holds? What
// they would count for is not said by the rules.
bool comesToNoEnd(const SheetGame& game, const Position& position) {
  constexpr std::uint64_t games = 200;
  constexpr int longest = 1000;  // plies
  std::unique_ptr<LivePosition> live = game.live();
  for (std::uint64_t number = 0; number < games; ++number) {
    Stream stream(1, number);
    live->setUp(position);
    for (int ply = 0; ply < longest && !live->ended(); ++ply)
      if (!live->playDrawn(stream)) return true;
  }
  return false;
}

// The game in which the first side counts so much more.
std::shared_ptr<const SheetGame> withHeadStart(const SheetGame& game, std::int64_t start) {
  rules::Rules rules = game.rules();
  rules.cases.clear();
  for (rules::EndRule& end : rules.ends) end.headStart = start;
  return SheetGame::fromRules(std::move(rules));
}

// What the margin is looked for of: the position, or one of its moves.
struct Target {
  const Move* move = nullptr;
  Margin margin;
  std::int64_t step = firstStep;
  bool given = false;  // up

  bool open() const { return !given && !margin.known(); }
  bool within(std::int64_t value) const {
    return (!margin.least || *margin.least <= value) && (!margin.most || value <= *margin.most);
  }
  // What to ask about next.
  std::int64_t middle() {
    if (margin.least && margin.most) return *margin.least + (*margin.most - *margin.least) / 2;
    if (!margin.least && !margin.most) return 0;
    std::int64_t from = margin.least ? *margin.least + step - 1 : *margin.most - step + 1;
    step *= 2;
    return from;
  }
  // `sign`: is the margin more than that, less, or the same?
  void learn(std::int64_t value, int sign) {
    if (sign >= 0) margin.least = sign > 0 ? value + 1 : value;
    if (sign <= 0) margin.most = sign < 0 ? value - 1 : value;
  }
};

class Bisection {
 public:
  Bisection(const SheetGame& game, const Position& position, const SolveOptions& options)
      : game_(game),
        position_(position),
        options_(options),
        begun_(std::chrono::steady_clock::now()) {
    limits_.exact = true;
    limits_.megabytes = options.megabytes;
    limits_.nodes = options.nodes;
    limits_.threads = options.threads;
    if (options.progress)
      limits_.progress = [this](std::uint64_t nodes) { options_.progress(nodes_ + nodes); };
  }

  void settle(std::vector<Target>& targets) {
    auto next = [&] {
      return std::find_if(targets.begin(), targets.end(),
                          [](const Target& one) { return one.open(); });
    };
    for (auto one = next(); one != targets.end(); one = next()) {
      std::int64_t value = one->middle();
      if (std::abs(value) > farthest || over()) {
        one->given = true;
        continue;
      }
      // All are asked in the same game, so that they share what is found of it.
      std::shared_ptr<const SheetGame> game = withHeadStart(game_, -value);
      limits_.seconds = options_.seconds > 0 ? std::max(0.001, options_.seconds - seconds()) : 0;
      std::unique_ptr<Prover> prover = makeProver(limits_);
      prover->stopWith(options_.stop);
      for (Target& other : targets)
        if (other.open() && other.within(value)) ask(*game, value, *prover, other);
    }
  }

  bool brokenOff() const { return brokenOff_; }
  std::uint64_t nodes() const { return nodes_; }
  double seconds() const {
    return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
  }

 private:
  bool over() {
    bool now = wantsStop(options_.stop) || (options_.seconds > 0 && seconds() >= options_.seconds);
    brokenOff_ = brokenOff_ || now;
    return now;
  }

  void ask(const SheetGame& game, std::int64_t value, Prover& prover, Target& target) {
    Position at = position_;
    if (target.move != nullptr) game.apply(at, *target.move);
    std::optional<int> wins = prover.winner(game, at, 0);
    nodes_ += prover.nodesAsked();
    if (wins) {
      target.learn(value, *wins);
    } else {
      target.given = true;
      brokenOff_ = true;
    }
  }

  const SheetGame& game_;
  const Position& position_;
  const SolveOptions& options_;
  SearchLimits limits_;
  std::chrono::steady_clock::time_point begun_;
  std::uint64_t nodes_ = 0;
  bool brokenOff_ = false;
};

template <class One>
Margin signOf(const One& solved) {
  Margin out;
  if (!solved.known) return out;
  if (solved.winner < 0) out.least = out.most = 0;
  if (solved.winner == 0) out.least = 1;
  if (solved.winner == 1) out.most = -1;
  return out;
}

}  // namespace

bool leadDecides(const SheetGame& game) {
  const std::vector<rules::EndRule>& ends = game.rules().ends;
  return !ends.empty() && std::all_of(ends.begin(), ends.end(), [](const rules::EndRule& end) {
    return end.kind == sheet::EndKind::leader;
  });
}

Margins margins(const SheetGame& game, const Position& position, const Solved& solved,
                const SolveOptions& options) {
  Margins out;
  out.noEnd = comesToNoEnd(game, position);
  if (!solved.known || out.noEnd) {  // if who wins is not known, the lead would not be
    out.moves.resize(solved.moves.size());
    out.brokenOff = true;
    return out;
  }
  Bisection bisection(game, position, options);
  std::vector<Target> targets{{nullptr, signOf(solved)}};
  bisection.settle(targets);
  out.position = targets.front().margin;
  // No move leads to more than the position does.
  bool first = game.toMove(position) == 0;
  targets.clear();
  for (const Solved::RootMove& move : solved.moves) {
    Target target{&move.move, signOf(move)};
    std::optional<std::int64_t>& bound = first ? target.margin.most : target.margin.least;
    const std::optional<std::int64_t>& best = first ? out.position.most : out.position.least;
    if (best) bound = !bound ? *best : first ? std::min(*bound, *best) : std::max(*bound, *best);
    targets.push_back(std::move(target));
  }
  bisection.settle(targets);
  for (const Target& target : targets) out.moves.push_back(target.margin);
  out.nodes = bisection.nodes();
  out.seconds = bisection.seconds();
  out.brokenOff = bisection.brokenOff();
  return out;
}

}  // namespace ninepegs::play
