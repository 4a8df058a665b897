#include "app/benches/fit/fit_strip.h"

#include <QMouseEvent>

#include "app/widgets/speech.h"
#include "app/benches/fit/strips.h"

namespace orthema::app {

FitStrip::FitStrip(Workroom& room) : Canvas(room.art()), room_(room) {
    setFixedHeight(122);
    setFocusPolicy(Qt::NoFocus);
    setObjectName(QStringLiteral("Fit strip"));
    setAccessibleName(tr("Ladder: width by size"));
}

void FitStrip::set_show(Show show) {
    show_ = show;
    setAccessibleName(show == Show::ladder ? tr("Ladder: width by size")
                      : show == Show::cost ? tr("Cost of bands by their number")
                                           : tr("Drift of the placing schools over the sizes"));
    refresh();
}

Drawing FitStrip::draw(double width, double height) {
    const Decoration* d = room_.decoration();
    const DecorationFit* fit = room_.fit();
    if (d == nullptr || fit == nullptr) return {};
    switch (show_) {
    case Show::ladder: return ladder_drawing(room_.order(), *d, *fit, room_.selection().size, width, height);
    case Show::cost: {
        const auto facts = room_.facts().find(d->art);
        return bands_drawing(room_.order(), *d, *fit, facts == room_.facts().end() ? nullptr : &facts->second, width, height);
    }
    case Show::drift: return drift_drawing(*d, *fit, width, height);
    }
    return {};
}

void FitStrip::mousePressEvent(QMouseEvent* event) {
    const DecorationFit* fit = room_.fit();
    const Decoration* d = room_.decoration();
    if (show_ != Show::cost || fit == nullptr || d == nullptr) return;
    if (const int n = bands_at(shortfall_curve(*d, *fit).size(), event->position().x(), width()); n > 0 && count_wanted) count_wanted(n);
}

}  // namespace orthema::app
