#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

#include "core/artwork/lettering.h"

namespace orthema {

namespace {

constexpr int slices = 96;                  ///< of the height in which letters are seen
constexpr double above = 1.5, below = 0.6;  ///< capitals' heights over and under the base line that are looked at
constexpr double eye_depth = 0.28;          ///< a bay deeper than this counts as so deep, for the eye
constexpr double least_space = 0.6;         ///< of a space, where words close up
constexpr double eye_gap = 0.17;            ///< mean gap between digits
constexpr double all_the_way = 4;           ///< letter heights that a gap closes by: to where ink may be no nearer
constexpr double boundless = std::numeric_limits<double>::infinity();

/// Where a letter's ink begins and ends in every slice, from its origin.
struct Profile {
    std::array<double, slices> left, right;
};

Profile profile_of(const Region& outline) {
    Profile p;
    p.left.fill(boundless);
    p.right.fill(-boundless);
    const double tall = (above + below) / slices;
    const auto see = [&](int slice, double x) {
        if (slice < 0 || slice >= slices) return;
        auto& l = p.left[static_cast<std::size_t>(slice)];
        auto& r = p.right[static_cast<std::size_t>(slice)];
        l = std::min(l, x);
        r = std::max(r, x);
    };
    for (const Polygon& poly : outline)
        for (std::size_t i = 0; i < poly.outer.size(); ++i) {
            const Point a = poly.outer[i], b = poly.outer[(i + 1) % poly.outer.size()];
            const double from = (std::min(a.y, b.y) + above) / tall, to = (std::max(a.y, b.y) + above) / tall;
            for (int s = static_cast<int>(std::floor(from)); s <= static_cast<int>(std::floor(to)); ++s) {
                // the part of the edge that lies in the slice
                for (const double y :
                     {std::max(std::min(a.y, b.y), s * tall - above), std::min(std::max(a.y, b.y), (s + 1) * tall - above)}) {
                    const double t = std::abs(b.y - a.y) < 1e-12 ? 0 : std::clamp((y - a.y) / (b.y - a.y), 0.0, 1.0);
                    see(s, a.x + t * (b.x - a.x));
                    if (std::abs(b.y - a.y) < 1e-12) see(s, b.x);
                }
            }
        }
    return p;
}

/// Least distance along the base line between two letters whose origins coincide, neighbouring slices included; negative: how far
/// they overlap. None where they face nowhere. `lean`: by so much for each letter height they come nearer above the base line, on an arc.
double nearest(const Profile& a, const Profile& b, double reach, double lean = 0) {
    const int near = std::max(0, static_cast<int>(std::ceil(reach / ((above + below) / slices))));
    double least = boundless;
    for (int i = 0; i < slices; ++i)
        for (int k = std::max(0, i - near); k <= std::min(slices - 1, i + near); ++k) {
            const double right = a.right[static_cast<std::size_t>(i)], left = b.left[static_cast<std::size_t>(k)];
            if (right > -boundless && left < boundless) {
                const double up = above - (i + k) * 0.5 * (above + below) / slices;
                least = std::min(least, left - right - std::max(0.0, lean * up));
            }
        }
    return least;
}

/// Where b's origin stands from a's so that the eye sees the usual gap between two digits.
double eye_distance(const Profile& a, const Profile& b, double least_gap) {
    double edge_a = -boundless, edge_b = boundless;
    for (int i = 0; i < slices; ++i) {
        edge_a = std::max(edge_a, a.right[static_cast<std::size_t>(i)]);
        edge_b = std::min(edge_b, b.left[static_cast<std::size_t>(i)]);
    }
    double sum = 0;
    int looked_at = 0;
    for (int i = 0; i < slices; ++i) {
        const double right = a.right[static_cast<std::size_t>(i)], left = b.left[static_cast<std::size_t>(i)];
        if (right == -boundless && left == boundless) continue;
        sum += std::min(eye_depth, right == -boundless ? eye_depth : edge_a - right) +
               std::min(eye_depth, left == boundless ? eye_depth : left - edge_b);
        ++looked_at;
    }
    const double bays = looked_at == 0 ? 0 : sum / looked_at;
    const double at = edge_a - edge_b + eye_gap - bays;  // straight sides stand apart, round ones closer
    return std::max(at, least_gap - nearest(a, b, least_gap));
}

/// A word in one face: where letters stand by nature, and how near each may come to the one before.
struct Row {
    const ShapedWord* word = nullptr;
    std::vector<double> natural, least;  ///< from the letter before
    double rim = 0;

    [[nodiscard]] std::vector<double> places(double by) const {
        std::vector<double> at(natural.size(), 0.0);
        for (std::size_t i = 1; i < natural.size(); ++i) at[i] = at[i - 1] + std::max(std::min(natural[i], least[i]), natural[i] - by);
        return at;
    }
    [[nodiscard]] Rect ink(const std::vector<double>& at) const {
        Rect box{boundless, boundless, -boundless, -boundless};
        for (std::size_t i = 0; i < at.size(); ++i) {
            if (word->letters[i].outline.empty()) continue;
            Rect b = bounds(word->letters[i].outline);
            b.x0 += at[i];
            b.x1 += at[i];
            box = united(box, b);
        }
        return box.x1 < box.x0 ? Rect{} : box.grown(rim);
    }
    [[nodiscard]] double width(double by) const { return ink(places(by)).width(); }
};

Row row_of(const Lettering& l, const ShapedWord& word, bool number) {
    Row row;
    row.word = &word;
    for (const LetterRim& r : l.rims) row.rim += r.width;
    const double gap = l.least_gap + 2 * row.rim;
    std::vector<Profile> profiles;
    profiles.reserve(word.letters.size());
    for (const ShapedLetter& letter : word.letters) profiles.push_back(profile_of(letter.outline));
    for (std::size_t i = 0; i < word.letters.size(); ++i) {
        if (i == 0) {
            row.natural.push_back(0);
            row.least.push_back(0);
            continue;
        }
        const ShapedLetter &a = word.letters[i - 1], &b = word.letters[i];
        const bool ink = !a.outline.empty() && !b.outline.empty();
        // tops lean together where the middle hangs, feet where it is highest
        const double lean = -l.arch * std::numbers::pi / 180 * l.height * (b.at - a.at);
        const double near = ink ? nearest(profiles[i - 1], profiles[i], gap, lean) : boundless;
        double natural = number && ink ? eye_distance(profiles[i - 1], profiles[i], gap) + l.spacing : b.at - a.at + l.spacing;
        if (l.arch != 0 && near < boundless) natural = std::max(natural, gap - near);
        row.natural.push_back(natural);
        if (near < boundless)
            row.least.push_back(gap - near);
        else if (ink)  // they face nowhere: side by side all the same
            row.least.push_back(gap + bounds(a.outline).x1 - bounds(b.outline).x0);
        else  // what parts two words stays most of what it is
            row.least.push_back(a.outline.empty() ? natural * least_space : natural);
    }
    return row;
}

/// By how much every gap closes so that the word is no wider than `room`; nothing where it cannot be.
std::optional<double> closing(const Row& row, double room) {
    if (row.width(0) <= room) return 0.0;
    double low = 0, high = all_the_way;
    if (row.width(high) > room) return std::nullopt;
    for (int i = 0; i < 48; ++i) {
        const double mid = (low + high) / 2;
        (row.width(mid) > room ? low : high) = mid;
    }
    return high;
}

/// The letters on the base line, straight or bowed; `size` is their height.
Region laid(const Row& row, const std::vector<double>& at, double size, double squeezed, double arch) {
    const Rect box = row.ink(at);
    const double middle = box.centre().x;
    const double turn = arch * std::numbers::pi / 180;
    Region out;
    for (std::size_t i = 0; i < at.size(); ++i) {
        const Region& letter = row.word->letters[i].outline;
        if (letter.empty()) continue;
        const Rect b = bounds(letter);
        const double own = b.centre().x;
        const double x = (at[i] + own - middle) * size * squeezed;  // of its middle, from the field's
        Affine to = Affine::scale(size * squeezed, size).after(Affine::shift(-own, 0));
        if (std::abs(turn) < 1e-6) {
            to = Affine::shift(field_side / 2 + x, 0).after(to);
        } else {
            const double radius = field_side / turn, angle = x / radius;
            to = Affine::shift(field_side / 2 + radius * std::sin(angle), radius * (1 - std::cos(angle)))
                     .after(Affine::turn(angle * 180 / std::numbers::pi).after(to));
        }
        const Region placed = mapped(letter, to);
        out.insert(out.end(), placed.begin(), placed.end());
    }
    return unite(out, {});
}

/// How long the base line of a field is, in field widths: letters on an arc lean outwards, and must still lie within.
double field_length(const Lettering& l, double rim) {
    const double turn = std::abs(l.arch) * std::numbers::pi / 180;
    if (turn < 1e-6) return 1;
    const double radius = 1 / turn, outer = radius + (l.arch > 0 ? l.height * (1 + rim) : l.height * rim);
    return 0.5 >= outer ? 1 : std::min(1.0, 2 * radius * std::asin(0.5 / outer));
}

}  // namespace

SetWord set_word(const Lettering& l, const ShapedWord& wide, const ShapedWord* narrow, bool number) {
    const Row first = row_of(l, wide, number);
    const double room = field_length(l, first.rim) / l.height;
    SetWord out;
    const auto set = [&](const Row& row, double by) {
        out.narrow = row.word == narrow && narrow != nullptr;
        const std::vector<double> at = row.places(by);
        out.closed = at.empty() ? 0 : row.places(0).back() - at.back();
        const double wide_now = row.ink(at).width();
        const bool joined = number && l.digits;
        if (wide_now > room * (1 + 1e-9) && !joined) (l.squeeze ? out.squeezed : out.scale) = room / wide_now;
        const double size = l.height * field_side;
        out.letters = laid(row, at, size * out.scale, out.squeezed, l.arch);
        if (out.letters.empty()) return out;
        // on an arc the outer corners reach further: centred, and made to fit by what is there
        const Rect box = bounds(out.letters);
        const double k = joined ? 1 : std::min(1.0, field_side / (box.width() + 2 * row.rim * size * out.scale));
        if (k < 1 - 1e-9) out.scale *= k;
        if (l.arch == 0)
            for (std::size_t i = 0; i < at.size(); ++i)
                if (const Region& letter = row.word->letters[i].outline; !letter.empty())
                    out.lefts.push_back(field_side / 2 +
                                        (at[i] + bounds(letter).x0 - row.rim - row.ink(at).centre().x) * size * out.scale * out.squeezed);
        out.letters =
            mapped(out.letters, Affine::shift(field_side / 2, 0).after(Affine::scale(k, k)).after(Affine::shift(-box.centre().x, 0)));
        return out;
    };
    if (const auto by = closing(first, room)) return set(first, *by);
    if (narrow == nullptr) return set(first, all_the_way);
    const Row second = row_of(l, *narrow, number);
    const auto by = closing(second, room);
    // a face that is no narrower helps nobody
    if (!by && second.width(all_the_way) >= first.width(all_the_way)) return set(first, all_the_way);
    return set(second, by.value_or(all_the_way));
}

std::vector<double> closed_up(const ShapedWord& word, double gap) {
    Lettering l;
    l.least_gap = gap;
    const Row row = row_of(l, word, false);
    std::vector<double> at(row.least.size(), 0.0);
    for (std::size_t i = 1; i < at.size(); ++i) at[i] = at[i - 1] + row.least[i];
    return at;
}

double width_by_nature(const Lettering& l, const Lettered& word) {
    return (word.in_field.width() / word.squeezed + word.closed * l.height) / word.scale;
}

std::vector<LetterInk> letter_inks(const Lettering& l, const SetWord& word) {
    std::vector<LetterInk> out;
    double grown = 0;
    for (const LetterRim& r : l.rims) {
        grown += r.width * l.height * field_side * word.scale;
        out.insert(out.begin(), {r.colour, offset(word.letters, grown, 0.1)});
    }
    out.push_back({l.colour, word.letters});
    return out;
}

}  // namespace orthema
