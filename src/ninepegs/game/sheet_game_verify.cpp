// What a game from a sheet offers to verification: rule lines, ends, invariants, symmetries,
// examples.
#include <fmt/format.h>

#include <algorithm>
#include <bit>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_form.hpp"
#include "ninepegs/game/position_text.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/game/with_machine.hpp"
#include "ninepegs/sheet/rules/kept.hpp"

namespace ninepegs {

using sheet::Layout;

// A few moves of the start, as they are written.
std::string SheetGame::firstMoves() const {
  MoveList moves;
  listMoves(start_, moves);
  std::vector<std::string> texts;
  for (std::size_t i = 0; i < moves.size() && i < 3; ++i)
    texts.push_back(moveText(start_, moves[i]));
  return texts.empty() ? "none at the start" : joined(texts, ", ");
}

// Is there a line beside the picture, or the pictures?
static bool saysMoreThanPicture(const std::vector<sheet::Block>& lines) {
  bool first = true;
  for (const sheet::Block& block : lines) {
    for (const std::string& part : splitTrimmed(block.raw, ';')) {
      bool picture = part.rfind("picture of ", 0) == 0 || (block.pictureRow && part == block.raw);
      if (!picture && !first) return true;
      first = false;
    }
  }
  return false;
}

Example SheetGame::example(const rules::CaseRule& one, int& conditions,
                           std::vector<Diagnostic>& found) const {
  const sheet::Source& source = *rules_.source;
  Example out;
  out.name = one.name;
  out.variant = one.variant;
  out.line = one.span.line;
  out.position = start_;
  if (one.position) {
    out.startsElsewhere = true;
    out.position = readBlock(rules_, program_.layout, source, one.position->lines, found);
    judge(out.position);
  }
  auto sideOf = [&](const rules::CaseStep& step) {
    int side = rules_.side(step.subject);
    if (side < 0)
      addMessage(found,
                 {source.place(step.subjectSpan), fmt::format("\"{}\" is no side", step.subject),
                  didYouMean(step.subject, {info_.sides[0], info_.sides[1]},
                             "what is expected: ongoing, legal MOVES, SIDE wins, draw ...")});
    return side;
  };
  for (const rules::CaseStep& step : one.steps) {
    ExampleStep to;
    to.line = step.span.line;
    to.kind = step.kind;
    to.moves = splitTrimmed(step.raw, ',');
    for (const std::string& move : to.moves) {
      // What should be legal fails by itself.
      if (step.kind != ExpectKind::notLegal && !move.empty()) continue;
      if (readsAsMove(rules_, program_, move)) continue;
      // Where it stands in its line, if it stands in the first one.
      std::string line = source.line(step.span.line);
      std::size_t at = move.empty() ? line.npos : line.find(move);
      int length = std::max(1, static_cast<int>(utf8Symbols(move).size()));
      sheet::Span span = step.span;
      if (at != line.npos)
        span = {step.span.line, static_cast<int>(utf8Symbols(line.substr(0, at)).size()) + 1,
                length};
      addMessage(found, {source.place(span),
                         move.empty() ? "a move is missing between two commas"
                                      : fmt::format("\"{}\" is no move that this game could have",
                                                    clipped(move, 60)),
                         move.empty() ? "" : "such as: " + firstMoves()});
    }
    to.name = step.endName;
    to.firstDepth = step.first;
    to.numbers = step.numbers;
    switch (step.kind) {
      case ExpectKind::end:
        to.side = step.draw ? -1 : sideOf(step);
        if (!step.endName.empty()) {
          std::vector<std::string> names;
          for (const sheet::EndCode& end : program_.endCodes) {
            names.push_back(end.name);
            names.push_back(end.drawName);
          }
          if (std::find(names.begin(), names.end(), step.endName) == names.end())
            addMessage(found, {source.place(step.span),
                               fmt::format("no end is called \"{}\"", step.endName),
                               didYouMean(step.endName, names, "the ends are listed in `ends`")});
        }
        break;
      case ExpectKind::turn:
        to.side = sideOf(step);
        break;
      case ExpectKind::moves:
        if (!step.endName.empty()) {
          to.to = step.toCell;
          to.name.clear();
          to.cell = step.subject;
          if (!rules_.board.find(to.cell))
            addMessage(found, {source.place(step.subjectSpan),
                               fmt::format("there is no cell \"{}\"", to.cell), ""});
        }
        break;
      case ExpectKind::seenBy:
      case ExpectKind::sees:
        to.side = rules_.side(step.subject);
        break;
      case ExpectKind::edges:
        to.name = step.subject;
        if (std::none_of(rules_.kinds.begin(), rules_.kinds.end(),
                         [&](const rules::PieceKind& kind) {
                           return kind.name == step.subject && !kind.edges.empty();
                         }))
          addMessage(found,
                     {source.place(step.subjectSpan),
                      fmt::format("no piece called \"{}\" has numbers on its sides", step.subject),
                      "such a piece says: edges 2 7 2 7 2 1"});
        break;
      case ExpectKind::condition:
        to.condition = conditions++;
        to.text = std::string(trimmed(source.line(step.span.line)));
        break;
      case ExpectKind::leaves:
        to.position = readBlock(rules_, program_.layout, source, step.lines, found);
        to.whole = saysMoreThanPicture(step.lines);
        break;
      default:
        break;
    }
    out.steps.push_back(std::move(to));
  }
  return out;
}

std::vector<RuleLine> SheetGame::ruleLines() const {
  std::vector<RuleLine> out;
  for (const rules::StatementInfo& one : rules_.statements) out.push_back({one.line, one.text});
  return out;
}

std::vector<RuleLine> SheetGame::conditionParts() const {
  std::vector<RuleLine> out;
  for (const sheet::PartCode& one : counting(true).conditionParts)
    out.push_back({one.line, one.text});
  return out;
}

std::vector<Result> SheetGame::endsThatHold(const Position& position,
                                            const Position* before) const {
  std::vector<Result> out;
  withMachine(program_, [&](auto& machine) {
    for (const sheet::EndCode& end : program_.endCodes) {
      load(machine, position);
      if (before != nullptr) machine.loadBefore(before->words.data());
      machine.setResult(0);
      machine.runRoutine(end.test[machine.lastMover()]);
      if (machine.result() != 0) out.push_back(decoded(machine.result()));
    }
  });
  return out;
}

std::vector<Invariant> SheetGame::invariants() const {
  std::vector<Invariant> out;
  for (const sheet::InvariantCode& one : program_.invariants)
    out.push_back({one.line, std::string(trimmed(one.text)), one.change});
  return out;
}

std::int64_t SheetGame::invariantValue(std::size_t index, const Position& position,
                                       int side) const {
  return withMachine(program_, [&](auto& machine) {
    load(machine, position);
    machine.runRoutine(program_.invariants[index].value[side]);
    return machine.number(program_.valueSlot);
  });
}

// What holds at the start, before anybody has moved, says nothing of a position.
std::vector<RuleLine> SheetGame::forbiddenThatHold(const Position& position) const {
  if (program_.forbids.empty() || sameButResult(position, start_)) return {};
  std::vector<RuleLine> out;
  withMachine(program_, [&](auto& machine) {
    for (const sheet::ForbidCode& one : program_.forbids) {
      load(machine, position);
      int mover = machine.lastMover();
      auto holds = [&] {
        machine.runRoutine(one.value[mover]);
        return machine.number(program_.valueSlot) != 0;
      };
      if (!holds()) continue;
      load(machine, start_);
      if (!holds()) out.push_back({one.line, one.reason});
    }
  });
  return out;
}

std::vector<Symmetry> SheetGame::symmetries() const {
  std::vector<Symmetry> out;
  for (const rules::SymmetryRule& rule : rules_.symmetries)
    for (Symmetry& symmetry : symmetriesOf(rule, rules_.board)) out.push_back(std::move(symmetry));
  return out;
}

std::vector<Symmetry> SheetGame::possibleSymmetries() const {
  std::vector<Symmetry> out;
  for (const char* name : {"", "all"})
    for (bool exchange : {false, true}) {
      if (*name == 0 && !exchange) continue;
      rules::SymmetryRule rule{name, exchange, *name != 0, {}};
      for (Symmetry& symmetry : symmetriesOf(rule, rules_.board))
        out.push_back(std::move(symmetry));
    }
  return out;
}

std::vector<Symmetry> SheetGame::keptSymmetries() const {
  std::vector<Symmetry> out = {rules_.board.identity()};
  for (const Symmetry& one : rules_.board.symmetries("all"))
    if (rules::keeps(rules_, one)) out.push_back(one);
  // One after the other they are symmetries, too.
  for (std::size_t a = 0; a < out.size(); ++a)
    for (std::size_t b = 0; b <= a; ++b) {
      Symmetry both = out[a];
      for (Cell& cell : both.image) cell = out[b].image[cell];
      auto same = [&](const Symmetry& one) { return one.image == both.image; };
      if (std::none_of(out.begin(), out.end(), same)) out.push_back(std::move(both));
    }
  out.erase(out.begin());
  return out;
}

Position SheetGame::alone(const Position& position) const {
  Position out = position;
  out.words.resize(program_.layout.words);
  if (out.words.size() < position.words.size()) judge(out);
  return out;
}

Position SheetGame::mapped(const Position& position, const Symmetry& symmetry) const {
  Position out = position;
  int size = rules_.board.size();
  auto map = [&](sheet::Slot slot) {
    for (int k = 0; k < program_.words; ++k) out.words[slot + k] = 0;
    for (int k = 0; k < program_.words; ++k) {
      for (std::uint64_t rest = position.words[slot + k]; rest != 0; rest &= rest - 1) {
        Cell to = symmetry.image[k * 64 + std::countr_zero(rest)];
        out.words[slot + to / 64] |= std::uint64_t{1} << (to % 64);
      }
    }
  };
  const Layout& layout = program_.layout;
  auto mapBoth = [&](const Layout::BySide& slots) {
    map(slots[0]);
    if (slots[1] == slots[0]) return;
    map(slots[1]);
    if (symmetry.exchange)
      std::swap_ranges(&out.words[slots[0]], &out.words[slots[0]] + program_.words,
                       &out.words[slots[1]]);
  };
  mapBoth(layout.sides);
  mapBoth(layout.empty);
  for (const Layout::BySide& kind : layout.kinds) mapBoth(kind);
  for (const Layout::BySide& mark : layout.marks) mapBoth(mark);
  for (const Layout::BySide& slots : layout.cells)
    for (int side = 0; side < (slots[0] == slots[1] ? 1 : 2); ++side)
      if (std::int64_t cell = static_cast<std::int64_t>(position.words[slots[side]]); cell >= 0)
        out.words[slots[side]] = static_cast<std::uint64_t>(symmetry.image[cell]);
  for (sheet::Slot numbers : layout.cellNumbers)
    for (Cell cell = 0; numbers != 0 && cell < size; ++cell)
      out.words[numbers + symmetry.image[cell]] = position.words[numbers + cell];
  // What went wrong names a cell, too.
  std::uint64_t& result = out.words[Layout::result];
  if (outcomeOf(result).kind == ResultKind::fault)
    if (std::uint64_t cell = (result >> 40) & 0xffff; cell < symmetry.image.size()) {
      result &= ~(std::uint64_t{0xffff} << 40);
      result |= static_cast<std::uint64_t>(symmetry.image[cell] & 0xffff) << 40;
    }
  if (symmetry.exchange) exchangeSides(out);
  return out;
}

// All that belongs to a side and lies on no cells.
void SheetGame::exchangeSides(Position& position) const {
  const Layout& layout = program_.layout;
  std::vector<std::uint64_t>& words = position.words;
  words[Layout::turn] = 1 - words[Layout::turn];
  if (layout.lastMover != 0 && words[layout.lastMover] != 0)
    words[layout.lastMover] = 3 - words[layout.lastMover];
  for (const std::vector<Layout::BySide>* slots : {&layout.numbers, &layout.cells})
    for (const Layout::BySide& one : *slots) std::swap(words[one[0]], words[one[1]]);
  for (std::size_t kind = 0; layout.hands[0] != 0 && kind < rules_.kinds.size(); ++kind)
    std::swap(words[layout.hands[0] + kind], words[layout.hands[1] + kind]);
  std::uint64_t& result = words[Layout::result];
  if (outcomeOf(result).kind != ResultKind::win) return;
  result ^= std::uint64_t{1} << 8;
  Outcome wanted = outcomeOf(result);
  if (rules_.ends[wanted.end].kind != sheet::EndKind::sideWins) return;
  // The other side may have an end of its own for it, under another number.
  Position judged = position;
  judge(judged);
  Outcome is = outcomeOf(judged.words[Layout::result]);
  if (is.kind == wanted.kind && is.winner == wanted.winner && is.claim == wanted.claim)
    result = judged.words[Layout::result];
}

std::vector<Example> SheetGame::examples() const {
  return examples_;
}

// What is wrong with a variant is said of the variant: the sheet by itself is sound.
std::shared_ptr<const Game> SheetGame::variant(const std::string& name) const {
  try {
    return fromText(info_.source, text_, name, 0, cases_);
  } catch (const BadInput& error) {
    std::vector<Diagnostic> found = error.diagnostics();
    for (Diagnostic& one : found)
      one.message = fmt::format("in the variant \"{}\": {}", name, one.message);
    throw BadInput(std::move(found));
  }
}

}  // namespace ninepegs
