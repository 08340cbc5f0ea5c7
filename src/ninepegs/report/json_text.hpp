// JSON as text, whatever its strings hold.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace ninepegs::report {

// Names of files and arguments may be no UTF-8; the bytes that are none become U+FFFD, as JSON has
// to be UTF-8 (RFC 8259, section 8.1). `indent`: blanks for each level.
inline std::string jsonText(const nlohmann::ordered_json& json, int indent) {
  return json.dump(indent, ' ', false, nlohmann::ordered_json::error_handler_t::replace);
}

}  // namespace ninepegs::report
