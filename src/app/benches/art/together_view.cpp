#include "app/benches/art/together_view.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/menus.h"
#include "core/order/roster.h"

namespace orthema::app {

namespace {

constexpr double grip = 11;        ///< pixels about a handle that take it
constexpr double snap_pixels = 5;  ///< about the middle of the face
constexpr double least_width = 2;  ///< mm

}  // namespace

TogetherView::TogetherView(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Together view"));
    setAccessibleName(tr("The print that is put together, on its blank"));
    setFocusPolicy(Qt::StrongFocus);
}

void TogetherView::set_cloth(std::optional<Colour> cloth) {
    cloth_ = cloth;
    refresh();
}

void TogetherView::choose(std::size_t over) {
    over_ = over;
    refresh();
}

const PutTogether* TogetherView::print() const {
    const Art* a = find_art(room_.order(), room_.selection().art);
    return a != nullptr && a->together ? &*a->together : nullptr;
}

std::shared_ptr<const TogetherLaid> TogetherView::laid() const {
    const auto at = art().find(room_.selection().art);
    return at == art().end() ? nullptr : at->second->together;
}

Affine TogetherView::map() const {
    const auto all = laid();
    if (!all) return {};
    const Rect box = united(bounds(all->ground), bounds(all->keep));
    const double k = std::min((width() - 70) / box.width(), (height() - 110) / box.height());
    return Affine::shift(width() / 2.0, height() / 2.0 - 14)
        .after(Affine::scale(k, k))
        .after(Affine::shift(-box.centre().x, -box.centre().y));
}

const LoadedArt* TogetherView::picture_of(const LaidOver& over) const {
    const auto at = art().find(drawn_id(room_.order(), over.picture));
    return at == art().end() || at->second->facts.empty() ? nullptr : at->second.get();
}

LaidOver TogetherView::now(std::size_t over) const {
    if (held_ && over == over_) return *held_;
    const PutTogether* p = print();
    return p != nullptr && over < p->over.size() ? p->over[over] : LaidOver{};
}

Ring TogetherView::frame(std::size_t over) const {
    const auto all = laid();
    const LaidOver o = now(over);
    const LoadedArt* picture = picture_of(o);
    if (!all || picture == nullptr) return {};
    const double aspect = picture->facts.aspect;
    return mapped(Ring{{0, 0}, {1, 0}, {1, aspect}, {0, aspect}}, map().after(place_over(o, aspect, all->face)));
}

QPoint TogetherView::place_of(std::size_t over) const {
    const Ring f = frame(over);
    if (f.empty()) return {};
    const Point middle = (f[0] + f[2]) * 0.5;
    return {int(std::lround(middle.x)), int(std::lround(middle.y))};
}

QPoint TogetherView::handle() const {
    const Ring f = frame(over_);
    if (f.empty()) return {-100, -100};
    return {int(std::lround(f[2].x)), int(std::lround(f[2].y))};
}

std::optional<std::size_t> TogetherView::over_at(Point on_widget) const {
    const PutTogether* p = print();
    if (p == nullptr) return std::nullopt;
    for (std::size_t i = p->over.size(); i-- > 0;)
        if (const Ring f = frame(i); !f.empty() && inside(f, on_widget)) return i;
    return std::nullopt;
}

void TogetherView::draw_over(Drawing& d, std::size_t over, const TogetherLaid& all, const Affine& m) const {
    const LaidOver o = now(over);
    const LoadedArt* picture = picture_of(o);
    if (picture == nullptr) return;
    const Affine place = m.after(place_over(o, picture->facts.aspect, all.face));
    const std::string id = drawn_id(room_.order(), o.picture);
    const bool held = held_ && over == over_;
    if (held) d.marks.emplace_back(ArtMark{id, place, 0.25});  // all of it, faint, while it is moved
    d.clip(mapped(all.ground, m));
    d.marks.emplace_back(ArtMark{id, place, o.see_through ? o.tint : 1});
    if (o.see_through && o.edge.mm() > 0) {
        const Region letters = mapped(picture->facts.outline, place);
        d.fill(rings_of(subtract(letters, offset(letters, -o.edge.mm() * m.a, 0.3))), o.edge_colour);
    }
    d.unclip();
}

Drawing TogetherView::draw(double w, double h) {
    Drawing d;
    d.width = w;
    d.height = h;
    const auto all = laid();
    const PutTogether* p = print();
    if (!all || p == nullptr) {
        d.text({w / 2, h / 2}, spoken("The print is being put together."), 15, palette::quiet, Align::centre);
        return d;
    }
    const Affine m = map();
    const Region ground = mapped(all->ground, m), blank = mapped(all->keep, m);
    const Rect box = united(bounds(ground), bounds(blank));
    d.fill({round_rect({box.x0 - 18, box.y0 - 18, box.x1 + 18, box.y1 + 18}, 6)}, palette::paper);
    for (const Ring& line : all->lines) d.line(mapped(line, m), {palette::rule, 1.4, {}});
    d.region(blank, cloth_.value_or(palette::white), {});
    if (p->plain) d.region(ground, *p->plain, {});
    if (const auto picture = art().find(p->ground); all->picture && picture != art().end() && !picture->second->facts.empty()) {
        d.clip(ground);
        d.marks.emplace_back(ArtMark{
            p->ground,
            m.after(Affine::shift(all->picture->at.x, all->picture->at.y)).after(Affine::scale(all->picture->scale, all->picture->scale)),
            1});
        d.unclip();
    }
    for (std::size_t i = 0; i < p->over.size(); ++i) draw_over(d, i, *all, m);
    // bleed outside, the blank's edge, and what is kept clear within it
    d.region(ground, {}, Stroke{palette::quiet, 1, {2, 3}});
    d.region(blank, {}, Stroke{palette::ink, 1.6, {}});
    for (const Ring& line : all->lines) d.line(mapped(line, m), {palette::quiet, 0.9, {}});
    d.region(mapped(all->raised, m), {}, Stroke{palette::ochre, 1.6, {}});
    const Region inner = subtract(offset(p->bleed.mm() < 0 ? all->ground : all->keep, -p->clear.mm()), offset(all->raised, p->clear.mm()));
    d.region(mapped(inner, m), {}, Stroke{palette::white, 2.2, {}});
    d.region(mapped(inner, m), {}, Stroke{palette::brick, 1.1, {5, 4}});
    if (over_ < p->over.size())
        if (const Ring f = frame(over_); !f.empty()) {
            d.region(Region{Polygon{f, {}}}, {}, Stroke{palette::white, 3.4, {}});
            d.region(Region{Polygon{f, {}}}, {}, Stroke{palette::verdigris, 2, {}});
            d.fill({disc(f[2], 7)}, palette::white);
            d.fill({disc(f[2], 4.5)}, palette::verdigris);
            const Point face = m(all->face.centre());
            if (held_ && on_middle_[0]) d.line({{face.x, box.y0 - 14}, {face.x, box.y1 + 14}}, {palette::brick, 1.2, {}});
            if (held_ && on_middle_[1]) d.line({{box.x0 - 14, face.y}, {box.x1 + 14, face.y}}, {palette::brick, 1.2, {}});
        }
    std::string says = spoken("Drag what lies over the ground; wheel or the corner: larger, Shift and wheel: turned.");
    if (held_ && (on_middle_[0] || on_middle_[1])) says = spoken("On the middle of the face.");
    if (p->over.empty()) says = spoken("Nothing lies over the ground yet: choose a picture, then lay it over.");
    d.text({w / 2, h - 12}, says, 12.5, palette::quiet, Align::centre);
    return d;
}

void TogetherView::snap(LaidOver& o) {
    const auto all = laid();
    const LoadedArt* picture = picture_of(o);
    if (!all || picture == nullptr) return;
    const Point middle = place_over(o, picture->facts.aspect, all->face)({0.5, picture->facts.aspect / 2});
    const Point off = all->face.centre() - middle;
    const double near = snap_pixels / map().a;
    on_middle_[0] = std::abs(off.x) < near;
    on_middle_[1] = std::abs(off.y) < near;
    o = moved_over(o, {on_middle_[0] ? off.x : 0, on_middle_[1] ? off.y : 0});
}

void TogetherView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (event->button() != Qt::LeftButton || print() == nullptr) return;
    from_ = to_point(event->position());
    const QPoint at = handle();
    if (std::hypot(at.x() - from_.x, at.y() - from_.y) <= grip) {
        drag_ = Drag::size;
        held_ = now(over_);
        return;
    }
    const auto hit = over_at(from_);
    if (!hit) return;
    const bool other = *hit != over_;
    over_ = *hit;
    if (other && picked) picked(over_);
    drag_ = Drag::move;
    held_ = now(over_);
    refresh();
}

void TogetherView::mouseMoveEvent(QMouseEvent* event) {
    const PutTogether* p = print();
    if (drag_ == Drag::none || p == nullptr || over_ >= p->over.size()) return;
    const Point to = to_point(event->position());
    const double k = map().a;
    const LaidOver& was = p->over[over_];
    if (drag_ == Drag::move) {
        held_ = moved_over(was, (to - from_) * (1 / k));
        snap(*held_);
    } else {
        held_.reset();  // what is asked for is where it lies without the hand
        const QPoint c = place_of(over_);
        const Point middle{double(c.x()), double(c.y())};
        held_ = was;
        held_->width = Length::from_mm(std::max(least_width, was.width.mm() * norm(to - middle) / std::max(1.0, norm(from_ - middle))));
        on_middle_[0] = on_middle_[1] = false;
        // it grows about its middle, wherever it is measured from
        const auto all = laid();
        if (const LoadedArt* picture = picture_of(was); all && picture != nullptr) {
            const double aspect = picture->facts.aspect;
            const Point at = place_over(*held_, aspect, all->face)({0.5, aspect / 2});
            held_ = moved_over(*held_, place_over(was, aspect, all->face)({0.5, aspect / 2}) - at);
        }
    }
    refresh();
}

void TogetherView::mouseReleaseEvent(QMouseEvent* event) {
    const Drag drag = std::exchange(drag_, Drag::none);
    const auto held = std::exchange(held_, std::nullopt);
    on_middle_[0] = on_middle_[1] = false;
    if (drag != Drag::none && held && norm(to_point(event->position()) - from_) >= 2 && changed) changed(over_, *held);
    refresh();
}

void TogetherView::change(std::size_t over, const std::function<void(LaidOver&)>& how) {
    LaidOver o = now(over);
    how(o);
    o.width = Length::from_mm(std::clamp(o.width.mm(), least_width, 3000.0));
    if (changed) changed(over, o);
}

void TogetherView::wheelEvent(QWheelEvent* event) {
    const auto hit = over_at(to_point(event->position()));
    const double steps = wheel_steps(*event);
    if (!hit || steps == 0) return;
    if (over_ != *hit) {
        over_ = *hit;
        if (picked) picked(over_);
    }
    const bool turn = event->modifiers().testFlag(Qt::ShiftModifier);
    change(*hit, [&](LaidOver& o) {
        if (turn)
            o.degrees = std::remainder(o.degrees + 2 * steps, 360);
        else
            o.width = o.width * std::pow(1.04, steps);
    });
    event->accept();
}

void TogetherView::keyPressEvent(QKeyEvent* event) {
    const PutTogether* p = print();
    if (p == nullptr || p->over.empty()) return Canvas::keyPressEvent(event);
    const int key = event->key();
    const std::size_t n = p->over.size();
    if (key == Qt::Key_PageDown || key == Qt::Key_PageUp) {
        choose((over_ + (key == Qt::Key_PageDown ? 1 : n - 1)) % n);
        if (picked) picked(over_);
        return;
    }
    if (over_ >= n) return Canvas::keyPressEvent(event);
    if (key == Qt::Key_Delete && taken_off) return taken_off(over_);
    const Point step = arrow_of(*event) * nudge_mm(*event, room_.order().unit);
    if (step != Point{}) return change(over_, [&](LaidOver& o) { o = moved_over(o, step); });
    if (key == Qt::Key_Plus || key == Qt::Key_Minus)
        return change(over_, [&](LaidOver& o) { o.width = o.width * (key == Qt::Key_Plus ? 1.04 : 1 / 1.04); });
    Canvas::keyPressEvent(event);
}

void TogetherView::contextMenuEvent(QContextMenuEvent* event) {
    const PutTogether* p = print();
    const auto hit = over_at({double(event->x()), double(event->y())});
    if (p == nullptr || !hit) return;
    over_ = *hit;
    if (picked) picked(over_);
    QMenu menu(this);
    const Art* a = find_art(room_.order(), p->over[over_].picture);
    add_heading(menu, a == nullptr ? QString() : QString::fromStdString(a->name));
    QAction* up = menu.addAction(tr("Over the next one"));
    QAction* down = menu.addAction(tr("Under the one below"));
    QAction* middle = menu.addAction(tr("On the middle of the face"));
    QAction* off = menu.addAction(tr("Take it off"));
    up->setEnabled(over_ + 1 < p->over.size());
    down->setEnabled(over_ > 0);
    const QAction* chosen = menu.exec(event->globalPos());
    if (chosen == nullptr) return;
    if (chosen == off && taken_off) taken_off(over_);
    if ((chosen == up || chosen == down) && raised) raised(over_, chosen == up ? 1 : -1);
    if (chosen == middle)
        change(over_, [](LaidOver& o) {
            o.level = o.upright = From::middle;
            o.across = o.down = Length{};
        });
}

}  // namespace orthema::app
