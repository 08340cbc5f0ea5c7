#include "ninepegs/engines/json.hpp"

namespace ninepegs {

std::string jsonText(const Json& json, int indent) {
  return json.dump(indent, ' ', false, Json::error_handler_t::replace);
}

std::string asciiJson(const Json& json) {
  return json.dump(-1, ' ', true, Json::error_handler_t::replace);
}

Json readJson(const std::string& text) {
  return Json::parse(text);
}

Json readJsonOrNone(const std::string& text) {
  return Json::parse(text, nullptr, false);
}

}  // namespace ninepegs
