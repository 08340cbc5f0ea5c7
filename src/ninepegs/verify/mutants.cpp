#include "ninepegs/verify/mutants.hpp"

#include <algorithm>
#include <atomic>
#include <map>

#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/parallel.hpp"
#include "ninepegs/verify/asked.hpp"
#include "ninepegs/verify/check.hpp"
#include "ninepegs/verify/examples.hpp"
#include "ninepegs/verify/position_store.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {

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

}  // namespace ninepegs::verify
