#include "app/benches/press/pick_list.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include "app/widgets/speech.h"
#include "app/benches/press/lanes_view.h"
#include "app/widgets/figures.h"
#include "core/guides/panel_drawing.h"

namespace orthema::app {

PickList::PickList(Workroom& room) : Canvas(room.art()), room_(room) {
    setObjectName(QStringLiteral("Pick list"));
    setAccessibleName(tr("Pick list of blanks and transfers by load"));
    setFocusPolicy(Qt::StrongFocus);
}

void PickList::show_rows(std::vector<PickRow> rows, double now) {
    rows_ = std::move(rows);
    now_ = now;
    if (chosen_ >= int(rows_.size())) chosen_ = -1;
    scroll(0);
}

int PickList::rows_in_view() const { return std::max(1, int((height() - top) / row_height)); }

void PickList::scroll(double by) {
    first_ = std::clamp(first_ + by, 0.0, std::max(0.0, double(rows_.size()) - rows_in_view()));
    refresh();
}

Drawing PickList::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    if (rows_.empty()) {
        d.text({width / 2, height / 2}, spoken("Nothing to pick yet: the press plan comes first."), 15, palette::quiet, Align::centre);
        return d;
    }
    const bool somebodys = std::any_of(rows_.begin(), rows_.end(), [](const PickRow& r) { return !r.who.empty(); });
    const double x[] = {16, 78, width * (somebodys ? 0.16 : 0.2), width * (somebodys ? 0.27 : 0.34), width * (somebodys ? 0.49 : 0.66)};
    const char* heads[] = {noted("from"), noted("pieces"), noted("press"), noted("blank"), noted("transfer")};
    for (std::size_t k = 0; k < 5; ++k)
        d.text({x[k] + (k == 1 ? 40 : 0), 20}, heads[k], 12.5, palette::quiet, k == 1 ? Align::right : Align::left);
    d.line({{0, 28}, {width, 28}}, {palette::rule, 1, {}});
    d.clip(Rect{0, 28, width, height});
    for (int i = 0; i < int(rows_.size()); ++i) {
        const double y = top + (i - first_) * row_height;
        if (y < 20 || y > height) continue;
        const PickRow& r = rows_[std::size_t(i)];
        const bool over = now_ >= 0 && r.end < now_;
        const Colour ink = over ? palette::quiet : palette::ink;
        if (i == chosen_) d.rect({4, y - 4, width - 4, y + row_height - 6}, Colour{0.184, 0.498, 0.475, 0.14});
        d.rect({4, y, 9, y + row_height - 10}, lane_tone(room_.order(), r.decoration));
        const double base = y + 15;
        constexpr double letters = 14.5;
        d.text({x[0], base}, time_of_day(room_.order().press_run, r.start), 14.5, ink, Align::left, true);
        d.text({x[1] + 40, base}, r.again ? "–" : std::to_string(r.pieces), 15, ink, Align::right, true);
        d.text({x[2], base}, fitting(r.press, x[3] - x[2] - 8, letters), 14.5, ink);
        d.text({x[3], base}, fitting(r.blank, x[4] - x[3] - 8, letters), 14.5, ink);
        d.text({x[4], base},
               fitting((r.again   ? spoken("trial, again: ")
                        : r.trial ? spoken("trial: ")
                                  : "") +
                           r.transfer + (r.who.empty() ? "" : ": " + r.who),
                       width - x[4] - 12, letters),
               14.5, r.trial ? palette::brick : ink);
    }
    d.unclip();
    const double shown = double(rows_in_view()) / double(rows_.size());
    if (shown < 1) {
        const double from = 30 + (height - 34) * first_ / double(rows_.size());
        d.rect({width - 5, from, width - 2, from + (height - 34) * shown}, palette::rule);
    }
    return d;
}

void PickList::wheelEvent(QWheelEvent* event) { scroll(-event->angleDelta().y() / 40.0); }

void PickList::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const int i = int((event->position().y() - top + 4) / row_height + first_);
    if (event->position().y() < top - 4 || i < 0 || i >= int(rows_.size())) return;
    chosen_ = i;
    if (picked) picked(rows_[std::size_t(i)].load_ids.front());
    refresh();
}

void PickList::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (event->key() == Qt::Key_PageDown) return scroll(rows_in_view());
    if (event->key() == Qt::Key_PageUp) return scroll(-rows_in_view());
    if (by == 0 || rows_.empty()) return Canvas::keyPressEvent(event);
    chosen_ = std::clamp(chosen_ + by, 0, int(rows_.size()) - 1);
    if (picked) picked(rows_[std::size_t(chosen_)].load_ids.front());
    if (chosen_ < first_) scroll(chosen_ - first_);
    if (chosen_ >= first_ + rows_in_view()) scroll(chosen_ - first_ - rows_in_view() + 1);
    refresh();
}

}  // namespace orthema::app
