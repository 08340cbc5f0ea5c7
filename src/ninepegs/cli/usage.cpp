#include "ninepegs/cli/usage.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"

namespace ninepegs::cli {
namespace {

const CLI::App* chosenCommand(const CLI::App& app) {
  std::vector<const CLI::App*> chosen = app.get_subcommands([](const CLI::App*) { return true; });
  for (const CLI::App* command : chosen)
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

}  // namespace

std::string usageError(const CLI::App& app, const CLI::ParseError& error,
                       const std::vector<std::string>& arguments) {
  const CLI::App* command = chosenCommand(app);
  std::string message = error.what(), hint;
  if (command == nullptr) {
    std::vector<std::string> names;
    for (const CLI::App* one : app.get_subcommands([](const CLI::App*) { return true; }))
      names.push_back(one->get_name());
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

}  // namespace ninepegs::cli
