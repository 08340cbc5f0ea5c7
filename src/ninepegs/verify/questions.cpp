#include "ninepegs/verify/questions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <tuple>

#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/case_text.hpp"

namespace ninepegs::verify {
namespace {

using Answer = Mutants::Answer;

constexpr std::size_t readAtOnce = 14;  // moves that a person can look through

// What can be asked: kind, scene, and the move, the cell or the text that it is about.
using Key = std::tuple<Question::Kind, std::uint32_t, std::int32_t, std::string>;

class Chooser {
 public:
  Chooser(const Mutants& mutants, const QuestionOptions& options)
      : mutants_(mutants), options_(options), told_(mutants.all().size(), false) {}

  std::vector<Question> run() {
    for (std::size_t number = 0; number < mutants_.all().size(); ++number) {
      const Mutant& one = mutants_.all()[number];
      if (one.game == nullptr || (!options_.noticed && !one.noticedBy.empty())) continue;
      for (const Difference& difference : one.shows) offer(difference, number);
    }
    std::vector<Question> out;
    while (out.size() < options_.most) {
      const std::pair<const Key, std::vector<std::size_t>>* best = nullptr;
      std::size_t most = 0, ease = 0;
      for (auto& one : candidates_) {
        std::vector<std::size_t>& tells = one.second;
        if (tells.size() < most) continue;  // it can only tell fewer
        std::erase_if(tells, [&](std::size_t mutant) { return told_[mutant]; });
        if (tells.empty() || tells.size() < most) continue;
        std::size_t hard = effort(one.first);
        if (tells.size() > most || hard < ease) best = &one, most = tells.size(), ease = hard;
      }
      if (best == nullptr) break;
      for (std::size_t mutant : best->second) told_[mutant] = true;
      out.push_back(question(best->first, best->second));
    }
    return out;
  }

 private:
  const Answer& answer(std::uint32_t scene) const { return mutants_.answers()[scene]; }

  void offer(const Difference& one, std::size_t mutant) {
    using Kind = Difference::Kind;
    switch (one.kind) {
      case Kind::start:
        add({Question::Kind::setUp, 0, -1, ""}, mutant);
        return;
      case Kind::notLegal:
        after(one, mutant);
        moves(one.scene, firstCell(one.scene, one.move), "", mutant);
        return;
      case Kind::extra:
        moves(one.scene, one.cell, one.text, mutant);
        return;
      case Kind::after:
      case Kind::result:
      case Kind::told:
        after(one, mutant);
        return;
      case Kind::seen:
        after(one, mutant, Question::Kind::seen, mutants_.game().info().sides[one.side]);
        return;
      case Kind::runaway:  // whoever plays it sees that
        return;
    }
  }
  // Where the move has its text for itself, and does not go wrong: else `check` tells of it.
  void after(const Difference& one, std::size_t mutant, Question::Kind kind = Question::Kind::after,
             const std::string& side = {}) {
    const Answer& says = answer(one.scene);
    const std::string& text = says.texts[one.move];
    if (std::count(says.texts.begin(), says.texts.end(), text) != 1) return;
    if (mutants_.game().result(says.after[one.move]).kind == ResultKind::fault) return;
    add({kind, one.scene, one.move, side}, mutant);
  }
  void moves(std::uint32_t scene, std::int32_t cell, const std::string& text, std::size_t mutant) {
    if (answer(scene).moves.size() <= readAtOnce)
      add({Question::Kind::all, scene, -1, ""}, mutant);
    else if (cell >= 0 && fromCell(scene, cell))
      add({Question::Kind::from, scene, cell, ""}, mutant);
    if (!text.empty()) add({Question::Kind::refused, scene, -1, text}, mutant);
  }
  void add(const Key& key, std::size_t mutant) {
    std::vector<std::size_t>& tells = candidates_[key];
    if (tells.empty() || tells.back() != mutant) tells.push_back(mutant);
  }
  std::int32_t firstCell(std::uint32_t scene, std::int32_t move) const {
    std::vector<Cell> cells =
        mutants_.game().cellsOf(answer(scene).scene.position, answer(scene).moves[move]);
    return cells.empty() ? -1 : cells.front();
  }
  // Do moves of this cell go from it, a few of them?
  bool fromCell(std::uint32_t scene, std::int32_t cell) const {
    const Position& position = answer(scene).scene.position;
    for (int board = 0; board < mutants_.game().boards(); ++board)
      if (mutants_.game().pieceAt(position, cell, board)) return true;
    return false;
  }
  // The fewer moves, plies and pieces, the easier it is to answer.
  std::size_t effort(const Key& key) const {
    const Answer& one = answer(std::get<1>(key));
    bool oneBoard =
        std::get<0>(key) == Question::Kind::after || std::get<0>(key) == Question::Kind::seen;
    std::size_t listed = oneBoard ? 2 : one.moves.size();
    return listed * 4 + static_cast<std::size_t>(one.scene.plies) + (one.scene.fromStart ? 0 : 6);
  }

  Question question(const Key& key, const std::vector<std::size_t>& tells) {
    Question out;
    out.kind = std::get<0>(key);
    out.scene = std::get<1>(key);
    bool ofMove = out.kind == Question::Kind::after || out.kind == Question::Kind::seen;
    (ofMove ? out.move : out.cell) = std::get<2>(key);
    out.text = std::get<3>(key);
    if (out.kind == Question::Kind::seen)
      out.side = mutants_.game().info().sides[0] == out.text ? 0 : 1;
    out.tells = tells;
    out.name = name(out);
    int times = ++names_[out.name];
    if (times > 1) out.name += fmt::format(" ({})", times);
    return out;
  }
  std::string name(const Question& one) const {
    const Game& game = mutants_.game();
    const Answer& says = answer(one.scene);
    const std::string& side = game.info().sides[game.toMove(says.scene.position)];
    switch (one.kind) {
      case Question::Kind::setUp:
        return "the set-up";
      case Question::Kind::after: {
        Result result = game.result(says.after[one.move]);
        if (result.kind == ResultKind::ongoing)
          return fmt::format("{} plays {}", side, says.texts[one.move]);
        return fmt::format("{} plays {}: {}", side, says.texts[one.move], resultText(game, result));
      }
      case Question::Kind::all:
        if (says.moves.empty()) return fmt::format("{} has no move", side);
        return says.moves.size() == 1 ? fmt::format("{} has one move", side)
                                      : fmt::format("{} has {} moves", side, says.moves.size());
      case Question::Kind::from:
        return fmt::format("where {} may go", game.board().label(one.cell));
      case Question::Kind::refused:
        return fmt::format("{} may not play {}", side, one.text);
      case Question::Kind::seen:
        return fmt::format("what {} sees after {} plays {}", one.text, side, says.texts[one.move]);
    }
    return "";
  }

  const Mutants& mutants_;
  const QuestionOptions& options_;
  std::map<Key, std::vector<std::size_t>> candidates_;
  std::vector<bool> told_;
  std::map<std::string, int> names_;
};

}  // namespace

std::vector<Question> chooseQuestions(const Mutants& mutants, const QuestionOptions& options) {
  return Chooser(mutants, options).run();
}

std::vector<std::string> movesOf(const Mutants& mutants, std::uint32_t scene, std::int32_t cell) {
  const Answer& says = mutants.answers()[scene];
  std::vector<std::string> out;
  for (std::size_t i = 0; i < says.moves.size(); ++i) {
    std::vector<Cell> cells = mutants.game().cellsOf(says.scene.position, says.moves[i]);
    if (cell < 0 || (!cells.empty() && cells.front() == cell)) out.push_back(says.texts[i]);
  }
  std::sort(out.begin(), out.end(), naturalLess);
  return out;
}

std::string caseOf(const Mutants& mutants, const Question& question) {
  const SheetGame& game = mutants.game();
  const Answer& says = mutants.answers()[question.scene];
  CaseText out;
  out.name = question.name;
  if (!says.scene.moves.empty()) {
    Position position = game.start();
    for (const Move& move : says.scene.moves) {
      out.play.push_back(game.moveText(position, move));
      game.apply(position, move);
    }
  } else if (question.kind != Question::Kind::setUp) {
    out.position = says.scene.position;
  }
  switch (question.kind) {
    case Question::Kind::setUp:
      out.leaves = game.start();
      for (const rules::PieceKind& kind : game.rules().kinds)
        if (!kind.edges.empty())
          out.expect.push_back(
              fmt::format("edges of {} = {}", kind.name, fmt::join(kind.edges, " ")));
      break;
    case Question::Kind::after: {
      const Position& after = says.after[question.move];
      out.play.push_back(says.texts[question.move]);
      out.leaves = after;
      Result result = game.result(after);
      out.expect = {expectedResult(game, result)};
      // An end that may be claimed: the game may go on, too.
      if (result.claim) out.expect.push_back(fmt::format("{} moves", game.countMoves(after)));
      for (const std::string& told :
           game.textsOf(says.scene.position, says.moves[question.move]).told)
        out.expect.push_back(fmt::format("told \"{}\"", told));
      break;
    }
    case Question::Kind::all:
      out.expect = {says.moves.empty()
                        ? "0 moves"
                        : "moves = " + joined(movesOf(mutants, question.scene, -1), ", ")};
      break;
    case Question::Kind::from: {
      std::vector<std::string> moves = movesOf(mutants, question.scene, question.cell);
      out.expect = {fmt::format("moves from {} = {}", game.board().label(question.cell),
                                joined(moves, ", "))};
      break;
    }
    case Question::Kind::refused:
      out.expect = {"not legal " + question.text};
      break;
    case Question::Kind::seen:
      out.play.push_back(says.texts[question.move]);
      out.expect = {
          fmt::format("{} sees \"{}\"", question.text,
                      viewText(game, game.viewFor(says.after[question.move], question.side)))};
      break;
  }
  return caseText(game, out);
}

std::vector<int> linesOf(const Mutants& mutants, const Question& question) {
  std::map<int, int> often;
  for (std::size_t mutant : question.tells) ++often[mutants.all()[mutant].mutation.line];
  std::vector<std::pair<int, int>> lines(often.begin(), often.end());
  std::stable_sort(lines.begin(), lines.end(),
                   [](const auto& a, const auto& b) { return a.second > b.second; });
  std::vector<int> out;
  for (const auto& [line, times] : lines) out.push_back(line);
  return out;
}

}  // namespace ninepegs::verify
