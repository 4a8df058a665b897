#include "app/blanks/blanks_bench.h"

#include <QDate>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QMenu>

#include "app/blanks/tape_drawing.h"
#include "app/shell/chips.h"
#include "app/shell/figures.h"
#include "core/order/edit.h"

namespace orthema::app {

BlanksBench::BlanksBench(Workroom& room) : Bench(room, QStringLiteral("blanks")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    styles_ = new ChipRow(QStringLiteral("Blanks"));
    styles_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.style = id;
        for (const RunKey& run : runs_of(room_.order()))
            if (run.style == id) s.run = run;
        const BlankStyle* style = find_style(room_.order(), id);
        if (style != nullptr && size_index(*style, s.size) < 0) s.size = style->sizes[style->sizes.size() / 2];
        room_.select(s);
    };
    column->addWidget(styles_);
    sizes_ = new ChipRow(QStringLiteral("Sizes"));
    sizes_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.size = id;
        room_.select(s);
    };
    column->addWidget(sizes_);
    drawing_ = new TapeDrawing(room);
    drawing_->taped = [this](Measure m, Length v) { tape(m, v); };
    column->addWidget(drawing_, 1);

    panel_ = new FigurePanel;
    panel_->head(QStringLiteral("Figures"));
    title_ = panel_->title();
    fabric_ = panel_->note();
    for (int i = 0; i < measure_count; ++i) {
        const auto m = static_cast<Measure>(i);
        auto* row = new QWidget;
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        line->setSpacing(4);
        auto* source = new QLabel;
        source->setFixedWidth(14);
        auto* name = new QLabel(QString::fromLatin1(measure_name(m)).section(',', 0, 0));
        name->setProperty("quiet", true);
        auto* field = new LengthField(QString::fromLatin1(measure_name(m)));
        field->setFixedWidth(78);
        field->entered = [this, m](Length v, bool) -> std::optional<QString> {
            if (v.mm() < 0 || v.mm() > 3000) return QStringLiteral("A garment measures between 0 and 3 m.");
            tape(m, v);
            return std::nullopt;
        };
        line->addWidget(source);
        line->addWidget(name);
        line->addStretch(1);
        line->addWidget(field);
        panel_->add(row);
        fields_[m] = {row, field};
        sources_[m] = source;
    }
    differs_ = panel_->note();
    differs_->setProperty("caution", true);
    panel_->fill();
    auto* published = push(QStringLiteral("Back to published"), QStringLiteral("Takes back every taped figure of this size"));
    panel_->add(published);
    connect(published, &QPushButton::clicked, this, &BlanksBench::back_to_published);
    auto* shop =
        push(QStringLiteral("Shop library"), QStringLiteral("Keep these figures for later orders, or exchange the library as JSON"));
    auto* menu = new QMenu(shop);
    menu->addAction(QStringLiteral("Keep this blank's figures in the library"), this, [this] {
        if (const BlankStyle* style = find_style(room_.order(), room_.selection().style)) room_.keep_in_library(*style);
    });
    menu->addAction(QStringLiteral("Write the library to a file…"), this, [this] {
        const QString p = QFileDialog::getSaveFileName(this, QStringLiteral("Write the library"), QStringLiteral("shop-library.json"),
                                                       QStringLiteral("Library (*.json)"));
        if (!p.isEmpty()) room_.export_library(p);
    });
    menu->addAction(QStringLiteral("Bring in a library file…"), this, [this] {
        const QString p = QFileDialog::getOpenFileName(this, QStringLiteral("Bring in a library"), {}, QStringLiteral("Library (*.json)"));
        if (!p.isEmpty()) room_.import_library(p);
    });
    shop->setMenu(menu);
    panel_->add(shop);
}

QWidget* BlanksBench::figures() { return panel_; }
QWidget* BlanksBench::first_focus() { return drawing_; }

void BlanksBench::tape(Measure measure, Length value) {
    const Selection& s = room_.selection();
    const BlankStyle* style = find_style(room_.order(), s.style);
    if (style == nullptr || size_index(*style, s.size) < 0) return;
    const Figure& old = style->chart.at(s.size).at(measure);
    const int pieces = old.source == Source::measured ? old.pieces : 1;
    const BlankStyle next =
        with_measured(*style, s.size, measure, value, std::max(1, pieces), QDate::currentDate().toString(Qt::ISODate).toStdString());
    if (const auto fault = style_fault(next)) {
        room_.say({qt(*fault), true, {}, {}});
        refresh();
        return;
    }
    room_.edit(QStringLiteral("tape %1").arg(QString::fromLatin1(measure_name(measure)).section(',', 0, 0).toLower()),
               with_style(room_.order(), next));
}

void BlanksBench::back_to_published() {
    const Selection& s = room_.selection();
    const BlankStyle* style = find_style(room_.order(), s.style);
    if (style == nullptr) return;
    BlankStyle next = *style;
    for (const Measure m : family_measures(style->family))
        if (next.chart.at(s.size).at(m).source == Source::measured) next = with_published(next, s.size, m);
    if (const auto fault = style_fault(next)) {
        room_.say({qt(*fault), true, {}, {}});
        return;
    }
    room_.edit(QStringLiteral("back to published"), with_style(room_.order(), next));
}

void BlanksBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    std::vector<Chip> chips;
    for (const BlankStyle& style : order.styles) {
        int ordered = 0;
        for (const OrderLine& l : order.lines)
            if (l.style == style.id) ordered += l.quantity;
        chips.push_back({style.id,
                         qt(style.name),
                         ordered == 0 ? QStringLiteral("not in this order") : QStringLiteral("%1 ordered").arg(ordered),
                         standing_where([&](const Subject& about) { return about.style == style.id; }),
                         {}});
    }
    styles_->show_chips(chips, s.style);
    const BlankStyle* style = find_style(order, s.style);
    chips.clear();
    if (style != nullptr) {
        for (const std::string& size : style->sizes) {
            int taped = 0;
            for (const auto& [m, f] : style->chart.at(size)) taped += f.source == Source::measured ? 1 : 0;
            chips.push_back({size,
                             qt(size),
                             taped > 0 ? QStringLiteral("%1 taped").arg(taped) : QStringLiteral("published"),
                             standing_where([&](const Subject& about) { return about.style == style->id && about.size == size; }),
                             {}});
        }
    }
    sizes_->show_chips(chips, s.size);
    drawing_->refresh();
    const bool any = style != nullptr && size_index(*style, s.size) >= 0;
    for (auto& [m, row] : fields_) row.first->setVisible(false);
    if (!any) return;
    title_->setText(qt(style->name) + ", " + qt(s.size));
    fabric_->setText(qt(style->fabric));
    QStringList off;
    for (const Measure m : family_measures(style->family)) {
        const Figure& f = style->chart.at(s.size).at(m);
        fields_[m].first->setVisible(true);
        fields_[m].second->show_length(f.value, order.unit);
        QString tip = QStringLiteral("%1: %2").arg(QString::fromLatin1(measure_name(m)), QString::fromLatin1(source_name(f.source)));
        if (f.source == Source::measured)
            tip += QStringLiteral(" %1, published %2").arg(qt(f.date), qt(length_text(f.published.value_or(f.value), order.unit)));
        fields_[m].second->setToolTip(tip);
        sources_[m]->setText(f.source == Source::measured ? QStringLiteral("●")
                             : f.source == Source::graded ? QStringLiteral("◐")
                                                          : QStringLiteral("○"));
        sources_[m]->setStyleSheet(f.source == Source::measured ? QStringLiteral("color:#B5533C")
                                   : f.source == Source::graded ? QStringLiteral("color:#6A5590")
                                                                : QStringLiteral("color:#9A9F9F"));
        sources_[m]->setToolTip(tip);
        if (f.source == Source::measured && f.published && std::abs((f.value - *f.published).mm()) > style->tolerance.mm())
            off << QString::fromLatin1(measure_name(m)).section(',', 0, 0).toLower() + QStringLiteral(" by ") +
                       qt(length_text(f.value - *f.published, order.unit));
    }
    differs_->setText(off.isEmpty() ? QString() : QStringLiteral("Taped differs from published: ") + off.join(QStringLiteral(", ")));
}

QString BlanksBench::word() const {
    int taped = 0;
    for (const BlankStyle& style : room_.order().styles)
        for (const auto& [size, row] : style.chart)
            for (const auto& [m, f] : row) taped += f.source == Source::measured ? 1 : 0;
    return taped == 0 ? QStringLiteral("published") : QStringLiteral("%1 taped").arg(taped);
}

QString BlanksBench::help() const {
    return QStringLiteral(
        "Blanks: the garments lying flat. Click a figure on the drawing and type what the tape says; sizes between two taped ones are "
        "graded. Everything is sized from these figures.");
}

}  // namespace orthema::app
