// Messages about wrong options and commands.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

namespace ninepegs::cli {

// What is wrong with the arguments, with a hint, ending in a newline.
std::string usageError(const CLI::App& app, const CLI::ParseError& error,
                       const std::vector<std::string>& arguments);

}  // namespace ninepegs::cli
