// Scenes of the simulated camera that the tests measure.
#pragma once

#include <random>

#include "devices/camera.h"
#include "vision/vision.h"

namespace orthema {

inline Measures tee() {
    Measures m;
    const auto set = [&](Measure k, double mm) { m[k].value = Length::from_mm(mm); };
    set(Measure::body_length, 737);
    set(Measure::chest, 533);
    set(Measure::hem_width, 530);
    set(Measure::neck_width, 180);
    set(Measure::front_neck_drop, 100);
    set(Measure::back_neck_drop, 25);
    set(Measure::rib_height, 20);
    set(Measure::across_shoulder, 470);
    set(Measure::shoulder_slope, 42);
    set(Measure::armhole_depth, 260);
    set(Measure::sleeve_length, 215);
    set(Measure::sleeve_opening, 190);
    set(Measure::hem_curve, 0);
    return m;
}

inline Scene small_picture(Scene s, int width) {
    const double k = static_cast<double>(width) / s.lens.width;
    s.lens = with_width(s.lens, width);
    s.lens.blur = std::max(0.5, s.lens.blur * k);
    return s;
}

inline BlankAsked asked_for(const Scene& s, double off) {
    BlankAsked asked;
    asked.family = s.family;
    asked.face = s.face;
    asked.expected = s.measures;
    std::mt19937 random(3);
    for (auto& [m, f] : asked.expected) f.value = f.value * (1 + off * (2 * static_cast<double>(random()) / 4294967296.0 - 1));
    return asked;
}

}  // namespace orthema
