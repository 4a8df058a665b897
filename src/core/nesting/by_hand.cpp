#include "core/nesting/by_hand.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

const Polygon* contour_of(const TransferSet& set, const PlacedCopy& copy) {
    const Transfer* t = find_transfer(set, copy.transfer);
    return t == nullptr ? nullptr : &t->contour;
}

Polygon placed(const TransferSet& set, const PlacedCopy& copy) {
    const Polygon* contour = contour_of(set, copy);
    return contour == nullptr ? Polygon{} : mapped(*contour, copy_map(copy));
}

/// Where a piece's box must stay.
Rect room_of(const Medium& medium) {
    const double m = medium.margin.mm();
    const double length = medium.length.mm() > 0 ? medium.length.mm() : 1e9;
    return {m, m, length - m, medium.width.mm() - m};
}

bool within(const Rect& box, const Rect& room) {
    constexpr double hair = 1e-6;
    return box.x0 >= room.x0 - hair && box.y0 >= room.y0 - hair && box.x1 <= room.x1 + hair && box.y1 <= room.y1 + hair;
}

std::vector<const Polygon*> neighbours(const std::vector<PlacedCopy>& copies, const std::vector<Polygon>& outlines, int index, int sheet) {
    std::vector<const Polygon*> out;
    for (std::size_t i = 0; i < copies.size(); ++i)
        if (static_cast<int>(i) != index && copies[i].sheet == sheet && !outlines[i].outer.empty()) out.push_back(&outlines[i]);
    return out;
}

bool free_there(const Medium& medium, const std::vector<const Polygon*>& others, const Polygon& outline) {
    if (outline.outer.empty() || !within(bounds(outline.outer), room_of(medium))) return false;
    return std::none_of(others.begin(), others.end(), [&](const Polygon* o) { return too_close(outline, *o, medium.gap.mm()); });
}

}  // namespace

std::vector<Polygon> lying_outlines(const TransferSet& set, const std::vector<PlacedCopy>& copies) {
    std::vector<Polygon> out;
    out.reserve(copies.size());
    for (const PlacedCopy& c : copies) out.push_back(placed(set, c));
    return out;
}

int copy_at(const std::vector<Polygon>& outlines, const std::vector<PlacedCopy>& copies, int sheet, Point p) {
    for (int i = static_cast<int>(copies.size()) - 1; i >= 0; --i) {
        const auto at = static_cast<std::size_t>(i);
        if (copies[at].sheet == sheet && !outlines[at].outer.empty() && inside(outlines[at], p)) return i;
    }
    return -1;
}

bool lies_free(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies, const std::vector<Polygon>& outlines,
               int index, const PlacedCopy& there) {
    return free_there(medium, neighbours(copies, outlines, index, there.sheet), placed(set, there));
}

PlacedCopy moved_copy(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies,
                      const std::vector<Polygon>& outlines, int index, double x, double y) {
    PlacedCopy copy = copies[static_cast<std::size_t>(index)];
    if (copy.locked || contour_of(set, copy) == nullptr) return copy;
    const auto others = neighbours(copies, outlines, index, copy.sheet);
    PlacedCopy there = copy;
    there.x = x;
    there.y = y;
    // A pointer outside the medium means its edge.
    const Rect room = room_of(medium);
    const Rect box = bounds(placed(set, there).outer);
    if (box.width() > room.width() + 1e-6 || box.height() > room.height() + 1e-6) return copy;
    there.x += std::max(0.0, room.x0 - box.x0) - std::max(0.0, box.x1 - room.x1);
    there.y += std::max(0.0, room.y0 - box.y0) - std::max(0.0, box.y1 - room.y1);
    if (free_there(medium, others, placed(set, there))) return there;
    if (!free_there(medium, others, placed(set, copy))) return copy;  // it lies on another already: only a free place helps
    // Twice along both axes, so that it follows a slope in steps.
    for (int pass = 0; pass < 4; ++pass) {
        const bool along_x = pass % 2 == 0;
        const double way = along_x ? there.x - copy.x : there.y - copy.y;
        if (std::abs(way) < 1e-6) continue;
        const int sign = way > 0 ? 1 : -1;
        const double by = slide(placed(set, copy), others, medium.gap.mm(), along_x ? sign : 0, along_x ? 0 : sign, std::abs(way));
        PlacedCopy next = copy;
        (along_x ? next.x : next.y) += sign * by;
        // The slide is worked out on grown outlines; the last word has the exact test.
        if (free_there(medium, others, placed(set, next))) copy = next;
    }
    return copy;
}

std::optional<PlacedCopy> turned_copy(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies,
                                      const std::vector<Polygon>& outlines, int index) {
    const PlacedCopy& copy = copies[static_cast<std::size_t>(index)];
    if (copy.locked || !medium.quarter_turns || contour_of(set, copy) == nullptr) return std::nullopt;
    const Point middle = bounds(outlines[static_cast<std::size_t>(index)].outer).centre();
    PlacedCopy next = copy;
    next.turn = (copy.turn + 90) % 360;
    next.x = next.y = 0;
    const Point own = bounds(placed(set, next).outer).centre();
    const Point start = middle - own;
    const auto others = neighbours(copies, outlines, index, copy.sheet);
    for (int ring = 0; ring <= 30; ++ring) {
        const int steps = std::max(1, ring * 6);
        for (int k = 0; k < steps; ++k) {
            const double t = 2 * M_PI * k / steps;
            next.x = start.x + 2.0 * ring * std::cos(t);
            next.y = start.y + 2.0 * ring * std::sin(t);
            if (free_there(medium, others, placed(set, next))) return next;
        }
    }
    return std::nullopt;
}

}  // namespace orthema
