// Statistics: the few distributions that records are judged by. Plain functions of numbers; nothing here knows a press.
#pragma once

#include <cstddef>
#include <vector>

namespace orthema {

double normal_cdf(double z);
/// Method: Acklam's rational approximation, then one step of Halley's: to 1e-15.
double normal_quantile(double p);
/// I_x(a, b). Method: Lentz's continued fraction.
double incomplete_beta(double a, double b, double x);
double beta_quantile(double a, double b, double p);
double t_cdf(double t, double df);
double t_quantile(double p, double df);
/// The chance of an F at least as large, with these degrees of freedom.
double f_above(double f, double df1, double df2);

struct Interval {
    double low = 0, high = 0;
    bool operator==(const Interval&) const = default;
};

/// Of a share, of which `hits` in `tries` were seen: covers at least `sure`, whatever the share is. Source: Clopper and Pearson, 1934.
Interval share_interval(int hits, int tries, double sure = 0.95);

/// The chance of at most `most` in `tries` more, where `hits` in `seen` were seen before; the share as uncertain as that
/// leaves it. Method: beta-binomial sum, from Jeffreys' prior.
double at_most_next(int most, int tries, int hits, int seen);

/// The chance that a two-sided t test at `level` sees a shift of `shift` spreads from n pieces. Method: the noncentral t, summed over
/// the spread that those pieces show (Simpson's rule).
double power_of_t(int n, double shift, double level = 0.05);

double mean_of(const std::vector<double>& values);
/// With n − 1; 0 of fewer than two.
double spread_of(const std::vector<double>& values);
double median_of(std::vector<double> values);
/// The spread of most of them, whatever the rest do: 1.4826 times the median distance from the median.
double robust_spread(const std::vector<double>& values);

/// A symmetric positive definite matrix, by rows; small and dense.
struct Square {
    std::size_t n = 0;
    std::vector<double> a;
    Square() = default;
    explicit Square(std::size_t size) : n(size), a(size * size) {}
    double& operator()(std::size_t i, std::size_t j) { return a[i * n + j]; }
    double operator()(std::size_t i, std::size_t j) const { return a[i * n + j]; }
};
/// Its inverse by Cholesky; false where it has none that can be told from rounding.
bool invert(Square& m);

}  // namespace orthema
