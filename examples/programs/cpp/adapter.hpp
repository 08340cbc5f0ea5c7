// Lets `ninepegs compare GAME --program ./my_game` ask a game that is written in C++.
//
// Copy this file beside your game, give the game the members below, and end it with
//
//   int main() { return adapter::serve<MyGame>(); }
//
//   struct MyGame {
//     MyGame();                                    // a new game
//     std::vector<std::string> moves() const;      // the legal ones; none when it is over
//     bool play(const std::string& move);          // false, and no change, if it is not legal
//     std::string turn() const;                    // the side to move
//     std::optional<std::string> result() const;   // none: not over; the winner; "" for a draw
//     std::vector<std::string> board() const;      // rows from the top
//     std::string choose(std::uint32_t seed);      // a move, to play; may be left out
//   };
//
// It needs nlohmann/json (Debian: nlohmann-json3-dev).
#pragma once

#include <algorithm>
#include <cstdint>
#include <iostream>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

namespace adapter {

using Json = nlohmann::json;

// How the game stands, as the protocol has it.
template <class Game>
Json standing(const Game& game) {
  Json told = {{"moves", game.moves()}, {"board", game.board()}, {"result", nullptr}};
  std::optional<std::string> result = game.result();
  if (result)
    told["result"] = {{"winner", result->empty() ? Json(nullptr) : Json(*result)}};
  else
    told["turn"] = game.turn();
  return told;
}

// The answer to one request: a result or an error.
template <class Game>
Json answer(Game& game, const std::string& method, const Json& params) {
  if (method == "start") {
    game = Game();
    return {{"result", standing(game)}};
  }
  if (method == "play") {
    if (!game.play(params.at("move").get<std::string>()))
      return {{"error", {{"code", 1}, {"message", "not a legal move"}}}};
    return {{"result", standing(game)}};
  }
  if (method == "legal") {
    std::vector<std::string> moves = game.moves();
    std::string move = params.at("move");
    return {{"result", std::find(moves.begin(), moves.end(), move) != moves.end()}};
  }
  if constexpr (requires { game.choose(1u); })
    if (method == "choose")
      return {{"result", {{"move", game.choose(params.value("seed", std::uint32_t{0}))}}}};
  return {{"error", {{"code", -32601}, {"message", "no such method"}}}};
}

// Answers until standard input ends. Nothing else may print to standard output.
template <class Game>
int serve() {
  Game game;
  for (std::string line; std::getline(std::cin, line);) {
    Json request = Json::parse(line);
    Json told = answer(game, request.at("method"), request.value("params", Json::object()));
    told["jsonrpc"] = "2.0";
    told["id"] = request.at("id");
    std::cout << told.dump() << std::endl;
  }
  return 0;
}

}  // namespace adapter
