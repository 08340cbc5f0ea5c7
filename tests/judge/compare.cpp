#include "judge/compare.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "judge/same_games.hpp"
#include "ninepegs/base/random.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/sheet/syntax/parser.hpp"
#include "ninepegs/verify/examples.hpp"

namespace ninepegs::judge {
namespace {

std::string outcomeText(const Outcome& outcome) {
  Result result;
  result.kind = static_cast<ResultKind>(outcome.kind);
  result.winner = outcome.winner;
  result.name = outcome.name;
  result.end = outcome.end;
  result.claim = outcome.claim;
  result.line = outcome.line;
  return judge::outcomeText(result);
}

struct Parted {
  std::string how;
};

class Comparison {
 public:
  Comparison(const SheetGame& game, const sheet::Tree& tree, const CompareOptions& options,
             Compared& out)
      : game_(game), judge_(tree, game.board()), tree_(tree), options_(options), out_(out) {
    judge_.uses = options.uses;
  }

  void run() {
    Position start = game_.start();
    State mine = judge_.start();
    same("the start", judge_.text(mine), game_.positionText(start));
    for (int number = 0; number < options_.games; ++number) {
      Stream stream(options_.seed, static_cast<std::uint64_t>(number));
      path_.clear();
      play(start, mine, stream);
    }
    if (options_.cases) cases();
  }

 private:
  void same(const std::string& what, const std::string& slow, const std::string& fast) {
    if (slow == fast) return;
    throw Parted{
        fmt::format("{} after [{}]:\n  slow {}\n  fast {}", what, joined(path_, ", "), slow, fast)};
  }

  static std::string texts(const std::string& text, const std::string& seen,
                           const std::vector<std::string>& told) {
    return text + (seen == text ? "" : ", seen as " + seen) +
           (told.empty() ? "" : ", told " + joined(told, "|"));
  }

  void play(Position position, State state, Stream& stream) {
    Position positionBefore = position;
    State stateBefore = state;
    for (int ply = 0; ply <= options_.plies; ++ply) {
      judge_.spent = 0;
      look(position, state, positionBefore, stateBefore);
      positionBefore = position;
      stateBefore = State(state);
      std::vector<Way> ways = judge_.moves(state);
      MoveList moves;
      game_.listMoves(position, moves);
      struct Made {
        Move move;
        MoveTexts texts;
        Position after;
        std::string key;
      };
      // How a move that goes wrong is written depends on how far it came.
      auto keyOf = [](const std::string& text, const std::string& after, const std::string& end) {
        return (end.starts_with("fault") ? "" : text + " -> ") + after + " (" + end + ")";
      };
      // Of many moves, the texts of all and a few in full.
      std::vector<std::string> slow, fast;
      for (const Way& way : ways)
        slow.push_back(keyOf(texts(way.text, way.seen, way.told), judge_.text(way.after),
                             outcomeText(way.after.outcome)));
      std::vector<Made> made;
      for (const Move& move : moves) {
        Made one{move, game_.textsOf(position, move), position, ""};
        game_.apply(one.after, move);
        one.key = keyOf(texts(one.texts.text, one.texts.seen, one.texts.told),
                        game_.positionText(one.after), judge::outcomeText(game_.result(one.after)));
        fast.push_back(one.key);
        made.push_back(std::move(one));
      }
      std::vector<std::string> slowSorted = slow, fastSorted = fast;
      std::sort(slowSorted.begin(), slowSorted.end());
      std::sort(fastSorted.begin(), fastSorted.end());
      for (std::vector<std::string>* keys : {&slowSorted, &fastSorted}) {
        std::set<std::string> faults;
        std::erase_if(*keys, [&](const std::string& key) {
          return key.find(" (fault ") != key.npos && !faults.insert(key).second;
        });
      }
      if (slowSorted != fastSorted) {
        auto only = [](const std::vector<std::string>& a, const std::vector<std::string>& b) {
          std::vector<std::string> rest;
          std::set_difference(a.begin(), a.end(), b.begin(), b.end(), std::back_inserter(rest));
          if (rest.size() > 4) rest.resize(4);
          return joined(rest, "\n       ");
        };
        same(fmt::format("legal moves in {}", judge_.text(state)),
             fmt::format("{}, only here: {}", slow.size(), only(slowSorted, fastSorted)),
             fmt::format("{}, only here: {}", fast.size(), only(fastSorted, slowSorted)));
      }
      out_.moves += made.size();
      if (made.empty() || out_.moves > options_.moves) return;
      std::uint32_t chosen = stream.below(static_cast<std::uint32_t>(made.size()));
      auto way = std::find(slow.begin(), slow.end(), made[chosen].key);
      path_.push_back(made[chosen].texts.text);
      position = made[chosen].after;
      state = State(ways[static_cast<std::size_t>(way - slow.begin())].after);
      if (state.outcome.kind == Outcome::Kind::fault) return;
    }
  }

  // What is asked of a position by itself.
  void look(const Position& position, const State& state, const Position& positionBefore,
            const State& stateBefore) {
    ++out_.positions;
    std::vector<std::string> slow, fast;
    for (const Outcome& one : judge_.endsThatHold(state, stateBefore))
      slow.push_back(outcomeText(one));
    for (const Result& one : game_.endsThatHold(position, &positionBefore))
      fast.push_back(judge::outcomeText(one));
    same("ends that hold", joined(slow, "; "), joined(fast, "; "));
    for (int side = 0; side < 2; ++side) {
      if (game_.measure() != nullptr)
        same(fmt::format("worth for {}", side), std::to_string(judge_.worth(state, side)),
             std::to_string(game_.worth(position, side)));
      for (std::size_t i = 0; i < tree_.always.size(); ++i)
        same(fmt::format("invariant {} for {}", i, side),
             std::to_string(judge_.invariant(i, state, side)),
             std::to_string(game_.invariantValue(i, position, side)));
      if (game_.secrets() == nullptr) continue;
      Seen mine = judge_.seen(state, side);
      View view = game_.viewOf(position, side);
      same(fmt::format("the view of {}", side), judge_.text(mine.shown),
           game_.positionText(view.shown));
      same(fmt::format("the words of {}", side), joined(mine.words, " "), joined(view.words, " "));
      for (std::size_t i = 0; i < view.marks.size() && i < mine.marks.size(); ++i) {
        Cells cells;
        for (Cell cell = 0; cell < game_.board().size(); ++cell)
          if (view.marks[i].cells[cell]) cells.insert(cell);
        if (cells != mine.marks[i])
          same(fmt::format("line {} of the view of {}", i, side), "other cells", "");
      }
    }
    // The position's text is the position.
    Position again = game_.readPosition(game_.positionText(position), "test");
    same("read back", game_.positionText(position), game_.positionText(again));
  }

  void cases() {
    std::vector<Judge::CaseVerdict> slow = judge_.cases();
    std::size_t at = 0;
    for (const verify::ExampleRun& run : verify::runExamples(game_, 1)) {
      if (run.variant != game_.info().variant) continue;
      if (at >= slow.size()) throw Parted{"there are fewer cases"};
      const Judge::CaseVerdict& verdict = slow[at++];
      if (!verdict.known || (verdict.passes && !verdict.whole)) continue;
      same("case " + run.name, verdict.passes ? "passes" : "fails",
           run.findings.empty() ? "passes" : "fails");
    }
  }

  const SheetGame& game_;
  Judge judge_;
  const sheet::Tree& tree_;
  const CompareOptions& options_;
  Compared& out_;
  std::vector<std::string> path_;
};

}  // namespace

Compared compare(const SheetGame& game, const std::string& text, const CompareOptions& options) {
  Compared out;
  std::vector<Diagnostic> found;
  sheet::Source source(game.info().source, text);
  sheet::Tree tree = sheet::parse(source, game.info().variant, found);
  try {
    Comparison(game, tree, options, out).run();
  } catch (const Parted& parted) {
    out.difference = parted.how;
  } catch (const TooMuch&) {
    out.tooMuch = true;
  } catch (const RunawayRules&) {
    out.tooMuch = true;
  } catch (const BadInput& error) {
    out.tooMuch = std::string(error.what()).find("the limit") != std::string::npos;
    if (!out.tooMuch) out.difference = error.what();
  }
  return out;
}

Compared compare(const std::string& text, const std::string& variant,
                 const CompareOptions& options) {
  std::shared_ptr<const SheetGame> game;
  try {
    game = SheetGame::fromText("test.pegs", text, variant);
  } catch (const BadInput&) {
    Compared out;
    out.refused = true;
    return out;
  }
  return compare(*game, text, options);
}

}  // namespace ninepegs::judge
