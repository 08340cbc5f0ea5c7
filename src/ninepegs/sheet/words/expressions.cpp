// Expressions in words.
#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/words/explain.hpp"

namespace ninepegs::sheet {
namespace {

class Words {
 public:
  explicit Words(const Checked& sheet) : sheet_(sheet) {}

  std::string of(const Expr& expr) const {
    switch (expr.kind) {
      case ExprKind::number:
        return std::to_string(expr.first);
      case ExprKind::name:
        return name(expr.word);
      case ExprKind::call: {
        std::vector<std::string> args;
        for (std::size_t i = 0; i < expr.args.size(); ++i) args.push_back(arg(expr, i));
        return fmt::format("\"{}\" of {}", expr.word, joined(args, " and "));
      }
      case ExprKind::own:
        return own(expr);
      case ExprKind::ofName:
        // In a text, `column of there` has one part.
        if (expr.args.size() == 1) return fmt::format("the {} of {}", expr.word, arg(expr, 0));
        return fmt::format("the {} of {}",
                           expr.word == weightsName ? "weight" : plainWord(expr.args[0]),
                           arg(expr, 1));
      case ExprKind::on:
        return fmt::format("those of {} that are among {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::either:
        return fmt::format("{} or {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::except:
        return fmt::format("{}, but not {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::both:
        return fmt::format("{}, and {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::negation:
        return fmt::format("it is not so that {}", arg(expr, 0));
      case ExprKind::any:
      case ExprKind::none: {
        bool line = expr.args[0].kind == ExprKind::lines;
        return fmt::format("there {} {}",
                           expr.kind == ExprKind::any ? (line ? "is" : "is any of") : "is none of",
                           arg(expr, 0));
      }
      case ExprKind::count:
        return fmt::format("the number of {}", arg(expr, 0));
      case ExprKind::compare:
        return fmt::format("{} {} {}", arg(expr, 0), comparison(expr.word), arg(expr, 1));
      case ExprKind::within:
        return fmt::format("all of {} lie within {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::inside:
        return fmt::format("{} is one of {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::is:
        return fmt::format("the {} is {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::arithmetic:
        return fmt::format("({} {} {})", arg(expr, 0), expr.word, arg(expr, 1));
      case ExprKind::ahead:
        return fmt::format("the cells one step {} of {}", expr.word, arg(expr, 0));
      case ExprKind::step:
        return fmt::format("the cells one {} step away from {}", expr.word, origin(expr));
      case ExprKind::slide:
        return fmt::format("the cells that can be slid to in {} directions from {}{}", expr.word,
                           origin(expr),
                           expr.plural ? " through " + arg(expr, expr.args.size() - 1) : "");
      case ExprKind::leap:
        return fmt::format("the cells a leap of {} and {} away from {}", expr.first, expr.second,
                           origin(expr));
      case ExprKind::between:
        return fmt::format("the cells between {} and {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::beyond:
        return fmt::format("the cell right behind {} as seen from {}", arg(expr, 0), arg(expr, 1));
      case ExprKind::bracketed:
        return fmt::format(
            "the runs of {} that begin next to {} and end at one of {} ({} directions)",
            arg(expr, 0), arg(expr, 1), arg(expr, 2), expr.word);
      case ExprKind::lines:
        return fmt::format("{} of {}{} among {}{}{}",
                           expr.plural ? "straight lines" : "a straight line",
                           expr.first == 1 ? "exactly " : "", arg(expr, 0), arg(expr, 1),
                           expr.args.size() > 2 ? " through " + arg(expr, 2) : "",
                           expr.word == "any" ? "" : fmt::format(" ({} directions)", expr.word));
      case ExprKind::spread:
        return fmt::format("all of {} joined to {} by {} steps", arg(expr, 1), arg(expr, 0),
                           expr.word);
      case ExprKind::reachOf:
        return fmt::format("what the piece on {} attacks", arg(expr, 0));
      case ExprKind::choice:
        return fmt::format("(if {}: {}; else: {})", arg(expr, 0), arg(expr, 1), arg(expr, 2));
      case ExprKind::rows:
      case ExprKind::columns:
        return rows(expr);
      case ExprKind::cellsWhere:
        return fmt::format("each cell {} of {} for which {}", quoted(expr.word), arg(expr, 0),
                           arg(expr, 1));
      case ExprKind::groups:
        return fmt::format("each connected group {} of {} for which {}", quoted(expr.word),
                           arg(expr, 0), arg(expr, 1));
      case ExprKind::kindsWhere:
        return fmt::format("each kind {} of {} for which {}", quoted(expr.word), expr.along,
                           arg(expr, 0));
      case ExprKind::was:
        return arg(expr, 0) + " as it was before the move";
      case ExprKind::hand:
        return "the hand";
      case ExprKind::kindOn:
        return "the kind of piece on " + arg(expr, 0);
      case ExprKind::edgeOf:
        return fmt::format("the number on the side of {} that faces {}", arg(expr, 0),
                           arg(expr, 1));
      case ExprKind::onTrack:
        return fmt::format("the cell {} further along {} from {}", arg(expr, 0), expr.word,
                           arg(expr, 1));
      case ExprKind::movesOf:
        return fmt::format("the number of moves of {}", expr.word == "my"      ? "this side"
                                                        : expr.word == "their" ? "the other side"
                                                                               : expr.word);
      case ExprKind::total:
        return fmt::format("the total of {} for each {} of {}", arg(expr, 0), quoted(expr.word),
                           arg(expr, 1));
      case ExprKind::extreme:
        return fmt::format("the {} of {} and {}", expr.word == "min" ? "smaller" : "greater",
                           arg(expr, 0), arg(expr, 1));
    }
    return "";
  }

 private:
  // A part, in brackets where its words could run into those around it.
  std::string arg(const Expr& expr, std::size_t i) const {
    const Expr& part = expr.args[i];
    return isOpen(part) ? "(" + of(part) + ")" : of(part);
  }
  static bool isOpen(const Expr& expr) {
    switch (expr.kind) {
      case ExprKind::on:
      case ExprKind::either:
      case ExprKind::except:
      case ExprKind::both:
      case ExprKind::negation:
      case ExprKind::cellsWhere:
      case ExprKind::groups:
      case ExprKind::kindsWhere:
      case ExprKind::was:
      case ExprKind::bracketed:
      case ExprKind::spread:
      case ExprKind::total:
        return true;
      case ExprKind::slide:
        return expr.plural;
      case ExprKind::call:
        return expr.args.size() > 1;
      default:
        return false;
    }
  }
  static std::string quoted(const std::string& name) {
    return name == "@cell" ? "cell" : "`" + name + "`";
  }
  static std::string plainWord(const Expr& expr) { return expr.word; }
  static std::string comparison(const std::string& word) {
    if (word == "=") return "is";
    if (word == "!=") return "is not";
    if (word == "<") return "is less than";
    if (word == "<=") return "is at most";
    if (word == ">") return "is more than";
    return "is at least";
  }
  std::string origin(const Expr& expr) const {
    bool none = expr.args.size() == (expr.plural ? 1 : 0);
    return none ? "the piece" : arg(expr, 0);
  }
  static std::string rows(const Expr& expr) {
    bool rows = expr.kind == ExprKind::rows;
    if (!expr.word.empty()) return fmt::format("the {} {}", expr.word, rows ? "rows" : "columns");
    auto one = [&](long long n) {
      return rows ? std::to_string(n) : Geometry::columnName(static_cast<int>(n));
    };
    if (expr.first == expr.second)
      return fmt::format("{} {}", rows ? "row" : "column", one(expr.first));
    return fmt::format("{} {} to {}", rows ? "rows" : "columns", one(expr.first), one(expr.second));
  }
  std::string own(const Expr& expr) const {
    std::string whose = expr.word == "my" ? "the side's own" : "the other side's";
    const Expr& inner = expr.args[0];
    if (inner.kind == ExprKind::hand)
      return whose + " hand" + (inner.args.empty() ? "" : " of " + arg(inner, 0));
    if (inner.kind == ExprKind::kindOn) return of(inner);
    if (inner.word == "reach")
      return expr.word == "my" ? "what the side attacks" : "what the other side attacks";
    return fmt::format("{} {}", whose, bare(inner.word));
  }
  std::string bare(const std::string& word) const {
    const Symbol* symbol = sheet_.find(word);
    if (symbol != nullptr &&
        (symbol->kind == SymbolKind::kind || symbol->kind == SymbolKind::group))
      return word + " pieces";
    return word;
  }
  std::string name(const std::string& word) const {
    if (word == "all") return "all cells";
    if (word == "empty") return "the empty cells";
    if (word == "occupied") return "the occupied cells";
    if (word == "mine") return "the side's own pieces";
    if (word == "theirs") return "the other side's pieces";
    if (word == "edge") return "the cells at the edge";
    if (word == "corner") return "the corner cells";
    if (word == "dark" || word == "light") return fmt::format("the {} cells", word);
    if (word == "touched") return "the cells that the move changed";
    if (word == "plies") return "the number of plies played";
    if (word == "passes") return "the number of passes in a row";
    if (word == "times seen") return "the number of times this position was seen";
    if (word == "stuck") return "the side to move has no legal move";
    if (word == "nobody can move") return "neither side has a legal move";
    if (word == "none") return "none";
    const Symbol* symbol = sheet_.find(word);
    if (symbol == nullptr) return quoted(word);
    switch (symbol->kind) {
      case SymbolKind::kind:
      case SymbolKind::group:
        return fmt::format("the {} pieces", word);
      case SymbolKind::mark:
        return fmt::format("the cells marked {}", word);
      case SymbolKind::number:
        return fmt::format("the number {}", word);
      case SymbolKind::remembered:
        return fmt::format("the remembered cell {}", word);
      default:
        return word;
    }
  }

  const Checked& sheet_;
};

}  // namespace

std::string inWords(const Checked& sheet, const Expr& expr) {
  return Words(sheet).of(expr);
}

}  // namespace ninepegs::sheet
