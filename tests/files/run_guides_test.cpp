// Platen maps, master templates, carry boards, codes, revisions and the papers of a press plan, read back by other
// programs.
#include <cmath>

#include "core/drawing/code2d.h"
#include "core/base/dates.h"
#include "core/guides/making_sheet.h"
#include "core/guides/aids.h"
#include "core/guides/panel_drawing.h"
#include "core/guides/run_guides.h"
#include "files/csv.h"
#include "files/export_order.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "files/press_export.h"
#include "files/safe_file.h"
#include "core/sheets/sheet_drawing.h"
#include "support/laid_order.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

struct Job {
    Order order;
    LoadedArtById art;
    ArtFactsById facts;
    FitPlan plan;
    explicit Job(Order o, const ArtBytes& bytes)
        : order(std::move(o)), art(load_all_art(order, bytes, nullptr)), facts(facts_of(art)), plan(fit(order, facts)) {}
    static Job small() { return Job(test::small_order(), test::small_art()); }
    static Job demo() {
        static const Job kept = [] {  // read and looked at once for all tests
            auto package = open_order(test::source("demo/marrow-hill"));
            return Job(package->order, package->art);
        }();
        return kept;
    }
    [[nodiscard]] PressPlan press() const {
        ScheduleOptions options;
        options.tries = 0;
        return press_plan(order, plan, transfers(order, plan, facts), options);
    }
};

std::string words_of(const std::string& pdf) { return test::run("pdftotext -layout '" + pdf + "' -").out; }

void write_pages(const std::string& path, const std::vector<GuidePage>& pages, const LoadedArtById& art) {
    std::vector<const Drawing*> drawings;
    for (const GuidePage& p : pages) drawings.push_back(&p.drawing);
    ASSERT_TRUE(write_pdf(path, drawings, art, "pages").ok());
    EXPECT_EQ(test::run("qpdf --check '" + path + "'").code, 0);
}

/// The number before " mm" that follows the words, wherever they stand.
std::vector<double> figures_after(const std::string& text, const std::string& words) {
    std::vector<double> out;
    for (std::size_t at = text.find(words); at != std::string::npos; at = text.find(words, at + 1))
        out.push_back(std::stod(text.substr(text.find(':', at) + 1)));
    std::sort(out.begin(), out.end());
    return out;
}

TEST(PlatenMap, FiguresOnPaperAgreeWithThePlanToATenth) {
    const Job job = Job::demo();
    const test::Folder folder;
    const Decoration& kite = *find_decoration(job.order, "crew-kite");
    const DecorationFit& fitted = *find_fit(job.plan, "crew-kite");
    write_pages(folder / "maps.pdf", platen_map_pages(job.order, job.plan, kite), job.art);
    const std::string text = words_of(folder / "maps.pdf");
    Point moved;  // the loading marks, as somebody took it from the records
    for (const Correction& c : job.order.corrections.all())
        if (c.press == kite.press && c.hands.empty()) moved = moved + Point{c.aside, c.down};
    EXPECT_GT(moved.x, 0);
    std::vector<double> ink, left;
    for (const SizeFit& s : fitted.sizes) {
        ink.push_back(s.ink.y0 - s.platen.presses.front().y0 + moved.y);
        left.push_back(s.ink.x0 - s.platen.presses.front().x0 + moved.x);
    }
    std::sort(ink.begin(), ink.end());
    std::sort(left.begin(), left.end());
    const auto read = figures_after(text, "top of ink below the platen's top edge"),
               read_left = figures_after(text, "ink right of the platen's left edge");
    ASSERT_EQ(read.size(), ink.size());
    ASSERT_EQ(read_left.size(), left.size());
    for (std::size_t i = 0; i < ink.size(); ++i) {
        EXPECT_NEAR(read[i], ink[i], 0.0501);
        EXPECT_NEAR(read_left[i], left[i], 0.0501);
    }
    // caps and wraps have none
    EXPECT_TRUE(platen_map_pages(job.order, job.plan, *find_decoration(job.order, "mug-kite")).empty());
}

TEST(Card, FiguresOnPaperAgreeWithThePlanToATenth) {
    const Job job = Job::demo();
    const test::Folder folder;
    for (const char* id : {"crew-kite", "marshal-back", "race-rose"}) {
        const DecorationFit& fitted = *find_fit(job.plan, id);
        const Decoration& d = *find_decoration(job.order, id);
        std::vector<GuidePage> cards;
        for (const SizeFit& s : fitted.sizes) cards.push_back(guide_for(job.order, d, fitted, s, job.facts.at(d.art).outline).card);
        write_pages(folder / "cards.pdf", cards, job.art);
        for (std::size_t i = 0; i < cards.size(); ++i) {
            const SizeFit& s = fitted.sizes[i];
            const std::string page = std::to_string(i + 1);
            const std::string text = test::run("pdftotext -layout -f " + page + " -l " + page + " '" + (folder / "cards.pdf") + "' -").out;
            const auto figure = [&](const std::string& words) {
                const std::size_t at = text.find(words);
                EXPECT_NE(at, std::string::npos) << words << text;
                return at == std::string::npos ? -1e9 : std::stod(text.substr(at + words.size()));
            };
            EXPECT_NEAR(figure("Collar seam to top of ink"), s.top_to_ink, 0.0501) << id << s.size;
            EXPECT_NEAR(figure(", your left"), s.left_margin, 0.0501);
            EXPECT_NEAR(figure(", your right"), s.right_margin, 0.0501);
            EXPECT_NEAR(figure("Ink width"), s.width, 0.0501);
            EXPECT_NEAR(figure("Ink height"), s.height, 0.0501);
            EXPECT_NE(text.find("revision " + guide_revision(job.order, d, s)), std::string::npos);
        }
    }
}

TEST(MasterTemplate, StandsForItsSizesWhereItTakesFewerSheets) {
    const Job job = Job::demo();
    const GuideSet set = guides(job.order, job.plan, job.facts);
    int taken = 0, left = 0;
    for (const DecorationFit& f : job.plan.decorations) {
        const Decoration& d = *find_decoration(job.order, f.decoration);
        const auto all = master_templates(job.order, job.plan, d, job.facts.at(d.art).outline);
        const auto serve = masters_that_serve(all, set, d.id);
        for (const MasterTemplate& m : all) {
            std::size_t alone = 0;
            for (const Guide& g : set.guides)
                if (g.decoration == d.id && std::count(m.sizes.begin(), m.sizes.end(), g.size) > 0) alone += g.tiles.size();
            const bool there = std::any_of(serve.begin(), serve.end(), [&](const MasterTemplate& s) { return s.sizes == m.sizes; });
            EXPECT_EQ(there, m.sizes.size() > 1 && m.tiles.size() < alone) << d.id;
            ++(there ? taken : left);
        }
    }
    EXPECT_GT(taken, 5);
    EXPECT_GT(left, 5);
}

TEST(MasterTemplate, EverySizeHasItsOwnCollarLineAtItsOwnHeight) {
    const Job job = Job::demo();
    const Decoration& kite = *find_decoration(job.order, "crew-kite");
    const DecorationFit& fitted = *find_fit(job.plan, "crew-kite");
    const auto masters = master_templates(job.order, job.plan, kite, job.facts.at(kite.art).outline);
    EXPECT_EQ(masters.size(), fitted.bands.size());
    std::size_t sizes = 0;
    for (const MasterTemplate& m : masters) {
        for (const auto& [size, collar] : m.collar) {
            ++sizes;
            const SizeFit& s = *find_size(fitted, size);
            EXPECT_NEAR(collar, s.top_to_ink, 0.1);
            // the lowest point of that collar line as it is drawn
            bool drawn = false;
            for (const Mark& mark : m.whole.marks)
                if (const auto* path = std::get_if<PathMark>(&mark); path != nullptr && !path->closed)
                    for (const Ring& r : path->rings)
                        for (const Point& p : r) drawn = drawn || (std::abs(p.y + s.top_to_ink) < 0.1 && std::abs(p.x + s.ink.x0) < 0.5);
            EXPECT_TRUE(drawn) << size;
        }
    }
    EXPECT_EQ(sizes, fitted.sizes.size());
}

TEST(Template, APrinterThatPrintsSmallIsCorrected) {
    Job job = Job::small();
    const test::Folder folder;
    job.order.guide_setup.measured = Length::from_mm(99.2);
    const DecorationFit& fitted = job.plan.decorations[0];
    const SizeFit& size = *find_size(fitted, "S");
    const Guide guide = guide_for(job.order, job.order.decorations[0], fitted, size, job.facts.begin()->second.outline);
    EXPECT_NEAR(guide.layout.scale, 100 / 99.2, 1e-9);
    // ink corners on the first tiles lie farther apart by just that, measured on the rendered page
    std::vector<GuidePage> tiles = guide.tiles;
    write_pages(folder / "t.pdf", tiles, job.art);
    const test::Canvas page = test::render_pdf(folder / "t.pdf", 1, 300);
    // verdigris pixels of the corner brackets: the leftmost column of them is the ink's left edge
    int least = page.width, most = -1;
    for (int y = 0; y < page.height; ++y)
        for (int x = 0; x < page.width; ++x) {
            const std::uint8_t* p = page.at(x, y);
            if (p[0] < 90 && p[1] > 100 && p[1] < 150 && p[2] > 95 && p[2] < 145) {
                least = std::min(least, x);
                most = std::max(most, x);
            }
        }
    const double left = (size.ink.x0 - guide.layout.area.x0) * guide.layout.scale + 10;
    EXPECT_NEAR(least / 300.0 * 25.4, left - 0.25, 0.3);
    EXPECT_GT(most, least);
    // and every page stays inside the paper's margins
    const TemplateLayout plain = tile_layout(guide.layout.area, {paper_size(job.order.paper)});
    EXPECT_LE(plain.tile_width - guide.layout.tile_width * guide.layout.scale, 1e-9);
}

TEST(Template, AsSvgItIsOfTrueSizeAndReadByOthers) {
    const Job job = Job::small();
    const test::Folder folder;
    ExportChoice choice;
    choice.sheets_pdf = choice.sheets_png = choice.cut_lines = choice.tables = choice.press = false;
    choice.templates_svg = true;
    const auto report = export_order(folder / "out", job.order, Shop{}, job.art, choice);
    ASSERT_TRUE(report.ok());
    const DecorationFit& fitted = job.plan.decorations[0];
    const SizeFit& size = fitted.sizes[0];
    const std::string path = folder / ("out/templates/" + file_stem(fitted.decoration + " " + size.size) + ".svg");
    EXPECT_EQ(test::run("xmllint --noout '" + path + "'").code, 0);
    ASSERT_EQ(test::run("rsvg-convert -d 100 -p 100 -b white -o '" + (folder / "t.png") + "' '" + path + "'").code, 0);
    const test::Canvas page = test::read_png(folder / "t.png");
    const Guide guide = guide_for(job.order, job.order.decorations[0], fitted, size, job.facts.begin()->second.outline);
    EXPECT_NEAR(page.width / 100.0 * 25.4, guide.layout.area.width(), 0.6);
    EXPECT_NEAR(page.height / 100.0 * 25.4, guide.layout.area.height(), 0.6);
    // the bracket at the ink's top left corner is where the fit has it
    int left = page.width;
    for (int y = 0; y < page.height; ++y)
        for (int x = 0; x < page.width; ++x) {
            const std::uint8_t* p = page.at(x, y);
            if (p[0] < 110 && p[1] > 95 && p[1] < 175 && p[2] > 90 && p[2] < 170 && p[1] > p[0] + 30) left = std::min(left, x);
        }
    EXPECT_NEAR(left / 100.0 * 25.4, size.ink.x0 - guide.layout.area.x0, 0.6);
}

TEST(MakingSheet, NamesEveryMediumWithItsCautionsAndTheEarliestDay) {
    Job job = Job::demo();
    const auto text = [&] {
        std::string out;
        for (const GuidePage& p : making_sheet(job.order))
            for (const Mark& m : p.drawing.marks)
                if (const auto* t = std::get_if<TextMark>(&m)) out += t->text + "\n";
        return out;
    };
    const std::string all = text();
    for (const MediumLayout& l : job.order.layouts)
        if (!l.copies.empty()) EXPECT_NE(all.find(find_medium(job.order, l.medium)->name), std::string::npos) << l.medium;
    EXPECT_NE(all.find("mask"), std::string::npos);
    std::string day = test::run("LC_ALL=C date -u -d '" + job.order.due + " -180 days' '+%-d %B %Y'").out;
    day.pop_back();
    EXPECT_NE(all.find(day), std::string::npos) << day;
    // one that has no powder says nothing of it; without a due day no day is named
    const Medium& vinyl = *find_medium(job.order, "vinyl-navy");
    for (const std::string& line : making_words(job.order, vinyl)) EXPECT_EQ(line.find("powder"), std::string::npos) << line;
    job.order.due.clear();
    EXPECT_EQ(text().find("at the earliest"), std::string::npos);
    for (MediumLayout& l : job.order.layouts) l.copies.clear();
    EXPECT_TRUE(making_sheet(job.order).empty());
    for (const long n : {0L, 59L, 18628L, 20616L, 47541L}) EXPECT_EQ(day_number(iso_day(n)), n);
    EXPECT_FALSE(day_number("2027-02-29"));
}

TEST(CarryBoard, OneForASizeServesAllDesignsAndColours) {
    const Job job = Job::demo();
    std::map<std::tuple<std::string, Face, std::string>, int> wanted;
    for (const DecorationFit& f : job.plan.decorations) {
        const Decoration& d = *find_decoration(job.order, f.decoration);
        if (aid_kind(job.order, d) == AidKind::carry_board)
            for (const SizeFit& s : f.sizes) ++wanted[{d.run.style, location_face(d.location), s.size}];
    }
    int boards = 0;
    for (const Aid& a : aids_of(job.order, job.plan))
        if (a.kind == AidKind::carry_board) ++boards;
    EXPECT_EQ(boards, static_cast<int>(wanted.size()));
    EXPECT_GT(boards, 0);
}

TEST(CarryBoard, OnlyForTwoLayersAndRegisteredByTheCollar) {
    const Job job = Job::demo();
    const Decoration& race = *find_decoration(job.order, "race-rose");
    const DecorationFit& fitted = *find_fit(job.plan, "race-rose");
    const auto board = aid_for(job.order, job.plan, race, fitted, fitted.sizes[1]);
    ASSERT_TRUE(board);
    EXPECT_EQ(board->kind, AidKind::carry_board);
    const Rect& ink = fitted.sizes[1].ink;
    EXPECT_TRUE(board->area.x0 < ink.x0 && board->area.x1 > ink.x1 && board->area.y1 > ink.y1);
    EXPECT_EQ(static_cast<int>(board->tiles.size()), board->layout.pages());
    const Decoration& kite = *find_decoration(job.order, "crew-kite");
    EXPECT_FALSE(aid_for(job.order, job.plan, kite, *find_fit(job.plan, "crew-kite"), find_fit(job.plan, "crew-kite")->sizes[0]));
}

/// The closed outlines in a drawing.
std::vector<Ring> outlines(const std::vector<Mark>& marks) {
    std::vector<Ring> out;
    for (const Mark& m : marks)
        if (const auto* path = std::get_if<PathMark>(&m); path != nullptr && path->closed)
            out.insert(out.end(), path->rings.begin(), path->rings.end());
    return out;
}

bool drawn_there(const std::vector<Ring>& all, const Ring& ring) {
    return std::any_of(all.begin(), all.end(), [&](const Ring& r) {
        if (r.size() != ring.size()) return false;
        for (std::size_t i = 0; i < r.size(); ++i)
            if (norm(r[i] - ring[i]) > 1e-6) return false;
        return true;
    });
}

TEST(Aid, AJigsPlateHasItsSlotsWhereTheSheetHasThem) {
    const Job job = Job::demo();
    const TransferSet set = transfers(job.order, job.plan, job.facts);
    ASSERT_FALSE(set.jigs.empty());
    int plates = 0;
    for (const Aid& aid : aids_of(job.order, job.plan)) {
        if (aid.kind != AidKind::jig_plate) continue;
        ++plates;
        const auto plate = outlines(aid.whole.marks);
        const JigSheet& sheet = set.jigs.front();
        const Jig& jig = *find_jig(job.order, sheet.jig);
        int slots = 0;
        for (const Ring& r : outlines(sheet.piece.picture))  // the front half of what is printed
            if (bounds(r).x1 <= jig.backer_width.mm() + 1e-6) {
                EXPECT_TRUE(drawn_there(plate, r));
                ++slots;
            }
        EXPECT_GE(slots, jig.rows * jig.columns);
    }
    EXPECT_EQ(plates, 1) << "fronts and backs share it";
}

TEST(Aid, AFlagsBorderIsItsSheetAndBothOutlinesLieWhereTheyArePrinted) {
    const Job job = Job::demo();
    const TransferSet set = transfers(job.order, job.plan, job.facts);
    int borders = 0;
    for (const Decoration& d : job.order.decorations) {
        if (!d.making.two_sided) continue;
        const DecorationFit& fitted = *find_fit(job.plan, d.id);
        for (const SizeFit& s : fitted.sizes) {
            const auto aid = aid_for(job.order, job.plan, d, fitted, s);
            ASSERT_TRUE(aid);
            EXPECT_EQ(aid->kind, AidKind::fold_and_border);
            const MakingOf* making = find_making(set, d.id, s.size);
            ASSERT_NE(making, nullptr);
            const Piece& piece = making->made->pieces.at(0);
            const auto drawn = outlines(aid->whole.marks);
            EXPECT_TRUE(drawn_there(drawn, piece.contour.outer)) << "the border holds the sheet as it is cut";
            int shared = 0;
            for (const Ring& r : outlines(piece.picture)) shared += drawn_there(drawn, r) ? 1 : 0;
            EXPECT_GE(shared, 2) << "front and back";
            ++borders;
        }
    }
    EXPECT_GT(borders, 0);
}

TEST(Aid, OneForEachBlankThatCallsForItAndNoneElse) {
    const Job job = Job::demo();
    std::map<AidKind, int> kinds;
    const test::Folder folder;
    for (const Aid& aid : aids_of(job.order, job.plan)) {
        ++kinds[aid.kind];
        EXPECT_EQ(static_cast<int>(aid.tiles.size()), aid.layout.pages());
        const bool calibrated = std::any_of(aid.whole.marks.begin(), aid.whole.marks.end(), [](const Mark& m) {
            const auto* path = std::get_if<PathMark>(&m);
            return path != nullptr && path->rings.size() == 1 && path->rings[0].size() == 2 &&
                   std::abs(norm(path->rings[0][1] - path->rings[0][0]) - 100) < 1e-9;
        });
        EXPECT_TRUE(calibrated) << aid.title;
        write_pages(folder / (file_stem(aid.id) + ".pdf"), aid.tiles, job.art);
    }
    EXPECT_EQ(kinds.size(), 4u);
    const Decoration& kite = *find_decoration(job.order, "crew-kite");
    EXPECT_FALSE(aid_kind(job.order, kite));
}

TEST(Template, JoinMarksStandOnNoWords) {
    const Job job = Job::demo();
    std::vector<GuidePage> pages;
    for (const Aid& aid : aids_of(job.order, job.plan)) pages.insert(pages.end(), aid.tiles.begin(), aid.tiles.end());
    for (const Guide& g : guides(job.order, job.plan, job.facts).guides) pages.insert(pages.end(), g.tiles.begin(), g.tiles.end());
    int joins = 0;
    for (const GuidePage& page : pages) {
        std::vector<Rect> words, marks;
        for (const Mark& m : page.drawing.marks) {
            const auto* t = std::get_if<TextMark>(&m);
            if (t == nullptr || t->degrees != 0) continue;
            const double w = text_width_guess(t->text, t->size);
            const double x = t->at.x - (t->align == Align::centre ? w / 2 : t->align == Align::right ? w : 0);
            (t->text.find("·") != std::string::npos && t->size < 2.5 ? marks : words).push_back({x, t->at.y - t->size, x + w, t->at.y});
        }
        for (const Rect& mark : marks) {
            ++joins;
            for (const Rect& w : words) EXPECT_FALSE(w.meets(mark)) << page.title;
        }
    }
    EXPECT_GT(joins, 100);
}

TEST(Code, ACardsCodeIsReadByAnotherProgramAndLeadsBack) {
    const Job job = Job::small();
    const test::Folder folder;
    const DecorationFit& fitted = job.plan.decorations[0];
    const SizeFit& size = fitted.sizes[2];
    const Guide guide = guide_for(job.order, job.order.decorations[0], fitted, size, job.facts.begin()->second.outline);
    write_pages(folder / "card.pdf", {guide.card}, job.art);
    ASSERT_EQ(test::run("pdftoppm -r 200 -png '" + (folder / "card.pdf") + "' '" + (folder / "card") + "'").code, 0);
    ASSERT_TRUE(test::has_program("zbarimg"));
    const std::string read = test::run("zbarimg -q --raw '" + (folder / "card-1.png") + "'").out;
    const std::size_t from = read.find("orthema:");  // warnings of the system come before it
    ASSERT_NE(from, std::string::npos) << read;
    const auto code = code_from(read.substr(from, read.find('\n', from) - from));
    ASSERT_TRUE(code) << read;
    EXPECT_EQ(code->decoration, fitted.decoration);
    EXPECT_EQ(code->size, size.size);
    EXPECT_EQ(code->revision, guide.revision);
    for (const char* other : {"", "orthema:", "orthema:a/b", "http://a/b/c", "orthema://", "orthema:/M/X"})
        EXPECT_FALSE(code_from(other)) << other;
    EXPECT_TRUE(code_modules(std::string(5000, 'x')).empty());
}

TEST(Code, PieceLabelsCarryOneWhereThereIsRoom) {
    test::LaidOrder laid("film-559");
    laid.order.guide_setup.label_codes = true;
    const SheetPlan plan = sheet_plan(laid.order, laid.set);
    const Sheet& sheet = plan.media.at(0).sheets.at(0);
    const SheetLabels labels = sheet_labels(laid.order, sheet, laid.set);
    int codes = 0;
    for (const SheetLabel& l : labels.labels) {
        codes += l.code.empty() ? 0 : 1;
        for (const SheetLabel& other : labels.labels) EXPECT_TRUE(&l == &other || !l.box.meets(other.box));
    }
    ASSERT_GT(codes, 0);
    const test::Folder folder;
    ASSERT_TRUE(write_png(folder / "sheet.png", sheet_page(laid.order, sheet, laid.set, labels), laid.art, 200).ok());
    const std::string read = test::run("zbarimg -q --raw '" + (folder / "sheet.png") + "'").out;
    const std::size_t at = read.find("orthema:front/");
    ASSERT_NE(at, std::string::npos) << read;
    EXPECT_TRUE(code_from(read.substr(at, read.find('\n', at) - at)));
}

TEST(Revision, ChangesWithTheFitAndOnlyWithIt) {
    Job job = Job::small();
    const auto revisions = [&](const Order& o) {
        std::vector<std::string> out;
        const FitPlan p = fit(o, job.facts);
        for (const SizeFit& s : p.decorations[0].sizes) out.push_back(guide_revision(o, o.decorations[0], s));
        return out;
    };
    const auto before = revisions(job.order);
    Order named = job.order;
    named.name = "Another name";
    named.lines[0].quantity += 3;
    EXPECT_EQ(revisions(named), before);
    Order moved = job.order;
    moved.decorations[0].pins.push_back({"M", {}, Length::from_mm(5), {}});
    const auto after = revisions(moved);
    for (std::size_t i = 0; i < before.size(); ++i) EXPECT_EQ(after[i] != before[i], job.plan.decorations[0].sizes[i].size == "M") << i;
    const Order printed = with_guides_printed(job.order, job.plan);
    EXPECT_TRUE(stale_guides(printed, job.plan).empty());
    Order later = printed;
    later.decorations[0].pins = moved.decorations[0].pins;
    const Findings stale = stale_guides(later, fit(later, job.facts));
    ASSERT_EQ(stale.size(), 1u);
    EXPECT_NE(finding_text(stale[0], Unit::mm).find("(M)"), std::string::npos);
}

TEST(RunSheet, EveryLoadIsOnPaperWithItsRecipeAndCautions) {
    const Job job = Job::demo();
    const test::Folder folder;
    const PressPlan press = job.press();
    write_pages(folder / "run.pdf", run_sheet(job.order, job.plan, press), job.art);
    const std::string text = words_of(folder / "run.pdf");
    for (const char* words : {"gloves", "Ceramic", "Infant wear", "supplier's sheet", "TRIAL", "pre-press 4 s at 150 °C"})
        EXPECT_NE(text.find(words), std::string::npos) << words;
    int pieces = 0, ordered = 0;
    for (const PickRow& r : pick_rows(job.order, job.plan, press)) pieces += r.pieces;
    for (const DecorationFit& f : job.plan.decorations)
        for (const SizeFit& s : f.sizes) ordered += s.quantity;
    EXPECT_EQ(pieces, ordered);
    const auto charts = wall_chart(job.order, job.plan, {"adult-tee", "ash"});
    write_pages(folder / "chart.pdf", {charts}, job.art);
    const std::string chart = words_of(folder / "chart.pdf");
    for (const char* size : {"S ×9", "3XL ×4"}) EXPECT_NE(chart.find(size), std::string::npos) << chart;
}

TEST(PressTables, PlanPickListAndCalendar) {
    const Job job = Job::demo();
    const PressPlan press = job.press();
    const auto plan = parse_table(press_plan_csv(job.order, press));
    ASSERT_TRUE(plan.ok());
    EXPECT_EQ(plan->rows.size(), press.shop.tasks.size());
    double last = 0;
    for (const auto& row : plan->rows) {
        ASSERT_EQ(row.size(), plan->header.size());
        EXPECT_GE(std::stod(row[2]), last);
        last = std::stod(row[2]);
    }
    const auto picks = parse_table(pick_csv(job.order, job.plan, press));
    ASSERT_TRUE(picks.ok());
    EXPECT_EQ(picks->rows.size(), pick_rows(job.order, job.plan, press).size());
    const auto calendar = press_ics(job.order, job.plan, press);
    ASSERT_TRUE(calendar);
    std::size_t at = 0, begins = 0, ends = 0;
    while (at < calendar->size()) {
        const std::size_t end = calendar->find("\r\n", at);
        ASSERT_NE(end, std::string::npos) << "lines end with CR LF";
        const std::string line = calendar->substr(at, end - at);
        EXPECT_LE(line.size(), 75u);
        begins += line == "BEGIN:VEVENT" ? 1 : 0;
        ends += line == "END:VEVENT" ? 1 : 0;
        if (line.rfind("DTSTART:", 0) == 0) EXPECT_EQ(line.substr(8, 9), "20270612T");
        at = end + 2;
    }
    EXPECT_EQ(begins, ends);
    EXPECT_GE(begins, 4u);
    Order undated = job.order;
    undated.due.clear();
    EXPECT_FALSE(press_ics(undated, job.plan, press));
    undated.due = "soon";
    EXPECT_FALSE(press_ics(undated, job.plan, press));
}

}  // namespace TESTED
}  // namespace orthema
