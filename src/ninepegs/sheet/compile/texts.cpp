// What a move's text, what the other side sees of it, and what is told are made of.
#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using rules::as;

void Compiler::writePart(TextPart part, Slot slot, int channel) {
  int number = static_cast<int>(program_.parts.size());
  program_.parts.push_back(std::move(part));
  emit_.add(Op::write, slot, 0, 0, static_cast<Slot>(channel), number);
}

void Compiler::writeValue(const Value& value, int channel) {
  using Part = TextPart::Kind;
  Part kind = Part::cell;
  if (value.type == Type::kind) kind = Part::kind;
  if (value.type == Type::kinds) kind = Part::kinds;
  if (value.type == Type::number) kind = value.shown != 0 ? Part::chosenNumber : Part::number;
  if (value.type == Type::set) kind = value.lines >= 0 ? Part::line : Part::set;
  writePart({kind, ""}, value.shown != 0 ? value.shown : value.slot, channel);
}

void Compiler::write(const std::vector<rules::TextPart>& parts, int channel) {
  using Part = TextPart::Kind;
  if (channel == 2) writePart({Part::literal, "\n"}, 0, channel);  // every `tell` is a line
  for (const rules::TextPart& part : parts) {
    if (const rules::Quoted* quoted = std::get_if<rules::Quoted>(&part))
      writePart({Part::literal, quoted->text}, 0, channel);
    else if (const rules::ColumnOf* column = std::get_if<rules::ColumnOf>(&part))
      writePart({Part::column, ""}, express_.cell(*column->cell), channel);
    else if (const rules::RowOf* row = std::get_if<rules::RowOf>(&part))
      writePart({Part::row, ""}, express_.cell(*row->cell), channel);
    else
      writeValue(express_.value(*rules::shown(part)), channel);
  }
}

// Are all parts of the move's texts names of its head, which nothing changes?
bool Compiler::writtenBy(const MovePlan& plan) const {
  if (!madeSlots_.empty()) return false;
  std::set<NameId> names;
  for (const Clause* one : plan.head)
    if (plan.assigned.count(rules::madeName(*one)) == 0)
      names.insert(rules::madeName(*one));
    else if (rules::isChoice(*one))
      return false;  // a text of picks shows what they became
  for (const Clause* one : plan.all) {
    if (as<rules::WrittenAs>(*one) == nullptr && as<rules::SeenAs>(*one) == nullptr) continue;
    for (const rules::TextPart& part : *rules::textParts(*one)) {
      const Term* term = rules::shown(part);
      if (term == nullptr) continue;
      if (const rules::OneCellOf* cell = as<rules::OneCellOf>(*term)) term = cell->set.get();
      const rules::Name* name = as<rules::Name>(*term);
      if (name == nullptr || names.count(name->name) == 0) return false;
    }
  }
  return true;
}

// `written as` and `seen as`; without a text of its own, a move is what was picked, in order.
void Compiler::moveText(int index) {
  const Clauses& body = rules_.moves[index].body;
  bool written = false;
  for (const Clause& one : body) {
    if (const rules::WrittenAs* text = as<rules::WrittenAs>(one)) write(text->parts, 0);
    if (const rules::SeenAs* text = as<rules::SeenAs>(one)) write(text->parts, 1);
    written = written || as<rules::WrittenAs>(one) != nullptr;
  }
  auto writes = [](const Clause& one) { return as<rules::Write>(one) != nullptr; };
  written = written || rules::anyClause(body, writes);
  for (const rules::AfterRule* after : move_->afters)
    written = written || rules::anyClause(after->body, writes);
  if (written) return;
  bool first = true;
  std::set<NameId> added;  // a name made in several blocks is one part
  auto add = [&](const Clause& one) {
    NameId name = rules::madeName(one);
    if (!rules::isChoice(one) || !added.insert(name).second) return;
    if (!first) writePart({TextPart::Kind::literal, "-"}, 0, 0);
    first = false;
    writeValue(*express_.find(name), 0);
  };
  for (const Clause* one : move_->head) add(*one);
  rules::eachClause(body, [&](const Clause& one) {
    if (madeSlots_.count({0, rules::madeName(one)}) > 0) add(one);
  });
  if (first) writePart({TextPart::Kind::literal, program_.groups[index].name}, 0, 0);
}

}  // namespace ninepegs::sheet
