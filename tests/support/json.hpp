// JSON in tests: a difference is printed as the text that it is, not as a container of containers.
#pragma once

#include <ostream>

#include "ninepegs/engines/json.hpp"

namespace nlohmann {

inline void PrintTo(const ninepegs::Json& json, std::ostream* out) {
  *out << ninepegs::jsonText(json);
}

}  // namespace nlohmann
