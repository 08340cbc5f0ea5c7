// What all opponents share that are programs of their own. Internal to the room.
#pragma once

#include <string>
#include <utility>

#include "ninepegs/base/text.hpp"
#include "ninepegs/play/opponent.hpp"

namespace ninepegs::engines {

class OutsideOpponent : public play::Opponent {
 public:
  play::Choice chooseKnowing(const Game&, const play::Knowledge&, Stream&) override {
    failed("is told every move, so that nothing can be secret from it",
           "play against another opponent");
  }

 protected:
  OutsideOpponent(std::string command, std::string source)
      : command_(std::move(command)), source_(std::move(source)) {}

  // Throws BadInput: "this program ..." did that.
  [[noreturn]] void failed(const std::string& how, const std::string& hint) const {
    throw BadInput({source_, 1, 1, columnsOf(command_), command_}, "this program " + how, hint);
  }

  std::string command_, source_;
};

}  // namespace ninepegs::engines
