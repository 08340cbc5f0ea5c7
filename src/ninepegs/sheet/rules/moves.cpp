// The lines of moves and of `after` blocks -> clauses.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"

namespace ninepegs::sheet {

using rules::ClauseForm;
using rules::StatementInfo;

int Checker::number(Span span, StatementInfo::Role role) {
  std::string text = withoutComment(draft_.source.line(span.line));
  rules_.statements.push_back({role, span.line, std::string(trimmed(text))});
  return static_cast<int>(rules_.statements.size()) - 1;
}

Clauses Checker::statements(const std::vector<Statement>& list, Types& types, MoveState& state,
                            bool inner) {
  std::size_t scope = types.scope();
  Clauses out;
  for (const Statement& one : list) {
    Clause clause;
    clause.span = one.span;
    clause.id = number(one.span, state.role);
    clause.form = statement(one, clause.id, types, state, inner);
    out.push_back(std::move(clause));
  }
  types.endScope(scope);
  return out;
}

namespace {

Whose whoseOf(const Statement& one) {
  if (one.names.empty()) return Whose::anyone;
  return one.names[0].text == "my" ? Whose::mine : Whose::theirs;
}

}  // namespace

ClauseForm Checker::set(const Statement& one, Types& types) {
  const Expr& value = one.args[0];
  bool owned = !one.names.empty();
  bool none = value.kind == ExprKind::name && value.word == "none";
  auto cells = [&](Type type) {
    if (!none) return types.want(value, type);
    return type == Type::set ? make(type, value.span, rules::NoCells{})
                             : make(type, value.span, rules::NoCell{});
  };
  if (Type type = types.localType(one.name.text); type != Type::unknown && !owned && !one.ifAny) {
    NameId id = draft_.moveName(one.name.text);
    if (type == Type::set || type == Type::cell) return rules::SetName{id, cells(type)};
    return rules::SetName{id, types.want(value, type)};
  }
  const Symbol* symbol = rules_.find(one.name.text);
  int index = symbol != nullptr ? symbol->index : 0;
  auto whose = [&](const char* what, bool each) {
    if (each == !owned)
      note(one.name.span, owned ? fmt::format("this {} is one for both sides", what)
                                : "say whose: my " + one.name.text);
    return whoseOf(one);
  };
  if (symbol != nullptr && symbol->kind == SymbolKind::number) {
    const rules::NumberRule& number = rules_.numbers[index];
    if (number.onCells != one.ifAny)
      note(one.name.span,
           number.onCells ? fmt::format("of which cell? say: set {} of there to ...", one.name.text)
                          : "this number belongs to no cell");
    else if (number.onCells)
      return rules::SetCellNumber{index, types.want(one.args[1], Type::cell),
                                  types.want(value, Type::number)};
    else
      whose("number", number.each);
    return rules::SetVariable{index, whoseOf(one), types.want(value, Type::number)};
  }
  if (symbol != nullptr && symbol->kind == SymbolKind::remembered && !one.ifAny) {
    Whose of = whose("cell", rules_.remembered[index].each);
    return rules::SetRemembered{index, of, cells(Type::cell)};
  }
  if (symbol != nullptr && symbol->kind == SymbolKind::mark && !one.ifAny) {
    Whose of = whose("mark", rules_.marks[index].each);
    return rules::SetMark{index, of, cells(Type::set)};
  }
  note(one.name.span,
       fmt::format("\"{}\" is no number, mark or cell of this sheet and no name of this move",
                   one.name.text),
       "declare it: number " + one.name.text);
  return rules::Again{};
}

// Gives the name of a choice or a `let` a type.
NameId Checker::named(const Statement& one, Type type, Types& types, MoveState& state) {
  NameId id = draft_.moveName(one.name.text);
  types.local(one.name, type, id);
  auto [it, added] = state.names.insert({one.name.text, type});
  if (!added && it->second != type && type != Type::unknown && it->second != Type::unknown)
    note(one.name.span,
         fmt::format("\"{}\" is {} here and {} in another block of this move", one.name.text,
                     typeName(type), typeName(it->second)),
         "choose another name");
  return id;
}

ClauseForm Checker::pick(const Statement& one, Types& types, MoveState& state) {
  const Expr& from = one.args[0];
  if (++state.choices > limits::choices)
    note(one.span, fmt::format("this move makes more than {} choices, the limit", limits::choices));
  if (from.kind == ExprKind::lines && from.plural) {
    TermPtr lines = types.linesToPick(from);
    return rules::PickLine{named(one, Type::set, types, state), lines};
  }
  TermPtr cells = types.want(from, Type::set);
  return rules::PickCell{named(one, Type::cell, types, state), cells, one.ifAny};
}

ClauseForm Checker::choose(const Statement& one, Types& types, MoveState& state) {
  if (++state.choices > limits::choices)
    note(one.span, fmt::format("this move makes more than {} choices, the limit", limits::choices));
  if (one.choose == ChooseKind::range) {
    TermPtr low = types.want(one.args[0], Type::number);
    TermPtr high = types.want(one.args[1], Type::number);
    return rules::ChooseNumber{named(one, Type::number, types, state), low, high};
  }
  std::vector<int> kinds;
  for (const Name& kind : one.names) kinds.push_back(kindName(kind));
  NameId id = named(one, Type::kind, types, state);
  if (one.choose == ChooseKind::kinds) return rules::ChooseKind{id, std::move(kinds)};
  rules_.hasHands = true;
  return rules::ChooseFromHand{id};
}

// `put` and `change ... into`
ClauseForm Checker::put(const Statement& one, Types& types, MoveState& state) {
  TermPtr where = types.want(one.args[0], Type::set), kindTerm;
  bool local = types.localType(one.name.text) == Type::kind;
  int kind = local ? -1 : kindName(one.name);
  if (local)
    kindTerm = make(Type::kind, one.name.span, rules::Name{draft_.moveName(one.name.text)});
  else
    kindTerm = make(Type::kind, one.name.span, rules::Kind{kind});
  if (one.fromHand) rules_.hasHands = true;
  rules_.used.insert(one.name.text);
  for (const PieceDecl& piece : tree_.pieces)
    state.secret = state.secret || (piece.secret && (local || piece.name.text == one.name.text));
  if (one.kind == StatementKind::put) return rules::Put{kindTerm, where, one.fromHand};
  if (kind >= 0 && tree_.pieces[kind].neutral)
    note(one.name.span, "a piece of a side cannot become a piece of nobody",
         "take it and put the other");
  return rules::Change{where, kindTerm};
}

// `add ... to` and `remove ... from`
ClauseForm Checker::mark(const Statement& one, Types& types) {
  TermPtr cells = types.want(one.args[0], Type::set);
  const Symbol* symbol = rules_.find(one.name.text);
  if (symbol == nullptr || symbol->kind != SymbolKind::mark) {
    note(one.name.span, fmt::format("\"{}\" is no mark of this sheet", one.name.text),
         "declare it: mark " + one.name.text);
    return rules::Again{};
  }
  if (rules_.marks[symbol->index].each == one.names.empty())
    note(one.name.span,
         one.names.empty() ? "say whose: my " + one.name.text : "this mark is one for both sides");
  if (one.kind == StatementKind::addTo) return rules::AddTo{symbol->index, whoseOf(one), cells};
  return rules::RemoveFrom{symbol->index, whoseOf(one), cells};
}

ClauseForm Checker::statement(const Statement& one, int id, Types& types, MoveState& state,
                              bool inner) {
  switch (one.kind) {
    case StatementKind::pick:
      return pick(one, types, state);
    case StatementKind::choose:
      return choose(one, types, state);
    case StatementKind::let: {
      TermPtr value = types.valueOf(one.args[0]);
      return rules::Let{named(one, value ? value->type : Type::unknown, types, state), value};
    }
    case StatementKind::set:
      return set(one, types);
    case StatementKind::need:
      return rules::Need{types.want(one.args[0], Type::truth)};
    case StatementKind::put:
    case StatementKind::change:
      return put(one, types, state);
    case StatementKind::shift: {
      if (one.way.empty()) {
        TermPtr from = types.want(one.args[0], Type::cell);
        return rules::Shift{from, types.want(one.args[1], Type::cell)};
      }
      TermPtr cells = types.want(one.args[0], Type::set);
      if (draft_.directions(one.way, 0).empty() || draft_.directions(one.way, 1).empty())
        note(one.span, fmt::format("this board has no direction \"{}\"", one.way));
      return rules::ShiftAll{cells, draft_.waysOf(one.way)};
    }
    case StatementKind::take:
      return rules::Take{types.want(one.args[0], Type::set)};
    case StatementKind::flip: {
      TermPtr where = types.want(one.args[0], Type::set);
      if (rules_.layered()) note(one.span, "on a board of one each a piece cannot change its side");
      return rules::Flip{where};
    }
    case StatementKind::addTo:
    case StatementKind::removeFrom:
      return mark(one, types);
    case StatementKind::when: {
      TermPtr condition = types.want(one.args[0], Type::truth);
      Clauses then = statements(one.body, types, state, true);
      return rules::When{condition, std::move(then), statements(one.otherwise, types, state, true)};
    }
    case StatementKind::repeat: {
      static constexpr std::pair<RepeatKind, rules::Rounds> all[] = {
          {RepeatKind::whilePossible, rules::Rounds::whilePossible},
          {RepeatKind::anyTimes, rules::Rounds::anyTimes},
          {RepeatKind::upTo, rules::Rounds::upTo},
          {RepeatKind::times, rules::Rounds::times}};
      rules::Repeat repeat{};
      for (const auto& [from, to] : all)
        if (from == one.repeat) repeat.rounds = to;
      if (!one.args.empty()) repeat.most = types.want(one.args[0], Type::number);
      repeat.body = statements(one.body, types, state, true);
      return repeat;
    }
    case StatementKind::again:
      rules_.usesAgain = true;
      return rules::Again{};
    case StatementKind::maximise:
      if (inner || state.role == StatementInfo::Role::after || state.maximise)
        note(one.span, "`must maximise` stands once in the move itself");
      state.maximise = true;
      return rules::Maximise{types.want(one.args[0], Type::number)};
    case StatementKind::writtenAs:
      text(one, id, types, state, inner);
      return rules::WrittenAs{};
    case StatementKind::seenAs:
      text(one, id, types, state, inner);
      return rules::SeenAs{};
    case StatementKind::write:
      text(one, id, types, state, inner);
      return rules::Write{};
    case StatementKind::tell:
      text(one, id, types, state, inner);
      return rules::Tell{};
  }
  return rules::Again{};
}

void Checker::moves() {
  if (static_cast<int>(tree_.moves.size()) > limits::moveGroups)
    note(tree_.moves.back().name.span,
         fmt::format("there are more than {} moves, the limit", limits::moveGroups));
  std::map<std::string, std::map<std::string, Type>> namesOf;
  for (const MoveDecl& move : tree_.moves) {
    Types types(draft_, Context::move);
    MoveState state;
    Clauses body = statements(move.body, types, state, false);
    texts(state, types);
    fillTexts(body, state);
    rules_.moves.push_back({move.name.text, move.name.span, std::move(body)});
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
  afters(namesOf);
}

void Checker::afters(std::map<std::string, std::map<std::string, Type>>& namesOf) {
  for (const AfterDecl& after : tree_.afters) {
    std::vector<std::string> moves;
    rules::AfterRule rule;
    rule.span = after.span;
    for (const Name& name : after.moves) {
      const Symbol* symbol = rules_.find(name.text);
      if (symbol == nullptr || symbol->kind != SymbolKind::move) {
        note(name.span, fmt::format("there is no move \"{}\"", name.text));
        continue;
      }
      moves.push_back(name.text);
      rule.moves.push_back(symbol->index);
    }
    if (after.moves.empty())
      for (const MoveDecl& move : tree_.moves) moves.push_back(move.name.text);
    // The names that all of these moves make.
    std::map<std::string, Type> shared;
    if (!moves.empty()) shared = namesOf[moves.front()];
    for (const std::string& move : moves)
      std::erase_if(shared, [&](const auto& name) {
        auto it = namesOf[move].find(name.first);
        return it == namesOf[move].end() || it->second != name.second;
      });
    Types types(draft_, Context::after);
    for (const auto& [name, type] : shared) types.known(name, type, draft_.moveName(name));
    MoveState state;
    state.role = StatementInfo::Role::after;
    state.names = shared;
    rule.body = statements(after.body, types, state, false);
    texts(state, types);
    fillTexts(rule.body, state);
    if (state.writtenAs || state.seenAs)
      note(after.span, "`written as` and `seen as` stand in the move itself",
           "say `write`, which adds to the text");
    rules_.afters.push_back(std::move(rule));
  }
}

}  // namespace ninepegs::sheet
