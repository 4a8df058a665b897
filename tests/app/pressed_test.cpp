// Where a pressed piece's design landed, read off a photograph on the Records bench and kept with its record.
#include "app/benches/records/plot_view.h"
#include "app/benches/records/pressed_page.h"
#include "app/benches/records/records_bench.h"
#include "app/photos/photo_view.h"
#include "core/records/of_load.h"
#include "devices/camera.h"
#include "files/design_picture.h"
#include "window.h"

namespace orthema {
namespace TESTED {

using namespace app;

struct PressedWindow : test::SmallWindow {
    PressedWindow() : SmallWindow(8) {
        PressRecord r;
        r.id = order().job + "/by hand/1";
        r.at = "2026-11-01T10:00:00";
        r.job = order().job;
        r.order = order().name;
        r.design = design().id;
        r.size = size().size;
        r.style = order().lines[0].style;
        r.colour = order().lines[0].colour;
        r.first = 3;
        r.outcome = Outcome::good;
        room().records().add({r});
        wait();
    }
    RecordsBench* records() { return bench<RecordsBench>("records"); }
    const Decoration& design() { return order().decorations[0]; }
    const DecorationFit& fit() { return *find_fit(room().plan(), design().id); }
    const SizeFit& size() { return fit().sizes[fit().sizes.size() / 2]; }
    void choose_record() {
        records()->show_view(5);
        auto* table = find<QTableView>("History");
        click(table->viewport(), table->visualRect(table->model()->index(0, 0)).center());
    }
    const PressRecord& record() { return room().records().all().back(); }
    /// A photograph of the piece, its ink so far from its place, as a file.
    std::string photograph(const std::string& name, Point off, double turned, bool mirrored = false) {
        const Ground& ground = *find_ground(fit(), size().size);
        const BlankStyle& style = *find_style(order(), record().style);
        Measures truth = style.chart.at(size().size);
        for (auto& [m, f] : truth) f.value = f.value * 1.01;
        Scene scene = usual_scene(style.family, ground.panel.face, truth, 2, 1);
        scene.lens = with_width(scene.lens, 2400);
        const orthema::Panel panel = family_panel(style.family, truth, ground.panel.face);
        const double middle = size().ink.centre().x + off.x, top = panel.top_y + size().top_to_ink + off.y;
        PressedOn on;
        on.box = {middle - size().width / 2, top, middle + size().width / 2, top + size().height};
        on.angle = turned;
        on.picture = design_picture(design(), size(), room().art(), 500 / size().ink.width());
        PixelImage& p = on.picture;
        for (int y = 0; mirrored && y < p.height; ++y)
            for (int x = 0; x < p.width / 2; ++x) std::swap_ranges(p.at(x, y), p.at(x, y) + 4, p.at(p.width - 1 - x, y));
        scene.pressed = {on};
        const Photo photo = simulated_photo(scene, 2);
        const QImage seen(photo.image.rgba.data(), photo.image.width, photo.image.height, QImage::Format_RGBX8888);
        EXPECT_TRUE(seen.convertToFormat(QImage::Format_RGB32).save(QString::fromStdString(data(name)), "JPEG", 92));
        return data(name);
    }
};

TEST(PressedBench, WhereItLandedIsReadOffKeptAndStays) {
    PressedWindow w;
    const std::string photo = w.photograph("pressed.jpg", {6, 9}, 0.02);
    w.drop({photo});
    w.wait();
    EXPECT_FALSE(w.records()->pressed().any()) << "of which piece nobody said";
    EXPECT_NE(w.notice().find("Choose the record"), std::string::npos) << w.notice();
    w.choose_record();
    w.drop({photo});
    w.wait();
    ASSERT_TRUE(w.records()->pressed().any());
    ASSERT_TRUE(w.records()->pressed().landing()) << w.records()->pressed().photo()->fault.toStdString();
    const Landing seen = *w.records()->pressed().landing();
    EXPECT_NEAR(*seen.aside, 6, 1.5);
    EXPECT_NEAR(*seen.down, 9, 1.5);
    EXPECT_NEAR(*seen.tilt, 0.02 * 180 / 3.14159265, 0.3);
    EXPECT_EQ(seen.piece, 3);
    EXPECT_GT(seen.along, 0) << "what its card allows";
    EXPECT_FALSE(w.record().landing);
    EXPECT_GT(w.records()->photo_view()->shown().marks.size(), 4U);
    // what is drawn as planned lies as far from what was found as the figures say
    const DesignSeen& design = *w.records()->pressed().photo()->design;
    const double px = norm(design.box[1] - design.box[0]) / design.width;
    EXPECT_NEAR(norm(bounds(design.box).centre() - bounds(design.planned).centre()) / px, std::hypot(*seen.aside, *seen.down), 1);
    w.click(w.find<QPushButton>("Keep it small with the order"));
    ASSERT_EQ(w.order().photographs.size(), 1U);
    EXPECT_EQ(w.order().photographs[0].record, w.record().id);
    w.click(w.find<QPushButton>("Keep as where it landed"));
    w.wait();
    ASSERT_TRUE(w.record().landing);
    EXPECT_EQ(*w.record().landing, seen);
    EXPECT_EQ(w.record().version, 2);
    EXPECT_FALSE(w.records()->pressed().any());
    w.click(w.find<QPushButton>("The kept photograph"));
    w.wait();
    ASSERT_TRUE(w.records()->pressed().any());
    EXPECT_EQ(w.records()->pressed().photo()->picture.width(), 1000);
    EXPECT_FALSE(w.records()->pressed().landing());
    w.click(w.find<QPushButton>("Put away"));
    EXPECT_TRUE(w.records()->plot()->isVisible() || w.find<QTableView>("History")->isVisible());
}

TEST(PressedBench, MirroredIsSaidAndOddPicturesChangeNothing) {
    PressedWindow w;
    w.choose_record();
    w.drop({w.photograph("mirrored.jpg", {0, 0}, 0, true)});
    w.wait();
    ASSERT_TRUE(w.records()->pressed().any());
    EXPECT_NE(w.find<QLabel>("says of the piece")->text().indexOf("irrored"), -1)
        << w.find<QLabel>("says of the piece")->text().toStdString();
    QImage plain(1200, 900, QImage::Format_RGB32);
    plain.fill(QColor(120, 130, 140));
    plain.save(QString::fromStdString(w.data("plain.png")));
    w.drop({w.data("plain.png")});
    w.wait();
    EXPECT_NE(w.find<QLabel>("says of the piece")->text().indexOf("card"), -1);
    EXPECT_FALSE(w.find<QPushButton>("Keep as where it landed")->isEnabled());
    EXPECT_FALSE(w.record().landing);
    w.click(w.find<QPushButton>("Put away"));
    EXPECT_FALSE(w.records()->pressed().any());
    // a record of an order that is not open has no plan to be held against
    PressRecord other = w.record();
    other.id = "elsewhere/1";
    other.job = "elsewhere";
    other.at = "2026-11-02T10:00:00";
    w.room().records().add({other});
    w.wait();
    auto* table = w.find<QTableView>("History");
    for (int row = 0; row < table->model()->rowCount(); ++row) {
        w.click(table->viewport(), table->visualRect(table->model()->index(row, 0)).center());
        w.drop({w.data("plain.png")});
        w.wait();
        if (!w.records()->pressed().any()) break;
        w.click(w.find<QPushButton>("Put away"));
    }
    EXPECT_NE(w.notice().find("another order"), std::string::npos) << w.notice();
}

}  // namespace TESTED
}  // namespace orthema
