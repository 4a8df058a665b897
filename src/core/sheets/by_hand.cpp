#include "core/sheets/by_hand.h"

#include <algorithm>
#include <cmath>

#include "core/nesting/fill.h"
#include "core/sheets/seam.h"

namespace orthema {

namespace {

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

std::size_t at_index(int i) { return static_cast<std::size_t>(i); }

}  // namespace

HandLayout::HandLayout(const Medium& medium, const TransferSet& set, const MediumLayout& layout)
    : medium_(medium), set_(&set), layout_(layout) {
    const int sheets = sheet_count(layout.copies);
    outlines_.reserve(layout.copies.size());
    for (const PlacedCopy& c : layout.copies) outlines_.push_back(placed(c));
    for (int s = 0; s <= sheets; ++s) {
        const std::string stock = stock_of(layout.stock, s);
        const std::string before = s > 0 ? stock_of(layout.stock, s - 1) : "-";
        beds_.push_back(bed_of(medium, stock));
        kept_free_.push_back(stock == before ? kept_free_.back() : kept_free(beds_.back()));
        seams_.push_back(taped_seams(beds_.back()));
    }
}

Polygon HandLayout::placed(const PlacedCopy& copy) const {
    const Transfer* t = find_transfer(*set_, copy.transfer);
    return t == nullptr ? Polygon{} : mapped(laid_outline(medium_, *t), copy_map(copy));
}

const Bed& HandLayout::bed(int sheet) const { return beds_[std::min(at_index(std::max(0, sheet)), beds_.size() - 1)]; }

std::vector<const Polygon*> HandLayout::neighbours(int mover, const std::vector<int>& but, int sheet) const {
    std::vector<const Polygon*> out;
    for (std::size_t i = 0; i < outlines_.size(); ++i)
        if (layout_.copies[i].sheet == sheet && !outlines_[i].outer.empty() &&
            std::find(but.begin(), but.end(), static_cast<int>(i)) == but.end())
            out.push_back(&outlines_[i]);
    const std::size_t bed = std::min(at_index(std::max(0, sheet)), kept_free_.size() - 1);
    for (const Polygon& p : kept_free_[bed]) out.push_back(&p);
    const Transfer* t = find_transfer(*set_, layout_.copies[at_index(mover)].transfer);
    if (t != nullptr && !must_cross_seam(beds_[bed].medium, laid_outline(medium_, *t)))
        for (const Polygon& p : seams_[bed]) out.push_back(&p);
    return out;
}

bool HandLayout::free_there(const std::vector<const Polygon*>& others, const Polygon& outline, int sheet) const {
    if (outline.outer.empty() || !within(bounds(outline.outer), room_of(bed(sheet).medium))) return false;
    return std::none_of(others.begin(), others.end(), [&](const Polygon* o) { return too_close(outline, *o, laid_gap(medium_)); });
}

void HandLayout::put(const std::vector<int>& indices, const std::vector<PlacedCopy>& copies) {
    for (std::size_t k = 0; k < indices.size(); ++k) {
        layout_.copies[at_index(indices[k])] = copies[k];
        outlines_[at_index(indices[k])] = placed(copies[k]);
    }
}

int HandLayout::at(int sheet, Point p) const {
    for (int i = static_cast<int>(outlines_.size()) - 1; i >= 0; --i)
        if (layout_.copies[at_index(i)].sheet == sheet && !outlines_[at_index(i)].outer.empty() && inside(outlines_[at_index(i)], p))
            return i;
    return -1;
}

bool HandLayout::lies_free(int index, const PlacedCopy& there) const {
    return free_there(neighbours(index, {index}, there.sheet), placed(there), there.sheet);
}

std::vector<PlacedCopy> HandLayout::moved(const std::vector<int>& indices, double dx, double dy) const {
    std::vector<PlacedCopy> now;
    now.reserve(indices.size());
    for (const int i : indices) now.push_back(layout_.copies[at_index(i)]);
    struct Member {
        std::vector<const Polygon*> others;
        Rect box;
    };
    std::vector<Member> members;
    for (std::size_t k = 0; k < indices.size(); ++k) {
        const Polygon& outline = outlines_[at_index(indices[k])];
        if (now[k].locked || outline.outer.empty()) return now;
        members.push_back({neighbours(indices[k], indices, now[k].sheet), bounds(outline.outer)});
        // A pointer outside the sheet means its edge.
        const Rect room = room_of(bed(now[k].sheet).medium);
        const Rect& box = members.back().box;
        if (box.width() > room.width() + 1e-6 || box.height() > room.height() + 1e-6) return now;
        dx = std::clamp(dx, std::min(0.0, room.x0 - box.x0), std::max(0.0, room.x1 - box.x1));
        dy = std::clamp(dy, std::min(0.0, room.y0 - box.y0), std::max(0.0, room.y1 - box.y1));
    }
    const auto shifted = [](PlacedCopy c, double x, double y) {
        c.x += x;
        c.y += y;
        return c;
    };
    const auto all_free = [&](double x, double y) {
        for (std::size_t k = 0; k < now.size(); ++k)
            if (!free_there(members[k].others, placed(shifted(now[k], x, y)), now[k].sheet)) return false;
        return true;
    };
    double x = 0, y = 0;
    if (all_free(dx, dy)) {
        x = dx;
        y = dy;
    } else if (all_free(0, 0)) {  // else one lies on another already: only a free place helps
        // Several times along both axes, so that it follows a slope in steps.
        for (int pass = 0; pass < 8; ++pass) {
            const bool along_x = pass % 2 == 0;
            const double way = along_x ? dx - x : dy - y;
            if (std::abs(way) < 1e-6) continue;
            const int sign = way > 0 ? 1 : -1;
            double by = std::abs(way);
            for (std::size_t k = 0; k < now.size(); ++k)
                by = slide(placed(shifted(now[k], x, y)), members[k].others, laid_gap(medium_), along_x ? sign : 0, along_x ? 0 : sign, by);
            const double to_x = along_x ? x + sign * by : x, to_y = along_x ? y : y + sign * by;
            // The slide is worked out on grown outlines; the last word has the exact test.
            if (!all_free(to_x, to_y)) continue;
            x = to_x;
            y = to_y;
        }
    }
    for (PlacedCopy& c : now) c = shifted(c, x, y);
    return now;
}

/// The copy with its box's middle there, or on rings about it.
std::optional<PlacedCopy> HandLayout::near_middle(PlacedCopy copy, Point middle, const std::vector<const Polygon*>& others) const {
    copy.x = copy.y = 0;
    const Point start = middle - bounds(placed(copy).outer).centre();
    for (int ring = 0; ring <= 30; ++ring) {
        const int steps = std::max(1, ring * 6);
        for (int k = 0; k < steps; ++k) {
            const double t = 2 * M_PI * k / steps;
            copy.x = start.x + 2.0 * ring * std::cos(t);
            copy.y = start.y + 2.0 * ring * std::sin(t);
            if (free_there(others, placed(copy), copy.sheet)) return copy;
        }
    }
    return std::nullopt;
}

std::optional<PlacedCopy> HandLayout::turned(int index) const {
    PlacedCopy next = layout_.copies[at_index(index)];
    if (next.locked || outlines_[at_index(index)].outer.empty() || (!medium_.quarter_turns && !medium_.laying.grain)) return std::nullopt;
    next.turn = (next.turn + (medium_.quarter_turns ? 90 : 180)) % 360;
    return near_middle(next, bounds(outlines_[at_index(index)].outer).centre(), neighbours(index, {index}, next.sheet));
}

std::optional<std::pair<PlacedCopy, PlacedCopy>> HandLayout::swapped(int a, int b) const {
    if (a == b) return std::nullopt;
    PlacedCopy first = layout_.copies[at_index(a)], second = layout_.copies[at_index(b)];
    const Polygon &one = outlines_[at_index(a)], &other = outlines_[at_index(b)];
    if (first.locked || second.locked || one.outer.empty() || other.outer.empty()) return std::nullopt;
    std::swap(first.sheet, second.sheet);
    // the larger one first: it has less choice
    const bool a_first = area(one) >= area(other);
    PlacedCopy& large = a_first ? first : second;
    PlacedCopy& small = a_first ? second : first;
    const Point to_large = bounds((a_first ? other : one).outer).centre(), to_small = bounds((a_first ? one : other).outer).centre();
    const auto there = near_middle(large, to_large, neighbours(a_first ? a : b, {a, b}, large.sheet));
    if (!there) return std::nullopt;
    large = *there;
    auto others = neighbours(a_first ? b : a, {a, b}, small.sheet);
    const Polygon lying = placed(large);
    if (large.sheet == small.sheet) others.push_back(&lying);
    const auto also = near_middle(small, to_small, others);
    if (!also) return std::nullopt;
    small = *also;
    return std::pair{first, second};
}

std::optional<std::vector<PlacedCopy>> HandLayout::sent(const std::vector<int>& indices, int sheet) const {
    for (const int i : indices)
        if (layout_.copies[at_index(i)].locked) return std::nullopt;
    // what lies there stays; the others look for room on that one bed
    NestProblem p = sheet_problem(bed(sheet), *set_, layout_);
    std::vector<PlacedCopy> lying;
    for (std::size_t i = 0; i < layout_.copies.size(); ++i)
        if (layout_.copies[i].sheet == sheet && std::find(indices.begin(), indices.end(), static_cast<int>(i)) == indices.end())
            lying.push_back(layout_.copies[i]);
    p.locked = to_placements(p, lying);
    for (NestPlacement& l : p.locked) l.bin = 0;
    std::vector<Copy> wanted;
    for (const int i : indices) {
        const PlacedCopy& c = layout_.copies[at_index(i)];
        for (const NestPlacement& at : to_placements(p, {c})) wanted.push_back({at.piece, at.copy});
    }
    const auto found = fitted_in(p, wanted, 1);
    if (found.size() != wanted.size() || wanted.size() != indices.size()) return std::nullopt;
    std::vector<PlacedCopy> out = to_copies(p, found);
    for (PlacedCopy& c : out) c.sheet = sheet;
    return out;
}

}  // namespace orthema
