#include "ninepegs/compare/program.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "ninepegs/base/text.hpp"

namespace ninepegs::compare {
namespace {

using Json = nlohmann::ordered_json;

constexpr int methodNotFound = -32601, leastOfTheProtocol = -32768, mostOfTheProtocol = -32600;
constexpr std::size_t shown = 60;  // bytes of an answer in a message

// Bytes as text that does no harm on a terminal.
std::string harmless(std::string_view bytes) {
  std::string out;
  for (char c : bytes.substr(0, shown)) out += c >= ' ' && c <= '~' ? c : '?';
  return bytes.size() > shown ? out + " ..." : out;
}

std::string lastLine(const std::string& errors) {
  std::vector<std::string> lines = splitTrimmed(errors, '\n');
  while (!lines.empty() && lines.back().empty()) lines.pop_back();
  return lines.empty() ? "" : harmless(lines.back());
}

class Program : public Counterpart {
 public:
  Program(const Game& game, const Bridge& bridge, std::string command, const ChildLimits& limits)
      : game_(game), bridge_(bridge), command_(std::move(command)), limits_(limits) {}

  Standing start() override {
    Json params;
    params["game"] = game_.info().id;
    if (!game_.info().variant.empty()) params["variant"] = game_.info().variant;
    Json answer = ask("start", params);
    if (answer.contains("error"))
      throw CounterpartFailed("answered \"start\" with an error: " + errorText(answer["error"]));
    return standing(answer["result"]);
  }

  std::optional<Standing> play(const std::string& move) override {
    Json answer = ask("play", {{"move", move}});
    if (!answer.contains("error")) return standing(answer["result"]);
    if (ofTheProtocol(answer["error"]))
      throw CounterpartFailed("answered \"play\" with an error: " + errorText(answer["error"]));
    return std::nullopt;
  }

  std::optional<bool> isLegal(const std::string& move) override {
    if (!tellsLegal_) return std::nullopt;
    Json answer = ask("legal", {{"move", move}});
    if (answer.contains("error")) {
      if (codeOf(answer["error"]) != methodNotFound)
        throw CounterpartFailed("answered \"legal\" with an error: " + errorText(answer["error"]));
      tellsLegal_ = false;
      return std::nullopt;
    }
    if (!answer["result"].is_boolean())
      throw CounterpartFailed("answered \"legal\" with what is neither true nor false: " +
                              harmless(answer["result"].dump()));
    return answer["result"].get<bool>();
  }

 private:
  static std::int64_t codeOf(const Json& error) {
    return error.is_object() && error.contains("code") && error["code"].is_number_integer()
               ? error["code"].get<std::int64_t>()
               : 0;
  }
  static bool ofTheProtocol(const Json& error) {
    std::int64_t code = codeOf(error);
    return code >= leastOfTheProtocol && code <= mostOfTheProtocol;
  }
  static std::string errorText(const Json& error) {
    if (error.is_object() && error.contains("message") && error["message"].is_string())
      return harmless(error["message"].get<std::string>());
    return harmless(error.dump(-1, ' ', true, Json::error_handler_t::replace));
  }

  // The whole answer: it holds a result or an error.
  Json ask(const std::string& method, const Json& params) {
    if (!child_) child_ = std::make_unique<Child>(command_, limits_);
    Json request = {{"jsonrpc", "2.0"}, {"id", ++id_}, {"method", method}, {"params", params}};
    std::string line;
    switch (child_->ask(request.dump(), line)) {
      case Child::Came::line:
        break;
      case Child::Came::stopped:
        throw CounterpartFailed("was not waited for");
      case Child::Came::nothing:
        throw CounterpartFailed(fmt::format("gave no answer to \"{}\" within {:g} seconds{}",
                                            method, limits_.seconds, said()));
      case Child::Came::tooMuch:
        throw CounterpartFailed(fmt::format("answered \"{}\" with a line of more than {} bytes",
                                            method, grouped(limits_.lineBytes)));
      case Child::Came::end:
        gone(method);
    }
    Json answer = Json::parse(line, nullptr, false);
    if (answer.is_discarded())
      throw CounterpartFailed(
          fmt::format("answered \"{}\" with what is no JSON: {}", method, harmless(line)));
    if (!answer.is_object() || (!answer.contains("result") && !answer.contains("error")))
      throw CounterpartFailed(fmt::format("answered \"{}\" with neither a result nor an error: {}",
                                          method, harmless(line)));
    if (!answer.contains("id") || answer["id"] != id_)
      throw CounterpartFailed(
          fmt::format("answered \"{}\" under another number than it was asked under: {}", method,
                      harmless(line)));
    return answer;
  }

  [[noreturn]] void gone(const std::string& method) {
    std::string how = child_->howItEnded();
    if (id_ == 1 && (child_->exitCode() == 126 || child_->exitCode() == 127))
      throw BadInput({"--program", 1, 1, columnsOf(command_), command_},
                     "this program cannot be started" + said(),
                     "the command is given to the shell as it stands");
    throw CounterpartFailed(fmt::format("{} when it was asked \"{}\"{}", how, method, said()));
  }
  // What it last wrote to standard error.
  std::string said() const {
    std::string line = lastLine(child_->errors());
    return line.empty() ? "" : "; it wrote: " + line;
  }

  [[noreturn]] static void unclear(const std::string& key, const Json& value) {
    throw CounterpartFailed(
        fmt::format("gave a \"{}\" that cannot be understood: {}", key,
                    harmless(value.dump(-1, ' ', true, Json::error_handler_t::replace))));
  }
  int sideOf(const std::string& key, const Json& value) const {
    std::string name = value.is_string() ? value.get<std::string>() : value.dump();
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
                              harmless(value.dump(-1, ' ', true, Json::error_handler_t::replace)));
    for (const auto& [key, said] : value.items()) {
      if (key == "moves") {
        if (!said.is_array()) unclear(key, said);
        out.moves.emplace();
        for (const Json& one : said)
          out.moves->push_back(one.is_string() ? one.get<std::string>() : one.dump());
        std::sort(out.moves->begin(), out.moves->end());
        out.moves->erase(std::unique(out.moves->begin(), out.moves->end()), out.moves->end());
      } else if (key == "turn") {
        if (!said.is_null()) out.turn = sideOf(key, said);
      } else if (key == "result") {
        out.result.emplace();
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
                                            : letter.dump();
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
  std::string command_;
  ChildLimits limits_;
  std::unique_ptr<Child> child_;
  std::int64_t id_ = 0;
  bool tellsLegal_ = true;
};

}  // namespace

std::unique_ptr<Counterpart> makeProgram(const Game& game, const Bridge& bridge,
                                         const std::string& command, const ChildLimits& limits) {
  return std::make_unique<Program>(game, bridge, command, limits);
}

}  // namespace ninepegs::compare
