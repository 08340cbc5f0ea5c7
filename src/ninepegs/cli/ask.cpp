#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <chrono>
#include <exception>
#include <filesystem>
#include <thread>

#include "ninepegs/base/files.hpp"
#include "ninepegs/base/limits.hpp"
#include "ninepegs/base/text.hpp"
#include "ninepegs/cli/context.hpp"
#include "ninepegs/cli/line_input.hpp"
#include "ninepegs/report/question_text.hpp"
#include "ninepegs/verify/check.hpp"

namespace ninepegs::cli {
namespace {

struct AskOptions {
  GameOptions game;
  DrawOptions drawing;
  std::string questions = "12";
  Said keep, doubts, propose;
  TimeOption time;
  bool json = false;
};

// Cases that were kept, in a file that may hold others.
class Keeper {
 public:
  Keeper(const SheetGame& game, const AskOptions& options) {
    if (options.keep) {
      path_ = *options.keep;
    } else if (Library::isPath(options.game.game)) {
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

// A question, and the mutants that it was chosen from.
struct Posed {
  const verify::Mutants* mutants = nullptr;
  verify::Question question;
};

class Session {
 public:
  Session(Keeper& keeper, Context& context) : keeper_(keeper), context_(context) {}

  // False: no more questions. `of`: how many there are; 0: that is not known yet.
  bool ask(const Posed& posed, std::size_t number, std::size_t of) {
    const auto& [mutants, question] = posed;
    std::string title = of == 0 ? fmt::format("Question {}; more are being looked for", number)
                                : fmt::format("Question {} of {}", number, of);
    print(fmt::format("\n{}\n\n", context_.paint.strong(title)));
    print(report::cardText(*mutants, question, context_.paint));
    while (!wantsStop(&stopFlag())) {
      std::optional<std::string> line = readLine(context_, "Right? (y, n, s to skip, q) ");
      if (!line || *line == "q" || *line == "quit") return false;
      if (*line == "y" || *line == "yes") {
        keeper_.keep(verify::caseOf(*mutants, question));
        return true;
      }
      if (*line == "n" || *line == "no") {
        std::string lines = report::hangsOn(*mutants, question, context_.paint);
        print("Then one of these lines may be wrong:\n" + lines);
        doubts_ += fmt::format("{}\n{}", question.name,
                               report::hangsOn(*mutants, question, report::Paint()));
        return true;
      }
      if (*line == "s" || *line == "skip") return true;
      print("y: it is right, keep it as a case; n: it is wrong; s: skip; q: stop\n");
    }
    return false;
  }
  const std::string& doubts() const { return doubts_; }

 private:
  Keeper& keeper_;
  Context& context_;
  std::string doubts_;
};

// A few mutants in a few positions: what is asked first, within seconds, while all are looked at.
constexpr std::size_t firstMutants = 40, firstPositions = 40, firstPlays = 30'000;
constexpr int firstGames = 4;
constexpr std::size_t firstTried = 4;  // questions

// All mutants, studied on a thread of its own while the person thinks.
class Study {
 public:
  Study(const SheetGame& sheet, verify::MutantOptions how) : mutants_(sheet, stopped(how)) {
    thread_ = std::thread([this] {
      try {
        mutants_.run([this](std::uint64_t done) { done_ = done; });
      } catch (...) {
        thrown_ = std::current_exception();
      }
      finished_ = true;
    });
  }
  ~Study() {
    stop_ = true;
    if (thread_.joinable()) thread_.join();
  }
  Study(const Study&) = delete;
  Study& operator=(const Study&) = delete;

  // Waits until all are studied or the time is up; false: it is to stop.
  bool wait(Context& context, std::optional<double> seconds) {
    Progress progress(context, "mutants", mutants_.all().size());
    auto spent = [this] {
      return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun_).count();
    };
    while (!finished_ && !wantsStop(&stopFlag()) && !(seconds && spent() > *seconds)) {
      progress.at(done_);
      std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    if (!finished_) stop_ = true;
    thread_.join();
    if (thrown_) std::rethrow_exception(thrown_);
    return !wantsStop(&stopFlag());
  }
  const verify::Mutants& mutants() const { return mutants_; }
  bool complete() const { return !stop_; }

 private:
  verify::MutantOptions& stopped(verify::MutantOptions& how) {
    how.stop = &stop_;
    return how;
  }
  std::chrono::steady_clock::time_point begun_ = std::chrono::steady_clock::now();
  StopFlag stop_{false};
  std::atomic<bool> finished_{false};
  std::atomic<std::uint64_t> done_{0};
  std::exception_ptr thrown_;
  verify::Mutants mutants_;
  std::thread thread_;
};

// What `check` would find in a short run: it should be mended first.
std::string faultsFirst(const SheetGame& sheet, const verify::MutantOptions& how,
                        const Context& context) {
  constexpr std::uint64_t playouts = 60;
  verify::CheckOptions check;
  check.playouts = playouts, check.seed = how.seed, check.threads = how.threads;
  check.stop = &stopFlag();
  check.described = false;
  verify::CheckReport report = verify::check(sheet, check);
  if (report.findings.empty()) return "";
  std::string out = context.paint.bad(fmt::format(
                        "`ninepegs check` finds {} in this sheet. Mend that first: what a faulty "
                        "sheet says is a bad question.",
                        plural(static_cast<long long>(report.findings.size()), "fault"))) +
                    "\n";
  for (const verify::Finding& one : report.findings)
    out += context.paint.wrapped(
        fmt::format("{}{}: {}", verify::findingName(one.kind),
                    one.line > 0 ? ", line " + lineName(sheet.info(), one.line) : "", one.message),
        "  ");
  return out;
}

std::string nothingToAsk(const Game& game, const verify::Mutants& mutants, bool complete,
                         std::uint64_t seed, const report::Paint& paint) {
  return paint.wrapped(
      fmt::format("{}: nothing to ask{}: of {} with one slip each{}, what differs in {} positions "
                  "is noticed by the sheet. Seed {}",
                  game.info().title, complete ? "" : " so far",
                  plural(static_cast<long long>(mutants.all().size()), "mutant"),
                  complete ? "" : ", as far as they were looked at", mutants.answers().size(),
                  seed),
      "");
}

// Asks nothing: writes or prints all of them.
void propose(const AskOptions& options, const SheetGame& sheet, const verify::MutantOptions& how,
             std::size_t most, Context& context) {
  verify::Mutants mutants(sheet, how);
  {
    Progress progress(context, "mutants", mutants.all().size());
    progress.doing("plays games to find positions");
    mutants.run([&](std::uint64_t done) { progress.at(done); });
  }
  if (endedByInterrupt(context, "no question was chosen")) return;
  bool stopped = wantsStop(&stopFlag());
  std::vector<verify::Question> questions = verify::chooseQuestions(mutants, {.most = most});
  std::string cases;
  for (const verify::Question& one : questions) cases += verify::caseOf(mutants, one);
  if (options.propose) writeFile(*options.propose, cases);
  if (options.json) print(report::questionsJson(mutants, questions, how.seed, !stopped) + "\n");
  if (options.propose && !options.json)
    print(fmt::format("{} written to {}, each with what the sheet says; seed {}\n",
                      plural(static_cast<long long>(questions.size()), "question"),
                      *options.propose, how.seed));
  if (stopped) printError("time is up: not all mutants were looked at\n");
}

// The rest of the questions, in the place of one that was asked already.
std::vector<Posed> restOf(const verify::Mutants& mutants, const std::optional<Posed>& first,
                          std::size_t most) {
  std::vector<Posed> out;
  std::string asked = first ? verify::caseOf(*first->mutants, first->question) : "";
  for (verify::Question& one : verify::chooseQuestions(mutants, {.most = most}))
    if (out.size() + (first ? 1 : 0) < most && verify::caseOf(mutants, one) != asked)
      out.push_back({&mutants, std::move(one)});
  return out;
}

// Is one of the first few mutants that it tells noticed by no playout?
bool tellsUnnoticed(const verify::Mutants& mutants, const verify::Question& question,
                    const verify::MutantOptions& how) {
  constexpr std::size_t looked = 3;
  verify::CheckOptions check;
  check.playouts = how.playouts, check.seed = how.seed;
  check.described = check.examples = false;
  check.stop = &stopFlag();
  for (std::size_t i = 0; i < std::min(looked, question.tells.size()); ++i) {
    const verify::Mutant& one = mutants.all()[question.tells[i]];
    try {
      if (verify::check(*one.game, check).findings.empty()) return true;
    } catch (const BadInput&) {  // it comes to no end: whoever plays it sees that
    }
  }
  return false;
}

void converse(const AskOptions& options, const SheetGame& sheet, const verify::MutantOptions& how,
              std::size_t most, Keeper& keeper, Context& context) {
  std::string faults = faultsFirst(sheet, how, context);
  if (!faults.empty()) print(faults + "\n");
  verify::MutantOptions few = how;
  few.most = firstMutants, few.plays = firstPlays, few.proof = 0;
  few.playouts = 0;  // of those that a question tells only
  few.scenes.games = firstGames, few.scenes.most = firstPositions;
  verify::Mutants quick(sheet, few);
  quick.run();
  if (endedByInterrupt(context, "nothing was asked")) return;
  std::optional<Posed> first;
  for (verify::Question& one : verify::chooseQuestions(quick, {.most = firstTried}))
    if (!first && tellsUnnoticed(quick, one, how)) first = Posed{&quick, std::move(one)};
  Study study(sheet, how);
  Session session(keeper, context);
  print(fmt::format("{}: those questions first whose answers tell most. Seed {}\n",
                    context.paint.strong(sheet.info().title), how.seed));
  bool goesOn = !first || session.ask(*first, 1, 0);
  std::size_t asked = first ? 1 : 0, left = first && !goesOn ? 1 : 0;
  bool known = false;
  if (goesOn && asked < most && study.wait(context, options.time.limit())) {
    known = true;
    if (!study.complete()) print("\ntime is up: not all mutants were looked at\n");
    std::vector<Posed> rest = restOf(study.mutants(), first, most);
    if (rest.empty() && !first)
      print(nothingToAsk(sheet, study.mutants(), study.complete(), how.seed, context.paint));
    for (std::size_t i = 0; i < rest.size() && goesOn; ++i) {
      goesOn = session.ask(rest[i], asked + i + 1, asked + rest.size());
      if (!goesOn) left = rest.size() - i;
    }
  }
  print("\n" + keeper.said());
  if (left > 0)
    print(fmt::format("{} not asked{}\n", plural(static_cast<long long>(left), "question"),
                      known ? "" : ", and more were not looked for"));
  if (!session.doubts().empty()) print("\nIn doubt:\n" + session.doubts());
  if (options.doubts && !session.doubts().empty()) writeFile(*options.doubts, session.doubts());
  if (!session.doubts().empty()) context.exitCode = exitFault;
  if (interrupted()) context.exitCode = exitInterrupted;
}

void runAsk(const AskOptions& options, Context& context) {
  std::shared_ptr<const Game> game = options.game.openWithVariants(context);
  const SheetGame& sheet = sheetOf(*game, "only a game with a sheet can be asked about");
  verify::MutantOptions how;
  options.drawing.into(how);
  std::size_t most = wholeOption(options.questions, "--questions", 1, 1000);
  how.playouts = 20;
  how.proof = proofMoves;
  how.unnoticed = true;
  if (options.propose) requireWritable(*options.propose);
  if (options.doubts) requireWritable(*options.doubts);
  options.time.limit();  // is it one?
  if (options.propose || options.json) {
    options.time.begin();
    return propose(options, sheet, how, most, context);
  }
  Keeper keeper(sheet, options);
  converse(options, sheet, how, most, keeper, context);
}

}  // namespace

void addAsk(CLI::App& app, Context& context) {
  auto [options, command] = newCommand(
      app, context, runAsk, "ask", "Be asked the few questions whose answers tell most of a sheet",
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
  options.time.add(command);
  option(command, "--keep FILE", options.keep,
         "add the cases to this file (default: to the sheet, if its path was given)");
  option(command, "--doubts FILE", options.doubts, "write what was answered with no to this file");
  option(command, "--propose FILE", options.propose,
         "ask nothing: write all questions as cases to this file");
  option(command, "--json", options.json, "ask nothing: print one JSON object");
}

}  // namespace ninepegs::cli
