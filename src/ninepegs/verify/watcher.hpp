// Playouts of one thread, in which everything is watched. Internal to check().
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

#include "ninepegs/verify/evidence.hpp"
#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/steering.hpp"

namespace ninepegs::verify {

// How often each small number was seen.
class Tally {
 public:
  void add(std::size_t value) {
    if (value >= times_.size()) times_.resize(value + 1 + value / 2, 0);
    ++times_[value];
  }
  void into(Spread& spread) const {
    for (std::size_t value = 0; value < times_.size(); ++value)
      if (times_[value] > 0) spread.times[value] += times_[value];
  }

 private:
  std::vector<std::uint64_t> times_;
};

class Watcher {
 public:
  struct Options {
    std::uint64_t seed = 1;
    bool closely = false;
    int plyLimit = 2000;  // a uniform playout that is longer is broken off
  };

  // `game` must outlive it.
  Watcher(const Game& game, const Options& options);

  // A game of uniform moves from the start. What it shows depends on the seed and its number alone.
  void playout(std::uint64_t number);
  // Playouts that were broken off, or in which a move went on without end.
  std::uint64_t endless() const { return endless_; }
  // All that uniform games showed.
  Evidence evidence() const;

  // Games whose moves are drawn another way, those of a group one after the other: what they show
  // depends on all before them in the group, and on nothing else. `before` are uses of lines that
  // other games had. Faults go to `faults`, with a number from `number` on.
  struct Group {
    Steer way = Steer::hurry;
    int games = 0;
    std::uint64_t number = 0;
    const std::vector<std::uint64_t>& before;
    const std::vector<Position>& from;  // each in turn; none: the start
  };
  WayEvidence steered(const Group& group, Evidence& faults);

 private:
  struct Ended {
    int end, winner;
    std::string name;
    std::uint64_t times = 0;
  };
  struct Playing {  // a game
    std::uint64_t number = 0;
    Steer way = Steer::uniform;
    std::optional<Position> from;
    Evidence* seen = nullptr;  // takes its faults
  };

  void play(const Playing& playing);
  void atTheLimit(const Playing& playing);
  std::vector<Move> drawnAgain(std::uint64_t number, std::size_t plies) const;
  void finish();
  Inspector::Closeness closeness(const Playing& playing, Stream& look, std::uint32_t moves);
  void note(const Fault& fault, const Playing& playing);
  void note(const Playing& playing) {
    for (const Fault& fault : faults_) note(fault, playing);
    faults_.clear();
  }

  const Game& game_;
  Options options_;
  Inspector inspector_;
  Position start_;
  std::vector<std::uint64_t> uses_;
  std::unique_ptr<LivePosition> live_;
  std::optional<Steering> steering_;  // of a group
  Evidence seen_;                     // but for what follows
  Tally lengths_, choices_;
  std::uint64_t endless_ = 0;
  std::vector<Ended> ended_;
  std::vector<Move> played_;  // of a steered game: a uniform one can be drawn again
  std::size_t plies_ = 0;     // moves that were chosen in this game
  MoveList moves_;
  std::vector<Fault> faults_;
};

}  // namespace ninepegs::verify
