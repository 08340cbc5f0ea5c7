// Terms in words.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/words/explain.hpp"

namespace ninepegs::sheet {
namespace {

using namespace rules;

class Words {
 public:
  explicit Words(const Rules& rules) : rules_(rules) {}

  std::string of(const Term& term) const { return std::visit(*this, term.form); }

  std::string operator()(const Name& form) const { return quoted(rules_.names[form.name]); }
  std::string operator()(const Use& form) const {
    const std::string& name = rules_.definitions[form.define].name;
    if (form.whose != Whose::mine) return own(form.whose, name);
    if (form.given.empty()) return name;
    std::vector<std::string> given;
    for (const TermPtr& one : form.given) given.push_back(arg(one));
    return fmt::format("\"{}\" of {}", name, joined(given, " and "));
  }
  std::string operator()(const If& form) const {
    return fmt::format("(if {}: {}; else: {})", arg(form.condition), arg(form.then),
                       arg(form.otherwise));
  }
  std::string operator()(const Was& form) const {
    return arg(form.what) + " as it was before the move";
  }

  std::string operator()(const AllCells&) const { return "all cells"; }
  std::string operator()(const NoCells&) const { return "none"; }
  std::string operator()(const Side& form) const {
    return form.whose == Whose::mine ? "the side's own pieces" : "the other side's pieces";
  }
  std::string operator()(const Empty& form) const {
    return form.whose == Whose::anyone ? "the empty cells" : own(form.whose, "empty");
  }
  std::string operator()(const Occupied& form) const {
    return form.whose == Whose::anyone ? "the occupied cells" : own(form.whose, "occupied");
  }
  std::string operator()(const Pieces& form) const {
    const std::string& name = rules_.nameOf(form.noun);
    if (form.whose == Whose::anyone) return fmt::format("the {} pieces", name);
    return own(form.whose, named(form.whose) ? name : name + " pieces");
  }
  std::string operator()(const PiecesOfKind& form) const {
    if (form.whose == Whose::anyone) return of(*form.kind);
    const Name* name = as<Name>(*form.kind);
    return own(form.whose, name != nullptr ? rules_.names[name->name] : arg(form.kind));
  }
  std::string operator()(const Zone& form) const {
    return owned(form.whose, rules_.zones[form.zone].name, "{}");
  }
  std::string operator()(const Mark& form) const {
    return owned(form.whose, rules_.marks[form.mark].name, "the cells marked {}");
  }
  std::string operator()(const Edge&) const { return "the cells at the edge"; }
  std::string operator()(const Corner&) const { return "the corner cells"; }
  std::string operator()(const Shade& form) const {
    return fmt::format("the {} cells", form.dark ? "dark" : "light");
  }
  std::string operator()(const Rows& form) const {
    if (form.parity != Parity::any) return fmt::format("the {} rows", parity(form.parity));
    if (form.first == form.last) return fmt::format("row {}", form.first);
    return fmt::format("rows {} to {}", form.first, form.last);
  }
  std::string operator()(const Columns& form) const {
    if (form.parity != Parity::any) return fmt::format("the {} columns", parity(form.parity));
    std::string first = Geometry::columnName(static_cast<int>(form.first));
    if (form.first == form.last) return "column " + first;
    return fmt::format("columns {} to {}", first,
                       Geometry::columnName(static_cast<int>(form.last)));
  }
  std::string operator()(const Touched&) const { return "the cells that the move changed"; }
  std::string operator()(const SideReach& form) const {
    if (named(form.whose)) return own(form.whose, "reach");
    return form.whose == Whose::mine ? "what the side attacks" : "what the other side attacks";
  }
  std::string operator()(const ReachOf& form) const {
    return fmt::format("what the piece on {} attacks", arg(form.cell));
  }
  std::string operator()(const CellAsSet& form) const { return of(*form.cell); }
  std::string operator()(const Both& form) const {
    return fmt::format("those of {} that are among {}", arg(form.left), arg(form.right));
  }
  std::string operator()(const Either& form) const {
    return fmt::format("{} or {}", arg(form.left), arg(form.right));
  }
  std::string operator()(const Except& form) const {
    return fmt::format("{}, but not {}", arg(form.left), arg(form.right));
  }
  std::string operator()(const Ahead& form) const {
    return fmt::format("the cells one step {} of {}", way(form.ways), arg(form.of));
  }
  std::string operator()(const Step& form) const {
    return fmt::format("the cells one {} step away from {}", way(form.ways), origin(form.from));
  }
  std::string operator()(const Slide& form) const {
    return fmt::format("the cells that can be slid to in {} directions from {}{}", way(form.ways),
                       origin(form.from), form.through ? " through " + arg(form.through) : "");
  }
  std::string operator()(const Leap& form) const {
    return fmt::format("the cells a leap of {} and {} away from {}", form.far, form.wide,
                       origin(form.from));
  }
  std::string operator()(const Between& form) const {
    return fmt::format("the cells between {} and {}", arg(form.one), arg(form.other));
  }
  std::string operator()(const Bracketed& form) const {
    return fmt::format("the runs of {} that begin next to {} and end at one of {} ({} directions)",
                       arg(form.run), arg(form.from), arg(form.by), way(form.ways));
  }
  std::string operator()(const Spread& form) const {
    return fmt::format("all of {} joined to {} by {} steps", arg(form.through), arg(form.from),
                       way(form.ways));
  }
  std::string operator()(const CellsWhere& form) const {
    return fmt::format("each cell {} of {} for which {}", quoted(rules_.names[form.name]),
                       arg(form.in), arg(form.condition));
  }
  std::string operator()(const GroupsWhere& form) const {
    return fmt::format("each connected group {} of {} for which {}",
                       quoted(rules_.names[form.name]), arg(form.in), arg(form.condition));
  }
  std::string operator()(const Lines& form) const {
    return fmt::format(
        "{} of {}{} among {}{}{}", form.plural ? "straight lines" : "a straight line",
        form.exactly ? "exactly " : "", arg(form.length), arg(form.in),
        form.through ? " through " + arg(form.through) : "",
        rules_.ways[form.ways].every ? "" : fmt::format(" ({} directions)", way(form.ways)));
  }

  std::string operator()(const NamedCell& form) const { return rules_.labelOf(form.cell); }
  std::string operator()(const NoCell&) const { return "none"; }
  std::string operator()(const Remembered& form) const {
    return owned(form.whose, rules_.remembered[form.cell].name, "the remembered cell {}");
  }
  std::string operator()(const OneCellOf& form) const { return of(*form.set); }
  std::string operator()(const Beyond& form) const {
    return fmt::format("the cell right behind {} as seen from {}", arg(form.over), arg(form.from));
  }
  std::string operator()(const OnTrack& form) const {
    return fmt::format("the cell {} further along {} from {}", arg(form.far),
                       rules_.tracks[form.track].name, arg(form.from));
  }

  std::string operator()(const Kind& form) const {
    return fmt::format("the {} pieces", rules_.kinds[form.kind].name);
  }
  std::string operator()(const KindOn& form) const {
    return "the kind of piece on " + arg(form.cell);
  }
  std::string operator()(const KindsWhere& form) const {
    return fmt::format("each kind {} of {} for which {}", quoted(rules_.names[form.name]),
                       rules_.nameOf(form.noun), arg(form.condition));
  }
  std::string operator()(const Hand& form) const { return own(form.whose, "hand"); }

  std::string operator()(const Number& form) const { return std::to_string(form.value); }
  std::string operator()(const Variable& form) const {
    return owned(form.whose, rules_.numbers[form.number].name, "the number {}");
  }
  std::string operator()(const CellNumber& form) const {
    return ofCell(rules_.numbers[form.number].name, form.cell);
  }
  std::string operator()(const Property& form) const {
    return ofCell(rules_.properties[form.property], form.cell);
  }
  std::string operator()(const KindProperty& form) const {
    return ofCell(rules_.properties[form.property], form.kind);
  }
  std::string operator()(const RowNumber& form) const { return ofCell("row-no", form.cell); }
  std::string operator()(const ColumnNumber& form) const { return ofCell("column-no", form.cell); }
  std::string operator()(const Weight& form) const { return ofCell("weight", form.cell); }
  std::string operator()(const Plies&) const { return "the number of plies played"; }
  std::string operator()(const Passes&) const { return "the number of passes in a row"; }
  std::string operator()(const TimesSeen&) const {
    return "the number of times this position was seen";
  }
  std::string operator()(const HandOf& form) const {
    return own(form.whose, "hand") + " of " + arg(form.kind);
  }
  std::string operator()(const Count& form) const {
    return fmt::format("the number of {}", arg(form.what));
  }
  std::string operator()(const EdgeOf& form) const {
    return fmt::format("the number on the side of {} that faces {}", arg(form.cell),
                       arg(form.towards));
  }
  std::string operator()(const MovesOf& form) const {
    return fmt::format("the number of moves of {}", form.whose == Whose::mine ? "this side"
                                                    : form.whose == Whose::theirs
                                                        ? "the other side"
                                                        : rules_.sides[sideOf(form.whose, 0)]);
  }
  std::string operator()(const Arithmetic& form) const {
    static const char* const signs[] = {"+", "-", "*", "/", "%"};
    return fmt::format("({} {} {})", arg(form.left), signs[static_cast<int>(form.sum)],
                       arg(form.right));
  }
  std::string operator()(const Extreme& form) const {
    return fmt::format("the {} of {} and {}", form.greatest ? "greater" : "smaller", arg(form.left),
                       arg(form.right));
  }
  std::string operator()(const Total& form) const {
    bool picture = as<Weight>(*form.each) != nullptr;
    const std::string& name = rules_.names[form.name];
    return fmt::format("the total of {} for each {} of {}",
                       picture ? "the weight of " + name : arg(form.each),
                       picture ? name : quoted(name), arg(form.in));
  }

  std::string operator()(const Not& form) const { return "it is not so that " + arg(form.what); }
  std::string operator()(const And& form) const {
    return fmt::format("{}, and {}", arg(form.left), arg(form.right));
  }
  std::string operator()(const Or& form) const {
    return fmt::format("{} or {}", arg(form.left), arg(form.right));
  }
  std::string operator()(const Any& form) const {
    bool line = form.what->type == Type::lineset;
    return fmt::format("there {} {}", line ? "is" : "is any of", arg(form.what));
  }
  std::string operator()(const None& form) const { return "there is none of " + arg(form.what); }
  std::string operator()(const Compare& form) const {
    static const char* const relations[] = {"is",         "is not",       "is less than",
                                            "is at most", "is more than", "is at least"};
    return fmt::format("{} {} {}", arg(form.left), relations[static_cast<int>(form.relation)],
                       arg(form.right));
  }
  std::string operator()(const Within& form) const {
    return fmt::format("all of {} lie within {}", arg(form.left), arg(form.right));
  }
  std::string operator()(const Inside& form) const {
    return fmt::format("{} is one of {}", arg(form.cell), arg(form.in));
  }
  std::string operator()(const IsSide& form) const {
    static const char* const roles[] = {"mover", "opponent", "next side"};
    return fmt::format("the {} is {}", roles[static_cast<int>(form.role)], rules_.sides[form.side]);
  }
  std::string operator()(const Stuck&) const { return "the side to move has no legal move"; }
  std::string operator()(const NobodyCanMove&) const { return "neither side has a legal move"; }

 private:
  // A part, in brackets where its words could run into those around it.
  std::string arg(const TermPtr& part) const {
    return isOpen(*part) ? "(" + of(*part) + ")" : of(*part);
  }
  static bool isOpen(const Term& term) {
    if (const CellAsSet* cell = as<CellAsSet>(term)) return isOpen(*cell->cell);
    if (const OneCellOf* set = as<OneCellOf>(term)) return isOpen(*set->set);
    if (const Slide* slide = as<Slide>(term)) return slide->through != nullptr;
    if (const Use* use = as<Use>(term)) return use->given.size() > 1;
    return as<Both>(term) || as<Either>(term) || as<Except>(term) || as<And>(term) ||
           as<Or>(term) || as<Not>(term) || as<CellsWhere>(term) || as<GroupsWhere>(term) ||
           as<KindsWhere>(term) || as<Was>(term) || as<Bracketed>(term) || as<Spread>(term) ||
           as<Total>(term);
  }
  static std::string quoted(const std::string& name) { return "`" + name + "`"; }
  static bool named(Whose whose) { return whose == Whose::first || whose == Whose::second; }
  std::string own(Whose whose, const std::string& what) const {
    if (named(whose)) return fmt::format("the {} of {}", what, rules_.sides[sideOf(whose, 0)]);
    return (whose == Whose::mine ? "the side's own " : "the other side's ") + what;
  }
  std::string owned(Whose whose, const std::string& what, const char* bare) const {
    return whose == Whose::anyone ? fmt::format(fmt::runtime(bare), what) : own(whose, what);
  }
  std::string ofCell(const std::string& what, const TermPtr& cell) const {
    return fmt::format("the {} of {}", what, arg(cell));
  }
  std::string origin(const TermPtr& from) const { return from ? arg(from) : "the piece"; }
  const std::string& way(int ways) const { return rules_.ways[ways].word; }
  static const char* parity(Parity parity) { return parity == Parity::odd ? "odd" : "even"; }

  const Rules& rules_;
};

}  // namespace

std::string inWords(const Rules& rules, const Term& term) {
  return Words(rules).of(term);
}

}  // namespace ninepegs::sheet
