// The Sheets bench with 2,000 pieces: frames of panning, zooming and dragging, as the window draws them.
// usage: ribbon_bench ORDER [PIECES]
#include <QMouseEvent>
#include <QWheelEvent>

#include <algorithm>
#include <cmath>
#include <cstdio>

#include "app/benches/sheets/ribbon.h"
#include "app/benches/sheets/sheets_bench.h"
#include "whole_window.h"

using namespace orthema;
using namespace orthema::app;

namespace {

void say(const char* what, std::vector<double> frames) {
    std::sort(frames.begin(), frames.end());
    std::printf("%-34s median %5.1f ms, 95 of 100 under %5.1f ms, worst %5.1f ms\n", what, frames[frames.size() / 2],
                frames[frames.size() * 95 / 100], frames.back());
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc < 2) return 2;
    const int pieces = argc > 2 ? std::atoi(argv[2]) : 2000;
    WholeWindow whole(application);
    Workroom& room = whole.room;
    whole.wait(300);
    room.keeper().open(QString::fromLocal8Bit(argv[1]));
    whole.wait(500);
    whole.window.go_to(QStringLiteral("sheets"));
    whole.wait(300);
    // the same order, more of everything on its first medium, on a roll that is long enough
    Order order = room.order();
    const std::string medium = room.selection().medium;
    int now = 0;
    for (const MediumPlan& m : room.sheets().media)
        if (m.medium == medium) now = m.asked;
    const double times = static_cast<double>(pieces) / std::max(1, now);
    for (OrderLine& l : order.lines) l.quantity = static_cast<int>(std::ceil(l.quantity * times));
    for (Medium& m : order.media)
        if (m.id == medium) m.length = Length::from_mm(90000);
    room.edit(QStringLiteral("more"), order);
    whole.wait(500);
    room.settler().settle(medium, 1);
    whole.wait(500);
    Ribbon* ribbon = static_cast<SheetsBench*>(whole.window.bench(QStringLiteral("sheets")))->ribbon();
    std::printf("%zu pieces on %.1f m\n", layout_of(room.order(), medium).copies.size(), room.sheets().media.front().length / 1000);
    const auto frames = [&](int count, const std::function<void(int)>& step) {
        std::vector<double> out;
        for (int i = 0; i < count; ++i) {
            QElapsedTimer timer;
            timer.start();
            step(i);
            ribbon->repaint();
            if (i > 2) out.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
            QCoreApplication::processEvents();
        }
        return out;
    };
    const QPointF middle(ribbon->width() / 2.0, ribbon->height() / 2.0);
    say("pan at film width:", frames(120, [&](int i) { ribbon->show_from(i * 40.0); }));
    ribbon->show_from(0);
    while (ribbon->last_mm() < 40000) ribbon->zoom_by(0.8, QPointF(6, middle.y()));
    say("pan with the whole roll in view:", frames(60, [&](int i) { ribbon->show_from(i * 20.0); }));
    say("zoom from the roll to a contour:", frames(120, [&](int) { ribbon->zoom_by(1.06, middle); }));
    say("zoom back:", frames(120, [&](int) { ribbon->zoom_by(1 / 1.06, middle); }));
    return 0;
}
