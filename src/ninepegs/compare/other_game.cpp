#include "ninepegs/compare/other_game.hpp"

#include <algorithm>

namespace ninepegs::compare {
namespace {

class OtherGame : public Counterpart {
 public:
  explicit OtherGame(const Game& game) : game_(game), position_(game.start()) {}

  Standing start() override {
    position_ = game_.start();
    return standing();
  }
  std::optional<Standing> play(const std::string& move) override {
    try {
      MoveList moves;
      game_.listMoves(position_, moves);
      for (const Move& one : moves) {
        if (game_.moveText(position_, one) != move) continue;
        game_.apply(position_, one);
        return standing();
      }
    } catch (const RunawayRules& error) {
      fail(error);
    }
    return std::nullopt;
  }
  std::optional<bool> isLegal(const std::string&) override { return std::nullopt; }

 private:
  Standing standing() const {
    try {
      return standingOf(game_, position_);
    } catch (const RunawayRules& error) {
      fail(error);
    }
  }
  [[noreturn]] static void fail(const RunawayRules& error) {
    throw CounterpartFailed("came to no end: " + error.diagnostics().front().message);
  }

  const Game& game_;
  Position position_;
};

}  // namespace

std::map<std::string, std::string> boardOf(const Game& game, const Position& position) {
  std::map<std::string, std::string> out;
  const Geometry& board = game.board();
  for (Cell cell = 0; cell < board.size(); ++cell) {
    if (!board.has(cell)) continue;
    std::optional<Piece> piece = game.pieceAt(position, cell);
    if (!piece) continue;
    const GameInfo::Kind& kind = game.info().kinds[piece->kind];
    out[board.label(cell)] = kind.letters[piece->side < 0 ? 0 : piece->side];
  }
  return out;
}

Standing briefStandingOf(const Game& game, const Position& position) {
  Standing out;
  Result result = game.result(position);
  bool over = result.kind == ResultKind::win || result.kind == ResultKind::draw;
  out.result = {over, over ? result.winner : -1};
  if (!over) out.turn = game.toMove(position);
  if (game.boards() == 1) out.board = boardOf(game, position);
  return out;
}

Standing standingOf(const Game& game, const Position& position) {
  Standing out = briefStandingOf(game, position);
  MoveList moves;
  game.listMoves(position, moves);
  out.moves.emplace();
  for (const Move& move : moves) out.moves->push_back(game.moveText(position, move));
  std::sort(out.moves->begin(), out.moves->end());
  out.moves->erase(std::unique(out.moves->begin(), out.moves->end()), out.moves->end());
  return out;
}

std::unique_ptr<Counterpart> makeOtherGame(const Game& game) {
  return std::make_unique<OtherGame>(game);
}

}  // namespace ninepegs::compare
