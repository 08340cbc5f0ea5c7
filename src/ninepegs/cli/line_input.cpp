#include "ninepegs/cli/line_input.hpp"

#include <fmt/format.h>
#include <histedit.h>
#include <poll.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <clocale>
#include <cstdio>
#include <cwchar>
#include <memory>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"

namespace ninepegs::cli {
namespace {

constexpr std::size_t longestLine = 4096;
constexpr int lookAgain = 100;  // milliseconds between looks at the stop flag

// A line edited on the terminal, with those before it.
class Editor {
 public:
  Editor() : history_(history_init(), history_end), edit_(begun(), el_end) {
    HistEvent event;
    history(history_.get(), &event, H_SETSIZE, 500);
    el_set(edit_.get(), EL_CLIENTDATA, this);
    el_set(edit_.get(), EL_PROMPT, &promptOf);
    el_set(edit_.get(), EL_EDITOR, "emacs");
    el_set(edit_.get(), EL_SIGNAL, 0);
    el_set(edit_.get(), EL_HIST, &history, history_.get());
    el_set(edit_.get(), EL_GETCFN, &nextSign);
    el_set(edit_.get(), EL_ADDFN, "complete", "completes the line", &complete);
    el_set(edit_.get(), EL_BIND, "^I", "complete", nullptr);
  }

  std::optional<std::string> line(const std::string& prompt,
                                  const std::vector<std::string>& words) {
    prompt_ = prompt;
    words_ = words;
    int length = 0;
    const char* got = el_gets(edit_.get(), &length);
    if (got == nullptr || length <= 0 || wantsStop(&stopFlag())) return std::nullopt;
    std::string line(trimmed(got));
    HistEvent event;
    if (!line.empty()) history(history_.get(), &event, H_ENTER, line.c_str());
    return line;
  }

 private:
  // It asks once, when it begins, whether letters may be more than a byte.
  static EditLine* begun() {
    std::setlocale(LC_CTYPE, "C.UTF-8");
    return el_init("ninepegs", stdin, stdout, stderr);
  }

  static char* promptOf(EditLine* edit) {
    Editor* self = nullptr;
    el_get(edit, EL_CLIENTDATA, &self);
    return self->prompt_.data();
  }

  // The next sign that is typed; 0 at the end of input and when the program is asked to stop.
  static int nextSign(EditLine*, wchar_t* sign) {
    std::mbstate_t state{};
    while (!wantsStop(&stopFlag())) {
      pollfd input{STDIN_FILENO, POLLIN, 0};
      if (poll(&input, 1, lookAgain) <= 0) continue;
      char byte = 0;
      if (read(STDIN_FILENO, &byte, 1) != 1) return 0;
      std::size_t used = std::mbrtowc(sign, &byte, 1, &state);
      if (used == static_cast<std::size_t>(-2)) continue;  // more bytes belong to it
      if (used == static_cast<std::size_t>(-1)) *sign = L'?';
      return 1;
    }
    return 0;
  }

  // What was typed becomes as much as all words have in common that begin so; if that is no more,
  // they are listed.
  static unsigned char complete(EditLine* edit, int) {
    Editor* self = nullptr;
    el_get(edit, EL_CLIENTDATA, &self);
    const LineInfo* info = el_line(edit);
    std::string typed(info->buffer, info->cursor), more;
    std::vector<std::string> fit;
    for (const std::string& word : self->words_)
      if (word.rfind(typed, 0) == 0) fit.push_back(word);
    if (fit.empty()) return CC_REFRESH_BEEP;
    more = fit.front();
    for (const std::string& word : fit)
      more.resize(static_cast<std::size_t>(
          std::mismatch(more.begin(), more.end(), word.begin(), word.end()).first - more.begin()));
    while (firstBadUtf8(more) != std::string::npos) more.pop_back();
    if (more.size() > typed.size()) {
      el_insertstr(edit, more.c_str() + typed.size());
      return CC_REFRESH;
    }
    if (fit.size() == 1) return CC_REFRESH_BEEP;
    constexpr std::size_t shown = 40;
    std::string rest = fit.size() > shown ? fmt::format(" ... {} in all", fit.size()) : "";
    fit.resize(std::min(fit.size(), shown));
    print("\n" + joined(fit, ", ") + rest + "\n");
    return CC_REDISPLAY;
  }

  std::string prompt_;
  std::vector<std::string> words_;
  std::unique_ptr<History, void (*)(History*)> history_;
  std::unique_ptr<EditLine, void (*)(EditLine*)> edit_;
};

}  // namespace

std::optional<std::string> readLine(const Context& context, const std::string& prompt,
                                    const std::vector<std::string>& words) {
  if (wantsStop(&stopFlag())) return std::nullopt;
  if (context.inputIsTerminal && context.outputIsTerminal) {
    static Editor editor;
    std::optional<std::string> typed = editor.line(prompt, words);
    if (!typed) print("\n");
    return typed;
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
  if (tooLong) line = clipped(line, 60) + "...";
  print(prompt + line + "\n");
  return line;
}

std::optional<std::string> readBareLine() {
  constexpr std::size_t longest = 1 << 16;
  static std::string waiting;
  static bool ended = false;
  while (!wantsStop(&stopFlag())) {
    if (std::size_t end = waiting.find('\n');
        end != std::string::npos || (ended && !waiting.empty())) {
      std::string line = waiting.substr(0, std::min(end, longest));
      waiting.erase(0, end == std::string::npos ? end : end + 1);
      return line;
    }
    if (ended) return std::nullopt;
    if (waiting.size() > longest) waiting.resize(longest);  // of a line without an end
    pollfd input{STDIN_FILENO, POLLIN, 0};
    if (poll(&input, 1, lookAgain) <= 0) continue;
    char bytes[4096];
    ssize_t got = read(STDIN_FILENO, bytes, sizeof bytes);
    if (got > 0) waiting.append(bytes, static_cast<std::size_t>(got));
    ended = got == 0 || (got < 0 && errno != EINTR && errno != EAGAIN);
  }
  return std::nullopt;
}

}  // namespace ninepegs::cli
