#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/game/sheet_game.hpp"
#include "ninepegs/sheet/explain.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  bool program = false, json = false;
};

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  const auto* sheet = dynamic_cast<const SheetGame*>(game.get());
  if (sheet == nullptr) throw BadInput(Place{}, "only a game with a sheet can be explained");
  if (options.program) {
    print(sheet::toText(sheet->program()));
    return;
  }
  std::vector<sheet::Explanation> parts = sheet::explain(sheet->sheet());
  if (options.json) {
    nlohmann::ordered_json out = nlohmann::ordered_json::array();
    for (const sheet::Explanation& part : parts)
      for (const auto& one : part.sentences)
        out.push_back(
            {{"part", part.heading}, {"line", one.line}, {"depth", one.depth}, {"text", one.text}});
    print(out.dump(2) + "\n");
    return;
  }
  const GameInfo& info = game->info();
  std::string out = context.paint.strong(info.title) + "\n";
  std::string prose;
  for (const std::string& line : info.about) prose += (prose.empty() ? "" : " ") + line;
  if (!prose.empty()) out += wrapped(prose, 96, "  ");
  for (const sheet::Explanation& part : parts) {
    out += "\n" + context.paint.strong(part.heading) + "\n";
    for (const auto& one : part.sentences) {
      std::string place = one.line > 0 ? fmt::format("{:4}", one.line) : "    ";
      std::string lines = wrapped(one.text, 88 - 2 * static_cast<std::size_t>(one.depth),
                                  std::string(6 + 2 * static_cast<std::size_t>(one.depth), ' '));
      out += context.paint.faint(place) + lines.substr(4);
    }
  }
  print(out);
}

}  // namespace

void addExplain(CLI::App& app, Context& context) {
  auto options = std::make_shared<Options>();
  CLI::App* command =
      app.add_subcommand("explain", "Say the rules in plain sentences, as they were understood");
  options->game.addGame(*command);
  command->add_flag(
      "--program", options->program,
      "print the compiled program instead: an instruction a line, with its source line");
  command->add_flag("--json", options->json, "print a JSON array of sentences");
  command->footer(
      "The numbers in front are lines of the sheet.\n"
      "Examples:\n"
      "  ninepegs explain connect-four\n"
      "  ninepegs explain chess --program");
  command->callback([options, &context] { run(*options, context); });
}

}  // namespace ninepegs::cli
