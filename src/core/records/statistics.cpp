#include "core/records/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace orthema {

double normal_cdf(double z) { return 0.5 * std::erfc(-z / std::numbers::sqrt2); }

double normal_quantile(double p) {
    if (p <= 0) return -std::numeric_limits<double>::infinity();
    if (p >= 1) return std::numeric_limits<double>::infinity();
    static const double a[] = {-3.969683028665376e+01, 2.209460984245205e+02,  -2.759285104469687e+02,
                               1.383577518672690e+02,  -3.066479806614716e+01, 2.506628277459239e+00};
    static const double b[] = {-5.447609879822406e+01, 1.615858368580409e+02, -1.556989798598866e+02, 6.680131188771972e+01,
                               -1.328068155288572e+01};
    static const double c[] = {-7.784894002430293e-03, -3.223964580411365e-01, -2.400758277161838e+00,
                               -2.549732539343734e+00, 4.374664141464968e+00,  2.938163982698783e+00};
    static const double d[] = {7.784695709041462e-03, 3.224671290700398e-01, 2.445134137142996e+00, 3.754408661907416e+00};
    double x = 0;
    if (const double tail = std::min(p, 1 - p); tail < 0.02425) {
        const double q = std::sqrt(-2 * std::log(tail));
        x = (((((c[0] * q + c[1]) * q + c[2]) * q + c[3]) * q + c[4]) * q + c[5]) / ((((d[0] * q + d[1]) * q + d[2]) * q + d[3]) * q + 1);
        if (p > 0.5) x = -x;
    } else {
        const double q = p - 0.5, r = q * q;
        x = (((((a[0] * r + a[1]) * r + a[2]) * r + a[3]) * r + a[4]) * r + a[5]) * q /
            (((((b[0] * r + b[1]) * r + b[2]) * r + b[3]) * r + b[4]) * r + 1);
    }
    const double e = normal_cdf(x) - p, u = e * std::sqrt(2 * std::numbers::pi) * std::exp(x * x / 2);
    return x - u / (1 + x * u / 2);
}

double incomplete_beta(double a, double b, double x) {
    if (x <= 0) return 0;
    if (x >= 1) return 1;
    if (x > (a + 1) / (a + b + 2)) return 1 - incomplete_beta(b, a, 1 - x);
    const double front = std::exp(std::lgamma(a + b) - std::lgamma(a) - std::lgamma(b) + a * std::log(x) + b * std::log1p(-x)) / a;
    constexpr double tiny = 1e-300;
    double c = 1, d = 1 - (a + b) * x / (a + 1);
    d = 1 / (std::abs(d) < tiny ? tiny : d);
    double f = d;
    for (int m = 1; m < 2000; ++m) {
        const double k = m;
        for (const double e :
             {k * (b - k) * x / ((a + 2 * k - 1) * (a + 2 * k)), -(a + k) * (a + b + k) * x / ((a + 2 * k) * (a + 2 * k + 1))}) {
            d = 1 + e * d;
            d = 1 / (std::abs(d) < tiny ? tiny : d);
            c = 1 + e / c;
            if (std::abs(c) < tiny) c = tiny;
            f *= c * d;
        }
        if (std::abs(c * d - 1) < 1e-15) break;
    }
    return front * f;
}

double beta_quantile(double a, double b, double p) {
    double low = 0, high = 1;
    for (int i = 0; i < 200 && high - low > 1e-15; ++i) {
        const double mid = (low + high) / 2;
        (incomplete_beta(a, b, mid) < p ? low : high) = mid;
    }
    return (low + high) / 2;
}

double t_cdf(double t, double df) {
    const double half = incomplete_beta(df / 2, 0.5, df / (df + t * t)) / 2;
    return t > 0 ? 1 - half : half;
}

double t_quantile(double p, double df) {
    if (p < 0.5) return -t_quantile(1 - p, df);
    double low = 0, high = 1;
    while (t_cdf(high, df) < p && high < 1e12) high *= 2;
    for (int i = 0; i < 200 && high - low > 1e-13 * high; ++i) {
        const double mid = (low + high) / 2;
        (t_cdf(mid, df) < p ? low : high) = mid;
    }
    return (low + high) / 2;
}

double f_above(double f, double df1, double df2) { return f <= 0 ? 1 : incomplete_beta(df2 / 2, df1 / 2, df2 / (df2 + df1 * f)); }

Interval share_interval(int hits, int tries, double sure) {
    if (tries <= 0) return {0, 1};
    const double out = (1 - sure) / 2, k = hits, n = tries;
    return {hits == 0 ? 0 : beta_quantile(k, n - k + 1, out), hits == tries ? 1 : beta_quantile(k + 1, n - k, 1 - out)};
}

double at_most_next(int most, int tries, int hits, int seen) {
    const double a = hits + 0.5, b = seen - hits + 0.5, n = tries;
    const auto log_beta = [](double x, double y) { return std::lgamma(x) + std::lgamma(y) - std::lgamma(x + y); };
    double sum = 0;
    for (int k = 0; k <= std::min(most, tries); ++k)
        sum += std::exp(std::lgamma(n + 1) - std::lgamma(k + 1.0) - std::lgamma(n - k + 1) + log_beta(k + a, n - k + b) - log_beta(a, b));
    return std::min(1.0, sum);
}

double power_of_t(int n, double shift, double level) {
    if (n < 2) return 0;
    const double df = n - 1, away = std::abs(shift) * std::sqrt(static_cast<double>(n)), t = t_quantile(1 - level / 2, df);
    // over s/σ: its density is that of a chi with df, scaled
    const double norm = std::log(2.0) + df / 2 * std::log(df / 2) - std::lgamma(df / 2);
    const auto at = [&](double s) {
        if (s <= 0) return 0.0;
        const double density = std::exp(norm + (df - 1) * std::log(s) - df * s * s / 2);
        return density * (normal_cdf(away - t * s) + normal_cdf(-away - t * s));
    };
    constexpr int steps = 2000;
    const double end = 1 + 8 / std::sqrt(df);
    double sum = 0;
    for (int i = 0; i <= steps; ++i) sum += at(end * i / steps) * (i == 0 || i == steps ? 1 : i % 2 == 1 ? 4 : 2);
    return std::min(1.0, sum * end / steps / 3);
}

double mean_of(const std::vector<double>& values) {
    double sum = 0;
    for (const double v : values) sum += v;
    return values.empty() ? 0 : sum / static_cast<double>(values.size());
}

double spread_of(const std::vector<double>& values) {
    if (values.size() < 2) return 0;
    const double mean = mean_of(values);
    double sum = 0;
    for (const double v : values) sum += (v - mean) * (v - mean);
    return std::sqrt(sum / static_cast<double>(values.size() - 1));
}

double median_of(std::vector<double> values) {
    if (values.empty()) return 0;
    const auto mid = values.begin() + static_cast<std::ptrdiff_t>(values.size() / 2);
    std::nth_element(values.begin(), mid, values.end());
    if (values.size() % 2 == 1) return *mid;
    return (*mid + *std::max_element(values.begin(), mid)) / 2;
}

double robust_spread(const std::vector<double>& values) {
    const double mid = median_of(values);
    std::vector<double> away;
    away.reserve(values.size());
    for (const double v : values) away.push_back(std::abs(v - mid));
    return 1.4826 * median_of(std::move(away));
}

bool invert(Square& m) {
    const std::size_t n = m.n;
    Square l(n);
    for (std::size_t j = 0; j < n; ++j) {
        double d = m(j, j);
        for (std::size_t k = 0; k < j; ++k) d -= l(j, k) * l(j, k);
        if (!(d > 1e-11 * std::max(1e-300, std::abs(m(j, j))))) return false;
        l(j, j) = std::sqrt(d);
        for (std::size_t i = j + 1; i < n; ++i) {
            double s = m(i, j);
            for (std::size_t k = 0; k < j; ++k) s -= l(i, k) * l(j, k);
            l(i, j) = s / l(j, j);
        }
    }
    Square w(n);  // the inverse of l
    for (std::size_t j = 0; j < n; ++j) {
        w(j, j) = 1 / l(j, j);
        for (std::size_t i = j + 1; i < n; ++i) {
            double s = 0;
            for (std::size_t k = j; k < i; ++k) s -= l(i, k) * w(k, j);
            w(i, j) = s / l(i, i);
        }
    }
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j <= i; ++j) {
            double s = 0;
            for (std::size_t k = i; k < n; ++k) s += w(k, i) * w(k, j);
            m(i, j) = m(j, i) = s;
        }
    return true;
}

}  // namespace orthema
