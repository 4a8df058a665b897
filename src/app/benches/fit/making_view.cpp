#include "app/benches/fit/making_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <cmath>

#include "app/widgets/speech.h"
#include "core/guides/panel_drawing.h"
#include "core/transfers/making_drawing.h"
#include "core/transfers/wrap_view.h"

namespace orthema::app {

namespace {

constexpr double seam_reach = 9;  ///< px

/// From a box into a room, as large as it goes, in the middle.
Affine fitted(const Rect& box, const Rect& room) {
    const double k = std::min(room.width() / std::max(1e-6, box.width()), room.height() / std::max(1e-6, box.height()));
    return Affine::shift(room.centre().x, room.centre().y)
        .after(Affine::scale(k, k))
        .after(Affine::shift(-box.centre().x, -box.centre().y));
}

}  // namespace

MakingView::MakingView(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Making view"));
    setAccessibleName(tr("The pieces on their media, and the design as it is pressed"));
}

const MakingOf* MakingView::making() const {
    return find_making(room_.transfer_set(), room_.selection().decoration, room_.selection().size);
}

const JigSheet* MakingView::board() const {
    const Decoration* d = room_.decoration();
    if (d == nullptr || d->making.jig.empty()) return nullptr;
    for (const JigSheet& s : room_.transfer_set().jigs)
        if (s.jig == d->making.jig) return &s;
    return nullptr;
}

QPoint MakingView::place_of(Point reading) const {
    const Point p = pressed_(reading);
    return {int(std::lround(p.x)), int(std::lround(p.y))};
}

void MakingView::draw_pieces(Drawing& d, const Rect& room, const std::vector<const Transfer*>& pieces) {
    if (pieces.empty()) {
        d.text({room.centre().x, room.centre().y}, spoken("No piece comes of it yet: the findings say why."), 13, palette::quiet,
               Align::centre);
        return;
    }
    const double head = 38, foot = 18;
    int columns = 1;
    double k = 0;
    for (int c = 1; c <= int(pieces.size()); ++c) {
        const int rows = (int(pieces.size()) + c - 1) / c;
        const double w = room.width() / c - 14, h = room.height() / rows - head - foot;
        double own = 1e9;
        for (const Transfer* t : pieces) {
            const Rect box = bounds(t->contour.outer);
            own = std::min({own, w / box.width(), h / box.height()});
        }
        if (own > k) {
            k = own;
            columns = c;
        }
    }
    const int rows = (int(pieces.size()) + columns - 1) / columns;
    const double w = room.width() / columns, h = room.height() / rows;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const Transfer& t = *pieces[i];
        const int row = int(i) / columns, column = int(i) % columns;
        const Rect cell{room.x0 + column * w, room.y0 + row * h, 0, 0};
        const Medium* medium = find_medium(room_.order(), t.medium);
        const std::string title = t.piece.empty() ? spoken("the whole") : t.piece;
        d.text({cell.x0 + 4, cell.y0 + 15}, shortened(title + ", × " + std::to_string(t.count()), w - 12, 12.5), 12.5, palette::ink,
               Align::left, true);
        d.text({cell.x0 + 4, cell.y0 + 30}, shortened(medium != nullptr ? medium->name : t.medium, w - 12, 11.5), 11.5, palette::quiet);
        const Rect box = bounds(t.contour.outer);
        const Affine map =
            Affine{k, 0, 0, k, cell.x0 + w / 2 - box.width() * k / 2, cell.y0 + head + (h - head - foot) / 2 - box.height() * k / 2};
        draw_on_medium(d, t, map, 1, reading_in());
        const bool reads = !t.mirrored;
        const double y = cell.y0 + h - 7;
        draw_reading_arrow(d, {cell.x0 + 4, y - 3}, 22, t.mirrored, 1);
        const bool software = medium != nullptr && medium->mirror == MirrorBy::printer_software;
        const std::string words = !t.printed ? (t.mirrored ? spoken("cut mirrored") : spoken("cut as it reads"))
                                  : software ? spoken("as it reads: the printer mirrors")
                                  : reads    ? spoken("as it reads")
                                             : spoken("mirrored: it reads right on the blank");
        d.text({cell.x0 + 32, y}, shortened(words, w - 38, 11), 11, palette::brick_text);
    }
}

void MakingView::draw_cup(Drawing& d, const Rect& room, const MakingOf& of, Colour cloth) {
    const Made& made = *of.made;
    const auto wall = wall_of(made.input.style.family, made.input.style.chart.at(made.input.size));
    if (!wall) return;
    const double widest = std::max(wall->top_diameter, wall->bottom_diameter);
    const double k = std::min((room.width() - 70) / widest, (room.height() - 60) / view_height(*wall));
    const int w = int(std::ceil(widest * k)) + 2, h = int(std::ceil(view_height(*wall) * k)) + 1;
    cup_ = {room.centre().x - w / 2.0, room.centre().y - h / 2.0, room.centre().x + w / 2.0, room.centre().y + h / 2.0};
    mm_per_px_ = 1 / k;
    const std::string key = of.decoration + joined(of.sizes) + std::to_string(reinterpret_cast<std::uintptr_t>(of.made.get())) + " " +
                            std::to_string(k) + " " + std::to_string(turn_) + " " + std::to_string(devicePixelRatioF());
    if (key != cup_key_) {
        const double fine = k * devicePixelRatioF();
        const Drawing flat = wall_picture(made, cloth, fine);
        QImage atlas;
        const int across = int(std::ceil(flat.width)), down = int(std::ceil(flat.height));
        paint_image(atlas, flat, art(), across, down, 1.0);
        cup_image_ = QImage(int(w * devicePixelRatioF()), int(h * devicePixelRatioF()), QImage::Format_ARGB32_Premultiplied);
        cup_image_.setDevicePixelRatio(devicePixelRatioF());
        rolled_view({reinterpret_cast<const std::uint32_t*>(atlas.constBits()), int(atlas.bytesPerLine() / 4), atlas.height()}, fine, *wall,
                    turn_, fine, reinterpret_cast<std::uint32_t*>(cup_image_.bits()), cup_image_.width(), cup_image_.height());
        cup_key_ = key;
    }
    // handle and rim, by lines
    const double gap = measure_mm(made.input.style.chart.at(made.input.size), Measure::handle_gap);
    const Point rim{room.centre().x, cup_.y0};
    if (gap > 0) {
        const Seen at = seen_at(*wall, turn_, {wall->middle_circumference() / 2, wall->slant() / 2});
        const double side = at.at.x / (widest / 2), x = rim.x + at.at.x * k;
        Ring grip{{x, rim.y + wall->height * 0.2 * k}};
        curve_to(grip, {x + side * 30 * k, rim.y + wall->height * 0.16 * k}, {x + side * 30 * k, rim.y + wall->height * 0.84 * k},
                 {x, rim.y + wall->height * 0.8 * k});
        d.line(grip, {palette::quiet, std::max(2.0, 8 * k * 0.9), {}});
        d.line(grip, {cloth, std::max(1.0, 6 * k * 0.9), {}});
    }
    const auto ellipse = [&](double diameter, double y) {
        Ring ring;
        for (int i = 0; i <= 48; ++i)
            ring.push_back(
                {rim.x + diameter / 2 * k * std::cos(i * M_PI / 24), y + diameter / 2 * view_tilt * k * std::sin(i * M_PI / 24)});
        return ring;
    };
    d.fill({ellipse(wall->top_diameter, cup_.y0)}, Colour{cloth.r * 0.8, cloth.g * 0.8, cloth.b * 0.8, 1});
    d.line(ellipse(wall->top_diameter, cup_.y0), {palette::quiet, 1, {}});
    if (made.input.location == Location::wrap_full && gap <= 0) {
        const WrapSpan span = wrap_span(made.input.style, made.input.size, made.input.making);
        const Seen seam = seen_at(*wall, turn_, {span.from, 0});
        if (seam.front) d.text({rim.x + seam.at.x * k, cup_.y1 + 30}, spoken("seam"), 11.5, palette::brick_text, Align::centre, true);
    }
}

Drawing MakingView::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    cup_shown_ = false;
    const Decoration* dec = room_.decoration();
    const double split = std::round(width * 0.58);
    const Rect left{8, 30, split - 12, height - 6}, right{split + 12, 30, width - 10, height - 28};
    d.marks.emplace_back(
        PathMark{{round_rect({0.5, 0.5, split - 6, height - 0.5}, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    d.marks.emplace_back(
        PathMark{{round_rect({split + 5.5, 0.5, width - 0.5, height - 0.5}, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    d.text({12, 20}, spoken("On the medium"), 13.5, palette::ink, Align::left, true);
    d.text({split + 16, 20}, spoken("Pressed"), 13.5, palette::ink, Align::left, true);
    if (dec == nullptr) {
        d.text({split / 2, height / 2}, spoken("Put a picture on a blank first: the Art bench does it."), 13, palette::quiet,
               Align::centre);
        return d;
    }
    const Colour cloth = cloth_of(room_.order(), *dec);
    if (const JigSheet* sheet = board()) {
        std::vector<const Transfer*> pieces;
        for (const Transfer& t : room_.transfer_set().transfers)
            if (t.id.rfind("jig:" + sheet->jig + "@", 0) == 0) pieces.push_back(&t);
        draw_pieces(d, left, pieces);
        const Jig& jig = *find_jig(room_.order(), sheet->jig);
        const Rect board{0, 0, jig.backer_width.mm(), jig.backer_height.mm()};
        const double half = (right.height() - 20) / 2;
        d.text({right.x0 + 4, right.y0 + 12}, spoken("front"), 11.5, palette::quiet);
        draw_board_pressed(d, room_.order(), room_.plan(), *sheet, false,
                           fitted(board, {right.x0, right.y0 + 16, right.x1, right.y0 + half}), 1);
        d.text({right.x0 + 4, right.y0 + half + 18}, sheet->fold > 0 ? spoken("back, from behind") : spoken("back: nothing is put on it"),
               11.5, palette::quiet);
        if (sheet->fold > 0)
            draw_board_pressed(d, room_.order(), room_.plan(), *sheet, true,
                               fitted(board, {right.x0, right.y0 + half + 22, right.x1, right.y1}), 1);
        const auto pairs = folded_pairs(jig, *sheet);
        bool paired = sheet->fold > 0;
        for (std::size_t i = 0; i < pairs.size(); ++i) paired = paired && pairs[i] == int(i);
        if (sheet->fold > 0)
            d.text({right.centre().x, height - 10},
                   paired ? spoken("folded over, every front meets its own back") : spoken("a back lies behind another's front"), 12,
                   paired ? palette::moss : palette::carmine, Align::centre, true);
        return d;
    }
    const MakingOf* of = making();
    if (of == nullptr) {
        d.text({left.centre().x, left.centre().y},
               room_.catching_up() ? spoken("Working it out…") : spoken("No piece comes of it yet: the findings say why."), 13,
               palette::quiet, Align::centre);
        return d;
    }
    draw_pieces(d, left, pieces_of(room_.transfer_set(), *of));
    if (of->made->sector) {
        cup_shown_ = true;
        draw_cup(d, right, *of, cloth);
        d.text({right.centre().x, height - 10}, spoken("drag to turn it"), 11.5, palette::quiet, Align::centre);
        return d;
    }
    const Rect box = pressed_box(*of->made);
    pressed_ = fitted(box.grown(std::max(box.width(), box.height()) * 0.04), right);
    draw_pressed(d, *of->made, cloth, pressed_, 1, reading_in());
    if (grip_) {
        const Point at = pressed_(grip_->at);
        d.fill({disc(at, 7)}, palette::white);
        d.fill({disc(at, 5)}, palette::brick);
    }
    if (of->made->split)
        d.text({right.centre().x, height - 10}, spoken("drag a seam: it passes that point and finds its way anew"), 11.5, palette::quiet,
               Align::centre);
    return d;
}

void MakingView::paintEvent(QPaintEvent* event) {
    Canvas::paintEvent(event);
    if (!cup_shown_) return;
    QPainter painter(this);
    painter.drawImage(QPointF(cup_.x0, cup_.y0), cup_image_);
}

std::optional<MakingView::Grip> MakingView::seam_near(Point screen) const {
    const MakingOf* of = making();
    if (of == nullptr || !of->made->split || board() != nullptr) return std::nullopt;
    const Point at = inverse(pressed_)(screen);
    const double reach = seam_reach / std::sqrt(std::abs(pressed_.determinant()));
    int upright = 0, level = 0;
    for (const Seam& s : of->made->split->seams) {
        const int own = s.upright ? upright++ : level++;
        for (std::size_t i = 0; i + 1 < s.line.size(); ++i)
            if (norm(nearest_on(at, s.line[i], s.line[i + 1]) - at) < reach) return Grip{s.upright, own, at};
    }
    return std::nullopt;
}

void MakingView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const Point at = to_point(event->position());
    if (cup_shown_ && at.x > cup_.x0 - 40 && at.x < cup_.x1 + 40) {
        turning_ = true;
        turn_from_ = turn_;
        press_x_ = at.x;
        return;
    }
    grip_ = seam_near(at);
    refresh();
}

void MakingView::mouseMoveEvent(QMouseEvent* event) {
    const Point at = to_point(event->position());
    if (turning_) {
        turn_ = turn_from_ - (at.x - press_x_) * mm_per_px_;
        refresh();
        return;
    }
    if (!grip_) return;
    grip_->at = inverse(pressed_)(at);
    refresh();
}

void MakingView::mouseReleaseEvent(QMouseEvent*) {
    turning_ = false;
    const MakingOf* of = making();
    if (grip_ && of != nullptr && seam_moved && of->width > 0) {
        const Grip g = *grip_;
        grip_.reset();
        seam_moved({g.upright, g.seam, g.at * (1 / of->width)});
    }
    grip_.reset();
    refresh();
}

void MakingView::keyPressEvent(QKeyEvent* event) {
    const int by = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (cup_shown_ && by != 0) {
        turn_ += by * (event->modifiers().testFlag(Qt::ShiftModifier) ? 40 : 5);
        refresh();
        return;
    }
    Canvas::keyPressEvent(event);
}

}  // namespace orthema::app
