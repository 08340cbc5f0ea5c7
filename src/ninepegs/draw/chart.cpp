#include "ninepegs/draw/chart.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <string>
#include <vector>

#include "ninepegs/base/text.hpp"
#include "ninepegs/draw/plot.hpp"

namespace ninepegs::draw {
std::string chartScript(const Game& game, const verify::Evidence& evidence, ChartForm form) {
  std::string out = plotHead(1280, 640, form);
  // Lengths in at most about sixty bars.
  std::uint64_t least = evidence.lengths.least(), greatest = evidence.lengths.greatest();
  std::uint64_t bin = (greatest - least) / 60 + 1;
  std::map<std::uint64_t, std::uint64_t> bars;
  for (const auto& [length, number] : evidence.lengths.times)
    bars[(length - least) / bin * bin + least] += number;
  out += "$lengths << EOD\n";
  double total = static_cast<double>(std::max<std::uint64_t>(1, evidence.playouts));
  for (const auto& [length, number] : bars)
    out +=
        fmt::format("{} {:.6f}\n", static_cast<double>(length) + static_cast<double>(bin - 1) / 2,
                    100.0 * static_cast<double>(number) / total);
  out += "EOD\n$results << EOD\n";
  std::vector<std::string> labels;
  int row = 0;
  double most = 0;
  auto addResult = [&](const std::string& label, std::uint64_t number, int colour) {
    double share = 100.0 * static_cast<double>(number) / total;
    most = std::max(most, share);
    out += fmt::format("{} {:.6f} {}\n", -row++, share, colour);
    labels.push_back(fmt::format("{}, {:.1f} %", label, share));
  };
  for (const auto& [outcome, number] : evidence.outcomes) {
    const auto& [end, winner, name] = outcome;
    std::string who = winner < 0 ? "draw" : game.info().sides[winner] + " wins";
    addResult(who + ": " + name, number, winner < 0 ? 0xa9927a : winner == 0 ? 0xe0a020 : 0x455c78);
  }
  if (evidence.unfinished > 0) addResult("without an end", evidence.unfinished, 0xc01a50);
  out += "EOD\n";
  out += fmt::format(
      "set multiplot layout 1,2 margins 0.07,0.965,0.13,0.83 spacing 0.13 title {} "
      "font 'DejaVu Sans,16'\n",
      plotText(
          fmt::format("{}: {} random playouts", game.info().title, grouped(evidence.playouts))));
  out +=
      "set grid ytics lc "
      "rgb "
      "'#ddd3c4'\nset style fill solid 0.9 border rgb '#6b4a2b'\n";
  out += fmt::format(
      "set title 'Length of a game' offset 0,-0.4\nset xlabel 'plies'\nset ylabel '% of "
      "games'\nset yrange [0:*]\nset boxwidth {}\nset xrange [{}:{}]\n",
      0.85 * static_cast<double>(bin), static_cast<double>(least) - static_cast<double>(bin),
      static_cast<double>(greatest) + static_cast<double>(bin));
  if (greatest - least <= 24) out += "set xtics 1\n";
  out += "plot $lengths using 1:2 with boxes lc rgb '#b98a4e' notitle\n";
  // Results as lying bars, their names above them.
  out +=
      "unset grid\nset grid xtics lc rgb '#ddd3c4'\nunset ytics\nunset ylabel\nset title 'How the "
      "games ended' offset 0,-0.4\nset xlabel '% of games'\nset xtics auto\n";
  out += fmt::format(
      "set xrange [0:{}]\nset yrange [{}:0.8]\nset style fill solid 0.95 border rgb '#6b4a2b'\n",
      std::min(100.0, std::max(1.0, most * 1.15)), -std::max(row, 3) + 0.4);
  for (std::size_t i = 0; i < labels.size(); ++i)
    out += fmt::format("set label {} {} at graph 0.012, first {} front textcolor rgb '#2a2018'\n",
                       i + 1, plotText(labels[i]), -static_cast<double>(i) + 0.36);
  out +=
      "plot $results using (0):1:(0):2:($1-0.18):($1+0.2):3 with boxxyerror lc rgb variable "
      "notitle\n";
  out += "unset multiplot\n";
  return out;
}

std::string checkChart(const Game& game, const verify::Evidence& evidence,
                       const ChartOptions& options) {
  return plotted(chartScript(game, evidence, options.form), options);
}

}  // namespace ninepegs::draw
