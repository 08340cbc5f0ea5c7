// Puts the slips of examples/faulty/slips.txt into their sheets, one at a time, and tells what
// finds each: the table of docs/slips.md. What finds nothing on the right sheet counts alone.
#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <map>
#include <optional>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/printer.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/lint.hpp"
#include "ninepegs/verify/questions.hpp"

namespace ninepegs {
namespace {

struct Slip {
  std::string name, sheet, says;
  std::vector<std::string> right, wrong;  // lines
};

std::vector<std::string> linesOf(const std::string& text) {
  std::vector<std::string> lines;
  for (std::size_t from = 0, to; from < text.size(); from = to + 1) {
    to = std::min(text.find('\n', from), text.size());
    lines.push_back(text.substr(from, to - from));
  }
  return lines;
}

std::vector<Slip> slipsOf(const std::string& text) {
  std::vector<Slip> out;
  for (const std::string& line : linesOf(text)) {
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
  for (const std::string& line : linesOf(sheet)) {
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
  for (const std::string& line : linesOf(sheet)) {
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

// What `check` says first of a text; empty if nothing.
std::string checked(const std::string& text) {
  try {
    verify::CheckOptions options;
    options.playouts = 2000;
    options.described = false;
    verify::CheckReport report = verify::check(*game(text), options);
    return report.findings.empty() ? "" : verify::findingName(report.findings.front().kind);
  } catch (const BadInput&) {
    return "reading";
  }
}

std::vector<std::string> remarks(const std::string& text) {
  std::vector<std::string> out;
  try {
    for (const verify::Remark& one : verify::lint(*game(text), {})) out.push_back(one.message);
  } catch (const BadInput&) {
  }
  return out;
}

struct Found {
  std::string bare, lint, invariants, cases;
  int question = 0;  // 0: none shows it
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

Found look(const Slip& slip, const std::string& sheet) {
  const std::vector<std::string> cases = {"case", "variant"},
                                 all = {"case", "variant", "always", "symmetric"};
  std::string wrong = put(slip, sheet);
  Found out;
  out.bare = checked(without(wrong, all));
  std::vector<std::string> before = remarks(without(sheet, all));
  for (const std::string& one : remarks(without(wrong, all)))
    if (std::find(before.begin(), before.end(), one) == before.end()) out.lint = "lint";
  out.invariants = checked(without(wrong, cases));
  out.cases = checked(wrong);
  ask(without(wrong, all), without(sheet, all), out);
  return out;
}

std::string percent(std::size_t part, std::size_t whole) {
  return fmt::format("{:.0f} %", 100.0 * static_cast<double>(part) / static_cast<double>(whole));
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
  std::size_t bare = 0, invariants = 0, cases = 0, missed = 0;
  std::vector<int> numbers;
  std::string table;
  for (std::size_t i = 0; i < slips.size(); ++i) {
    const Found& one = all[i];
    bare += !one.bare.empty() || !one.lint.empty();
    invariants += !one.bare.empty() || !one.lint.empty() || !one.invariants.empty();
    cases += !one.cases.empty();
    if (one.question > 0) numbers.push_back(one.question);
    missed += one.question == 0;
    auto cell = [](const std::string& text) { return text.empty() ? "-" : text; };
    table += fmt::format("| {} | {} | {} | {} | {} | {} | {} | {} |\n", slips[i].sheet,
                         slips[i].says, cell(one.bare), cell(one.lint), cell(one.invariants),
                         cell(one.cases), one.mutant ? "yes" : "-",
                         one.question > 0 ? std::to_string(one.question) : "-");
  }
  std::sort(numbers.begin(), numbers.end());
  auto within = [&](int most) {
    return percent(static_cast<std::size_t>(std::upper_bound(numbers.begin(), numbers.end(), most) -
                                            numbers.begin()),
                   slips.size());
  };
  fmt::print(
      "# What finds a slip\n\n"
      "{} slips in {} right sheets (`examples/faulty/slips.txt`), each by itself; written by "
      "`./run "
      "slips`.\n\n"
      "- **bare**: `check` with 2,000 playouts, of the sheet without cases, `always` and "
      "`symmetric`\n"
      "- **lint**: a remark of `lint` that the right sheet does not get\n"
      "- **invariants**: `check` with `always` and `symmetric`\n"
      "- **cases**: `check` of the sheet with its cases, too\n"
      "- **mutant**: the right rules are among the bare sheet's mutants\n"
      "- **question**: which question of `ask`, of the bare sheet, the right sheet answers "
      "otherwise\n\n"
      "| found by | of all |\n| --- | --- |\n"
      "| check and lint, bare | {} |\n| ... with invariants | {} |\n| ... with cases | {} |\n"
      "| the first 3 questions | {} |\n| the first 5 | {} |\n| the first 10 | {} |\n"
      "| the first 20 | {} |\n\n"
      "| sheet | what went wrong | bare | lint | invariants | cases | mutant | question |\n"
      "| --- | --- | --- | --- | --- | --- | --- | --- |\n{}",
      slips.size(), sheets.size(), percent(bare, slips.size()), percent(invariants, slips.size()),
      percent(cases, slips.size()), within(3), within(5), within(10), within(20), table);
  // No false finding on the right sheets.
  int wrong = 0;
  fmt::print("\n| right sheet | bare | invariants | cases |\n| --- | --- | --- | --- |\n");
  for (const auto& [name, sheet] : sheets) {
    std::string found[] = {checked(without(sheet, {"case", "variant", "always", "symmetric"})),
                           checked(without(sheet, {"case", "variant"})), checked(sheet)};
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
