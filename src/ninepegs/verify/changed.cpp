#include "ninepegs/verify/changed.hpp"

#include <algorithm>

#include "ninepegs/base/random.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/verify/case_text.hpp"
#include "ninepegs/verify/inspect.hpp"
#include "ninepegs/verify/work.hpp"

namespace ninepegs::verify {
namespace {

constexpr std::uint64_t ownDraws = 0x6368616e6765;  // the streams that draw them
constexpr std::size_t triesEach = 12;
constexpr std::uint32_t longest = 120;  // plies of a game that is changed
constexpr std::uint32_t mostBack = 6;   // ... from its end

class Changer {
 public:
  Changer(const Game& game, const ChangedOptions& options)
      : game_(game), options_(options), live_(game.live()) {
    for (const GameInfo::Kind& kind : game.info().kinds)
      for (const std::string& letter : kind.letters)
        if (!letter.empty()) letters_.push_back(letter);
  }

  std::vector<Position> run() {
    std::vector<Position> out;
    WorkScope work(limits::partSteps);
    for (std::size_t number = 0; number < triesEach * options_.most; ++number) {
      if (out.size() == options_.most || wantsStop(options_.stop) || tooMuchWork()) break;
      Stream stream(options_.seed ^ ownDraws, number);
      try {
        Position one = changed(base(stream), stream);
        if (isFit(one)) out.push_back(std::move(one));
      } catch (const BadInput&) {  // no such position can be, or its rules come to no end
      }
    }
    return out;
  }

 private:
  Position base(Stream& stream) {
    auto bases = static_cast<std::uint32_t>(options_.bases.size());
    if (bases > 0 && stream.below(2) == 0) return options_.bases[stream.below(bases)];
    live_->setUp(game_.start());
    std::uint32_t plies = stream.below(longest), played = 0;
    while (played < plies && !live_->ended() && live_->playDrawn(stream)) ++played;
    if (live_->ended())
      for (std::uint32_t back = 1 + stream.below(mostBack); back > 0 && played > 0;
           --back, --played)
        live_->takeBack();
    return live_->position();
  }

  // One or two changes, made in the text of the position.
  Position changed(const Position& position, Stream& stream) {
    std::vector<std::string> parts = splitTrimmed(game_.positionText(position), ';');
    std::size_t pictures = 1;
    while (pictures < parts.size() && pictures < static_cast<std::size_t>(game_.boards()))
      ++pictures;
    for (std::uint32_t changes = 1 + stream.below(2); changes > 0; --changes) {
      std::string& part = parts[stream.below(static_cast<std::uint32_t>(pictures))];
      std::size_t at = 0;  // where the picture begins
      if (part.rfind("picture of ", 0) == 0) at = part.find(' ', 11) + 1;
      std::vector<std::vector<std::string>> rows = pictureRows(part.substr(at));
      change(rows, stream);
      std::vector<std::string> lines;
      for (const std::vector<std::string>& row : rows) lines.push_back(joined(row, ""));
      part = part.substr(0, at) + joined(lines, "/");
    }
    return game_.readPosition(joined(parts, "; "), "changed");
  }

  void change(std::vector<std::vector<std::string>>& rows, Stream& stream) const {
    std::vector<std::string*> cells;
    for (std::vector<std::string>& row : rows)
      for (std::string& symbol : row)
        if (symbol != "_") cells.push_back(&symbol);
    if (cells.empty() || letters_.empty()) return;
    auto any = [&](const auto& list) {
      return list[stream.below(static_cast<std::uint32_t>(list.size()))];
    };
    std::string& cell = *any(cells);
    std::string& other = *any(cells);
    std::uint32_t how = stream.below(3);
    if (cell == "." || how == 0)
      cell = any(letters_);
    else if (how == 1)
      cell = ".";
    else
      std::swap(cell, other);
  }

  bool isFit(const Position& position) const {
    Outcome outcome = game_.result(position).outcome();
    if (outcome.kind != ResultKind::ongoing && !outcome.claim) return false;
    return brokenInvariants(game_, position).empty() && game_.countMoves(position) > 0;
  }

  const Game& game_;
  const ChangedOptions& options_;
  std::unique_ptr<LivePosition> live_;
  std::vector<std::string> letters_;
};

}  // namespace

std::vector<Position> changedPositions(const Game& game, const ChangedOptions& options) {
  return Changer(game, options).run();
}

}  // namespace ninepegs::verify
