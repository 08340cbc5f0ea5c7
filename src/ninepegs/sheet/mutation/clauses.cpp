// Statements that are left out, out of order, or run when they should not.
#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/mutation/parts.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {
namespace {

using Edit = std::function<void(Clauses&, std::size_t)>;

// Edits the list that holds the statement of that number; false if it is not there.
bool editIn(Clauses& list, int id, const Edit& edit) {
  for (std::size_t i = 0; i < list.size(); ++i) {
    if (list[i].id == id) {
      edit(list, i);
      return true;
    }
    if (When* when = std::get_if<When>(&list[i].form))
      if (editIn(when->then, id, edit) || editIn(when->otherwise, id, edit)) return true;
    if (Repeat* repeat = std::get_if<Repeat>(&list[i].form))
      if (editIn(repeat->body, id, edit)) return true;
  }
  return false;
}

void editAll(Rules& rules, int id, const Edit& edit) {
  for (MoveRule& move : rules.moves)
    if (editIn(move.body, id, edit)) return;
  for (AfterRule& after : rules.afters)
    if (editIn(after.body, id, edit)) return;
}

void splice(Clauses& list, std::size_t at, const Clauses& instead) {
  Clauses copy = instead;
  auto place = list.erase(list.begin() + static_cast<std::ptrdiff_t>(at));
  list.insert(place, copy.begin(), copy.end());
}

// A condition that always holds, or never.
TermPtr settled(Span span, bool holds) {
  TermPtr nothing = make(Type::set, span, NoCells{});
  if (holds) return make(Type::truth, span, None{nothing});
  return make(Type::truth, span, Any{nothing});
}

class Statements {
 public:
  Statements(const Rules& rules, std::vector<Mutation>& out) : rules_(rules), out_(out) {
    eachSpot(rules, [this](const Seen& seen) {
      const Lines* lines = as<Lines>(*seen.term);  // a length that hangs on nothing in the move
      if (lines_ == nullptr && lines != nullptr && as<Number>(*lines->length)) lines_ = seen.term;
    });
  }

  void body(const Clauses& list) {
    auto picks = [](const Clause& clause) { return as<PickCell>(clause) != nullptr; };
    auto first = std::find_if(list.begin(), list.end(), picks);
    first_ = first == list.end() ? nullptr : &*first;
    all(list);
  }
  void all(const Clauses& list) {
    for (std::size_t i = 0; i < list.size(); ++i) {
      at_ = &list[i];
      std::visit(*this, list[i].form);
      if (i + 1 < list.size()) order(list[i], list[i + 1]);
      for (const Clauses* deeper : inner(list[i])) all(*deeper);
    }
  }

  void operator()(const PickCell& c) {
    without(c);
    if (at_ == first_ && c.from->type == Type::set)
      for (auto outer : {&outerRows, &outerCells})
        for (const TermPtr& set : outer(rules_, c.from->span))
          form(Slip::range, c, [set](PickCell& copy) { copy.from = lessThan(copy.from, set); });
    if (c.ifAny) form(Slip::block, c, [](PickCell& copy) { copy.ifAny = false; });
  }
  void operator()(const ChooseNumber& c) { byOne(c, &ChooseNumber::high); }
  void operator()(const ChooseKind& c) {
    for (std::size_t k = 0; k < c.kinds.size() && c.kinds.size() > 1; ++k)
      form(Slip::kind, c, [k](ChooseKind& copy) {
        copy.kinds.erase(copy.kinds.begin() + static_cast<std::ptrdiff_t>(k));
      });
    kindsToo(c);
  }
  // A kind too many, of those that the same sides may have.
  void kindsToo(const ChooseKind& c) {
    const PieceKind& like = rules_.kinds[c.kinds.front()];
    for (int kind = 0; kind < static_cast<int>(rules_.kinds.size()); ++kind) {
      bool there = std::find(c.kinds.begin(), c.kinds.end(), kind) != c.kinds.end();
      if (there || !alike(rules_.kinds[kind], like)) continue;
      form(Slip::kind, c, [kind](ChooseKind& copy) { copy.kinds.push_back(kind); });
    }
  }
  void operator()(const Need&) { leftOut(Slip::leftOut); }
  void operator()(const SetVariable& c) { effect(c); }
  void operator()(const SetRemembered& c) { effect(c); }
  void operator()(const SetMark& c) { effect(c); }
  void operator()(const AddTo& c) {
    effect(c);
    becomes(c, RemoveFrom{c.mark, c.whose, c.cells});
  }
  void operator()(const RemoveFrom& c) {
    effect(c);
    becomes(c, AddTo{c.mark, c.whose, c.cells});
  }
  void operator()(const Put& c) {
    leftOut(Slip::effect);
    if (c.fromHand) form(Slip::leftOut, c, [](Put& copy) { copy.fromHand = false; });
  }
  void operator()(const Change& c) { effect(c); }
  void operator()(const SetName&) { leftOut(Slip::effect); }
  void operator()(const SetCellNumber& c) {
    leftOut(Slip::effect);
    if (as<Number>(*c.value) == nullptr) byOne(c, &SetCellNumber::value);
  }
  void operator()(const Shift&) { leftOut(Slip::effect); }
  void operator()(const ShiftAll&) { leftOut(Slip::effect); }
  void operator()(const Take&) { leftOut(Slip::effect); }
  void operator()(const Flip&) { leftOut(Slip::effect); }
  void operator()(const Again&) { leftOut(Slip::effect); }
  void operator()(const Maximise&) { leftOut(Slip::leftOut); }
  void operator()(const Tell&) { leftOut(Slip::effect); }
  void operator()(const When& c) {
    // The names made inside stay made: texts may speak of them.
    std::string when = "when " + toText(rules_, *c.condition);
    add(Slip::block, when, "", [](Clauses& list, std::size_t at) {
      std::get<When>(list[at].form).condition = settled(list[at].span, true);
    });
    add(Slip::block, when, "when never", [](Clauses& list, std::size_t at) {
      std::get<When>(list[at].form).condition = settled(list[at].span, false);
    });
    form(Slip::negation, c, [](When& copy) {
      Not no;
      no.what = copy.condition;
      copy.condition = make(Type::truth, copy.condition->span, std::move(no));
    });
    bool names = anyClause(c.otherwise, [](const Clause& one) { return madeName(one) >= 0; });
    if (!c.otherwise.empty() && !names)
      add(Slip::block, "otherwise", "",
          [](Clauses& list, std::size_t at) { std::get<When>(list[at].form).otherwise.clear(); });
  }
  void operator()(const Repeat& c) {
    if (c.rounds == Rounds::whilePossible || c.rounds == Rounds::anyTimes)
      form(Slip::block, c, [](Repeat& copy) {
        copy.rounds = copy.rounds == Rounds::anyTimes ? Rounds::whilePossible : Rounds::anyTimes;
      });
    if (c.rounds == Rounds::times || c.rounds == Rounds::upTo)
      for (Rounds rounds : {Rounds::whilePossible, Rounds::anyTimes})
        form(Slip::block, c, [rounds](Repeat& copy) {
          copy.rounds = rounds;
          copy.most = nullptr;
        });
    add(Slip::block, head(*at_), "", [](Clauses& list, std::size_t at) {
      splice(list, at, std::get<Repeat>(list[at].form).body);
    });
  }
  template <class Other>
  void operator()(const Other&) {}

 private:
  // A number of the statement by one.
  template <class Form>
  void byOne(const Form& c, TermPtr Form::*which) {
    for (Sum sum : {Sum::add, Sum::subtract})
      form(Slip::range, c, [sum, which](Form& copy) {
        Arithmetic more;
        more.sum = sum;
        more.left = copy.*which;
        more.right = make(Type::number, (copy.*which)->span, Number{1});
        copy.*which = make(Type::number, (copy.*which)->span, std::move(more));
      });
  }
  // The first line of a statement.
  std::string head(const Clause& clause) const {
    std::string text = toText(rules_, Clauses{clause}, 0);
    return std::string(trimmed(text.substr(0, text.find('\n'))));
  }
  void add(Slip slip, const std::string& was, const std::string& now, Edit edit) {
    Mutation mutation;
    mutation.slip = slip;
    mutation.line = at_->span.line;
    mutation.was = was;
    mutation.now = now;
    mutation.make = [id = at_->id, edit = std::move(edit)](Rules& to) { editAll(to, id, edit); };
    out_.push_back(std::move(mutation));
  }
  void leftOut(Slip slip) {
    add(slip, head(*at_), "", [](Clauses& list, std::size_t at) {
      list.erase(list.begin() + static_cast<std::ptrdiff_t>(at));
    });
  }
  // The same statement with something in it changed.
  template <class Form, class Edited>
  void form(Slip slip, const Form& form, Edited edit) {
    Form copy = form;
    edit(copy);
    becomes(slip, std::move(copy));
  }
  template <class Form>
  void becomes(Slip slip, Form now) {
    Clause clause = *at_;
    clause.form = now;
    add(slip, head(*at_), head(clause),
        [now](Clauses& list, std::size_t at) { list[at].form = now; });
  }
  // Whose pieces are in a set, as far as its form tells.
  static std::optional<Whose> owner(const Term& set) {
    if (const Side* side = as<Side>(set)) return side->whose;
    if (const Pieces* pieces = as<Pieces>(set)) return pieces->whose;
    if (const Both* both = as<Both>(set)) {
      std::optional<Whose> left = owner(*both->left);
      return left ? left : owner(*both->right);
    }
    const If* choice = as<If>(set);
    if (choice == nullptr) return std::nullopt;
    std::optional<Whose> then = owner(*choice->then);
    return then ? then : owner(*choice->otherwise);
  }
  // Cells that a mark holds should have been left out, or the side's own, or the other's, or those
  // of its pieces that stand in lines.
  void without(const PickCell& c) {
    auto add = [&](TermPtr less) {
      form(Slip::leftOut, c, [less](PickCell& copy) {
        Except except;
        except.left = copy.from;
        except.right = less;
        copy.from = make(Type::set, less->span, std::move(except));
      });
    };
    if (as<Except>(*c.from) != nullptr) return;
    for (std::size_t mark = 0; mark < rules_.marks.size(); ++mark)
      add(make(
          Type::set, c.from->span,
          Mark{static_cast<int>(mark), rules_.marks[mark].each ? Whose::mine : Whose::anyone}));
    if (as<AllCells>(*c.from) != nullptr) add(make(Type::set, c.from->span, Side{Whose::mine}));
    std::optional<Whose> whose = owner(*c.from);
    const Lines* lines = lines_ == nullptr ? nullptr : as<Lines>(*lines_);
    if (lines == nullptr || !whose || *whose == Whose::anyone) return;
    Lines safe = *lines;
    safe.through = nullptr;
    safe.plural = true;
    safe.in = make(Type::set, c.from->span, Side{*whose});
    add(make(Type::set, c.from->span, std::move(safe)));
  }
  template <class Form, class Now>
  void becomes(const Form&, Now now) {
    becomes(Slip::negation, std::move(now));
  }
  // An effect that may be left out, and perhaps is another side's.
  template <class Form>
  void effect(const Form& c) {
    leftOut(Slip::effect);
    if constexpr (requires { c.whose; })
      if (std::optional<Whose> other = exchanged(c.whose))
        form(Slip::whose, c, [other = *other](Form& copy) { copy.whose = other; });
  }
  static bool isEffect(const Clause& clause) {
    return !isChoice(clause) && madeName(clause) < 0 && !as<Need>(clause) &&
           textParts(clause) == nullptr && !as<Maximise>(clause) && !as<SetName>(clause);
  }
  void order(const Clause& first, const Clause& second) {
    if (!isEffect(first) || !isEffect(second)) return;
    add(Slip::effect, head(first) + ", then " + head(second),
        head(second) + ", then " + head(first),
        [](Clauses& list, std::size_t at) { std::swap(list[at], list[at + 1]); });
  }

  const Rules& rules_;
  std::vector<Mutation>& out_;
  const Clause* at_ = nullptr;
  const Clause* first_ = nullptr;  // the first pick of the move
  TermPtr lines_;                  // the first lines that the rules speak of
};

}  // namespace

void mutationsOfClauses(const Rules& rules, std::vector<Mutation>& out) {
  Statements statements(rules, out);
  for (const MoveRule& move : rules.moves) statements.body(move.body);
  for (const AfterRule& after : rules.afters) statements.body(after.body);
}

}  // namespace ninepegs::rules
