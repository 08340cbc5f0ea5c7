#include "ninepegs/sheet/rules/types.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <utility>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

std::string typeName(Type type) {
  switch (type) {
    case Type::set:
      return "a set of cells";
    case Type::cell:
      return "a cell";
    case Type::number:
      return "a number";
    case Type::truth:
      return "a condition";
    case Type::kind:
      return "a kind of piece";
    case Type::kinds:
      return "kinds of piece";
    case Type::lineset:
      return "lines";
    case Type::unknown:
      break;
  }
  return "unknown";
}

std::optional<rules::Noun> Draft::noun(const std::string& word) const {
  const rules::Symbol* symbol = rules.find(word);
  bool group = symbol != nullptr && symbol->kind == rules::SymbolKind::group;
  if (!group && (symbol == nullptr || symbol->kind != rules::SymbolKind::kind)) return std::nullopt;
  return rules::Noun{group, symbol->index};
}

NameId Draft::newName(const std::string& text) {
  rules.names.push_back(text);
  return static_cast<NameId>(rules.names.size()) - 1;
}

NameId Draft::moveName(const std::string& text) {
  auto [it, added] = moveNames.insert({text, 0});
  if (added) it->second = newName(text);
  return it->second;
}

int Draft::waysOf(const std::string& word) {
  auto [it, added] = ways.insert({word, static_cast<int>(rules.ways.size())});
  if (added)
    rules.ways.push_back({word,
                          {directions(word, 0), directions(word, 1)},
                          rules.board.axes(rules.board.directionGroup(word)),
                          word == "any"});
  return it->second;
}

std::nullptr_t Types::note(Span span, const std::string& message, const std::string& hint) {
  addMessage(draft_.found, {draft_.source.place(span), message, hint});
  return nullptr;
}

void Types::local(const Name& name, Type type, NameId id) {
  if (localType(name.text) != Type::unknown)
    note(name.span, fmt::format("\"{}\" is already a name in this move", name.text),
         "choose another name");
  else if (const rules::Symbol* symbol = rules_.find(name.text))
    note(name.span,
         symbol->kind == rules::SymbolKind::cell
             ? fmt::format("\"{}\" is the label of a cell and cannot be a name", name.text)
             : fmt::format("\"{}\" is already a name of this sheet", name.text),
         "choose another name");
  locals_.push_back({name.text, type, id});
}

const Types::Local* Types::findLocal(const std::string& name) const {
  for (auto it = locals_.rbegin(); it != locals_.rend(); ++it)
    if (it->name == name) return &*it;
  return nullptr;
}

Type Types::localType(const std::string& name) const {
  const Local* local = findLocal(name);
  return local == nullptr ? Type::unknown : local->type;
}

std::vector<std::string> Types::namesInScope() const {
  std::vector<std::string> names;
  for (const Local& local : locals_) names.push_back(local.name);
  for (const auto& [name, symbol] : rules_.symbols)
    if (symbol.kind != rules::SymbolKind::cell || name.size() > 1) names.push_back(name);
  for (const char* word : {"all", "empty", "occupied", "mine", "theirs", "plies", "stuck"})
    names.emplace_back(word);
  return names;
}

bool Types::namesSide(const Expr& expr) const {
  return expr.kind == ExprKind::name && rules_.side(expr.word) >= 0;
}

TermPtr Types::labelled(const Expr& expr) const {
  const rules::Symbol* symbol = expr.kind == ExprKind::number ? rules_.find(expr.word) : nullptr;
  if (symbol == nullptr || symbol->kind != rules::SymbolKind::cell) return nullptr;
  return make(Type::cell, expr.span, rules::NamedCell{symbol->index});
}

// Is it a kind by `was`, also through `if` and definitions?
static bool saysFormer(const rules::Term& term) {
  if (term.type != Type::kind) return false;
  if (const auto* use = rules::as<rules::Use>(term)) return saysFormer(*use->body);
  if (const auto* one = rules::as<rules::If>(term))
    return saysFormer(*one->then) || saysFormer(*one->otherwise);
  return rules::as<rules::Was>(term) != nullptr;
}

// As a set, `was KIND` is where its pieces stood, and not where those stand that are of it now.
TermPtr Types::formerPieces(const TermPtr& term) const {
  auto asSet = [&](const TermPtr& one) { return coerced(one, Type::set); };
  if (const auto* use = rules::as<rules::Use>(*term)) {
    rules::Use again = *use;
    again.body = asSet(use->body);
    return make(Type::set, term->span, std::move(again));
  }
  if (const auto* one = rules::as<rules::If>(*term))
    return make(Type::set, term->span,
                rules::If{one->condition, asSet(one->then), asSet(one->otherwise)});
  return make(Type::set, term->span, rules::Was{asSet(rules::as<rules::Was>(*term)->what)});
}

// The term as one of another type, if it will do for that; else null.
TermPtr Types::coerced(TermPtr term, Type type) const {
  if (term->type == type) return term;
  Span span = term->span;
  if (type == Type::set && term->type == Type::cell)
    return make(type, span, rules::CellAsSet{std::move(term)});
  if (type == Type::set && saysFormer(*term)) return formerPieces(term);
  if (type == Type::set && term->type == Type::kind)  // both sides' pieces of that kind
    return make(type, span, rules::PiecesOfKind{std::move(term), Whose::anyone});
  if (type == Type::cell && term->type == Type::set)
    return make(type, span, rules::OneCellOf{std::move(term)});
  return nullptr;
}

TermPtr Types::want(const Expr& expr, Type type) {
  if (type == Type::set || type == Type::cell)
    if (TermPtr cell = labelled(expr)) return coerced(std::move(cell), type);
  if (type == Type::kind && expr.kind == ExprKind::name && localType(expr.word) == Type::unknown &&
      rules_.kind(expr.word) >= 0) {
    rules_.used.insert(expr.word);
    return make(Type::kind, expr.span, rules::Kind{rules_.kind(expr.word)});
  }
  std::size_t before = draft_.found.size();
  TermPtr term = infer(expr);
  if (draft_.found.size() > before || !term) return nullptr;
  Type got = term->type;
  if (TermPtr fits = coerced(std::move(term), type)) return fits;
  std::string hint;
  if (type == Type::truth && (got == Type::set || got == Type::cell))
    hint = "a set is no condition: say `any S`, `no S` or `c in S`";
  if (type == Type::number && (got == Type::set || got == Type::cell))
    hint = "say `count S` for the number of its cells";
  if (type == Type::set && got == Type::number)
    hint = rules_.board.shape().numbered
               ? fmt::format("the cells are numbered 1 to {}", rules_.board.all().count())
               : "a cell is named like a1";
  if (type == Type::set && got == Type::truth)
    hint = "`and`, `not` and comparisons make conditions";
  return note(expr.span,
              fmt::format("{} should stand here, but this is {}", typeName(type), typeName(got)),
              hint);
}

bool Types::all(std::initializer_list<Wanted> wanted) {
  bool good = true;
  for (const Wanted& one : wanted) {
    one.term = want(one.expr, one.type);
    good = good && one.term;
  }
  return good;
}

TermPtr Types::valueOf(const Expr& expr) {
  TermPtr term = infer(expr);
  if (term && term->type == Type::truth)
    return note(expr.span, "a condition cannot be given a name here",
                "use it where it is needed, or give it a name with `define`");
  if (term && term->type == Type::lineset)
    return note(expr.span, "lines can be tested, counted and shown, but not named");
  return term;
}

TermPtr Types::bind(const Expr& body, const std::string& variable, Type type, Type wanted,
                    NameId& id) {
  std::size_t mark = scope();
  id = draft_.newName(variable);
  local({variable, body.span}, type, id);
  TermPtr term = want(body, wanted);
  endScope(mark);
  return term;
}

TermPtr Types::infer(const Expr& expr) {
  if (++depth_ > limits::expressionDepth) {
    --depth_;
    return note(expr.span,
                fmt::format("with its definitions written out, this goes deeper than {}, the limit",
                            limits::expressionDepth),
                "let definitions use each other less");
  }
  TermPtr term = inferForm(expr);
  --depth_;
  return term;
}

// Steps, leaps and slides, from cells or from the piece itself.
TermPtr Types::walk(const Expr& expr) {
  bool leap = expr.kind == ExprKind::leap;
  if (!leap && !group(expr, expr.word)) return nullptr;
  if (leap && rules_.board.columns() > 0 && rules_.board.shape().kind != Shape::square)
    return note(expr.span, "leaps are known on square boards only");
  long long most = std::max(expr.first, expr.second);
  if (leap && (std::min(expr.first, expr.second) < 0 || most < 1 || most > limits::cells))
    return note(expr.span, "a leap has two parts from 0 up, not both 0",
                "such as: leap 1 2 from here");
  bool fromPiece = expr.args.size() == (expr.plural ? 1 : 0);
  if (fromPiece && context_ != Context::reach)
    return note(expr.span, "from where? `from` is left out only in the reach of a piece",
                "say: step any from here");
  TermPtr from, through;
  if (!fromPiece) from = want(expr.args[0], Type::set);
  if (expr.plural) through = want(expr.args.back(), Type::set);
  if ((!fromPiece && !from) || (expr.plural && !through)) return nullptr;
  if (leap)
    return make(Type::set, expr.span,
                rules::Leap{static_cast<int>(expr.first), static_cast<int>(expr.second), from});
  int ways = draft_.waysOf(expr.word);
  if (expr.kind == ExprKind::slide)
    return make(Type::set, expr.span, rules::Slide{ways, from, through});
  return make(Type::set, expr.span, rules::Step{ways, from});
}

TermPtr Types::inferForm(const Expr& expr) {
  auto set = [&](auto form) { return make(Type::set, expr.span, std::move(form)); };
  auto number = [&](auto form) { return make(Type::number, expr.span, std::move(form)); };
  auto truth = [&](auto form) { return make(Type::truth, expr.span, std::move(form)); };
  auto cell = [&](auto form) { return make(Type::cell, expr.span, std::move(form)); };
  auto arg = [&](std::size_t i) -> const Expr& { return expr.args[i]; };
  TermPtr a, b, c;
  auto both = [&](Type first, Type second) {
    return all({{arg(0), first, a}, {arg(1), second, b}});
  };
  switch (expr.kind) {
    case ExprKind::number:
      return number(rules::Number{expr.first});
    case ExprKind::name:
      return name(expr);
    case ExprKind::call:
      return call(expr, Whose::mine);
    case ExprKind::own:
      return own(arg(0), expr.word == "my" ? Whose::mine : Whose::theirs, expr.span, expr.word);
    case ExprKind::ofName:
      return ofName(expr);
    case ExprKind::on:
      return both(Type::set, Type::set) ? set(rules::Both{a, b}) : nullptr;
    case ExprKind::except:
      return both(Type::set, Type::set) ? set(rules::Except{a, b}) : nullptr;
    case ExprKind::either:
      return either(expr);
    case ExprKind::both:
      return both(Type::truth, Type::truth) ? truth(rules::And{a, b}) : nullptr;
    case ExprKind::negation:
      return all({{arg(0), Type::truth, a}}) ? truth(rules::Not{a}) : nullptr;
    case ExprKind::any:
    case ExprKind::none:
    case ExprKind::count:
      return tested(expr);
    case ExprKind::compare:
      return compare(expr);
    case ExprKind::within:
      return both(Type::set, Type::set) ? truth(rules::Within{a, b}) : nullptr;
    case ExprKind::inside:
      return both(Type::cell, Type::set) ? truth(rules::Inside{a, b}) : nullptr;
    case ExprKind::is:
      return isSide(expr);
    case ExprKind::arithmetic: {
      static constexpr std::pair<char, rules::Sum> sums[] = {{'+', rules::Sum::add},
                                                             {'-', rules::Sum::subtract},
                                                             {'*', rules::Sum::multiply},
                                                             {'/', rules::Sum::divide},
                                                             {'%', rules::Sum::remainder}};
      if (!both(Type::number, Type::number)) return nullptr;
      auto it = std::find_if(std::begin(sums), std::end(sums),
                             [&](const auto& sum) { return sum.first == expr.word[0]; });
      return number(rules::Arithmetic{it->second, a, b});
    }
    case ExprKind::extreme:
      if (!both(Type::number, Type::number)) return nullptr;
      return number(rules::Extreme{expr.word == "max", a, b});
    case ExprKind::ahead:
      if (!group(expr, expr.word) || !all({{arg(0), Type::set, a}})) return nullptr;
      return set(rules::Ahead{draft_.waysOf(expr.word), a});
    case ExprKind::step:
    case ExprKind::slide:
    case ExprKind::leap:
      return walk(expr);
    case ExprKind::between:
      return both(Type::cell, Type::cell) ? set(rules::Between{a, b}) : nullptr;
    case ExprKind::beyond:
      return both(Type::cell, Type::cell) ? cell(rules::Beyond{a, b}) : nullptr;
    case ExprKind::bracketed:
      if (!group(expr, expr.word)) return nullptr;
      if (!all({{arg(0), Type::set, a}, {arg(1), Type::cell, b}, {arg(2), Type::set, c}}))
        return nullptr;
      return set(rules::Bracketed{draft_.waysOf(expr.word), a, b, c});
    case ExprKind::lines:
      return lines(expr, false);
    case ExprKind::spread:
      if (!group(expr, expr.word) || !both(Type::set, Type::set)) return nullptr;
      return set(rules::Spread{draft_.waysOf(expr.word), a, b});
    case ExprKind::reachOf:
      if (!outsideReach(expr.span) || !all({{arg(0), Type::cell, a}})) return nullptr;
      return set(rules::ReachOf{a});
    case ExprKind::choice:
      return choice(expr);
    case ExprKind::rows:
    case ExprKind::columns:
      return rowsOf(expr);
    case ExprKind::cellsWhere: {
      NameId id = -1;
      if (!all({{arg(0), Type::set, a}})) return nullptr;
      b = bind(arg(1), expr.word, Type::cell, Type::truth, id);
      return b ? set(rules::CellsWhere{id, a, b}) : nullptr;
    }
    case ExprKind::groups: {
      NameId id = -1;
      if (!all({{arg(0), Type::set, a}}) || !group(expr, expr.along)) return nullptr;
      b = bind(arg(1), expr.word, Type::set, Type::truth, id);
      return b ? set(rules::GroupsWhere{id, draft_.waysOf(expr.along), a, b}) : nullptr;
    }
    case ExprKind::kindsWhere:
      return kindsWhere(expr);
    case ExprKind::was: {
      if (!inside({Context::move, Context::after, Context::forbid, Context::ends, Context::define}))
        return note(expr.span, "`was` is known where a move has just been made",
                    "in moves, `after`, `forbid` and `ends`");
      rules_.readsBefore = true;
      bool outer = std::exchange(inWas_, true);
      a = infer(arg(0));
      inWas_ = outer;
      return a ? make(a->type, expr.span, rules::Was{a}) : nullptr;
    }
    case ExprKind::hand:
      return note(expr.span, "whose hand?", "say: my hand, or their hand");
    case ExprKind::kindOn:
      if (!all({{arg(0), Type::cell, a}})) return nullptr;
      return make(Type::kind, expr.span, rules::KindOn{a, Whose::anyone});
    case ExprKind::edgeOf:
      if (!rules_.hasEdges)
        return note(expr.span, "no piece has edges", "say with a piece: edges 2 7 2 7 2 1");
      return both(Type::cell, Type::cell) ? number(rules::EdgeOf{a, b}) : nullptr;
    case ExprKind::onTrack: {
      const rules::Symbol* symbol = rules_.find(expr.word);
      rules_.used.insert(expr.word);
      if (symbol == nullptr || symbol->kind != rules::SymbolKind::track)
        return note(expr.span, fmt::format("there is no track \"{}\"", expr.word),
                    "declare it: track " + expr.word + " = a1 b1 c1");
      if (!both(Type::number, Type::cell)) return nullptr;
      return cell(rules::OnTrack{symbol->index, a, b});
    }
    case ExprKind::movesOf: {
      int side = rules_.side(expr.word);
      bool known = expr.word == "my" || expr.word == "their" || side >= 0;
      if (!known) note(expr.span, fmt::format("\"{}\" is no side", expr.word));
      if (!ofNow(expr.span, "the number of moves")) return nullptr;
      if (!inside(
              {Context::ends, Context::worth, Context::always, Context::define, Context::example}))
        return note(expr.span, "moves are counted only in `ends`, `worth`, `always` and cases");
      if (!known) return nullptr;
      return number(rules::MovesOf{side == 0           ? Whose::first
                                   : side == 1         ? Whose::second
                                   : expr.word == "my" ? Whose::mine
                                                       : Whose::theirs});
    }
    case ExprKind::total:
      return total(expr);
  }
  return nullptr;
}

}  // namespace ninepegs::sheet
