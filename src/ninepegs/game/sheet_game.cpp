#include "ninepegs/game/sheet_game.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/fen.hpp"
#include "ninepegs/game/position_text.hpp"
#include "ninepegs/game/with_machine.hpp"
#include "ninepegs/sheet/compile/compiler.hpp"
#include "ninepegs/sheet/rules/checker.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs {

using sheet::Layout;

std::shared_ptr<const SheetGame> SheetGame::fromText(const std::string& path, std::string text,
                                                     const std::string& variant,
                                                     sheet::Shortcuts without, CasesFile cases) {
  sheet::requireText(path, text);
  auto whole = std::make_shared<sheet::Source>(path, text);
  if (!cases.path.empty()) {
    sheet::requireText(cases.path, cases.text);
    whole->addCases(cases.path, cases.text);
  }
  std::shared_ptr<const sheet::Source> source = std::move(whole);
  std::vector<Diagnostic> found;
  sheet::Tree tree = sheet::parse(*source, variant, found);
  if (!found.empty()) {
    sheet::addLikelySlips(tree, source, found);
    sheet::dropFollowOns(found);
    throw BadInput(std::move(found));
  }
  rules::Rules rules = sheet::check(tree, std::move(source), found);
  if (!found.empty()) {
    sheet::dropFollowOns(found);
    throw BadInput(std::move(found));
  }
  std::shared_ptr<SheetGame> game = made(std::move(rules), without);
  game->text_ = std::move(text);
  if (!cases.path.empty()) {
    game->info_.casesSource = cases.path;
    game->info_.casesLine = game->rules_.source->firstOfCases();
  }
  game->cases_ = std::move(cases);
  return game;
}

std::shared_ptr<const SheetGame> SheetGame::fromRules(rules::Rules rules,
                                                      sheet::Shortcuts without) {
  std::shared_ptr<SheetGame> game = made(std::move(rules), without);
  game->info_.variants.clear();  // their text is not at hand
  return game;
}

std::shared_ptr<SheetGame> SheetGame::made(rules::Rules rules, sheet::Shortcuts without) {
  std::shared_ptr<SheetGame> game(new SheetGame);
  game->rules_ = std::move(rules);
  game->program_ = sheet::compile(game->rules_, {.without = without});
  game->without_ = without;
  for (const sheet::GroupCode& group : game->program_.groups)
    game->mayRepeat_ = game->mayRepeat_ || group.mayRepeat;
  const Layout& layout = game->program_.layout;
  for (int word = 0; word < layout.words; ++word) {
    bool differs = word != Layout::plies || game->rules_.readsPlies;
    if (layout.seen != 0 && word == layout.seen) differs = false;
    // Who moved last is told by the result; what can follow does not depend on it.
    if (layout.lastMover != 0 && word == layout.lastMover) differs = false;
    if (differs) game->hashedWords_.push_back(static_cast<std::size_t>(word));
  }
  game->fillInfo();
  std::vector<Diagnostic> found;
  try {
    game->setUp(found);
  } catch (const TooManyMessages&) {
  }
  if (!found.empty()) throw BadInput(std::move(found));
  return game;
}

// Compiled when a check asks for it first.
const sheet::Program& SheetGame::counting(bool parts) const {
  std::call_once(countingMade_[parts], [&] {
    counting_[parts] =
        sheet::compile(rules_, {.coverage = true, .parts = parts, .without = without_});
  });
  return counting_[parts];
}

void SheetGame::fillInfo() {
  info_.id = rules_.game;
  info_.title = rules_.title.empty() ? rules_.game : rules_.title;
  info_.variant = rules_.variant;
  info_.about = rules_.about;
  info_.source = rules_.source->name();
  for (int side = 0; side < 2; ++side) info_.sides[side] = rules_.sides[side];
  for (const rules::PieceKind& piece : rules_.kinds)
    info_.kinds.push_back({piece.name,
                           {piece.letters[0], piece.letters[1]},
                           piece.neutral,
                           {piece.edges.begin(), piece.edges.end()}});
  info_.mayLast = rules_.mayLast;
  for (const rules::MarkRule& mark : rules_.marks) info_.marks.push_back(mark.name);
  for (const rules::NumberRule& number : rules_.numbers)
    if (number.onCells) info_.cellNumbers.push_back(number.name);
  for (const sheet::EndCode& end : program_.endCodes)
    info_.ends.push_back({end.name, end.line, !end.canWin});
  info_.variants = rules_.variants;
}

void SheetGame::setUp(std::vector<Diagnostic>& found) {
  const sheet::Source& source = *rules_.source;
  start_ = emptyPosition(rules_, program_.layout);
  if (rules_.start) start_ = readBlock(rules_, program_.layout, source, rules_.start->lines, found);
  if (!found.empty()) return;
  judge(start_);
  Result result = this->result(start_);
  if (result.kind != ResultKind::ongoing) {
    addMessage(found, {source.place({result.line, 0, 1}),
                       fmt::format("the game is over before the first move: {}",
                                   resultText(*this, result)),
                       "an end must not hold in the starting position"});
    return;
  }
  int conditions = 0;
  for (const rules::CaseRule& one : rules_.cases) {
    if (one.variant == info_.variant) {
      examples_.push_back(example(one, conditions, found));
      continue;
    }
    if (!info_.variant.empty()) continue;
    bool known = std::any_of(info_.variants.begin(), info_.variants.end(),
                             [&](const auto& v) { return v.first == one.variant; });
    if (!known)
      addMessage(found, {source.place(one.variantSpan),
                         fmt::format("there is no variant \"{}\"", one.variant), ""});
  }
}

void SheetGame::judge(Position& position) const {
  withMachine(program_, [&](auto& machine) {
    position.words[Layout::result] = 0;
    machine.load(position.words.data());
    machine.noteSeen();
    machine.runRoutine(program_.ends[machine.lastMover()]);
    machine.store(position.words.data());
  });
}

std::span<const std::uint64_t> SheetGame::earlier(const Position& position) const {
  return std::span(position.words).subspan(program_.layout.words);
}

// Before a move: the position becomes an earlier one.
void SheetGame::remember(Position& position) const {
  if (program_.layout.seen != 0) position.words.push_back(position.words[program_.layout.seen]);
}

int SheetGame::toMove(const Position& position) const {
  return static_cast<int>(position.words[Layout::turn]);
}

void SheetGame::apply(Position& position, const Move& move) const {
  applied(position, move);
}

std::int64_t SheetGame::applied(Position& position, const Move& move) const {
  remember(position);
  return withMachine(program_, [&](auto& machine) {
    load(machine, position);
    machine.apply(move.group, move.choices.data(), move.count);
    machine.store(position.words.data());
    return machine.spent();
  });
}

std::string SheetGame::faultText(std::uint64_t word) const {
  const std::string& text = rules_.statements[(word >> 16) & 0xffffff].text;
  Cell cell = static_cast<Cell>((word >> 40) & 0xffff);
  std::string where = cell < rules_.board.size() ? rules_.board.label(cell) : "";
  switch (static_cast<sheet::FaultReason>((word >> 10) & 63)) {
    case sheet::FaultReason::occupied:
      break;
    case sheet::FaultReason::noKind:
      return fmt::format("`{}` names no kind of piece here: nothing stood where it was looked for",
                         text);
    case sheet::FaultReason::wrongSide:
      return fmt::format("`{}` gives a piece to a side that cannot have one of its kind{}", text,
                         where.empty() ? "" : ", on " + where);
    case sheet::FaultReason::handEmpty:
      return fmt::format("`{}` finds no such piece in the hand", text);
    case sheet::FaultReason::belowZero:
      return fmt::format("`{}` brings the clock of the notation below 0", text);
  }
  return fmt::format("`{}` puts a piece on {}, where one stands already", text, where);
}

int SheetGame::lastMover(const Position& position) const {
  std::uint64_t known =
      program_.layout.lastMover != 0 ? position.words[program_.layout.lastMover] : 0;
  return known != 0 ? static_cast<int>(known) - 1 : 1 - toMove(position);
}

Outcome SheetGame::outcomeOf(std::uint64_t word) {
  static constexpr ResultKind kinds[] = {ResultKind::ongoing, ResultKind::win, ResultKind::draw,
                                         ResultKind::fault};
  Outcome out;
  out.kind = kinds[word & 0xff];
  if (out.kind == ResultKind::ongoing || out.kind == ResultKind::fault) return out;
  if (out.kind == ResultKind::win) out.winner = static_cast<int>((word >> 8) & 1);
  out.claim = ((word >> 9) & 1) != 0;
  out.end = static_cast<int>((word >> 16) & 0xffffff);
  return out;
}

bool SheetGame::sameButResult(const Position& one, const Position& two) const {
  for (int word = 0; word < program_.layout.words; ++word) {
    if (word == Layout::result || (program_.layout.seen != 0 && word == program_.layout.seen))
      continue;
    if (one.words[word] != two.words[word]) return false;
  }
  return true;
}

Result SheetGame::decoded(std::uint64_t word) const {
  Outcome is = outcomeOf(word);
  Result out{is.kind, is.winner, "", is.end, is.claim, 0};
  if (is.kind == ResultKind::fault) {
    out.line = rules_.statements[(word >> 16) & 0xffffff].line;
    out.name = faultText(word);
  } else if (is.kind != ResultKind::ongoing) {
    const sheet::EndCode& end = program_.endCodes[is.end];
    out.line = end.line;
    out.name = is.kind == ResultKind::win ? end.name : end.drawName;
  }
  return out;
}

Result SheetGame::result(const Position& position) const {
  return decoded(position.words[Layout::result]);
}

std::string SheetGame::positionText(const Position& position) const {
  return positionLine(rules_, program_.layout, position);
}

Position SheetGame::readPosition(std::string_view text, const std::string& source) const {
  requireLine(rules_, program_.layout, text, source);
  bool fen = rules_.notation && looksLikeFen(text);
  Position position = fen ? readFen(rules_, program_.layout, text, source)
                          : readLine(rules_, program_.layout, text, source);
  judge(position);
  if (fen) requireSound(position, std::string(text), source);
  return position;
}

std::string SheetGame::notation(const Position& position) const {
  if (!rules_.notation || !besideNotation(position).empty()) return "";
  return fenText(rules_, program_.layout, position);
}

std::vector<std::string> SheetGame::besideNotation(const Position& position) const {
  return rules_.notation ? besideFen(rules_, program_.layout, position)
                         : std::vector<std::string>{};
}

// A position from elsewhere keeps what always holds in this game.
void SheetGame::requireSound(const Position& position, const std::string& text,
                             const std::string& source) const {
  for (std::size_t i = 0; i < program_.invariants.size(); ++i)
    for (int side = 0; side < 2 && program_.invariants[i].change == 0; ++side)
      if (invariantValue(i, position, side) == 0)
        throw BadInput(
            Place{source, 1, 0, 1, text},
            fmt::format("this is no position of {}: for {}, `{}` does not hold", info_.title,
                        info_.sides[side], trimmed(program_.invariants[i].text)),
            fmt::format("line {} of the sheet says what must always hold",
                        program_.invariants[i].line));
}

std::optional<Piece> SheetGame::pieceAt(const Position& position, Cell cell, int board) const {
  return pieceOf(program_.layout, position, cell, board);
}

CellSet SheetGame::cellsOfEnd(const Position& position, int end) const {
  CellSet out;
  int routine = program_.endCodes[end].shown[lastMover(position)];
  if (routine < 0) return out;
  withMachine(program_, [&](auto& machine) {
    load(machine, position);
    machine.runRoutine(routine);
    for (auto cells = machine.set(program_.shownSlot); cells.any(); cells.dropFirst())
      out.set(cells.first());
  });
  return out;
}

std::int64_t SheetGame::worth(const Position& position, int side) const {
  return withMachine(program_, [&](auto& machine) {
    load(machine, position);
    machine.runRoutine(program_.worth[side]);
    std::int64_t own = machine.number(program_.valueSlot);
    machine.runRoutine(program_.worth[1 - side]);
    return own - machine.number(program_.valueSlot);
  });
}

std::vector<std::uint64_t> SheetGame::identity(const Position& position) const {
  std::vector<std::uint64_t> words;
  for (std::size_t i : hashedWords_) words.push_back(position.words[i]);
  if (rules_.timesDecide) {
    std::vector<std::uint64_t> before(earlier(position).begin(), earlier(position).end());
    std::sort(before.begin(), before.end());
    words.insert(words.end(), before.begin(), before.end());
  }
  return words;
}

std::uint64_t SheetGame::hash(const Position& position) const {
  std::uint64_t hash = 0;
  for (std::size_t i : hashedWords_) hash ^= wordHash(i, position.words[i]);
  return hash;
}

}  // namespace ninepegs
