// Least squares where a few observations are wrong.
#pragma once

#include <Eigen/Core>
#include <functional>

namespace orthema::vision {

/// Residuals of the figures, each in its standard deviations.
using Residuals = std::function<void(const Eigen::VectorXd& figures, Eigen::VectorXd& out)>;

struct Steps {
    double size = 1e-6;  ///< of a figure of about 1
    double steepest = 1e300;
};

struct Solved {
    Eigen::VectorXd figures, residuals;
    Eigen::MatrixXd covariance;  ///< of the figures, by the weights at the end
    int rounds = 0;
};

/// Levenberg and Marquardt's method with a numerical Jacobian and Huber's weights beyond `huber` standard deviations for the first
/// `robust` residuals; those after them count as they are.
Solved least_squares(const Residuals& off, Eigen::VectorXd start, int robust, double huber, int most_rounds = 60, const Steps& steps = {});

/// dr/dx by central differences; what is steeper than `steepest` is a jump and counts as level.
Eigen::MatrixXd jacobian(const Residuals& off, const Eigen::VectorXd& at, const Steps& steps = {});

}  // namespace orthema::vision
