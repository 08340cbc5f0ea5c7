#include "ninepegs/report/begun_check.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/sheet_mark.hpp"

namespace ninepegs::report {
namespace {

using verify::Evidence;
using verify::FindingKind;

constexpr int format = 2;  // of the file; a later one that reads otherwise counts on

// Which check it is: what must be the same to go on.
Json markOf(const Game& game, const verify::CheckOptions& options, const std::string& version) {
  Json out;
  out["begun_check"] = format;
  out["version"] = version;
  out["game"] = game.info().id;
  out["variant"] = game.info().variant;
  out["sheet"] = sheetMark(game);
  out["seed"] = options.seed;
  out["closely"] = options.closely;
  out["ply_limit"] = verify::plyLimitOf(game, options);
  return out;
}

Json pairsOf(const verify::Spread& spread) {
  Json out = Json::array();
  for (const auto& [value, times] : spread.times) out.push_back({value, times});
  return out;
}

void readPairs(const Json& from, verify::Spread& to) {
  for (const Json& one : from)
    to.times[one.at(0).get<std::uint64_t>()] = one.at(1).get<std::uint64_t>();
}

// Something in the file is not as this program writes it.
struct Unsound {};

std::uint64_t whole(const Json& value) {
  if (!value.is_number_unsigned()) throw Unsound{};
  return value.get<std::uint64_t>();
}

int within(const Json& value, int least, int most) {
  if (!value.is_number_integer()) throw Unsound{};
  auto number = value.get<std::int64_t>();
  if (number < least || number > most) throw Unsound{};
  return static_cast<int>(number);
}

// Moves are numbers; those of a file must be legal before anything plays them.
std::vector<Move> readMoves(const Game& game, const Json& from, int most) {
  std::vector<Move> out;
  if (from.size() > static_cast<std::size_t>(most)) throw Unsound{};
  Position position = game.start();
  MoveList legal;
  for (const Json& one : from) {
    Move move;
    move.group = static_cast<std::uint8_t>(within(one.at(0), 0, 255));
    if (one.size() - 1 > move.choices.size()) throw Unsound{};
    move.count = static_cast<std::uint8_t>(one.size() - 1);
    for (std::size_t i = 1; i < one.size(); ++i)
      move.choices[i - 1] = static_cast<std::uint16_t>(within(one.at(i), 0, 65535));
    game.listMoves(position, legal);
    if (std::find(legal.begin(), legal.end(), move) == legal.end()) throw Unsound{};
    out.push_back(move);
    if (out.size() < from.size()) game.apply(position, move);
  }
  return out;
}

Evidence readEvidence(const Game& game, const verify::CheckOptions& options, const Json& from) {
  Evidence out;
  out.playouts = whole(from.at("playouts"));
  out.unfinished = whole(from.at("unfinished"));
  out.tooLong = whole(from.at("to_the_limit"));
  out.givenUp = whole(from.at("given_up"));
  out.symmetryTests = whole(from.at("positions_mirrored"));
  readPairs(from.at("plies"), out.lengths);
  readPairs(from.at("moves_in_a_position"), out.choices);
  for (const Json& one : from.at("uses")) out.uses.push_back(whole(one));
  if (out.uses.size() != ruleLinesOf(game).size()) throw Unsound{};
  for (const Json& one : from.at("outcomes"))
    out.outcomes[{within(one.at(0), 0, static_cast<int>(game.info().ends.size()) - 1),
                  within(one.at(1), -1, 1), one.at(2).get<std::string>()}] = whole(one.at(3));
  for (const Json& one : from.at("faults")) {
    int kind = within(one.at("kind"), 0, static_cast<int>(FindingKind::growing));
    Evidence::FirstSeen seen;
    seen.playout = whole(one.at("playout"));
    seen.moves = readMoves(game, one.at("moves"), verify::plyLimitOf(game, options) + 1);
    verify::Fault fault{static_cast<FindingKind>(kind), within(one.at("line"), 0, 1 << 30),
                        one.at("message").get<std::string>()};
    out.see(fault, std::move(seen));
  }
  if (out.lengths.count() != out.playouts) throw Unsound{};
  return out;
}

}  // namespace

std::string begunText(const Game& game, const verify::CheckOptions& options,
                      const Evidence& evidence, const std::string& version) {
  Json out = markOf(game, options, version);
  out["playouts"] = evidence.playouts;
  out["unfinished"] = evidence.unfinished;
  out["to_the_limit"] = evidence.tooLong;
  out["given_up"] = evidence.givenUp;
  out["positions_mirrored"] = evidence.symmetryTests;
  out["plies"] = pairsOf(evidence.lengths);
  out["moves_in_a_position"] = pairsOf(evidence.choices);
  out["uses"] = evidence.uses;
  out["outcomes"] = Json::array();
  for (const auto& [outcome, times] : evidence.outcomes)
    out["outcomes"].push_back(
        {std::get<0>(outcome), std::get<1>(outcome), std::get<2>(outcome), times});
  out["faults"] = Json::array();
  for (const auto& [key, seen] : evidence.faults) {
    Json one;
    one["kind"] = static_cast<int>(key.first);
    one["line"] = key.second;
    one["playout"] = seen.playout;
    one["message"] = seen.message;
    one["moves"] = Json::array();
    for (const Move& move : seen.moves) {
      Json numbers = {move.group};
      for (int i = 0; i < move.count; ++i) numbers.push_back(move.choices[i]);
      one["moves"].push_back(numbers);
    }
    out["faults"].push_back(one);
  }
  return jsonText(out) + "\n";
}

Evidence readBegun(const Game& game, const verify::CheckOptions& options,
                   const std::string& version, const std::string& text, const std::string& source) {
  auto refuse = [&](const std::string& message, const std::string& hint) {
    return BadInput(Place{source, 0, 0, 1, {}}, message, hint);
  };
  const std::string another = "name another file, or remove this one to begin anew";
  const std::string broken = "this is no file that a check was begun in, or it was cut short";
  Json read = readJsonOrNone(text);
  if (!read.is_object() || !read.contains("begun_check")) throw refuse(broken, another);
  static const std::pair<const char*, const char*> whose[] = {
      {"begun_check", "written by another version of ninepegs"},
      {"version", "written by another version of ninepegs"},
      {"game", "of another game"},
      {"variant", "of another variant"},
      {"sheet", "of the sheet as it was: it has changed since"},
      {"seed", "of another seed"},
      {"closely", "of a check with --closely, or of one without"},
      {"ply_limit", "of another check"}};
  Json mark = markOf(game, options, version);
  for (const auto& [key, says] : whose)
    if (!read.contains(key) || read[key] != mark[key])
      throw refuse(fmt::format("this file is {}", says), another);
  try {
    Evidence out = readEvidence(game, options, read);
    if (out.playouts > options.playouts)
      throw refuse(fmt::format("this file holds {} playouts already", grouped(out.playouts)),
                   fmt::format("ask for as many or more, such as --playouts {}", out.playouts));
    return out;
  } catch (const Json::exception&) {
    throw refuse(broken, another);
  } catch (const Unsound&) {
    throw refuse(broken, another);
  }
}

}  // namespace ninepegs::report
