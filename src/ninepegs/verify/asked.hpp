// A game that is asked in scenes of another. Internal to Mutants.
#pragma once

#include <algorithm>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "ninepegs/verify/mutants.hpp"

namespace ninepegs::verify {

// One game that is asked in scenes of another.
class Mutants::Asked {
 public:
  Asked(const Mutants& all, const SheetGame& game)
      : sheet_(all.game_), game_(game), live_(game.live()) {
    const rules::Rules &one = game.rules(), &two = all.game_.rules();
    sees_ = one.sees.size() != two.sees.size();
    for (std::size_t i = 0; !sees_ && i < one.sees.size(); ++i)
      sees_ = one.sees[i].what != two.sees[i].what;
    for (std::size_t i = 0; i < one.kinds.size(); ++i)
      sees_ = sees_ || one.kinds[i].secret != two.kinds[i].secret;
    for (const rules::MoveRule& move : one.moves)
      tells_ = tells_ || rules::anyClause(move.body, [](const rules::Clause& clause) {
                 return rules::as<rules::Tell>(clause) != nullptr;
               });
  }

  // Adds what differs; at most `most` things.
  void differences(const Answer& answer, std::uint32_t scene, std::size_t most,
                   std::vector<Difference>& out) {
    std::size_t before = out.size();
    auto full = [&] { return out.size() - before >= most; };
    auto add = [&](Difference::Kind kind, int move = -1, int cell = -1, int side = -1) {
      out.push_back({kind, scene, move, cell, side, {}});
    };
    try {
      if (!reach(answer.scene)) return;
      live_->listMoves(moves_);
      if (moves_ == answer.moves) {  // as nearly always
        for (std::size_t i = 0; i < moves_.size() && !full(); ++i)
          compare(answer, i, moves_[i], add);
        return;
      }
      if (moves_.size() > 4 * answer.moves.size() + 400) return add(Difference::Kind::extra);
      std::multimap<std::string, std::size_t> byText;
      for (std::size_t i = 0; i < moves_.size(); ++i)
        byText.insert({game_.moveText(answer.scene.position, moves_[i]), i});
      for (std::size_t i = 0; i < answer.moves.size() && !full(); ++i) {
        auto [from, to] = byText.equal_range(answer.texts[i]);
        if (from == to) {
          add(Difference::Kind::notLegal, static_cast<int>(i));
          continue;
        }
        auto same = std::find_if(
            from, to, [&](const auto& one) { return moves_[one.second] == answer.moves[i]; });
        auto which = same != to ? same : from;
        compare(answer, i, moves_[which->second], add);
        byText.erase(which);
      }
      for (const auto& [text, i] : byText) {
        if (full()) break;
        std::vector<Cell> cells = game_.cellsOf(answer.scene.position, moves_[i]);
        add(Difference::Kind::extra, -1, cells.empty() ? -1 : cells.front());
        out.back().text = text;
      }
    } catch (const TooMuchWork&) {
      throw;
    } catch (const BadInput&) {  // it comes to no end, or to too many moves
      add(Difference::Kind::runaway);
    }
  }

 private:
  // The scene's position, as this game comes to it; false: it does not, as an earlier scene shows.
  bool reach(const Scene& scene) {
    if (scene.moves.empty()) {
      live_->setUp(scene.position);
      return true;
    }
    live_->setUp(game_.start());
    for (const Move& move : scene.moves) {
      live_->listMoves(moves_);
      if (std::find(moves_.begin(), moves_.end(), move) == moves_.end()) return false;
      live_->play(move);
    }
    live_->copyTo(after_);
    return sheet_.sameButResult(after_, scene.position);
  }

  template <class Add>
  void compare(const Answer& answer, std::size_t i, const Move& move, Add add) {
    int number = static_cast<int>(i);
    live_->play(move);
    live_->copyTo(after_);
    live_->takeBack();
    const Position& wanted = answer.after[i];
    if (!(after_ == wanted)) {
      Result got = game_.result(after_), result = sheet_.result(wanted);
      bool alike = got.kind == result.kind && got.winner == result.winner &&
                   got.name == result.name && got.claim == result.claim;
      if (!alike) return add(Difference::Kind::result, number);
      if (!sheet_.sameButResult(after_, wanted)) return add(Difference::Kind::after, number);
    }
    if (tells_) {
      MoveTexts is = game_.textsOf(answer.scene.position, move);
      MoveTexts was = sheet_.textsOf(answer.scene.position, answer.moves[i]);
      if (is.told != was.told) return add(Difference::Kind::told, number);
    }
    if (!sees_) return;
    for (int side = 0; side < 2; ++side) {
      View got = game_.viewFor(after_, side), view = sheet_.viewFor(wanted, side);
      // A letter that stands on no cell shows nothing.
      for (View* one : {&got, &view})
        std::erase_if(one->marks, [](const View::Mark& mark) { return mark.cells.none(); });
      if (got.words != view.words || got.marks != view.marks || !(got.shown == view.shown))
        add(Difference::Kind::seen, number, -1, side);
    }
  }

  const SheetGame& sheet_;
  const SheetGame& game_;
  std::unique_ptr<LivePosition> live_;
  bool tells_ = false;  // its moves announce something
  bool sees_ = false;   // what a side sees may differ
  MoveList moves_;
  Position after_;
};

}  // namespace ninepegs::verify
