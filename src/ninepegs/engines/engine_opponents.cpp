#include "ninepegs/engines/engine_opponents.hpp"

#include <fmt/format.h>

#include <charconv>
#include <cmath>
#include <map>

#include "ninepegs/base/text.hpp"

namespace ninepegs::engines {
namespace {

struct Words {
  std::string_view text;
  const std::string& source;

  [[noreturn]] void refuse(std::size_t at, std::size_t length, const std::string& message,
                           const std::string& hint) const {
    throw BadInput(Place{source, 1, columnsOf(text.substr(0, at)) + 1,
                         std::max(1, columnsOf(text.substr(at, length))), std::string(text)},
                   message, hint);
  }
};

double number(const Words& words, std::size_t at, std::string_view value, double most) {
  double out = 0;
  auto [end, error] = std::from_chars(value.data(), value.data() + value.size(), out);
  if (value.empty() || error != std::errc() || end != value.data() + value.size() ||
      !std::isfinite(out) || out <= 0 || out > most)
    words.refuse(at, value.size(),
                 fmt::format("a number above 0 and at most {:g} stands here", most),
                 "such as: uci:time=0.5 COMMAND");
  return out;
}

// Limits in front of the command: `time=0.5,nodes=1000 ` are read if the first word is nothing
// else. Where the command begins.
std::size_t readLimits(const Words& words, std::size_t from, bool uci, EngineLimits& limits) {
  std::size_t blank = std::min(words.text.find(' ', from), words.text.size());
  std::string_view first = words.text.substr(from, blank - from);
  static const std::map<std::string_view, double> most = {
      {"time", 3600}, {"nodes", 1e12}, {"depth", 100}};
  if (most.count(first.substr(0, first.find('='))) == 0 || first.find('=') == first.npos)
    return from;
  for (std::size_t at = from; at < blank;) {
    std::size_t comma = std::min(words.text.find(',', at), blank);
    std::string_view one = words.text.substr(at, comma - at);
    std::size_t equals = std::min(one.find('='), one.size());
    auto known = most.find(one.substr(0, equals));
    if (known == most.end() || (!uci && known->first != "time"))
      words.refuse(at, equals, fmt::format("there is no limit \"{}\"", one.substr(0, equals)),
                   uci ? "there are: time, nodes, depth" : "there is: time");
    std::size_t valueAt = at + equals + (equals < one.size() ? 1 : 0);
    double value =
        number(words, valueAt, words.text.substr(valueAt, comma - valueAt), known->second);
    if (known->first != "time" && value != std::floor(value))
      words.refuse(valueAt, comma - valueAt, "a whole number stands here", "");
    if (known->first == "time") limits.seconds = value;
    if (known->first == "nodes") limits.nodes = static_cast<std::uint64_t>(value);
    if (known->first == "depth") limits.depth = static_cast<int>(value);
    at = comma + 1;
  }
  return std::min(blank + 1, words.text.size());
}

}  // namespace

std::vector<std::string> opponentNames() {
  std::vector<std::string> out = play::opponentNames();
  out.emplace_back("program");
  out.emplace_back("uci");
  return out;
}

play::Choice anyMove(const Game& game, const Position& position) {
  MoveList moves;
  game.listMoves(position, moves);
  play::Choice out;
  out.move = moves.front();
  return out;
}

std::unique_ptr<play::Opponent> makeOpponent(std::string_view text, const std::string& source) {
  std::size_t colon = text.find(':');
  std::string_view word = text.substr(0, colon);
  if (word != "program" && word != "uci") return play::makeOpponent(text, source);
  Words words{text, source};
  EngineLimits limits;
  std::size_t at = text.size();
  if (colon != text.npos) at = readLimits(words, colon + 1, word == "uci", limits);
  if (std::size_t bad = firstBadUtf8(text); bad != text.npos)
    words.refuse(bad, 1, "this is not UTF-8 text", "tables and records name it, and they are");
  std::string command(trimmed(text.substr(at)));
  if (command.empty())
    words.refuse(0, text.size(), fmt::format("\"{}\" needs a command", word),
                 fmt::format("such as: {}:./my-game", word));
  return word == "uci" ? makeUci(command, source, limits) : makeProgram(command, source, limits);
}

}  // namespace ninepegs::engines
