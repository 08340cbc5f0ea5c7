// Pasts that agree with what a side knows: where something is hidden from it, games that would have
// looked the same to it, drawn at random.
//
//   Knowledge known(*game, game->start(), 0);
//   Pasts pasts(*game, 100);
//   pasts.learn(known, stream);
//   for (std::size_t i = 0; i < pasts.size(); ++i) score += pasts.now(i) == position;
//
// A past is a whole game: its own moves are those that were made, of each move of the other side
// the same is seen, and at each ply the same is told. One past is made from another by drawing one
// or two of the other side's moves anew and keeping what agrees (a walk in the manner of
// N. Metropolis et al., "Equation of state calculations by fast computing machines", 1953): so all
// pasts that can be walked to become equally likely, but for those that a change of places would
// have changed more than the places. Belongs to one thread; the game must outlive it.
#pragma once

#include <cstdint>
#include <optional>
#include <unordered_map>
#include <utility>
#include <vector>

#include "ninepegs/base/random.hpp"
#include "ninepegs/base/stop.hpp"
#include "ninepegs/play/knowledge.hpp"

namespace ninepegs::play {

class Pasts {
 public:
  Pasts(const Game& game, std::size_t most) : game_(&game), hearing_(game.hearing()), most_(most) {}

  // Goes on to what is known now. Afterwards there are `most` pasts, fewer if no more were found
  // in time, or none.
  void learn(const Knowledge& knowledge, Stream& stream, const StopFlag* stop = nullptr);

  std::size_t size() const { return pasts_.size(); }
  // Requires i < size(). The position that this past leads to.
  const Position& now(std::size_t i) const { return pasts_[i].positions.back(); }
  // More positions for little: of each past, with one of the other side's moves made anew, up to
  // `each`. They agree with what was told at each ply; all else is taken to be as it was.
  void listNear(std::size_t each, Stream& stream, std::vector<Position>& out);

 private:
  struct Past {
    std::vector<Move> moves;
    std::vector<Position> positions;  // before each move, and behind the last
    // What each of the hidden plies could have been instead; empty: it is not worked out.
    std::vector<MoveList> others;
    // Can a change be noted as a difference of words, from its first ply to its last?
    bool changes() const { return positions.back().words.size() == positions.front().words.size(); }
  };

  // A ply as the side knows it, and what was heard of it.
  struct Known : Knowledge::Ply {
    Hearing::Heard heard;
  };
  Known knownOf(const Knowledge::Ply& ply);
  // One more ply; false: it cannot have been so in this past.
  bool follow(Past& past, const Known& ply, Stream& stream);
  bool looksLike(const Position& before, const Move& move, const Known& ply) const;
  const MoveList& othersOf(Past& past, std::size_t hidden);
  bool change(const Past& past, std::size_t hidden, const Move& move);
  const Position& changedAt(const Past& past, std::size_t ply);
  bool tellsSo(const Past& past, std::size_t ply, const Known& known);
  // `refuted` keeps which ply told otherwise, one more than its number; it is asked first.
  bool agreesLater(const Past& past, const Known* newest, std::uint32_t* refuted);
  std::size_t firstChanged() const;
  bool othersStand(const Past& past);
  void take(Past& past);
  void findAgreeing(Past& past, std::size_t hidden);
  bool redraw(Past& past, std::size_t hidden, const Known* newest, Stream& stream);
  int disagreements(const Past& past, const Known& newest, int most);
  bool settle(Past& past, const Known& newest, Stream& stream);
  void redrawPair(Past& past, Stream& stream);
  void walk(Past& past, Stream& stream);
  bool replay(Past& past);
  void fill(Stream& stream, const StopFlag* stop);
  void stir(Stream& stream, const StopFlag* stop);
  void mend(std::vector<Past>& dead, const Known& ply, Stream& stream, const StopFlag* stop);

  const Game* game_;
  std::unique_ptr<Hearing> hearing_;
  std::size_t most_;
  std::vector<Known> known_;  // what was learned
  Position start_;
  std::vector<Past> pasts_;
  std::vector<std::size_t> hidden_;  // plies of the other side that may have been other moves
  // ... and the keys of those moves, with the ply that told otherwise last.
  std::vector<std::unordered_map<std::uint64_t, std::uint32_t>> alike_;
  std::vector<std::size_t>
      doubts_;                 // own plies at which something was told, the most telling first
  std::optional<Move> usual_;  // what the ply was in the past before
  // A move made anew, and in which bits positions differ from then on.
  struct Change {
    std::size_t ply;
    Move move;
    std::vector<std::uint64_t> difference;
  };
  Change changes_[2];
  std::size_t changed_ = 0;
  // Was an own move not legal in some past? Then each time it is asked whether it is.
  bool movesTell_ = false;
  Position at_, after_;
  MoveList moves_, agreeing_;
  std::vector<std::uint32_t> order_;
};

}  // namespace ninepegs::play
