// Terms of names: what a name, `my X`, `X of SIDE` and a definition stand for.
#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/types.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

using rules::Symbol;
using rules::SymbolKind;

// What a piece attacks cannot depend on what pieces attack.
bool Types::outsideReach(Span span) {
  if (context_ != Context::reach) return true;
  note(span, "the reach of a piece cannot ask for a reach", "say with steps, leaps and slides");
  return false;
}

// Some things are known of the position as it is, not as it was.
bool Types::ofNow(Span span, const std::string& what) {
  if (!inWas_) return true;
  note(span, fmt::format("`was` cannot ask for {}", what), "ask for it as it is now");
  return false;
}

TermPtr Types::name(const Expr& expr) {
  const std::string& word = expr.word;
  Span span = expr.span;
  auto set = [&](auto form) { return make(Type::set, span, std::move(form)); };
  auto number = [&](auto form) { return make(Type::number, span, std::move(form)); };
  auto truth = [&](auto form) { return make(Type::truth, span, std::move(form)); };
  if (const Local* local = findLocal(word); local != nullptr && local->type != Type::unknown)
    return make(local->type, span, rules::Name{local->id});
  if (word == "all") return set(rules::AllCells{});
  rules_.used.insert(word);
  bool side = word == "empty" || word == "occupied";
  if (word == "mine" || word == "theirs" || side) {
    if (context_ == Context::constant)
      return note(span, fmt::format("`{}` depends on the pieces and has no place here", word));
    if (rules_.layered() && side)
      return note(span, fmt::format("`{}` differs by side on a board of one each", word),
                  fmt::format("say whose: my {}, or: all except mine", word));
    if (word == "empty") return set(rules::Empty{Whose::anyone});
    if (word == "occupied") return set(rules::Occupied{Whose::anyone});
    return set(rules::Side{word == "mine" ? Whose::mine : Whose::theirs});
  }
  if (word == "touched") {
    if (!inside({Context::move, Context::after, Context::forbid, Context::ends, Context::define}))
      return note(span, "`touched` is known where a move has just been made",
                  "in moves, `after`, `forbid` and `ends`");
    if (!ofNow(span, "`touched`")) return nullptr;
    rules_.readsBefore = true;
    return set(rules::Touched{});
  }
  if (word == "passes") {
    rules_.readsPasses = true;
    return number(rules::Passes{});
  }
  if (word == "times seen") {
    if (!inside({Context::ends, Context::forbid, Context::define}))
      return note(span, "`times seen` is known only in `ends` and `forbid`");
    if (!ofNow(span, "`times seen`")) return nullptr;
    rules_.readsTimes = true;
    return number(rules::TimesSeen{});
  }
  if (word == "none")
    return note(span, "`none` stands only behind `set ... to`",
                "say `no S` to test for an empty set");
  if (word == "plies") {
    rules_.readsPlies = true;
    return number(rules::Plies{});
  }
  if (word == "stuck" || word == "nobody can move") {
    if (!inside({Context::ends, Context::worth, Context::define, Context::example}))
      return note(span, fmt::format("`{}` is known only in `ends`, `worth` and cases", word));
    if (!ofNow(span, "`" + word + "`")) return nullptr;
    return word == "stuck" ? truth(rules::Stuck{}) : truth(rules::NobodyCanMove{});
  }
  if (const Symbol* symbol = rules_.find(word)) return nameOfSheet(expr, *symbol);
  std::string minus = minusHint(word);
  return note(span, fmt::format("nothing here is called \"{}\"", word),
              minus.empty() ? didYouMean(word, namesInScope()) : minus);
}

TermPtr Types::nameOfSheet(const Expr& expr, const Symbol& symbol) {
  const std::string& word = expr.word;
  Span span = expr.span;
  int index = symbol.index;
  auto set = [&](auto form) { return make(Type::set, span, std::move(form)); };
  auto bare = [&](const char* what) {
    return note(span, fmt::format("the {} \"{}\" differs by side", what, word),
                fmt::format("say whose: my {} or their {}", word, word));
  };
  switch (symbol.kind) {
    case SymbolKind::builtin:
      if (word == "edge") return set(rules::Edge{});
      if (word == "corner") return set(rules::Corner{});
      return set(rules::Shade{word == "dark"});
    case SymbolKind::kind:
    case SymbolKind::group:
      return set(rules::Pieces{*draft_.noun(word), Whose::anyone});
    case SymbolKind::zone:
      if (!zoneIsKnown(expr, index)) return nullptr;
      if (rules_.zones[index].bySide) return bare("zone");
      return set(rules::Zone{index, Whose::anyone});
    case SymbolKind::mark:
      if (rules_.marks[index].each) return bare("mark");
      return set(rules::Mark{index, Whose::anyone});
    case SymbolKind::number:
      if (rules_.numbers[index].onCells)
        return note(span, fmt::format("of which cell? \"{}\" is a number on every cell", word),
                    fmt::format("say: {} of there", word));
      if (rules_.numbers[index].each) return bare("number");
      return make(Type::number, span, rules::Variable{index, Whose::anyone});
    case SymbolKind::remembered:
      if (rules_.remembered[index].each) return bare("cell");
      return make(Type::cell, span, rules::Remembered{index, Whose::anyone});
    case SymbolKind::track:
      return note(span, fmt::format("\"{}\" is a track", word),
                  fmt::format("say: next along {} from there", word));
    case SymbolKind::cell:
      return make(Type::cell, span, rules::NamedCell{index});
    case SymbolKind::define:
      return call(expr, Whose::mine);
    case SymbolKind::side:
      return note(span, fmt::format("\"{}\" is a side, not a set or a number", word),
                  fmt::format("say: X of {}", word));
    case SymbolKind::move:
      return note(span, fmt::format("\"{}\" is a move, not a set or a number", word));
    case SymbolKind::property:
      return note(span, fmt::format("of which cell? \"{}\" belongs to pieces", word),
                  fmt::format("say: {} of there", word));
  }
  return nullptr;
}

// Zones are worked out from the top: one may use those above it.
bool Types::zoneIsKnown(const Expr& expr, int index) {
  if (index < static_cast<int>(rules_.zones.size())) return true;
  note(expr.span, fmt::format("the zone \"{}\" is not known yet", expr.word),
       "a zone may use the zones above it, not itself and none below");
  return false;
}

// A minus without blanks belongs to a name.
std::string Types::minusHint(const std::string& word) const {
  for (std::size_t at = word.find('-'); at != word.npos; at = word.find('-', at + 1)) {
    std::string left = word.substr(0, at), right = word.substr(at + 1);
    bool known = localType(left) != Type::unknown || rules_.find(left) != nullptr ||
                 left == "mine" || left == "theirs" || left == "empty" || left == "occupied" ||
                 left == "plies" || left == "passes";
    if (known) return fmt::format("a minus has blanks round it: {} - {}", left, right);
  }
  return "";
}

// A definition as it is used here, seen by a side.
TermPtr Types::call(const Expr& expr, Whose whose) {
  const Symbol* symbol = rules_.find(expr.word);
  if (symbol == nullptr || symbol->kind != SymbolKind::define)
    return note(expr.span, fmt::format("there is no definition \"{}\"", expr.word),
                didYouMean(expr.word, namesInScope(), "add it: define " + expr.word + "(x) = ..."));
  const DefineDecl& define = tree_.defines[symbol->index];
  if (define.parameters.size() != expr.args.size())
    return note(expr.span,
                fmt::format("\"{}\" takes {}, not {}", expr.word,
                            plural(static_cast<long long>(define.parameters.size()), "value"),
                            expr.args.size()));
  rules_.used.insert(expr.word);
  struct Deeper {
    explicit Deeper(int& by) : depth(++by) {}
    ~Deeper() { --depth; }
    int& depth;
  } deeper(defineDepth_);
  if (defineDepth_ > limits::defineDepth)
    return note(expr.span, fmt::format("\"{}\" goes round in a circle", expr.word),
                "a definition may not use itself, not even through others");
  int before = draft_.definitionUses;
  draft_.definitionUses += 1 + define.size / 16;  // a long one counts for more
  if (draft_.definitionUses > limits::definitionUses) {
    if (before <= limits::definitionUses)
      note(expr.span,
           fmt::format("definitions are used more than {} times, each counted with all it uses",
                       limits::definitionUses),
           "let definitions use each other less");
    return nullptr;
  }
  rules::Use use{symbol->index, whose, {}, {}, nullptr};
  std::vector<Local> inner;
  bool good = true;
  for (std::size_t i = 0; i < expr.args.size(); ++i) {
    use.given.push_back(argument(expr.args[i]));
    good = good && use.given.back();
    if (!good) continue;
    const std::string& parameter = define.parameters[i].text;
    use.names.push_back(draft_.newName(parameter));
    inner.push_back({parameter, use.given.back()->type, use.names.back()});
  }
  if (!good) return nullptr;
  std::swap(locals_, inner);
  use.body = infer(define.body);
  std::swap(locals_, inner);
  if (!use.body) return nullptr;
  TermPtr& first = rules_.definitions[symbol->index].body;
  if (!first) first = use.body;
  Type type = use.body->type;
  return make(type, expr.span, std::move(use));
}

// What a definition is used with. A kind of piece is handed over as a kind, which is a set of cells
// where one is wanted.
TermPtr Types::argument(const Expr& expr) {
  bool kind = expr.kind == ExprKind::name && localType(expr.word) == Type::unknown &&
              rules_.kind(expr.word) >= 0;
  return kind ? want(expr, Type::kind) : valueOf(expr);
}

// `my X`, `their X`, and X of a side; `word` is how it begins.
TermPtr Types::own(const Expr& inner, Whose whose, Span span, const std::string& word) {
  const std::string leaveOut = fmt::format("leave out `{}`", word);
  auto sameForBoth = [](const std::string& name) {
    if (name == "mine" || name == "theirs")
      return fmt::format("\"{}\" says already whose they are", name);
    return fmt::format("\"{}\" is the same for both sides", name);
  };
  auto set = [&](auto form) { return make(Type::set, span, std::move(form)); };
  if (context_ == Context::constant)
    return note(span, fmt::format("`{}` has no place here: no side is meant", word));
  if (inner.kind == ExprKind::hand) {
    rules_.hasHands = true;
    if (inner.args.empty()) return make(Type::kinds, span, rules::Hand{whose});
    TermPtr kind = want(inner.args[0], Type::kind);
    return kind ? make(Type::number, span, rules::HandOf{kind, whose}) : nullptr;
  }
  if (inner.kind == ExprKind::kindOn) {
    TermPtr cell = want(inner.args[0], Type::cell);
    return cell ? make(Type::kind, span, rules::KindOn{cell, whose}) : nullptr;
  }
  if (inner.kind == ExprKind::call) return call(inner, whose);
  if (inner.kind != ExprKind::name) {
    if (inner.kind == ExprKind::ofName && namesSide(inner.args[1]))
      return note(span,
                  fmt::format("`{}` and `of {}` both say whose this is", word, inner.args[1].word),
                  "leave one of them out");
    return note(span, fmt::format("`{}` stands before a name", word), "such as: my disc");
  }
  if (inner.word == "reach") {
    if (!outsideReach(span)) return nullptr;
    return set(rules::SideReach{whose});
  }
  if (const Local* local = findLocal(inner.word); local != nullptr) {
    if (local->type == Type::kind)
      return set(rules::PiecesOfKind{make(Type::kind, inner.span, rules::Name{local->id}), whose});
    if (local->type != Type::unknown)
      return note(inner.span,
                  fmt::format("\"{}\" is {} here and belongs to no side", inner.word,
                              typeName(local->type)),
                  local->type == Type::set || local->type == Type::cell
                      ? fmt::format("say: {} on {}", inner.word, word == "my" ? "mine" : "theirs")
                      : leaveOut);
  }
  if (rules_.layered() && inner.word == "empty") return set(rules::Empty{whose});
  if (rules_.layered() && inner.word == "occupied") return set(rules::Occupied{whose});
  rules_.used.insert(inner.word);
  const Symbol* symbol = rules_.find(inner.word);
  if (symbol == nullptr) {
    if (name(inner))  // else a message came
      note(inner.span, sameForBoth(inner.word), leaveOut);
    return nullptr;
  }
  int index = symbol->index;
  switch (symbol->kind) {
    case SymbolKind::kind:
    case SymbolKind::group:
      return set(rules::Pieces{*draft_.noun(inner.word), whose});
    case SymbolKind::zone:
      if (!zoneIsKnown(inner, index)) return nullptr;
      if (rules_.zones[index].bySide) return set(rules::Zone{index, whose});
      break;
    case SymbolKind::mark:
      if (rules_.marks[index].each) return set(rules::Mark{index, whose});
      break;
    case SymbolKind::number:
      if (rules_.numbers[index].each)
        return make(Type::number, span, rules::Variable{index, whose});
      break;
    case SymbolKind::remembered:
      if (rules_.remembered[index].each)
        return make(Type::cell, span, rules::Remembered{index, whose});
      break;
    case SymbolKind::define:
      return call(inner, whose);
    default:
      break;
  }
  return note(inner.span, sameForBoth(inner.word), leaveOut);
}

TermPtr Types::ofName(const Expr& expr) {
  const Expr& what = expr.args[0];
  const Expr& of = expr.args[1];
  auto ofCell = [&](auto form) -> TermPtr {
    form.cell = want(of, Type::cell);
    return form.cell ? make(Type::number, expr.span, std::move(form)) : nullptr;
  };
  if (what.kind == ExprKind::name && what.word == "row-no") return ofCell(rules::RowNumber{});
  if (what.kind == ExprKind::name && what.word == "column-no") return ofCell(rules::ColumnNumber{});
  const Symbol* symbol =
      what.kind == ExprKind::name || what.kind == ExprKind::call ? rules_.find(what.word) : nullptr;
  if (symbol != nullptr && symbol->kind == SymbolKind::property) {
    rules_.used.insert(what.word);
    const Local* local = of.kind == ExprKind::name ? findLocal(of.word) : nullptr;
    bool kind = local != nullptr && local->type == Type::kind;
    if (kind || (of.kind == ExprKind::name && rules_.kind(of.word) >= 0)) {
      TermPtr term = kind ? make(Type::kind, of.span, rules::Name{local->id})
                          : make(Type::kind, of.span, rules::Kind{rules_.kind(of.word)});
      return make(Type::number, expr.span, rules::KindProperty{symbol->index, term});
    }
    return ofCell(rules::Property{symbol->index, nullptr});
  }
  if (symbol != nullptr && symbol->kind == SymbolKind::number &&
      rules_.numbers[symbol->index].onCells) {
    rules_.used.insert(what.word);
    return ofCell(rules::CellNumber{symbol->index, nullptr});
  }
  if (namesSide(of)) {
    // As for `my X`, with the side named outright.
    Context context = context_;
    if (context_ == Context::constant) context_ = Context::move;
    TermPtr term =
        own(what, rules_.side(of.word) == 0 ? Whose::first : Whose::second, expr.span, "my");
    context_ = context;
    return term;
  }
  if (symbol == nullptr)
    return note(what.span, fmt::format("nothing here is called \"{}\"", what.word),
                didYouMean(what.word, namesInScope()));
  return note(of.span, fmt::format("\"{}\" is no side", toText(of)),
              fmt::format("there are: {}, {}", tree_.sides[0].text, tree_.sides[1].text));
}

TermPtr Types::either(const Expr& expr) {
  std::size_t before = draft_.found.size();
  TermPtr terms[2];
  for (int i = 0; i < 2; ++i) {
    terms[i] = labelled(expr.args[i]);
    if (!terms[i]) terms[i] = infer(expr.args[i]);
  }
  if (draft_.found.size() > before || !terms[0] || !terms[1]) return nullptr;
  auto isSet = [](Type type) { return type == Type::set || type == Type::cell; };
  Type left = terms[0]->type, right = terms[1]->type;
  if (left == Type::truth && right == Type::truth)
    return make(Type::truth, expr.span, rules::Or{terms[0], terms[1]});
  if (isSet(left) && isSet(right)) {
    for (const Expr& arg : expr.args) {
      if ((arg.kind == ExprKind::on || arg.kind == ExprKind::except) && !arg.bracketed) {
        const char* word = arg.kind == ExprKind::on ? "on" : "except";
        return note(expr.span, fmt::format("`or` and `{}` meet here without brackets", word),
                    fmt::format("write (A {0} B) or C, or A {0} (B or C)", word));
      }
    }
    return make(Type::set, expr.span,
                rules::Either{coerced(terms[0], Type::set), coerced(terms[1], Type::set)});
  }
  return note(expr.span,
              fmt::format("`or` joins two sets or two conditions, but here are {} and {}",
                          typeName(left), typeName(right)),
              "say `any S` to make a condition of a set");
}

}  // namespace ninepegs::sheet
