// A unit test against `ninepegs vectors othello --out othello.jsonl`:
//
//   g++ -std=c++20 -O2 -o vectors_test vectors_test.cpp && ./vectors_test othello.jsonl
#include <fstream>

#include "othello.hpp"

// What the game says of what the vector says.
adapter::Json told(const Othello& game, const adapter::Json& wanted) {
  adapter::Json says = adapter::standing(game), out;
  if (says.contains("moves")) std::sort(says["moves"].begin(), says["moves"].end());
  for (const auto& [key, value] : wanted.items())
    out[key] = says.value(key, adapter::Json(nullptr));
  return out;
}

int main(int argc, char** argv) {
  int wrong = argc == 2 ? 0 : 1;
  std::ifstream lines(argc == 2 ? argv[1] : "");
  std::string line;
  std::getline(lines, line);  // about the whole
  while (std::getline(lines, line)) {
    adapter::Json vector = adapter::Json::parse(line);
    Othello game;
    bool right = true;
    for (const std::string move : vector["play"]) right = game.play(move) && right;
    right = right && told(game, vector["stands"]) == vector["stands"];
    for (const auto& [move, after] : vector["after"].items()) {
      Othello next = game;
      right = right && next.play(move) && told(next, after) == after;
    }
    if (!right) std::cout << "wrong: " << vector["position"] << std::endl;
    wrong += right ? 0 : 1;
  }
  return wrong == 0 ? 0 : 1;
}
