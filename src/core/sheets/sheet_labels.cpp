#include "core/sheets/sheet_labels.h"

#include <algorithm>
#include <cmath>

#include "core/drawing/code2d.h"
#include "core/nesting/bit_grid.h"

namespace orthema {

namespace {

constexpr double cell = 0.6;           ///< mm of the raster of what is taken
constexpr double clear = 0.4;          ///< mm between a label and any contour
constexpr double farthest = 8;         ///< mm from its own contour
constexpr double every = 2.5;          ///< mm between places tried along it
constexpr double letter_width = 0.62;  ///< of their size: wider than the shipped font's mean

/// Which cells are taken, with sums for boxes.
class Taken {
public:
    Taken(double width, double height) : w_(static_cast<int>(std::floor(width / cell))), h_(static_cast<int>(std::floor(height / cell))) {
        sums_.assign(static_cast<std::size_t>(w_ + 1) * static_cast<std::size_t>(h_ + 1), 0);
    }
    void mark(const Region& region) {
        const Rect b = bounds(region);
        const double x0 = std::floor(b.x0 / cell), y0 = std::floor(b.y0 / cell);
        const CellShape cells = covered_cells(region, cell, x0 * cell, y0 * cell);
        for (int c = 0; c < cells.width(); ++c) {
            const int x = static_cast<int>(x0) + c;
            if (x < 0 || x >= w_) continue;
            for (const Run& run : cells.columns[static_cast<std::size_t>(c)])
                for (int y = std::max(0, static_cast<int>(y0) + run.from); y < std::min(h_, static_cast<int>(y0) + run.to); ++y)
                    at(x + 1, y + 1) = 1;
        }
    }
    void sum_up() {
        for (int y = 1; y <= h_; ++y)
            for (int x = 1; x <= w_; ++x) at(x, y) += at(x - 1, y) + at(x, y - 1) - at(x - 1, y - 1);
    }
    [[nodiscard]] bool is_free(const Rect& r) const {
        const int x0 = static_cast<int>(std::floor(r.x0 / cell)), y0 = static_cast<int>(std::floor(r.y0 / cell));
        const int x1 = static_cast<int>(std::ceil(r.x1 / cell)), y1 = static_cast<int>(std::ceil(r.y1 / cell));
        if (x0 < 0 || y0 < 0 || x1 > w_ || y1 > h_) return false;
        return sum(x1, y1) - sum(x0, y1) - sum(x1, y0) + sum(x0, y0) == 0;
    }

private:
    std::int32_t& at(int x, int y) {
        return sums_[static_cast<std::size_t>(y) * static_cast<std::size_t>(w_ + 1) + static_cast<std::size_t>(x)];
    }
    [[nodiscard]] std::int32_t sum(int x, int y) const {
        return sums_[static_cast<std::size_t>(y) * static_cast<std::size_t>(w_ + 1) + static_cast<std::size_t>(x)];
    }
    int w_, h_;
    std::vector<std::int32_t> sums_;
};

/// From the longest wording to the shortest.
std::vector<std::string> wordings(const Order& order, const Transfer& t, const std::string& job, std::size_t number) {
    const std::string no = std::to_string(number);
    const Decoration* d = find_decoration(order, t.decoration);
    const std::string piece = t.piece.empty() || t.board > 0 ? "" : " " + t.piece;
    std::vector<std::string> out;
    const Job* whose = find_job(order, job);
    const std::string of = whose == nullptr ? "" : whose->name + ", ";  // before all else: it is what sheets are parted by
    if (d != nullptr) out.push_back(no + " " + of + d->name + " " + label_text(t) + piece);
    if (!t.whose.empty()) out.push_back(no + " " + of + label_text(t) + piece);
    out.push_back(no + " " + of + sizes_text(t) + piece);
    if (whose != nullptr) out.push_back(no + " " + whose->name);
    out.push_back(no);
    return out;
}

}  // namespace

SheetLabels sheet_labels(const Order& order, const Sheet& sheet, const TransferSet& set) {
    SheetLabels out;
    Taken taken(sheet.width, sheet.length);
    const Affine page = page_map(sheet);
    const CopyJobs jobs(set, layout_of(order, sheet.medium));
    std::vector<Polygon> lying;
    for (const PlacedCopy& c : sheet.copies) {
        const Transfer* t = find_transfer(set, c.transfer);
        lying.push_back(t != nullptr ? mapped(t->contour, page.after(copy_map(c))) : Polygon{});
        if (t != nullptr) taken.mark(offset({lying.back()}, clear, 0.05));
    }
    const Medium* medium = find_medium(order, sheet.medium);
    // the title's line in the margin
    if (medium != nullptr) taken.mark(box_region({0, 0, sheet.width, std::max(0.6, medium->margin.mm() - 0.5)}));
    // no printer reaches the rim
    const double rim = std::min(unprintable_edge, medium != nullptr ? medium->margin.mm() : 0), x1 = sheet.width, y1 = sheet.length;
    if (rim > 0)
        for (const Rect& r : {Rect{0, 0, rim, y1}, Rect{x1 - rim, 0, x1, y1}, Rect{0, 0, x1, rim}, Rect{0, y1 - rim, x1, y1}})
            taken.mark(box_region(r));
    taken.sum_up();

    const auto place = [&](std::size_t i, const std::string& text, double size, const std::string& code) {
        const double words = static_cast<double>(text.size()) * size * letter_width + 0.4;
        const double w = code.empty() ? words : words + label_code_side, h = code.empty() ? size * 1.15 : label_code_side;
        const Ring& ring = lying[i].outer;
        const double way = signed_area(ring) > 0 ? 1 : -1;
        for (double off = clear + 0.1; off <= farthest; off += 0.8)
            for (std::size_t k = 0; k < ring.size(); ++k) {
                const Point a = ring[k], d = ring[(k + 1) % ring.size()] - a;
                const double length = norm(d);
                if (length < 1e-9) continue;
                const Point out_of{way * d.y / length, -way * d.x / length};
                for (double s = std::min(length / 2, every / 2); s < length; s += every)
                    for (const bool upright : {false, true}) {
                        if (upright && !code.empty()) continue;
                        const double bw = upright ? h : w, bh = upright ? w : h;
                        const Point foot = a + d * (s / length);
                        const Point middle = foot + out_of * (off + (std::abs(out_of.x) * bw + std::abs(out_of.y) * bh) / 2);
                        const Rect box{middle.x - bw / 2, middle.y - bh / 2, middle.x + bw / 2, middle.y + bh / 2};
                        if (!taken.is_free(box)) continue;
                        if (std::any_of(out.labels.begin(), out.labels.end(),
                                        [&](const SheetLabel& l) { return l.box.grown(0.3).meets(box); }))
                            continue;
                        const Point to{std::clamp(foot.x, box.x0, box.x1), std::clamp(foot.y, box.y0, box.y1)};
                        // the tick must not run over anybody else on its way
                        const Point half = (foot + out_of * (clear + 0.4) + to) * 0.5;
                        if (norm(to - foot) > 2 && !taken.is_free(Rect{half.x, half.y, half.x, half.y}.grown(0.3))) continue;
                        out.labels.push_back({i, text, box, upright, size, code, foot, to});
                        return true;
                    }
            }
        return false;
    };
    for (std::size_t i = 0; i < sheet.copies.size(); ++i) {
        const Transfer* t = find_transfer(set, sheet.copies[i].transfer);
        if (t == nullptr) continue;
        const auto number = static_cast<std::size_t>(t - set.transfers.data()) + 1;
        bool placed = false;
        if (order.guide_setup.label_codes && !t->decoration.empty() && !t->sizes.empty()) {
            const std::string& first_size = t->sizes.front().sizes.front();
            placed = place(i, std::to_string(number) + " " + first_size, 2.4, code_text({t->decoration, first_size, ""}));
        }
        for (const double size : {2.4, 1.8}) {
            if (placed) break;
            for (const std::string& text : wordings(order, *t, jobs.of(t->id, sheet.copies[i].copy), number)) {
                placed = place(i, text, size, "");
                if (placed) break;
            }
        }
        out.without += placed ? 0 : 1;
    }
    return out;
}

}  // namespace orthema
