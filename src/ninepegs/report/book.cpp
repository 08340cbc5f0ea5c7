#include "ninepegs/report/book.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <optional>

#include "ninepegs/base/text.hpp"
#include "ninepegs/play/match.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/explanation.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/steering.hpp"

namespace ninepegs::report {
namespace {

constexpr std::uint64_t ownGames = 0x626f6f6b;  // the streams that draw them
constexpr std::size_t gamesOfMoves = 60;        // in which pieces are looked at
constexpr std::size_t hurried = 100;            // games that hurry to the end
constexpr int longest = 400;                    // plies
constexpr std::size_t strip = 6;                // boards of the example game
constexpr int examplePlies = 300;
constexpr std::uint64_t examples = 6;  // games that one is chosen from
constexpr std::size_t openingPlies = 2;

class Maker {
 public:
  Maker(const SheetGame& game, const BookOptions& options)
      : game_(game),
        options_(options),
        uses_(ruleLinesOf(game).size(), 0),
        live_(game.live(uses_)) {}

  Book run() {
    const GameInfo& info = game_.info();
    book_.title = info.title;
    if (!info.variant.empty()) book_.title += ", variant " + info.variant;
    BookPart& first = add("The game");
    if (!info.about.empty()) first.prose.push_back(joined(info.about, " "));
    BookBoard start{game_.start(), "the start", {}, {}, -1};
    first.boards.push_back(std::move(start));
    rules();
    games();
    pieces();
    ends();
    example();
    checked();
    book_.stopped = wantsStop(options_.stop);
    return std::move(book_);
  }

 private:
  BookPart& add(const std::string& heading, bool level = true) {
    BookPart part;
    part.heading = heading;
    part.level = level;
    book_.parts.push_back(std::move(part));
    return book_.parts.back();
  }

  // The sentences, but for what players need not know.
  void rules() {
    add("The rules");
    for (const sheet::Explanation& part : explanation(game_)) {
      bool known = part.heading.rfind("Variant ", 0) == 0 ||
                   part.heading.rfind("What a position is worth", 0) == 0 ||
                   part.heading.rfind("What must", 0) == 0 ||
                   part.heading.rfind("Where the rules look", 0) == 0 || part.sentences.empty();
      if (known) continue;
      BookPart& own = add(part.heading, false);
      for (const sheet::Explanation::Sentence& one : part.sentences)
        own.sentences.push_back({one.depth, one.text});
    }
  }

  // Plays games: what shows how a piece moves and how a game ends is kept.
  void games() {
    std::uint64_t playouts = std::min<std::uint64_t>(options_.playouts, 100'000);
    verify::Steering steering(*live_, uses_);
    for (std::uint64_t number = 0; number < playouts + hurried; ++number) {
      if (wantsStop(options_.stop)) return;
      Stream stream(options_.seed ^ ownGames, number);
      live_->setUp(game_.start());
      MoveList played, moves;
      try {
        while (!live_->ended() && static_cast<int>(played.size()) < longest) {
          live_->listMoves(moves);
          if (moves.empty()) break;
          if (number < gamesOfMoves) noteMoves(moves);
          played.push_back(number < playouts
                               ? moves[stream.below(static_cast<std::uint32_t>(moves.size()))]
                               : steering.drawn(moves, verify::Steer::hurry, stream));
          live_->play(played.back());
        }
      } catch (const BadInput&) {  // rules that come to no end: `check` tells of it
        continue;
      }
      noteEnd(played);
    }
  }

  // Of each kind the piece that may go to most places, with as few others round it as can be.
  void noteMoves(const MoveList& moves) {
    Position position = live_->position();
    int mover = game_.toMove(position);
    std::map<std::pair<int, Cell>, CellSet> from;  // by kind and cell
    for (const Move& move : moves) {
      std::vector<Cell> cells = game_.cellsOf(position, move);
      if (cells.empty()) continue;
      int kind = -1;
      Cell origin = -1;
      int board = game_.boards() > 1 ? mover : 0;
      if (std::optional<Piece> piece = game_.pieceAt(position, cells.front(), board);
          cells.size() > 1 && piece && piece->side == mover)
        kind = piece->kind, origin = cells.front();
      from[{kind, origin}].set(static_cast<std::size_t>(cells.back()));
    }
    std::size_t standing = 0;
    for (Cell cell = 0; cell < game_.board().size(); ++cell)
      standing += game_.pieceAt(position, cell, 0).has_value();
    for (const auto& [key, targets] : from) {
      auto [kind, origin] = key;
      std::size_t places = targets.count();
      auto& best = moving_[kind];
      if (best && (best->places > places || (best->places == places && best->others <= standing)))
        continue;
      best = Moving{{position, "", {}, targets, origin}, mover, places, standing};
    }
  }

  void noteEnd(const MoveList& played) {
    Outcome outcome = live_->outcome();
    if (outcome.kind != ResultKind::win && outcome.kind != ResultKind::draw) return;
    auto& best = ended_[{outcome.end, outcome.kind == ResultKind::win ? outcome.winner : -1}];
    if (best && best->plies <= played.size()) return;
    Position last = live_->position();
    Result result = game_.result(last);
    std::string move;
    if (!played.empty()) {
      live_->takeBack();
      move = game_.moveText(live_->position(), played.back());
    }
    best = Ended{
        {last,
         fmt::format("{}, after {}", resultText(game_, result), move.empty() ? "no move" : move),
         game_.shownCells(last),
         {},
         -1},
        played.size()};
  }

  void pieces() {
    BookPart* part = nullptr;
    for (auto& [kind, best] : moving_) {
      if (!best) continue;
      if (part == nullptr) {
        part = &add("Where pieces may go");
        part->prose.push_back(
            "Positions of random games; the marked places are where the next "
            "move may go.");
      }
      BookBoard board = best->board;
      const std::string& side = game_.info().sides[best->mover];
      board.caption =
          kind < 0
              ? fmt::format("{} may go to {}", side,
                            plural(static_cast<long long>(best->places), "place"))
              : fmt::format("{} of {}: {}", game_.info().kinds[static_cast<std::size_t>(kind)].name,
                            side, plural(static_cast<long long>(best->places), "place"));
      part->boards.push_back(std::move(board));
    }
  }

  void ends() {
    BookPart& part = add("How it ends");
    std::vector<bool> met(game_.info().ends.size(), false);
    for (auto& [key, best] : ended_) {
      if (!best) continue;
      if (key.first >= 0) met[static_cast<std::size_t>(key.first)] = true;
      part.boards.push_back(best->board);
    }
    for (std::size_t end = 0; end < met.size(); ++end)
      if (!met[end])
        part.sentences.push_back(
            {0, fmt::format("\"{}\" came up in none of {} games.", game_.info().ends[end].name,
                            grouped(options_.playouts + hurried))});
  }

  // Of a few games from drawn openings the first that somebody wins, else the longest: equals often
  // draw, so in the later ones the first or the second side looks at less.
  play::Played exampleGame(std::string& players) {
    play::Played best;
    for (std::uint64_t number = 0; number < examples && !wantsStop(options_.stop); ++number) {
      std::uint64_t nodes[2] = {options_.nodes, options_.nodes};
      if (number >= 2) nodes[number % 2] = std::max<std::uint64_t>(options_.nodes / 20, 1);
      std::unique_ptr<play::Opponent> one, two;
      for (int side = 0; side < 2; ++side) {
        auto& opponent = side == 0 ? one : two;
        opponent = game_.secrets() != nullptr ? play::makeRandom()
                                              : play::makeSearch({.nodes = nodes[side]});
        opponent->stopWith(options_.stop);
      }
      Stream stream(options_.seed ^ ownGames, ~number);
      Position from = game_.start();
      MoveList opening, moves;
      while (opening.size() < openingPlies && !game_.ended(from)) {
        game_.listMoves(from, moves);
        if (moves.empty()) break;
        opening.push_back(moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
        game_.apply(from, opening.back());
      }
      if (game_.secrets() != nullptr) from = game_.start(), opening.clear();
      play::Opponent* sides[2] = {one.get(), two.get()};
      play::Played played = play::playGame(game_, from, sides, stream, examplePlies);
      played.moves.insert(played.moves.begin(), opening.begin(), opening.end());
      bool won = played.result.kind == ResultKind::win;
      if (!won && played.moves.size() <= best.moves.size()) continue;
      best = std::move(played);
      players =
          game_.secrets() != nullptr
              ? "Played at random, since each side hides something."
              : fmt::format(
                    "Begun with {} drawn by lot; then {} looks at {} positions a move, {} at {}.",
                    pliesText(opening.size()), game_.info().sides[0], grouped(nodes[0]),
                    game_.info().sides[1], grouped(nodes[1]));
      if (won) break;
    }
    return best;
  }

  void example() {
    play::Played played;
    std::string players;
    try {
      played = exampleGame(players);
    } catch (const BadInput&) {
      return;
    }
    if (played.moves.empty()) return;
    BookPart& part = add("A game");
    part.prose.push_back(players);
    std::vector<std::size_t> shown;  // after so many plies
    std::size_t plies = played.moves.size();
    for (std::size_t i = 1; i <= strip && i <= plies; ++i)
      shown.push_back(plies <= strip ? i : plies * i / strip);
    Position position = game_.start();
    std::string list;
    for (std::size_t ply = 0; ply < plies; ++ply) {
      std::string text = game_.moveText(position, played.moves[ply]);
      list += (list.empty() ? "" : "  ") + fmt::format("{}. {}", ply + 1, text);
      game_.apply(position, played.moves[ply]);
      if (std::find(shown.begin(), shown.end(), ply + 1) == shown.end()) continue;
      BookBoard board{position, fmt::format("after {}. {}", ply + 1, text), {}, {}, -1};
      if (ply + 1 == plies) board.shown = game_.shownCells(position);
      part.boards.push_back(std::move(board));
    }
    part.prose.push_back(list);
    part.prose.push_back(resultText(game_, played.result) + ".");
  }

  void checked() {
    verify::CheckOptions how;
    how.playouts = options_.playouts;
    how.seed = options_.seed;
    how.threads = options_.threads;
    how.stop = options_.stop;
    verify::CheckReport report = verify::check(game_, how);
    BookPart& part = add("What was checked");
    auto say = [&](const std::string& text) { part.sentences.push_back({0, text}); };
    if (report.cases > 0) say("Cases of the sheet: " + passedText(report) + ".");
    say(fmt::format(
        "{} random games, seed {}: {}.", grouped(report.evidence.playouts), options_.seed,
        report.findings.empty()
            ? "no fault was found"
            : plural(static_cast<long long>(report.findings.size()), "fault") + " found"));
    if (!report.complete()) say("The check was not complete: " + verdictText(how, report));
    for (const verify::Finding& finding : report.findings) say(finding.message);
    for (const std::string& line : shareLines(game_, report)) {
      std::string text = line;
      text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(text[0])));
      say(text + ".");
    }
    say(notLookedAt(game_, how, report));
  }

  struct Moving {
    BookBoard board;
    int mover = 0;
    std::size_t places = 0, others = 0;
  };
  struct Ended {
    BookBoard board;
    std::size_t plies = 0;
  };

  const SheetGame& game_;
  const BookOptions& options_;
  std::vector<std::uint64_t> uses_;
  std::unique_ptr<LivePosition> live_;
  Book book_;
  std::map<int, std::optional<Moving>> moving_;                // by kind; -1: what is put down
  std::map<std::pair<int, int>, std::optional<Ended>> ended_;  // by end and winner
};

}  // namespace

Book makeBook(const SheetGame& game, const BookOptions& options) {
  return Maker(game, options).run();
}

}  // namespace ninepegs::report
