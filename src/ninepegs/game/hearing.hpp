// What is heard of moves, as numbers: for programs that compare what many moves would have told.
//
//   std::unique_ptr<Hearing> hearing = game->hearing();
//   Hearing::Heard played = hearing->of(position, moves[0]);
//   for (const Move& move : moves) score += hearing->of(position, move) == played;
//
// Belongs to one thread; the game must outlive it.
#pragma once

#include <cstdint>
#include <string>
#include <unordered_map>

#include "ninepegs/game/values.hpp"

namespace ninepegs {

class Hearing {
 public:
  // Of two moves that the same hearing was asked about: the numbers are equal if and only if the
  // texts of GameNotation::textsOf are, what the other side sees and what is told to both.
  struct Heard {
    std::uint32_t seen = 0, told = 0;
    friend bool operator==(const Heard&, const Heard&) = default;
  };
  virtual ~Hearing() = default;

  // Requires that the move is legal.
  virtual Heard of(const Position& position, const Move& move) = 0;
  // Of texts that are known; the numbers are the same.
  Heard of(const MoveTexts& texts);

 private:
  std::uint32_t numberOf(const std::string& text) {
    return texts_.try_emplace(text, static_cast<std::uint32_t>(texts_.size())).first->second;
  }
  std::unordered_map<std::string, std::uint32_t> texts_;
};

}  // namespace ninepegs
