#include "ninepegs/records/sgf.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <map>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/records/movetext.hpp"

namespace ninepegs::records {
namespace {

// Tags and the properties that mean the same.
const std::pair<const char*, const char*> sameAs[] = {
    {"Event", "EV"},  {"Site", "PC"},    {"Date", "DT"},          {"Round", "RO"},
    {"White", "PB"},  {"Black", "PW"},   {"Annotator", "AN"},     {"Game", "NPSHEET"},
    {"Source", "SO"}, {"Opening", "ON"}, {"Variant", "NPVARIANT"}};

// The numbers that the format gives to games, by the names of sheets.
int gameNumber(const std::string& id) {
  static const std::map<std::string, int> numbers = {
      {"othello", 2}, {"chess", 3}, {"five-in-a-row", 4}, {"morris", 5}, {"hex", 11}};
  auto found = numbers.find(id);
  return found == numbers.end() ? 0 : found->second;
}
bool hasPoints(const Game& game) {
  int number = gameNumber(game.info().id);
  return (number == 2 || number == 4) && game.board().columns() <= 26 && game.board().rows() <= 26;
}

std::string escaped(const std::string& text) {
  std::string out;
  for (char c : text) {
    if (c == ']' || c == '\\' || c == ':') out += '\\';
    out += c;
  }
  return out;
}

std::string result(const std::string& token) {
  return token == "1-0" ? "B+" : token == "0-1" ? "W+" : token == "1/2-1/2" ? "0" : "?";
}

class SgfWriter {
 public:
  SgfWriter(const Game& game, std::string& out)
      : game_(game), out_(out), points_(hasPoints(game)) {}

  void line(const std::vector<RecordedMove>& moves, std::size_t from, Position position,
            int depth) {
    for (std::size_t i = from; i < moves.size(); ++i) {
      const RecordedMove& one = moves[i];
      if (one.lines.empty()) {
        node(one, position);
        play(one, position);
        continue;
      }
      // The line goes on in the first tree, the others begin with what was possible instead.
      out_ += "\n(";
      node(one, position);
      Position after = position;
      play(one, after);
      line(moves, i + 1, after, depth + 1);
      out_ += ")";
      for (const RecordedMove::Line& other : one.lines) {
        out_ += "\n(";
        if (!other.comment.empty())
          out_ += ";C[" + escaped(other.comment) + "]";
        else if (other.moves.empty() || !other.moves.front().lines.empty())
          out_ += ";";
        line(other.moves, 0, position, depth + 1);
        out_ += ")";
      }
      return;
    }
  }

 private:
  void node(const RecordedMove& one, const Position& position) {
    out_ += fmt::format(";{}[{}]", game_.toMove(position) == 0 ? "B" : "W", text(one, position));
    if (!one.glyphs.empty()) {
      out_ += "NPGLYPH";
      for (int glyph : one.glyphs) out_ += fmt::format("[{}]", glyph);
    }
    if (!one.comment.empty()) out_ += "C[" + escaped(one.comment) + "]";
  }
  std::string text(const RecordedMove& one, const Position& position) const {
    std::vector<Move> found = matchingMoves(game_, position, one.text);
    if (points_ && found.size() == 1) {
      std::vector<Cell> cells = game_.cellsOf(position, found.front());
      if (cells.size() == 1)
        return {static_cast<char>('a' + game_.board().drawnX(cells[0])),
                static_cast<char>('a' + game_.board().drawnY(cells[0]))};
      if (cells.empty()) return "";  // a pass
    }
    return escaped(one.text);
  }
  void play(const RecordedMove& one, Position& position) const {
    std::vector<Move> found = matchingMoves(game_, position, one.text);
    if (found.size() == 1) game_.apply(position, found.front());
  }

  const Game& game_;
  std::string& out_;
  bool points_;
};

}  // namespace

std::string toSgf(const Game& game, const GameRecord& record) {
  std::string out = "(;FF[4]CA[UTF-8]AP[Nine Pegs]";
  if (int number = gameNumber(game.info().id); number > 0) out += fmt::format("GM[{}]", number);
  const Geometry& board = game.board();
  out += board.columns() == board.rows() ? fmt::format("SZ[{}]", board.columns())
                                         : fmt::format("SZ[{}:{}]", board.columns(), board.rows());
  for (const auto& tag : record.tags) {
    const auto& [name, value] = tag;
    if (name == "Result") continue;
    const auto* same = std::find_if(std::begin(sameAs), std::end(sameAs),
                                    [&tag](const auto& one) { return tag.first == one.first; });
    out += same != std::end(sameAs) ? fmt::format("\n{}[{}]", same->second, escaped(value))
                                    : fmt::format("\nNPTAG[{}:{}]", escaped(name), escaped(value));
  }
  out += "\nRE[" + result(record.result) + "]";
  if (!record.start.empty()) out += "\nNPSTART[" + escaped(record.start) + "]";
  if (!record.comment.empty()) out += "\nC[" + escaped(record.comment) + "]";
  out += "\n";
  Position from = record.start.empty() ? game.start() : game.readPosition(record.start, "record");
  SgfWriter(game, out).line(record.moves, 0, from, 0);
  return out + ")\n";
}

void SgfReader::refuse(const std::string& message, const std::string& hint) const {
  throw BadInput(Place{source_, line_, column_, 1, {}}, message, hint);
}

int SgfReader::get() {
  int c = in_.get();
  if (c == '\n') {
    ++line_;
    column_ = 1;
  } else if ((c & 0xc0) != 0x80) {
    ++column_;
  }
  return c;
}

int SgfReader::peek() {
  return in_.peek();
}

void SgfReader::skipBlanks() {
  while (peek() == ' ' || peek() == '\t' || peek() == '\n' || peek() == '\r') get();
}

// What stands between brackets; requires that the opening one is next.
std::string SgfReader::value() {
  int line = line_, column = column_;
  get();
  std::string out;
  while (true) {
    int c = get();
    if (c == std::istream::traits_type::eof())
      throw BadInput(Place{source_, line, column, 1, {}},
                     "the value that begins here is not closed", "a ] ends it");
    if (c == ']') break;
    if (c == '\\') {
      c = get();
      if (c == '\n' || c == std::istream::traits_type::eof()) continue;
    }
    if (c == 0) refuse("a zero byte stands here", "a record is a plain text");
    if (c == '\r') continue;
    out += static_cast<char>(c == '\n' || c == '\t' ? ' ' : c);
    if (out.size() > limits::recordLine)
      throw BadInput(Place{source_, line, column, 1, {}},
                     fmt::format("a value of more than {} bytes", limits::recordLine), "");
  }
  if (firstBadUtf8(out) != std::string::npos)
    throw BadInput(Place{source_, line, column, 1, {}}, "this is not UTF-8 text",
                   "if it is Latin-1: iconv -f latin1 -t utf8 FILE");
  return out;
}

bool SgfReader::property(Property& out) {
  skipBlanks();
  out = {};
  out.line = line_;
  out.column = column_;
  while (std::isalpha(peek()) != 0 && out.name.size() < 64) {
    int c = get();
    if (std::isupper(c) != 0) out.name += static_cast<char>(c);  // small letters are of FF[3]
  }
  if (out.name.empty()) return false;
  skipBlanks();
  while (peek() == '[') {
    out.values.push_back(value());
    if (out.values.size() > limits::recordMoves) refuse("too many values");
    skipBlanks();
  }
  if (out.values.empty()) refuse(fmt::format("{} has no value", out.name), "such as: B[dd]");
  return true;
}

void SgfReader::take(GameRecord& record, std::vector<RecordedMove>& moves, std::string& intro,
                     const Property& property, bool root) {
  const std::string& name = property.name;
  const std::string& first = property.values.front();
  if (name == "B" || name == "W") {
    if (++moves_ > limits::recordMoves)
      refuse(fmt::format("a game of more than {} moves", limits::recordMoves));
    RecordedMove one;
    one.text = first;
    one.line = property.line;
    one.column = property.column;
    moves.push_back(std::move(one));
  } else if (name == "C") {
    std::string& to = moves.empty() ? intro : moves.back().comment;
    to += (to.empty() ? "" : " ") + first;
  } else if (name == "NPGLYPH" && !moves.empty()) {
    for (const std::string& text : property.values) {
      std::optional<unsigned long long> glyph = wholeNumber(text);
      if (!glyph || *glyph > 255) refuse("this is no annotation glyph", "they are 0 to 255");
      moves.back().glyphs.push_back(static_cast<int>(*glyph));
    }
  } else if (root) {
    const auto* same = std::find_if(std::begin(sameAs), std::end(sameAs),
                                    [&name](const auto& one) { return name == one.second; });
    if (same != std::end(sameAs)) {
      record.setTag(same->first, first);
    } else if (name == "RE") {
      record.result = first.starts_with("B+")           ? "1-0"
                      : first.starts_with("W+")         ? "0-1"
                      : first == "0" || first == "Draw" ? "1/2-1/2"
                                                        : "*";
      record.setTag("Result", record.result);
    } else if (name == "NPSTART") {
      record.start = first;
    } else if (name == "GM") {
      record.points = first == "1" || first == "2" || first == "4";
    } else if (name == "NPTAG") {
      for (const std::string& text : property.values) {
        std::size_t colon = text.find(':');
        if (colon != text.npos) record.setTag(text.substr(0, colon), text.substr(colon + 1));
      }
    }
  }
}

// A tree, behind its opening bracket: nodes, then the trees that go on from the last of them.
void SgfReader::readTree(GameRecord& record, std::vector<RecordedMove>& moves, std::string& intro,
                         int depth) {
  if (depth > limits::recordDepth)
    refuse(fmt::format("variations stand more than {} deep in each other", limits::recordDepth));
  int line = line_, column = column_;
  bool any = false, first = true;
  std::size_t branch = 0;  // the move that other trees stand beside
  while (true) {
    skipBlanks();
    int c = peek();
    if (c == std::istream::traits_type::eof())
      throw BadInput(Place{source_, line, column, 1, {}}, "the tree that begins here is not closed",
                     "a ) ends it");
    if (c == ';') {
      if (!first) refuse("a node stands behind a tree", "trees end a line of nodes");
      get();
      Property one;
      while (property(one)) take(record, moves, intro, one, depth == 0 && !any);
      any = true;
      continue;
    }
    get();
    if (c == ')') {
      if (!any) refuse("a tree without a node", "a node begins with a ;");
      return;
    }
    if (c != '(') refuse("a ; or a bracket is expected here");
    if (first) {
      first = false;
      branch = moves.size();
      readTree(record, moves, intro, depth + 1);
      continue;
    }
    if (branch >= moves.size()) {  // the first tree had no move to stand beside
      std::vector<RecordedMove> unused;
      std::string also;
      readTree(record, unused, also, depth + 1);
      continue;
    }
    RecordedMove::Line other;
    readTree(record, other.moves, other.comment, depth + 1);
    moves[branch].lines.push_back(std::move(other));
  }
}

std::optional<GameRecord> SgfReader::next() {
  skipBlanks();
  if (line_ == 1 && column_ == 1 && peek() == 0xef) {
    for (int i = 0; i < 3; ++i) get();
    skipBlanks();
  }
  if (peek() == std::istream::traits_type::eof()) return std::nullopt;
  GameRecord record;
  record.line = line_;
  moves_ = 0;
  if (get() != '(') refuse("a game begins with a bracket");
  readTree(record, record.moves, record.comment, 0);
  return record;
}

std::unique_ptr<GameReader> openRecords(std::istream& in, const std::string& source) {
  int c = in.peek();
  while (c == ' ' || c == '\n' || c == '\r' || c == '\t') {
    in.get();
    c = in.peek();
  }
  if (c == '(') return std::make_unique<SgfReader>(in, source);
  return std::make_unique<RecordReader>(in, source);
}

}  // namespace ninepegs::records
