#include "ninepegs/play/logistic.hpp"

#include <Eigen/Cholesky>
#include <Eigen/Core>
#include <cmath>

namespace ninepegs::play {

Logistic fitLogistic(const std::vector<std::vector<double>>& rows,
                     const std::vector<double>& results, double ridge) {
  constexpr int mostSteps = 50;
  constexpr double still = 1e-9;
  auto count = static_cast<Eigen::Index>(rows.size());
  auto columns = static_cast<Eigen::Index>(rows.front().size());
  Eigen::MatrixXd x(count, columns);
  Eigen::VectorXd y(count);
  for (Eigen::Index i = 0; i < count; ++i) {
    for (Eigen::Index k = 0; k < columns; ++k)
      x(i, k) = rows[static_cast<std::size_t>(i)][static_cast<std::size_t>(k)];
    y(i) = results[static_cast<std::size_t>(i)];
  }
  Eigen::VectorXd weights = Eigen::VectorXd::Zero(columns);
  Eigen::MatrixXd curvature;
  auto likely = [&] {
    return Eigen::VectorXd((1 / (1 + (-(x * weights)).array().exp())).matrix());
  };
  for (int step = 0; step < mostSteps; ++step) {
    Eigen::VectorXd p = likely();
    Eigen::VectorXd spread = (p.array() * (1 - p.array())).matrix();
    curvature = x.transpose() * spread.asDiagonal() * x +
                ridge * Eigen::MatrixXd::Identity(columns, columns);
    Eigen::VectorXd change = curvature.llt().solve(x.transpose() * (y - p) - ridge * weights);
    weights += change;
    if (change.cwiseAbs().maxCoeff() < still) break;
  }
  Logistic out;
  Eigen::MatrixXd covariance = curvature.llt().solve(Eigen::MatrixXd::Identity(columns, columns));
  for (Eigen::Index k = 0; k < columns; ++k) {
    out.weights.push_back(weights(k));
    out.errors.push_back(std::sqrt(covariance(k, k)));
  }
  Eigen::VectorXd p = likely();
  constexpr double least = 1e-12;
  for (Eigen::Index i = 0; i < count; ++i)
    out.loss -= (y(i) * std::log(std::max(p(i), least)) +
                 (1 - y(i)) * std::log(std::max(1 - p(i), least))) /
                static_cast<double>(count);
  return out;
}

}  // namespace ninepegs::play
