#include "app/benches/art/word_view.h"

#include "app/widgets/speech.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <cmath>

namespace orthema::app {

namespace {

constexpr double handle = 11;  ///< pixels about a handle that take it

const LoadedArt* whole_picture(const LoadedArtById& art, const std::string& id, std::string& shown) {
    shown = art.contains(whole_id(id)) ? whole_id(id) : id;
    const auto at = art.find(shown);
    return at == art.end() || at->second->facts.empty() ? nullptr : at->second.get();
}

}  // namespace

WordView::WordView(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Word view"));
    setAccessibleName(tr("The word with a picture in each letter"));
    setFocusPolicy(Qt::StrongFocus);
}

void WordView::set_cloth(std::optional<Colour> cloth) {
    cloth_ = cloth;
    refresh();
}

void WordView::choose(std::size_t place) {
    place_ = place;
    second_ = false;
    refresh();
}

const WordPicture* WordView::word() const {
    const Art* a = find_art(room_.order(), room_.selection().art);
    return a != nullptr && a->word_picture ? &*a->word_picture : nullptr;
}

std::shared_ptr<const WordLaid> WordView::laid() const {
    const auto at = art().find(room_.selection().art);
    return at == art().end() ? nullptr : at->second->word;
}

Affine WordView::map() const {
    const auto all = laid();
    if (!all) return {};
    const double k = std::min((width() - 70) / all->box.width(), (height() - 110) / all->box.height());
    return Affine::shift(width() / 2.0, height() / 2.0 - 14)
        .after(Affine::scale(k, k))
        .after(Affine::shift(-all->box.centre().x, -all->box.centre().y));
}

QPoint WordView::place_of(std::size_t place) const {
    const auto all = laid();
    if (all)
        for (const WordPartLaid& p : all->parts)
            if (p.place == place) {
                // a point of the letter itself, not of the hole in it
                Point at = p.box.centre();
                if (!inside(p.shape, at)) {
                    const Rect b = bounds(p.shape);
                    for (int k = 0; k < 400 && !inside(p.shape, at); ++k) {
                        const int row = k / 20, column = k % 20;
                        at = {b.x0 + b.width() * (column + 0.5) / 20, b.y0 + b.height() * (row + 0.5) / 20};
                    }
                }
                const Point on = map()(at);
                return {int(std::lround(on.x)), int(std::lround(on.y))};
            }
    return {};
}

SharingLine WordView::line_now(std::size_t place) const {
    if (line_ && place == place_) return *line_;
    const WordPicture* w = word();
    return w != nullptr && place < w->places.size() ? w->places[place].line : SharingLine{};
}

QPoint WordView::line_of(std::size_t place, bool end) const {
    const auto all = laid();
    if (all)
        for (const WordPartLaid& p : all->parts)
            if (p.place == place) {
                const SharingLine line = line_now(place);
                Point at{p.box.x0 + line.through.x * p.box.width(), p.box.y0 + line.through.y * p.box.height()};
                const double t = line.degrees * M_PI / 180;
                if (end) at = at + Point{std::cos(t), std::sin(t)} * 0.62;
                const Point on = map()(at);
                return {int(std::lround(on.x)), int(std::lround(on.y))};
            }
    return {};
}

const WordPartLaid* WordView::part_at(Point on_widget) const {
    const auto all = laid();
    if (!all) return nullptr;
    const Point p = inverse(map())(on_widget);
    const WordPartLaid* boxed = nullptr;
    for (const WordPartLaid& part : all->parts) {
        if (inside(part.shape, p)) return &part;
        if (boxed == nullptr && part.box.contains(p)) boxed = &part;
    }
    return boxed;
}

const WordPartLaid* WordView::chosen_part() const {
    const auto all = laid();
    const WordPartLaid* first = nullptr;
    if (all)
        for (const WordPartLaid& p : all->parts) {
            if (p.place != place_) continue;
            if (p.second == second_) return &p;
            first = &p;
        }
    return first;
}

Drawing WordView::draw(double w, double h) {
    Drawing d;
    d.width = w;
    d.height = h;
    const auto all = laid();
    const WordPicture* entry = word();
    if (!all || entry == nullptr) {
        d.text({w / 2, h / 2}, spoken("The word is being set."), 15, palette::quiet, Align::centre);
        return d;
    }
    const Affine m = map();
    const Point a = m({all->box.x0, all->box.y0}), b = m({all->box.x1, all->box.y1});
    d.fill({round_rect({a.x - 20, a.y - 20, b.x + 20, b.y + 20}, 6)}, cloth_.value_or(palette::white));
    std::size_t empty = 0;
    const WordPartLaid* chosen = chosen_part();
    for (const WordPartLaid& part : all->parts) {
        Region shape = part.shape;
        const bool held = chosen == &part && held_;
        if (line_ && part.place == place_) {  // the line is under the hand: parted anew at once
            Region whole;
            for (const WordPartLaid& other : all->parts)
                if (other.place == place_) whole = unite(whole, other.shape);
            const auto [one, other] = parted(whole, *line_);
            shape = part.second ? other : one;
        }
        const Region on = mapped(shape, m);
        std::string shown;
        const LoadedArt* picture = part.picture.empty() ? nullptr : whole_picture(art(), part.picture, shown);
        if (picture == nullptr) {
            ++empty;
            d.region(on, Colour{0.85, 0.83, 0.78, 1}, Stroke{palette::quiet, 1, {4, 3}});
            continue;
        }
        const PictureAt at = held ? *held_ : part.filled.at;
        const Affine place = m.after(Affine::shift(part.box.centre().x + at.middle.x, part.box.centre().y + at.middle.y))
                                 .after(Affine::turn(at.degrees))
                                 .after(Affine::scale(at.width, at.width))
                                 .after(Affine::shift(-0.5, -picture->facts.aspect / 2));
        if (held && drag_ != Drag::swap) d.marks.emplace_back(ArtMark{shown, place, 0.25});  // all of it, faint, while it is moved
        d.clip(on);
        d.marks.emplace_back(ArtMark{shown, place, 1});
        d.unclip();
        if (!part.filled.whole) d.region(on, {}, Stroke{palette::ochre, 2, {6, 3}});
        if (chosen == &part)
            if (const Art* subject = find_art(room_.order(), part.picture))
                for (const Point& s : subject->subject) {
                    const Point at_mark = place(s);
                    d.fill({disc(at_mark, 5)}, Colour{1, 1, 1, 0.9});
                    d.fill({disc(at_mark, 3)}, palette::brick);
                }
    }
    if (chosen != nullptr) d.region(mapped(chosen->shape, m), {}, Stroke{palette::verdigris, 2.4, {}});
    if (place_ < entry->places.size() && entry->places[place_].shared) {
        const QPoint mid = line_of(place_, false), end = line_of(place_, true);
        const Point c{double(mid.x()), double(mid.y())}, e{double(end.x()), double(end.y())}, f = c + (c - e);
        d.line({f, e}, {palette::white, 4, {}});
        d.line({f, e}, {palette::brick, 2, {}});
        for (const Point& p : {c, e}) {
            d.fill({disc(p, 7)}, palette::white);
            d.fill({disc(p, 4.5)}, palette::brick);
        }
    }
    if (drag_ == Drag::swap) d.line({from_, now_}, {palette::verdigris, 3, {6, 4}});
    std::string says =
        empty > 0 ? std::to_string(empty) + (empty == 1 ? spoken(" place has") : spoken(" places have")) + spoken(" no picture yet. ") : "";
    says += spoken("Drag a picture in its letter, wheel: larger, Shift and wheel: turned. Ctrl and drag swaps two.");
    d.text({w / 2, h - 12}, says, 12.5, palette::quiet, Align::centre);
    return d;
}

void WordView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    from_ = now_ = to_point(event->position());
    const WordPicture* w = word();
    if (w == nullptr || event->button() != Qt::LeftButton) return;
    if (place_ < w->places.size() && w->places[place_].shared)
        for (const bool end : {false, true}) {
            const QPoint at = line_of(place_, end);
            if (std::hypot(at.x() - from_.x, at.y() - from_.y) > handle) continue;
            drag_ = end ? Drag::turn : Drag::line;
            line_ = line_now(place_);
            return;
        }
    const WordPartLaid* part = part_at(from_);
    if (part == nullptr) return;
    const bool other = part->place != place_ || part->second != second_;
    place_ = part->place;
    second_ = part->second;
    if (other && picked) picked(place_);
    drag_ = event->modifiers().testFlag(Qt::ControlModifier) ? Drag::swap : part->picture.empty() ? Drag::none : Drag::picture;
    if (drag_ == Drag::picture) held_ = part->filled.at;
    refresh();
}

void WordView::mouseMoveEvent(QMouseEvent* event) {
    if (drag_ == Drag::none) return;
    const WordPartLaid* part = chosen_part();
    if (part == nullptr) return;
    now_ = to_point(event->position());
    const double k = map().a;
    if (drag_ == Drag::picture) held_->middle = part->filled.at.middle + (now_ - from_) * (1 / k);
    const Point p = inverse(map())(now_);
    if (drag_ == Drag::line)
        line_->through = {std::clamp((p.x - part->box.x0) / part->box.width(), -0.2, 1.2),
                          std::clamp((p.y - part->box.y0) / part->box.height(), -0.2, 1.2)};
    if (drag_ == Drag::turn) {
        const QPoint mid = line_of(place_, false);
        double degrees = std::atan2(now_.y - mid.y(), now_.x - mid.x()) * 180 / M_PI;
        if (std::abs(degrees - 45 * std::round(degrees / 45)) < 3) degrees = 45 * std::round(degrees / 45);  // snaps to eighths
        line_->degrees = degrees;
    }
    refresh();
}

void WordView::mouseReleaseEvent(QMouseEvent* event) {
    const Drag drag = std::exchange(drag_, Drag::none);
    const auto held = std::exchange(held_, std::nullopt);
    const auto line = std::exchange(line_, std::nullopt);
    const Point to = to_point(event->position());
    if (norm(to - from_) >= 2) {
        if (drag == Drag::picture && held && placed) placed(place_, second_, *held);
        if ((drag == Drag::line || drag == Drag::turn) && line && lined) lined(place_, *line);
        if (drag == Drag::swap)
            if (const WordPartLaid* other = part_at(to); other != nullptr && other->place != place_ && swapped)
                swapped(place_, other->place);
    }
    refresh();
}

void WordView::change(const WordPartLaid& part, const std::function<void(PictureAt&)>& how) {
    PictureAt at = part.filled.at;
    how(at);
    at.width = std::clamp(at.width, 0.05, 200.0);
    if (placed) placed(part.place, part.second, at);
}

void WordView::wheelEvent(QWheelEvent* event) {
    const WordPartLaid* part = part_at(to_point(event->position()));
    const double steps = wheel_steps(*event);
    if (part == nullptr || part->picture.empty() || steps == 0) return;
    place_ = part->place;
    second_ = part->second;
    const Point about = inverse(map())(to_point(event->position())) - part->box.centre();
    const bool turn = event->modifiers().testFlag(Qt::ShiftModifier);
    change(*part, [&](PictureAt& at) {
        if (turn) {
            at.degrees = std::remainder(at.degrees + 2 * steps, 360);
        } else {
            const double k = std::pow(1.04, steps);
            at.width *= k;
            at.middle = about + (at.middle - about) * k;
        }
    });
    event->accept();
}

void WordView::keyPressEvent(QKeyEvent* event) {
    const WordPartLaid* part = chosen_part();
    if (part == nullptr) return Canvas::keyPressEvent(event);
    const int key = event->key();
    if (key == Qt::Key_PageDown || key == Qt::Key_PageUp) {
        const std::size_t n = word() != nullptr ? word()->places.size() : 0;
        if (n == 0) return;
        choose((place_ + (key == Qt::Key_PageDown ? 1 : n - 1)) % n);
        if (picked) picked(place_);
        return;
    }
    if (key == Qt::Key_Delete && taken_out) return taken_out(part->place, part->second);
    if (part->picture.empty()) return Canvas::keyPressEvent(event);
    const double by = event->modifiers().testFlag(Qt::ShiftModifier) ? 0.08 : 0.01;
    const Point step = arrow_of(*event) * by;
    if (step != Point{}) return change(*part, [&](PictureAt& at) { at.middle = at.middle + step; });
    if (key == Qt::Key_Plus || key == Qt::Key_Minus)
        return change(*part, [&](PictureAt& at) { at.width *= key == Qt::Key_Plus ? 1.04 : 1 / 1.04; });
    Canvas::keyPressEvent(event);
}

}  // namespace orthema::app
