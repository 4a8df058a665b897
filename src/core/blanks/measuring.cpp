#include "core/blanks/measuring.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

double mm_at(const BlankStyle& s, std::size_t i, Measure m) { return measure_mm(s.chart.at(s.sizes[i]), m); }

/// What the run lets one expect of one size, leaving that size out: the straight line through its two nearest
/// neighbours (between them, or beyond the last two).
std::optional<double> expected_at(const BlankStyle& s, std::size_t i, Measure m) {
    const std::size_t n = s.sizes.size();
    if (n < 3) return std::nullopt;
    if (i > 0 && i + 1 < n) return (mm_at(s, i - 1, m) + mm_at(s, i + 1, m)) / 2;
    const std::size_t near = i == 0 ? 1 : n - 2, far = i == 0 ? 2 : n - 3;
    return 2 * mm_at(s, near, m) - mm_at(s, far, m);
}

/// A robust line for the whole measure: Theil and Sen's median of slopes, so that one wrong figure does not bend it.
struct Line {
    double at0 = 0, slope = 0;
    [[nodiscard]] double operator()(std::size_t i) const { return at0 + slope * static_cast<double>(i); }
};
double median(std::vector<double> v) {
    std::sort(v.begin(), v.end());
    const std::size_t n = v.size();
    return n % 2 == 1 ? v[n / 2] : (v[n / 2 - 1] + v[n / 2]) / 2;
}
Line robust_line(const BlankStyle& s, Measure m) {
    std::vector<double> slopes, starts;
    const std::size_t n = s.sizes.size();
    slopes.reserve(n * n / 2);
    starts.reserve(n);
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = i + 1; j < n; ++j) slopes.push_back((mm_at(s, j, m) - mm_at(s, i, m)) / static_cast<double>(j - i));
    Line line;
    line.slope = slopes.empty() ? 0 : median(slopes);
    for (std::size_t i = 0; i < n; ++i) starts.push_back(mm_at(s, i, m) - line.slope * static_cast<double>(i));
    line.at0 = median(starts);
    return line;
}

/// The factor that a unit slip would explain, or 1: 2.54 (in for cm, or cm for in turned round), 10 (cm for mm), 25.4, 2
/// (half measured for whole, or the tape laid round).
double slip(double value, double expected) {
    if (value <= 0 || expected <= 0) return 1;
    for (const double f : {2.54, 1 / 2.54, 10.0, 0.1, 25.4, 1 / 25.4, 2.0, 0.5})
        if (std::abs(value * f / expected - 1) < 0.08) return f;
    return 1;
}

bool close(double a, double b, double share) { return std::abs(a - b) <= share * std::max(std::abs(a), std::abs(b)) + 4; }

}  // namespace

std::vector<DoubtfulFigure> doubtful_figures(const BlankStyle& style, const BlankStyle* pattern) {
    std::vector<DoubtfulFigure> out;
    const std::size_t n = style.sizes.size();
    const auto measures = family_measures(style.family);
    std::map<Measure, Line> lines;  // once for each measure: their medians are of all pairs of sizes
    if (n >= 3)
        for (const Measure m : measures) lines[m] = robust_line(style, m);
    // What each figure is expected to be: from the run where it is long enough, else from the pattern's proportions.
    const auto expectation = [&](std::size_t i, Measure m) -> std::optional<double> {
        if (n >= 3) return lines.at(m)(i);
        if (pattern == nullptr || pattern->sizes.empty()) return std::nullopt;
        const auto& row = pattern->chart.at(pattern->sizes[pattern->sizes.size() / 2]);
        std::vector<double> ratios;  // of this blank to the pattern, as most of its figures have it
        for (const Measure k : measures)
            if (measure_mm(row, k) > 0 && mm_at(style, i, k) > 0) ratios.push_back(mm_at(style, i, k) / measure_mm(row, k));
        if (ratios.size() < 3) return std::nullopt;
        return measure_mm(row, m) * median(ratios);
    };
    for (std::size_t i = 0; i < n; ++i) {
        std::map<Measure, double> odd;  // measure -> expected
        for (const Measure m : measures) {
            const double value = mm_at(style, i, m);
            const auto expected = expectation(i, m);
            if (!expected || *expected <= 1 || value <= 0) continue;
            if (!close(value, *expected, n >= 3 ? 0.12 : 0.45)) odd[m] = *expected;
        }
        std::vector<Measure> done;
        for (const auto& [m, expected] : odd) {
            if (std::find(done.begin(), done.end(), m) != done.end()) continue;
            const double value = mm_at(style, i, m);
            for (const auto& [k, other] : odd) {
                if (k <= m || !close(value, other, 0.06) || !close(mm_at(style, i, k), expected, 0.06)) continue;
                out.push_back({Doubt::swapped, style.sizes[i], m, k, value, expected, 1});
                done.insert(done.end(), {m, k});
                break;
            }
            if (std::find(done.begin(), done.end(), m) != done.end()) continue;
            const double f = slip(value, expected);
            if (f != 1) {
                out.push_back({Doubt::unit_slip, style.sizes[i], m, std::nullopt, value, expected, f});
                done.push_back(m);
            } else if (n >= 3 && !close(value, expected, 0.2)) {
                out.push_back({Doubt::off_the_grading, style.sizes[i], m, std::nullopt, value, expected, 1});
                done.push_back(m);
            }
        }
        // a run that grows does not shrink on the way
        for (const Measure m : measures) {
            if (i == 0 || n < 3 || std::find(done.begin(), done.end(), m) != done.end()) continue;
            if (lines.at(m).slope <= 0.5) continue;
            const double value = mm_at(style, i, m), before = mm_at(style, i - 1, m);
            if (value < before - 1)
                out.push_back({Doubt::out_of_step, style.sizes[i], m, std::nullopt, value, expected_at(style, i, m).value_or(before), 1});
        }
    }
    return out;
}

std::optional<DoubtfulFigure> doubt_about(const BlankStyle& style, const std::string& size, Measure m, Length typed) {
    BlankStyle with = style;
    with.chart[size][m].value = typed;
    for (const DoubtfulFigure& d : doubtful_figures(with, &style)) {
        if (d.size != size) continue;
        if (d.measure == m || d.other == m) return d;
    }
    return std::nullopt;
}

Finding doubt_finding(const BlankStyle& style, const DoubtfulFigure& d) {
    Subject about;
    about.style = style.id;
    about.size = d.size;
    Arguments args{{"blank", style.name},
                   {"size", d.size},
                   {"measure", Term{measure_short(d.measure)}},
                   {"value", Length::from_mm(d.value)},
                   {"expected", Length::from_mm(d.expected)}};
    switch (d.doubt) {
    case Doubt::unit_slip:
        args.emplace_back("slip", Phrases{{{std::abs(d.factor - 2.54) < 0.01       ? "slip-inch-cm"
                                            : std::abs(d.factor - 1 / 2.54) < 0.01 ? "slip-cm-inch"
                                            : d.factor > 20 || d.factor < 0.05     ? "slip-inch-mm"
                                            : d.factor > 5 || d.factor < 0.2       ? "slip-cm-mm"
                                                                                   : "slip-half",
                                            {}}}});
        return finding("figure-unit-slip", about, std::move(args));
    case Doubt::swapped:
        args.emplace_back("other", Term{measure_short(*d.other)});
        return finding("figures-swapped", about, std::move(args));
    case Doubt::out_of_step: return finding("figure-out-of-step", about, std::move(args));
    case Doubt::off_the_grading: break;
    }
    return finding("figure-off-grading", about, std::move(args));
}

std::vector<ToMeasure> what_to_measure(const BlankStyle& style, const std::vector<std::string>& ordered,
                                       const std::vector<std::string>& band_smallest) {
    std::vector<ToMeasure> out;
    const auto wanted = [&](const std::string& size) { return std::find(ordered.begin(), ordered.end(), size) != ordered.end(); };
    const auto figure = [&](const std::string& size, Measure m) { return style.chart.at(size).at(m); };
    const auto add = [&](const std::string& size, Measure m, const std::string& why, double weight) {
        const auto same = std::find_if(out.begin(), out.end(), [&](const ToMeasure& t) { return t.size == size && t.measure == m; });
        if (same == out.end())
            out.push_back({size, m, why, weight});
        else if (same->weight < weight)
            *same = {size, m, why, weight};
    };
    for (const DoubtfulFigure& d : doubtful_figures(style)) {
        const double extra = wanted(d.size) ? 20 : 0;
        add(d.size, d.measure, d.doubt == Doubt::swapped ? "seems exchanged with another figure" : "disagrees with its neighbours",
            80 + extra);
    }
    const Measure main = main_measure(style.family), tall = length_measure(style.family);
    std::vector<Measure> keys{main, tall};
    if (family_build(style.family) == Build::upper_body) keys.insert(keys.end(), {Measure::front_neck_drop, Measure::armhole_depth});
    for (const std::string& size : band_smallest) {
        if (size_index(style, size) < 0) continue;
        for (std::size_t k = 0; k < keys.size(); ++k)
            if (figure(size, keys[k]).source != Source::measured)
                add(size, keys[k], "sets the width of its band", 70 - static_cast<double>(k));
    }
    // What was measured, or published, before it shrank does not hold.
    for (const std::string& size : ordered) {
        if (size_index(style, size) < 0) continue;
        for (std::size_t k = 0; k < keys.size(); ++k)
            if (!holds_when_pressed(style, figure(size, keys[k])))
                add(size, keys[k], "shrinks in the heat: press one bare, then measure it", 76 - static_cast<double>(k));
    }
    // A measured figure that differs from what was published throws doubt on its neighbours.
    for (std::size_t i = 0; i < style.sizes.size(); ++i)
        for (const Measure m : family_measures(style.family)) {
            const Figure f = figure(style.sizes[i], m);
            if (f.source != Source::measured || !f.published) continue;
            if (std::abs((f.value - *f.published).mm()) > style.tolerance.mm()) {
                if (f.readings.size() < 2) add(style.sizes[i], m, "a second piece: is it the batch?", 65);
                for (const std::size_t k : {i - 1, i + 1})
                    if (k < style.sizes.size() && figure(style.sizes[k], m).source != Source::measured && wanted(style.sizes[k]))
                        add(style.sizes[k], m, "beside a size that differs", 50);
            }
            if (f.readings.size() > 1 && spread(f) > style.tolerance) add(style.sizes[i], m, "its pieces differ: one more settles it", 55);
        }
    // The largest wanted size closes the run: all between it and the smallest are then graded.
    if (!ordered.empty()) {
        std::string largest = ordered.front();
        for (const std::string& s : ordered)
            if (size_index(style, s) > size_index(style, largest)) largest = s;
        if (size_index(style, largest) >= 0)
            for (const Measure m : {main, tall})
                if (figure(largest, m).source != Source::measured) add(largest, m, "largest: those between grade to it", 40);
    }
    std::stable_sort(out.begin(), out.end(), [&](const ToMeasure& a, const ToMeasure& b) {
        if (a.weight != b.weight) return a.weight > b.weight;
        return size_index(style, a.size) < size_index(style, b.size);
    });
    return out;
}

}  // namespace orthema
