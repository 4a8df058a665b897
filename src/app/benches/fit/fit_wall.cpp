#include "app/benches/fit/fit_wall.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QMouseEvent>
#include <QWheelEvent>

#include <cmath>
#include <tuple>

#include "app/widgets/speech.h"
#include "app/benches/fit/fit_deeds.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "drawing/painter.h"

namespace orthema::app {

namespace {

const QString drag_gesture = QStringLiteral("drag on the wall");

/// A figure as the tape would read it: whole millimetres or sixteenths.
double on_tape(double mm, Reading reading) {
    const double step = reading == Unit::mm ? 1 : 25.4 / 16;
    return std::round(mm / step) * step;
}

QPoint to_pixel(Point p) { return {int(std::lround(p.x)), int(std::lround(p.y))}; }

}  // namespace

FitWall::FitWall(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Size wall"));
    setAccessibleName(tr(
        "Size wall. Arrows nudge the design, Page Up and Page Down choose a size, Delete takes its pin away, or the design "
        "off this lot, 1 to 4 choose a placing school, L shows all lots of the rule, Enter makes one garment large, plus and minus zoom, "
        "G, P and B show the other schools, the platen and the balance."));
    setMouseTracking(true);
}

void FitWall::show_all_lots(bool on) {
    all_lots_ = on;
    followed_.clear();
    refresh();
}

std::vector<WallLot> FitWall::standing() const {
    std::vector<WallLot> out;
    for (const std::string& id : lots_) {
        const Decoration* d = find_decoration(room_.order(), id);
        const DecorationFit* fit = find_fit(room_.plan(), id);
        if (d != nullptr && fit != nullptr && fit->ground != nullptr) out.push_back({d, fit});
    }
    return out.size() == lots_.size() ? out : std::vector<WallLot>{};
}

int FitWall::chosen_lot() const {
    const auto at = std::find(lots_.begin(), lots_.end(), room_.selection().decoration);
    return at == lots_.end() ? 0 : int(at - lots_.begin());
}

void FitWall::lay_out(double width, double height) {
    const Decoration* d = room_.decoration();
    wall_ = {};
    lots_.clear();
    if (d == nullptr || room_.fit() == nullptr) return;
    if (all_lots_ && !d->rule.empty()) {
        std::vector<std::string> all;
        for (const Decoration& o : room_.order().decorations)
            if (o.rule == d->rule && find_fit(room_.plan(), o.id) != nullptr) all.push_back(o.id);
        const int most = std::clamp(int(height / 115), 1, 8), n = int(all.size());
        const int at = int(std::find(all.begin(), all.end(), d->id) - all.begin());
        if (followed_ != d->id) first_lot_ = std::clamp(first_lot_, at - most + 1, at);
        followed_ = d->id;
        first_lot_ = std::clamp(first_lot_, 0, std::max(0, n - most));
        lots_.assign(all.begin() + first_lot_, all.begin() + std::min(n, first_lot_ + most));
    } else {
        lots_ = {d->id};
    }
    // The backdrop is painted again when the blanks under it are others: their grounds are kept while they stay.
    const std::vector<WallLot> stand = standing();
    std::string key;
    std::vector<std::shared_ptr<const GroundRun>> grounds;
    for (const WallLot& l : stand) {
        const RunKey& run = l.decoration->run;
        key += run.style + "/" + run.colour + "/" + run.lot + "/" + location_key(l.decoration->location) + ";";
        grounds.push_back(l.fit->ground);
    }
    if (key != ground_key_ || grounds != grounds_) {
        grounds_ = std::move(grounds);
        ground_key_ = key;
        ++ground_round_;
    }
    wall_ = wall_of(stand, width, height);
    if (large_) {
        const std::string& size = room_.selection().size;
        const WallSlot* slot = stand_of(size);
        const Ground* ground = slot == nullptr ? nullptr : find_ground(*stand[std::size_t(slot->lot)].fit, size);
        if (ground != nullptr) std::tie(zoom_, pan_) = filling(wall_, drawn_box(ground->panel), *slot, width, height);
    } else {
        pan_ = {std::clamp(pan_.x, width * (1 - zoom_), 0.0), std::clamp(pan_.y, height * (1 - zoom_), 0.0)};
    }
    if (zoom_ > 1) wall_ = seen_nearer(std::move(wall_), zoom_, pan_);
}

std::string FitWall::backdrop_key() {
    if (wall_.stands.empty()) return {};
    std::string key = ground_key_ + " " + std::to_string(ground_round_);
    if (zoom_ > 1) key += " " + std::to_string(zoom_) + " " + std::to_string(pan_.x) + " " + std::to_string(pan_.y);
    return key;
}

void FitWall::show_large(bool on) {
    large_ = on;
    zoom_ = 1;
    pan_ = {};
    refresh();
}

void FitWall::zoom_by(double factor, Point about) {
    const double next = std::clamp(zoom_ * factor, 1.0, 12.0);
    pan_ = about + (pan_ - about) * (next / zoom_);
    zoom_ = next;
    large_ = false;
    refresh();
}

void FitWall::draw_snaps(Drawing& d) const {
    if (held_.hold != Hold::design || std::size_t(held_.slot) >= wall_.stands.size()) return;
    const WallSlot& slot = wall_.stands[std::size_t(held_.slot)];
    double y = slot.cell.y0 + 14;
    for (const SnapLine& l : snap_lines_) {
        const Point at = slot.map({l.at, l.at});
        if (l.upright)
            d.line({{at.x, slot.cell.y0}, {at.x, slot.pill.y0 - 4}}, {palette::plum, 1.2, {6, 3}});
        else
            d.line({{slot.cell.x0, at.y}, {slot.cell.x1, at.y}}, {palette::plum, 1.2, {6, 3}});
        const double w = text_width(l.to, 12, true) + 12,
                     x = std::clamp(slot.cell.centre().x, w / 2 + 2, std::max(w / 2 + 2, d.width - w / 2 - 2));
        d.fill({round_rect({x - w / 2, y - 12, x + w / 2, y + 5}, 4)}, palette::light);
        d.text({x, y}, l.to, 12, palette::plum, Align::centre, true);
        y += 19;
    }
}

Drawing FitWall::draw(double width, double height) {
    lay_out(width, height);
    if (lots_.empty()) {
        Drawing empty;
        const bool runs = !runs_of(room_.order()).empty();
        empty.text({width / 2, height / 2 - 16}, runs ? spoken("Nothing is on this blank yet.") : spoken("No blanks yet."), 17,
                   palette::ink, Align::centre, true);
        empty.text({width / 2, height / 2 + 12},
                   runs ? spoken("Choose a picture on the Art bench and put it on.") : spoken("Begin on the Order bench."), 13.5,
                   palette::quiet, Align::centre);
        return empty;
    }
    WallLook look = look_;
    look.chosen = room_.selection().size;
    look.also = room_.selection().also;
    if (const int person = room_.selection().person; person >= 0 && std::size_t(person) < room_.order().lines.all().size()) {
        look.person = &room_.order().lines.all()[std::size_t(person)];
        look.words = &room_.facts();
    }
    look.chosen_lot = chosen_lot();
    look.hot_rail = held_.hold == Hold::rail_start || held_.hold == Hold::rail_end ? held_.band : -1;
    Drawing d = wall_drawing(room_.order(), room_.plan(), standing(), wall_, look, width, height);
    draw_snaps(d);
    return d;
}

Drawing FitWall::draw_backdrop(double width, double height) {
    return lots_.empty() ? Drawing{} : wall_backdrop(room_.order(), standing(), wall_, width, height);
}

const SizeFit* FitWall::size_of(const WallSlot& slot) const {
    const DecorationFit* fit = std::size_t(slot.lot) < lots_.size() ? find_fit(room_.plan(), lots_[std::size_t(slot.lot)]) : nullptr;
    return fit != nullptr && std::size_t(slot.size) < fit->sizes.size() ? &fit->sizes[std::size_t(slot.size)] : nullptr;
}

void FitWall::choose(int lot, const std::string& size) {
    Selection s = room_.selection();
    if (std::size_t(lot) < lots_.size())
        if (const Decoration* d = find_decoration(room_.order(), lots_[std::size_t(lot)]); d != nullptr && d->id != s.decoration) {
            s.decoration = followed_ = d->id;  // it is in sight: nothing moves under the pointer
            s.run = d->run;
            s.style = d->run.style;
        }
    s.size = size;
    s.also.clear();
    room_.select(s);
}

void FitWall::choose_also(const std::string& size) {
    Selection s = room_.selection();
    if (s.also.erase(size) == 0) {
        if (s.size == size && !s.also.empty()) {
            s.size = *s.also.begin();
            s.also.erase(s.size);
        } else if (s.size != size) {
            s.also.insert(s.size);
            s.size = size;
        }
    }
    room_.select(s);
}

const WallSlot* FitWall::stand_of(const std::string& size) const {
    for (const WallSlot& s : wall_.stands)
        if (const SizeFit* f = size_of(s); f != nullptr && f->size == size && s.lot == chosen_lot()) return &s;
    return nullptr;
}

std::vector<CanvasItem> FitWall::items() {
    std::vector<CanvasItem> out;
    const Reading reading = room_.order().unit;
    for (const WallSlot& slot : wall_.stands) {
        const SizeFit* s = size_of(slot);
        if (s == nullptr) continue;
        QString name = tr("Size %1, %2: ink %3 wide, held by %4")
                           .arg(qt(s->size), counted(std::size_t(s->quantity), "piece"),
                                qt(length_text(Length::from_mm(s->width), reading)), qt(binding_text(s->limited_by, reading)));
        if (s->pinned) name += tr(", pinned");
        const QRect at = QRectF(slot.cell.x0, slot.cell.y0, slot.cell.width(), slot.cell.height()).toRect();
        const bool chosen = s->size == room_.selection().size && slot.lot == chosen_lot();
        out.push_back({name, at, chosen, [this, lot = slot.lot, size = s->size] { choose(lot, size); }});
    }
    return out;
}

QPoint FitWall::design_at(const std::string& size) const {
    const WallSlot* s = stand_of(size);
    return s == nullptr ? QPoint() : to_pixel(s->map(size_of(*s)->ink.centre()));
}

QPoint FitWall::corner_at(const std::string& size) const {
    const WallSlot* s = stand_of(size);
    return s == nullptr ? QPoint() : to_pixel(s->map({size_of(*s)->ink.x1, size_of(*s)->ink.y1}));
}

QPoint FitWall::rail_end(int band, bool right) const {
    for (const WallRail& r : wall_.rails)
        if (r.band == band && r.lot == chosen_lot() && (right ? r.ends : r.begins)) return QPoint(int(right ? r.x1 : r.x0), int(r.y));
    return {};
}

FitWall::Grip FitWall::grip_at(Point p) const {
    for (const WallRail& r : wall_.rails) {
        if (std::abs(p.y - r.y) > 9) continue;
        if (r.ends && std::abs(p.x - r.x1) < 8) return {Hold::rail_end, -1, r.lot, r.band, 0};
        if (r.begins && std::abs(p.x - r.x0) < 8) return {Hold::rail_start, -1, r.lot, r.band, 0};
    }
    for (std::size_t i = 0; i < wall_.stands.size(); ++i) {
        const WallSlot& s = wall_.stands[i];
        const SizeFit* f = size_of(s);
        if (f == nullptr) continue;
        const Point a = s.map({f->ink.x0, f->ink.y0}), b = s.map({f->ink.x1, f->ink.y1});
        if (f->size == room_.selection().size && s.lot == chosen_lot()) {
            const Point corners[] = {a, {b.x, a.y}, {a.x, b.y}, b};
            for (int c = 0; c < 4; ++c)
                if (norm(p - corners[c]) < 8) return {Hold::corner, int(i), s.lot, -1, c};
        }
        if (Rect{a.x, a.y, b.x, b.y}.grown(2).contains(p)) return {Hold::design, int(i), s.lot, -1, 0};
    }
    return {};
}

void FitWall::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (event->button() != Qt::LeftButton) return;
    const Point p = to_point(event->position());
    held_ = grip_at(p);
    from_ = p;
    int slot = held_.slot;
    if (held_.hold == Hold::nothing)
        for (std::size_t i = 0; i < wall_.stands.size(); ++i)
            if (wall_.stands[i].cell.contains(p)) slot = int(i);
    if (slot >= 0)
        if (const SizeFit* f = size_of(wall_.stands[std::size_t(slot)])) {
            size_then_ = *f;
            const int lot = wall_.stands[std::size_t(slot)].lot;
            if (event->modifiers().testFlag(Qt::ShiftModifier) && lot == chosen_lot()) {
                held_ = {};
                return choose_also(f->size);
            }
            // what is in hand stays there while one of it is dragged
            if (!(held_.hold == Hold::design && lot == chosen_lot() && room_.selection().also.contains(f->size))) choose(lot, f->size);
        }
    if (slot < 0 && held_.hold != Hold::nothing) choose(held_.lot, room_.selection().size);
    if (held_.hold == Hold::nothing && zoom_ > 1 && !large_) held_.hold = Hold::ground;
    if (room_.decoration() == nullptr || room_.fit() == nullptr) {
        held_ = {};
        return;
    }
    decoration_then_ = *room_.decoration();
    fit_then_ = *room_.fit();
    room_.end_gesture();
    refresh();
}

void FitWall::mouseMoveEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    if (held_.hold == Hold::nothing || !event->buttons().testFlag(Qt::LeftButton)) {
        const Grip over = grip_at(p);
        setCursor(over.hold == Hold::design    ? Qt::SizeAllCursor
                  : over.hold == Hold::corner  ? (over.corner == 0 || over.corner == 3 ? Qt::SizeFDiagCursor : Qt::SizeBDiagCursor)
                  : over.hold == Hold::nothing ? Qt::ArrowCursor
                                               : Qt::SizeHorCursor);
        return;
    }
    if (held_.hold == Hold::ground) {
        pan_ = pan_ + (p - from_);
        from_ = p;
        refresh();
        return;
    }
    drag_to(p, event->modifiers().testFlag(Qt::ControlModifier) ? Reach::this_size : reach_, event->modifiers().testFlag(Qt::AltModifier));
}

void FitWall::drag_to(Point p, Reach reach, bool loose) {
    if (held_.hold == Hold::rail_start || held_.hold == Hold::rail_end) {
        // the row whose floor is nearest, then how many of its garments lie on this side of the pointer
        int row = 0;
        double near = 1e9;
        for (const WallSlot& s : wall_.stands)
            if (const double gap = std::abs(p.y - s.cell.y1); s.lot == held_.lot && gap < near) {
                near = gap;
                row = s.row;
            }
        int first = -1, before = 0, last_before = -1;
        for (const WallSlot& s : wall_.stands) {
            if (s.row != row || s.lot != held_.lot) continue;
            if (first < 0) first = s.size;
            if (s.cell.centre().x <= p.x) {
                ++before;
                last_before = s.size;
            }
        }
        const Decoration next = held_.hold == Hold::rail_end
                                    ? band_ending_at(decoration_then_, fit_then_, held_.band, before > 0 ? last_before : first - 1)
                                    : band_beginning_at(decoration_then_, fit_then_, held_.band, before > 0 ? last_before + 1 : first);
        room_.edit(tr("move a band's edge"), with_decoration(room_.order(), next), drag_gesture);
        return;
    }
    if (held_.hold == Hold::design) return move_design(p, reach, loose);
    const WallSlot& slot = wall_.stands[std::size_t(held_.slot)];
    const double k = slot.map.a;
    // A corner: the ink's middle and top stay, the width follows the pointer on both sides.
    const Point middle = slot.map(size_then_.ink.centre());
    const double step = std::max(0.5, decoration_then_.sizing.step.mm());
    const double raw = 2 * std::abs(p.x - middle.x) / k;
    const double width = std::max(step, std::round(raw / step) * step);
    room_.edit(tr("size the design"),
               with_decoration(room_.order(), changed_in_hand(room_.selection(), decoration_then_, fit_then_, size_then_, reach,
                                                              [&](const Decoration& d, const SizeFit& on, Reach r) {
                                                                  return widened(d, on, Length::from_mm(width), r);
                                                              })),
               drag_gesture);
}

void FitWall::move_design(Point p, Reach reach, bool loose) {
    if (norm(p - from_) < 2 && decoration_then_ == *room_.decoration()) return;
    const Reading reading = room_.order().unit;
    const WallSlot& slot = wall_.stands[std::size_t(held_.slot)];
    const double k = slot.map.a;
    const Point by = (p - from_) * (1 / k);
    // whole steps of the tape, unless a line that an eye sees is within a few pixels
    double right = on_tape(size_then_.left_margin + by.x, reading) - size_then_.left_margin;
    double down = on_tape(size_then_.top_to_ink + by.y, reading) - size_then_.top_to_ink;
    snap_lines_.clear();
    const Ground* ground = find_ground(fit_then_, size_then_.size);
    if (!loose && ground != nullptr) {
        const double anchor = anchor_x(decoration_then_.location, ground->panel);
        const double across = across_on(decoration_then_, size_then_.size).mm();
        const Rect ink{size_then_.ink.x0 + by.x, size_then_.ink.y0 + by.y, size_then_.ink.x1 + by.x, size_then_.ink.y1 + by.y};
        Snapped snap = snapped(ink, anchor + across + by.x, anchor, ground->panel,
                               beside(room_.order(), room_.plan(), decoration_then_, size_then_.size), 5 / k);
        for (const SnapLine& l : snap.lines) (l.upright ? right : down) = l.upright ? by.x + snap.right : by.y + snap.down;
        snap_lines_ = std::move(snap.lines);
    }
    room_.edit(tr("move the design"),
               with_decoration(room_.order(), changed_in_hand(room_.selection(), decoration_then_, fit_then_, size_then_, reach,
                                                              [&](const Decoration& d, const SizeFit& on, Reach r) {
                                                                  return moved(d, on, Length::from_mm(right), Length::from_mm(down), r);
                                                              })),
               drag_gesture);
}

void FitWall::mouseDoubleClickEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    held_ = {};
    for (const WallSlot& s : wall_.stands)
        if (const SizeFit* f = size_of(s); f != nullptr && s.cell.contains(p)) {
            choose(s.lot, f->size);
            return show_large(!large_);
        }
}

bool FitWall::event(QEvent* event) {
    if (event->type() == QEvent::NativeGesture) {
        const auto* pinch = static_cast<QNativeGestureEvent*>(event);
        if (pinch->gestureType() == Qt::ZoomNativeGesture) zoom_by(1 + pinch->value(), to_point(pinch->position()));
    }
    return Canvas::event(event);
}

void FitWall::mouseReleaseEvent(QMouseEvent*) {
    held_ = {};
    snap_lines_.clear();
    room_.end_gesture();
    refresh();
}

void FitWall::keyPressEvent(QKeyEvent* event) {
    const Decoration* d = room_.decoration();
    const DecorationFit* fit = room_.fit();
    if (d == nullptr || fit == nullptr) return Canvas::keyPressEvent(event);
    const SizeFit* on = find_size(*fit, room_.selection().size);
    const int turn = event->key() == Qt::Key_PageDown ? 1 : event->key() == Qt::Key_PageUp ? -1 : 0;
    if (turn != 0 && !fit->sizes.empty()) {
        int at = 0;
        for (std::size_t i = 0; i < fit->sizes.size(); ++i)
            if (on != nullptr && fit->sizes[i].size == on->size) at = int(i);
        const std::string& next = fit->sizes[std::size_t(std::clamp(at + turn, 0, int(fit->sizes.size()) - 1))].size;
        Selection s = room_.selection();
        if (event->modifiers().testFlag(Qt::ShiftModifier) && next != s.size)
            s.also.insert(s.size);
        else
            s.also.clear();
        s.also.erase(next);
        s.size = next;
        return room_.select(s);
    }
    const auto turn_look = [&](bool WallLook::*which) {
        look_.*which = !(look_.*which);
        refresh();
        if (look_changed) look_changed();
    };
    switch (event->key()) {
    case Qt::Key_L:
        show_all_lots(!all_lots_);
        if (look_changed) look_changed();
        return;
    case Qt::Key_Return:
    case Qt::Key_Enter: return show_large(!large_);
    case Qt::Key_Escape:
        if (!room_.selection().also.empty()) return choose(chosen_lot(), room_.selection().size);
        return show_large(false);
    case Qt::Key_Plus:
    case Qt::Key_Equal: return zoom_by(1.25, {width() / 2.0, height() / 2.0});
    case Qt::Key_Minus: return zoom_by(0.8, {width() / 2.0, height() / 2.0});
    case Qt::Key_G: return turn_look(&WallLook::ghosts);
    case Qt::Key_P: return turn_look(&WallLook::platen);
    case Qt::Key_B: return turn_look(&WallLook::balance);
    case Qt::Key_1:
    case Qt::Key_2:
    case Qt::Key_3:
    case Qt::Key_4:
        if (event->modifiers() == Qt::NoModifier && school_wanted)
            return school_wanted(static_cast<PlacingSchool>(event->key() - Qt::Key_1));
        break;
    default: break;
    }
    if (on == nullptr) return Canvas::keyPressEvent(event);
    if (event->key() == Qt::Key_Delete) {
        return pinned_in_hand(room_, *d) ? take_pin_away(room_) : take_design_off(room_);
    }
    if (arrow_of(*event) == Point{}) return Canvas::keyPressEvent(event);
    const Point by = arrow_of(*event) * nudge_mm(*event, room_.order().unit);
    const Reach reach = event->modifiers().testFlag(Qt::ControlModifier) ? Reach::this_size : reach_;
    room_.edit(tr("nudge"),
               with_decoration(room_.order(), changed_in_hand(room_.selection(), *d, *room_.fit(), *on, reach,
                                                              [&](const Decoration& was, const SizeFit& size, Reach r) {
                                                                  return moved(was, size, Length::from_mm(by.x), Length::from_mm(by.y), r);
                                                              })),
               tr("nudge ") + qt(d->id));
}

void FitWall::wheelEvent(QWheelEvent* event) {
    if (event->angleDelta().y() == 0) return event->ignore();
    if (!all_lots_ || event->modifiers().testFlag(Qt::ControlModifier))
        return zoom_by(std::pow(1.0015, event->angleDelta().y()), to_point(event->position()));
    first_lot_ -= event->angleDelta().y() > 0 ? 1 : -1;  // kept within what there is when it is laid out
    refresh();
}

void FitWall::contextMenuEvent(QContextMenuEvent* event) {
    const Point p = to_point(QPointF(event->pos()));
    for (const WallSlot& s : wall_.stands)
        if (const SizeFit* f = size_of(s); f != nullptr && s.cell.contains(p)) {
            if (s.lot != chosen_lot() || !sizes_in_hand(room_.selection()).contains(f->size)) choose(s.lot, f->size);
            break;
        }
    if (room_.decoration() == nullptr || !fill_menu) return;
    QMenu menu(this);
    fill_menu(menu);
    menu.exec(event->globalPos());
}

}  // namespace orthema::app
