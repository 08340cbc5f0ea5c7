#include "ninepegs/report/tuning_text.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "ninepegs/base/text.hpp"
#include "ninepegs/engines/json.hpp"
#include "ninepegs/report/pairing_json.hpp"
#include "ninepegs/report/series_text.hpp"

namespace ninepegs::report {

std::string tuningText(const Game& game, const play::Tuned& tuned, std::uint64_t seed,
                       const Paint& paint) {
  std::string out = paint.strong(game.info().title);
  out += fmt::format(": learned from {} of {}, seed {}\n",
                     plural(static_cast<long long>(tuned.positions), "position"),
                     plural(static_cast<long long>(tuned.games), "game"), seed);
  if (tuned.stopped) out += paint.bad("  stopped early\n");
  if (!tuned.parts.empty()) {
    out += "\n" + paint.strong("    times     odds   +-      what a side has more of") + "\n";
    for (const play::Tuned::Part& part : tuned.parts) {
      std::string line = fmt::format("  {:>7}  {:>+7.3f}  {:<6.3f}  {}",
                                     part.times == 0 ? "-" : std::to_string(part.times),
                                     part.weight, 2 * part.error, part.term);
      out += (part.times == 0 ? paint.faint(line) : line) + "\n";
    }
    out +=
        "\n  odds: what one more of it adds to the logarithm of the odds of winning. What is not\n"
        "  surely above or below nothing is left out.\n";
  }
  if (tuned.stopped && tuned.parts.empty()) return out + "  nothing was learned until then\n";
  out +=
      fmt::format("  How well the winner is foretold: {:.3f} instead of {:.3f}; less is better.\n",
                  tuned.after, tuned.before);
  if (tuned.worth.empty())
    return out + (tuned.stopped ? "" : "\n  nothing that was tried tells who wins\n");
  out += "\n" + paint.strong(tuned.worth) + "\n";
  if (tuned.gain) {
    const play::Pairing& gain = *tuned.gain;
    out += fmt::format("\n  with it against the sheet as it is: won {}, drawn {}, lost {}; {}\n",
                       gain.wins, gain.draws, gain.losses, ratingText(gain));
  }
  return out;
}

std::string tuningJson(const Game& game, const play::Tuned& tuned, std::uint64_t seed) {
  Json out;
  out["game"] = game.info().id;
  out["variant"] = game.info().variant;
  out["seed"] = seed;
  out["complete"] = !tuned.stopped;
  out["games"] = tuned.games;
  out["positions"] = tuned.positions;
  bool nothing = tuned.stopped && tuned.parts.empty();
  out["loss_before"] = nothing ? Json(nullptr) : Json(tuned.before);
  out["loss"] = nothing ? Json(nullptr) : Json(tuned.after);
  out["parts"] = Json::array();
  for (const play::Tuned::Part& part : tuned.parts)
    out["parts"].push_back({{"term", part.term},
                            {"times", part.times},
                            {"log_odds", part.weight},
                            {"error", part.error}});
  out["worth"] = tuned.worth.empty() ? Json(nullptr) : Json(tuned.worth);
  if (tuned.gain) addResults(out["gain"], *tuned.gain);
  return jsonText(out, 1);
}

}  // namespace ninepegs::report
