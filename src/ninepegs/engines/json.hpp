// JSON, and what takes long to compile of it, once: text from it, and reading.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace ninepegs {

using Json = nlohmann::ordered_json;

// As text, whatever its strings hold. Names of files and arguments may be no UTF-8; the bytes that
// are none become U+FFFD, as JSON has to be UTF-8 (RFC 8259, section 8.1). `indent`: blanks for
// each level; -1: all in one line.
std::string jsonText(const Json& json, int indent = -1);
// In one line of ASCII, for another program.
std::string asciiJson(const Json& json);

// What a text says. Throws Json::parse_error, or Json::exception, where it is no JSON.
Json readJson(const std::string& text);
// The same; where it is no JSON, something that is neither an object nor anything else.
Json readJsonOrNone(const std::string& text);

}  // namespace ninepegs
