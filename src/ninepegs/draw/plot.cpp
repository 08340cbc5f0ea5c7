#include "ninepegs/draw/plot.hpp"

#include <fmt/format.h>

#include <utility>

#include "ninepegs/base/diagnostic.hpp"
#include "ninepegs/base/process.hpp"

namespace ninepegs::draw {

// Only the quote itself means anything in single quotes, and it is doubled.
std::string plotText(std::string_view text) {
  std::string out = "'";
  for (char c : text) {
    if (c == '\'') out += c;
    out += static_cast<unsigned char>(c) < 32 || c == 127 ? ' ' : c;
  }
  return out + "'";
}

std::string plotHead(int width, int height, ChartForm form) {
  return fmt::format(
      "set terminal {} size {},{} noenhanced font 'DejaVu Sans,13' background '#fbf9f4'\n"
      "set encoding utf8\nset border 3 lc rgb '#6b5a48'\nset tics nomirror textcolor rgb "
      "'#3a2c20'\n",
      form == ChartForm::png ? "pngcairo" : "svg fontscale 1.3", width, height);
}

std::string plotted(const std::string& script, const ChartOptions& options) {
  auto refused = [&](const std::string& message, const std::string& hint = {}) {
    return SystemFailure(Place{}, "no chart was drawn: " + message, hint);
  };
  // -d: without settings of the user's own.
  Finished done =
      runProcess({"gnuplot", "-d"}, script, {.seconds = options.seconds, .stop = options.stop});
  switch (done.how) {
    case Finished::How::exited:
      break;
    case Finished::How::notFound:
      throw refused("gnuplot is not installed", "install gnuplot-nox");
    case Finished::How::timedOut:
      throw refused(fmt::format("gnuplot took longer than {} seconds", options.seconds));
    case Finished::How::stopped:
      throw refused("it was interrupted");
    case Finished::How::failed:
      throw refused("gnuplot could not be run to its end");
  }
  bool whole = options.form == ChartForm::png ? done.output.starts_with("\x89PNG") &&
                                                    done.output.find("IEND") != done.output.npos
                                              : done.output.find("<svg") != done.output.npos &&
                                                    done.output.find("</svg>") != done.output.npos;
  if (done.exitCode != 0 || !whole)
    throw refused(fmt::format("gnuplot failed with exit code {}", done.exitCode));
  return std::move(done.output);
}

}  // namespace ninepegs::draw
