// Moves on trial: played on the machine's own position, followed along every choice, and taken
// back. Part of machine.hpp.
#pragma once

#include <alloca.h>

#include "ninepegs/sheet/machine/machine.hpp"

namespace ninepegs::sheet {

template <int W>
template <class Sink>
void Machine<W>::onTrial(int group, int choices, Sink& sink) {
  TrialSink trial;
  trial.outer = &sink;
  trial.emit = [](void* outer, int g, const std::uint64_t* made, int count) {
    static_cast<Sink*>(outer)->one(g, made, count);
  };
  trial.full = [](const void* outer) { return static_cast<const Sink*>(outer)->enough(); };
  playOnTrial(group, choices, trial);
}

template <int W>
void Machine<W>::playOnTrial(int group, int choices, TrialSink& sink) {
  const Layout& layout = program_->layout;
  spend(2 + bytes() / 128 + static_cast<std::size_t>(program_->groups[group].trialSteps[turn()]));
  trialWords_ =
      static_cast<std::size_t>(program_->trialsChangeAll ? layout.words : layout.planesEnd);
  std::uint64_t* saved = static_cast<std::uint64_t*>(alloca(trialWords_ * sizeof(std::uint64_t)));
  std::memcpy(saved, memory_, trialWords_ * sizeof *saved);
  std::uint64_t* before = nullptr;
  if (program_->trialsReadBefore) {
    before = static_cast<std::uint64_t*>(alloca(bytes()));
    std::memcpy(before, memory_ + program_->beforeAt, bytes());
    keepBefore();
  }
  trail_ = choices;
  trialGroup_ = group;
  attempts_ = 0;
  run(program_->groups[group].trial[turn()], sink);
  std::memcpy(memory_, saved, trialWords_ * sizeof *saved);
  memory_[program_->againSlot] = 0;
  if (before != nullptr) std::memcpy(memory_ + program_->beforeAt, before, bytes());
}

// Notes a choice; false if a move made too many.
template <int W>
bool Machine<W>::chose(std::uint64_t choice, const Instruction* i) {
  if (trail_ >= limits::choices) {
    int statement = statementAt(i - program_->code.data());
    exhaustedAt_ = statement < 0 ? static_cast<int>(program_->statementLines.size()) : statement;
    tooManyChoices_ = true;
    return false;
  }
  memory_[program_->choicesAt + trail_++] = choice;
  return true;
}

template <int W>
template <class Option>
void Machine<W>::branch(const Instruction* i, TrialSink& sink, Option nextOption) {
  std::uint64_t* saved = static_cast<std::uint64_t*>(alloca(savedWords() * sizeof(std::uint64_t)));
  int trail = trail_, pc = static_cast<int>(i - program_->code.data()) + 1;
  save(saved);
  spend(savedWords() / 16);
  std::uint64_t choice = 0;
  while (nextOption(choice)) {
    if (outOfSteps(i - program_->code.data(), i->d) || !chose(choice, i)) return;
    run(pc, sink);
    if (sink.enough() || exhaustedAt_ >= 0) return;
    restore(saved);
    trail_ = trail;
  }
}

template <int W>
void Machine<W>::branchElements(const Instruction* i, TrialSink& sink) {
  Set rest = at(i->b);
  bool nothing = i->n == 1 && !rest.any();
  branch(i, sink, [&](std::uint64_t& choice) {
    if (nothing) {
      nothing = false;
      choice = noChoice;
      memory_[i->a] = ~std::uint64_t{0};
      return true;
    }
    if (!rest.any()) return false;
    memory_[i->a] = choice = static_cast<std::uint64_t>(rest.first());
    rest.dropFirst();
    return true;
  });
}

template <int W>
void Machine<W>::branchNumbers(const Instruction* i, TrialSink& sink) {
  std::int64_t next = std::max<std::int64_t>(num(i->b), 0);
  std::int64_t last = std::min<std::int64_t>(num(i->c), noChoice - 1);
  branch(i, sink, [&](std::uint64_t& choice) {
    if (next > last) return false;
    memory_[i->a] = choice = static_cast<std::uint64_t>(next++);
    return true;
  });
}

template <int W>
void Machine<W>::branchLines(const Instruction* i, TrialSink& sink) {
  const LineSet* lines = lineSetOf(i->n, num(i->c));
  int next = 0, count = lines == nullptr ? 0 : lines->count;
  Set in = at(i->b);
  branch(i, sink, [&](std::uint64_t& choice) {
    while (next < count && !lineIn(in, *lines, next)) ++next;
    if (next >= count) return false;
    at(i->a) = lineMask(*lines, next);
    choice = static_cast<std::uint64_t>(next++);
    return true;
  });
}

template <int W>
void Machine<W>::branchRound(const Instruction* i, TrialSink& sink) {
  std::uint64_t* saved = static_cast<std::uint64_t*>(alloca(savedWords() * sizeof(std::uint64_t)));
  int trail = trail_, pc = static_cast<int>(i - program_->code.data()) + 1;
  save(saved);
  bool mayStop = i->d == 1 || memory_[i->a] > 0;
  if (i->b == 0 || num(i->a) < num(i->b)) {
    if (!chose(1, i)) return;
    ++memory_[i->a];
    run(pc, sink);
    if (sink.enough() || exhaustedAt_ >= 0) return;
    restore(saved);
    trail_ = trail;
  }
  if (mayStop && chose(0, i)) run(i->n, sink);
}

template <int W>
void Machine<W>::branchAttempt(const Instruction* i, TrialSink& sink) {
  std::uint64_t* saved = static_cast<std::uint64_t*>(alloca(savedWords() * sizeof(std::uint64_t)));
  int trail = trail_, pc = static_cast<int>(i - program_->code.data()) + 1;
  if (attempts_ >= limits::choices) {
    chose(1, i);
    return;
  }
  save(saved);
  if (!chose(1, i)) return;
  int attempt = attempts_++;
  made_[attempt] = false;
  memory_[i->b] = static_cast<std::uint64_t>(attempt);
  ++memory_[i->a];
  run(pc, sink);
  --attempts_;
  if (sink.enough() || exhaustedAt_ >= 0) return;
  restore(saved);
  trail_ = trail;
  if (made_[attempt] || memory_[i->a] == 0) return;
  if (chose(0, i)) run(i->n, sink);
}

// Rounds that are being attempted count as possible.
template <int W>
void Machine<W>::goneWrong(TrialSink& sink) {
  std::fill(made_, made_ + attempts_, true);
  if (phase_ != 1) sink.emit(sink.outer, trialGroup_, memory_ + program_->choicesAt, trail_);
}

// On trial the position before the move is an earlier one, too, which is not noted yet.
template <int W>
std::int64_t Machine<W>::timesSeen(bool trial) {
  std::uint64_t before = memory_[program_->layout.seen], now = trial ? seenHash() : before;
  spend(earlier_.size() / 16);
  return 1 + std::count(earlier_.begin(), earlier_.end(), now) + (trial && now == before ? 1 : 0);
}

template <int W>
void Machine<W>::complete(const Instruction& i, TrialSink& sink) {
  if (phase_ == 1) {
    best_ = std::max(best_, num(i.a));
    return;
  }
  if (phase_ == 2 && num(i.a) != best_) return;
  sink.emit(sink.outer, i.n, memory_ + program_->choicesAt, trail_);
}

}  // namespace ninepegs::sheet
