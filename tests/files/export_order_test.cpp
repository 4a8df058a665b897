// The whole export, and the command line that does the same.
#include "files/export_order.h"

#include <cmath>
#include <functional>
#include <nlohmann/json.hpp>

#include "core/guides/guides.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/stock_book.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

using nlohmann::json;
using test::Folder;

std::string cli(const std::string& arguments) { return std::string("'") + ORTHEMA_CLI + "' " + arguments; }

json answer(const std::string& arguments, int code = 0) {
    const auto said = test::run(cli(arguments));
    EXPECT_EQ(said.code, code) << said.out;
    const json j = json::parse(said.out, nullptr, false);
    EXPECT_FALSE(j.is_discarded()) << said.out;
    return j;
}

/// Saves the small order, laid out on the narrow film.
std::string saved(const Folder& folder, bool laid = true) {
    Order order = test::small_order();
    order.decorations[0].medium = "film-330";
    const std::string path = folder / "small.orthema";
    EXPECT_TRUE(save_order(path, order, test::small_art()));
    if (laid) EXPECT_EQ(test::run(cli("settle '" + path + "' --out '" + path + "' --seconds 0")).code, 0);
    return path;
}

TEST(Export, WritesEverythingUnderNamesThatSayWhatItIs) {
    const Folder folder;
    const auto package = open_order(saved(folder));
    ASSERT_TRUE(package);
    const LoadedArtById art = load_all_art(package->order, package->art, nullptr);
    ExportChoice choice;
    choice.dpi = 60;
    std::vector<double> shares;
    const auto report = export_order(folder / "out", package->order, Shop{}, art, choice,
                                     Task{[&](double s, const std::string&) { shares.push_back(s); }, nullptr});
    ASSERT_TRUE(report) << report.sentence();
    std::set<std::string> names;
    for (const std::string& f : report->files) {
        EXPECT_GT(std::filesystem::file_size(f), 50u) << f;
        names.insert(std::filesystem::path(f).filename());
    }
    EXPECT_EQ(names,
              (std::set<std::string>{"small-order_film-roll-330_sheet-1.pdf", "small-order_film-roll-330_sheet-1.png",
                                     "small-order_film-roll-330_sheet-1_cut.svg", "small-order_film-roll-330_sheet-1_cut.dxf",
                                     "small-order_film-roll-330_sheet-1_cut.plt", "small-order_guide-cards.pdf", "small-order_fit.csv",
                                     "small-order_pieces.csv", "small-order_making-transfers.pdf", "small-order_master-templates.pdf",
                                     "small-order_pick-list.csv", "small-order_platen-maps.pdf", "small-order_press-plan.csv",
                                     "small-order_run-sheet.pdf", "small-order_wall-charts.pdf", "small-order_lines.csv",
                                     "small-order_quote.pdf", "small-order_job-ticket.pdf", "small-order_approval.pdf"}));
    EXPECT_TRUE(std::is_sorted(shares.begin(), shares.end()));
    EXPECT_EQ(shares.back(), 1);
    for (const char* pdf : {"small-order_guide-cards.pdf", "small-order_master-templates.pdf"}) {
        const auto check = test::run("qpdf --check '" + (folder / "out/") + pdf + "'");
        EXPECT_EQ(check.code, 0) << check.out;
    }
    EXPECT_NE(test::run("pdfinfo '" + (folder / "out/small-order_guide-cards.pdf") + "'").out.find("Pages:           5"),
              std::string::npos);
    const std::string words = test::run("pdftotext -layout '" + (folder / "out/small-order_guide-cards.pdf") + "' -").out;
    EXPECT_NE(words.find("Collar seam to top of ink"), std::string::npos);
}

TEST(Export, TheTemplatesMarksMeasureTrueOnTheRenderedPage) {
    const Folder folder;
    const auto package = open_order(saved(folder));
    const LoadedArtById art = load_all_art(package->order, package->art, nullptr);
    const ArtFactsById facts = facts_of(art);
    Order order = package->order;
    order.decorations[0].sizing.school = SizingSchool::graded;  // no two sizes share a width, and so no master template
    const FitPlan plan = fit(order, facts);
    ASSERT_TRUE(export_order(folder / "out", order, Shop{}, art, {false, false, false, true, false, 300}));
    // the first size's template begins the file; its 100 mm mark is the longest level dark run of about that length
    const double dpi = 100;
    const Guide guide = guides(order, plan, facts).guides[0];
    bool found = false;
    for (int page = 1; page <= guide.layout.pages() && !found; ++page) {
        const test::Canvas c = test::render_pdf(folder / "out/small-order_templates.pdf", page, dpi);
        for (int y = 0; y < c.height && !found; ++y)
            for (int x = 0, run = 0; x < c.width; ++x) {
                run = c.at(x, y)[0] < 160 ? run + 1 : 0;
                if (run > 0 && (x + 1 == c.width || c.at(x + 1, y)[0] >= 160)) found = found || std::abs(run / dpi * 25.4 - 100) < 0.6;
            }
    }
    EXPECT_TRUE(found);
}

TEST(Export, AStaleLayoutIsLeftOutAndSaid) {
    const Folder folder;
    const auto package = open_order(saved(folder));
    Order order = package->order;
    order.decorations[0].sizing.base_width = Length::from_mm(120);
    const auto report = export_order(folder / "out", order, Shop{}, load_all_art(order, package->art, nullptr),
                                     {true, true, true, false, false, 60, false, true, false, false, "garment", false});
    ASSERT_TRUE(report);
    EXPECT_TRUE(report->files.empty());
    ASSERT_FALSE(report->findings.empty());
}

TEST(Export, ASecondExportWritesWhatWouldComeOutOtherwiseAndNothingElse) {
    const Folder folder;
    const auto package = open_order(saved(folder));
    ASSERT_TRUE(package);
    Order order = package->order;
    const LoadedArtById art = load_all_art(order, package->art, nullptr);
    ExportChoice choice;
    choice.dpi = 40;
    const auto content = [](const std::string& in) {
        std::map<std::string, std::string> out;
        for (const auto& f : std::filesystem::directory_iterator(in))
            if (f.path().extension() != ".json") out[f.path().filename()] = test::slurp(f.path());
        return out;
    };
    const auto names = [](const std::vector<std::string>& paths) {
        std::set<std::string> out;
        for (const std::string& p : paths) out.insert(std::filesystem::path(p).filename());
        return out;
    };
    const auto into = [&](const std::string& name) {
        auto report = export_order(folder / name, order, Shop{}, art, choice);
        EXPECT_TRUE(report) << report.sentence();
        return *report;
    };
    EXPECT_EQ(into("out").files.size(), 19u);
    const auto again = into("out");
    EXPECT_TRUE(again.files.empty());
    EXPECT_EQ(again.unchanged.size(), 19u);
    // what somebody changed or took away comes back
    const std::string plan = folder / "out/small-order_press-plan.csv", cards = folder / "out/small-order_guide-cards.pdf";
    test::spill(plan, test::slurp(plan) + "mine\n");
    std::filesystem::remove(cards);
    EXPECT_EQ(names(into("out").files), (std::set<std::string>{"small-order_press-plan.csv", "small-order_guide-cards.pdf"}));
    // changes of all kinds: whatever is left as it was equals what is written from nothing
    const auto edits = std::vector<std::function<void()>>{
        [&] { order.decorations[0].placing.offset = order.decorations[0].placing.offset + Length::from_mm(4); },
        [&] { order.unit = order.unit == Unit::mm ? Unit::inch : Unit::mm; },
        [&] { choice.dpi = 50; },
        [&] { order.guide_setup.windows = !order.guide_setup.windows; },
        [&] { order.lines[0].quantity += 3; },
        [&] { order.styles[0].colours[0].ink.r = 0.31; },
        [&] { choice.labels = false; },
        [&] { order.press_run.hands = 2; }};
    for (std::size_t i = 0; i < edits.size(); ++i) {
        edits[i]();
        const auto report = into("out");
        const auto fresh = into("fresh-" + std::to_string(i));
        EXPECT_EQ(report.files.size() + report.unchanged.size(), fresh.files.size()) << i;
        auto have = content(folder / "out");
        for (const std::string& old : report.from_before) have.erase(old);
        const auto want = content(folder / ("fresh-" + std::to_string(i)));
        for (const auto& [name, bytes] : want) EXPECT_TRUE(have[name] == bytes) << name << " after " << i;
        EXPECT_EQ(have.size(), want.size());
        if (i == 0) EXPECT_GT(report.unchanged.size(), 4u) << "a place is no figure of a sheet";
        if (i == 4) EXPECT_TRUE(names(report.from_before).contains("small-order_film-roll-330_sheet-1.png")) << "stale sheets are named";
    }
    // a broken note costs time, not truth
    test::spill(folder / "out/small-order_export.json", "{\"format\":\"orthema-export\",\"files\":[{\"name\":3},");
    EXPECT_TRUE(into("out").unchanged.empty());
}

TEST(Export, NamesOfTheSameLettersAreMadeUnlike) {
    const Folder folder;
    Order order = test::small_order();
    order.decorations[0].medium = "film-330";
    Decoration back = new_decoration(order, order.decorations[0].run, Location::full_back, order.art[0]);
    back.id = "back";
    back.medium = "film-559";
    order.decorations.push_back(back);
    for (Medium& m : order.media) {
        if (m.id == "film-330") m.name = "Film ?";
        if (m.id == "film-559") m.name = "Film !";
    }
    const std::string path = folder / "o.orthema";
    ASSERT_TRUE(save_order(path, order, test::small_art()));
    ASSERT_EQ(test::run(cli("settle '" + path + "' --out '" + path + "' --seconds 0")).code, 0);
    const json j = answer("export '" + path + "' --out '" + (folder / "out") + "' --seconds 0 --json");
    std::set<std::string> files;
    for (const json& f : j["files"]) EXPECT_TRUE(files.insert(f.get<std::string>()).second) << f;
    EXPECT_TRUE(files.contains(folder / "out/small-order_film_sheet-1.pdf"));
    EXPECT_TRUE(files.contains(folder / "out/small-order_film-2_sheet-1.pdf"));
}

TEST(Export, AFolderThatCannotBeMadeIsSaid) {
    const Order order = test::small_order();
    const auto report = export_order("/proc/no/such", order, Shop{}, load_all_art(order, test::small_art(), nullptr), {});
    ASSERT_FALSE(report);
    EXPECT_NE(report.sentence().find("cannot be made"), std::string::npos);
}

TEST(Cli, ImportsAListIntoAnOrder) {
    const Folder folder;
    const json j = answer("import '" + test::source("demo/web-shop-lines.csv") + "' --out '" + (folder / "o.orthema") + "' --json");
    EXPECT_EQ(j["bad_rows"].size(), 2u);
    EXPECT_EQ(j["columns"]["size"], "Size");
    const auto order = open_order(folder / "o.orthema");
    ASSERT_TRUE(order);
    EXPECT_EQ(garments_in(order->order), j["garments"].get<int>());
    EXPECT_EQ(order->order.lines.size(), j["lines"].get<std::size_t>());
}

TEST(Cli, TracesAPicture) {
    const Folder folder;
    test::Canvas c(200, 100);
    c.fill([](double x, double y) { return x > 20 && x < 120 && y > 10 && y < 60; });
    c.fill([](double x, double y) { return x > 40 && x < 60 && y > 20 && y < 40; }, 0, 0, 0, 0);
    test::spill(folder / "p.png", test::png_bytes(c));
    const json j = answer("trace '" + (folder / "p.png") + "' --width 250mm --json");
    EXPECT_EQ(j["ink_box_mm"], (json{{"x", 50}, {"y", 25}, {"width", 250}, {"height", 125}}));
    EXPECT_NEAR(j["dpi"].get<double>(), 100 / (250 / 25.4), 0.01);
    ASSERT_EQ(j["outline"].size(), 2u);
    EXPECT_EQ(j["outline"][1]["hole"], true);
    // by hand: 100 × 50 with 20 × 20 taken out at (20 … 40, 10 … 30)
    EXPECT_NEAR(j["optical_centre_mm"][0].get<double>(), (5000 * 50.0 - 400 * 30.0) / 4600 * 2.5, 0.01);
    EXPECT_TRUE(std::any_of(j["findings"].begin(), j["findings"].end(), [](const json& f) { return f["code"] == "art-resolution"; }));
    EXPECT_EQ(test::run(cli("trace '" + (folder / "p.png") + "' --width nonsense")).code, 2);
    EXPECT_EQ(test::run(cli("trace '" + (folder / "none.png") + "' --width 250mm")).code, 2);
}

TEST(Cli, FitsAnOrderWithTheKeysThatAreDocumented) {
    const Folder folder;
    const json j = answer("fit '" + saved(folder) + "' --json");
    ASSERT_EQ(j["decorations"].size(), 1u);
    ASSERT_EQ(j["decorations"][0]["sizes"].size(), 5u);
    for (const json& s : j["decorations"][0]["sizes"])
        for (const char* key : {"width_mm", "height_mm", "top_to_ink_mm", "ink_to_pit_line_mm", "left_margin_mm", "right_margin_mm",
                                "ideal_width_mm", "limited_by", "band"})
            EXPECT_TRUE(s.contains(key)) << key;
    EXPECT_TRUE(j["findings"].is_array());
}

TEST(Cli, ChecksWithAnExitCodeForStops) {
    const Folder folder;
    const std::string path = saved(folder);
    EXPECT_EQ(test::run(cli("check '" + path + "'")).code, 0);
    Order order = open_order(path)->order;
    order.lines.push_back({"cloak", "red", "M", 1, ""});
    ASSERT_TRUE(save_order(path, order, test::small_art()));
    const auto said = test::run(cli("check '" + path + "'"));
    EXPECT_EQ(said.code, 1);
    EXPECT_NE(said.out.find("stop: "), std::string::npos);
    EXPECT_NE(said.out.find("cloak"), std::string::npos);
}

TEST(Cli, WhatAShopHasDecidesWhatIsSettledAndSaid) {
    const Folder folder;
    const std::string path = saved(folder), shop = folder / "shop.sqlite";
    const Medium film = *find_medium(test::small_order(), "film-330");
    ASSERT_EQ(film.shape, MediumShape::roll);
    const auto count = [&](double millimetres) {
        ASSERT_TRUE(Library::open(shop).ok());
        const auto book = StockBook::open(shop);
        ASSERT_TRUE(book.ok());
        StockEntry roll;
        roll.id = "roll 1";
        roll.name = "Roll 1";
        roll.kind = StockKind::roll;
        roll.medium = film.id;
        ASSERT_TRUE((*book)->count({{roll, millimetres}}, "2027-06-01").ok());
    };
    const auto codes = [&] {
        std::set<std::string> out;
        const json said = answer("check '" + path + "' --shop '" + shop + "' --json");
        for (const json& f : said["findings"]) out.insert(f["code"]);
        return out;
    };
    count(100000);
    ASSERT_EQ(test::run(cli("settle '" + path + "' --out '" + path + "' --seconds 0 --shop '" + shop + "'")).code, 0);
    EXPECT_FALSE(codes().contains("film-short"));
    const Order laid = open_order(path)->order;
    ASSERT_FALSE(laid.layouts.empty());
    EXPECT_EQ(laid.layouts.all()[0].stock, std::vector<std::string>{"roll 1"});
    count(20);
    EXPECT_TRUE(codes().contains("film-short"));
    EXPECT_EQ(test::run(cli("check '" + path + "' --shop '" + (folder / "none.sqlite") + "'")).code, 2);
    EXPECT_EQ(test::run(cli("check '" + path + "' --shop '" + path + "'")).code, 2) << "not a library";
}

TEST(Cli, BadUsageAndUnreadableInputExitWithTwo) {
    const Folder folder;
    for (const char* bad : {"", "dance", "fit", "fit /no/such/order", "nest /no/such --out /tmp/x", "export", "import x.csv"})
        EXPECT_EQ(test::run(cli(bad)).code, 2) << bad;
    test::spill(folder / "x.orthema", "not an order");
    const auto said = test::run(cli("fit '" + (folder / "x.orthema") + "'"));
    EXPECT_EQ(said.code, 2);
    EXPECT_NE(said.out.find("not an order file"), std::string::npos);
    EXPECT_EQ(test::run(cli("--help")).code, 0);
}

TEST(Cli, NestsAnInstanceFile) {
    const Folder folder;
    json instance{{"format", "nest-instance/1"}, {"width_mm", 100}, {"gap_mm", 2}, {"margin_mm", 3}, {"pieces", json::array()}};
    instance["pieces"].push_back({{"id", "tri"}, {"count", 6}, {"rotations", {0, 180}}, {"outline", {{0, 0}, {40, 0}, {0, 30}}}});
    instance["pieces"].push_back(
        {{"id", "bar"}, {"count", 3}, {"rotations", "any"}, {"outline", {{0, 0}, {50, 0}, {50, 8}, {0, 8}}}, {"holes", json::array()}});
    test::spill(folder / "i.json", instance.dump());
    ASSERT_EQ(test::run(cli("nest '" + (folder / "i.json") + "' --out '" + (folder / "s.json") + "' --rounds 3 --seed 2 --threads 2")).code,
              0);
    const json s = json::parse(test::slurp(folder / "s.json"));
    EXPECT_EQ(s["format"], "nest-solution/1");
    ASSERT_EQ(s["placements"].size(), 9u);
    // placed again here, from the file alone
    std::vector<Polygon> lying;
    double end = 0;
    for (const json& p : s["placements"]) {
        Polygon outline;
        for (const json& piece : instance["pieces"])
            if (piece["id"] == p["id"])
                for (const json& q : piece["outline"]) outline.outer.push_back({q[0].get<double>(), q[1].get<double>()});
        const double t = p["rotation_deg"].get<double>() * M_PI / 180;
        for (Point& q : outline.outer)
            q = {q.x * std::cos(t) - q.y * std::sin(t) + p["x_mm"].get<double>(),
                 q.x * std::sin(t) + q.y * std::cos(t) + p["y_mm"].get<double>()};
        const Rect box = bounds(outline.outer);
        EXPECT_GE(box.y0, 3 - 1e-3);
        EXPECT_LE(box.y1, 97 + 1e-3);
        end = std::max(end, box.x1);
        for (const Polygon& other : lying) EXPECT_GE(distance(other, outline), 2 - 2e-3);
        lying.push_back(outline);
    }
    EXPECT_NEAR(s["length_mm"].get<double>(), end + 3, 0.01);
    test::spill(folder / "i.json", "{\"format\":\"nest-instance/1\"}");
    EXPECT_EQ(test::run(cli("nest '" + (folder / "i.json") + "' --out '" + (folder / "s.json") + "'")).code, 2);
}

TEST(Cli, ExportsALayoutOfItsOwnWhereThereIsNone) {
    const Folder folder;
    const std::string path = saved(folder, false);
    const json j = answer("export '" + path + "' --out '" + (folder / "out") + "' --seconds 0 --json");
    EXPECT_EQ(j["files"].size(), 19u);
    for (const json& f : j["files"]) EXPECT_TRUE(std::filesystem::exists(f.get<std::string>()));
}

}  // namespace TESTED
}  // namespace orthema
