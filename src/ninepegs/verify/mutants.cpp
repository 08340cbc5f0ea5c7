#include "ninepegs/verify/mutants.hpp"

#include <algorithm>
#include <atomic>
#include <map>
#include <unordered_set>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/position_store.hpp"
#include "ninepegs/verify/work.hpp"

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

Mutants::Mutants(const SheetGame& game, const MutantOptions& options)
    : game_(game), options_(options) {
  std::vector<rules::Mutation> all = rules::mutationsOf(game.rules());
  std::size_t wanted = options.most == 0 ? all.size() : std::min(options.most, all.size());
  Stream stream(options.seed ^ 0x6d7574616e74, 0);
  // Of what is left, as many as are wanted: each is as likely.
  for (std::size_t i = 0; i < all.size(); ++i) {
    std::size_t left = all.size() - i;
    if (stream.below(static_cast<std::uint32_t>(left)) >= wanted - mutants_.size()) continue;
    Mutant mutant;
    mutant.mutation = std::move(all[i]);
    mutants_.push_back(std::move(mutant));
  }
}

Mutants::Answer Mutants::answerOf(const Scene& scene, LivePosition& live) const {
  Answer answer;
  answer.scene = scene;
  live.setUp(scene.position);
  live.listMoves(answer.moves);
  for (const Move& move : answer.moves) {
    answer.texts.push_back(game_.moveText(scene.position, move));
    live.play(move);
    answer.after.push_back(live.position());
    live.takeBack();
  }
  return answer;
}

void Mutants::run(const std::function<void(std::uint64_t done)>& progress) {
  StopScope stop(options_.stop);
  SceneOptions how = options_.scenes;
  how.seed = options_.seed;
  how.stop = options_.stop;
  Scenes scenes = findScenes(game_, how);
  met_ = scenes.met;
  std::unique_ptr<LivePosition> live = game_.live();
  for (const Scene& scene : scenes.all) try {
      answers_.push_back(answerOf(scene, *live));
    } catch (const Stopped&) {
      return;
    } catch (const BadInput&) {  // no end, or too many moves: `check` tells of it
    }
  thin();
  std::atomic<std::uint64_t> done{0};
  inParallel(
      mutants_.size(), options_.threads,
      [&](std::uint64_t number, int) {
        studyOrLeave(mutants_[number]);
        if (progress) progress(++done);
      },
      options_.stop);
  if (!wantsStop(options_.stop)) prove();
}

// Leaves as many mutants, evenly, as the plays allow.
void Mutants::thin() {
  constexpr std::size_t atLeast = 8;
  std::size_t each = 1, all = mutants_.size();
  for (const Answer& one : answers_) each += one.moves.size();
  std::size_t wanted = std::max(options_.plays / each, atLeast);
  if (options_.plays == 0 || wanted >= all) return;
  std::vector<Mutant> left;
  for (std::size_t i = 0; i < wanted; ++i) left.push_back(std::move(mutants_[i * all / wanted]));
  mutants_ = std::move(left);
}

// One that cannot be studied to its end is left as if nothing had been seen of it.
void Mutants::studyOrLeave(Mutant& mutant) const {
  Mutant begun = mutant;
  try {
    WorkScope work(limits::mutantSteps);
    study(begun);
    begun.studied = !wantsStop(options_.stop);
    mutant.givenUp = tooMuchWork();
    if (mutant.givenUp) return;
  } catch (const TooMuchWork&) {
    mutant.givenUp = true;
    return;
  }
  if (begun.studied) mutant = std::move(begun);
}

// What the sheet says in every position; nothing if they are too many, or do not say what is legal.
std::vector<Mutants::Answer> Mutants::everyAnswer() const {
  std::vector<Answer> out;
  if (options_.proof == 0 || game_.remembersPositions()) return out;
  std::unique_ptr<LivePosition> live = game_.live();
  PositionStore store(game_);
  store.add(game_.start());
  std::size_t moves = 0;
  Scene scene;
  WorkScope work(limits::partSteps);
  for (std::uint32_t at = 0; at < store.size(); ++at) {
    store.get(at, scene.position);
    Outcome outcome = game_.result(scene.position).outcome();
    if (outcome.kind != ResultKind::ongoing && !outcome.claim) continue;
    try {
      out.push_back(answerOf(scene, *live));
    } catch (const BadInput&) {
      return {};
    }
    moves += out.back().moves.size();
    if (moves > options_.proof || wantsStop(options_.stop)) return {};
    for (const Position& after : out.back().after) store.add(after);
  }
  return out;
}

// Mutants that show nothing in the scenes, in every position: what parts one becomes a scene.
void Mutants::prove() {
  std::vector<std::size_t> silent;
  for (std::size_t i = 0; i < mutants_.size(); ++i)
    if (mutants_[i].studied && mutants_[i].game != nullptr && mutants_[i].shows.empty() &&
        (!options_.unnoticed || mutants_[i].noticedBy.empty()))
      silent.push_back(i);
  if (silent.empty() || wantsStop(options_.stop)) return;
  std::vector<Answer> every = everyAnswer();
  if (every.empty()) return;
  std::vector<std::vector<Difference>> found(silent.size());
  inParallel(
      silent.size(), options_.threads,
      [&](std::uint64_t number, int) {
        Mutant& mutant = mutants_[silent[number]];
        Asked asked(*this, *mutant.game);
        try {
          WorkScope work(limits::mutantSteps);
          for (std::size_t i = 0; i < every.size() && found[number].empty(); ++i) {
            if (wantsStop(options_.stop)) return;
            asked.differences(every[i], static_cast<std::uint32_t>(i), 1, found[number]);
          }
          mutant.same = found[number].empty();
        } catch (const TooMuchWork&) {  // not proved
        }
      },
      options_.stop);
  std::map<std::uint32_t, std::uint32_t> added;  // of every -> of answers_
  for (std::size_t number = 0; number < silent.size(); ++number)
    for (Difference one : found[number]) {
      auto [at, fresh] = added.insert({one.scene, static_cast<std::uint32_t>(answers_.size())});
      if (fresh) answers_.push_back(every[one.scene]);
      one.scene = at->second;
      mutants_[silent[number]].shows.push_back(one);
    }
}

void Mutants::study(Mutant& mutant) const {
  try {
    mutant.game = SheetGame::fromRules(rules::mutated(game_.rules(), mutant.mutation));
  } catch (const BadInput& error) {
    mutant.refused = error.diagnostics().front().message;
    return;
  }
  const SheetGame& game = *mutant.game;
  if (game.program().layout.words != game_.program().layout.words) {
    mutant.game = nullptr;
    mutant.refused = "it remembers other things";
    return;
  }
  if (options_.cases) notice(mutant, &Mutants::failsCase);
  if (!options_.unnoticed || mutant.noticedBy.empty()) show(mutant);
  if (options_.playouts > 0 && mutant.noticedBy.empty() &&
      (!options_.unnoticed || !mutant.shows.empty()))
    notice(mutant, &Mutants::failsPlayouts);
}

void Mutants::show(Mutant& mutant) const {
  const SheetGame& game = *mutant.game;
  auto sameEdges = [](const rules::PieceKind& one, const rules::PieceKind& two) {
    return one.edges == two.edges;
  };
  const std::vector<rules::PieceKind>&kinds = game.rules().kinds, &own = game_.rules().kinds;
  if (game.positionText(game.start()) != game_.positionText(game_.start()) ||
      !std::equal(kinds.begin(), kinds.end(), own.begin(), own.end(), sameEdges))
    mutant.shows.push_back({Difference::Kind::start, 0, -1, -1, -1, {}});
  Asked asked(*this, game);
  for (std::size_t i = 0; i < answers_.size() && !wantsStop(options_.stop); ++i) {
    std::size_t before = mutant.shows.size();
    asked.differences(answers_[i], static_cast<std::uint32_t>(i), limits::movesInPosition,
                      mutant.shows);
    // One that never comes to an end does so everywhere.
    if (mutant.shows.size() > before && mutant.shows.back().kind == Difference::Kind::runaway)
      break;
  }
}

// A mutant that goes wrong while it is looked at is noticed, too.
void Mutants::notice(Mutant& mutant, void (Mutants::*look)(Mutant&) const) const {
  try {
    (this->*look)(mutant);
  } catch (const TooMuchWork&) {
    throw;
  } catch (const BadInput& error) {  // no end, or too many moves: whoever plays it sees it
    mutant.noticedBy = findingName(FindingKind::runaway);
    mutant.noticedLine = error.diagnostics().front().place.line;
    mutant.noticed = error.diagnostics().front().message;
  }
}

void Mutants::failsCase(Mutant& mutant) const {
  std::optional<ExampleRun> run = firstFailure(*mutant.game, options_.stop);
  if (!run) return;
  mutant.noticedBy = findingName(FindingKind::example);
  mutant.noticedLine = run->line;
  mutant.noticed = run->name;
}

void Mutants::failsPlayouts(Mutant& mutant) const {
  CheckOptions check;
  check.playouts = options_.playouts;
  check.seed = options_.seed;
  check.examples = false;
  check.described = false;
  check.stop = options_.stop;
  CheckReport report = verify::check(*mutant.game, check);
  if (report.findings.empty()) return;
  const Finding& finding = report.findings.front();
  mutant.noticedBy = findingName(finding.kind);
  mutant.noticedLine = finding.line;
  mutant.noticed = finding.message;
}

Parting Mutants::parting(const Mutant& mutant, std::size_t budget) const {
  Parting out;
  try {
    StopScope stop(options_.stop);
    WorkScope work(limits::mutantSteps);
    part(mutant, budget, out);
    return out;
  } catch (const Stopped&) {
  } catch (const BadInput&) {  // it takes too long, or comes to no end
  }
  out.shortest = false;  // not all were tried
  return out;
}

void Mutants::part(const Mutant& mutant, std::size_t budget, Parting& out) const {
  if (!mutant.shows.empty() && mutant.shows.front().kind == Difference::Kind::start) {
    out.shortest = true;
    out.difference = mutant.shows.front();
    return;
  }
  struct Node {
    Scene scene;
    std::size_t parent;
    Move move;
  };
  std::vector<Node> nodes;
  std::unordered_set<std::uint64_t> met;
  std::unique_ptr<LivePosition> live = game_.live();
  Asked asked(*this, *mutant.game);
  nodes.push_back({{game_.start(), Steer::uniform, 0, true, {}}, 0, {}});
  met.insert(game_.hash(game_.start()));
  std::vector<Difference> found;
  int best = 0;
  std::size_t work = 0;
  for (std::size_t at = 0; at < nodes.size() && !wantsStop(options_.stop); ++at) {
    if (out.shortest && nodes[at].scene.plies >= best) break;
    if (game_.ended(nodes[at].scene.position)) continue;
    Answer answer = answerOf(nodes[at].scene, *live);
    found.clear();
    asked.differences(answer, 0, 1, found);
    using enum Difference::Kind;
    Difference::Kind kind = found.empty() ? start : found.front().kind;
    bool made = kind == after || kind == result || kind == told || kind == seen;  // by the move
    int length = nodes[at].scene.plies + (made ? 1 : 0);
    if (!found.empty() && (!out.shortest || length < best)) {
      out.moves.clear();
      for (std::size_t i = at; i != 0; i = nodes[i].parent) out.moves.push_back(nodes[i].move);
      std::reverse(out.moves.begin(), out.moves.end());
      if (made) out.moves.push_back(answer.moves[found.front().move]);
      out.shortest = true;
      out.difference = found.front();
      best = length;
    }
    if (out.shortest) continue;
    work += answer.moves.size();
    if (work > budget) break;
    for (std::size_t i = 0; i < answer.moves.size(); ++i)
      if (met.insert(game_.hash(answer.after[i])).second)
        nodes.push_back({{answer.after[i], Steer::uniform, nodes[at].scene.plies + 1, true, {}},
                         at,
                         answer.moves[i]});
  }
}

}  // namespace ninepegs::verify
