#include "core/records/plots.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numbers>

#include "core/guides/panel_drawing.h"
#include "core/records/plot_marks.h"
#include "core/records/statistics.h"
#include "core/records/tried.h"

namespace orthema {

namespace {

constexpr std::array<Colour, 6> tones{{{0.18, 0.48, 0.46, 1},
                                       {0.71, 0.33, 0.24, 1},
                                       {0.60, 0.42, 0.10, 1},
                                       {0.35, 0.47, 0.22, 1},
                                       {0.42, 0.36, 0.58, 1},
                                       {0.24, 0.38, 0.55, 1}}};
constexpr double dot_radius = 4.2;
constexpr std::size_t most_dots = 1000, longest_run = 300;  ///< the latest; more could not be told apart

struct Kinds {
    std::vector<std::string> names;
    std::size_t of(const std::string& name) {
        for (std::size_t i = 0; i < names.size(); ++i)
            if (names[i] == name) return i;
        names.push_back(name);
        return names.size() - 1;
    }
};

const std::string& told_by(const PressRecord& r, TellApart by) { return by == TellApart::press ? r.press : r.hands; }

void legend(Plot& plot, const PlotAsk& ask, const Kinds& kinds, double y) {
    double x = 16;
    for (std::size_t k = 0; k < kinds.names.size() && k < 8; ++k) {
        draw_mark(plot.drawing, {x + 5, y - 4.5}, k, tones[k % tones.size()], dot_radius, true);
        const std::string words = name_of(ask, kinds.names[k], ask.by);
        plot.drawing.text({x + 15, y}, words, 12.5, palette::ink);
        x += 34 + 6.8 * static_cast<double>(words.size());
    }
}

/// Those that were measured, the latest `most` of them.
std::vector<std::size_t> measured(const PlotAsk& ask, std::size_t most) {
    std::vector<std::size_t> out;
    for (std::size_t k = ask.which.size(); k-- > 0 && out.size() < most;)
        if (const auto& l = (*ask.all)[ask.which[k]].landing; l && (l->aside || l->down)) out.push_back(ask.which[k]);
    std::reverse(out.begin(), out.end());
    return out;
}

Point place_of(const PressRecord& r) { return {r.landing->aside.value_or(0), r.landing->down.value_or(0)}; }

}  // namespace

std::optional<MeanPlace> mean_place(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which) {
    std::vector<double> x, y;
    for (const std::size_t i : which)
        if (const auto& l = all[i].landing; l && l->aside && l->down) {
            x.push_back(*l->aside);
            y.push_back(*l->down);
        }
    const double n = static_cast<double>(x.size());
    if (x.size() < 3) return std::nullopt;
    MeanPlace out;
    out.pieces = static_cast<int>(x.size());
    out.mean = {mean_of(x), mean_of(y)};
    out.spread_aside = spread_of(x);
    out.spread_down = spread_of(y);
    double xy = 0;
    for (std::size_t i = 0; i < x.size(); ++i) xy += (x[i] - out.mean.x) * (y[i] - out.mean.y);
    xy /= n - 1;
    const double a = out.spread_aside * out.spread_aside, b = out.spread_down * out.spread_down;
    // T² of two figures as an F: half its square root's axes are those of the covariance of the mean
    const double f = 2 * (n - 1) / (n - 2) * [&] {
        double low = 0, high = 1;
        while (f_above(high, 2, n - 2) > 0.05 && high < 1e9) high *= 2;
        for (int k = 0; k < 100; ++k) (f_above((low + high) / 2, 2, n - 2) > 0.05 ? low : high) = (low + high) / 2;
        return high;
    }();
    const double middle = (a + b) / 2, away = std::hypot((a - b) / 2, xy), turn = 0.5 * std::atan2(2 * xy, a - b);
    const double major = std::sqrt(std::max(0.0, middle + away) * f / n), minor = std::sqrt(std::max(0.0, middle - away) * f / n);
    for (int i = 0; i < 48; ++i) {
        const double w = 2 * std::numbers::pi * i / 48, u = major * std::cos(w), v = minor * std::sin(w);
        out.region.push_back(out.mean + Point{u * std::cos(turn) - v * std::sin(turn), u * std::sin(turn) + v * std::cos(turn)});
    }
    return out;
}

void add_landings(Plot& plot, const PlotAsk& ask, const Affine& map) {
    Kinds kinds;
    Drawing& d = plot.drawing;
    const std::vector<std::size_t> which = measured(ask, most_dots);
    for (const std::size_t i : which) {
        const PressRecord& r = (*ask.all)[i];
        const Point at = map(place_of(r));
        const std::size_t kind = kinds.of(told_by(r, ask.by));
        if (ask.chosen == i) draw_mark(d, at, 0, palette::carmine, dot_radius + 4, false);
        draw_mark(d, at, kind, faded(tones[kind % tones.size()], 0.85), dot_radius, r.outcome == Outcome::good);
        plot.dots.emplace_back(at, i);
    }
    if (const auto mean = mean_place(*ask.all, ask.which)) {
        d.marks.emplace_back(PathMark{{mapped(mean->region, map)}, true, faded(palette::carmine, 0.10), Stroke{palette::carmine, 1.4, {}}});
        const Point m = map(mean->mean);
        d.line({m - Point{9, 0}, m + Point{9, 0}}, {palette::carmine, 2.2, {}});
        d.line({m - Point{0, 9}, m + Point{0, 9}}, {palette::carmine, 2.2, {}});
    }
    legend(plot, ask, kinds, d.height - 14);
}

Plot target_plot(const PlotAsk& ask) {
    Plot plot = begun(ask);
    Drawing& d = plot.drawing;
    const std::vector<std::size_t> which = measured(ask, most_dots);
    if (which.empty()) {
        say_nothing(plot, said(ask.unit, "No piece was measured yet."),
                    said(ask.unit, "The step card asks for some while a shift runs; each is a dot here."));
        return plot;
    }
    double reach = 6, across = 0, along = 0;
    for (const std::size_t i : which) {
        const PressRecord& r = (*ask.all)[i];
        reach = std::max({reach, std::abs(place_of(r).x) * 1.08, std::abs(place_of(r).y) * 1.08});
        across = std::max(across, r.landing->across);
        along = std::max(along, r.landing->along);
    }
    reach = std::min(std::max({reach, across * 1.15, along * 1.15}), 150.0);
    const Point centre{d.width / 2, (d.height - 34) / 2 + 8};
    const double k = std::min(d.width / 2 - 70, (d.height - 34) / 2 - 26) / reach;
    const Affine map{k, 0, 0, k, centre.x, centre.y};
    const double step = reach > 40 ? 20 : reach > 16 ? 5 : reach > 8 ? 4 : 2;
    for (double r = step; r <= reach; r += step) {
        Ring ring;
        for (int i = 0; i < 72; ++i)
            ring.push_back(map(Point{std::cos(i * std::numbers::pi / 36), std::sin(i * std::numbers::pi / 36)} * r));
        d.marks.emplace_back(PathMark{{ring}, true, {}, Stroke{palette::rule, 1, {}}});
    }
    if (across > 0 && along > 0) {
        const Point a = map({-across, -along}), b = map({across, along});
        d.rect({a.x, a.y, b.x, b.y}, faded(palette::moss, 0.07), Stroke{palette::moss, 1.4, {5, 4}});
        d.text({b.x - 4, b.y - 6}, said(ask.unit, "its card"), 11.5, palette::quiet, Align::right);
    }
    d.line({map({-reach, 0}), map({reach, 0})}, {palette::quiet, 0.8, {}});
    d.line({map({0, -reach}), map({0, reach})}, {palette::quiet, 0.8, {}});
    d.text(map({-reach, 0}) + Point{-6, 4}, said(ask.unit, "left"), 12, palette::quiet, Align::right);
    d.text(map({reach, 0}) + Point{6, 4}, said(ask.unit, "right"), 12, palette::quiet);
    d.text(map({0, -reach}) + Point{0, -6}, said(ask.unit, "high"), 12, palette::quiet, Align::centre);
    d.text(map({0, reach}) + Point{0, 15}, said(ask.unit, "low"), 12, palette::quiet, Align::centre);
    add_landings(plot, ask, map);
    for (double r = step; r <= reach; r += step) {  // over the dots, or they would cover them
        const std::string words = length_text(Length::from_mm(r), ask.unit);
        const Point at = map({0, -r}) + Point{4, 13};
        d.rect({at.x - 2, at.y - 11, at.x + 2 + text_width_guess(words, 11), at.y + 3}, faded(palette::paper, 0.85));
        d.text(at, words, 11, palette::quiet);
    }
    return plot;
}

namespace {

struct Lane {
    const char* name;
    std::function<std::optional<double>(const PressRecord&)> figure;
    bool drifts;
    const char *more, *less;
    double least;  ///< half height at least
};

const std::vector<Lane>& lanes() {
    static const std::vector<Lane> all{
        {"aside", [](const PressRecord& r) { return r.landing->aside; }, true, "to the right", "to the left", 4},
        {"down", [](const PressRecord& r) { return r.landing->down; }, true, "low", "high", 4},
        {"tilt", [](const PressRecord& r) { return r.landing->tilt; }, false, "", "", 1},
        {"plate",
         [](const PressRecord& r) {
             return main_act(r) != nullptr && main_act(r)->celsius > 0 ? std::optional(main_act(r)->celsius - main_act(r)->asked)
                                                                       : std::nullopt;
         },
         false, "", "", 4},
    };
    return all;
}

std::string shift_of(const PressRecord& r) {
    const std::size_t at = r.id.rfind('/' + r.load);
    return at == std::string::npos ? r.at.substr(0, 10) : r.id.substr(0, at);
}

std::vector<double> figures_of(const PlotAsk& ask, const std::vector<std::size_t>& pieces, const Lane& lane,
                               std::vector<std::size_t>* at = nullptr) {
    std::vector<double> out;
    for (std::size_t k = 0; k < pieces.size(); ++k)
        if (const auto v = lane.figure((*ask.all)[pieces[k]])) {
            out.push_back(*v);
            if (at != nullptr) at->push_back(k);
        }
    return out;
}

double mm_whole(double v) { return std::round(std::abs(v) * 2) / 2; }

}  // namespace

std::vector<std::string> run_words(const PlotAsk& ask) {
    std::vector<std::string> out;
    const std::vector<std::size_t> pieces = measured(ask, longest_run);
    for (const Lane& lane : lanes()) {
        if (!lane.drifts) continue;
        std::vector<std::size_t> at;
        const std::vector<double> y = figures_of(ask, pieces, lane, &at);
        for (const Drift& d : drifts(y)) {
            const PressRecord& from = (*ask.all)[pieces[at[static_cast<std::size_t>(d.began_at)]]];
            out.push_back(phrase(d.creeps ? "drift-creeps" : "drift-jumps", ask.unit,
                                 {{"way", d.by > 0 ? lane.more : lane.less},
                                  {"by", Length::from_mm(mm_whole(d.by))},
                                  {"n", d.began_at + 1},
                                  {"when", from.at.substr(0, 10) + (from.at.size() > 15 ? ", " + from.at.substr(11, 5) : "")}}));
        }
    }
    return out;
}

namespace {

/// Between two ISO times of one day; 0 where they are not.
int minutes_between(const std::string& from, const std::string& to) {
    if (from.size() < 16 || to.size() < 16 || from.compare(0, 10, to, 0, 10) != 0) return 0;
    const auto minute = [](const std::string& at) {
        return std::atoi(at.substr(11, 2).c_str()) * 60 + std::atoi(at.substr(14, 2).c_str());
    };
    return minute(to) - minute(from);
}

}  // namespace

Plot run_plot(const PlotAsk& ask) {
    Plot plot = begun(ask);
    Drawing& d = plot.drawing;
    const std::vector<std::size_t> pieces = measured(ask, longest_run);
    if (pieces.size() < 2) {
        say_nothing(plot, said(ask.unit, "There is no run to show yet."),
                    said(ask.unit, "Two measured pieces or more, in the order in which they were pressed."));
        return plot;
    }
    const double left = 92, right = d.width - 20, foot = d.height - 46;
    const double high = (foot - 12) / static_cast<double>(lanes().size());
    const auto x_of = [&](std::size_t k) {
        return left + (right - left) * (static_cast<double>(k) + 0.5) / static_cast<double>(pieces.size());
    };
    Kinds kinds;
    std::vector<std::pair<double, const char*>> changes;  // what changed between two pieces
    for (std::size_t k = 1; k < pieces.size(); ++k) {
        const PressRecord &a = (*ask.all)[pieces[k - 1]], &b = (*ask.all)[pieces[k]];
        const char* what = shift_of(a) != shift_of(b) ? "shift"
                           : a.press != b.press       ? "press"

                           : minutes_between(a.at, b.at) > 20 ? "break"
                           : a.platen != b.platen             ? "platen"
                           : a.hands != b.hands               ? "hands"
                                                              : nullptr;
        if (what != nullptr) changes.emplace_back((x_of(k - 1) + x_of(k)) / 2, what);
    }
    const bool few = changes.size() <= 24;  // where presses take turns a line at each says nothing
    for (const auto& [x, what] : changes) {
        const bool shift = std::string(what) == "shift" || std::string(what) == "break";
        if (!few && !shift) continue;
        d.line({{x, 12}, {x, foot}}, {shift ? palette::quiet : palette::rule, 1, {3, 3}});
        d.text({x + 3, 22}, said(ask.unit, what), 10.5, palette::quiet);
    }
    for (std::size_t n = 0; n < lanes().size(); ++n) {
        const Lane& lane = lanes()[n];
        const double y0 = 12 + high * static_cast<double>(n), mid = y0 + high / 2;
        d.text({14, mid - 2}, said(ask.unit, lane.name), 13.5, palette::ink, Align::left, true);
        d.line({{left, y0 + high - 2}, {right, y0 + high - 2}}, {palette::rule, 1, {}});
        std::vector<std::size_t> at;
        const std::vector<double> y = figures_of(ask, pieces, lane, &at);
        if (y.empty()) {
            d.text({left + 6, mid + 4}, said(ask.unit, "not read"), 12, palette::quiet);
            continue;
        }
        // limits from the run itself: the mean distance from one piece to the next, as control charts have it
        double moving = 0;
        for (std::size_t k = 1; k < y.size(); ++k) moving += std::abs(y[k] - y[k - 1]);
        const double spread = y.size() > 1 ? moving / static_cast<double>(y.size() - 1) / 1.128 : 0, mean = mean_of(y);
        double reach = std::max({lane.least, std::abs(mean + 3 * spread), std::abs(mean - 3 * spread)});
        for (const double v : y) reach = std::max(reach, std::abs(v));
        const auto y_of = [&](double v) {
            return mid - v / reach * (high / 2 - 8) * (lane.drifts && std::string(lane.name) == "down" ? -1 : 1);
        };
        d.line({{left, y_of(0)}, {right, y_of(0)}}, {palette::quiet, 0.8, {}});
        d.text({14, mid + 13},
               "± " + figure_text(reach, reach < 10 ? 1 : 0, ask.unit) +
                   (std::string(lane.name) == "tilt"    ? "°"
                    : std::string(lane.name) == "plate" ? " °C"
                                                        : " mm"),
               11, palette::quiet);
        if (y.size() >= 8) {
            d.line({{left, y_of(mean)}, {right, y_of(mean)}}, {palette::verdigris, 1.2, {}});
            for (const double limit : {mean - 3 * spread, mean + 3 * spread})
                d.line({{left, y_of(limit)}, {right, y_of(limit)}}, {palette::ochre, 1, {5, 4}});
        }
        Ring path;
        for (std::size_t k = 0; k < y.size(); ++k) path.push_back({x_of(at[k]), y_of(y[k])});
        d.line(path, {faded(palette::quiet, 0.5), 1, {}});
        for (std::size_t k = 0; k < y.size(); ++k) {
            const std::size_t i = pieces[at[k]];
            const std::size_t kind = kinds.of(told_by((*ask.all)[i], ask.by));
            const bool out = y.size() >= 8 && std::abs(y[k] - mean) > 3 * spread;
            if (ask.chosen == i) draw_mark(d, path[k], 0, palette::carmine, dot_radius + 3, false);
            draw_mark(d, path[k], kind, out ? palette::carmine : tones[kind % tones.size()], 3.4, true);
            plot.dots.emplace_back(path[k], i);
        }
        if (lane.drifts)
            for (const Drift& s : drifts(y)) {
                const double x = x_of(at[static_cast<std::size_t>(s.began_at)]) - 4;
                d.line({{x, y0 + 2}, {x, y0 + high - 4}}, {palette::carmine, 1.6, {}});
                d.text({x + 4, y0 + 12}, said(ask.unit, s.creeps ? "creeps " : "jumps ") + said(ask.unit, s.by > 0 ? lane.more : lane.less),
                       11.5, palette::carmine);
            }
    }
    legend(plot, ask, kinds, d.height - 14);
    return plot;
}

}  // namespace orthema
