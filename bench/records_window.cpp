// A window with the records of years: its Records bench opened, a filter chosen, a word typed; and how long the interface stood still.
// usage: records_window ORDER [RECORDS]
#include <QComboBox>
#include <QLineEdit>
#include <QTimer>

#include <cstdio>
#include <cstdlib>

#include "files/library.h"
#include "files/record_book.h"
#include "many_records.h"
#include "whole_window.h"

using namespace orthema;

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc < 2) return 2;
    WholeWindow whole(application);
    app::Workroom& room = whole.room;
    whole.wait(300);
    room.keeper().open(QString::fromLocal8Bit(argv[1]));
    whole.wait(300);
    room.records().add(many_records(argc > 2 ? std::atoi(argv[2]) : 100000));
    room.records().flush();
    whole.wait(300);
    QElapsedTimer since_beat;
    double still = 0;
    QTimer beat;
    beat.setInterval(1);
    QObject::connect(&beat, &QTimer::timeout, [&] {
        still = std::max(still, static_cast<double>(since_beat.nsecsElapsed()) / 1e6);
        since_beat.start();
    });
    const auto timed = [&](const char* what, auto act) {
        QElapsedTimer timer;
        timer.start();
        still = 0;
        since_beat.start();
        beat.start();
        act();
        QCoreApplication::processEvents();  // and it is painted
        const double shown = static_cast<double>(timer.nsecsElapsed()) / 1e6;
        whole.wait(50);
        beat.stop();
        std::printf("%-32s shown after %6.1f ms, judged and at rest after %6.1f ms, longest stand-still %5.1f ms\n", what, shown,
                    static_cast<double>(timer.nsecsElapsed()) / 1e6 - 50, still);
    };
    timed("the bench is opened", [&] { whole.window.go_to(QStringLiteral("records")); });
    timed("and once more", [&] {
        whole.window.go_to(QStringLiteral("press"));
        whole.window.go_to(QStringLiteral("records"));
    });
    auto* press = whole.window.findChild<QComboBox*>(QStringLiteral("Filter press"));
    auto* find = whole.window.findChild<QLineEdit*>(QStringLiteral("Find records"));
    const auto choose = [&](QComboBox* box, int at) {
        box->setCurrentIndex(at);
        emit box->activated(at);
    };
    timed("a press is chosen", [&] { choose(press, 2); });
    timed("all presses again", [&] { choose(press, 0); });
    timed("a word is typed", [&] { find->setText(QStringLiteral("order 17")); });
    return 0;
}
