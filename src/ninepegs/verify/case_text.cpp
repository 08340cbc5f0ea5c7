#include "ninepegs/verify/case_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"

namespace ninepegs::verify {
namespace {

// The rows of a picture as lines, each symbol by itself: "2x/3" -> ". . x", ". . .".
std::vector<std::string> rowsOf(const std::string& picture) {
  std::vector<std::string> rows;
  for (const std::vector<std::string>& row : pictureRows(picture)) rows.push_back(joined(row, " "));
  return rows;
}

}  // namespace

std::vector<std::vector<std::string>> pictureRows(const std::string& picture) {
  std::vector<std::vector<std::string>> rows;
  for (const std::string& row : splitTrimmed(picture, '/')) {
    std::vector<std::string>& out = rows.emplace_back();
    std::size_t run = 0;
    auto flush = [&] {
      for (; run > 0; --run) out.push_back(".");
    };
    for (const std::string& symbol : utf8Symbols(row)) {
      if (symbol[0] >= '0' && symbol[0] <= '9') {
        run = run * 10 + static_cast<std::size_t>(symbol[0] - '0');
        continue;
      }
      flush();
      if (symbol != " ") out.push_back(symbol);
    }
    flush();
  }
  return rows;
}

std::vector<std::string> positionLines(const Game& game, const Position& position) {
  std::vector<std::string> out;
  std::vector<std::string> parts = splitTrimmed(game.positionText(position), ';');
  for (std::size_t i = 0; i < parts.size(); ++i) {
    std::string part = parts[i];
    if (game.boards() > 1 && part.rfind("picture of ", 0) == 0) {
      std::size_t name = part.find(' ', 11);
      out.push_back(part.substr(0, name));
      for (const std::string& row : rowsOf(part.substr(name + 1))) out.push_back("  " + row);
    } else if (i == 0 && game.boards() == 1) {
      for (const std::string& row : rowsOf(part)) out.push_back(row);
    } else {
      out.push_back(part);
    }
  }
  return out;
}

std::string expectedResult(const Game& game, const Result& result) {
  switch (result.kind) {
    case ResultKind::ongoing:
    case ResultKind::fault:
      break;
    case ResultKind::win:
      return fmt::format("{} wins \"{}\"", game.info().sides[result.winner], result.name);
    case ResultKind::draw:
      return fmt::format("draw \"{}\"", result.name);
  }
  return "ongoing";
}

std::string caseText(const Game& game, const CaseText& says) {
  std::string name = says.name;
  std::replace(name.begin(), name.end(), '"', '\'');
  std::string out = fmt::format("case \"{}\"\n", name);
  auto block = [&](const char* word, const Position& position) {
    out += fmt::format("  {}\n", word);
    for (const std::string& line : positionLines(game, position)) out += "    " + line + "\n";
  };
  if (!game.info().variant.empty()) out += "  in variant " + game.info().variant + "\n";
  if (says.position) block("position", *says.position);
  if (!says.play.empty()) out += "  play " + joined(says.play, ", ") + "\n";
  if (says.leaves) block("leaves", *says.leaves);
  for (const std::string& one : says.expect) out += "  expect " + one + "\n";
  return out;
}

std::string caseOf(const Game& game, const Finding& finding) {
  if (finding.kind == FindingKind::example || finding.kind == FindingKind::leak ||
      finding.variant != game.info().variant || finding.position.empty())
    return "";
  CaseText out;
  out.name = findingName(finding.kind) + " after " + pliesText(finding.moves.size());
  if (!finding.from.empty()) out.position = game.readPosition(finding.from, "case");
  out.play = finding.moves;
  if (finding.kind == FindingKind::overwrite && !finding.moves.empty()) {
    out.expect = {"not legal " + out.play.back()};
    out.play.pop_back();
  }
  if (!finding.expects.empty()) out.expect = {finding.expects};
  if (finding.kind == FindingKind::drawOverWin)
    for (const Result& end : game.checks()->endsThatHold(finding.last))
      if (end.kind == ResultKind::win && out.expect.empty())
        out.expect = {expectedResult(game, end)};
  return caseText(game, out);
}

}  // namespace ninepegs::verify
