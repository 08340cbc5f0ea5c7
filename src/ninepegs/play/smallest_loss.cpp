#include "ninepegs/play/smallest_loss.hpp"

#include <algorithm>
#include <limits>

#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::play {
namespace {

constexpr int deepest = 30;
constexpr std::int64_t beyond = std::numeric_limits<std::int64_t>::max() / 4;

// Null: no end counts, or another one can decide.
std::shared_ptr<const Game> countedOf(const Game& game) {
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr || game.secrets() != nullptr) return nullptr;
  rules::Rules rules = sheet->rules();
  rules::TermPtr measure;
  for (const rules::EndRule& end : rules.ends) {
    if (end.kind == sheet::EndKind::draw) continue;
    if (end.kind != sheet::EndKind::leader) return nullptr;
    if (!measure) measure = end.measure;
  }
  if (!measure) return nullptr;
  rules.worth = measure;
  rules.weights.clear();
  try {
    return SheetGame::fromRules(std::move(rules));
  } catch (const BadInput&) {  // it needs more memory than there may be
    return nullptr;
  }
}

}  // namespace

// For the side to move: what it leads by, so many plies on.
std::int64_t SmallestLoss::look(int ply, int depth, std::int64_t alpha, std::int64_t beta) {
  ++nodes_;
  int side = live_->toMove();
  if (depth == 0 || live_->ended() || spent()) return live_->worth(side);
  if (lists_.size() <= static_cast<std::size_t>(ply))
    lists_.resize(static_cast<std::size_t>(ply) + 1);
  live_->listMoves(lists_[static_cast<std::size_t>(ply)]);
  if (lists_[static_cast<std::size_t>(ply)].empty()) return live_->worth(side);
  std::int64_t best = -beyond;
  for (std::size_t i = 0; i < lists_[static_cast<std::size_t>(ply)].size(); ++i) {
    live_->play(lists_[static_cast<std::size_t>(ply)][i]);
    bool again = live_->toMove() == side;
    std::int64_t score =
        again ? look(ply + 1, depth - 1, alpha, beta) : -look(ply + 1, depth - 1, -beta, -alpha);
    live_->takeBack();
    best = std::max(best, score);
    alpha = std::max(alpha, best);
    if (alpha >= beta || spent()) break;
  }
  return best;
}

std::optional<Move> SmallestLoss::choose(const Game& game, const Position& position,
                                         std::uint64_t nodes, const StopFlag* stop) {
  if (!game_.is(game)) {
    game_ = game;
    live_.reset();
    counted_ = countedOf(game);
  }
  if (!counted_) return std::nullopt;
  if (!live_) live_ = counted_->live();
  stop_ = stop, nodes_ = 0, most_ = nodes;
  live_->setUp(position);
  MoveList moves;
  live_->listMoves(moves);
  if (moves.empty()) return std::nullopt;
  int side = live_->toMove();
  std::optional<Move> best;
  for (int depth = 1; depth <= deepest && !spent(); ++depth) {
    std::optional<Move> here;
    std::int64_t most = -beyond;
    for (const Move& move : moves) {
      live_->play(move);
      bool again = live_->toMove() == side;
      std::int64_t score =
          again ? look(1, depth - 1, most, beyond) : -look(1, depth - 1, -beyond, -most);
      live_->takeBack();
      if (depth > 1 && spent()) return best;
      if (!here || score > most) here = move, most = score;
    }
    best = here;
  }
  return best;
}

}  // namespace ninepegs::play
