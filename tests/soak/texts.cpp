#include "soak/texts.hpp"

#include <fmt/format.h>
#include <time.h>

#include <functional>

#include "ninepegs/game/move_text.hpp"
#include "ninepegs/play/opponent.hpp"
#include "ninepegs/records/movetext.hpp"
#include "soak/mutate.hpp"
#include "support/messages.hpp"

namespace ninepegs::soak {
namespace {

struct Wrong {
  std::string how;
};

// Reads one text; a refusal must have a message of use.
bool reads(const std::string& text, Reads& count, const std::function<void()>& read) {
  double begun = threadSeconds();
  bool taken = false;
  try {
    read();
    taken = true;
  } catch (const RunawayRules&) {
  } catch (const BadInput& error) {
    if (std::string bad = test::badMessage(error); !bad.empty())
      throw Wrong{fmt::format("{} of text \"{}\"", bad, text)};
  }
  ++(taken ? count.taken : count.refused);
  if (threadSeconds() - begun > 1)
    throw Wrong{fmt::format("{:.1f} s for \"{}\"", threadSeconds() - begun, text)};
  return taken;
}

void positions(const SheetGame& game, const Position& position, Stream& stream, Reads& count) {
  std::string text = game.positionText(position);
  if (stream.below(3) == 0 && !game.notation(position).empty()) text = game.notation(position);
  text = mutatedText(text, stream);
  Position read;
  if (!reads(text, count, [&] { read = game.readPosition(text, "--at"); })) return;
  std::string again = game.positionText(read);
  Position reread;
  try {
    reread = game.readPosition(again, "--at");
  } catch (const BadInput& error) {
    throw Wrong{
        fmt::format("\"{}\" is taken, and its text \"{}\" is not: {}", text, again, error.what())};
  }
  if (game.positionText(reread) != again || game.identity(reread) != game.identity(read))
    throw Wrong{fmt::format("\"{}\" reads back as another position: \"{}\"", text,
                            game.positionText(reread))};
  MoveList moves;
  try {
    game.listMoves(read, moves);
    if (!moves.empty()) {
      Move move = moves[stream.below(static_cast<std::uint32_t>(moves.size()))];
      std::string moveText = game.moveText(read, move);
      if (matchingMoves(game, read, moveText).empty())
        throw Wrong{fmt::format("at \"{}\" no move matches the legal {}", again, moveText)};
      game.apply(read, move);
      game.positionText(read);
    }
    for (int side = 0; side < 2; ++side)
      if (game.secrets() != nullptr) game.viewOf(read, side);
  } catch (const BadInput&) {  // more moves than may be, or rules that come to no end
  }
}

void moves(const SheetGame& game, const Position& position, Stream& stream, Reads& count) {
  std::vector<std::string> legal = moveTexts(game, position);
  if (legal.empty()) return;
  std::string text = legal[stream.below(static_cast<std::uint32_t>(legal.size()))];
  if (stream.below(4) == 0) text += ", " + text;
  text = mutatedText(text, stream);
  reads(text, count, [&] { playMoves(game, position, text, "--play"); });
  reads(text, count, [&] {
    if (matchingMoves(game, position, text).empty() && whyNot(game, position, text).empty())
      throw Wrong{fmt::format("no reason is given why \"{}\" is no move", text)};
  });
}

void records(const std::string& record, Stream& stream, Reads& count) {
  std::string text = mutatedText(record, stream);
  records::GameRecord read;
  if (!reads(text, count, [&] { read = records::readRecord(text, "game.txt"); })) return;
  std::string again = records::toText(read);
  try {
    if (records::toText(records::readRecord(again, "game.txt")) != again)
      throw Wrong{fmt::format("record \"{}\" reads back as another", text)};
  } catch (const BadInput& error) {
    throw Wrong{fmt::format("record \"{}\" is taken, and its text is not: {}", text, error.what())};
  }
}

void options(Stream& stream, Reads& count) {
  static const std::vector<std::string> all = {
      "random", "greedy", "search", "search:depth=3", "search:nodes=99", "search:time=0.1,depth=2"};
  std::string text = mutatedText(all[stream.below(static_cast<std::uint32_t>(all.size()))], stream);
  reads(text, count, [&] { play::makeOpponent(text, "--second"); });
}

}  // namespace

double threadSeconds() {
  timespec now{};
  clock_gettime(CLOCK_THREAD_CPUTIME_ID, &now);
  return static_cast<double>(now.tv_sec) + static_cast<double>(now.tv_nsec) * 1e-9;
}

std::string readTexts(const SheetGame& game, Stream& stream, Reads& count) {
  try {
    Position position = game.start();
    std::vector<Move> made;
    MoveList list;
    int plies = static_cast<int>(stream.below(12));
    for (int i = 0; i < plies; ++i) {
      game.listMoves(position, list);
      if (list.empty() || game.ended(position)) break;
      made.push_back(list[stream.below(static_cast<std::uint32_t>(list.size()))]);
      Position before = position;
      game.apply(position, made.back());
      if (game.result(position).kind == ResultKind::fault) {
        position = before;
        made.pop_back();
        break;
      }
    }
    std::string record = records::toText(records::makeRecord(game, game.start(), made));
    for (int i = 0; i < 12; ++i) positions(game, position, stream, count);
    for (int i = 0; i < 6; ++i) moves(game, position, stream, count);
    for (int i = 0; i < 4; ++i) records(record, stream, count);
    for (int i = 0; i < 2; ++i) options(stream, count);
  } catch (const Wrong& wrong) {
    return wrong.how;
  } catch (const RunawayRules&) {
  }
  return "";
}

}  // namespace ninepegs::soak
