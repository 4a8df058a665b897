#include "app/sheets/ribbon.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

#include <cmath>

#include "app/shell/figures.h"
#include "core/guides/panel_drawing.h"
#include "core/nesting/by_hand.h"
#include "core/nesting/sheet_drawing.h"

namespace orthema::app {

namespace {

constexpr double rule_height = 24, foot = 8;

/// Part of the way from one place to another; turns jump.
PlacedCopy between(const PlacedCopy& a, const PlacedCopy& b, double t) {
    if (a.sheet != b.sheet || a.turn != b.turn) return b;
    PlacedCopy c = b;
    c.x = a.x + (b.x - a.x) * t;
    c.y = a.y + (b.y - a.y) * t;
    return c;
}

void hatch(Drawing& d, const Rect& r, Colour colour) {
    if (r.width() <= 0 || r.height() <= 0) return;
    d.clip(r);
    for (double x = r.x0 - r.height(); x < r.x1; x += 12) d.line({{x, r.y1}, {x + r.height(), r.y0}}, {colour, 1, {}});
    d.unclip();
}

/// Ticks along the ribbon in whole tens of millimetres or in inches.
void draw_rule(Drawing& d, const Affine& map, double from, double to, double zoom, Unit unit, double x_min, double x_max) {
    const double inch = 25.4;
    double label = unit == Unit::mm ? 100 : 4 * inch;
    while (label * zoom < 56) label *= unit == Unit::mm ? (label < 150 ? 2 : 2.5) : 3;
    const double tick = label / (unit == Unit::mm ? 10 : 4);
    for (double v = std::max(0.0, std::floor(from / tick) * tick); v <= to; v += tick) {
        const double x = map({v, 0}).x;
        if (x < x_min - 1 || x > x_max + 1) continue;
        const bool big = std::abs(std::remainder(v, label)) < tick / 4;
        d.line({{x, rule_height - (big ? 11 : 5)}, {x, rule_height}}, {palette::quiet, 0.9, {}});
        if (big)
            d.text({x + 3, rule_height - 10},
                   (unit == Unit::mm ? mm_text(v, 0) : mm_text(v / inch, 0)) + (v == 0 ? (unit == Unit::mm ? " mm" : " in") : ""), 11.5,
                   palette::quiet);
    }
}

}  // namespace

Ribbon::Ribbon(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Ribbon"));
    setAccessibleName(
        QStringLiteral("The film with its pieces. Tab-free keys: N next piece, arrows nudge, R turns, L locks, plus and minus zoom."));
    glide_.setDuration(260);
    glide_.setStartValue(0.0);
    glide_.setEndValue(1.0);
    glide_.setEasingCurve(QEasingCurve::OutCubic);
    connect(&glide_, &QVariantAnimation::valueChanged, this, [this] { refresh(); });
}

const Medium* Ribbon::medium() const { return find_medium(room_.order(), room_.selection().medium); }

Affine Ribbon::strip_map(int sheet) const {
    const double start = std::size_t(sheet) < sheets_.starts.size() ? sheets_.starts[std::size_t(sheet)] : 0;
    return {zoom_, 0, 0, zoom_, (start - first_) * zoom_ + 6, rule_height};
}

Point Ribbon::to_strip(Point p, int& sheet) const {
    const RibbonSheets& all = sheets_;
    const double along = (p.x - 6) / zoom_ + first_;
    sheet = 0;
    for (std::size_t i = 0; i < all.starts.size(); ++i)
        if (along >= all.starts[i] - sheet_gap / 2) sheet = int(i);
    return {along - (all.starts.empty() ? 0 : all.starts[std::size_t(sheet)]), (p.y - rule_height) / zoom_};
}

double Ribbon::last_mm() const { return zoom_ > 0 ? first_ + width() / zoom_ : first_; }

void Ribbon::zoom_to_width() {
    const Medium* m = medium();
    if (m == nullptr || height() < 60) return;
    zoom_ = (height() - rule_height - foot) / m->width.mm();
}

void Ribbon::resizeEvent(QResizeEvent* event) {
    zoom_to_width();
    Canvas::resizeEvent(event);
    emit moved_view();
}

void Ribbon::show_from(double mm) {
    const double total = sheets_.total;
    first_ = std::clamp(mm, 0.0, std::max(0.0, total - 0.5 * width() / std::max(0.01, zoom_)));
    refresh();
    emit moved_view();
}

void Ribbon::zoom_by(double factor, double at_x) {
    const double at = (at_x - 6) / zoom_ + first_;
    zoom_ = std::clamp(zoom_ * factor, 0.02, 20.0);
    show_from(at - (at_x - 6) / zoom_);
}

void Ribbon::refresh_pieces() {
    sheets_ = ribbon_sheets(room_);
    const auto& copies = copies_of(room_);
    std::map<std::pair<std::string, int>, PlacedCopy> now;
    for (const PlacedCopy& c : copies) now[{c.transfer, c.copy}] = c;
    const bool same_medium = shown_medium_ == room_.selection().medium;
    if (!same_medium) {
        chosen_ = -1;
        zoom_to_width();
        first_ = 0;
    }
    if (same_medium && !dragging_ && now != shown_ && copies.size() <= 600) {
        gliding_from_ = shown_;
        glide_.stop();
        glide_.start();
    }
    shown_ = std::move(now);
    shown_medium_ = room_.selection().medium;
    if (chosen_ >= int(copies.size())) chosen_ = -1;
    refresh();
}

Drawing Ribbon::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Medium* m = medium();
    if (m == nullptr) return d;
    if (zoom_ <= 0) zoom_to_width();
    if (zoom_ <= 0) return d;
    const RibbonSheets& all = sheets_;
    const TransferIndex index(room_.transfer_set());
    const auto& copies = copies_of(room_);
    const TransferSet& set = room_.transfer_set();
    const Rect window{0, 0, width, height};
    d.rect({0, 0, width, rule_height}, palette::paper);
    for (std::size_t i = 0; i < all.starts.size(); ++i) {
        const Affine map = strip_map(int(i));
        const Point a = map({0, 0}), b = map({all.lengths[i], all.width});
        if (b.x < -50 || a.x > width + 50) continue;
        d.rect({a.x, a.y, b.x, b.y}, film, Stroke{palette::rule, 1.2, {}});
        const double margin = m->margin.mm();
        const Point ma = map({margin, margin}), mb = map({all.lengths[i] - margin, all.width - margin});
        d.line({ma, {mb.x, ma.y}, mb, {ma.x, mb.y}, ma}, {palette::rule, 0.8, {3, 3}});
        draw_rule(d, map, std::max(0.0, first_ - all.starts[i]), std::min(all.lengths[i], last_mm() - all.starts[i]), zoom_,
                  room_.order().unit, 0, width);
        if (i + 1 == all.starts.size() && m->shape == MediumShape::roll) {
            const double left = m->length.mm() > 0 ? m->length.mm() - all.lengths[i] : 1e6;
            const Rect over{b.x, a.y, std::min(width, b.x + left * zoom_), b.y};
            if (over.x1 > over.x0) {
                d.rect(over, palette::light, Stroke{palette::rule, 1, {}});
                hatch(d, over, palette::rule);
                if (over.width() > 90) {
                    d.fill({round_rect({over.x0 + 8, over.y0 + 8, over.x0 + 84, over.y0 + 28}, 4)}, palette::light);
                    d.text({over.x0 + 14, over.y0 + 22}, "left-over", 12, palette::quiet);
                }
            }
        }
    }
    const double t = glide_.state() == QAbstractAnimation::Running ? glide_.currentValue().toDouble() : 1.0;
    std::vector<std::pair<Rect, std::string>> labels;
    for (std::size_t i = 0; i < copies.size(); ++i) {
        const Transfer* tr = index.find(copies[i].transfer);
        if (tr == nullptr) continue;
        PlacedCopy at = copies[i];
        if (t < 1)
            if (const auto was = gliding_from_.find({at.transfer, at.copy}); was != gliding_from_.end()) at = between(was->second, at, t);
        const Affine map = strip_map(at.sheet).after(copy_map(at));
        const Rect own = bounds(tr->contour.outer);
        const Point c0 = map({own.x0, own.y0}), c1 = map({own.x1, own.y1});
        if (std::max(c0.x, c1.x) < 0 || std::min(c0.x, c1.x) > width) continue;
        const Region contour = mapped(Region{tr->contour}, map);
        const Rect box = bounds(contour);
        if (!box.meets(window)) continue;
        const bool chosen = int(i) == chosen_;
        const Colour line = chosen ? palette::verdigris : at.locked ? palette::brick : Colour{0.62, 0.64, 0.63, 1};
        d.region(contour, chosen ? std::optional<Colour>(Colour{0.88, 0.94, 0.93, 1}) : std::nullopt, {});
        draw_transfer(d, *tr, map);
        d.region(contour, {}, Stroke{line, chosen ? 2.2 : at.locked ? 1.6 : 0.9, {}});
        if (at.locked) {
            const Point c = box.centre();
            const Rect body{c.x - 6, c.y - 3, c.x + 6, c.y + 7};
            d.fill({round_rect(body.grown(3), 4)}, Colour{1, 1, 1, 0.9});
            d.rect(body, palette::brick);
            Ring bow;
            for (int s = 0; s <= 12; ++s) bow.push_back({c.x - 4 * std::cos(M_PI * s / 12), c.y - 3 - 6 * std::sin(M_PI * s / 12)});
            d.line(bow, {palette::brick, 2, {}});
        }
        const std::string label =
            tr->sizes + (tr->count() > 1 ? "  " + std::to_string(at.copy + 1) + "/" + std::to_string(tr->count()) : "");
        const double need = text_width_guess(label, 10.5) + 8;
        if (box.width() > need && box.height() > 30) {
            const Point p = map(inner_point(*tr));
            const double y = at.locked ? p.y + 16 : p.y;
            labels.push_back({{p.x - need / 2, y - 8, p.x + need / 2, y + 8}, label});
        }
    }
    for (const auto& [plate, label] : labels) {  // over all pieces, so that a neighbour never hides one
        d.fill({round_rect(plate, 4)}, Colour{0.984, 0.980, 0.965, 0.88});
        d.text({plate.centre().x, plate.y1 - 4.5}, label, 10.5, palette::ink, Align::centre);
    }
    if (copies.empty()) {
        const bool any = std::any_of(set.transfers.begin(), set.transfers.end(), [&](const Transfer& tr) { return tr.medium == m->id; });
        d.fill({round_rect({width / 2 - 250, height / 2 - 36, width / 2 + 250, height / 2 + 30}, 6)}, palette::light);
        d.text({width / 2, height / 2 - 8}, any ? "Nothing is laid out yet." : "Nothing is made with this medium.", 16, palette::ink,
               Align::centre, true);
        d.text({width / 2, height / 2 + 16},
               any ? "Settle the pieces: a layout comes at once and betters while it runs."
                   : "Fit a design, and choose its medium on the Fit bench.",
               13, palette::quiet, Align::centre);
    }
    return d;
}

/// A point well inside a contour, for its label: of a grid's points the one farthest from the edge.
Point Ribbon::inner_point(const Transfer& t) const {
    const auto known = inner_.find(t.id);
    if (known != inner_.end()) return known->second;
    const Rect box = bounds(t.contour.outer);
    Point best = box.centre();
    double most = -1;
    for (int i = 0; i < 17; ++i)
        for (int j = 0; j < 17; ++j) {
            const Point p{box.x0 + box.width() * (i + 0.5) / 17, box.y0 + box.height() * (j + 0.5) / 17};
            if (!inside(t.contour, p)) continue;
            double near = 1e18;
            const auto ring = [&](const Ring& r) {
                for (std::size_t k = 0; k < r.size(); ++k) near = std::min(near, norm((r[k] + r[(k + 1) % r.size()]) * 0.5 - p));
            };
            ring(t.contour.outer);
            for (const Ring& hole : t.contour.holes) ring(hole);
            if (near > most) {
                most = near;
                best = p;
            }
        }
    if (inner_.size() > 2000) inner_.clear();
    inner_[t.id] = best;
    return best;
}

QPoint Ribbon::place_of(int copy) const {
    const auto& copies = copies_of(room_);
    if (copy < 0 || copy >= int(copies.size())) return {};
    const PlacedCopy& c = copies[std::size_t(copy)];
    const Transfer* t = find_transfer(room_.transfer_set(), c.transfer);
    if (t == nullptr) return {};
    const Point p = strip_map(c.sheet).after(copy_map(c))(inner_point(*t));
    return QPoint(int(std::lround(p.x)), int(std::lround(p.y)));
}

void Ribbon::choose(int copy) {
    if (chosen_ == copy) return;
    chosen_ = copy;
    refresh();
    emit chosen_changed();
}

void Ribbon::put(const PlacedCopy& copy, const QString& what, const QString& gesture) {
    std::vector<PlacedCopy> copies = copies_of(room_);
    if (chosen_ < 0 || chosen_ >= int(copies.size())) return;
    copies[std::size_t(chosen_)] = copy;
    room_.edit(what, with_layout(room_.order(), room_.selection().medium, std::move(copies)), gesture);
}

void Ribbon::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const Point p = to_point(event->position());
    int sheet = 0;
    const Point at = to_strip(p, sheet);
    const auto& copies = copies_of(room_);
    outlines_ = lying_outlines(room_.transfer_set(), copies);
    const int hit = event->button() == Qt::LeftButton ? copy_at(outlines_, copies, sheet, at) : -1;
    choose(hit);
    room_.end_gesture();
    if (hit >= 0) {
        room_.stop_settling();
        dragging_ = true;
        grip_ = at - Point{copies[std::size_t(hit)].x, copies[std::size_t(hit)].y};
    } else {
        panning_ = true;
        pan_from_ = p.x;
        pan_first_ = first_;
        setCursor(Qt::ClosedHandCursor);
    }
}

void Ribbon::mouseMoveEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    if (panning_) return show_from(pan_first_ - (p.x - pan_from_) / zoom_);
    const Medium* m = medium();
    const auto& copies = copies_of(room_);
    if (!dragging_ || m == nullptr || chosen_ < 0 || chosen_ >= int(copies.size()) || outlines_.size() != copies.size()) return;
    int sheet = 0;
    const Point at = to_strip(p, sheet);
    PlacedCopy from = copies[std::size_t(chosen_)];
    if (sheet != from.sheet && !from.locked) {  // over another sheet: it goes there when there is room
        PlacedCopy there = from;
        there.sheet = sheet;
        there.x = at.x - grip_.x;
        there.y = at.y - grip_.y;
        if (lies_free(*m, room_.transfer_set(), copies, outlines_, chosen_, there))
            return put(there, QStringLiteral("move a piece"), QStringLiteral("drag a piece"));
        return;
    }
    const PlacedCopy next = moved_copy(*m, room_.transfer_set(), copies, outlines_, chosen_, at.x - grip_.x, at.y - grip_.y);
    if (!(next == from)) put(next, QStringLiteral("move a piece"), QStringLiteral("drag a piece"));
}

void Ribbon::mouseReleaseEvent(QMouseEvent*) {
    dragging_ = panning_ = false;
    setCursor(Qt::ArrowCursor);
    room_.end_gesture();
    refresh();
}

void Ribbon::wheelEvent(QWheelEvent* event) {
    if (event->modifiers().testFlag(Qt::ControlModifier))
        zoom_by(std::pow(1.0015, event->angleDelta().y()), event->position().x());
    else
        show_from(first_ - (event->angleDelta().y() + event->angleDelta().x()) * 0.8 / zoom_);
    event->accept();
}

void Ribbon::turn_chosen() {
    const Medium* m = medium();
    const auto& copies = copies_of(room_);
    if (m == nullptr || chosen_ < 0 || chosen_ >= int(copies.size())) return;
    room_.stop_settling();
    room_.end_gesture();
    const auto next = turned_copy(*m, room_.transfer_set(), copies, lying_outlines(room_.transfer_set(), copies), chosen_);
    if (next)
        put(*next, QStringLiteral("turn a piece"), {});
    else
        room_.say({copies[std::size_t(chosen_)].locked ? QStringLiteral("This piece is locked: unlock it first.")
                                                       : QStringLiteral("There is no room to turn it here: move it to a free place first."),
                   true,
                   {},
                   {}});
}

void Ribbon::lock_chosen() {
    const auto& copies = copies_of(room_);
    if (chosen_ < 0 || chosen_ >= int(copies.size())) return;
    PlacedCopy c = copies[std::size_t(chosen_)];
    c.locked = !c.locked;
    room_.end_gesture();
    put(c, c.locked ? QStringLiteral("lock a piece") : QStringLiteral("unlock a piece"), {});
}

void Ribbon::keyPressEvent(QKeyEvent* event) {
    const auto& copies = copies_of(room_);
    const int n = int(copies.size());
    switch (event->key()) {
    case Qt::Key_R: return turn_chosen();
    case Qt::Key_L: return lock_chosen();
    case Qt::Key_N:
        if (n > 0) {
            choose((chosen_ + (event->modifiers().testFlag(Qt::ShiftModifier) ? n - 1 : 1)) % n);
            const QPoint p = place_of(chosen_);
            if (p.x() < 20 || p.x() > width() - 20) show_from(first_ + (p.x() - width() / 2.0) / zoom_);
        }
        return;
    case Qt::Key_Plus: return zoom_by(1.25, width() / 2.0);
    case Qt::Key_Minus: return zoom_by(0.8, width() / 2.0);
    case Qt::Key_Home: return show_from(0);
    case Qt::Key_End: return show_from(1e9);
    default: break;
    }
    const int x = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    const int y = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    const Medium* m = medium();
    if ((x == 0 && y == 0) || m == nullptr) return Canvas::keyPressEvent(event);
    if (chosen_ < 0 || chosen_ >= n) return show_from(first_ + x * 60 / zoom_);
    const double step = (room_.order().unit == Unit::mm ? 1 : 25.4 / 16) * (event->modifiers().testFlag(Qt::ShiftModifier) ? 8 : 1);
    const PlacedCopy& c = copies[std::size_t(chosen_)];
    put(moved_copy(*m, room_.transfer_set(), copies, lying_outlines(room_.transfer_set(), copies), chosen_, c.x + x * step, c.y + y * step),
        QStringLiteral("nudge a piece"), QStringLiteral("nudge a piece"));
}

}  // namespace orthema::app
