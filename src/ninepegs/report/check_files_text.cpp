#include "ninepegs/report/check_files_text.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/markup.hpp"

namespace ninepegs::report {
namespace {

using verify::FindingKind;

constexpr FindingKind watched[] = {
    FindingKind::overwrite, FindingKind::drawOverWin, FindingKind::noEnd,
    FindingKind::runaway,   FindingKind::endless,     FindingKind::growing,
    FindingKind::symmetry,  FindingKind::leak,        FindingKind::ambiguous};

const char* says(FindingKind kind) {
  switch (kind) {
    case FindingKind::example:
      return "A case of the sheet fails.";
    case FindingKind::overwrite:
      return "A piece is put where one stands.";
    case FindingKind::drawOverWin:
      return "A draw is announced though a side has won.";
    case FindingKind::noEnd:
      return "Nobody can move and no end holds.";
    case FindingKind::runaway:
      return "A move goes on without end.";
    case FindingKind::endless:
      return "A game goes on without end: a position comes again.";
    case FindingKind::growing:
      return "A number grows or falls without bound, and the game does not end.";
    case FindingKind::invariant:
      return "A line of `always` does not hold.";
    case FindingKind::symmetry:
      return "A symmetry of the sheet does not hold.";
    case FindingKind::leak:
      return "A side learns what is secret.";
    case FindingKind::ambiguous:
      return "Two moves to different positions have one text.";
  }
  return "";
}

// The same as something that holds.
const char* holds(FindingKind kind) {
  switch (kind) {
    case FindingKind::overwrite:
      return "no piece is put where one stands";
    case FindingKind::drawOverWin:
      return "no draw hides a win";
    case FindingKind::noEnd:
      return "there is a move, or an end holds";
    case FindingKind::runaway:
      return "every move comes to an end";
    case FindingKind::endless:
      return "no game goes round for ever";
    case FindingKind::growing:
      return "no number runs away";
    case FindingKind::symmetry:
      return "symmetries hold";
    case FindingKind::leak:
      return "nothing secret leaks";
    case FindingKind::ambiguous:
      return "different moves have different texts";
    case FindingKind::example:
    case FindingKind::invariant:
      break;
  }
  return says(kind);
}

std::string failure(const Game& game, const verify::Finding& finding) {
  return fmt::format(
      "    <failure type=\"{}\" message=\"{}\">line {}\nmoves: {}\nposition: {}\n</failure>\n",
      escaped(verify::findingName(finding.kind)), escaped(finding.message),
      escaped(lineName(game.info(), finding.line)), escaped(joined(finding.moves, ", ")),
      escaped(finding.position));
}

// A file's name as a relative or absolute reference of RFC 3986.
std::string reference(const std::string& path) {
  std::string out = path.starts_with("/") ? "file://" : "";
  for (char c : path) {
    bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ||
                 c == '/' || c == '-' || c == '_' || c == '.' || c == '~';
    out += plain ? std::string(1, c) : fmt::format("%{:02X}", static_cast<unsigned char>(c));
  }
  return out;
}

}  // namespace

std::string junitXml(const Game& game, const verify::CheckOptions& options,
                     const verify::CheckReport& report) {
  std::string suite = escaped(game.info().id);
  std::size_t failures = 0, tests = 0, skipped = 0;
  std::string body;
  // What was not looked at is skipped; a failure that was met is one all the same.
  auto notDone = [&](const std::string& name, const std::string& why) {
    ++tests, ++skipped;
    body += fmt::format(
        "  <testcase classname=\"{}\" name=\"{}\">\n    <skipped message=\"{}\"/>\n"
        "  </testcase>\n",
        suite, escaped(name), escaped(why));
  };
  auto testCase = [&](const std::string& name, const std::string& inside) {
    ++tests;
    body += fmt::format("  <testcase classname=\"{}\" name=\"{}\"", suite, escaped(name));
    body += inside.empty() ? "/>\n" : ">\n" + inside + "  </testcase>\n";
    if (!inside.empty()) ++failures;
  };
  // A test has one failure: the first.
  auto found = [&](auto wanted) {
    for (const verify::Finding& finding : report.findings)
      if (wanted(finding)) return failure(game, finding);
    return std::string();
  };
  for (const verify::ExampleRun& run : report.examples)
    testCase(caseName(run), run.findings.empty() ? "" : failure(game, run.findings.front()));
  if (report.cases > report.examples.size())
    notDone("cases that were not run",
            fmt::format("{} of {}", report.cases - report.examples.size(), report.cases));
  // Recorded games that the rules do not allow.
  for (const verify::Finding& finding : report.findings) {
    bool ofTheSheet =
        std::any_of(report.examples.begin(), report.examples.end(),
                    [&](const verify::ExampleRun& run) { return run.name == finding.example; });
    if (finding.kind == FindingKind::example && !ofTheSheet)
      testCase("record: " + finding.example, failure(game, finding));
  }
  std::string playouts =
      fmt::format(" ({} playouts, seed {})", report.evidence.playouts, options.seed);
  bool whole = report.of(verify::CheckPart::playouts) == verify::Extent::whole &&
               report.of(verify::CheckPart::otherWays) != verify::Extent::none &&
               report.of(verify::CheckPart::otherWays) != verify::Extent::part;
  bool secrets = report.of(verify::CheckPart::secrets) == verify::Extent::whole ||
                 report.of(verify::CheckPart::secrets) == verify::Extent::notAsked;
  std::string why = fmt::format("not complete: {} of {} playouts were played",
                                report.evidence.playouts, options.playouts);
  auto watchedCase = [&](const std::string& name, const std::string& inside, bool complete) {
    if (inside.empty() && !complete) return notDone(name, why);
    testCase(name, inside);
  };
  if (game.checks() != nullptr)
    for (const Invariant& one : game.checks()->invariants())
      watchedCase("always " + one.text + playouts, found([&](const verify::Finding& finding) {
                    return finding.kind == FindingKind::invariant && finding.line == one.line;
                  }),
                  whole);
  for (FindingKind kind : watched)
    watchedCase(holds(kind) + playouts,
                found([&](const verify::Finding& finding) { return finding.kind == kind; }),
                kind == FindingKind::leak ? secrets : whole);
  return fmt::format(
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
      "<testsuite name=\"{}\" tests=\"{}\" failures=\"{}\" errors=\"0\" skipped=\"{}\">\n"
      "{}</testsuite>\n",
      suite, tests, failures, skipped, body);
}

std::string sarifJson(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const std::string& version) {
  Json driver;
  driver["name"] = "Nine Pegs";
  driver["version"] = version;
  driver["rules"] = Json::array();
  auto rule = [&](const std::string& id, const std::string& text) {
    driver["rules"].push_back({{"id", id}, {"shortDescription", {{"text", text}}}});
  };
  auto idOf = [](FindingKind kind) {
    std::string id = verify::findingName(kind);
    for (char& c : id) c = c == ' ' ? '-' : c;
    return id;
  };
  rule(idOf(FindingKind::example), says(FindingKind::example));
  rule(idOf(FindingKind::invariant), says(FindingKind::invariant));
  for (FindingKind kind : watched) rule(idOf(kind), says(kind));
  rule("remark", "What is legal but suspect.");
  Json results = Json::array();
  auto add = [&](const std::string& id, const char* level, const std::string& text, int line) {
    LinePlace place = placeOfLine(game.info(), line);
    Json physical;
    physical["artifactLocation"]["uri"] = reference(place.file);
    if (place.line > 0) physical["region"]["startLine"] = place.line;
    Json result;
    result["ruleId"] = id;
    result["level"] = level;
    result["message"]["text"] = text;
    if (!place.file.empty())
      result["locations"] = Json::array({Json{{"physicalLocation", physical}}});
    results.push_back(result);
  };
  for (const verify::Finding& finding : report.findings) {
    std::string text = finding.message;
    if (!finding.moves.empty()) text += "; after " + joined(finding.moves, ", ");
    if (finding.kind != FindingKind::example && !finding.variant.empty())
      text += "; variant " + finding.variant;
    add(idOf(finding.kind), "error", text, finding.line);
  }
  for (const verify::Remark& one : report.remarks) add("remark", "note", remarkText(one), one.line);
  Json run;
  run["tool"]["driver"] = driver;
  Json invocation;
  invocation["executionSuccessful"] = report.complete();
  if (!report.complete()) {
    Json note;
    note["level"] = "warning";
    note["message"]["text"] =
        "the check is not complete; not looked at: " + joined(unlookedParts(options, report), ", ");
    invocation["toolExecutionNotifications"] = Json::array({note});
  }
  run["invocations"] = Json::array({invocation});
  run["columnKind"] = "unicodeCodePoints";
  run["results"] = results;
  Json out;
  out["$schema"] = "https://json.schemastore.org/sarif-2.1.0.json";
  out["version"] = "2.1.0";
  out["runs"] = Json::array({run});
  return jsonText(out, 2) + "\n";
}

}  // namespace ninepegs::report
