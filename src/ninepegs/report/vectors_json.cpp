#include "ninepegs/report/vectors_json.hpp"

#include <algorithm>

#include "ninepegs/compare/other_game.hpp"
#include "ninepegs/engines/json.hpp"

namespace ninepegs::report {
namespace {

// Rows from the top on a board of squares, else letters by cell.
Json boardJson(const Game& game, const std::map<std::string, std::string>& letters) {
  const Geometry& board = game.board();
  if (board.isHexes() || board.levels() > 1 || board.shape().kind != Shape::square)
    return Json(letters);
  Json rows = Json::array();
  for (int y = 0; y < board.rows(); ++y) {
    std::string row;
    for (int x = 0; x < board.columns(); ++x) {
      Cell cell = board.cellAt(x, y);
      auto found = board.has(cell) ? letters.find(board.label(cell)) : letters.end();
      row += !board.has(cell) ? "_" : found == letters.end() ? "." : found->second;
    }
    rows.push_back(row);
  }
  return rows;
}

// How a position stands, as a program tells it (docs/programs.md).
Json standingJson(const Game& game, const Position& position, bool moves) {
  compare::Standing standing =
      moves ? compare::standingOf(game, position) : compare::briefStandingOf(game, position);
  Json out;
  out["turn"] = standing.turn ? Json(game.info().sides[*standing.turn]) : Json(nullptr);
  out["result"] = nullptr;
  if (standing.result->over) {
    int winner = standing.result->winner;
    Json result;
    result["winner"] = winner < 0 ? Json(nullptr) : Json(game.info().sides[winner]);
    out["result"] = result;
  }
  if (standing.board) out["board"] = boardJson(game, *standing.board);
  if (moves) out["moves"] = *standing.moves;
  return out;
}

}  // namespace

std::string vectorsJsonLines(const Game& game, const compare::VectorSet& set, std::uint64_t seed) {
  Json head;
  head["game"] = game.info().id;
  head["variant"] = game.info().variant.empty() ? Json(nullptr) : Json(game.info().variant);
  head["sides"] = {game.info().sides[0], game.info().sides[1]};
  head["seed"] = seed;
  head["vectors"] = set.vectors.size();
  head["mutants"] = set.mutants;
  head["mutants_noticed"] = set.noticed;
  std::string out = jsonText(head) + "\n";
  MoveList moves;
  for (const compare::Vector& one : set.vectors) {
    Json line;
    line["play"] = Json::array();
    Position at = game.start();
    for (const Move& move : one.moves) {
      line["play"].push_back(game.moveText(at, move));
      game.apply(at, move);
    }
    line["position"] = game.positionText(at);
    line["stands"] = standingJson(game, at, true);
    line["after"] = Json::object();
    game.listMoves(at, moves);
    for (const Move& move : moves) {
      Position after = at;
      game.apply(after, move);
      line["after"][game.moveText(at, move)] = standingJson(game, after, false);
    }
    out += jsonText(line) + "\n";
  }
  return out;
}

}  // namespace ninepegs::report
