// A drag through the whole window, as an artist makes it: each step is one mouse move with everything that follows it. Then
// each page of every bench turned to, once all of them are made.
// usage: window_bench ORDER
#include <QMouseEvent>
#include <QPushButton>

#include <algorithm>
#include <cstdio>

#include "app/benches/fit/fit_bench.h"
#include "app/benches/fit/fit_wall.h"
#include "app/widgets/figures.h"
#include "whole_window.h"

using namespace orthema::app;

static void say(const char* what, std::vector<double> ms) {
    std::sort(ms.begin(), ms.end());
    std::printf("%s, %zu times: median %.1f ms, 95 of 100 under %.1f ms, worst %.1f ms\n", what, ms.size(), ms[ms.size() / 2],
                ms[ms.size() * 95 / 100], ms.back());
}

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc < 2) return 2;
    WholeWindow whole(application);
    Workroom& room = whole.room;
    MainWindow& window = whole.window;
    const auto wait = [&] { whole.wait(300); };
    wait();
    room.keeper().open(QString::fromLocal8Bit(argv[1]));
    wait();
    window.go_to(QStringLiteral("fit"));
    wait();
    FitWall* wall = static_cast<FitBench*>(window.bench(QStringLiteral("fit")))->wall();
    const auto send = [&](QEvent::Type type, QPointF at, Qt::MouseButtons held) {
        QMouseEvent event(type, at, wall->mapToGlobal(at), type == QEvent::MouseMove ? Qt::NoButton : Qt::LeftButton, held, Qt::NoModifier);
        QCoreApplication::sendEvent(wall, &event);
    };
    const QPointF from = wall->design_at(room.selection().size);
    send(QEvent::MouseButtonPress, from, Qt::LeftButton);
    std::vector<double> steps;
    for (int i = 0; i < 120; ++i) {
        QElapsedTimer timer;
        timer.start();
        send(QEvent::MouseMove, from + QPointF(0, 6 * std::sin(i * 0.2) + i % 2), Qt::LeftButton);
        QCoreApplication::processEvents();
        if (i > 4) steps.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    send(QEvent::MouseButtonRelease, from, Qt::NoButton);
    say("drag through the window", std::move(steps));
    wait();
    for (int round = 0; round < 2; ++round) {  // the first lays each page out for the first time
        std::vector<double> turns;
        for (const char* stage : {"order", "blanks", "art", "fit", "sheets", "guides", "press", "records"}) {
            window.go_to(QString::fromLatin1(stage));
            wait();
            for (Segments* s : window.findChildren<Segments*>()) {
                if (!s->turns_pages()) continue;
                for (QPushButton* b : s->findChildren<QPushButton*>()) {
                    if (!b->isVisible() || !b->isEnabled()) continue;
                    QElapsedTimer timer;
                    timer.start();
                    b->click();
                    QCoreApplication::processEvents();
                    turns.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
                }
            }
        }
        say(round == 0 ? "pages turned to" : "once more", std::move(turns));
    }
    return 0;
}
