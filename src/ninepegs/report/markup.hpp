// Texts in XML and HTML.
#pragma once

#include <string>
#include <string_view>

namespace ninepegs::report {

// With the signs that mean something there written as entities; control characters become '?',
// malformed bytes U+FFFD.
std::string escaped(std::string_view text);

// Bytes as text, as data: addresses have them (RFC 4648).
std::string base64(std::string_view bytes);

}  // namespace ninepegs::report
