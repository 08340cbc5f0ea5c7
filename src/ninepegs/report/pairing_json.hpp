// What came of the games of two opponents, as JSON. Internal to the room.
#pragma once

#include "ninepegs/engines/json.hpp"
#include "ninepegs/play/series.hpp"

namespace ninepegs::report {

// Adds wins, draws, losses, the rating and its margin: null if one of them made no point.
inline void addResults(Json& out, const play::Pairing& pairing) {
  std::optional<double> rating = pairing.rating();
  out["wins"] = pairing.wins;
  out["draws"] = pairing.draws;
  out["losses"] = pairing.losses;
  out["rating"] = rating ? Json(*rating) : Json(nullptr);
  out["margin"] = rating ? Json(pairing.margin()) : Json(nullptr);
}

}  // namespace ninepegs::report
