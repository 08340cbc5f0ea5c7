#include "ninepegs/play/knowledge.hpp"

namespace ninepegs::play {

Knowledge::Knowledge(const Game& game, const Position& from, int side)
    : game_(&game), side_(side), start_(from) {}

bool Knowledge::knowable(const Game& game, const Position& from) {
  if (from == game.start()) return true;
  for (int side = 0; side < 2; ++side)
    if (game.viewFor(from, side).shown != from) return false;
  return true;
}

void Knowledge::note(const Position& before, const Move& move) {
  MoveTexts texts = game_->textsOf(before, move);
  Ply ply;
  ply.own = game_->toMove(before) == side_;
  if (ply.own) ply.move = move;
  ply.seen = ply.own ? std::move(texts.text) : std::move(texts.seen);
  ply.told = std::move(texts.told);
  plies_.push_back(std::move(ply));
}

void Knowledge::turn(const Position& position) {
  game_->listMoves(position, moves_);
}

Sides::Sides(const Game& game, const Position& from) : game_(&game) {
  if (game.secrets() == nullptr) {
    start_ = from;
    return;
  }
  for (int side = 0; side < 2; ++side) known_.emplace_back(game, from, side);
}

Choice Sides::choose(Opponent& opponent, const Position& position, Stream& stream) {
  if (known_.empty()) {
    opponent.follow(*game_, start_, moves_);
    return opponent.choose(*game_, position, stream);
  }
  Knowledge& known = known_[static_cast<std::size_t>(game_->toMove(position))];
  known.turn(position);
  return opponent.chooseKnowing(*game_, known, stream);
}

void Sides::note(const Position& before, const Move& move) {
  for (Knowledge& known : known_) known.note(before, move);
  if (known_.empty()) moves_.push_back(move);
}

}  // namespace ninepegs::play
