#include "app/benches/art/art_view.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "core/guides/panel_drawing.h"
#include "core/order/edit.h"
#include "core/order/roster.h"

namespace orthema::app {

ArtView::ArtView(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Art view"));
    setAccessibleName(tr("The picture with its ink box, outline and centres"));
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

void ArtView::set_subject_of(const std::string& art) {
    if (subject_of_ == art) return;
    subject_of_ = art;
    set_subject(!art.empty());
    if (!art.empty()) setFocus();
}

/// Whose subject is marked.
std::string ArtView::subject_art() const { return subject_of_.empty() ? room_.selection().art : subject_of_; }

void ArtView::set_cloth(std::optional<Colour> cloth) {
    cloth_ = cloth;
    refresh();
}

std::string ArtView::shown_id() const {
    const std::string id = subject_ ? subject_art() : room_.selection().art;
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

/// Every word in its field, those that had to give way first: all at one scale, as large as they go together.
void ArtView::draw_words(Drawing& d, const Art& lettering, double aspect) const {
    struct Shown {
        std::string id, word, says;
        const ArtFacts* facts;
        double by_nature;
    };
    std::vector<Shown> words;
    for (const std::string& word : words_of(room_.order(), lettering)) {
        const std::string id = word_art(lettering.id, word);
        const auto known = room_.facts().find(id);
        if (known == room_.facts().end() || !known->second.lettered) continue;
        const Lettered& how = *known->second.lettered;
        std::string says;
        if (!how.missing.empty())
            says = spoken("letters missing");
        else if (how.scale < 0.995)
            says = spoken("letters ") + std::to_string(std::lround(how.scale * 100)) + spoken(" % high");
        else if (how.squeezed < 0.995)
            says = std::to_string(std::lround(how.squeezed * 100)) + spoken(" % as wide");
        else if (how.narrow)
            says = spoken("narrower face");
        else if (how.closed > 0.005)
            says = spoken("closed up");
        words.push_back({id, word, says, &known->second, width_by_nature(*lettering.lettering, how)});
    }
    std::stable_sort(words.begin(), words.end(), [](const Shown& a, const Shown& b) { return a.by_nature > b.by_nature; });
    constexpr double beside = 18, under = 22, rim = 14, least = 70;
    const double room_x = d.width - rim, room_y = d.height - rim - 26;
    std::size_t columns = 1;
    double wide = 0;  // of a field
    for (std::size_t c = 1; c <= 12; ++c) {
        const std::size_t rows = (words.size() + c - 1) / c;
        const double by_width = room_x / double(c) - beside, by_height = (room_y / double(std::max<std::size_t>(1, rows)) - under) / aspect;
        if (std::min(by_width, by_height) > wide) {
            wide = std::min(by_width, by_height);
            columns = c;
        }
    }
    wide = std::clamp(wide, least, 420.0);
    const double cell_x = wide + beside, cell_y = wide * aspect + under;
    columns = std::max<std::size_t>(1, std::min(columns, std::size_t(room_x / cell_x)));
    const std::size_t fits = columns * std::size_t(std::max(1.0, room_y / cell_y));
    const double left = (d.width - cell_x * double(std::min(columns, words.size())) + beside) / 2;
    const Colour cloth = cloth_.value_or(palette::white);
    for (std::size_t i = 0; i < std::min(fits, words.size()); ++i) {
        const Shown& w = words[i];
        const std::size_t row = i / columns;
        const double x = left + double(i % columns) * cell_x, y = rim + double(row) * cell_y;
        const Rect box{x, y, x + wide, y + wide * aspect};
        d.fill({round_rect({box.x0 - 5, box.y0 - 4, box.x1 + 5, box.y1 + 4}, 4)}, cloth);
        d.marks.emplace_back(art_in(w.id, word_box(box, *w.facts)));
        const double small = 11;
        d.text({box.x0 - 4, box.y1 + 14}, shortened(w.word, wide - (w.says.empty() ? 0 : text_width_guess(w.says, small) + 6), small),
               small, palette::quiet);
        if (!w.says.empty())
            d.text({box.x1 + 4, box.y1 + 14}, w.says, small,
                   w.says == spoken("closed up") || w.says == spoken("narrower face") ? palette::quiet : palette::ochre_text, Align::right);
    }
    const std::string more = words.size() > fits ? spoken(", the first ") + std::to_string(fits) + spoken(" shown") : "";
    d.text({d.width / 2, d.height - 10},
           std::to_string(words.size()) + (words.size() == 1 ? spoken(" word") : spoken(" words")) +
               spoken(", each in its field, those that give way first") + more,
           12, palette::quiet, Align::centre);
}

Drawing ArtView::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const LoadedArt* a = shown();
    if (const Art* entry = find_art(room_.order(), room_.selection().art); a != nullptr && entry != nullptr && entry->lettering) {
        draw_words(d, *entry, a->facts.aspect);
        return d;
    }
    if (a != nullptr && mending_) {
        draw_mending(d);
        return d;
    }
    if (a == nullptr) {
        d.text({width / 2, height / 2 - 20},
               room_.order().art.empty() ? spoken("No artwork yet.") : spoken("This picture could not be read."), 17, palette::ink,
               Align::centre, true);
        d.text({width / 2, height / 2 + 8}, spoken("Bring in PNG, JPEG, TIFF, WebP, HEIC, SVG or PDF, or drop the files here."), 13.5,
               palette::quiet, Align::centre);
        return d;
    }
    const ArtFacts& f = a->facts;
    if (f.empty()) {
        d.text({width / 2, height / 2}, spoken("There is no visible ink in this picture."), 15, palette::carmine, Align::centre, true);
        return d;
    }
    const Affine m = map(width, height);
    const double unit = f.ink_px.width();
    const Point c0 = m({-f.ink_px.x0 / unit, -f.ink_px.y0 / unit});
    const Point c1 = m({(f.width_px - f.ink_px.x0) / unit, (f.height_px - f.ink_px.y0) / unit});
    d.rect({c0.x, c0.y, c1.x, c1.y}, cloth_.value_or(palette::white), Stroke{palette::quiet, 0.8, {5, 4}});
    d.text({c0.x, c0.y - 6}, spoken("the file's canvas"), 11.5, palette::quiet);
    d.marks.emplace_back(ArtMark{shown_id(), m, 1});
    if (subject_) {
        if (const Art* entry = find_art(room_.order(), subject_art()))
            for (const Point& p : entry->subject) {
                const Point at = m(p);
                d.fill({disc(at, 8)}, Colour{1, 1, 1, 0.9});
                d.fill({disc(at, 5)}, palette::brick);
            }
        d.text({width / 2, height - 12}, spoken("Click what must stay inside: the ends of the subject. Delete takes the last one away."),
               12.5, palette::quiet, Align::centre);
        return d;
    }
    Region outline = mapped(f.outline, m);
    d.region(outline, {}, Stroke{palette::carmine, 1, {}});
    const Point i0 = m({0, 0}), i1 = m({1, f.aspect});
    d.rect({i0.x, i0.y, i1.x, i1.y}, {}, Stroke{palette::verdigris, 1.6, {}});
    d.text({i1.x, i0.y - 6}, spoken("ink box"), 11.5, palette::verdigris_text, Align::right, true);
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
    cross(f.optical_centre, Colour{0.36, 0.28, 0.52, 1}, false, spoken("optical centre"), 0);
    if (const Art* entry = find_art(room_.order(), room_.selection().art); entry != nullptr && entry->marked_centre)
        cross(*entry->marked_centre, palette::brick, true, spoken("marked centre"), 20);
    if (const Art* entry = find_art(room_.order(), room_.selection().art))
        for (const NamedMark& mark : entry->marks) cross(mark.at, palette::verdigris, true, mark.name, 0);
    std::string says = std::to_string(f.outline.size()) + (f.outline.size() == 1 ? spoken(" piece of ink") : spoken(" pieces of ink")) +
                       spoken(", outline in carmine");
    double widest = 0;
    for (const DecorationFit& fit : room_.plan().decorations)
        if (const Decoration* on = find_decoration(room_.order(), fit.decoration); on != nullptr && on->art == room_.selection().art)
            for (const SizeFit& size : fit.sizes) widest = std::max(widest, size.width);
    if (const auto dpi = resolution(f, Length::from_mm(widest)))
        says += "; " + mm_text(std::round(*dpi), 0) + spoken(" dpi at ") + length_text(Length::from_mm(widest), room_.order().unit);
    says += "; " + figure_text(f.half_transparent * 100, 1, reading_in()) + spoken(" % half-transparent");
    if (f.flat_background) says += spoken("; flat background not removed");
    if (naming_) says = spoken("Click the point that must meet a line of the blank.");
    if (marking_) says = spoken("Click the point that must sit on the garment's centre line. Delete takes the mark away.");
    d.text({width / 2, height - 12}, says, 12.5, palette::quiet, Align::centre);
    return d;
}

void ArtView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (drawn_ != Drawn::nothing) from_ = pointer_ = to_point(event->position());
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
        const Art* own = find_art(room_.order(), subject_art());
        if (own == nullptr || own->subject.empty()) return;
        std::vector<Point> fewer = own->subject;
        fewer.pop_back();
        return room_.edit(tr("take a subject's mark out"), with_subject(room_.order(), own->id, fewer));
    }
    if (event->key() == Qt::Key_Delete && marked) return marked(std::nullopt);
    const Art* entry = find_art(room_.order(), room_.selection().art);
    const Point step = arrow_of(*event);
    if (entry != nullptr && entry->marked_centre && step != Point{} && marked) {
        const double by = event->modifiers().testFlag(Qt::ShiftModifier) ? 0.02 : 0.0025;
        return marked(*entry->marked_centre + step * by);
    }
    Canvas::keyPressEvent(event);
}

}  // namespace orthema::app
