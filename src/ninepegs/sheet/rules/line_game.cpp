#include "ninepegs/sheet/rules/line_game.hpp"

namespace ninepegs::rules {
namespace {

// What a definition stands for that is given nothing; any other term itself. Whose it is makes no
// difference where nothing is read that is a side's.
const Term& meant(const Term& term) {
  const Use* use = as<Use>(term);
  return use != nullptr && use->body && use->given.empty() ? meant(*use->body) : term;
}

// The set of cells that a move may fill. All that is asked of it is which cells are empty.
class Filling {
 public:
  explicit Filling(const Rules& rules) : rules_(rules) {}

  // Is the term one whose cells can be worked out from the empty ones, the same for both sides?
  bool readable(const Term& said) const {
    const Term& term = meant(said);
    if (as<Empty>(term) != nullptr || as<Occupied>(term) != nullptr) return true;
    if (as<Both>(term) != nullptr || as<Either>(term) != nullptr || as<Except>(term) != nullptr)
      return eachReadable(term);
    if (const std::vector<int>* ways = waysOf(term)) return !ways->empty() && eachReadable(term);
    return constant(term).has_value();
  }
  // Holds it no cell but empty ones? Requires that it is readable, like all that follow.
  bool onlyEmpty(const Term& said) const {
    const Term& term = meant(said);
    if (const Both* both = as<Both>(term)) return onlyEmpty(*both->left) || onlyEmpty(*both->right);
    if (const Either* either = as<Either>(term))
      return onlyEmpty(*either->left) && onlyEmpty(*either->right);
    if (const Except* except = as<Except>(term)) return onlyEmpty(*except->left);
    return as<Empty>(term) != nullptr;
  }
  // May a cell that stays empty come to it, or leave it, when others are filled?
  struct Changes {
    bool comes = false, leaves = false;
  };
  Changes changes(const Term& said, bool elsewhere = false) const {
    const Term& term = meant(said);
    if (as<Empty>(term) != nullptr) return {false, elsewhere};
    if (as<Occupied>(term) != nullptr) return {elsewhere, false};
    if (waysOf(term) != nullptr) elsewhere = true;
    Changes out;
    bool first = true;
    if (as<Both>(term) != nullptr || as<Either>(term) != nullptr || as<Except>(term) != nullptr ||
        waysOf(term) != nullptr)
      eachPart(term, [&](const Term& part) {
        Changes own = changes(part, elsewhere);
        bool away = as<Except>(term) != nullptr && !first;
        out.comes = out.comes || (away ? own.leaves : own.comes);
        out.leaves = out.leaves || (away ? own.comes : own.leaves);
        first = false;
      });
    return out;
  }
  CellSet cells(const Term& said, const CellSet& empty) const {
    const Term& term = meant(said);
    if (as<Empty>(term) != nullptr) return empty;
    if (as<Occupied>(term) != nullptr) return rules_.board.all() & ~empty;
    if (const Both* both = as<Both>(term))
      return cells(*both->left, empty) & cells(*both->right, empty);
    if (const Either* either = as<Either>(term))
      return cells(*either->left, empty) | cells(*either->right, empty);
    if (const Except* except = as<Except>(term))
      return cells(*except->left, empty) & ~cells(*except->right, empty);
    if (const std::vector<int>* ways = waysOf(term)) {
      CellSet from, out;
      eachPart(term, [&](const Term& part) { from = cells(part, empty); });
      for (int way : *ways) out |= rules_.board.stepped(from, way);
      return out;
    }
    return *constant(term);
  }

 private:
  // The directions, if the term is one step from a set; none if each side has its own.
  const std::vector<int>* waysOf(const Term& term) const {
    static const std::vector<int> none;
    const Ahead* ahead = as<Ahead>(term);
    const Step* step = as<Step>(term);
    if (ahead == nullptr && (step == nullptr || !step->from)) return nullptr;
    const auto index = static_cast<std::size_t>(ahead != nullptr ? ahead->ways : step->ways);
    const Ways& ways = rules_.ways[index];
    return ways.directions[0] == ways.directions[1] ? ways.directions.data() : &none;
  }
  bool eachReadable(const Term& term) const {
    bool all = true;
    eachPart(term, [&](const Term& part) { all = all && readable(part); });
    return all;
  }
  std::optional<CellSet> constant(const Term& term) const {
    std::optional<CellSet> one = rules_.constantSet(term, 0), other = rules_.constantSet(term, 1);
    return one && one == other ? one : std::nullopt;
  }

  const Rules& rules_;
};

// `pick CELL in SET` and `put KIND on CELL`, and nothing that changes anything else: the set.
const Term* filledSet(const MoveRule& move) {
  const PickCell* pick = nullptr;
  const Put* put = nullptr;
  for (const Clause& clause : move.body) {
    if (as<WrittenAs>(clause) != nullptr) continue;
    if (pick == nullptr) {
      pick = as<PickCell>(clause);
      if (pick == nullptr || pick->ifAny) return nullptr;
    } else if (put == nullptr) {
      put = as<Put>(clause);
      if (put == nullptr || put->fromHand || as<Kind>(*put->kind) == nullptr) return nullptr;
      const Term* where = put->where.get();
      if (const CellAsSet* set = as<CellAsSet>(*where)) where = set->cell.get();
      const Name* name = as<Name>(*where);
      if (name == nullptr || name->name != pick->name) return nullptr;
    } else {
      return nullptr;
    }
  }
  return put != nullptr ? pick->from.get() : nullptr;
}

// `any line of N in mine`: the lines; none if the condition is another.
std::vector<std::vector<Cell>> linesOf(const Rules& rules, const Term& condition) {
  const Any* any = as<Any>(condition);
  const Lines* lines = any != nullptr ? as<Lines>(*any->what) : nullptr;
  if (lines == nullptr || lines->exactly || lines->through) return {};
  const Number* length = as<Number>(*lines->length);
  const Side* side = as<Side>(*lines->in);
  if (length == nullptr || side == nullptr || side->whose != Whose::mine) return {};
  const std::vector<int>& axes = rules.ways[static_cast<std::size_t>(lines->ways)].axes;
  if (length->value < 2 || length->value > rules.board.longestLine(axes)) return {};
  return rules.board.lines(static_cast<int>(length->value), axes);
}

bool isFullBoard(const EndRule& end) {
  if (end.kind != sheet::EndKind::draw || end.claim) return false;
  const None* none = as<None>(*end.condition);
  return none != nullptr && as<Empty>(*none->what) != nullptr;
}

bool oneKindEach(const Rules& rules) {
  if (rules.kinds.size() != 1) return false;
  const PieceKind& kind = rules.kinds.front();
  return !kind.letters[0].empty() && !kind.letters[1].empty() && !kind.neutral && !kind.secret;
}

}  // namespace

std::optional<LineGame> lineGameOf(const Rules& rules) {
  if (rules.moves.size() != 1 || rules.ends.empty() || rules.ends.size() > 2 || rules.turn ||
      !rules.afters.empty() || !rules.forbids.empty() || rules.repetition || rules.layered() ||
      rules.hasSecrets || rules.boardRule.joinLeftRight || rules.boardRule.joinTopBottom ||
      !oneKindEach(rules))
    return std::nullopt;
  const EndRule& first = rules.ends.front();
  if (first.kind != sheet::EndKind::moverWins || first.claim) return std::nullopt;
  if (rules.ends.size() == 2 && !isFullBoard(rules.ends.back())) return std::nullopt;
  LineGame out;
  out.full = rules.ends.size() == 2 ? 1 : -1;
  out.lines = linesOf(rules, *first.condition);
  const Term* set = filledSet(rules.moves.front());
  Filling filling(rules);
  if (out.lines.empty() || set == nullptr || !filling.readable(*set) || !filling.onlyEmpty(*set) ||
      filling.changes(*set).leaves)
    return std::nullopt;
  // The more is filled, the more of what stays empty can be filled. So if a cell cannot be filled
  // as soon as one of several others is missing, and can be with just these, they are its needs.
  const CellSet& all = rules.board.all();
  out.needs.resize(static_cast<std::size_t>(rules.board.size()));
  for (Cell cell = 0; cell < rules.board.size(); ++cell) {
    if (!all[cell]) continue;
    CellSet empty;
    empty.set(cell);
    if (!filling.cells(*set, empty)[cell]) continue;
    out.playable.set(cell);
    CellSet& needs = out.needs[static_cast<std::size_t>(cell)];
    for (Cell other = 0; other < rules.board.size(); ++other) {
      if (!all[other] || other == cell) continue;
      empty.set(other);
      if (!filling.cells(*set, empty)[cell]) needs.set(other);
      empty.reset(other);
    }
    if (!filling.cells(*set, all & ~needs)[cell]) return std::nullopt;  // one or another will do
  }
  return out;
}

}  // namespace ninepegs::rules
