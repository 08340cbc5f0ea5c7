// Logistic regression: how likely something is, from numbers that may bear on it (J. Berkson,
// "Application of the logistic function to bio-assay", 1944). Internal to the room.
//
//   std::vector<std::vector<double>> rows = {{1}, {1}, {0}, {0}, {0}};
//   Logistic fit = fitLogistic(rows, {1, 1, 0, 0, 1});
#pragma once

#include <vector>

namespace ninepegs::play {

struct Logistic {
  std::vector<double> weights;  // of each column: how much a unit of it adds to the log of the odds
  std::vector<double> errors;   // their standard errors
  double loss = 0;              // the mean of -log of the likelihood, a row
};

// `results` are shares of 1 from 0 to 1, one a row. By Newton's steps, with a penalty that counts
// as `ridge` rows and keeps weights finite; columns are best of like size. Requires rows, all of
// equal size.
Logistic fitLogistic(const std::vector<std::vector<double>>& rows,
                     const std::vector<double>& results, double ridge = 1);

}  // namespace ninepegs::play
