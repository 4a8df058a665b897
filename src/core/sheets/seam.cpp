#include "core/sheets/seam.h"

#include <algorithm>
#include <cmath>

#include "core/sheets/by_hand.h"

namespace orthema {

namespace {

constexpr double specks = 0.5;  ///< mm² of ink on a seam that nobody sees

/// Area of a ring left of x, by the sign of its turn: the sum of its edges' trapezoids, each clipped there.
double left_of(const Ring& ring, double x) {
    double sum = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        const double rise = b.y - a.y;
        if (rise == 0) continue;
        const double from = std::min(a.x, b.x), to = std::max(a.x, b.x);
        if (to <= x)
            sum += rise * (a.x + b.x) / 2;
        else if (from >= x)
            sum += rise * x;
        else {
            const double share = (x - from) / (to - from);  // of the edge that lies left of x
            sum += rise * (share * (from + x) / 2 + (1 - share) * x);
        }
    }
    return sum;
}

double left_of(const Region& ink, double x) {
    double sum = 0;
    for (const Polygon& p : ink) {
        sum += std::abs(left_of(p.outer, x));
        for (const Ring& hole : p.holes) sum -= std::abs(left_of(hole, x));
    }
    return sum;
}

}  // namespace

std::vector<Polygon> taped_seams(const Bed& bed) {
    const Medium& m = bed.medium;
    if (m.taped_at.mm() <= 0) return {};
    const double at = m.taped_at.mm(), half = m.taped_lap.mm();
    return box_region({at - half, m.margin.mm(), at + half, m.width.mm() - m.margin.mm()});
}

bool must_cross_seam(const Medium& medium, const Polygon& outline) {
    if (medium.taped_at.mm() <= 0) return false;
    const double at = medium.taped_at.mm(), half = medium.taped_lap.mm(), margin = medium.margin.mm();
    const double length = medium.length.mm() > 0 ? medium.length.mm() : std::numeric_limits<double>::infinity();
    const double room = std::max(at - half - margin, length - margin - at - half) - laid_gap(medium);
    const Rect box = bounds(outline.outer);
    return box.width() > room && (!medium.quarter_turns || box.height() > room || box.width() > medium.width.mm() - 2 * margin);
}

double ink_on_seam(const Medium& medium, const Transfer& transfer, const PlacedCopy& copy) {
    if (medium.taped_at.mm() <= 0) return 0;
    const double at = medium.taped_at.mm(), half = medium.taped_lap.mm();
    const Region ink = mapped(transfer.shape, copy_map(copy));
    const Rect box = bounds(ink);
    return box.x0 < at + half && box.x1 > at - half ? left_of(ink, at + half) - left_of(ink, at - half) : 0;
}

int crossing_seam(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies) {
    if (medium.taped_at.mm() <= 0) return 0;
    return static_cast<int>(std::count_if(copies.begin(), copies.end(), [&](const PlacedCopy& c) {
        const Transfer* t = find_transfer(set, c.transfer);
        return t != nullptr && ink_on_seam(medium, *t, c) > specks;
    }));
}

MediumLayout off_the_seam(const Medium& medium, const TransferSet& set, const MediumLayout& layout) {
    MediumLayout out = layout;
    if (medium.taped_at.mm() <= 0 || medium.shape != MediumShape::sheet || medium.laying.cutting == Cutting::trimmer) return out;
    HandLayout hand(medium, set, layout);
    struct Place {
        PlacedCopy copy;
        double ink = 0, way = 0;
    };
    for (std::size_t i = 0; i < out.copies.size(); ++i) {
        const PlacedCopy now = out.copies[i];
        const Transfer* t = find_transfer(set, now.transfer);
        if (t == nullptr || now.locked) continue;
        const double ink_now = ink_on_seam(medium, *t, now);
        if (ink_now <= specks) continue;
        const int index = static_cast<int>(i);
        const Rect box_now = bounds(mapped(laid_outline(medium, *t).outer, copy_map(now)));
        std::vector<Place> places;
        for (const int turn : {0, 180}) {
            if (turn != 0 && !medium.quarter_turns && !medium.laying.grain) continue;
            PlacedCopy c = now;
            c.turn = (now.turn + turn) % 360;
            const Rect box = bounds(mapped(laid_outline(medium, *t).outer, copy_map(c)));
            c.y += box_now.y0 - box.y0;
            constexpr double step = 1;
            const double first = medium.margin.mm(), last = medium.length.mm() - medium.margin.mm() - box.width();
            for (double x = first; x <= last + 1e-9; x += step) {
                PlacedCopy at = c;
                at.x += x - box.x0;
                const double ink = ink_on_seam(medium, *t, at);
                if (ink < ink_now - specks) places.push_back({at, ink <= specks ? 0 : ink, std::abs(x - box_now.x0) + turn});
            }
        }
        std::stable_sort(places.begin(), places.end(),
                         [](const Place& a, const Place& b) { return a.ink != b.ink ? a.ink < b.ink : a.way < b.way; });
        const auto free = std::find_if(places.begin(), places.end(), [&](const Place& p) { return hand.lies_free(index, p.copy); });
        if (free == places.end()) continue;
        hand.put({index}, {free->copy});
        out.copies[i] = free->copy;
    }
    return out;
}

}  // namespace orthema
