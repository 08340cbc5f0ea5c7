// Expressions -> terms: resolves names, settles types, refuses what does not fit. Internal to
// check(). Every method returns null if it gave a message.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/sheet/rules/checker.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs::sheet {

using rules::make;
using rules::NameId;
using rules::TermPtr;
using rules::Type;
using rules::Whose;

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

// What check() knows while it makes rules.
struct Draft {
  const Tree& tree;
  const Source& source;
  std::vector<Diagnostic>& found;
  rules::Rules rules;
  std::map<std::string, NameId> moveNames;  // one number for a name, in whichever move
  std::map<std::string, int> ways;
  int definitionUses = 0;  // so far, each counted with all it uses

  std::vector<int> directions(const std::string& word, int side) const {
    return rules::directionsOf(rules.board, rules.facing[side], word);
  }
  // Kinds of a kind or a group; none: it is neither.
  std::optional<rules::Noun> noun(const std::string& word) const;
  NameId newName(const std::string& text);
  NameId moveName(const std::string& text);
  int waysOf(const std::string& word);
};

class Types {
 public:
  Types(Draft& draft, Context context)
      : draft_(draft), rules_(draft.rules), tree_(draft.tree), context_(context) {}

  // A term of the type; a cell will do for a set and the other way round, a kind for the set of all
  // its pieces, a number that is a cell's label for that cell.
  TermPtr want(const Expr& expr, Type type);
  // Any term that a definition may stand for.
  TermPtr any(const Expr& expr) { return infer(expr); }
  // A set, cell, number, kind or kinds.
  TermPtr valueOf(const Expr& expr);
  // `lines of N in S`, of which one is picked; N may be any number.
  TermPtr linesToPick(const Expr& lines);
  // A part of a text: a cell, set, number, kind or kinds.
  TermPtr textPart(const Expr& expr);

  // A name of a move from here on; a message if it is taken.
  void local(const Name& name, Type type, NameId id);
  void known(const std::string& name, Type type, NameId id) { locals_.push_back({name, type, id}); }
  Type localType(const std::string& name) const;
  std::size_t scope() const { return locals_.size(); }
  void endScope(std::size_t scope) { locals_.resize(scope); }

 private:
  struct Local {
    std::string name;
    Type type = Type::unknown;
    NameId id = -1;
  };
  const Local* findLocal(const std::string& name) const;
  TermPtr coerced(TermPtr term, Type type) const;
  TermPtr formerPieces(const TermPtr& term) const;
  TermPtr infer(const Expr& expr);
  TermPtr inferForm(const Expr& expr);
  TermPtr labelled(const Expr& expr) const;  // the cell whose label a number is, else null
  TermPtr name(const Expr& expr);
  TermPtr nameOfSheet(const Expr& expr, const rules::Symbol& symbol);
  TermPtr call(const Expr& expr, Whose whose);
  TermPtr own(const Expr& inner, Whose whose, Span span, const std::string& word);
  TermPtr ofName(const Expr& expr);
  TermPtr either(const Expr& expr);
  TermPtr compare(const Expr& expr);
  TermPtr tested(const Expr& expr);
  TermPtr isSide(const Expr& expr);
  TermPtr lines(const Expr& expr, bool anyLength);
  TermPtr walk(const Expr& expr);
  TermPtr choice(const Expr& expr);
  TermPtr rowsOf(const Expr& expr);
  TermPtr kindsWhere(const Expr& expr);
  TermPtr total(const Expr& expr);
  TermPtr argument(const Expr& expr);
  bool zoneIsKnown(const Expr& expr, int index);
  std::string minusHint(const std::string& word) const;
  bool group(const Expr& expr, const std::string& name);
  bool outsideReach(Span span);
  bool ofNow(Span span, const std::string& what);
  bool inside(std::initializer_list<Context> contexts) const;
  // A body that may speak of one name more.
  TermPtr bind(const Expr& body, const std::string& variable, Type type, Type wanted, NameId& id);
  std::nullptr_t note(Span span, const std::string& message, const std::string& hint = {});
  bool namesSide(const Expr& expr) const;
  std::vector<std::string> namesInScope() const;

  // All of them, so that each has its message; false if one is refused.
  struct Wanted {
    const Expr& expr;
    Type type;
    TermPtr& term;
  };
  bool all(std::initializer_list<Wanted> wanted);

  Draft& draft_;
  rules::Rules& rules_;
  const Tree& tree_;
  Context context_;
  std::vector<Local> locals_;
  bool inWas_ = false;
  int defineDepth_ = 0;
  int depth_ = 0;  // of the expression, definitions written out
};

std::string typeName(Type type);

}  // namespace ninepegs::sheet
