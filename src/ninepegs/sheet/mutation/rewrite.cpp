#include "ninepegs/sheet/mutation/rewrite.hpp"

#include <set>

namespace ninepegs::rules {
namespace {

// A definition's use with another body.
TermPtr withBody(const TermPtr& term, const Use& use, TermPtr body) {
  if (body == use.body) return term;
  Use copy = use;
  copy.body = std::move(body);
  return make(term->type, term->span, std::move(copy));
}

// The terms of a clause itself but for those of its texts, in no particular order.
template <class Form, class One>
void ownTerms(Form& c, const One& one) {
  if constexpr (requires { c.from; }) one(c.from);
  if constexpr (requires { c.lines; }) one(c.lines);
  if constexpr (requires { c.low; }) one(c.low), one(c.high);
  if constexpr (requires { TermPtr(c.cell); }) one(c.cell);
  if constexpr (requires { c.value; }) one(c.value);
  if constexpr (requires { c.condition; }) one(c.condition);
  if constexpr (requires { c.cells; }) one(c.cells);
  if constexpr (requires { c.kind; }) one(c.kind);
  if constexpr (requires { c.where; }) one(c.where);
  if constexpr (requires { c.to; }) one(c.to);
  if constexpr (requires { c.most; }) one(c.most);
}

class Exchanger {
 public:
  Exchanger(Rules& rules, const Spot& spot, const Exchange& with)
      : rules_(rules), spot_(spot), with_(with) {}

  TermPtr operator()(const TermPtr& term) const {
    if (!term) return term;
    if (spot_.define < 0 && term.get() == spot_.term) return exchanged(term);
    TermPtr out = withParts(term, *this);
    if (const Use* use = as<Use>(*out))
      return withBody(out, *use,
                      use->define == spot_.define ? at(use->body, 0) : (*this)(use->body));
    return out;
  }

  // What the steps from that one on lead to, in a definition's body.
  TermPtr at(const TermPtr& term, std::size_t step) const {
    if (!term) return term;
    if (step == spot_.path.size()) return exchanged(term);
    int part = 0;
    return withParts(term, [&](const TermPtr& one) {
      return part++ == spot_.path[step] ? at(one, step + 1) : one;
    });
  }

  void inside(Clauses& list) const {
    for (Clause& one : list) std::visit([&](auto& form) { clause(form); }, one.form);
  }

 private:
  TermPtr exchanged(const TermPtr& term) const {
    TermPtr now = with_(rules_, term);
    return now ? now : term;
  }
  void one(TermPtr& term) const { term = (*this)(term); }

  template <class Form>
  void clause(Form& c) const {
    ownTerms(c, [&](TermPtr& term) { one(term); });
    if constexpr (requires { c.then; }) inside(c.then), inside(c.otherwise);
    if constexpr (requires { c.body; }) inside(c.body);
    if constexpr (requires { c.parts; })
      for (TextPart& part : c.parts) {
        if (Shown* shown = std::get_if<Shown>(&part)) one(shown->value);
        if (ColumnOf* column = std::get_if<ColumnOf>(&part)) one(column->cell);
        if (RowOf* row = std::get_if<RowOf>(&part)) one(row->cell);
      }
  }

  Rules& rules_;
  const Spot& spot_;
  const Exchange& with_;
};

class Walk {
 public:
  explicit Walk(const std::function<void(const Seen&)>& look) : look_(look) {}

  void term(const TermPtr& term, Region region, int line) {
    if (!term) return;
    look_({{term.get(), -1, {}}, term, region, line});
    eachSharedPart(*term, [&](const TermPtr& part) { this->term(part, region, line); });
    body(*term, region);
  }

  void clauses(const Clauses& list, Region region) {
    for (const Clause& one : list) {
      auto own = [&](const TermPtr& part) { term(part, region, one.span.line); };
      std::visit([&](const auto& form) { ownTerms(form, own); }, one.form);
      for (const Clauses* deeper : inner(one)) clauses(*deeper, region);
    }
  }

 private:
  void body(const Term& term, Region region) {
    const Use* use = as<Use>(term);
    if (use == nullptr || !defines_.insert(use->define).second) return;
    std::vector<int> path;
    inBody(use->define, use->body, path, region, use->body->span.line);
  }
  void inBody(int define, const TermPtr& term, std::vector<int>& path, Region region, int line) {
    look_({{term.get(), define, path}, term, region, line});
    int number = 0;
    eachSharedPart(*term, [&](const TermPtr& part) {
      path.push_back(number++);
      inBody(define, part, path, region, line);
      path.pop_back();
    });
    body(*term, region);
  }

  const std::function<void(const Seen&)>& look_;
  std::set<int> defines_;
};

}  // namespace

void eachSpot(const Rules& rules, const std::function<void(const Seen&)>& look) {
  Walk walk(look);
  for (const PieceKind& kind : rules.kinds) walk.term(kind.reach, Region::reach, kind.span.line);
  for (const ZoneRule& zone : rules.zones)
    for (int side = 0; side < (zone.bySide ? 2 : 1); ++side)
      walk.term(zone.says[side], Region::zone, zone.span.line);
  for (const MoveRule& move : rules.moves) walk.clauses(move.body, Region::move);
  for (const AfterRule& after : rules.afters) walk.clauses(after.body, Region::after);
  for (const ForbidRule& forbid : rules.forbids)
    walk.term(forbid.condition, Region::forbid, forbid.span.line);
  for (const EndRule& end : rules.ends) {
    walk.term(end.measure, Region::end, end.span.line);
    walk.term(end.condition, Region::end, end.span.line);
  }
  for (const SeesRule& sees : rules.sees) walk.term(sees.what, Region::sees, sees.span.line);
}

void workOutZones(Rules& rules) {
  for (ZoneRule& zone : rules.zones) {
    for (int side = 0; side < 2; ++side) {
      const TermPtr& says = zone.says[zone.bySide ? side : 0];
      if (!says) continue;
      if (std::optional<CellSet> cells = rules.constantSet(*says, side)) zone.cells[side] = *cells;
    }
  }
}

void exchange(Rules& rules, const Spot& spot, const Exchange& with) {
  Exchanger change(rules, spot, with);
  auto one = [&](TermPtr& term) { term = change(term); };
  for (PieceKind& kind : rules.kinds) one(kind.reach);
  for (ZoneRule& zone : rules.zones)
    for (TermPtr& says : zone.says) one(says);
  for (Definition& define : rules.definitions) {
    bool inside = spot.define >= 0 && &define == &rules.definitions[spot.define];
    define.body = inside ? change.at(define.body, 0) : change(define.body);
  }
  for (MoveRule& move : rules.moves) change.inside(move.body);
  for (AfterRule& after : rules.afters) change.inside(after.body);
  for (ForbidRule& forbid : rules.forbids) one(forbid.condition);
  for (EndRule& end : rules.ends) one(end.measure), one(end.condition), one(end.showing);
  for (SeesRule& sees : rules.sees) one(sees.what);
  workOutZones(rules);
}

}  // namespace ninepegs::rules
