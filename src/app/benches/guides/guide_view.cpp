#include "app/benches/guides/guide_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QScreen>
#include <QWheelEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "core/guides/panel_drawing.h"

namespace orthema::app {

namespace {

/// A page's mark on the screen: hairlines of paper stay to be seen.
Mark on_screen(const Mark& mark, const Affine& map) {
    Mark out = mapped(mark, map);
    if (auto* path = std::get_if<PathMark>(&out); path != nullptr && path->stroke) path->stroke->width = std::max(0.8, path->stroke->width);
    return out;
}

void draw_page(Drawing& d, const Drawing& page, const Affine& map) {
    const Point a = map({0, 0}), b = map({page.width, page.height});
    d.rect({a.x + 3, a.y + 3, b.x + 3, b.y + 3}, palette::rule);
    d.rect({a.x, a.y, b.x, b.y}, palette::white, Stroke{palette::quiet, 0.8, {}});
    for (const Mark& m : page.marks) d.marks.push_back(on_screen(m, map));
}

}  // namespace

GuideView::GuideView(Workroom& room) : Canvas(room.art()) {
    setObjectName(QStringLiteral("Guide view"));
    setAccessibleName(tr("The guide as it will print"));
}

void GuideView::show_pages(std::vector<GuidePage> pages, int columns, QString why_none, int what,
                           std::function<void(Drawing&, const Rect&)> beside) {
    pages_ = std::move(pages);
    beside_ = std::move(beside);
    columns_ = std::max(1, columns);
    why_none_ = std::move(why_none);
    what_ = what;
    setCursor(Qt::ArrowCursor);
    refresh();
}

void GuideView::show_guide(std::optional<Guide> guide, std::optional<Panel> garment, Colour cloth, int what) {
    const bool fresh = what != what_ || !guide_ || !guide || guide_->size != guide->size || guide_->decoration != guide->decoration;
    guide_ = std::move(guide);
    garment_ = std::move(garment);
    cloth_ = cloth;
    what_ = what;
    if (fresh) shift_ = {};
    setCursor(what == real_size ? Qt::OpenHandCursor : Qt::ArrowCursor);
    refresh();
}

Drawing GuideView::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    if (!guide_) {
        d.text({width / 2, height / 2 - 12}, spoken("No guide yet."), 17, palette::ink, Align::centre, true);
        d.text({width / 2, height / 2 + 14}, spoken("A guide comes with each design that is fitted on the Fit bench."), 13.5,
               palette::quiet, Align::centre);
        return d;
    }
    if (what_ >= maps)
        draw_pages(d, width, height);
    else if (what_ == card)
        draw_card(d, width, height);
    else if (what_ == tiles)
        draw_tiles(d, width, height);
    else
        draw_real(d, width, height);
    return d;
}

void GuideView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    from_ = to_point(event->position()) - shift_;
}

void GuideView::mouseMoveEvent(QMouseEvent* event) {
    if (what_ == real_size) pan_to(to_point(event->position()) - from_);
}

void GuideView::wheelEvent(QWheelEvent* event) {
    if (what_ == real_size) pan_to(shift_ + Point{double(event->angleDelta().x()), double(event->angleDelta().y())});
}

void GuideView::keyPressEvent(QKeyEvent* event) {
    const Point step = arrow_of(*event);
    if (what_ != real_size || step == Point{}) return Canvas::keyPressEvent(event);
    pan_to(shift_ - step * 40);
}

void GuideView::pan_to(Point p) {
    shift_ = {std::clamp(p.x, -4000.0, 400.0), std::clamp(p.y, -4000.0, 400.0)};
    refresh();
}

void GuideView::draw_card(Drawing& d, double width, double height) {
    const Drawing& page = guide_->card.drawing;
    const double k = std::min((width * 0.56 - 20) / page.width, (height - 16) / page.height);
    draw_page(d, page, {k, 0, 0, k, 6, 6});
    if (!garment_) return;
    const Rect box = drawn_box(*garment_);
    const double left = 6 + k * page.width + 24, room = width - left - 10;
    const double g = std::min(room / box.width(), (height - 80) / box.height());
    const Affine map{g, 0, 0, g, left + room / 2 - g * box.centre().x, 46 - g * box.y0};
    draw_panel(d, *garment_, map, cloth_, 1);
    draw_landmarks(d, *garment_, map, 0.9);
    draw_paper(d, map, 0.55);
    d.rect({left + room / 2 - 104, 8, left + room / 2 + 104, 27}, Colour{0.957, 0.945, 0.918, 0.9});
    d.text({left + room / 2, 22}, spoken("the template laid on the garment"), 12.5, palette::quiet, Align::centre);
}

void GuideView::draw_paper(Drawing& d, const Affine& map, double opacity) {
    const TemplateLayout& l = guide_->layout;
    for (int row = 0; row < l.rows; ++row)
        for (int column = 0; column < l.columns; ++column) {
            const Point a = map({l.area.x0 + column * l.step_x, l.area.y0 + row * l.step_y});
            const Point b = map({l.area.x0 + column * l.step_x + l.tile_width, l.area.y0 + row * l.step_y + l.tile_height});
            d.rect({a.x, a.y, b.x, b.y}, Colour{1, 1, 1, opacity}, Stroke{palette::verdigris, 1.1, {}});
            d.text({a.x + 6, a.y + 15}, std::string(1, char('A' + row)) + std::to_string(column + 1), 12, palette::verdigris_text,
                   Align::left, true);
        }
    for (const Mark& m : guide_->whole.marks) {
        if (!std::holds_alternative<PathMark>(m)) continue;
        Mark line = on_screen(m, map);
        d.marks.push_back(std::move(line));
    }
}

void GuideView::draw_pages(Drawing& d, double width, double height) {
    if (pages_.empty()) {
        d.text({width / 2, height / 2}, why_none_.toStdString(), 15, palette::quiet, Align::centre);
        return;
    }
    const int columns = std::min(columns_, int(pages_.size())), rows = (int(pages_.size()) + columns - 1) / columns;
    double pw = 0, ph = 0;
    for (const GuidePage& p : pages_) {
        pw = std::max(pw, p.drawing.width);
        ph = std::max(ph, p.drawing.height);
    }
    const double gap = 14;
    const double share = beside_ ? 0.5 : 1;
    const double k = std::min((share * width - 20 - gap * (columns - 1)) / (pw * columns), (height - 16 - gap * (rows - 1)) / (ph * rows));
    if (beside_) {
        for (const GuidePage& p : pages_) draw_page(d, p.drawing, {k, 0, 0, k, 6, 6});
        beside_(d, {k * pw + 34, 8, width - 8, height - 8});
        return;
    }
    const double total = k * pw * columns + gap * (columns - 1);
    for (std::size_t i = 0; i < pages_.size(); ++i) {
        const int row = int(i) / columns, column = int(i) % columns;
        draw_page(d, pages_[i].drawing, {k, 0, 0, k, (width - total) / 2 + column * (k * pw + gap), 6 + row * (k * ph + gap)});
    }
}

void GuideView::draw_tiles(Drawing& d, double width, double height) {
    const TemplateLayout& l = guide_->layout;
    const double pw = guide_->tiles.front().drawing.width, ph = guide_->tiles.front().drawing.height;
    const double gap = 14;
    const double k = std::min((width - 20 - gap * (l.columns - 1)) / (pw * l.columns), (height - 34 - gap * (l.rows - 1)) / (ph * l.rows));
    const double total = k * pw * l.columns + gap * (l.columns - 1);
    for (int row = 0; row < l.rows; ++row)
        for (int column = 0; column < l.columns; ++column) {
            const auto i = std::size_t(row * l.columns + column);
            if (i >= guide_->tiles.size()) continue;
            draw_page(d, guide_->tiles[i].drawing, {k, 0, 0, k, (width - total) / 2 + column * (k * pw + gap), 6 + row * (k * ph + gap)});
        }
    d.text({width / 2, height - 8}, spoken("trim along the dotted edges, close the diamonds, tape; print at 100 %"), 12.5, palette::quiet,
           Align::centre);
}

void GuideView::draw_real(Drawing& d, double width, double height) {
    const double k = screen() != nullptr ? screen()->physicalDotsPerInch() / 25.4 : 96 / 25.4;
    const Affine map{k, 0, 0, k, 10 + shift_.x, 10 + shift_.y};
    draw_page(d, guide_->tiles.front().drawing, map);
    // a square to hold a ruler against
    const double side = 50 * k;
    const Rect square{width - side - 16, height - side - 30, width - 16, height - 30};
    d.rect(square.grown(8), Colour{0.984, 0.98, 0.965, 0.95});
    d.rect(square, palette::white, Stroke{palette::ink, 1.4, {}});
    d.text({square.centre().x, square.centre().y - 2}, spoken("50 mm"), 14, palette::ink, Align::centre, true);
    d.text({square.centre().x, square.centre().y + 16}, spoken("hold a ruler here"), 12, palette::quiet, Align::centre);
}

}  // namespace orthema::app
