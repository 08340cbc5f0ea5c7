#include "ninepegs/game/sheet_game.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/position_text.hpp"
#include "ninepegs/game/sinks.hpp"
#include "ninepegs/game/with_machine.hpp"
#include "ninepegs/sheet/compiler.hpp"
#include "ninepegs/sheet/parser.hpp"

namespace ninepegs {

using sheet::Layout;
using sheet::Verdict;

std::shared_ptr<const SheetGame> SheetGame::fromText(const std::string& path, std::string text,
                                                     const std::string& variant) {
  sheet::requireText(path, text);
  sheet::Source source(path, text);
  std::vector<Diagnostic> found;
  sheet::Tree tree = sheet::parse(source, variant, found);
  if (!found.empty()) throw BadInput(std::move(found));
  std::shared_ptr<SheetGame> game(new SheetGame);
  game->text_ = std::move(text);
  game->sheet_ = sheet::check(std::move(tree), source, found);
  if (!found.empty()) throw BadInput(std::move(found));
  game->program_ = sheet::compile(game->sheet_, source, {.coverage = false});
  game->counting_ = sheet::compile(game->sheet_, source, {.coverage = true});
  game->info_.variant = variant;
  game->fillInfo(path);
  game->setUp(source, found);
  if (!found.empty()) throw BadInput(std::move(found));
  return game;
}

void SheetGame::fillInfo(const std::string& path) {
  const sheet::Tree& tree = sheet_.tree;
  info_.id = tree.game.text;
  info_.title = tree.title.empty() ? tree.game.text : tree.title;
  info_.about = tree.about;
  info_.source = path;
  for (int side = 0; side < 2; ++side) info_.sides[side] = tree.sides[side].text;
  for (const sheet::PieceDecl& piece : tree.pieces)
    info_.kinds.push_back({piece.name.text, {piece.letters[0], piece.letters[1]}});
  for (const sheet::EndCode& end : program_.endCodes)
    info_.ends.push_back({end.name, end.line, !end.canWin});
  for (const auto& [name, says] : tree.variants) info_.variants.emplace_back(name.text, says);
}

void SheetGame::setUp(const sheet::Source& source, std::vector<Diagnostic>& found) {
  start_ = emptyPosition(sheet_, program_.layout);
  if (sheet_.tree.start)
    start_ = readBlock(sheet_, program_.layout, source, sheet_.tree.start->lines, found);
  if (!found.empty()) return;
  judge(start_);
  Result result = this->result(start_);
  if (result.kind != ResultKind::ongoing) {
    found.push_back(
        {source.place({result.line, 0, 1}),
         fmt::format("the game is over before the first move: {}", resultText(*this, result)),
         "an end must not hold in the starting position"});
    return;
  }
  for (const sheet::CaseDecl& one : sheet_.tree.cases) {
    if (one.variant.text == info_.variant) {
      examples_.push_back(example(one, source, found));
      continue;
    }
    if (!info_.variant.empty()) continue;
    bool known = std::any_of(info_.variants.begin(), info_.variants.end(),
                             [&](const auto& v) { return v.first == one.variant.text; });
    if (!known)
      found.push_back({source.place(one.variant.span),
                       fmt::format("there is no variant \"{}\"", one.variant.text), ""});
    Example elsewhere;  // the variant itself holds the rest
    elsewhere.name = one.name;
    elsewhere.variant = one.variant.text;
    elsewhere.line = one.span.line;
    examples_.push_back(std::move(elsewhere));
  }
}

void SheetGame::judge(Position& position) const {
  withMachine(program_, [&](auto& machine) {
    position.words[Layout::result] = 0;
    machine.load(position.words.data());
    machine.runRoutine(program_.ends[1 - machine.turn()]);
    machine.store(position.words.data());
  });
}

int SheetGame::toMove(const Position& position) const {
  return static_cast<int>(position.words[Layout::turn]);
}

void SheetGame::listMoves(const Position& position, MoveList& moves) const {
  moves.clear();
  if (sheet::isFinal(position.words[Layout::result])) return;
  bool over = withMachine(program_, [&](auto& machine) {
    machine.load(position.words.data());
    ListSink sink(moves);
    machine.generate(sink);
    return sink.over;
  });
  if (over)
    throw BadInput(
        Place{info_.source, sheet_.tree.moves.front().name.span.line, 0, 1, {}},
        fmt::format("a position has more than {} legal moves, the limit", limits::movesInPosition),
        "narrow the sets from which cells are picked");
}

std::uint64_t SheetGame::countMoves(const Position& position) const {
  if (sheet::isFinal(position.words[Layout::result])) return 0;
  return withMachine(program_, [&](auto& machine) {
    machine.load(position.words.data());
    sheet::CountSink sink;
    machine.generate(sink);
    return sink.total;
  });
}

void SheetGame::apply(Position& position, const Move& move) const {
  withMachine(program_, [&](auto& machine) {
    machine.load(position.words.data());
    machine.apply(move.group, move.choices.data(), move.count);
    machine.store(position.words.data());
  });
}

void SheetGame::applyCounting(Position& position, const Move& move,
                              std::span<std::uint64_t> uses) const {
  withMachine(counting_, [&](auto& machine) {
    machine.load(position.words.data());
    machine.countInto(uses);
    machine.apply(move.group, move.choices.data(), move.count);
    machine.store(position.words.data());
  });
}

Result SheetGame::decoded(std::uint64_t word) const {
  Result out;
  int number = static_cast<int>((word >> 16) & 0xffffff);
  switch (static_cast<Verdict>(word & 0xff)) {
    case Verdict::ongoing:
      return out;
    case Verdict::fault: {
      Cell cell = static_cast<Cell>((word >> 40) & 0xffff);
      out.kind = ResultKind::fault;
      const sheet::StatementInfo& where = sheet_.statements[number];
      out.line = where.line;
      out.name = fmt::format("`{}` puts a piece on {}, where one stands already", where.text,
                             sheet_.board.label(cell));
      return out;
    }
    case Verdict::win:
      out.kind = ResultKind::win;
      out.winner = static_cast<int>((word >> 8) & 1);
      out.name = program_.endCodes[number].name;
      break;
    case Verdict::draw:
      out.kind = ResultKind::draw;
      out.name = program_.endCodes[number].drawName;
      break;
  }
  out.end = number;
  out.claim = ((word >> 9) & 1) != 0;
  out.line = program_.endCodes[number].line;
  return out;
}

Result SheetGame::result(const Position& position) const {
  return decoded(position.words[Layout::result]);
}

std::string SheetGame::moveText(const Position& position, const Move& move) const {
  if (move.group == sheet::passGroup) return "pass";
  const sheet::GroupCode& group = program_.groups[move.group];
  int side = toMove(position);
  return withMachine(program_, [&](auto& machine) {
    machine.load(position.words.data());
    for (int i = 0; i < move.count; ++i) machine.setChoice(i, move.choices[i]);
    machine.runRoutine(group.text[side]);
    std::string text;
    for (const sheet::TextPart& part : group.parts) {
      using Kind = sheet::TextPart::Kind;
      int value = static_cast<int>(machine.number(part.slot));
      switch (part.kind) {
        case Kind::literal:
          text += part.literal;
          break;
        case Kind::kind:
          text += sheet_.tree.pieces[value].name.text;
          break;
        case Kind::number:
          text += std::to_string(machine.number(part.slot));
          break;
        case Kind::cell:
          text += value < 0 ? "none" : sheet_.board.label(value);
          break;
        case Kind::column:
          text += value < 0 ? "none" : Geometry::columnName(sheet_.board.columnNumber(value));
          break;
        case Kind::row:
          text += value < 0 ? "none" : std::to_string(sheet_.board.rowNumber(value));
          break;
        case Kind::set: {
          auto cells = machine.set(part.slot);
          std::vector<std::string> labels;
          for (; cells.any(); cells.dropFirst())
            labels.push_back(sheet_.board.label(cells.first()));
          text += labels.empty() ? "none" : joined(labels, " ");
          break;
        }
      }
    }
    return text;
  });
}

std::string SheetGame::positionText(const Position& position) const {
  return positionLine(sheet_, program_.layout, position);
}

Position SheetGame::readPosition(std::string_view text, const std::string& source) const {
  Position position = readLine(sheet_, program_.layout, text, source);
  judge(position);
  return position;
}

std::optional<Piece> SheetGame::pieceAt(const Position& position, Cell cell) const {
  return pieceOf(program_.layout, position, cell);
}

std::vector<Cell> SheetGame::cellsOf(const Move& move) const {
  std::vector<Cell> cells;
  if (move.group == sheet::passGroup) return cells;
  const sheet::GroupCode& group = program_.groups[move.group];
  for (int i = 0; i < move.count; ++i)
    if (!group.choiceIsKind[i]) cells.push_back(move.choices[i]);
  return cells;
}

CellSet SheetGame::cellsOfEnd(const Position& position, int end) const {
  CellSet out;
  int routine = program_.endCodes[end].shown[1 - toMove(position)];
  if (routine < 0) return out;
  withMachine(program_, [&](auto& machine) {
    machine.load(position.words.data());
    machine.runRoutine(routine);
    for (auto cells = machine.set(program_.shownSlot); cells.any(); cells.dropFirst())
      out.set(cells.first());
  });
  return out;
}

std::int64_t SheetGame::worth(const Position& position, int side) const {
  if (!hasWorth()) return 0;
  return withMachine(program_, [&](auto& machine) {
    machine.load(position.words.data());
    machine.runRoutine(program_.worth[side]);
    std::int64_t own = machine.number(program_.valueSlot);
    machine.runRoutine(program_.worth[1 - side]);
    return own - machine.number(program_.valueSlot);
  });
}

std::vector<std::uint64_t> SheetGame::identity(const Position& position) const {
  std::vector<std::uint64_t> words = position.words;
  if (!sheet_.readsPlies) words[Layout::plies] = 0;
  return words;
}

std::uint64_t SheetGame::hash(const Position& position) const {
  Position same{identity(position)};
  return Game::hash(same);
}

std::uint64_t SheetGame::hash(const Position& after, const Position& before,
                              std::uint64_t hashBefore) const {
  std::uint64_t hash = Game::hash(after, before, hashBefore);
  if (sheet_.readsPlies) return hash;
  // Take the plies out again: they were mixed in as a word that changed.
  Position one{std::vector<std::uint64_t>(Layout::plies + 1, 0)}, two = one;
  one.words[Layout::plies] = before.words[Layout::plies];
  two.words[Layout::plies] = after.words[Layout::plies];
  return Game::hash(two, one, hash);
}

PlayoutEnd SheetGame::playOut(Position& position, Stream& stream, int plyLimit) const {
  PlayoutEnd end;
  bool overflown = false;
  withMachine(program_, [&]<int W>(sheet::Machine<W>& machine) {
    machine.load(position.words.data());
    BundleSink<W> sink;
    while (machine.result() == 0) {
      sink.clear();
      machine.generate(sink);
      if (sink.total == 0 || end.plies >= plyLimit) {
        end.stalled = true;
        break;
      }
      if (sink.overflown) {
        overflown = true;
        break;
      }
      std::uint32_t rank = stream.below(sink.total);
      const auto* bundle = sink.bundles;
      for (; rank >= bundle->moves; ++bundle) rank -= bundle->moves;
      int given = bundle->count - 1;
      for (int i = 0; i < given; ++i) machine.setChoice(i, bundle->choices[i]);
      if (given >= 0)
        machine.setChoice(given,
                          static_cast<std::uint64_t>(bundle->last.select(static_cast<int>(rank))));
      machine.applyChosen(bundle->group);
      ++end.plies;
    }
    machine.store(position.words.data());
  });
  if (overflown) {  // too many moves to keep aside: go on with lists
    PlayoutEnd rest = Game::playOut(position, stream, plyLimit - end.plies);
    rest.plies += end.plies;
    return rest;
  }
  end.result = result(position);
  return end;
}

}  // namespace ninepegs
