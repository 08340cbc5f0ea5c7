#include "fuzz/targets.hpp"

#include <sstream>
#include <stdexcept>

#include "ninepegs/compare/bridge.hpp"
#include "ninepegs/engines/uci_server.hpp"
#include "ninepegs/records/game_reader.hpp"
#include "ninepegs/records/game_record.hpp"
#include "ninepegs/report/begun_check.hpp"
#include "ninepegs/report/series_text.hpp"
#include "ninepegs/sheet/text/tidy.hpp"
#include "support/games.hpp"
#include "support/messages.hpp"

namespace ninepegs::fuzz {
namespace {

constexpr std::size_t longest = 4096;  // bytes; longer ones only take longer

// A refusal says what is wrong, and where.
void refusable(const std::function<void()>& read, bool lined = true) {
  try {
    read();
  } catch (const BadInput& error) {
    if (std::string bad = test::badMessage(error, lined); !bad.empty()) throw std::logic_error(bad);
  }
}

const std::vector<std::shared_ptr<const SheetGame>>& games() {
  static const auto all = [] {
    std::vector<std::shared_ptr<const SheetGame>> out;
    for (const char* name : {"tic-tac-toe", "connect-four", "chess", "battleship", "morris", "hex"})
      out.push_back(std::dynamic_pointer_cast<const SheetGame>(test::shipped(name)));
    return out;
  }();
  return all;
}

// The first byte says which game.
const SheetGame& gameOf(const std::string& bytes) {
  auto first = bytes.empty() ? 0u : static_cast<unsigned char>(bytes[0]);
  return *games()[first % games().size()];
}
std::string restOf(const std::string& bytes) {
  return bytes.empty() ? "" : bytes.substr(1);
}

void sheets(const std::string& text) {
  std::shared_ptr<const SheetGame> game;
  refusable([&] {
    WorkScope some(20'000'000);
    game = SheetGame::fromText("fuzz.pegs", text);
    Stream stream(1, 1);
    Position position = game->start();
    MoveList moves;
    for (int ply = 0; ply < 4 && !game->ended(position); ++ply) {
      game->listMoves(position, moves);
      if (moves.empty()) break;
      Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      game->moveText(position, move);
      game->apply(position, move);
      game->positionText(position);
    }
  });
  refusable([&] { sheet::tidied(sheet::Source("fuzz.pegs", text)); });
}

void positions(const std::string& bytes) {
  const SheetGame& game = gameOf(bytes);
  std::string text = restOf(bytes);
  refusable([&] {
    Position position = game.readPosition(text, "fuzz");
    std::string again = game.positionText(position);
    if (game.positionText(game.readPosition(again, "fuzz")) != again)
      throw std::logic_error("a position that is another when it is read again: " + again);
    WorkScope some(20'000'000);
    MoveList moves;
    game.listMoves(position, moves);
  });
  refusable([&] { playMoves(game, game.start(), text, "fuzz"); });
}

void records(const std::string& bytes) {
  const SheetGame& game = gameOf(bytes);
  std::istringstream in(restOf(bytes));
  auto read = [&] {
    std::unique_ptr<records::GameReader> reader = records::openRecords(in, "fuzz");
    while (std::optional<records::GameRecord> record = reader->next()) {
      WorkScope some(20'000'000);
      records::nameCells(game, *record);
      records::replay(game, *record, "fuzz");
    }
  };
  refusable(read, false);  // SGF's messages tell line and column only
}

// What a program says that plays through UCI, and a map of another program's names.
void protocols(const std::string& bytes) {
  const SheetGame& chess = *games()[2];
  {
    engines::UciServer server(chess, "fuzz", [](const std::string&) {});
    std::istringstream lines(bytes);
    int most = 20;
    for (std::string line; most-- > 0 && std::getline(lines, line);)
      if (!server.take(line)) break;
  }
  refusable([&] {
    compare::Bridge bridge = compare::Bridge::read(chess, bytes, "fuzz");
    bridge.move("e2-e4");
  });
}

// A game of its own: such a file is of one sheet, and refused as soon as that is another.
void resumed(const std::string& bytes) {
  static const std::shared_ptr<const SheetGame> own = test::fromText(
      "game hut\nsides Amber and Slate\nboard square 3 x 1\npiece peg o x\nmove go\n"
      "  pick there in empty\n  put peg on there\nends\n  mover wins \"two\" when any line of 2 "
      "in mine\n  draw \"full\" when no empty\n");
  const SheetGame& game = *own;
  refusable([&] { report::readBegun(game, {}, "fuzz", bytes, "fuzz"); });
  refusable([&] { report::readSeries(game, {"random", "greedy"}, {}, "fuzz", bytes, "fuzz"); });
}

std::function<void(const std::string&)> cut(void (*reads)(const std::string&)) {
  return [reads](const std::string& bytes) { reads(bytes.substr(0, longest)); };
}

}  // namespace

const std::vector<Target>& targets() {
  static const std::vector<Target> all = {{"sheets", cut(sheets)},
                                          {"positions", cut(positions)},
                                          {"records", cut(records)},
                                          {"protocols", cut(protocols)},
                                          {"resumed", cut(resumed)}};
  return all;
}

}  // namespace ninepegs::fuzz
