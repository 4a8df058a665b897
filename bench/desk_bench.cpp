// A desk of many orders: read, shown, searched, walked. usage: desk_bench [ORDERS]
#include <QBuffer>
#include <QKeyEvent>
#include <QLineEdit>

#include <cstdio>
#include <cstdlib>

#include "app/desk/card_wall.h"
#include "app/desk/desk.h"
#include "core/base/dates.h"
#include "files/library.h"
#include "whole_window.h"

using namespace orthema;

namespace {

std::string small_picture() {
    QImage image(256, 76, QImage::Format_ARGB32);
    image.fill(Qt::lightGray);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return bytes.toStdString();
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    const int orders = argc > 1 ? std::atoi(argv[1]) : 2000;
    WholeWindow whole(application);
    whole.wait(300);
    const std::string library = whole.room.library().path().toStdString();
    auto book = OrderBook::open(library);
    if (!book) return 1;
    const std::string picture = small_picture();
    constexpr int counted = 400;  // things in the stock
    for (int n = 0; n < orders; ++n) {
        KnownOrder k;
        k.card.job = "job-" + std::to_string(n);
        k.card.name = "Order " + std::to_string(n);
        k.card.customer = "Customer " + std::to_string(n % 97);
        k.card.due = iso_day(21000 + n % 400);
        k.card.garments = 1 + n % 300;
        for (std::size_t s = 0; s < stages().size(); ++s)
            k.card.stages.push_back({static_cast<Standing>((n + static_cast<int>(s)) % 3), false, 1});
        k.card.next = "Fit: something is to be looked at before this order is ready.";
        for (int w = 0; w < 12; ++w) {
            const int item = (7 * n + 31 * w) % counted;
            k.card.wants.push_back({blanks_id("style", "colour", std::to_string(item)), StockKind::blanks, "Blank", 1.0 + n % 9});
        }
        k.path = "/nowhere/" + std::to_string(n) + ".orthema";
        k.picture = picture;
        if (!(*book)->put(k)) return 1;
    }
    const auto timed = [&](const char* what, auto act) {
        QElapsedTimer timer;
        timer.start();
        act();
        QCoreApplication::processEvents();  // and it is painted
        std::printf("%-32s %6.1f ms\n", what, static_cast<double>(timer.nsecsElapsed()) / 1e6);
    };
    auto stock = StockBook::open(library);
    if (!stock) return 1;
    std::vector<Counted> all_counted;
    for (int n = 0; n < counted; ++n) {
        StockEntry e;
        e.id = blanks_id("style", "colour", std::to_string(n));
        e.style = "style";
        e.colour = "colour";
        e.size = std::to_string(n);
        e.name = "Blank " + e.size;
        all_counted.push_back({e, 40.0 + n});
    }
    if (!(*stock)->count(all_counted, "")) return 1;
    QElapsedTimer timer;
    timer.start();
    const auto all = (*book)->all();
    std::printf("%-32s %6.1f ms (on a thread, when the program starts)\n", "read", static_cast<double>(timer.nsecsElapsed()) / 1e6);
    whole.room.orders().open(QString::fromStdString(library));
    whole.wait(100);
    whole.room.stock().open(QString::fromStdString(library));
    whole.wait(300);
    if (whole.room.orders().all().size() != all->size()) return 1;
    timed("the desk is opened", [&] { whole.window.show_desk(); });
    timed("and once more", [&] {
        whole.window.go_to(0);
        whole.window.show_desk();
    });
    timed("the stock", [&] { whole.window.desk()->show_page(1); });
    timed("the shelf", [&] { whole.window.desk()->show_page(2); });
    timed("what is to be bought", [&] { whole.window.desk()->show_page(3); });
    timed("the orders again", [&] { whole.window.desk()->show_page(0); });
    app::CardWall* wall = whole.window.desk()->wall();
    timed("a page down", [&] {
        QKeyEvent down(QEvent::KeyPress, Qt::Key_PageDown, Qt::NoModifier);
        QApplication::sendEvent(wall, &down);
    });
    timed("the last one", [&] {
        QKeyEvent end(QEvent::KeyPress, Qt::Key_End, Qt::NoModifier);
        QApplication::sendEvent(wall, &end);
    });
    timed("a word is typed",
          [&] { whole.window.findChild<QLineEdit*>(QStringLiteral("Find an order"))->setText(QStringLiteral("customer 17")); });
    whole.wait(100);
    return 0;
}
