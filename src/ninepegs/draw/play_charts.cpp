#include "ninepegs/draw/play_charts.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/draw/plot.hpp"

namespace ninepegs::draw {

std::string reviewChart(const Game& game, const Position& from,
                        const std::vector<play::ReviewedPly>& plies, const ChartOptions& options) {
  using Verdict = play::ReviewedPly::Verdict;
  std::string scores, marks, labels;
  Position position = from;
  for (std::size_t ply = 0; ply < plies.size(); ++ply) {
    const play::ReviewedPly& one = plies[ply];
    // From -1, the second side wins, to 1, the first one does.
    double at = (2 * one.chancePlayed - 1) * (one.side == 0 ? 1 : -1);
    scores += fmt::format("{} {}\n", ply + 1, at);
    if (one.verdict != Verdict::plain) {
      marks += fmt::format("{} {}\n", ply + 1, at);
      bool above = at < 0;  // towards the middle, where there is room
      labels +=
          fmt::format("set label {} at {},{} center offset 0,{} front textcolor rgb '#a01840'\n",
                      plotText(game.moveText(position, one.move)), ply + 1, at, above ? 0.9 : -0.9);
    }
    game.apply(position, one.move);
  }
  std::string out = plotHead(1280, 640, options.form);
  out += "$scores << EOD\n" + scores + "EOD\n$marks << EOD\n" + marks + "EOD\n" + labels;
  out += fmt::format("set title {} font 'DejaVu Sans,16'\n",
                     plotText(game.info().title + ": chances after each ply"));
  out += fmt::format("set xrange [0.3:{}]\nset yrange [-1.15:1.15]\n",
                     static_cast<double>(plies.size()) + 0.7);
  if (plies.size() <= 30) out += "set xtics 1\n";
  out += fmt::format("set ytics ({} -1, '75 %%' -0.5, 'even' 0, '75 %%' 0.5, {} 1)\n",
                     plotText(game.info().sides[1] + " wins"),
                     plotText(game.info().sides[0] + " wins"));
  out +=
      "set xlabel 'ply'\nset grid ytics lc rgb '#ddd3c4'\nset style fill solid 0.9 noborder\n"
      "set boxwidth 0.8\nset xzeroaxis lw 1.5 lc rgb '#6b5a48'\nset bmargin 5\nset key bmargin "
      "right horizontal\n"
      "plot $scores using 1:($2>0?$2:0) with boxes lc rgb '#e0a020' notitle, "
      "$scores using 1:($2<0?$2:0) with boxes lc rgb '#455c78' notitle";
  if (!marks.empty())
    out +=
        ", $marks using 1:2 with points pt 7 ps 1.8 lc rgb '#c01a50' title 'costs the result, or "
        "chances'";
  return plotted(out + "\n", options);
}

std::string seriesChart(const Game& game, const std::vector<std::string>& who,
                        const play::Series& series, const ChartOptions& options) {
  std::vector<const play::Pairing*> rows;
  for (const play::Pairing& one : series.pairings) rows.push_back(&one);
  if (!series.ratings.empty())
    std::stable_sort(rows.begin(), rows.end(), [&](const auto* a, const auto* b) {
      auto best = [&](const play::Pairing& one) {
        return std::max(series.ratings[one.a], series.ratings[one.b]);
      };
      return best(*a) > best(*b);
    });
  std::string bars, labels;
  int row = 0;
  for (const play::Pairing* pairing : rows) {
    std::size_t a = pairing->a, b = pairing->b;
    std::uint64_t wins = pairing->wins, losses = pairing->losses;
    double sign = 1;
    if (!series.ratings.empty() && series.ratings[b] > series.ratings[a])
      std::swap(a, b), std::swap(wins, losses), sign = -1;
    auto share = [&](std::uint64_t games) {
      return 100.0 * static_cast<double>(games) / static_cast<double>(pairing->games());
    };
    bars += fmt::format("{} {} {} {}\n", -row, share(wins), share(pairing->draws), share(losses));
    std::optional<double> rating = pairing->rating();
    std::string text = fmt::format(
        "{} against {}: won {}, drawn {}, lost {}{}", who[a], who[b], wins, pairing->draws, losses,
        rating ? fmt::format("; {:+.0f} ± {:.0f} rating points", sign * *rating, pairing->margin())
               : "");
    labels += fmt::format("set label {} at graph 0, first {} front textcolor rgb '#2a2018'\n",
                          plotText(text), 0.42 - row);
    ++row;
  }
  std::string out = plotHead(1280, std::clamp(220 + 90 * row, 400, 1600), options.form);
  out += "$bars << EOD\n" + bars + "EOD\n" + labels;
  out += fmt::format(
      "set title {} font 'DejaVu Sans,16'\n",
      plotText(fmt::format("{}: {}", game.info().title,
                           plural(static_cast<long long>(series.games.size()), "game"))));
  out += fmt::format(
      "set xrange [0:100]\nset yrange [{}:0.75]\nset xlabel '% of games' offset 0,0.4\nset bmargin "
      "6\nunset ytics\n"
      "set border 1 lc rgb '#6b5a48'\nset grid xtics lc rgb '#ddd3c4'\nset lmargin 4\nset rmargin "
      "4\nset key bmargin center horizontal\nset style fill solid 0.95 border rgb "
      "'#6b4a2b'\n",
      0.5 - std::max(row, 2));
  auto part = [](const char* from, const char* to, const char* colour, const char* title) {
    return fmt::format(
        "$bars using (0):1:({}):({}):($1-0.2):($1+0.25) with boxxyerror lc rgb '{}' title '{}'",
        from, to, colour, title);
  };
  out += "plot " + part("0", "$2", "#e0a020", "won") + ", " +
         part("$2", "$2+$3", "#c9b79c", "drawn") + ", " + part("$2+$3", "100", "#455c78", "lost") +
         "\n";
  return plotted(out, options);
}

}  // namespace ninepegs::draw
