#include "ninepegs/compare/program.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"

namespace ninepegs::compare {
namespace {

using engines::harmless;
using engines::RpcChild;

class Program : public Counterpart {
 public:
  Program(const Game& game, const Bridge& bridge, std::string command, const ChildLimits& limits)
      : game_(game), bridge_(bridge), child_(std::move(command), "--program", limits) {}

  Standing start() override {
    Json params;
    params["game"] = game_.info().id;
    if (!game_.info().variant.empty()) params["variant"] = game_.info().variant;
    RpcChild::Answer answer = child_.ask("start", jsonText(params));
    if (answer.result.empty())
      throw CounterpartFailed("answered \"start\" with an error: " + answer.error);
    return standing(readJson(answer.result));
  }

  std::optional<Standing> play(const std::string& move) override {
    RpcChild::Answer answer = child_.ask("play", moveParams(move));
    if (!answer.result.empty()) return standing(readJson(answer.result));
    if (answer.ofTheProtocol)
      throw CounterpartFailed("answered \"play\" with an error: " + answer.error);
    return std::nullopt;
  }

  std::optional<bool> isLegal(const std::string& move) override {
    if (!tellsLegal_) return std::nullopt;
    RpcChild::Answer answer = child_.ask("legal", moveParams(move));
    if (answer.result.empty()) {
      if (answer.code != engines::methodNotFound)
        throw CounterpartFailed("answered \"legal\" with an error: " + answer.error);
      tellsLegal_ = false;
      return std::nullopt;
    }
    Json result = readJson(answer.result);
    if (!result.is_boolean())
      throw CounterpartFailed("answered \"legal\" with what is neither true nor false: " +
                              harmless(answer.result));
    return result.get<bool>();
  }

 private:
  static std::string moveParams(const std::string& move) { return asciiJson(Json{{"move", move}}); }

  [[noreturn]] static void unclear(const std::string& key, const Json& value) {
    throw CounterpartFailed(fmt::format("gave a \"{}\" that cannot be understood: {}", key,
                                        harmless(asciiJson(value))));
  }
  int sideOf(const std::string& key, const Json& value) const {
    std::string name = value.is_string() ? value.get<std::string>() : jsonText(value);
    std::optional<int> side = bridge_.side(name);
    if (side) return *side;
    throw CounterpartFailed(
        fmt::format("gave a \"{}\" that is no side of the game: {}; a map can say which is which",
                    key, harmless(name)));
  }

  Standing standing(const Json& value) const {
    Standing out;
    if (!value.is_object())
      throw CounterpartFailed("gave no object that says how the game stands: " +
                              harmless(asciiJson(value)));
    for (const auto& [key, said] : value.items()) {
      if (key == "moves") {
        if (!said.is_array()) unclear(key, said);
        out.moves.emplace();
        for (const Json& one : said)
          out.moves->push_back(one.is_string() ? one.get<std::string>() : jsonText(one));
        std::sort(out.moves->begin(), out.moves->end());
        out.moves->erase(std::unique(out.moves->begin(), out.moves->end()), out.moves->end());
      } else if (key == "turn") {
        if (!said.is_null()) out.turn = sideOf(key, said);
      } else if (key == "result") {
        out.result = Standing::Result{};
        if (said.is_null()) continue;
        if (!said.is_object() || !said.contains("winner")) unclear(key, said);
        out.result->over = true;
        if (!said["winner"].is_null()) out.result->winner = sideOf("winner", said["winner"]);
      } else if (key == "board") {
        out.board = board(said);
      }
    }
    return out;
  }

  // Rows from the top, each a text or a list, or letters by cell.
  std::map<std::string, std::string> board(const Json& value) const {
    std::map<std::string, std::string> out;
    const Geometry& board = game_.board();
    auto put = [&](Cell cell, const Json& letter) {
      std::string text = letter.is_string() ? letter.get<std::string>()
                         : letter.is_null() ? "."
                                            : jsonText(letter);
      text = bridge_.letter(text);
      if (!text.empty()) out[board.label(cell)] = text;
    };
    if (value.is_object()) {
      for (const auto& [name, letter] : value.items()) {
        std::optional<Cell> cell = bridge_.cellNamed(name);
        if (!cell) unclear("board", name);
        put(*cell, letter);
      }
      return out;
    }
    if (!value.is_array() || board.isHexes() || board.levels() > 1 ||
        value.size() != static_cast<std::size_t>(board.rows()))
      unclear("board", value);
    for (int y = 0; y < board.rows(); ++y) {
      Json row = value[static_cast<std::size_t>(y)];
      if (row.is_string()) {
        Json symbols = Json::array();
        for (const std::string& symbol : utf8Symbols(row.get<std::string>()))
          symbols.push_back(symbol);
        row = symbols;
      }
      if (!row.is_array() || row.size() != static_cast<std::size_t>(board.columns()))
        unclear("board", value);
      for (int x = 0; x < board.columns(); ++x)
        if (Cell cell = board.cellAt(x, y); board.has(cell))
          put(cell, row[static_cast<std::size_t>(x)]);
    }
    return out;
  }

  const Game& game_;
  const Bridge& bridge_;
  RpcChild child_;
  bool tellsLegal_ = true;
};

}  // namespace

std::unique_ptr<Counterpart> makeProgram(const Game& game, const Bridge& bridge,
                                         const std::string& command, const ChildLimits& limits) {
  return std::make_unique<Program>(game, bridge, command, limits);
}

}  // namespace ninepegs::compare
