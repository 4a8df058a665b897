// Word pictures as pictures: every letter shows its own, shared ones leave no sliver, nothing is stretched, and an order keeps it all.
#include "files/word_picture.h"

#include <cmath>

#include "core/order/art_words.h"
#include "core/order/edit.h"
#include "core/pipeline/work.h"
#include "files/order_file.h"
#include "files/page_export.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

Bytes plain(int r, int g, int b, int w = 300, int h = 240) {
    test::Canvas c(w, h);
    c.fill([](double, double) { return true; }, r, g, b);
    // a ring of one width each way: what is stretched shows
    c.fill([&](double x, double y) { return std::abs(std::hypot(x - w / 2.0, y - h / 2.0) - 40) < 6; }, 255 - r, 255 - g, 255 - b);
    return std::make_shared<const std::string>(test::png_bytes(c));
}

struct Case {
    Order order = test::small_order();
    ArtBytes bytes = test::small_art();
    std::vector<std::string> pictures;
    std::string id;
    Case() {
        for (const auto& [r, g, b] : {std::array{200, 30, 30}, {30, 160, 40}, {30, 60, 200}})
            pictures.push_back(*add_art(order, bytes, plain(r, g, b), "plain " + std::to_string(pictures.size()) + ".png"));
        WordPicture w;
        w.word = "HO";
        w = with_places(w);
        w.places[0].first.picture = pictures[0];
        w.places[1].first.picture = pictures[1];
        w.places[1].shared = true;
        w.places[1].second.picture = pictures[2];
        w.places[1].line = {{0.5, 0.5}, 90};
        id = enrol_word_picture(order, bytes, w, shipped_typefaces().back(), "Word");
    }
    WordPicture& word() {
        for (Art& a : order.art)
            if (a.id == id) return *a.word_picture;
        throw std::logic_error("it is there");
    }
    LoadedArtPtr picture() {
        const auto made = pictures_of(order, *find_art(order, id), bytes);
        EXPECT_TRUE(made) << (made ? "" : made.sentence());
        return made ? made->at(id) : nullptr;
    }
    /// As it is printed, 100 mm wide.
    test::Canvas printed() {
        const LoadedArtPtr art = picture();
        const test::Folder folder;
        Drawing page;
        page.width = 110;
        page.height = 10 + 100 * art->facts.aspect;
        page.marks.emplace_back(ArtMark{"it", Affine{100, 0, 0, 100, 5, 5}, 1});
        EXPECT_TRUE(write_png(folder / "page.png", page, {{"it", art}}, 254));
        return test::read_png(folder / "page.png");
    }
};

TEST(WordPictures, EveryLetterShowsItsOwnAndSharedOnesLeaveNoSliver) {
    Case c;
    const LoadedArtPtr art = c.picture();
    ASSERT_TRUE(art && art->word);
    ASSERT_EQ(art->word->parts.size(), 3U);
    const test::Canvas page = c.printed();
    const Rect box = art->word->box;
    const double k = 1000 / box.width();  // ten pixels to the millimetre
    const auto at = [&](Point p) { return page.at(int(50 + (p.x - box.x0) * k), int(50 + (p.y - box.y0) * k)); };
    const Region letters =
        unite(unite(mapped(art->word->parts[0].shape, Affine::scale(100, 100)), mapped(art->word->parts[1].shape, Affine::scale(100, 100))),
              mapped(art->word->parts[2].shape, Affine::scale(100, 100)));
    const Region inner = offset(letters, -1.2), outer = offset(letters, 1.2);
    int solid = 0;
    for (double y = box.y0; y < box.y1; y += 0.01)
        for (double x = box.x0; x < box.x1; x += 0.01) {
            const Point p{x * 100, y * 100};
            const std::uint8_t* seen = at({x, y});
            if (inside(inner, p)) {
                EXPECT_EQ(seen[3], 255) << x << ", " << y << ": a hole or a sliver";
                ++solid;
            }
            if (!inside(outer, p)) EXPECT_EQ(seen[3], 0) << x << ", " << y;
        }
    EXPECT_GT(solid, 1000);
    // which picture lies where, by its own colour or its ring's
    const auto of = [&](const std::uint8_t* p, int r, int g, int b) {
        const auto near = [&](int x, int y, int z) { return std::abs(p[0] - x) + std::abs(p[1] - y) + std::abs(p[2] - z) < 40; };
        return near(r, g, b) || near(255 - r, 255 - g, 255 - b);
    };
    const Rect o = art->word->parts[1].box;
    EXPECT_TRUE(of(at({box.x0 + 0.06, -0.5}), 200, 30, 30));
    EXPECT_TRUE(of(at({o.x0 + 0.05, -0.38}), 30, 160, 40) != of(at({o.x1 - 0.05, -0.38}), 30, 160, 40))
        << "one on each side of the line: " << int(at({o.x0 + 0.05, -0.38})[0]) << " " << int(at({o.x0 + 0.05, -0.38})[1]) << " "
        << int(at({o.x1 - 0.05, -0.38})[0]) << " " << int(at({o.x1 - 0.05, -0.38})[1]) << " " << int(at({o.x1 - 0.05, -0.38})[3]);
}

TEST(WordPictures, APictureByHandIsMovedEnlargedAndTurnedUnstretched) {
    Case c;
    c.word().word = "I";
    c.word().places.resize(1);
    c.word().places[0].shape = PlaceShape::square;
    const double by_itself = c.picture()->word->parts[0].filled.at.width;
    EXPECT_NEAR(by_itself, 300.0 / 240, 2e-3) << "it covers the square, no more";
    for (const double degrees : {0.0, 30.0}) {
        c.word().places[0].first.at = PictureAt{2.5, {0.05, -0.03}, degrees};
        const test::Canvas page = c.printed();
        // the ring's middle and its widths each way
        double sx = 0, sy = 0, n = 0, left = 1e9, right = 0, top = 1e9, bottom = 0;
        for (int y = 0; y < page.height; ++y)
            for (int x = 0; x < page.width; ++x) {
                const std::uint8_t* p = page.at(x, y);
                if (p[3] < 250 || p[0] > 120 || p[1] < 130) continue;  // the ring is of the other colour
                sx += x + 0.5;
                sy += y + 0.5;
                n += 1;
                left = std::min(left, double(x));
                right = std::max(right, x + 1.0);
                top = std::min(top, double(y));
                bottom = std::max(bottom, y + 1.0);
            }
        ASSERT_GT(n, 100);
        EXPECT_NEAR(sx / n, 50 + 500 + 50, 4) << degrees;
        EXPECT_NEAR(sy / n, 50 + 500 - 30, 4) << degrees;
        EXPECT_NEAR(right - left, 2.5 * 1000 * 92 / 300, 14) << degrees;
        EXPECT_NEAR(right - left, bottom - top, 6) << degrees << ": round stays round";
    }
}

TEST(WordPictures, SubjectsCoarsePicturesAndEmptyPlacesAreSaid) {
    Case c;
    const auto said = [&](const std::string& code) {
        const Work w = work(c.order, {}, read_all_art(c.order, c.bytes).known);
        return std::any_of(w.findings.begin(), w.findings.end(), [&](const Finding& f) { return f.code == code && f.about.art == c.id; });
    };
    EXPECT_FALSE(said("word-place-empty"));
    EXPECT_FALSE(said("word-cut-off"));
    c.order = with_subject(c.order, c.pictures[0], {{0.02, 0.02}, {0.98, 0.78}});  // from corner to corner: no letter holds that
    EXPECT_TRUE(said("word-cut-off"));
    c.word().places[0].first = {};
    EXPECT_TRUE(said("word-place-empty"));
    EXPECT_FALSE(said("word-cut-off"));
    // what is judged is the coarsest picture
    c.word().places[0].first.picture = *add_art(c.order, c.bytes, plain(90, 90, 20, 1500, 1200), "fine.png");
    const LoadedArtPtr now = c.picture();
    const ArtFacts facts = now->facts;
    EXPECT_LT(facts.sharpness, 0.5);
    const auto& parts = now->word->parts;
    double coarsest = 1e9;
    for (const WordPartLaid& p : parts) coarsest = std::min(coarsest, (p.place == 0 ? 1500 : 300) / p.filled.at.width);
    EXPECT_NEAR(*resolution(facts, Length::from_inches(4)), coarsest * now->word->box.width() / 4, 0.02 * coarsest);
}

TEST(WordPictures, ComeBackFromAFileAndFromAGang) {
    Case c;
    c.word().places[0].first.at = PictureAt{2, {0.1, 0.2}, 12};
    const test::Folder folder;
    ASSERT_TRUE(save_order(folder / "word.orthema", c.order, c.bytes));
    const auto back = open_order(folder / "word.orthema");
    ASSERT_TRUE(back) << back.sentence();
    EXPECT_EQ(back->order, c.order);
    EXPECT_EQ(facts_of(read_all_art(back->order, back->art).art), facts_of(read_all_art(c.order, c.bytes).art));
    const std::string words = composed_words(c.order, *find_art(c.order, c.id));
    Order other = c.order;
    other = with_subject(other, c.pictures[2], {{0.4, 0.4}, {0.5, 0.5}});
    EXPECT_NE(composed_words(other, *find_art(other, c.id)), words) << "it looks otherwise";
    other = c.order;
    for (Art& a : other.art) a.name += " renamed";
    EXPECT_EQ(composed_words(other, *find_art(other, c.id)), words);
}

}  // namespace TESTED
}  // namespace orthema
