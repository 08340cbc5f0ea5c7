#include "ninepegs/verify/lint.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/parser.hpp"

namespace ninepegs::verify {
namespace {

using sheet::ExprKind;

// The parts of `A and B and C`, each as it was read.
void parts(const sheet::Expr& expr, std::set<std::string>& out) {
  if (expr.kind == ExprKind::both)
    for (const sheet::Expr& arg : expr.args) parts(arg, out);
  else
    out.insert(sheet::toText(expr));
}

bool mentionsWord(const sheet::Expr& expr, const std::string& word) {
  if (expr.word == word) return true;
  return std::any_of(expr.args.begin(), expr.args.end(),
                     [&](const sheet::Expr& arg) { return mentionsWord(arg, word); });
}

class Linter {
 public:
  Linter(const SheetGame& game, const LintOptions& options)
      : game_(game), sheet_(game.sheet()), tree_(game.sheet().tree), options_(options) {}

  std::vector<Remark> run() {
    ends();
    pieces();
    names();
    wholeBoards();
    playouts();
    std::stable_sort(out_.begin(), out_.end(),
                     [](const Remark& a, const Remark& b) { return a.line < b.line; });
    return std::move(out_);
  }

 private:
  void say(int line, const std::string& message, const std::string& hint = {}) {
    out_.push_back({line, message, hint});
  }
  void ends();
  void pieces();
  void names();
  void wholeBoards();
  void playouts();

  const SheetGame& game_;
  const sheet::Checked& sheet_;
  const sheet::Tree& tree_;
  const LintOptions& options_;
  std::set<std::size_t> hiddenEnds_;  // that an earlier end hides always
  std::vector<Remark> out_;
};

// An end whose conditions hold all those of an earlier end never comes to decide.
void Linter::ends() {
  for (std::size_t later = 0; later < tree_.ends.size(); ++later) {
    std::set<std::string> own;
    parts(tree_.ends[later].condition, own);
    for (std::size_t earlier = 0; earlier < later; ++earlier) {
      std::set<std::string> before;
      parts(tree_.ends[earlier].condition, before);
      if (!std::includes(own.begin(), own.end(), before.begin(), before.end())) continue;
      say(tree_.ends[later].span.line,
          fmt::format("the end \"{}\" can never be reached: wherever it holds, \"{}\" in line {} "
                      "holds too and decides first",
                      tree_.ends[later].name, tree_.ends[earlier].name,
                      tree_.ends[earlier].span.line),
          "put the narrower end first");
      hiddenEnds_.insert(later);
      break;
    }
  }
}

void Linter::pieces() {
  std::set<std::string> placed;
  bool fromHand = false;
  auto collect = [&](auto&& self, const std::vector<sheet::Statement>& list) -> void {
    for (const sheet::Statement& one : list) {
      using Kind = sheet::StatementKind;
      if (one.kind == Kind::put || one.kind == Kind::change) placed.insert(one.name.text);
      if (one.kind == Kind::choose) {
        for (const sheet::Name& kind : one.names) placed.insert(kind.text);
        fromHand = fromHand || one.choose == sheet::ChooseKind::hand;
      }
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  for (const sheet::MoveDecl& move : tree_.moves) collect(collect, move.body);
  for (const sheet::AfterDecl& after : tree_.afters) collect(collect, after.body);
  Position start = game_.start();
  for (int board = 0; board < game_.boards(); ++board)
    for (Cell cell = 0; cell < game_.board().size(); ++cell)
      if (game_.board().has(cell))
        if (std::optional<Piece> piece = game_.pieceAt(start, cell, board))
          placed.insert(tree_.pieces[piece->kind].name.text);
  const sheet::Layout& layout = game_.program().layout;
  for (std::size_t kind = 0; kind < tree_.pieces.size(); ++kind) {
    bool held = false;
    for (int side = 0; side < 2 && layout.hands[0] != 0; ++side)
      held = held || start.words[layout.hands[side] + kind] > 0;
    const sheet::Name& name = tree_.pieces[kind].name;
    if (placed.count(name.text) == 0 && !(held && fromHand))
      say(name.span.line, fmt::format("no {} ever comes onto the board", name.text),
          "it is not in `start`, and no move puts one or changes a piece into one");
  }
}

void Linter::names() {
  std::set<std::string> used = sheet_.used;
  for (const sheet::SetDecl& group : tree_.groups)
    if (used.count(group.name.text) > 0)
      for (const sheet::Name& member : group.members) used.insert(member.text);
  if (tree_.repetition)
    for (const sheet::Name& name : tree_.repetition->compares) used.insert(name.text);
  if (tree_.notation)
    for (const sheet::Name* name :
         {&tree_.notation->mark, &tree_.notation->target, &tree_.notation->clock})
      used.insert(name->text);
  auto check = [&](const auto& list, const char* what) {
    for (const auto& one : list)
      if (used.count(one.name.text) == 0)
        say(one.name.span.line, fmt::format("nothing reads the {} \"{}\"", what, one.name.text),
            "leave it out, or use it");
  };
  check(tree_.groups, "group");
  check(tree_.zones, "zone");
  check(tree_.marks, "mark");
  check(tree_.numbers, "number");
  check(tree_.cells, "cell");
  check(tree_.tracks, "track");
  check(tree_.defines, "definition");
  std::set<std::string> told;
  for (const sheet::PieceDecl& piece : tree_.pieces)
    for (const auto& [name, value] : piece.values)
      if (used.count(name.text) == 0 && told.insert(name.text).second)
        say(name.span.line, fmt::format("nothing reads the word \"{}\" of the pieces", name.text),
            "leave it out, or use it: " + name.text + " of there");
}

// `cells c in all where ...` looks at every cell one by one.
void Linter::wholeBoards() {
  constexpr std::size_t many = 16;
  if (game_.board().all().count() <= many) return;
  auto look = [&](auto&& self, const sheet::Expr& expr) -> void {
    bool all = expr.kind == ExprKind::cellsWhere && expr.args[0].kind == ExprKind::name &&
               expr.args[0].word == "all";
    if (all)
      say(expr.span.line, "this looks at every cell of the board one by one",
          "narrow the set: cells c in mine where ...");
    for (const sheet::Expr& arg : expr.args) self(self, arg);
  };
  auto statements = [&](auto&& self, const std::vector<sheet::Statement>& list) -> void {
    for (const sheet::Statement& one : list) {
      for (const sheet::Expr& arg : one.args) look(look, arg);
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  for (const sheet::MoveDecl& move : tree_.moves) statements(statements, move.body);
}

void Linter::playouts() {
  std::vector<bool> possible(tree_.moves.size(), false);
  std::vector<std::set<std::size_t>> hidden(tree_.ends.size());  // wins that a draw stood before
  bool stalled = false;
  std::set<std::string> negative;
  const sheet::Layout& layout = game_.program().layout;
  std::uint64_t number = 0;
  for (; number < options_.playouts && !wantsStop(options_.stop); ++number) {
    Stream stream(options_.seed, number);
    Position position = game_.start();
    MoveList moves;
    for (int ply = 0; ply < limits::plies; ++ply) {
      for (std::size_t i = 0; i < tree_.numbers.size(); ++i) {
        const sheet::StateDecl& one = tree_.numbers[i];
        int first = one.onCells ? layout.cellNumbers[i] : layout.numbers[i][0];
        int count = one.onCells ? game_.board().size() : 1;
        for (int k = 0; k < count; ++k)
          if (static_cast<std::int64_t>(position.words[first + k]) < 0)
            negative.insert(one.name.text);
        if (!one.onCells && static_cast<std::int64_t>(position.words[layout.numbers[i][1]]) < 0)
          negative.insert(one.name.text);
      }
      if (game_.ended(position)) {
        std::vector<Result> all = game_.endsThatHold(position);
        if (!all.empty() && all[0].kind == ResultKind::draw)
          for (const Result& other : all)
            if (other.kind == ResultKind::win) hidden[all[0].end].insert(other.end);
        break;
      }
      game_.listMoves(position, moves);
      if (moves.empty()) {
        stalled = true;
        break;
      }
      for (const Move& move : moves)
        if (move.group < possible.size()) possible[move.group] = true;
      game_.apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
    }
  }
  if (number == 0) return;
  std::string in = fmt::format("in {}", plural(static_cast<long long>(number), "random playout"));
  for (std::size_t i = 0; i < possible.size(); ++i)
    if (!possible[i])
      say(tree_.moves[i].name.span.line,
          fmt::format("the move \"{}\" was never legal {}", tree_.moves[i].name.text, in),
          "can its needs ever all hold?");
  for (std::size_t draw = 0; draw < hidden.size(); ++draw)
    for (std::size_t win : hidden[draw]) {
      if (hiddenEnds_.count(win) > 0) continue;  // said already
      say(tree_.ends[draw].span.line,
          fmt::format(
              "the draw \"{}\" stands before the win \"{}\" of line {}, and both held at once {}",
              tree_.ends[draw].name, tree_.ends[win].name, tree_.ends[win].span.line, in),
          "put wins above draws");
    }
  for (const std::string& name : negative)
    for (const sheet::StateDecl& one : tree_.numbers)
      if (one.name.text == name)
        say(one.name.span.line, fmt::format("the number \"{}\" went below 0 {}", name, in),
            "is more taken away than is there?");
  bool stuckEnd = std::any_of(tree_.ends.begin(), tree_.ends.end(), [](const sheet::EndDecl& end) {
    return mentionsWord(end.condition, "stuck") || mentionsWord(end.condition, "nobody can move");
  });
  if (stalled)
    say(tree_.ends.front().span.line, fmt::format("a side had no move and no end held {}", in),
        stuckEnd ? "which end should hold then?"
                 : "say what happens then: mover wins \"...\" when stuck, or let it pass: turn ... "
                   "else pass");
}

}  // namespace

std::vector<Remark> lint(const SheetGame& game, const LintOptions& options) {
  return Linter(game, options).run();
}

}  // namespace ninepegs::verify
