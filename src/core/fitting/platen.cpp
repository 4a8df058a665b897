#include "core/fitting/platen.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

Rect placed(const Rect& ink, Point size, Point shift) {
    const Point c = ink.centre() + shift;
    return {c.x - size.x / 2, c.y - size.y / 2, c.x + size.x / 2, c.y + size.y / 2};
}

bool overlap(const Rect& a, const Rect& b) {
    constexpr double hair = 1e-6;
    return a.x0 < b.x1 - hair && b.x0 < a.x1 - hair && a.y0 < b.y1 - hair && b.y0 < a.y1 - hair;
}

const RaisedBox* under(const Rect& platen, const std::vector<RaisedBox>& boxes) {
    for (const RaisedBox& b : boxes)
        if (overlap(platen, b.box)) return &b;
    return nullptr;
}

Point size_of(const Platen& p) { return {p.width.mm(), p.height.mm()}; }

/// Presses of one platen that cover a design larger than it, row after row, there and back: each lies against the last.
std::vector<Rect> grid(const Rect& ink, double margin, Point size) {
    const double w = size.x - 2 * margin, h = size.y - 2 * margin;
    if (w <= press_overlap_mm || h <= press_overlap_mm) return {};
    const auto count = [](double length, double one) {
        return length <= one + 1e-9 ? 1 : 1 + static_cast<int>(std::ceil((length - one) / (one - press_overlap_mm) - 1e-9));
    };
    const int columns = count(ink.width(), w), rows = count(ink.height(), h);
    if (columns * rows > 12) return {};
    std::vector<Rect> out;
    for (int r = 0; r < rows; ++r)
        for (int k = 0; k < columns; ++k) {
            const int c = r % 2 == 0 ? k : columns - 1 - k;
            const double x = columns == 1 ? ink.centre().x : ink.x0 + w / 2 + c * (ink.width() - w) / (columns - 1);
            const double y = rows == 1 ? ink.centre().y : ink.y0 + h / 2 + r * (ink.height() - h) / (rows - 1);
            out.push_back({x - size.x / 2, y - size.y / 2, x + size.x / 2, y + size.y / 2});
        }
    return out;
}

}  // namespace

std::vector<RaisedBox> raised_boxes(const Panel& panel) {
    std::vector<RaisedBox> out;
    for (const Feature& f : panel.features) {
        if (f.height_mm < raised_from_mm || f.kind == Feature::Kind::loose) continue;
        for (const Polygon& p : f.place) {
            // The area round a whole panel is no box: its four sides are.
            if (p.holes.empty()) {
                out.push_back({f.name, bounds(p.outer), f.height_mm});
                continue;
            }
            const Rect all = bounds(p.outer), hole = bounds(p.holes.front());
            out.push_back({f.name, {all.x0, all.y0, hole.x0, all.y1}, f.height_mm});
            out.push_back({f.name, {hole.x1, all.y0, all.x1, all.y1}, f.height_mm});
            out.push_back({f.name, {all.x0, all.y0, all.x1, hole.y0}, f.height_mm});
            out.push_back({f.name, {all.x0, hole.y1, all.x1, all.y1}, f.height_mm});
        }
    }
    return out;
}

std::optional<Point> least_shift(const Rect& ink, double margin, Point size, const std::vector<RaisedBox>& boxes) {
    const double sx = (size.x - ink.width()) / 2 - margin, sy = (size.y - ink.height()) / 2 - margin;
    if (sx < -1e-9 || sy < -1e-9) return std::nullopt;
    const double slack_x = std::max(0.0, sx), slack_y = std::max(0.0, sy);
    const Rect whole = placed(ink, size, {0, 0});
    const Rect reach{whole.x0 - slack_x, whole.y0 - slack_y, whole.x1 + slack_x, whole.y1 + slack_y};
    std::vector<Rect> forbidden;  // in the plane of shifts
    for (const RaisedBox& b : boxes)
        if (overlap(reach, b.box))
            forbidden.push_back({b.box.x0 - whole.x1, b.box.y0 - whole.y1, b.box.x1 - whole.x0, b.box.y1 - whole.y0});
    const auto free = [&](Point s) {
        return std::none_of(forbidden.begin(), forbidden.end(), [&](const Rect& r) {
            constexpr double hair = 1e-6;
            return s.x > r.x0 + hair && s.x < r.x1 - hair && s.y > r.y0 + hair && s.y < r.y1 - hair;
        });
    };
    if (free({0, 0})) return Point{0, 0};
    std::vector<double> xs{0, -slack_x, slack_x}, ys{0, -slack_y, slack_y};
    for (const Rect& r : forbidden) {
        for (const double x : {r.x0, r.x1})
            if (std::abs(x) <= slack_x) xs.push_back(x);
        for (const double y : {r.y0, r.y1})
            if (std::abs(y) <= slack_y) ys.push_back(y);
    }
    std::optional<Point> best;
    for (const double x : xs)
        for (const double y : ys) {
            const Point s{x, y};
            if ((!best || norm(s) < norm(*best) - 1e-12) && free(s)) best = s;
        }
    return best;
}

std::vector<Rect> needed_fields(std::vector<Rect> fields, double margin, const Region& outline) {
    if (area(outline) <= 0) return fields;
    for (std::size_t i = fields.size(); i-- > 0 && fields.size() > 1;) {  // the last ones first: the others keep their order
        Region bare = outline;
        for (std::size_t k = 0; k < fields.size() && !bare.empty(); ++k)
            if (k != i) bare = subtract(bare, box_region(fields[k].grown(-margin)));
        if (area(bare) < 1e-3) fields.erase(fields.begin() + static_cast<std::ptrdiff_t>(i));
    }
    return fields;
}

int most_fields_over(const std::vector<Rect>& fields, const Rect& ink) {
    // the deepest place has a left edge and a top edge of some field, or of the ink
    int most = 1;
    for (const Rect& a : fields)
        for (const Rect& b : fields) {
            const Point at{std::max(a.x0, ink.x0) + 1e-6, std::max(b.y0, ink.y0) + 1e-6};
            if (!ink.contains(at)) continue;
            most = std::max(most,
                            static_cast<int>(std::count_if(fields.begin(), fields.end(), [&](const Rect& r) { return r.contains(at); })));
        }
    return most;
}

PlatenFit platen_fit(const Press& press, const Rect& ink, const std::vector<RaisedBox>& raised, const Region* outline) {
    PlatenFit fit;
    fit.way = PlatenWay::none;
    if (press.platens.empty()) return fit;
    const double margin = press.margin.mm();
    const auto take = [&](PlatenWay way, int platen, Point shift) {
        fit.way = way;
        fit.platen = platen;
        fit.shift = shift;
        fit.presses = {placed(ink, size_of(press.platens[static_cast<std::size_t>(platen)]), shift)};
    };
    const auto holds = [&](const Platen& p) {
        return ink.width() + 2 * margin <= p.width.mm() + 1e-6 && ink.height() + 2 * margin <= p.height.mm() + 1e-6;
    };
    if (holds(press.platens[0])) {
        const RaisedBox* in_way = under(placed(ink, size_of(press.platens[0]), {0, 0}), raised);
        if (in_way == nullptr) {
            take(PlatenWay::as_is, 0, {0, 0});
            return fit;
        }
        fit.because = in_way->name;
    } else {
        fit.because = "size";
    }
    if (const auto s = least_shift(ink, margin, size_of(press.platens[0]), raised)) {
        take(PlatenWay::shifted, 0, *s);
        return fit;
    }
    // the largest other platen that works, shifted as little as may be
    std::vector<int> others;
    for (std::size_t i = 1; i < press.platens.size(); ++i) others.push_back(static_cast<int>(i));
    std::stable_sort(others.begin(), others.end(), [&](int a, int b) {
        const Point pa = size_of(press.platens[static_cast<std::size_t>(a)]), pb = size_of(press.platens[static_cast<std::size_t>(b)]);
        return pa.x * pa.y > pb.x * pb.y;
    });
    for (const int i : others)
        if (const auto s = least_shift(ink, margin, size_of(press.platens[static_cast<std::size_t>(i)]), raised)) {
            take(PlatenWay::other_platen, i, *s);
            return fit;
        }
    // a pad on a platen that holds the ink, thick enough to lift it above what lies on that platen
    for (std::size_t i = 0; i < press.platens.size(); ++i) {
        if (!holds(press.platens[i])) continue;
        const Rect platen = placed(ink, size_of(press.platens[i]), {0, 0});
        double tallest = 0;
        for (const RaisedBox& b : raised)
            if (overlap(platen, b.box)) tallest = std::max(tallest, b.height);
        int best = -1;
        Point best_shift;
        for (std::size_t k = 0; k < press.pads.size(); ++k) {
            const Pad& pad = press.pads[k];
            if (pad.thickness.mm() < tallest) continue;
            const auto s = least_shift(ink, pad_reach_mm, {pad.width.mm(), pad.height.mm()}, raised);
            if (s && (best < 0 || norm(*s) < norm(best_shift))) {
                best = static_cast<int>(k);
                best_shift = *s;
            }
        }
        if (best < 0) continue;
        take(PlatenWay::pad, static_cast<int>(i), {0, 0});
        fit.pad = best;
        fit.shift = best_shift;
        const Pad& pad = press.pads[static_cast<std::size_t>(best)];
        fit.pad_place = placed(ink, {pad.width.mm(), pad.height.mm()}, best_shift);
        return fit;
    }
    const bool too_large = std::none_of(press.platens.begin(), press.platens.end(), holds);
    if (!too_large) return fit;
    for (std::size_t i = 0; i < press.platens.size(); ++i) {
        std::vector<Rect> presses = grid(ink, margin, size_of(press.platens[i]));
        if (outline != nullptr) presses = needed_fields(std::move(presses), margin, *outline);
        if (presses.empty() || (fit.way == PlatenWay::several && presses.size() >= fit.presses.size())) continue;
        fit.way = PlatenWay::several;
        fit.platen = static_cast<int>(i);
        fit.presses = std::move(presses);
    }
    return fit;
}

Words platen_words(const PlatenFit& f, const Press& press) {
    Phrases moves{{}, " and "};
    const auto add = [&](double mm, const char* code) {
        if (std::abs(mm) > 0.05) moves.of.add({code, {{"by", AtLeast{std::abs(mm)}}}});
    };
    add(f.shift.y, f.shift.y > 0 ? "moved-lower" : "moved-higher");
    add(f.shift.x, f.shift.x > 0 ? "moved-right" : "moved-left");
    const Phrases lying = part_if(!moves.of.all().empty(), "lying", {{"moves", moves}});
    const std::string named = f.platen >= 0 ? press.platens[static_cast<std::size_t>(f.platen)].name : "";
    switch (f.way) {
    case PlatenWay::as_is: return {"way-as-is", {{"platen", named}}};
    case PlatenWay::shifted: return {"way-shifted", {{"moves", moves}, {"feature", Term{f.because}}}};
    case PlatenWay::other_platen:
        return {"way-other",
                {{"platen", named}, {"clear", part_if(f.because != "size", "clear-of", {{"feature", Term{f.because}}})}, {"moves", lying}}};
    case PlatenWay::pad:
        return {"way-pad", {{"pad", press.pads[static_cast<std::size_t>(f.pad)].name}, {"feature", Term{f.because}}, {"moves", lying}}};
    case PlatenWay::several:
        return {"way-several", {{"n", static_cast<int>(f.presses.size())}, {"platen", named}, {"lap", Length::from_mm(press_overlap_mm)}}};
    case PlatenWay::none: break;
    }
    return {"way-none", {{"press", press.name}, {"feature", Term{f.because.empty() ? "edges" : f.because}}}};
}

PlatenGrid platen_grid(const Platen& platen, double margin, double width, double height, double gap) {
    const double w = platen.width.mm() - 2 * margin, h = platen.height.mm() - 2 * margin;
    PlatenGrid best;
    best.pitch_x = width + gap;
    best.pitch_y = height + gap;
    for (const bool turned : {false, true}) {
        PlatenGrid g;
        g.turned = turned;
        g.pitch_x = (turned ? height : width) + gap;
        g.pitch_y = (turned ? width : height) + gap;
        g.columns = static_cast<int>((w + gap + 1e-9) / g.pitch_x);
        g.rows = static_cast<int>((h + gap + 1e-9) / g.pitch_y);
        if (g.columns > 0 && g.rows > 0 && (g.count() > best.count())) best = g;
    }
    return best;
}

}  // namespace orthema
