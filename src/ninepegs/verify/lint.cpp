#include "ninepegs/verify/lint.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <optional>
#include <set>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"
#include "ninepegs/verify/lint_playouts.hpp"

namespace ninepegs::verify {
namespace {

using sheet::ExprKind;

using sheet::Expr;

// The parts of `A and B and C`, or of a chain of `on`.
void parts(const Expr& expr, ExprKind joint, std::vector<const Expr*>& out) {
  if (expr.kind == joint)
    for (const Expr& arg : expr.args) parts(arg, joint, out);
  else
    out.push_back(&expr);
}

std::vector<const Expr*> conditionsOf(const Expr& expr) {
  std::vector<const Expr*> out;
  parts(expr, ExprKind::both, out);
  return out;
}

// A comparison with a plain number as the least and the greatest value that fit.
struct Interval {
  std::string of;
  long long least = std::numeric_limits<long long>::min();
  long long greatest = std::numeric_limits<long long>::max();
};

std::optional<Interval> intervalOf(const Expr& expr) {
  if (expr.kind != ExprKind::compare || expr.args[1].kind != ExprKind::number) return std::nullopt;
  Interval out{sheet::toText(expr.args[0])};
  long long value = expr.args[1].first;
  if (expr.word == "=") out.least = out.greatest = value;
  if (expr.word == ">=") out.least = value;
  if (expr.word == ">") out.least = value + 1;
  if (expr.word == "<=") out.greatest = value;
  if (expr.word == "<") out.greatest = value - 1;
  return expr.word == "!=" ? std::nullopt : std::optional<Interval>(out);
}

class Linter {
 public:
  Linter(const SheetGame& game, const LintOptions& options)
      : game_(game), sheet_(game.sheet()), tree_(game.sheet().tree), options_(options) {}

  std::vector<Remark> run() {
    ends();
    draws();
    pieces();
    names();
    unsetNumbers();
    neverMeeting();
    views();
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
  void draws();
  void pieces();
  void names();
  void unsetNumbers();
  void neverMeeting();
  void views();
  void wholeBoards();
  bool implies(const Expr& narrow, const Expr& wide) const;
  bool impliesAny(const Expr& narrow, const Expr& wide) const;
  bool exclude(const Expr& a, const Expr& b) const;
  template <class F>
  void everyExpression(F look) const;

  const SheetGame& game_;
  const sheet::Checked& sheet_;
  const sheet::Tree& tree_;
  const LintOptions& options_;
  std::set<std::size_t> hiddenEnds_;  // that an earlier end hides always
  std::vector<Remark> out_;
};

// `any A on B` says more than `any C on D` if the sets that do not depend on the position lie
// within those of the other, and the rest is the same.
bool Linter::impliesAny(const Expr& narrow, const Expr& wide) const {
  auto split = [&](const Expr& expr, std::set<std::string>& rest) {
    std::vector<const Expr*> all;
    parts(expr, ExprKind::on, all);
    CellSet cells = sheet_.board.all();
    for (const Expr* one : all)
      if (std::optional<CellSet> fixed = sheet_.constantSet(*one, 0);
          fixed && fixed == sheet_.constantSet(*one, 1))
        cells &= *fixed;
      else
        rest.insert(sheet::toText(*one));
    return cells;
  };
  std::set<std::string> own, other;
  CellSet inner = split(narrow, own), outer = split(wide, other);
  return (inner & ~outer).none() &&
         std::includes(own.begin(), own.end(), other.begin(), other.end());
}

// Does the second hold wherever the first holds? Only where the texts show it.
bool Linter::implies(const Expr& narrow, const Expr& wide) const {
  if (sheet::toText(narrow) == sheet::toText(wide)) return true;
  std::optional<Interval> a = intervalOf(narrow), b = intervalOf(wide);
  if (a && b) return a->of == b->of && a->least >= b->least && a->greatest <= b->greatest;
  if (narrow.kind != ExprKind::any || wide.kind != ExprKind::any) return false;
  const Expr& x = narrow.args[0];
  const Expr& y = wide.args[0];
  if (x.kind == ExprKind::lines && y.kind == ExprKind::lines)
    return y.first == 0 && x.word == y.word && x.args.size() >= y.args.size() &&
           x.args[0].kind == ExprKind::number && y.args[0].kind == ExprKind::number &&
           x.args[0].first >= y.args[0].first &&
           sheet::toText(x.args[1]) == sheet::toText(y.args[1]) &&
           (y.args.size() < 3 || (x.args[0].first == y.args[0].first &&
                                  sheet::toText(x.args[2]) == sheet::toText(y.args[2])));
  return x.kind != ExprKind::lines && y.kind != ExprKind::lines && impliesAny(x, y);
}

// Can the two never hold at once? Only where the texts show it.
bool Linter::exclude(const Expr& a, const Expr& b) const {
  for (const Expr* one : conditionsOf(a))
    for (const Expr* other : conditionsOf(b)) {
      for (auto [x, y] : {std::pair{one, other}, std::pair{other, one}}) {
        bool negated = x->kind == ExprKind::negation && implies(*y, x->args[0]);
        if (negated) return true;
        if (x->kind != ExprKind::none || y->kind != ExprKind::any) continue;
        Expr some = *x;
        some.kind = ExprKind::any;
        if (implies(*y, some)) return true;
      }
      std::optional<Interval> left = intervalOf(*one), right = intervalOf(*other);
      if (left && right && left->of == right->of &&
          (left->greatest < right->least || right->greatest < left->least))
        return true;
    }
  return false;
}

// An end that says at least as much as an earlier one never comes to decide.
void Linter::ends() {
  for (std::size_t later = 0; later < tree_.ends.size(); ++later) {
    std::vector<const Expr*> own = conditionsOf(tree_.ends[later].condition);
    for (std::size_t earlier = 0; earlier < later; ++earlier) {
      std::vector<const Expr*> before = conditionsOf(tree_.ends[earlier].condition);
      bool hidden = std::all_of(before.begin(), before.end(), [&](const Expr* wide) {
        return std::any_of(own.begin(), own.end(),
                           [&](const Expr* narrow) { return implies(*narrow, *wide); });
      });
      if (!hidden) continue;
      bool same = sheet::toText(tree_.ends[later].condition) ==
                  sheet::toText(tree_.ends[earlier].condition);
      say(tree_.ends[later].span.line,
          fmt::format("the end \"{}\" can never be reached: wherever it holds, \"{}\" in line {} "
                      "holds too and decides first",
                      tree_.ends[later].name, tree_.ends[earlier].name,
                      tree_.ends[earlier].span.line),
          same ? "the two ask for the same: leave one out" : "put the narrower end first");
      hiddenEnds_.insert(later);
      break;
    }
  }
}

// The first end that holds decides: a win on the last move is lost to a draw above it. Random games
// seldom show it.
void Linter::draws() {
  for (std::size_t draw = 0; draw < tree_.ends.size(); ++draw) {
    if (tree_.ends[draw].kind != sheet::EndKind::draw) continue;
    for (std::size_t win = draw + 1; win < tree_.ends.size(); ++win) {
      if (tree_.ends[win].kind == sheet::EndKind::draw || hiddenEnds_.count(win) > 0) continue;
      if (exclude(tree_.ends[draw].condition, tree_.ends[win].condition)) continue;
      say(tree_.ends[draw].span.line,
          fmt::format(
              "the draw \"{}\" stands before the win \"{}\" of line {}: where both hold, it is a "
              "draw",
              tree_.ends[draw].name, tree_.ends[win].name, tree_.ends[win].span.line),
          "put wins above draws");
      hiddenEnds_.insert(win);
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

template <class F>
void Linter::everyExpression(F look) const {
  auto inside = [&](auto&& self, const Expr& expr) -> void {
    look(expr);
    for (const Expr& arg : expr.args) self(self, arg);
  };
  auto statements = [&](auto&& self, const std::vector<sheet::Statement>& list) -> void {
    for (const sheet::Statement& one : list) {
      for (const Expr& arg : one.args) inside(inside, arg);
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  for (const sheet::MoveDecl& move : tree_.moves) statements(statements, move.body);
  for (const sheet::AfterDecl& after : tree_.afters) statements(statements, after.body);
  for (const sheet::DefineDecl& define : tree_.defines) inside(inside, define.body);
  for (const sheet::ForbidDecl& forbid : tree_.forbids) inside(inside, forbid.condition);
  for (const sheet::EndDecl& end : tree_.ends) {
    inside(inside, end.condition);
    if (end.measure) inside(inside, *end.measure);
  }
  if (tree_.worth) inside(inside, *tree_.worth);
}

// A number that nothing sets is what it was at the start.
void Linter::unsetNumbers() {
  std::set<std::string> set;
  auto statements = [&](auto&& self, const std::vector<sheet::Statement>& list) -> void {
    for (const sheet::Statement& one : list) {
      if (one.kind == sheet::StatementKind::set) set.insert(one.name.text);
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  for (const sheet::MoveDecl& move : tree_.moves) statements(statements, move.body);
  for (const sheet::AfterDecl& after : tree_.afters) statements(statements, after.body);
  for (const sheet::StateDecl& number : tree_.numbers)
    // One that is given a value where it is declared may be a constant.
    if (number.start.empty() && set.count(number.name.text) == 0 &&
        sheet_.used.count(number.name.text) > 0)
      say(number.name.span.line,
          fmt::format("the number \"{}\" is read, but no move sets it", number.name.text),
          fmt::format("say in a move: set {} to ...", number.name.text));
}

// Sets that have no cell in common, whatever stands where.
void Linter::neverMeeting() {
  if (sheet_.layered()) return;
  everyExpression([&](const Expr& expr) {
    if (expr.kind != ExprKind::on) return;
    std::vector<const Expr*> all;
    parts(expr, ExprKind::on, all);
    bool mine = false, theirs = false, empty = false, occupied = false;
    for (const Expr* one : all) {
      bool own = one->kind == ExprKind::own && one->args[0].kind == ExprKind::name &&
                 !sheet_.groupKinds(one->args[0].word).empty();
      const std::string& word = one->kind == ExprKind::name || own ? one->word : std::string();
      mine = mine || word == "mine" || (own && word == "my");
      theirs = theirs || word == "theirs" || (own && word == "their");
      empty = empty || word == "empty";
      occupied = occupied || word == "occupied";
    }
    if ((mine && theirs) || (empty && (mine || theirs || occupied)))
      say(expr.span.line, fmt::format("`{}` never has a cell", sheet::toText(expr)),
          mine && theirs ? "no piece is of both sides; `A or B` joins two sets"
                         : "no cell is empty and occupied");
  });
}

void Linter::views() {
  if (!tree_.sees.empty() && !sheet_.hasSecrets)
    say(tree_.sees.front().span.line, "`each side sees`, but no piece is secret: all see all",
        "say with a piece: secret");
}

// `cells c in all where ...` looks at every cell one by one.
void Linter::wholeBoards() {
  constexpr std::size_t many = 16;
  if (game_.board().all().count() <= many) return;
  auto look = [&](auto&& self, const Expr& expr) -> void {
    bool all = expr.kind == ExprKind::cellsWhere && expr.args[0].kind == ExprKind::name &&
               expr.args[0].word == "all";
    if (all)
      say(expr.span.line, "this looks at every cell of the board one by one",
          "narrow the set: cells c in mine where ...");
    for (const Expr& arg : expr.args) self(self, arg);
  };
  auto statements = [&](auto&& self, const std::vector<sheet::Statement>& list) -> void {
    for (const sheet::Statement& one : list) {
      for (const Expr& arg : one.args) look(look, arg);
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
