#include "core/artwork/print_colours.h"

#include <algorithm>
#include <cmath>
#include <optional>
#include <vector>

namespace orthema {

namespace {

struct Lab {
    double l, a, b;
    friend Lab operator-(Lab p, Lab q) { return {p.l - q.l, p.a - q.a, p.b - q.b}; }
};
Lab across(Lab p, Lab q) { return {p.a * q.b - p.b * q.a, p.b * q.l - p.l * q.b, p.l * q.a - p.a * q.l}; }
double along(Lab p, Lab q) { return p.l * q.l + p.a * q.a + p.b * q.b; }

// Solid overprints of usual process inks on coated white, and the ground and black: typical figures.
constexpr Lab white{95, 0, -2}, black{16, 0, 0};
constexpr std::array<Lab, 6> solids{
    {{48, 74, -3}, {47, 68, 48}, {89, -5, 93}, {50, -65, 27}, {55, -37, -50}, {24, 22, -46}}};  // magenta, red, yellow, green, cyan, blue

constexpr double clearly = 14, enough = 0.05;

/// Where a ray from `from` along `way` leaves a triangle's plane within it, in lengths of `way`.
std::optional<double> meets(Lab from, Lab way, Lab p, Lab q, Lab r) {
    const Lab e1 = q - p, e2 = r - p, h = across(way, e2);
    const double det = along(e1, h);
    if (std::abs(det) < 1e-12) return std::nullopt;
    const Lab s = from - p;
    const double u = along(s, h) / det;
    const Lab k = across(s, e1);
    const double v = along(way, k) / det, t = along(e2, k) / det;
    if (u < -1e-9 || v < -1e-9 || u + v > 1 + 1e-9 || t < 0) return std::nullopt;
    return t;
}

}  // namespace

double beyond_inks(Colour colour) {
    const auto [l, a, b] = lab_of(colour);
    const double chroma = std::hypot(a, b);
    if (chroma < 1) return 0;
    const Lab grey{std::clamp(l, black.l + 1, white.l - 1), 0, 0}, way{0, a / chroma, b / chroma};
    double reach = 0;
    for (std::size_t i = 0; i < solids.size(); ++i)
        for (const Lab& end : {white, black})
            if (const auto t = meets(grey, way, end, solids[i], solids[(i + 1) % solids.size()])) reach = std::max(reach, *t);
    return std::max(0.0, chroma - reach);
}

const char* hue_name(Colour colour) {
    const auto [l, a, b] = lab_of(colour);
    const double h = std::fmod(std::atan2(b, a) * 180 / M_PI + 360, 360);
    if (h < 20 || h >= 345) return l > 65 ? "pink" : "magenta";
    if (h < 50) return "red";
    if (h < 78) return "orange";
    if (h < 112) return "yellow";
    if (h < 165) return "green";
    if (h < 220) return "blue-green";
    if (h < 300) return "blue";
    return "violet";
}

std::string dulled_hues(const ArtFacts& facts) {
    std::vector<std::string> names;
    for (const ArtFacts::Ink& ink : facts.inks)
        if (ink.share >= enough && beyond_inks(ink.colour) >= clearly)
            if (const std::string name = hue_name(ink.colour); std::find(names.begin(), names.end(), name) == names.end())
                names.push_back(name);
    std::string out;
    for (std::size_t i = 0; i < names.size(); ++i) out += (i == 0 ? "" : i + 1 == names.size() ? " and " : ", ") + names[i];
    return out;
}

}  // namespace orthema
