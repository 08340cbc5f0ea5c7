#include <fmt/format.h>

#include <filesystem>

#include "ninepegs/base/files.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/sheet/text/starter.hpp"

namespace ninepegs::cli {

void addNew(CLI::App& app, Context&) {
  auto name = std::make_shared<std::string>();
  CLI::App* command = app.add_subcommand("new", "Write a commented sheet to begin a game with");
  command->add_option("NAME", *name, "the game's name; the file is NAME.pegs in this folder")
      ->required();
  command->footer(
      "The sheet is a small game that works; nothing is written over.\n"
      "Example:\n"
      "  ninepegs new peg-race && ninepegs check peg-race.pegs");
  command->callback([name] {
    std::string sheet = sheet::starterSheet(*name);
    std::string file = *name + ".pegs";
    if (std::filesystem::exists(file))
      throw BadInput(Place{file, 0, 0, 1, {}}, "this file is there already", "choose another name");
    writeFile(file, sheet);
    print(
        fmt::format("wrote {}\ntry: ninepegs show {}\n     ninepegs check {}\n", file, file, file));
  });
}

}  // namespace ninepegs::cli
