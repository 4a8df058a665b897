#include "devices/cutter.h"

#include <charconv>
#include <cmath>

#include "core/base/units.h"

namespace orthema {

namespace {

constexpr double units_a_mm = 40;
constexpr double rounding = 0.05;  ///< mm: the plotter's units, and the edge itself

/// Numbers after a command, in pairs.
std::optional<std::vector<Point>> points_of(const std::string& text) {
    std::vector<double> numbers;
    std::size_t i = 0;
    while (i < text.size()) {
        if (text[i] == ',' || text[i] == ' ') {
            ++i;
            continue;
        }
        double v = 0;
        const auto [end, error] = std::from_chars(text.data() + i, text.data() + text.size(), v);
        if (error != std::errc() || !std::isfinite(v)) return std::nullopt;
        numbers.push_back(v);
        i = static_cast<std::size_t>(end - text.data());
    }
    if (numbers.size() % 2 != 0) return std::nullopt;
    std::vector<Point> out;
    for (std::size_t k = 0; k + 1 < numbers.size(); k += 2) out.push_back({numbers[k], numbers[k + 1]});
    return out;
}

/// Where a line first goes through an area, if it does.
std::optional<Point> through(const Polygon& area, Point a, Point b) {
    if (inside(area, a)) return a;
    if (inside(area, b)) return b;
    std::optional<Point> hit;
    const auto ring = [&](const Ring& r) {
        for (std::size_t i = 0; i < r.size() && !hit; ++i) {
            const Point p = r[i], d = r[(i + 1) % r.size()] - p, way = b - a;
            const double turn = cross(way, d);
            if (std::abs(turn) < 1e-12) continue;
            const double t = cross(p - a, d) / turn, u = cross(p - a, way) / turn;
            if (t >= 0 && t <= 1 && u >= 0 && u <= 1) hit = a + way * t;
        }
    };
    ring(area.outer);
    for (const Ring& hole : area.holes) ring(hole);
    return hit;
}

}  // namespace

Region printed_ink(const TransferSet& set, const Sheet& sheet) {
    Region out;
    for (const PlacedCopy& c : sheet.copies)
        if (const Transfer* t = find_transfer(set, c.transfer); t != nullptr && t->printed)
            for (Polygon& p : mapped(t->shape, page_map(sheet).after(copy_map(c)))) out.push_back(std::move(p));
    return out;
}

Result<CutReport> SimulatedCutter::cut(const std::string& file, double width, double height, const Region& ink) {
    if (width > setup_.widest.mm())
        return Error{"{cutter} takes sheets up to {most} wide; this one is {width}.",
                     {{"cutter", setup_.name}, {"most", setup_.widest}, {"width", Length::from_mm(width)}}};
    struct Target {
        Polygon area;
        Rect box;
    };
    std::vector<Target> targets;
    for (const Polygon& p : ink)
        for (const Polygon& core : offset({p}, -rounding)) targets.push_back({core, bounds(core.outer)});
    CutReport report;
    Point at{0, height};
    bool down = false;
    int lifts = 0;
    std::size_t i = 0;
    const auto broken = [&] {
        return Error{"{cutter} cannot read the file near byte {at}: write it again.", {{"cutter", setup_.name}, {"at", std::to_string(i)}}};
    };
    while (i < file.size()) {
        if (file[i] == '\n' || file[i] == '\r' || file[i] == ';' || file[i] == ' ') {
            ++i;
            continue;
        }
        const std::size_t end = file.find(';', i);
        if (end == std::string::npos || end < i + 2) return broken();
        const std::string command = file.substr(i, 2), rest = file.substr(i + 2, end - i - 2);
        if (command == "PU" || command == "PD") {
            const auto points = points_of(rest);
            if (!points) return broken();
            if (down != (command == "PD")) {
                ++lifts;
                down = !down;
                report.contours += down ? 1 : 0;
            }
            for (const Point& p : *points) {
                const Point to{p.x / units_a_mm, height - p.y / units_a_mm};
                if (to.x < -rounding || to.y < -rounding || to.x > width + rounding || to.y > height + rounding)
                    return Error{"The cutting path leaves the sheet at {x}, {y}: it is for another sheet.",
                                 {{"x", Length::from_mm(to.x)}, {"y", Length::from_mm(to.y)}}};
                (down ? report.cut_mm : report.travel_mm) += norm(to - at);
                if (down) {
                    const Rect box{std::min(at.x, to.x), std::min(at.y, to.y), std::max(at.x, to.x), std::max(at.y, to.y)};
                    for (const Target& t : targets)
                        if (t.box.meets(box))
                            if (const auto hit = through(t.area, at, to)) report.crossings.push_back(*hit);
                }
                at = to;
            }
        } else if (command != "IN" && command != "SP") {
            return broken();
        }
        i = end + 1;
    }
    report.seconds = report.cut_mm / setup_.mm_a_second + report.travel_mm / setup_.travel_mm_a_second + lifts * setup_.lift_seconds;
    Phrases ink_cut{{{"no line crosses ink.", {}}}};
    if (!report.crossings.empty())
        ink_cut = {{{"{n} {n?line crosses|lines cross} ink, the first at {x}, {y}.",
                     {{"n", static_cast<int>(report.crossings.size())},
                      {"x", Length::from_mm(report.crossings[0].x)},
                      {"y", Length::from_mm(report.crossings[0].y)}}}}};
    report.says = {"{n} {n?contour|contours}, {cut} m cut and {travel} m of travel in {minutes} min; {ink}",
                   {{"n", report.contours},
                    {"cut", Number{report.cut_mm / 1000, 1}},
                    {"travel", Number{report.travel_mm / 1000, 1}},
                    {"minutes", Number{report.seconds / 60, 1}},
                    {"ink", std::move(ink_cut)}}};
    return report;
}

}  // namespace orthema
