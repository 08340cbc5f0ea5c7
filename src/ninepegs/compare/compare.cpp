#include "ninepegs/compare/compare.hpp"

#include <algorithm>
#include <atomic>
#include <map>
#include <mutex>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/compare/lockstep.hpp"

namespace ninepegs::compare {
namespace {

constexpr std::uint64_t aPiece = 8;
constexpr std::uint64_t shorterTries = 300;  // games in vain until no shorter one is looked for

void add(Report& to, const Report& from) {
  to.playouts += from.playouts;
  to.positions += from.positions;
  to.probes += from.probes;
  to.toldMoves = to.toldMoves || from.toldMoves;
  to.toldTurn = to.toldTurn || from.toldTurn;
  to.toldResult = to.toldResult || from.toldResult;
  to.toldBoard = to.toldBoard || from.toldBoard;
}

// Games of fewer and fewer plies, until so many show nothing; then all games from the shortest up.
class Shortener {
 public:
  Shortener(Lockstep& lockstep, const Game& game, const Options& options)
      : lockstep_(lockstep), game_(game), options_(options) {}

  Difference shortened(Difference found) {
    shorter(found);
    if (std::optional<Difference> least = level(found.moves.size())) {
      least->playout = found.playout;
      found = std::move(*least);
    }
    found.shortest = complete_;
    return found;
  }

 private:
  bool spent() const { return spent_ > options_.shortenBudget || wantsStop(options_.stop); }

  void shorter(Difference& found) {
    Options options = options_;
    options.seed ^= 0x73686f7274;
    for (std::uint64_t number = 0, vain = 0; vain < shorterTries && !spent(); ++number) {
      if (found.moves.empty()) return;
      Report report;
      int plies = static_cast<int>(found.moves.size()) - 1;
      std::optional<Difference> next = lockstep_.playOut(number, options, plies, report);
      spent_ += report.positions + report.probes;
      ++vain;
      if (!next || next->kind == Difference::Kind::failed) continue;
      std::uint64_t playout = found.playout;
      found = std::move(*next);
      found.playout = playout;
      vain = 0;
    }
  }

  // Level by level through all different positions of fewer plies; `complete_` tells if the budget
  // was enough.
  std::optional<Difference> level(std::size_t longest) {
    std::vector<std::vector<Move>> here = {{}}, next;
    std::set<std::vector<std::uint64_t>> seen = {game_.identity(game_.start())};
    for (std::size_t depth = 0; depth < longest && !here.empty(); ++depth, here = std::move(next)) {
      next.clear();
      for (const std::vector<Move>& way : here) {
        if (spent()) return std::nullopt;
        if (std::optional<Difference> found = lookAt(way, depth == 0)) return found;
        MoveList moves;
        lockstep_.live().setUp(game_.start());
        for (const Move& move : way) lockstep_.live().play(move);
        if (lockstep_.live().ended()) continue;
        lockstep_.live().listMoves(moves);
        for (const Move& move : moves) {
          lockstep_.live().play(move);
          bool fresh = seen.insert(game_.identity(lockstep_.live().position())).second;
          lockstep_.live().takeBack();
          if (!fresh) continue;
          next.push_back(way);
          next.back().push_back(move);
        }
      }
    }
    complete_ = true;
    return std::nullopt;
  }

  std::optional<Difference> lookAt(const std::vector<Move>& way, bool first) {
    Report report;
    std::optional<Difference> found = lockstep_.begin(report);
    if (found) return first ? found : std::nullopt;
    for (std::size_t i = 0; i < way.size(); ++i) {
      found = lockstep_.play(way[i], report);
      if (found) break;
    }
    if (!found && options_.probes && !lockstep_.live().outcome().claim)
      found = lockstep_.probe(nullptr, 0, report);
    spent_ += report.positions + report.probes;
    if (found && found->kind == Difference::Kind::failed) return std::nullopt;
    if (found) complete_ = true;
    return found;
  }

  Lockstep& lockstep_;
  const Game& game_;
  const Options& options_;
  std::uint64_t spent_ = 0;
  bool complete_ = false;
};

}  // namespace

std::string kindName(Difference::Kind kind) {
  static const char* const names[] = {"moves",   "turn",     "result", "board",
                                      "refused", "accepted", "failed"};
  return names[static_cast<int>(kind)];
}

Report compare(const Game& game, const Bridge& bridge, const MakeCounterpart& make,
               const Options& options) {
  std::uint64_t pieces = (options.playouts + aPiece - 1) / aPiece;
  int threads = static_cast<int>(std::min<std::uint64_t>(pieces, options.threads));
  std::atomic<std::uint64_t> first{options.playouts}, done{0};  // the first playout that differs
  std::map<std::uint64_t, Report> reports;                      // by piece
  std::set<std::string> met;
  std::mutex mutex;
  std::vector<std::unique_ptr<Lockstep>> locksteps(static_cast<std::size_t>(std::max(1, threads)));
  inParallel(
      pieces, threads,
      [&](std::uint64_t piece, int thread) {
        // A program ends with the thread that started it, so each thread makes its own.
        std::unique_ptr<Lockstep>& lockstep = locksteps[static_cast<std::size_t>(thread)];
        if (!lockstep) lockstep = std::make_unique<Lockstep>(game, bridge, make);
        Report report;
        std::uint64_t end = std::min(options.playouts, (piece + 1) * aPiece);
        for (std::uint64_t number = piece * aPiece; number < end; ++number) {
          if (number > first || wantsStop(options.stop)) break;
          report.difference = lockstep->playOut(number, options, options.plyLimit, report);
          if (wantsStop(options.stop)) {
            report.difference.reset();
            break;
          }
          ++report.playouts;
          if (!report.difference) continue;
          for (std::uint64_t was = first;
               number < was && !first.compare_exchange_weak(was, number);) {
          }
          break;
        }
        std::uint64_t now = done += report.playouts;
        std::lock_guard lock(mutex);
        met.insert(lockstep->met().begin(), lockstep->met().end());
        reports[piece] = std::move(report);
        if (options.progress) options.progress(now);
      },
      options.stop);
  Report out;
  for (auto& [piece, report] : reports) {
    if (piece * aPiece > first) break;
    add(out, report);
    if (report.difference) out.difference = std::move(report.difference);
    if (out.difference) break;
  }
  out.stopped = wantsStop(options.stop);
  for (const auto& [ours, theirs] : bridge.moves())
    if (met.count(ours) == 0) out.unmet.push_back(ours);
  locksteps.clear();
  if (out.difference && out.difference->kind != Difference::Kind::failed && !out.stopped) {
    Lockstep lockstep(game, bridge, make);
    out.difference = Shortener(lockstep, game, options).shortened(std::move(*out.difference));
  }
  return out;
}

}  // namespace ninepegs::compare
