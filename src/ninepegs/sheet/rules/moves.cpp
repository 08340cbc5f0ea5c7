// The lines of moves and of `after` blocks.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"

namespace ninepegs::sheet {

int Checker::number(Span span, StatementInfo::Role role) {
  std::string text = withoutComment(source_.line(span.line));
  out_.statements.push_back({role, span.line, std::string(trimmed(text))});
  return static_cast<int>(out_.statements.size()) - 1;
}

void Checker::statements(std::vector<Statement>& list, Types& types, MoveState& state, bool inner) {
  std::size_t scope = types.scope();
  for (Statement& one : list) {
    one.id = number(one.span, state.role);
    statement(one, types, state, inner);
  }
  types.endScope(scope);
}

void Checker::set(Statement& one, Types& types) {
  Expr& value = one.args[0];
  bool owned = !one.names.empty();
  bool none = value.kind == ExprKind::name && value.word == "none";
  if (Type type = types.localType(one.name.text); type != Type::unknown && !owned && !one.ifAny) {
    if (none && (type == Type::set || type == Type::cell))
      value.type = type;
    else
      types.want(value, type);
    return;
  }
  const Symbol* symbol = out_.find(one.name.text);
  auto whose = [&](const char* what, bool each) {
    if (each == !owned)
      note(one.name.span, owned ? fmt::format("this {} is one for both sides", what)
                                : "say whose: my " + one.name.text);
  };
  if (symbol != nullptr && symbol->kind == SymbolKind::number) {
    const StateDecl& number = out_.tree.numbers[symbol->index];
    if (number.onCells != one.ifAny)
      note(one.name.span,
           number.onCells ? fmt::format("of which cell? say: set {} of there to ...", one.name.text)
                          : "this number belongs to no cell");
    else if (number.onCells)
      types.want(one.args[1], Type::cell);
    else
      whose("number", number.each);
    types.want(value, Type::number);
  } else if (symbol != nullptr && symbol->kind == SymbolKind::remembered && !one.ifAny) {
    whose("cell", out_.tree.cells[symbol->index].each);
    if (none)
      value.type = Type::cell;
    else
      types.want(value, Type::cell);
  } else if (symbol != nullptr && symbol->kind == SymbolKind::mark && !one.ifAny) {
    whose("mark", out_.tree.marks[symbol->index].each);
    if (none)
      value.type = Type::set;
    else
      types.want(value, Type::set);
  } else {
    note(one.name.span,
         fmt::format("\"{}\" is no number, mark or cell of this sheet and no name of this move",
                     one.name.text),
         "declare it: number " + one.name.text);
  }
}

void Checker::statement(Statement& one, Types& types, MoveState& state, bool inner) {
  auto named = [&](Type type) {
    types.local(one.name, type);
    auto [it, added] = state.names.insert({one.name.text, type});
    if (!added && it->second != type && type != Type::unknown && it->second != Type::unknown)
      note(one.name.span,
           fmt::format("\"{}\" is {} here and {} in another block of this move", one.name.text,
                       typeName(type), typeName(it->second)),
           "choose another name");
  };
  auto choice = [&] {
    if (++state.choices > limits::choices)
      note(one.span,
           fmt::format("this move makes more than {} choices, the limit", limits::choices));
  };
  switch (one.kind) {
    case StatementKind::pick: {
      Expr& from = one.args[0];
      bool lines = from.kind == ExprKind::lines && from.plural;
      if (lines)
        types.linesToPick(from);
      else
        types.want(from, Type::set);
      named(lines ? Type::set : Type::cell);
      choice();
      break;
    }
    case StatementKind::choose:
      choice();
      if (one.choose == ChooseKind::range) {
        types.want(one.args[0], Type::number);
        types.want(one.args[1], Type::number);
        named(Type::number);
        break;
      }
      if (one.choose == ChooseKind::hand) out_.hasHands = true;
      for (const Name& kind : one.names) kindName(kind);
      named(Type::kind);
      break;
    case StatementKind::let:
      named(types.valueOf(one.args[0]));
      break;
    case StatementKind::set:
      state.changed = true;
      set(one, types);
      break;
    case StatementKind::need:
      types.want(one.args[0], Type::truth);
      break;
    case StatementKind::put:
    case StatementKind::change: {
      state.changed = true;
      types.want(one.args[0], Type::set);
      bool local = types.localType(one.name.text) == Type::kind;
      if (!local) kindName(one.name);
      if (one.fromHand) out_.hasHands = true;
      int kind = out_.kind(one.name.text);
      out_.used.insert(one.name.text);
      if (kind >= 0 && out_.tree.pieces[kind].secret) state.secret = true;
      if (local)
        for (const PieceDecl& piece : out_.tree.pieces) state.secret = state.secret || piece.secret;
      if (one.kind == StatementKind::change && kind >= 0 && out_.tree.pieces[kind].neutral)
        note(one.name.span, "a piece of a side cannot become a piece of nobody",
             "take it and put the other");
      break;
    }
    case StatementKind::shift:
      state.changed = true;
      types.want(one.args[0], one.way.empty() ? Type::cell : Type::set);
      if (one.way.empty())
        types.want(one.args[1], Type::cell);
      else if (out_.directions(one.way, 0).empty() || out_.directions(one.way, 1).empty())
        note(one.span, fmt::format("this board has no direction \"{}\"", one.way));
      break;
    case StatementKind::take:
    case StatementKind::flip:
      state.changed = true;
      types.want(one.args[0], Type::set);
      if (one.kind == StatementKind::flip && out_.layered())
        note(one.span, "on a board of one each a piece cannot change its side");
      break;
    case StatementKind::addTo:
    case StatementKind::removeFrom: {
      state.changed = true;
      types.want(one.args[0], Type::set);
      const Symbol* symbol = out_.find(one.name.text);
      if (symbol == nullptr || symbol->kind != SymbolKind::mark)
        note(one.name.span, fmt::format("\"{}\" is no mark of this sheet", one.name.text),
             "declare it: mark " + one.name.text);
      else if (out_.tree.marks[symbol->index].each == one.names.empty())
        note(one.name.span, one.names.empty() ? "say whose: my " + one.name.text
                                              : "this mark is one for both sides");
      break;
    }
    case StatementKind::when:
      types.want(one.args[0], Type::truth);
      statements(one.body, types, state, true);
      statements(one.otherwise, types, state, true);
      break;
    case StatementKind::repeat:
      if (!one.args.empty()) types.want(one.args[0], Type::number);
      statements(one.body, types, state, true);
      break;
    case StatementKind::again:
      out_.usesAgain = true;
      state.changed = true;
      break;
    case StatementKind::maximise:
      if (inner || state.role == StatementInfo::Role::after || state.maximise)
        note(one.span, "`must maximise` stands once in the move itself");
      state.maximise = true;
      types.want(one.args[0], Type::number);
      break;
    case StatementKind::writtenAs:
    case StatementKind::seenAs:
    case StatementKind::write:
    case StatementKind::tell: {
      bool written = one.kind == StatementKind::writtenAs;
      if (written && inner)
        note(one.span, "`written as` stands in the move itself, not inside a block",
             "say `write` there, which adds to the text");
      state.seenAs = state.seenAs || one.kind == StatementKind::seenAs;
      state.writtenAs = state.writtenAs || written;
      state.write = state.write || one.kind == StatementKind::write;
      state.texts.push_back({&one, {}});
      for (const auto& [name, unused] : state.names) state.texts.back().above.insert(name);
      // Names of this point are known now; those of blocks above when all is read.
      for (Expr& part : one.args) {
        bool quoted = part.kind == ExprKind::name && part.plural;
        if (quoted && one.kind != StatementKind::tell && one.kind != StatementKind::seenAs &&
            part.word.find_first_of(",;") != std::string::npos)
          note(part.span, "a move's text holds no comma and no semicolon",
               "they stand between moves where many are listed");
        bool ofCell = isCellsText(part);
        Expr& shown = ofCell ? part.args[0] : part;
        if (shown.kind == ExprKind::name) continue;
        if (ofCell)
          types.want(shown, Type::cell);
        else
          types.textPart(shown);
      }
      break;
    }
  }
}

void Checker::texts(MoveState& state, Types& types) {
  for (auto& [one, above] : state.texts) {
    bool whole = one->kind == StatementKind::writtenAs || one->kind == StatementKind::seenAs;
    for (Expr& part : one->args) {
      bool quoted = part.kind == ExprKind::name && part.plural, ofCell = isCellsText(part);
      Expr& inner = ofCell ? part.args[0] : part;
      if (quoted || inner.kind != ExprKind::name) continue;
      if (state.names.count(inner.word) > 0) {
        inner.type = state.names[inner.word];
        if (!whole && above.count(inner.word) == 0)
          note(inner.span, fmt::format("\"{}\" is made further down", inner.word),
               "a text can hold only what was made above it");
        if (inner.type == Type::truth)
          note(inner.span, fmt::format("\"{}\" is a condition and has no text", inner.word));
        else if (ofCell && inner.type != Type::cell && inner.type != Type::set)
          note(inner.span,
               fmt::format("a cell should stand here, but \"{}\" is {}", inner.word,
                           typeName(inner.type)),
               "only a cell has a row and a column");
        continue;
      }
      std::vector<std::string> names;
      for (const auto& [name, unused] : state.names) names.push_back(name);
      const Symbol* symbol = out_.find(inner.word);
      if (symbol == nullptr)
        note(inner.span, fmt::format("this move has no name \"{}\"", inner.word),
             didYouMean(inner.word, names, "texts are made of this move's own names"));
      else if (ofCell)
        types.want(inner, Type::cell);
      else
        types.textPart(inner);
    }
  }
}

void Checker::moves() {
  if (static_cast<int>(out_.tree.moves.size()) > limits::moveGroups)
    note(out_.tree.moves.back().name.span,
         fmt::format("there are more than {} moves, the limit", limits::moveGroups));
  std::map<std::string, std::map<std::string, Type>> namesOf;
  for (MoveDecl& move : out_.tree.moves) {
    Types types(out_, source_, found_, Context::move);
    MoveState state;
    statements(move.body, types, state, false);
    texts(state, types);
    if (state.writtenAs && state.write)
      note(move.name.span, "this move has `written as` and `write`",
           "`written as` gives the whole text, `write` adds to it: use one of them");
    if (state.secret && !state.seenAs)
      note(move.name.span,
           fmt::format(
               "the move \"{}\" puts a secret piece, but does not say what the other side sees",
               move.name.text),
           "add a line such as: seen as \"" + move.name.text + "\"");
    namesOf[move.name.text] = std::move(state.names);
  }
  for (AfterDecl& after : out_.tree.afters) {
    std::vector<std::string> moves;
    for (const Name& name : after.moves) {
      const Symbol* symbol = out_.find(name.text);
      if (symbol == nullptr || symbol->kind != SymbolKind::move)
        note(name.span, fmt::format("there is no move \"{}\"", name.text));
      else
        moves.push_back(name.text);
    }
    if (after.moves.empty())
      for (const MoveDecl& move : out_.tree.moves) moves.push_back(move.name.text);
    // The names that all of these moves make.
    std::map<std::string, Type> shared;
    if (!moves.empty()) shared = namesOf[moves.front()];
    for (const std::string& move : moves)
      std::erase_if(shared, [&](const auto& name) {
        auto it = namesOf[move].find(name.first);
        return it == namesOf[move].end() || it->second != name.second;
      });
    Types types(out_, source_, found_, Context::after);
    for (const auto& [name, type] : shared) types.known(name, type);
    MoveState state;
    state.role = StatementInfo::Role::after;
    state.changed = true;
    state.names = shared;
    statements(after.body, types, state, false);
    texts(state, types);
    if (state.writtenAs || state.seenAs)
      note(after.span, "`written as` and `seen as` stand in the move itself",
           "say `write`, which adds to the text");
  }
}

}  // namespace ninepegs::sheet
