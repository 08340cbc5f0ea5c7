#include "ninepegs/report/explanation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/game/memory.hpp"
#include "ninepegs/report/text_lines.hpp"

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
  std::vector<std::string> further = rememberedParts(game, start);
  if (!further.empty())
    out.sentences.push_back({0, line, fmt::format("Set out besides: {}.", joined(further, "; "))});
  return out;
}

std::string headed(std::string heading) {
  if (!heading.empty())
    heading[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(heading[0])));
  return heading;
}

// Prose, a sentence at a time.
std::vector<std::string> sentencesOf(const std::vector<std::string>& about) {
  std::vector<std::string> out;
  std::string prose = joined(about, " ");
  for (std::size_t from = 0; from < prose.size();) {
    std::size_t to = from;
    do {
      to = prose.find_first_of(".!?", to + 1);
    } while (to != prose.npos && to + 1 < prose.size() && prose[to + 1] != ' ');
    to = to == prose.npos ? prose.size() : to + 1;
    out.emplace_back(trimmed(prose.substr(from, to - from)));
    from = to + 1;
  }
  return out;
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
  if (!prose.empty()) out += paint.wrapped(prose, "  ");
  for (const sheet::Explanation& part : explanation(game)) {
    out += "\n" + paint.strong(part.heading) + "\n";
    for (const auto& one : part.sentences) {
      std::string place = one.line > 0 ? fmt::format("{:4}", one.line) : "    ";
      std::size_t deep = 2 * static_cast<std::size_t>(one.depth);
      out += paint.faint(place) + paint.wrapped(one.text, std::string(6 + deep, ' ')).substr(4);
    }
  }
  return out;
}

std::string explanationBeside(const SheetGame& game, const Paint& paint) {
  std::size_t leftWidth = static_cast<std::size_t>(paint.width()) * 2 / 5 - 1,
              rightWidth = static_cast<std::size_t>(paint.width()) - leftWidth - 3;
  auto add = [](const std::string& text, std::vector<std::string>& lines) {
    for (std::string& line : linesOf(text)) lines.push_back(std::move(line));
  };
  std::vector<std::string> left, right;
  for (const std::string& sentence : sentencesOf(game.info().about)) {
    add(wrapped(sentence, leftWidth, ""), left);
    left.emplace_back();
  }
  if (left.empty()) left.emplace_back("(no plan in words: no `about`)");
  std::vector<bool> heading;
  for (const sheet::Explanation& part : explanation(game)) {
    if (!right.empty()) right.emplace_back();
    heading.resize(right.size());
    add(wrapped(part.heading, rightWidth, ""), right);
    heading.resize(right.size(), true);
    for (const auto& one : part.sentences) {
      std::size_t deep = 2 * static_cast<std::size_t>(one.depth);
      std::string place = one.line > 0 ? fmt::format("{:4}", one.line) : "    ";
      add(place + wrapped(one.text, rightWidth - 6 - deep, std::string(6 + deep, ' ')).substr(4),
          right);
    }
    heading.resize(right.size());
  }
  std::string out = paint.strong(game.info().title) + "\n\n";
  for (std::size_t i = 0; i < std::max(left.size(), right.size()); ++i) {
    std::string own = i < left.size() ? left[i] : "";
    if (i < right.size() && !right[i].empty()) {
      own += std::string(leftWidth + 3 - std::min<std::size_t>(leftWidth, columnsOf(own)), ' ');
      own += heading[i] ? paint.strong(right[i]) : right[i];
    }
    out += own + "\n";
  }
  return out;
}

std::string explanationMarkdown(const SheetGame& game) {
  std::string out = "# " + game.info().title + "\n", prose = joined(game.info().about, " ");
  if (!prose.empty()) out += "\n" + wrapped(prose, 96, "");
  for (const sheet::Explanation& part : explanation(game)) {
    out += "\n## " + part.heading + "\n\n";
    for (const auto& one : part.sentences) {
      std::string text;
      bool code = false;  // names stand between backticks
      for (char c : one.text) {
        code = code != (c == '`');
        if (!code && (c == '*' || c == '_' || c == '<' || c == '>')) text += '\\';
        text += c;
      }
      out += std::string(2 * static_cast<std::size_t>(one.depth), ' ') + "- " + text;
      out += one.line > 0 ? fmt::format(" (line {})\n", one.line) : "\n";
    }
  }
  return out;
}

std::string explanationJson(const SheetGame& game) {
  Json out = Json::array();
  for (const sheet::Explanation& part : explanation(game))
    for (const auto& one : part.sentences)
      out.push_back(
          {{"part", part.heading}, {"line", one.line}, {"depth", one.depth}, {"text", one.text}});
  return jsonText(out, 2) + "\n";
}

}  // namespace ninepegs::report
