// Positions and moves of chess in open notations, against a second writer on the plain program.
#include "ninepegs/game/fen.hpp"

#include <algorithm>

#include "support/games.hpp"
#include "support/plain_chess.hpp"

namespace ninepegs {
namespace fen_test {

std::string square(int row, int column) {
  return std::string(1, static_cast<char>('a' + column)) + std::to_string(row + 1);
}

// FEN after the PGN standard, from the plain board. The clock and the number are kept here.
struct Written : plain::Chess {
  int clock = 0, number = 1;

  void make(const std::string& move) {
    int column = move[0] - 'a', row = move[1] - '1', toColumn = move[3] - 'a',
        toRow = move[4] - '1';
    bool quiet = lower(rows[row][column]) != 'p' && rows[toRow][toColumn] == '.';
    clock = quiet ? clock + 1 : 0;
    if (!white) ++number;
    play(move);
  }
  std::string fen() const {
    std::string out;
    for (int row = 7; row >= 0; --row) {
      int empty = 0;
      for (char piece : rows[row]) {
        if (piece == '.') {
          ++empty;
          continue;
        }
        if (empty > 0) out += std::to_string(empty);
        empty = 0;
        out += piece;
      }
      if (empty > 0) out += std::to_string(empty);
      if (row > 0) out += '/';
    }
    std::string rights = std::string(right[1] ? "K" : "") + (right[0] ? "Q" : "") +
                         (right[3] ? "k" : "") + (right[2] ? "q" : "");
    out += std::string(white ? " w " : " b ") + (rights.empty() ? "-" : rights) + " ";
    out += passedRow < 0 ? "-" : square(passedRow, passedColumn);
    return out + " " + std::to_string(clock) + " " + std::to_string(number);
  }

  // Standard algebraic notation: as short as the standard allows.
  std::string algebraic(const Step& step) const {
    char piece = lower(rows[step.row][step.column]);
    bool takes =
        rows[step.toRow][step.toColumn] != '.' || (piece == 'p' && step.column != step.toColumn);
    std::string to = square(step.toRow, step.toColumn), out;
    if (piece == 'k' && std::abs(step.toColumn - step.column) == 2) {
      out = step.toColumn > step.column ? "O-O" : "O-O-O";
    } else if (piece == 'p') {
      out = (takes ? std::string(1, static_cast<char>('a' + step.column)) + "x" : "") + to;
      if (step.becomes != 0) out += std::string("=") + static_cast<char>(step.becomes - 32);
    } else {
      bool others = false, sameFile = false, sameRank = false;
      for (const Step& other : steps()) {
        if (lower(rows[other.row][other.column]) != piece || other.toRow != step.toRow ||
            other.toColumn != step.toColumn ||
            (other.row == step.row && other.column == step.column))
          continue;
        others = true;
        sameFile = sameFile || other.column == step.column;
        sameRank = sameRank || other.row == step.row;
      }
      out = static_cast<char>(piece - 32);
      if (others && (!sameFile || sameRank)) out += static_cast<char>('a' + step.column);
      if (others && sameFile) out += static_cast<char>('1' + step.row);
      out += (takes ? "x" : "") + to;
    }
    Written next = *this;
    next.make(step.text());
    if (next.kingAttacked(next.white)) out += next.steps().empty() ? "#" : "+";
    return out;
  }
};

TEST(Fen, EqualsTheSecondWriterThroughRandomGames) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  for (std::uint64_t number = 0; number < 12; ++number) {
    Stream stream(51, number);
    Position position = game->start();
    Written plain;
    MoveList moves;
    for (int ply = 0; ply < 150 && !game->ended(position); ++ply) {
      std::string fen = game->notation(position);
      ASSERT_EQ(fen, plain.fen());
      Position again = game->readPosition(fen, "test");
      ASSERT_EQ(game->notation(again), fen);
      ASSERT_EQ(moveTexts(*game, again), moveTexts(*game, position)) << fen;
      game->listMoves(position, moves);
      const Move& move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      plain.make(game->moveText(position, move));
      game->apply(position, move);
    }
  }
}

TEST(Algebraic, EqualsTheSecondWriterAndIsReadBack) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  std::size_t compared = 0;
  for (std::uint64_t number = 0; number < 6; ++number) {
    Stream stream(52, number);
    Position position = game->start();
    Written plain;
    MoveList moves;
    for (int ply = 0; ply < 120 && !game->ended(position); ++ply) {
      game->listMoves(position, moves);
      std::vector<plain::Chess::Step> steps = plain.steps();
      ASSERT_EQ(moves.size(), steps.size());
      for (const Move& move : moves) {
        std::string text = game->moveText(position, move);
        auto step = std::find_if(steps.begin(), steps.end(),
                                 [&](const auto& one) { return one.text() == text; });
        ASSERT_NE(step, steps.end()) << text;
        std::vector<std::string> others = game->otherTexts(position, move);
        ASSERT_EQ(others.size(), 2u);
        std::string coordinates =
            square(step->row, step->column) + square(step->toRow, step->toColumn);
        if (step->becomes != 0) coordinates += step->becomes;
        EXPECT_EQ(others[0], coordinates);
        EXPECT_EQ(others[1], plain.algebraic(*step)) << plain.fen();
        ++compared;
        if (stream.below(16) > 0) continue;  // reading looks at all moves
        for (const std::string& typed : others) {
          std::vector<Move> found = matchingMoves(*game, position, typed);
          ASSERT_EQ(found.size(), 1u) << typed << " in " << plain.fen();
          EXPECT_EQ(found[0], move) << typed << " in " << plain.fen();
        }
      }
      const Move& move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      plain.make(game->moveText(position, move));
      game->apply(position, move);
    }
  }
  EXPECT_GT(compared, 5000u);
}

TEST(Algebraic, TellsPiecesApartAsTheStandardSays) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  struct Row {
    const char* fen;
    const char* coordinates;
    const char* text;
  };
  for (Row row : {Row{"1k6/8/8/8/8/8/8/R2K3R w - - 0 1", "a1c1", "Rc1"},
                  {"1k6/8/8/8/8/8/4K3/R6R w - - 0 1", "a1d1", "Rad1"},
                  {"1k6/8/8/R7/8/8/4K3/R7 w - - 0 1", "a1a3", "R1a3"},
                  {"6k1/8/8/8/4Q2Q/8/8/K6Q w - - 0 1", "h4e1", "Qh4e1"},
                  {"7k/4P3/8/8/8/8/8/K7 w - - 0 1", "e7e8n", "e8=N"},
                  {"3r3k/4P3/8/8/8/8/8/K7 w - - 0 1", "e7d8q", "exd8=Q+"},
                  {"7k/8/8/3pP3/8/8/8/K7 w - d6 0 1", "e5d6", "exd6"},
                  {"r3k2r/8/8/8/8/8/8/4K3 b kq - 0 1", "e8c8", "O-O-O"},
                  {"6k1/5ppp/8/8/8/8/8/K2R4 w - - 0 1", "d1d8", "Rd8#"}}) {
    Position position = game->readPosition(row.fen, "test");
    std::vector<Move> found = matchingMoves(*game, position, row.coordinates);
    ASSERT_EQ(found.size(), 1u) << row.fen;
    std::vector<std::string> texts = game->otherTexts(position, found[0]);
    EXPECT_EQ(texts.back(), row.text) << row.fen;
  }
}

struct Wrong {
  const char* fen;
  int column;
  const char* message;
};
void PrintTo(const Wrong& wrong, std::ostream* out) {
  *out << wrong.fen;
}
class WrongFen : public testing::TestWithParam<Wrong> {};

TEST_P(WrongFen, IsRefusedWithItsPlace) {
  try {
    test::shipped("chess")->readPosition(GetParam().fen, "--at");
    FAIL() << "taken";
  } catch (const BadInput& error) {
    const Diagnostic& first = error.diagnostics().front();
    EXPECT_NE(first.message.find(GetParam().message), std::string::npos) << toText(first);
    EXPECT_EQ(first.place.column, GetParam().column) << toText(first);
    EXPECT_EQ(first.place.source, "--at");
  }
}

INSTANTIATE_TEST_SUITE_P(
    Texts, WrongFen,
    testing::Values(
        Wrong{"rnbqkbnrr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 1", 9, "longer"},
        Wrong{"rnbqkbn/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 1", 1, "7 cells"},
        Wrong{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR/8 w KQkq - 0 1", 45, "9 rows"},
        Wrong{"8/8/8/8/8/8/8/9 w - - 0 1", 15, "do not fit"},
        Wrong{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkk - 0 1", 50, "twice"},
        Wrong{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - -1 1", 54, "clock"},
        Wrong{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 0", 56, "number"},
        Wrong{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQKBNR w KQkq - 0 1 x", 58, "more"},
        Wrong{"rnbqkbnr/pppppppp/8/8/8/8/PPPPPPPP/RNBQ1BNR w kq - 0 1", 0, "count my king = 1"}));

TEST(Fen, MutatedTextsNeverCrashAndRoundTripIfTaken) {
  std::shared_ptr<const Game> game = test::shipped("chess");
  const std::string good[] = {
      "r3k2r/p1ppqpb1/bn2pnp1/3PN3/1p2P3/2N2Q1p/PPPBBPPP/R3K2R w KQkq - 0 1",
      "rnbqkbnr/1pp1pppp/p7/3pP3/8/8/PPPP1PPP/RNBQKBNR w KQkq d6 0 3",
      "8/2p5/3p4/KP5r/1R3p1k/8/4P1P1/8 w - - 12 40",
  };
  const std::string symbols = "rnbqkpRNBQKP12345678/ wb-KQkqabcdefgh0x\xc3;";
  Stream stream(53, 0);
  int taken = 0;
  for (int round = 0; round < 20000; ++round) {
    std::string text = good[stream.below(3)];
    for (std::uint32_t hits = 1 + stream.below(3); hits > 0 && !text.empty(); --hits) {
      std::size_t at = stream.below(static_cast<std::uint32_t>(text.size()));
      char symbol = symbols[stream.below(static_cast<std::uint32_t>(symbols.size()))];
      switch (stream.below(3)) {
        case 0:
          text[at] = symbol;
          break;
        case 1:
          text.insert(at, 1, symbol);
          break;
        default:
          text.erase(at, 1 + stream.below(3));
      }
    }
    try {
      Position position = game->readPosition(text, "test");
      std::string fen = game->notation(position);
      EXPECT_EQ(game->notation(game->readPosition(fen, "test")), fen) << text;
      MoveList moves;
      game->listMoves(position, moves);
      for (const Move& move : moves) {
        Position after = position;
        game->apply(after, move);
        EXPECT_NE(game->result(after).kind, ResultKind::fault) << text;
      }
      ++taken;
    } catch (const BadInput& error) {
      EXPECT_FALSE(error.diagnostics().empty());
    }
  }
  EXPECT_GT(taken, 100);
}

TEST(Fen, IsToldFromPositionTexts) {
  EXPECT_TRUE(looksLikeFen("8/8/8/8/8/8/8/8 w - - 0 1"));
  EXPECT_TRUE(looksLikeFen("8/8/8/8/8/8/8/8 b"));
  EXPECT_FALSE(looksLikeFen("8/8/8/8/8/8/8/8; White to move"));
  EXPECT_FALSE(looksLikeFen(""));
}

}  // namespace fen_test
}  // namespace ninepegs
