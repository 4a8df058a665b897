// How often what is said of records is right: simulated hands by many seeds. usage: record_study [SEEDS [FIRST]]
#include <cstdio>
#include <cstdlib>

#include "support/record_study.h"

int main(int argc, char** argv) {
    const int seeds = argc > 1 ? std::atoi(argv[1]) : 1000;
    const auto s = orthema::test::study(seeds, argc > 2 ? static_cast<unsigned>(std::atoi(argv[2])) : 1);
    const auto share = [&](int n) { return 100.0 * n / s.seeds; };
    std::printf("seeds                                              %d\n", s.seeds);
    std::printf("no bias, 60 pieces: a correction is proposed       %.2f %%  (at most 2)\n", share(s.false_place));
    std::printf("4 mm at a spread of 3 mm, found by the 16th        %.1f %%  (95)\n", share(s.found_by_16));
    std::printf("4 mm on one of two presses, three sizes, 60: named %.1f %%  (90)\n", share(s.press_named));
    std::printf("slip of 6 mm within 8 pieces, centre known         %.1f %%  (95)\n", share(s.slip_known));
    std::printf("slip of 6 mm within 8 pieces, after 16 of the run  %.1f %%  (90)\n", share(s.slip_unknown));
    std::printf("false alarms: one in %.0f pieces, centre from the run; one in %.0f, centre known (300)\n",
                static_cast<double>(s.false_pieces) / static_cast<double>(s.false_alarms),
                static_cast<double>(s.false_pieces) / static_cast<double>(s.known_alarms));
    std::printf("after taking it: within 1.7 mm from 16             %.1f %%  (95)\n", 100.0 * s.within_17 / s.found_by_16);
    std::printf("                 within 1 mm from 48               %.1f %%  (95)\n", 100.0 * s.within_10 / s.seeds);
    std::printf("intervals that cover                               %.1f %%\n", 100.0 * s.covers / s.intervals);
    return 0;
}
