#include "core/records/photo_scale.h"

#include <cmath>

namespace orthema {

namespace {

constexpr double least_mm = 60;         ///< of a shorter figure a reading's own error is more than any scale
constexpr double worth = 0.15;          ///< per cent: what is less is not felt on a garment
constexpr std::size_t least_sizes = 3;  ///< before it is said to differ
constexpr double by_chance = 0.01;

struct Means {
    double taped = 0, seen = 0;
};
std::optional<Means> means_of(const Figure& f) {
    Means out;
    int taped = 0, seen = 0;
    for (std::size_t i = 0; i < f.readings.size(); ++i) {
        const bool by_photo = i < f.errors.size() && f.errors[i].mm() > 0;
        (by_photo ? out.seen : out.taped) += f.readings[i].mm();
        ++(by_photo ? seen : taped);
    }
    if (taped == 0 || seen == 0) return std::nullopt;
    return Means{out.taped / taped, out.seen / seen};
}

}  // namespace

std::optional<PhotoScale> photo_scale(const std::vector<BlankStyle>& styles, const std::string& since) {
    std::vector<double> of_size;
    PhotoScale out;
    for (const BlankStyle& style : styles)
        for (const auto& [size, measures] : style.chart) {
            double sum = 0, weights = 0;
            for (const auto& [m, figure] : measures) {
                const auto means = means_of(figure);
                if (!means || means->taped < least_mm || figure.date <= since.substr(0, 10)) continue;
                const double weight = means->taped * means->taped;
                sum += weight * 100 * (means->seen / means->taped - 1);
                weights += weight;
                ++out.figures;
            }
            if (weights > 0) of_size.push_back(sum / weights);
        }
    if (of_size.size() < 2) return std::nullopt;
    const double n = static_cast<double>(of_size.size()), error = spread_of(of_size) / std::sqrt(n);
    out.sizes = static_cast<int>(of_size.size());
    out.by = mean_of(of_size);
    const auto reach = [&](double level) { return t_quantile(1 - level / 2, n - 1) * error; };
    out.sure = {out.by - reach(0.05), out.by + reach(0.05)};
    out.differs = of_size.size() >= least_sizes && std::abs(out.by) >= worth && std::abs(out.by) > reach(by_chance);
    return out;
}

}  // namespace orthema
