// A Game whose rules come from a game sheet.
#pragma once

#include <memory>
#include <mutex>
#include <string>
#include <string_view>

#include "ninepegs/game/game.hpp"
#include "ninepegs/sheet/plan/shortcuts.hpp"
#include "ninepegs/sheet/program/program.hpp"
#include "ninepegs/sheet/rules/rules.hpp"

namespace ninepegs {

template <int W>
class SheetLive;

class SheetGame final : public Game, public GameChecks, public GameSecrets, public GameWorth {
 public:
  // Compiles a sheet's text; `path` is its name in messages. With a variant's name, that variant.
  // Throws BadInput with every message about the sheet. `without` switches shortcuts of the
  // compiler off, for tests. `cases` are further cases of the sheet, kept in a file of their own.
  struct CasesFile {
    std::string path, text;  // no path: there is none
  };
  static std::shared_ptr<const SheetGame> fromText(const std::string& path, std::string text,
                                                   const std::string& variant = {},
                                                   sheet::Shortcuts without = 0,
                                                   CasesFile cases = {});

  // The game that rules are. It has no variants: rules hold one game.
  static std::shared_ptr<const SheetGame> fromRules(rules::Rules rules,
                                                    sheet::Shortcuts without = 0);

  const GameInfo& info() const override { return info_; }
  const GameChecks* checks() const override { return this; }
  const GameSecrets* secrets() const override { return rules_.hasSecrets ? this : nullptr; }
  const GameWorth* measure() const override { return program_.worth[0] >= 0 ? this : nullptr; }
  const Geometry& board() const override { return rules_.board; }
  Position start() const override { return start_; }
  int toMove(const Position& position) const override;
  void listMoves(const Position& position, MoveList& moves) const override;
  void apply(Position& position, const Move& move) const override;
  Result result(const Position& position) const override;
  std::uint64_t countMoves(const Position& position) const override;
  bool isLegal(const Position& position, const Move& move) const override;
  std::string moveText(const Position& position, const Move& move) const override;
  MoveTexts textsOf(const Position& position, const Move& move) const override;
  std::vector<std::string> otherTexts(const Position& position, const Move& move) const override;
  std::string notation(const Position& position) const override;
  std::vector<std::string> besideNotation(const Position& position) const override;
  std::string positionText(const Position& position) const override;
  Position readPosition(std::string_view text, const std::string& source) const override;
  int boards() const override { return rules_.layered() ? 2 : 1; }
  std::optional<Piece> pieceAt(const Position& position, Cell cell, int board) const override;
  std::vector<Cell> cellsOf(const Position& position, const Move& move) const override;
  View viewOf(const Position& position, int side) const override;
  std::vector<RuleLine> viewLines() const override;
  const Looks& looks() const override { return rules_.picture.looks; }
  CellSet cellsOfEnd(const Position& position, int end) const override;
  bool remembersPositions() const override { return program_.layout.seen != 0; }
  std::int64_t worth(const Position& position, int side) const override;
  std::uint64_t hash(const Position& position) const override;
  std::vector<std::uint64_t> identity(const Position& position) const override;
  std::unique_ptr<LivePosition> live(std::span<std::uint64_t> uses = {}) const override;
  std::unique_ptr<Hearing> hearing() const override;
  std::vector<RuleLine> ruleLines() const override;
  std::vector<Result> endsThatHold(const Position& position,
                                   const Position* before = nullptr) const override;
  std::vector<Invariant> invariants() const override;
  std::int64_t invariantValue(std::size_t index, const Position& position, int side) const override;
  std::vector<RuleLine> forbiddenThatHold(const Position& position) const override;
  std::vector<Symmetry> symmetries() const override;
  Position alone(const Position& position) const override;
  std::vector<RuleLine> conditionParts() const override;
  std::vector<Symmetry> possibleSymmetries() const override;
  // Those of the board that certainly change nothing (rules::keeps), but for the identity.
  std::vector<Symmetry> keptSymmetries() const;
  Position mapped(const Position& position, const Symmetry& symmetry) const override;
  std::vector<Example> examples() const override;
  bool conditionHolds(int index, const Position& position) const override;
  std::string conditionValues(int index, const Position& position) const override;
  std::shared_ptr<const Game> variant(const std::string& name) const override;

  const sheet::Program& program() const { return program_; }
  const rules::Rules& rules() const { return rules_; }
  static Outcome outcomeOf(std::uint64_t word);
  // Are two positions the same but for their results and for earlier positions? The second may be
  // of another game, if that remembers the same things in as many words.
  bool sameButResult(const Position& one, const Position& two) const;

 private:
  template <int W>
  friend class SheetLive;
  template <int W>
  friend class SheetHearing;
  SheetGame() = default;
  static std::shared_ptr<SheetGame> made(rules::Rules rules, sheet::Shortcuts without);
  void judge(Position& position) const;  // works out the result of a position that was set up
  void exchangeSides(Position& position) const;  // but for what stands on cells
  Result decoded(std::uint64_t word) const;
  std::string firstMoves() const;
  std::string faultText(std::uint64_t word) const;
  int lastMover(const Position& position) const;
  // Earlier positions follow the words of a position, one hash each.
  std::span<const std::uint64_t> earlier(const Position& position) const;
  void remember(Position& position) const;
  template <class Machine>
  void load(Machine& machine, const Position& position) const {
    machine.load(position.words.data());
    machine.remember(earlier(position));
  }
  void requireSound(const Position& position, const std::string& text,
                    const std::string& source) const;
  void dropRepeated(const Position& position, MoveList& moves) const;
  std::int64_t applied(Position& position, const Move& move) const;  // steps that it took
  // Are there ways among the bundles that may come to the same?
  template <class Bundles>
  bool doubtful(const Bundles& found) const {
    if (!mayRepeat_) return false;
    if (found.overflown) return true;
    for (int i = 0; i < found.used; ++i) {
      const auto& bundle = found.bundles[i];
      if (bundle.group == sheet::passGroup || !program_.groups[bundle.group].mayRepeat) continue;
      const auto* first = found.bundles;  // of the same move
      while (first->group != bundle.group) ++first;
      const std::vector<int>& unwritten = program_.groups[bundle.group].unwritten;
      if (unwritten.empty() && (first != &bundle || bundle.moves > 1)) return true;
      for (int place : unwritten) {
        int one = found.choiceOf(bundle, place);
        if (one < 0 || one != found.choiceOf(*first, place)) return true;
      }
    }
    return false;
  }
  bool doubtful(const MoveList& moves) const;
  void fillInfo();
  const sheet::Program& counting(bool parts) const;
  void setUp(std::vector<Diagnostic>& found);
  Example example(const rules::CaseRule& one, int& conditions,
                  std::vector<Diagnostic>& found) const;

  std::string text_;
  CasesFile cases_;
  sheet::Shortcuts without_ = 0;
  GameInfo info_;
  rules::Rules rules_;
  sheet::Program program_;
  // They count how often each statement is used; the second also how often parts of conditions
  // hold.
  mutable std::once_flag countingMade_[2];
  mutable sheet::Program counting_[2];
  bool mayRepeat_ = false;                // two moves of a position may come to the same
  std::vector<std::size_t> hashedWords_;  // by which positions differ
  Position start_;
  std::vector<Example> examples_;
};

}  // namespace ninepegs
