#include "vision/squares.h"

#include <Eigen/Cholesky>
#include <algorithm>
#include <cmath>

namespace orthema::vision {

Eigen::MatrixXd jacobian(const Residuals& off, const Eigen::VectorXd& at, const Steps& steps) {
    Eigen::VectorXd x = at, plus, minus;
    off(at, plus);
    Eigen::MatrixXd out(plus.size(), at.size());
    for (long k = 0; k < at.size(); ++k) {
        const double h = steps.size * std::max(1.0, std::abs(at[k]));
        x[k] = at[k] + h;
        off(x, plus);
        x[k] = at[k] - h;
        off(x, minus);
        x[k] = at[k];
        out.col(k) = (plus - minus) / (2 * h);
        for (double& slope : out.col(k))
            if (std::abs(slope) > steps.steepest) slope = 0;
    }
    return out;
}

Solved least_squares(const Residuals& off, Eigen::VectorXd x, int robust, double huber, int most_rounds, const Steps& steps) {
    Solved out;
    Eigen::VectorXd r, next;
    off(x, r);
    const auto weights = [&](const Eigen::VectorXd& from) {
        Eigen::VectorXd w = Eigen::VectorXd::Ones(from.size());
        for (long i = 0; i < std::min<long>(robust, from.size()); ++i)
            if (std::abs(from[i]) > huber) w[i] = huber / std::abs(from[i]);
        return w;
    };
    const auto cost = [&](const Eigen::VectorXd& from) {
        double sum = 0;
        for (long i = 0; i < from.size(); ++i) {
            const double a = std::abs(from[i]);
            sum += i < robust && a > huber ? huber * (2 * a - huber) : a * a;
        }
        return sum;
    };
    double now = cost(r), damping = 1e-3;
    Eigen::MatrixXd j, normal;
    for (; out.rounds < most_rounds; ++out.rounds) {
        j = jacobian(off, x, steps);
        const Eigen::VectorXd w = weights(r);
        normal = j.transpose() * w.asDiagonal() * j;
        const Eigen::VectorXd slope = j.transpose() * w.cwiseProduct(r);
        bool better = false;
        double gain = 0;
        for (int tries = 0; tries < 12 && !better; ++tries) {
            Eigen::MatrixXd damped = normal;
            damped.diagonal() += damping * normal.diagonal();
            const Eigen::VectorXd step = damped.ldlt().solve(-slope);
            off(x + step, next);
            const double then = next.allFinite() ? cost(next) : now;
            if (then < now) {
                gain = now - then;
                x += step;
                r = next;
                now = then;
                damping = std::max(1e-12, damping / 10);
                better = true;
            } else {
                damping *= 10;
            }
        }
        if (!better || gain < 1e-9 * (1 + now)) break;
    }
    j = jacobian(off, x, steps);
    normal = j.transpose() * weights(r).asDiagonal() * j;
    out.figures = x;
    out.residuals = r;
    out.covariance = normal.ldlt().solve(Eigen::MatrixXd::Identity(x.size(), x.size()));
    return out;
}

}  // namespace orthema::vision
