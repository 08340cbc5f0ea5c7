// The smallest sheet that still shows what was found.
#pragma once

#include <functional>
#include <string>

namespace ninepegs::soak {

// Leaves out lines, then words, as long as `shows` holds for what remains; `shows(text)` must hold.
// Delta debugging: A. Zeller, R. Hildebrandt, "Simplifying and Isolating Failure-Inducing Input",
// IEEE Transactions on Software Engineering 28, 2002. At most `tries` texts are tried.
std::string reduced(const std::string& text,
                    const std::function<bool(const std::string& text)>& shows, int tries);

}  // namespace ninepegs::soak
