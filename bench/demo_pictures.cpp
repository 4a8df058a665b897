// The kite stall's totes: a photograph whose background is taken out, written beside the demo order.
// usage: demo_pictures DEMO-FOLDER PICTURES-FOLDER OUT.orthema
#include <cstdio>

#include "core/fitting/mendings.h"
#include "core/order/rules.h"
#include "files/order_file.h"
#include "files/safe_file.h"

#include "demo_order.h"

using namespace orthema;

int main(int argc, char** argv) {
    if (argc < 4) return 2;
    const auto demo = open_order(argv[1]);
    const auto photograph = read_file(std::string(argv[2]) + "/kite-on-a-wall.jpg");
    if (!demo || !photograph) return std::fprintf(stderr, "%s\n", (!demo ? demo.sentence() : photograph.sentence()).c_str()), 1;
    Order o = bare_order(demo->order, "job-kite-totes");
    o.name = "Kite stall totes";
    o.customer = "Kite stall";
    o.note = "The kite that won last year, as it was photographed.";
    o.due = "2027-06-11";
    const BlankStyle* tote = find_style(o, "cotton-tote");
    if (tote == nullptr) return std::fprintf(stderr, "no totes in the demo\n"), 1;
    const RunKey run{tote->id, tote->colours.front().name};
    o = with_lines(o, {OrderLine{run.style, run.colour, tote->sizes.front(), 14, ""}});
    ArtBytes bytes;
    const auto art = add_art(o, bytes, std::make_shared<const std::string>(*photograph), "kite-on-a-wall.jpg");
    if (!art) return std::fprintf(stderr, "%s\n", art.sentence().c_str()), 1;
    Mending ground;
    ground.kind = MendKind::background;
    ground.counters = true;
    o = with_mendings(o, *art, {ground}, {});
    std::string made;
    o = with_new_design(o, run, Location::full_front, *find_art(o, *art), &made);
    Decoration d = *find_decoration(o, made);
    d.sizing.base_width = Length::from_mm(230);
    o = with_decoration(o, d);
    const Shared<KnownArt> known = read_all_art(o, bytes).known;
    o = settled(o, work(o, {}, known).transfer_set(), 5);
    const Work after = work(o, {}, known);
    std::printf("%s: %d pieces, %zu transfers\n", o.name.c_str(), garments_in(o), after.transfer_set().transfers.size());
    for (const Finding& f : after.findings)
        if (f.severity != Severity::note) std::printf("  %s\n", finding_text(f, o.unit).c_str());
    if (auto saved = save_order(argv[3], o, bytes); !saved) return std::fprintf(stderr, "%s\n", saved.sentence().c_str()), 1;
    return 0;
}
