// The table at which `play` plays: position, moves made, who sits on which side. Answers lines of
// input with text; knows no terminal.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/opponent.hpp"
#include "ninepegs/records/game_record.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::cli {

struct Seat {
  std::string text;                          // "human", or the opponent as it was asked for
  std::unique_ptr<play::Opponent> computer;  // none: a human
};

class Table {
 public:
  Table(std::shared_ptr<const Game> game, Position from, std::array<Seat, 2> seats,
        std::uint64_t seed, report::Paint paint);

  bool over() const { return game_->ended(position_) || legal_.empty(); }
  bool humanToMove() const { return !seats_[game_->toMove(position_)].computer; }
  bool drawsMoves() const { return draws_ > 0 && !over() && humanToMove(); }
  bool quit() const { return quit_; }
  bool hasHuman() const { return !seats_[0].computer || !seats_[1].computer; }

  // Stands in front of each board in a text, so that it can be drawn in place.
  static constexpr char boardSign = '\f';
  std::string board() const;               // board and whose turn, or the result
  std::vector<std::string> words() const;  // legal moves and commands, to complete from
  std::string prompt() const;
  const std::string& whoMoves() const { return game_->info().sides[game_->toMove(position_)]; }
  std::string legalInput() const;  // what can be typed now
  // The computer's move and what it says of it; each step of its thinking is told, in words.
  std::string computerMoves(const StopFlag* stop,
                            const std::function<void(const std::string&)>& tell);
  // Warns before a move that gives the other side a win that another move would not.
  void setCoach(bool on) { coach_ = on; }
  std::string drawMove();  // one of those that a human asked to be drawn at random
  std::string answer(const std::string& line);  // what a human's line brings about
  std::string record() const;                   // the game as text
  // Goes on with a game that was kept, and its lines. `source` names in messages where it stood.
  // Throws BadInput if it is none by these rules.
  void goOn(records::GameRecord record, const std::string& source);

 private:
  std::string lastMove() const;
  std::string makeMove(const std::string& said);
  std::string columnOf(const std::string& typed) const;
  std::string undo();
  // Backwards and forwards in the line that was played; from there another can be played, and the
  // old one is kept.
  std::string back(const std::string& number);
  std::string forward(const std::string& number);
  std::string goTo(const std::string& number);
  std::string lines() const;
  void takeBack();
  enum class Until { before, after };  // the ply, a human is to move
  std::string stand(std::size_t ply, Until until);
  std::vector<Move> wholeLine() const;  // what was played, and what was gone back from
  // A cell was typed on which a piece stands: where it may go; then the next word is the place.
  std::string pick(const std::string& typed);
  std::vector<Move> pickedTo(const std::string& typed) const;
  std::string hint();
  std::string level(const std::string& number);
  std::string account(const play::Choice& choice) const;
  std::string coach();
  std::string warning(const Move& move);
  std::string thought() const;
  // Begins again from a position that is typed.
  std::string setUp(const std::string& text);
  void begin(const Position& from);
  std::string announced(const Move& move, bool hides, const std::string& remark) const;
  std::string drawMoves(const std::string& number);
  std::string save(const std::string& path);
  std::string help() const;
  void place(const Move& move);
  // Whose view is shown where pieces are secret: the human's; -1: all is shown.
  int viewer() const;
  void refresh();
  void renew();
  bool hasComputer() const { return seats_[0].computer || seats_[1].computer; }

  std::shared_ptr<const Game> game_;
  Position from_, position_;
  std::vector<Move> moves_;
  std::vector<Position> before_;
  std::vector<Move> ahead_;                // gone back from, the next one last
  std::vector<std::vector<Move>> others_;  // lines from the start that were left
  Cell picked_ = -1;
  std::vector<std::string> legal_;
  std::array<Seat, 2> seats_;
  play::Sides known_;
  std::uint64_t seed_;
  report::Paint paint_;
  bool quit_ = false, flipped_ = false;
  bool coach_ = false;
  std::string warnedOf_;  // a move at this ply that can be played all the same
  play::Choice thought_;  // the last of a computer, in the position
  Position thoughtAt_;
  long long draws_ = 0;  // of a human's moves that are still to be drawn at random
};

}  // namespace ninepegs::cli
