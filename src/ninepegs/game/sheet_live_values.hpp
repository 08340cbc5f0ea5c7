// What a live position works out beside its moves: worth, invariants, ends. Internal to SheetLive.
#pragma once

#include "ninepegs/game/sheet_live.hpp"
#include "ninepegs/game/with_machine.hpp"

namespace ninepegs {

// Throws if what was run came to no end within its limits, when all is undone.
template <int W>
template <class Undo>
void SheetLive<W>::refuseIfExhausted(Undo undo) {
  if (machine_.exhaustedAt() < 0) [[likely]]
    return;
  int statement = machine_.exhaustedAt();
  bool choices = machine_.tooManyChoices(), brokenOff = machine_.brokenOff();
  std::vector<std::uint64_t> words(machine_.words(), machine_.words() + words_);
  undo();
  if (brokenOff) throwBrokenOff(program_, words.data());
  refuseLongLoop(program_, statement, choices, words.data());
}

template <int W>
template <class Body>
void SheetLive<W>::within(Body body) {
  machine_.refill();
  body();
  refuseIfExhausted([&] { machine_.refill(); });
}

template <int W>
std::int64_t SheetLive<W>::valueOf(int routine) {
  machine_.countInto({});
  within([&] {
    machine_.standAlone();
    machine_.runRoutine(routine);
  });
  return machine_.number(program_.valueSlot);
}

template <int W>
std::int64_t SheetLive<W>::worth(int side) {
  std::int64_t own = valueOf(program_.worth[side]);
  return own - valueOf(program_.worth[1 - side]);
}

template <int W>
void SheetLive<W>::workOutValues(std::size_t ply) {
  std::size_t count = program_.invariants.size() * 2;
  if (count > 0) {
    machine_.countInto({});
    within([&] {
      machine_.standAlone();
      machine_.runRoutine(program_.invariantsAt);
    });
    for (std::size_t i = 0; i < count; ++i)  // they are few
      values_[ply * count + i] = machine_.number(
          static_cast<sheet::Slot>(program_.invariantSlots + static_cast<sheet::Slot>(i)));
  }
  valuesKnown_[ply] = 1;
}

template <int W>
std::span<const std::int64_t> SheetLive<W>::invariantValues() {
  auto ply = static_cast<std::size_t>(plies_);
  if (valuesKnown_[ply] == 0) workOutValues(ply);
  return valuesAt(ply);
}

template <int W>
std::span<const std::int64_t> SheetLive<W>::invariantsBefore() {
  auto ply = static_cast<std::size_t>(plies_) - 1;
  if (valuesKnown_[ply] != 0) return valuesAt(ply);
  copyTo(here_);
  machine_.load(before());
  if (remembers_) machine_.remember(std::span(earlier_).first(earlier_.size() - 1));
  found_ = Found::none;
  struct Back {
    SheetLive& live;
    ~Back() {
      live.machine_.load(live.here_.words.data());
      live.machine_.remember(live.earlier_);
    }
  } back{*this};
  workOutValues(ply);
  return valuesAt(ply);
}

template <int W>
std::vector<Result> SheetLive<W>::endsThatHold() {
  std::vector<Result> out;
  std::uint64_t result = machine_.result();
  machine_.countInto({});
  struct Back {
    SheetLive& live;
    std::uint64_t result;
    ~Back() { live.machine_.setResult(result); }
  } back{*this, result};
  for (const sheet::EndCode& end : program_.endCodes) {
    machine_.setResult(0);
    within([&] {
      machine_.standAlone();
      if (plies_ > 0) machine_.loadBefore(before());
      machine_.runRoutine(end.test[machine_.lastMover()]);
    });
    if (machine_.result() != 0) out.push_back(game_.decoded(machine_.result()));
  }
  return out;
}

}  // namespace ninepegs
