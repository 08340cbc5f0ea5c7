// Types of names: what a name, `my X`, `X of SIDE` and a definition stand for.
#include <fmt/format.h>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/types.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {

// What a piece attacks cannot depend on what pieces attack.
bool Types::outsideReach(const Expr& expr) {
  if (context_ != Context::reach) return true;
  note(expr.span, "the reach of a piece cannot ask for a reach",
       "say with steps, leaps and slides");
  return false;
}

// Some things are known of the position as it is, not as it was.
bool Types::ofNow(const Expr& expr, const std::string& what) {
  if (!inWas_) return true;
  note(expr.span, fmt::format("`was` cannot ask for {}", what), "ask for it as it is now");
  return false;
}

Type Types::name(Expr& expr) {
  const std::string& word = expr.word;
  if (Type type = localType(word); type != Type::unknown) return type;
  if (word == "all") return Type::set;
  sheet_.used.insert(word);
  if (word == "mine" || word == "theirs" || word == "empty" || word == "occupied") {
    if (context_ == Context::constant) {
      note(expr.span, fmt::format("`{}` depends on the pieces and has no place here", word));
      return Type::unknown;
    }
    if (sheet_.layered() && (word == "empty" || word == "occupied")) {
      note(expr.span, fmt::format("`{}` differs by side on a board of one each", word),
           fmt::format("say whose: my {}, or: all except mine", word));
      return Type::unknown;
    }
    return Type::set;
  }
  if (word == "touched") {
    if (!inside({Context::move, Context::after, Context::forbid, Context::ends, Context::define})) {
      note(expr.span, "`touched` is known where a move has just been made",
           "in moves, `after`, `forbid` and `ends`");
      return Type::unknown;
    }
    if (!ofNow(expr, "`touched`")) return Type::unknown;
    sheet_.readsBefore = true;
    return Type::set;
  }
  if (word == "passes") {
    sheet_.readsPasses = true;
    return Type::number;
  }
  if (word == "times seen") {
    if (!inside({Context::ends, Context::forbid, Context::define})) {
      note(expr.span, "`times seen` is known only in `ends` and `forbid`");
      return Type::unknown;
    }
    if (!ofNow(expr, "`times seen`")) return Type::unknown;
    sheet_.readsTimes = true;
    return Type::number;
  }
  if (word == "none") {
    note(expr.span, "`none` stands only behind `set ... to`",
         "say `no S` to test for an empty set");
    return Type::unknown;
  }
  if (word == "plies") {
    sheet_.readsPlies = true;
    return Type::number;
  }
  if (word == "stuck" || word == "nobody can move") {
    if (!inside({Context::ends, Context::worth, Context::define, Context::example})) {
      note(expr.span, fmt::format("`{}` is known only in `ends`, `worth` and cases", word));
      return Type::unknown;
    }
    return ofNow(expr, "`" + word + "`") ? Type::truth : Type::unknown;
  }
  const Symbol* symbol = sheet_.find(word);
  auto bare = [&](const char* what) {
    note(expr.span, fmt::format("the {} \"{}\" differs by side", what, word),
         fmt::format("say whose: my {} or their {}", word, word));
    return Type::unknown;
  };
  if (symbol != nullptr) {
    switch (symbol->kind) {
      case SymbolKind::builtin:
      case SymbolKind::kind:
      case SymbolKind::group:
        return Type::set;
      case SymbolKind::zone:
        if (!zoneIsKnown(expr, symbol->index)) return Type::unknown;
        return sheet_.zoneBySide[symbol->index] ? bare("zone") : Type::set;
      case SymbolKind::mark:
        return sheet_.tree.marks[symbol->index].each ? bare("mark") : Type::set;
      case SymbolKind::number:
        if (sheet_.tree.numbers[symbol->index].onCells) {
          note(expr.span, fmt::format("of which cell? \"{}\" is a number on every cell", word),
               fmt::format("say: {} of there", word));
          return Type::unknown;
        }
        return sheet_.tree.numbers[symbol->index].each ? bare("number") : Type::number;
      case SymbolKind::remembered:
        return sheet_.tree.cells[symbol->index].each ? bare("cell") : Type::cell;
      case SymbolKind::track:
        note(expr.span, fmt::format("\"{}\" is a track", word),
             fmt::format("say: next along {} from there", word));
        return Type::unknown;
      case SymbolKind::cell:
        return Type::cell;
      case SymbolKind::define:
        return call(expr);
      case SymbolKind::side:
        note(expr.span, fmt::format("\"{}\" is a side, not a set or a number", word),
             fmt::format("say: X of {}", word));
        return Type::unknown;
      case SymbolKind::move:
        note(expr.span, fmt::format("\"{}\" is a move, not a set or a number", word));
        return Type::unknown;
      case SymbolKind::property:
        note(expr.span, fmt::format("of which cell? \"{}\" belongs to pieces", word),
             fmt::format("say: {} of there", word));
        return Type::unknown;
    }
  }
  std::string minus = minusHint(word);
  note(expr.span, fmt::format("nothing here is called \"{}\"", word),
       minus.empty() ? didYouMean(word, namesInScope()) : minus);
  return Type::unknown;
}

// Zones are worked out from the top: one may use those above it.
bool Types::zoneIsKnown(const Expr& expr, int index) {
  if (index < static_cast<int>(sheet_.zoneBySide.size())) return true;
  note(expr.span, fmt::format("the zone \"{}\" is not known yet", expr.word),
       "a zone may use the zones above it, not itself and none below");
  return false;
}

// A minus without blanks belongs to a name.
std::string Types::minusHint(const std::string& word) const {
  for (std::size_t at = word.find('-'); at != word.npos; at = word.find('-', at + 1)) {
    std::string left = word.substr(0, at), right = word.substr(at + 1);
    bool known = localType(left) != Type::unknown || sheet_.find(left) != nullptr ||
                 left == "mine" || left == "theirs" || left == "empty" || left == "occupied" ||
                 left == "plies" || left == "passes";
    if (known) return fmt::format("a minus has blanks round it: {} - {}", left, right);
  }
  return "";
}

Type Types::call(Expr& expr) {
  const Symbol* symbol = sheet_.find(expr.word);
  if (symbol == nullptr || symbol->kind != SymbolKind::define) {
    note(expr.span, fmt::format("there is no definition \"{}\"", expr.word),
         didYouMean(expr.word, namesInScope(), "add it: define " + expr.word + "(x) = ..."));
    return Type::unknown;
  }
  const DefineDecl& define = sheet_.tree.defines[symbol->index];
  if (define.parameters.size() != expr.args.size()) {
    note(expr.span, fmt::format("\"{}\" takes {}, not {}", expr.word,
                                plural(static_cast<long long>(define.parameters.size()), "value"),
                                expr.args.size()));
    return Type::unknown;
  }
  sheet_.used.insert(expr.word);
  if (++defineDepth_ > limits::defineDepth) {
    note(expr.span, fmt::format("\"{}\" goes round in a circle", expr.word),
         "a definition may not use itself, not even through others");
    --defineDepth_;
    return Type::unknown;
  }
  int before = sheet_.definitionUses;
  sheet_.definitionUses += 1 + define.size / 16;  // a long one counts for more
  if (sheet_.definitionUses > limits::definitionUses) {
    if (before <= limits::definitionUses)
      note(expr.span,
           fmt::format("definitions are used more than {} times, each counted with all it uses",
                       limits::definitionUses),
           "let definitions use each other less");
    --defineDepth_;
    return Type::unknown;
  }
  std::vector<std::pair<std::string, Type>> inner;
  std::vector<Type> types;
  bool good = true;
  for (std::size_t i = 0; i < expr.args.size(); ++i) {
    types.push_back(argument(expr.args[i]));
    good = good && types.back() != Type::unknown;
    inner.emplace_back(define.parameters[i].text, types.back());
  }
  Type type = Type::unknown;
  if (good) {
    std::swap(locals_, inner);
    Expr body = define.body;
    type = infer(body);
    expr.instance = sheet_.instanceOf(symbol->index, types, std::move(body));
    std::swap(locals_, inner);
  }
  --defineDepth_;
  return type;
}

// What a definition is used with. A kind of piece is handed over as a kind, which is a set of cells
// where one is wanted.
Type Types::argument(Expr& expr) {
  bool kind = expr.kind == ExprKind::name && localType(expr.word) == Type::unknown &&
              sheet_.kind(expr.word) >= 0;
  if (!kind) return valueOf(expr);
  sheet_.used.insert(expr.word);
  return expr.type = Type::kind;
}

Type Types::own(Expr& expr) {
  Expr& inner = expr.args[0];
  const std::string leaveOut = fmt::format("leave out `{}`", expr.word);
  auto sameForBoth = [](const std::string& word) {
    if (word == "mine" || word == "theirs")
      return fmt::format("\"{}\" says already whose they are", word);
    return fmt::format("\"{}\" is the same for both sides", word);
  };
  if (context_ == Context::constant) {
    note(expr.span, fmt::format("`{}` has no place here: no side is meant", expr.word));
    return Type::unknown;
  }
  if (inner.kind == ExprKind::hand) {
    sheet_.hasHands = true;
    if (inner.args.empty()) return inner.type = Type::kinds;
    return want(inner.args[0], Type::kind) ? inner.type = Type::number : Type::unknown;
  }
  if (inner.kind == ExprKind::kindOn) return infer(inner);
  if (inner.kind == ExprKind::name) {
    if (inner.word == "reach") return inner.type = outsideReach(expr) ? Type::set : Type::unknown;
    Type local = localType(inner.word);
    if (local == Type::kind) return inner.type = Type::set;
    if (local != Type::unknown) {
      note(inner.span,
           fmt::format("\"{}\" is {} here and belongs to no side", inner.word, typeName(local)),
           local == Type::set || local == Type::cell
               ? fmt::format("say: {} on {}", inner.word, expr.word == "my" ? "mine" : "theirs")
               : fmt::format("leave out `{}`", expr.word));
      return Type::unknown;
    }
    bool side = inner.word == "empty" || inner.word == "occupied";
    if (sheet_.layered() && side) return inner.type = Type::set;
    sheet_.used.insert(inner.word);
    const Symbol* symbol = sheet_.find(inner.word);
    if (symbol != nullptr) {
      switch (symbol->kind) {
        case SymbolKind::kind:
        case SymbolKind::group:
          return inner.type = Type::set;
        case SymbolKind::zone:
          if (!zoneIsKnown(inner, symbol->index)) return Type::unknown;
          if (sheet_.zoneBySide[symbol->index]) return inner.type = Type::set;
          break;
        case SymbolKind::mark:
          if (sheet_.tree.marks[symbol->index].each) return inner.type = Type::set;
          break;
        case SymbolKind::number:
          if (sheet_.tree.numbers[symbol->index].each) return inner.type = Type::number;
          break;
        case SymbolKind::remembered:
          if (sheet_.tree.cells[symbol->index].each) return inner.type = Type::cell;
          break;
        case SymbolKind::define:
          return inner.type = call(inner);
        default:
          break;
      }
      note(inner.span, sameForBoth(inner.word), leaveOut);
      return Type::unknown;
    }
    Type type = name(inner);  // a message, or a word that belongs to no side
    if (type != Type::unknown) note(inner.span, sameForBoth(inner.word), leaveOut);
    return Type::unknown;
  }
  if (inner.kind == ExprKind::call) return inner.type = call(inner);
  if (inner.kind == ExprKind::ofName && isSide(inner.args[1]))
    note(expr.span,
         fmt::format("`{}` and `of {}` both say whose this is", expr.word, inner.args[1].word),
         "leave one of them out");
  else
    note(expr.span, fmt::format("`{}` stands before a name", expr.word), "such as: my disc");
  return Type::unknown;
}

Type Types::ofName(Expr& expr) {
  Expr& what = expr.args[0];
  Expr& of = expr.args[1];
  if (what.kind == ExprKind::name && (what.word == "row-no" || what.word == "column-no"))
    return want(of, Type::cell) ? Type::number : Type::unknown;
  if (what.kind == ExprKind::name && what.word == weightsName)
    return want(of, Type::cell) ? Type::number : Type::unknown;
  const Symbol* symbol =
      what.kind == ExprKind::name || what.kind == ExprKind::call ? sheet_.find(what.word) : nullptr;
  if (symbol != nullptr && symbol->kind == SymbolKind::property) {
    sheet_.used.insert(what.word);
    if (of.kind == ExprKind::name &&
        (localType(of.word) == Type::kind || sheet_.kind(of.word) >= 0)) {
      of.type = Type::kind;
      return Type::number;
    }
    return want(of, Type::cell) ? Type::number : Type::unknown;
  }
  if (symbol != nullptr && symbol->kind == SymbolKind::number &&
      sheet_.tree.numbers[symbol->index].onCells) {
    sheet_.used.insert(what.word);
    return want(of, Type::cell) ? Type::number : Type::unknown;
  }
  if (isSide(of)) {
    of.type = Type::unknown;
    // As for `my X`, with the side named outright.
    Context context = context_;
    if (context_ == Context::constant) context_ = Context::move;
    Expr own;
    own.kind = ExprKind::own;
    own.word = "my";
    own.span = expr.span;
    own.args = {what};
    Type type = this->own(own);
    what = own.args[0];
    context_ = context;
    return type;
  }
  if (symbol == nullptr) {
    note(what.span, fmt::format("nothing here is called \"{}\"", what.word),
         didYouMean(what.word, namesInScope()));
    return Type::unknown;
  }
  note(of.span, fmt::format("\"{}\" is no side", toText(of)),
       fmt::format("there are: {}, {}", sheet_.tree.sides[0].text, sheet_.tree.sides[1].text));
  return Type::unknown;
}

Type Types::either(Expr& expr) {
  std::size_t before = found_.size();
  for (Expr& arg : expr.args) {
    const Symbol* symbol = arg.kind == ExprKind::number ? sheet_.find(arg.word) : nullptr;
    if (symbol != nullptr && symbol->kind == SymbolKind::cell) arg.kind = ExprKind::name;
    infer(arg);
  }
  bool known = expr.args[0].type != Type::unknown && expr.args[1].type != Type::unknown;
  if (found_.size() > before || !known) return Type::unknown;
  auto isSet = [](Type type) { return type == Type::set || type == Type::cell; };
  Type left = expr.args[0].type, right = expr.args[1].type;
  if (left == Type::truth && right == Type::truth) return Type::truth;
  if (isSet(left) && isSet(right)) {
    for (const Expr& arg : expr.args) {
      if ((arg.kind == ExprKind::on || arg.kind == ExprKind::except) && !arg.bracketed) {
        const char* word = arg.kind == ExprKind::on ? "on" : "except";
        note(expr.span, fmt::format("`or` and `{}` meet here without brackets", word),
             fmt::format("write (A {0} B) or C, or A {0} (B or C)", word));
        return Type::unknown;
      }
    }
    return Type::set;
  }
  note(expr.span,
       fmt::format("`or` joins two sets or two conditions, but here are {} and {}", typeName(left),
                   typeName(right)),
       "say `any S` to make a condition of a set");
  return Type::unknown;
}

}  // namespace ninepegs::sheet
