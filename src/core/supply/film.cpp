#include "core/supply/film.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace orthema {

namespace {

constexpr double enough = 0.05;       ///< mm; lengths are sums
constexpr double shortest_run = 100;  ///< mm that a roll must still have to be laid on

StockCounts counted_sheets(const Stock& stock, const std::string& medium) {
    StockCounts out;
    for (const StockEntry& e : stock.entries)
        if (e.kind == StockKind::sheets && e.medium == medium) out[e.stock] = static_cast<int>(e.on_hand);
    return out;
}

/// Lengths of the runs of a layout by sheet number, with what the clamp wastes; 0 where no run is.
std::vector<double> run_lengths(const Medium& medium, const TransferSet& set, const LaidSheets& sheets) {
    std::vector<double> out(static_cast<std::size_t>(sheet_count(sheets.copies)), 0);
    const std::vector<Rect> boxes = laid_boxes(medium, set, sheets.copies);
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        double& length = out[static_cast<std::size_t>(sheets.copies[i].sheet)];
        length = std::max(length, boxes[i].x1 + medium.margin.mm());
    }
    for (double& l : out)
        if (l > 0) l += medium.laying.waste.mm();
    return out;
}

/// The layout with a roll for each of its runs; nothing where they do not fit.
std::optional<LaidSheets> on_rolls(const Medium& medium, const TransferSet& set, LaidSheets sheets, const std::vector<RollLeft>& rolls) {
    const std::vector<double> lengths = run_lengths(medium, set, sheets);
    std::set<std::string> own;  // other sizes and offcuts of the medium are not on these rolls
    for (const StockItem& s : medium.laying.stock) own.insert(s.id);
    std::vector<double> on_them;
    std::vector<std::size_t> which;
    for (std::size_t i = 0; i < lengths.size(); ++i)
        if (lengths[i] > 0 && !own.contains(stock_of(sheets.stock, static_cast<int>(i)))) {
            on_them.push_back(lengths[i]);
            which.push_back(i);
        }
    const auto fits = runs_on_rolls(on_them, rolls);
    if (!fits) return std::nullopt;
    sheets.stock.resize(lengths.size());
    for (std::size_t k = 0; k < which.size(); ++k) sheets.stock[which[k]] = (*fits)[k];
    return sheets;
}

}  // namespace

std::vector<RollLeft> rolls_of(const Stock& stock, const std::string& medium) {
    std::vector<RollLeft> out;
    for (const StockEntry& e : stock.entries)
        if (e.kind == StockKind::roll && e.medium == medium && e.on_hand > enough) out.push_back({e.id, e.on_hand});
    std::stable_sort(out.begin(), out.end(), [](const RollLeft& a, const RollLeft& b) { return a.left < b.left; });
    return out;
}

bool counts_rolls(const Stock& stock, const std::string& medium) {
    return std::any_of(stock.entries.begin(), stock.entries.end(),
                       [&](const StockEntry& e) { return e.kind == StockKind::roll && e.medium == medium; });
}

std::optional<std::vector<std::string>> runs_on_rolls(const std::vector<double>& lengths, const std::vector<RollLeft>& rolls) {
    std::vector<std::size_t> order(lengths.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return lengths[a] > lengths[b]; });
    std::vector<double> left;
    left.reserve(rolls.size());
    for (const RollLeft& r : rolls) left.push_back(r.left);
    std::vector<std::size_t> on(lengths.size(), 0);
    int steps = 200000;
    const std::function<bool(std::size_t)> place = [&](std::size_t k) {
        if (k == order.size()) return true;
        const double length = lengths[order[k]];
        std::vector<std::size_t> takes;
        for (std::size_t r = 0; r < left.size(); ++r)
            if (left[r] + enough >= length) takes.push_back(r);
        std::stable_sort(takes.begin(), takes.end(), [&](std::size_t a, std::size_t b) { return left[a] < left[b]; });
        double tried = -1;
        for (const std::size_t r : takes) {
            if (std::abs(left[r] - tried) < 1e-9 || --steps < 0) continue;  // one that has as much left would do no better
            tried = left[r];
            left[r] -= length;
            on[order[k]] = r;
            if (place(k + 1)) return true;
            left[r] += length;
        }
        return false;
    };
    if (!place(0)) return std::nullopt;
    std::vector<std::string> out;
    out.reserve(on.size());
    for (const std::size_t r : on) out.push_back(rolls.empty() ? "" : rolls[r].id);
    return out;
}

std::optional<LaidSheets> with_rolls(const Medium& medium, const TransferSet& set, LaidSheets sheets, const Stock& stock) {
    if (medium.shape != MediumShape::roll) return std::nullopt;
    const std::vector<RollLeft> rolls = rolls_of(stock, medium.id);
    return rolls.empty() ? std::nullopt : on_rolls(medium, set, std::move(sheets), rolls);
}

Result<LaidOut> lay_out_on_stock(const Medium& medium, const TransferSet& set, const MediumLayout& now, const NestOptions& options,
                                 const Stock& stock, const Task& task, const std::function<void(const LaidOut&)>& better) {
    const StockCounts counts = counted_sheets(stock, medium.id);
    const std::vector<RollLeft> rolls = rolls_of(stock, medium.id);
    if (medium.shape != MediumShape::roll || rolls.empty()) return lay_out(medium, set, now, options, task, better, counts);
    double most = 0;
    for (const RollLeft& r : rolls) most = std::max(most, r.left);
    const double all_left = std::accumulate(rolls.begin(), rolls.end(), 0.0, [](double sum, const RollLeft& r) { return sum + r.left; });
    MediumLayout lying = now;  // which roll it lay on says nothing of its size
    for (std::string& s : lying.stock)
        if (const StockEntry* e = find_entry(stock, s); e != nullptr && e->kind == StockKind::roll) s.clear();
    if (std::all_of(lying.stock.begin(), lying.stock.end(), [](const std::string& s) { return s.empty(); })) lying.stock.clear();
    auto laid = lay_out(medium, set, lying, options, task, better, counts);
    if (!laid) return laid;
    if (auto rolled = on_rolls(medium, set, laid->sheets, rolls)) {
        laid->sheets = std::move(*rolled);
        return laid;
    }
    const std::vector<double> lengths = run_lengths(medium, set, laid->sheets);
    if (std::accumulate(lengths.begin(), lengths.end(), 0.0) > all_left + 1) return laid;
    // enough in all, in other lengths: each roll as so many beds of the longest run, and its rest as one more
    Medium parted = medium;
    StockCounts beds = counts;
    beds[""] = 0;
    const double waste = medium.laying.waste.mm(), longest = medium.length.mm() > 0 ? medium.length.mm() : most;
    const std::string rest = "\n";  // no id has it
    for (const RollLeft& r : rolls) {
        StockItem bed;
        bed.width = medium.width;
        bed.price = medium.price;
        const int whole = static_cast<int>((r.left + enough) / (longest + waste));
        const double end = r.left - whole * (longest + waste) - waste;
        if (whole > 0) {
            bed.id = bed.name = r.id;
            bed.length = Length::from_mm(longest);
            parted.laying.stock.push_back(bed);
            beds[bed.id] = whole;
        }
        if (end > shortest_run) {
            bed.id = bed.name = r.id + rest;
            bed.length = Length::from_mm(end);
            parted.laying.stock.push_back(bed);
            beds[bed.id] = 1;
        }
    }
    auto other = lay_out(parted, set, {medium.id, {}, {}, now.fill, now.printed, {}}, options, task, {}, beds);
    if (!other) return laid;
    for (std::string& s : other->sheets.stock)
        if (!s.empty() && s.back() == '\n') s.pop_back();
    // shorter runs may be parted otherwise than they were laid
    if (auto rolled = on_rolls(medium, set, other->sheets, rolls)) other->sheets = std::move(*rolled);
    return other;
}

}  // namespace orthema
