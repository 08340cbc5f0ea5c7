#include "ninepegs/report/check_changes.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
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
                                one.stands == verify::Stands::holds ? "holds" : "nearly holds"));
  return out;
}

}  // namespace

std::string changesText(const Game& before, const verify::CheckReport& was, const Game& after,
                        const verify::CheckReport& is, const Paint& paint) {
  std::vector<std::string> old = said(before, was), now = said(after, is);
  std::string out = paint.strong("Since the check before") + "\n", changes;
  auto add = [&](const std::vector<std::string>& of, const std::vector<std::string>& less,
                 const char* title) {
    for (const std::string& one : of)
      if (std::find(less.begin(), less.end(), one) == less.end())
        changes += fmt::format("  {:<5} {}\n", title, one);
  };
  add(now, old, "new");
  add(old, now, "gone");
  return out + (changes.empty() ? "  nothing changed\n" : changes);
}

}  // namespace ninepegs::report
