// The parts of check(): board and pieces (board.cpp), moves (moves.cpp, texts.cpp), ends and what
// else is said of positions (ends.cpp), names (checker.cpp). Internal.
#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/sheet/rules/checker.hpp"
#include "ninepegs/sheet/rules/types.hpp"

namespace ninepegs::sheet {

using rules::Clause;
using rules::Clauses;
using rules::Symbol;
using rules::SymbolKind;

// A rule with the name of what the sheet declares, which is one for all or one for each side.
template <class Rule, class BySide>
Rule begunBySide(const Name& name, const BySide& said) {
  Rule rule;
  rule.name = name.text;
  rule.span = name.span;
  rule.bySide = said.front().first.has_value();
  return rule;
}

class Checker {
 public:
  Checker(const Tree& tree, std::shared_ptr<const Source> source, std::vector<Diagnostic>& found)
      : tree_(tree), draft_{tree, *source, found, {}, {}, {}, 0}, rules_(draft_.rules) {
    rules_.source = std::move(source);
  }
  rules::Rules run();

 private:
  void note(Span span, const std::string& message, const std::string& hint = {}) {
    addMessage(draft_.found, {draft_.source.place(span), message, hint});
  }
  void declare(const Name& name, SymbolKind kind, int index);
  void declareAll();
  bool board();  // false: there is none to go on with
  void leaveOut(const Expr& without);
  void boardRule();
  void facing();
  void pieces();
  void pieceLetters(const PieceDecl& piece, rules::PieceKind& kind, std::set<std::string>& letters);
  void zones();
  void groups();
  void moves();
  void afters(std::map<std::string, std::map<std::string, Type>>& namesOf);
  void turn();
  void forbids();
  void ends();
  void rest();
  void tracks();
  void state();
  void views();
  void notation();
  void picture();
  void look(const LookDecl& look, rules::PictureRule& rule);
  std::optional<CellSet> fixedCells(const Expr& expr, TermPtr& term);
  bool squares() const;
  void repetition();
  void cases();
  void worth();
  // What is known while the lines of one move are read.
  struct MoveState {
    rules::StatementInfo::Role role = rules::StatementInfo::Role::move;
    int choices = 0;
    bool secret = false, seenAs = false, writtenAs = false, write = false, maximise = false;
    std::map<std::string, Type> names;  // all of them, inner ones too
    // Texts are resolved when all names are known, into clauses that stand already; `write` and
    // `tell` know the names made above them.
    struct Text {
      const Statement* statement;
      int id;
      std::set<std::string> above;
      std::vector<TermPtr> known;  // of parts that are no plain name
    };
    std::vector<Text> texts;
    std::map<int, std::vector<rules::TextPart>> parts;  // by the number of the statement
  };
  Clauses statements(const std::vector<Statement>& list, Types& types, MoveState& state,
                     bool inner);
  rules::ClauseForm statement(const Statement& one, int id, Types& types, MoveState& state,
                              bool inner);
  NameId named(const Statement& one, Type type, Types& types, MoveState& state);
  rules::ClauseForm pick(const Statement& one, Types& types, MoveState& state);
  rules::ClauseForm choose(const Statement& one, Types& types, MoveState& state);
  rules::ClauseForm put(const Statement& one, Types& types, MoveState& state);
  rules::ClauseForm mark(const Statement& one, Types& types);
  rules::ClauseForm set(const Statement& one, Types& types);
  void text(const Statement& one, int id, Types& types, MoveState& state, bool inner);
  void texts(MoveState& state, Types& types);
  TermPtr textName(const Expr& name, bool ofCell, bool whole, const MoveState::Text& text,
                   MoveState& state, Types& types);
  static void fillTexts(Clauses& list, MoveState& state);
  void sideName(const Name& name);
  int kindName(const Name& name);  // -1, and a message, if it names none
  int number(Span span, rules::StatementInfo::Role role);

  const Tree& tree_;
  Draft draft_;
  rules::Rules& rules_;
};

}  // namespace ninepegs::sheet
