// Commands and their options: what is typed, its help, and messages where it is wrong. Only
// options.cpp sees the library that parses them.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace CLI {
class App;
}

namespace ninepegs::cli {

struct Context;

// The value of an option, where it is said: an empty one is not the same as none.
using Said = std::optional<std::string>;

// A command with its help; `run` is called with what the options were given. Both live as long as
// the program's commands.
template <class Options>
struct Command {
  Options& options;
  CLI::App& app;
};
CLI::App& addCommand(CLI::App& app, const std::string& name, const std::string& what,
                     const std::string& examples, std::function<void()> run);
template <class Options>
Command<Options> newCommand(CLI::App& app, Context& context, void (*run)(const Options&, Context&),
                            const std::string& name, const std::string& what,
                            const std::string& examples) {
  auto options = std::make_shared<Options>();
  return {*options, addCommand(app, name, what, examples,
                               [options, run, &context] { run(*options, context); })};
}

// Adds an option; `name` is as it is typed, with a word for its value: "--nodes N". A name without
// dashes is an argument by its place; a switch has no word.
void option(CLI::App& command, const std::string& name, std::string& value,
            const std::string& what);
void option(CLI::App& command, const std::string& name, std::vector<std::string>& values,
            const std::string& what);
void option(CLI::App& command, const std::string& name, Said& value, const std::string& what);
void option(CLI::App& command, const std::string& name, bool& value, const std::string& what);
// One that has to be given.
void needed(CLI::App& command, const std::string& name, std::string& value,
            const std::string& what);
void needed(CLI::App& command, const std::string& name, std::vector<std::string>& values,
            const std::string& what);

// What can be typed, for completion.
struct CommandWords {
  std::string name;
  std::vector<std::string> options;  // with their dashes
  bool takesGame = false;
};
std::vector<CommandWords> commandWords(const CLI::App& app);

// What the program says of itself.
struct ProgramWords {
  std::string what, version, footer;
};
// Reads the arguments and runs the command that they name; `add` adds all commands. Help, version
// and messages are printed. False if the arguments are wrong; what the command throws passes.
bool runCommand(int argc, char** argv, const ProgramWords& words,
                const std::function<void(CLI::App&)>& add);

}  // namespace ninepegs::cli
