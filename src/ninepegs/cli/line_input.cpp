#include "ninepegs/cli/line_input.hpp"

#include <cstdio>
#include <cstdlib>
#include <memory>

#include <readline/history.h>
#include <readline/readline.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"

namespace ninepegs::cli {
namespace {

constexpr std::size_t longestLine = 4096;

int endOnInterrupt() {
  if (wantsStop(&stopFlag())) rl_done = 1;
  return 0;
}

}  // namespace

std::optional<std::string> readLine(const Context& context, const std::string& prompt) {
  if (wantsStop(&stopFlag())) return std::nullopt;
  if (context.inputIsTerminal && context.outputIsTerminal) {
    rl_event_hook = endOnInterrupt;
    std::unique_ptr<char, void (*)(void*)> line(readline(prompt.c_str()), std::free);
    if (!line || wantsStop(&stopFlag())) {
      print("\n");
      return std::nullopt;
    }
    if (*line != '\0') add_history(line.get());
    return std::string(line.get());
  }
  std::string line;
  bool any = false, tooLong = false;
  for (int c = std::getchar(); c != EOF; c = std::getchar()) {
    any = true;
    if (c == '\n') break;
    if (line.size() < longestLine)
      line += static_cast<char>(c);
    else
      tooLong = true;
  }
  if (!any || wantsStop(&stopFlag())) {
    print(prompt + "\n");
    return std::nullopt;
  }
  if (!line.empty() && line.back() == '\r') line.pop_back();
  // What is no text is shown as question marks, and cannot be a move either.
  for (char& c : line)
    if (static_cast<unsigned char>(c) < 32 || c == 127) c = '?';
  while (firstBadUtf8(line) != std::string::npos) line[firstBadUtf8(line)] = '?';
  if (tooLong) line = line.substr(0, 60) + "...";
  print(prompt + line + "\n");
  return line;
}

}  // namespace ninepegs::cli
