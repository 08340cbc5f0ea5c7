// Texts of moves: resolved when all names of the move are known.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"

namespace ninepegs::sheet {

using rules::TextPart;

namespace {

bool isQuoted(const Expr& part) {
  return part.kind == ExprKind::name && part.plural;
}

}  // namespace

// Names of this point are known now; those of blocks above when all is read.
void Checker::text(const Statement& one, int id, Types& types, MoveState& state, bool inner) {
  bool written = one.kind == StatementKind::writtenAs, seen = one.kind == StatementKind::seenAs;
  if (written && inner)
    note(one.span, "`written as` stands in the move itself, not inside a block",
         "say `write` there, which adds to the text");
  state.seenAs = state.seenAs || seen;
  state.writtenAs = state.writtenAs || written;
  state.write = state.write || one.kind == StatementKind::write;
  MoveState::Text out{&one, id, {}, {}};
  for (const auto& [name, unused] : state.names) out.above.insert(name);
  for (const Expr& part : one.args) {
    if (isQuoted(part) && one.kind != StatementKind::tell && !seen &&
        part.word.find_first_of(",;") != std::string::npos)
      note(part.span, "a move's text holds no comma and no semicolon",
           "they stand between moves where many are listed");
    bool ofCell = isCellsText(part);
    const Expr& shown = ofCell ? part.args[0] : part;
    TermPtr term;
    if (shown.kind != ExprKind::name)
      term = ofCell ? types.want(shown, Type::cell) : types.textPart(shown);
    out.known.push_back(std::move(term));
  }
  state.texts.push_back(std::move(out));
}

// A plain name in a text: one of the move, at whatever depth it was made, or one of the sheet.
TermPtr Checker::textName(const Expr& name, bool ofCell, bool whole, const MoveState::Text& text,
                          MoveState& state, Types& types) {
  if (auto it = state.names.find(name.word); it != state.names.end()) {
    Type type = it->second;
    if (!whole && text.above.count(name.word) == 0)
      note(name.span, fmt::format("\"{}\" is made further down", name.word),
           "a text can hold only what was made above it");
    if (type == Type::truth)
      note(name.span, fmt::format("\"{}\" is a condition and has no text", name.word));
    else if (ofCell && type != Type::cell && type != Type::set)
      note(name.span,
           fmt::format("a cell should stand here, but \"{}\" is {}", name.word, typeName(type)),
           "only a cell has a row and a column");
    TermPtr term = make(type, name.span, rules::Name{draft_.moveName(name.word)});
    if (ofCell && type == Type::set)
      return make(Type::cell, name.span, rules::OneCellOf{std::move(term)});
    return term;
  }
  if (rules_.find(name.word) != nullptr)
    return ofCell ? types.want(name, Type::cell) : types.textPart(name);
  std::vector<std::string> names;
  for (const auto& [known, unused] : state.names) names.push_back(known);
  note(name.span, fmt::format("this move has no name \"{}\"", name.word),
       didYouMean(name.word, names, "texts are made of this move's own names"));
  return nullptr;
}

void Checker::texts(MoveState& state, Types& types) {
  for (const MoveState::Text& text : state.texts) {
    const Statement& one = *text.statement;
    bool whole = one.kind == StatementKind::writtenAs || one.kind == StatementKind::seenAs;
    std::vector<TextPart>& parts = state.parts[text.id];
    for (std::size_t i = 0; i < one.args.size(); ++i) {
      const Expr& part = one.args[i];
      bool ofCell = isCellsText(part);
      const Expr& inner = ofCell ? part.args[0] : part;
      if (isQuoted(part)) {
        parts.push_back(rules::Quoted{part.word});
        continue;
      }
      TermPtr term = inner.kind == ExprKind::name
                         ? textName(inner, ofCell, whole, text, state, types)
                         : text.known[i];
      if (!ofCell)
        parts.push_back(rules::Shown{term});
      else if (part.word == "column")
        parts.push_back(rules::ColumnOf{term});
      else
        parts.push_back(rules::RowOf{term});
    }
  }
}

void Checker::fillTexts(Clauses& list, MoveState& state) {
  for (Clause& one : list) {
    std::visit(
        [&](auto& form) {
          if constexpr (requires { form.parts; }) form.parts = std::move(state.parts[one.id]);
          if constexpr (requires { form.body; }) fillTexts(form.body, state);
          if constexpr (requires { form.otherwise; })
            fillTexts(form.then, state), fillTexts(form.otherwise, state);
        },
        one.form);
  }
}

}  // namespace ninepegs::sheet
