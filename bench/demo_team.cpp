// The kite race's team: one jersey for each person, with name and number, read from a list as it comes in and written beside the demo
// order. usage: demo_team DEMO-FOLDER LIST.csv OUT.orthema
#include <cstdio>

#include "core/order/intake.h"
#include "core/order/roster.h"
#include "core/order/rules.h"
#include "files/lettering.h"
#include "files/library.h"
#include "files/list.h"
#include "files/order_file.h"
#include "files/safe_file.h"

#include "demo_order.h"

using namespace orthema;

int main(int argc, char** argv) {
    if (argc < 4) return 2;
    auto demo = open_order(argv[1]);
    const auto list = read_file(argv[2]);
    if (!demo || !list) return std::fprintf(stderr, "%s\n", (!demo ? demo.sentence() : list.sentence()).c_str()), 1;
    Order o = bare_order(demo->order, "job-kite-race");
    o.name = "Kite race team";
    o.customer = "Hill kite racing team";
    o.note = "Each jersey is one rider's: pressed in the order of the pile.";
    o.due = "2027-06-12";
    o.press_run.due = 16 * 60;
    const auto tables = read_list(*list);
    if (!tables) return std::fprintf(stderr, "%s\n", tables.sentence().c_str()), 1;
    const Table& table = tables->front().table;
    const LineImport in = import_lines(table, guess_columns(table, o.styles.all()), o.styles.all());
    for (const BadRow& b : in.bad) std::fprintf(stderr, "row %d: %s\n", b.row, b.reason.said_to(Unit::mm).c_str());
    o = with_list(o, in.lines, Intake::add);
    ArtBytes bytes;
    const auto& faces = shipped_typefaces();
    const RunKey run{o.lines.all().front().style, o.lines.all().front().colour};
    struct Place {
        const char *name, *words;
        Location location;
        double width, height;  ///< of the field, mm; of its letters
        double arch;
        Colour colour, rim;
    };
    const Colour sun{0.96, 0.78, 0.25, 1}, white{1, 1, 1, 1}, navy{0.11, 0.18, 0.32, 1}, brick{0.71, 0.33, 0.24, 1};
    for (const Place& p : {Place{"Front number", "{number}", Location::centre_chest, 145, 110, 0, white, sun},
                           Place{"Back name", "{name}", Location::upper_back, 280, 47, 22, white, {}},
                           Place{"Back number", "{number}", Location::full_back, 255, 195, 0, white, sun},
                           Place{"Number, other side", "{number}", Location::reverse_front, 145, 110, 0, navy, brick}}) {
        Lettering l;
        l.words = p.words;
        l.height = p.height / p.width;
        l.arch = p.arch;
        l.colour = p.colour;
        if (p.arch == 0) l.rims = {{p.rim, 0.05}};
        const std::string art = enrol_lettering(o, bytes, l, p.arch == 0 ? faces[1] : faces[0], p.arch == 0 ? nullptr : &faces[1], p.name);
        std::string made;
        o = with_new_design(o, run, p.location, *find_art(o, art), &made);
        Decoration d = *find_decoration(o, made);
        d.sizing.base_width = Length::from_mm(p.width);
        if (p.location == Location::full_back) d.placing.offset = d.placing.offset + Length::from_mm(75);  // below the name
        o = with_decoration(o, d);
    }
    // a cap for everybody: its film is snipped to lie round the crown, and pressed by hand, field by field
    const BlankStyle* cap = find_style(o, "panel-cap");
    if (cap == nullptr) return std::fprintf(stderr, "no caps in the demo\n"), 1;
    Lettering team;
    team.words = "Kite race";
    team.height = 0.155;
    team.spacing = 0.12;
    team.colour = sun;
    const std::string words = enrol_lettering(o, bytes, team, faces.back(), nullptr, "Cap letters");
    BlankStyle taped = *cap;
    for (const auto& [size, across] : {std::pair{"youth", 141.0}, {"adult", 156.0}})
        taped.chart[size][Measure::crown_middle].value = Length::from_mm(across);
    for (BlankStyle& s : o.styles.own())
        if (s.id == taped.id) s = taped;
    for (const Press& p : starting_library().presses)
        if (p.id == "press-hand") o.presses.own().push_back(p);
    const RunKey caps{taped.id, taped.colours.front().name};
    o.lines.own().push_back({caps.style, caps.colour, "adult", 14, "the team's caps"});
    std::string made;
    o = with_new_design(o, caps, Location::cap_front, *find_art(o, words), &made);
    Decoration on_cap = *find_decoration(o, made);
    on_cap.press = "press-hand";
    on_cap.sizing.base_width = Length::from_mm(110);
    on_cap.sizing.past_platen = true;
    on_cap.making.snip_gap = Length::from_mm(2);
    o = with_decoration(o, on_cap);
    const Shared<KnownArt> known = read_all_art(o, bytes).known;
    const Work before = work(o, {}, known);
    o = settled(o, before.transfer_set(), 10);
    const Work after = work(o, {}, known);
    std::printf("%s: %d garments, %zu transfers\n", o.name.c_str(), garments_in(o), after.transfer_set().transfers.size());
    for (const Finding& f : after.findings)
        if (f.severity != Severity::note) std::printf("  %s\n", finding_text(f, o.unit).c_str());
    if (auto saved = save_order(argv[3], o, bytes); !saved) return std::fprintf(stderr, "%s\n", saved.sentence().c_str()), 1;
    return 0;
}
