// Colours and width of terminal text. Colours are off unless asked for, so that pipes and files get
// plain text.
#pragma once

#include <algorithm>
#include <string>
#include <string_view>

#include "ninepegs/base/text.hpp"

namespace ninepegs::report {

class Paint {
 public:
  explicit Paint(bool on = false, int width = 80) : on_(on), width_(width) {}
  // Lines of at most so many columns, that of the indent included.
  int width() const { return width_; }
  std::string wrapped(std::string_view text, std::string_view indent) const {
    auto columns = static_cast<std::size_t>(std::max(width_ - columnsOf(indent), 20));
    return ninepegs::wrapped(text, columns, indent);
  }
  std::string first(std::string_view text) const { return with("1;33", text); }   // first side
  std::string second(std::string_view text) const { return with("1;36", text); }  // second side
  std::string side(int side, std::string_view text) const {
    return side == 0 ? first(text) : second(text);
  }
  std::string faint(std::string_view text) const { return with("2", text); }
  std::string strong(std::string_view text) const { return with("1", text); }
  std::string good(std::string_view text) const { return with("32", text); }
  std::string bad(std::string_view text) const { return with("1;31", text); }
  std::string marked(std::string_view text) const { return with("1;35", text); }

 private:
  std::string with(const char* code, std::string_view text) const {
    if (!on_) return std::string(text);
    return std::string("\x1b[") + code + "m" + std::string(text) + "\x1b[0m";
  }
  bool on_;
  int width_;
};

}  // namespace ninepegs::report
