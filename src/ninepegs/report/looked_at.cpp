// Of how much a check speaks: for every form of its report.
#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/verify/shares.hpp"

namespace ninepegs::report {

std::vector<std::string> shareLines(const Game& game, const verify::CheckReport& report) {
  constexpr double confidence = 0.95;
  const verify::Evidence& evidence = report.evidence;
  std::vector<std::string> out;
  std::uint64_t wins = 0, ended = 0, faulty = 0;
  for (const auto& [outcome, times] : evidence.outcomes) {
    ended += times;
    if (std::get<1>(outcome) == 0) wins += times;
  }
  for (const verify::Finding& finding : report.findings)
    faulty += finding.kind == verify::FindingKind::example ? 0 : 1;
  if (ended > 0) {
    verify::Interval share = verify::shareInterval(wins, ended, confidence);
    out.push_back(fmt::format("{} wins {:.1f} % to {:.1f} % of random games", game.info().sides[0],
                              100 * share.least, 100 * share.greatest));
  }
  if (evidence.playouts > 0 && faulty == 0 && !report.every)
    out.push_back(fmt::format("a fault that was not met shows in fewer than {:.3g} % of them",
                              100 * verify::unseenBelow(evidence.playouts, confidence)));
  return out;
}

std::string partName(verify::CheckPart part) {
  static const char* const names[] = {"cases",
                                      "random playouts",
                                      "games drawn other ways",
                                      "remarks",
                                      "symmetries that the sheet does not name",
                                      "parts of conditions",
                                      "secrets"};
  return names[static_cast<int>(part)];
}

std::string extentName(verify::Extent extent) {
  static const char* const names[] = {"not asked for", "nothing", "part", "all"};
  return names[static_cast<int>(extent)];
}

std::vector<std::string> unlookedParts(const verify::CheckOptions& options,
                                       const verify::CheckReport& report) {
  std::vector<std::string> out;
  for (int i = 0; i < verify::checkParts; ++i) {
    auto part = static_cast<verify::CheckPart>(i);
    verify::Extent extent = report.of(part);
    if (extent != verify::Extent::none && extent != verify::Extent::part) continue;
    std::string name = partName(part);
    if (part == verify::CheckPart::playouts)
      name = fmt::format("{} of {} random playouts",
                         grouped(options.playouts - report.evidence.playouts),
                         grouped(options.playouts));
    else if (part == verify::CheckPart::cases)
      name = fmt::format("{} of {} cases", report.cases - report.examples.size(), report.cases);
    else if (extent == verify::Extent::part)
      name += " (only in part)";
    out.push_back(name);
  }
  return out;
}

std::string verdictText(const verify::CheckOptions& options, const verify::CheckReport& report) {
  std::string found =
      report.findings.empty()
          ? "No fault found"
          : plural(static_cast<long long>(report.findings.size()), "fault") + " found";
  if (report.complete()) return found + ".";
  return fmt::format("{} in what was looked at, which is not all: {} of {} playouts.", found,
                     grouped(report.evidence.playouts), grouped(options.playouts));
}

std::string notLookedAt(const Game& game, const verify::CheckOptions& options,
                        const verify::CheckReport& report) {
  std::vector<std::string> parts = unlookedParts(options, report);
  bool every = report.every && report.every->complete();
  std::vector<std::uint64_t> uses = verify::usesOf(report);
  auto unused = static_cast<long long>(std::count(uses.begin(), uses.end(), std::uint64_t{0}));
  if (unused > 0)
    parts.push_back(plural(unused, "statement") + (report.complete()
                                                       ? " that no game used"
                                                       : " that no game that was played used"));
  if (!every) parts.push_back("positions that random games do not reach");
  if (game.checks() != nullptr && game.checks()->invariants().empty())
    parts.push_back("what must always hold: the sheet does not say it");
  if (options.examples && report.cases == 0) parts.push_back("cases: the sheet has none");
  parts.push_back("whether the rules are those that were meant (`ninepegs ask` asks for that)");
  return "Not looked at: " + joined(parts, "; ") + ".";
}

}  // namespace ninepegs::report
