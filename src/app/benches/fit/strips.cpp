#include "app/benches/fit/strips.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "app/widgets/speech.h"
#include "app/benches/fit/wall.h"
#include "core/base/units.h"
#include "core/transfers/choices.h"

namespace orthema::app {

namespace {

double nice_step(double span, int about) {
    const double raw = span / about;
    const double ten = std::pow(10, std::floor(std::log10(raw)));
    for (const double k : {1.0, 2.0, 5.0, 10.0})
        if (k * ten >= raw) return k * ten;
    return raw;
}

/// The card with its name that every strip begins with.
Drawing strip(const std::string& name, const std::string& under, double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Rect card{0.5, 0.5, width - 0.5, height - 0.5};
    d.marks.emplace_back(PathMark{{round_rect(card, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    d.text({12, 19}, name, 13.5, palette::ink, Align::left, true);
    d.text({12 + text_width_guess(name, 13.5, true) + 12, 19}, under, 12, palette::quiet);
    return d;
}

}  // namespace

Drawing ladder_drawing(const Order& order, const Decoration&, const DecorationFit& fit, const std::string& chosen, double width,
                       double height) {
    // the legend stands beside the name; where there is little room it says less
    const std::string name = spoken("Ladder"), under = spoken("width by size");
    const auto wide = [](const std::string& text) { return text_width_guess(text, 12); };
    std::string by;
    for (const SizeFit& s : fit.sizes)
        if (const std::string what = binding_text(s.limit_by, order.unit); by.find(what) == std::string::npos)
            by += (by.empty() ? "" : ", ") + what;
    const double after_name = 36 + text_width_guess(name, 13.5, true);
    const double keys = 3 * 40 + 26 + wide(spoken("ideal")) + wide(spoken("limit: ")) + wide(spoken("chosen")) + wide(spoken("pieces"));
    double x = std::max(160.0, after_name + 14 + wide(under));
    if (x + keys + wide(by) > width) by = spoken("the nearest");
    const bool narrow = x + keys + wide(by) > width;
    if (narrow) x = after_name;
    Drawing d = strip(name, narrow ? "" : under, width, height);
    const int n = static_cast<int>(fit.sizes.size());
    if (n == 0) return d;
    double low = std::numeric_limits<double>::infinity(), high = 0, most = 1, ideal_high = 0;
    for (const SizeFit& s : fit.sizes) {
        low = std::min({low, s.ideal, s.width, s.limit});
        high = std::max({high, s.ideal, s.width});
        ideal_high = std::max(ideal_high, s.limit);
        most = std::max(most, static_cast<double>(s.quantity));
    }
    high = std::min(std::max(high, ideal_high), high * 1.3);
    if (high - low < 20) {
        high += 10;
        low -= 10;
    }
    const Rect plot{58, 30, width - 18, height - 20};
    const double cell = plot.width() / n;
    const auto x_of = [&](int i) { return plot.x0 + (i + 0.5) * cell; };
    const auto y_of = [&](double mm) { return plot.y1 - 6 - (std::min(mm, high) - low) / (high - low) * (plot.height() - 12); };
    const double unit = order.unit == Unit::inch ? 25.4 : 1;
    const double step = std::max(nice_step((high - low) / unit, 4), order.unit == Unit::inch ? 0.25 : 1) * unit;
    for (double v = std::ceil(low / step) * step; v <= high; v += step) {
        d.line({{plot.x0, y_of(v)}, {plot.x1, y_of(v)}}, {palette::rule, 0.8, {}});
        d.text({plot.x0 - 8, y_of(v) + 4}, length_text(Length::from_mm(v), order.unit, false), 11.5, palette::quiet, Align::right);
    }
    Ring ideal, limit;
    for (int i = 0; i < n; ++i) {
        const SizeFit& s = size_at(fit, i);
        ideal.push_back({x_of(i), y_of(s.ideal)});
        limit.push_back({x_of(i), y_of(s.limit)});
        const double tall = 18.0 * s.quantity / most, half = std::min(7.0, cell / 4);
        d.rect({x_of(i) - half, plot.y1 - tall, x_of(i) + half, plot.y1}, s.size == chosen ? palette::ink : palette::rule);
        d.text({x_of(i), height - 6}, s.size, 11.5, s.size == chosen ? palette::ink : palette::quiet, Align::centre, s.size == chosen);
    }
    d.line(limit, {palette::carmine, 1.3, {6, 4}});
    d.line(ideal, {palette::ink, 1.5, {}});
    for (std::size_t b = 0; b < fit.bands.size(); ++b) {
        const BandFit& band = fit.bands[b];
        const double y = y_of(band.width);
        d.rect({x_of(band.first) - cell * 0.42, y - 2.5, x_of(band.last) + cell * 0.42, y + 2.5}, band_colour(static_cast<int>(b)));
    }
    for (int i = 0; i < n; ++i)
        if (size_at(fit, i).band < 0) d.fill({disc({x_of(i), y_of(size_at(fit, i).width)}, 4)}, palette::brick);
    const auto key = [&](const std::string& text, const Stroke& stroke) {
        d.line({{x, 15}, {x + 22, 15}}, stroke);
        d.text({x + 28, 19}, text, 12, palette::quiet);
        x += 40 + wide(text);
    };
    key(spoken("ideal"), {palette::ink, 1.5, {}});
    key(spoken("limit: ") + by, {palette::carmine, 1.3, {6, 4}});
    key(spoken("chosen"), {palette::verdigris, 5, {}});
    d.rect({x, 8, x + 8, 20}, palette::rule);
    d.text({x + 14, 19}, spoken("pieces"), 12, palette::quiet);
    return d;
}

namespace {
constexpr double cost_left = 66, cost_right = 18;
}

int bands_at(std::size_t columns, double x, double width) {
    const auto n = static_cast<int>(columns);
    if (n == 0 || x < cost_left || x > width - cost_right) return 0;
    return std::clamp(static_cast<int>((x - cost_left) / ((width - cost_left - cost_right) / n)) + 1, 1, n);
}

Drawing bands_drawing(const Order& order, const Decoration& decoration, const DecorationFit& fit, const ArtFacts* facts, double width,
                      double height) {
    Drawing d = strip(spoken("Bands"), width > 720 ? spoken("click a count to choose it") : "", width, height);
    const std::vector<Shortfall> curve = shortfall_curve(decoration, fit);
    const auto n = static_cast<int>(curve.size());
    if (n == 0) return d;
    const Rect plot{cost_left, 56, width - cost_right, height - 20};
    const double cell = plot.width() / n;
    const double most = std::max(0.01, curve.front().worst);
    const auto y_of = [&](double share) { return plot.y1 - share / most * plot.height(); };
    const auto chosen = static_cast<int>(fit.bands.size());
    Ring mean;
    for (int k = 0; k < n; ++k) {
        const double x = plot.x0 + (k + 0.5) * cell;
        const Shortfall& s = curve[static_cast<std::size_t>(k)];
        const double half = std::min(20.0, cell * 0.32);
        const bool now = k + 1 == chosen;
        d.rect({x - half, y_of(s.worst), x + half, plot.y1}, now ? palette::verdigris : palette::rule);
        mean.push_back({x, y_of(s.mean)});
        d.text({x, height - 6}, std::to_string(k + 1), 11.5, now ? palette::ink : palette::quiet, Align::centre, now);
        if (cell > 40)
            d.text({x, y_of(s.worst) - 4}, mm_text(100 * s.worst, 0) + " %", 11, now ? palette::ink : palette::quiet, Align::centre, now);
        if (facts == nullptr) continue;
        const BandsCost cost = bands_cost(order, decoration, fit, *facts, s.squares, k + 1);
        if (cell > 74)
            d.text({x + half + 4, height - 6}, money_text(cost.total(), order.currency, reading_in()), 11,
                   now ? palette::ink : palette::quiet);
        if (!now) continue;
        const std::string says = spoken("film ") + money_text(cost.film, order.currency, reading_in()) + spoken(", print ") +
                                 money_text(cost.print, order.currency, reading_in()) + spoken(", sorting ") +
                                 money_text(cost.sorting, order.currency, reading_in());
        d.text({width - cost_right, 36}, says, 12, palette::ink, Align::right);
    }
    d.line(mean, {palette::ochre_text, 1.5, {}});
    d.text({plot.x0 - 10, height - 6}, spoken("bands"), 11.5, palette::quiet, Align::right);
    double right = width - cost_right;  // the legend, from the right
    for (const auto& [words, is_bar] :
         {std::pair{spoken("mean over all pieces"), false}, std::pair{spoken("most that a size is short by"), true}}) {
        const double at = right - text_width_guess(words, 12);
        if (is_bar)
            d.rect({at - 20, 9, at - 6, 20}, palette::rule);
        else
            d.line({{at - 28, 15}, {at - 6, 15}}, {palette::ochre_text, 1.5, {}});
        d.text({at, 19}, words, 12, palette::quiet);
        right = at - 40;
    }
    return d;
}

namespace {

/// Top of ink as a share of the panel, or nothing where the school does not apply.
std::optional<double> relative(const DecorationFit& fit, std::size_t size, std::size_t school) {
    const SizeFit& s = fit.sizes[size];
    if (!s.school_tops[school] || fit.ground == nullptr || size >= fit.ground->sizes.size()) return std::nullopt;
    const Panel& p = fit.ground->sizes[size].panel;
    return *s.school_tops[school] / std::max(1.0, p.length);
}

}  // namespace

std::optional<double> drift_of(const DecorationFit& fit, PlacingSchool school) {
    double low = 1e9, high = -1e9;
    for (std::size_t i = 0; i < fit.sizes.size(); ++i)
        if (const auto r = relative(fit, i, static_cast<std::size_t>(school))) {
            low = std::min(low, *r);
            high = std::max(high, *r);
        }
    if (high < low) return std::nullopt;
    return high - low;
}

Drawing drift_drawing(const Decoration& decoration, const DecorationFit& fit, double width, double height) {
    Drawing d =
        strip(spoken("Drift"), spoken("top of ink as a share of the length, by school; a level line looks alike on all"), width, height);
    const auto n = static_cast<int>(fit.sizes.size());
    if (n == 0 || fit.ground == nullptr || fit.ground->sizes.empty()) return d;
    double low = 1e9, high = -1e9;
    for (std::size_t k = 0; k < placing_school_count; ++k)
        for (std::size_t i = 0; i < fit.sizes.size(); ++i)
            if (const auto r = relative(fit, i, k)) {
                low = std::min(low, *r);
                high = std::max(high, *r);
            }
    if (high < low) return d;
    const double pad = std::max(0.01, (high - low) * 0.12);
    low -= pad;
    high += pad;
    const Rect plot{52, 28, width - 232, height - 18};
    const double cell = plot.width() / n;
    const auto y_of = [&](double share) {
        return plot.y0 + (share - low) / (high - low) * plot.height();
    };  // lower on the blank is lower here
    const double step = std::max(0.01, nice_step(high - low, 3));
    for (double v = std::ceil(low / step) * step; v <= high; v += step) {
        d.line({{plot.x0, y_of(v)}, {plot.x1, y_of(v)}}, {palette::rule, 0.8, {}});
        d.text({plot.x0 - 8, y_of(v) + 4}, mm_text(v * 100, 0) + " %", 11.5, palette::quiet, Align::right);
    }
    for (int i = 0; i < n; ++i) d.text({plot.x0 + (i + 0.5) * cell, height - 5}, size_at(fit, i).size, 11.5, palette::quiet, Align::centre);
    double label = plot.y0 + 10;
    for (std::size_t k = 0; k < placing_school_count; ++k) {
        const auto school = static_cast<PlacingSchool>(k);
        const auto drift = drift_of(fit, school);
        if (!drift) continue;
        const bool chosen = school == decoration.placing.school;
        Ring line;
        for (std::size_t i = 0; i < fit.sizes.size(); ++i)
            if (const auto r = relative(fit, i, k)) line.push_back({plot.x0 + (static_cast<double>(i) + 0.5) * cell, y_of(*r)});
        d.line(line, {school_colour(school), chosen ? 2.6 : 1.3, chosen ? std::vector<double>{} : std::vector<double>{4, 3}});
        for (const Point p : line) d.fill({disc(p, chosen ? 3.2 : 2.2, 12)}, school_colour(school));
        d.text({plot.x1 + 14, label}, std::to_string(k + 1) + " " + spoken(school_name(school, fit.ground->sizes[0].panel)), 12,
               school_colour(school), Align::left, chosen);
        d.text({width - 12, label}, spoken("drifts ") + figure_text(*drift * 100, 1, reading_in()) + " %", 12, palette::quiet,
               Align::right);
        label += 20;
    }
    return d;
}

}  // namespace orthema::app
