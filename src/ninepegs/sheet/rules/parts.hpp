// The parts of check(): board and pieces (check_board.cpp), moves (check_moves.cpp), the rest
// (checker.cpp). Internal.
#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "ninepegs/sheet/rules/checker.hpp"
#include "ninepegs/sheet/rules/types.hpp"

namespace ninepegs::sheet {

class Checker {
 public:
  Checker(Tree tree, const Source& source, std::vector<Diagnostic>& found)
      : source_(source), found_(found) {
    out_.tree = std::move(tree);
  }
  Checked run();

 private:
  void note(Span span, const std::string& message, const std::string& hint = {}) {
    addMessage(found_, {source_.place(span), message, hint});
  }
  void declare(const Name& name, SymbolKind kind, int index);
  void declareAll();
  bool board();  // false: there is none to go on with
  void facing();
  void pieces();
  void zones();
  void groups();
  void moves();
  void turn();
  void ends();
  void rest();
  void tracks();
  void state();
  void views();
  void notation();
  void repetition();
  void cases();
  void worthPicture();
  // What is known while the lines of one move are read.
  struct MoveState {
    StatementInfo::Role role = StatementInfo::Role::move;
    bool changed = false;  // a line above changes the position
    int choices = 0;
    bool secret = false, seenAs = false, writtenAs = false, write = false, maximise = false;
    std::map<std::string, Type> names;  // all of them, inner ones too
    // Texts are checked when all names are known; `write` and `tell` know those made above them.
    struct Text {
      Statement* statement;
      std::set<std::string> above;
    };
    std::vector<Text> texts;
  };
  void statements(std::vector<Statement>& list, Types& types, MoveState& state, bool inner);
  void statement(Statement& one, Types& types, MoveState& state, bool inner);
  void set(Statement& one, Types& types);
  void texts(MoveState& state, Types& types);
  void sideName(const Name& name);
  void kindName(const Name& name);
  int number(Span span, StatementInfo::Role role);

  const Source& source_;
  std::vector<Diagnostic>& found_;
  Checked out_;
};

}  // namespace ninepegs::sheet
