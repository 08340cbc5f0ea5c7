#include "ninepegs/play/line_live.hpp"

#include <algorithm>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/sheet/rules/line_game.hpp"

namespace ninepegs::play {
namespace {

std::uint64_t bit(Cell cell) {
  return std::uint64_t{1} << cell;
}

std::uint64_t maskOf(const CellSet& cells, int size) {
  std::uint64_t out = 0;
  for (Cell cell = 0; cell < size; ++cell)
    if (cells[cell]) out |= bit(cell);
  return out;
}

}  // namespace

LineLive::LineLive(const SheetGame& game, const rules::LineGame& rules,
                   const std::vector<Symmetry>& images)
    : game_(game), win_(rules.win), full_(rules.full), turnKey_(wordHash(2, 1)) {
  int size = game.board().size();
  all_ = maskOf(game.board().all(), size);
  for (Cell cell = 0; cell < size; ++cell) {
    for (std::size_t side = 0; side < 2; ++side) keys_[side][cell] = wordHash(side, bit(cell));
    if (!rules.playable[cell]) continue;
    playable_.push_back(cell);
    needs_[cell] = maskOf(rules.needs[static_cast<std::size_t>(cell)], size);
    for (Cell other = 0; other < size; ++other)
      if ((needs_[cell] & bit(other)) != 0) opened_[other].push_back(cell);
  }
  for (const std::vector<Cell>& line : rules.lines) {
    std::uint64_t mask = 0;
    for (Cell cell : line) mask |= bit(cell);
    for (Cell cell : line) through_[cell].push_back(mask);
  }
  for (const Symmetry& image : images) images_.push_back(image.image);
}

std::unique_ptr<LineLive> LineLive::of(const Game& game, const Position& position,
                                       const std::vector<Symmetry>& images) {
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr || game.board().size() > most) return nullptr;
  std::optional<rules::LineGame> rules = rules::lineGameOf(sheet->rules());
  if (!rules) return nullptr;
  std::vector<std::uint64_t> lines;
  for (const std::vector<Cell>& line : rules->lines) {
    bool held[2] = {true, true};
    for (Cell cell : line) {
      std::optional<Piece> piece = game.pieceAt(position, cell, 0);
      for (int side = 0; side < 2; ++side) held[side] = held[side] && piece && piece->side == side;
    }
    if (held[0] || held[1]) return nullptr;
  }
  std::unique_ptr<LineLive> out(new LineLive(*sheet, *rules, images));
  out->setUp(position);
  return out;
}

void LineLive::setUp(const Position& position) {
  root_ = position;
  at_ = 0;
  turn_ = game_.toMove(position);
  State& state = states_[0] = {};
  for (Cell cell = 0; cell < game_.board().size(); ++cell) {
    std::optional<Piece> piece = game_.pieceAt(position, cell, 0);
    if (!piece || piece->side < 0) continue;
    auto side = static_cast<std::size_t>(piece->side);
    state.own[side] |= bit(cell);
    state.hash ^= keys_[side][cell];
  }
  if (turn_ == 1) state.hash ^= turnKey_;
  for (Cell cell : playable_)
    if ((state.filled() & bit(cell)) == 0 && (needs_[cell] & ~state.filled()) == 0)
      state.open |= bit(cell);
  for (int side = 0; side < 2; ++side)
    for (Cell cell = 0; cell < game_.board().size(); ++cell)
      if ((state.own[side] & bit(cell)) != 0) addWins(state, side, cell);
  MoveList moves;
  game_.listMoves(position, moves);
  if (!moves.empty()) group_ = moves.front().group;
}

void LineLive::addWins(State& state, int side, Cell cell) const {
  std::uint64_t own = state.own[side], other = state.own[1 - side];
  for (std::uint64_t line : through_[cell]) {
    std::uint64_t rest = line & ~own;
    if ((rest & other) == 0 && (rest & (rest - 1)) == 0) state.wins[side] |= rest;
  }
}

void LineLive::copyTo(Position& position) const {
  position = root_;
  for (std::size_t i = 0; i < at_; ++i) game_.apply(position, played_[i]);
}

Outcome LineLive::outcome() const {
  if (now().winner >= 0) return {ResultKind::win, false, now().winner, win_};
  if (isFull()) return {ResultKind::draw, false, -1, full_};
  return {};
}

Move LineLive::moveAt(std::uint32_t number) {
  std::uint64_t left = now().open;
  for (; number > 0; --number) left &= left - 1;
  return moveTo(std::countr_zero(left));
}

void LineLive::listMoves(MoveList& moves) {
  moves.clear();
  if (ended()) return;
  for (std::uint64_t left = now().open; left != 0; left &= left - 1)
    moves.push_back(moveTo(std::countr_zero(left)));
}

void LineLive::play(const Move& move) {
  Cell cell = move.choices[0];
  const State& was = now();
  State& is = states_[at_ + 1];
  is = was;
  if ((was.wins[turn_] & bit(cell)) != 0) is.winner = turn_;
  is.own[turn_] |= bit(cell);
  is.open &= ~bit(cell);
  for (Cell other : opened_[cell])
    if ((needs_[other] & ~is.filled()) == 0 && (is.filled() & bit(other)) == 0)
      is.open |= bit(other);
  is.wins[0] &= ~bit(cell);
  is.wins[1] &= ~bit(cell);
  addWins(is, turn_, cell);
  is.hash ^= keys_[static_cast<std::size_t>(turn_)][cell] ^ turnKey_;
  played_[at_++] = move;
  turn_ = 1 - turn_;
}

void LineLive::takeBack() {
  --at_;
  turn_ = 1 - turn_;
}

std::uint64_t LineLive::safe() const {
  const State& state = now();
  std::uint64_t threats = state.wins[1 - turn_], at = threats & state.open;
  if ((at & (at - 1)) != 0) return 0;
  std::uint64_t out = at != 0 ? at : state.open;
  // A move that opens a cell where the other side wins.
  for (std::uint64_t left = threats & ~state.open; left != 0; left &= left - 1) {
    std::uint64_t missing = needs_[std::countr_zero(left)] & ~state.filled();
    if ((missing & (missing - 1)) == 0) out &= ~missing;
  }
  return out;
}

std::uint64_t LineLive::threatsBehind(Cell cell) const {
  State state = now();
  state.own[turn_] |= bit(cell);
  addWins(state, turn_, cell);
  return state.wins[turn_] & ~now().wins[turn_] & ~bit(cell);
}

std::uint64_t LineLive::leastHash() const {
  std::uint64_t out = now().hash;
  for (const std::vector<Cell>& image : images_) {
    std::uint64_t hash = turn_ == 1 ? turnKey_ : 0;
    for (std::size_t side = 0; side < 2; ++side)
      for (std::uint64_t left = now().own[side]; left != 0; left &= left - 1)
        hash ^= keys_[side][image[static_cast<std::size_t>(std::countr_zero(left))]];
    out = std::min(out, hash);
  }
  return out;
}

}  // namespace ninepegs::play
