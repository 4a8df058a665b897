#include "core/nesting/trimmer.h"

#include <algorithm>
#include <map>
#include <optional>

namespace orthema {

namespace {

constexpr double blade_hair = 1e-6;
constexpr double least_waste = 0.02;  ///< mm: thinner slivers are rounding, not cut off

using Cells = std::vector<std::pair<Rect, int>>;  ///< boxes with their clearance, and whose they are

double low(const Rect& r, bool across) { return across ? r.x0 : r.y0; }
double high(const Rect& r, bool across) { return across ? r.x1 : r.y1; }

/// Cells in slabs that lines in one direction part, in the order of the feed or from the near edge.
std::vector<Cells> slabs(Cells cells, bool across) {
    std::sort(cells.begin(), cells.end(), [&](const auto& a, const auto& b) { return low(a.first, across) < low(b.first, across); });
    std::vector<Cells> out;
    double end = 0;
    for (auto& c : cells) {
        if (out.empty() || low(c.first, across) > end - blade_hair) out.emplace_back();
        end = out.back().empty() ? high(c.first, across) : std::max(end, high(c.first, across));
        out.back().push_back(std::move(c));
    }
    return out;
}

/// Stages that parting takes when it begins in this direction; nothing where that does not part.
std::optional<int> stages_from(const Cells& cells, bool across) {
    if (cells.size() == 1) return 0;
    const auto parts = slabs(cells, across);
    if (parts.size() < 2) return std::nullopt;
    int most = 0;
    for (const Cells& part : parts) {
        const auto inner = stages_from(part, !across);
        if (!inner) return std::nullopt;
        most = std::max(most, *inner);
    }
    return 1 + most;
}

Rect box_around(const Cells& cells) {
    Rect out = cells.front().first;
    for (const auto& c : cells) out = united(out, c.first);
    return out;
}

struct Cutter {
    TrimPlan plan;

    int add(const Rect& box) {
        plan.parts.push_back({box, -1, false});
        return static_cast<int>(plan.parts.size()) - 1;
    }

    /// Cuts a part in two; which of them is waste is said by the caller.
    std::pair<int, int> cut(int part, bool across, double at, int stage) {
        const Rect box = plan.parts[static_cast<std::size_t>(part)].box;
        Rect near = box, far = box;
        (across ? near.x1 : near.y1) = at;
        (across ? far.x0 : far.y0) = at;
        const int a = add(near), b = add(far);
        plan.cuts.push_back({part, across, at, at - low(box, across), a, b, stage});
        return {a, b};
    }

    /// Takes off what lies before and after the cells in one direction.
    int trimmed(int part, const Rect& to, bool across, int stage) {
        const auto box = [&] { return plan.parts[static_cast<std::size_t>(part)].box; };
        if (low(to, across) > low(box(), across) + least_waste) {
            const auto [waste, rest] = cut(part, across, low(to, across), stage);
            plan.parts[static_cast<std::size_t>(waste)].waste = true;
            part = rest;
        }
        if (high(to, across) < high(box(), across) - least_waste) {
            const auto [rest, waste] = cut(part, across, high(to, across), stage);
            plan.parts[static_cast<std::size_t>(waste)].waste = true;
            part = rest;
        }
        return part;
    }

    void work(int part, const Cells& cells, bool across, int stage) {
        const Rect around = box_around(cells);
        if (cells.size() == 1) {
            part = trimmed(trimmed(part, around, across, 0), around, !across, 0);
            plan.parts[static_cast<std::size_t>(part)].piece = cells.front().second;
            return;
        }
        plan.stages = std::max(plan.stages, stage);
        part = trimmed(trimmed(part, around, across, stage), around, !across, stage);
        const auto parts = slabs(cells, across);
        std::vector<int> cut_off;
        for (std::size_t i = 0; i + 1 < parts.size(); ++i) {
            const double end = high(box_around(parts[i]), across);
            const auto [slab, rest] = cut(part, across, end, stage);
            cut_off.push_back(slab);
            part = rest;
            const double begin = low(box_around(parts[i + 1]), across);
            if (begin > end + least_waste) {
                const auto [waste, on] = cut(part, across, begin, stage);
                plan.parts[static_cast<std::size_t>(waste)].waste = true;
                part = on;
            }
        }
        cut_off.push_back(part);
        for (std::size_t i = 0; i < parts.size(); ++i) work(cut_off[i], parts[i], !across, stage + 1);
    }
};

}  // namespace

Result<TrimPlan> trim_plan(const std::vector<Rect>& boxes, const Rect& sheet, double clearance) {
    Cells cells;
    for (std::size_t i = 0; i < boxes.size(); ++i) cells.emplace_back(boxes[i].grown(clearance), static_cast<int>(i));
    Cutter c;
    c.add(sheet);
    if (cells.empty()) return c.plan;
    const auto first = stages_from(cells, true), other = stages_from(cells, false);
    if (!first && !other)
        return Error{"No line from edge to edge parts some of the pieces: settle them for the trimmer, or cut along the contours."};
    c.work(0, cells, first && (!other || *first <= *other), 1);
    return c.plan;
}

bool trimmable(const NestProblem& problem, const std::vector<NestPlacement>& placements, int stages) {
    std::map<int, Cells> bins;
    for (const NestPlacement& p : placements) bins[p.bin].emplace_back(bounds(placed_outline(problem, p).outer).grown(problem.gap / 2), 0);
    return std::all_of(bins.begin(), bins.end(), [&](const auto& bin) {
        const auto a = stages_from(bin.second, true), b = stages_from(bin.second, false);
        if (!a && !b) return false;
        return stages == 0 || std::min(a.value_or(1000000), b.value_or(1000000)) <= stages;
    });
}

}  // namespace orthema
