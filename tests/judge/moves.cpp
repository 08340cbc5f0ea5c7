// What a move does, line by line. A move is run again from its beginning for every choice more.
#include <algorithm>

#include "judge/judge.hpp"
#include "ninepegs/base/limits.hpp"

namespace ninepegs::judge {

using sheet::ChooseKind;
using sheet::Expr;
using sheet::ExprKind;
using sheet::RepeatKind;
using sheet::Statement;
using sheet::StatementKind;

// One run of a move with the choices given. It ends at the first choice that is not given, where it
// leaves what could be chosen; or at the move's end.
class Run {
 public:
  enum class End { choose, illegal, fault, done };

  Run(const Judge& judge, int move, const State& start, const std::vector<std::int64_t>& choices,
      bool made)
      : state(start),
        judge_(judge),
        tree_(judge.tree_),
        move_(tree_.moves[move]),
        moveNumber_(move),
        before_(start),
        choices_(choices),
        made_(made) {}

  End go();

  State state;
  std::vector<std::int64_t> options;  // at End::choose
  std::int64_t measure = 0;           // of `must maximise`, at End::done
  std::set<std::vector<int>> rounds;  // that were made to their end, by the choices before them
  std::string text, seen;
  std::vector<std::string> told;

 private:
  struct Ended {
    End end;
  };
  using Look = Judge::Look;

  Look look() const {
    Look out{&state, &before_, mover(), names_, {}};
    return out;
  }
  int mover() const { return before_.turn; }
  int layer() const { return judge_.layered() ? mover() : 0; }
  std::int64_t choose(const std::vector<std::int64_t>& from) {
    if (taken_ < choices_.size()) return choices_[taken_++];
    if (taken_ >= limits::choices) throw TooMuch("too many choices");
    options = from;
    throw Ended{End::choose};
  }
  [[noreturn]] void fault(const Statement& one) {
    state.outcome = {};
    state.outcome.kind = Outcome::Kind::fault;
    state.outcome.line = one.span.line;
    throw Ended{End::fault};
  }
  bool mayBelong(const std::string& kind, int side) const {
    const sheet::PieceDecl* piece = judge_.piece(kind);
    if (piece->neutral) return side < 0;
    if (side < 0) return false;
    return piece->only.text.empty() || judge_.side(piece->only.text) == side;
  }
  void statements(const std::vector<Statement>& list) {
    for (const Statement& one : list) statement(one);
  }
  void statement(const Statement& one);
  void pick(const Statement& one);
  void choosing(const Statement& one);
  void put(const Statement& one);
  void change(const Statement& one);
  void flip(const Statement& one);
  void shift(const Statement& one);
  void shiftBy(const Statement& one);
  void assign(const Statement& one);
  void repeat(const Statement& one);
  bool roundPossible() const;
  std::string kindNamed(const Statement& one) const {
    auto local = names_.find(one.name.text);
    return local != names_.end() ? local->second.kind : one.name.text;
  }
  int owner(const Statement& one) const {
    return one.names.empty() || one.names[0].text == "my" ? mover() : 1 - mover();
  }

  // Texts.
  struct Writing {
    std::string text;
    std::size_t literal = std::string::npos;  // where the last quoted text begins
  };
  void write(const Statement& one, Writing& into);
  void part(Writing& into, const std::optional<std::string>& value);
  std::optional<std::string> textOf(const Value& value) const;
  bool belongs(const sheet::AfterDecl& after) const {
    return after.moves.empty() ||
           std::any_of(after.moves.begin(), after.moves.end(),
                       [&](const sheet::Name& name) { return name.text == move_.name.text; });
  }
  void make(const Statement& one, const Value& value) {
    names_[one.name.text] = value;
    unmade_.erase(one.name.text);
  }
  void defaultText();
  void notMade(const std::vector<Statement>& list, bool inner);
  Value nothing(const Statement& one) const;

  const Judge& judge_;
  const sheet::Tree& tree_;
  const sheet::MoveDecl& move_;
  int moveNumber_;
  State before_;
  std::vector<std::int64_t> choices_;
  bool made_;  // not only tried
  std::size_t taken_ = 0;
  bool again_ = false, inAfter_ = false, hides_ = false;
  std::set<std::string> unmade_;  // names made inside blocks, until they are made
  std::map<std::string, Value> names_;
  std::map<std::string, std::array<Cell, 2>> pending_;  // cells that last one move
  Writing text_, seen_, told_;
};

namespace {

Value cellValue(Cell cell) {
  Value out;
  out.sort = Value::Sort::cell;
  out.cell = cell;
  return out;
}
Value numberValue(std::int64_t number) {
  Value out;
  out.sort = Value::Sort::number;
  out.number = number;
  return out;
}

bool writes(const std::vector<Statement>& list) {
  return std::any_of(list.begin(), list.end(), [](const Statement& one) {
    return one.kind == StatementKind::write || one.kind == StatementKind::writtenAs ||
           writes(one.body) || writes(one.otherwise);
  });
}

}  // namespace

// What a name is that was not made: no cell, no cells, no kind, 0.
Value Run::nothing(const Statement& one) const {
  Value out;
  bool lines = one.kind == StatementKind::pick && one.args[0].kind == ExprKind::lines;
  if (one.kind == StatementKind::pick && !lines) {
    out = cellValue(-1);
  } else if (one.kind == StatementKind::pick) {
    out.line = true;
  } else if (one.kind == StatementKind::choose) {
    out.sort = one.choose == ChooseKind::range ? Value::Sort::number : Value::Sort::kind;
    out.chosen = true;
  } else {
    // Of what sort it will be shows when it is worked out with what there is now.
    Look at = look();
    Value made = judge_.value(one.args[0], at);
    if (!judge_.isBareKind(one.args[0], at)) out.sort = made.sort;
    out.line = made.line;
  }
  return out;
}

// Names made inside blocks are known outside of them, in texts and in `after`, with no value until
// they are made.
void Run::notMade(const std::vector<Statement>& list, bool inner) {
  for (const Statement& one : list) {
    bool makes = one.kind == StatementKind::pick || one.kind == StatementKind::choose ||
                 one.kind == StatementKind::let;
    if (makes && names_.count(one.name.text) == 0) {
      names_.insert({one.name.text, nothing(one)});
      if (inner) unmade_.insert(one.name.text);
    }
    notMade(one.body, true);
    notMade(one.otherwise, true);
  }
}

Run::End Run::go() {
  try {
    notMade(move_.body, false);
    for (const sheet::StateDecl& cell : tree_.cells)
      if (cell.lastsOneMove) pending_[cell.name.text] = {-1, -1};
    statements(move_.body);
    bool written = writes(move_.body);
    for (const sheet::AfterDecl& after : tree_.afters)
      if (belongs(after)) written = written || writes(after.body);
    if (!written) defaultText();
    for (const Statement& one : move_.body) {
      if (one.kind == StatementKind::writtenAs) write(one, text_);
      if (one.kind == StatementKind::seenAs) write(one, seen_), hides_ = true;
    }
    for (const auto& [name, cells] : pending_) state.cells[name] = cells;
    inAfter_ = true;
    std::map<std::string, Value> own = names_;
    for (const sheet::AfterDecl& after : tree_.afters) {
      if (!belongs(after)) continue;
      names_ = own;
      notMade(after.body, false);
      statements(after.body);
      for (auto& [name, value] : own) value = names_.at(name);  // `set` may have changed it
    }
    state.passes = 0;
    judge_.turnOver(state, again_);
    names_ = own;
    State asked = state;  // for which the position before is an earlier one
    if (judge_.forbidsTimes_)
      asked.earlier.push_back(before_.stands ? *before_.stands : judge_.seenKey(before_));
    for (const sheet::ForbidDecl& forbid : tree_.forbids) {
      Look at{&asked, &before_, mover(), {}, {}};
      if (!made_ && judge_.truth(forbid.condition, at)) throw Ended{End::illegal};
    }
  } catch (const Ended& ended) {
    if (ended.end == End::choose || ended.end == End::illegal) return ended.end;
    text = text_.text.empty() ? move_.name.text : text_.text;
    seen = hides_ ? seen_.text : text;
    return ended.end;
  }
  text = text_.text.empty() ? move_.name.text : text_.text;
  seen = hides_ ? seen_.text : text;
  std::size_t from = 1;
  while (from < told_.text.size()) {
    std::size_t to = std::min(told_.text.find('\n', from), told_.text.size());
    told.push_back(told_.text.substr(from, to - from));
    from = to + 1;
  }
  return End::done;
}

void Run::pick(const Statement& one) {
  const Expr& from = one.args[0];
  if (from.kind == ExprKind::lines && from.plural) {
    std::vector<Judge::Line> lines = judge_.linesIn(from, look());
    std::vector<std::int64_t> numbers;
    // Lines are told apart by their lowest cells.
    for (std::size_t i = 0; i < lines.size(); ++i) numbers.push_back(static_cast<std::int64_t>(i));
    std::int64_t choice = choose(numbers);
    const Judge::Line& line = lines.at(static_cast<std::size_t>(choice));
    Value value;
    value.line = true;
    value.cells = Cells(line.cells);
    make(one, value);
    return;
  }
  Cells cells = judge_.set(from, look());
  std::vector<std::int64_t> options_;
  for (Cell cell : cells) options_.push_back(cell);
  if (options_.empty() && one.ifAny) options_.push_back(-1);
  make(one, cellValue(static_cast<Cell>(choose(options_))));
}

void Run::choosing(const Statement& one) {
  if (one.choose == ChooseKind::range) {
    std::int64_t low = judge_.number(one.args[0], look()),
                 high = judge_.number(one.args[1], look());
    std::vector<std::int64_t> numbers;
    for (std::int64_t n = std::max<std::int64_t>(low, 0); n <= std::min<std::int64_t>(high, 65534);
         ++n) {
      numbers.push_back(n);
      if (numbers.size() > 4000) throw TooMuch("too many numbers");
    }
    Value value = numberValue(choose(numbers));
    value.chosen = true;
    make(one, value);
    return;
  }
  std::vector<std::int64_t> kinds;
  for (std::size_t k = 0; k < tree_.pieces.size(); ++k) {
    const std::string& name = tree_.pieces[k].name.text;
    bool offered = false;
    if (one.choose == ChooseKind::hand) {
      auto held = state.hands[mover()].find(name);
      offered = held != state.hands[mover()].end() && held->second > 0;
    }
    for (const sheet::Name& listed : one.names) offered = offered || listed.text == name;
    if (offered) kinds.push_back(static_cast<std::int64_t>(k));
  }
  Value value;
  value.sort = Value::Sort::kind;
  value.kind = tree_.pieces[static_cast<std::size_t>(choose(kinds))].name.text;
  make(one, value);
}

void Run::put(const Statement& one) {
  std::string kind = kindNamed(one);
  if (one.fromHand) {
    if (kind.empty()) fault(one);
    std::int64_t& held = state.hands[mover()][kind];
    if (held == 0) throw Ended{End::illegal};
    --held;
  }
  Cells cells = judge_.set(one.args[0], look());
  if (kind.empty()) fault(one);
  int side = judge_.piece(kind)->neutral ? -1 : mover();
  if (!mayBelong(kind, side)) fault(one);
  auto& board = state.board[side < 0 ? 0 : layer()];
  for (Cell cell : cells)
    if (board.count(cell) > 0) fault(one);
  for (Cell cell : cells) board[cell] = {kind, side};
}

void Run::change(const Statement& one) {
  std::string kind = kindNamed(one);
  Cells cells = judge_.set(one.args[0], look());
  if (kind.empty()) fault(one);
  auto& board = state.board[layer()];
  for (Cell cell : cells)
    if (auto it = board.find(cell); it != board.end() && !mayBelong(kind, it->second.side))
      fault(one);
  for (Cell cell : cells)
    if (auto it = board.find(cell); it != board.end()) it->second.kind = kind;
}

void Run::flip(const Statement& one) {
  auto& board = state.board[0];
  Cells cells = judge_.set(one.args[0], look());
  for (Cell cell : cells)
    if (auto it = board.find(cell); it != board.end() && it->second.side >= 0 &&
                                    !mayBelong(it->second.kind, 1 - it->second.side))
      fault(one);
  for (Cell cell : cells)
    if (auto it = board.find(cell); it != board.end() && it->second.side >= 0)
      it->second.side = 1 - it->second.side;
}

void Run::shift(const Statement& one) {
  Cell from = judge_.cell(one.args[0], look()), to = judge_.cell(one.args[1], look());
  auto& board = state.board[layer()];
  if (from < 0 || to < 0 || from == to || board.count(from) == 0) return;
  if (board.count(to) > 0) fault(one);
  board[to] = board[from];
  board.erase(from);
}

void Run::shiftBy(const Statement& one) {
  Cells cells = judge_.set(one.args[0], look());
  int way = judge_.directions(one.way, mover()).front();
  auto& board = state.board[layer()];
  std::map<Cell, Standing> arrive;
  Cells leave;
  for (Cell cell : cells)
    if (board.count(cell) > 0 && judge_.next(cell, way) >= 0) leave.insert(cell);
  for (Cell cell : leave) {
    Cell to = judge_.next(cell, way);
    if (board.count(to) > 0 && leave.count(to) == 0) fault(one);
    arrive[to] = board[cell];
  }
  for (Cell cell : leave) board.erase(cell);
  for (const auto& [cell, what] : arrive) board[cell] = what;
}

void Run::assign(const Statement& one) {
  const std::string& name = one.name.text;
  const Expr& value = one.args[0];
  bool none = value.kind == ExprKind::name && value.word == "none";
  auto local = names_.find(name);
  if (local != names_.end() && one.names.empty() && !one.ifAny) {
    Value& to = local->second;
    unmade_.erase(name);
    switch (to.sort) {
      case Value::Sort::set:
        to.cells = none ? Cells{} : judge_.set(value, look());
        break;
      case Value::Sort::cell:
        to.cell = none ? -1 : judge_.cell(value, look());
        break;
      case Value::Sort::number:
        to.number = judge_.number(value, look());
        break;
      case Value::Sort::kind:
        to.kind = judge_.kind(value, look());
        break;
      default:
        to = judge_.value(value, look());
        break;
    }
    return;
  }
  if (one.ifAny) {  // a number on a cell
    std::int64_t number = judge_.number(value, look());
    Cell cell = judge_.cell(one.args[1], look());
    if (cell >= 0) state.onCells[name][cell] = number;
    return;
  }
  for (const sheet::StateDecl& mark : tree_.marks)
    if (mark.name.text == name)
      state.marks[name][mark.each ? owner(one) : 0] = none ? Cells{} : judge_.set(value, look());
  for (const sheet::StateDecl& cell : tree_.cells)
    if (cell.name.text == name) {
      auto& cells = cell.lastsOneMove && !inAfter_ ? pending_[name] : state.cells[name];
      cells[cell.each ? owner(one) : 0] = none ? -1 : judge_.cell(value, look());
    }
  for (const sheet::StateDecl& number : tree_.numbers)
    if (number.name.text == name) {
      std::int64_t& to = state.numbers[name][number.each ? owner(one) : 0];
      to = judge_.number(value, look());
      bool clock = tree_.notation && tree_.notation->clock.text == name;
      if (clock && made_ && to < 0) fault(one);
    }
}

// Can the round whose beginning was just chosen be made to its end, in some way?
bool Run::roundPossible() const {
  std::vector<std::vector<std::int64_t>> open = {
      {choices_.begin(), choices_.begin() + static_cast<std::ptrdiff_t>(taken_)}};
  open.back().push_back(1);
  std::vector<int> wanted(open.back().begin(), open.back().end());
  while (!open.empty()) {
    std::vector<std::int64_t> choices = open.back();
    open.pop_back();
    Run run(judge_, moveNumber_, before_, choices, made_);
    End end = run.go();
    if (run.rounds.count(wanted) > 0 || end == End::fault) return true;
    if (end != End::choose) continue;
    for (std::int64_t option : run.options) {
      open.push_back(choices);
      open.back().push_back(option);
    }
    if (open.size() > 20000) throw TooMuch("too many ways");
  }
  return false;
}

void Run::repeat(const Statement& one) {
  std::int64_t most = -1, made = 0;
  if (!one.args.empty()) most = judge_.number(one.args[0], look());
  while (true) {
    if (one.repeat == RepeatKind::times) {
      if (made >= most) return;
      if (made > 10000) throw TooMuch("too many rounds");
    } else {
      std::vector<std::int64_t> ways;
      bool further = one.repeat != RepeatKind::upTo || made < most;
      bool stop = one.repeat == RepeatKind::upTo || made > 0;
      std::vector<int> begun(choices_.begin(),
                             choices_.begin() + static_cast<std::ptrdiff_t>(taken_));
      begun.push_back(1);
      if (further) ways.push_back(1);
      // Only asked where it matters: when this is the choice that is looked for.
      bool asked = taken_ >= choices_.size();
      if (one.repeat == RepeatKind::whilePossible && asked && stop) stop = !roundPossible();
      if (stop) ways.push_back(0);
      if (choose(ways) == 0) return;
      ++made;
      statements(one.body);
      rounds.insert(begun);
      continue;
    }
    ++made;
    statements(one.body);
  }
}

void Run::statement(const Statement& one) {
  if (judge_.uses != nullptr) {
    static const char* const names[] = {
        "pick",   "choose",        "let",    "set",        "need",   "put",    "shift",
        "take",   "flip",          "change", "add",        "remove", "when",   "again",
        "repeat", "must maximise", "tell",   "written as", "write",  "seen as"};
    FormUse& use = (*judge_.uses)[std::string("line ") + names[static_cast<int>(one.kind)]];
    ++use.asked;
  }
  switch (one.kind) {
    case StatementKind::pick:
      return pick(one);
    case StatementKind::choose:
      return choosing(one);
    case StatementKind::let: {
      Look at = look();
      Value value = judge_.value(one.args[0], at);
      bool bare = judge_.isBareKind(one.args[0], at);
      if (bare) {
        Value cells;
        cells.cells = judge_.setOf(value, at);
        value = cells;
      }
      make(one, value);
      return;
    }
    case StatementKind::set:
      return assign(one);
    case StatementKind::need:
      if (!made_ && !judge_.truth(one.args[0], look())) throw Ended{End::illegal};
      return;
    case StatementKind::put:
      return put(one);
    case StatementKind::shift:
      return one.way.empty() ? shift(one) : shiftBy(one);
    case StatementKind::take: {
      for (Cell cell : judge_.set(one.args[0], look()))
        for (int board = 0; board < 2; ++board)
          if (board == layer()) state.board[board].erase(cell);
      return;
    }
    case StatementKind::flip:
      return flip(one);
    case StatementKind::change:
      return change(one);
    case StatementKind::addTo:
    case StatementKind::removeFrom: {
      Cells cells = judge_.set(one.args[0], look());
      for (const sheet::StateDecl& mark : tree_.marks) {
        if (mark.name.text != one.name.text) continue;
        Cells& held = state.marks[mark.name.text][mark.each ? owner(one) : 0];
        for (Cell cell : cells)
          if (one.kind == StatementKind::addTo)
            held.insert(cell);
          else
            held.erase(cell);
      }
      return;
    }
    case StatementKind::when:
      return statements(judge_.truth(one.args[0], look()) ? one.body : one.otherwise);
    case StatementKind::again:
      again_ = true;
      return;
    case StatementKind::repeat:
      return repeat(one);
    case StatementKind::write:
      return write(one, text_);
    case StatementKind::tell:
      told_.text += "\n";
      told_.literal = std::string::npos;
      return write(one, told_);
    case StatementKind::maximise: {  // where it stands, on the position as it is there
      Look at = look();
      measure = judge_.number(one.args[0], at);
      return;
    }
    case StatementKind::writtenAs:
    case StatementKind::seenAs:
      return;
  }
}

// A part that was not chosen is left out, with the quoted text right in front of it.
void Run::part(Writing& into, const std::optional<std::string>& value) {
  if (value)
    into.text += *value;
  else if (into.literal <= into.text.size())
    into.text.resize(into.literal);
  into.literal = std::string::npos;
}

std::optional<std::string> Run::textOf(const Value& value) const {
  const Geometry& board = judge_.board_;
  switch (value.sort) {
    case Value::Sort::number:
      return std::to_string(value.number);
    case Value::Sort::cell:
      return value.cell < 0 ? std::nullopt : std::optional<std::string>(board.label(value.cell));
    case Value::Sort::kind:
      return value.kind.empty() ? std::nullopt : std::optional<std::string>(value.kind);
    case Value::Sort::kinds: {
      std::string out;
      for (const sheet::PieceDecl& piece : tree_.pieces)
        if (value.kinds.count(piece.name.text) > 0)
          out += (out.empty() ? "" : " ") + piece.name.text;
      return out.empty() ? "none" : out;
    }
    default:
      break;
  }
  if (value.line) {
    if (value.cells.empty()) return std::nullopt;
    std::string out = board.label(value.cells.first());
    if (value.cells.size() > 1) out += "-" + board.label(value.cells.last());
    return out;
  }
  std::string out;
  for (Cell cell : value.cells) out += (out.empty() ? "" : " ") + board.label(cell);
  return out.empty() ? "none" : out;
}

void Run::write(const Statement& one, Writing& into) {
  for (const Expr& expr : one.args) {
    if (expr.kind == ExprKind::name && expr.plural) {
      into.literal = into.text.size();
      into.text += expr.word;
      continue;
    }
    if (expr.kind == ExprKind::ofName && (expr.word == "column" || expr.word == "row")) {
      Cell cell = judge_.cell(expr.args[0], look());
      std::optional<std::string> value;
      const Geometry& board = judge_.board_;
      if (cell >= 0)
        value = expr.word == "column" ? Geometry::columnName(board.columnNumber(cell))
                                      : std::to_string(board.rowNumber(cell));
      part(into, value);
      continue;
    }
    Look at = look();
    Value value = judge_.value(expr, at);
    if (judge_.isBareKind(expr, at)) {
      Value cells;
      cells.cells = judge_.setOf(value, at);
      value = cells;
    }
    bool unmade = expr.kind == ExprKind::name && unmade_.count(expr.word) > 0;
    part(into, unmade && value.chosen ? std::nullopt : textOf(value));
  }
}

// What was picked, in order, joined by dashes.
void Run::defaultText() {
  std::vector<std::string> picks;
  auto collect = [&](auto&& self, const std::vector<Statement>& list) -> void {
    for (const Statement& one : list) {
      bool choice = one.kind == StatementKind::pick || one.kind == StatementKind::choose;
      if (choice && std::find(picks.begin(), picks.end(), one.name.text) == picks.end())
        picks.push_back(one.name.text);
      self(self, one.body);
      self(self, one.otherwise);
    }
  };
  collect(collect, move_.body);
  for (std::size_t i = 0; i < picks.size(); ++i) {
    if (i > 0) {
      text_.literal = text_.text.size();
      text_.text += "-";
    }
    auto it = names_.find(picks[i]);
    bool made = it != names_.end() && unmade_.count(picks[i]) == 0;
    part(text_, made ? textOf(it->second) : std::nullopt);
  }
}

// What one run costs beside its expressions, as so many of them: positions are copied.
constexpr std::uint64_t ofARun = 60;

std::vector<Way> Judge::waysOf(int move, const State& state, bool made) const {
  std::vector<Way> legal;
  std::vector<std::int64_t> measures;
  std::vector<bool> faulty;
  std::vector<std::vector<std::int64_t>> open = {{}};
  while (!open.empty()) {
    std::vector<std::int64_t> choices = open.back();
    open.pop_back();
    spent += made ? 3 * ofARun : ofARun;
    Run run(*this, move, state, choices, false);
    Run::End end = run.go();
    if (end == Run::End::choose) {
      for (auto it = run.options.rbegin(); it != run.options.rend(); ++it) {
        open.push_back(choices);
        open.back().push_back(*it);
      }
      if (open.size() > 100000) throw TooMuch("too many ways");
      continue;
    }
    if (end == Run::End::illegal) continue;
    Way way;
    way.move = move;
    way.choices = choices;
    if (made) {  // what a check refuses is settled now, and the clock may run out
      Run now(*this, move, state, choices, true);
      bool wrong = now.go() == Run::End::fault;
      way.text = now.text;
      way.seen = now.seen;
      way.told = now.told;
      way.after = now.state;
      if (!wrong) way.after.outcome = decided(way.after, state, state.turn);
      if (readsTimes_) way.after.earlier.push_back(seenKey(state));
    }
    legal.push_back(std::move(way));
    measures.push_back(run.measure);
    faulty.push_back(end == Run::End::fault);
    if (legal.size() > 20000) throw TooMuch("too many moves");
  }
  bool maximise = false;
  for (const Statement& one : tree_.moves[move].body)
    maximise = maximise || one.kind == StatementKind::maximise;
  if (maximise) {
    std::optional<std::int64_t> best;
    for (std::size_t i = 0; i < legal.size(); ++i)
      if (!faulty[i]) best = std::max(best.value_or(measures[i]), measures[i]);
    std::vector<Way> kept;
    for (std::size_t i = 0; i < legal.size(); ++i)
      if (faulty[i] || measures[i] == best) kept.push_back(std::move(legal[i]));
    legal = std::move(kept);
  }
  return legal;
}

std::vector<Way> Judge::movesFor(const State& state, bool withPass, bool made) const {
  std::vector<std::vector<std::string>> tiers;
  if (tree_.turn) {
    for (const auto& tier : tree_.turn->tiers) {
      tiers.emplace_back();
      for (const sheet::Name& name : tier) tiers.back().push_back(name.text);
    }
  } else {
    tiers.emplace_back();
    for (const sheet::MoveDecl& move : tree_.moves) tiers.back().push_back(move.name.text);
  }
  std::vector<Way> out;
  for (const auto& tier : tiers) {
    for (const std::string& name : tier) {
      if (name == "pass") {
        if (!withPass) continue;
        Way way;
        way.text = way.seen = "pass";
        if (made) way.after = passing(state);
        out.push_back(std::move(way));
        continue;
      }
      for (std::size_t i = 0; i < tree_.moves.size(); ++i)
        if (tree_.moves[i].name.text == name)
          for (Way& way : waysOf(static_cast<int>(i), state, made)) out.push_back(std::move(way));
    }
    if (!out.empty()) break;
  }
  return out;
}

std::vector<Way> Judge::moves(const State& state) const {
  if (state.outcome.kind != Outcome::Kind::ongoing && !state.outcome.claim) return {};
  std::vector<Way> out;
  std::set<std::tuple<int, std::string, std::string>> known;
  for (Way& way : movesFor(state, true, true)) {
    const Outcome& end = way.after.outcome;
    std::string reached = this->text(way.after) + "|" + std::to_string(static_cast<int>(end.kind)) +
                          " " + std::to_string(end.line) + " " + std::to_string(end.end);
    if (known.insert({way.move, way.text, reached}).second) out.push_back(std::move(way));
  }
  return out;
}

std::uint64_t Judge::sequences(const State& state, int depth) const {
  if (depth == 0) return 1;
  std::uint64_t total = 0;
  for (const Way& way : moves(state)) {
    const Outcome& end = way.after.outcome;
    bool over = end.kind != Outcome::Kind::ongoing && !end.claim;
    if (depth == 1)
      ++total;
    else if (!over)
      total += sequences(way.after, depth - 1);
  }
  return total;
}

bool Judge::stuck(const State& state, int side) const {
  return countMoves(state, side) == 0;
}

// As if the side were to move.
std::int64_t Judge::countMoves(const State& state, int side) const {
  State turned = state;
  if (forbidsTimes_) turned.stands = seenKey(state);
  turned.turn = side;
  turned.outcome = {};
  return static_cast<std::int64_t>(movesFor(turned, false, false).size());
}

State Judge::passing(const State& state) const {
  State out = state;
  out.outcome = {};
  ++out.passes;
  for (const sheet::StateDecl& cell : tree_.cells)
    if (cell.lastsOneMove) out.cells[cell.name.text] = {-1, -1};
  turnOver(out, false);
  out.outcome = decided(out, state, state.turn);
  if (readsTimes_) out.earlier.push_back(seenKey(state));
  return out;
}

void Judge::turnOver(State& state, bool again) const {
  state.outcome = {};
  state.lastMover = state.turn;
  ++state.plies;
  if (!again) state.turn = 1 - state.turn;
}

bool Judge::holds(std::size_t index, const State& now, const State& before, int mover,
                  Outcome& outcome) const {
  const sheet::EndDecl& end = tree_.ends[index];
  Look look{&now, &before, mover, {}, {}};
  if (!truth(end.condition, look)) return false;
  outcome = {};
  outcome.end = static_cast<int>(index);
  outcome.claim = end.claim;
  outcome.name = end.name;
  outcome.kind = Outcome::Kind::win;
  switch (end.kind) {
    case sheet::EndKind::draw:
      outcome.kind = Outcome::Kind::draw;
      break;
    case sheet::EndKind::moverWins:
      outcome.winner = mover;
      break;
    case sheet::EndKind::moverLoses:
      outcome.winner = 1 - mover;
      break;
    case sheet::EndKind::sideWins:
      outcome.winner = end.sideLoses ? 1 - side(end.side.text) : side(end.side.text);
      break;
    case sheet::EndKind::leader: {
      std::int64_t value[2];
      for (int s = 0; s < 2; ++s) value[s] = number(*end.measure, {&now, &before, s, {}, {}});
      if (value[0] == value[1]) {
        outcome.kind = Outcome::Kind::draw;
        outcome.name = end.drawName;
      } else {
        outcome.winner = value[0] > value[1] ? 0 : 1;
      }
      break;
    }
  }
  return true;
}

Outcome Judge::decided(const State& now, const State& before, int mover) const {
  // The position before is an earlier one for what is asked of the new one.
  State asked = now;
  if (readsTimes_) asked.earlier.push_back(seenKey(before));
  Outcome outcome;
  for (std::size_t i = 0; i < tree_.ends.size(); ++i)
    if (holds(i, asked, before, mover, outcome)) return outcome;
  return {};
}

State Judge::judged(State state) const {
  int mover = state.lastMover >= 0 ? state.lastMover : 1 - state.turn;
  state.outcome = {};
  Outcome outcome;
  for (std::size_t i = 0; i < tree_.ends.size(); ++i)
    if (holds(i, state, state, mover, outcome)) {
      state.outcome = outcome;
      break;
    }
  return state;
}

std::vector<Outcome> Judge::endsThatHold(const State& state, const State& before) const {
  int mover = state.lastMover >= 0 ? state.lastMover : 1 - state.turn;
  State asked = state;
  asked.outcome = {};
  std::vector<Outcome> out;
  Outcome outcome;
  for (std::size_t i = 0; i < tree_.ends.size(); ++i)
    if (holds(i, asked, before, mover, outcome)) out.push_back(outcome);
  return out;
}

}  // namespace ninepegs::judge
