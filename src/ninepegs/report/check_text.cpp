#include "ninepegs/report/check_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/every_text.hpp"
#include "ninepegs/report/listing.hpp"
#include "ninepegs/verify/case_text.hpp"

namespace ninepegs::report {
namespace {

constexpr std::size_t caseBytes = 1500;  // of a case that is shown beside its fault

std::string share(std::uint64_t part, std::uint64_t whole) {
  return fmt::format(
      "{:5.1f} %",
      whole == 0 ? 0.0 : 100.0 * static_cast<double>(part) / static_cast<double>(whole));
}

std::string bar(std::uint64_t part, std::uint64_t whole, std::size_t width) {
  std::size_t filled =
      whole == 0 ? 0
                 : static_cast<std::size_t>(static_cast<double>(width) * static_cast<double>(part) /
                                                static_cast<double>(whole) +
                                            0.5);
  return std::string(filled, '=');
}

void results(std::string& out, const Game& game, const verify::Evidence& evidence,
             const Paint& paint) {
  if (evidence.playouts == 0) {
    out += paint.bad("No playout was played to its end.") + "\n";
    return;
  }
  out += paint.strong("How the games ended") + "\n";
  std::vector<bool> reached(game.info().ends.size(), false);
  std::vector<std::pair<std::string, std::uint64_t>> rows;
  std::size_t width = 0;
  for (const auto& [outcome, number] : evidence.outcomes) {
    int end = std::get<0>(outcome);
    if (end >= 0 && end < static_cast<int>(reached.size())) reached[end] = true;
    rows.emplace_back(endedText(game, outcome), number);
    width = std::max(width, static_cast<std::size_t>(columnsOf(rows.back().first)));
  }
  std::uint64_t stuck = evidence.unfinished - evidence.tooLong - evidence.givenUp;
  if (evidence.tooLong > 0)
    rows.emplace_back(fmt::format("not ended after {} plies", grouped(evidence.lengths.greatest())),
                      evidence.tooLong);
  if (evidence.givenUp > 0) rows.emplace_back("given up, too many steps", evidence.givenUp);
  if (stuck > 0) rows.emplace_back("without an end", stuck);
  for (const auto& [text, number] : rows)
    out += fmt::format("  {:<{}}  {:>10}  {}  {}\n", text, std::max<std::size_t>(width, 14),
                       grouped(number), share(number, evidence.playouts),
                       paint.faint(bar(number, evidence.playouts, 24)));
  for (std::size_t end = 0; end < reached.size(); ++end)
    if (!reached[end])
      out += paint.bad("  never: ") +
             fmt::format("\"{}\" (line {}), in {}\n", game.info().ends[end].name,
                         game.info().ends[end].line,
                         plural(static_cast<long long>(evidence.playouts), "playout"));
  out +=
      fmt::format("\n  plies of a game      {:>4} to {:<4} mean {:.1f}\n", evidence.lengths.least(),
                  evidence.lengths.greatest(), evidence.lengths.mean());
  out +=
      fmt::format("  moves in a position  {:>4} to {:<4} mean {:.1f}\n", evidence.choices.least(),
                  evidence.choices.greatest(), evidence.choices.mean());
}

void statements(std::string& out, const Game& game, const verify::CheckReport& report,
                const Paint& paint) {
  std::vector<RuleLine> lines = ruleLinesOf(game);
  if (lines.empty()) return;
  std::vector<std::uint64_t> uses = verify::usesOf(report);
  std::size_t unused =
      static_cast<std::size_t>(std::count(uses.begin(), uses.end(), std::uint64_t{0}));
  out += "\n" + paint.strong("Statements of the sheet") + "\n";
  bool whole = report.of(verify::CheckPart::playouts) == verify::Extent::whole &&
               report.of(verify::CheckPart::otherWays) == verify::Extent::whole;
  if (unused == 0)
    out += fmt::format("  all {} were used\n", lines.size());
  else
    out += fmt::format("  {} of {} were {}:\n", unused, lines.size(),
                       whole ? "never used" : "not used in the games that were played");
  for (std::size_t i = 0; i < lines.size(); ++i)
    if (uses[i] == 0) out += fmt::format("  line {:>3}  {}\n", lines[i].line, lines[i].text);
  std::size_t asked = 0;
  std::string notes;
  verify::Extent extent = report.of(verify::CheckPart::conditions);
  for (const verify::PartUse& part : report.parts) {
    std::string note = partNote(part);
    asked += note.empty();
    if (!note.empty()) notes += fmt::format("  line {:>3}  {}\n", part.line, note);
  }
  if (extent == verify::Extent::none)
    out += "  parts of their conditions were not looked at\n";
  else if (!report.parts.empty() && extent == verify::Extent::part)
    out += fmt::format(
        "  parts of their conditions were looked at in fewer games than usual: {} of {} "
        "held and did not\n  hold in these\n",
        asked, report.parts.size());
  else if (!report.parts.empty())
    out += notes.empty()
               ? fmt::format("  each of {} of their conditions held and did not hold\n",
                             plural(static_cast<long long>(report.parts.size()), "part"))
               : fmt::format("  {} of {} parts of their conditions held and did not hold, but\n",
                             asked, report.parts.size()) +
                     notes;
}

void otherWays(std::string& out, const Game& game, const verify::CheckReport& report,
               const Paint& paint) {
  if (report.of(verify::CheckPart::otherWays) <= verify::Extent::none) return;
  out += "\n" + paint.strong("Games drawn other ways") + "\n";
  for (const std::string& line : otherWayLines(game, report)) out += paint.wrapped(line, "  ");
}

void symmetries(std::string& out, const verify::CheckReport& report, const Paint& paint) {
  if (report.of(verify::CheckPart::symmetries) <= verify::Extent::none) return;
  const verify::SymmetryTrial& trial = report.symmetries;
  std::vector<std::pair<std::string, std::string>> rows = symmetryRows(trial);
  if (rows.empty()) return;
  out += "\n" + paint.strong("Symmetries that the sheet does not name") + "\n";
  for (const auto& [name, text] : rows) {
    std::string title = fmt::format("{:<8}", name);
    out += "  " + (name == "nearly" || name == "start" ? paint.bad(title) : title) + "  " +
           paint.wrapped(text, "            ").substr(12);
  }
}

void shown(std::string& out, const verify::CheckReport& report, const Paint& paint) {
  if (report.shown.empty()) return;
  out += "\n" + paint.strong("What each side is shown of the other's secrets") + "\n";
  for (const auto& [name, text] : disclosureRows(report))
    out += "  " + name + "  " + paint.wrapped(text, "            ").substr(12);
}

void remarks(std::string& out, const verify::CheckReport& report, const Paint& paint) {
  if (report.remarks.empty()) return;
  out += "\n" + paint.strong("Suspect, but no fault") + "\n";
  for (const verify::Remark& one : report.remarks) {
    std::string line = one.line > 0 ? fmt::format("line {:>3}  ", one.line) : "          ";
    std::string text = paint.wrapped(remarkText(one), "            ");
    out += "  " + line + text.substr(12);
  }
}

void findings(std::string& out, const Game& game, const verify::CheckReport& report,
              const Paint& paint) {
  int number = 0;
  for (const verify::Finding& finding : report.findings) {
    out +=
        "\n" + paint.bad(fmt::format("Fault {}: {}", ++number, verify::findingName(finding.kind)));
    if (finding.line > 0) out += ", line " + lineName(game.info(), finding.line);
    out += "\n" + paint.wrapped(finding.message, "  ");
    if (finding.way != verify::Steer::uniform)
      out += fmt::format("  met       in a game {}\n", verify::steerName(finding.way));
    if (!finding.from.empty()) out += "  from      " + finding.from + "\n";
    std::string how =
        finding.moves.empty() ? "none, the position itself" : joined(finding.moves, ", ");
    out += fmt::format("  {}  {}\n",
                       finding.kind == verify::FindingKind::example ? "played  "
                       : finding.shortest                           ? "shortest"
                                                                    : "moves   ",
                       how.size() > 400 ? clipped(how, 400) + " ..." : how);
    out += "  leads to  " + finding.position + "\n";
    if (finding.variant != game.info().variant) {
      if (!finding.variant.empty()) out += "  in variant " + finding.variant + "\n";
      continue;  // its board may be another
    }
    Marks marks;
    marks.shown = cellsOfFinding(game, finding);
    out += "\n" + boardsText(game, finding.last, marks, paint) + besidesText(game, finding.last);
    std::string block = verify::caseOf(game, finding);
    if (block.empty() || block.size() > caseBytes) continue;
    out += "\n  as a case of the sheet:\n";
    for (std::size_t at = 0, end; at < block.size(); at = end + 1) {
      end = std::min(block.find('\n', at), block.size());
      out += "    " + block.substr(at, end - at) + "\n";
    }
  }
}

}  // namespace

CellSet cellsOfFinding(const Game& game, const verify::Finding& finding) {
  if (finding.kind == verify::FindingKind::drawOverWin)
    for (const Result& end : game.checks()->endsThatHold(finding.last))
      if (end.kind == ResultKind::win) return game.cellsOfEnd(finding.last, end.end);
  return game.shownCells(finding.last);
}

std::vector<std::pair<std::string, std::string>> symmetryRows(const verify::SymmetryTrial& trial) {
  std::vector<std::pair<std::string, std::string>> out;
  auto list = [&](verify::Stands stands, const char* title) {
    std::vector<std::string> names;
    for (const verify::Tried& one : trial.all)
      if (one.stands == stands)
        names.push_back(one.symmetry.name + (stands == verify::Stands::holds && !one.start
                                                 ? " (not of the start)"
                                                 : ""));
    if (!names.empty()) out.emplace_back(title, joined(names, "; "));
  };
  list(verify::Stands::unknown, "open");
  list(verify::Stands::holds, trial.broken ? "so far" : "hold");
  list(verify::Stands::fails, "fail");
  for (const verify::Tried& one : trial.all)
    if (one.stands == verify::Stands::nearly)
      out.emplace_back(
          "nearly",
          fmt::format("{}, not in {} of {} positions: after {}, {}", one.symmetry.name, one.failed,
                      grouped(one.positions),
                      one.moves.empty() ? "no move" : clipped(joined(one.moves, ", "), 400),
                      one.message));
  if (trial.unevenStart)
    out.emplace_back("start", "the rules are the same for both sides, the start is not");
  return out;
}

std::vector<std::string> otherWayLines(const Game& game, const verify::CheckReport& report) {
  std::vector<RuleLine> lines = ruleLinesOf(game);
  std::vector<std::string> out, nothing;
  std::uint64_t games = 0;
  for (const verify::WayEvidence& way : report.ways) {
    if (way.games == 0) continue;
    std::vector<std::string> alone;
    for (std::size_t i : verify::reachedAlone(report, way))
      alone.push_back(fmt::format("line {}", lines[i].line));
    if (alone.empty()) {
      nothing.push_back(verify::steerName(way.way));
      games += way.games;
      continue;
    }
    out.push_back(fmt::format(
        "{}, {}: alone reached {}{}", verify::steerName(way.way),
        plural(static_cast<long long>(way.games), "game"), joined(alone, ", "),
        way.way == verify::Steer::changed ? "; no game from the start may come there" : ""));
  }
  if (!nothing.empty())
    out.push_back(fmt::format("{}, {}: reached nothing that others did not", joined(nothing, ", "),
                              plural(static_cast<long long>(games), "game")));
  return out;
}

std::vector<std::pair<std::string, std::string>> disclosureRows(const verify::CheckReport& report) {
  std::vector<std::pair<std::string, std::string>> out;
  for (const verify::Disclosure& one : report.shown) {
    auto mean = [&](std::uint64_t many) {
      return static_cast<double>(many) / static_cast<double>(std::max<std::uint64_t>(one.views, 1));
    };
    std::string says;
    if (one.spoke == 0)
      says = "never showed anything";
    else if (one.words > 0)
      says = fmt::format("says {:.1f} words on average", mean(one.words));
    else
      says = fmt::format("shows {:.1f} cells on average; {}", mean(one.cells),
                         one.hidden == 0 ? "no hidden piece stands on them"
                         : one.hidden == one.cells
                             ? "a hidden piece stands on each"
                             : fmt::format("on {:.1f} % a hidden piece stands",
                                           100 * mean(one.hidden) / mean(one.cells)));
    out.emplace_back(fmt::format("line {:>3}", one.line.line), one.line.text + ": " + says);
  }
  return out;
}

std::string endedText(const Game& game, const verify::Evidence::Outcome& outcome) {
  const auto& [end, winner, name] = outcome;
  return resultText(game, winner < 0 ? Result::draw(name, end) : Result::win(winner, name, end));
}

std::string passedText(const verify::CheckReport& report) {
  auto passed = std::count_if(report.examples.begin(), report.examples.end(),
                              [](const verify::ExampleRun& run) { return run.findings.empty(); });
  std::size_t all = std::max(report.cases, report.examples.size());
  return fmt::format(
      "{} of {} passed{}", passed, report.examples.size(),
      all == report.examples.size()
          ? ""
          : fmt::format("; {} of {} were not run", all - report.examples.size(), all));
}

std::string caseName(const verify::ExampleRun& run) {
  return run.variant.empty() ? run.name : run.name + " (variant " + run.variant + ")";
}

std::string remarkText(const verify::Remark& remark) {
  return remark.message + (remark.hint.empty() ? "" : "; " + remark.hint);
}

// A line of the sheet, and a text beside it, or below it where its name is long.
static std::string besideLine(const std::string& line, const std::string& text,
                              const Paint& paint) {
  constexpr std::size_t room = 12;
  std::string head = fmt::format("  line {:>3}  ", line);
  std::string wide = paint.wrapped(text, std::string(room, ' '));
  return head.size() > room ? "  line " + line + "\n" + paint.faint(wide)
                            : head + paint.faint(wide.substr(room));
}

std::string checkText(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const Paint& paint) {
  const verify::Evidence& evidence = report.evidence;
  std::string out = paint.strong(game.info().title);
  if (!game.info().variant.empty()) out += ", variant " + game.info().variant;
  out += fmt::format(": {} random playouts, seed {}\n", grouped(evidence.playouts), options.seed);
  if (report.stopped)
    out += paint.bad(paint.wrapped(
        "stopped early; not looked at: " + joined(unlookedParts(options, report), ", "), "  "));
  if (report.endless)
    out +=
        paint.bad(fmt::format("  broken off: {} of these playouts came to no end; {} were "
                              "asked for\n",
                              evidence.unfinished, grouped(options.playouts)));
  if (report.cases > 0) {
    out += fmt::format("\n{}  {}\n", paint.strong("Cases of the sheet"), passedText(report));
    for (const verify::ExampleRun& run : report.examples)
      if (!run.findings.empty())
        out += fmt::format("  line {:>3}  {}{}\n", lineName(game.info(), run.line),
                           paint.bad("failed: "), caseName(run));
    for (const verify::ExampleRun& run : report.examples)
      if (!run.broken.empty())
        out += besideLine(
            lineName(game.info(), run.line),
            "its position is none of the game, so no game is played from it: " +
                run.broken.front() +
                (run.broken.size() == 1 ? "" : fmt::format(", and {} more", run.broken.size() - 1)),
            paint);
  }
  out += "\n";
  results(out, game, evidence, paint);
  if (evidence.symmetryTests > 0)
    out += fmt::format("  symmetry held in     {} positions\n", grouped(evidence.symmetryTests));
  if (report.viewPairs > 0)
    out +=
        fmt::format("  nothing leaked in    {} pairs of positions that look the same to a side\n",
                    grouped(report.viewPairs));
  for (const std::string& line : shareLines(game, report)) out += "  " + line + "\n";
  if (report.every) out += everyText(game, *report.every, paint);
  otherWays(out, game, report, paint);
  statements(out, game, report, paint);
  symmetries(out, report, paint);
  shown(out, report, paint);
  remarks(out, report, paint);
  findings(out, game, report, paint);
  std::string verdict = paint.wrapped(verdictText(options, report), "");
  out += "\n" +
         (report.findings.empty() && report.complete() ? paint.good(verdict) : paint.bad(verdict)) +
         paint.faint(paint.wrapped(notLookedAt(game, options, report), ""));
  return out;
}

}  // namespace ninepegs::report
