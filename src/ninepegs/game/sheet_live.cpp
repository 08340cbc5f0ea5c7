#include "ninepegs/game/sheet_live.hpp"

#include "ninepegs/game/sheet_live_values.hpp"
#include "ninepegs/game/sinks.hpp"
#include "ninepegs/game/with_machine.hpp"
#include "ninepegs/sheet/program/instructions.hpp"

namespace ninepegs {

using sheet::Layout;

namespace {

constexpr std::size_t usualPlies = 128;  // room for them is made at once
constexpr std::size_t block = 4;         // words that are copied at once
constexpr std::size_t fewWords = 12;     // of a position, so that they are copied one by one

// Where a generator that goes straight on offers the cells of one set, after which it ends; null if
// it does more.
const sheet::Instruction* onlyOffer(const sheet::Instruction* at) {
  while (at->op != sheet::Op::emitLast) {
    bool straight = sheet::roles(at->op).find_first_of("jm") == std::string_view::npos &&
                    sheet::name(at->op).substr(0, 4) != "stop";
    if (!straight || at->op == sheet::Op::emitPass || at->op == sheet::Op::tierEnd ||
        at->op == sheet::Op::keepBest)
      return nullptr;
    ++at;
  }
  return at->a == 1 ? at : nullptr;
}

}  // namespace

template <int W>
SheetLive<W>::SheetLive(const SheetGame& game, const sheet::Program& program,
                        std::span<std::uint64_t> uses)
    : game_(game),
      program_(program),
      uses_(uses),
      words_(static_cast<std::size_t>(program.layout.words)),
      stride_((words_ + block - 1) / block * block),
      machine_(program) {
  line_.resize(stride_ * usualPlies);
  hashes_.resize(usualPlies);
  values_.resize(usualPlies * program.invariants.size() * 2);
  valuesKnown_.resize(usualPlies);
  if (!uses.empty() && (!program.forbidStatements.empty() || !program.conditionParts.empty()))
    pending_.resize(uses.size());
  for (int side = 0; side < 2 && !game.mayRepeat_ && pending_.empty(); ++side) {
    const sheet::Instruction* first = &program.code[program.generate[side]];
    onlyOf_[side] = onlyOffer(first);
    worksOut_ = worksOut_ || onlyOf_[side] != first;
  }
  remembers_ = program.layout.seen != 0;
  expectMoves(true);
  setUp(game.start());
}

template <int W>
void SheetLive<W>::setUp(const Position& position) {
  plies_ = 0;
  forget(0);
  earlier_.assign(position.words.begin() + static_cast<std::ptrdiff_t>(words_),
                  position.words.end());
  machine_.load(position.words.data());
  machine_.remember(earlier_);
  found_ = Found::none;
}

template <int W>
void SheetLive<W>::forget(std::size_t ply) {
  if (hashed_) hashes_[ply].known = false;
  valuesKnown_[ply] = 0;
}

template <int W>
void SheetLive<W>::copyTo(Position& position) const {
  position.words.resize(words_ + earlier_.size());
  machine_.store(position.words.data());
  std::copy(earlier_.begin(), earlier_.end(),
            position.words.begin() + static_cast<std::ptrdiff_t>(words_));
}

template <int W>
void SheetLive<W>::findMoves() {
  if (found_ != Found::none) return;
  if (sheet::isFinal(machine_.result())) {
    list_.clear();
    total_ = 0;
    found_ = Found::list;
    return;
  }
  only_ = onlyOf_[machine_.turn()];
  if (only_ != nullptr) {
    if (worksOut_) {
      sheet::NoSink none;
      within([&] { machine_.generate(none); });
    }
    cells_ = machine_.set(only_->b);
    total_ = static_cast<std::uint32_t>(cells_.count());
    found_ = Found::cells;
    return;
  }
  if (machine_.kept()) {
    from_ = &kept_;
  } else {
    looked_.clear();
    std::fill(pending_.begin(), pending_.end(), 0);
    machine_.countInto(pending_);
    within([&] { machine_.generate(looked_); });
    from_ = &looked_;
  }
  total_ = from_->total;
  found_ = Found::bundles;
  if (!game_.doubtful(*from_)) return;
  writeDown();
  total_ = static_cast<std::uint32_t>(list_.size());
}

// Where there are too many moves to keep aside, or some may come to the same.
template <int W>
void SheetLive<W>::writeDown() {
  copyTo(here_);
  game_.listMoves(here_, list_);
  found_ = Found::list;
}

// Before moves are asked for one by one.
template <int W>
void SheetLive<W>::findEach() {
  findMoves();
  if (found_ == Found::bundles && (from_->overflown || total_ > limits::movesInPosition))
    writeDown();
}

template <int W>
std::uint32_t SheetLive<W>::moveCount() {
  findMoves();
  return total_;
}

// Gives the choices of the move of that number, by their place, and returns its group. Requires
// findEach(), and that the moves are not in the list.
template <int W>
template <class Give>
int SheetLive<W>::choicesAt(std::uint32_t number, Give give) const {
  if (found_ == Found::cells) {
    give(0, cells_.select(static_cast<int>(number)));
    return only_->n;
  }
  const auto* bundle = from_->bundles;
  for (; number >= bundle->moves; ++bundle) number -= bundle->moves;
  int last = bundle->count - 1;
  for (int i = 0; i < last; ++i) give(i, bundle->choices[i]);
  if (last >= 0)
    give(last, bundle->lastOne >= 0 ? bundle->lastOne
                                    : bundle->base + bundle->last.select(static_cast<int>(number)));
  return bundle->group;
}

template <int W>
Move SheetLive<W>::moveAt(std::uint32_t number) {
  findEach();
  if (found_ == Found::list) return list_[number];
  Move move;
  move.group = static_cast<std::uint8_t>(choicesAt(number, [&](int place, int choice) {
    move.choices[place] = static_cast<std::uint16_t>(choice);
    move.count = static_cast<std::uint8_t>(place + 1);
  }));
  return move;
}

template <int W>
void SheetLive<W>::listMoves(MoveList& moves) {
  findEach();
  if (found_ == Found::list) {
    moves = list_;
    return;
  }
  moves.clear();
  ListSink sink(moves);
  if (found_ == Found::cells) {
    std::uint64_t choice = 0;
    sink.many(only_->n, &choice, 1, cells_);
    return;
  }
  for (const auto* bundle = from_->bundles; bundle != from_->bundles + from_->used; ++bundle) {
    std::uint64_t choices[std::extent_v<decltype(bundle->choices)> + 1];
    int given = bundle->count - 1;
    for (int i = 0; i < given; ++i) choices[i] = bundle->choices[i];
    if (bundle->lastOne < 0 && bundle->count > 0) {
      sink.many(bundle->group, choices, bundle->count, bundle->last, bundle->base);
      continue;
    }
    if (given >= 0) choices[given] = static_cast<std::uint64_t>(bundle->lastOne);
    sink.one(bundle->group, choices, bundle->count);
  }
}

template <int W>
bool SheetLive<W>::canMove() {
  if (found_ != Found::none || !pending_.empty()) return moveCount() > 0;
  if (sheet::isFinal(machine_.result())) return false;
  if (machine_.knownToMove()) return true;
  sheet::AnySink any;
  machine_.countInto({});
  within([&] { machine_.generate(any); });
  return any.found;
}

// What a look for moves uses is counted where they are looked for, once.
template <int W>
void SheetLive<W>::expectMoves(bool expected) {
  machine_.keepMovesIn(expected && pending_.empty() ? &kept_ : nullptr);
}

template <int W>
void SheetLive<W>::begin() {
  if (!pending_.empty()) [[unlikely]] {  // what is forbidden is known where moves are tried
    findMoves();
    for (std::size_t i = 0; i < uses_.size(); ++i) uses_[i] += pending_[i];
  }
  std::size_t ply = static_cast<std::size_t>(plies_);
  if (ply + 1 >= hashes_.size()) [[unlikely]] {
    hashes_.resize(2 * hashes_.size());
    line_.resize(2 * line_.size());
    values_.resize(2 * values_.size());
    valuesKnown_.resize(2 * valuesKnown_.size());
  }
  std::uint64_t* to = line_.data() + ply * stride_;
  if (stride_ <= fewWords) {
    // Word by word: they were written so a moment ago, and wider reads would have to wait for them.
    for (std::size_t i = 0; i < words_; ++i) {
      std::uint64_t word = machine_.words()[i];
      asm("" : "+r"(word));
      to[i] = word;
    }
  } else {
    for (std::size_t i = 0; i < stride_; i += block)
      std::memcpy(to + i, machine_.words() + i, block * sizeof *to);
  }
  ++plies_;
  forget(ply + 1);
  if (remembers_) {
    earlier_.push_back(machine_.word(program_.layout.seen));
    machine_.remember(earlier_);
  }
  found_ = Found::none;
  machine_.countInto(uses_);
}

template <int W>
void SheetLive<W>::made(int group) {
  machine_.applyChosen(group);
  refuseIfExhausted([&] { takeBack(); });
}

template <int W>
void SheetLive<W>::play(const Move& move) {
  begin();
  for (int i = 0; i < move.count; ++i) machine_.setChoice(i, move.choices[i]);
  made(move.group);
}

template <int W>
bool SheetLive<W>::playDrawn(Stream& stream) {
  findEach();
  if (total_ == 0) return false;
  std::uint32_t number = stream.below(total_);
  if (found_ == Found::list) {
    Move move = list_[number];
    play(move);
    return true;
  }
  int group = choicesAt(number, [&](int place, int choice) {
    machine_.setChoice(place, static_cast<std::uint64_t>(choice));
  });
  begin();
  made(group);
  return true;
}

template <int W>
void SheetLive<W>::takeBack() {
  NINEPEGS_REQUIRE(plies_ > 0);
  machine_.refill();
  machine_.load(before());
  --plies_;
  if (remembers_) {
    earlier_.pop_back();
    machine_.remember(earlier_);
  }
  found_ = Found::none;
}

template <int W>
std::uint64_t SheetLive<W>::hash() {
  std::size_t ply = static_cast<std::size_t>(plies_);
  hashed_ = true;
  Known& here = hashes_[ply];
  if (here.known) return here.value;
  here.value = 0;
  if (ply > 0 && hashes_[ply - 1].known) {
    here.value = hashes_[ply - 1].value;
    for (std::size_t i : game_.hashedWords_) {
      std::uint64_t was = before()[i], is = machine_.word(static_cast<sheet::Slot>(i));
      if (was != is) here.value ^= wordHash(i, was) ^ wordHash(i, is);
    }
  } else {
    for (std::size_t i : game_.hashedWords_)
      here.value ^= wordHash(i, machine_.word(static_cast<sheet::Slot>(i)));
  }
  here.known = true;
  return here.value;
}

std::unique_ptr<LivePosition> SheetGame::live(std::span<std::uint64_t> uses) const {
  const sheet::Program& program =
      uses.empty() ? program_ : counting(uses.size() > rules_.statements.size());
  return withWidth(program, [&]<int W>() -> std::unique_ptr<LivePosition> {
    return std::make_unique<SheetLive<W>>(*this, program, uses);
  });
}

}  // namespace ninepegs
