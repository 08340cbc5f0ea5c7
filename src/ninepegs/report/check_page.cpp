#include "ninepegs/report/check_page.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/every_text.hpp"
#include "ninepegs/report/listing.hpp"
#include "ninepegs/report/markup.hpp"
#include "ninepegs/verify/shares.hpp"

namespace ninepegs::report {
namespace {

constexpr const char* pageStyle = R"(
  :root { --ink: #2b2622; --faint: #8a8178; --line: #d9d0c4; --wood: #b98a4e; --bad: #a63226;
          --good: #3f6b45; --paper: #fdfaf5; }
  body { margin: 0 auto; max-width: 62rem; padding: 1.5rem 2rem 3rem; background: var(--paper);
         color: var(--ink); font: 15px/1.45 "DejaVu Sans", Verdana, sans-serif; }
  h1 { margin: 0; font-size: 1.6rem; }
  h2 { margin: 2rem 0 .6rem; font-size: 1.1rem; border-bottom: 2px solid var(--wood);
       padding-bottom: .2rem; }
  .sub { color: var(--faint); margin: .2rem 0 1rem; }
  .verdict { font-size: 1.15rem; font-weight: bold; padding: .6rem .9rem; border-left: 6px solid; }
  .good { color: var(--good); } .bad { color: var(--bad); }
  table { border-collapse: collapse; } td, th { padding: .15rem .9rem .15rem 0; text-align: left;
       vertical-align: top; font-weight: normal; }
  th { color: var(--faint); } td.n { text-align: right; font-variant-numeric: tabular-nums; }
  .bar { display: inline-block; height: .8em; background: var(--wood); }
  .charts { display: flex; gap: 2rem; margin-top: 1.2rem; flex-wrap: wrap; } figure { margin: 0; }
  figcaption { color: var(--faint); font-size: .85rem; }
  .finding { border: 1px solid var(--line); border-left: 6px solid var(--bad); padding: .7rem 1rem;
             margin: .8rem 0; break-inside: avoid; }
  .finding img { max-width: 22rem; max-height: 22rem; display: block; margin-top: .6rem; }
  .moves { font-family: "DejaVu Sans Mono", monospace; font-size: .85rem; }
  .sheet { font: 13px/1.5 "DejaVu Sans Mono", monospace; border: 1px solid var(--line);
           overflow-x: auto; }
  .sheet table { width: 100%; } .sheet td { padding: 0 .6rem; white-space: pre; }
  .sheet td.n { color: var(--faint); width: 1%; }
  .note td { color: var(--bad); padding-left: 2.5rem !important; }
  .never { background: #f3d9d2; } .never td.n { color: var(--bad); font-weight: bold; }
  @media print { body { background: #fff; padding: 0; } }
)";

class Page {
 public:
  Page(const Game& game, const verify::CheckOptions& options, const verify::CheckReport& report,
       const FindingFigure& figure, const MutantsPart& mutants)
      : game_(game), options_(options), report_(report), figure_(figure), mutants_(mutants) {}

  std::string all() {
    std::string title = game_.info().title;
    if (!game_.info().variant.empty()) title += ", variant " + game_.info().variant;
    out_ =
        "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n"
        "<meta name=\"viewport\" content=\"width=device-width\">\n<title>Check of " +
        escaped(title) + "</title>\n<style>" + pageStyle + "</style>\n</head>\n<body>\n";
    out_ += "<h1>" + escaped(title) + "</h1>\n";
    out_ += fmt::format("<p class=\"sub\">{} random playouts, seed {}. {}</p>\n",
                        grouped(report_.evidence.playouts), options_.seed,
                        escaped(game_.info().source));
    verdict();
    looked();
    findings();
    results();
    every();
    symmetries();
    shown();
    remarks();
    otherWays();
    coverage();
    cases();
    mutants();
    heading("What was not looked at");
    out_ += "<p>" + escaped(notLookedAt(game_, options_, report_)) + "</p>\n</body>\n</html>\n";
    return std::move(out_);
  }

 private:
  void heading(const std::string& text) { out_ += "<h2>" + escaped(text) + "</h2>\n"; }
  void row(const std::string& name, const std::string& text) {
    out_ += "<tr><th>" + escaped(name) + "</th><td>" + escaped(text) + "</td></tr>\n";
  }

  void verdict() {
    bool good = report_.findings.empty();
    std::string text = escaped(verdictText(options_, report_));
    good = good && report_.complete();
    out_ += fmt::format("<p class=\"verdict {}\">{}</p>\n", good ? "good" : "bad", text);
  }

  void looked() {
    out_ += "<table>\n";
    if (report_.cases > 0) row("cases of the sheet", passedText(report_));
    for (const std::string& part : unlookedParts(options_, report_)) row("not looked at", part);
    for (const std::string& line : shareLines(game_, report_)) row("random games", line);
    if (report_.evidence.symmetryTests > 0)
      row("symmetries", grouped(report_.evidence.symmetryTests) + " positions compared");
    if (report_.viewPairs > 0)
      row("secrets", grouped(report_.viewPairs) + " pairs of positions compared");
    out_ += "</table>\n";
  }

  void findings() {
    if (report_.findings.empty()) return;
    heading("Faults");
    for (const verify::Finding& finding : report_.findings) {
      out_ += "<div class=\"finding\"><b>" + escaped(verify::findingName(finding.kind));
      if (finding.line > 0) out_ += ", line " + escaped(lineName(game_.info(), finding.line));
      out_ += "</b><br>" + escaped(finding.message) + "\n";
      if (!finding.from.empty())
        out_ += "<div class=\"moves\">from " + escaped(finding.from) + "</div>\n";
      if (!finding.moves.empty())
        out_ += fmt::format(
            "<div class=\"moves\">{} {}</div>\n",
            finding.shortest ? "shortest game:" : "moves:", escaped(joined(finding.moves, ", ")));
      std::string svg = figure_ ? figure_(finding) : "";
      if (!svg.empty())
        out_ += "<img alt=\"the position\" src=\"data:image/svg+xml;base64," + base64(svg) + "\">";
      out_ += "</div>\n";
    }
  }

  void results() {
    const verify::Evidence& evidence = report_.evidence;
    if (evidence.playouts == 0) return;
    heading("How the games ended");
    out_ += "<table>\n";
    auto result = [&](const std::string& text, std::uint64_t times) {
      double percent = 100.0 * static_cast<double>(times) / static_cast<double>(evidence.playouts);
      out_ += fmt::format(
          "<tr><td>{}</td><td class=\"n\">{}</td><td class=\"n\">{:.1f} %</td><td><span "
          "class=\"bar\" style=\"width:{:.1f}em\"></span></td></tr>\n",
          escaped(text), grouped(times), percent, percent / 6);
    };
    for (const auto& [outcome, times] : evidence.outcomes) result(endedText(game_, outcome), times);
    std::uint64_t stuck = evidence.unfinished - evidence.tooLong - evidence.givenUp;
    if (evidence.tooLong > 0)
      result(fmt::format("not ended after {} plies", grouped(evidence.lengths.greatest())),
             evidence.tooLong);
    if (evidence.givenUp > 0) result("given up, too many steps", evidence.givenUp);
    if (stuck > 0) result("without an end", stuck);
    out_ += "</table>\n<div class=\"charts\">\n";
    chart("plies of a game", evidence.lengths);
    chart("moves in a position", evidence.choices);
    out_ += "</div>\n";
  }

  // Bars by ranges of equal width.
  void chart(const std::string& name, const verify::Spread& spread) {
    constexpr std::uint64_t bars = 40;
    constexpr double wide = 400, high = 120;
    if (spread.times.empty()) return;
    std::uint64_t least = spread.least(), range = spread.greatest() - least + 1;
    std::uint64_t step = (range + bars - 1) / bars;
    std::vector<std::uint64_t> counts((range + step - 1) / step, 0);
    for (const auto& [value, times] : spread.times) counts[(value - least) / step] += times;
    auto most = static_cast<double>(*std::max_element(counts.begin(), counts.end()));
    double bar = wide / static_cast<double>(counts.size());
    out_ += fmt::format(
        "<figure><svg width=\"{0}\" height=\"{1}\" viewBox=\"0 0 {0} {1}\" "
        "role=\"img\">\n",
        wide, high + 18);
    for (std::size_t i = 0; i < counts.size(); ++i) {
      double height = high * static_cast<double>(counts[i]) / most;
      out_ += fmt::format(
          "<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"{:.1f}\" fill=\"#b98a4e\"/>\n",
          bar * static_cast<double>(i), high - height, std::max(1.0, bar - 1), height);
    }
    out_ += fmt::format(
        "<text x=\"0\" y=\"{0}\" font-size=\"12\" fill=\"#8a8178\">{1}</text><text x=\"{2}\" "
        "y=\"{0}\" font-size=\"12\" fill=\"#8a8178\" text-anchor=\"end\">{3}</text></svg>\n",
        high + 14, least, wide, spread.greatest());
    out_ += fmt::format("<figcaption>{}, mean {:.1f}</figcaption></figure>\n", escaped(name),
                        spread.mean());
  }

  void every() {
    if (!report_.every) return;
    heading("Every position");
    const verify::EveryReport& every = *report_.every;
    out_ += "<table>\n";
    row("positions",
        grouped(every.positions) + (every.complete() ? "" : ", and there are more: broken off"));
    if (every.classes) row("up to symmetry", grouped(*every.classes));
    row("every check made in", grouped(every.goneThrough));
    for (const verify::Reached& one : every.ends)
      row((one.outcome.winner < 0 ? std::string("draw") : game_.info().sides[one.outcome.winner]) +
              ": " + one.name,
          grouped(one.positions) + " positions, soonest after " + pliesText(one.soonest.size()));
    if (every.solved) {
      row("best play", bestPlayText(game_, every));
      row("longest game", every.longest ? pliesText(*every.longest) : "positions can come again");
    }
    out_ += "</table>\n";
  }

  void symmetries() {
    std::vector<std::pair<std::string, std::string>> rows = symmetryRows(report_.symmetries);
    if (rows.empty() || report_.of(verify::CheckPart::symmetries) <= verify::Extent::none) return;
    heading("Symmetries that the sheet does not name");
    out_ += "<table>\n";
    for (const auto& [name, text] : rows) row(name, text);
    out_ += "</table>\n";
  }

  void shown() {
    if (report_.shown.empty()) return;
    heading("What each side is shown of the other's secrets");
    out_ += "<table>\n";
    for (const auto& [name, text] : disclosureRows(report_)) row(name, text);
    out_ += "</table>\n";
  }

  void remarks() {
    if (report_.remarks.empty()) return;
    heading("Suspect, but no fault");
    out_ += "<table>\n";
    for (const verify::Remark& one : report_.remarks)
      row(fmt::format("line {}", one.line), remarkText(one));
    out_ += "</table>\n";
  }

  void otherWays() {
    if (report_.of(verify::CheckPart::otherWays) <= verify::Extent::none) return;
    heading("Games drawn other ways");
    for (const std::string& line : otherWayLines(game_, report_))
      out_ += "<p>" + escaped(line) + "</p>\n";
  }

  // The sheet, with how often each line was used.
  void coverage() {
    std::vector<ListedLine> lines = listing(game_, report_);
    if (lines.empty()) return;
    heading("The sheet, and how often each statement was used");
    out_ += "<div class=\"sheet\"><table>\n";
    for (const ListedLine& one : lines) {
      bool never = one.uses && *one.uses == 0;
      out_ += fmt::format("<tr{}><td class=\"n\">{}</td><td class=\"n\">{}</td><td>{}</td></tr>\n",
                          never ? " class=\"never\"" : "", one.line,
                          !one.uses ? ""
                          : never   ? "never"
                                    : grouped(*one.uses),
                          escaped(one.text));
      for (const std::string& note : one.notes)
        out_ += fmt::format("<tr class=\"note\"><td></td><td></td><td>{}</td></tr>\n",
                            escaped("^ " + note));
    }
    out_ += "</table></div>\n";
  }

  void cases() {
    if (report_.examples.empty()) return;
    heading("Cases");
    out_ += "<table>\n";
    for (const verify::ExampleRun& run : report_.examples) {
      bool good = run.findings.empty();
      out_ += fmt::format("<tr><td class=\"{}\">{}</td><td>{}</td><th>line {}</th></tr>\n",
                          good ? "good" : "bad", good ? "passed" : "failed", escaped(caseName(run)),
                          escaped(lineName(game_.info(), run.line)));
    }
    out_ += "</table>\n";
  }

  // Slips that the sheet would notice, and those that it would not.
  void mutants() {
    if (mutants_.mutants == nullptr) return;
    MutantTotals totals = totalsOf(*mutants_.mutants);
    heading("One slip at a time: would the sheet notice?");
    out_ +=
        fmt::format("<p>{} with one slip each; of those that differ, {:.1f} % are noticed.{}</p>",
                    plural(static_cast<long long>(totals.all), "mutant"), totals.noticed(),
                    mutants_.how.stopped ? " Stopped early: not all were looked at." : "");
    out_ += "\n<table>\n";
    for (const auto& [many, says] : mutantCounts(*mutants_.mutants, mutants_.how))
      out_ += fmt::format("<tr><td class=\"n\">{}</td><td>{}</td></tr>\n", many, escaped(says));
    out_ += "</table>\n";
    std::vector<MissedMutant> missed = missedMutants(*mutants_.mutants, mutants_.how);
    if (missed.empty()) return;
    out_ += "<p>Not noticed, each with the shortest game that was found:</p>\n<table>\n";
    for (const MissedMutant& one : missed)
      out_ +=
          fmt::format("<tr><th>line {}</th><td>{}<br><span class=\"moves\">{}</span></td></tr>\n",
                      one.line, escaped(one.slip), escaped(one.shows));
    out_ += "</table>\n";
  }

  const Game& game_;
  const verify::CheckOptions& options_;
  const verify::CheckReport& report_;
  const FindingFigure& figure_;
  const MutantsPart& mutants_;
  std::string out_;
};

}  // namespace

std::string checkPage(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const FindingFigure& figure,
                      const MutantsPart& mutants) {
  return Page(game, options, report, figure, mutants).all();
}

}  // namespace ninepegs::report
