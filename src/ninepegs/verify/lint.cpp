#include "ninepegs/verify/lint.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/parser.hpp"
#include "ninepegs/verify/lint_playouts.hpp"

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

class Linter {
 public:
  Linter(const SheetGame& game, const LintOptions& options)
      : game_(game), sheet_(game.sheet()), tree_(game.sheet().tree), options_(options) {}

  std::vector<Remark> run() {
    ends();
    pieces();
    names();
    wholeBoards();
    remarkPlayouts(game_, options_, hiddenEnds_, out_);
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
          own == before ? "the two ask for the same: leave one out" : "put the narrower end first");
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

}  // namespace

std::vector<Remark> lint(const SheetGame& game, const LintOptions& options) {
  return Linter(game, options).run();
}

}  // namespace ninepegs::verify
