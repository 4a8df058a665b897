// The hand on the ribbon: choosing, dragging, turning, locking and sending pieces, panning and zooming, by mouse and keys.
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/sheets/ribbon.h"
#include "app/widgets/figures.h"

namespace orthema::app {

bool Ribbon::is_chosen(int copy) const { return std::find(chosen_.begin(), chosen_.end(), copy) != chosen_.end(); }

void Ribbon::choose(int copy) { choose_all(copy < 0 ? std::vector<int>{} : std::vector<int>{copy}); }

void Ribbon::choose_all(std::vector<int> copies) {
    if (chosen_ == copies) return;
    chosen_ = std::move(copies);
    refresh();
    emit chosen_changed();
}

void Ribbon::show_cut(int sheet, int cut, TrimPlan plan) {
    cut_sheet_ = sheet;
    cut_ = cut;
    cuts_ = std::move(plan);
    refresh();
}

void Ribbon::show_kept(bool on) {
    kept_shown_ = on;
    refresh();
}

HandLayout Ribbon::hand() const {
    const Medium* m = medium();
    return {m != nullptr ? *m : Medium{}, room_.transfer_set(), layout_of(room_.order(), room_.selection().medium)};
}

void Ribbon::put(const std::vector<int>& which, const std::vector<PlacedCopy>& now, const QString& what, const QString& gesture) {
    std::vector<PlacedCopy> copies = copies_of(room_);
    for (std::size_t k = 0; k < which.size(); ++k) copies[std::size_t(which[k])] = now[k];
    if (copies != copies_of(room_)) room_.edit(what, with_layout(room_.order(), room_.selection().medium, std::move(copies)), gesture);
}

void Ribbon::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const Point p = to_point(event->position());
    int sheet = 0;
    const Point at = to_strip(p, sheet);
    const bool more = event->modifiers().testFlag(Qt::ShiftModifier);
    hand_ = hand();
    const int hit = event->button() == Qt::LeftButton ? hand_->at(sheet, at) : -1;
    room_.end_gesture();
    if (hit < 0 && more && event->button() == Qt::LeftButton) {
        roping_ = true;
        rope_from_ = rope_to_ = p;
        return;
    }
    if (hit >= 0 && more) {
        std::vector<int> next = chosen_;
        if (std::erase(next, hit) == 0) next.push_back(hit);
        return choose_all(next);
    }
    if (!is_chosen(hit)) choose(hit);
    if (hit >= 0) {
        room_.settler().stop();
        dragging_ = true;
        laid_ = false;
        std::erase(chosen_, hit);  // the one under the pointer leads
        chosen_.push_back(hit);
        const PlacedCopy& c = hand_->copies()[std::size_t(hit)];
        grip_ = at - Point{c.x, c.y};
    } else {
        panning_ = true;
        pan_from_ = p;
        pan_first_ = {first_, top_};
        setCursor(Qt::ClosedHandCursor);
    }
}

void Ribbon::mouseMoveEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    if (panning_) {
        top_ = pan_first_.y - (p.y - pan_from_.y) / zoom_;
        return show_from(pan_first_.x - (p.x - pan_from_.x) / zoom_);
    }
    if (roping_) {
        rope_to_ = p;
        return refresh();
    }
    const auto& copies = copies_of(room_);
    if (!dragging_ || !hand_ || chosen_.empty() || hand_->copies().size() != copies.size()) return;
    int sheet = 0;
    const Point at = to_strip(p, sheet);
    const int lead = chosen_.back();
    const PlacedCopy from = hand_->copies()[std::size_t(lead)];
    std::vector<PlacedCopy> next;
    if (sheet != from.sheet && !from.locked && chosen_.size() == 1) {  // over another sheet: it goes there when there is room
        PlacedCopy there = from;
        there.sheet = sheet;
        there.x = at.x - grip_.x;
        there.y = at.y - grip_.y;
        if (!hand_->lies_free(lead, there)) return;
        next = {there};
    } else {
        next = hand_->moved(chosen_, at.x - grip_.x - from.x, at.y - grip_.y - from.y);
    }
    hand_->put(chosen_, next);
    put(chosen_, next, tr("move a piece"), tr("drag a piece"));
}

void Ribbon::mouseReleaseEvent(QMouseEvent*) {
    if (roping_) {
        const Rect rope{std::min(rope_from_.x, rope_to_.x), std::min(rope_from_.y, rope_to_.y), std::max(rope_from_.x, rope_to_.x),
                        std::max(rope_from_.y, rope_to_.y)};
        std::vector<int> within = chosen_;
        for (int i = 0; i < int(hand_->copies().size()); ++i) {
            const PlacedCopy& c = hand_->copies()[std::size_t(i)];
            const Rect box = bounds(mapped(hand_->outlines()[std::size_t(i)].outer, strip_map(c.sheet)));
            if (rope.contains({box.x0, box.y0}) && rope.contains({box.x1, box.y1}) && !is_chosen(i)) within.push_back(i);
        }
        choose_all(within);
    }
    dragging_ = panning_ = roping_ = false;
    laid_ = false;
    hand_.reset();
    setCursor(Qt::ArrowCursor);
    room_.end_gesture();
    refresh();
    emit chosen_changed();
}

void Ribbon::wheelEvent(QWheelEvent* event) {
    const double turned = event->angleDelta().y() + event->angleDelta().x();
    if (event->modifiers().testFlag(Qt::ControlModifier)) {
        zoom_by(std::pow(1.0015, event->angleDelta().y()), event->position());
    } else if (event->modifiers().testFlag(Qt::ShiftModifier)) {
        top_ -= turned * 0.8 / zoom_;
        show_from(first_);
    } else {
        show_from(first_ - turned * 0.8 / zoom_);
    }
    event->accept();
}

void Ribbon::no_room(const QString& sentence) {
    const auto& copies = copies_of(room_);
    const bool locked = std::any_of(chosen_.begin(), chosen_.end(), [&](int i) { return copies[std::size_t(i)].locked; });
    room_.say({locked ? tr("A chosen piece is locked: unlock it first.") : sentence, true, {}, {}});
}

void Ribbon::turn_chosen() {
    if (chosen_.empty()) return;
    room_.settler().stop();
    room_.end_gesture();
    HandLayout now = hand();
    std::vector<int> turned;
    std::vector<PlacedCopy> next;
    for (const int i : chosen_)
        if (const auto c = now.turned(i)) {
            turned.push_back(i);
            next.push_back(*c);
            now.put({i}, {*c});
        }
    put(turned, next, tr("turn a piece"), {});
    if (turned.size() < chosen_.size()) no_room(tr("There is no room to turn it here: move it to a free place first."));
}

void Ribbon::lock_chosen() {
    const auto& copies = copies_of(room_);
    if (chosen_.empty()) return;
    const bool lock = !copies[std::size_t(chosen_.back())].locked;
    std::vector<PlacedCopy> next;
    for (const int i : chosen_) {
        next.push_back(copies[std::size_t(i)]);
        next.back().locked = lock;
    }
    room_.end_gesture();
    put(chosen_, next, lock ? tr("lock a piece") : tr("unlock a piece"), {});
}

void Ribbon::swap_chosen() {
    if (chosen_.size() != 2) return;
    room_.settler().stop();
    room_.end_gesture();
    if (const auto next = hand().swapped(chosen_[0], chosen_[1]))
        put(chosen_, {next->first, next->second}, tr("swap two pieces"), {});
    else
        no_room(tr("They do not fit into each other's places: make room there first."));
}

void Ribbon::send_chosen(int sheet) {
    if (chosen_.empty()) return;
    room_.settler().stop();
    room_.end_gesture();
    if (const auto next = hand().sent(chosen_, sheet))
        put(chosen_, *next, tr("send to another sheet"), {});
    else
        no_room(tr("There is no room for them on sheet %1.").arg(sheet + 1));
}

void Ribbon::keyPressEvent(QKeyEvent* event) {
    const auto& copies = copies_of(room_);
    const int n = int(copies.size());
    const bool shift = event->modifiers().testFlag(Qt::ShiftModifier);
    const QPointF middle(width() / 2.0, height() / 2.0);
    switch (event->key()) {
    case Qt::Key_R: return turn_chosen();
    case Qt::Key_L: return lock_chosen();
    case Qt::Key_X: return swap_chosen();
    case Qt::Key_Escape: return choose(-1);
    case Qt::Key_A: {
        std::vector<int> all;
        const int sheet = chosen_.empty() ? 0 : copies[std::size_t(chosen_.back())].sheet;
        for (int i = 0; i < n; ++i)
            if (copies[std::size_t(i)].sheet == sheet) all.push_back(i);
        return choose_all(all);
    }
    case Qt::Key_N:
        if (n > 0) {
            choose((chosen() + (shift ? n - 1 : 1) + n) % n);
            const QPoint p = place_of(chosen());
            if (p.x() < 20 || p.x() > width() - 20) show_from(first_ + (p.x() - width() / 2.0) / zoom_);
        }
        return;
    case Qt::Key_PageDown:
    case Qt::Key_PageUp:
        if (!chosen_.empty()) {
            const int to = copies[std::size_t(chosen_.back())].sheet + (event->key() == Qt::Key_PageDown ? 1 : -1);
            if (to >= 0) send_chosen(to);
        }
        return;
    case Qt::Key_F: return zoom_to_chosen();
    case Qt::Key_0: zoom_to_width(); return show_from(first_);
    case Qt::Key_Plus: return zoom_by(1.25, middle);
    case Qt::Key_Minus: return zoom_by(0.8, middle);
    case Qt::Key_Home: return show_from(0);
    case Qt::Key_End: return show_from(1e9);
    default: break;
    }
    const auto [x, y] = arrow_of(*event);
    if ((x == 0 && y == 0) || medium() == nullptr) return Canvas::keyPressEvent(event);
    if (chosen_.empty()) {
        top_ += y * 60 / zoom_;
        return show_from(first_ + x * 60 / zoom_);
    }
    const double step = nudge_mm(*event, room_.order().unit);
    put(chosen_, hand().moved(chosen_, x * step, y * step), tr("nudge a piece"), tr("nudge a piece"));
}

}  // namespace orthema::app
