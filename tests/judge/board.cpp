// What stands where, and ways over the board, by walking.
#include <algorithm>

#include "judge/judge.hpp"

namespace ninepegs::judge {

using sheet::Expr;
using sheet::ExprKind;

namespace {

// Calls `look` for every expression of the sheet.
template <class F>
void everyExpr(const Expr& expr, F look) {
  look(expr);
  for (const Expr& arg : expr.args) everyExpr(arg, look);
}
template <class F>
void everyStatement(const std::vector<sheet::Statement>& list, F look) {
  for (const sheet::Statement& one : list) {
    look(one);
    everyStatement(one.body, look);
    everyStatement(one.otherwise, look);
  }
}

}  // namespace

Judge::Judge(const sheet::Tree& tree, const Geometry& board) : tree_(tree), board_(board) {
  for (Cell cell = 0; cell < board.size(); ++cell)
    if (board.has(cell)) all_.insert(cell);
  std::set<std::string> used;  // definitions; what nobody uses says nothing
  std::vector<std::string> open;
  auto expr = [&](const Expr& one) {
    if ((one.kind == ExprKind::name || one.kind == ExprKind::call) && used.insert(one.word).second)
      open.push_back(one.word);
    if (one.kind == ExprKind::name && one.word == "times seen") readsTimes_ = true;
    if (one.kind == ExprKind::name && one.word == "passes") readsPasses_ = true;
    if (one.kind == ExprKind::hand) hasHands_ = true;
  };
  auto statement = [&](const sheet::Statement& one) {
    if (one.kind == sheet::StatementKind::again) usesAgain_ = true;
    if (one.fromHand || one.choose == sheet::ChooseKind::hand) hasHands_ = true;
    for (const Expr& arg : one.args) everyExpr(arg, expr);
  };
  for (const sheet::MoveDecl& move : tree.moves) everyStatement(move.body, statement);
  for (const sheet::AfterDecl& after : tree.afters) everyStatement(after.body, statement);
  for (const sheet::EndDecl& end : tree.ends) {
    everyExpr(end.condition, expr);
    if (end.measure) everyExpr(*end.measure, expr);
    if (end.showing) everyExpr(*end.showing, expr);
  }
  for (const sheet::ForbidDecl& forbid : tree.forbids) everyExpr(forbid.condition, expr);
  for (const sheet::AlwaysDecl& always : tree.always) everyExpr(always.expr, expr);
  for (const sheet::PieceDecl& piece : tree.pieces)
    if (piece.reach) everyExpr(*piece.reach, expr);
  for (const sheet::SeesDecl& sees : tree.sees) everyExpr(sees.what, expr);
  if (tree.worth) everyExpr(*tree.worth, expr);
  for (const sheet::CaseDecl& one : tree.cases)
    if (one.variant.text == tree.variant)
      for (const sheet::CaseStep& step : one.steps) everyExpr(step.condition, expr);
  {
    // Does a `forbid` ask how often a position was seen, itself or through definitions?
    std::set<std::string> known;
    auto asks = [&](auto&& self, const Expr& one) -> bool {
      if (one.kind == ExprKind::name && one.word == "times seen") return true;
      if (known.insert(one.word).second)
        for (const sheet::DefineDecl& define : tree.defines)
          if (define.name.text == one.word && self(self, define.body)) return true;
      return std::any_of(one.args.begin(), one.args.end(),
                         [&](const Expr& arg) { return self(self, arg); });
    };
    for (const sheet::ForbidDecl& forbid : tree.forbids)
      forbidsTimes_ = forbidsTimes_ || asks(asks, forbid.condition);
  }
  for (const sheet::DefineDecl& define : tree.defines)
    if (define.parameters.empty()) everyExpr(define.body, expr);
  while (!open.empty()) {
    std::string name = open.back();
    open.pop_back();
    for (const sheet::DefineDecl& define : tree.defines)
      if (define.name.text == name) everyExpr(define.body, expr);
  }
}

Cell Judge::next(Cell cell, int direction) const {
  return cell < 0 ? -1 : board_.step(cell, direction).value_or(-1);
}

// Clockwise numbers of the directions in the plane: north is 0 on squares, northeast on hexes.
std::vector<int> Judge::directions(const std::string& group, int side) const {
  const std::vector<Direction>& all = board_.directions();
  bool square = tree_.board.kind == Shape::square;
  bool hexes = tree_.board.kind == Shape::hexagon || tree_.board.kind == Shape::rhombus;
  int round = square ? 8 : hexes ? 6 : 0;
  int facing = square ? (side == 0 ? 0 : 4) : -1;
  for (const auto& [way, name] : tree_.facing)
    if (name.text == tree_.sides[side].text)
      for (int d = 0; d < round; ++d)
        if (all[d].name == way.text) facing = d;
  auto around = [&](int from, std::vector<int> places) {
    std::vector<int> out;
    for (int place : places)
      if (from >= 0) out.push_back((from + place + round) % round);
    return out;
  };
  int back = facing < 0 ? -1 : (facing + round / 2) % round;
  if (group == "forward") return around(facing, {0});
  if (group == "backward") return around(back, {0});
  if (group == "forward-diagonal") return square ? around(facing, {-1, 1}) : std::vector<int>{};
  if (group == "backward-diagonal") return square ? around(back, {-1, 1}) : std::vector<int>{};
  if (group == "forward-any") return around(facing, {-1, 0, 1});
  std::vector<int> out;
  for (std::size_t d = 0; d < all.size(); ++d) {
    const std::string& name = all[d].name;
    bool straight = name == "north" || name == "east" || name == "south" || name == "west" ||
                    name == "up" || name == "down";
    if (group == "any" || name == group || (square && group == "orthogonal" && straight) ||
        (square && group == "diagonal" && !straight))
      out.push_back(static_cast<int>(d));
  }
  return out;
}

Cells Judge::stepped(const Cells& from, int direction) const {
  Cells out;
  for (Cell cell : from)
    if (Cell to = next(cell, direction); to >= 0) out.insert(to);
  return out;
}

Cells Judge::slid(const Cells& from, const Cells& through, const std::vector<int>& ways) const {
  Cells out;
  for (Cell start : from)
    for (int way : ways) {
      Cells passed;
      for (Cell cell = next(start, way); cell >= 0; cell = next(cell, way)) {
        out.insert(cell);
        if (through.count(cell) == 0 || !passed.insert(cell)) break;
      }
    }
  return out;
}

Cells Judge::spread(const Cells& from, const Cells& through, const std::vector<int>& ways) const {
  Cells out;
  std::vector<Cell> open;
  for (Cell cell : from)
    if (through.count(cell) > 0) open.push_back(cell);
  while (!open.empty()) {
    Cell cell = open.back();
    open.pop_back();
    if (!out.insert(cell)) continue;
    for (int way : ways)
      if (Cell to = next(cell, way); to >= 0 && through.count(to) > 0) open.push_back(to);
  }
  return out;
}

// Every straight run of that many different cells once, along one way of each pair.
const std::vector<Judge::Line>& Judge::lines(std::int64_t length, const std::string& along) const {
  auto [it, fresh] = lines_.insert({{length, along}, {}});
  if (!fresh || length < 1) return it->second;
  std::set<int> axes;
  for (int way : directions(along, 0)) axes.insert(std::min(way, board_.opposite(way)));
  std::set<Cells> known;
  for (int way : axes) {
    for (Cell start = 0; start < board_.size(); ++start) {
      if (!board_.has(start)) continue;
      Line line;
      Cells cells;
      Cell cell = start;
      while (cell >= 0 && static_cast<std::int64_t>(cells.size()) < length && cells.insert(cell)) {
        line.cells.push_back(cell);
        cell = next(cell, way);
      }
      if (static_cast<std::int64_t>(cells.size()) < length || !known.insert(cells).second) continue;
      for (Cell end : {next(line.cells.back(), way), next(start, board_.opposite(way))})
        if (end >= 0 && cells.count(end) == 0) line.beyond.insert(end);
      it->second.push_back(std::move(line));
    }
    if (length == 1) break;  // a single cell is one line, whichever way it runs
  }
  return it->second;
}

std::vector<Judge::Line> Judge::linesIn(const Expr& expr, const Look& look) const {
  std::int64_t length = number(expr.args[0], look);
  Cells in = set(expr.args[1], look);
  std::optional<Cell> through;
  if (expr.args.size() > 2) through = cell(expr.args[2], look);
  std::vector<Line> out;
  if (length > board_.size()) return out;
  for (const Line& line : lines(length, expr.word)) {
    auto inside = [&](Cell c) { return in.count(c) > 0; };
    if (!std::all_of(line.cells.begin(), line.cells.end(), inside)) continue;
    if (expr.first == 1 && std::any_of(line.beyond.begin(), line.beyond.end(), inside)) continue;
    if (through && std::find(line.cells.begin(), line.cells.end(), *through) == line.cells.end())
      continue;
    out.push_back(line);
  }
  return out;
}

int Judge::side(const std::string& name) const {
  return name == tree_.sides[0].text ? 0 : name == tree_.sides[1].text ? 1 : -1;
}

const sheet::PieceDecl* Judge::piece(const std::string& kind) const {
  for (const sheet::PieceDecl& one : tree_.pieces)
    if (one.name.text == kind) return &one;
  return nullptr;
}

std::set<std::string> Judge::kindsNamed(const std::string& name) const {
  if (piece(name) != nullptr) return {name};
  std::set<std::string> out;
  for (const sheet::SetDecl& group : tree_.groups)
    if (group.name.text == name)
      for (const sheet::Name& member : group.members) out.insert(member.text);
  return out;
}

std::int64_t Judge::property(const std::string& word, const std::string& kind) const {
  if (const sheet::PieceDecl* one = piece(kind))
    for (const auto& [name, value] : one->values)
      if (name.text == word) return value;
  return 0;
}

Cells Judge::pieces(const State& state, int side) const {
  Cells out;
  for (const auto& board : state.board)
    for (const auto& [cell, what] : board)
      if (side < 0 || what.side == side) out.insert(cell);
  return out;
}

Cells Judge::ofKind(const State& state, const std::string& kind, int side) const {
  Cells out;
  for (const auto& board : state.board)
    for (const auto& [cell, what] : board)
      if (what.kind == kind && (side < 0 || what.side == side)) out.insert(cell);
  return out;
}

Cells Judge::empty(const State& state, int side) const {
  Cells out;
  for (Cell cell = 0; cell < board_.size(); ++cell)
    if (board_.has(cell) && state.board[layered() ? side : 0].count(cell) == 0) out.insert(cell);
  return out;
}

// What stands there: of a side, or of anyone, the first side before the second.
std::optional<Standing> Judge::standing(const State& state, Cell cell, int side) const {
  for (const auto& board : state.board) {
    auto it = board.find(cell);
    if (it != board.end() && (side < 0 || it->second.side == side)) return it->second;
  }
  return std::nullopt;
}

Cells Judge::reachOf(Cell cell, const Look& look) const {
  for (const auto& board : look.now->board) {
    auto it = board.find(cell);
    if (it == board.end() || it->second.side < 0) continue;
    const sheet::PieceDecl* kind = piece(it->second.kind);
    if (!kind->reach) continue;
    Look from = look;
    from.me = it->second.side;
    from.origin = Cells{cell};
    return set(*kind->reach, from);
  }
  return {};
}

Cells Judge::reachOfSide(int owner, const Look& look) const {
  Cells out;
  for (const auto& board : look.now->board)
    for (const auto& [cell, what] : board) {
      const sheet::PieceDecl* kind = piece(what.kind);
      if (what.side != owner || !kind->reach) continue;
      Look from = look;
      from.me = owner;
      from.origin = Cells{cell};
      Cells reached = set(*kind->reach, from);
      out.add(reached);
    }
  return out;
}

Cells Judge::touched(const Look& look) const {
  Cells out;
  for (int layer = 0; layer < 2; ++layer)
    for (Cell cell = 0; cell < board_.size(); ++cell) {
      const auto& now = look.now->board[layer];
      const auto& before = look.before->board[layer];
      auto a = now.find(cell), b = before.find(cell);
      bool same = a == now.end() ? b == before.end() : b != before.end() && a->second == b->second;
      if (!same) out.insert(cell);
    }
  return out;
}

}  // namespace ninepegs::judge
