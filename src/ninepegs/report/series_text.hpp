// A series of games as text and JSON, and as a file to go on from.
#pragma once

#include <string>
#include <vector>

#include "ninepegs/play/series.hpp"
#include "ninepegs/report/paint.hpp"

namespace ninepegs::report {

// "+35 +- 12 rating points", or why there is none.
std::string ratingText(const play::Pairing& pairing);

std::string seriesText(const Game& game, const std::vector<std::string>& who,
                       const play::SeriesOptions& options, const play::Series& series,
                       const Paint& paint);
// One object: opponents, pairings, ratings, games. It is what readSeries reads. `version`: of the
// program whose opponents played.
std::string seriesJson(const Game& game, const std::vector<std::string>& who,
                       const play::SeriesOptions& options, const play::Series& series,
                       const std::string& version);

// A row a game, comma-separated: number, first, second (names), opening_plies, plies, winner
// (empty: neither), result.
std::string seriesCsv(const std::vector<std::string>& who, const play::Series& series);

// The games of such an object. Throws BadInput for a text that is none, or of another game, sheet
// or version, of other opponents or options; `source` names it in messages.
std::vector<play::SeriesGame> readSeries(const Game& game, const std::vector<std::string>& who,
                                         const play::SeriesOptions& options,
                                         const std::string& version, const std::string& text,
                                         const std::string& source);

}  // namespace ninepegs::report
