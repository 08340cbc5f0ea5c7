#include "judge/generate.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <vector>

#include "ninepegs/base/random.hpp"
#include "ninepegs/base/text.hpp"

namespace ninepegs::judge {
namespace {

// Where an expression stands.
enum class At { constant, reach, move, after, forbid, ends, worth, always, sees, example };

using Names = std::vector<std::string>;

class Generator {
 public:
  Generator(std::uint64_t seed, std::uint64_t number) : stream_(seed, number) {}

  Generated sheet();

 private:
  // Drawing.
  int below(int n) { return static_cast<int>(stream_.below(static_cast<std::uint32_t>(n))); }
  bool chance(int percent) { return below(100) < percent; }
  int from(int low, int high) { return low + below(high - low + 1); }
  template <class T>
  const T& any(const std::vector<T>& list) {
    return list[static_cast<std::size_t>(below(static_cast<int>(list.size())))];
  }
  std::string any(std::initializer_list<const char*> list) {
    return *(list.begin() + below(static_cast<int>(list.size())));
  }
  std::string side() { return any({"Amber", "Slate"}); }
  std::string whose() { return any({"my", "their"}); }

  // Parts of the sheet.
  void board();
  void pieces();
  void memory();
  void definitions();
  std::string move(const std::string& name);
  std::string ends();
  std::string start();
  std::string cases();

  // Expressions; each fits in brackets and stands as one operand.
  std::string set(int deep);
  std::string setOperand(int deep);
  std::string cell(int deep);
  std::string number(int deep);
  std::string condition(int deep);
  std::string remembering();
  std::string kind();
  std::string way() { return any(ways_); }
  std::string along() { return chance(50) ? "" : " along " + any(axes_); }
  std::string label() { return any(labels_); }
  std::string fresh() { return "v" + std::to_string(++names_); }

  // Statements.
  std::string statements(int indent, int many, bool late);
  std::string statement(int indent, bool late);
  std::string written(const std::string& word);

  struct Scope {
    std::size_t cells, sets, numbers, kinds, hands;
  };
  Scope scope() const {
    return {cells_.size(), sets_.size(), numbersNamed_.size(), kindsNamed_.size(),
            handsNamed_.size()};
  }
  // What was named in a block can be read outside of it in the move's text and in `after`, also
  // where the block was not run.
  void leave(const Scope& scope) {
    auto keep = [](const Names& from, std::size_t begin, Names& to) {
      to.insert(to.end(), from.begin() + static_cast<std::ptrdiff_t>(begin), from.end());
    };
    keep(cells_, scope.cells, inner_.cells);
    keep(sets_, scope.sets, inner_.sets);
    keep(numbersNamed_, scope.numbers, inner_.numbers);
    keep(kindsNamed_, scope.kinds, inner_.kinds);
    cells_.resize(scope.cells);
    sets_.resize(scope.sets);
    numbersNamed_.resize(scope.numbers);
    kindsNamed_.resize(scope.kinds);
    handsNamed_.resize(scope.hands);
  }

  struct Named {
    Names cells, sets, numbers, kinds;
  };
  Named inner_;                         // of the blocks of a move
  std::map<std::string, Named> named_;  // by move, those of its blocks included
  void noteNames(const std::string& move) {
    auto both = [](const Names& one, const Names& other) {
      Names out = one;
      out.insert(out.end(), other.begin(), other.end());
      return out;
    };
    named_[move] = {both(cells_, inner_.cells), both(sets_, inner_.sets),
                    both(numbersNamed_, inner_.numbers), both(kindsNamed_, inner_.kinds)};
  }

  Stream stream_;
  At at_ = At::move;
  std::string out_;
  std::string boardLine_;
  bool square_ = true, hexes_ = false, points_ = false, layered_ = false, large_ = false;
  bool facing_ = true, numbered_ = false, hands_ = false, forbidsTimes_ = false;
  int columns_ = 0, rows_ = 0;
  Names labels_, ways_, axes_, singleWays_;
  Names kinds_, plainKinds_, groups_, zones_, zonesEach_, marks_, marksEach_, numbers_,
      numbersEach_, numbersOnCells_, remembered_, rememberedEach_, tracks_, properties_;
  std::vector<std::pair<std::string, int>> setDefines_, numberDefines_, truthDefines_;
  Names cells_, sets_, numbersNamed_, kindsNamed_, handsNamed_, madeNames_;
  bool secret_ = false, neutral_ = false;
  int names_ = 0;
  bool inReach_ = false;
  Names moves_;
};

void Generator::board() {
  auto grid = [&](int columns, int rows, bool numbered, int levels) {
    columns_ = columns;
    rows_ = rows;
    for (int level = 1; level <= levels; ++level)
      for (int y = 1; y <= rows; ++y)
        for (int x = 0; x < columns; ++x) {
          std::string text =
              numbered ? std::to_string((level - 1) * columns * rows + (y - 1) * columns + x + 1)
                       : std::string(1, static_cast<char>('a' + x)) + std::to_string(y);
          if (levels > 1 && !numbered) text += "." + std::to_string(level);
          labels_.push_back(text);
        }
  };
  int shape = below(20);
  axes_ = {"any"};
  if (shape < 12) {
    bool big = shape >= 10;
    int columns = big ? from(9, 18) : from(2, 5), rows = big ? from(8, 17) : from(2, 5);
    large_ = big;
    int levels = !big && chance(12) ? 2 : 1;
    bool numbered = levels == 1 && chance(25);
    grid(columns, rows, numbered, levels);
    boardLine_ = fmt::format("square {} x {}", columns, rows);
    if (levels > 1) boardLine_ += " x 2";
    numbered_ = numbered;
    if (numbered) boardLine_ += ", labels numbered";
    if (chance(15)) boardLine_ += ", rows from top";
    if (chance(22)) boardLine_ += ", joined left to right";
    if (chance(18)) boardLine_ += ", joined top to bottom";
    ways_ = {
        "orthogonal",        "diagonal",    "any",   "forward",   "backward", "forward-diagonal",
        "backward-diagonal", "forward-any", "north", "southeast", "west"};
    axes_ = {"any", "orthogonal", "diagonal", "north", "east"};
    singleWays_ = {"north",     "northeast", "east",    "south",
                   "southwest", "west",      "forward", "backward"};
    if (levels > 1) singleWays_.push_back("up"), ways_.push_back("down");
  } else if (shape < 17) {
    square_ = false;
    hexes_ = true;
    if (shape < 15) {
      int n = chance(10) ? 6 : from(2, 3);
      large_ = n > 3;
      boardLine_ = fmt::format("hexagon {}", n);
      for (int y = 1; y <= 2 * n - 1; ++y)
        for (int x = 0; x < 2 * n - 1 - std::abs(y - n); ++x)
          labels_.push_back(std::string(1, static_cast<char>('a' + x)) + std::to_string(y));
      columns_ = rows_ = 2 * n - 1;
    } else {
      grid(from(2, 4), from(2, 4), false, 1);
      boardLine_ = fmt::format("rhombus {} x {}", columns_, rows_);
    }
    facing_ = chance(60);
    ways_ = {"any", "northeast", "east", "southwest", "northwest"};
    axes_ = {"any", "east", "northeast"};
    singleWays_ = {"northeast", "east", "southeast", "southwest", "west", "northwest"};
    if (facing_)
      for (const char* name : {"forward", "backward", "forward-any"}) ways_.emplace_back(name);
    if (facing_) singleWays_.emplace_back("forward");
  } else {
    square_ = false;
    points_ = true;
    facing_ = false;
    columns_ = rows_ = 3;
    boardLine_ = "points";
    Names lines = {"a1 b1 c1", "a3 b3 c3", "a1 a2 a3", "c1 c2 c3",
                   "a1 b2 c3", "a2 b2 c2", "b1 b2 b3"};
    for (const char* point : {"a1", "b1", "c1", "a2", "c2", "a3", "b3", "c3"})
      labels_.emplace_back(point);
    std::string below_;
    for (int i = 0; i < 4; ++i) below_ += "\n  line " + lines[static_cast<std::size_t>(i)];
    for (int i = 4; i < 7; ++i)
      if (chance(50)) {
        below_ += "\n  line " + lines[static_cast<std::size_t>(i)];
        if (std::find(labels_.begin(), labels_.end(), "b2") == labels_.end())
          labels_.emplace_back("b2");
      }
    ways_ = {"any"};
    boardLine_ += below_;
    return;
  }
  if (chance(12)) {
    boardLine_ += ", one each";
    layered_ = true;
  }
  if (chance(12) && labels_.size() > 5) {
    std::string gone = any(labels_);
    boardLine_ += ", without " + gone;
    std::erase(labels_, gone);
  }
}

void Generator::pieces() {
  struct Piece {
    const char *name, *letters, *letter;
  };
  int many = from(1, 4);
  std::vector<Piece> all = {
      {"peg", "o x", "o"}, {"saw", "s z", "s"}, {"king", "k K", "k"}, {"pin", "p q", "p"}};
  properties_ = {"value"};
  bool edges = !points_ && chance(25);
  for (int i = 0; i < many; ++i) {
    kinds_.emplace_back(all[static_cast<std::size_t>(i)].name);
    plainKinds_.push_back(kinds_.back());
  }
  for (int i = 0; i < many; ++i) {
    const Piece& one = all[static_cast<std::size_t>(i)];
    std::string line = fmt::format("piece {} {}", one.name, layered_ ? one.letter : one.letters);
    if (i == 3 && !layered_ && chance(60)) {
      line = "piece pin p for " + side();
    }
    if (chance(60)) line += fmt::format(" value {}", from(0, 5));
    if (edges && chance(80)) {
      line += " edges";
      int sides = square_ ? (boardLine_.find(" x 2,") != std::string::npos ? 26 : 8) : 6;
      if (boardLine_.find(" x 2") != std::string::npos &&
          boardLine_.find(" x 2 x") == std::string::npos && square_ &&
          labels_.front().find('.') != std::string::npos)
        sides = 26;
      for (int k = 0; k < sides; ++k) line += fmt::format(" {}", from(0, 4));
    }
    if (chance(8)) line += " secret", secret_ = true;
    if (chance(75)) {
      at_ = At::reach;
      inReach_ = true;
      std::string reach = any({"step ", "slide ", "step "}) + way();
      if (square_ && chance(15)) reach = fmt::format("leap {} {}", from(0, 2), from(1, 2));
      if (chance(25)) reach += " or step " + way();
      if (chance(15)) reach = "(" + reach + ") on " + setOperand(1);
      if (chance(8)) reach = set(2);
      inReach_ = false;
      line += " reach " + reach;
    }
    out_ += line + "\n";
  }
  if (!layered_ && chance(25)) {
    out_ += fmt::format("piece stone * neutral value {}\n", from(0, 3));
    kinds_.emplace_back("stone");
    neutral_ = true;
  } else {
    out_ += "# value so that the word is known\n";
  }
  if (out_.find(" value ") == std::string::npos) properties_.clear();
}

void Generator::memory() {
  auto maybe = [&](int percent, auto&& body) {
    if (chance(percent)) body();
  };
  maybe(40, [&] {
    out_ += "group tool = peg" + std::string(kinds_.size() > 1 ? ", " + kinds_[1] : "") + "\n";
    groups_.emplace_back("tool");
  });
  at_ = At::constant;
  maybe(40, [&] {
    std::string cells = chance(50) ? label() + " or " + label() : set(2);
    if (cells.find("ward") != std::string::npos) cells = label();  // differs by side
    out_ += "zone middle = " + cells + "\n";
    zones_.emplace_back("middle");
  });
  maybe(40, [&] {
    out_ += fmt::format("zone home = {} for Amber, {} for Slate\n", setOperand(1), setOperand(1));
    zonesEach_.emplace_back("home");
  });
  maybe(40, [&] { out_ += "mark met\n", marks_.emplace_back("met"); });
  maybe(40, [&] { out_ += "mark shot each\n", marksEach_.emplace_back("shot"); });
  maybe(45, [&] {
    out_ += chance(50) ? "number tally\n" : fmt::format("number tally = {}\n", from(-2, 3));
    numbers_.emplace_back("tally");
  });
  maybe(40, [&] {
    out_ += chance(50) ? "number left each\n"
                       : fmt::format("number left = {} for Amber, {} for Slate\n", from(-2, 4),
                                     from(0, 4));
    numbersEach_.emplace_back("left");
  });
  maybe(30, [&] { out_ += "number seeds on cells\n", numbersOnCells_.emplace_back("seeds"); });
  maybe(35, [&] {
    out_ += chance(50) ? "cell last\n" : "cell last, lasts one move\n";
    remembered_.emplace_back("last");
  });
  maybe(25, [&] {
    out_ += chance(50) ? "cell spot each\n" : "cell spot each, lasts one move\n";
    rememberedEach_.emplace_back("spot");
  });
  maybe(25, [&] {
    Names order = labels_;
    for (std::size_t i = order.size(); i > 1; --i)
      std::swap(order[i - 1], order[static_cast<std::size_t>(below(static_cast<int>(i)))]);
    order.resize(std::min<std::size_t>(order.size(), static_cast<std::size_t>(from(2, 6))));
    out_ += "track round = " + joined(order, " ") + "\n";
    tracks_.emplace_back("round");
  });
}

// Definitions are used with arguments of several kinds.
void Generator::definitions() {
  auto body = [&](const std::string& name, const std::string& parameters, const std::string& text) {
    out_ += fmt::format("define {}{} = {}\n", name, parameters, text);
  };
  at_ = At::always;  // speaks of nothing that is known in one place alone
  if (chance(40)) {
    body("same", "(a, b)", "a = b");
    truthDefines_.emplace_back("same", 2);
  }
  if (chance(40)) {
    sets_.emplace_back("s");
    body("near", "(s)", set(2));
    sets_.pop_back();
    setDefines_.emplace_back("near", 1);
  }
  if (chance(30)) {
    body("plain", "", set(2));
    setDefines_.emplace_back("plain", 0);
  }
  if (chance(35)) {
    sets_.emplace_back("s");
    body("many", "(s)", number(2));
    sets_.pop_back();
    numberDefines_.emplace_back("many", 1);
  }
  if (chance(30)) {
    body("fine", "", condition(2));
    truthDefines_.emplace_back("fine", 0);
  }
}

std::string Generator::kind() {
  if (!kindsNamed_.empty() && chance(50)) return any(kindsNamed_);
  return any(kinds_);
}

std::string Generator::cell(int deep) {
  int which = below(12);
  if (!cells_.empty() && which < 6) return any(cells_);
  if (!remembered_.empty() && which == 6 && at_ != At::constant) return any(remembered_);
  if (!rememberedEach_.empty() && which == 7 && at_ != At::constant)
    return "(" + whose() + " " + any(rememberedEach_) + ")";
  if (deep > 0 && which == 8 && at_ != At::constant)
    return fmt::format("(beyond {} from {})", cell(deep - 1), cell(deep - 1));
  if (deep > 0 && !tracks_.empty() && which == 9 && at_ != At::constant)
    return fmt::format("(next {} along round from {})", chance(40) ? number(1) : "",
                       cell(deep - 1));
  if (deep > 0 && which == 10 && at_ != At::constant) return "(" + set(deep - 1) + ")";
  return label();
}

// A set as one operand.
std::string Generator::setOperand(int deep) {
  std::string text = set(deep);
  return text.find(' ') == std::string::npos ? text : "(" + text + ")";
}

std::string Generator::set(int deep) {
  bool fixed = at_ == At::constant;
  bool first = deep <= 0 || chance(30);
  if (first) {
    for (int tries = 0; tries < 20; ++tries) {
      switch (below(fixed ? 8 : 22)) {
        case 0:
          return "all";
        case 1:
          if (rows_ > 1) return fmt::format("row {}", from(1, rows_));
          break;
        case 2:
          return fmt::format("column {}", static_cast<char>('a' + below(columns_)));
        case 3:
          return any({"edge", "corner"});
        case 4:
          return square_ ? any({"dark", "light"}) : "edge";
        case 5:
          return label();
        case 6:
          return any({"odd rows", "even columns", "even rows", "odd columns"});
        case 7:
          return rows_ > 1 ? fmt::format("rows 1 to {}", from(1, rows_)) : "all";
        case 8:
        case 9:
          return any({"mine", "theirs"});
        case 10:
          return layered_ ? whose() + " " + any({"empty", "occupied"}) : any({"empty", "occupied"});
        case 11:
          return any(kinds_);
        case 12: {
          std::string one = any(plainKinds_);
          return chance(70) ? whose() + " " + one : one + " of " + side();
        }
        case 13:
          if (!groups_.empty()) return chance(50) ? "tool" : whose() + " tool";
          break;
        case 14:
          if (!zones_.empty()) return any(zones_);
          break;
        case 15:
          if (!zonesEach_.empty()) return chance(70) ? whose() + " home" : "home of " + side();
          break;
        case 16:
          if (!rememberedEach_.empty() && chance(50))
            return chance(70) ? whose() + " spot" : "spot of " + side();
          if (!marks_.empty()) return "met";
          break;
        case 17:
          if (!marksEach_.empty()) return chance(70) ? whose() + " shot" : "shot of " + side();
          break;
        case 18:
        case 19:
          if (!sets_.empty()) return any(sets_);
          break;
        case 20:
          if (!kindsNamed_.empty())
            return chance(50) ? any(kindsNamed_) : whose() + " " + any(kindsNamed_);
          break;
        case 21:
          if (at_ == At::move || at_ == At::after || at_ == At::forbid || at_ == At::ends)
            return "touched";
          break;
      }
    }
    return "all";
  }
  std::string a = setOperand(deep - 1);
  for (int tries = 0; tries < 20; ++tries) {
    switch (below(fixed ? 5 : 24)) {
      case 0:
        return a + " on " + setOperand(deep - 1);
      case 1:
        return a + " or " + setOperand(deep - 1);
      case 2:
        // What is stepped to, without a set that is there already.
        if (chance(30) && !singleWays_.empty())
          return fmt::format("({} of {}) except {}", any(singleWays_), a, setOperand(0));
        return a + " except " + setOperand(deep - 1);
      case 3:
        return singleWays_.empty() ? "step any from " + a : any(singleWays_) + " of " + a;
      case 4:
        return "step " + way() + " from " + a;
      case 5:
        if (inReach_) return "step " + way();
        return "slide " + way() + " from " + a +
               (chance(30) ? " through " + setOperand(deep - 1) : "");
      case 6:
        if (square_) return fmt::format("leap {} {} from {}", from(0, 2), from(1, 2), a);
        break;
      case 7:
        return fmt::format("between {} and {}", cell(1), cell(1));
      case 8:
        return fmt::format("bracketed {} from {} by {}{}", a, cell(1), setOperand(deep - 1),
                           along());
      case 9:
        return fmt::format("lines of {}{} in {}{}{}", chance(25) ? "exactly " : "", from(2, 3), a,
                           chance(30) ? " through " + cell(1) : "",
                           chance(60) ? "" : " along " + any(axes_));
      case 10:
        return fmt::format("spread from {} through {}{}", a, setOperand(deep - 1), along());
      case 11:
        if (!inReach_) return "reach of " + cell(1);
        break;
      case 12:
        if (!inReach_) return whose() + " reach";
        break;
      case 13:
      case 14: {
        std::string name = fresh();
        cells_.push_back(name);
        std::string where = condition(deep - 1);
        cells_.pop_back();
        return fmt::format("cells {} in {} where {}", name, a, where);
      }
      case 15: {
        std::string name = fresh();
        sets_.push_back(name);
        std::string where = condition(deep - 1);
        sets_.pop_back();
        return fmt::format("groups {} in {}{} where {}", name, a, along(), where);
      }
      case 16:
        return fmt::format("if {} then {} else {}", condition(deep - 1), a, setOperand(deep - 1));
      case 17:
        if (at_ == At::move || at_ == At::after || at_ == At::forbid || at_ == At::ends)
          return "was " + a;
        break;
      case 18:
        return "(" + cell(deep - 1) + ")";
      case 19:
      case 20:
        if (!setDefines_.empty()) {
          auto [name, parameters] = any(setDefines_);
          if (parameters == 0) return chance(70) || neutral_ ? name : whose() + " " + name;
          std::string argument = chance(40) ? cell(1) : chance(30) ? any(kinds_) : a;
          return fmt::format("{}({})", name, argument);
        }
        break;
      case 21:
        if (inReach_) return "slide " + way();
        break;
      case 22:
        if (inReach_) return "step " + way();
        break;
      default:
        return a;
    }
  }
  return a;
}

std::string Generator::number(int deep) {
  auto operand = [&](int d) {
    std::string text = number(d);
    return text.find(' ') == std::string::npos ? text : "(" + text + ")";
  };
  if (deep > 0 && out_.find(" edges ") != std::string::npos && chance(6))
    return fmt::format("edge of {} towards {}", cell(1), cell(1));
  for (int tries = 0; tries < 20; ++tries) {
    switch (below(deep > 0 ? 24 : 8)) {
      case 0:
      case 1:
        return std::to_string(from(0, 4));
      case 2:
        if (!numbersNamed_.empty()) return any(numbersNamed_);
        break;
      case 3:
        if (!numbers_.empty()) return "tally";
        break;
      case 4:
        if (!numbersEach_.empty()) return chance(60) ? whose() + " left" : "left of " + side();
        break;
      case 5:
        return chance(40) ? "plies" : "passes";
      case 6:
        if (!numbersOnCells_.empty()) return "seeds of " + cell(0);
        break;
      case 7:
        return "count " + setOperand(0);
      case 8:
      case 9:
        return "count " + setOperand(deep - 1);
      case 10:
        return fmt::format("count lines of {}{} in {}{}", chance(25) ? "exactly " : "", from(2, 3),
                           setOperand(deep - 1), chance(30) ? " through " + cell(1) : "");
      case 11:
        return any({"row-no", "column-no"}) + " of " + cell(1);
      case 12:
        if (!properties_.empty())
          return "value of " + (!kindsNamed_.empty() && chance(50) ? any(kindsNamed_)
                                : chance(30)                       ? any(kinds_)
                                                                   : cell(1));
        break;
      case 13: {
        std::string name = fresh();
        std::string over = setOperand(deep - 1);
        cells_.push_back(name);
        std::string what = operand(deep - 1);
        cells_.pop_back();
        return fmt::format("total {} for {} in {}", what, name, over);
      }
      case 14: {
        std::string name = fresh();
        std::string over = setOperand(deep - 1);
        sets_.push_back(name);
        std::string what = operand(deep - 1);
        sets_.pop_back();
        return fmt::format("total {} for {} in lines of {}{} in {}{}", what, name,
                           chance(20) ? "exactly " : "", from(2, 3), over,
                           chance(25) ? " through " + cell(0) : "");
      }
      case 15:
        return fmt::format("{}({}, {})", any({"min", "max"}), number(deep - 1), number(deep - 1));
      case 16:
      case 17:
        return operand(deep - 1) + any({" + ", " - ", " * ", " / ", " % "}) + operand(deep - 1);
      case 18:
        return fmt::format("if {} then {} else {}", condition(deep - 1), operand(deep - 1),
                           operand(deep - 1));
      case 19:
        if (at_ == At::move || at_ == At::after || at_ == At::forbid || at_ == At::ends)
          return "was " + operand(deep - 1);
        break;
      case 20:
        if (hands_)
          return chance(50) ? "count " + whose() + " hand" : whose() + " hand of " + kind();
        break;
      case 21:
        if (out_.find(" edges ") != std::string::npos)
          return fmt::format("edge of {} towards {}", cell(1), cell(1));
        break;
      case 22:
        if (!numberDefines_.empty())
          return fmt::format("many({})", chance(40) ? cell(1) : chance(30) ? any(kinds_) : set(1));
        break;
      case 23:
        if ((at_ == At::ends || at_ == At::worth || at_ == At::always) && !large_ && chance(30))
          return chance(50) ? whose() + " moves" : "moves of " + side();
        break;
    }
  }
  return std::to_string(from(0, 4));
}

// A condition that reads what the sheet remembers, if it remembers anything.
std::string Generator::remembering() {
  Names out;
  for (const std::string& mark : marks_) {
    out.push_back(any({"any ", "no "}) + ("(" + mark + " on " + setOperand(1) + ")"));
    out.push_back(fmt::format("count {} > {}", mark, from(0, 2)));
  }
  for (const std::string& mark : marksEach_)
    out.push_back(fmt::format("any ({} {} on {})", whose(), mark, setOperand(1)));
  for (const std::string& one : numbers_)
    out.push_back(fmt::format("{} {} {}", one, any({">", "=", "<"}), from(0, 3)));
  for (const std::string& one : numbersEach_)
    out.push_back(fmt::format("({} {}) {} {}", whose(), one, any({">", "=", "<"}), from(0, 3)));
  for (const std::string& one : remembered_) out.push_back(one + " in " + setOperand(1));
  return out.empty() ? condition(2) : any(out);
}

std::string Generator::condition(int deep) {
  auto bracketed = [&](int d) { return "(" + condition(d) + ")"; };
  for (int tries = 0; tries < 20; ++tries) {
    switch (below(deep > 0 ? 20 : 8)) {
      case 0:
      case 1:
        return any({"any ", "no "}) + setOperand(std::max(0, deep - 1));
      case 2: {
        std::string a = number(std::max(0, deep - 1)), b = number(std::max(0, deep - 1));
        return (a.find(' ') == std::string::npos ? a : "(" + a + ")") +
               any({" = ", " != ", " < ", " <= ", " > ", " >= "}) +
               (b.find(' ') == std::string::npos ? b : "(" + b + ")");
      }
      case 3:
        return cell(1) + " in " + setOperand(std::max(0, deep - 1));
      case 4:
        return setOperand(std::max(0, deep - 1)) + " within " + setOperand(std::max(0, deep - 1));
      case 5:
        return cell(1) + any({" = ", " != "}) + cell(1);
      case 6:
        return any({"mover is ", "opponent is ", "next is "}) + side();
      case 7:
        return setOperand(1) + any({" = ", " != "}) + setOperand(1);
      case 8:
        return bracketed(deep - 1) + " and " + bracketed(deep - 1);
      case 9:
        return bracketed(deep - 1) + " or " + bracketed(deep - 1);
      case 10:
        return "not " + bracketed(deep - 1);
      case 11:
        return fmt::format("{} line of {}{} in {}{}{}", any({"any", "no"}),
                           chance(25) ? "exactly " : "", from(2, 3), setOperand(deep - 1),
                           chance(40) ? " through " + cell(1) : "",
                           chance(60) ? "" : " along " + any(axes_));
      case 12: {
        std::string a = chance(50) && !kindsNamed_.empty() ? any(kindsNamed_)
                        : layered_ && chance(60) ? "(" + whose() + " kind on " + cell(1) + ")"
                                                 : "(kind on " + cell(1) + ")";
        return a + any({" = ", " != "}) + kind();
      }
      case 13: {
        std::string name = fresh();
        kindsNamed_.push_back(name);
        std::string where = condition(deep - 1);
        kindsNamed_.pop_back();
        return fmt::format("{} (kinds {} in {} where {})", any({"any", "no"}), name,
                           groups_.empty() || chance(50) ? any(kinds_) : "tool", where);
      }
      case 14:
        return "any (" + any(plainKinds_.empty() ? kinds_ : plainKinds_) + " on " + whose() +
               " reach)";
      case 15:
        if (!truthDefines_.empty()) {
          auto [name, parameters] = any(truthDefines_);
          if (parameters == 0) return chance(70) ? name : whose() + " " + name;
          switch (below(3)) {
            case 0:
              return fmt::format("{}({}, {})", name, cell(1), cell(1));
            case 1:
              return fmt::format("{}({}, {})", name, "(" + set(1) + " or mine)", set(1));
            default:
              return fmt::format("{}({}, {})", name, number(1), number(1));
          }
        }
        break;
      case 16:
        if (at_ == At::move || at_ == At::after || at_ == At::forbid || at_ == At::ends)
          return "was " + bracketed(deep - 1);
        break;
      case 17:
        if (at_ == At::ends && !large_ && chance(60)) return any({"stuck", "nobody can move"});
        break;
      case 18:
        if (at_ == At::ends || (at_ == At::forbid && forbidsTimes_))
          return fmt::format("times seen >= {}", from(2, 3));
        break;
      default:
        return any({"any ", "no "}) + setOperand(std::max(0, deep - 1));
    }
  }
  return "any mine";
}

std::string Generator::written(const std::string& word) {
  std::string out = word;
  if (word.ends_with(" as") && chance(50)) {  // these know the names of all blocks
    for (const Names* names : {&inner_.cells, &inner_.sets, &inner_.numbers, &inner_.kinds})
      if (!names->empty() && chance(60)) out += " " + any(*names);
  }
  int parts = from(1, 3);
  for (int i = 0; i < parts; ++i) {
    switch (below(7)) {
      case 0:
        out += " \"" + any({"-", "x", " to ", ":"}) + "\"";
        break;
      case 1:
        if (!cells_.empty()) out += any({" column of ", " row of "}) + any(cells_);
        break;
      case 2:
        if (!numbersNamed_.empty()) out += " " + any(numbersNamed_);
        break;
      case 3:
        if (!handsNamed_.empty() && chance(50))
          out += " " + any(handsNamed_);
        else if (!kindsNamed_.empty())
          out += " " + any(kindsNamed_);
        break;
      case 4:
        if (!sets_.empty()) out += " " + any(sets_);
        break;
      default:
        if (!cells_.empty()) out += " " + any(cells_);
        break;
    }
  }
  return out == word ? out + " \"m\"" : out;
}

std::string Generator::statement(int indent, bool late) {
  std::string pad(static_cast<std::size_t>(indent), ' ');
  for (int tries = 0; tries < 30; ++tries) {
    switch (below(late ? 30 : 12)) {
      case 0:
      case 1:
      case 2: {
        std::string name = fresh(), cells = set(2);
        Names kept = marks_;  // what a search may look at before it begins
        kept.insert(kept.end(), remembered_.begin(), remembered_.end());
        if (!kept.empty() && chance(20))
          cells = any(kept) + any({" on ", " or ", " or "}) + setOperand(1);
        std::string line =
            fmt::format("{}pick {} in {}{}\n", pad, name, cells, chance(10) ? ", if any" : "");
        cells_.push_back(name);
        return line;
      }
      case 3: {
        if (large_) break;
        std::string name = fresh();
        bool plain = chance(60);
        std::string line = fmt::format("{}pick {} in lines of {} in {}{}\n", pad, name,
                                       plain ? std::to_string(from(2, 3)) : "(" + number(1) + ")",
                                       setOperand(1), chance(60) ? "" : " along " + any(axes_));
        sets_.push_back(name);
        return line;
      }
      case 4: {
        std::string name = fresh();
        if (chance(40)) {
          std::string line =
              fmt::format("{}choose {} from {} to {}\n", pad, name, from(0, 1), from(1, 3));
          if (chance(30))
            line =
                fmt::format("{}choose {} from 1 to ({})\n", pad, name, "min(3, " + number(1) + ")");
          numbersNamed_.push_back(name);
          return line;
        }
        std::string from_ = hands_ && chance(40) ? "my hand" : any(kinds_);
        if (from_ != "my hand" && chance(60)) {
          std::string other = any(kinds_);
          if (other != from_) from_ += ", " + other;
        }
        kindsNamed_.push_back(name);
        return fmt::format("{}choose {} from {}\n", pad, name, from_);
      }
      case 5:
      case 6: {
        std::string name = fresh();
        switch (below(4)) {
          case 0: {
            std::string line = fmt::format("{}let {} = {}\n", pad, name, number(2));
            numbersNamed_.push_back(name);
            return line;
          }
          case 1: {
            std::string line =
                fmt::format("{}let {} = {} or {}\n", pad, name, setOperand(1), setOperand(1));
            sets_.push_back(name);
            return line;
          }
          case 2: {
            std::string line =
                fmt::format("{}let {} = {}\n", pad, name, "beyond " + cell(1) + " from " + cell(1));
            cells_.push_back(name);
            return line;
          }
          default: {
            if (hands_ && chance(50)) {
              std::string hand = chance(50) ? "was my hand" : "my hand";
              if (chance(60))
                hand = fmt::format("if {} then {} else their hand", condition(1), hand);
              handsNamed_.push_back(name);
              return fmt::format("{}let {} = {}\n", pad, name, hand);
            }
            std::string was = chance(20) ? "was " : "";
            std::string line = fmt::format("{}let {} = {}{}kind on {}\n", pad, name, was,
                                           layered_ ? whose() + " " : "", cell(1));
            kindsNamed_.push_back(name);
            return line;
          }
        }
      }
      case 7:
      case 8:
        return fmt::format("{}need {}\n", pad, late && chance(25) ? remembering() : condition(2));
      case 9:
        return pad + written("write") + "\n";
      case 10:
        return pad + written("tell") + "\n";
      case 11:
        if (marks_.empty() && marksEach_.empty()) break;
        return pad + fmt::format("remove {} from {}\n", setOperand(1),
                                 marks_.empty() ? whose() + " shot" : "met");
      case 12:
      case 13: {
        std::string on = chance(50) && !cells_.empty() ? any(cells_) : setOperand(1);
        std::string target =
            chance(70) ? "(" + on + " on " + (layered_ ? "my empty" : "empty") + ")" : on;
        std::string which = kind();
        return fmt::format("{}put {} on {}{}\n", pad, which, target,
                           hands_ && chance(40) ? " from my hand" : "");
      }
      case 14:
      case 15:
        if (!singleWays_.empty() && chance(25))
          return fmt::format("{}shift {} by {}\n", pad, setOperand(1), any(singleWays_));
        return fmt::format("{}shift {} to {}\n", pad, cell(1), cell(1));
      case 16:
      case 17:
        return fmt::format("{}take {}\n", pad, chance(50) ? cell(1) : setOperand(1));
      case 18:
        if (!layered_) return fmt::format("{}flip {}\n", pad, chance(50) ? cell(1) : setOperand(1));
        break;
      case 19:
        return fmt::format(
            "{}change {} into {}\n", pad, chance(50) ? cell(1) : setOperand(1),
            !kindsNamed_.empty() && chance(40) ? any(kindsNamed_) : any(plainKinds_));
      case 20:
        if (!marks_.empty() && chance(50))
          return pad + (chance(40) ? "add " + setOperand(1) + " to met\n"
                                   : "remove " + setOperand(1) + " from met\n");
        if (!marksEach_.empty())
          return pad +
                 (chance(40) ? "add " + setOperand(1) + " to "
                             : "remove " + setOperand(1) + " from ") +
                 whose() + " shot\n";
        break;
      case 21:
      case 22: {
        switch (below(7)) {
          case 0:
            if (!numbers_.empty()) return fmt::format("{}set tally to {}\n", pad, number(2));
            break;
          case 1:
            if (!numbersEach_.empty())
              return fmt::format("{}set {} left to {}\n", pad, whose(), number(2));
            break;
          case 2:
            if (!numbersOnCells_.empty())
              return fmt::format("{}set seeds of {} to {}\n", pad, cell(1), number(1));
            break;
          case 3:
            if (!remembered_.empty())
              return fmt::format("{}set last to {}\n", pad, chance(20) ? "none" : cell(1));
            break;
          case 4:
            if (!rememberedEach_.empty())
              return fmt::format("{}set {} spot to {}\n", pad, whose(),
                                 chance(20) ? "none" : cell(1));
            break;
          case 5:
            if (!marks_.empty())
              return fmt::format("{}set met to {}\n", pad, chance(20) ? "none" : setOperand(1));
            break;
          case 6:
            if (!cells_.empty() && chance(60) && cells_.back()[0] == 'v')
              return fmt::format("{}set {} to {}\n", pad, cells_.back(), cell(1));
            if (!numbersNamed_.empty() && numbersNamed_.back()[0] == 'v')
              return fmt::format("{}set {} to {}\n", pad, numbersNamed_.back(), number(1));
            break;
        }
        break;
      }
      case 23:
        if (chance(60)) return pad + "again\n";
        break;
      case 24:
      case 25:
      case 26: {
        if (indent > 4) break;
        Scope outer = scope();
        std::string text = fmt::format("{}when {}\n{}", pad, condition(2),
                                       statements(indent + 2, from(1, 2), true));
        leave(outer);
        if (chance(35)) {
          text += pad + "otherwise\n" + statements(indent + 2, from(1, 2), true);
          leave(outer);
        }
        return text;
      }
      case 27:
      case 28: {
        if (indent > 4 || large_) break;
        Scope outer = scope();
        std::string how = any({"while possible", "any times", "up to 2 times", "2 times"});
        std::string body;
        if (how == "while possible" || how == "any times") {
          // Every round takes a piece, so that the rounds come to an end.
          std::string name = fresh();
          body = fmt::format("{0}  pick {1} in {2}\n{0}  take {1}\n", pad, name,
                             chance(50) ? "theirs" : "mine");
          if (layered_) body = fmt::format("{0}  pick {1} in mine\n{0}  take {1}\n", pad, name);
          cells_.push_back(name);
        }
        body += statements(indent + 2, from(1, 2), true);
        leave(outer);
        return fmt::format("{}repeat {}\n{}", pad, how, body);
      }
      case 29:
        return pad + written("write") + "\n";
    }
  }
  return fmt::format("{}need any all\n", pad);
}

std::string Generator::statements(int indent, int many, bool late) {
  std::string out;
  for (int i = 0; i < many; ++i) out += statement(indent, late);
  return out;
}

std::string Generator::move(const std::string& name) {
  at_ = At::move;
  inner_ = {};
  cells_.clear(), sets_.clear(), numbersNamed_.clear(), kindsNamed_.clear();
  handsNamed_.clear();
  if (!large_ && chance(numbered_ ? 12 : 4)) {  // choices that are only written: 11 and 3, 1 and 13
    std::string body;
    for (const char* one : {"here", "there"})
      if (numbered_ && chance(60))
        body += fmt::format("  pick {} in {}\n", one, chance(70) ? "all" : set(1));
      else
        body += fmt::format("  choose {} from {} to 13\n", one, from(0, 11));
    if (chance(70))
      body += fmt::format("  put {} on ({} on {})\n", kind(), setOperand(1),
                          layered_ ? "my empty" : "empty");
    return fmt::format("move {}\n{}  written as here there\n", name, body);
  }
  std::string body;
  std::string none = layered_ ? "my empty" : "empty";
  bool moves = chance(60), plain = moves && chance(30);  // plain: nothing but the piece's way
  if (moves) {
    std::string from = any({"mine", "mine", "mine", "my peg", "my peg", "theirs", "occupied",
                            "(my peg or theirs)", "(mine or theirs)"});
    if (from == "occupied" && layered_) from = "mine";
    if (chance(15)) from = "(my " + any(plainKinds_) + " or my " + any(plainKinds_) + ")";
    if (!groups_.empty() && chance(25)) from = "my tool";
    body += fmt::format("  pick here in {}\n", from);
    cells_.emplace_back("here");
    if (!plain) body += statements(2, below(2), false);
    std::string to = any({"reach of here", "step any from here", "all"});
    body += fmt::format("  pick there in {} on {}\n", chance(70) ? none : "(all except mine)",
                        "(" + to + ")");
    cells_.emplace_back("there");
  } else {
    body += fmt::format("  pick there in {}\n", chance(70) ? none : set(2));
    cells_.emplace_back("there");
    if (chance(20)) {  // a run bracketed from the cell that is picked
      std::string run =
          fmt::format("bracketed {} from there by {}{}", chance(70) ? "theirs" : setOperand(1),
                      chance(70) ? "mine" : setOperand(1), chance(60) ? "" : " along " + way());
      std::string called = fresh();
      bool named = chance(50);
      if (named) body += fmt::format("  let {} = {}\n", called, run);
      body += fmt::format("  need any {}\n", named ? called : "(" + run + ")");
      if (named) sets_.push_back(called);
    }
  }
  if (!plain) body += statements(2, below(3), false);
  if (!plain && chance(12)) {  // a name that only another name reads
    std::string one = fresh(), other = fresh();
    bool cells = chance(50);
    body += fmt::format("  let {} = {}\n", one, cells ? setOperand(1) + " or there" : number(1));
    body += fmt::format(
        "  let {} = {}\n", other,
        cells ? one + " on " + setOperand(1) : one + " + " + std::to_string(from(0, 2)));
    body += cells ? fmt::format("  need {} {}\n", any({"any", "no"}), other)
                  : fmt::format("  need {} {} {}\n", other, any({">", "<", "!="}), from(0, 3));
  }
  if (moves) {
    if (chance(plain ? 40 : 60)) body += "  take there\n";
    body += "  shift here to there\n";
  } else {
    body +=
        fmt::format("  put {} on there{}\n", kind(), hands_ && chance(50) ? " from my hand" : "");
  }
  if (chance(30)) {  // what is remembered of the move
    Names notes;
    if (!marks_.empty()) notes.emplace_back("  add there to met\n");
    if (!marksEach_.empty()) notes.emplace_back("  add there to my shot\n");
    if (!numbers_.empty()) notes.emplace_back("  set tally to tally + 1\n");
    if (!numbersEach_.empty()) notes.emplace_back("  set my left to my left + 1\n");
    if (!remembered_.empty()) notes.emplace_back("  set last to there\n");
    if (!notes.empty()) body += any(notes);
  }
  if (!plain && chance(70)) body += statements(2, below(4), true);
  if (!plain && chance(10) && !large_) {  // what was picked is changed: ways that come to the same
    std::string called = fresh(), cells = set(1);
    body += fmt::format("  pick {} in {}\n  set {} to {}\n", called, cells, called, cell(1));
    cells_.push_back(called);
  }
  if (hands_ && !plain && !large_ && chance(12))  // more of the hand than it may hold
    body += fmt::format("  repeat {} times\n    put peg on ({} on {}) from my hand\n", from(1, 3),
                        setOperand(1), none);
  if (!plain && !large_ && chance(8)) {  // a name of a block, read behind it
    std::string called = fresh(), mark = marks_.empty() ? "" : "met";
    body += fmt::format("  when {}\n    let {} = {} or {}\n", condition(1), called, setOperand(1),
                        setOperand(0));
    inner_.sets.push_back(called);
  }
  // Where it is measured is where it stands: effects may follow.
  bool maximise = !plain && chance(15) && !large_;
  if (maximise) body += fmt::format("  must maximise {}\n", number(2));
  if (maximise && chance(40)) body += statements(2, from(1, 2), true);
  bool writes = body.find("write ") != std::string::npos;
  if (!writes && !plain && !large_ && chance(numbered_ ? 30 : 15)) {  // parts one behind the other
    std::string called = fresh();
    std::string other = fresh();
    if (chance(40))
      body += fmt::format("  pick {} in {}\n  written as there {}\n", called, set(1), called);
    else if (chance(50))
      body += fmt::format("  pick {0} in {2}\n  pick {1} in {3}\n  written as {0} {1}\n", called,
                          other, numbered_ ? "all" : set(0), numbered_ ? "all" : set(0));
    else  // and a part that became another
      body += fmt::format("  set there to {}\n  written as there\n", cell(1));
    writes = true;
  }
  if (!writes && chance(50)) body += "  " + written("written as") + "\n";
  if (secret_ || chance(10)) body += "  " + written("seen as") + "\n";
  noteNames(name);
  return fmt::format("move {}\n{}", name, body);
}

std::string Generator::ends() {
  at_ = At::ends;
  cells_.clear(), sets_.clear(), numbersNamed_.clear(), kindsNamed_.clear();
  handsNamed_.clear();
  std::string out = "ends\n";
  int many = from(1, 3);
  for (int i = 0; i < many; ++i) {
    std::string who =
        any({"mover wins", "mover loses", "opponent wins", "Amber wins", "Slate loses", "draw"});
    std::string claim = chance(15) ? "claim " : "";
    std::string when = "(" + condition(2) + ") and plies > 0";
    if (chance(30) && !points_)
      when = fmt::format("(any line of {} in {}{}) and plies > 0", from(2, 3),
                         any({"mine", "theirs", layered_ ? "mine" : "occupied"}),
                         chance(50) ? "" : " along " + any(axes_));
    if (chance(15))
      out += fmt::format("  {}leader in {} wins \"end {}\" or draw \"level {}\" when {}\n", claim,
                         number(2), i, i, when);
    else
      out += fmt::format("  {}{} \"end {}\" when {}{}\n", claim, who, i, when,
                         chance(15) ? " showing " + setOperand(1) : "");
  }
  return out + "  draw \"long\" when plies > 40\n";
}

std::string Generator::start() {
  std::string out = "start\n";
  Names free = labels_;
  for (std::size_t i = free.size(); i > 1; --i)
    std::swap(free[i - 1], free[static_cast<std::size_t>(below(static_cast<int>(i)))]);
  int pieces = std::min<int>(static_cast<int>(free.size()) - 1, large_ ? from(2, 9) : from(1, 7));
  std::map<std::string, std::string> lines;
  for (int i = 0; i < pieces; ++i) {
    std::string one = any(kinds_);
    if (one == "pin" && out_.find("pin p for") != std::string::npos) one = "peg";
    std::string key = one == "stone" ? one : one + " of " + (i % 2 == 0 ? "Amber" : "Slate");
    lines[key] += " " + free[static_cast<std::size_t>(i)];
  }
  for (const auto& [key, cells] : lines) out += "  " + key + cells + "\n";
  if (!marks_.empty() && chance(50)) out += "  met " + label() + "\n";
  if (!marksEach_.empty() && chance(50)) out += "  shot of " + side() + " " + label() + "\n";
  if (!numbers_.empty() && chance(50)) out += fmt::format("  tally {}\n", from(-3, 3));
  if (!numbersEach_.empty() && chance(50)) out += fmt::format("  left of each {}\n", from(-3, 3));
  if (!remembered_.empty() && chance(50)) out += "  last " + label() + "\n";
  if (chance(30)) out += "  Slate to move\n";
  return out;
}

std::string Generator::cases() {
  at_ = At::example;
  std::string out;
  for (int i = 0; i < 2; ++i) {
    std::string text = condition(1);
    // Conditions of cases name the sides outright; `my` is the first side's.
    out += fmt::format("case \"c{}\"\n  expect {}\n", i, "(" + text + ") or no all");
  }
  return out;
}

Generated Generator::sheet() {
  board();
  std::string head = "game drawn\nsides Amber and Slate\n";
  if (hexes_ && facing_) head += "facing northeast for Amber, southwest for Slate\n";
  if (square_ && chance(20)) head += "facing east for Amber, north for Slate\n";
  head += "board " + boardLine_ + "\n";
  pieces();
  memory();
  hands_ = chance(25);
  definitions();
  out_ += start();
  forbidsTimes_ = chance(30);
  int many = from(1, 3);
  for (int i = 0; i < many; ++i) moves_.push_back(fmt::format("m{}", i));
  std::string movesText;
  for (const std::string& name : moves_) movesText += move(name);
  if (chance(35)) {
    at_ = At::after;
    cells_.clear(), sets_.clear(), numbersNamed_.clear(), kindsNamed_.clear();
    handsNamed_.clear();
    cells_.emplace_back("there");
    std::string of = moves_.size() == 1 ? moves_.front() : chance(40) ? "" : any(moves_);
    if (!of.empty() && named_.count(of) > 0) {
      const Named& names = named_.at(of);
      cells_ = names.cells, sets_ = names.sets;
      numbersNamed_ = names.numbers, kindsNamed_ = names.kinds;
    }
    std::string lines;
    if (chance(30) && !cells_.empty())  // a name that is another from here on
      lines += fmt::format("  set {} to {}\n", any(cells_), cell(1));
    if (chance(30) && !sets_.empty())
      lines += fmt::format("  need {} {}\n", any({"any", "no"}), any(sets_));
    movesText += (of.empty() || (moves_.size() == 1 && chance(30)) ? "after every move\n"
                                                                   : "after " + of + "\n") +
                 lines + statements(2, from(1, 3), true);
  }
  cells_.clear(), sets_.clear(), numbersNamed_.clear(), kindsNamed_.clear();
  handsNamed_.clear();
  at_ = At::forbid;
  if (chance(35))
    movesText +=
        fmt::format("forbid \"attacked\" when any my {} on their reach\n", any(plainKinds_));
  if (chance(20))
    movesText += fmt::format("forbid \"so\" when {}\n", chance(50) ? remembering() : condition(2));
  if (chance(20)) {
    Names compared = {"pieces"};
    if (chance(70)) compared.emplace_back("turn");
    for (const Names* names : {&marks_, &numbers_, &numbersOnCells_, &remembered_, &marksEach_})
      if (!names->empty() && chance(40)) compared.push_back(names->front());
    if (!forbidsTimes_ && chance(20)) compared.push_back(moves_.front());
    movesText += "repetition compares " + joined(compared, ", ") + "\n";
  }
  if (chance(50)) {
    std::string turn = moves_[0];
    for (std::size_t i = 1; i < moves_.size(); ++i) turn += any({" or ", " else "}) + moves_[i];
    if (chance(60)) turn += any({" else pass", " or pass"});
    movesText += "turn " + turn + "\n";
  }
  std::string last = ends();
  std::string rest;
  at_ = At::worth;
  if (chance(50)) rest += "worth " + number(2) + "\n";
  at_ = At::always;
  if (chance(40)) rest += "always\n  " + condition(2) + "\n  (" + number(1) + ") never shrinks\n";
  at_ = At::sees;
  if (secret_ && chance(70))
    rest += "each side sees\n  " + setOperand(1) + " as X" + (layered_ ? " on their board" : "") +
            "\n  kinds kk in " + any(kinds_) + " where any kk\n";
  rest += cases();
  Generated out;
  // A hand is set out where something speaks of it; the start is the last section of `out_`.
  if (hands_ && (movesText + last).find(" hand") != std::string::npos)
    out_ += "  hand of each 2 peg" + (kinds_.size() > 1 ? ", " + kinds_[1] : "") + "\n";
  if (chance(15)) {  // the same, in a variant
    out.variant = "other";
    std::string block;
    std::string all = last;
    std::size_t from_ = 0;
    while (from_ < all.size()) {
      std::size_t to = all.find('\n', from_);
      block += "  " + all.substr(from_, to - from_) + "\n";
      from_ = to + 1;
    }
    last = "ends\n  draw \"base\" when plies > 3\n";
    rest += "variant other \"drawn ends\"\n" + block;
  }
  out.text = head + out_ + movesText + last + rest;
  return out;
}

}  // namespace

Generated generateSheet(std::uint64_t seed, std::uint64_t number) {
  constexpr std::uint64_t ownStream = 0x677561726473;
  constexpr std::uint32_t oneIn = 8;
  Stream stream(seed ^ ownStream, number);
  if (stream.below(oneIn) == 0) return {guardedSheet(stream), ""};
  return Generator(seed, number).sheet();
}

}  // namespace ninepegs::judge
