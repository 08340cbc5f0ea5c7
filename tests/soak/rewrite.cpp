#include "soak/rewrite.hpp"

#include <algorithm>
#include <functional>
#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/text/blocks.hpp"
#include "support/lines.hpp"

namespace ninepegs::soak {
namespace {

using Lines = std::vector<std::string>;

std::string firstWord(const std::string& line) {
  std::size_t at = test::indentOf(line);
  return line.substr(at, line.find(' ', at) - at);
}

// Lines without comments, and for each the word of the outermost line above it.
struct Sheet {
  Lines lines, sections;
};

Sheet sheetOf(const std::string& text) {
  Sheet out;
  std::string section;
  for (const std::string& raw : test::linesOf(text)) {
    std::string line = sheet::withoutComment(raw);
    if (test::indentOf(line) == 0 && !line.empty()) section = firstWord(line);
    out.lines.push_back(line);
    out.sections.push_back(section);
  }
  return out;
}

std::string textOf(const Lines& lines) {
  return joined(lines, "\n") + "\n";
}

bool has(const std::string& text, const char* part) {
  return text.find(part) != text.npos;
}

// Changes the parts of a line that stand outside quotes.
std::string outsideQuotes(const std::string& line,
                          const std::function<std::string(const std::string&)>& change) {
  std::string out;
  for (std::size_t at = 0; at <= line.size();) {
    std::size_t quote = line.find('"', at);
    out += change(line.substr(at, quote - at));
    if (quote == line.npos) break;
    std::size_t close = std::min(line.find('"', quote + 1), line.size());
    out += line.substr(quote, close + 1 - quote);
    at = close + 1;
  }
  return out;
}

// Is it a line of the rules, in which expressions stand?
bool ofRules(const std::string& section) {
  for (const char* one : {"move", "after", "forbid", "ends", "worth"})
    if (section == one) return true;
  return false;
}

// With whole words replaced, where they stand among blanks and brackets.
std::string replaced(const Sheet& sheet, const std::map<std::string, std::string>& words) {
  Lines out;
  for (std::size_t i = 0; i < sheet.lines.size(); ++i) {
    if (!ofRules(sheet.sections[i])) {
      out.push_back(sheet.lines[i]);
      continue;
    }
    out.push_back(outsideQuotes(sheet.lines[i], [&](const std::string& part) {
      std::string changed;
      for (std::size_t at = 0; at < part.size();) {
        std::size_t end = std::min(part.find_first_of(" (),", at), part.size());
        std::string word = part.substr(at, end - at);
        auto it = words.find(word);
        changed += it == words.end() ? word : it->second;
        if (end < part.size()) changed += part[end];
        at = end + 1;
      }
      return changed;
    }));
  }
  return textOf(out);
}

std::string bracketed(const Sheet& sheet) {
  return replaced(
      sheet, {{"mine", "(mine)"}, {"theirs", "(theirs)"}, {"plies", "(plies)"}, {"all", "(all)"}});
}

// Sets that depend on who looks at them, through definitions.
std::string defined(const Sheet& sheet) {
  return replaced(sheet, {{"mine", "own-ones"}, {"theirs", "other-ones"}}) +
         "define own-ones = mine\ndefine other-ones = theirs\n";
}

// A `need` of a move's head goes behind the line below it, if that only picks or names something.
std::string needMoved(const Sheet& sheet) {
  Lines out = sheet.lines;
  bool head = true, moved = false;
  for (std::size_t i = 0; i + 1 < out.size(); ++i) {
    if (test::indentOf(out[i]) == 0) head = true;
    std::string here = firstWord(out[i]), next = firstWord(out[i + 1]);
    if (here != "pick" && here != "need" && here != "let" && here != "choose" &&
        test::indentOf(out[i]) > 0)
      head = false;
    if (!head || sheet.sections[i] != "move" || here != "need" || test::indentOf(out[i + 1]) != 2)
      continue;
    if ((next == "pick" && !has(out[i + 1], "if any")) || next == "need" || next == "choose") {
      std::swap(out[i], out[i + 1]);
      moved = true;
    }
  }
  return moved ? textOf(out) : "";
}

// After the last line of every move, before what is said of the whole move.
std::string neededLate(const Sheet& sheet) {
  Lines out;
  for (std::size_t i = 0; i < sheet.lines.size(); ++i) {
    out.push_back(sheet.lines[i]);
    bool last = i + 1 == sheet.lines.size() || test::indentOf(sheet.lines[i + 1]) == 0;
    if (sheet.sections[i] == "move" && last && !sheet.lines[i].empty())
      out.push_back("  need plies >= 0");
  }
  return textOf(out);
}

}  // namespace

std::vector<Rewritten> rewritings(const std::string& text) {
  Sheet sheet = sheetOf(text);
  std::vector<Rewritten> out;
  bool goesOn = false;  // lines that go on are left alone
  for (const std::string& line : sheet.lines)
    goesOn = goesOn || (!line.empty() && has(",(=+-*/%<>", std::string(1, line.back()).c_str()));
  if (goesOn || has(text, "\nvariant")) return out;
  out.push_back({"brackets", bracketed(sheet)});
  out.push_back({"definitions", defined(sheet)});
  std::string moved = needMoved(sheet);
  if (!moved.empty()) out.push_back({"a need moved", moved});
  out.push_back({"a need behind all", neededLate(sheet)});
  out.push_back({"forbidden and seen on the board", text + "forbid \"none\" when no all\n"});
  out.push_back({"forbidden and never so", text + "forbid \"never\" when plies < 0\n"});
  out.push_back(
      {"a kind more", text + "piece extra e" + (has(text, ", one each") ? "\n" : " E\n")});
  return out;
}

}  // namespace ninepegs::soak
