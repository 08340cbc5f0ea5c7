#include "ninepegs/play/tuning.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "ninepegs/play/logistic.hpp"
#include "ninepegs/play/other_worth.hpp"

namespace ninepegs::play {
namespace {

constexpr int openingPlies = 6;  // of games to learn from
constexpr std::size_t positionsAGame = 8;
constexpr double surely = 2;  // standard errors from nothing
constexpr double leastTimes = 10, usualTimes = 100, mostTimes = 100'000;
constexpr std::uint64_t drawnPositions = 0x74756e65;  // the stream that draws them

std::vector<std::string> candidates(const SheetGame& game) {
  const rules::Rules& rules = game.rules();
  std::vector<std::string> out;
  bool reach = false;
  std::size_t kinds = 0;
  for (const rules::PieceKind& kind : rules.kinds) {
    if (kind.neutral) continue;
    ++kinds;
    reach = reach || kind.reach != nullptr;
    out.push_back(fmt::format("count my {}", kind.name));
  }
  if (kinds == 1) out = {"count mine"};
  if (rules.hasHands) out.emplace_back("count my hand");
  out.emplace_back("my moves");
  if (reach && !rules.hasEdges) out.emplace_back("count my reach");
  for (std::string& term : openLineTerms(game)) out.push_back(std::move(term));
  for (const rules::ZoneRule& zone : rules.zones)
    out.push_back(fmt::format("count (mine on {}{})", zone.bySide ? "my " : "", zone.name));
  for (const rules::MarkRule& mark : rules.marks)
    if (mark.each) out.push_back(fmt::format("count my {}", mark.name));
  for (const rules::NumberRule& number : rules.numbers)
    if (number.each && !number.onCells) out.push_back(fmt::format("my {}", number.name));
  out.emplace_back("count (mine on step any from mine)");
  out.emplace_back("count (empty on step any from mine)");
  return out;
}

// A term that may count, and the game that measures positions by it alone.
struct Candidate {
  std::string term;
  std::shared_ptr<const SheetGame> game;
};

std::vector<Candidate> measures(const SheetGame& game) {
  std::vector<Candidate> out;
  for (const std::string& term : candidates(game)) {
    try {
      std::shared_ptr<const SheetGame> one = withWorth(game, term);
      // It reads the positions of this game.
      if (one->start() == game.start()) out.push_back({term, one});
    } catch (const BadInput&) {  // the board or the pieces have no such thing
    }
  }
  return out;
}

// Searches positions as another game does that has the same moves and positions.
class ByOtherWorth final : public Opponent {
 public:
  ByOtherWorth(std::shared_ptr<const SheetGame> game, std::uint64_t nodes)
      : game_(std::move(game)), search_(makeSearch({.nodes = nodes})) {}
  Choice choose(const Game&, const Position& position, Stream& stream) override {
    search_->stopWith(stop_);
    return search_->choose(*game_, position, stream);
  }
  Choice chooseKnowing(const Game& game, const Knowledge& knowledge, Stream& stream) override {
    return search_->chooseKnowing(game, knowledge, stream);
  }
  std::string name() const override { return "tuned"; }

 private:
  std::shared_ptr<const SheetGame> game_;
  std::unique_ptr<Opponent> search_;
};

// Positions of games, each measured by every candidate, with how its game went for the first side.
struct Table {
  std::vector<std::vector<double>> rows;  // and last: 1, and 1 or -1 by the side to move
  std::vector<double> results;
};

Table measured(const SheetGame& game, const std::vector<Candidate>& by, const Series& series,
               std::uint64_t seed) {
  Table out;
  for (const SeriesGame& one : series.games) {
    Position position = game.start();
    std::vector<Position> met;
    for (const Move& move : one.played) {
      if (&move - one.played.data() >= one.opening) met.push_back(position);
      game.apply(position, move);
    }
    Stream stream(seed ^ drawnPositions, one.number);
    for (std::size_t i = 0; i < positionsAGame && !met.empty(); ++i) {
      const Position& at = met[stream.below(static_cast<std::uint32_t>(met.size()))];
      std::vector<double> row;
      for (const Candidate& candidate : by)
        row.push_back(static_cast<double>(candidate.game->worth(at, 0)));
      row.push_back(1);
      row.push_back(game.toMove(at) == 0 ? 1 : -1);
      out.rows.push_back(std::move(row));
      out.results.push_back(one.winner < 0 ? 0.5 : one.winner == 0 ? 1 : 0);
    }
  }
  return out;
}

// How far the values of each column lie apart.
std::vector<double> spreads(const Table& table) {
  std::vector<double> out;
  for (std::size_t k = 0; k < table.rows.front().size(); ++k) {
    double sum = 0, squares = 0;
    for (const auto& row : table.rows) sum += row[k], squares += row[k] * row[k];
    auto count = static_cast<double>(table.rows.size());
    out.push_back(std::sqrt(std::max(0.0, squares / count - (sum / count) * (sum / count))));
  }
  return out;
}

// The fit of some columns, each divided by its spread, and of the last two.
Logistic fitOf(const Table& table, const std::vector<std::size_t>& columns,
               const std::vector<double>& spread) {
  std::vector<std::vector<double>> rows;
  for (const auto& row : table.rows) {
    std::vector<double> one;
    for (std::size_t k : columns) one.push_back(row[k] / spread[k]);
    one.insert(one.end(), row.end() - 2, row.end());
    rows.push_back(std::move(one));
  }
  return fitLogistic(rows, table.results);
}

std::string worthLine(const std::vector<Tuned::Part>& parts) {
  std::string out;
  for (const Tuned::Part& part : parts) {
    if (part.times == 0) continue;
    if (out.empty())
      out = fmt::format("{} * {}", part.times, part.term);
    else
      out +=
          fmt::format(" {} {} * {}", part.times > 0 ? '+' : '-', std::abs(part.times), part.term);
  }
  return out;
}

}  // namespace

Tuned tune(const SheetGame& game, const TuneOptions& options) {
  Tuned out;
  std::vector<Candidate> by = measures(game);
  std::string search = nameOf(SearchLimits{.nodes = options.nodes});
  SeriesOptions how;
  how.games = options.games;
  how.seed = options.seed;
  how.threads = options.threads;
  how.opening = openingPlies;
  how.stop = options.stop;
  how.progress = options.progress;
  Series series = playSeries(game, {search, search}, how);
  out.games = series.games.size();
  Table table = measured(game, by, series, options.seed);
  out.positions = table.rows.size();
  out.stopped = wantsStop(options.stop);
  if (out.stopped || table.rows.empty()) return out;

  std::vector<double> spread = spreads(table);
  std::vector<std::size_t> columns;
  for (std::size_t k = 0; k < by.size(); ++k)
    if (spread[k] > 0) columns.push_back(k);
  out.before = fitOf(table, {}, spread).loss;
  // Positions of one game tell the same of who wins: errors are as of so many games.
  double apart = std::sqrt(static_cast<double>(positionsAGame));
  Logistic fit;
  auto part = [&](std::size_t i) {
    double unit = spread[columns[i]];
    return Tuned::Part{by[columns[i]].term, fit.weights[i] / unit, fit.errors[i] * apart / unit, 0};
  };
  auto size = [](const Tuned::Part& one) { return std::abs(one.weight); };
  auto sure = [&](const Tuned::Part& one) { return size(one) / one.error; };
  std::vector<Tuned::Part> left;
  while (!columns.empty()) {
    fit = fitOf(table, columns, spread);
    out.parts.clear();
    for (std::size_t i = 0; i < columns.size(); ++i) out.parts.push_back(part(i));
    auto worst = std::min_element(out.parts.begin(), out.parts.end(),
                                  [&](const auto& a, const auto& b) { return sure(a) < sure(b); });
    if (sure(*worst) >= surely) break;
    left.push_back(*worst);
    columns.erase(columns.begin() + (worst - out.parts.begin()));
    out.parts.erase(worst);
  }
  out.after = columns.empty() ? out.before : fit.loss;
  if (!out.parts.empty()) {
    auto [least, most] =
        std::minmax_element(out.parts.begin(), out.parts.end(),
                            [&](const auto& a, const auto& b) { return size(a) < size(b); });
    double scale = std::min(std::max(usualTimes / size(*most), leastTimes / size(*least)),
                            mostTimes / size(*most));
    for (Tuned::Part& one : out.parts) one.times = std::llround(one.weight * scale);
  }
  std::stable_sort(out.parts.begin(), out.parts.end(), [](const auto& a, const auto& b) {
    return a.weight / a.error > b.weight / b.error;
  });
  std::string term = worthLine(out.parts);
  out.parts.insert(out.parts.end(), left.rbegin(), left.rend());
  if (term.empty()) return out;
  out.worth = "worth " + term;
  if (options.tests == 0) return out;

  std::shared_ptr<const SheetGame> tuned = withWorth(game, term);
  how.games = options.tests;
  how.seed = options.seed + 1;
  how.make = [&](std::string_view text, const std::string& source) -> std::unique_ptr<Opponent> {
    if (text == "tuned") return std::make_unique<ByOtherWorth>(tuned, options.nodes);
    return makeOpponent(text, source);
  };
  how.progress = [&](std::uint64_t done) {
    if (options.progress) options.progress(out.games + done);
  };
  Series tests = playSeries(game, {"tuned", search}, how);
  out.stopped = wantsStop(options.stop);
  if (!out.stopped) out.gain = tests.pairings.front();
  return out;
}

}  // namespace ninepegs::play
