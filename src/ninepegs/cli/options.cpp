#include "ninepegs/cli/options.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"

namespace ninepegs::cli {
namespace {

std::vector<const CLI::App*> allCommands(const CLI::App& app) {
  return app.get_subcommands([](const CLI::App*) { return true; });
}

const CLI::App* chosenCommand(const CLI::App& app) {
  for (const CLI::App* command : allCommands(app))
    if (command->parsed()) return command;
  return nullptr;
}

// The same letters in another order, or one that begins so: --dpeth, -d.
std::string likely(const std::string& name, const std::vector<std::string>& names) {
  auto sorted = [](std::string text) {
    std::sort(text.begin(), text.end());
    return text;
  };
  std::vector<std::string> begin;
  for (const std::string& one : names) {
    if (name.size() > 2 && sorted(one) == sorted(name))
      return fmt::format("did you mean \"{}\"?", one);
    if (name.size() == 2 && one.size() > 2 && one[2] == name[1]) begin.push_back(one);
  }
  if (begin.empty()) return "";
  return begin.size() == 1 ? fmt::format("did you mean \"{}\"?", begin.front())
                           : "there are: " + joined(begin, ", ");
}

std::vector<std::string> optionNames(const CLI::App& command) {
  std::vector<std::string> names;
  for (const CLI::Option* option : command.get_options())
    for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
  return names;
}

// What is wrong with the arguments, with a hint, ending in a newline.
std::string usageError(const CLI::App& app, const CLI::ParseError& error,
                       const std::vector<std::string>& arguments) {
  const CLI::App* command = chosenCommand(app);
  std::string message = error.what(), hint;
  if (command == nullptr) {
    std::vector<std::string> names;
    for (const CLI::App* one : allCommands(app)) names.push_back(one->get_name());
    if (arguments.empty() || arguments[0].rfind("-", 0) == 0) {
      message = arguments.empty() ? "a command should follow"
                                  : fmt::format("there is no option {}", clipped(arguments[0], 60));
      hint = "commands: " + joined(names, ", ");
    } else {
      message = fmt::format("there is no command \"{}\"", clipped(arguments[0], 60));
      bool known = arguments.size() > 1 &&
                   std::find(names.begin(), names.end(), arguments[1]) != names.end();
      hint = arguments[0] == "help"
                 ? fmt::format("try: ninepegs {}--help", known ? arguments[1] + " " : "")
                 : didYouMean(arguments[0], names, "commands: " + joined(names, ", "));
    }
    return fmt::format("ninepegs: {}\n  hint: {}\n", message, hint);
  }
  bool missing = dynamic_cast<const CLI::RequiredError*>(&error) != nullptr;
  if (missing || dynamic_cast<const CLI::ExtrasError*>(&error) != nullptr) {
    for (const std::string& argument : arguments) {
      std::string name = argument.substr(0, argument.find('='));
      bool brief = name.size() == 2 && name[0] == '-' && name[1] >= 'a' && name[1] <= 'z';
      if (name.rfind("--", 0) != 0 && !brief) continue;
      std::vector<std::string> names = optionNames(*command);
      if (std::find(names.begin(), names.end(), name) != names.end()) continue;
      message = fmt::format("there is no option {}", clipped(name, 60));
      hint = likely(name, names);
      if (hint.empty()) hint = didYouMean(name, names, "");
      break;
    }
    if (message == error.what())
      message = missing ? fmt::format("{} is missing", message.substr(0, message.find(' ')))
                        : "too many arguments";
  } else if (dynamic_cast<const CLI::ArgumentMismatch*>(&error) != nullptr) {
    std::string what = message.substr(0, message.find(':'));
    auto names = [&](const std::string& argument) {
      return argument == what || argument.rfind(what + "=", 0) == 0;
    };
    bool twice = std::count_if(arguments.begin(), arguments.end(), names) > 1;
    message = what + (twice ? " is said more than once" : " should be followed by a value");
  }
  if (hint.empty()) hint = fmt::format("see: ninepegs {} --help", command->get_name());
  return fmt::format("ninepegs {}: {}\n  hint: {}\n", command->get_name(), message, hint);
}

// "--nodes N" is the name and the word for its value.
CLI::Option* withWord(CLI::Option* made, const std::string& name, std::size_t blank) {
  if (blank != std::string::npos) return made->type_name(name.substr(blank + 1));
  return name.front() == '-' ? made : made->option_text(" ");
}

template <class Value>
CLI::Option* filled(CLI::App& command, const std::string& name, Value& value,
                    const std::string& what) {
  std::size_t blank = name.find(' ');
  return withWord(command.add_option(name.substr(0, blank), value, what), name, blank);
}

}  // namespace

CLI::App& addCommand(CLI::App& app, const std::string& name, const std::string& what,
                     const std::string& examples, std::function<void()> run) {
  CLI::App* command = app.add_subcommand(name, what);
  command->footer(examples);
  command->callback(std::move(run));
  return *command;
}

void option(CLI::App& command, const std::string& name, std::string& value,
            const std::string& what) {
  filled(command, name, value, what);
}
void option(CLI::App& command, const std::string& name, std::vector<std::string>& values,
            const std::string& what) {
  filled(command, name, values, what);
}
void option(CLI::App& command, const std::string& name, Said& value, const std::string& what) {
  std::size_t blank = name.find(' ');
  auto say = [&value](const std::string& text) { value = text; };
  withWord(command.add_option_function<std::string>(name.substr(0, blank), say, what), name, blank);
}
void option(CLI::App& command, const std::string& name, bool& value, const std::string& what) {
  command.add_flag(name, value, what);
}
void needed(CLI::App& command, const std::string& name, std::string& value,
            const std::string& what) {
  filled(command, name, value, what)->required();
}
void needed(CLI::App& command, const std::string& name, std::vector<std::string>& values,
            const std::string& what) {
  filled(command, name, values, what)->required();
}

std::vector<CommandWords> commandWords(const CLI::App& app) {
  std::vector<CommandWords> out;
  for (const CLI::App* command : allCommands(app)) {
    out.push_back({command->get_name(), optionNames(*command)});
    for (const CLI::Option* option : command->get_options())
      out.back().takesGame = out.back().takesGame || option->get_name() == "GAME";
  }
  return out;
}

bool runCommand(int argc, char** argv, const ProgramWords& words,
                const std::function<void(CLI::App&)>& add) {
  CLI::App app(words.what, "ninepegs");
  app.set_version_flag("--version", "ninepegs " + words.version);
  app.require_subcommand(1);
  app.get_formatter()->column_width(34);
  app.footer(words.footer);
  add(app);
  try {
    app.parse(argc, argv);
  } catch (const CLI::CallForHelp&) {
    std::string help = app.help();
    for (const CLI::App* command : app.get_subcommands()) help = command->help("ninepegs");
    print(help);
  } catch (const CLI::CallForVersion& version) {
    print(std::string(version.what()) + "\n");
  } catch (const CLI::ParseError& error) {
    printError(usageError(app, error, {argv + 1, argv + argc}));
    return false;
  }
  return true;
}

}  // namespace ninepegs::cli
