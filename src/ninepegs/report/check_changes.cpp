#include "ninepegs/report/check_changes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/report/check_text.hpp"

namespace ninepegs::report {
namespace {

// What a check says, a line each, without numbers of lines: they move when the sheet is edited.
std::vector<std::string> said(const Game& game, const verify::CheckReport& report) {
  std::vector<std::string> out;
  for (const verify::Finding& finding : report.findings)
    out.push_back(finding.kind == verify::FindingKind::example
                      ? fmt::format("the case \"{}\" fails", finding.example)
                      : fmt::format("fault: {}", verify::findingName(finding.kind)));
  for (const verify::Remark& one : report.remarks) out.push_back("suspect: " + one.message);
  std::vector<RuleLine> lines = ruleLinesOf(game);
  std::vector<std::uint64_t> uses = verify::usesOf(report);
  for (std::size_t i = 0; i < lines.size(); ++i)
    if (uses[i] == 0) out.push_back("never used: " + std::string(trimmed(lines[i].text)));
  for (const auto& [outcome, times] : report.evidence.outcomes)
    out.push_back("a result: " + endedText(game, outcome));
  for (const verify::Tried& one : report.symmetries.all)
    if (one.stands != verify::Stands::fails)
      out.push_back(fmt::format("the symmetry {}: {}", one.symmetry.name,
                                one.stands == verify::Stands::holds    ? "holds"
                                : one.stands == verify::Stands::nearly ? "nearly holds"
                                                                       : "was not looked at"));
  return out;
}

// Lines of the rules, without comments and blanks.
std::vector<std::string> sheetLines(const Game& game) {
  std::vector<std::string> out;
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr || !sheet->rules().source) return out;
  const sheet::Source& source = *sheet->rules().source;
  for (int line = 1; line < source.firstOfCases(); ++line) {
    std::string text(trimmed(sheet::withoutComment(source.line(line))));
    if (!text.empty()) out.push_back(std::move(text));
  }
  return out;
}

// How often each result came, and how long games were: a change of the rules seldom leaves them.
std::vector<std::string> numbersChanged(const Game& before, const verify::Evidence& was,
                                        const Game& after, const verify::Evidence& is) {
  std::map<std::string, std::pair<std::uint64_t, std::uint64_t>> times;
  for (const auto& [outcome, many] : was.outcomes) times[endedText(before, outcome)].first += many;
  for (const auto& [outcome, many] : is.outcomes) times[endedText(after, outcome)].second += many;
  std::vector<std::string> out;
  for (const auto& [name, many] : times)
    if (many.first != many.second && many.first > 0 && many.second > 0)
      out.push_back(fmt::format("\"{}\" came {} times, now {}", name, grouped(many.first),
                                grouped(many.second)));
  auto mean = [&](const char* what, const verify::Spread& one, const verify::Spread& other) {
    if (one.times != other.times)
      out.push_back(fmt::format("{}: {} to {}, mean {:.2f}, now {} to {}, mean {:.2f}", what,
                                one.least(), one.greatest(), one.mean(), other.least(),
                                other.greatest(), other.mean()));
  };
  mean("plies of a game", was.lengths, is.lengths);
  mean("moves in a position", was.choices, is.choices);
  return out;
}

}  // namespace

std::string changesText(const Game& before, const verify::CheckReport& was, const Game& after,
                        const verify::CheckReport& is, const Paint& paint) {
  std::vector<std::string> old = said(before, was), now = said(after, is);
  std::string out = paint.strong("Since the check before") + "\n", changes;
  std::vector<std::string> oldLines = sheetLines(before), newLines = sheetLines(after);
  if (!was.complete() || !is.complete())
    out += paint.bad("  one of the two checks is not complete: what is compared may come of that") +
           "\n";
  auto add = [&](const std::vector<std::string>& of, const std::vector<std::string>& less,
                 const char* title) {
    for (const std::string& one : of)
      if (std::find(less.begin(), less.end(), one) == less.end())
        changes += fmt::format("  {:<5} {}\n", title, one);
  };
  constexpr std::size_t shownLines = 12;
  std::size_t lines = 0;
  auto inSheet = [&](const std::vector<std::string>& of, std::vector<std::string> less,
                     const char* title) {
    for (const std::string& one : of) {
      auto it = std::find(less.begin(), less.end(), one);
      if (it != less.end())
        less.erase(it);
      else if (++lines <= shownLines)
        changes += fmt::format("  {:<5} {}\n", title, one);
    }
  };
  inSheet(oldLines, newLines, "sheet -");
  inSheet(newLines, oldLines, "sheet +");
  if (lines > shownLines) changes += fmt::format("  and {} more lines\n", lines - shownLines);
  if (lines == 0 && oldLines != newLines) changes += "  the sheet's lines stand in another order\n";
  for (const std::string& one : numbersChanged(before, was.evidence, after, is.evidence))
    changes += fmt::format("  {:<5} {}\n", "other", one);
  std::size_t begun = changes.size();
  add(now, old, "new");
  add(old, now, "gone");
  if (lines > 0 && changes.size() == begun)
    changes += "  of what the check says nothing is new or gone\n";
  return out + (changes.empty() ? "  nothing changed, neither in the sheet nor in what was found\n"
                                : changes);
}

}  // namespace ninepegs::report
