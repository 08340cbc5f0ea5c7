#include "ninepegs/game/game.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/plain_live.hpp"

namespace ninepegs {

std::uint64_t wordHash(std::size_t index, std::uint64_t word) {
  return scrambled(word ^ scrambled(index));
}

std::uint64_t GameRules::countMoves(const Position& position) const {
  MoveList moves;
  listMoves(position, moves);
  return moves.size();
}

bool GameRules::isLegal(const Position& position, const Move& move) const {
  MoveList moves;
  listMoves(position, moves);
  return std::find(moves.begin(), moves.end(), move) != moves.end();
}

// The exclusive or of one scrambled number for each word, so that a move changes it by the words it
// changed (after A. Zobrist, "A new hashing method with application for game playing", 1970, with
// words in the place of squares).
std::uint64_t GameRules::hash(const Position& position) const {
  std::uint64_t hash = 0;
  for (std::size_t i = 0; i < position.words.size(); ++i) hash ^= wordHash(i, position.words[i]);
  return hash;
}

MoveTexts GameNotation::textsOf(const Position& position, const Move& move) const {
  std::string text = moveText(position, move);
  return {text, text, {}};
}

Hearing::Heard Hearing::of(const MoveTexts& texts) {
  std::string told;
  for (const std::string& one : texts.told) told += one + "\n";
  return {numberOf(texts.seen), numberOf(told)};
}

namespace {

// By the texts themselves.
class PlainHearing final : public Hearing {
 public:
  explicit PlainHearing(const Game& game) : game_(game) {}
  Heard of(const Position& position, const Move& move) override {
    return Hearing::of(game_.textsOf(position, move));
  }

 private:
  const Game& game_;
};

}  // namespace

std::unique_ptr<Hearing> Game::hearing() const {
  return std::make_unique<PlainHearing>(*this);
}

std::vector<std::string> GameNotation::otherTexts(const Position&, const Move&) const {
  return {};
}

std::string GameNotation::notation(const Position&) const {
  return "";
}

std::vector<std::string> GameNotation::besideNotation(const Position&) const {
  return {};
}

Position GameNotation::readPosition(std::string_view text, const std::string& source) const {
  throw BadInput(Place{source, 1, 0, 1, std::string(text)}, "this game reads no positions");
}

const Geometry& GamePicture::board() const {
  static const Geometry one = Geometry::square({.columns = 1, .rows = 1});
  return one;
}

std::optional<Piece> GamePicture::pieceAt(const Position&, Cell, int) const {
  return std::nullopt;
}

std::vector<Cell> GamePicture::cellsOf(const Position&, const Move&) const {
  return {};
}

const Looks& GamePicture::looks() const {
  static const Looks none;
  return none;
}
CellSet GamePicture::cellsOfEnd(const Position&, int) const {
  return {};
}

Game::Game() {
  static std::atomic<std::uint64_t> made{0};
  number_ = ++made;
}

View Game::viewFor(const Position& position, int side) const {
  return secrets() != nullptr ? secrets()->viewOf(position, side) : View{position, {}, {}, {}, {}};
}

CellSet Game::shownCells(const Position& position) const {
  int end = result(position).end;
  return end < 0 ? CellSet{} : cellsOfEnd(position, end);
}

std::unique_ptr<LivePosition> Game::live(std::span<std::uint64_t>) const {
  return std::make_unique<PlainLive>(*this);
}

std::shared_ptr<const Game> Game::variant(const std::string& name) const {
  throw BadInput(Place{info().id, 0, 0, 1, {}}, fmt::format("there is no variant \"{}\"", name));
}

LinePlace placeOfLine(const GameInfo& info, int line) {
  if (info.casesLine == 0 || line < info.casesLine) return {info.source, line};
  return {info.casesSource, line - info.casesLine + 1};
}

std::string lineName(const GameInfo& info, int line) {
  LinePlace place = placeOfLine(info, line);
  if (place.file == info.source) return std::to_string(line);
  std::size_t slash = place.file.rfind('/');
  return std::to_string(place.line) + " of " +
         place.file.substr(slash == std::string::npos ? 0 : slash + 1);
}

std::vector<RuleLine> ruleLinesOf(const Game& game) {
  return game.checks() == nullptr ? std::vector<RuleLine>{} : game.checks()->ruleLines();
}

std::string viewText(const Game& game, const View& view) {
  std::string out = game.positionText(view.shown);
  for (const View::Mark& mark : view.marks) {
    if (mark.cells.none()) continue;
    std::vector<std::string> cells;
    for (Cell cell = 0; cell < game.board().size(); ++cell)
      if (mark.cells[cell]) cells.push_back(game.board().label(cell));
    out += fmt::format("; {}{} on {}", mark.letter,
                       game.boards() > 1 ? " of " + game.info().sides[mark.board] : "",
                       joined(cells, " "));
  }
  if (!view.words.empty()) out += "; known: " + joined(view.words, ", ");
  return out;
}

std::vector<std::string> brokenInvariants(const Game& game, const Position& position) {
  std::vector<std::string> out;
  const GameChecks* checks = game.checks();
  std::vector<Invariant> all;
  if (checks != nullptr) all = checks->invariants();
  for (std::size_t i = 0; i < all.size(); ++i)
    for (int side = 0; side < 2 && all[i].change == 0; ++side) {
      if (checks->invariantValue(i, position, side) != 0) continue;
      out.push_back(fmt::format("`{}` (line {}) does not hold for {}", all[i].text, all[i].line,
                                game.info().sides[side]));
      break;
    }
  if (checks == nullptr) return out;
  for (const RuleLine& one : checks->forbiddenThatHold(position))
    out.push_back(
        fmt::format("\"{}\" (line {}) is forbidden, and holds for the side that has moved",
                    one.text, one.line));
  return out;
}

std::string resultText(const Game& game, const Result& result) {
  switch (result.kind) {
    case ResultKind::ongoing:
      return "the game goes on";
    case ResultKind::win:
      return fmt::format("{} wins: {}", game.info().sides[result.winner], result.name);
    case ResultKind::draw:
      return fmt::format("draw: {}", result.name);
    case ResultKind::fault:
      return fmt::format("the rules went wrong: {}", result.name);
  }
  return "";
}

}  // namespace ninepegs
