// Texts of moves, and what the sides see.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/algebraic.hpp"
#include "ninepegs/game/position_text.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/game/with_machine.hpp"

namespace ninepegs {

namespace {

// Puts the written parts together. A part that was never chosen is left out, with the quoted text
// right in front of it.
template <class Written>
class Assembler {
 public:
  Assembler(const rules::Rules& rules, const sheet::Program& program)
      : rules_(rules), program_(program) {}

  void add(const Written& one, std::string& text) {
    using Kind = sheet::TextPart::Kind;
    const sheet::TextPart& part = program_.parts[one.part];
    if (part.kind == Kind::literal) {
      // The line end in front of an announcement is no quoted text.
      literal_ = part.literal == "\n" ? std::string::npos : text.size();
      text += part.literal;
      return;
    }
    std::optional<std::string> value = valueOf(part.kind, one);
    if (value)
      text += *value;
    else if (literal_ <= text.size())
      text.resize(literal_);
    literal_ = std::string::npos;
  }

 private:
  std::optional<std::string> valueOf(sheet::TextPart::Kind kind, const Written& one) const {
    using Kind = sheet::TextPart::Kind;
    const Geometry& board = rules_.board;
    int value = static_cast<int>(one.value);
    switch (kind) {
      case Kind::chosenNumber:
        if (one.value < 0) return std::nullopt;
        return std::to_string(one.value);
      case Kind::number:
        return std::to_string(one.value);
      case Kind::set:
      case Kind::kinds: {
        std::vector<std::string> names;
        for (auto rest = one.cells; rest.any(); rest.dropFirst())
          names.push_back(kind == Kind::set ? board.label(rest.first())
                                            : rules_.kinds[rest.first()].name);
        return names.empty() ? "none" : joined(names, " ");
      }
      case Kind::line:
        if (!one.cells.any()) return std::nullopt;
        if (one.cells.count() == 1) return board.label(one.cells.first());
        return board.label(one.cells.first()) + "-" + board.label(one.cells.last());
      default:
        break;
    }
    if (value < 0) return std::nullopt;
    if (kind == Kind::kind) return rules_.kinds[value].name;
    if (kind == Kind::column) return Geometry::columnName(board.columnNumber(value));
    if (kind == Kind::row) return std::to_string(board.rowNumber(value));
    return board.label(value);
  }

  const rules::Rules& rules_;
  const sheet::Program& program_;
  std::size_t literal_ = std::string::npos;  // where the last quoted text begins
};

template <class Written>
MoveTexts assembled(const rules::Rules& rules, const sheet::Program& program, int group,
                    const std::vector<Written>& written) {
  MoveTexts out;
  Assembler<Written> text(rules, program), seen(rules, program), told(rules, program);
  std::string announced;
  bool hides = false;
  for (const Written& one : written) {
    if (one.channel == 0) text.add(one, out.text);
    if (one.channel == 1) seen.add(one, out.seen), hides = true;
    if (one.channel == 2) told.add(one, announced);
  }
  // A move that goes wrong may not come as far as its text.
  if (out.text.empty()) out.text = program.groups[group].name;
  if (!hides) out.seen = out.text;
  std::size_t from = 1;  // every announcement begins with a line end
  while (from < announced.size()) {
    std::size_t to = std::min(announced.find('\n', from), announced.size());
    out.told.push_back(announced.substr(from, to - from));
    from = to + 1;
  }
  return out;
}

const MoveTexts passTexts{"pass", "pass", {}};

}  // namespace

MoveTexts SheetGame::textsOf(const Position& position, const Move& move) const {
  if (move.group == sheet::passGroup) return passTexts;
  return withMachine(program_, [&]<int W>(sheet::Machine<W>& machine) {
    std::vector<typename sheet::Machine<W>::Written> written;
    load(machine, position);
    machine.replay(move.group, move.choices.data(), move.count, written);
    return assembled(rules_, program_, move.group, written);
  });
}

// Texts are put together only for what was not written before.
template <int W>
class SheetHearing final : public Hearing {
 public:
  explicit SheetHearing(const SheetGame& game) : game_(game), machine_(game.program()) {}

  Heard of(const Position& position, const Move& move) override {
    if (move.group == sheet::passGroup) return Hearing::of(passTexts);
    written_.clear();
    game_.load(machine_, position);
    machine_.refill();
    machine_.replay(move.group, move.choices.data(), move.count, written_);
    if (machine_.brokenOff()) throwBrokenOff(game_.program(), machine_.words());
    if (machine_.exhaustedAt() >= 0)
      refuseLongLoop(game_.program(), machine_.exhaustedAt(), machine_.tooManyChoices(),
                     machine_.words());
    std::uint64_t key = move.group + 1u;
    auto add = [&key](std::uint64_t word) {
      key = (key ^ word) * 0x9e3779b97f4a7c15ull;
      key ^= key >> 29;
    };
    for (const Written& one : written_) {
      add(static_cast<std::uint64_t>(one.channel) << 32 | static_cast<std::uint32_t>(one.part));
      add(static_cast<std::uint64_t>(one.value));
      for (std::uint64_t word : one.cells.word) add(word);
    }
    auto [known, isNew] = heard_.try_emplace(key);
    if (isNew)
      known->second = Hearing::of(assembled(game_.rules(), game_.program(), move.group, written_));
    return known->second;
  }

 private:
  using Written = typename sheet::Machine<W>::Written;
  const SheetGame& game_;
  sheet::Machine<W> machine_;
  std::vector<Written> written_;
  std::unordered_map<std::uint64_t, Heard> heard_;  // by what was written
};

std::unique_ptr<Hearing> SheetGame::hearing() const {
  return withWidth(program_, [&]<int W>() -> std::unique_ptr<Hearing> {
    return std::make_unique<SheetHearing<W>>(*this);
  });
}

std::string SheetGame::moveText(const Position& position, const Move& move) const {
  return textsOf(position, move).text;
}

// What was picked; of a piece that was moved elsewhere (by a jump, or together with another), where
// it came from and where it stands now.
std::vector<Cell> SheetGame::cellsOf(const Position& position, const Move& move) const {
  std::vector<Cell> cells;
  if (move.group == sheet::passGroup) return cells;
  const sheet::GroupCode& group = program_.groups[move.group];
  for (int i = 0; i < group.choices; ++i)
    if (group.choiceIsCell[i]) cells.push_back(move.choices[i]);
  int mover = toMove(position), board = rules_.layered() ? mover : 0;
  auto ownKind = [&](const Position& at, Cell cell) {  // -1: no piece of the mover
    std::optional<Piece> piece = pieceAt(at, cell, board);
    if (!piece) return -1;
    return piece->side == mover ? piece->kind : -1;
  };
  if (cells.empty()) return cells;
  int kind = ownKind(position, cells.front());
  if (kind < 0) return cells;
  Position after = position;
  apply(after, move);
  auto arrived = [&](Cell cell) {
    return ownKind(after, cell) >= 0 && ownKind(position, cell) < 0;
  };
  bool stays = ownKind(after, cells.front()) >= 0;
  if (stays || (cells.size() > 1 && arrived(cells.back()))) return cells;
  for (Cell cell = 0; cell < rules_.board.size(); ++cell)
    if (rules_.board.has(cell) && arrived(cell) &&
        (ownKind(after, cell) == kind || cells.size() == 1))
      return {cells.front(), cell};
  return cells;
}

// A secret piece of the other side is not there, in a view; what `each side sees` shows is.
View SheetGame::viewOf(const Position& position, int side) const {
  View view;
  view.shown = position;
  if (!rules_.hasSecrets) return view;
  const sheet::Layout& layout = program_.layout;
  int size = rules_.board.size(), other = 1 - side;
  for (Cell cell = 0; cell < size; ++cell) {
    std::optional<Piece> piece = pieceOf(layout, position, cell, layout.layered ? other : 0);
    if (!piece || piece->side != other || !rules_.kinds[piece->kind].secret) continue;
    std::uint64_t bit = std::uint64_t{1} << (cell % 64);
    int word = cell / 64, layer = layout.layered ? other : 0;
    view.shown.words[layout.sides[other] + word] &= ~bit;
    view.shown.words[layout.empty[layer] + word] |= bit;
    if (!layout.kinds.empty()) view.shown.words[layout.kinds[piece->kind][layer] + word] &= ~bit;
  }
  withMachine(program_, [&](auto& machine) {
    for (std::size_t line = 0; line < program_.sees.size(); ++line) {
      const sheet::SeenCode& sees = program_.sees[line];
      load(machine, position);
      machine.runRoutine(sees.value[side]);
      auto found = machine.set(program_.shownSlot);
      if (sees.kinds) {
        for (; found.any(); found.dropFirst()) {
          view.words.push_back(rules_.kinds[found.first()].name);
          view.lineOfWord.push_back(line);
        }
        continue;
      }
      View::Mark mark{sees.letter, sees.theirBoard ? other : side, {}};
      for (; found.any(); found.dropFirst()) mark.cells.set(found.first());
      view.marks.push_back(std::move(mark));
      view.lineOfMark.push_back(line);
    }
  });
  return view;
}

std::vector<RuleLine> SheetGame::viewLines() const {
  std::vector<RuleLine> out;
  for (const rules::SeesRule& sees : rules_.sees)
    out.push_back(
        {sees.span.line,
         std::string(trimmed(sheet::withoutComment(rules_.source->line(sees.span.line))))});
  return out;
}

std::vector<std::string> SheetGame::otherTexts(const Position& position, const Move& move) const {
  if (!rules_.notation) return {};
  return algebraicTexts(*this, position, move);
}

bool SheetGame::conditionHolds(int index, const Position& position) const {
  return withMachine(program_, [&](auto& machine) {
    load(machine, position);
    machine.runRoutine(program_.expectations[index]);
    return machine.number(program_.valueSlot) != 0;
  });
}

std::string SheetGame::conditionValues(int index, const Position& position) const {
  const sheet::ComparedCode& compared = program_.compared[static_cast<std::size_t>(index)];
  if (compared.word.empty()) return "";
  return withMachine(program_, [&](auto& machine) {
    std::int64_t values[2];
    for (int k = 0; k < 2; ++k) {
      load(machine, position);
      machine.runRoutine(compared.value[k]);
      values[k] = machine.number(program_.valueSlot);
    }
    return fmt::format(": {} {} {}", values[0], compared.word, values[1]);
  });
}

}  // namespace ninepegs
