// orthema-cli: the same pipeline without a window. Exit 0 when all is well, 1 when a finding says stop, 2 for bad
// usage or unreadable input, 3 for what could not be written.
#include <CLI/CLI.hpp>
#include <iostream>
#include <nlohmann/json.hpp>

#include "cli/describe.h"
#include "cli/gang.h"
#include "cli/plan.h"
#include "cli/records.h"
#include "cli/shop.h"
#include "cli/run.h"
#include "core/order/edit.h"
#include "core/base/utf8.h"
#include "core/base/units.h"
#include "core/supply/film.h"
#include "files/languages.h"
#include "files/json_in.h"
#include "files/list.h"
#include "files/export_order.h"
#include "files/library.h"
#include "files/nest_json.h"
#include "files/order_file.h"
#include "files/order_json.h"
#include "files/safe_file.h"

namespace {

using namespace orthema;
using nlohmann::json;

json findings_json(const Findings& findings, const Reading& reading = {}) {
    json out = json::array();
    for (const Finding& f : findings) {
        json about = json::object();
        const std::pair<const char*, const std::string*> parts[] = {{"stage", &f.about.stage},   {"decoration", &f.about.decoration},
                                                                    {"size", &f.about.size},     {"blank", &f.about.style},
                                                                    {"colour", &f.about.colour}, {"art", &f.about.art},
                                                                    {"medium", &f.about.medium}};
        for (const auto& [key, value] : parts)
            if (!value->empty()) about[key] = *value;
        out.push_back({{"severity", severity_name(f.severity)},
                       {"code", f.code},
                       {"about", about},
                       {"numbers", figures_of(f.args)},
                       {"sentence", finding_text(f, reading)}});
    }
    return out;
}

void print_findings(const Findings& findings, const Reading& reading = {}) {
    for (const Finding& f : findings) std::cout << said(reading, severity_name(f.severity)) << ": " << finding_text(f, reading) << "\n";
    if (findings.empty()) std::cout << "nothing to mend\n";
}

double round3(double v) { return std::round(v * 1000) / 1000; }

int do_import(const std::string& csv, const std::string& out, bool as_json) {
    const auto text = read_file(csv, 64u << 20);
    if (!text) return complain(text.sentence());
    const auto tables = read_list(*text);
    if (!tables) return complain(tables.sentence());
    const Table* table = &tables->front().table;  // of a spreadsheet its first sheet
    Order order;
    order.name = whole_utf8(std::filesystem::path(csv).stem().string());
    adopt_library(order, starting_library());
    const auto columns = guess_columns(*table, order.styles);
    const LineImport lines = import_lines(*table, columns, order.styles);
    order.job = new_job_id();
    order = with_lines(order, lines.lines);
    order.kept_out = kept_out(lines);
    if (auto saved = save_order(out, order, {}); !saved) return unwritten(saved.sentence());
    if (as_json) {
        json bad = json::array();
        for (const BadRow& b : lines.bad) bad.push_back({{"row", b.row}, {"text", b.text}, {"reason", b.reason.sentence}});
        json mapped = json::object();
        for (std::size_t i = 0; i < columns.size(); ++i)
            if (columns[i] != Column::none) mapped[column_name(columns[i])] = table->header[i];
        json totals = json::array();
        for (const TotalRow& t : lines.totals) totals.push_back({{"row", t.row}, {"says", t.says}, {"sum", t.sum}});
        std::cout << json_text(json{{"lines", lines.lines.size()},
                                    {"garments", lines.garments},
                                    {"columns", mapped},
                                    {"bad_rows", bad},
                                    {"totals", totals},
                                    {"filled", lines.filled}},
                               1)
                  << "\n";
    } else {
        std::cout << lines.lines.size() << " lines, " << lines.garments << " garments\n";
        for (const TotalRow& t : lines.totals)
            if (t.says != t.sum) std::cout << "row " << t.row << " gives " << t.says << " in all, and what came in is " << t.sum << "\n";
        for (const BadRow& b : lines.bad) std::cout << "row " << b.row << " kept out: " << b.reason.sentence << " (" << b.text << ")\n";
    }
    return lines.lines.empty() ? 1 : 0;
}

int do_trace(const std::string& picture, const std::string& width_text, bool as_json) {
    const auto width = parse_length(width_text, Unit::mm);
    if (!width) return complain(width.sentence());
    if (width->mm() <= 0 || width->mm() > 20000) return complain("The width must lie between 0 and 20 m.");
    auto text = read_file(picture);
    if (!text) return complain(text.sentence());
    const std::string name = whole_utf8(std::filesystem::path(picture).filename().string());
    const auto art = load_art(std::make_shared<const std::string>(std::move(*text)), name);
    if (!art) return complain(art.sentence());
    const ArtFacts& f = (*art)->facts;
    const Findings findings = art_findings(f, name, name, *width);
    json out{{"findings", findings_json(findings)}, {"vector", f.vector}};
    if (!f.empty()) {
        // Millimetres from the ink box's top left, y down; the ink is `width` wide.
        const double mm = width->mm();
        const double px = mm / f.ink_px.width();
        out["ink_box_mm"] = {
            {"x", round3(f.ink_px.x0 * px)}, {"y", round3(f.ink_px.y0 * px)}, {"width", round3(mm)}, {"height", round3(mm * f.aspect)}};
        out["ink_box_px"] = {{"x", f.ink_px.x0}, {"y", f.ink_px.y0}, {"width", f.ink_px.width()}, {"height", f.ink_px.height()}};
        out["canvas_mm"] = {{"width", round3(f.width_px * px)}, {"height", round3(f.height_px * px)}};
        out["optical_centre_mm"] = {round3(f.optical_centre.x * mm), round3(f.optical_centre.y * mm)};
        json rings = json::array();
        const auto ring_json = [&](const Ring& ring) {
            json r = json::array();
            for (const Point& p : ring) r.push_back({round3(p.x * mm), round3(p.y * mm)});
            return r;
        };
        for (const Polygon& p : f.outline) {
            rings.push_back({{"hole", false}, {"points", ring_json(p.outer)}});
            for (const Ring& h : p.holes) rings.push_back({{"hole", true}, {"points", ring_json(h)}});
        }
        out["outline"] = rings;
        const auto dpi = resolution(f, *width);
        out["dpi"] = dpi ? json(round3(*dpi)) : json();
        out["half_transparent"] = round3(f.half_transparent);
        out["flat_background"] = f.flat_background;
    }
    if (as_json) {
        std::cout << json_text(out, 1) << "\n";
    } else {
        if (!f.empty())
            std::cout << name << ": ink " << mm_text(width->mm(), 1) << " × " << mm_text(width->mm() * f.aspect, 1) << " mm, "
                      << f.outline.size() << " pieces" << (f.vector ? ", vector" : "") << "\n";
        print_findings(findings);
    }
    return has_stop(findings) ? 1 : 0;
}

int do_fit(const std::string& path, bool as_json) {
    const auto run = run_order(path);
    if (!run) return complain(run.sentence());
    const Order& order = run->package.order;
    json list = json::array();
    for (const DecorationFit& d : run->work.plan().decorations) {
        const Decoration* dec = find_decoration(order, d.decoration);
        json sizes = json::array();
        for (const SizeFit& s : d.sizes)
            sizes.push_back({{"size", s.size},
                             {"quantity", s.quantity},
                             {"width_mm", round3(s.width)},
                             {"height_mm", round3(s.height)},
                             {"top_to_ink_mm", round3(s.top_to_ink)},
                             {"ink_to_pit_line_mm", s.ink_to_pit ? json(round3(*s.ink_to_pit)) : json()},
                             {"left_margin_mm", round3(s.left_margin)},
                             {"right_margin_mm", round3(s.right_margin)},
                             {"ink_to_bottom_mm", round3(s.ink_to_bottom)},
                             {"ideal_width_mm", round3(s.ideal)},
                             {"limit_mm", round3(s.limit)},
                             {"limited_by", binding_text(s.limited_by)},
                             {"band", s.band >= 0 ? json(s.band + 1) : json()},
                             {"pinned", s.pinned}});
        list.push_back({{"decoration", d.decoration},
                        {"name", dec->name},
                        {"blank", dec->run.style},
                        {"colour", dec->run.colour},
                        {"lot", dec->run.lot},
                        {"location", location_key(dec->location)},
                        {"sizes", sizes}});
    }
    if (as_json) {
        std::cout << json_text(json{{"decorations", list}, {"findings", findings_json(run->work.findings)}}, 1) << "\n";
    } else {
        std::cout << fit_csv(order, run->work.plan());
        print_findings(run->work.findings);
    }
    return has_stop(run->work.findings) ? 1 : 0;
}

int do_nest(const std::string& in, const std::string& out, const NestOptions& options, bool as_json) {
    const auto text = read_file(in, 64u << 20);
    if (!text) return complain(text.sentence());
    const auto problem = nest_problem_from_json(*text);
    if (!problem) return complain(problem.sentence());
    json curve = json::array();  // density over seconds
    const auto solution = nest(*problem, options, {}, [&](const NestSolution& s) { curve.push_back({round3(s.seconds), s.density}); });
    if (!solution) return complain(solution.sentence());
    if (auto done = write_file(out, nest_solution_json(*problem, *solution)); !done) return unwritten(done.sentence());
    const auto faults = nest_faults(*problem, solution->placements, 0.01);
    if (as_json)
        std::cout << json_text(json{{"length_mm", solution->length},
                                    {"density", solution->density},
                                    {"seconds", solution->seconds},
                                    {"rounds", solution->rounds},
                                    {"curve", curve},
                                    {"faults", faults}},
                               1)
                  << "\n";
    else
        std::cout << "length " << mm_text(solution->length, 2) << " mm, density " << mm_text(solution->density, 4) << ", "
                  << solution->rounds << " layouts in " << mm_text(solution->seconds, 2) << " s\n";
    return faults.empty() ? 0 : 1;
}

/// Lays out every medium that has no sound layout; what the artist laid out stays.
Result<Order> settled(const OrderRun& run, double seconds) {
    Order order = run.package.order;
    for (const MediumPlan& plan : run.work.sheet_plan().media) {
        const Medium* medium = find_medium(order, plan.medium);
        if (medium == nullptr) continue;
        if (!plan.stale && !plan.mixed && plan.placed == plan.asked) {
            const MediumLayout& there = layout_of(order, plan.medium);
            if (auto rolled = with_rolls(*medium, run.work.transfer_set(), {there.copies, there.stock}, stock_in(run.shop)))
                order = with_layout(order, plan.medium, std::move(*rolled));
            continue;
        }
        NestOptions options;
        options.seconds = seconds;
        options.threads = 2;
        MediumLayout fresh = layout_of(order, plan.medium);
        fresh.copies.clear();
        const auto laid = lay_out_on_stock(*medium, run.work.transfer_set(), fresh, options, stock_in(run.shop));
        if (!laid) return laid.error();
        order = with_layout(order, plan.medium, laid->sheets);
    }
    return order;
}

int do_settle(const std::string& path, const std::string& shop, const std::string& out, double seconds, bool as_json) {
    const auto run = run_order(path, shop);
    if (!run) return complain(run.sentence());
    const auto order = settled(*run, seconds);
    if (!order) return complain(order.sentence());
    if (auto saved = save_order(out, *order, run->package.art, run->package.records); !saved) return unwritten(saved.sentence());
    const Work laid = work(*order, run->shop, run->pictures.known, &run->work);
    if (as_json) {
        json media = json::array();
        for (const MediumPlan& m : laid.sheet_plan().media)
            media.push_back({{"medium", m.medium},
                             {"asked", m.asked},
                             {"placed", m.placed},
                             {"sheets", m.sheets.size()},
                             {"length_mm", round3(m.length)},
                             {"density", m.density}});
        std::cout << json_text(json{{"media", media}, {"findings", findings_json(laid.findings)}}, 1) << "\n";
        return 0;
    }
    for (const MediumPlan& m : laid.sheet_plan().media)
        std::cout << find_medium(*order, m.medium)->name << ": " << m.placed << " pieces on " << m.sheets.size() << " sheets, "
                  << mm_text(m.density * 100, 1) << " % used\n";
    return 0;
}

/// What `--formats` may name, and where it stands in the choice.
struct Format {
    const char* name;
    bool ExportChoice::*part;
};
constexpr Format formats[] = {{"pdf", &ExportChoice::sheets_pdf},          {"png", &ExportChoice::sheets_png},
                              {"tiff", &ExportChoice::sheets_tiff},        {"cut", &ExportChoice::cut_lines},
                              {"labels", &ExportChoice::labels},           {"guides", &ExportChoice::guides},
                              {"templates", &ExportChoice::templates_svg}, {"press", &ExportChoice::press},
                              {"papers", &ExportChoice::papers},           {"tables", &ExportChoice::tables}};

int do_export(const std::string& path, const std::string& shop, const std::string& out, double seconds, const ExportChoice& choice,
              const Language* language, bool as_json) {
    const auto run = run_order(path, shop, language);
    if (!run) return complain(run.sentence());
    for (const std::string& medium : choice.media)
        if (find_medium(run->package.order, medium) == nullptr) return complain("The order has no film or paper “" + medium + "”.");
    const auto order = settled(*run, seconds);
    if (!order) return complain(order.sentence());
    const auto report = export_order(out, *order, run->shop, run->pictures.art, choice, {}, &run->work);
    if (!report) return unwritten(report.sentence());
    const Findings& findings = report->findings;
    if (as_json) {
        std::cout << json_text(json{{"files", report->files},
                                    {"unchanged", report->unchanged},
                                    {"from_before", report->from_before},
                                    {"findings", findings_json(findings, {Unit::mm, language})}},
                               1)
                  << "\n";
    } else {
        for (const std::string& f : report->files) std::cout << f << "\n";
        if (!report->unchanged.empty()) std::cout << report->unchanged.size() << " there are as they would be written\n";
        for (const std::string& f : report->from_before) std::cout << f << " is from an export before, and not of this one\n";
        print_findings(findings, {Unit::mm, language});
    }
    return has_stop(findings) ? 1 : 0;
}

int do_check(const std::string& path, const std::string& shop, const Language* language, bool as_json) {
    const auto run = run_order(path, shop, language);
    if (!run) return complain(run.sentence());
    const Findings& findings = run->work.findings;
    if (as_json)
        std::cout << json_text(json{{"findings", findings_json(findings, {Unit::mm, language})}}, 1) << "\n";
    else
        print_findings(findings, {Unit::mm, language});
    return has_stop(findings) ? 1 : 0;
}

}  // namespace

int main(int argc, char** argv) try {
    CLI::App app{"Orthema without a window: size, place, nest and export transfer orders."};
    app.require_subcommand(1);
    app.set_version_flag("--version", std::string("orthema-cli ") + ORTHEMA_VERSION);
    std::string in, out, width, shop, language;
    bool as_json = false;
    double seconds = 2;
    NestOptions options;
    std::vector<std::string> spoken{"en"};
    for (const ShippedLanguage& l : shipped_languages) spoken.emplace_back(l.code);
    const auto with_language = [&](CLI::App* c) {
        c->add_option("--language", language, "of findings and of what is printed")->check(CLI::IsMember(spoken));
    };
    const auto with_json = [&](CLI::App* c) { c->add_flag("--json", as_json, "print machine-readable results"); };

    auto* import = app.add_subcommand("import", "order lines from CSV or TSV to a new order");
    import->add_option("LINES", in, "the list")->required();
    import->add_option("--out", out, "the order to write")->required();
    with_json(import);
    auto* trace = app.add_subcommand("trace", "what a picture is: ink box, outline, centre, resolution");
    trace->add_option("PICTURE", in)->required();
    trace->add_option("--width", width, "planned width of the ink, like 250mm or 10in")->required();
    with_json(trace);
    auto* fit_command = app.add_subcommand("fit", "size and place of every decoration on every size");
    fit_command->add_option("ORDER", in)->required();
    with_json(fit_command);
    auto* nest_command = app.add_subcommand("nest", "lay out a nest-instance/1 file");
    nest_command->add_option("INSTANCE", in)->required();
    nest_command->add_option("--out", out)->required();
    nest_command->add_option("--seconds", options.seconds)->check(CLI::Range(0.0, 86400.0));
    nest_command->add_option("--seed", options.seed);
    nest_command->add_option("--threads", options.threads)->check(CLI::Range(1, 256));
    nest_command->add_option("--rounds", options.rounds, "rounds of 25 sweeps instead of seconds: repeatable")
        ->check(CLI::Range(0, 1000000));
    with_json(nest_command);
    auto* export_command = app.add_subcommand("export", "gang sheets, cut lines, guides and tables of an order");
    export_command->add_option("ORDER", in)->required();
    export_command->add_option("--out", out, "the folder")->required();
    export_command->add_option("--seconds", seconds, "for laying out what is not laid out yet")->check(CLI::Range(0.0, 86400.0));
    std::vector<std::string> wanted_formats;
    ExportChoice choice;
    std::vector<std::string> known_formats;
    for (const Format& f : formats) known_formats.emplace_back(f.name);
    export_command
        ->add_option("--formats", wanted_formats,
                     "only these, with commas between: pdf, png, tiff, cut, labels, guides, templates, press, papers, tables")
        ->delimiter(',')
        ->check(CLI::IsMember(known_formats));
    export_command->add_option("--media", choice.media, "ids of the films and papers whose sheets are written, with commas between")
        ->delimiter(',');
    export_command->add_option("--dpi", choice.dpi, "of PNG and TIFF")->check(CLI::Range(72.0, 1440.0));
    with_language(export_command);
    with_json(export_command);
    auto* settle_command = app.add_subcommand("settle", "lay out the sheets of an order and save it");
    settle_command->add_option("ORDER", in)->required();
    settle_command->add_option("--out", out, "the order to write")->required();
    settle_command->add_option("--seconds", seconds)->check(CLI::Range(0.0, 86400.0));
    with_json(settle_command);
    int people = 0;
    auto* plan_command = app.add_subcommand("plan", "when each load goes into which press");
    plan_command->add_option("ORDER", in)->required();
    plan_command->add_option("--seconds", seconds, "of looking for a shorter plan")->check(CLI::Range(0.0, 86400.0));
    plan_command->add_option("--people", people, "pairs of hands, in place of the order's own")->check(CLI::Range(1, 20));
    plan_command->add_option("--out", out, "the order with that plan agreed to");
    with_json(plan_command);
    auto* check = app.add_subcommand("check", "print the findings of an order");
    check->add_option("ORDER", in)->required();
    with_language(check);
    with_json(check);
    RecordFilter filter;
    const auto with_filter = [&](CLI::App* command) {
        command->add_option("SOURCE", in, "an order, or a shop library (.sqlite)")->required();
        for (const FilterColumn& c : filter_columns) command->add_option(std::string("--") + c.name, filter.*c.wanted);
        command->add_option("--from", filter.from);
        command->add_option("--to", filter.to);
        command->add_flag("--rehearsals", filter.rehearsals, "with what was pressed in rehearsals");
        with_json(command);
    };
    auto* records_command = app.add_subcommand("records", "what was pressed, as a table or a file");
    with_filter(records_command);
    records_command->add_option("--out", out, "a file: .csv or .json");
    auto* report_command = app.add_subcommand("report", "what the records say and propose");
    with_filter(report_command);
    std::vector<std::string> orders;
    std::string name, job, rest;
    auto* gang_command = app.add_subcommand("gang", "lay several orders together as one");
    gang_command->add_option("ORDERS", orders, "two or more")->required()->expected(2, 200);
    gang_command->add_option("--out", out, "the order to write")->required();
    gang_command->add_option("--name", name, "what it is called");
    with_json(gang_command);
    auto* job_command = app.add_subcommand("take-out", "one job of a gang as an order of its own");
    job_command->add_option("ORDER", in, "the gang")->required();
    job_command->add_option("JOB", job, "its id, as gang prints them")->required();
    job_command->add_option("--out", out, "the order to write")->required();
    job_command->add_option("--rest", rest, "the gang without it");
    with_json(job_command);
    auto* costs_command = app.add_subcommand("costs", "what film, blanks and work come to, parted among jobs");
    costs_command->add_option("ORDER", in)->required();
    with_json(costs_command);
    bool buying = false, what_if = false;
    std::string table, folder, pdf;
    auto* stock_command = app.add_subcommand("stock", "what a shop has, or has to buy, as a table");
    stock_command->add_option("LIBRARY", in, "a shop library (.sqlite)")->required();
    stock_command->add_option("--count", table, "a table that is counted in first");
    stock_command->add_flag("--to-buy", buying, "what all open orders lack");
    stock_command->add_option("--out", out, "a file for the table");
    with_json(stock_command);
    auto* quote_command = app.add_subcommand("quote", "what a piece of every line costs and is sold for");
    quote_command->add_option("ORDER", in)->required();
    quote_command->add_option("--job", job, "of a gang, by its id");
    quote_command->add_option("--pdf", pdf, "the quote as a page");
    quote_command->add_flag("--what-if", what_if, "and what it would be otherwise");
    with_json(quote_command);
    for (CLI::App* command : {settle_command, check, export_command, quote_command})
        command->add_option("--shop", shop, "the shop library (.sqlite) whose stock it is made from");
    auto* back_up_command = app.add_subcommand("back-up", "a whole shop in one file");
    back_up_command->add_option("LIBRARY", in, "a shop library (.sqlite)")->required();
    back_up_command->add_option("--out", out, "the file to write")->required();
    with_json(back_up_command);
    auto* restore_command = app.add_subcommand("restore", "a shop from such a file");
    restore_command->add_option("FILE", in)->required();
    restore_command->add_option("--library", out, "where the shop library is to lie")->required();
    restore_command->add_option("--orders", folder, "the folder for its orders")->required();
    with_json(restore_command);

    const auto describes = [&app](const char* flag, const auto& words) {  // for packaging: not in --help
        app.add_flag_callback(flag,
                              [&app, words] {
                                  std::cout << words(app);
                                  throw CLI::Success();
                              })
            ->group("");
    };
    describes("--bash-completion", [](const CLI::App& a) { return bash_completion(a, "orthema-cli"); });
    describes("--man-page", [](const CLI::App& a) {
        return man_page(a, "orthema-cli", "size, place, nest and export transfer orders without a window",
                        ".SH EXIT STATUS\n0 when all is well, 1 when a finding says stop, 2 for bad usage or input that cannot be read, 3 "
                        "for what could not be written.\n"
                        ".SH SEE ALSO\n.BR orthema (1),\n.BR orthema\\-press (1)\n");
    });

    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : 2;
    }
    if (*records_command) return list_records(in, filter, out, as_json);
    if (*report_command) return report_records(in, filter, as_json);
    if (*gang_command) return gang_orders(orders, out, name, as_json);
    if (*job_command) return take_job_out(in, job, out, rest, as_json);
    if (*costs_command) return print_costs(in, as_json);
    if (*stock_command) return print_stock(in, table, out, buying, as_json);
    if (*quote_command) return print_quote(in, shop, job, pdf, what_if, as_json);
    if (*back_up_command) return back_up(in, out, as_json);
    if (*restore_command) return restore(in, out, folder, as_json);
    if (*import) return do_import(in, out, as_json);
    if (*trace) return do_trace(in, width, as_json);
    if (*fit_command) return do_fit(in, as_json);
    if (*nest_command) return do_nest(in, out, options, as_json);
    if (*settle_command) return do_settle(in, shop, out, seconds, as_json);
    if (*plan_command) return print_plan(in, out, seconds, people, as_json);
    if (*export_command) {
        if (!wanted_formats.empty())
            for (const Format& f : formats)
                choice.*f.part = std::find(wanted_formats.begin(), wanted_formats.end(), f.name) != wanted_formats.end();
        return do_export(in, shop, out, seconds, choice, shipped_language(language), as_json);
    }
    return do_check(in, shop, shipped_language(language), as_json);
} catch (const std::exception& e) {  // a part of the program that is not where it was installed, say
    std::cerr << "orthema-cli: " << e.what() << "\n";
    return 3;
}
