// The window at its usual size on a data folder of its own, and waiting until nothing is under way.
#pragma once

#include <QApplication>
#include <QElapsedTimer>
#include <QTemporaryDir>

#include "app/window/main_window.h"
#include "app/widgets/theme.h"

struct WholeWindow {
    const QTemporaryDir data;
    orthema::app::Workroom room;
    orthema::app::MainWindow window;
    explicit WholeWindow(QApplication& application) : room((orthema::app::apply_theme(application), data.path())), window(room) {
        window.resize(1280, 800);
        window.show();
    }
    void wait(int least_ms) {
        QElapsedTimer timer;
        timer.start();
        while (timer.elapsed() < least_ms || room.busy() || room.catching_up()) QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    }
};
