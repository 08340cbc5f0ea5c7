#include "ninepegs/sheet/mutation/alternatives.hpp"

#include <map>
#include <utility>

#include "ninepegs/sheet/mutation/parts.hpp"

namespace ninepegs::rules {

std::string slipName(Slip slip) {
  static const char* const names[] = {
      "direction", "number",   "range", "comparison", "and, or",        "part left out",
      "whose",     "negation", "piece", "place",      "one side alone", "effect",
      "block",     "turn",     "end",   "memory",     "board"};
  return names[static_cast<int>(slip)];
}

std::optional<Whose> exchanged(Whose whose) {
  switch (whose) {
    case Whose::mine:
      return Whose::theirs;
    case Whose::theirs:
      return Whose::mine;
    case Whose::first:
      return Whose::second;
    case Whose::second:
      return Whose::first;
    case Whose::anyone:
      break;
  }
  return std::nullopt;
}

bool alike(const PieceKind& one, const PieceKind& other) {
  return one.only == other.only && one.neutral == other.neutral;
}

namespace {

class Alternatives {
 public:
  Alternatives(Rules& rules, bool sided, std::vector<Alternative>& out)
      : rules_(rules), sided_(sided), out_(out) {}

  template <class Form>
  void operator()(const Form& form) {
    if constexpr (requires { form.whose; }) whose(form);
    if constexpr (requires { form.ways; }) ways(form);
    own(form);
  }

 private:
  // The same form with something in it changed.
  template <class Form, class Edit>
  void edit(Slip slip, Edit change) {
    add(slip, [change](Rules&, const TermPtr& term) -> TermPtr {
      const Form* form = as<Form>(*term);
      if (form == nullptr) return nullptr;
      Form copy = *form;
      change(copy);
      return make(term->type, term->span, std::move(copy));
    });
  }
  // A part of it stands for the whole; it must be of the same type.
  template <class Form, class Which>
  void part(Slip slip, Which which) {
    add(slip, [which](Rules&, const TermPtr& term) -> TermPtr {
      const Form* form = as<Form>(*term);
      return form != nullptr && (form->*which)->type == term->type ? form->*which : nullptr;
    });
  }
  template <class From, class To>
  void becomes(Slip slip) {
    add(slip, [](Rules&, const TermPtr& term) -> TermPtr {
      const From* form = as<From>(*term);
      if (form == nullptr) return nullptr;
      To to;
      if constexpr (requires { to.left; })
        to.left = form->left, to.right = form->right;
      else if constexpr (requires { to.what; })
        to.what = form->what;
      else if constexpr (requires { to.cell; })
        to.cell = form->cell;
      return make(term->type, term->span, std::move(to));
    });
  }
  void add(Slip slip, Exchange make) { out_.push_back({slip, std::move(make)}); }

  // As it is for one side, as `make` has it for the other.
  void forOneSide(const Exchange& make) {
    if (!sided_) return;
    for (int side = 0; side < 2; ++side)
      add(Slip::oneSide, [make, side](Rules& rules, const TermPtr& term) -> TermPtr {
        TermPtr other = make(rules, term);
        if (!other) return nullptr;
        if (term->type == Type::truth) {
          auto both = [&](int who, TermPtr what) {
            And joint;
            joint.left = rules::make(Type::truth, term->span, IsSide{Role::mover, who});
            joint.right = std::move(what);
            return rules::make(Type::truth, term->span, std::move(joint));
          };
          Or either;
          either.left = both(side, std::move(other));
          either.right = both(1 - side, term);
          return rules::make(Type::truth, term->span, std::move(either));
        }
        If choice;
        choice.condition = rules::make(Type::truth, term->span, IsSide{Role::mover, side});
        choice.then = std::move(other);
        choice.otherwise = term;
        return rules::make(term->type, term->span, std::move(choice));
      });
  }

  template <class Form>
  void whose(const Form& form) {
    if (std::optional<Whose> other = exchanged(form.whose))
      edit<Form>(Slip::whose, [other = *other](Form& copy) { copy.whose = other; });
  }
  template <class Form>
  void ways(const Form& form) {
    if constexpr (std::is_same_v<Form, Lines>) return;
    for (const OtherWays& other : otherWays(rules_, form.ways))
      edit<Form>(other.slip, [to = other.ways](Form& copy) { copy.ways = to; });
  }

  template <class Form>
  void own(const Form&) {}

  void own(const Number& form) {
    edit<Number>(Slip::number, [](Number& copy) { ++copy.value; });
    if (form.value > 0) edit<Number>(Slip::number, [](Number& copy) { --copy.value; });
  }
  template <class Form>
  void band(const Form& form, long long most) {
    if (form.parity != Parity::any)
      return edit<Form>(Slip::place, [](Form& copy) {
        copy.parity = copy.parity == Parity::odd ? Parity::even : Parity::odd;
      });
    if (form.last < most) edit<Form>(Slip::place, [](Form& copy) { ++copy.first, ++copy.last; });
    if (form.first > 1) edit<Form>(Slip::place, [](Form& copy) { --copy.first, --copy.last; });
  }
  void own(const Rows& form) { band(form, rules_.board.rows()); }
  void own(const Columns& form) { band(form, rules_.board.columns()); }
  void own(const AllCells&) {
    if (!sided_) return;  // what stands where is not known there
    if (rules_.layered())
      return add(Slip::leftOut, [](Rules&, const TermPtr& term) -> TermPtr {
        Except except;
        except.left = term;
        except.right = make(Type::set, term->span, Side{Whose::mine});
        return make(Type::set, term->span, std::move(except));
      });
    add(Slip::place, [](Rules&, const TermPtr& term) -> TermPtr {
      return make(term->type, term->span, Empty{Whose::anyone});
    });
  }
  void own(const Empty&) { becomes<Empty, AllCells>(Slip::place); }
  void own(const Occupied& form) {
    if (form.whose != Whose::anyone) return;
    for (Whose whose : {Whose::mine, Whose::theirs})
      add(Slip::whose, [whose](Rules&, const TermPtr& term) -> TermPtr {
        return make(term->type, term->span, Side{whose});
      });
  }
  void own(const Edge&) { becomes<Edge, Corner>(Slip::place); }
  void own(const Corner&) { becomes<Corner, Edge>(Slip::place); }
  void own(const Shade&) {
    edit<Shade>(Slip::place, [](Shade& copy) { copy.dark = !copy.dark; });
  }
  void own(const NamedCell& form) {
    const Geometry& board = rules_.board;
    int found = 0;
    for (std::size_t direction = 0; direction < board.directions().size() && found < 2; ++direction)
      if (std::optional<Cell> next = board.step(form.cell, static_cast<int>(direction))) {
        if (*next == form.cell || !board.has(*next)) continue;
        edit<NamedCell>(Slip::place, [to = *next](NamedCell& copy) { copy.cell = to; });
        ++found, ++direction;
      }
  }
  void own(const RowNumber&) { becomes<RowNumber, ColumnNumber>(Slip::place); }
  void own(const ColumnNumber&) { becomes<ColumnNumber, RowNumber>(Slip::place); }

  void own(const Pieces& form) {
    bool bare = form.whose == Whose::anyone;
    if (!bare && !rules_.layered())
      edit<Pieces>(Slip::whose, [](Pieces& copy) { copy.whose = Whose::anyone; });
    if (form.noun.group) {
      if (!bare && !rules_.layered())
        add(Slip::kind, [](Rules&, const TermPtr& term) -> TermPtr {
          const Pieces* pieces = as<Pieces>(*term);
          if (pieces == nullptr) return nullptr;
          if (pieces->whose != Whose::mine && pieces->whose != Whose::theirs) return nullptr;
          return make(term->type, term->span, Side{pieces->whose});
        });
      return;
    }
    if (std::optional<int> kind = otherKind(form.noun.index))
      edit<Pieces>(Slip::kind, [kind = *kind](Pieces& copy) { copy.noun.index = kind; });
  }
  void own(const Side&) {
    if (rules_.layered()) return;
    add(Slip::whose, [](Rules&, const TermPtr& term) -> TermPtr {
      return make(term->type, term->span, Occupied{Whose::anyone});
    });
  }
  void own(const Kind& form) {
    if (std::optional<int> kind = otherKind(form.kind))
      edit<Kind>(Slip::kind, [kind = *kind](Kind& copy) { copy.kind = kind; });
  }
  // The next kind of the list that the same sides may have.
  std::optional<int> otherKind(int kind) const {
    int many = static_cast<int>(rules_.kinds.size());
    for (int step = 1; step < many; ++step) {
      int other = (kind + step) % many;
      if (alike(rules_.kinds[kind], rules_.kinds[other])) return other;
    }
    return std::nullopt;
  }

  void own(const Both&) {
    part<Both>(Slip::leftOut, &Both::left);
    part<Both>(Slip::leftOut, &Both::right);
    becomes<Both, Either>(Slip::joint);
  }
  void own(const Either&) {
    part<Either>(Slip::leftOut, &Either::left);
    part<Either>(Slip::leftOut, &Either::right);
    becomes<Either, Both>(Slip::joint);
  }
  void own(const Except&) {
    part<Except>(Slip::leftOut, &Except::left);
    becomes<Except, Both>(Slip::negation);
  }
  void own(const And&) {
    part<And>(Slip::leftOut, &And::left);
    part<And>(Slip::leftOut, &And::right);
    becomes<And, Or>(Slip::joint);
  }
  void own(const Or&) {
    part<Or>(Slip::leftOut, &Or::left);
    part<Or>(Slip::leftOut, &Or::right);
    becomes<Or, And>(Slip::joint);
  }
  void own(const Not&) { part<Not>(Slip::negation, &Not::what); }
  void own(const Any& form) {
    becomes<Any, None>(Slip::negation);
    if (const Lines* lines = as<Lines>(*form.what)) linesInside<Any>(*lines);
  }
  void own(const None& form) {
    becomes<None, Any>(Slip::negation);
    if (form.what->type != Type::set) return;
    add(Slip::number, [](Rules&, const TermPtr& term) -> TermPtr {  // one is left
      const None* none = as<None>(*term);
      if (none == nullptr) return nullptr;
      Count count;
      count.what = none->what;
      Compare few;
      few.relation = Relation::lessEqual;
      few.left = make(Type::number, term->span, std::move(count));
      few.right = make(Type::number, term->span, Number{1});
      return make(Type::truth, term->span, std::move(few));
    });
  }
  void own(const Count& form) {
    if (const Lines* lines = as<Lines>(*form.what)) linesInside<Count>(*lines);
  }
  // Lines along fewer axes for one side.
  template <class Around>
  void linesInside(const Lines& lines) {
    std::vector<int> other = otherAxes(rules_, lines.ways);
    if (other.empty()) return;
    forOneSide([to = other.front()](Rules&, const TermPtr& term) -> TermPtr {
      const Around* around = as<Around>(*term);
      const Lines* inner = around == nullptr ? nullptr : as<Lines>(*around->what);
      if (inner == nullptr) return nullptr;
      Lines copy = *inner;
      copy.ways = to;
      Around out;
      out.what = make(around->what->type, around->what->span, std::move(copy));
      return make(term->type, term->span, std::move(out));
    });
  }
  void own(const Lines& form) {
    for (int ways : otherAxes(rules_, form.ways))
      edit<Lines>(Slip::direction, [ways](Lines& copy) { copy.ways = ways; });
    edit<Lines>(Slip::number, [](Lines& copy) { copy.exactly = !copy.exactly; });
    if (form.through) edit<Lines>(Slip::leftOut, [](Lines& copy) { copy.through = nullptr; });
    for (const TermPtr& outer : outerRows(rules_, form.in->span))
      edit<Lines>(Slip::range, [outer](Lines& copy) { copy.in = lessThan(copy.in, outer); });
  }
  void own(const Within&) {
    add(Slip::comparison, [](Rules&, const TermPtr& term) -> TermPtr {
      const Within* form = as<Within>(*term);
      if (form == nullptr) return nullptr;
      Both both;
      both.left = form->left, both.right = form->right;
      Any any;
      any.what = make(Type::set, term->span, std::move(both));
      return make(Type::truth, term->span, std::move(any));
    });
  }
  void own(const Inside&) { negated(); }
  void negated() {
    add(Slip::negation, [](Rules&, const TermPtr& term) -> TermPtr {
      Not no;
      no.what = term;
      return make(term->type, term->span, std::move(no));
    });
  }

  void own(const Compare& form) {
    using R = Relation;
    auto relation = [&](Slip slip, R to) {
      edit<Compare>(slip, [to](Compare& copy) { copy.relation = to; });
    };
    if (form.relation == R::equal) relation(Slip::negation, R::unequal);
    if (form.relation == R::unequal) relation(Slip::negation, R::equal);
    if (form.left->type != Type::number) return;
    static const std::map<R, std::vector<R>> slips = {
        {R::equal, {R::greaterEqual, R::lessEqual, R::greater, R::less}},
        {R::less, {R::lessEqual, R::greater}},
        {R::lessEqual, {R::less, R::greaterEqual}},
        {R::greater, {R::greaterEqual, R::less}},
        {R::greaterEqual, {R::greater, R::lessEqual, R::equal}},
    };
    auto found = slips.find(form.relation);
    if (found == slips.end()) return;
    for (R to : found->second) relation(Slip::comparison, to);
  }
  void own(const Arithmetic& form) {
    if (form.sum == Sum::add)
      edit<Arithmetic>(Slip::joint, [](Arithmetic& copy) { copy.sum = Sum::subtract; });
    else if (form.sum == Sum::subtract)
      edit<Arithmetic>(Slip::joint, [](Arithmetic& copy) { copy.sum = Sum::add; });
    part<Arithmetic>(Slip::leftOut, &Arithmetic::left);
    if (form.sum == Sum::add) part<Arithmetic>(Slip::leftOut, &Arithmetic::right);
  }
  void own(const Extreme&) {
    edit<Extreme>(Slip::comparison, [](Extreme& copy) { copy.greatest = !copy.greatest; });
    part<Extreme>(Slip::leftOut, &Extreme::left);
    part<Extreme>(Slip::leftOut, &Extreme::right);
  }
  void own(const If&) {
    part<If>(Slip::leftOut, &If::then);
    part<If>(Slip::leftOut, &If::otherwise);
    edit<If>(Slip::negation, [](If& copy) { std::swap(copy.then, copy.otherwise); });
  }
  void own(const Was&) { part<Was>(Slip::leftOut, &Was::what); }
  void own(const CellsWhere&) { part<CellsWhere>(Slip::leftOut, &CellsWhere::in); }
  void own(const GroupsWhere&) { part<GroupsWhere>(Slip::leftOut, &GroupsWhere::in); }
  void own(const Slide& form) {
    add(Slip::direction, [](Rules&, const TermPtr& term) -> TermPtr {
      const Slide* slide = as<Slide>(*term);
      return slide == nullptr ? nullptr
                              : make(term->type, term->span, Step{slide->ways, slide->from});
    });
    if (form.through) edit<Slide>(Slip::leftOut, [](Slide& copy) { copy.through = nullptr; });
  }
  void own(const Step&) {
    add(Slip::direction, [](Rules&, const TermPtr& term) -> TermPtr {
      const Step* step = as<Step>(*term);
      return step == nullptr ? nullptr
                             : make(term->type, term->span, Slide{step->ways, step->from, nullptr});
    });
  }
  void own(const Leap&) {
    edit<Leap>(Slip::number, [](Leap& copy) { ++copy.wide; });
    edit<Leap>(Slip::number, [](Leap& copy) { ++copy.far; });
  }
  void own(const IsSide&) {
    edit<IsSide>(Slip::whose, [](IsSide& copy) { copy.side = 1 - copy.side; });
  }
  void own(const Stuck&) { becomes<Stuck, NobodyCanMove>(Slip::end); }
  void own(const NobodyCanMove&) { becomes<NobodyCanMove, Stuck>(Slip::end); }

  Rules& rules_;
  bool sided_;
  std::vector<Alternative>& out_;
};

}  // namespace

std::vector<Alternative> alternatives(Rules& rules, const Term& term, bool sided) {
  std::vector<Alternative> out;
  Alternatives all(rules, sided, out);
  std::visit(all, term.form);
  return out;
}

}  // namespace ninepegs::rules
