// Records of years: of 300 orders, by three years, four presses, twelve blanks and two pairs of hands; one in five is measured.
#pragma once

#include <cstdio>
#include <random>

#include "devices/hand.h"

inline std::vector<orthema::PressRecord> many_records(int count) {
    using namespace orthema;
    HandSetup setup;
    Hand hand(setup);
    std::mt19937 dice(1);
    std::vector<PressRecord> made;
    for (int i = 0; i < count; ++i) {
        PressRecord r;
        r.id = "job-" + std::to_string(i % 300) + "/shift/load-" + std::to_string(i);
        char at[32];
        std::snprintf(at, sizeof at, "20%02d-%02d-%02dT%02d:%02d:%02d", 24 + i * 3 / count, 1 + i * 36 / count % 12, 1 + i % 28, 8 + i % 9,
                      i % 60, i * 7 % 60);
        r.at = at;
        r.order = "order " + std::to_string(i % 300);
        r.job = "job-" + std::to_string(i % 300);
        r.load = "load-" + std::to_string(i);
        r.design = "design-" + std::to_string(dice() % 60);
        r.size = std::string(1, "SMLX"[dice() % 4]);
        r.style = "style-" + std::to_string(dice() % 12);
        r.method = "method-" + std::to_string(dice() % 4);
        r.press = "press-" + std::to_string(dice() % 4);
        r.platen = "large";
        r.hands = dice() % 3 == 0 ? "TS" : "MK";
        r.planned = 38;
        r.acts = {{StepKind::pre_press, 150, 149, 4, Pressure::medium, Peel::cool},
                  {StepKind::press, 150, 148.6, 12, Pressure::medium, Peel::cool}};
        hand.press(r);
        if (i % 5 != 0) r.landing.reset();
        made.push_back(std::move(r));
    }
    return made;
}
