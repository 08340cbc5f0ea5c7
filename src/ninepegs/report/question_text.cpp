#include "ninepegs/report/question_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/game/memory.hpp"
#include "ninepegs/report/board_text.hpp"
#include "ninepegs/report/text_lines.hpp"
#include "ninepegs/verify/case_text.hpp"

namespace ninepegs::report {
namespace {

using verify::Question;
using Answer = verify::Mutants::Answer;

constexpr std::size_t cardWidth = 78;

// What is remembered beside the pieces, on one line; empty if nothing.
std::string remembered(const Game& game, const Position& position) {
  return joined(rememberedParts(game, position), "; ");
}

// Before and after, beside each other where they fit.
std::string beside(const std::string& left, const std::string& leftPlain, const std::string& right,
                   const std::string& rightPlain) {
  return besideEachOther(
      {left, leftPlain}, {right, rightPlain},
      {.gap = "        ", .middle = "   =>   ", .most = cardWidth, .trimmed = false});
}

std::string boards(const Game& game, const Position& position, const Paint& paint) {
  Marks marks;
  marks.shown = game.ended(position) ? game.shownCells(position) : CellSet();
  return boardsText(game, position, marks, paint);
}

// With the cells that a move picks marked.
std::string boardsBefore(const Game& game, const Position& position, const Move& move,
                         const Paint& paint) {
  Marks marks;
  std::vector<Cell> cells = game.cellsOf(position, move);
  if (game.boards() == 1 && !cells.empty()) {
    marks.targets.set(static_cast<std::size_t>(cells.back()));
    if (cells.size() > 1) marks.origin = cells.front();
  }
  return boardsText(game, position, marks, paint);
}

std::string with(const Game& game, const Position& position) {
  std::string more = remembered(game, position);
  return more.empty() ? "" : wrapped("with " + more, cardWidth, "  ");
}

// The moves before, where it matters which positions there were.
std::string earlier(const Game& game, const verify::Scene& scene) {
  if (scene.moves.empty()) return "";
  std::vector<std::string> texts;
  Position position = game.start();
  for (const Move& move : scene.moves) {
    texts.push_back(game.moveText(position, move));
    game.apply(position, move);
  }
  return wrapped("From the start: " + joined(texts, ", "), cardWidth, "") + "\n";
}

const char* kindName(Question::Kind kind) {
  static const char* const names[] = {"set-up",     "after",   "all moves",
                                      "moves from", "refused", "seen"};
  return names[static_cast<int>(kind)];
}

}  // namespace

std::string cardText(const verify::Mutants& mutants, const Question& question, const Paint& paint) {
  const Game& game = mutants.game();
  const Answer& says = mutants.answers()[question.scene];
  const Position& position = says.scene.position;
  int side = game.toMove(position);
  std::string who = paint.side(side, game.info().sides[side]);
  std::string out = earlier(game, says.scene);
  switch (question.kind) {
    case Question::Kind::setUp:
      out += boards(game, position, paint) + with(game, position);
      for (const GameInfo::Kind& kind : game.info().kinds)
        if (!kind.edges.empty())
          out += fmt::format("  the sides of {} say {}\n", kind.name, fmt::join(kind.edges, " "));
      return out + fmt::format("\nThe game begins like this, and {} moves first.\n", who);
    case Question::Kind::after: {
      const Position& after = says.after[question.move];
      Paint plain;
      const Move& move = says.moves[question.move];
      out += beside(boardsBefore(game, position, move, paint),
                    boardsBefore(game, position, move, plain), boards(game, after, paint),
                    boards(game, after, plain));
      std::string before = remembered(game, position), then = remembered(game, after);
      if (!before.empty()) out += wrapped("before: " + before, cardWidth, "  ");
      if (then != before)
        out += wrapped("after:  " + (then.empty() ? "nothing" : then), cardWidth, "  ");
      out += fmt::format("\n{} plays {}. ", who, paint.strong(says.texts[question.move]));
      out += stateText(game, after, paint) + "\n";
      if (game.result(after).claim) out += "That may be claimed; the game may go on, too.\n";
      MoveTexts texts = game.textsOf(position, says.moves[question.move]);
      for (const std::string& told : texts.told)
        out += fmt::format("Both are told \"{}\".\n", told);
      if (game.secrets() != nullptr && texts.seen != texts.text)
        out += fmt::format("The other side is told \"{}\".\n", texts.seen);
      return out;
    }
    case Question::Kind::all:
    case Question::Kind::from: {
      std::vector<std::string> moves = verify::movesOf(mutants, question.scene, question.cell);
      out += boards(game, position, paint) + with(game, position) + "\n";
      std::string list = moves.empty() ? "none" : joined(moves, ", ");
      std::string of =
          question.cell < 0 ? "" : " of what stands on " + game.board().label(question.cell);
      out +=
          wrapped(fmt::format("{} is to move. All moves{}: {}", game.info().sides[side], of, list),
                  cardWidth, "");
      return out;
    }
    case Question::Kind::refused:
      out += boards(game, position, paint) + with(game, position);
      return out + fmt::format("\n{} is to move, and may not play {}.\n", who,
                               paint.strong(question.text));
    case Question::Kind::seen: {
      const Position& after = says.after[question.move];
      Marks marks;
      marks.shown = game.ended(after) ? game.shownCells(after) : CellSet();
      out += boardsText(game, after, marks, paint, question.side);
      std::string more = remembered(game, game.viewFor(after, question.side).shown);
      if (!more.empty()) out += wrapped("with " + more, cardWidth, "  ");
      return out + fmt::format("\n{} has played {}. This is all that {} sees.\n", who,
                               paint.strong(says.texts[question.move]),
                               paint.side(question.side, game.info().sides[question.side]));
    }
  }
  return out;
}

std::string hangsOn(const verify::Mutants& mutants, const verify::Question& question,
                    const Paint& paint) {
  const sheet::Source& source = *mutants.game().rules().source;
  std::string out;
  std::vector<int> lines = verify::linesOf(mutants, question);
  for (std::size_t i = 0; i < lines.size() && i < 4; ++i)
    out += fmt::format("  {}  {}\n", paint.faint(fmt::format("line {:>3}", lines[i])),
                       trimmed(sheet::withoutComment(source.line(lines[i]))));
  return out;
}

std::string questionsJson(const verify::Mutants& mutants,
                          const std::vector<verify::Question>& questions, std::uint64_t seed,
                          bool complete) {
  Json out;
  const Game& game = mutants.game();
  out["game"] = game.info().id;
  if (!game.info().variant.empty()) out["variant"] = game.info().variant;
  out["seed"] = seed;
  out["mutants"] = mutants.all().size();
  out["positions"] = mutants.answers().size();
  out["complete"] = complete;
  out["questions"] = Json::array();
  for (const Question& one : questions) {
    const Answer& says = mutants.answers()[one.scene];
    Json to;
    to["kind"] = kindName(one.kind);
    to["name"] = one.name;
    to["position"] = game.positionText(says.scene.position);
    if (one.kind == Question::Kind::after) {
      to["move"] = says.texts[one.move];
      to["after"] = game.positionText(says.after[one.move]);
      to["result"] = verify::expectedResult(game, game.result(says.after[one.move]));
    } else if (one.kind == Question::Kind::refused) {
      to["move"] = one.text;
    } else if (one.kind != Question::Kind::setUp) {
      if (one.cell >= 0) to["cell"] = game.board().label(one.cell);
      to["moves"] = verify::movesOf(mutants, one.scene, one.cell);
    }
    to["lines"] = verify::linesOf(mutants, one);
    to["tells"] = one.tells.size();
    to["case"] = verify::caseOf(mutants, one);
    out["questions"].push_back(std::move(to));
  }
  return jsonText(out, 2);
}

}  // namespace ninepegs::report
