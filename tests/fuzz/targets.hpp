// What reads what strangers write. Each takes any bytes: it may refuse them with BadInput, and
// whatever else it throws is a fault, as is a message that points nowhere.
#pragma once

#include <functional>
#include <string>
#include <vector>

namespace ninepegs::fuzz {

struct Target {
  const char* name;  // of its folder in tests/fuzz/corpus, and of its fuzzer
  std::function<void(const std::string&)> reads;
};

// Sheets, positions, records, protocols, and files that a check or a match goes on from.
const std::vector<Target>& targets();

}  // namespace ninepegs::fuzz
