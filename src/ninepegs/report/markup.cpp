#include "ninepegs/report/markup.hpp"

#include <cstdint>

#include "ninepegs/base/text.hpp"

namespace ninepegs::report {

std::string escaped(std::string_view text) {
  std::string out;
  for (const std::string& sign : utf8Symbols(text)) {
    auto first = static_cast<unsigned char>(sign[0]);
    if (sign == "&")
      out += "&amp;";
    else if (sign == "<")
      out += "&lt;";
    else if (sign == ">")
      out += "&gt;";
    else if (sign == "\"")
      out += "&quot;";
    else if (first < 32 && sign != "\n")
      out += '?';
    // Malformed, and what is no character of XML (1.0, section 2.2).
    else if ((sign.size() == 1 && first >= 0x80) || sign == "\ufffe" || sign == "\uffff")
      out += "\ufffd";
    else
      out += sign;
  }
  return out;
}

std::string base64(std::string_view bytes) {
  static constexpr char digits[] =
      "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
  std::string out;
  for (std::size_t at = 0; at < bytes.size(); at += 3) {
    std::uint32_t three = 0;
    for (std::size_t i = 0; i < 3; ++i)
      three = three << 8 | (at + i < bytes.size() ? static_cast<unsigned char>(bytes[at + i]) : 0u);
    for (std::size_t i = 0; i < 4; ++i)
      out += at + i > bytes.size() ? '=' : digits[three >> (18 - 6 * i) & 63];
  }
  return out;
}

}  // namespace ninepegs::report
