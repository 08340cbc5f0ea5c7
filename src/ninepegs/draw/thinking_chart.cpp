#include "ninepegs/draw/thinking_chart.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/draw/plot.hpp"

namespace ninepegs::draw {

namespace {

std::string twoCharts(const Game& game, const std::string& what) {
  return fmt::format(
      "set multiplot layout 1,2 margins 0.08,0.97,0.13,0.83 spacing 0.1 title {} "
      "font 'DejaVu Sans,16'\nset grid lc rgb '#ddd3c4'\n",
      plotText(game.info().title + ": " + what));
}

// How often the side to move wins, and the time, against the number of playouts.
std::string playoutsChart(const Game& game, const play::Thinking& thought,
                          const ChartOptions& options) {
  std::string out = plotHead(1280, 640, options.form);
  out += "$playouts << EOD\n";
  for (const play::Choice::Step& step : thought.choice.steps) {
    double share = play::decides(step.score) ? (step.score > 0 ? 100 : 0)
                                             : 50 + static_cast<double>(step.score) / 20;
    out += fmt::format("{} {:.2f} {:.9f}\n", step.nodes, share, std::max(1e-6, step.seconds));
  }
  out += "EOD\n";
  out += twoCharts(game, "more playouts, what they say and what they take");
  out +=
      "set logscale x\nset format x '%.0s%c'\nset xlabel 'playouts'\n"
      "set yrange [0:100]\nset title 'Won by the side to move, %' offset 0,-0.4\n"
      "plot 50 with lines lw 1.5 lc rgb '#6b5a48' notitle, $playouts using 1:2 with linespoints lw "
      "3 pt 7 ps 1.3 lc rgb '#c47f12' notitle\n"
      "set autoscale y\nset logscale y\nset format y '%g'\nset title 'Seconds' offset 0,-0.4\n"
      "plot $playouts using 1:3 with linespoints lw 3 pt 7 ps 1.3 lc rgb '#c47f12' notitle\n"
      "unset multiplot\n";
  return plotted(out, options);
}

}  // namespace

std::string thinkingChart(const Game& game, const play::Thinking& thought,
                          const ChartOptions& options) {
  if (thought.choice.byPlayouts) return playoutsChart(game, thought, options);
  std::string out = plotHead(1280, 640, options.form);
  out += "$search << EOD\n";
  std::uint64_t before = 0;
  double spent = 0;
  for (const play::Choice::Step& step : thought.choice.steps) {
    out +=
        fmt::format("{} {} {:.9f}\n", step.depth, std::max<std::uint64_t>(1, step.nodes - before),
                    std::max(1e-6, step.seconds - spent));
    before = step.nodes;
    spent = step.seconds;
  }
  out += "EOD\n$minimax << EOD\n";
  for (std::size_t i = 0; i < thought.plain.size(); ++i)
    out += fmt::format("{} {}\n", i + 1, std::max<std::uint64_t>(1, thought.plain[i]));
  out += "EOD\n";
  auto deepest = static_cast<double>(thought.choice.steps.size());
  out += twoCharts(game, "one ply deeper, how many times as much");
  out +=
      "set logscale y\nset format y '%.0s%c'\nset xlabel 'depth in plies'\nset xtics 1\n"
      "set key top left\n";
  out += fmt::format("set xrange [0.5:{}]\n", deepest + 0.5);
  out +=
      "set title 'Positions' offset 0,-0.4\n"
      "plot $minimax using 1:2 with linespoints lw 3 pt 4 ps 1.3 lc rgb '#455c78' title 'minimax', "
      "$search using 1:2 with linespoints lw 3 pt 7 ps 1.3 lc rgb '#c47f12' title 'search'\n"
      "set format y '%g'\nset title 'Seconds' offset 0,-0.4\n"
      "plot $search using 1:3 with linespoints lw 3 pt 7 ps 1.3 lc rgb '#c47f12' title 'search'\n"
      "unset multiplot\n";
  return plotted(out, options);
}

}  // namespace ninepegs::draw
