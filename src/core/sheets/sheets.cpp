#include "core/sheets/sheets.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <span>

#include "core/sheets/seam.h"

namespace orthema {

namespace {

constexpr double register_inset = 7;      ///< of a mark's middle from the edges, mm
constexpr double register_step = 400;     ///< along a roll
constexpr double register_clear = 5;      ///< to both sides of the middle
constexpr double longest_marked = 20000;  ///< of an endless roll

std::vector<double> turns_of(const Medium& m) {
    if (m.quarter_turns && m.free_turns && m.laying.cutting == Cutting::contour) {
        std::vector<double> out;
        out.reserve(120);
        for (int k = 0; k < 120; ++k) out.push_back(3 * k);
        return out;
    }
    if (m.quarter_turns) return {0, 90, 180, 270};
    if (m.laying.grain) return {0, 180};
    return {0};
}

double endless(const Length& length) { return length.mm() > 0 ? length.mm() : std::numeric_limits<double>::infinity(); }

}  // namespace

Bed bed_of(const Medium& medium, const std::string& stock) {
    Bed bed{medium, {}};
    for (const StockItem& s : medium.laying.stock)
        if (!stock.empty() && s.id == stock) {
            bed.medium.width = s.width;
            bed.medium.length = s.length;
            bed.medium.price = s.price;
            bed.shape = {s.shape, s.holes};
            if (!s.shape.empty()) bed.medium.shape = MediumShape::sheet;
        }
    return bed;
}

double price_of(const Bed& bed, double length) { return bed.medium.price * (bed.medium.shape == MediumShape::roll ? length / 1000 : 1); }

std::string stock_of(const std::vector<std::string>& stock, int sheet) {
    return sheet >= 0 && static_cast<std::size_t>(sheet) < stock.size() ? stock[static_cast<std::size_t>(sheet)] : "";
}

Polygon laid_outline(const Medium& medium, const Transfer& t) {
    if (medium.laying.cutting == Cutting::contour) return t.contour;
    Rect box = bounds(t.contour.outer);
    if (medium.laying.cutting == Cutting::on_sheet && !t.blanks.empty()) box = united(box, bounds(t.blanks));
    return box_region(box)[0];
}

double laid_gap(const Medium& medium) {
    return medium.laying.cutting == Cutting::on_sheet ? std::max(medium.gap, medium.laying.fingers).mm() : medium.gap.mm();
}

std::vector<CopyOwner> copy_owners(const Transfer& t, const MediumLayout& layout) {
    std::vector<CopyOwner> out;
    int fill = 0;
    for (const FillWish& f : layout.fill)
        if (f.transfer == t.id) fill += f.copies;
    int over = 0;  // printed of a share past its count: it was filling
    const JobShare whole{"", t.id, t.quantity, t.spares, t.spoiled};
    for (const JobShare& s : t.shares.empty() ? std::span(&whole, 1) : std::span(t.shares)) {
        int left = s.count();
        for (const PrintedCopies& p : layout.printed)
            if (p.transfer == t.id && p.job == s.job) left -= p.copies;
        over += std::max(0, -left);
        out.push_back({s.job, std::max(0, left)});
    }
    out.push_back({"", std::max(0, fill - over)});
    return out;
}

CopyJobs::CopyJobs(const TransferSet& set, const MediumLayout& layout) {
    for (const Transfer& t : set.transfers)
        if (t.medium == layout.medium && std::any_of(t.shares.begin(), t.shares.end(), [](const JobShare& s) { return !s.job.empty(); }))
            owners_[t.id] = copy_owners(t, layout);
}

const std::string& CopyJobs::of(const std::string& transfer, int copy) const {
    static const std::string nobody;
    const auto owners = owners_.find(transfer);
    if (owners == owners_.end()) return nobody;
    for (const CopyOwner& o : owners->second) {
        if (copy < o.copies) return o.job;
        copy -= o.copies;
    }
    return nobody;
}

int copies_asked(const Transfer& t, const MediumLayout& layout) {
    int n = 0;
    for (const CopyOwner& o : copy_owners(t, layout)) n += o.copies;
    return n;
}

std::vector<Point> register_marks(const Medium& medium, double length) {
    std::vector<Point> out;
    if (!medium.laying.registers || medium.laying.cutting != Cutting::contour) return out;
    const double far = medium.width.mm() - register_inset;
    if (medium.shape == MediumShape::sheet) {
        for (const double x : {register_inset, length - register_inset}) out.insert(out.end(), {{x, register_inset}, {x, far}});
        return out;
    }
    for (double x = register_inset; x + register_clear <= std::min(length, longest_marked); x += register_step)
        out.insert(out.end(), {{x, register_inset}, {x, far}});
    return out;
}

std::vector<Polygon> kept_free(const Bed& bed) {
    const Medium& m = bed.medium;
    const double margin = m.margin.mm(), length = std::min(endless(m.length), 1e5);
    const Rect usable{margin, margin, length - margin, m.width.mm() - margin};  // outside it nothing lies anyway
    std::vector<Polygon> out;
    const auto add = [&](const Region& region) {
        for (Polygon& p : intersect(region, box_region(usable)))
            if (area(p) > 1e-3) out.push_back(std::move(p));
    };
    for (const Exclusion& e : m.laying.excluded)
        add(box_region({e.along.mm(), e.across.mm(), (e.along + e.length).mm(), (e.across + e.breadth).mm()}));
    if (bed.shape.outer.empty())
        for (const Point& p : register_marks(m, endless(m.length))) add(box_region(Rect{p.x, p.y, p.x, p.y}.grown(register_clear)));
    else  // pieces keep the gap from what is not there, and the margin is wanted
        add(subtract(box_region(usable), offset({bed.shape}, std::min(0.0, laid_gap(m) - margin))));
    return out;
}

NestProblem sheet_problem(const Bed& bed, const TransferSet& set, const MediumLayout& layout) {
    const Medium& medium = bed.medium;
    NestProblem p;
    p.width = medium.width.mm();
    p.max_length = endless(medium.length);
    p.gap = laid_gap(medium);
    p.margin = medium.margin.mm();
    for (const Transfer& t : set.transfers)
        if (t.medium == medium.id) {
            p.pieces.push_back({t.id, copies_asked(t, layout), turns_of(medium), laid_outline(medium, t)});
            p.pieces.back().crosses = must_cross_seam(medium, p.pieces.back().outline);
        }
    p.blocked = kept_free(bed);
    p.seams = taped_seams(bed);
    std::vector<PlacedCopy> locked;
    for (const PlacedCopy& c : layout.copies)
        if (c.locked) locked.push_back(c);
    p.locked = to_placements(p, locked);
    p.start = to_placements(p, layout.copies);
    return p;
}

std::vector<std::string> layout_faults(const Medium& medium, const TransferSet& set, const MediumLayout& layout, double tolerance) {
    std::vector<std::string> faults;
    std::map<std::string, std::vector<PlacedCopy>> by_bed;
    for (const PlacedCopy& c : layout.copies) by_bed[stock_of(layout.stock, c.sheet)].push_back(c);
    if (by_bed.empty()) by_bed[""] = {};
    std::set<std::pair<std::string, int>> seen;
    for (const auto& [stock, copies] : by_bed) {
        const NestProblem p = sheet_problem(bed_of(medium, stock), set, layout);
        const auto placements = to_placements(p, copies);
        for (const PlacedCopy& c : to_copies(p, placements))
            if (!seen.insert({c.transfer, c.copy}).second && by_bed.size() > 1) faults.push_back(c.transfer + " is placed twice");
        for (std::string& fault : nest_faults(p, placements, tolerance, by_bed.size() == 1)) faults.push_back(std::move(fault));
        if (medium.laying.cutting == Cutting::trimmer && !trimmable(p, placements, 0))
            faults.emplace_back("no cut from edge to edge parts some of the pieces");
    }
    if (by_bed.size() > 1)
        for (const Transfer& t : set.transfers)
            for (int c = 0; t.medium == medium.id && c < copies_asked(t, layout); ++c)
                if (!seen.contains({t.id, c})) faults.push_back(t.name + " (" + std::to_string(c + 1) + ") is not placed");
    return faults;
}

int sheet_count(const std::vector<PlacedCopy>& copies) {
    int out = 0;
    for (const PlacedCopy& c : copies) out = std::max(out, c.sheet + 1);
    return out;
}

std::vector<Rect> laid_boxes(const Medium& medium, const TransferSet& set, const std::vector<PlacedCopy>& copies) {
    const auto index = transfers_by_id(set);
    std::vector<Rect> out;
    out.reserve(copies.size());
    for (const PlacedCopy& c : copies) {
        const auto t = index.find(c.transfer);
        out.push_back(t == index.end() ? Rect{} : bounds(mapped(laid_outline(medium, *t->second).outer, copy_map(c))));
    }
    return out;
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

Order with_layout(const Order& order, MediumLayout layout) {
    Order out = order;
    const auto at = std::find_if(out.layouts.begin(), out.layouts.end(), [&](const auto& l) { return l.medium == layout.medium; });
    if (at != out.layouts.end())
        *at = std::move(layout);
    else
        out.layouts.push_back(std::move(layout));
    return out;
}

Order with_layout(const Order& order, const std::string& medium, LaidSheets sheets) {
    MediumLayout layout = layout_of(order, medium);
    layout.copies = std::move(sheets.copies);
    layout.stock = std::move(sheets.stock);
    return with_layout(order, std::move(layout));
}

Order with_layout(const Order& order, const std::string& medium, std::vector<PlacedCopy> copies) {
    return with_layout(order, medium, LaidSheets{std::move(copies), layout_of(order, medium).stock});
}

MediumLayout layout_of(const Order& order, const std::string& medium) {
    const MediumLayout* found = find_layout(order, medium);
    return found != nullptr ? *found : MediumLayout{medium, {}};
}

namespace {

double length_of_cuts(const Medium& medium, const TransferSet& set, const Sheet& s) {
    const auto plan = sheet_cuts(medium, set, s);
    double sum = 0;
    if (plan)
        for (const TrimCut& c : plan->cuts) {
            const Rect box = plan->parts[static_cast<std::size_t>(c.part)].box;
            sum += c.across ? box.height() : box.width();
        }
    return sum;
}

/// Pieces that no sheet of the medium takes at any turn they may have.
void say_too_large(const Medium& medium, const TransferSet& set, const std::vector<NestPiece>& pieces, const Subject& about,
                   Findings& findings) {
    std::vector<Medium> sizes{medium};
    for (const StockItem& item : medium.laying.stock)
        if (Bed bed = bed_of(medium, item.id); bed.shape.outer.empty()) sizes.push_back(std::move(bed.medium));
    for (const NestPiece& piece : pieces) {
        const bool fits = std::any_of(sizes.begin(), sizes.end(), [&](const Medium& m) {
            const double margins = 2 * m.margin.mm();
            return std::any_of(piece.rotations.begin(), piece.rotations.end(), [&](double turn) {
                const Rect box = bounds(mapped(piece.outline.outer, Affine::turn(turn)));
                return box.width() <= endless(m.length) - margins + 0.01 && box.height() <= m.width.mm() - margins + 0.01;
            });
        });
        if (fits) continue;
        const Transfer* t = find_transfer(set, piece.id);
        const Rect box = bounds(piece.outline.outer);
        findings.push_back(finding("piece-too-large", about,
                                   {{"medium", medium.name},
                                    {"piece", t == nullptr ? piece.id : t->name},
                                    {"width", Length::from_mm(box.width())},
                                    {"height", Length::from_mm(box.height())}}));
    }
}

/// Whether a gang's jobs lie on sheets of their own where they need not.
bool jobs_apart(const Medium& medium, const CopyJobs& jobs, const std::vector<Sheet>& sheets) {
    if (!jobs.any() || medium.laying.together == Together::jobs || sheets.size() < 2) return false;
    std::set<std::string> all;
    for (const Sheet& s : sheets) {
        std::set<std::string> here;
        for (const PlacedCopy& c : s.copies) {
            if (c.locked) return false;  // somebody wants it so
            here.insert(jobs.of(c.transfer, c.copy));
        }
        if (here.size() > 1) return false;
        all.insert(here.begin(), here.end());
    }
    all.erase("");  // the shelf's
    return all.size() > 1;
}

}  // namespace

std::string group_of(const Medium& medium, const Transfer& t) {
    switch (medium.laying.together) {
    case Together::designs: return t.art;
    case Together::garments: return t.garment;
    case Together::sizes: return sizes_text(t);
    case Together::jobs: return t.shares.empty() ? "" : t.shares.front().job;
    case Together::nothing: break;
    }
    return "";
}

bool groups_parted(const Medium& medium, const TransferSet& set, const MediumLayout& layout) {
    if (medium.laying.together == Together::nothing) return true;
    constexpr double sheet_apart = 1e6;  // mm, more than any roll
    MediumLayout ordered = layout;
    ordered.fill.clear();
    std::set<int> free_of;
    for (const PlacedCopy& c : layout.copies)
        if (c.locked || !bed_of(medium, stock_of(layout.stock, c.sheet)).shape.outer.empty()) free_of.insert(c.sheet);
    std::map<std::string, std::pair<double, double>> spans;
    const std::vector<Rect> boxes = laid_boxes(medium, set, layout.copies);
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        const PlacedCopy& c = layout.copies[i];
        const Transfer* t = find_transfer(set, c.transfer);
        if (t == nullptr || free_of.contains(c.sheet) || c.copy >= copies_asked(*t, ordered)) continue;
        const double before = c.sheet * sheet_apart, x0 = before + boxes[i].x0, x1 = before + boxes[i].x1;
        auto& [from, to] = spans.try_emplace(group_of(medium, *t), x0, x1).first->second;
        from = std::min(from, x0);
        to = std::max(to, x1);
    }
    std::vector<std::pair<double, double>> sorted;
    sorted.reserve(spans.size());
    for (const auto& [group, span] : spans) sorted.push_back(span);
    std::sort(sorted.begin(), sorted.end());
    return std::adjacent_find(sorted.begin(), sorted.end(), [](const auto& a, const auto& b) { return b.first < a.second - 0.01; }) ==
           sorted.end();
}

Result<TrimPlan> sheet_cuts(const Medium& medium, const TransferSet& set, const Sheet& s) {
    return trim_plan(laid_boxes(medium, set, s.copies), {0, 0, s.length, s.width}, medium.gap.mm() / 2);
}

SheetPlan sheet_plan(const Order& order, const TransferSet& set) {
    SheetPlan plan;
    const auto index = transfers_by_id(set);
    for (const Medium& medium : order.media) {
        const MediumLayout layout = layout_of(order, medium.id);
        const NestProblem problem = sheet_problem({medium, {}}, set, layout);
        MediumPlan m;
        m.medium = medium.id;
        for (const NestPiece& p : problem.pieces) m.asked += p.count;
        for (const PrintedCopies& p : layout.printed)
            (p.bag.empty() ? m.printed : m.from_shelf) += index.contains(p.transfer) ? p.copies : 0;
        if (m.asked == 0) continue;
        Subject about;
        about.stage = "sheets";
        about.medium = medium.id;
        const std::vector<PlacedCopy> copies = to_copies(problem, to_placements(problem, layout.copies));
        m.placed = static_cast<int>(copies.size());
        const auto faults = layout_faults(medium, set, layout, 0.01);
        m.stale = !faults.empty();
        m.mixed = !m.stale && !groups_parted(medium, set, layout);
        const int sheets = sheet_count(copies);
        int crossing = 0;
        double used_of_all = 0, area_of_all = 0;
        for (int b = 0; b < sheets; ++b) {
            Sheet s;
            s.medium = medium.id;
            s.number = b;
            s.stock = stock_of(layout.stock, b);
            const Bed bed = bed_of(medium, s.stock);
            s.width = bed.medium.width.mm();
            double used = 0;
            for (const PlacedCopy& c : copies) {
                if (c.sheet != b) continue;
                const Transfer& t = *index.at(c.transfer);
                s.length = std::max(s.length, bounds(mapped(laid_outline(medium, t).outer, copy_map(c))).x1 + medium.margin.mm());
                s.cut_length += perimeter({t.contour});
                used += area(t.contour);
                s.copies.push_back(c);
            }
            const bool roll = bed.medium.shape == MediumShape::roll;
            if (!roll) s.length = bed.medium.length.mm();
            if (s.copies.empty() && roll) continue;
            if (medium.laying.cutting == Cutting::trimmer) s.cut_length = length_of_cuts(medium, set, s);
            if (medium.laying.cutting == Cutting::on_sheet) s.cut_length = 0;
            crossing += crossing_seam(medium, set, s.copies);
            const double all = bed.shape.outer.empty() ? s.length * s.width : area(bed.shape);
            s.density = all > 0 ? used / all : 0;
            // a run that is not the last takes the roll's whole length from those after it
            area_of_all += roll && b + 1 < sheets && bed.medium.length.mm() > 0 ? bed.medium.length.mm() * s.width : all;
            used_of_all += used;
            if (roll) m.length += s.length;
            m.cost += price_of(bed, s.length);
            m.sheets.push_back(std::move(s));
        }
        m.density = area_of_all > 0 ? used_of_all / area_of_all : 0;
        say_too_large(medium, set, problem.pieces, about, plan.findings);
        if (m.placed == 0 && m.printed > 0)
            plan.findings.push_back(finding("sheet-again", about, {{"medium", medium.name}, {"n", m.asked}}));
        else if (m.placed == 0)
            plan.findings.push_back(finding("sheet-empty", about, {{"medium", medium.name}}));
        else if (m.stale)
            plan.findings.push_back(finding("sheet-stale", about,
                                            {{"medium", medium.name},
                                             {"fault", Phrases{{m.placed < m.asked ? Words{"stale-missing", {{"n", m.asked - m.placed}}}
                                                                                   : Words{"stale-clash", {}}}}}}));
        if (!m.stale && jobs_apart(medium, CopyJobs(set, layout), m.sheets))
            plan.findings.push_back(finding("jobs-apart", about, {{"medium", medium.name}}));
        if (m.mixed) plan.findings.push_back(finding("groups-mixed", about, {{"medium", medium.name}}));
        if (crossing > 0) plan.findings.push_back(finding("seam-crossed", about, {{"medium", medium.name}, {"n", crossing}}));
        plan.media.push_back(std::move(m));
    }
    return plan;
}

}  // namespace orthema
