#include "ninepegs/verify/lint_playouts.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <string>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

using namespace rules;

// Does the condition ask whether somebody can move, itself or in a definition?
bool asksForMoves(const Term& term) {
  return anyInside(term, [](const Term& part) {
    const Use* use = as<Use>(part);
    return as<Stuck>(part) != nullptr || as<NobodyCanMove>(part) != nullptr ||
           (use != nullptr && asksForMoves(*use->body));
  });
}

// A number that an end waits for to become one value.
struct Awaited {
  int slot = 0;
  long long value = 0;
  const NumberRule* number = nullptr;
  const EndRule* end = nullptr;
  std::int64_t before = 0;
  bool passed = false;
};

class Playouts {
 public:
  Playouts(const SheetGame& game, const LintOptions& options)
      : game_(game),
        rules_(game.rules()),
        layout_(game.program().layout),
        options_(options),
        live_(game.live()),
        start_(game.start()),
        possible_(rules_.moves.size(), false),
        hidden_(rules_.ends.size()) {
    for (const EndRule& end : rules_.ends) await(end, *end.condition);
    for (std::size_t move = 0; move < rules_.moves.size(); ++move)
      for (std::size_t i = 0; i < rules_.moves[move].body.size(); ++i) {
        const Clause& one = rules_.moves[move].body[i];
        if (as<Maximise>(one) == nullptr) continue;
        Rules without = rules_;
        Clauses& body = without.moves[move].body;
        body.erase(body.begin() + static_cast<std::ptrdiff_t>(i));
        measured_.push_back({one.span.line, SheetGame::fromRules(std::move(without)), 0, false});
      }
  }

  void run() {
    StopScope stop(options_.stop);
    WorkScope work(limits::partSteps);
    for (; played_ < options_.playouts && !wantsStop(options_.stop) && !tooMuchWork(); ++played_) {
      try {
        WorkScope game(limits::gameSteps);
        playOut(played_);
      } catch (const Stopped&) {
        return;
      } catch (const TooMuchWork&) {
        givenUp_ = givenUp_ || !tooMuchWork();
      } catch (const RunawayRules& error) {
        const Diagnostic& first = error.diagnostics().front();
        runaways_.insert({first.place.line, {first.place.line, first.message, first.hint}});
      }
    }
  }
  void into(LintReport& report) const {
    report.playouts = played_;
    report.complete = played_ == options_.playouts && !givenUp_;
  }
  void remark(const std::set<std::size_t>& hiddenEnds, std::vector<Remark>& out) const;

 private:
  // Comparisons of a number with a value, joined by `and` alone.
  void await(const EndRule& end, const Term& condition) {
    std::vector<const Term*> all;
    partsOf<And>(condition, all);
    for (const Term* one : all) {
      const Compare* compare = as<Compare>(*one);
      if (compare == nullptr || compare->relation != Relation::equal) continue;
      const Variable* number = as<Variable>(*compare->left);
      const Number* value = as<Number>(*compare->right);
      if (number == nullptr || value == nullptr) continue;
      for (int side = 0; side < 2; ++side)
        awaited_.push_back({layout_.numbers[number->number][side], value->value,
                            &rules_.numbers[number->number], &end});
    }
  }

  void playOut(std::uint64_t number) {
    Stream stream(options_.seed, number);
    live_->setUp(start_);
    line_.clear();
    for (int ply = 0; ply < limits::plies; ++ply) {
      live_->copyTo(position_);
      lookAtNumbers(position_, ply == 0);
      if (live_->ended()) {
        lookAtEnd(position_);
        lookAtStuckWinner(position_);
        countResult(live_->outcome());
        return;
      }
      live_->listMoves(moves_);
      stalled_ = stalled_ || moves_.empty();
      if (moves_.empty()) return;
      lookAtMeasures(position_);
      for (const Move& move : moves_)
        if (move.group < possible_.size()) possible_[move.group] = true;
      Move chosen = moves_[stream.below(static_cast<std::uint32_t>(moves_.size()))];
      line_.push_back(chosen);
      mover_ = live_->toMove();
      live_->play(chosen);
    }
  }

  void lookAtNumbers(const Position& position, bool start) {
    auto value = [&](int slot) { return static_cast<std::int64_t>(position.words[slot]); };
    for (std::size_t i = 0; i < rules_.numbers.size(); ++i) {
      const NumberRule& one = rules_.numbers[i];
      int first = one.onCells ? layout_.cellNumbers[i] : layout_.numbers[i][0];
      int count = one.onCells ? game_.board().size() : 1;
      bool below = !one.onCells && value(layout_.numbers[i][1]) < 0;
      for (int k = 0; k < count; ++k) below = below || value(first + k) < 0;
      if (below) negative_.insert(&one);
    }
    for (Awaited& one : awaited_) {
      std::int64_t now = value(one.slot);
      bool over = one.before < one.value && now > one.value;
      bool under = one.before > one.value && now < one.value;
      one.passed = one.passed || (!start && (over || under));
      one.before = now;
    }
  }

  void countResult(const Outcome& outcome) {
    if (outcome.kind == ResultKind::draw) ++draws_;
    if (outcome.kind != ResultKind::win) return;
    ++wins_[outcome.winner];
    ++winsBy_[static_cast<std::size_t>(outcome.end)][outcome.winner];
  }
  void remarkResults(std::vector<Remark>& out) const;

  // A win for not being able to move, of the side that was to move again and could not.
  void lookAtStuckWinner(const Position& position) {
    Outcome outcome = live_->outcome();
    if (!rules_.usesAgain || outcome.kind != ResultKind::win) return;
    auto end = static_cast<std::size_t>(outcome.end);
    if (outcome.winner != game_.toMove(position) || mover_ != outcome.winner ||
        stuckWinners_.count(end) > 0 || !asksForMoves(*rules_.ends[end].condition))
      return;
    std::vector<std::string> texts;
    Position at = start_;
    for (const Move& move : line_) {
      texts.push_back(game_.moveText(at, move));
      game_.apply(at, move);
    }
    stuckWinners_[end] = {outcome.winner, std::move(texts)};
  }

  // Of moves that keep only the greatest: did it ever leave one out?
  void lookAtMeasures(const Position& position) {
    for (Measured& one : measured_) {
      if (one.dropped || one.positions >= measuredPositions) continue;
      ++one.positions;
      one.dropped = one.without->countMoves(position) > moves_.size();
    }
  }

  void lookAtEnd(const Position& position) {
    std::vector<Result> all = game_.endsThatHold(position);
    if (all.empty() || all[0].kind != ResultKind::draw) return;
    for (const Result& other : all)
      if (other.kind == ResultKind::win) hidden_[all[0].end].insert(other.end);
  }

  struct Measured {
    int line = 0;
    std::shared_ptr<const SheetGame> without;
    std::uint64_t positions = 0;
    bool dropped = false;
  };
  static constexpr std::uint64_t measuredPositions = 2000;

  const SheetGame& game_;
  const Rules& rules_;
  const sheet::Layout& layout_;
  const LintOptions& options_;
  std::unique_ptr<LivePosition> live_;
  Position start_, position_;
  MoveList moves_;
  std::uint64_t played_ = 0;
  std::vector<bool> possible_;                 // moves that were legal somewhere
  std::vector<std::set<std::size_t>> hidden_;  // by draw: wins that it stood before
  std::set<const NumberRule*> negative_;
  std::vector<Awaited> awaited_;
  bool stalled_ = false;
  bool givenUp_ = false;            // a playout took too long
  std::vector<Measured> measured_;  // by `must maximise`
  std::map<std::size_t, std::pair<int, std::vector<std::string>>> stuckWinners_;  // by end
  std::vector<Move> line_;                                                        // of this playout
  int mover_ = -1;                  // who made its last move
  std::map<int, Remark> runaways_;  // by line
  std::uint64_t draws_ = 0;
  std::array<std::uint64_t, 2> wins_ = {0, 0};
  std::map<std::size_t, std::array<std::uint64_t, 2>> winsBy_;  // by the end's number
};

// Results that are the same again and again: among equals both sides win now and then.
void Playouts::remarkResults(std::vector<Remark>& out) const {
  constexpr std::uint64_t many = 60;
  std::uint64_t won = wins_[0] + wins_[1];
  int line = rules_.ends.front().span.line;
  if (won == 0 && draws_ >= many)
    out.push_back({line, fmt::format("all {} random games that ended were drawn", draws_),
                   "can nobody ever win?"});
  for (int side = 0; side < 2; ++side)
    if (won >= many && wins_[1 - side] == 0)
      out.push_back(
          {line, fmt::format("{} won all {} random games that were won", rules_.sides[side], won),
           "is a goal, a direction or whose turn it is mistyped for one side?"});
  if (wins_[0] == 0 || wins_[1] == 0) return;
  for (const auto& [end, wins] : winsBy_)
    for (int side = 0; side < 2; ++side)
      if (wins[side] >= many && wins[1 - side] == 0 && rules_.ends[end].side < 0)
        out.push_back({rules_.ends[end].span.line,
                       fmt::format("the end \"{}\" was reached {} times in random playouts, by {} "
                                   "alone",
                                   rules_.ends[end].name, wins[side], rules_.sides[side]),
                       "can the other side reach it, too?"});
}

void Playouts::remark(const std::set<std::size_t>& hiddenEnds, std::vector<Remark>& out) const {
  if (played_ == 0) return;
  std::string in = fmt::format("in {}", plural(static_cast<long long>(played_), "random playout"));
  auto say = [&](int line, const std::string& message, const std::string& hint) {
    out.push_back({line, message + " " + in, hint});
  };
  for (std::size_t i = 0; i < possible_.size(); ++i)
    if (!possible_[i])
      say(rules_.moves[i].span.line,
          fmt::format("the move \"{}\" was never legal", rules_.moves[i].name),
          "can its needs ever all hold?");
  for (std::size_t draw = 0; draw < hidden_.size(); ++draw)
    for (std::size_t win : hidden_[draw])
      if (hiddenEnds.count(win) == 0)
        say(rules_.ends[draw].span.line,
            fmt::format("the draw \"{}\" stands before the win \"{}\" of line {}, and both held at "
                        "once",
                        rules_.ends[draw].name, rules_.ends[win].name, rules_.ends[win].span.line),
            "put wins above draws");
  for (const NumberRule& one : rules_.numbers)
    if (negative_.count(&one) > 0)
      say(one.span.line, fmt::format("the number \"{}\" went below 0", one.name),
          "is more taken away than is there?");
  std::set<const EndRule*> told;
  for (const Awaited& one : awaited_)
    if (one.passed && told.insert(one.end).second)
      say(one.end->span.line,
          fmt::format("the number \"{}\" went past {} without being {}, for which the end \"{}\" "
                      "waits",
                      one.number->name, one.value, one.value, one.end->name),
          fmt::format("can it be more? Then say: {} >= {}", one.number->name, one.value));
  for (const auto& [line, remark] : runaways_) out.push_back(remark);
  for (const auto& [end, won] : stuckWinners_)
    out.push_back(
        {rules_.ends[end].span.line,
         fmt::format("the end \"{}\" gave the win to {}, which was to move again and could "
                     "not, after {}",
                     rules_.ends[end].name, rules_.sides[won.first],
                     clipped(joined(won.second, ", "), 300)),
         "where the side that moves again is stuck, who should win? Ask first whether it "
         "is to move: opponent wins \"...\" when stuck and next is SIDE"});
  for (const Measured& one : measured_)
    if (!one.dropped && one.positions > 0)
      say(one.line,
          fmt::format("`must maximise` left out no move in {}",
                      plural(static_cast<long long>(one.positions), "position")),
          "it measures where it stands, on the position as it is there");
  remarkResults(out);
  if (!stalled_) return;
  bool stuckEnd = std::any_of(rules_.ends.begin(), rules_.ends.end(),
                              [](const EndRule& end) { return asksForMoves(*end.condition); });
  say(rules_.ends.front().span.line, "a side had no move and no end held",
      stuckEnd ? "which end should hold then?"
               : "say what happens then: mover wins \"...\" when stuck, or let it pass: turn ... "
                 "else pass");
}

}  // namespace

void remarkPlayouts(const SheetGame& game, const LintOptions& options,
                    const std::set<std::size_t>& hiddenEnds, std::vector<Remark>& out,
                    LintReport& report) {
  Playouts playouts(game, options);
  playouts.run();
  StopScope undisturbed(nullptr);
  playouts.remark(hiddenEnds, out);
  playouts.into(report);
}

}  // namespace ninepegs::verify
