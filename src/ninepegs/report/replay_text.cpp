#include "ninepegs/report/replay_text.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/board_text.hpp"

namespace ninepegs::report {
namespace {

using records::RecordedMove;

std::size_t linesBeside(const std::vector<RecordedMove>& moves) {
  std::size_t out = 0;
  for (const RecordedMove& one : moves)
    for (const RecordedMove::Line& other : one.lines) out += 1 + linesBeside(other.moves);
  return out;
}

}  // namespace

std::string replayText(const Game& game, const records::GameRecord& record,
                       const records::Replayed& played, const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  auto known = [&](const char* name) {
    std::string value = record.tag(name);
    return value.find_first_not_of("?.") == value.npos ? std::string() : value;
  };
  for (const char* name : {"Event", "Site", "Date", "Round"})
    if (std::string value = known(name); !value.empty() && value != game.info().title)
      out += ", " + value;
  out += "\n";
  const char* names[] = {"White", "Black"};
  for (int side = 0; side < 2; ++side)
    if (std::string value = known(names[side]); !value.empty())
      out += fmt::format("  {}: {}\n", game.info().sides[side], value);
  out += fmt::format("  {} of {}", played.moves.size(),
                     plural(static_cast<long long>(record.moves.size()), "move"));
  if (std::size_t lines = linesBeside(record.moves); lines > 0)
    out += fmt::format(", {} beside them", plural(static_cast<long long>(lines), "line"));
  return out + ", " + record.result + "\n";
}

std::string plyText(const Game& game, const Position& position, std::size_t ply, const Move* next,
                    const Paint& paint) {
  Marks marks;
  marks.shown = game.shownCells(position);
  std::string out = fmt::format("\nply {}\n", ply) + boardsText(game, position, marks, paint) +
                    besidesText(game, position);
  if (next == nullptr) return out + stateText(game, position, paint) + "\n";
  return out + fmt::format("{} plays {}\n", game.info().sides[game.toMove(position)],
                           game.moveText(position, *next));
}

std::string replayJson(const Game& game, const records::GameRecord& record,
                       const records::Replayed& played) {
  Json out;
  out["game"] = game.info().id;
  out["variant"] = game.info().variant;
  out["tags"] = Json::object();
  for (const auto& [name, value] : record.tags) out["tags"][name] = value;
  out["result"] = record.result;
  out["plies"] = Json::array();
  Position position = played.from;
  out["start"] = game.positionText(position);
  for (const Move& move : played.moves) {
    Json one;
    one["side"] = game.info().sides[game.toMove(position)];
    one["move"] = game.moveText(position, move);
    game.apply(position, move);
    one["position"] = game.positionText(position);
    out["plies"].push_back(one);
  }
  out["faults"] = Json::array();
  for (const Diagnostic& fault : played.faults)
    out["faults"].push_back(
        {{"line", fault.place.line}, {"column", fault.place.column}, {"message", fault.message}});
  return jsonText(out, 1);
}

}  // namespace ninepegs::report
