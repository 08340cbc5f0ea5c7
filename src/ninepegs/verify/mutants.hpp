// Mutants: the rules with one realistic slip each (sheet/mutation), and where each shows.
//
//   auto sheet = SheetGame::fromText("mine.pegs", text);
//   verify::Mutants mutants(*sheet, {.seed = 1, .threads = 2});
//   mutants.run();
//   for (const verify::Mutant& one : mutants.all()) texts.push_back(one.noticedBy);
//
// The sheet's own answers in many positions (scenes) are worked out once; each mutant is asked for
// the same. Two games that differ anywhere differ first in a position that both reach, so it is
// enough to look at positions of the sheet.
#pragma once

#include <algorithm>
#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/sheet/mutation/mutations.hpp"
#include "ninepegs/verify/evidence.hpp"
#include "ninepegs/verify/scenes.hpp"

namespace ninepegs::verify {

// How a mutant answers otherwise in one scene.
struct Difference {
  enum class Kind {
    notLegal,  // a move of the sheet is not legal in the mutant
    extra,     // a move of the mutant is not legal in the sheet
    after,     // a move leads elsewhere
    result,    // ... or the game ends otherwise with it
    told,      // ... or it says something else
    runaway,   // the mutant comes to no end
    start,     // another position to begin with
    seen,      // a side sees something else
  };
  Kind kind = Kind::notLegal;
  std::uint32_t scene = 0;
  std::int32_t move = -1;  // of the scene's moves; -1: none in particular
  std::int32_t cell = -1;  // of extra: the cell that is picked first; -1: none
  std::int32_t side = -1;  // of seen: whose view it is
  std::string text;        // of extra: the move
};

struct Mutant {
  rules::Mutation mutation;
  std::shared_ptr<const SheetGame> game;  // null: the rules cannot be played so
  std::string refused;                    // ... and why not
  // Was it asked in all scenes, and looked for faults? Else the rest says nothing: the work was
  // stopped before, or, with `givenUp`, it takes too long.
  bool studied = false;
  bool givenUp = false;
  // Noticed by the sheet itself: the first case that fails, or the first fault of playouts.
  std::string noticedBy;  // "case", or a finding's name; empty: by nothing
  int noticedLine = 0;
  std::string noticed;            // the case's name, or what the fault says
  std::vector<Difference> shows;  // in the order of scenes
  bool same = false;              // proved by every position: see MutantOptions::proof
};

// The shortest game on which a sheet and a mutant part.
struct Parting {
  std::vector<Move> moves;  // of the sheet
  bool shortest = false;    // no shorter one parts them: all were tried
  bool same = false;        // nothing parts them in any position that can be reached
  Difference difference;    // in the position they lead to; `scene` means nothing
};

struct MutantOptions {
  std::uint64_t seed = 1;
  int threads = 1;             // changes no result
  std::uint64_t playouts = 0;  // that look for faults in each mutant; 0: none
  bool cases = true;           // run the sheet's cases on each
  // Only what nothing notices and shows somewhere: what a case notices is not asked in the scenes,
  // and what shows nowhere is not looked for faults.
  bool unnoticed = false;
  std::size_t most = 0;  // mutants, drawn evenly from all of them; 0: all
  // Moves that all mutants together may be asked in the scenes: of heavy games fewer mutants are
  // looked at, a few at least; 0: no limit.
  std::size_t plays = 0;
  // A mutant that shows nothing in the scenes is asked in every position that can be reached, if
  // the sheet has no more moves in all of them than this; 0: no.
  std::size_t proof = 0;
  SceneOptions scenes{};  // but for its seed and stop
  const StopFlag* stop = nullptr;
};

class Mutants {
 public:
  // `game` must outlive it.
  Mutants(const SheetGame& game, const MutantOptions& options);

  // `progress`, if given, is called with the number of mutants done, from any thread.
  void run(const std::function<void(std::uint64_t done)>& progress = {});

  // In the order of lines.
  const std::vector<Mutant>& all() const { return mutants_; }
  const SheetGame& game() const { return game_; }

  // What the sheet says in a scene. The first scene is the start.
  struct Answer {
    Scene scene;
    MoveList moves;
    std::vector<std::string> texts;  // of the moves
    std::vector<Position> after;     // of the moves
  };
  const std::vector<Answer>& answers() const { return answers_; }
  // How many of all() are proved to be the same as the sheet.
  std::size_t same() const {
    return static_cast<std::size_t>(std::count_if(mutants_.begin(), mutants_.end(),
                                                  [](const Mutant& one) { return one.same; }));
  }
  std::uint64_t met() const { return met_; }

  // Level by level through the positions of the sheet; `budget` moves at most are looked at.
  Parting parting(const Mutant& mutant, std::size_t budget) const;

 private:
  class Asked;
  void thin();
  void study(Mutant& mutant) const;
  void studyOrLeave(Mutant& mutant) const;
  void part(const Mutant& mutant, std::size_t budget, Parting& out) const;
  void show(Mutant& mutant) const;
  void notice(Mutant& mutant, void (Mutants::*look)(Mutant&) const) const;
  void failsCase(Mutant& mutant) const;
  std::vector<Answer> everyAnswer() const;
  void prove();
  void failsPlayouts(Mutant& mutant) const;
  Answer answerOf(const Scene& scene, LivePosition& live) const;

  const SheetGame& game_;
  MutantOptions options_;
  std::vector<Mutant> mutants_;
  std::vector<Answer> answers_;
  std::uint64_t met_ = 0;
};

}  // namespace ninepegs::verify
