// A move chosen where something is hidden: what is good on the average of pasts that agree with
// what the side knows. Internal to the room.
#pragma once

#include <chrono>

#include "ninepegs/play/opponent.hpp"
#include "ninepegs/play/pasts.hpp"

namespace ninepegs::play {

inline constexpr std::uint64_t usualPasts = 120;

struct OverPasts {
  std::uint64_t pasts = 0;     // 0: usualPasts, more where there are many nodes
  int depth = 0;               // plies looked ahead in each past; 0: as many as the nodes allow
  std::uint64_t nodes = 0;     // positions; 0: no limit
  std::uint64_t playouts = 0;  // games; 0: no limit
  double seconds = 0;          // 0: no limit
};

class PastsPlayer {
 public:
  // Wins at once where that is likeliest; else stops the other side where that is.
  Choice greedy(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                Stream& stream, const StopFlag* stop);
  // By the measure, so many plies on; of a game without one, by playouts.
  Choice search(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                Stream& stream, const StopFlag* stop);
  // By games to their ends, more of those that begin with moves that did well.
  Choice playouts(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
                  Stream& stream, const StopFlag* stop);

 private:
  // What a move came to in the pasts.
  struct Tally {
    std::uint64_t pasts = 0;
    double wins = 0, losses = 0, sum = 0;
  };

  // `near`: positions near each past that are taken with it.
  bool begin(const Game& game, const Knowledge& knowledge, const OverPasts& limits,
             std::uint64_t near, Stream& stream, const StopFlag* stop);
  std::int64_t look(int ply, int depth, std::int64_t alpha, std::int64_t beta);
  double playOut(int side, Stream& stream);
  bool over() const;
  double secondsSpent() const;
  void weigh(const std::vector<std::size_t>& which, const Position& position,
             const Knowledge& knowledge, int depth);
  std::vector<double> scores() const;
  std::vector<std::size_t> lookAtAll(const Knowledge& knowledge, Stream& stream);
  void putBestFirst(std::vector<std::size_t>& moves, Stream& stream) const;
  Choice chosen(const MoveList& moves, const std::vector<double>& scores,
                const std::vector<std::size_t>& open, int depth, Stream& stream) const;

  KnownGame game_;
  std::unique_ptr<Pasts> pasts_;
  std::vector<Position> positions_;  // where the side may be
  std::size_t looked_ = 0;           // at so many of them
  std::unique_ptr<LivePosition> live_;
  bool measured_ = false;
  std::vector<MoveList> lists_;
  std::vector<Tally> tallies_;
  double largest_ = 0;  // of their values
  std::uint64_t nodes_ = 0, mostNodes_ = 0;
  double seconds_ = 0;
  const StopFlag* stop_ = nullptr;
  std::chrono::steady_clock::time_point begun_;
};

}  // namespace ninepegs::play
