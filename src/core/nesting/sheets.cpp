#include "core/nesting/sheets.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace orthema {

NestProblem sheet_problem(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& layout) {
    NestProblem p;
    p.width = medium.width.mm();
    p.max_length = medium.length.mm() > 0 ? medium.length.mm() : std::numeric_limits<double>::infinity();
    p.gap = medium.gap.mm();
    p.margin = medium.margin.mm();
    for (const Transfer& t : set.transfers) {
        if (t.medium != medium.id) continue;
        NestPiece piece{t.id, t.count(), {0}, t.contour};
        if (medium.quarter_turns && medium.free_turns) {
            piece.rotations.clear();
            for (int k = 0; k < 120; ++k) piece.rotations.push_back(3 * k);
        } else if (medium.quarter_turns) {
            piece.rotations = {0, 90, 180, 270};
        }
        p.pieces.push_back(std::move(piece));
    }
    if (medium.taped_at.mm() > 0) {
        // No piece across the taped seam, as long as every piece fits on one of the two sheets.
        const double at = medium.taped_at.mm(), half = medium.taped_lap.mm();
        const double room = std::max(at - half - p.margin, p.max_length - p.margin - at - half) - p.gap;
        const bool fits = std::all_of(p.pieces.begin(), p.pieces.end(), [&](const NestPiece& piece) {
            const Rect box = bounds(piece.outline.outer);
            return box.width() <= room || (piece.rotations.size() > 1 && box.height() <= room && box.width() <= p.width - 2 * p.margin);
        });
        // within the margins, or the grid would have to hold cells outside it
        if (fits) p.blocked = {box_region({at - half, p.margin, at + half, p.width - p.margin})[0]};
    }
    std::vector<PlacedCopy> locked;
    for (const PlacedCopy& c : layout)
        if (c.locked) locked.push_back(c);
    p.locked = to_placements(p, locked);
    p.start = to_placements(p, layout);
    return p;
}

std::vector<PlacedCopy> to_copies(const NestProblem& problem, const std::vector<NestPlacement>& placements) {
    std::vector<PlacedCopy> out;
    out.reserve(placements.size());
    for (const NestPlacement& p : placements)
        out.push_back({problem.pieces[static_cast<std::size_t>(p.piece)].id, p.copy, p.bin, static_cast<int>(std::lround(p.rotation)), p.x,
                       p.y, p.locked});
    return out;
}

std::vector<NestPlacement> to_placements(const NestProblem& problem, const std::vector<PlacedCopy>& copies) {
    std::map<std::string, int> index;
    for (std::size_t i = 0; i < problem.pieces.size(); ++i) index[problem.pieces[i].id] = static_cast<int>(i);
    std::vector<NestPlacement> out;
    for (const PlacedCopy& c : copies) {
        const auto at = index.find(c.transfer);
        if (at == index.end() || c.copy < 0 || c.copy >= problem.pieces[static_cast<std::size_t>(at->second)].count || c.sheet < 0 ||
            c.sheet > 10000)
            continue;
        out.push_back({at->second, c.copy, c.sheet, static_cast<double>(c.turn), c.x, c.y, c.locked});
    }
    return out;
}

Affine copy_map(const PlacedCopy& c) { return Affine::shift(c.x, c.y).after(Affine::turn(c.turn)); }

Affine page_map(const Sheet& s) { return {0, 1, -1, 0, s.width, 0}; }

Order with_layout(const Order& order, const std::string& medium, std::vector<PlacedCopy> copies) {
    Order out = order;
    const auto at = std::find_if(out.layouts.begin(), out.layouts.end(), [&](const auto& l) { return l.medium == medium; });
    if (at != out.layouts.end())
        at->copies = std::move(copies);
    else
        out.layouts.push_back({medium, std::move(copies)});
    return out;
}

SheetPlan sheet_plan(const Order& order, const TransferSet& set) {
    SheetPlan plan;
    for (const Medium& medium : order.media) {
        const auto layout =
            std::find_if(order.layouts.begin(), order.layouts.end(), [&](const MediumLayout& l) { return l.medium == medium.id; });
        const std::vector<PlacedCopy> copies = layout == order.layouts.end() ? std::vector<PlacedCopy>{} : layout->copies;
        const NestProblem problem = sheet_problem(medium, set, copies);
        MediumPlan m;
        m.medium = medium.id;
        for (const NestPiece& p : problem.pieces) m.asked += p.count;
        if (m.asked == 0) continue;
        Subject about;
        about.stage = "sheets";
        about.medium = medium.id;
        const auto placements = to_placements(problem, copies);
        m.placed = static_cast<int>(placements.size());
        const auto faults = nest_faults(problem, placements, 0.01);
        m.stale = !faults.empty();
        NestSolution measured;
        measured.placements = placements;
        measure_solution(problem, measured);
        m.density = measured.density;
        std::map<std::string, const Transfer*> by_id;
        for (const Transfer& t : set.transfers) by_id[t.id] = &t;
        int crossing = 0;  // of the taped seam
        for (int b = 0; b < measured.bins; ++b) {
            Sheet s;
            s.medium = medium.id;
            s.number = b;
            s.width = medium.width.mm();
            double used = 0;
            for (const PlacedCopy& c : to_copies(problem, placements)) {
                if (c.sheet != b) continue;
                const Polygon& contour = by_id.at(c.transfer)->contour;
                s.length = std::max(s.length, bounds(mapped(contour.outer, copy_map(c))).x1 + medium.margin.mm());
                s.cut_length += perimeter({contour});
                used += area(contour);
                s.copies.push_back(c);
            }
            if (medium.taped_at.mm() > 0)
                for (const PlacedCopy& c : s.copies) {
                    const double at = medium.taped_at.mm(), half = medium.taped_lap.mm();
                    const Region ink = mapped(by_id.at(c.transfer)->shape, copy_map(c));
                    const Rect box = bounds(ink);
                    if (box.x0 < at + half && box.x1 > at - half &&
                        area(intersect(ink, box_region({at - half, -1, at + half, s.width + 1}))) > 0.5)
                        ++crossing;
                }
            if (medium.shape == MediumShape::sheet) s.length = medium.length.mm();
            if (s.copies.empty() && medium.shape == MediumShape::roll) continue;
            s.density = s.length > 0 ? used / (s.length * s.width) : 0;
            if (medium.shape == MediumShape::roll) {
                m.length += s.length;
                m.cost += s.length / 1000 * medium.price;
            } else {
                m.cost += medium.price;
            }
            m.sheets.push_back(std::move(s));
        }
        if (m.placed == 0)
            plan.findings.push_back({Severity::caution,
                                     "sheet-empty",
                                     about,
                                     {},
                                     medium.name + ": nothing is laid out yet. Settle the pieces on the Sheets bench."});
        else if (m.stale)
            plan.findings.push_back(
                {Severity::stop,
                 "sheet-stale",
                 about,
                 {},
                 medium.name + ": the layout is not for the transfers of now (" + faults.front() + "). Settle it again."});
        if (crossing > 0)
            plan.findings.push_back(
                {Severity::caution,
                 "seam-crossed",
                 about,
                 {},
                 medium.name + ": " + std::to_string(crossing) + (crossing == 1 ? " piece crosses" : " pieces cross") +
                     " the taped seam, where ink breaks. Turn or move what has fine ink there; the lap faces the feed."});
        plan.media.push_back(std::move(m));
    }
    return plan;
}

}  // namespace orthema
