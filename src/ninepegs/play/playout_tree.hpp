// A tree of moves that grows where playouts from it go well: upper confidence bounds for trees
// (L. Kocsis, C. Szepesvari, "Bandit based Monte-Carlo planning", 2006), with results that are
// proved backed up exactly (M. Winands, Y. Bjornsson, J. Saito, "Monte-Carlo tree search solver",
// 2008). Where moves stay possible for long, such as placing on an empty cell, a move also learns
// from playouts in which it came later (S. Gelly, D. Silver, "Combining online and offline
// knowledge in UCT", 2007). Where there are many moves of several choices, the choices are made one
// after the other, so that moves that begin alike share what is learned of them (B. Childs,
// J. Brodeur, L. Kocsis, "Transpositions and move groups in Monte Carlo tree search", 2008).
// Internal to the room.
//
//   PlayoutTree tree;
//   tree.begin(*game, position, 64);
//   while (tree.isOpen()) tree.grow(stream);
#pragma once

#include <memory>
#include <vector>

#include "ninepegs/play/opponent.hpp"

namespace ninepegs::play {

class PlayoutTree {
 public:
  // Who wins with best play, as far as it is known.
  enum class Proven : std::uint8_t { firstWins, secondWins, draw, open };

  struct Node {
    Move move;                   // that leads here
    std::uint32_t children = 0;  // where they begin; 0: not expanded
    std::uint16_t count = 0;
    std::uint8_t mover = 0;  // who made the move
    bool part = false;       // only the first choices of moves, which its children go on with
    Proven proven = Proven::open;
    std::uint32_t visits = 0;
    float sum = 0;  // of results, for the mover: 1 a win, 1/2 a draw
    // The same of playouts in which the mover made the move later.
    std::uint32_t rapidVisits = 0;
    float rapidSum = 0;
  };

  // From now on this position, which must have a legal move. What was learned of it before, as one
  // that followed on the last, is kept.
  void begin(const Game& game, const Position& position, std::uint64_t megabytes);
  // Is there anything to find out by more playouts?
  bool isOpen() const { return nodes_[0].proven == Proven::open && nodes_[0].count > 1; }
  // One playout: down the tree, a new part of it, a game to its end, and back.
  void grow(Stream& stream);
  // Adds what another tree of the same position learned of its moves.
  void addMoves(const PlayoutTree& other) { addMoves(other, 0, 0); }
  // The best move, with the play that is expected.
  Choice chosen() const;
  // How the tree stands now, after so many playouts.
  Choice::Step step(std::uint64_t playouts, double seconds) const;

 private:
  static Proven winOf(int side) { return side == 0 ? Proven::firstWins : Proven::secondWins; }
  bool expand(std::uint32_t at);
  void addChildren(std::uint32_t at, std::size_t from, std::size_t to, int level);
  void addNode(const Move& move, bool part);
  void seeAtOnce(std::uint32_t at, std::uint64_t& left);
  bool movesStay(const Position& position);
  bool goOnFrom(const Position& position);
  bool keepFrom(std::uint32_t at);
  void addMoves(const PlayoutTree& other, std::uint32_t mine, std::uint32_t theirs);
  void note(const Move& move, int side);
  bool madeAfter(const Move& move, int side, std::size_t plies) const;
  bool ended(std::uint32_t at, double& forFirst);
  std::uint32_t best(std::uint32_t at, Stream& stream);
  std::uint32_t bestRapid(std::uint32_t at, Stream& stream);
  void prove(std::uint32_t at);
  double playOut(Stream& stream);
  bool better(const Node& a, const Node& b) const;
  std::uint32_t preferred(const Node& node) const;
  std::int64_t scoreOf(const Node& node) const;
  std::vector<Move> lineFrom(std::uint32_t at) const;
  void weigh(std::uint32_t at, Choice& choice) const;

  KnownGame game_;
  std::unique_ptr<LivePosition> live_;
  Position root_;
  bool measured_ = false;
  std::uint64_t most_ = 0;
  std::vector<Node> nodes_;
  std::vector<std::uint32_t> path_;
  bool rapid_ = false;
  // By side and key of a move: in which playout it was made last, and at which of its plies.
  std::vector<std::uint32_t> playedAt_[2];
  std::uint32_t playout_ = 0;
  int ply_ = 0;
  // Plies of playouts, and positions looked at to see wins in one.
  std::uint64_t played_ = 0, seen_ = 0;
  MoveList moves_;
};

}  // namespace ninepegs::play
