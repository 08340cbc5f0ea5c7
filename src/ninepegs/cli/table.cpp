#include "ninepegs/cli/table.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/game/move_text.hpp"
#include "ninepegs/records/movetext.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/moves_from.hpp"
#include "ninepegs/report/thinking_text.hpp"

namespace ninepegs::cli {
namespace {

// Drawn moves have a stream that no computer's move uses.
constexpr std::uint64_t drawStream = 1u << 21;

}  // namespace

Table::Table(std::shared_ptr<const Game> game, Position from, std::array<Seat, 2> seats,
             std::uint64_t seed, report::Paint paint)
    : game_(std::move(game)),
      from_(from),
      position_(std::move(from)),
      seats_(std::move(seats)),
      known_(*game_, from_),
      seed_(seed),
      paint_(paint) {
  refresh();
}

int Table::viewer() const {
  bool hides = game_->secrets() != nullptr && hasHuman() && !over();
  if (!hides) return -1;
  int side = game_->toMove(position_);
  return humanToMove() ? side : 1 - side;
}

void Table::refresh() {
  legal_ = moveTexts(*game_, position_);
}

// What follows from the moves, after some were taken back.
void Table::renew() {
  refresh();
  known_ = play::Sides(*game_, from_);
  for (std::size_t i = 0; i < moves_.size(); ++i) known_.note(before_[i], moves_[i]);
}

void Table::place(const Move& move) {
  picked_ = -1;
  warnedOf_.clear();
  if (!ahead_.empty()) {
    if (ahead_.back() == move) {
      ahead_.pop_back();
    } else {
      others_.push_back(wholeLine());
      ahead_.clear();
    }
  }
  known_.note(position_, move);
  before_.push_back(position_);
  moves_.push_back(move);
  game_->apply(position_, move);
  refresh();
}

std::string Table::board() const {
  report::Marks marks;
  marks.flipped = flipped_;
  marks.shown = game_->shownCells(position_);
  std::string out = boardSign +
                    ("\n" + report::boardsText(*game_, position_, marks, paint_, viewer())) +
                    report::besidesText(*game_, position_, viewer()) + lastMove();
  if (!game_->ended(position_) && legal_.empty())
    return out + fmt::format("{} cannot move, and no end of the sheet holds\n",
                             game_->info().sides[game_->toMove(position_)]);
  return out + report::stateText(*game_, position_, paint_) + "\n";
}

// The move that led here, as whoever looks may know it.
std::string Table::lastMove() const {
  if (moves_.empty()) return "";
  const Position& before = before_.back();
  int side = game_->toMove(before);
  MoveTexts texts = game_->textsOf(before, moves_.back());
  bool hides = viewer() >= 0 && viewer() != side;
  return paint_.faint(fmt::format("last move: {} {}", game_->info().sides[side],
                                  hides ? texts.seen : texts.text)) +
         "\n";
}

std::string Table::prompt() const {
  return over() ? "game over> " : game_->info().sides[game_->toMove(position_)] + "> ";
}

std::string Table::legalInput() const {
  if (over()) return "undo, save FILE or quit";
  if (picked_ >= 0) return "the next word is the place, or another move";
  constexpr std::size_t shown = 12;
  std::vector<std::string> some(
      legal_.begin(), legal_.begin() + static_cast<std::ptrdiff_t>(std::min(shown, legal_.size())));
  std::string out = "legal: " + joined(some, ", ");
  if (legal_.size() > shown) out += fmt::format(" ... {} in all, see `moves`", legal_.size());
  return out;
}

std::string Table::computerMoves(const StopFlag* stop,
                                 const std::function<void(const std::string&)>& tell) {
  int side = game_->toMove(position_);
  Stream stream(seed_, moves_.size());
  seats_[side].computer->stopWith(stop);
  seats_[side].computer->tellSteps(
      [&](const play::Choice::Step& step) { tell(report::stepText(step)); });
  play::Choice choice = known_.choose(*seats_[side].computer, position_, stream);
  seats_[side].computer->tellSteps(nullptr);
  bool hides = viewer() >= 0;
  std::string out = announced(choice.move, hides, hides ? "" : account(choice));
  thoughtAt_ = position_;
  thought_ = choice;
  place(choice.move);
  return out;
}

// Where moves are named by their columns, a column's number is as good as its name.
std::string Table::columnOf(const std::string& typed) const {
  const Geometry& board = game_->board();
  std::optional<unsigned long long> number = wholeNumber(typed);
  bool byColumn = !legal_.empty() &&
                  std::all_of(legal_.begin(), legal_.end(),
                              [&](const auto& text) { return board.findColumn(text).has_value(); });
  if (!number || *number == 0 || *number > static_cast<unsigned>(board.columns()) || !byColumn)
    return typed;
  return Geometry::columnName(static_cast<int>(*number));
}

std::vector<std::string> Table::words() const {
  std::vector<std::string> out = legal_;
  for (const char* word :
       {"undo", "back", "forward", "goto", "lines", "hint", "random", "board", "flip", "setup",
        "moves", "coach", "thought", "level", "save", "help", "quit"})
    out.emplace_back(word);
  return out;
}

std::string Table::makeMove(const std::string& said) {
  std::string typed = columnOf(said);
  // Behind a picked piece a cell is where it goes, even where it would be another's move, too.
  std::vector<Move> found = pickedTo(typed);
  if (found.empty()) found = matchingMoves(*game_, position_, typed);
  if (found.empty()) {
    std::string picked = pick(typed);
    return picked.empty() ? whyNot(*game_, position_, typed) + "\n" : picked;
  }
  if (found.size() > 1) {
    std::vector<std::string> texts;
    for (const Move& move : found) texts.push_back(game_->moveText(position_, move));
    return fmt::format("\"{}\" can be read as several moves: {}\n", typed, joined(texts, ", "));
  }
  if (std::string warned = warning(found.front()); !warned.empty()) return warned;
  std::string told;
  for (const std::string& line : game_->textsOf(position_, found.front()).told) told += line + "\n";
  place(found.front());
  return told + board();
}

void Table::takeBack() {
  position_ = before_.back();
  before_.pop_back();
  moves_.pop_back();
  picked_ = -1;
  draws_ = 0;
  warnedOf_.clear();
}

std::string Table::undo() {
  if (moves_.empty()) return "there is no move to take back\n";
  int taken = 0;
  ahead_.clear();
  do {  // back to a human's turn
    takeBack();
    ++taken;
  } while (!moves_.empty() && !humanToMove());
  renew();
  return fmt::format("took back {}\n", plural(taken, "move")) + board();
}

std::string Table::pick(const std::string& typed) {
  if (over()) return "";
  std::optional<Cell> cell = game_->board().find(typed);
  if (!cell) return "";
  report::Marks marks;
  marks.flipped = flipped_;
  marks.targets = report::targetsFrom(*game_, position_, *cell);
  CellSet elsewhere = marks.targets;
  elsewhere.reset(*cell);
  if (elsewhere.none()) return "";  // nothing goes from there to another cell
  picked_ = marks.origin = *cell;
  return boardSign + ("\n" + report::boardsText(*game_, position_, marks, paint_, viewer())) +
         fmt::format("from {}: {}\n", typed,
                     joined(report::textsFrom(*game_, position_, *cell), ", "));
}

// The moves from the picked cell to one that is typed.
std::vector<Move> Table::pickedTo(const std::string& typed) const {
  std::vector<Move> out;
  std::optional<Cell> to = game_->board().find(typed);
  if (picked_ < 0 || !to) return out;
  MoveList moves;
  game_->listMoves(position_, moves);
  for (const Move& move : moves) {
    std::vector<Cell> cells = game_->cellsOf(position_, move);
    if (cells.size() > 1 && cells.front() == picked_ && cells.back() == *to) out.push_back(move);
  }
  return out;
}

std::string Table::drawMoves(const std::string& number) {
  if (over()) return "the game is over\n";
  std::optional<unsigned long long> asked = number.empty() ? 1 : wholeNumber(number);
  if (!asked || *asked == 0 || *asked > 1000)
    return fmt::format("\"{}\" is no number of moves: say random, or random 5\n", number);
  draws_ = static_cast<long long>(*asked);
  return "";
}

std::string Table::drawMove() {
  --draws_;
  Stream stream(seed_, drawStream + moves_.size());
  Move move = play::makeRandom()->choose(*game_, position_, stream).move;
  std::string out = announced(move, false, fmt::format("drawn, seed {}", seed_));
  place(move);
  return out + (draws_ > 0 && !over() ? "" : board());
}

// Who plays what and what is told of it; `hides`: only what the other side sees of it.
std::string Table::announced(const Move& move, bool hides, const std::string& remark) const {
  MoveTexts texts = game_->textsOf(position_, move);
  std::string out = fmt::format("{} plays {}", game_->info().sides[game_->toMove(position_)],
                                hides ? texts.seen : texts.text);
  for (const std::string& line : texts.told) out += ": " + line;
  if (!remark.empty()) out += paint_.faint("   (" + remark + ")");
  return out + "\n";
}

std::string Table::help() const {
  return "a move      such as " + (legal_.empty() ? std::string("(none now)") : legal_.front()) +
         "; see `moves`\n"
         "a cell      where the piece on it may go; then type the place\n"
         "undo        take back your last move and the answer to it\n"
         "back 3      three plies back, and forward 3; goto 4 to that ply; a move from\n"
         "            there begins another line\n"
         "lines       the lines that were played\n"
         "hint        a good move, found by a short search\n"
         "coach       warn before moves that give the other side a win; again: no longer\n"
         "level 3     the computer plays as strongly as that, 1 to 9\n"
         "thought     how the computer came to its last move, depth by depth\n"
         "random      a legal move, drawn; random 5 draws your next five\n"
         "board       show the board again; flip turns it round\n"
         "setup TEXT  begin again from a position; setup alone prints this one as text\n"
         "moves       list the legal moves\n"
         "save FILE   write the game so far to a file\n"
         "help        this list\n"
         "quit        leave the game\n";
}

std::string Table::answer(const std::string& line) {
  std::string typed(trimmed(line));
  std::string word = typed.substr(0, typed.find(' '));
  std::transform(word.begin(), word.end(), word.begin(),
                 [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  bool alone = word.size() == typed.size();
  if (typed.empty()) return "type a move, or `help`\n";
  if (word == "quit" && alone) {
    quit_ = true;
    return "";
  }
  if (word == "undo" && alone) return undo();
  std::string rest = std::string(trimmed(typed.substr(word.size())));
  bool isMove = !over() && !matchingMoves(*game_, position_, typed).empty();
  if (word == "back" && !isMove) return back(rest);
  if (word == "forward" && !isMove) return forward(rest);
  if (word == "goto" && !isMove) return goTo(rest);
  if (word == "lines" && alone) return lines();
  if (word == "hint" && alone) return hint();
  if (word == "coach" && alone) return coach();
  if (word == "thought" && alone) return thought();
  if (word == "level" && !isMove) return level(rest);
  if (word == "random") return drawMoves(std::string(trimmed(typed.substr(6))));
  if (word == "board" && alone) return board();
  if (word == "flip" && alone) {
    flipped_ = !flipped_;
    return board();
  }
  if (word == "setup" && !isMove) return setUp(rest);
  if (word == "help" && alone) return help();
  if (word == "save") return save(std::string(trimmed(typed.substr(4))));
  if (word == "moves" && alone)
    return over() ? "no legal moves: the game is over\n"
                  : fmt::format("{}: {}\n", plural(static_cast<long long>(legal_.size()), "move"),
                                joined(legal_, ", "));
  return makeMove(typed);
}

}  // namespace ninepegs::cli
