#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"

namespace ninepegs::cli {
namespace {

struct CompletionOptions {
  std::string shell;
  const CLI::App* app = nullptr;  // of all commands
};

// The words that may follow, made from the commands themselves.
std::string bashScript(const CLI::App& app, const Context& context) {
  std::vector<std::string> commands;
  std::string cases;
  for (const CommandWords& command : commandWords(app)) {
    commands.push_back(command.name);
    cases += fmt::format("    {}) words=\"{}{}\" ;;\n", command.name, joined(command.options, " "),
                         command.takesGame ? " " + joined(context.library.names(), " ") : "");
  }
  return fmt::format(R"(# bash completion for ninepegs; use: source <(ninepegs completion bash)
_ninepegs() {{
  local current=${{COMP_WORDS[COMP_CWORD]}} words=""
  case "${{COMP_WORDS[1]}}" in
{}    *) ;;
  esac
  if [ "$COMP_CWORD" -eq 1 ]; then words="{} --help --version"; fi
  mapfile -t COMPREPLY < <(compgen -W "$words" -- "$current")
  if [ "${{#COMPREPLY[@]}}" -eq 0 ]; then mapfile -t COMPREPLY < <(compgen -f -- "$current"); fi
}}
complete -o filenames -F _ninepegs ninepegs
)",
                     cases, joined(commands, " "));
}

void runCompletion(const CompletionOptions& options, Context& context) {
  if (options.shell != "bash")
    throw BadInput(Place{},
                   fmt::format("there is no completion for \"{}\"", clipped(options.shell, 40)),
                   "there is: bash");
  print(bashScript(*options.app, context));
}

}  // namespace

void addCompletion(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(app, context, runCompletion, "completion",
                                       "Print a script that completes commands",
                                       "Example:\n  source <(ninepegs completion bash)");
  options.app = &app;
  needed(command, "SHELL", options.shell, "bash");
}

}  // namespace ninepegs::cli
