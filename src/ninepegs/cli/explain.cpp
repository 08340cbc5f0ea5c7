#include "ninepegs/cli/context.hpp"
#include "ninepegs/report/explanation.hpp"

namespace ninepegs::cli {
namespace {

struct ExplainOptions {
  GameOptions game;
  bool program = false, json = false, beside = false, markdown = false;
};

void runExplain(const ExplainOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.openWithVariants(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet can be explained");
  if (options.program) {
    print(sheet::toText(sheet.program()));
    return;
  }
  if (options.json + options.beside + options.markdown > 1)
    throw BadInput(Place{}, "--beside, --markdown and --json are three ways to print one thing",
                   "leave two of them out");
  print(options.json       ? report::explanationJson(sheet)
        : options.beside   ? report::explanationBeside(sheet, context.paint)
        : options.markdown ? report::explanationMarkdown(sheet)
                           : report::explanationText(sheet, context.paint));
}

}  // namespace

void addExplain(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(app, context, runExplain, "explain",
                                       "Say the rules in plain sentences, as they were understood",
                                       "The numbers in front are lines of the sheet.\n"
                                       "Examples:\n"
                                       "  ninepegs explain connect-four\n"
                                       "  ninepegs explain hut-pass --beside\n"
                                       "  ninepegs explain morris --markdown > rules.md\n"
                                       "  ninepegs explain chess --program");
  options.game.addGame(command);
  option(command, "--program", options.program,
         "print the compiled program instead: an instruction a line, with its source line");
  option(command, "--beside", options.beside,
         "print the sheet's own words (`about`) and the sentences in two columns");
  option(command, "--markdown", options.markdown, "print Markdown");
  option(command, "--json", options.json, "print a JSON array of sentences");
}

}  // namespace ninepegs::cli
