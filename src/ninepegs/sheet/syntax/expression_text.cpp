#include <fmt/format.h>

#include "ninepegs/sheet/syntax/parser.hpp"

namespace ninepegs::sheet {
namespace {

std::string arg(const Expr& expr, std::size_t i) {
  return i < expr.args.size() ? toText(expr.args[i]) : "";
}

std::string infix(const Expr& expr, std::string_view op) {
  return fmt::format("({} {} {})", arg(expr, 0), op, arg(expr, 1));
}

std::string from(const Expr& expr, const std::string& head) {
  return expr.args.empty() ? head : fmt::format("{} from {}", head, arg(expr, 0));
}

}  // namespace

std::string toText(const Expr& expr) {
  const std::string& word = expr.word;
  switch (expr.kind) {
    case ExprKind::number:
      return std::to_string(expr.first);
    case ExprKind::name:
      return word;
    case ExprKind::call: {
      std::string out = word + "(";
      for (std::size_t i = 0; i < expr.args.size(); ++i) out += (i > 0 ? ", " : "") + arg(expr, i);
      return out + ")";
    }
    case ExprKind::own:
      return word + " " + arg(expr, 0);
    case ExprKind::ofName:
      return fmt::format("{} of {}", arg(expr, 0), arg(expr, 1));
    case ExprKind::on:
      return infix(expr, "on");
    case ExprKind::either:
      return infix(expr, "or");
    case ExprKind::except:
      return infix(expr, "except");
    case ExprKind::both:
      return infix(expr, "and");
    case ExprKind::negation:
      return fmt::format("(not {})", arg(expr, 0));
    case ExprKind::any:
      return fmt::format("(any {})", arg(expr, 0));
    case ExprKind::none:
      return fmt::format("(no {})", arg(expr, 0));
    case ExprKind::count:
      return fmt::format("(count {})", arg(expr, 0));
    case ExprKind::compare:
      return infix(expr, word);
    case ExprKind::within:
      return infix(expr, "within");
    case ExprKind::inside:
      return infix(expr, "in");
    case ExprKind::is:
      return infix(expr, "is");
    case ExprKind::arithmetic:
      return infix(expr, word);
    case ExprKind::ahead:
      return fmt::format("{} of {}", word, arg(expr, 0));
    case ExprKind::step:
      return from(expr, "step " + word);
    case ExprKind::slide: {
      if (!expr.plural) return from(expr, "slide " + word);
      std::string through = " through " + toText(expr.args.back());
      return (expr.args.size() > 1 ? from(expr, "slide " + word) : "slide " + word) + through;
    }
    case ExprKind::leap:
      return from(expr, fmt::format("leap {} {}", expr.first, expr.second));
    case ExprKind::between:
      return fmt::format("between {} and {}", arg(expr, 0), arg(expr, 1));
    case ExprKind::beyond:
      return fmt::format("beyond {} from {}", arg(expr, 0), arg(expr, 1));
    case ExprKind::bracketed:
      return fmt::format("(bracketed {} from {} by {} along {})", arg(expr, 0), arg(expr, 1),
                         arg(expr, 2), word);
    case ExprKind::lines: {
      std::string through = expr.args.size() > 2 ? " through " + arg(expr, 2) : "";
      return fmt::format("({} of {}{} in {}{} along {})", expr.plural ? "lines" : "line",
                         expr.first == 1 ? "exactly " : "", arg(expr, 0), arg(expr, 1), through,
                         word);
    }
    case ExprKind::spread:
      return fmt::format("(spread from {} through {} along {})", arg(expr, 0), arg(expr, 1), word);
    case ExprKind::reachOf:
      return "reach of " + arg(expr, 0);
    case ExprKind::choice:
      return fmt::format("(if {} then {} else {})", arg(expr, 0), arg(expr, 1), arg(expr, 2));
    case ExprKind::rows:
    case ExprKind::columns: {
      const char* what = expr.kind == ExprKind::rows ? "rows" : "columns";
      if (!word.empty()) return fmt::format("{} {}", word, what);
      return fmt::format("{} {} to {}", what, expr.first, expr.second);
    }
    case ExprKind::cellsWhere:
      return fmt::format("(cells {} in {} where {})", word, arg(expr, 0), arg(expr, 1));
    case ExprKind::groups:
      return fmt::format("(groups {} in {} along {} where {})", word, arg(expr, 0), expr.along,
                         arg(expr, 1));
    case ExprKind::kindsWhere:
      return fmt::format("(kinds {} in {} where {})", word, expr.along, arg(expr, 0));
    case ExprKind::was:
      return "was " + arg(expr, 0);
    case ExprKind::hand:
      return expr.args.empty() ? "hand" : "hand of " + arg(expr, 0);
    case ExprKind::kindOn:
      return "kind on " + arg(expr, 0);
    case ExprKind::edgeOf:
      return fmt::format("edge of {} towards {}", arg(expr, 0), arg(expr, 1));
    case ExprKind::onTrack:
      return fmt::format("next {} along {} from {}", arg(expr, 0), word, arg(expr, 1));
    case ExprKind::movesOf:
      return word == "my" || word == "their" ? word + " moves" : "moves of " + word;
    case ExprKind::total:
      return fmt::format("(total {} for {} in {})", arg(expr, 0), word, arg(expr, 1));
    case ExprKind::extreme:
      return fmt::format("{}({}, {})", word, arg(expr, 0), arg(expr, 1));
  }
  return "";
}

}  // namespace ninepegs::sheet
