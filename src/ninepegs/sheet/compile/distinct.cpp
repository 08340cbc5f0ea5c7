// Can two ways of a move come to the same? Where they cannot, nobody needs to compare them.
#include <algorithm>

#include "ninepegs/sheet/compile/parts.hpp"

namespace ninepegs::sheet {

using Kind = StatementKind;

namespace {

// False if two picks have one name.
bool collectPicks(const std::vector<Statement>& list, std::set<std::string>& out) {
  bool once = true;
  for (const Statement& one : list) {
    if (isPick(one)) once = out.insert(one.name.text).second && once;
    once = collectPicks(one.body, out) && once;
    once = collectPicks(one.otherwise, out) && once;
  }
  return once;
}

void collectWritten(const std::vector<Statement>& list, std::set<std::string>& out, bool& any) {
  for (const Statement& one : list) {
    if (one.kind == Kind::writtenAs || one.kind == Kind::write) {
      any = true;
      for (const Expr& part : one.args)
        if (part.kind == ExprKind::name && !part.plural) out.insert(part.word);
    }
    collectWritten(one.body, out, any);
    collectWritten(one.otherwise, out, any);
  }
}

// A part of a text: a quoted one, or what a name stands for.
struct Part {
  enum class Sort { quoted, cell, line, number, kind, other } sort = Sort::other;
  std::string text;  // of a quoted one
};
// Parts that are written one behind the other, and the `repeat` around them.
struct Stretch {
  std::vector<Part> parts;
  const Statement* round = nullptr;
};

class Stretches {
 public:
  explicit Stretches(const std::vector<Statement>& list) { names(list); }

  std::vector<Stretch> all;

  void add(const std::vector<Statement>& list, const Statement* round) {
    for (const Statement& one : list) {
      if (one.kind == Kind::write || one.kind == Kind::writtenAs) {
        all.push_back({{}, round});
        for (const Expr& part : one.args) all.back().parts.push_back(partOf(part));
      }
      const Statement* inner = round == nullptr && one.kind == Kind::repeat ? &one : round;
      add(one.body, inner);
      add(one.otherwise, inner);
    }
  }

  // Without a text of its own, a move is what was picked, joined by dashes.
  void addPicks(const std::vector<Statement>& list) {
    for (const Statement& one : list) {
      if (isPick(one)) {
        if (all.empty()) all.emplace_back();
        if (!all.back().parts.empty()) all.back().parts.push_back({Part::Sort::quoted, "-"});
        all.back().parts.push_back({sorts_[one.name.text], ""});
      }
      addPicks(one.body);
      addPicks(one.otherwise);
    }
  }

 private:
  void names(const std::vector<Statement>& list) {
    for (const Statement& one : list) {
      if (isPick(one))
        sorts_[one.name.text] = picksLine(one)                    ? Part::Sort::line
                                : one.kind == Kind::pick          ? Part::Sort::cell
                                : one.choose == ChooseKind::range ? Part::Sort::number
                                                                  : Part::Sort::kind;
      names(one.body);
      names(one.otherwise);
    }
  }
  Part partOf(const Expr& part) {
    if (part.kind == ExprKind::name && part.plural) return {Part::Sort::quoted, part.word};
    if (part.kind == ExprKind::name)
      if (auto it = sorts_.find(part.word); it != sorts_.end()) return {it->second, ""};
    bool row = isCellsText(part) && part.word == "row";
    return {row || part.type == Type::number ? Part::Sort::number : Part::Sort::other, ""};
  }

  std::map<std::string, Part::Sort> sorts_;
};

}  // namespace

// Written one behind the other, two parts may read like two others: 11 and 3 like 1 and 13. So they
// do not if it can be told where each ends.
bool Compiler::textsRunTogether(const MoveShape& shape, const std::vector<Statement>& body) const {
  bool numbered = sheet_.tree.board.numbered;
  bool dashes = std::any_of(
      sheet_.tree.pieces.begin(), sheet_.tree.pieces.end(),
      [](const PieceDecl& piece) { return piece.name.text.find('-') != std::string::npos; });
  auto endsBefore = [&](const Part& part, const Part& next) {
    bool text = next.sort == Part::Sort::quoted;
    if (text && next.text.empty()) return false;
    char first = text ? next.text.front() : 'a';
    bool digit = first >= '0' && first <= '9';
    bool letter = (first >= 'a' && first <= 'z') || (first >= 'A' && first <= 'Z');
    switch (part.sort) {
      case Part::Sort::quoted:
        return true;
      case Part::Sort::cell:  // a label ends in a digit, and begins with a letter
        return text ? !digit && first != '.' : !numbered && next.sort == Part::Sort::cell;
      case Part::Sort::number:
        return text && !digit;
      case Part::Sort::line:  // one label, or two with a dash between them
        return text && !digit && first != '.' && first != '-';
      case Part::Sort::kind:
        return text && !digit && !letter && first != '_' && !(first == '-' && dashes) &&
               static_cast<unsigned char>(first) < 0x80;
      case Part::Sort::other:
        return false;
    }
    return false;
  };
  std::vector<Statement> all;
  for (const Statement* one : shape.all) all.push_back(*one);
  Stretches texts(all);
  texts.add(all, nullptr);
  if (texts.all.empty()) texts.addPicks(body);
  for (std::size_t i = 0; i < texts.all.size(); ++i) {
    const std::vector<Part>& parts = texts.all[i].parts;
    for (std::size_t k = 0; k + 1 < parts.size(); ++k)
      if (!endsBefore(parts[k], parts[k + 1])) return true;
    // What may be written next: any that stands below, and in a repeat all of its own.
    for (std::size_t k = 0; k < texts.all.size(); ++k) {
      bool again = texts.all[i].round != nullptr && texts.all[i].round == texts.all[k].round;
      if ((k > i || again) && !parts.empty() && !texts.all[k].parts.empty() &&
          !endsBefore(parts.back(), texts.all[k].parts.front()))
        return true;
    }
  }
  return false;
}

// Two ways differ if every choice is written in their texts, or all but one, on whose cell the only
// effect on the board puts a piece. What is picked in a `repeat` must be written in each round.
bool Compiler::mayRepeat(const MoveShape& shape, const std::vector<Statement>& body) const {
  std::set<std::string> picks, shown;
  bool own = false;
  std::vector<Statement> all;
  for (const Statement* one : shape.all) all.push_back(*one);
  if (!collectPicks(all, picks)) return true;  // a text shows one of them
  // The whole text, or without one the move's own picks, shows a pick wherever it was made; what is
  // written shows it if it is written whenever it was made: in its block, or in one around it.
  for (const Statement& one : body)
    if (one.kind == Kind::writtenAs) collectWritten({one}, shown, own);
  std::set<std::string> texts;
  own = false;
  collectWritten(all, texts, own);  // in `after`, too
  if (!own) collectPicks(body, shown);
  auto surely = [&](auto&& self, const std::vector<Statement>& list,
                    std::set<std::string> around) -> void {
    bool any = false;
    for (const Statement& one : list)
      if (one.kind == Kind::write) collectWritten({one}, around, any);
    for (const Statement& one : list) {
      if (isPick(one) && around.count(one.name.text) > 0) shown.insert(one.name.text);
      self(self, one.body, around);
      self(self, one.otherwise, around);
    }
  };
  surely(surely, all, {});
  auto rounds = [&](auto&& self, const std::vector<Statement>& list) -> bool {
    return std::any_of(list.begin(), list.end(), [&](const Statement& one) {
      if (one.kind == Kind::repeat) {
        std::set<std::string> made, here;
        bool any = one.repeat == RepeatKind::times;  // else each round is told by what it writes
        collectPicks(one.body, made);
        for (const Statement& line : one.body)  // in every round, so not inside a `when`
          if (line.kind == Kind::write) collectWritten({line}, here, any);
        if (!any) return true;
        if (!std::includes(here.begin(), here.end(), made.begin(), made.end())) return true;
      }
      return self(self, one.body) || self(self, one.otherwise);
    });
  };
  if (rounds(rounds, all)) return true;
  // A line is written by its ends, which others may have, too, where lines can bend.
  bool straight = !program_.rays.empty() && sheet_.tree.board.shape != Shape::points;
  auto bent = [&](auto&& self, const std::vector<Statement>& list) -> void {
    for (const Statement& one : list) {
      if (picksLine(one)) shown.erase(one.name.text);
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  if (!straight) bent(bent, all);
  // A part that was changed on the way no longer tells what was picked.
  std::erase_if(picks, [&](const std::string& pick) {
    return shown.count(pick) > 0 && shape.assigned.count(pick) == 0;
  });
  if (textsRunTogether(shape, body)) return true;
  if (picks.size() != 1) return !picks.empty();
  const Statement* put = nullptr;
  for (const Statement& one : all) {
    if (one.kind == Kind::put && put == nullptr && isName(one.args[0], *picks.begin())) {
      put = &one;
      continue;
    }
    bool board = one.kind == Kind::put || one.kind == Kind::shift || one.kind == Kind::take ||
                 one.kind == Kind::flip || one.kind == Kind::change || !one.body.empty();
    if (board) return true;
  }
  return put == nullptr || shape.assigned.count(*picks.begin()) > 0;
}

}  // namespace ninepegs::sheet
