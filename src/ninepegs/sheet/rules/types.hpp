// Types of expressions: resolves names, refuses what does not fit. Internal to check().
#pragma once

#include <string>
#include <vector>

#include "ninepegs/sheet/rules/checker.hpp"

namespace ninepegs::sheet {

// Where an expression stands: what it may speak of.
enum class Context {
  constant,
  reach,
  move,
  after,
  forbid,
  ends,
  worth,
  always,
  sees,
  define,  // wherever it will be used: checked there
  example
};

class Types {
 public:
  Types(Checked& sheet, const Source& source, std::vector<Diagnostic>& found, Context context)
      : sheet_(sheet), source_(source), found_(found), context_(context) {}

  // Checks that the expression yields the type; a cell will do for a set, a number that is a cell's
  // label for a cell. False if a message was given.
  bool want(Expr& expr, Type type);
  // Checks an expression that may yield anything that a definition may stand for.
  Type any(Expr& expr) { return infer(expr); }
  // Checks an expression that may yield a set, cell, number or kind.
  Type valueOf(Expr& expr);

  // `lines of N in S`, of which one is picked; N may be any number.
  bool linesToPick(Expr& lines);
  // A part of a text: a cell, set, number, kind or kinds.
  Type textPart(Expr& expr);

  void local(const Name& name, Type type);
  void known(const std::string& name, Type type) { locals_.emplace_back(name, type); }
  Type localType(const std::string& name) const;
  std::vector<std::string> localNames() const;
  std::size_t scope() const { return locals_.size(); }
  void endScope(std::size_t scope) { locals_.resize(scope); }

 private:
  Type infer(Expr& expr);
  Type inferForm(Expr& expr);
  Type name(Expr& expr);
  Type call(Expr& expr);
  Type own(Expr& expr);
  Type ofName(Expr& expr);
  Type either(Expr& expr);
  Type compare(Expr& expr);
  Type lines(Expr& expr, bool anyLength);
  Type kindWord(Expr& expr);
  Type argument(Expr& expr);
  bool zoneIsKnown(const Expr& expr, int index);
  std::string minusHint(const std::string& word) const;
  bool group(const Expr& expr, const std::string& name);
  bool outsideReach(const Expr& expr);
  bool ofNow(const Expr& expr, const std::string& what);
  bool inside(std::initializer_list<Context> contexts) const;
  Type bind(Expr& body, const std::string& variable, Type type, Type wanted);
  bool wantSets(Expr& expr);
  void note(Span span, const std::string& message, const std::string& hint = {});
  bool isSide(const Expr& expr) const;
  std::vector<std::string> namesInScope() const;

  Checked& sheet_;
  const Source& source_;
  std::vector<Diagnostic>& found_;
  Context context_;
  std::vector<std::pair<std::string, Type>> locals_;
  bool inWas_ = false;
  int defineDepth_ = 0;
  int depth_ = 0;  // of the expression, definitions written out
};

std::string typeName(Type type);

// Is it `my hand` or `their hand`?
bool isHand(const Expr& expr);

}  // namespace ninepegs::sheet
