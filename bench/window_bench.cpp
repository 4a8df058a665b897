// A drag through the whole window, as an artist makes it: each step is one mouse move with everything that follows it.
// usage: window_bench ORDER
#include <QMouseEvent>

#include <algorithm>
#include <cstdio>

#include "app/benches/fit/fit_bench.h"
#include "app/benches/fit/fit_wall.h"
#include "whole_window.h"

using namespace orthema::app;

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
    std::sort(steps.begin(), steps.end());
    std::printf("drag through the window: median %.1f ms, 95 of 100 under %.1f ms, worst %.1f ms\n", steps[steps.size() / 2],
                steps[steps.size() * 95 / 100], steps.back());
    return 0;
}
