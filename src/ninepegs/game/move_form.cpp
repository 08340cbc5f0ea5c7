#include "ninepegs/game/move_form.hpp"

#include <algorithm>
#include <cctype>
#include <regex>
#include <vector>

namespace ninepegs {
namespace {

using Part = sheet::TextPart;

bool isDigit(char c) {
  return c >= '0' && c <= '9';
}

// The texts of one move: its parts in order, or in any order and number where that depends on the
// choices.
class Form {
 public:
  Form(const rules::Rules& rules, const sheet::Program& program, const sheet::GroupCode& group)
      : rules_(rules) {
    for (std::size_t at = static_cast<std::size_t>(group.text[0]);
         program.code[at].op != sheet::Op::stop; ++at) {
      const sheet::Instruction& one = program.code[at];
      if (one.op == sheet::Op::write && one.d == 0) parts_.push_back(program.parts[one.n]);
      std::string_view op = sheet::name(one.op);
      loose_ = loose_ || op.find("ump") != op.npos || op.find("ound") != op.npos ||
               op.find("next") != op.npos || op.find("ttempt") != op.npos ||
               op.find("Any") != op.npos || op.find("None") != op.npos ||
               op.find("Go") != op.npos || op.find("pick") != op.npos;
    }
  }

  bool fits(const std::string& text) const {
    std::vector<std::vector<bool>> tried(text.size() + 1, std::vector<bool>(parts_.size() + 1));
    return loose_ ? loosely(text) : from(text, 0, 0, tried);
  }

 private:
  // Where a part that begins at `at` may end.
  std::vector<std::size_t> ends(const Part& part, const std::string& text, std::size_t at) const {
    std::vector<std::size_t> out;
    auto word = [&](const std::string& raw) {
      std::string plain = plainMove(raw);
      if (!plain.empty() && text.compare(at, plain.size(), plain) == 0)
        out.push_back(at + plain.size());
    };
    // Cells that look like those of the board, on it or not: a1, 12, c3.2, and below zero.
    auto labels = [&] {
      std::size_t end = at < text.size() && text[at] == '-' ? at + 1 : at, letters = 0;
      for (; end < text.size() && std::isalpha(static_cast<unsigned char>(text[end])); ++end)
        ++letters;
      if (letters > 2 || (letters == 0) != rules_.board.shape().numbered) return;
      while (end < text.size() && isDigit(text[end])) {
        out.push_back(++end);
        if (rules_.board.levels() > 1 && end + 1 < text.size() && text[end] == '.' &&
            isDigit(text[end + 1]))
          out.push_back(end + 2);
      }
    };
    auto digits = [&] {
      std::size_t end = at < text.size() && text[at] == '-' ? at + 1 : at;
      for (; end < text.size() && isDigit(text[end]); ++end) out.push_back(end + 1);
    };
    switch (part.kind) {
      case Part::Kind::literal: {
        std::string plain =
            plainMove("." + part.literal).substr(1);  // no `-` is in front of a move
        if (plain.empty() || text.compare(at, plain.size(), plain) == 0)
          out.push_back(at + plain.size());
        break;
      }
      case Part::Kind::cell:
        labels();
        break;
      case Part::Kind::column:
        for (std::size_t end = at; end < text.size() && end < at + 2 &&
                                   std::isalpha(static_cast<unsigned char>(text[end]));
             ++end)
          out.push_back(end + 1);
        break;
      case Part::Kind::row:
      case Part::Kind::number:
      case Part::Kind::chosenNumber:
        digits();
        break;
      case Part::Kind::kind:
        for (const rules::PieceKind& piece : rules_.kinds) word(piece.name);
        break;
      case Part::Kind::set:
      case Part::Kind::kinds:
      case Part::Kind::line: {  // any number of them, one behind the other
        std::vector<std::size_t> open = {at};
        std::vector<bool> known(text.size() + 1);
        while (!open.empty()) {
          at = open.back();
          open.pop_back();
          if (known[at]) continue;
          known[at] = true;
          std::size_t have = out.size();
          labels();
          word("none");
          for (const rules::PieceKind& piece : rules_.kinds) word(piece.name);
          for (std::size_t i = have; i < out.size(); ++i) open.push_back(out[i]);
        }
        break;
      }
    }
    return out;
  }

  bool from(const std::string& text, std::size_t at, std::size_t part,
            std::vector<std::vector<bool>>& tried) const {
    if (part == parts_.size()) return at == text.size();
    if (tried[at][part]) return false;
    tried[at][part] = true;
    const Part& one = parts_[part];
    for (std::size_t end : ends(one, text, at))
      if (from(text, end, part + 1, tried)) return true;
    // A part that was not chosen is left out, with the quoted text in front of it.
    if (one.kind != Part::Kind::literal) return from(text, at, part + 1, tried);
    bool followed = part + 1 < parts_.size() && parts_[part + 1].kind != Part::Kind::literal;
    return followed && from(text, at, part + 2, tried);
  }

  bool loosely(const std::string& text) const {
    std::vector<std::size_t> open = {0};
    std::vector<bool> known(text.size() + 1);
    while (!open.empty()) {
      std::size_t at = open.back();
      open.pop_back();
      if (at == text.size()) return true;
      if (known[at]) continue;
      known[at] = true;
      for (const Part& part : parts_)
        for (std::size_t end : ends(part, text, at))
          if (end > at) open.push_back(end);
    }
    return false;
  }

  const rules::Rules& rules_;
  std::vector<Part> parts_;
  bool loose_ = false;
};

}  // namespace

std::string plainMove(std::string_view text) {
  std::string out;
  for (char c : text) {
    if (c == ' ' || (!out.empty() && (c == '-' || c == '='))) continue;
    out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  }
  return out;
}

bool readsAsMove(const rules::Rules& rules, const sheet::Program& program, std::string_view text) {
  std::string plain = plainMove(text);
  if (plain == "pass") return true;
  if (plain.empty()) return false;
  if (rules.notation) {
    // Coordinates and standard algebraic notation.
    static const std::regex algebraic(
        "(O-O(-O)?|0-0(-0)?|[A-Za-z]?[a-z]?[0-9]*x?[a-z]+[0-9]+(=?[A-Za-z])?)[+#]*");
    std::string whole(text);
    if (whole.size() < 20 && std::regex_match(whole, algebraic)) return true;
  }
  return std::any_of(
      program.groups.begin(), program.groups.end(),
      [&](const sheet::GroupCode& group) { return Form(rules, program, group).fits(plain); });
}

}  // namespace ninepegs
