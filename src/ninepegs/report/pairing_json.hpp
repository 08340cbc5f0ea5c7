// What came of the games of two opponents, as JSON. Internal to the room.
#pragma once

#include <nlohmann/json.hpp>

#include "ninepegs/play/series.hpp"

namespace ninepegs::report {

// Adds wins, draws, losses, the rating and its margin: null if one of them made no point.
inline void addResults(nlohmann::ordered_json& out, const play::Pairing& pairing) {
  std::optional<double> rating = pairing.rating();
  out["wins"] = pairing.wins;
  out["draws"] = pairing.draws;
  out["losses"] = pairing.losses;
  out["rating"] = rating ? nlohmann::ordered_json(*rating) : nlohmann::ordered_json(nullptr);
  out["margin"] =
      rating ? nlohmann::ordered_json(pairing.margin()) : nlohmann::ordered_json(nullptr);
}

}  // namespace ninepegs::report
