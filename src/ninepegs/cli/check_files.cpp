#include "ninepegs/cli/check_files.hpp"

#include <fmt/format.h>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/draw/board_figure.hpp"
#include "ninepegs/draw/chart.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/records/game_record.hpp"
#include "ninepegs/records/movetext.hpp"
#include "ninepegs/report/check_files_text.hpp"
#include "ninepegs/report/check_page.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/json.hpp"

namespace ninepegs::cli {
namespace {

// The variant that a case failed in, whose board may be another; null: the game itself.
std::shared_ptr<const Game> variantOf(const Game& game, const verify::Finding& finding) {
  if (finding.variant.empty() || finding.variant == game.info().variant) return nullptr;
  return game.variant(finding.variant);
}

// The games that lead to the faults, as records.
std::string faultRecords(const Game& game, const std::vector<verify::Finding>& findings) {
  std::string out;
  for (const verify::Finding& finding : findings) {
    std::shared_ptr<const Game> other = variantOf(game, finding);
    const Game& played = other ? *other : game;
    if (finding.moves.empty() && finding.from.empty()) continue;
    try {
      Position from =
          finding.from.empty() ? played.start() : played.readPosition(finding.from, "the fault");
      std::vector<Move> moves;
      Position at = from;
      for (const std::string& text : finding.moves) {
        std::vector<Move> found = matchingMoves(played, at, text);
        if (found.size() != 1) break;  // a text of two moves: that is the fault
        moves.push_back(found.front());
        played.apply(at, found.front());
      }
      records::GameRecord record = records::makeRecord(played, from, moves);
      record.comment = finding.message;
      out += (out.empty() ? "" : "\n") + records::toText(record);
    } catch (const BadInput&) {  // a position that cannot be read back: that is the fault
    }
  }
  return out;
}

std::string figureOf(const Game& game, const verify::Finding& finding, const std::string& ending) {
  std::shared_ptr<const Game> other = variantOf(game, finding);
  const Game& played = other ? *other : game;
  draw::FigureMarks marks;
  marks.shown = report::cellsOfFinding(played, finding);
  marks.caption = fmt::format("{} after {}", verify::findingName(finding.kind),
                              pliesText(finding.moves.size()));
  return draw::boardImage(played, finding.last, marks, ending);
}

}  // namespace

std::vector<WrittenFile> writeCheckFiles(const Game& game, const verify::CheckOptions& options,
                                         const verify::CheckReport& report,
                                         const report::MutantsPart& mutants,
                                         const std::filesystem::path& folder) {
  std::vector<WrittenFile> files;
  auto text = [&](const char* name, const std::string& bytes, const char* shows) {
    writeFile(folder / name, bytes);
    files.push_back({folder / name, shows});
  };
  text("check.json", report::checkJson(game, options, report, mutants) + "\n",
       "everything the check saw");
  text("junit.xml", report::junitXml(game, options, report), "the cases, for a build server");
  text("check.sarif", report::sarifJson(game, options, report, NINEPEGS_VERSION),
       "faults and remarks on the lines of the sheet");
  text(
      "report.html",
      report::checkPage(
          game, options, report,
          [&](const verify::Finding& finding) { return figureOf(game, finding, ".svg"); }, mutants),
      "all of it as a page");
  std::error_code ignored;
  std::filesystem::remove(folder / "faults.pgn", ignored);
  if (std::string games = faultRecords(game, report.findings); !games.empty())
    text("faults.pgn", games, "the games that lead to the faults, for `replay`");
  std::filesystem::remove(folder / "check.png", ignored);
  std::filesystem::remove(folder / "fault.png", ignored);
  if (report.evidence.playouts > 0) {
    try {
      writeFile(folder / "check.png",
                draw::checkChart(game, report.evidence, {.stop = &stopFlag()}));
      files.push_back({folder / "check.png", "chart: length of the games, how they ended"});
    } catch (const Failure& error) {  // costs the chart, not the report
      printError(fmt::format("ninepegs check: {}\n", error.what()));
    }
  }
  if (!report.findings.empty()) {
    writeFile(folder / "fault.png", figureOf(game, report.findings.front(), ".png"));
    files.push_back({folder / "fault.png", "figure: the position of the first fault"});
  }
  return files;
}

}  // namespace ninepegs::cli
