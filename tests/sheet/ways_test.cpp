// Reaches, runs and lines on boards of every shape, compared with walking step by step.
//
// Boards of one word are looked up in tables and filled by turning the word; larger boards and
// joined edges go other ways. Here all of them are held against loops that only use the board's
// steps and what stands on a cell.
#include <algorithm>
#include <set>

#include "support/games.hpp"

namespace ninepegs::sheet {
namespace ways_test {

using Texts = std::set<std::string>;

const char* const boards[] = {
    "square 8 x 8",
    "square 3 x 5",
    "square 16 x 4",
    "square 1 x 9",
    "square 8 x 8, without c3 or d3 or f6",
    "square 6 x 6, joined left to right",
    "square 5 x 4, joined left to right, joined top to bottom",
    "square 4 x 4 x 4",
    "square 9 x 9",
    "square 13 x 13",
    "square 20 x 20",
    "hexagon 3",
    "hexagon 5",
    "rhombus 6 x 6",
    "rhombus 9 x 9",
};

std::string heading(const std::string& board, const std::string& reach) {
  return "game ways\nsides Amber and Slate\nboard " + board + "\npiece peg o x reach " + reach +
         "\npiece block b c\nmove lay\n  choose one from peg, block\n  pick there in empty\n"
         "  put one on there\n  written as one \" \" there\n";
}
const char* const never = "ends\n  draw \"long\" when plies > 900\n";

// Random pieces of both sides on a share of the board.
Position scattered(const Game& game, Stream& stream) {
  Position position = game.start();
  std::size_t pieces = game.board().all().count() * (1 + stream.below(4)) / 5;
  MoveList moves;
  for (std::size_t i = 0; i < pieces; ++i) {
    game.listMoves(position, moves);
    std::erase_if(moves, [](const Move& move) { return move.group != 0; });
    game.apply(position, moves[stream.below(static_cast<std::uint32_t>(moves.size()))]);
  }
  return position;
}

int sideAt(const Game& game, const Position& position, Cell cell) {  // -1: nothing there
  std::optional<Piece> piece = game.pieceAt(position, cell);
  return piece ? piece->side : -1;
}
bool isPeg(const Game& game, const Position& position, Cell cell) {
  return game.pieceAt(position, cell)->kind == 0;
}

// What the moves of a group say.
Texts textsOfGroup(const Game& game, const Position& position, int group) {
  MoveList moves;
  game.listMoves(position, moves);
  Texts out;
  for (const Move& move : moves)
    if (move.group == group) {
      EXPECT_TRUE(out.insert(game.moveText(position, move)).second);
    }
  return out;
}

TEST(Ways, SlidesEqualWalking) {
  for (const std::string board : boards) {
    for (const std::string ways : {"any", "orthogonal", "diagonal"}) {
      if (Geometry probe = test::fromText(heading(board, "step any") + never)->board();
          probe.directionGroup(ways).empty())
        continue;
      std::shared_ptr<const SheetGame> game =
          test::fromText(heading(board, "slide " + ways) +
                         "move go\n  pick here in my peg\n  pick there in reach of here except "
                         "mine\n  take there\n  shift here to there\n" +
                         never);
      const Geometry& cells = game->board();
      for (std::uint64_t number = 0; number < 8; ++number) {
        Stream stream(11, number);
        Position position = scattered(*game, stream);
        int mover = game->toMove(position);
        Texts expected;
        for (Cell from = 0; from < cells.size(); ++from) {
          if (!cells.has(from) || sideAt(*game, position, from) != mover ||
              !isPeg(*game, position, from))
            continue;
          for (int way : cells.directionGroup(ways)) {
            std::set<Cell> passed;
            for (std::optional<Cell> at = cells.step(from, way); at && passed.insert(*at).second;
                 at = cells.step(*at, way)) {
              int there = sideAt(*game, position, *at);
              if (there != mover) expected.insert(cells.label(from) + "-" + cells.label(*at));
              if (there >= 0) break;
            }
          }
        }
        ASSERT_EQ(textsOfGroup(*game, position, 1), expected) << board << " " << ways;
      }
    }
  }
}

// The cells of the other side that a piece laid on `from` would turn, by walking.
std::set<Cell> turned(const Game& game, const Position& position, Cell from) {
  const Geometry& cells = game.board();
  int mover = game.toMove(position);
  std::set<Cell> all;
  for (int way : cells.directionGroup("any")) {
    std::set<Cell> run;
    std::optional<Cell> at = cells.step(from, way);
    while (at && sideAt(game, position, *at) == 1 - mover && run.insert(*at).second)
      at = cells.step(*at, way);
    if (at && sideAt(game, position, *at) == mover) all.insert(run.begin(), run.end());
  }
  return all;
}

TEST(Ways, BracketedRunsEqualWalking) {
  for (const std::string board : boards) {
    std::shared_ptr<const SheetGame> game =
        test::fromText(heading(board, "step any") +
                       "move turn-over\n  pick there in empty\n  let run = bracketed theirs from "
                       "there by mine\n  need any run\n  put peg on there\n  flip run\n" +
                       never);
    const Geometry& cells = game->board();
    for (std::uint64_t number = 0; number < 8; ++number) {
      Stream stream(12, number);
      Position position = scattered(*game, stream);
      Texts expected;
      for (Cell from = 0; from < cells.size(); ++from)
        if (cells.has(from) && sideAt(*game, position, from) < 0 &&
            !turned(*game, position, from).empty())
          expected.insert(cells.label(from));
      ASSERT_EQ(textsOfGroup(*game, position, 1), expected) << board;
      MoveList moves;
      game->listMoves(position, moves);
      for (const Move& move : moves) {
        if (move.group != 1) continue;
        Position after = position;
        game->apply(after, move);
        Cell from = *cells.find(game->moveText(position, move));
        std::set<Cell> changed = turned(*game, position, from);
        for (Cell cell = 0; cell < cells.size(); ++cell) {
          if (!cells.has(cell)) continue;
          int before = sideAt(*game, position, cell), now = sideAt(*game, after, cell);
          int wanted = cell == from              ? game->toMove(position)
                       : changed.count(cell) > 0 ? 1 - before
                                                 : before;
          ASSERT_EQ(now, wanted) << board << " " << cells.label(cell);
        }
      }
    }
  }
}

TEST(Ways, StepsAndSpreadsEqualWalking) {
  for (const std::string board : boards) {
    std::shared_ptr<const SheetGame> game = test::fromText(
        heading(board, "step any") +
        "move near\n  pick there in step any from my peg\n  add there to my noted\n"
        "move far\n  pick there in spread from my peg through mine\n  add there to my noted\n" +
        never + "mark noted each\n");
    const Geometry& cells = game->board();
    for (std::uint64_t number = 0; number < 6; ++number) {
      Stream stream(13, number);
      Position position = scattered(*game, stream);
      int mover = game->toMove(position);
      std::set<Cell> near, far, open;
      for (Cell cell = 0; cell < cells.size(); ++cell)
        if (cells.has(cell) && sideAt(*game, position, cell) == mover &&
            isPeg(*game, position, cell))
          open.insert(cell);
      auto neighbours = [&](Cell cell) {
        std::set<Cell> out;
        for (int way : cells.directionGroup("any"))
          if (std::optional<Cell> at = cells.step(cell, way)) out.insert(*at);
        return out;
      };
      for (Cell cell : open) near.merge(neighbours(cell));
      while (!open.empty()) {
        Cell cell = *open.begin();
        open.erase(open.begin());
        if (!far.insert(cell).second) continue;
        for (Cell next : neighbours(cell))
          if (sideAt(*game, position, next) == mover && far.count(next) == 0) open.insert(next);
      }
      auto labels = [&](const std::set<Cell>& all) {
        Texts out;
        for (Cell cell : all) out.insert(cells.label(cell));
        return out;
      };
      ASSERT_EQ(textsOfGroup(*game, position, 1), labels(near)) << board;
      ASSERT_EQ(textsOfGroup(*game, position, 2), labels(far)) << board;
    }
  }
}

TEST(Ways, LinesEqualWalking) {
  for (const std::string board : boards) {
    std::shared_ptr<const SheetGame> game = test::fromText(
        heading(board, "step any") +
        "move join\n  pick those in lines of 3 in mine along any\n  add those to my noted\n"
        "  written as those\n" +
        never + "mark noted each\n");
    const Geometry& cells = game->board();
    for (std::uint64_t number = 0; number < 6; ++number) {
      Stream stream(14, number);
      Position position = scattered(*game, stream);
      int mover = game->toMove(position);
      std::set<std::set<Cell>> expected;
      for (Cell from = 0; from < cells.size(); ++from) {
        if (!cells.has(from)) continue;
        for (int way : cells.directionGroup("any")) {
          std::set<Cell> line;
          std::optional<Cell> at = from;
          for (int k = 0; k < 3 && at; ++k, at = cells.step(*at, way))
            if (sideAt(*game, position, *at) == mover) line.insert(*at);
          if (line.size() == 3) expected.insert(line);
        }
      }
      MoveList moves;
      game->listMoves(position, moves);
      std::set<std::set<Cell>> found;
      for (const Move& move : moves) {
        if (move.group != 1) continue;
        Position after = position;
        game->apply(after, move);
        std::string text = game->positionText(after);
        std::set<Cell> line;
        // The mark is new in every line: it holds just these cells.
        std::string marked = text.substr(text.find("noted of"));
        for (const std::string& label : cells.labels()) {
          std::size_t place = marked.find(" " + label);
          while (place != std::string::npos && place + 1 + label.size() < marked.size() &&
                 std::isdigit(static_cast<unsigned char>(marked[place + 1 + label.size()])) != 0)
            place = marked.find(" " + label, place + 1);
          if (place != std::string::npos) line.insert(*cells.find(label));
        }
        found.insert(line);
      }
      ASSERT_EQ(found, expected) << board;
    }
  }
}

}  // namespace ways_test
}  // namespace ninepegs::sheet
