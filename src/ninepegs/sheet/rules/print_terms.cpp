// Terms as they may stand in a sheet, every operand in brackets of its own.
#include <fmt/format.h>

#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {
namespace {

class TermText {
 public:
  explicit TermText(const Rules& rules) : rules_(rules) {}

  std::string of(const TermPtr& term) const { return std::visit(*this, term->form); }

  std::string operator()(const Name& form) const { return rules_.names[form.name]; }
  std::string operator()(const Use& form) const {
    std::string out = rules_.definitions[form.define].name;
    for (std::size_t i = 0; i < form.given.size(); ++i)
      out += (i == 0 ? "(" : ", ") + of(form.given[i]);
    if (!form.given.empty()) out += ")";
    return form.whose == Whose::mine ? out : own(form.whose, out);
  }
  std::string operator()(const If& form) const {
    return fmt::format("(if {} then {} else {})", of(form.condition), of(form.then),
                       of(form.otherwise));
  }
  std::string operator()(const Was& form) const { return fmt::format("(was {})", of(form.what)); }

  std::string operator()(const AllCells&) const { return "all"; }
  std::string operator()(const NoCells&) const { return "none"; }
  std::string operator()(const Side& form) const {
    return form.whose == Whose::mine ? "mine" : "theirs";
  }
  std::string operator()(const Empty& form) const { return own(form.whose, "empty"); }
  std::string operator()(const Occupied& form) const { return own(form.whose, "occupied"); }
  std::string operator()(const Pieces& form) const {
    return own(form.whose, rules_.nameOf(form.noun));
  }
  std::string operator()(const PiecesOfKind& form) const { return own(form.whose, of(form.kind)); }
  std::string operator()(const Zone& form) const {
    return own(form.whose, rules_.zones[form.zone].name);
  }
  std::string operator()(const Mark& form) const {
    return own(form.whose, rules_.marks[form.mark].name);
  }
  std::string operator()(const Edge&) const { return "edge"; }
  std::string operator()(const Corner&) const { return "corner"; }
  std::string operator()(const Shade& form) const { return form.dark ? "dark" : "light"; }
  std::string operator()(const Rows& form) const {
    if (form.parity != Parity::any) return parity(form.parity) + " rows";
    return fmt::format("(rows {} to {})", form.first, form.last);
  }
  std::string operator()(const Columns& form) const {
    if (form.parity != Parity::any) return parity(form.parity) + " columns";
    return fmt::format("(columns {} to {})", Geometry::columnName(static_cast<int>(form.first)),
                       Geometry::columnName(static_cast<int>(form.last)));
  }
  std::string operator()(const Touched&) const { return "touched"; }
  std::string operator()(const SideReach& form) const { return own(form.whose, "reach"); }
  std::string operator()(const ReachOf& form) const {
    return fmt::format("(reach of {})", of(form.cell));
  }
  std::string operator()(const CellAsSet& form) const { return of(form.cell); }
  std::string operator()(const Both& form) const { return joined(form, "on"); }
  std::string operator()(const Either& form) const { return joined(form, "or"); }
  std::string operator()(const Except& form) const { return joined(form, "except"); }
  std::string operator()(const Ahead& form) const {
    return fmt::format("({} of {})", way(form.ways), of(form.of));
  }
  std::string operator()(const Step& form) const {
    return from("step " + way(form.ways), form.from);
  }
  std::string operator()(const Slide& form) const {
    std::string head = "slide " + way(form.ways);
    if (!form.through) return from(head, form.from);
    if (form.from) head += " from " + of(form.from);
    return fmt::format("({} through {})", head, of(form.through));
  }
  std::string operator()(const Leap& form) const {
    return from(fmt::format("leap {} {}", form.far, form.wide), form.from);
  }
  std::string operator()(const Between& form) const {
    return fmt::format("(between {} and {})", of(form.one), of(form.other));
  }
  std::string operator()(const Bracketed& form) const {
    return fmt::format("(bracketed {} from {} by {} along {})", of(form.run), of(form.from),
                       of(form.by), way(form.ways));
  }
  std::string operator()(const Spread& form) const {
    return fmt::format("(spread from {} through {} along {})", of(form.from), of(form.through),
                       way(form.ways));
  }
  std::string operator()(const CellsWhere& form) const {
    return fmt::format("(cells {} in {} where {})", rules_.names[form.name], of(form.in),
                       of(form.condition));
  }
  std::string operator()(const GroupsWhere& form) const {
    return fmt::format("(groups {} in {} along {} where {})", rules_.names[form.name], of(form.in),
                       way(form.ways), of(form.condition));
  }
  std::string operator()(const Lines& form) const {
    return fmt::format("({} of {}{} in {}{} along {})", form.plural ? "lines" : "line",
                       form.exactly ? "exactly " : "", of(form.length), of(form.in),
                       form.through ? " through " + of(form.through) : "", way(form.ways));
  }

  std::string operator()(const NamedCell& form) const { return rules_.labelOf(form.cell); }
  std::string operator()(const NoCell&) const { return "none"; }
  std::string operator()(const Remembered& form) const {
    return own(form.whose, rules_.remembered[form.cell].name);
  }
  std::string operator()(const OneCellOf& form) const { return of(form.set); }
  std::string operator()(const Beyond& form) const {
    return fmt::format("(beyond {} from {})", of(form.over), of(form.from));
  }
  std::string operator()(const OnTrack& form) const {
    return fmt::format("(next {} along {} from {})", of(form.far), rules_.tracks[form.track].name,
                       of(form.from));
  }

  std::string operator()(const Kind& form) const { return rules_.kinds[form.kind].name; }
  std::string operator()(const KindOn& form) const {
    return fmt::format("({})", own(form.whose, "kind on " + of(form.cell)));
  }
  std::string operator()(const KindsWhere& form) const {
    return fmt::format("(kinds {} in {} where {})", rules_.names[form.name],
                       rules_.nameOf(form.noun), of(form.condition));
  }
  std::string operator()(const Hand& form) const { return own(form.whose, "hand"); }

  std::string operator()(const Number& form) const {
    return form.value < 0 ? fmt::format("(0 - {})", -form.value) : std::to_string(form.value);
  }
  std::string operator()(const Variable& form) const {
    return own(form.whose, rules_.numbers[form.number].name);
  }
  std::string operator()(const CellNumber& form) const {
    return ofCell(rules_.numbers[form.number].name, form);
  }
  std::string operator()(const Property& form) const {
    return ofCell(rules_.properties[form.property], form);
  }
  std::string operator()(const KindProperty& form) const {
    return fmt::format("({} of {})", rules_.properties[form.property], of(form.kind));
  }
  std::string operator()(const RowNumber& form) const { return ofCell("row-no", form); }
  std::string operator()(const ColumnNumber& form) const { return ofCell("column-no", form); }
  std::string operator()(const Weight& form) const { return ofCell("weight", form); }
  std::string operator()(const Plies&) const { return "plies"; }
  std::string operator()(const Passes&) const { return "passes"; }
  std::string operator()(const TimesSeen&) const { return "times seen"; }
  std::string operator()(const HandOf& form) const {
    return fmt::format("({} of {})", own(form.whose, "hand"), of(form.kind));
  }
  std::string operator()(const Count& form) const {
    return fmt::format("(count {})", of(form.what));
  }
  std::string operator()(const EdgeOf& form) const {
    return fmt::format("(edge of {} towards {})", of(form.cell), of(form.towards));
  }
  std::string operator()(const MovesOf& form) const {
    int side = sideOf(form.whose, -1);
    if (form.whose == Whose::mine || form.whose == Whose::theirs) return own(form.whose, "moves");
    return "(moves of " + rules_.sides[side] + ")";
  }
  std::string operator()(const Arithmetic& form) const {
    static const char* const signs[] = {"+", "-", "*", "/", "%"};
    return joined(form, signs[static_cast<int>(form.sum)]);
  }
  std::string operator()(const Extreme& form) const {
    return fmt::format("{}({}, {})", form.greatest ? "max" : "min", of(form.left), of(form.right));
  }
  std::string operator()(const Total& form) const {
    return fmt::format("(total {} for {} in {})", of(form.each), rules_.names[form.name],
                       of(form.in));
  }

  std::string operator()(const Not& form) const { return fmt::format("(not {})", of(form.what)); }
  std::string operator()(const And& form) const { return joined(form, "and"); }
  std::string operator()(const Or& form) const { return joined(form, "or"); }
  std::string operator()(const Any& form) const { return fmt::format("(any {})", of(form.what)); }
  std::string operator()(const None& form) const { return fmt::format("(no {})", of(form.what)); }
  std::string operator()(const Compare& form) const {
    static const char* const signs[] = {"=", "!=", "<", "<=", ">", ">="};
    return joined(form, signs[static_cast<int>(form.relation)]);
  }
  std::string operator()(const Within& form) const { return joined(form, "within"); }
  std::string operator()(const Inside& form) const {
    return fmt::format("({} in {})", of(form.cell), of(form.in));
  }
  std::string operator()(const IsSide& form) const {
    static const char* const roles[] = {"mover", "opponent", "next"};
    return fmt::format("({} is {})", roles[static_cast<int>(form.role)], rules_.sides[form.side]);
  }
  std::string operator()(const Stuck&) const { return "stuck"; }
  std::string operator()(const NobodyCanMove&) const { return "nobody can move"; }

 private:
  std::string own(Whose whose, const std::string& what) const {
    switch (whose) {
      case Whose::anyone:
        break;
      case Whose::mine:
        return "my " + what;
      case Whose::theirs:
        return "their " + what;
      case Whose::first:
      case Whose::second:
        return what + " of " + rules_.sides[sideOf(whose, 0)];
    }
    return what;
  }
  const std::string& way(int ways) const { return rules_.ways[ways].word; }
  static std::string parity(Parity parity) { return parity == Parity::odd ? "odd" : "even"; }
  template <class Pair>
  std::string joined(const Pair& form, const char* word) const {
    return fmt::format("({} {} {})", of(form.left), word, of(form.right));
  }
  template <class OfCell>
  std::string ofCell(const std::string& word, const OfCell& form) const {
    return fmt::format("({} of {})", word, of(form.cell));
  }
  std::string from(const std::string& head, const TermPtr& term) const {
    return term ? fmt::format("({} from {})", head, of(term)) : "(" + head + ")";
  }

  const Rules& rules_;
};

}  // namespace

std::string toText(const Rules& rules, const Term& term) {
  return std::visit(TermText(rules), term.form);
}

}  // namespace ninepegs::rules
