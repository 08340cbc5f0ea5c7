#include "ninepegs/report/json.hpp"

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/check_text.hpp"
#include "ninepegs/report/every_text.hpp"
#include "ninepegs/report/moves_from.hpp"
#include "ninepegs/verify/case_text.hpp"

namespace ninepegs::report {
namespace {

std::string text(const Json& json) {
  return jsonText(json, 2);
}

std::string gameId(const Game& game) {
  return game.info().variant.empty() ? game.info().id : game.info().id + ":" + game.info().variant;
}

Json resultJson(const Game& game, const Result& result) {
  if (result.kind == ResultKind::ongoing) return nullptr;
  Json out;
  out["kind"] = result.kind == ResultKind::win    ? "win"
                : result.kind == ResultKind::draw ? "draw"
                                                  : "fault";
  out["winner"] = result.winner < 0 ? Json(nullptr) : Json(game.info().sides[result.winner]);
  out["name"] = result.name;
  return out;
}

Json spread(const verify::Spread& spread) {
  Json out;
  out["least"] = spread.least();
  out["mean"] = spread.mean();
  out["greatest"] = spread.greatest();
  return out;
}

// What is said of any position.
Json standing(const Game& game, const Position& position) {
  Json out;
  out["game"] = gameId(game);
  out["position"] = game.positionText(position);
  out["to_move"] = game.info().sides[game.toMove(position)];
  out["result"] = resultJson(game, game.result(position));
  return out;
}

// The file that a line stands in, if it is not the sheet's own.
std::string casesFile(const Game& game, int line) {
  LinePlace place = placeOfLine(game.info(), line);
  return place.file == game.info().source ? "" : place.file;
}

Json everyJson(const Game& game, const verify::EveryReport& every) {
  Json out;
  out["complete"] = every.complete();
  out["broken_off"] = every.broken == verify::EveryReport::Broken::memory    ? Json("memory")
                      : every.broken == verify::EveryReport::Broken::stopped ? Json("stopped")
                                                                             : Json(nullptr);
  out["positions"] = every.positions;
  out["up_to_symmetry"] = every.classes ? Json(*every.classes) : Json(nullptr);
  out["ended"] = every.ended;
  out["gone_through"] = every.goneThrough;
  out["moves"] = every.moves;
  out["by_fewest_plies"] = every.levels;
  out["ends"] = Json::array();
  for (const verify::Reached& one : every.ends) {
    Json end;
    end["kind"] = one.outcome.winner < 0 ? "draw" : "win";
    end["winner"] =
        one.outcome.winner < 0 ? Json(nullptr) : Json(game.info().sides[one.outcome.winner]);
    end["name"] = one.name;
    end["positions"] = one.positions;
    end["soonest"] = textsFromStart(game, one.soonest);
    out["ends"].push_back(end);
  }
  out["best_play"] = nullptr;
  if (!every.solved) return out;
  Json best;
  best["winner"] = every.winner < 0 ? Json(nullptr) : Json(game.info().sides[every.winner]);
  best["plies"] = every.winner < 0 ? Json(nullptr) : Json(every.plies);
  best["moves"] = textsFromStart(game, every.best);
  out["best_play"] = best;
  out["longest_plies"] = every.longest ? Json(*every.longest) : Json(nullptr);
  if (every.longest) out["longest_game"] = textsFromStart(game, every.longestGame);
  return out;
}

}  // namespace

std::string showJson(const Game& game, const Position& position, Cell from) {
  Json out = standing(game, position);
  out["pieces"] = Json::array();
  const Geometry& board = game.board();
  for (int whose = 0; whose < game.boards(); ++whose) {
    for (Cell cell = 0; cell < board.size(); ++cell) {
      if (!board.has(cell)) continue;
      std::optional<Piece> piece = game.pieceAt(position, cell, whose);
      if (!piece) continue;
      Json one;
      one["cell"] = board.label(cell);
      one["kind"] = game.info().kinds[piece->kind].name;
      one["side"] = piece->side < 0 ? Json(nullptr) : Json(game.info().sides[piece->side]);
      out["pieces"].push_back(one);
    }
  }
  if (std::string notation = game.notation(position); !notation.empty()) out["fen"] = notation;
  out["shown"] = Json::array();
  CellSet shown = game.shownCells(position);
  for (Cell cell = 0; cell < board.size(); ++cell)
    if (shown[cell]) out["shown"].push_back(board.label(cell));
  if (from >= 0) {
    out["from"] = board.label(from);
    out["goes_to"] = Json::array();
    CellSet targets = targetsFrom(game, position, from);
    for (Cell cell = 0; cell < board.size(); ++cell)
      if (targets[cell]) out["goes_to"].push_back(board.label(cell));
  }
  return text(out);
}

std::string movesJson(const Game& game, const Position& position, Cell from) {
  Json out = standing(game, position);
  out["moves"] = textsFrom(game, position, from);
  return text(out);
}

std::string countJson(const Game& game, const Position& from, const verify::CountOptions& options,
                      const verify::Counts& counts, double seconds) {
  Json out;
  out["game"] = gameId(game);
  out["position"] = game.positionText(from);
  out["depth"] = options.depth;
  out["sequences"] = counts.sequences;
  out["seconds"] = seconds;
  out["complete"] = !counts.stopped;
  // Two first moves may have one text: under a text they are taken together.
  Json moves = Json::object(), list = Json::array();
  for (const auto& [move, number] : counts.byFirstMove) {
    moves[move] = moves.value(move, std::uint64_t{0}) + number;
    list.push_back({{"move", move}, {"sequences", number}});
  }
  out["by_first_move"] = moves;
  out["first_moves"] = list;
  if (options.ends) {
    Json ended = Json::object();
    std::uint64_t total = 0;
    for (const auto& [name, number] : counts.ended) ended[name] = number, total += number;
    out["ended"] = ended;
    out["games"] = total;
  }
  if (options.positions) {
    out["positions"] = counts.positions.empty() ? 0 : counts.positions.back();
    out["positions_by_depth"] = counts.positions;
    out["positions_together"] = counts.allPositions;
  }
  if (!counts.faults.empty()) out["fault"] = counts.faults.front();
  return text(out);
}

// Those that the sheet does not name.
static Json symmetriesJson(const verify::SymmetryTrial& trial) {
  Json out = Json::array();
  for (const verify::Tried& tried : trial.all) {
    static const char* const stands[] = {"not looked at", "holds", "nearly", "fails"};
    Json one;
    one["name"] = tried.symmetry.name;
    one["stands"] = stands[static_cast<int>(tried.stands)];
    one["positions"] = tried.positions;
    one["failed"] = tried.failed;
    one["start"] = tried.start;
    if (tried.stands == verify::Stands::nearly) {
      one["message"] = tried.message;
      one["moves"] = tried.moves;
    }
    out.push_back(one);
  }
  return out;
}

std::string checkJson(const Game& game, const verify::CheckOptions& options,
                      const verify::CheckReport& report, const MutantsPart& mutants) {
  const verify::Evidence& evidence = report.evidence;
  Json out;
  out["game"] = gameId(game);
  out["seed"] = options.seed;
  out["playouts"] = evidence.playouts;
  out["playouts_asked"] = options.playouts;
  out["complete"] = report.complete();
  out["stopped"] = report.stopped;
  Json looked = Json::object();
  for (int i = 0; i < verify::checkParts; ++i) {
    auto part = static_cast<verify::CheckPart>(i);
    looked[partName(part)] = extentName(report.of(part));
  }
  out["looked_at"] = looked;
  out["not_looked_at"] = unlookedParts(options, report);
  out["ply_limit"] = verify::plyLimitOf(game, options);
  out["results"] = Json::array();
  for (const auto& [outcome, number] : evidence.outcomes) {
    const auto& [end, winner, name] = outcome;
    Json one;
    one["kind"] = winner < 0 ? "draw" : "win";
    one["winner"] = winner < 0 ? Json(nullptr) : Json(game.info().sides[winner]);
    one["name"] = name;
    one["times"] = number;
    out["results"].push_back(one);
  }
  out["unfinished"] = evidence.unfinished;
  out["to_the_limit"] = evidence.tooLong;
  out["given_up"] = evidence.givenUp;
  out["plies"] = spread(evidence.lengths);
  Json histogram = Json::object();
  for (const auto& [length, number] : evidence.lengths.times)
    histogram[std::to_string(length)] = number;
  out["plies"]["times"] = histogram;
  out["moves_in_a_position"] = spread(evidence.choices);
  out["positions_mirrored"] = evidence.symmetryTests;
  out["views_compared"] = report.viewPairs;
  if (report.every) out["every_position"] = everyJson(game, *report.every);
  out["remarks"] = Json::array();
  for (const verify::Remark& one : report.remarks)
    out["remarks"].push_back({{"line", one.line}, {"message", one.message}, {"hint", one.hint}});
  out["statements"] = Json::array();
  out["unused"] = Json::array();
  std::vector<RuleLine> lines = ruleLinesOf(game);
  std::vector<std::uint64_t> uses = verify::usesOf(report);
  for (std::size_t i = 0; i < lines.size(); ++i) {
    Json one;
    one["line"] = lines[i].line;
    one["text"] = lines[i].text;
    one["times"] = uses[i];
    out["statements"].push_back(one);
    if (uses[i] == 0) out["unused"].push_back(lines[i].line);
  }
  out["condition_parts"] = Json::array();
  for (const verify::PartUse& part : report.parts)
    if (report.of(verify::CheckPart::conditions) >= verify::Extent::part)
      out["condition_parts"].push_back(
          {{"line", part.line}, {"text", part.text}, {"held", part.held}, {"failed", part.failed}});
  out["other_ways"] = Json::array();
  for (const verify::WayEvidence& way : report.ways) {
    if (way.games == 0) continue;
    Json alone = Json::array();
    for (std::size_t i : verify::reachedAlone(report, way)) alone.push_back(lines[i].line);
    out["other_ways"].push_back(
        {{"way", verify::steerName(way.way)}, {"games", way.games}, {"alone_reached", alone}});
  }
  out["symmetries"] = symmetriesJson(report.symmetries);
  out["shown_of_secrets"] = Json::array();
  for (const verify::Disclosure& one : report.shown)
    out["shown_of_secrets"].push_back({{"line", one.line.line},
                                       {"text", one.line.text},
                                       {"views", one.views},
                                       {"spoke", one.spoke},
                                       {"cells", one.cells},
                                       {"hidden", one.hidden},
                                       {"words", one.words}});
  out["cases"] = Json::array();
  for (const verify::ExampleRun& run : report.examples) {
    Json one;
    one["name"] = run.name;
    one["line"] = placeOfLine(game.info(), run.line).line;
    if (std::string file = casesFile(game, run.line); !file.empty()) one["file"] = file;
    if (!run.variant.empty()) one["variant"] = run.variant;
    if (!run.broken.empty()) one["breaks"] = run.broken;
    one["passed"] = run.findings.empty();
    out["cases"].push_back(one);
  }
  out["findings"] = Json::array();
  for (const verify::Finding& finding : report.findings) {
    Json one;
    one["kind"] = verify::findingName(finding.kind);
    int line = placeOfLine(game.info(), finding.line).line;
    one["line"] = finding.line == 0 ? Json(nullptr) : Json(line);
    if (std::string file = casesFile(game, finding.line); !file.empty()) one["file"] = file;
    one["message"] = finding.message;
    if (!finding.example.empty()) one["case"] = finding.example;
    one["from"] = finding.from.empty() ? Json(nullptr) : Json(finding.from);
    one["moves"] = finding.moves;
    one["position"] = finding.position;
    one["shortest"] = finding.shortest;
    if (std::string block = verify::caseOf(game, finding); !block.empty()) one["as_case"] = block;
    one["met"] = verify::steerName(finding.way);
    out["findings"].push_back(one);
  }
  if (mutants.mutants != nullptr) {
    out["mutants"] = readJson(mutantsJson(*mutants.mutants, mutants.how));
    for (const char* said : {"game", "variant", "seed"}) out["mutants"].erase(said);
  }
  return text(out);
}

}  // namespace ninepegs::report
