#include "files/export_order.h"

#include <atomic>
#include <filesystem>
#include <functional>
#include <future>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <set>
#include <thread>
#include <utility>

#include "core/guides/guides.h"
#include "core/guides/aids.h"
#include "core/papers/joining.h"
#include "core/papers/snip_pages.h"
#include "core/guides/making_sheet.h"
#include "core/guides/run_guides.h"
#include "core/order/gang.h"
#include "core/pipeline/order_papers.h"
#include "core/sheets/sheet_drawing.h"
#include "core/sheets/trimmer_drawing.h"
#include "files/csv.h"
#include "files/drawing_svg.h"
#include "files/order_file.h"
#include "files/order_json.h"
#include "files/page_export.h"
#include "files/press_export.h"
#include "files/safe_file.h"
#include "files/written.h"
#include "files/json_in.h"

namespace orthema {

namespace {

const Error stopped_midway{"Stopped: the files that are whole stay, the rest was not written."};

/// The files of an export. What is wanted first and written fast comes first; several are written at once.
struct Steps {
    struct Step {
        std::string path;
        std::string made_of;
        std::function<Result<Done>(const Task&)> write;
        int turn = 0;  ///< lists and guides before sheets, their pictures last
        double weight = 1;
    };
    std::vector<Step> steps;

    void add(std::string path, std::string made_of, std::function<Result<Done>(const Task&)> write, int turn = 0, double weight = 1) {
        steps.push_back({std::move(path), std::move(made_of), std::move(write), turn, weight});
    }

    /// Stops at the first that fails; `report` gets those that are whole, in their order. What lies there from before and
    /// would come out the same is left as it is.
    Result<Done> run(const Task& task, Written& written, ExportReport& report) {
        std::erase_if(steps, [&](const Step& s) {
            if (!written.holds(s.path, s.made_of)) return false;
            written.now(s.path, s.made_of);
            report.unchanged.push_back(s.path);
            return true;
        });
        std::stable_sort(steps.begin(), steps.end(), [](const Step& a, const Step& b) { return a.turn < b.turn; });
        double total = 1;
        for (const Step& s : steps) total += s.weight;
        std::mutex guard;  // of all that follows
        std::size_t next = 0;
        double done_before = 0;
        std::vector<double> parts(steps.size(), 0);
        std::vector<char> whole(steps.size(), 0);
        std::optional<Error> fault;
        std::atomic<bool> stop{false};
        const auto tell = [&](const std::string& doing) {
            double share = done_before;
            for (const double p : parts) share += p;
            task.say(std::min(1.0, share / total), doing);
        };
        const auto work_on = [&] {
            for (;;) {
                Step step;
                std::size_t at = 0;
                {
                    const std::scoped_lock lock(guard);
                    if (fault || next == steps.size()) return;
                    if (task.stopped()) {
                        fault = stopped_midway;
                        stop = true;
                        return;
                    }
                    at = next++;
                    step = std::move(steps[at]);  // what it holds goes when it is written
                    steps[at].path = step.path;
                    steps[at].made_of = step.made_of;
                }
                const std::string name = std::filesystem::path(step.path).filename().string();
                const Task own{[&](double part, const std::string&) {
                                   const std::scoped_lock lock(guard);
                                   parts[at] = part * step.weight;
                                   if (task.stopped()) stop = true;
                                   tell(name);
                               },
                               &stop};
                own.say(0, name);
                auto done = step.write(own);
                const std::scoped_lock lock(guard);
                parts[at] = 0;
                done_before += step.weight;
                if (done)
                    whole[at] = 1;
                else if (!fault) {
                    fault = task.stopped() ? stopped_midway : done.error();
                    stop = true;
                }
            }
        };
        std::vector<std::future<void>> others;
        for (unsigned k = 1; k < std::clamp(std::thread::hardware_concurrency(), 1U, 4U); ++k)
            others.push_back(std::async(std::launch::async, work_on));
        work_on();
        for (auto& o : others) o.get();
        for (std::size_t i = 0; i < steps.size(); ++i)
            if (whole[i] != 0) {
                report.files.push_back(steps[i].path);
                written.now(steps[i].path, steps[i].made_of);
            }
        if (fault) return *fault;
        return Done{};
    }
};

/// Whether anything on the sheet is printed, so that words can be.
bool prints(const Sheet& sheet, const TransferSet& set) {
    return std::any_of(sheet.copies.begin(), sheet.copies.end(), [&](const PlacedCopy& c) {
        const Transfer* t = find_transfer(set, c.transfer);
        return t != nullptr && t->printed;
    });
}

Finding unlabelled(const Order& order, const Sheet& sheet, int count) {
    Subject about;
    about.medium = sheet.medium;
    return finding("label-room", about, {{"medium", find_medium(order, sheet.medium)->name}, {"sheet", sheet.number + 1}, {"n", count}});
}

/// Cards by garment as they were made, by print location, or as the presses come to them.
std::vector<const Guide*> in_guide_order(const Order& order, const GuideSet& set, const PressPlan& press, const std::string& by) {
    std::vector<const Guide*> out;
    for (const Guide& g : set.guides) out.push_back(&g);
    if (by == "location")
        std::stable_sort(out.begin(), out.end(), [&](const Guide* a, const Guide* b) {
            return find_decoration(order, a->decoration)->location < find_decoration(order, b->decoration)->location;
        });
    if (by == "press") {
        std::map<std::pair<std::string, std::string>, double> first;
        for (const Load& l : press.loads) {
            const double start = press.schedule.places[static_cast<std::size_t>(l.tasks.front())].start;
            const auto [it, fresh] = first.try_emplace({l.decoration, l.size}, start);
            if (!fresh) it->second = std::min(it->second, start);
        }
        const auto at = [&](const Guide* g) {
            const auto it = first.find({g->decoration, g->size});
            return it == first.end() ? 1e12 : it->second;
        };
        std::stable_sort(out.begin(), out.end(), [&](const Guide* a, const Guide* b) { return at(a) < at(b); });
    }
    return out;
}

/// Of each picture what decides how it is drawn: its bytes, and what it is clipped to.
std::map<std::string, std::string> picture_words(const Order& order) {
    std::map<std::string, std::string> out;
    for (const Art& art : order.art) {
        Order alone;
        alone.art = {art};
        if (const BlankStyle* style = art.clip ? find_style(order, art.clip->style) : nullptr) alone.styles = {*style};
        out[art.id] = out[whole_id(art.id)] = json_text(to_json(alone));
    }
    return out;
}

Error folder_fault(const std::string& folder, const std::error_code& error) {
    return Error{"The folder “{folder}” cannot be made: {why}.", {{"folder", folder}, {"why", error.message()}}};
}

}  // namespace

Result<ExportReport> export_order(const std::string& folder, const Order& order, const Shop& shop, const LoadedArtById& art,
                                  const ExportChoice& choice, const Task& task, const Work* before) {
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error) return folder_fault(folder, error);
    const ArtFactsById facts = facts_of(art);
    const auto pictures = std::make_shared<const KnownArt>(
        KnownArt{facts, before != nullptr && before->fit.in.art ? before->fit.in.art->faults : Findings{}});
    const Work made = work(order, shop, Shared<KnownArt>(pictures), before);
    const FitPlan& plan = made.plan();
    const TransferSet& set = made.transfer_set();
    const SheetPlan& sheets = made.sheet_plan();
    const PressPlan& press = made.press_plan();
    const GuideSet guide_set = choice.guides ? guides(order, plan, facts) : GuideSet{};
    const std::string stem = folder + "/" + file_stem(order.name);

    ExportReport report;
    report.findings = made.findings;
    Written written(stem + "_export.json");
    Steps steps;
    const auto pictures_by = picture_words(order);
    // the cairo that draws is part of what a page is made of
    const auto made_of = [&](const std::string& kind, const std::vector<const Drawing*>& pages, const std::string& title) {
        MadeOf all(kind);
        all.add(ORTHEMA_VERSION).add(cairo_version_string()).add(title).add(pages.size());
        for (const Drawing* page : pages) all.add(*page, pictures_by);
        return all.word();
    };
    const auto pdf = [&](const std::string& path, std::vector<const Drawing*> pages, const std::string& title) {
        auto word = made_of("pdf", pages, title);
        steps.add(path, std::move(word),
                  [&art, path, pages = std::move(pages), title](const Task& t) { return write_pdf(path, pages, art, title, t); });
    };
    const auto text_file = [&](const std::string& path, std::string text) {
        auto word = MadeOf("text").add(text).word();
        steps.add(path, std::move(word), [path, text = std::move(text)](const Task&) { return write_file(path, text); });
    };
    // A sheet's page is shared by the steps that write it, and gone with the last of them.
    const auto page_files = [&](const std::string& name, const Drawing& drawn, const std::string& title) {
        const auto page = std::make_shared<const Drawing>(drawn);
        const std::string drawn_as = made_of("sheet", {page.get()}, title);
        const double picture_weight = 2 + drawn.width * drawn.height / 1e5;
        if (choice.sheets_pdf)
            steps.add(
                name + ".pdf", MadeOf("pdf").add(drawn_as).word(),
                [&art, page, name, title](const Task& t) { return write_pdf(name + ".pdf", {page.get()}, art, title, t); }, 1, 2);
        if (choice.sheets_png)
            steps.add(
                name + ".png", MadeOf("png").add(drawn_as).add(choice.dpi).word(),
                [&art, page, name, dpi = choice.dpi](const Task& t) { return write_png(name + ".png", *page, art, dpi, t); }, 2,
                picture_weight);
        if (choice.sheets_tiff)
            steps.add(
                name + ".tif", MadeOf("tiff").add(drawn_as).add(choice.dpi).word(),
                [&art, page, name, dpi = choice.dpi](const Task& t) { return write_tiff(name + ".tif", *page, art, dpi, t); }, 2,
                picture_weight);
    };
    // names that differ only in what a file's name cannot have get a number
    std::set<std::string> names;
    const auto unlike = [&](const std::string& name) {
        std::string out = name;
        for (int k = 2; !names.insert(out).second; ++k) out = name + "-" + std::to_string(k);
        return out;
    };
    for (const MediumPlan& m : sheets.media) {
        const Medium& medium = *find_medium(order, m.medium);
        const std::string on_it = unlike(file_stem(medium.name));  // counted where it is stale too: the others keep theirs
        const bool asked = choice.media.empty() || std::find(choice.media.begin(), choice.media.end(), m.medium) != choice.media.end();
        if (m.stale || !asked) continue;
        for (const Sheet& s : m.sheets) {
            const std::string name = stem + "_" + on_it + "_sheet-" + std::to_string(s.number + 1);
            const std::string title = sheet_title(order, s);
            const SheetLabels labels = choice.labels && prints(s, set) ? sheet_labels(order, s, set) : SheetLabels{};
            if (labels.without > 0) report.findings.push_back(unlabelled(order, s, labels.without));
            const Drawing page = sheet_page(order, s, set, labels);
            page_files(name, page, title);
            if (const auto white = white_page(s, set)) page_files(name + "_white", *white, title + ", white");
            if (!choice.cut_lines || medium.laying.cutting == Cutting::on_sheet) continue;
            if (medium.laying.cutting == Cutting::trimmer) {
                if (const auto cuts = sheet_cuts(medium, set, s)) {
                    const auto list = std::make_shared<const std::vector<Drawing>>(trimmer_pages(order, s, set, *cuts));
                    std::vector<const Drawing*> pages;
                    for (const Drawing& d : *list) pages.push_back(&d);
                    auto word = made_of("pdf", pages, title + ", cut list");
                    steps.add(name + "_cuts.pdf", std::move(word), [&art, list, pages = std::move(pages), name, title](const Task& t) {
                        return write_pdf(name + "_cuts.pdf", pages, art, title + ", cut list", t);
                    });
                    text_file(name + "_cuts.csv", cuts_csv(set, s, *cuts));
                }
                continue;
            }
            const auto cuts = std::make_shared<const std::vector<CutStep>>(sheet_cuts(s, set));
            const std::vector<Point> registers = page_registers(medium, s);
            MadeOf line("cut line");
            line.add(title).add(page.width).add(page.height).add(registers.size()).add(cuts->size());
            for (const Point& p : registers) line.add(p);
            for (const CutStep& c : *cuts) line.add(double(c.inside)).add(double(c.open)).add(std::vector<Ring>{c.ring});
            const std::string word = line.word();
            steps.add(name + "_cut.svg", word, [cuts, registers, name, title, w = page.width, h = page.height](const Task&) {
                return write_cut_svg(name + "_cut.svg", *cuts, w, h, title, registers);
            });
            steps.add(name + "_cut.dxf", word, [cuts, registers, name, h = page.height](const Task&) {
                return write_cut_dxf(name + "_cut.dxf", *cuts, h, registers);
            });
            steps.add(name + "_cut.plt", word,
                      [cuts, name, h = page.height](const Task&) { return write_cut_plt(name + "_cut.plt", *cuts, h); });
        }
    }
    const auto pages_file = [&](const std::string& path, std::vector<GuidePage> drawn, const std::string& title) {
        if (drawn.empty()) return;
        const auto kept = std::make_shared<const std::vector<GuidePage>>(std::move(drawn));
        std::vector<const Drawing*> pages;
        for (const GuidePage& p : *kept) pages.push_back(&p.drawing);
        auto word = made_of("pdf", pages, title);
        steps.add(path, std::move(word), [&art, kept, path, title](const Task& t) { return write_pages(path, *kept, art, title, t); });
    };
    const auto append = [](std::vector<GuidePage>& to, std::vector<GuidePage> more) {
        for (GuidePage& p : more) to.push_back(std::move(p));
    };
    const std::vector<Aid> aids = choice.guides ? aids_of(order, plan) : std::vector<Aid>{};
    if (!guide_set.guides.empty()) {
        std::vector<GuidePage> maps, masters, charts;
        std::set<std::pair<std::string, std::string>> served;  // by a master
        for (const DecorationFit& f : plan.decorations) {
            const Decoration* dec = find_decoration(order, f.decoration);
            const auto known = dec == nullptr ? facts.end() : facts.find(dec->art);
            if (known == facts.end()) continue;
            append(maps, platen_map_pages(order, plan, *dec));
            for (MasterTemplate& m : masters_that_serve(master_templates(order, plan, *dec, known->second.outline), guide_set, dec->id)) {
                for (const std::string& size : m.sizes) served.emplace(dec->id, size);
                append(masters, std::move(m.tiles));
            }
        }
        std::vector<const Drawing*> cards, tiles;
        for (const Guide* g : in_guide_order(order, guide_set, press, choice.guide_order)) {
            cards.push_back(&g->card.drawing);
            if (served.contains({g->decoration, g->size})) continue;
            for (const GuidePage& p : g->tiles) tiles.push_back(&p.drawing);
        }
        pdf(stem + "_guide-cards.pdf", std::move(cards), order.name + ", placement guides");
        if (!tiles.empty()) pdf(stem + "_templates.pdf", std::move(tiles), order.name + ", templates at 1:1");
        for (const RunKey& run : runs_of(order))
            if (std::any_of(order.decorations.begin(), order.decorations.end(),
                            [&](const Decoration& d) { return d.run == run && find_fit(plan, d.id) != nullptr; }))
                charts.push_back(wall_chart(order, plan, run));
        pages_file(stem + "_platen-maps.pdf", std::move(maps), order.name + ", platen maps");
        pages_file(stem + "_master-templates.pdf", std::move(masters), order.name + ", master templates at 1:1");
        std::map<AidKind, std::vector<GuidePage>> aid_pages;
        for (const Aid& aid : aids) append(aid_pages[aid.kind], aid.tiles);
        for (auto& [kind, pages] : aid_pages) {
            const std::string name = std::string(aid_name(kind)) + (kind == AidKind::fold_and_border ? "" : "s");
            pages_file(stem + "_" + file_stem(name) + ".pdf", std::move(pages), order.name + ", " + name + " at 1:1");
        }
        pages_file(stem + "_wall-charts.pdf", std::move(charts), order.name + ", wall charts");
    }
    if (choice.templates_svg && !guide_set.guides.empty()) {
        const std::string into = folder + "/templates";
        std::filesystem::create_directories(into, error);
        if (error) return folder_fault(into, error);
        for (const Guide& g : guide_set.guides) {
            const std::string path = into + "/" + unlike(file_stem(g.decoration + " " + g.size)) + ".svg";
            text_file(path, drawing_svg(g.whole, g.layout.area, g.card.title));
        }
        for (const Aid& aid : aids) {
            const std::string path = into + "/" + unlike(file_stem(aid.id)) + ".svg";
            text_file(path, drawing_svg(aid.whole, aid.area, aid.title));
        }
    }
    if (choice.guides) pages_file(stem + "_joining-numbers.pdf", joining_pages(order, plan), order.name + ", joining numbers");
    if (choice.guides) pages_file(stem + "_snips.pdf", snip_pages(order, set), order.name + ", snips at 1:1");
    if (choice.press) pages_file(stem + "_making-transfers.pdf", making_sheet(order), order.name + ", making the transfers");
    if (choice.press && !press.shop.tasks.empty()) {
        pages_file(stem + "_run-sheet.pdf", run_sheet(order, plan, press), order.name + ", run sheet");
        text_file(stem + "_press-plan.csv", press_plan_csv(order, press));
        text_file(stem + "_pick-list.csv", pick_csv(order, plan, press));
        if (auto calendar = press_ics(order, plan, press)) text_file(stem + "_press-plan.ics", std::move(*calendar));
    }
    if (choice.papers && !order.lines.empty()) {
        for (const std::string& job : jobs_apart(order)) {
            const PaperOf of = paper_of(order, made, job);
            const Job* whose = find_job(order, job);
            const std::string name = whose == nullptr ? stem : stem + "_" + unlike(file_stem(whose->name));
            pages_file(name + "_quote.pdf", quote_pages(of, quote_of(order, made, job)), order.name + ", quote");
            pages_file(name + "_job-ticket.pdf", ticket_pages(of), order.name + ", job ticket");
            pages_file(name + "_approval.pdf", approval_pages(of), order.name + ", for approval");
        }
    }
    if (choice.tables) {
        text_file(stem + "_fit.csv", fit_csv(order, plan));
        text_file(stem + "_pieces.csv", pieces_csv(order, set, sheets));
        text_file(stem + "_lines.csv", lines_csv(order));
    }
    const auto done = steps.run(task, written, report);
    report.from_before = written.left_from_before();
    const auto noted = written.save();
    if (!done) return done.error();
    if (!noted) return noted.error();
    task.say(1, "done");
    return report;
}

}  // namespace orthema
