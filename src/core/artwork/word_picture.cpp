#include "core/artwork/word_picture.h"

#include <algorithm>
#include <array>
#include <atomic>
#include <cmath>
#include <limits>
#include <numbers>
#include <thread>

#include "core/artwork/clip_fit.h"
#include "core/drawing/drawing.h"

namespace orthema {

namespace {

constexpr std::array<const char*, place_shapes> keys = {"letter", "heart", "star", "circle", "square", "drop", "kite", "outline"};
constexpr std::array<const char*, place_shapes> names = {"its letter", "a heart", "a star", "a circle",
                                                         "a square",   "a drop",  "a kite", "an outline"};

/// As tall as a letter, its left at x = 0.
Region as_tall(const Region& shape) {
    const Rect box = bounds(shape);
    if (!(box.height() > 0)) return {};
    const double k = 1 / box.height();
    return mapped(shape, Affine::scale(k, k).after(Affine::shift(-box.x0, -box.y1)));
}

Ring turned_ring(double radius, int points, double inner) {
    Ring ring;
    for (int i = 0; i < 2 * points; ++i) {
        const double r = i % 2 == 0 ? radius : radius * inner, t = -std::numbers::pi / 2 + i * std::numbers::pi / points;
        ring.push_back({r * std::cos(t), r * std::sin(t)});
    }
    return ring;
}

}  // namespace

const char* place_key(PlaceShape shape) { return keys[static_cast<std::size_t>(shape)]; }
const char* place_name(PlaceShape shape) { return names[static_cast<std::size_t>(shape)]; }

WordPicture with_places(WordPicture word) {
    std::size_t letters = 0;
    for (const char c : word.word) letters += c != ' ' && (static_cast<unsigned char>(c) & 0xC0) != 0x80 ? 1 : 0;  // first bytes of letters
    word.places.resize(std::min(letters, most_places));
    return word;
}

Region place_shape(PlaceShape shape) {
    Ring ring;
    switch (shape) {
    case PlaceShape::heart:
        ring = {{0, 0.92}};
        curve_to(ring, {-0.62, 0.42}, {-0.62, -0.1}, {-0.27, -0.1}, 40);
        curve_to(ring, {-0.12, -0.1}, {-0.03, -0.02}, {0, 0.1}, 24);
        curve_to(ring, {0.03, -0.02}, {0.12, -0.1}, {0.27, -0.1}, 24);
        curve_to(ring, {0.62, -0.1}, {0.62, 0.42}, {0, 0.92}, 40);
        ring.pop_back();
        break;
    case PlaceShape::star: ring = turned_ring(1, 5, 0.5); break;
    case PlaceShape::circle: ring = disc({0, 0}, 1, 96); break;
    case PlaceShape::square: ring = {{0, 0}, {1, 0}, {1, 1}, {0, 1}}; break;
    case PlaceShape::drop:
        ring = {{0, -1}};
        curve_to(ring, {0.16, -0.62}, {0.5, -0.32}, {0.5, 0.06}, 32);
        curve_to(ring, {0.5, 0.34}, {0.28, 0.56}, {0, 0.56}, 32);
        curve_to(ring, {-0.28, 0.56}, {-0.5, 0.34}, {-0.5, 0.06}, 32);
        curve_to(ring, {-0.5, -0.32}, {-0.16, -0.62}, {0, -1}, 32);
        ring.pop_back();
        break;
    case PlaceShape::kite: ring = {{0, -0.38}, {0.36, 0}, {0, 0.62}, {-0.36, 0}}; break;
    case PlaceShape::letter:
    case PlaceShape::outline: return {};
    }
    return as_tall({{ring, {}}});
}

Result<std::vector<Region>> word_shapes(const WordPicture& word, const ShapedWord& shaped, const std::map<std::string, Region>& outlines) {
    ShapedWord row = shaped;
    std::vector<std::size_t> at;  // in the row, of each place
    for (std::size_t i = 0; i < row.letters.size(); ++i)
        if (!row.letters[i].outline.empty()) at.push_back(i);
    if (at.empty()) return Error{"the typeface “{face}” has none of its letters", {{"face", word.typeface}}};
    for (std::size_t k = 0; k < std::min(at.size(), word.places.size()); ++k) {
        const WordPlace& place = word.places[k];
        ShapedLetter& letter = row.letters[at[k]];
        Region shape = place_shape(place.shape);
        if (place.shape == PlaceShape::outline)
            if (const auto own = outlines.find(place.outline); own != outlines.end()) shape = as_tall(own->second);
        if (shape.empty()) continue;
        letter.advance = bounds(shape).width();
        letter.outline = std::move(shape);
    }
    const std::vector<double> places = closed_up(row, word.apart);
    std::vector<Region> out;
    out.reserve(at.size());
    for (const std::size_t i : at) out.push_back(mapped(row.letters[i].outline, Affine::shift(places[i], 0)));
    return out;
}

std::pair<Region, Region> parted(const Region& shape, const SharingLine& line) {
    const Rect box = bounds(shape);
    const Point through{box.x0 + line.through.x * box.width(), box.y0 + line.through.y * box.height()};
    const double far = 4 * (box.width() + box.height()), t = line.degrees * std::numbers::pi / 180;
    const Point along{std::cos(t), std::sin(t)}, left{along.y, -along.x};  // y runs down
    const Region half{
        {{through - along * far, through + along * far, through + along * far + left * far, through - along * far + left * far}, {}}};
    // Clipper counts in 0.1 µm: letters one unit tall are cut at a size where that is fine enough.
    constexpr double k = 1000;
    const Region whole = mapped(shape, Affine::scale(k, k)), side = mapped(half, Affine::scale(k, k));
    const Affine back = Affine::scale(1 / k, 1 / k);
    return {mapped(intersect(whole, side), back), mapped(subtract(whole, side), back)};
}

bool holds(const Region& part, const Rect& box, const WordFill& picture, const PictureAt& at, double rim) {
    const Point middle = box.centre() + at.middle;
    const Affine to = Affine::shift(middle.x, middle.y)
                          .after(Affine::turn(at.degrees))
                          .after(Affine::scale(at.width, at.width))
                          .after(Affine::shift(-0.5, -picture.aspect / 2));
    const Affine back = inverse(to);
    constexpr double slack = 2e-3;
    for (const Polygon& p : part)
        for (const Point& q : p.outer) {
            const Point u = back(q);
            if (u.x < -slack || u.y < -slack || u.x > 1 + slack || u.y > picture.aspect + slack) return false;
        }
    const Region inner =
        rim > 0 ? mapped(offset(mapped(part, Affine::scale(1000, 1000)), -(rim - slack) * 1000), Affine::scale(1e-3, 1e-3)) : part;
    return std::all_of(picture.subject.begin(), picture.subject.end(), [&](const Point& m) { return inside(inner, to(m)); });
}

FilledPart fill_part(const Region& part, const Rect& box, const WordFill& picture, const PlacePart& wish, double rim) {
    if (wish.at) return {*wish.at, holds(part, box, picture, *wish.at, rim)};
    const auto at = [&](const ClipFit& fit) {
        return PictureAt{fit.scale, Point{fit.at.x + fit.scale / 2, fit.at.y + fit.scale * picture.aspect / 2} - box.centre(), 0};
    };
    if (const auto fit = clip_fit(part, picture.aspect, picture.subject, rim)) return {at(*fit), true};
    const auto fit = clip_fit(part, picture.aspect, {});
    if (!fit) return {{}, false};
    return {at(*fit), false};
}

std::vector<std::vector<Suit>> suits(const std::vector<Region>& parts, const std::vector<WordFill>& pictures, double rim) {
    std::vector<std::vector<Suit>> out(parts.size(), std::vector<Suit>(pictures.size()));
    std::atomic<std::size_t> next{0};
    const auto work = [&] {
        for (std::size_t i = next++; i < parts.size() * pictures.size(); i = next++) {
            const std::size_t part = i / pictures.size(), picture = i % pictures.size();
            Suit& suit = out[part][picture];
            const auto fit = clip_fit(parts[part], pictures[picture].aspect, pictures[picture].subject, rim);
            if (fit)
                suit.share = fit->scale;
            else
                suit.why_not = fit.sentence();
        }
    };
    {
        std::vector<std::jthread> others;
        for (unsigned k = 1; k < std::clamp(std::thread::hardware_concurrency(), 1U, 8U); ++k) others.emplace_back(work);
        work();
    }
    for (std::size_t p = 0; p < pictures.size(); ++p) {
        double most = 0;
        for (const auto& row : out) most = std::max(most, row[p].share);
        for (auto& row : out) {
            if (most > 0) row[p].share /= most;
            // with nobody marked a picture goes anywhere; those with somebody in them come first
            if (pictures[p].subject.size() < 2 && row[p].why_not.empty()) row[p].share = 0.5;
        }
    }
    return out;
}

std::vector<int> best_assignment(const std::vector<std::vector<Suit>>& table) {
    const std::size_t parts = table.size(), pictures = table.empty() ? 0 : table.front().size();
    if (parts == 0 || pictures == 0) return std::vector<int>(parts, -1);
    // A square of costs: parts by pictures, filled up with empty places. One more part that is filled counts for more than all shares.
    const std::size_t n = parts + pictures;
    const double none = static_cast<double>(n) + 1;
    const auto cost = [&](std::size_t i, std::size_t k) {
        if (i >= parts) return 0.0;
        if (k >= pictures) return none;
        const Suit& s = table[i][k];
        return s.why_not.empty() ? 1 - s.share : 4 * none;
    };
    constexpr double far = std::numeric_limits<double>::infinity();
    std::vector<double> u(n + 1, 0), v(n + 1, 0);
    std::vector<std::size_t> match(n + 1, 0), way(n + 1, 0);  // columns from 1; 0 is the row that looks for one
    for (std::size_t i = 1; i <= n; ++i) {
        match[0] = i;
        std::size_t column = 0;
        std::vector<double> least(n + 1, far);
        std::vector<char> used(n + 1, 0);
        do {
            used[column] = 1;
            const std::size_t row = match[column];
            double by = far;
            std::size_t to = 0;
            for (std::size_t k = 1; k <= n; ++k) {
                if (used[k] != 0) continue;
                const double c = cost(row - 1, k - 1) - u[row] - v[k];
                if (c < least[k]) {
                    least[k] = c;
                    way[k] = column;
                }
                if (least[k] < by) {
                    by = least[k];
                    to = k;
                }
            }
            for (std::size_t k = 0; k <= n; ++k) {
                if (used[k] != 0) {
                    u[match[k]] += by;
                    v[k] -= by;
                } else {
                    least[k] -= by;
                }
            }
            column = to;
        } while (match[column] != 0);
        do {
            const std::size_t before = way[column];
            match[column] = match[before];
            column = before;
        } while (column != 0);
    }
    std::vector<int> out(parts, -1);
    for (std::size_t k = 1; k <= pictures; ++k)
        if (match[k] >= 1 && match[k] <= parts && table[match[k] - 1][k - 1].why_not.empty()) out[match[k] - 1] = static_cast<int>(k - 1);
    return out;
}

}  // namespace orthema
