#include "ninepegs/report/compare_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/text_lines.hpp"

namespace ninepegs::report {
namespace {

using compare::Difference;

constexpr std::size_t namesShown = 24;

std::vector<std::string> told(const compare::Report& report) {
  std::vector<std::string> out;
  if (report.toldMoves) out.push_back("moves");
  if (report.toldTurn) out.push_back("whose turn it is");
  if (report.toldResult) out.push_back("the result");
  if (report.toldBoard) out.push_back("the board");
  return out;
}

std::string few(std::vector<std::string> names) {
  std::size_t more = names.size() > namesShown ? names.size() - namesShown : 0;
  names.resize(names.size() - more);
  return joined(names, ", ") + (more > 0 ? fmt::format(" and {} more", more) : "");
}

// The cells that the differing texts name.
CellSet cellsNamed(const Game& game, const std::vector<std::string>& texts) {
  CellSet out;
  for (const std::string& text : texts)
    for (std::size_t at = 0; at < text.size();) {
      Cell cell = -1;
      std::size_t length = compare::cellAt(game.board(), text, at, cell);
      if (length > 0) out.set(static_cast<std::size_t>(cell));
      at += std::max<std::size_t>(length, 1);
    }
  return out;
}

std::string boards(const Game& game, const Difference& difference) {
  Paint plain(false);
  Marks marks;
  bool board = difference.kind == Difference::Kind::board;
  CellSet ours = cellsNamed(game, difference.onlyOurs);
  CellSet theirs = cellsNamed(game, difference.onlyTheirs);
  (board ? marks.shown : marks.targets) = board ? ours | theirs : ours;
  if (game.boards() != 1) return boardsText(game, difference.position, marks, plain);
  std::string left = " the sheet\n" + boardText(game, difference.position, marks, plain);
  if (!difference.theirBoard && difference.onlyTheirs.empty()) return left;
  Marks other = marks;
  if (difference.theirBoard) other.letters = &*difference.theirBoard;
  if (!board) other.targets = theirs;
  std::string right = " the other\n" + boardText(game, difference.position, other, plain);
  return besideEachOther({left, left}, {right, right}, {.gap = "      "});
}

std::string differenceText(const Game& game, const Difference& difference, const Paint& paint) {
  std::string out = "\n" + paint.bad("They differ: " + compare::kindName(difference.kind)) + "\n";
  out += paint.wrapped(difference.message, "  ");
  out += fmt::format(
      "  {}  {}\n", difference.shortest ? "shortest" : "after   ",
      difference.moves.empty() ? "no move, at the start" : joined(difference.moves, ", "));
  std::vector<std::pair<const char*, const std::vector<std::string>*>> rows = {
      {"only the sheet", &difference.onlyOurs}, {"only the other", &difference.onlyTheirs}};
  for (const auto& [name, texts] : rows)
    if (!texts->empty()) out += fmt::format("  {}  {}\n", name, few(*texts));
  return out + "\n" + boards(game, difference);
}

}  // namespace

std::string compareText(const Game& game, const compare::Report& report, const CompareSaid& said,
                        const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  if (!game.info().variant.empty()) out += ", variant " + game.info().variant;
  out +=
      fmt::format(" and {}: {} games, seed {}\n", said.other, grouped(report.playouts), said.seed);
  if (report.stopped)
    out += paint.bad(fmt::format("  stopped early: {} were asked for\n", grouped(said.playouts)));
  std::vector<std::string> compared = told(report);
  out += fmt::format("  positions compared   {}\n", grouped(report.positions));
  out +=
      fmt::format("  compared in each     {}\n",
                  compared.empty() ? "nothing: the other tells nothing" : joined(compared, ", "));
  if (report.probes > 0)
    out += fmt::format("  refused by both      {} inputs that are no legal moves\n",
                       grouped(report.probes));
  if (!report.unmet.empty())
    out += paint.wrapped(std::string("the map names moves that were ") +
                             (report.stopped ? "not legal so far: " : "never legal: ") +
                             few(report.unmet),
                         "  ");
  if (report.difference) return out + differenceText(game, *report.difference, paint);
  return out + "\n" +
         (compared.empty() ? paint.bad("Nothing was compared.")
          : report.stopped ? paint.bad(fmt::format("No difference found in the {} games that were "
                                                   "compared.",
                                                   grouped(report.playouts)))
                           : paint.good("No difference found.")) +
         "\n";
}

std::string compareJson(const Game& game, const compare::Report& report, const CompareSaid& said) {
  Json out;
  out["game"] = game.info().id;
  out["variant"] = game.info().variant.empty() ? Json(nullptr) : Json(game.info().variant);
  out["other"] = said.other;
  out["seed"] = said.seed;
  out["playouts"] = report.playouts;
  out["playouts_asked"] = said.playouts;
  out["complete"] = !report.stopped;
  out["positions"] = report.positions;
  out["refused_by_both"] = report.probes;
  out["compared"] = {{"moves", report.toldMoves},
                     {"turn", report.toldTurn},
                     {"result", report.toldResult},
                     {"board", report.toldBoard}};
  out["moves_of_the_map_never_legal"] = report.unmet;
  out["difference"] = nullptr;
  if (report.difference) {
    const Difference& one = *report.difference;
    Json found;
    found["kind"] = compare::kindName(one.kind);
    found["message"] = one.message;
    found["moves"] = one.moves;
    found["shortest"] = one.shortest;
    found["input"] = one.input.empty() && one.kind != Difference::Kind::accepted ? Json(nullptr)
                                                                                 : Json(one.input);
    found["only_the_sheet"] = one.onlyOurs;
    found["only_the_other"] = one.onlyTheirs;
    found["position"] = game.positionText(one.position);
    found["board_of_the_other"] = one.theirBoard ? Json(*one.theirBoard) : Json(nullptr);
    out["difference"] = found;
  }
  return jsonText(out, 2);
}

}  // namespace ninepegs::report
