// Something that says it plays the same game, and is asked how the game stands.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "ninepegs/engines/json_rpc.hpp"

namespace ninepegs::compare {

// How a game stands, as far as the counterpart tells.
struct Standing {
  std::optional<std::vector<std::string>> moves;  // texts of the legal ones, each once, in order
  std::optional<int> turn;                        // 0 or 1
  struct Result {
    bool over = false;
    int winner = -1;  // 0 or 1; -1: a draw, or not over
    friend bool operator==(const Result&, const Result&) = default;
  };
  std::optional<Result> result;
  std::optional<std::map<std::string, std::string>> board;  // label of a cell -> letter on it
};

// It gave no answer, or none that can be understood.
using CounterpartFailed = engines::ProgramFailed;

class Counterpart {
 public:
  virtual ~Counterpart() = default;

  // A new game. All of these throw CounterpartFailed.
  virtual Standing start() = 0;
  // Plays a move by its text in the counterpart's own notation; nothing if it refuses, and then all
  // stands as before.
  virtual std::optional<Standing> play(const std::string& move) = 0;
  // Would it take that move? Nothing: it does not answer such questions.
  virtual std::optional<bool> isLegal(const std::string& move) = 0;
};

}  // namespace ninepegs::compare
