#include "ninepegs/report/listing.hpp"

#include <fmt/format.h>

#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/game/sheet_game.hpp"

namespace ninepegs::report {

std::string partNote(const verify::PartUse& part) {
  auto times = [](std::uint64_t number) {
    return number == 1 ? std::string("once") : grouped(number) + " times";
  };
  if (part.failed == 0 && part.held == 0) return fmt::format("`{}` was never asked", part.text);
  if (part.failed == 0) return fmt::format("`{}` always held ({})", part.text, times(part.held));
  if (part.held == 0) return fmt::format("`{}` never held ({})", part.text, times(part.failed));
  return "";
}

std::vector<ListedLine> listing(const Game& game, const verify::CheckReport& report) {
  std::vector<ListedLine> out;
  const auto* sheet = dynamic_cast<const SheetGame*>(&game);
  if (sheet == nullptr || !sheet->rules().source) return out;
  const sheet::Source& source = *sheet->rules().source;
  for (int line = 1; line < source.firstOfCases(); ++line)
    out.push_back({line, source.line(line), {}, {}});
  if (!out.empty() && out.back().text.empty()) out.pop_back();  // behind the last newline
  auto at = [&](int line) { return line >= 1 && line <= static_cast<int>(out.size()); };
  std::vector<RuleLine> lines = ruleLinesOf(game);
  std::vector<std::uint64_t> uses = verify::usesOf(report);
  for (std::size_t i = 0; i < lines.size(); ++i)
    if (at(lines[i].line)) {
      std::optional<std::uint64_t>& sum = out[lines[i].line - 1].uses;
      sum = sum.value_or(0) + uses[i];
    }
  for (const verify::PartUse& part : report.parts)
    if (std::string note = partNote(part);
        report.of(verify::CheckPart::conditions) == verify::Extent::whole && !note.empty() &&
        at(part.line))
      out[part.line - 1].notes.push_back(note);
  return out;
}

std::string listingText(const Game& game, const verify::CheckReport& report, const Paint& paint) {
  std::string out = "\n" + paint.strong("The sheet, and how often each statement was used") + "\n";
  if (!report.complete())
    out += paint.bad("  in the games that were played; the check is not complete") + "\n";
  for (const ListedLine& one : listing(game, report)) {
    std::string used = !one.uses           ? ""
                       : *one.uses > 0     ? grouped(*one.uses)
                       : report.complete() ? "never"
                                           : "not yet";
    std::string text = fmt::format("{:>11}  {:>3}  {}", used, one.line, one.text);
    while (!text.empty() && text.back() == ' ') text.pop_back();
    bool never = one.uses && *one.uses == 0;
    out += (never ? paint.bad(text) : one.uses ? text : paint.faint(text)) + "\n";
    for (const std::string& note : one.notes)
      out += fmt::format("{:18}{}\n", "", paint.bad("^ " + note));
  }
  return out;
}

}  // namespace ninepegs::report
