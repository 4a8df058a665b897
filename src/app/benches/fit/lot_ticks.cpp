#include "app/benches/fit/lot_ticks.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/guides/panel_drawing.h"
#include "core/order/rules.h"

namespace orthema::app {

namespace {

constexpr double row_height = 38;

}  // namespace

const Decoration* same_design_on(const Order& order, const Decoration& d, const RunKey& run) {
    for (const Decoration& o : order.decorations)
        if (o.run == run && (o.id == d.id || (!d.rule.empty() && o.rule == d.rule))) return &o;
    return nullptr;
}

LotTicks::LotTicks(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Lots with this design"));
    setAccessibleName(tr("Lots with this design. Up and down choose a lot, space puts the design on or takes it off."));
    setFocusPolicy(Qt::StrongFocus);
}

void LotTicks::count_lots() {
    const int tall = int(double(room_.runs().size()) * row_height) + 2;
    if (minimumHeight() != tall) setFixedHeight(tall);
}

QPoint LotTicks::tick_at(const RunKey& run) const {
    const auto runs = room_.runs();
    const auto at = std::find(runs.begin(), runs.end(), run);
    return at == runs.end() ? QPoint() : QPoint(13, int((double(at - runs.begin()) + 0.5) * row_height));
}

Drawing LotTicks::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Order& order = room_.order();
    const Decoration* design = room_.decoration();
    if (design == nullptr) return d;
    const auto runs = room_.runs();
    caret_ = std::clamp(caret_, 0, std::max(0, int(runs.size()) - 1));
    for (std::size_t i = 0; i < runs.size(); ++i) {
        const double y = double(i) * row_height, middle = y + row_height / 2;
        const Decoration* has = same_design_on(order, *design, runs[i]);
        const auto why = has != nullptr ? std::nullopt : why_not(order, runs[i], design->location);
        const Colour ink = why ? palette::quiet : palette::ink;
        if (runs[i] == design->run) d.fill({round_rect({0, y + 1, width, y + row_height - 1}, 5)}, Colour{0.86, 0.92, 0.91, 1});
        if (hasFocus() && int(i) == caret_)
            d.marks.emplace_back(
                PathMark{{round_rect({1, y + 2, width - 1, y + row_height - 2}, 5)}, true, {}, Stroke{palette::verdigris, 1, {3, 2}}});
        const Rect box{6, middle - 7, 20, middle + 7};
        if (!why)
            d.marks.emplace_back(PathMark{{round_rect(box, 3)},
                                          true,
                                          has != nullptr ? palette::verdigris : palette::white,
                                          Stroke{has != nullptr ? palette::verdigris : palette::quiet, 1.2, {}}});
        if (has != nullptr) d.line({{9, middle}, {12, middle + 3.5}, {17, middle - 4}}, {palette::white, 1.8, {}});
        const BlankStyle* style = find_style(order, runs[i].style);
        if (style != nullptr && !style_fault(*style)) {
            const auto counts = counts_of(order, runs[i]);
            const std::string size = counts.empty() ? style->sizes.front() : counts[counts.size() / 2].size;
            const Panel g = panel_of(*style, size, why ? family_faces(style->family).front() : location_face(design->location));
            const Rect drawn = drawn_box(g);
            const double k = std::min(30 / drawn.width(), 30 / drawn.height());
            const Affine map{k, 0, 0, k, 42 - k * drawn.centre().x, middle - k * drawn.centre().y};
            draw_panel(d, g, map, run_colour(order, runs[i]), 0.7);
            const DecorationFit* fit = has == nullptr ? nullptr : find_fit(room_.plan(), has->id);
            const SizeFit* at = fit == nullptr ? nullptr : find_size(*fit, size);
            if (at != nullptr) draw_design(d, *has, *at, map);
        }
        d.text({62, middle - 2}, fitting(run_name(order, runs[i]), width - 64, 12, has != nullptr), 12, ink, Align::left, has != nullptr);
        const int pieces = garments_in(order, runs[i]);
        std::string under = std::to_string(pieces) + (pieces == 1 ? spoken(" piece") : spoken(" pieces"));
        Colour colour = palette::quiet;
        if (why) {
            under = worded(*why, order.unit);
        } else if (has != nullptr && has->departs) {
            under = spoken("own figures, ") + under;
            colour = palette::brick_text;
        } else if (has != nullptr && !has->pins.empty()) {
            under +=
                has->pins.size() == 1 ? spoken(", one size pinned") : ", " + std::to_string(has->pins.size()) + spoken(" sizes pinned");
            colour = palette::brick_text;
        }
        d.text({62, middle + 13}, fitting(under, width - 64, 11.5), 11.5, colour);
    }
    return d;
}

void LotTicks::turn(int row) {
    const auto runs = room_.runs();
    const Decoration* design = room_.decoration();
    if (design == nullptr || row < 0 || std::size_t(row) >= runs.size()) return;
    const RunKey& run = runs[std::size_t(row)];
    const bool on = same_design_on(room_.order(), *design, run) == nullptr;
    if (on && why_not(room_.order(), run, design->location)) return;
    if (ticked) ticked(run, on);
}

void LotTicks::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (event->button() != Qt::LeftButton) return;
    caret_ = int(event->position().y() / row_height);
    turn(caret_);
}

void LotTicks::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (step != 0) {
        caret_ += step;
        return refresh();
    }
    if (event->key() == Qt::Key_Space) return turn(caret_);
    Canvas::keyPressEvent(event);
}

bool LotTicks::event(QEvent* event) {
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        const auto runs = room_.runs();
        const auto row = std::size_t(std::max(0, help->pos().y())) / std::size_t(row_height);
        if (room_.decoration() == nullptr || row >= runs.size()) return true;
        const auto why = why_not(room_.order(), runs[row], room_.decoration()->location);
        QToolTip::showText(help->globalPos(), qt(run_name(room_.order(), runs[row])) +
                                                  (why ? QStringLiteral(": ") + qt(worded(*why, room_.order().unit)) : QString()));
        return true;
    }
    return Canvas::event(event);
}

}  // namespace orthema::app
