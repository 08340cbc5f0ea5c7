#include "ninepegs/compare/lockstep.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/compare/other_game.hpp"
#include "ninepegs/compare/probes.hpp"

namespace ninepegs::compare {
namespace {

constexpr std::uint64_t steersDrawn = 4;    // uniform, putting off, hurrying, rare
constexpr std::size_t probesAPosition = 2;  // of a playout; all of them at its end
constexpr std::size_t beforeKept = 24;
constexpr std::size_t legalAsked = 3;  // moves of a position, where no list is told

std::string resultWords(const Game& game, const Standing::Result& result) {
  if (!result.over) return "not over";
  return result.winner < 0 ? "a draw" : "won by " + game.info().sides[result.winner];
}

std::string inQuotes(const std::string& text) {
  return "\"" + text + "\"";
}

}  // namespace

Lockstep::Lockstep(const Game& game, const Bridge& bridge, const MakeCounterpart& make)
    : game_(game),
      bridge_(bridge),
      make_(make),
      uses_(ruleLinesOf(game).size(), 0),
      live_(game.live(uses_)) {}

Difference Lockstep::difference(Difference::Kind kind, std::string message) {
  Difference out;
  out.kind = kind;
  out.message = std::move(message);
  out.moves = texts_;
  out.position = live_->position();
  if (theirs_) out.theirBoard = theirs_->board;
  return out;
}

// It cannot be asked any further.
Difference Lockstep::failed(const CounterpartFailed& error) {
  Difference out = difference(Difference::Kind::failed, std::string("it ") + error.what());
  out.programExit = error.exitCode();
  counterpart_.reset();
  return out;
}

bool Lockstep::over() {
  Outcome outcome = live_->outcome();
  return outcome.kind != ResultKind::ongoing || live_->moveCount() == 0;
}

void Lockstep::listOurs() {
  Position position = live_->position();
  legal_.clear();
  live_->listMoves(moves_);
  for (const Move& move : moves_) {
    std::string text = game_.moveText(position, move);
    if (bridge_.moves().count(text) > 0) met_.insert(text);
    legal_.push_back(bridge_.move(text));
  }
  std::sort(legal_.begin(), legal_.end());
  legal_.erase(std::unique(legal_.begin(), legal_.end()), legal_.end());
}

std::optional<Difference> Lockstep::begin(Report& report) {
  live_->setUp(game_.start());
  played_.clear();
  texts_.clear();
  before_.clear();
  theirs_.reset();
  try {
    if (!counterpart_) counterpart_ = make_();
    return compared(counterpart_->start(), report);
  } catch (const CounterpartFailed& error) {
    return failed(error);
  }
}

std::optional<Difference> Lockstep::play(const Move& move, Report& report) {
  std::string text = game_.moveText(live_->position(), move);
  std::string theirText = bridge_.move(text);
  std::size_t before = played_.size();
  try {
    std::optional<Standing> theirs = counterpart_->play(theirText);
    if (!theirs) {
      Difference out = difference(Difference::Kind::refused,
                                  fmt::format("{} is legal, and is refused", inQuotes(text)));
      out.input = theirText;
      return out;
    }
    for (const std::string& one : legal_)
      if (before_.size() < beforeKept || one == theirText)
        if (std::find(before_.begin(), before_.end(), one) == before_.end()) before_.push_back(one);
    if (before_.size() > beforeKept) before_.erase(before_.begin());
    live_->play(move);
    played_.push_back(move);
    texts_.push_back(text);
    return compared(*theirs, report);
  } catch (const CounterpartFailed& error) {
    Difference out = failed(error);
    if (played_.size() == before) out.moves.push_back(text);
    return out;
  }
}

std::optional<Difference> Lockstep::compared(const Standing& theirs, Report& report) {
  theirs_ = theirs;
  ++report.positions;
  listOurs();
  Outcome outcome = live_->outcome();
  if (outcome.kind == ResultKind::fault) return std::nullopt;  // `check` tells of it
  Standing::Result ours{outcome.kind != ResultKind::ongoing, outcome.winner};
  if (theirs.result) {
    report.toldResult = true;
    bool unclaimed = outcome.claim && !theirs.result->over;
    if (*theirs.result != ours && !unclaimed)
      return difference(Difference::Kind::result,
                        fmt::format("the sheet says the game is {}, the other says it is {}",
                                    resultWords(game_, ours), resultWords(game_, *theirs.result)));
  }
  if (theirs.turn) {
    report.toldTurn = true;
    if (!ours.over && *theirs.turn != live_->toMove())
      return difference(
          Difference::Kind::turn,
          fmt::format("the sheet says {} is to move, the other says {}",
                      game_.info().sides[live_->toMove()], game_.info().sides[*theirs.turn]));
  }
  if (std::optional<Difference> out = comparedBoard(theirs)) return out;
  if (theirs.board) report.toldBoard = true;
  if (outcome.claim) return std::nullopt;  // the other may have ended it
  return comparedMoves(theirs, report);
}

std::optional<Difference> Lockstep::comparedMoves(const Standing& theirs, Report& report) {
  if (!theirs.moves) return asked(report);
  report.toldMoves = true;
  if (*theirs.moves == legal_) return std::nullopt;
  Difference out = difference(Difference::Kind::moves, "");
  std::set_difference(legal_.begin(), legal_.end(), theirs.moves->begin(), theirs.moves->end(),
                      std::back_inserter(out.onlyOurs));
  std::set_difference(theirs.moves->begin(), theirs.moves->end(), legal_.begin(), legal_.end(),
                      std::back_inserter(out.onlyTheirs));
  out.message = fmt::format("the sheet has {}, the other {}",
                            plural(static_cast<long long>(legal_.size()), "legal move"),
                            theirs.moves->size());
  return out;
}

// Where no list of moves is told: are legal moves legal there?
std::optional<Difference> Lockstep::asked(Report& report) {
  for (std::size_t i = 0; i < legal_.size() && i < legalAsked; ++i) {
    const std::string& text = legal_[i * legal_.size() / std::min(legalAsked, legal_.size())];
    std::optional<bool> legal = counterpart_->isLegal(text);
    if (!legal) return std::nullopt;
    report.toldMoves = true;
    if (*legal) continue;
    Difference out = difference(Difference::Kind::refused,
                                fmt::format("{} is legal, and is said not to be", inQuotes(text)));
    out.input = text;
    return out;
  }
  return std::nullopt;
}

std::optional<Difference> Lockstep::comparedBoard(const Standing& theirs) {
  if (!theirs.board || game_.boards() != 1) return std::nullopt;
  std::map<std::string, std::string> ours = boardOf(game_, live_->position());
  if (ours == *theirs.board) return std::nullopt;
  Difference out = difference(Difference::Kind::board, "");
  auto only = [](const auto& these, const auto& those, std::vector<std::string>& into) {
    for (const auto& [cell, letter] : these) {
      auto other = those.find(cell);
      if (other == those.end() || other->second != letter) into.push_back(cell + " " + letter);
    }
  };
  only(ours, *theirs.board, out.onlyOurs);
  only(*theirs.board, ours, out.onlyTheirs);
  out.message = "what stands on the board is not the same";
  return out;
}

std::optional<Difference> Lockstep::probe(Stream* stream, std::size_t many, Report& report) {
  std::vector<Probe> probes = probesOf(game_, live_->position(), legal_, before_, bridge_);
  try {
    for (std::size_t i = 0; i < (many == 0 ? probes.size() : std::min(many, probes.size())); ++i) {
      if (many > 0)
        std::swap(probes[i],
                  probes[i + stream->below(static_cast<std::uint32_t>(probes.size() - i))]);
      const Probe& one = probes[i];
      bool takes = false;
      const char* how = "is taken";
      if (std::optional<bool> legal = counterpart_->isLegal(one.text); legal && *legal) {
        takes = true;
        how = "is said to be legal";
      } else if (counterpart_->play(one.text)) {
        takes = true;
      }
      if (takes) {
        Difference out = difference(Difference::Kind::accepted,
                                    fmt::format("{} {}: {}", inQuotes(one.text), how, one.what));
        out.input = one.text;
        return out;
      }
      ++report.probes;
    }
  } catch (const CounterpartFailed& error) {
    return failed(error);
  }
  return std::nullopt;
}

std::optional<Difference> Lockstep::playOut(std::uint64_t number, const Options& options, int plies,
                                            Report& report) {
  Stream stream(options.seed, number);
  std::fill(uses_.begin(), uses_.end(), 0);
  verify::Steering steering(*live_, uses_);
  auto steer = static_cast<verify::Steer>(number % steersDrawn);
  std::optional<Difference> out = begin(report);
  for (int ply = 0; !out; ++ply) {
    bool ended = over() || ply >= plies;
    if (options.probes && !live_->outcome().claim)
      if ((out = probe(&stream, ended ? 0 : probesAPosition, report))) break;
    if (ended || wantsStop(options.stop)) break;
    live_->listMoves(moves_);
    MoveList moves = moves_;
    out = play(steering.drawn(moves, steer, stream), report);
  }
  if (out) out->playout = number;
  return out;
}

}  // namespace ninepegs::compare
