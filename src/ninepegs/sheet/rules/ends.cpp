// What is forbidden, ends, measures, views, notations and cases.
#include <fmt/format.h>

#include <map>
#include <set>
#include <utility>

#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/rules/parts.hpp"

namespace ninepegs::sheet {

void Checker::forbids() {
  for (const ForbidDecl& forbid : tree_.forbids) {
    rules::ForbidRule rule{forbid.reason, nullptr, forbid.span, -1};
    bool before = std::exchange(rules_.readsTimes, false);
    rule.condition = Types(draft_, Context::forbid).want(forbid.condition, Type::truth);
    if (rules_.readsTimes) rules_.timesDecide = rules_.timesForbid = true;
    rules_.readsTimes = rules_.readsTimes || before;
    rule.id = number(forbid.span, rules::StatementInfo::Role::forbid);
    rules_.forbids.push_back(std::move(rule));
  }
}

void Checker::ends() {
  rules_.mayLast = tree_.mayLast;
  rules_.mayLastSpan = tree_.mayLastSpan;
  for (const EndDecl& end : tree_.ends) {
    Types types(draft_, Context::ends);
    rules::EndRule rule;
    static_cast<EndHead&>(rule) = end;
    if (end.kind == EndKind::sideWins) rule.side = rules_.side(end.side.text);
    if (end.kind == EndKind::sideWins && rule.side < 0)
      note(end.side.span, fmt::format("\"{}\" is no side", end.side.text),
           didYouMean(
               end.side.text,
               {tree_.sides[0].text, tree_.sides[1].text, "mover", "opponent", "leader", "draw"},
               "an end begins with mover, opponent, leader, draw or a side's name"));
    if (end.measure) rule.measure = types.want(*end.measure, Type::number);
    bool before = std::exchange(rules_.readsTimes, false);
    rule.condition = types.want(end.condition, Type::truth);
    if (rules_.readsTimes && !end.claim) rules_.timesDecide = true;
    rules_.readsTimes = rules_.readsTimes || before;
    if (end.showing) rule.showing = types.want(*end.showing, Type::set);
    rule.id = number(end.span, rules::StatementInfo::Role::end);
    rules_.ends.push_back(std::move(rule));
  }
}

void Checker::rest() {
  for (std::size_t i = 0; i < tree_.defines.size(); ++i) {
    const DefineDecl& define = tree_.defines[i];
    if (!define.parameters.empty()) continue;  // checked where it is used
    TermPtr body = Types(draft_, Context::define).any(define.body);
    if (!rules_.definitions[i].body) rules_.definitions[i].body = body;
  }
  worth();
  for (const AlwaysDecl& always : tree_.always) {
    Types types(draft_, Context::always);
    TermPtr term = types.want(always.expr, always.change == 0 ? Type::truth : Type::number);
    rules_.always.push_back({term, always.change, always.span});
  }
  std::set<std::string> named;
  for (const SymmetryDecl& symmetry : tree_.symmetries) {
    const rules::SymmetryRule& rule = rules_.symmetries.emplace_back(rules::SymmetryRule{
        symmetry.name, symmetry.exchange, symmetry.name == "all", symmetry.span});
    if (!named.insert(rules::writtenName(rule)).second)
      note(symmetry.span, fmt::format("\"{}\" is named a second time", rules::writtenName(rule)));
    else if (rules::symmetriesOf(rule, rules_.board).empty())
      note(symmetry.span, fmt::format("this board has no \"{}\"", symmetry.name),
           "a quarter turn and a transposition need as many columns as rows");
  }
}

// A number, or the total of the weights on a side's cells that a picture gives.
void Checker::worth() {
  if (!tree_.worth) return;
  Span span = rules_.worthSpan = tree_.worth->span;
  if (tree_.worthPicture.empty()) {
    rules_.worth = Types(draft_, Context::worth).want(*tree_.worth, Type::number);
    return;
  }
  const std::vector<PictureRow>& rows = rules_.board.picture();
  rules_.weights.assign(rules_.board.size(), 0);
  bool fits = rows.size() == tree_.worthPicture.size();
  for (std::size_t y = 0; fits && y < rows.size(); ++y) {
    fits = rows[y].cells.size() == tree_.worthPicture[y].size();
    for (std::size_t x = 0; fits && x < rows[y].cells.size(); ++x)
      rules_.weights[rows[y].cells[x]] = tree_.worthPicture[y][x];
  }
  if (!fits)
    note(span, "the picture of weights does not fit the board",
         fmt::format("the board has {} rows; every cell has a number, one that is left out, too",
                     rows.size()));
  NameId cell = draft_.newName("cell");
  TermPtr weight =
      make(Type::number, span, rules::Weight{make(Type::cell, span, rules::Name{cell})});
  rules_.worth = make(Type::number, span,
                      rules::Total{cell, weight, make(Type::set, span, rules::Side{Whose::mine})});
}

void Checker::state() {
  for (std::size_t i = 0; i < tree_.numbers.size(); ++i) {
    const StateDecl& number = tree_.numbers[i];
    rules::NumberRule& rule = rules_.numbers[i];
    bool bySide = false;
    // The first that fits a side counts.
    for (auto it = number.start.rbegin(); it != number.start.rend(); ++it)
      for (int side = 0; side < 2; ++side)
        if (!it->first || rules_.side(it->first->text) == side) rule.start[side] = it->second;
    for (const auto& [side, value] : number.start) {
      if (side) sideName(*side);
      bySide = bySide || side.has_value();
    }
    if (bySide && number.start.size() != 2)
      note(number.name.span,
           fmt::format("the number \"{}\" is not given for both sides", number.name.text));
    if (!bySide && number.start.size() > 1)
      note(number.name.span, "one value, or one for each side",
           "such as: number komi = 0 for Amber, 5 for Slate");
  }
}

void Checker::repetition() {
  if (!tree_.repetition) return;
  using What = rules::Compared::What;
  static const std::map<SymbolKind, What> kinds = {{SymbolKind::mark, What::mark},
                                                   {SymbolKind::number, What::number},
                                                   {SymbolKind::remembered, What::remembered},
                                                   {SymbolKind::move, What::move}};
  rules::RepetitionRule rule;
  rule.span = tree_.repetition->span;
  for (const Name& name : tree_.repetition->compares) {
    if (name.text == "pieces" || name.text == "turn") {
      rule.compares.push_back({name.text == "turn" ? What::turn : What::pieces, 0});
      continue;
    }
    const Symbol* symbol = rules_.find(name.text);
    auto it = symbol == nullptr ? kinds.end() : kinds.find(symbol->kind);
    if (it == kinds.end()) {
      note(name.span, fmt::format("\"{}\" cannot be compared", name.text),
           "there are: pieces, turn, and the names of marks, numbers, cells and moves");
      continue;
    }
    if (it->second == What::move && rules_.timesForbid)
      note(name.span, "moves cannot be compared where `forbid` asks for `times seen`",
           "which moves are legal would depend on itself");
    rule.compares.push_back({it->second, symbol->index});
  }
  rules_.repetition = std::move(rule);
}

void Checker::views() {
  for (const PieceDecl& piece : tree_.pieces) rules_.hasSecrets = rules_.hasSecrets || piece.secret;
  for (const SeesDecl& sees : tree_.sees) {
    Types types(draft_, Context::sees);
    bool kinds = sees.what.kind == ExprKind::kindsWhere;
    TermPtr what = kinds ? types.any(sees.what) : types.want(sees.what, Type::set);
    rules_.sees.push_back({what, sees.letter, sees.theirBoard, sees.span});
    if (!rules_.layered() && sees.theirBoard)
      note(sees.span, "this board is one for both sides", "say: as X");
    if (kinds && !sees.letter.empty())
      note(sees.span, "kinds of piece have no cell to be shown on", "leave out `as ...`");
  }
}

void Checker::notation() {
  if (!tree_.notation) return;
  const NotationDecl& fen = *tree_.notation;
  auto wants = [&](const Name& name, SymbolKind kind, const char* what) {
    if (name.text.empty()) return -1;
    const Symbol* symbol = rules_.find(name.text);
    if (symbol != nullptr && symbol->kind == kind) return symbol->index;
    note(name.span, fmt::format("\"{}\" is no {} of this sheet", name.text, what));
    return -1;
  };
  rules::NotationRule rule;
  rule.format = fen.format;
  rule.span = fen.span;
  rule.mark = wants(fen.mark, SymbolKind::mark, "mark");
  rule.target = wants(fen.target, SymbolKind::remembered, "remembered cell");
  rule.clock = wants(fen.clock, SymbolKind::number, "number");
  rule.pawn = wants(fen.pawn, SymbolKind::kind, "kind of piece");
  rule.castle = wants(fen.castle, SymbolKind::move, "move");
  for (const auto& [letter, name] : fen.rights) {
    std::optional<Cell> cell = rules_.board.find(name.text);
    if (!cell) note(name.span, fmt::format("there is no cell \"{}\"", name.text));
    rule.rights.emplace_back(letter, cell.value_or(0));
  }
  if (fen.check) rule.check = Types(draft_, Context::ends).want(*fen.check, Type::truth);
  if (tree_.board.kind != Shape::square || rules_.layered() || tree_.board.levels > 1)
    note(fen.span, "this notation is for one square board");
  rules_.notation = std::move(rule);
}

void Checker::cases() {
  for (const CaseDecl& one : tree_.cases) {
    rules::CaseRule rule{one.name, one.variant.text, one.variant.span, one.position, {}, one.span};
    bool here = one.variant.text == tree_.variant;
    for (const sheet::CaseStep& step : one.steps) {
      rules::CaseStep to;
      static_cast<CaseStepHead&>(to) = step;
      to.subject = step.subject.text;
      to.draw = step.kind == ExpectKind::end && step.subject.text == "draw";
      to.toCell = step.kind == ExpectKind::moves && step.endName == "to";
      to.subjectSpan = step.subject.span;
      if (here && step.kind == ExpectKind::condition)
        to.condition = Types(draft_, Context::example).want(step.condition, Type::truth);
      if (here && (step.kind == ExpectKind::seenBy || step.kind == ExpectKind::sees))
        sideName(step.subject);
      rule.steps.push_back(std::move(to));
    }
    rules_.cases.push_back(std::move(rule));
  }
}

}  // namespace ninepegs::sheet
