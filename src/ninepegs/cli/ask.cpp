#include <fmt/format.h>

#include <filesystem>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/line_input.hpp"
#include "ninepegs/report/question_text.hpp"

namespace ninepegs::cli {
namespace {

struct Options {
  GameOptions game;
  DrawOptions drawing;
  std::string questions = "12";
  Said keep, doubts, propose;
  bool json = false;
};

// Cases that were kept, in a file that may hold others.
class Keeper {
 public:
  Keeper(const SheetGame& game, const Options& options) {
    if (options.keep) {
      path_ = *options.keep;
    } else if (options.game.game.find('/') != std::string::npos ||
               options.game.game.ends_with(".pegs")) {
      path_ = game.info().casesSource.empty() ? game.info().source : game.info().casesSource;
    }
    if (!path_.empty()) requireWritable(path_);
  }
  void keep(const std::string& block) {
    ++many_;
    all_ += block;
    if (path_.empty()) return;
    std::string text;
    if (std::filesystem::exists(path_)) text = readFile(path_, limits::sheetBytes);
    if (!text.empty() && text.back() != '\n') text += '\n';
    writeFile(path_, text + block);
  }
  // What became of them.
  std::string said() const {
    if (many_ == 0) return "";
    std::string cases = plural(static_cast<long long>(many_), "case");
    if (!path_.empty()) return fmt::format("{} kept in {}\n", cases, path_.string());
    return fmt::format("{} to keep (with --keep FILE they go to a file):\n\n{}", cases, all_);
  }

 private:
  std::filesystem::path path_;
  std::string all_;
  int many_ = 0;
};

class Session {
 public:
  Session(const verify::Mutants& mutants, const std::vector<verify::Question>& questions,
          Keeper& keeper, Context& context)
      : mutants_(mutants), questions_(questions), keeper_(keeper), context_(context) {}

  void run() {
    for (at_ = 0; at_ < questions_.size() && !wantsStop(&stopFlag()); ++at_)
      if (!ask(questions_[at_])) break;
    print("\n" + keeper_.said());
    if (at_ < questions_.size())
      print(fmt::format("{} not asked\n",
                        plural(static_cast<long long>(questions_.size() - at_), "question")));
    if (!doubts_.empty()) print("\nIn doubt:\n" + doubts_);
  }
  const std::string& doubts() const { return doubts_; }

 private:
  // False: no more questions.
  bool ask(const verify::Question& question) {
    print(fmt::format("\n{}\n\n", context_.paint.strong(fmt::format("Question {} of {}", at_ + 1,
                                                                    questions_.size()))));
    print(report::cardText(mutants_, question, context_.paint));
    while (true) {
      std::optional<std::string> line = readLine(context_, "Right? (y, n, s to skip, q) ");
      if (!line || *line == "q" || *line == "quit") return false;
      if (*line == "y" || *line == "yes") {
        keeper_.keep(verify::caseOf(mutants_, question));
        return true;
      }
      if (*line == "n" || *line == "no") {
        std::string lines = report::hangsOn(mutants_, question, context_.paint);
        print("Then one of these lines may be wrong:\n" + lines);
        doubts_ += fmt::format("{}\n{}", question.name,
                               report::hangsOn(mutants_, question, report::Paint()));
        return true;
      }
      if (*line == "s" || *line == "skip") return true;
      print("y: it is right, keep it as a case; n: it is wrong; s: skip; q: stop\n");
    }
  }

  const verify::Mutants& mutants_;
  const std::vector<verify::Question>& questions_;
  Keeper& keeper_;
  Context& context_;
  std::size_t at_ = 0;
  std::string doubts_;
};

void run(const Options& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.open(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet can be asked about");
  verify::MutantOptions how;
  options.drawing.into(how);
  std::size_t most = wholeOption(options.questions, "--questions", 1, 1000);
  how.playouts = 20;
  how.proof = proofMoves;
  std::optional<Keeper> keeper;
  if (options.propose)
    requireWritable(*options.propose);
  else if (!options.json)
    keeper.emplace(sheet, options);
  if (options.doubts) requireWritable(*options.doubts);
  verify::Mutants mutants(sheet, how);
  {
    Progress progress(context, "mutants", mutants.all().size());
    mutants.run([&](std::uint64_t done) { progress.at(done); });
  }
  if (wantsStop(&stopFlag())) {
    context.exitCode = exitInterrupted;
    return;
  }
  std::vector<verify::Question> questions = verify::chooseQuestions(mutants, {.most = most});
  std::string cases;
  for (const verify::Question& one : questions) cases += verify::caseOf(mutants, one);
  if (options.propose) writeFile(*options.propose, cases);
  if (options.json) print(report::questionsJson(mutants, questions, how.seed) + "\n");
  if (!keeper) {
    if (options.propose && !options.json)
      print(fmt::format("{} written to {}, each with what the sheet says; seed {}\n",
                        plural(static_cast<long long>(questions.size()), "question"),
                        *options.propose, how.seed));
    return;
  }
  if (questions.empty()) {
    print(fmt::format(
        "{}: nothing to ask: of {} with one slip each, what differs in {} positions "
        "is noticed by the sheet. Seed {}\n",
        game->info().title, plural(static_cast<long long>(mutants.all().size()), "mutant"),
        mutants.answers().size(), how.seed));
    return;
  }
  print(fmt::format("{}: {}, those first whose answers tell most. Seed {}\n",
                    context.paint.strong(game->info().title),
                    plural(static_cast<long long>(questions.size()), "question"), how.seed));
  Session session(mutants, questions, *keeper, context);
  session.run();
  if (options.doubts && !session.doubts().empty()) writeFile(*options.doubts, session.doubts());
  if (!session.doubts().empty()) context.exitCode = exitFault;
  if (wantsStop(&stopFlag())) context.exitCode = exitInterrupted;
}

}  // namespace

void addAsk(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, run, "ask", "Be asked the few questions whose answers tell most of a sheet",
      "Each question shows a board and what the sheet says of it. y keeps it as a case, so that a\n"
      "later slip is noticed; n names the lines on which it hangs; s skips; q stops. Exit code 1\n"
      "says that an answer was no.\n"
      "Examples:\n"
      "  ninepegs ask ./my-game.pegs --questions 5\n"
      "  ninepegs ask connect-four --propose cases.txt\n"
      "  printf 'y\\ny\\nq\\n' | ninepegs ask othello --keep cases.txt");
  options.game.addGame(command);
  option(command, "--questions N", options.questions, "at most so many (default 12)");
  options.drawing.add(command);
  option(command, "--keep FILE", options.keep,
         "add the cases to this file (default: to the sheet, if its path was given)");
  option(command, "--doubts FILE", options.doubts, "write what was answered with no to this file");
  option(command, "--propose FILE", options.propose,
         "ask nothing: write all questions as cases to this file");
  option(command, "--json", options.json, "ask nothing: print one JSON object");
}

}  // namespace ninepegs::cli
