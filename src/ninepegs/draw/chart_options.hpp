// How a chart is drawn.
#pragma once

#include "ninepegs/base/stop.hpp"

namespace ninepegs::draw {

enum class ChartForm { png, svg };

struct ChartOptions {
  ChartForm form = ChartForm::png;
  const StopFlag* stop = nullptr;
  double seconds = 20;  // that gnuplot may take
};

}  // namespace ninepegs::draw
