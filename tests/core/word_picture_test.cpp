// Word pictures: exact assignments, sizes against a dense search, shared letters that add up.
#include "core/artwork/word_picture.h"

#include <cmath>
#include <numeric>
#include <random>

#include "support/support.h"

namespace orthema {
namespace TESTED {

/// The most that can be filled, and the most that shares then add up to, over all ways.
std::pair<int, double> all_ways(const std::vector<std::vector<Suit>>& table) {
    const std::size_t pictures = table.front().size();
    std::pair<int, double> best{0, 0};
    std::vector<char> used(pictures, 0);
    const std::function<void(std::size_t, int, double)> go = [&](std::size_t part, int filled, double sum) {
        if (part == table.size()) {
            best = std::max(best, std::pair(filled, sum));
            return;
        }
        go(part + 1, filled, sum);
        for (std::size_t p = 0; p < pictures; ++p) {
            if (used[p] != 0 || !table[part][p].why_not.empty()) continue;
            used[p] = 1;
            go(part + 1, filled + 1, sum + table[part][p].share);
            used[p] = 0;
        }
    };
    go(0, 0, 0);
    return best;
}

TEST(WordAssignment, EqualsAllWaysUpToSeven) {
    std::mt19937 rng(3);
    for (int k = 0; k < 400; ++k) {
        const std::size_t parts = 1 + rng() % 7, pictures = 1 + rng() % 7;
        std::vector<std::vector<Suit>> table(parts, std::vector<Suit>(pictures));
        for (auto& row : table)
            for (Suit& s : row) {
                s.share = double(rng() % 1000) / 1000;
                if (rng() % 4 == 0) s = {0, "it does not go in"};
            }
        const std::vector<int> is = best_assignment(table);
        int filled = 0;
        double sum = 0;
        std::set<int> seen;
        for (std::size_t i = 0; i < parts; ++i) {
            if (is[i] < 0) continue;
            ASSERT_TRUE(seen.insert(is[i]).second) << "a picture is there once";
            ASSERT_TRUE(table[i][std::size_t(is[i])].why_not.empty());
            ++filled;
            sum += table[i][std::size_t(is[i])].share;
        }
        const auto [most, best] = all_ways(table);
        EXPECT_EQ(filled, most) << k;
        EXPECT_NEAR(sum, best, 1e-9) << k;
    }
    EXPECT_TRUE(best_assignment({}).empty());
}

/// The word in a face of blocks: letters of odd shapes beside each other.
ShapedWord blocks(std::mt19937& rng, std::size_t n) {
    ShapedWord word;
    for (std::size_t i = 0; i < n; ++i) {
        const double w = 0.4 + 0.1 * double(rng() % 6);
        Region letter = box_region({0, -1, w, 0});
        if (rng() % 2 == 0) letter = subtract(letter, box_region({0.3 * w, -0.7, w + 1, -0.35}));
        word.letters.push_back({letter, double(i), 1});
    }
    return word;
}

WordPicture of_letters(std::size_t n) {
    WordPicture w;
    w.word = std::string(n, 'X');
    return with_places(w);
}

TEST(WordShapes, LettersAndShapesAreOfOneHeightAndAsNearAsAsked) {
    std::mt19937 rng(5);
    for (int k = 0; k < 60; ++k) {
        WordPicture w = of_letters(5);
        w.apart = 0.01 * double(rng() % 12);
        for (WordPlace& p : w.places) p.shape = static_cast<PlaceShape>(rng() % (place_shapes - 1));
        const auto shapes = word_shapes(w, blocks(rng, 5), {});
        ASSERT_TRUE(shapes);
        ASSERT_EQ(shapes->size(), 5U);
        for (std::size_t i = 0; i < 5; ++i) {
            const Rect box = bounds((*shapes)[i]);
            EXPECT_NEAR(box.height(), 1, 2e-3) << place_key(w.places[i].shape);
            EXPECT_NEAR(box.y1, 0, 2e-3);
            if (i == 0) continue;
            const double gap =
                distance(mapped((*shapes)[i - 1], Affine::scale(100, 100)), mapped((*shapes)[i], Affine::scale(100, 100))) / 100;
            EXPECT_GE(gap, w.apart - 2e-3);
            EXPECT_LE(gap, w.apart + 0.06) << "closed up";
        }
    }
    // an outline of any art is made as tall
    WordPicture w = of_letters(1);
    w.places[0].shape = PlaceShape::outline;
    w.places[0].outline = "hill";
    const auto shapes = word_shapes(w, blocks(rng, 1), {{"hill", box_region({3, 5, 43, 25})}});
    ASSERT_TRUE(shapes);
    EXPECT_NEAR(bounds((*shapes)[0]).width(), 2, 1e-3);
}

TEST(WordShapes, SharedLettersAddUpWithoutGapOrOverlap) {
    std::mt19937 rng(9);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    for (int k = 0; k < 300; ++k) {
        const Region shape = k % 3 == 0 ? place_shape(static_cast<PlaceShape>(1 + k % 6)) : blocks(rng, 1).letters[0].outline;
        const SharingLine line{{real(0, 1), real(0, 1)}, real(-180, 180)};
        const auto [one, other] = parted(shape, line);
        EXPECT_NEAR(area(one) + area(other), area(shape), 1e-4 * area(shape));
        EXPECT_LE(area(intersect(mapped(one, Affine::scale(100, 100)), mapped(other, Affine::scale(100, 100)))), 1e-4 * area(shape) * 1e4);
        // each lies on its own side
        const Rect box = bounds(shape);
        const Point through{box.x0 + line.through.x * box.width(), box.y0 + line.through.y * box.height()};
        const double t = line.degrees * M_PI / 180;
        for (const Polygon& p : one)
            for (const Point& q : p.outer) EXPECT_GE(dot(q - through, Point{std::sin(t), -std::cos(t)}), -1e-3);
    }
}

TEST(WordFilling, IsAsLargeAsADenseSearchFinds) {
    std::mt19937 rng(17);
    const auto real = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(rng); };
    int compared = 0;
    for (int k = 0; k < 6; ++k) {
        const Region shape = k % 2 == 0 ? blocks(rng, 1).letters[0].outline : place_shape(static_cast<PlaceShape>(1 + k % 6));
        const Rect box = bounds(shape);
        const WordFill picture{real(0.6, 1.2), {{real(0.3, 0.45), real(0.2, 0.3)}, {real(0.5, 0.6), real(0.3, 0.45)}}};
        const double rim = 0.04;
        const FilledPart is = fill_part(shape, box, picture, {}, rim);
        if (!is.whole) continue;
        EXPECT_TRUE(holds(shape, box, picture, {is.at.width * 0.9995, is.at.middle, 0}, rim)) << k;
        double found = 0;
        for (double width = std::max(box.width(), box.height() / picture.aspect); width < 1.1 * is.at.width; width *= 1.03)
            for (double x = -width / 2; x <= width / 2 && found < width; x += 0.04)
                for (double y = -width / 2; y <= width / 2 && found < width; y += 0.04)
                    if (holds(shape, box, picture, {width, {x, y}, 0}, rim)) found = width;
        EXPECT_GE(is.at.width, 0.998 * found) << k;
        EXPECT_LE(is.at.width, 1.12 * found + 0.08) << k << ": a coarse search comes near it";
        ++compared;
    }
    EXPECT_GE(compared, 3);
}

}  // namespace TESTED
}  // namespace orthema
