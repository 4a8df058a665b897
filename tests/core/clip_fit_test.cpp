// A picture behind a shape: covered everywhere, the subject inside, as large as it goes.
#include "core/artwork/clip_fit.h"

#include <gtest/gtest.h>

namespace orthema {
namespace TESTED {

bool holds(const Region& shape, const ClipFit& f, double aspect, const std::vector<Point>& subject, double slack) {
    const Rect box = bounds(shape);
    if (f.at.x > box.x0 + slack || f.at.y > box.y0 + slack || f.at.x + f.scale < box.x1 - slack ||
        f.at.y + f.scale * aspect < box.y1 - slack)
        return false;
    for (const Point& m : subject)
        if (!inside(shape, f.at + m * f.scale)) return false;
    return true;
}

TEST(ClipFit, IsTheLargestScaleThatAGridSearchFinds) {
    const Region ell = subtract(box_region({0, 0, 40, 30}), box_region({18, 0, 40, 18}));
    for (const auto& subject :
         {std::vector<Point>{{0.4, 0.5}, {0.55, 0.5}}, {{0.3, 0.2}, {0.5, 0.6}, {0.35, 0.7}}, {{0.7, 0.6}, {0.8, 0.62}}}) {
        const double aspect = 0.8;
        const auto best = clip_fit(ell, aspect, subject);
        ASSERT_TRUE(best) << best.sentence();
        EXPECT_TRUE(holds(ell, {best->scale * 0.9995, best->at * 1.0}, aspect, {}, 0.1));
        double grid = 0;
        for (double scale = 38; scale < 400; scale *= 1.01)
            for (double x = 40 - scale; x <= 0; x += 0.5)
                for (double y = 30 - scale * aspect; y <= 0 && grid < scale; y += 0.5)
                    if (holds(ell, {scale, {x, y}}, aspect, subject, 1e-6)) grid = scale;
        EXPECT_GE(best->scale, grid * 0.999);
        EXPECT_LE(best->scale, grid * 1.06 + 1) << "a coarse search comes near it";
    }
}

TEST(ClipFit, WithoutMarksItJustCoversMiddleOnMiddle) {
    const auto f = clip_fit(box_region({10, 10, 50, 30}), 1, {});
    ASSERT_TRUE(f);
    EXPECT_NEAR(f->scale, 40, 1e-3);
    EXPECT_NEAR(f->at.x, 10, 1e-2);
    EXPECT_NEAR(f->at.y, 0, 1e-2);
}

TEST(ClipFit, OneMarkStaysInside) {
    const Region shape = box_region({0, 0, 10, 10});
    const auto f = clip_fit(shape, 1, {{0.02, 0.98}});
    ASSERT_TRUE(f);
    EXPECT_TRUE(holds(shape, *f, 1, {{0.02, 0.98}}, 1e-3));
}

TEST(ClipFit, APictureTooSmallForItsSubjectIsASentence) {
    // the subject fills the picture: kept inside a shape with a hole through it, the picture cannot reach the edges
    Region frame = box_region({0, 0, 100, 100});
    frame[0].holes = {box_region({10, 10, 90, 90})[0].outer};
    const auto no = clip_fit(frame, 1, {{0.1, 0.5}, {0.5, 0.5}, {0.9, 0.5}, {0.3, 0.3}});
    ASSERT_FALSE(no);
    EXPECT_NE(no.sentence().find("too small"), std::string::npos);
    EXPECT_FALSE(clip_fit({}, 1, {}));
}

}  // namespace TESTED
}  // namespace orthema
