// Takes the pictures of docs/screenshots from the demo order, one for each bench, as the window shows them.
// usage: screenshots ORDER FOLDER
#include <QAction>
#include <QComboBox>
#include <QPushButton>

#include "app/benches/blanks/blanks_bench.h"
#include "app/benches/order/list_preview.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/press/press_desk.h"
#include "app/benches/sheets/ribbon.h"
#include "app/desk/desk.h"
#include "app/benches/sheets/sheets_bench.h"
#include "app/window/export_panel.h"
#include "app/window/notice_bar.h"
#include "whole_window.h"

using namespace orthema::app;
using orthema::Countdown;
using orthema::Shift;

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc < 3) return 2;
    const QString order = QString::fromLocal8Bit(argv[1]), folder = QString::fromLocal8Bit(argv[2]);
    WholeWindow whole(application);
    Workroom& room = whole.room;
    MainWindow& window = whole.window;
    const auto wait = [&] { whole.wait(150); };
    const auto take = [&](const char* name) {
        wait();
        window.grab().save(folder + "/" + name + ".png");
    };
    const auto press = [&](const QString& name) {
        for (auto* b : window.findChildren<QPushButton*>(name))
            if (b->isVisible()) b->click();
    };
    wait();
    room.keeper().open(order);
    wait();
    take("order");
    window.go_to(QStringLiteral("blanks"));
    take("blanks");
    if (auto* blanks = static_cast<BlanksBench*>(window.bench(QStringLiteral("blanks")))) {
        Selection tee = room.selection();
        tee.style = "adult-tee";
        tee.size = "M";
        room.select(tee);
        blanks->choose_size("M");
        blanks->take_pictures(
            {QString::fromStdString(std::filesystem::absolute(argv[1]).parent_path().string()) + "/photographs/crew-tee.jpg"});
        wait();
        take("photo");
        blanks->show_photos(false);
    }
    if (auto* family = window.findChild<QAction*>(QStringLiteral("new apron"))) family->trigger();
    wait();
    press(QStringLiteral("Blank page/Features"));
    press(QStringLiteral("Put it on"));
    press(QStringLiteral("Put it on"));
    press(QStringLiteral("Blank page/Measure"));
    room.document().undo();
    room.document().undo();
    room.document().undo();
    window.go_to(QStringLiteral("art"));
    take("art");
    Selection s = room.selection();
    s.size = "L";
    s.decoration = "crew-kite";
    room.select(s);
    window.go_to(QStringLiteral("fit"));
    take("fit");
    press(QStringLiteral("Figures page/Size"));
    s.decoration = "crew-kite";
    s.run = orthema::find_decoration(room.order(), "crew-kite")->run;
    room.select(s);
    press(QStringLiteral("schools"));
    press(QStringLiteral("platen"));
    press(QStringLiteral("Strip/drift"));
    press(QStringLiteral("Figures page/Place"));
    take("schools");
    press(QStringLiteral("Look at/making"));
    struct Shot {
        const char *decoration, *page, *name;
    };
    for (const auto& [decoration, page, name] : {Shot{"pilot-rose", "Method", "making-method"},
                                                 {"crew-hill", "Split", "making-split"},
                                                 {"tote-kites", "Layers", "making-layers"},
                                                 {"bottle-stripes", "Shape", "making-wrap"},
                                                 {"tag-badge", "Shape", "making-jig"},
                                                 {"tile-evening", "Shape", "making-cover"}}) {
        s.decoration = decoration;
        if (const orthema::Decoration* d = orthema::find_decoration(room.order(), decoration)) s.run = d->run;
        room.select(s);
        wait();
        press(QStringLiteral("Making page/") + page);
        take(name);
    }
    press(QStringLiteral("Look at/size wall"));
    window.go_to(QStringLiteral("sheets"));
    static_cast<SheetsBench*>(window.bench(QStringLiteral("sheets")))->ribbon()->choose(4);
    whole.wait(900);  // the pieces are drawn on a thread of their own
    take("sheets");
    s = room.selection();
    s.medium = "sublimation-a3";
    room.select(s);
    wait();
    press(QStringLiteral("Figures of/Laying"));
    press(QStringLiteral("Parted/trimmer"));
    wait();
    room.settler().settle(s.medium, 3);
    wait();
    for (int i = 0; i < 5; ++i) press(QStringLiteral("Make this cut ▸"));
    take("trimmer");
    press(QStringLiteral("Figures of/Sheets"));
    room.document().undo();
    room.document().undo();
    s = room.selection();
    s.decoration = "crew-kite";
    s.run = {"adult-tee", "ash"};
    s.size = "L";
    room.select(s);
    window.go_to(QStringLiteral("guides"));
    take("guides");
    press(QStringLiteral("Show/platen map"));
    take("platen-map");
    window.go_to(QStringLiteral("press"));
    auto* bench = static_cast<PressBench*>(window.bench(QStringLiteral("press")));
    room.planner().better(6);
    wait();
    take("press-plan");
    if (auto* speed = bench->findChild<QComboBox*>(QStringLiteral("Speed"))) speed->setCurrentIndex(0);
    press(QStringLiteral("Begin the shift"));
    const auto counts = [&] {
        for (const Countdown& c : bench->desk().shift().counting())
            if (c.began >= 0 && Shift::left(c, bench->desk().now()) > 4) return true;
        return false;
    };
    for (int k = 0; k < 1500 && bench->desk().running() && !counts(); ++k) {
        bench->desk().next();
        whole.wait(60);
    }
    take("press-step");
    bench->desk().end();
    window.go_to(QStringLiteral("records"));
    wait();
    take("records");
    // the desk with the fair and its neighbours, and those ganged
    QDir(whole.data.path()).mkpath(QStringLiteral("orders"));
    const QString orders = whole.data.path() + QStringLiteral("/orders/");
    const QDir neighbours(order + QStringLiteral("/../neighbours"));
    QStringList paths;
    for (const QString& name : neighbours.entryList({QStringLiteral("*.orthema")})) {
        QFile::copy(neighbours.filePath(name), orders + name);
        paths << orders + name;
    }
    room.keeper().open(order);
    wait();
    room.keeper().save(orders + QStringLiteral("kite-fair.orthema"));
    wait();
    for (const QString& path : paths) {
        room.keeper().open(path);
        wait();
    }
    room.gang_table().gang(paths);
    wait();
    window.go_to(QStringLiteral("sheets"));
    room.settler().settle("film-559", 20);
    wait();
    s = room.selection();
    s.job = "job-quay";
    room.select(s);
    whole.wait(900);
    window.notices()->hide();
    take("gang");
    s.job.clear();
    room.select(s);
    room.keeper().save(orders + QStringLiteral("saturday.orthema"));
    wait();
    window.desk()->set_today("2027-06-09");
    window.show_desk();
    wait();
    window.notices()->hide();
    take("desk");
    // the demo shop's stock
    room.restore_shop(order + QStringLiteral("/../kite-fair.orthema-shop"), whole.data.path() + QStringLiteral("/shop"));
    whole.wait(500);
    room.stock().set_today("2027-05-20");
    window.desk()->show_page(1);
    whole.wait(300);
    window.notices()->hide();
    take("stock");
    // a team with names and numbers
    room.keeper().open(order + QStringLiteral("/../kite-race.orthema"));
    wait();
    s = room.selection();
    s.art = "back-name";
    room.select(s);
    window.go_to(QStringLiteral("art"));
    window.notices()->hide();
    take("lettering");
    // a photograph whose background is taken out
    room.keeper().open(order + QStringLiteral("/../kite-totes.orthema"));
    wait();
    s = room.selection();
    s.art = room.order().art.front().id;
    room.select(s);
    window.go_to(QStringLiteral("art"));
    window.findChild<QPushButton*>(QStringLiteral("Art page/Mend it"))->click();
    wait();
    window.notices()->hide();
    take("mending");
    s = room.selection();
    for (const orthema::Art& a : room.order().art)
        if (a.word_picture) s.art = a.id;
    room.select(s);
    wait();
    take("word");
    for (const orthema::Art& a : room.order().art)
        if (a.together) s.art = a.id;
    room.select(s);
    wait();
    take("together");
    return 0;
}
