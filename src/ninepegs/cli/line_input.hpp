// Lines that a person types or a pipe delivers.
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace ninepegs::cli {

struct Context;

// The next line without its newline; none at the end of input or after Ctrl-C. On a terminal the
// line can be edited and recalled; from a pipe the prompt and the line are echoed, so that the
// transcript reads the same.
// The Tab key completes it from `words`, or lists those that it may become.
std::optional<std::string> readLine(const Context& context, const std::string& prompt,
                                    const std::vector<std::string>& words = {});

// The next line of standard input as it is, for a program that talks to us: nothing is printed.
// None at the end of input or after Ctrl-C; what is longer than a line may be is cut.
std::optional<std::string> readBareLine();

}  // namespace ninepegs::cli
