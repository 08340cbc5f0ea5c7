// Puts the slips of examples/faulty/slips.txt into their sheets, one at a time, and tells what
// finds each: the table of docs/slips.md. What finds nothing on the right sheet counts alone.
#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <map>
#include <optional>
#include <set>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/compare/compare.hpp"
#include "ninepegs/compare/other_game.hpp"
#include "ninepegs/compare/program.hpp"
#include "ninepegs/sheet/rules/printer.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/lint.hpp"
#include "ninepegs/verify/questions.hpp"
#include "support/lines.hpp"

namespace ninepegs {
namespace {

struct Slip {
  std::string name, sheet, says;
  std::vector<std::string> right, wrong;  // lines
};

std::vector<Slip> slipsOf(const std::string& text) {
  std::vector<Slip> out;
  for (const std::string& line : test::linesOf(text)) {
    if (line.empty() || line[0] == '#') continue;
    if (line.rfind("- ", 0) == 0) {
      out.back().right.push_back(line.substr(2));
    } else if (line.rfind("+ ", 0) == 0) {
      out.back().wrong.push_back(line.substr(2));
    } else {
      std::size_t in = line.find(" in "), colon = line.find(": ");
      out.push_back({line.substr(0, in),
                     line.substr(in + 4, colon - in - 4),
                     line.substr(colon + 2),
                     {},
                     {}});
    }
  }
  return out;
}

// The sheet with the slip, where the line stands first and outside of variants and cases.
std::string put(const Slip& slip, const std::string& sheet) {
  std::string out;
  bool done = false, elsewhere = false;
  for (const std::string& line : test::linesOf(sheet)) {
    if (!line.empty() && line[0] != ' ')
      elsewhere = line.rfind("variant", 0) == 0 || line.rfind("case", 0) == 0;
    if (!done && !elsewhere && line == slip.right.front()) {
      for (const std::string& wrong : slip.wrong) out += wrong + "\n";
      done = true;
    } else {
      out += line + "\n";
    }
  }
  if (!done) throw BadInput(Place{}, fmt::format("{}: no such line in {}", slip.name, slip.sheet));
  return out;
}

// Without the sections of these words, and without variants.
std::string without(const std::string& sheet, const std::vector<std::string>& words) {
  std::string out;
  bool inside = false;
  for (const std::string& line : test::linesOf(sheet)) {
    if (!line.empty() && line[0] != ' ' && line[0] != '#') {
      std::string word = line.substr(0, line.find(' '));
      inside = std::find(words.begin(), words.end(), word) != words.end();
    }
    if (!inside) out += line + "\n";
  }
  return out;
}

std::shared_ptr<const SheetGame> game(const std::string& text) {
  return SheetGame::fromText("slip.pegs", text);
}

// What `check` says of a text.
struct Said {
  std::string fault;  // the first; empty if none
  // What it remarks, by sort: of these only what it does not say of the right sheet counts.
  std::set<std::pair<std::string, std::string>> remarks;
};

Said checked(const std::string& text, bool remarks = false) {
  Said out;
  try {
    verify::CheckOptions options;
    options.playouts = 2000;
    options.described = false;
    options.unnamed = options.parts = options.remarks = remarks;
    auto sheet = game(text);
    verify::CheckReport report = verify::check(*sheet, options);
    if (!report.findings.empty()) out.fault = verify::findingName(report.findings.front().kind);
    for (const verify::Remark& one : report.remarks) out.remarks.insert({"lint", one.message});
    for (const verify::Tried& one : report.symmetries.all)
      if (one.stands == verify::Stands::nearly) out.remarks.insert({"symmetry", one.symmetry.name});
    if (report.symmetries.unevenStart) out.remarks.insert({"symmetry", "start"});
    for (const verify::PartUse& one : report.parts)
      if (one.held == 0 || one.failed == 0)
        out.remarks.insert({"part", fmt::format("{} {}", one.held > 0, one.text)});
    std::vector<std::uint64_t> uses = verify::usesOf(report);
    std::vector<RuleLine> lines = ruleLinesOf(*sheet);
    for (std::size_t i = 0; i < uses.size(); ++i)
      if (uses[i] == 0) out.remarks.insert({"unused", std::string(trimmed(lines[i].text))});
  } catch (const BadInput&) {
    out.fault = "reading";
  }
  return out;
}

struct Found {
  std::string bare, remark, invariants, cases;
  std::string compared;  // with the right sheet: plies after which it shows; empty: it does not
  int question = 0;      // 0: none shows it
  std::size_t asked = 0;
  bool mutant = false;  // the right rules are among the mutants
};

// The number of the first question to which the right sheet answers otherwise.
void ask(const std::string& wrong, const std::string& right, Found& found) {
  std::shared_ptr<const SheetGame> sheet;
  try {
    sheet = game(wrong);
  } catch (const BadInput&) {
    return;
  }
  verify::Mutants mutants(*sheet, {.seed = 1});
  mutants.run();
  std::vector<verify::Question> questions = verify::chooseQuestions(mutants, {.most = 20});
  found.asked = questions.size();
  for (std::size_t i = 0; i < questions.size() && found.question == 0; ++i) {
    bool passes = false;
    try {
      auto with = game(right + verify::caseOf(mutants, questions[i]));
      passes = verify::runExamples(*with, 1).front().findings.empty();
    } catch (const BadInput&) {  // it speaks of a move that the right game cannot have
    }
    if (!passes) found.question = static_cast<int>(i) + 1;
  }
  std::string wanted = rules::toText(game(right)->rules());
  for (const verify::Mutant& one : mutants.all())
    if (rules::toText(rules::mutated(sheet->rules(), one.mutation)) == wanted) found.mutant = true;
}

// The sheet with the slip beside the right one, as `compare` holds one sheet against another.
void compared(const std::string& wrong, const std::string& right, Found& found) {
  try {
    auto one = game(wrong), other = game(right);
    compare::Options options;
    options.playouts = 400;
    options.probes = false;
    options.shortenBudget = 2000;
    compare::Report report = compare::compare(
        *one, compare::Bridge(*one), [&] { return compare::makeOtherGame(*other); }, options);
    if (report.difference) found.compared = fmt::format("{}", report.difference->moves.size());
  } catch (const BadInput&) {
    found.compared = "reading";
  }
}

Found look(const Slip& slip, const std::string& sheet) {
  const std::vector<std::string> cases = {"case", "variant"},
                                 all = {"case", "variant", "always", "symmetric"};
  std::string wrong = put(slip, sheet);
  Found out;
  Said bare = checked(without(wrong, all), true), right = checked(without(sheet, all), true);
  out.bare = bare.fault;
  for (const auto& [sort, message] : bare.remarks)
    if (right.remarks.count({sort, message}) == 0 && out.remark.find(sort) == out.remark.npos)
      out.remark += (out.remark.empty() ? "" : ", ") + sort;
  out.invariants = checked(without(wrong, cases)).fault;
  out.cases = checked(wrong).fault;
  compared(wrong, sheet, out);
  ask(without(wrong, all), without(sheet, all), out);
  return out;
}

std::string percent(std::size_t part, std::size_t whole) {
  return fmt::format("{:.0f} %", 100.0 * static_cast<double>(part) / static_cast<double>(whole));
}

// Faults planted in a program in Python, held against the sheet.
void programs(const std::string& root) {
  auto sheet =
      SheetGame::fromText("othello.pegs", readFile(root + "/sheets/othello.pegs", 1 << 20));
  fmt::print(
      "\n## In a program\n\nFaults planted in a program that plays othello "
      "(`tests/programs/faulty_othello.py`), held against the sheet by `compare`, 400 games; the "
      "first is the right program:\n\n"
      "| fault | found as | plies |\n| --- | --- | --- |\n");
  for (const char* fault :
       {"Othello", "RowForColumn", "NegativeIndex", "AcrossTheEdge", "AfterTheEnd", "NoPass",
        "SevenDirections", "OneLeftLying", "Overwritten", "DrawIsAWin", "EmptyIsAPass",
        "WinnerIsTheLast", "ForcedPassIsOptional"}) {
    compare::Bridge bridge(*sheet);
    compare::Options options;
    options.playouts = 400;
    options.shortenBudget = 300;
    std::string command = fmt::format(
        "python3 {0}/tests/programs/faulty_othello.py "
        "{0}/examples/programs/python {1}",
        root, fault);
    compare::Report report = compare::compare(
        *sheet, bridge, [&] { return compare::makeProgram(*sheet, bridge, command, {}); }, options);
    fmt::print("| {} | {} | {} |\n", fault,
               report.difference ? compare::kindName(report.difference->kind) : "-",
               report.difference ? std::to_string(report.difference->moves.size()) : "-");
    fmt::print(stderr, "{}\n", fault);
  }
}

int run(const std::string& root, const std::string& only) {
  std::vector<Slip> slips = slipsOf(readFile(root + "/examples/faulty/slips.txt", 1 << 20));
  if (!only.empty())
    std::erase_if(slips, [&](const Slip& slip) { return slip.name != only && slip.sheet != only; });
  std::map<std::string, std::string> sheets;
  for (const Slip& slip : slips)
    sheets[slip.sheet] = readFile(root + "/sheets/" + slip.sheet + ".pegs", 1 << 20);
  std::vector<Found> all(slips.size());
  inParallel(slips.size(), availableThreads(), [&](std::uint64_t i, int) {
    all[i] = look(slips[i], sheets[slips[i].sheet]);
    fmt::print(stderr, "{}\n", slips[i].name);
  });
  std::size_t bare = 0, invariants = 0, cases = 0, differs = 0;
  std::vector<int> numbers;
  std::string table;
  for (std::size_t i = 0; i < slips.size(); ++i) {
    const Found& one = all[i];
    bool alone = !one.bare.empty() || !one.remark.empty();
    bare += alone;
    invariants += alone || !one.invariants.empty();
    differs += !one.compared.empty();
    cases += !one.cases.empty();
    if (one.question > 0) numbers.push_back(one.question);
    auto cell = [](const std::string& text) { return text.empty() ? "-" : text; };
    table += fmt::format("| {} | {} | {} | {} | {} | {} | {} | {} | {} |\n", slips[i].sheet,
                         slips[i].says, cell(one.bare), cell(one.remark), cell(one.invariants),
                         cell(one.cases), one.mutant ? "yes" : "-",
                         one.question > 0 ? std::to_string(one.question) : "-", cell(one.compared));
  }
  std::sort(numbers.begin(), numbers.end());
  auto within = [&](int most) {
    return percent(static_cast<std::size_t>(std::upper_bound(numbers.begin(), numbers.end(), most) -
                                            numbers.begin()),
                   slips.size());
  };
  // Who asks has checked before: a fault found is a slip found.
  auto checkedOrWithin = [&](int most) {
    auto found = std::count_if(all.begin(), all.end(), [&](const Found& one) {
      return !one.bare.empty() || (one.question > 0 && one.question <= most);
    });
    return percent(static_cast<std::size_t>(found), slips.size());
  };
  fmt::print(
      "# What finds a slip\n\n"
      "{} slips in {} right sheets (`examples/faulty/slips.txt`), each by itself; written by "
      "`./run "
      "slips`.\n\n"
      "- **bare**: `check` with 2,000 playouts, of the sheet without cases, `always` and "
      "`symmetric`\n"
      "- **remark**: what `check` remarks of the bare sheet and not of the right one: as `lint` "
      "does, a\n"
      "  symmetry that nearly holds, a part of a condition that was the same every time, a "
      "statement that\n"
      "  no game used\n"
      "- **invariants**: `check` with `always` and `symmetric`\n"
      "- **cases**: `check` of the sheet with its cases, too\n"
      "- **mutant**: the right rules are among the bare sheet's mutants\n"
      "- **question**: which question of `ask`, of the bare sheet, the right sheet answers "
      "otherwise\n"
      "- **compare**: held against the right sheet, 400 games: plies of the game that shows it\n\n"
      "| found by | of all |\n| --- | --- |\n"
      "| check, bare | {} |\n| ... with invariants | {} |\n| ... with cases | {} |\n"
      "| the first 3 questions | {} |\n| the first 5 | {} |\n| the first 10 | {} |\n"
      "| the first 20 | {} |\n| a fault that check finds, bare, or the first 10 questions | {} |\n"
      "| ... or the first 20 | {} |\n| compare with the right sheet | {} |\n\n"
      "| sheet | what went wrong | bare | remark | invariants | cases | mutant | question | "
      "compare |\n"
      "| --- | --- | --- | --- | --- | --- | --- | --- | --- |\n{}",
      slips.size(), sheets.size(), percent(bare, slips.size()), percent(invariants, slips.size()),
      percent(cases, slips.size()), within(3), within(5), within(10), within(20),
      checkedOrWithin(10), checkedOrWithin(20), percent(differs, slips.size()), table);
  if (only.empty()) programs(root);
  // No false finding on the right sheets.
  int wrong = 0;
  fmt::print("\n| right sheet | bare | invariants | cases |\n| --- | --- | --- | --- |\n");
  for (const auto& [name, sheet] : sheets) {
    std::string found[] = {
        checked(without(sheet, {"case", "variant", "always", "symmetric"})).fault,
        checked(without(sheet, {"case", "variant"})).fault, checked(sheet).fault};
    for (const std::string& one : found) wrong += one.empty() ? 0 : 1;
    for (std::string& one : found)
      if (one.empty()) one = "nothing";
    fmt::print("| {} | {} | {} | {} |\n", name, found[0], found[1], found[2]);
  }
  return wrong == 0 ? 0 : 1;
}

}  // namespace
}  // namespace ninepegs

int main(int argc, char** argv) {
  try {
    return ninepegs::run(NINEPEGS_SOURCE, argc > 1 ? argv[1] : "");
  } catch (const ninepegs::BadInput& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 2;
  }
}
