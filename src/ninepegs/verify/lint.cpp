#include "ninepegs/verify/lint.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>
#include <optional>
#include <set>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/printer.hpp"
#include "ninepegs/verify/lint_playouts.hpp"

namespace ninepegs::verify {
namespace {

using namespace rules;

std::vector<const Term*> conditionsOf(const Term& term) {
  std::vector<const Term*> out;
  partsOf<And>(term, out);
  return out;
}

class Linter {
 public:
  Linter(const SheetGame& game, const LintOptions& options)
      : game_(game), rules_(game.rules()), options_(options) {}

  LintReport run() {
    ends();
    draws();
    pieces();
    names();
    unsetNumbers();
    neverMeeting();
    views();
    wholeBoards();
    notation();
    LintReport report;
    remarkPlayouts(game_, options_, hiddenEnds_, out_, report);
    std::stable_sort(out_.begin(), out_.end(),
                     [](const Remark& a, const Remark& b) { return a.line < b.line; });
    report.remarks = std::move(out_);
    return report;
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
  void notation();
  // A comparison with a plain number as the least and the greatest value that fit.
  struct Interval {
    std::string of;
    long long least = std::numeric_limits<long long>::min();
    long long greatest = std::numeric_limits<long long>::max();
  };
  std::optional<Interval> intervalOf(const Term& term) const;
  std::string text(const TermPtr& term) const { return toText(rules_, *term); }
  bool implies(const Term& narrow, const Term& wide) const;
  bool impliesAny(const Term& narrow, const Term& wide) const;
  bool impliesLines(const Lines& narrow, const Lines& wide) const;
  bool exclude(const Term& a, const Term& b) const;
  template <class Look>
  void everyClause(Look look) const;
  template <class Look>
  void everyTerm(Look look) const;

  const SheetGame& game_;
  const Rules& rules_;
  const LintOptions& options_;
  std::set<std::size_t> hiddenEnds_;  // that an earlier end hides always
  std::vector<Remark> out_;
};

std::optional<Linter::Interval> Linter::intervalOf(const Term& term) const {
  const Compare* compare = as<Compare>(term);
  const Number* number = compare == nullptr ? nullptr : as<Number>(*compare->right);
  if (number == nullptr) return std::nullopt;
  Interval out{text(compare->left)};
  long long value = number->value;
  switch (compare->relation) {
    case Relation::equal:
      out.least = out.greatest = value;
      break;
    case Relation::unequal:
      return std::nullopt;
    case Relation::less:
      out.greatest = value - 1;
      break;
    case Relation::lessEqual:
      out.greatest = value;
      break;
    case Relation::greater:
      out.least = value + 1;
      break;
    case Relation::greaterEqual:
      out.least = value;
      break;
  }
  return out;
}

// `any A on B` says more than `any C on D` if the sets that do not depend on the position lie
// within those of the other, and the rest is the same.
bool Linter::impliesAny(const Term& narrow, const Term& wide) const {
  auto split = [&](const Term& term, std::set<std::string>& rest) {
    std::vector<const Term*> all;
    partsOf<Both>(term, all);
    CellSet cells = rules_.board.all();
    for (const Term* one : all)
      if (std::optional<CellSet> fixed = rules_.constantSet(*one, 0);
          fixed && fixed == rules_.constantSet(*one, 1))
        cells &= *fixed;
      else
        rest.insert(toText(rules_, *one));
    return cells;
  };
  std::set<std::string> own, other;
  CellSet inner = split(narrow, own), outer = split(wide, other);
  return (inner & ~outer).none() &&
         std::includes(own.begin(), own.end(), other.begin(), other.end());
}

bool Linter::impliesLines(const Lines& narrow, const Lines& wide) const {
  const Number* length = as<Number>(*narrow.length);
  const Number* least = as<Number>(*wide.length);
  if (length == nullptr || least == nullptr || wide.exactly || narrow.ways != wide.ways)
    return false;
  if (length->value < least->value || text(narrow.in) != text(wide.in)) return false;
  if (!wide.through) return true;
  return narrow.through && length->value == least->value &&
         text(narrow.through) == text(wide.through);
}

// Does the second hold wherever the first holds? Only where the texts show it.
bool Linter::implies(const Term& narrow, const Term& wide) const {
  if (toText(rules_, narrow) == toText(rules_, wide)) return true;
  std::optional<Interval> a = intervalOf(narrow), b = intervalOf(wide);
  if (a && b) return a->of == b->of && a->least >= b->least && a->greatest <= b->greatest;
  const Any* some = as<Any>(narrow);
  const Any* other = as<Any>(wide);
  if (some == nullptr || other == nullptr) return false;
  bool lines = some->what->type == Type::lineset;
  if (lines != (other->what->type == Type::lineset)) return false;
  return lines ? impliesLines(*as<Lines>(*some->what), *as<Lines>(*other->what))
               : impliesAny(*some->what, *other->what);
}

// Can the two never hold at once? Only where the texts show it.
bool Linter::exclude(const Term& a, const Term& b) const {
  for (const Term* one : conditionsOf(a))
    for (const Term* other : conditionsOf(b)) {
      for (auto [x, y] : {std::pair{one, other}, std::pair{other, one}}) {
        if (const Not* negated = as<Not>(*x); negated != nullptr && implies(*y, *negated->what))
          return true;
        const None* none = as<None>(*x);
        if (none != nullptr && as<Any>(*y) != nullptr &&
            implies(*y, *make(Type::truth, x->span, Any{none->what})))
          return true;
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
  for (std::size_t later = 0; later < rules_.ends.size(); ++later) {
    std::vector<const Term*> own = conditionsOf(*rules_.ends[later].condition);
    for (std::size_t earlier = 0; earlier < later; ++earlier) {
      std::vector<const Term*> before = conditionsOf(*rules_.ends[earlier].condition);
      bool hidden = std::all_of(before.begin(), before.end(), [&](const Term* wide) {
        return std::any_of(own.begin(), own.end(),
                           [&](const Term* narrow) { return implies(*narrow, *wide); });
      });
      if (!hidden) continue;
      bool same = text(rules_.ends[later].condition) == text(rules_.ends[earlier].condition);
      say(rules_.ends[later].span.line,
          fmt::format("the end \"{}\" can never be reached: wherever it holds, \"{}\" in line {} "
                      "holds too and decides first",
                      rules_.ends[later].name, rules_.ends[earlier].name,
                      rules_.ends[earlier].span.line),
          same ? "the two ask for the same: leave one out" : "put the narrower end first");
      hiddenEnds_.insert(later);
      break;
    }
  }
}

// The first end that holds decides: a win on the last move is lost to a draw above it. Random games
// seldom show it.
void Linter::draws() {
  for (std::size_t draw = 0; draw < rules_.ends.size(); ++draw) {
    if (rules_.ends[draw].kind != sheet::EndKind::draw) continue;
    for (std::size_t win = draw + 1; win < rules_.ends.size(); ++win) {
      if (rules_.ends[win].kind == sheet::EndKind::draw || hiddenEnds_.count(win) > 0) continue;
      if (exclude(*rules_.ends[draw].condition, *rules_.ends[win].condition)) continue;
      say(rules_.ends[draw].span.line,
          fmt::format(
              "the draw \"{}\" stands before the win \"{}\" of line {}: where both hold, it is a "
              "draw",
              rules_.ends[draw].name, rules_.ends[win].name, rules_.ends[win].span.line),
          "put wins above draws");
      hiddenEnds_.insert(win);
      break;
    }
  }
}

void Linter::pieces() {
  std::set<int> placed;
  bool fromHand = false;
  auto place = [&](const TermPtr& kind) {
    if (const Kind* known = as<Kind>(*kind)) placed.insert(known->kind);
  };
  everyClause([&](const Clause& one) {
    if (const Put* put = as<Put>(one)) place(put->kind);
    if (const Change* change = as<Change>(one)) place(change->kind);
    if (const ChooseKind* choose = as<ChooseKind>(one))
      placed.insert(choose->kinds.begin(), choose->kinds.end());
    fromHand = fromHand || as<ChooseFromHand>(one) != nullptr;
  });
  Position start = game_.start();
  for (int board = 0; board < game_.boards(); ++board)
    for (Cell cell = 0; cell < game_.board().size(); ++cell)
      if (game_.board().has(cell))
        if (std::optional<Piece> piece = game_.pieceAt(start, cell, board))
          placed.insert(piece->kind);
  const sheet::Layout& layout = game_.program().layout;
  for (std::size_t kind = 0; kind < rules_.kinds.size(); ++kind) {
    bool held = false;
    for (int side = 0; side < 2 && layout.hands[0] != 0; ++side)
      held = held || start.words[layout.hands[side] + kind] > 0;
    if (placed.count(static_cast<int>(kind)) == 0 && !(held && fromHand))
      say(rules_.kinds[kind].span.line,
          fmt::format("no {} ever comes onto the board", rules_.kinds[kind].name),
          "it is not in `start`, and no move puts one or changes a piece into one");
  }
}

void Linter::names() {
  std::set<std::string> used = rules_.used;
  for (const Group& group : rules_.groups)
    if (used.count(group.name) > 0)
      for (int kind : group.kinds) used.insert(rules_.kinds[kind].name);
  if (rules_.repetition)
    for (const Compared& one : rules_.repetition->compares) used.insert(rules_.nameOf(one));
  if (const auto& notation = rules_.notation) {
    if (notation->mark >= 0) used.insert(rules_.marks[notation->mark].name);
    if (notation->target >= 0) used.insert(rules_.remembered[notation->target].name);
    if (notation->clock >= 0) used.insert(rules_.numbers[notation->clock].name);
  }
  auto check = [&](const auto& list, const char* what) {
    for (const auto& one : list)
      if (used.count(one.name) == 0)
        say(one.span.line, fmt::format("nothing reads the {} \"{}\"", what, one.name),
            "leave it out, or use it");
  };
  check(rules_.groups, "group");
  check(rules_.zones, "zone");
  check(rules_.marks, "mark");
  check(rules_.numbers, "number");
  check(rules_.remembered, "cell");
  check(rules_.tracks, "track");
  check(rules_.definitions, "definition");
  std::set<std::string> told;
  for (const PieceKind& piece : rules_.kinds)
    for (const PieceKind::Value& value : piece.values) {
      const std::string& name = rules_.properties[value.property];
      if (used.count(name) == 0 && told.insert(name).second)
        say(value.span.line, fmt::format("nothing reads the word \"{}\" of the pieces", name),
            "leave it out, or use it: " + name + " of there");
    }
}

template <class Look>
void Linter::everyClause(Look look) const {
  for (const MoveRule& move : rules_.moves) eachClause(move.body, look);
  for (const AfterRule& after : rules_.afters) eachClause(after.body, look);
}

template <class Look>
void Linter::everyTerm(Look look) const {
  auto inside = [&](auto&& self, const Term& term) -> void {
    look(term);
    eachPart(term, [&](const Term& part) { self(self, part); });
  };
  auto all = [&](const Term& term) { inside(inside, term); };
  auto some = [&](const TermPtr& term) {
    if (term) all(*term);
  };
  everyClause([&](const Clause& one) { eachTerm(one, all); });
  for (const Definition& define : rules_.definitions) some(define.body);
  for (const ForbidRule& forbid : rules_.forbids) some(forbid.condition);
  for (const EndRule& end : rules_.ends) {
    some(end.condition);
    some(end.measure);
  }
  some(rules_.worth);
}

// A number that nothing sets is what it was at the start.
void Linter::unsetNumbers() {
  std::set<int> set;
  everyClause([&](const Clause& one) {
    if (const SetVariable* to = as<SetVariable>(one)) set.insert(to->number);
    if (const SetCellNumber* to = as<SetCellNumber>(one)) set.insert(to->number);
  });
  for (std::size_t i = 0; i < rules_.numbers.size(); ++i) {
    const NumberRule& number = rules_.numbers[i];
    // One that is given a value where it is declared may be a constant.
    if (!number.given && set.count(static_cast<int>(i)) == 0 && rules_.used.count(number.name) > 0)
      say(number.span.line,
          fmt::format("the number \"{}\" is read, but no move sets it", number.name),
          fmt::format("say in a move: set {} to ...", number.name));
  }
}

// Sets that have no cell in common, whatever stands where.
void Linter::neverMeeting() {
  if (rules_.layered()) return;
  everyTerm([&](const Term& term) {
    if (as<Both>(term) == nullptr) return;
    std::vector<const Term*> all;
    partsOf<Both>(term, all);
    bool mine = false, theirs = false, empty = false, occupied = false;
    for (const Term* one : all) {
      Whose whose = Whose::anyone;
      if (const Side* side = as<Side>(*one)) whose = side->whose;
      if (const Pieces* pieces = as<Pieces>(*one)) whose = pieces->whose;
      mine = mine || whose == Whose::mine;
      theirs = theirs || whose == Whose::theirs;
      empty = empty || as<Empty>(*one) != nullptr;
      occupied = occupied || as<Occupied>(*one) != nullptr;
    }
    if ((mine && theirs) || (empty && (mine || theirs || occupied)))
      say(term.span.line, fmt::format("`{}` never has a cell", toText(rules_, term)),
          mine && theirs ? "no piece is of both sides; `A or B` joins two sets"
                         : "no cell is empty and occupied");
  });
}

void Linter::views() {
  if (!rules_.sees.empty() && !rules_.hasSecrets)
    say(rules_.sees.front().span.line, "`each side sees`, but no piece is secret: all see all",
        "say with a piece: secret");
}

// `cells c in all where ...` looks at every cell one by one.
void Linter::wholeBoards() {
  constexpr std::size_t many = 16;
  if (game_.board().all().count() <= many) return;
  auto look = [&](const Term& term) {
    const CellsWhere* cells = as<CellsWhere>(term);
    if (cells != nullptr && as<AllCells>(*cells->in) != nullptr)
      say(term.span.line, "this looks at every cell of the board one by one",
          "narrow the set: cells c in mine where ...");
    return false;
  };
  for (const MoveRule& move : rules_.moves)
    eachClause(move.body, [&](const Clause& one) {
      eachTerm(one, [&](const Term& term) { anyInside(term, look); });
    });
}

// What a position holds beside the fields of its notation cannot be written in it.
void Linter::notation() {
  if (!rules_.notation) return;
  std::vector<std::string> beside = rules_.besideNotation();
  if (!beside.empty())
    say(rules_.notation->span.line,
        fmt::format("no field of the FEN carries {}: where a position differs in that from one "
                    "that is read from the FEN, none is printed",
                    joined(beside, ", ")),
        "leave it out of the rules, or live without the FEN there");
}

}  // namespace

LintReport lint(const SheetGame& game, const LintOptions& options) {
  return Linter(game, options).run();
}

}  // namespace ninepegs::verify
