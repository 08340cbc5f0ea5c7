// Moves and what stands behind them, as lines of a sheet.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/printer.hpp"

namespace ninepegs::rules {
namespace {

class ClauseText {
 public:
  ClauseText(const Rules& rules, std::string& out, int depth)
      : rules_(rules), out_(out), depth_(depth) {}

  void all(const Clauses& list) const {
    for (const Clause& one : list) std::visit(*this, one.form);
  }

  void operator()(const PickCell& c) const {
    say(fmt::format("pick {} in {}{}", name(c.name), of(c.from), c.ifAny ? ", if any" : ""));
  }
  void operator()(const PickLine& c) const {
    say(fmt::format("pick {} in {}", name(c.name), of(c.lines)));
  }
  void operator()(const ChooseKind& c) const {
    std::vector<std::string> kinds;
    for (int kind : c.kinds) kinds.push_back(rules_.kinds[kind].name);
    say(fmt::format("choose {} from {}", name(c.name), joined(kinds, ", ")));
  }
  void operator()(const ChooseFromHand& c) const {
    say(fmt::format("choose {} from my hand", name(c.name)));
  }
  void operator()(const ChooseNumber& c) const {
    say(fmt::format("choose {} from {} to {}", name(c.name), of(c.low), of(c.high)));
  }
  void operator()(const Let& c) const {
    say(fmt::format("let {} = {}", name(c.name), of(c.value)));
  }
  void operator()(const Need& c) const { say("need " + of(c.condition)); }
  void operator()(const SetName& c) const {
    say(fmt::format("set {} to {}", name(c.name), of(c.value)));
  }
  void operator()(const SetVariable& c) const {
    set(c.whose, rules_.numbers[c.number].name, c.value);
  }
  void operator()(const SetCellNumber& c) const {
    say(fmt::format("set {} of {} to {}", rules_.numbers[c.number].name, of(c.cell), of(c.value)));
  }
  void operator()(const SetRemembered& c) const {
    set(c.whose, rules_.remembered[c.cell].name, c.value);
  }
  void operator()(const SetMark& c) const { set(c.whose, rules_.marks[c.mark].name, c.value); }
  void operator()(const AddTo& c) const {
    say(fmt::format("add {} to {}{}", of(c.cells), owner(c.whose), rules_.marks[c.mark].name));
  }
  void operator()(const RemoveFrom& c) const {
    say(fmt::format("remove {} from {}{}", of(c.cells), owner(c.whose), rules_.marks[c.mark].name));
  }
  void operator()(const Put& c) const {
    say(fmt::format("put {} on {}{}", of(c.kind), of(c.where), c.fromHand ? " from my hand" : ""));
  }
  void operator()(const Change& c) const {
    say(fmt::format("change {} into {}", of(c.where), of(c.kind)));
  }
  void operator()(const Shift& c) const {
    say(fmt::format("shift {} to {}", of(c.from), of(c.to)));
  }
  void operator()(const ShiftAll& c) const {
    say(fmt::format("shift {} by {}", of(c.cells), rules_.ways[c.ways].word));
  }
  void operator()(const Take& c) const { say("take " + of(c.where)); }
  void operator()(const Flip& c) const { say("flip " + of(c.where)); }
  void operator()(const Again&) const { say("again"); }
  void operator()(const When& c) const {
    say("when " + of(c.condition));
    inside(c.then);
    if (c.otherwise.empty()) return;
    say("otherwise");
    inside(c.otherwise);
  }
  void operator()(const Repeat& c) const {
    switch (c.rounds) {
      case Rounds::whilePossible:
        say("repeat while possible");
        break;
      case Rounds::anyTimes:
        say("repeat any times");
        break;
      case Rounds::upTo:
        say(fmt::format("repeat up to {} times", of(c.most)));
        break;
      case Rounds::times:
        say(fmt::format("repeat {} times", of(c.most)));
        break;
    }
    inside(c.body);
  }
  void operator()(const Maximise& c) const { say("must maximise " + of(c.value)); }
  void operator()(const Tell& c) const { text("tell", c.parts); }
  void operator()(const Write& c) const { text("write", c.parts); }
  void operator()(const WrittenAs& c) const { text("written as", c.parts); }
  void operator()(const SeenAs& c) const { text("seen as", c.parts); }

 private:
  void say(const std::string& line) const {
    out_ += std::string(static_cast<std::size_t>(depth_) * 2, ' ') + line + "\n";
  }
  void inside(const Clauses& list) const { ClauseText(rules_, out_, depth_ + 1).all(list); }
  std::string of(const TermPtr& term) const { return toText(rules_, *term); }
  const std::string& name(NameId id) const { return rules_.names[id]; }
  static const char* owner(Whose whose) {
    return whose == Whose::mine ? "my " : whose == Whose::theirs ? "their " : "";
  }
  void set(Whose whose, const std::string& what, const TermPtr& value) const {
    say(fmt::format("set {}{} to {}", owner(whose), what, of(value)));
  }
  void text(const char* word, const std::vector<TextPart>& parts) const {
    std::string line = word;
    for (const TextPart& part : parts) {
      if (const Quoted* quoted = std::get_if<Quoted>(&part))
        line += fmt::format(" \"{}\"", quoted->text);
      else if (std::holds_alternative<ColumnOf>(part))
        line += " column of " + toText(rules_, *shown(part));
      else if (std::holds_alternative<RowOf>(part))
        line += " row of " + toText(rules_, *shown(part));
      else
        line += " " + toText(rules_, *shown(part));
    }
    say(line);
  }

  const Rules& rules_;
  std::string& out_;
  int depth_;
};

}  // namespace

std::string toText(const Rules& rules, const Clauses& list, int depth) {
  std::string out;
  ClauseText(rules, out, depth).all(list);
  return out;
}

}  // namespace ninepegs::rules
