#include "ninepegs/report/mutants_text.hpp"

#include <fmt/format.h>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/verify/questions.hpp"

namespace ninepegs::report {
namespace {

using verify::Difference;
using verify::Mutant;

const char* standing(const Mutant& one) {
  if (!one.studied) return one.givenUp ? "given up" : "not looked at";
  if (one.game == nullptr) return "refused";
  if (!one.noticedBy.empty()) return one.noticedBy == "case" ? "case" : "playouts";
  return one.shows.empty() ? "same" : "missed";
}

const char* differs(Difference::Kind kind) {
  switch (kind) {
    case Difference::Kind::notLegal:
      return "a move is not legal there";
    case Difference::Kind::extra:
      return "another move is legal there";
    case Difference::Kind::after:
      return "it leads elsewhere";
    case Difference::Kind::result:
      return "it ends otherwise";
    case Difference::Kind::told:
      return "something else is told";
    case Difference::Kind::runaway:
      return "it comes to no end";
    case Difference::Kind::start:
      return "it begins otherwise";
    case Difference::Kind::seen:
      return "a side sees something else";
  }
  return "";
}

// The shortest game on which it parts from the sheet, as texts.
struct Shown {
  std::vector<std::string> moves;
  bool shortest = false;
  Difference::Kind kind = Difference::Kind::after;
};
Shown partingOf(const verify::Mutants& mutants, const Mutant& one, std::size_t budget) {
  Shown out;
  verify::Parting parting = mutants.parting(one, budget);
  out.shortest = parting.shortest;
  if (!parting.shortest) {
    out.kind = one.shows.front().kind;
    return out;
  }
  out.kind = parting.difference.kind;
  Position position = mutants.game().start();
  for (const Move& move : parting.moves) {
    out.moves.push_back(mutants.game().moveText(position, move));
    mutants.game().apply(position, move);
  }
  return out;
}

std::string parted(const verify::Mutants& mutants, const Mutant& one, std::size_t budget) {
  Shown shown = partingOf(mutants, one, budget);
  if (shown.shortest)
    return fmt::format("after {}: {}", shown.moves.empty() ? "no move" : joined(shown.moves, ", "),
                       differs(shown.kind));
  const verify::Mutants::Answer& answer = mutants.answers()[one.shows.front().scene];
  return fmt::format("from {}: {}", mutants.game().positionText(answer.scene.position),
                     differs(shown.kind));
}

}  // namespace

double MutantTotals::noticed() const {
  std::size_t differ = byCase + byPlayouts + missed;
  return differ == 0 ? 100.0
                     : 100.0 * static_cast<double>(differ - missed) / static_cast<double>(differ);
}

MutantTotals totalsOf(const verify::Mutants& mutants) {
  MutantTotals out;
  for (const Mutant& one : mutants.all()) {
    std::string_view is = standing(one);
    ++out.all;
    ++(is == "not looked at" ? out.notLookedAt
       : is == "given up"    ? out.givenUp
       : is == "refused"     ? out.refused
       : is == "case"        ? out.byCase
       : is == "playouts"    ? out.byPlayouts
       : is == "same"        ? out.same
                             : out.missed);
  }
  return out;
}

std::vector<std::pair<std::size_t, std::string>> mutantCounts(const verify::Mutants& mutants,
                                                              const MutantsSaid& how) {
  MutantTotals totals = totalsOf(mutants);
  std::vector<std::pair<std::size_t, std::string>> out = {
      {totals.byCase, "noticed by a case of the sheet"},
      {totals.byPlayouts, fmt::format("noticed in {} playouts each", how.playouts)},
      {totals.refused, "refused when they are read"}};
  if (std::size_t proved = mutants.same(); proved > 0)
    out.emplace_back(proved, "the same as the sheet in every position that can be reached");
  if (std::size_t seen = totals.same - mutants.same(); seen > 0)
    out.emplace_back(seen, fmt::format("the same as the sheet in {} positions, chosen among {}",
                                       grouped(mutants.answers().size()), grouped(mutants.met())));
  out.emplace_back(totals.missed, "differ from the sheet, and nothing notices");
  if (totals.givenUp > 0) out.emplace_back(totals.givenUp, "given up: they take too many steps");
  if (totals.notLookedAt > 0) out.emplace_back(totals.notLookedAt, "not looked at");
  return out;
}

std::vector<MissedMutant> missedMutants(const verify::Mutants& mutants, const MutantsSaid& how) {
  std::vector<MissedMutant> out;
  for (const Mutant& one : mutants.all()) {
    if (std::string_view(standing(one)) != "missed") continue;
    bool looked = out.size() < how.partings;
    out.push_back({one.mutation.line, rules::toText(one.mutation),
                   looked ? parted(mutants, one, how.budget) : ""});
  }
  return out;
}

std::string mutantsText(const verify::Mutants& mutants, const MutantsSaid& how,
                        const Paint& paint) {
  const Game& game = mutants.game();
  MutantTotals totals = totalsOf(mutants);
  std::string out = paint.strong(game.info().title);
  if (!game.info().variant.empty()) out += ", variant " + game.info().variant;
  out += fmt::format(": {} with one slip each, seed {}\n",
                     plural(static_cast<long long>(totals.all), "mutant"), how.seed);
  if (how.stopped)
    out += paint.bad(fmt::format("  stopped early: {} of {} were looked at",
                                 totals.all - totals.notLookedAt - totals.givenUp, totals.all)) +
           "\n";
  for (const auto& [many, says] : mutantCounts(mutants, how))
    out += fmt::format("  {:>5}  {}\n", many, says);
  if (totals.byCase + totals.byPlayouts + totals.missed > 0)
    out += fmt::format("  of those that {}, {:.1f} % are noticed\n",
                       how.stopped ? "were seen to differ" : "differ", totals.noticed());
  std::size_t partings = 0;
  bool headed = false;
  for (const Mutant& one : mutants.all()) {
    std::string_view is = standing(one);
    if (is != "missed" && !how.everyOne) continue;
    if (!headed && !how.everyOne) out += "\n" + paint.strong("Not noticed") + "\n";
    if (!headed && how.everyOne) out += "\n" + paint.strong("All mutants") + "\n";
    headed = true;
    out += fmt::format("  line {:>3}  {}\n", one.mutation.line, rules::toText(one.mutation));
    if (is == "case")
      out += fmt::format("            case \"{}\", line {}\n", one.noticed,
                         lineName(game.info(), one.noticedLine));
    else if (is == "playouts")
      out += paint.wrapped(one.noticedBy + ": " + one.noticed, "            ");
    else if (is == "refused")
      out += paint.wrapped("refused: " + one.refused, "            ");
    else if (is == "same")
      out += "            the same\n";
    else if (is == "not looked at" || is == "given up")
      out += fmt::format("            {}\n", is);
    else if (partings++ < how.partings)
      out += paint.wrapped(parted(mutants, one, how.budget), "            ");
  }
  if (totals.missed > how.partings)
    out += fmt::format("  shortest games are shown for the first {}\n", how.partings);
  if (totals.missed > 0)
    out += fmt::format("\n`ninepegs ask {}` asks what would tell them apart.\n", game.info().id);
  return out;
}

std::string mutantsJson(const verify::Mutants& mutants, const MutantsSaid& how) {
  Json out;
  MutantTotals totals = totalsOf(mutants);
  out["game"] = mutants.game().info().id;
  if (!mutants.game().info().variant.empty()) out["variant"] = mutants.game().info().variant;
  out["seed"] = how.seed;
  out["playouts"] = how.playouts;
  out["positions"] = mutants.answers().size();
  out["complete"] = !how.stopped;
  out["totals"] = {{"mutants", totals.all},
                   {"case", totals.byCase},
                   {"playouts", totals.byPlayouts},
                   {"refused", totals.refused},
                   {"same", totals.same},
                   {"proved_same", mutants.same()},
                   {"missed", totals.missed},
                   {"given_up", totals.givenUp},
                   {"not_looked_at", totals.notLookedAt}};
  bool differ = totals.byCase + totals.byPlayouts + totals.missed > 0;
  out["noticedPercent"] = differ || !how.stopped ? Json(totals.noticed()) : Json(nullptr);
  out["mutants"] = Json::array();
  std::size_t partings = 0;
  for (const Mutant& one : mutants.all()) {
    Json to;
    to["line"] = one.mutation.line;
    to["slip"] = rules::slipName(one.mutation.slip);
    to["was"] = one.mutation.was;
    to["now"] = one.mutation.now;
    to["standing"] = standing(one);
    if (!one.refused.empty()) to["refused"] = one.refused;
    if (!one.noticedBy.empty())
      to["noticed"] = {{"by", one.noticedBy},
                       {"line", placeOfLine(mutants.game().info(), one.noticedLine).line},
                       {"says", one.noticed}};
    if (std::string_view(standing(one)) == "missed" && partings++ < how.partings) {
      Shown shown = partingOf(mutants, one, how.budget);
      if (shown.shortest) to["moves"] = shown.moves;
      to["differs"] = differs(shown.kind);
    }
    out["mutants"].push_back(std::move(to));
  }
  return jsonText(out, 2);
}

}  // namespace ninepegs::report
