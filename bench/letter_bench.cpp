// A team of two hundred on eight sizes: setting every word, fitting, and the transfers; beside it, as a yardstick, one picture read.
// usage: letter_bench DEMO-FOLDER
#include <chrono>
#include <cstdio>

#include "core/order/roster.h"
#include "core/order/rules.h"
#include "files/lettering.h"
#include "files/order_file.h"

#include "demo_order.h"

using namespace orthema;

namespace {

double ms_of(const auto& what) {
    const auto from = std::chrono::steady_clock::now();
    what();
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count();
}

}  // namespace

int main(int argc, char** argv) {
    if (argc < 2) return 2;
    const auto demo = open_order(argv[1]);
    if (!demo) return std::fprintf(stderr, "%s\n", demo.sentence().c_str()), 1;
    Order o = bare_order(demo->order, "bench");
    const BlankStyle& tee = *find_style(o, "adult-tee");
    const char* syllables[] = {"mar", "low", "fea", "ther", "stone", "wick", "hill", "kes", "trel", "van", "der", "quay", "brin", "dle"};
    std::vector<OrderLine> lines;
    for (int i = 0; i < 200; ++i) {
        OrderLine l{tee.id, tee.colours.front().name, tee.sizes[std::size_t(i) % std::min<std::size_t>(8, tee.sizes.size())], 1, ""};
        for (int k = 0; k < 2 + i % 3; ++k) l.name += syllables[(i * 7 + k * 5) % 14];
        l.name += std::to_string(i);  // no two alike
        l.number = std::to_string(i);
        lines.push_back(l);
    }
    o = with_lines(o, lines);
    ArtBytes bytes;
    const auto& faces = shipped_typefaces();
    const std::string id = enrol_lettering(o, bytes, Lettering{}, faces[0], &faces[1], "Names");
    o = with_new_design(o, {tee.id, tee.colours.front().name}, Location::full_back, *find_art(o, id));
    load_all_art(demo->order, demo->art, nullptr);  // readers are awake
    LoadedArtById art;
    for (int round = 0; round < 3; ++round) {
        const double set = ms_of([&] { art = load_all_art(o, bytes, nullptr); });
        const ArtFactsById facts = facts_of(art);
        FitPlan plan;
        const double fitted = ms_of([&] { plan = fit(o, facts); });
        TransferSet made;
        const double transferred = ms_of([&] { made = transfers(o, plan, facts); });
        std::printf("200 names: set %.0f ms, fitted %.1f ms, %zu transfers %.0f ms\n", set, fitted, made.transfers.size(), transferred);
    }
    return 0;
}
