#include "app/benches/art/art_view.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <cmath>

#include "core/guides/panel_drawing.h"
#include "core/order/edit.h"

namespace orthema::app {

ArtView::ArtView(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Art view"));
    setAccessibleName(QStringLiteral("The picture with its ink box, outline and centres"));
}

void ArtView::set_marking(bool on) {
    marking_ = on;
    setCursor(on ? Qt::CrossCursor : Qt::ArrowCursor);
}

void ArtView::set_naming(bool on) {
    naming_ = on;
    setCursor(on ? Qt::CrossCursor : Qt::ArrowCursor);
}

void ArtView::set_subject(bool on) {
    subject_ = on;
    setCursor(on ? Qt::CrossCursor : Qt::ArrowCursor);
    refresh();
}

void ArtView::set_cloth(std::optional<Colour> cloth) {
    cloth_ = cloth;
    refresh();
}

std::string ArtView::shown_id() const {
    const std::string& id = room_.selection().art;
    return subject_ && art().contains(whole_id(id)) ? whole_id(id) : id;
}

const LoadedArt* ArtView::shown() const {
    const auto at = art().find(shown_id());
    return at == art().end() ? nullptr : at->second.get();
}

/// From the art's unit frame to the widget: the whole canvas of the file is in view.
Affine ArtView::map(double width, double height) const {
    const LoadedArt* a = shown();
    if (a == nullptr || a->facts.empty()) return {};
    const ArtFacts& f = a->facts;
    const double unit = f.ink_px.width();
    const double k = std::min((width - 120) / f.width_px, (height - 120) / f.height_px) * unit;
    const double x = width / 2 - (f.width_px / 2.0 - f.ink_px.x0) / unit * k;
    const double y = height / 2 - (f.height_px / 2.0 - f.ink_px.y0) / unit * k;
    return {k, 0, 0, k, x, y};
}

QPoint ArtView::place_of(Point unit) const {
    const Point p = map(width(), height())(unit);
    return QPoint(int(std::lround(p.x)), int(std::lround(p.y)));
}

Drawing ArtView::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const LoadedArt* a = shown();
    if (a == nullptr) {
        d.text({width / 2, height / 2 - 20}, room_.order().art.empty() ? "No artwork yet." : "This picture could not be read.", 17,
               palette::ink, Align::centre, true);
        d.text({width / 2, height / 2 + 8}, "Bring in PNG, JPEG, TIFF, WebP, HEIC, SVG or PDF, or drop the files here.", 13.5,
               palette::quiet, Align::centre);
        return d;
    }
    const ArtFacts& f = a->facts;
    if (f.empty()) {
        d.text({width / 2, height / 2}, "There is no visible ink in this picture.", 15, palette::carmine, Align::centre, true);
        return d;
    }
    const Affine m = map(width, height);
    const double unit = f.ink_px.width();
    const Point c0 = m({-f.ink_px.x0 / unit, -f.ink_px.y0 / unit});
    const Point c1 = m({(f.width_px - f.ink_px.x0) / unit, (f.height_px - f.ink_px.y0) / unit});
    d.rect({c0.x, c0.y, c1.x, c1.y}, cloth_.value_or(palette::white), Stroke{palette::quiet, 0.8, {5, 4}});
    d.text({c0.x, c0.y - 6}, "the file's canvas", 11.5, palette::quiet);
    d.marks.emplace_back(ArtMark{shown_id(), m, 1});
    if (subject_) {
        if (const Art* entry = find_art(room_.order(), room_.selection().art))
            for (const Point& p : entry->subject) {
                const Point at = m(p);
                d.fill({disc(at, 8)}, Colour{1, 1, 1, 0.9});
                d.fill({disc(at, 5)}, palette::brick);
            }
        d.text({width / 2, height - 12}, "Click what must stay inside: the ends of the subject. Delete takes the last one away.", 12.5,
               palette::quiet, Align::centre);
        return d;
    }
    Region outline = mapped(f.outline, m);
    d.region(outline, {}, Stroke{palette::carmine, 1, {}});
    const Point i0 = m({0, 0}), i1 = m({1, f.aspect});
    d.rect({i0.x, i0.y, i1.x, i1.y}, {}, Stroke{palette::verdigris, 1.6, {}});
    d.text({i1.x, i0.y - 6}, "ink box", 11.5, palette::verdigris, Align::right, true);
    const auto cross = [&](Point u, Colour colour, bool diamond, const std::string& name, double label_y) {
        const Point p = m(u);
        const double r = 8;
        d.fill({disc(p, r + 2)}, Colour{1, 1, 1, 0.85});
        if (diamond)
            d.line({p + Point{0, -r}, p + Point{r, 0}, p + Point{0, r}, p + Point{-r, 0}, p + Point{0, -r}}, {colour, 2.2, {}});
        else {
            Ring ring = disc(p, r);
            ring.push_back(ring.front());
            d.line(ring, {colour, 2.2, {}});
        }
        d.line({p + Point{-4, 0}, p + Point{4, 0}}, {colour, 1.6, {}});
        d.line({p + Point{0, -4}, p + Point{0, 4}}, {colour, 1.6, {}});
        const double w = text_width_guess(name, 12) + 10;
        d.fill({round_rect({p.x + 12, p.y + label_y - 9, p.x + 12 + w, p.y + label_y + 9}, 4)}, Colour{1, 1, 1, 0.9});
        d.text({p.x + 17, p.y + label_y + 4}, name, 12, colour, Align::left, true);
    };
    cross(f.optical_centre, Colour{0.36, 0.28, 0.52, 1}, false, "optical centre", 0);
    if (const Art* entry = find_art(room_.order(), room_.selection().art); entry != nullptr && entry->marked_centre)
        cross(*entry->marked_centre, palette::brick, true, "marked centre", 20);
    if (const Art* entry = find_art(room_.order(), room_.selection().art))
        for (const NamedMark& mark : entry->marks) cross(mark.at, palette::verdigris, true, mark.name, 0);
    std::string says =
        std::to_string(f.outline.size()) + (f.outline.size() == 1 ? " piece of ink" : " pieces of ink") + ", outline in carmine";
    double widest = 0;
    for (const DecorationFit& fit : room_.plan().decorations)
        if (const Decoration* on = find_decoration(room_.order(), fit.decoration); on != nullptr && on->art == room_.selection().art)
            for (const SizeFit& size : fit.sizes) widest = std::max(widest, size.width);
    if (const auto dpi = resolution(f, Length::from_mm(widest)))
        says += "; " + mm_text(std::round(*dpi), 0) + " dpi at " + length_text(Length::from_mm(widest), room_.order().unit);
    says += "; " + mm_text(f.half_transparent * 100, 1) + " % half-transparent";
    if (f.flat_background) says += "; flat background not removed";
    if (naming_) says = "Click the point that must meet a line of the blank.";
    if (marking_) says = "Click the point that must sit on the garment's centre line. Delete takes the mark away.";
    d.text({width / 2, height - 12}, says, 12.5, palette::quiet, Align::centre);
    return d;
}

void ArtView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const LoadedArt* a = shown();
    if ((!marking_ && !naming_ && !subject_) || a == nullptr || a->facts.empty()) return;
    const Affine m = map(width(), height());
    const Point p = to_point(event->position());
    const Point unit{(p.x - m.tx) / m.a, (p.y - m.ty) / m.d};
    if (unit.x < -0.5 || unit.x > 1.5 || unit.y < -0.5 || unit.y > a->facts.aspect + 0.5) return;
    if (subject_) {
        if (kept_inside && unit.x >= 0 && unit.x <= 1 && unit.y >= 0 && unit.y <= a->facts.aspect) kept_inside(unit);
    } else if (naming_) {
        if (named) named(unit);
    } else if (marked) {
        marked(unit);
    }
}

void ArtView::keyPressEvent(QKeyEvent* event) {
    if (subject_ && event->key() == Qt::Key_Delete) {
        const Art* own = find_art(room_.order(), room_.selection().art);
        if (own == nullptr || own->subject.empty()) return;
        std::vector<Point> fewer = own->subject;
        fewer.pop_back();
        return room_.edit(QStringLiteral("take a subject's mark out"), with_subject(room_.order(), own->id, fewer));
    }
    if (event->key() == Qt::Key_Delete && marked) return marked(std::nullopt);
    const Art* entry = find_art(room_.order(), room_.selection().art);
    const int dx = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    const int dy = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (entry != nullptr && entry->marked_centre && (dx != 0 || dy != 0) && marked) {
        const double by = event->modifiers().testFlag(Qt::ShiftModifier) ? 0.02 : 0.0025;
        return marked(*entry->marked_centre + Point{dx * by, dy * by});
    }
    Canvas::keyPressEvent(event);
}

}  // namespace orthema::app
