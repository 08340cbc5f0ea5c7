// Positions as text, both ways; views, cases, and what is asked of a whole position.
#include <algorithm>
#include <sstream>

#include "judge/judge.hpp"

namespace ninepegs::judge {

using sheet::ExpectKind;
using sheet::Expr;

namespace {

std::vector<std::string> words(const std::string& text) {
  std::istringstream in(text);
  std::vector<std::string> out;
  for (std::string word; in >> word;) {
    while (!word.empty() && word.back() == ',') word.pop_back();
    if (!word.empty()) out.push_back(word);
  }
  return out;
}

std::vector<std::string> split(const std::string& text, char by) {
  std::vector<std::string> out(1);
  for (char c : text)
    if (c == by)
      out.emplace_back();
    else
      out.back() += c;
  return out;
}

// Characters of UTF-8.
std::vector<std::string> symbols(const std::string& text) {
  std::vector<std::string> out;
  for (char c : text)
    if ((static_cast<unsigned char>(c) & 0xc0) == 0x80)
      out.back() += c;
    else
      out.emplace_back(1, c);
  return out;
}

bool isNumber(const std::string& word) {
  std::size_t from = word[0] == '-' ? 1 : 0;
  return word.size() > from && word.find_first_not_of("0123456789", from) == word.npos;
}

std::int64_t startOf(const sheet::Tree& tree, const sheet::StateDecl& number, int side) {
  for (const auto& [whose, value] : number.start)
    if (!whose || whose->text == tree.sides[side].text) return value;
  return 0;
}

}  // namespace

State Judge::read(const std::string& line) const {
  State out;
  for (const sheet::StateDecl& mark : tree_.marks) out.marks[mark.name.text];
  for (const sheet::StateDecl& number : tree_.numbers)
    for (int s = 0; s < 2; ++s)
      if (number.onCells)
        for (Cell cell = 0; cell < board_.size(); ++cell) out.onCells[number.name.text][cell] = 0;
      else
        out.numbers[number.name.text][s] = startOf(tree_, number, s);
  for (const sheet::StateDecl& cell : tree_.cells) out.cells[cell.name.text] = {-1, -1};
  auto picture = [&](const std::string& text, int layer) {
    std::vector<std::string> rows = split(text, '/');
    for (std::size_t y = 0; y < rows.size() && y < board_.picture().size(); ++y) {
      const std::vector<Cell>& cells = board_.picture()[y].cells;
      std::size_t x = 0;
      std::string digits;
      for (const std::string& symbol : symbols(rows[y] + " ")) {
        if (isNumber(symbol)) {
          digits += symbol;
          continue;
        }
        if (!digits.empty()) x += std::stoul(digits);
        digits.clear();
        if (symbol == " ") continue;
        if (symbol != "." && symbol != "_")
          for (const sheet::PieceDecl& piece : tree_.pieces) {
            bool single = piece.neutral || !piece.only.text.empty();
            for (int s = 0; s < (single || layered() ? 1 : 2); ++s) {
              // The letter of a piece of one side is read before check() has sorted the letters.
              bool its = piece.letters[s] == symbol ||
                         (single && piece.letters[1] == symbol && piece.letters[0].empty());
              if (!its) continue;
              int owner = piece.neutral              ? -1
                          : layered()                ? layer
                          : !piece.only.text.empty() ? side(piece.only.text)
                                                     : s;
              out.board[layered() ? layer : 0][cells.at(x)] = {piece.name.text, owner};
            }
          }
        ++x;
      }
    }
  };
  bool first = true;
  for (const std::string& part : split(line, ';')) {
    std::vector<std::string> list = words(part);
    if (list.empty()) continue;
    bool isPicture = first && !layered() && (part.find('/') != part.npos || list.size() == 1);
    if (layered() && list[0] == "picture") {
      std::size_t at = part.find(list[2]) + list[2].size();
      picture(part.substr(at), side(list[2]));
    } else if (isPicture) {
      picture(part, 0);
    } else if (list.size() == 3 && list[1] == "to" && list[2] == "move") {
      out.turn = side(list[0]);
    } else if (list.size() == 3 && list[1] == "moved" && list[2] == "last") {
      out.lastMover = side(list[0]);
    } else if (list[0] == "passes") {
      out.passes = std::stoll(list[1]);
    } else if (list[0] == "hand") {
      std::int64_t many = 1;
      for (std::size_t i = 3; i < list.size(); ++i) {
        if (isNumber(list[i])) {
          many = std::stoll(list[i]);
          continue;
        }
        for (int s = 0; s < 2; ++s)
          if (list[2] == "each" || side(list[2]) == s) out.hands[s][list[i]] += many;
        many = 1;
      }
    } else {
      int from = 0, to = 0;
      std::size_t at = 1;
      bool of = list.size() > 2 && list[1] == "of";
      if (of) {
        from = list[2] == "each" ? 0 : side(list[2]);
        to = list[2] == "each" ? 1 : from;
        at = 3;
      }
      for (int s = from; s <= to; ++s) {
        std::vector<Cell> labels;
        for (Cell cell = 0; cell < board_.size(); ++cell)
          if (board_.has(cell)) labels.push_back(cell);
        for (std::size_t i = at; i < list.size(); ++i) {
          if (out.onCells.count(list[0]) > 0)
            out.onCells[list[0]][labels.at(i - at)] = std::stoll(list[i]);
          else if (out.numbers.count(list[0]) > 0)
            out.numbers[list[0]][s] = std::stoll(list[i]);
          else if (out.marks.count(list[0]) > 0)
            out.marks[list[0]][s].insert(*board_.find(list[i]));
          else if (out.cells.count(list[0]) > 0)
            out.cells[list[0]][s] = *board_.find(list[i]);
          else
            out.board[layered() ? s : 0][*board_.find(list[i])] = {
                list[0], piece(list[0])->neutral ? -1 : s};
        }
      }
    }
    first = false;
  }
  return out;
}

namespace {

// Lines of a block as one: rows of a picture between slashes, the rest between semicolons.
std::string oneLine(const std::vector<sheet::Block>& lines) {
  std::string out;
  bool inPicture = false;
  auto add = [&](const std::string& text, bool row) {
    if (!out.empty()) out += row && inPicture ? "/" : "; ";
    out += text;
    inPicture = row;
  };
  for (const sheet::Block& block : lines) {
    add(block.raw, block.pictureRow);
    if (block.raw.rfind("picture", 0) == 0) {
      for (std::size_t i = 0; i < block.children.size(); ++i)
        out += (i == 0 ? " " : "/") + block.children[i].raw;
    }
  }
  return out;
}

}  // namespace

State Judge::start() const {
  return judged(tree_.start ? read(oneLine(tree_.start->lines)) : read(""));
}

std::string Judge::text(const State& state) const {
  std::string out;
  for (int layer = 0; layer < (layered() ? 2 : 1); ++layer) {
    if (layered()) out += (layer > 0 ? "; " : "") + ("picture of " + tree_.sides[layer].text) + " ";
    std::string rows;
    for (const PictureRow& row : board_.picture()) {
      if (!rows.empty()) rows += "/";
      int run = 0;
      auto flush = [&] {
        if (run > 0) rows += std::to_string(run);
        run = 0;
      };
      for (Cell cell : row.cells) {
        auto it = state.board[layer].find(cell);
        if (board_.has(cell) && it == state.board[layer].end()) {
          ++run;
          continue;
        }
        flush();
        if (!board_.has(cell)) {
          rows += "_";
          continue;
        }
        const sheet::PieceDecl& kind = *piece(it->second.kind);
        bool single = kind.neutral || !kind.only.text.empty() || layered();
        std::string letter = kind.letters[single ? 0 : it->second.side];
        if (letter.empty()) letter = kind.letters[1];
        rows += letter;
      }
      flush();
    }
    out += rows;
  }
  auto line = [&](const std::string& name, bool each, int s, const std::string& value) {
    if (value.empty()) return;
    out += "; " + name + (each ? " of " + tree_.sides[s].text : "") + " " + value;
  };
  for (const sheet::StateDecl& mark : tree_.marks)
    for (int s = 0; s < (mark.each ? 2 : 1); ++s) {
      std::string cells;
      for (Cell cell : state.marks.at(mark.name.text)[s])
        cells += (cells.empty() ? "" : " ") + board_.label(cell);
      line(mark.name.text, mark.each, s, cells);
    }
  for (const sheet::StateDecl& number : tree_.numbers) {
    if (number.onCells) {
      std::string values;
      bool any = false;
      for (const auto& [cell, value] : state.onCells.at(number.name.text)) {
        if (!board_.has(cell)) continue;
        any = any || value != 0;
        values += (values.empty() ? "" : " ") + std::to_string(value);
      }
      line(number.name.text, false, 0, any ? values : "");
      continue;
    }
    for (int s = 0; s < (number.each ? 2 : 1); ++s) {
      std::int64_t value = state.numbers.at(number.name.text)[s];
      if (value != startOf(tree_, number, s))
        line(number.name.text, number.each, s, std::to_string(value));
    }
  }
  for (const sheet::StateDecl& cell : tree_.cells)
    for (int s = 0; s < (cell.each ? 2 : 1); ++s)
      if (Cell at = state.cells.at(cell.name.text)[s]; at >= 0)
        line(cell.name.text, cell.each, s, board_.label(at));
  for (int s = 0; s < 2 && hasHands_; ++s) {
    std::string held;
    for (const sheet::PieceDecl& piece : tree_.pieces) {
      auto it = state.hands[s].find(piece.name.text);
      if (it == state.hands[s].end() || it->second == 0) continue;
      held += held.empty() ? "" : ", ";
      if (it->second > 1) held += std::to_string(it->second) + " ";
      held += piece.name.text;
    }
    line("hand", true, s, held);
  }
  if (readsPasses_ && state.passes != 0) line("passes", false, 0, std::to_string(state.passes));
  if (usesAgain_ && state.lastMover == state.turn)
    out += "; " + tree_.sides[state.turn].text + " moved last";
  return out + "; " + tree_.sides[state.turn].text + " to move";
}

// What a repetition compares. Without a section of its own: pieces, marks, cells and the turn.
std::string Judge::seenKey(const State& state) const {
  std::string out;
  auto pieces = [&] {
    for (const auto& board : state.board)
      for (const auto& [cell, what] : board)
        out += std::to_string(cell) + what.kind + std::to_string(what.side) + ",";
    for (const auto& hand : state.hands) {
      for (const auto& [name, many] : hand)
        if (many != 0) out += name + std::to_string(many) + ",";
      out += "/";
    }
  };
  auto mark = [&](const std::string& name) {
    for (const Cells& cells : state.marks.at(name)) {
      for (Cell cell : cells) out += std::to_string(cell) + " ";
      out += "|";
    }
  };
  auto cell = [&](const std::string& name) {
    for (Cell at : state.cells.at(name)) out += std::to_string(at) + "|";
  };
  if (!tree_.repetition) {
    pieces();
    for (const sheet::StateDecl& one : tree_.marks) mark(one.name.text);
    for (const sheet::StateDecl& one : tree_.cells) cell(one.name.text);
    return out + std::to_string(state.turn);
  }
  for (const sheet::Name& name : tree_.repetition->compares) {
    out += ";";
    if (name.text == "pieces") pieces();
    if (name.text == "turn") out += std::to_string(state.turn);
    if (state.marks.count(name.text) > 0) mark(name.text);
    if (state.cells.count(name.text) > 0) cell(name.text);
    if (state.numbers.count(name.text) > 0)
      for (std::int64_t value : state.numbers.at(name.text)) out += std::to_string(value) + "|";
    if (state.onCells.count(name.text) > 0)
      for (const auto& [at, value] : state.onCells.at(name.text))
        out += std::to_string(value) + "|";
    for (std::size_t move = 0; move < tree_.moves.size(); ++move) {
      if (tree_.moves[move].name.text != name.text) continue;
      std::set<std::vector<std::int64_t>> ways;
      for (const Way& way : waysOf(static_cast<int>(move), state, false)) ways.insert(way.choices);
      for (const auto& way : ways) {
        for (std::int64_t choice : way) out += std::to_string(choice) + " ";
        out += "|";
      }
    }
  }
  return out;
}

std::int64_t Judge::worth(const State& state, int s) const {
  std::int64_t value[2];
  for (int each = 0; each < 2; ++each) {
    if (!tree_.worthPicture.empty()) {
      value[each] = 0;
      for (std::size_t y = 0; y < board_.picture().size(); ++y)
        for (std::size_t x = 0; x < board_.picture()[y].cells.size(); ++x)
          if (pieces(state, each).count(board_.picture()[y].cells[x]) > 0)
            value[each] += tree_.worthPicture[y][x];
      continue;
    }
    value[each] = number(*tree_.worth, {&state, &state, each, {}, {}});
  }
  return static_cast<std::int64_t>(static_cast<std::uint64_t>(value[s]) -
                                   static_cast<std::uint64_t>(value[1 - s]));
}

std::int64_t Judge::invariant(std::size_t index, const State& state, int s) const {
  const sheet::AlwaysDecl& always = tree_.always[index];
  Value got = value(always.expr, {&state, &state, s, {}, {}});
  return always.change != 0 ? got.number : got.truth ? 1 : 0;
}

bool Judge::condition(const Expr& expr, const State& state) const {
  return truth(expr, {&state, &state, 0, {}, {}});
}

Seen Judge::seen(const State& state, int viewer) const {
  Seen out;
  out.shown = state;
  for (auto& board : out.shown.board)
    for (auto it = board.begin(); it != board.end();) {
      bool hidden = it->second.side == 1 - viewer && piece(it->second.kind)->secret;
      it = hidden ? board.erase(it) : std::next(it);
    }
  for (const sheet::SeesDecl& sees : tree_.sees) {
    Look look{&state, &state, viewer, {}, {}};
    Value got;
    if (sees.what.kind == sheet::ExprKind::number)
      got.cells = set(sees.what, look);
    else
      got = value(sees.what, look);
    if (got.sort == Value::Sort::kinds) {
      for (const sheet::PieceDecl& one : tree_.pieces)
        if (got.kinds.count(one.name.text) > 0) out.words.push_back(one.name.text);
    } else {
      out.marks.push_back(setOf(got, look));
    }
  }
  return out;
}

namespace {

// A move as it may be typed: no blanks, no `-` and `=` behind its first sign, no capitals.
std::string loose(const std::string& text) {
  std::string out;
  for (char c : text) {
    bool between = c == ' ' || ((c == '-' || c == '=') && !out.empty());
    if (!between) out += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  }
  return out;
}

}  // namespace

std::vector<Judge::CaseVerdict> Judge::cases() const {
  std::vector<CaseVerdict> out;
  auto listed = [](const std::string& raw) {
    std::vector<std::string> moves;
    for (std::string one : split(raw, ',')) {
      one.erase(0, one.find_first_not_of(' '));
      one.erase(one.find_last_not_of(' ') + 1);
      moves.push_back(one);
    }
    return moves;
  };
  for (const sheet::CaseDecl& one : tree_.cases) {
    if (one.variant.text != tree_.variant) continue;
    State at = one.position ? judged(read(oneLine(one.position->lines))) : start();
    bool good = true, whole = true, known = true;
    std::vector<Way> played;
    // How a move that goes wrong is written depends on how far it came.
    auto legalMoves = [&] {
      std::vector<Way> ways = moves(at);
      for (const Way& way : ways) known = known && way.after.outcome.kind != Outcome::Kind::fault;
      return ways;
    };
    for (const sheet::CaseStep& step : one.steps) {
      std::vector<Way> legal = legalMoves();
      // As it is written, else without blanks and the signs between parts.
      auto find = [&](const std::string& text) {
        auto exactly = std::find_if(legal.begin(), legal.end(),
                                    [&](const Way& way) { return way.text == text; });
        if (exactly != legal.end()) return exactly;
        return std::find_if(legal.begin(), legal.end(),
                            [&](const Way& way) { return loose(way.text) == loose(text); });
      };
      switch (step.kind) {
        case ExpectKind::play:
          for (const std::string& text : listed(step.raw)) {
            legal = legalMoves();
            auto it = find(text);
            bool several = std::count_if(legal.begin(), legal.end(),
                                         [&](const Way& way) { return way.text == text; }) > 1;
            if (it == legal.end() || several) {
              good = false;
              break;
            }
            played.push_back(*it);
            at = State(it->after);
          }
          break;
        case ExpectKind::ongoing:
          good = at.outcome.kind == Outcome::Kind::ongoing;
          break;
        case ExpectKind::end: {
          bool draw = step.subject.text == "draw";
          bool kind = draw ? at.outcome.kind == Outcome::Kind::draw
                           : at.outcome.kind == Outcome::Kind::win &&
                                 at.outcome.winner == side(step.subject.text);
          good = kind && (step.endName.empty() || step.endName == at.outcome.name);
          break;
        }
        case ExpectKind::legal:
        case ExpectKind::notLegal:
          for (const std::string& text : listed(step.raw))
            good = good && (find(text) != legal.end()) == (step.kind == ExpectKind::legal);
          break;
        case ExpectKind::moves: {
          if (!step.endName.empty()) {  // `from` and `to` go by what a picture shows
            whole = false;
            break;
          }
          std::vector<std::string> got, wanted = listed(step.raw);
          for (const Way& way : legal) got.push_back(way.text);
          std::sort(got.begin(), got.end());
          std::sort(wanted.begin(), wanted.end());
          good = got == wanted;
          break;
        }
        case ExpectKind::moveCount:
          good = legal.size() == step.numbers.front();
          break;
        case ExpectKind::sequences:
          for (std::size_t i = 0; i < step.numbers.size(); ++i)
            if (step.numbers[i] < 400)
              good = good && sequences(at, step.first + static_cast<int>(i)) == step.numbers[i];
            else
              whole = false;
          break;
        case ExpectKind::turn:
          good = side(step.subject.text) == at.turn;
          break;
        case ExpectKind::leaves: {
          State wanted = read(oneLine(step.lines));
          good = wanted.board[0] == at.board[0] && wanted.board[1] == at.board[1];
          // With a line that is no picture it is the whole position.
          std::size_t pictures = 0, parts = 1;
          std::string line = oneLine(step.lines);
          for (std::size_t i = 0; i < line.size(); ++i) {
            parts += line[i] == ';' ? 1 : 0;
            pictures += line.compare(i, 11, "picture of ") == 0 ? 1 : 0;
          }
          if (parts > std::max<std::size_t>(pictures, 1)) good = good && text(wanted) == text(at);
          break;
        }
        case ExpectKind::condition:
          good = condition(step.condition, at);
          break;
        case ExpectKind::told: {
          std::vector<std::string> told;
          if (!played.empty()) told = played.back().told;
          good = step.endName.empty()
                     ? told.empty()
                     : std::find(told.begin(), told.end(), step.endName) != told.end();
          break;
        }
        case ExpectKind::sees: {
          int viewer = side(step.subject.text);
          Seen seen = this->seen(at, viewer);
          std::string line = text(seen.shown);
          bool secrets = std::any_of(tree_.pieces.begin(), tree_.pieces.end(),
                                     [](const sheet::PieceDecl& piece) { return piece.secret; });
          if (!secrets) seen.words.clear();
          std::size_t mark = 0;
          for (const sheet::SeesDecl& sees : tree_.sees) {
            if (sees.letter.empty() || !secrets) continue;
            const Cells& cells = seen.marks.at(mark++);
            std::string list;
            for (Cell cell : cells) list += (list.empty() ? "" : " ") + board_.label(cell);
            if (list.empty()) continue;
            line += "; " + sees.letter;
            if (layered()) line += " of " + tree_.sides[sees.theirBoard ? 1 - viewer : viewer].text;
            line += " on " + list;
          }
          for (std::size_t i = 0; i < seen.words.size(); ++i)
            line += (i == 0 ? "; known: " : ", ") + seen.words[i];
          good = line == step.endName;
          break;
        }
        case ExpectKind::edges:
          for (const sheet::PieceDecl& piece : tree_.pieces)
            if (piece.name.text == step.subject.text)
              good = std::equal(piece.edges.begin(), piece.edges.end(), step.numbers.begin(),
                                step.numbers.end(), [](long long is, unsigned long long wanted) {
                                  return is == static_cast<long long>(wanted);
                                });
          break;
        case ExpectKind::seenBy: {
          std::size_t ply = step.numbers.empty() ? played.size() : step.numbers.front();
          good = ply >= 1 && ply <= played.size() && played[ply - 1].seen == step.endName;
          break;
        }
      }
      if (!good) break;
    }
    out.push_back({one.name, good, whole && known, known});
  }
  return out;
}

}  // namespace ninepegs::judge
