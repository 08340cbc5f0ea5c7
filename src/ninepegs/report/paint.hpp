// Colours of terminal text. Off unless asked for, so that pipes and files get plain text.
#pragma once

#include <string>
#include <string_view>

namespace ninepegs::report {

class Paint {
 public:
  explicit Paint(bool on = false) : on_(on) {}
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
};

}  // namespace ninepegs::report
