// Clauses of moves in words.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/words/explain.hpp"

namespace ninepegs::sheet {
namespace {

using namespace rules;

class ClauseWords {
 public:
  explicit ClauseWords(const Rules& rules) : rules_(rules) {}

  std::string operator()(const PickCell& c) const {
    return fmt::format("Pick {} from {}{}.", name(c.name), of(c.from),
                       c.ifAny ? ", if there is any" : "");
  }
  std::string operator()(const PickLine& c) const {
    return fmt::format("Pick {} from {}.", name(c.name), of(c.lines));
  }
  std::string operator()(const ChooseKind& c) const {
    std::vector<std::string> kinds;
    for (int kind : c.kinds) kinds.push_back(rules_.kinds[kind].name);
    return fmt::format("Choose {}: {}.", name(c.name), joined(kinds, ", "));
  }
  std::string operator()(const ChooseFromHand& c) const {
    return fmt::format("Choose {} from the side's hand.", name(c.name));
  }
  std::string operator()(const ChooseNumber& c) const {
    return fmt::format("Choose the number {} from {} to {}.", name(c.name), of(c.low), of(c.high));
  }
  std::string operator()(const Let& c) const {
    return fmt::format("Let {} be {}.", name(c.name), of(c.value));
  }
  std::string operator()(const Need& c) const {
    return fmt::format("This is allowed only if {}.", of(c.condition));
  }
  std::string operator()(const SetName& c) const { return set("", rules_.names[c.name], c.value); }
  std::string operator()(const SetVariable& c) const {
    return set(owner(c.whose), rules_.numbers[c.number].name, c.value);
  }
  std::string operator()(const SetCellNumber& c) const {
    return set("", rules_.numbers[c.number].name + " of " + of(c.cell), c.value);
  }
  std::string operator()(const SetRemembered& c) const {
    return set(owner(c.whose), rules_.remembered[c.cell].name, c.value);
  }
  std::string operator()(const SetMark& c) const {
    return set(owner(c.whose), rules_.marks[c.mark].name, c.value);
  }
  std::string operator()(const AddTo& c) const {
    return fmt::format("Add {} to {}{}.", of(c.cells), owner(c.whose), rules_.marks[c.mark].name);
  }
  std::string operator()(const RemoveFrom& c) const {
    return fmt::format("Remove {} from {}{}.", of(c.cells), owner(c.whose),
                       rules_.marks[c.mark].name);
  }
  std::string operator()(const Put& c) const {
    return fmt::format("Put {} on {}{}.", ofKind(c.kind), of(c.where),
                       c.fromHand ? ", from the hand" : "");
  }
  std::string operator()(const Change& c) const {
    return fmt::format("What stands on {} becomes {}.", of(c.where), ofKind(c.kind));
  }
  std::string operator()(const Shift& c) const {
    return fmt::format("Move the piece from {} to {}.", of(c.from), of(c.to));
  }
  std::string operator()(const ShiftAll& c) const {
    return fmt::format("Move {} one step {}.", of(c.cells), rules_.ways[c.ways].word);
  }
  std::string operator()(const Take& c) const {
    return fmt::format("Take what stands on {}.", of(c.where));
  }
  std::string operator()(const Flip& c) const {
    return fmt::format("What stands on {} changes its side.", of(c.where));
  }
  std::string operator()(const Again&) const { return "The same side moves again."; }
  std::string operator()(const When& c) const { return fmt::format("When {}:", of(c.condition)); }
  std::string operator()(const Repeat& c) const {
    switch (c.rounds) {
      case Rounds::whilePossible:
        return "Once or more, and as long as it is possible:";
      case Rounds::anyTimes:
        return "Once or more, as often as wanted:";
      case Rounds::upTo:
        return fmt::format("Up to {} times:", of(c.most));
      case Rounds::times:
        return fmt::format("{} times:", of(c.most));
    }
    return "";
  }
  std::string operator()(const Maximise& c) const {
    return fmt::format(
        "Of these moves only those are legal with the greatest value, as it is now, of {}.",
        of(c.value));
  }
  std::string operator()(const Tell& c) const {
    return fmt::format("Both sides are told: {}.", text(c.parts));
  }
  std::string operator()(const WrittenAs& c) const {
    return fmt::format("The move is written: {}.", text(c.parts));
  }
  std::string operator()(const Write& c) const {
    return fmt::format("To the text of the move add: {}.", text(c.parts));
  }
  std::string operator()(const SeenAs& c) const {
    return fmt::format("The other side sees only: {}.", text(c.parts));
  }

 private:
  std::string of(const TermPtr& term) const { return inWords(rules_, *term); }
  std::string name(NameId id) const { return "`" + rules_.names[id] + "`"; }
  static const char* owner(Whose whose) {
    return whose == Whose::mine     ? "the side's own "
           : whose == Whose::theirs ? "the other side's "
                                    : "";
  }
  std::string set(const char* owner, const std::string& what, const TermPtr& value) const {
    return fmt::format("Set {}{} to {}.", owner, what, of(value));
  }
  // A piece of a kind, or of the kind that was chosen under a name.
  std::string ofKind(const TermPtr& term) const {
    const Kind* kind = as<Kind>(*term);
    return kind != nullptr ? withArticle(rules_.kinds[kind->kind].name)
                           : "a piece of the kind " + of(term);
  }
  std::string text(const std::vector<TextPart>& parts) const {
    std::vector<std::string> out;
    for (const TextPart& part : parts) {
      if (const Quoted* quoted = std::get_if<Quoted>(&part)) {
        out.push_back("\"" + quoted->text + "\"");
        continue;
      }
      std::string what = inWords(rules_, *shown(part));
      if (std::holds_alternative<ColumnOf>(part)) what = "the column of " + what;
      if (std::holds_alternative<RowOf>(part)) what = "the row of " + what;
      out.push_back(what);
    }
    return joined(out, ", ");
  }

  const Rules& rules_;
};

}  // namespace

std::string withArticle(const std::string& word) {
  bool vowel = std::string_view("aeiouAEIOU").find(word[0]) != std::string_view::npos;
  return (vowel ? "an " : "a ") + word;
}

std::string clauseInWords(const Rules& rules, const Clause& clause) {
  return std::visit(ClauseWords(rules), clause.form);
}

}  // namespace ninepegs::sheet
