#include "core/nesting/grid_packer.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <tuple>

#include "core/nesting/crew.h"

namespace orthema {

namespace {
constexpr double hair = 0.0005;  ///< mm that pieces keep where no gap is asked for, so that rounding cannot make them overlap
}

Region GridPacker::grow(const Polygon& outline) const {
    return problem_.gap > 0 ? offset({outline}, problem_.gap / 2, 0.02) : offset({outline}, hair, 0.02, Corner::square);
}

GridPacker::GridPacker(const NestProblem& problem, double cell, int threads) : problem_(problem), cell_(cell), threads_(threads) {
    rows_ = static_cast<int>(std::floor((problem.width - 2 * problem.margin + problem.gap) / cell + 1e-9));
    if (std::isfinite(problem.max_length))
        columns_ = static_cast<int>(std::floor((problem.max_length - 2 * problem.margin + problem.gap) / cell + 1e-9));
    for (const NestPiece& piece : problem.pieces) {
        std::vector<Turned> turns;
        const std::size_t every = std::max<std::size_t>(1, piece.rotations.size() / 8);
        for (std::size_t i = 0; i < piece.rotations.size(); i += every) {
            const double r = piece.rotations[i];
            Turned t;
            t.rotation = r;
            const Region grown = grow(mapped(piece.outline, Affine::turn(r)));
            const Rect box = bounds(grown);
            t.cells = covered_cells(grown, cell, box.x0, box.y0);
            t.width = box.width();
            if (t.cells.height <= rows_ && (columns_ < 0 || t.cells.width() <= columns_)) turns.push_back(std::move(t));
        }
        turns_.push_back(std::move(turns));
    }
}

int GridPacker::misfit() const {
    for (std::size_t i = 0; i < turns_.size(); ++i)
        if (turns_[i].empty() && problem_.pieces[i].count > 0) return static_cast<int>(i);
    return -1;
}

std::vector<NestPlacement> GridPacker::pack(const std::vector<Copy>& order, const Task& task, std::size_t most_bins) const {
    Crew crew(threads_ - 1);
    std::vector<BitGrid> bins;
    std::vector<BitGrid> over_seams;  // as pieces that cross seams see the bins, where there are any
    const bool any_cross = !problem_.seams.empty() &&
                           std::any_of(problem_.pieces.begin(), problem_.pieces.end(), [](const NestPiece& p) { return p.crosses; });
    std::vector<NestPlacement> out = problem_.locked;
    const auto stamp = [&](BitGrid& bin, const Polygon& outline) {
        const Region grown = grow(outline);
        const double origin = problem_.margin - problem_.gap / 2;
        const Rect box = bounds(grown);
        const int cx = static_cast<int>(std::floor((box.x0 - origin) / cell_));
        const int cy = static_cast<int>(std::floor((box.y0 - origin) / cell_));
        bin.stamp(covered_cells(grown, cell_, origin + cx * cell_, origin + cy * cell_), cx, cy);
    };
    const auto open_bin = [&] {
        bins.emplace_back(rows_);
        for (const Polygon& area : problem_.blocked) stamp(bins.back(), area);
        if (any_cross) over_seams.push_back(bins.back());
        for (const Polygon& area : problem_.seams) stamp(bins.back(), area);
    };
    for (const NestPlacement& p : problem_.locked) {
        while (static_cast<int>(bins.size()) <= p.bin) open_bin();
        stamp(bins[static_cast<std::size_t>(p.bin)], placed_outline(problem_, p));
        if (any_cross) stamp(over_seams[static_cast<std::size_t>(p.bin)], placed_outline(problem_, p));
    }
    constexpr int none = std::numeric_limits<int>::max();
    // A place that was full for one copy is full for the next copy of the same piece: start where it ended.
    std::map<std::tuple<int, std::size_t, std::size_t>, int> from;
    for (const Copy& copy : order) {
        if (task.stopped()) return {};
        const auto& turns = turns_[static_cast<std::size_t>(copy.piece)];
        const auto& seen = any_cross && problem_.pieces[static_cast<std::size_t>(copy.piece)].crosses ? over_seams : bins;
        bool placed = false;
        for (std::size_t b = 0; !placed && b < most_bins; ++b) {
            if (b == bins.size()) open_bin();
            double best = std::numeric_limits<double>::infinity();
            std::size_t best_turn = 0;
            int best_x = 0, best_y = 0;
            struct Fit {
                int* start;
                int x = 0, y = 0;
            };
            std::vector<Fit> fits;
            for (std::size_t t = 0; t < turns.size(); ++t) fits.push_back({&from[{copy.piece, t, b}]});
            crew.run(static_cast<int>(turns.size()), [&](int k, int) {
                const auto t = static_cast<std::size_t>(k);
                Fit& fit = fits[t];
                if (*fit.start == none) return;
                *fit.start = seen[b].first_fit(turns[t].cells, *fit.start, columns_, fit.x, fit.y) ? fit.x : none;
            });
            for (std::size_t t = 0; t < turns.size(); ++t) {
                if (*fits[t].start == none) continue;
                const int x = fits[t].x, y = fits[t].y;
                const double end = x * cell_ + turns[t].width + y * 1e-4;
                if (end < best) {
                    best = end;
                    best_turn = t;
                    best_x = x;
                    best_y = y;
                }
            }
            if (!std::isfinite(best)) continue;
            const Turned& t = turns[best_turn];
            bins[b].stamp(t.cells, best_x, best_y);
            if (any_cross) over_seams[b].stamp(t.cells, best_x, best_y);
            const double origin = problem_.margin - problem_.gap / 2;
            out.push_back({copy.piece, copy.copy, static_cast<int>(b), t.rotation, origin + best_x * cell_ - t.cells.x0,
                           origin + best_y * cell_ - t.cells.y0, false});
            placed = true;
        }
    }
    return out;
}

namespace {

/// What lies in one bin: `own` are its placements, in whatever order.
void slide_bin(const NestProblem& problem, std::vector<NestPlacement>& placements, const std::vector<std::size_t>& own) {
    std::vector<Polygon> outlines(own.size());
    std::vector<Rect> boxes(own.size());
    const auto place = [&](std::size_t k) {
        outlines[k] = placed_outline(problem, placements[own[k]]);
        boxes[k] = bounds(outlines[k].outer);
    };
    std::vector<std::size_t> order(own.size());
    for (std::size_t k = 0; k < own.size(); ++k) {
        order[k] = k;
        place(k);
    }
    for (int pass = 0; pass < 2; ++pass) {
        std::sort(order.begin(), order.end(), [&](auto a, auto b) { return boxes[a].x0 < boxes[b].x0; });
        for (const std::size_t k : order) {
            NestPlacement& p = placements[own[k]];
            if (p.locked) continue;
            for (const bool along_x : {true, false}) {
                const double most = (along_x ? boxes[k].x0 : boxes[k].y0) - problem.margin;
                if (most <= 1e-6) continue;
                Rect way = boxes[k].grown(problem.gap + 0.05);
                const double reach = std::min(most, 40.0);
                (along_x ? way.x0 : way.y0) -= reach;
                std::vector<const Polygon*> others;
                for (std::size_t j = 0; j < outlines.size(); ++j)
                    if (j != k && way.meets(boxes[j])) others.push_back(&outlines[j]);
                for (const Polygon* area : kept_off(problem, problem.pieces[static_cast<std::size_t>(p.piece)])) others.push_back(area);
                const double by = slide(outlines[k], others, problem.gap, along_x ? -1 : 0, along_x ? 0 : -1, reach);
                if (by <= 1e-6) continue;
                (along_x ? p.x : p.y) -= by;
                place(k);
            }
        }
    }
}

}  // namespace

void slide_back(const NestProblem& problem, std::vector<NestPlacement>& placements, int threads) {
    std::vector<std::vector<std::size_t>> bins;
    for (std::size_t i = 0; i < placements.size(); ++i) {
        const auto bin = static_cast<std::size_t>(placements[i].bin);
        if (bins.size() <= bin) bins.resize(bin + 1);
        bins[bin].push_back(i);
    }
    const int count = static_cast<int>(bins.size());
    Crew crew(std::min(threads, count) - 1);
    crew.run(count, [&](int bin, int) { slide_bin(problem, placements, bins[static_cast<std::size_t>(bin)]); });
}

}  // namespace orthema
