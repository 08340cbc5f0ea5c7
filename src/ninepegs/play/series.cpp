#include "ninepegs/play/series.hpp"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <mutex>

#include "ninepegs/base/parallel.hpp"
#include "ninepegs/play/knowledge.hpp"
#include "ninepegs/play/openings.hpp"

namespace ninepegs::play {
namespace {

constexpr double perRating = 400;   // points for odds of ten to one
constexpr double errorRate = 0.05;  // of the sequential test, both ways

double expected(double rating) {
  return 1 / (1 + std::pow(10, -rating / perRating));
}

// The mean and the variance of points a game.
struct Points {
  double mean = 0, variance = 0, games = 0;
};
Points pointsOf(const Pairing& pairing) {
  Points out;
  out.games = static_cast<double>(pairing.games());
  if (out.games == 0) return out;
  auto wins = static_cast<double>(pairing.wins), draws = static_cast<double>(pairing.draws);
  out.mean = (wins + draws / 2) / out.games;
  out.variance = (wins + draws / 4) / out.games - out.mean * out.mean;
  return out;
}

class Player {
 public:
  Player(const Game& game, const std::vector<std::string>& who, const SeriesOptions& options)
      : game_(game),
        who_(who),
        options_(options),
        openings_(game, {options.opening, options.seed, options.balanced, options.stop}) {}

  SeriesGame play(std::size_t a, std::size_t b, std::uint64_t number) const {
    SeriesGame out;
    bool exchanged = number % 2 == 1;
    out.first = exchanged ? b : a;
    out.second = exchanged ? a : b;
    out.number = number;
    Position position = game_.start();
    Sides known(game_, position);
    auto make = [&](const Move& move) {
      out.moves.push_back(game_.moveText(position, move));
      out.played.push_back(move);
      known.note(position, move);
      game_.apply(position, move);
    };
    // Of a pair of games both begin alike.
    Opening opening = openings_.at(number / 2);
    out.opening = static_cast<int>(opening.moves.size());
    out.decided = opening.decided;
    for (const Move& move : opening.moves) make(move);
    std::unique_ptr<Opponent> sides[] = {options_.make(who_[out.first], "opponent"),
                                         options_.make(who_[out.second], "opponent")};
    for (auto& one : sides) one->stopWith(options_.stop);
    Stream stream(options_.seed, (number << 16) + (a << 8) + b);
    while (!game_.ended(position) && static_cast<int>(out.moves.size()) < options_.plyLimit &&
           game_.countMoves(position) > 0) {
      if (wantsStop(options_.stop)) break;
      make(known.choose(*sides[game_.toMove(position)], position, stream).move);
    }
    Result result = game_.result(position);
    if (result.kind == ResultKind::win) out.winner = result.winner;
    if (result.kind != ResultKind::ongoing) out.result = resultText(game_, result);
    return out;
  }

 private:
  const Game& game_;
  const std::vector<std::string>& who_;
  const SeriesOptions& options_;
  Openings openings_;
};

void count(const SeriesGame& game, Pairing& pairing) {
  if (game.winner < 0) {
    ++pairing.draws;
    return;
  }
  std::size_t winner = game.winner == 0 ? game.first : game.second;
  ++(winner == pairing.a ? pairing.wins : pairing.losses);
  pairing.firstWins += game.winner == 0;
}

// The log of the likelihood ratio of "better by `settle`" to "not better", by the normal
// approximation of the points of a game.
double ratio(const Pairing& pairing, double settle) {
  Points points = pointsOf(pairing);
  if (points.games < 2) return 0;
  double none = expected(0), better = expected(settle);
  double variance = std::max(points.variance, 0.25 / points.games);
  return points.games * (better - none) * (2 * points.mean - none - better) / (2 * variance);
}

// Ratings that make the games most likely, a draw counting as half a win and half a loss
// (R. Bradley, M. Terry, 1952), by fixed-point steps. Half a drawn game more for each pairing keeps
// them finite.
std::vector<double> fitted(std::size_t players, const std::vector<Pairing>& pairings) {
  std::vector<double> strength(players, 1);
  for (int step = 0; step < 2000; ++step) {
    std::vector<double> won(players, 0), weight(players, 0);
    for (const Pairing& one : pairings) {
      double games = static_cast<double>(one.games()) + 1;
      won[one.a] += one.points(one.a) + 0.5;
      won[one.b] += one.points(one.b) + 0.5;
      double share = games / (strength[one.a] + strength[one.b]);
      weight[one.a] += share;
      weight[one.b] += share;
    }
    double logs = 0;
    for (std::size_t i = 0; i < players; ++i) {
      strength[i] = weight[i] > 0 ? won[i] / weight[i] : 1;
      logs += std::log(strength[i]);
    }
    for (double& one : strength) one /= std::exp(logs / static_cast<double>(players));
  }
  std::vector<double> out;
  for (double one : strength) out.push_back(perRating * std::log10(one));
  return out;
}

}  // namespace

double Pairing::points(std::size_t who) const {
  return static_cast<double>(who == a ? wins : losses) + static_cast<double>(draws) / 2;
}

std::optional<double> Pairing::rating() const {
  double mean = pointsOf(*this).mean;
  if (games() == 0 || mean <= 0 || mean >= 1) return std::nullopt;
  return 0.0 - perRating * std::log10(1 / mean - 1);
}

double Pairing::margin() const {
  Points points = pointsOf(*this);
  if (!rating()) return 0;
  double off = 1.96 * std::sqrt(points.variance / points.games);
  double slope = perRating / std::log(10) / (points.mean * (1 - points.mean));
  return off * slope;
}

Series playSeries(const Game& game, const std::vector<std::string>& who,
                  const SeriesOptions& options) {
  for (const std::string& one : who) options.make(one, "opponent");
  Series out;
  std::uint64_t games = options.games + options.games % 2;
  for (std::size_t a = 0; a < who.size(); ++a)
    for (std::size_t b = a + 1; b < who.size(); ++b) out.pairings.push_back({a, b, 0, 0, 0, 0});
  std::vector<std::optional<SeriesGame>> all(out.pairings.size() * games);
  auto pairingOf = [&](const SeriesGame& one) {
    std::size_t a = std::min(one.first, one.second), b = std::max(one.first, one.second);
    for (std::size_t i = 0; i < out.pairings.size(); ++i)
      if (out.pairings[i].a == a && out.pairings[i].b == b) return i;
    return out.pairings.size();
  };
  for (const SeriesGame& one : options.begun)
    if (std::size_t i = pairingOf(one); i < out.pairings.size() && one.number < games)
      all[i * games + one.number] = one;
    else
      out.beside.push_back(one);
  Player player(game, who, options);
  std::mutex mutex;
  std::uint64_t done = 0, settledAt = all.size();
  auto kept = std::chrono::steady_clock::now();
  double bound = std::log((1 - errorRate) / errorRate);
  // Games in order, so that it is settled at the same game on any number of threads.
  Pairing counted{0, 1, 0, 0, 0, 0};
  std::size_t next = 0;
  auto settle = [&] {
    while (options.settle && who.size() == 2 && next < all.size() && all[next] &&
           settledAt == all.size()) {
      count(*all[next++], counted);
      if (next % 2 != 0) continue;  // whole pairs
      double now = ratio(counted, *options.settle);
      if (std::abs(now) < bound) continue;
      settledAt = next;
      out.settled = now > 0 ? Series::Settled::better : Series::Settled::notBetter;
    }
  };
  auto present = [&](std::size_t from, std::size_t to) {
    std::vector<SeriesGame> list;
    for (std::size_t i = from; i < to; ++i)
      if (all[i]) list.push_back(*all[i]);
    return list;
  };
  auto keep = [&](Series series) {
    series.games.insert(series.games.end(), out.beside.begin(), out.beside.end());
    options.keep(series);
  };
  settle();
  inParallel(
      all.size(), options.threads,
      [&](std::uint64_t at, int) {
        {
          std::lock_guard lock(mutex);
          if (all[at] || at >= settledAt) {
            ++done;
            return;
          }
        }
        const Pairing& pairing = out.pairings[at / games];
        SeriesGame played = player.play(pairing.a, pairing.b, at % games);
        if (wantsStop(options.stop)) return;  // it may have been cut short
        std::lock_guard lock(mutex);
        all[at] = std::move(played);
        settle();
        ++done;
        if (options.progress) options.progress(done);
        auto now = std::chrono::steady_clock::now();
        if (!options.keep || now - kept < std::chrono::seconds(1)) return;
        Series before;
        before.games = present(0, all.size());
        before.stopped = true;  // for all that is known, the run may end here
        keep(std::move(before));
        kept = now;
      },
      options.stop);
  out.games = present(0, settledAt);
  std::vector<SeriesGame> behind = present(settledAt, all.size());
  out.beside.insert(out.beside.end(), behind.begin(), behind.end());
  for (const SeriesGame& one : out.games) count(one, out.pairings[pairingOf(one)]);
  if (who.size() > 2) out.ratings = fitted(who.size(), out.pairings);
  out.stopped = wantsStop(options.stop);
  if (options.keep) keep(out);
  return out;
}

}  // namespace ninepegs::play
