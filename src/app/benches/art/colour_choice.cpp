#include "app/benches/art/colour_choice.h"

#include <QColorDialog>
#include <QPainter>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"

namespace orthema::app {

namespace {

QIcon swatch(const Colour& c) {
    QPixmap dot(14, 14);
    dot.fill(to_qt(palette::rule));
    QPainter(&dot).fillRect(1, 1, 12, 12, to_qt(c));
    return QIcon(dot);
}

QString colour_key(const Colour& c) { return to_qt(c).name(); }

Colour colour_of_key(const QString& key) {
    const QColor c(key);
    return {c.red() / 255.0, c.green() / 255.0, c.blue() / 255.0, 1};  // as files keep them
}

/// What a team is usually lettered in, and what its blanks are dyed in.
std::vector<std::pair<QString, Colour>> usual_colours(const Order& order) {
    std::vector<std::pair<QString, Colour>> out{{tr("white"), {1, 1, 1, 1}},
                                                {tr("black"), {0.08, 0.08, 0.09, 1}},
                                                {tr("sun"), {0.96, 0.78, 0.25, 1}},
                                                {tr("brick"), {0.71, 0.33, 0.24, 1}}};
    for (const RunKey& run : runs_of(order)) {
        const QString name = qt(run.colour);
        const bool known = std::any_of(out.begin(), out.end(), [&](const auto& c) { return c.first == name; });
        if (!known && out.size() < 14) out.emplace_back(name, run_colour(order, run));
    }
    return out;
}

}  // namespace

void show_colours(QComboBox* box, const Order& order, const std::optional<Colour>& now, bool may_lack) {
    box->clear();
    if (may_lack) box->addItem(tr("none"), QString());
    for (const auto& [name, c] : usual_colours(order)) box->addItem(swatch(c), name, colour_key(c));
    int at = now ? box->findData(colour_key(*now)) : 0;
    if (now && at < 0) {
        box->addItem(swatch(*now), colour_key(*now), colour_key(*now));
        at = box->count() - 1;
    }
    box->addItem(tr("another…"), QStringLiteral("another"));
    box->setCurrentIndex(at);
}

std::optional<std::optional<Colour>> picked_colour(QComboBox* box, QWidget* parent) {
    QString key = box->currentData().toString();
    if (key == QStringLiteral("another")) {
        const QColor c = QColorDialog::getColor(Qt::white, parent, tr("Colour"));
        if (!c.isValid()) return std::nullopt;
        key = c.name();
    }
    return key.isEmpty() ? std::optional<Colour>() : std::optional(colour_of_key(key));
}

}  // namespace orthema::app
