// The small orders of the fair's neighbours, which share its film: written beside the demo order. Says what they take alone and together.
// usage: demo_neighbours DEMO-FOLDER ART-FOLDER OUT-FOLDER
#include <cstdio>
#include <filesystem>

#include "core/order/rules.h"
#include "core/pipeline/gang.h"
#include "files/order_file.h"
#include "files/safe_file.h"

#include "demo_order.h"

using namespace orthema;

namespace {

struct Wanted {
    const char *job, *file, *name, *customer, *due, *note, *picture, *style, *colour;
    int due_at;
    Location location;
    double width;
    std::vector<SizeCount> pieces;
};

double film_of(const SheetPlan& plan) {
    double mm = 0;
    for (const MediumPlan& m : plan.media) mm += m.length;
    return mm / 1000;
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 4) return 2;
    const std::string art_folder = argv[2], to = argv[3];
    auto demo = open_order(argv[1]);
    if (!demo) return std::fprintf(stderr, "%s\n", demo.sentence().c_str()), 1;
    const std::vector<Wanted> all = {{"job-millrace",
                                      "millrace-rowers",
                                      "Millrace rowers",
                                      "Millrace rowing club",
                                      "2027-06-12",
                                      "At the boat house by eleven.",
                                      "crossed-oars.svg",
                                      "adult-tee",
                                      "navy",
                                      11 * 60,
                                      Location::full_back,
                                      260,
                                      {{"S", 3}, {"M", 5}, {"L", 4}, {"XL", 2}}},
                                     {"job-quay",
                                      "quay-bakery",
                                      "Quay bakery",
                                      "The bakery on the quay",
                                      "2027-06-12",
                                      "",
                                      "quay-loaf.svg",
                                      "canvas-apron",
                                      "natural",
                                      13 * 60,
                                      Location::centre_chest,
                                      180,
                                      {{"OS", 8}}},
                                     {"job-lantern",
                                      "lantern-walk",
                                      "Lantern walk",
                                      "School on the hill",
                                      "2027-06-13",
                                      "Small sizes first, please.",
                                      "hill-lantern.svg",
                                      "youth-tee",
                                      "sun",
                                      16 * 60,
                                      Location::full_front,
                                      160,
                                      {{"XS", 4}, {"S", 6}, {"M", 5}, {"L", 3}}}};
    std::filesystem::create_directories(to);
    std::vector<Order> orders{demo->order};
    ArtBytes bytes = demo->art;
    for (const Wanted& w : all) {
        Order o = bare_order(demo->order, w.job);
        o.name = w.name;
        o.customer = w.customer;
        o.note = w.note;
        o.due = w.due;
        o.press_run.due = w.due_at;
        ArtBytes own;
        auto text = read_file(art_folder + "/" + w.picture);
        if (!text) return std::fprintf(stderr, "%s\n", text.sentence().c_str()), 1;
        auto added = add_art(o, own, std::make_shared<const std::string>(std::move(*text)), w.picture);
        if (!added) return std::fprintf(stderr, "%s\n", added.sentence().c_str()), 1;
        const RunKey run{w.style, w.colour};
        for (const SizeCount& c : w.pieces) o = with_quantity(o, run, c.size, c.quantity);
        std::string made;
        o = with_new_design(o, run, w.location, o.art.front(), &made);
        Decoration d = *find_decoration(o, made);
        d.sizing.base_width = Length::from_mm(w.width);
        o = with_decoration(o, d);
        const Shared<KnownArt> known = read_all_art(o, own).known;
        const Work before = work(o, {}, known);
        o = settled(o, before.transfer_set(), 6);
        const Work after = work(o, {}, known);
        std::printf("%s: %d pieces, film %.3f m\n", w.name, garments_in(o), film_of(after.sheet_plan()));
        if (auto saved = save_order(to + "/" + w.file + ".orthema", o, own); !saved)
            return std::fprintf(stderr, "%s\n", saved.sentence().c_str()), 1;
        bytes.insert(own.begin(), own.end());
        orders.push_back(o);
    }
    const auto together = [&](const std::vector<Order>& jobs, const char* what) {
        auto first = ganged(jobs, "gang", "Together");
        const Shared<KnownArt> art = read_all_art(*first, bytes).known;
        const Order laid = *ganged_and_laid(jobs, "gang", "Together", art);
        const Work apart = work(laid, {}, art);
        const Order one = settled(laid, apart.transfer_set(), 20);
        std::printf("%s: each on its own sheets %.3f m, together %.3f m\n", what, film_of(apart.sheet_plan()),
                    film_of(work(one, {}, art).sheet_plan()));
    };
    together({orders.begin() + 1, orders.end()}, "the neighbours");
    together(orders, "the fair and its neighbours");
    return 0;
}
