#include "ninepegs/report/explanation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>

#include "ninepegs/base/text.hpp"

namespace ninepegs::report {
namespace {

// Whose pieces, how many of each kind and where.
sheet::Explanation startOf(const SheetGame& game) {
  sheet::Explanation out{"The start", {}};
  const GameInfo& info = game.info();
  const Geometry& board = game.board();
  Position start = game.start();
  int line = game.rules().start ? game.rules().start->span.line : 0;
  for (int side : {0, 1, -1}) {
    std::map<int, std::vector<std::string>> cells;  // by kind
    long long total = 0;
    for (int layer = 0; layer < game.boards(); ++layer)
      for (Cell cell = 0; cell < board.size(); ++cell) {
        std::optional<Piece> piece;
        if (board.has(cell)) piece = game.pieceAt(start, cell, layer);
        if (!piece || piece->side != side) continue;
        cells[piece->kind].push_back(board.label(cell));
        ++total;
      }
    if (total == 0) continue;
    std::vector<std::string> parts;
    for (const auto& [kind, where] : cells)
      parts.push_back(fmt::format("{} on {}", info.kinds[static_cast<std::size_t>(kind)].name,
                                  joined(where, " ")));
    out.sentences.push_back(
        {0, line,
         fmt::format("{} {} {}: {}.", side < 0 ? "Nobody" : info.sides[side],
                     side < 0 ? "owns" : "has", plural(total, "piece"), joined(parts, "; "))});
  }
  if (out.sentences.empty() && board.all().any())
    out.sentences.push_back({0, line, "Nothing stands on the board."});
  // Hands, marks and numbers, as a position's text has them behind the picture.
  std::string text = game.positionText(start);
  std::vector<std::string> further;
  for (std::size_t from = text.find("; "); from != std::string::npos;) {
    std::size_t to = text.find("; ", from + 2);
    std::string part = text.substr(from + 2, to == std::string::npos ? to : to - from - 2);
    if (part.find(" to move") == std::string::npos && part.rfind("picture ", 0) != 0)
      further.push_back(part);
    from = to;
  }
  if (!further.empty())
    out.sentences.push_back({0, line, fmt::format("Set out besides: {}.", joined(further, "; "))});
  return out;
}

std::string headed(std::string heading) {
  if (!heading.empty())
    heading[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(heading[0])));
  return heading;
}

// What a variant says that the game itself does not, and what it no longer says.
sheet::Explanation changesOf(const std::vector<sheet::Explanation>& base, const SheetGame& game,
                             const std::string& name, const std::string& says) {
  std::shared_ptr<const Game> other = game.variant(name);
  std::vector<sheet::Explanation> parts = explanation(dynamic_cast<const SheetGame&>(*other));
  sheet::Explanation out{fmt::format("Variant \"{}\"{}", name, says.empty() ? "" : ": " + says),
                         {}};
  auto has = [](const std::vector<sheet::Explanation>& list, const std::string& heading,
                const sheet::Explanation::Sentence& sentence) {
    for (const sheet::Explanation& part : list)
      if (part.heading == heading)
        for (const sheet::Explanation::Sentence& one : part.sentences)
          if (one.text == sentence.text && one.depth == sentence.depth) return true;
    return false;
  };
  for (const sheet::Explanation& part : base)
    if (part.heading.rfind("Variant ", 0) != 0)
      for (const sheet::Explanation::Sentence& one : part.sentences)
        if (!has(parts, part.heading, one))
          out.sentences.push_back(
              {0, one.line, fmt::format("No longer, {}: {}", headed(part.heading), one.text)});
  for (const sheet::Explanation& part : parts)
    for (const sheet::Explanation::Sentence& one : part.sentences)
      if (!has(base, part.heading, one))
        out.sentences.push_back(
            {0, one.line, fmt::format("Now, {}: {}", headed(part.heading), one.text)});
  return out;
}

}  // namespace

std::vector<sheet::Explanation> explanation(const SheetGame& game) {
  std::vector<sheet::Explanation> parts = sheet::explain(game.rules());
  auto move = std::find_if(parts.begin(), parts.end(), [](const sheet::Explanation& part) {
    return part.heading.rfind("Move ", 0) == 0;
  });
  parts.insert(move, startOf(game));
  if (game.info().variant.empty())
    for (const auto& [name, says] : game.info().variants)
      parts.push_back(changesOf(parts, game, name, says));
  return parts;
}

std::string explanationText(const SheetGame& game, const Paint& paint) {
  const GameInfo& info = game.info();
  std::string out = paint.strong(info.title) + "\n";
  std::string prose;
  for (const std::string& line : info.about) prose += (prose.empty() ? "" : " ") + line;
  if (!prose.empty()) out += wrapped(prose, 96, "  ");
  for (const sheet::Explanation& part : explanation(game)) {
    out += "\n" + paint.strong(part.heading) + "\n";
    for (const auto& one : part.sentences) {
      std::string place = one.line > 0 ? fmt::format("{:4}", one.line) : "    ";
      std::size_t deep = 2 * static_cast<std::size_t>(one.depth);
      out +=
          paint.faint(place) + wrapped(one.text, 88 - deep, std::string(6 + deep, ' ')).substr(4);
    }
  }
  return out;
}

std::string explanationJson(const SheetGame& game) {
  nlohmann::ordered_json out = nlohmann::ordered_json::array();
  for (const sheet::Explanation& part : explanation(game))
    for (const auto& one : part.sentences)
      out.push_back(
          {{"part", part.heading}, {"line", one.line}, {"depth", one.depth}, {"text", one.text}});
  return out.dump(2) + "\n";
}

}  // namespace ninepegs::report
