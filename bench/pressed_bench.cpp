// Pressed pieces by the simulated camera, measured: how far the design's place, turn and size lie off on the panel that was found, and
// whether the errors stated cover that.
// usage: pressed_bench [pictures] [first seed] [cards: 1, 4 or 0 for both] [width]
#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <map>
#include <numbers>
#include <random>

#include "core/records/of_load.h"
#include "files/photo_tape.h"
#include "photo_piece.h"

using namespace orthema;

namespace {

constexpr Kind kinds[] = {{Family::adult_tee, Face::front},   {Family::infant_bodysuit, Face::front},
                          {Family::crew_fleece, Face::front}, {Family::reversible_jersey, Face::front},
                          {Family::tote, Face::front},        {Family::adult_tee, Face::back}};

void paint(std::uint8_t* pixel, const Colour& c) {
    const auto byte = [](double v) { return static_cast<std::uint8_t>(std::lround(255 * v)); };
    pixel[0] = byte(c.r);
    pixel[1] = byte(c.g);
    pixel[2] = byte(c.b);
    pixel[3] = 255;
}

/// Kites and bars in two colours, on nothing.
PixelImage drawn_design(std::mt19937& random, const Colour& a, const Colour& b) {
    PixelImage out;
    out.width = 420;
    out.height = 260 + static_cast<int>(random() % 260);
    out.rgba.assign(out.count() * 4, 0);
    const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
    for (int shape = 0; shape < 5; ++shape) {
        const double cx = shape == 0 ? 0.5 : 0.2 + 0.6 * share(), cy = shape == 0 ? 0.4 : 0.2 + 0.6 * share(),
                     r = shape == 0 ? 0.4 : 0.08 + 0.1 * share(), tall = 0.8 + 0.8 * share();
        const Colour& c = shape % 2 == 0 ? a : b;
        for (int y = 0; y < out.height; ++y)
            for (int x = 0; x < out.width; ++x) {
                const double u = std::abs(x - cx * out.width) / (r * out.width), v = std::abs(y - cy * out.height) / (r * tall * out.width);
                const bool in = shape % 3 == 2 ? u < 1 && v < 0.3 : u + v < 1;
                if (!in) continue;
                std::uint8_t* p = out.at(x, y);
                paint(p, c);
            }
    }
    // a bar along the foot, its ends on both edges: the ink fills its box
    for (int y = out.height - 30; y < out.height; ++y)
        for (int x = 0; x < out.width; ++x) {
            std::uint8_t* p = out.at(x, y);
            paint(p, b);
        }
    const Rect box = ink_box(out.view());
    PixelImage cut;
    cut.width = static_cast<int>(box.width());
    cut.height = static_cast<int>(box.height());
    for (int y = 0; y < cut.height; ++y) {
        const std::uint8_t* row = out.at(static_cast<int>(box.x0), static_cast<int>(box.y0) + y);
        cut.rgba.insert(cut.rgba.end(), row, row + 4 * cut.width);
    }
    return cut;
}

struct Tally {
    std::vector<double> off;
    int covered = 0, within = 0;
    void add(double by, double error, double allowed) {
        off.push_back(std::abs(by));
        covered += std::abs(by) <= error ? 1 : 0;
        within += std::abs(by) <= allowed ? 1 : 0;
    }
};

}  // namespace

int main(int argc, char** argv) {
    const int pictures = argc > 1 ? std::atoi(argv[1]) : 24, first = argc > 2 ? std::atoi(argv[2]) : 1,
              cards_asked = argc > 3 ? std::atoi(argv[3]) : 0, width = argc > 4 ? std::atoi(argv[4]) : 2400;
    std::map<std::string, Tally> all;
    int refused = 0, measured = 0;
    double took = 0;
    for (int k = 0; k < pictures; ++k) {
        const unsigned seed = static_cast<unsigned>(first + k);
        std::mt19937 random(seed);
        auto piece = photo_piece(kinds, k, seed, cards_asked, width, random);
        if (!piece) continue;
        auto& [chart, truth, cards, scene, asked] = *piece;
        const auto share = [&] { return static_cast<double>(random()) / 4294967296.0; };
        const bool light = scene.cloth.r + scene.cloth.g + scene.cloth.b > 1.5;
        const Colour a = light ? Colour{0.67, 0.16, 0.24} : Colour{0.94, 0.86, 0.24},
                     b = light ? Colour{0.08, 0.24, 0.35} : Colour{0.9, 0.92, 0.94};
        PressedOn on;
        on.picture = drawn_design(random, a, b);
        const Panel panel = family_panel(asked.family, truth, asked.face), usual = family_panel(asked.family, chart, asked.face);
        const double wide = std::min(280.0, 0.5 * (right_edge_x(usual, usual.top_y + 0.5 * (usual.bottom_y - usual.top_y)) -
                                                   left_edge_x(usual, usual.top_y + 0.5 * (usual.bottom_y - usual.top_y))));
        const double high = wide * on.picture.height / on.picture.width;
        const double drop = std::min(70.0, 0.2 * (usual.bottom_y - usual.top_y));
        const Rect planned{-wide / 2, usual.top_y + drop, wide / 2, usual.top_y + drop + high};
        const Point slip{16 * (share() - 0.5), 20 * (share() - 0.5)};
        const double shrink = 1 - 0.02 * share();
        on.box = {-wide / 2 * shrink + slip.x, panel.top_y + drop + slip.y, wide / 2 * shrink + slip.x,
                  panel.top_y + drop + slip.y + high * shrink};
        on.angle = (share() - 0.5) * 6 * std::numbers::pi / 180;
        scene.pressed.push_back(on);
        const Photo photo = simulated_photo(scene, seed);
        const auto table = vision::find_table(photo, {});
        const auto blank = table ? vision::measure_blank(photo, *table, asked, {}) : Result<BlankSeen>(Error{table.sentence()});
        if (!blank || !blank->refused.empty()) {
            std::printf("seed %u %s: blank refused: %s\n", seed, family_name(asked.family),
                        !blank ? blank.sentence().c_str() : blank->refused.c_str());
            ++refused;
            continue;
        }
        const auto t0 = std::chrono::steady_clock::now();
        const auto seen = vision::find_design(photo, *table, *blank, {on.picture, planned, asked.thickness}, {});
        took += std::chrono::duration<double>(std::chrono::steady_clock::now() - t0).count();
        ++measured;
        if (!seen || !seen->refused.empty()) {
            std::printf("seed %u %s: refused: %s match %.2f\n", seed, family_name(asked.family),
                        !seen ? seen.sentence().c_str() : seen->refused.c_str(), seen ? seen->match : 0);
            ++refused;
            continue;
        }
        const auto box_of = [](Point middle, double w, double h) {
            return Rect{middle.x - w / 2, middle.y - h / 2, middle.x + w / 2, middle.y + h / 2};
        };
        const Taped read = taped_on(measured_panel(asked, *blank), box_of(seen->middle, seen->width, seen->height), seen->angle);
        const Taped real = taped_on(panel, on.box, on.angle);
        const double aside = ((*read[TapeAt::left] - *real[TapeAt::left]) - (*read[TapeAt::right] - *real[TapeAt::right])) / 2;
        const double down = *read[TapeAt::top] - *real[TapeAt::top];
        const double tilt = (seen->angle - on.angle) * 180 / std::numbers::pi;
        all["aside, mm"].add(aside, seen->middle_error.x, 1.5);
        all["down, mm"].add(down, seen->middle_error.y, 1.5);
        all["tilt, degrees"].add(tilt, seen->angle_error * 180 / std::numbers::pi, 0.3);
        all["width, mm"].add(seen->width - on.box.width(), seen->width_error, 1.5);
        all["height, mm"].add(seen->height - on.box.height(), seen->height_error, 1.5);
        if (std::getenv("EVERY") != nullptr || std::abs(aside) > 1.5 || std::abs(down) > 1.5 || std::abs(tilt) > 0.3 || seen->mirrored)
            std::printf(
                "seed %u %s %d cards: aside %.2f ± %.2f down %.2f ± %.2f tilt %.2f ± %.2f width %.2f height %.2f match %.3f missing %.3f "
                "(%zu, more %zu)%s\n",
                seed, family_name(asked.family), cards, aside, seen->middle_error.x, down, seen->middle_error.y, tilt,
                seen->angle_error * 180 / std::numbers::pi, seen->width - on.box.width(), seen->height - on.box.height(), seen->match,
                seen->missing_share, seen->missing.size(), seen->more.size(), seen->mirrored ? " MIRRORED" : "");
        std::fflush(stdout);
    }
    for (auto& [name, t] : all) {
        std::sort(t.off.begin(), t.off.end());
        std::printf("%-14s %4zu: %5.1f %% within, %5.1f %% covered, 95 %% within %.2f\n", name.c_str(), t.off.size(),
                    100.0 * t.within / static_cast<double>(t.off.size()), 100.0 * t.covered / static_cast<double>(t.off.size()),
                    t.off[t.off.size() * 95 / 100]);
    }
    std::printf("%d refused of %d; a design found in %.3f s on average\n", refused, pictures, took / std::max(1, measured));
    return 0;
}
