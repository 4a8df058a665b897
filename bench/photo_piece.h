// What the programs that measure photographs share: a piece of a kind with its chart, as it really is, before the simulated camera.
#pragma once

#include <optional>
#include <random>

#include "devices/camera.h"
#include "files/library.h"
#include "vision/vision.h"

namespace orthema {

struct Kind {
    Family family;
    Face face;
};

struct PhotoPiece {
    Measures chart, truth;
    int cards = 1;
    Scene scene;
    BlankAsked asked;
};

/// The k-th piece of those kinds in turn: its figures up to 2.5 % off its chart, one card and four by turns unless `cards` says. `random`
/// goes on.
template <class Kinds>
std::optional<PhotoPiece> photo_piece(const Kinds& kinds, int k, unsigned seed, int cards, int width, std::mt19937& random) {
    const Kind& kind = kinds[static_cast<std::size_t>(k) % std::size(kinds)];
    const BlankStyle* style = nullptr;
    for (const BlankStyle& s : starting_library().styles)
        if (s.family == kind.family) style = &s;
    if (style == nullptr) return std::nullopt;
    PhotoPiece out;
    out.chart = style->chart.at(style->sizes[random() % style->sizes.size()]);
    out.truth = out.chart;
    for (auto& [m, f] : out.truth)
        f.value = Length::from_mm(f.value.mm() * (1 + 0.05 * (static_cast<double>(random()) / 4294967296.0 - 0.5)));
    out.cards = cards != 0 ? cards : k / static_cast<int>(std::size(kinds)) % 2 == 0 ? 1 : 4;
    out.scene = usual_scene(kind.family, kind.face, out.truth, seed, out.cards);
    out.scene.lens = with_width(out.scene.lens, width);
    out.asked.family = kind.family;
    out.asked.face = kind.face;
    out.asked.expected = out.chart;
    out.asked.standing = out.scene.standing;
    return out;
}

}  // namespace orthema
