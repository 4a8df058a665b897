#include "devices/printer.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/units.h"

namespace orthema {

PrintJob print_job(const Order& order, const TransferSet& set, const Sheet& sheet, double dpi) {
    PrintJob job;
    const Medium* medium = find_medium(order, sheet.medium);
    job.title = (medium != nullptr ? medium->name : sheet.medium) + ", sheet " + std::to_string(sheet.number + 1);
    job.width = sheet.width;
    job.length = sheet.length;
    job.dpi = dpi;
    if (medium != nullptr) {
        job.margin = medium->margin.mm();
        job.mirror = medium->mirror;
    }
    for (const PlacedCopy& c : sheet.copies) {
        const Transfer* t = find_transfer(set, c.transfer);
        job.pieces.push_back(t == nullptr ? Rect{} : bounds(mapped(t->contour.outer, page_map(sheet).after(copy_map(c)))));
        job.mirrored = job.mirrored || (t != nullptr && t->mirrored);
    }
    return job;
}

std::optional<std::string> SimulatedPrinter::begin(const PrintJob& job) {
    job_ = job;
    ink_pixels_ = outside_pixels_ = 0;
    done_ = 0;
    failed_ = false;
    if (job.width > setup_.widest.mm() + 1e-6)
        return setup_.name + " takes media up to " + mm_text(setup_.widest.mm(), 0) + " mm wide; “" + job.title + "” is " +
               mm_text(job.width, 0) + " mm. Lay it out on a narrower one.";
    if (job.margin < setup_.edge.mm() - 1e-6)
        return setup_.name + " cannot print the outer " + mm_text(setup_.edge.mm(), 1) + " mm; the margin of “" + job.title + "” is " +
               mm_text(job.margin, 1) + " mm. Give it at least as much.";
    if (setup_.mirrors && job.mirrored)
        return "“" + job.title + "” is mirrored already and " + setup_.name +
               " mirrors too: it would come out reading the wrong way. Let one do it.";
    if (!setup_.mirrors && job.mirror == MirrorBy::printer_software)
        return "“" + job.title + "” expects the printer's software to mirror, and " + setup_.name + " does not. Let the program mirror.";
    if (setup_.mirrors && job.mirror == MirrorBy::nobody)
        return "“" + job.title + "” is printed as it reads, and " + setup_.name + " mirrors. Switch that off.";
    return std::nullopt;
}

bool SimulatedPrinter::rows(const std::uint32_t* pixels, int width, int first, int count) {
    const double mm = 25.4 / job_.dpi;
    const auto edge = static_cast<int>(std::floor(setup_.edge.mm() / mm));
    const auto height = static_cast<int>(std::lround(job_.length / mm));
    for (int y = 0; y < count; ++y) {
        if (setup_.fails_after && (first + y + 1) * mm > setup_.fails_after->mm()) {
            failed_ = true;
            return false;
        }
        const std::uint32_t* row = pixels + static_cast<std::size_t>(y) * static_cast<std::size_t>(width);
        const bool at_end = first + y < edge || first + y >= height - edge;
        std::uint64_t all = 0, lost = 0;
        for (int x = 0; x < width; ++x) {
            const std::uint32_t cover = row[x] >> 24;
            all += cover;
            if (at_end || x < edge || x >= width - edge) lost += cover;
        }
        ink_pixels_ += static_cast<double>(all) / 255;
        outside_pixels_ += static_cast<double>(lost) / 255;
        done_ = first + y + 1;
    }
    return true;
}

PrintReport SimulatedPrinter::end() {
    PrintReport r;
    const double mm = 25.4 / job_.dpi;
    r.printed_length = done_ * mm;
    r.finished = !failed_ && r.printed_length > job_.length - mm;
    r.seconds = r.printed_length / (setup_.mm_a_second * 300 / job_.dpi);
    r.ink_ml = ink_pixels_ * mm * mm / 1e4 * setup_.ink_ml_a_dm2;
    r.outside_mm2 = outside_pixels_ * mm * mm;
    int whole = 0;
    for (const Rect& p : job_.pieces) {
        r.survives.push_back(r.finished || p.y1 <= r.printed_length ? 1 : 0);
        whole += r.survives.back();
    }
    const Phrases lost = part_if(r.outside_mm2 > 1, " Ink on the unprintable edge is lost: {mm2} mm².", {{"mm2", Number{r.outside_mm2}}});
    if (r.finished)
        r.says = {"{sheet}: printed in {minutes} min with {ml} ml of ink.{lost}",
                  {{"sheet", job_.title}, {"minutes", Number{r.seconds / 60, 1}}, {"ml", Number{r.ink_ml, 1}}, {"lost", lost}}};
    else
        r.says = {
            "{sheet}: stopped after {length}; {whole} of {all} pieces are whole. Settle the rest again; these are counted as "
            "printed.{lost}",
            {{"sheet", job_.title},
             {"length", Length::from_mm(r.printed_length)},
             {"whole", whole},
             {"all", static_cast<int>(job_.pieces.size())},
             {"lost", lost}}};
    return r;
}

MediumLayout after_print(const MediumLayout& layout, const TransferSet& set, const Sheet& sheet, const std::vector<char>& survives) {
    MediumLayout out = layout;
    out.kept.reset();
    // Copies are alike: those that are whole take the last numbers, and what stays is numbered from 0 again.
    const CopyJobs jobs(set, layout);
    std::map<std::pair<std::string, std::string>, int> whole;  // of a transfer, for a job
    std::set<std::pair<std::string, int>> gone;
    for (std::size_t i = 0; i < sheet.copies.size(); ++i) {
        const PlacedCopy& c = sheet.copies[i];
        gone.insert({c.transfer, c.copy});
        if (i >= survives.size() || survives[i] == 0) continue;
        ++whole[{c.transfer, jobs.of(c.transfer, c.copy)}];
    }
    std::erase_if(out.copies, [&](const PlacedCopy& c) { return c.sheet == sheet.number; });
    // in the order of their numbers before, so that each stays whose it was
    std::map<std::string, std::set<int>> left;
    for (const PlacedCopy& c : out.copies) left[c.transfer].insert(c.copy);
    for (PlacedCopy& c : out.copies) {
        if (c.sheet > sheet.number) --c.sheet;
        const std::set<int>& numbers = left[c.transfer];
        c.copy = static_cast<int>(std::distance(numbers.begin(), numbers.find(c.copy)));
    }
    if (static_cast<std::size_t>(sheet.number) < out.stock.size()) out.stock.erase(out.stock.begin() + sheet.number);
    for (const auto& [of, n] : whole) {
        const auto at = std::find_if(out.printed.begin(), out.printed.end(), [&, key = of](const PrintedCopies& p) {
            return p.transfer == key.first && p.job == key.second && p.bag.empty();
        });
        if (at == out.printed.end())
            out.printed.push_back({of.first, n, of.second});
        else
            at->copies += n;
    }
    return out;
}

Order all_printed(const Order& order, const TransferSet& set, const SheetPlan& plan) {
    Order out = order;
    for (const MediumPlan& m : plan.media) {
        MediumLayout layout = layout_of(order, m.medium);
        if (m.stale || m.placed < m.asked) continue;
        if (std::any_of(layout.printed.begin(), layout.printed.end(), [](const PrintedCopies& p) { return p.bag.empty(); })) continue;
        for (std::size_t k = m.sheets.size(); k-- > 0;)  // from the last: those before it keep their numbers
            layout = after_print(layout, set, m.sheets[k], std::vector<char>(m.sheets[k].copies.size(), 1));
        out = with_layout(out, layout);
    }
    return out;
}

}  // namespace orthema
