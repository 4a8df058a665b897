#include "files/export_order.h"

#include <filesystem>

#include "core/guides/guides.h"
#include "core/guides/handle_template.h"
#include "core/nesting/sheet_drawing.h"
#include "files/csv.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "files/safe_file.h"

namespace orthema {

namespace {

/// Runs the steps of an export one after the other, each with its share of the progress.
struct Steps {
    const Task& task;
    ExportReport report;
    std::size_t total = 1, done = 0;

    template <class F>
    Result<Done> file(const std::string& path, F write) {
        if (task.stopped()) return Error{"Stopped: the files that are whole stay, the rest was not written."};
        const std::string name = std::filesystem::path(path).filename().string();
        const auto share = [this](double part) { return (static_cast<double>(done) + part) / static_cast<double>(total); };
        const Task own{[&](double part, const std::string&) { task.say(share(part), name); }, task.cancelled};
        task.say(share(0), name);
        Result<Done> result = write(own);
        ++done;
        if (result) report.files.push_back(path);
        return result;
    }
};

/// One for each ordered size of a blank with a handle that carries a wrap.
std::vector<Drawing> handle_templates(const Order& order) {
    std::vector<Drawing> out;
    for (const RunKey& run : runs_of(order)) {
        const BlankStyle* style = find_style(order, run.style);
        const bool wrapped = std::any_of(order.decorations.begin(), order.decorations.end(),
                                         [&](const Decoration& d) { return d.run == run && location_face(d.location) == Face::wrap; });
        if (style == nullptr || !wrapped || style_fault(*style)) continue;
        for (const SizeCount& c : counts_of(order, run))
            if (auto page = handle_template(*style, c.size, order.name + "   " + run_name(order, run) + " " + c.size))
                out.push_back(std::move(*page));
    }
    return out;
}

}  // namespace

Result<ExportReport> export_order(const std::string& folder, const Order& order, const LoadedArtById& art, const ExportChoice& choice,
                                  const Task& task) {
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error) return Error{"The folder “" + folder + "” cannot be made: " + error.message() + "."};
    const ArtFactsById facts = facts_of(art);
    const FitPlan plan = fit(order, facts);
    const TransferSet set = transfers(order, plan, facts);
    const SheetPlan sheets = sheet_plan(order, set);
    const GuideSet guide_set = choice.guides ? guides(order, plan, facts) : GuideSet{};
    const std::string stem = folder + "/" + file_stem(order.name);

    Steps steps{task, {}, 1, 0};
    steps.report.findings = sheets.findings;
    std::vector<const Sheet*> ready;
    for (const MediumPlan& m : sheets.media)
        if (!m.stale)
            for (const Sheet& s : m.sheets) ready.push_back(&s);
    const std::vector<Drawing> handles = choice.guides ? handle_templates(order) : std::vector<Drawing>{};
    steps.total = ready.size() * ((choice.sheets_pdf ? 1u : 0u) + (choice.sheets_png ? 1u : 0u) + (choice.cut_lines ? 2u : 0u)) +
                  (choice.guides && !guide_set.guides.empty() ? 2u : 0u) + (handles.empty() ? 0u : 1u) + (choice.tables ? 3u : 0u) + 1;

    for (const Sheet* s : ready) {
        const Medium* medium = find_medium(order, s->medium);
        const std::string name = stem + "_" + file_stem(medium->name) + "_sheet-" + std::to_string(s->number + 1);
        const Drawing page = sheet_page(order, *s, set);
        const auto cuts = cut_contours(*s, set);
        if (choice.sheets_pdf)
            if (auto r = steps.file(name + ".pdf",
                                    [&](const Task& t) { return write_pdf(name + ".pdf", {&page}, art, sheet_title(order, *s), t); });
                !r)
                return r.error();
        if (choice.sheets_png)
            if (auto r = steps.file(name + ".png", [&](const Task& t) { return write_png(name + ".png", page, art, choice.dpi, t); }); !r)
                return r.error();
        if (const auto white = white_page(*s, set)) {
            if (choice.sheets_pdf)
                if (auto r = steps.file(name + "_white.pdf",
                                        [&](const Task& t) {
                                            return write_pdf(name + "_white.pdf", {&*white}, art, sheet_title(order, *s) + ", white", t);
                                        });
                    !r)
                    return r.error();
            if (choice.sheets_png)
                if (auto r = steps.file(name + "_white.png",
                                        [&](const Task& t) { return write_png(name + "_white.png", *white, art, choice.dpi, t); });
                    !r)
                    return r.error();
        }
        if (choice.cut_lines) {
            if (auto r = steps.file(
                    name + "_cut.svg",
                    [&](const Task&) { return write_cut_svg(name + "_cut.svg", cuts, page.width, page.height, sheet_title(order, *s)); });
                !r)
                return r.error();
            if (auto r = steps.file(name + "_cut.dxf", [&](const Task&) { return write_cut_dxf(name + "_cut.dxf", cuts, page.height); });
                !r)
                return r.error();
        }
    }
    if (choice.guides && !guide_set.guides.empty()) {
        std::vector<const Drawing*> cards, tiles;
        for (const Guide& g : guide_set.guides) {
            cards.push_back(&g.card.drawing);
            for (const GuidePage& p : g.tiles) tiles.push_back(&p.drawing);
        }
        if (auto r = steps.file(
                stem + "_guide-cards.pdf",
                [&](const Task& t) { return write_pdf(stem + "_guide-cards.pdf", cards, art, order.name + ", placement guides", t); });
            !r)
            return r.error();
        if (auto r = steps.file(
                stem + "_templates.pdf",
                [&](const Task& t) { return write_pdf(stem + "_templates.pdf", tiles, art, order.name + ", templates at 1:1", t); });
            !r)
            return r.error();
    }
    if (!handles.empty()) {
        std::vector<const Drawing*> pages;
        pages.reserve(handles.size());
        for (const Drawing& d : handles) pages.push_back(&d);
        const std::string path = stem + "_handle-templates.pdf";
        if (auto r =
                steps.file(path, [&](const Task& t) { return write_pdf(path, pages, art, order.name + ", handle templates at 1:1", t); });
            !r)
            return r.error();
    }
    if (choice.tables) {
        const std::pair<const char*, std::string> tables[] = {
            {"_fit.csv", fit_csv(order, plan)}, {"_pieces.csv", pieces_csv(order, set, sheets)}, {"_lines.csv", lines_csv(order)}};
        for (const auto& [ending, content] : tables)
            if (auto r = steps.file(stem + ending,
                                    [&, text = content, end = std::string(ending)](const Task&) { return write_file(stem + end, text); });
                !r)
                return r.error();
    }
    task.say(1, "done");
    return steps.report;
}

}  // namespace orthema
