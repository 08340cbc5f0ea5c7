#include "soak/options.hpp"

#include <CLI/CLI.hpp>

namespace ninepegs::soak {

int readOptions(int argc, char** argv, Options& options) {
  CLI::App app("Plays sheets beside the slow judge and reads hostile texts.");
  app.add_option("--what", options.what,
                 "drawn (sheets drawn at random), mutated (sheets with slips), rewritten (the same "
                 "rules written another way) or texts (positions, moves, records, opponents)")
      ->check(CLI::IsMember({"drawn", "mutated", "rewritten", "texts"}));
  app.add_option("--seed", options.seed, "seed of everything");
  app.add_option("--from", options.from, "the first number");
  app.add_option("--many,--sheets", options.many, "how many");
  app.add_option("--processes", options.processes, "processes at a time");
  app.add_option("--hang", options.hang, "seconds of work after which a piece hangs");
  app.add_option("--slow", options.slow, "seconds a sheet may take to be read");
  app.add_option("--judge-each", options.judgeEach,
                 "of mutated sheets, every so many are played beside the slow judge");
  app.add_option("--keep", options.keep, "folder for what is found, with the smallest sheets");
  app.add_option("--show", options.show, "print the sheet of one number and what is found");
  app.add_option("--reduce", options.reduce, "print the smallest sheet that shows what FILE shows");
  app.add_flag("--first", options.first, "stop at the first that is found");
  app.add_flag("--forms", options.forms, "print how often each form was used");
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return app.exit(error);
  }
  return -1;
}

}  // namespace ninepegs::soak
