#include "app/benches/blanks/tape_drawing.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/blanks/cloth_colours.h"
#include "core/guides/panel_drawing.h"

namespace orthema::app {

namespace {

Colour source_colour(Source s) {
    return s == Source::measured ? palette::brick : s == Source::graded ? Colour{0.42, 0.33, 0.56, 1} : palette::ink;
}

}  // namespace

TapeDrawing::TapeDrawing(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Tape drawing"));
    setAccessibleName(tr("The blank with its points of measure. Arrows go from figure to figure, Enter types."));
    setMouseTracking(true);
    field_ = new LengthField(tr("What the tape says"), this);
    field_->setFixedWidth(78);
    field_->hide();
    field_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 3000) return tr("A blank measures between 0 and 3 m.");
        field_->hide();
        setFocus();
        if (chosen_ && typed) typed(*chosen_, l);
        return std::nullopt;
    };
}

std::vector<Face> TapeDrawing::drawn_faces(Family family) {
    std::vector<Face> faces = family_faces(family);
    if (family_build(family) == Build::upper_body) faces.resize(2);
    return faces;
}

void TapeDrawing::choose(std::optional<Measure> measure) {
    chosen_ = measure;
    refresh();
}

void TapeDrawing::set_feature(int feature) {
    feature_ = feature;
    refresh();
}

void TapeDrawing::draw_face(Drawing& d, const BlankStyle& style, const std::string& size, const Panel& g, const Affine& map, Colour cloth) {
    const Measures& measures = style.chart.at(size);
    const Reading reading = room_.order().unit;
    draw_panel(d, g, map, cloth, 1);
    draw_landmarks(d, g, map, 0.8);
    // the style's own features, to be dragged
    const Panel sample = panel_of(style, sample_size(style), g.face);
    const double kx = g.width / std::max(1.0, sample.width), ky = g.length / std::max(1.0, sample.length);
    for (std::size_t i = 0; i < style.features.size(); ++i) {
        const StyleFeature& f = style.features[i];
        if (f.face != g.face) continue;
        const double w = f.width.mm() * std::pow(kx, f.growth), h = f.height.mm() * std::pow(ky, f.growth);
        const double x = f.across.mm() * kx, y = f.down.mm() * ky;
        const Point a = map({x - w / 2, y}), b = map({x + w / 2, y + h});
        own_.push_back({int(i), {a.x, a.y, b.x, b.y}, 1 / (map.a * kx), 1 / (map.a * ky)});
        if (int(i) == feature_) {
            const double keep = f.clearance.mm() * map.a;
            d.rect(own_.back().place, Colour{0.184, 0.498, 0.475, 0.12}, Stroke{palette::verdigris, 1.6, {}});
            d.rect(own_.back().place.grown(keep), {}, Stroke{palette::verdigris, 0.9, {4, 3}});
        }
    }
    const auto colour_for = [&](const TapeLine& t) {
        return is_hot(t.measure) ? palette::verdigris : source_colour(measures.at(t.measure).source);
    };
    std::vector<TapeLine> tapes;
    for (const TapeLine& t : g.tapes)
        if (norm(t.to - t.from) > 0.01 && measures.contains(t.measure)) tapes.push_back(t);
    for (const TapeLine& t : tapes) {
        const Point a = map(t.from), b = map(t.to), v = b - a;
        const Colour colour = colour_for(t);
        const Point n = Point{-v.y, v.x} * (4 / std::max(1.0, norm(v)));
        d.line({a, b}, {colour, is_hot(t.measure) ? 2.0 : 1.1,
                        measures.at(t.measure).source == Source::published ? std::vector<double>{} : std::vector<double>{5, 3}});
        d.line({a - n, a + n}, {colour, 1.2, {}});
        d.line({b - n, b + n}, {colour, 1.2, {}});
    }
    const double middle = map({0, 0}).x;
    for (const TapeLine& t : tapes) {
        const Figure& figure = measures.at(t.measure);
        const bool hot = is_hot(t.measure);
        const Colour colour = colour_for(t);
        const Point a = map(t.from), b = map(t.to), v = b - a;
        const double len = norm(v);
        std::string text = length_text(figure.value, reading, false);
        if (figure.source == Source::measured)
            text += figure.readings.size() > 1 ? " ×" + std::to_string(figure.readings.size()) : spoken(" taped");
        if (figure.source == Source::graded) text += spoken(" graded");
        const double w = text_width_guess(text, 12) + 12, h = 18;
        const bool level = std::abs(v.x) > std::abs(v.y);
        // Short lines have their figure beside them, outside the blank's middle.
        Point at = (a + b) * 0.5;
        const double out = at.x >= middle ? 1 : -1;
        if (level && len < w + 8) at.y += 16;
        if (!level && len < h + 10)
            at.x += out * (w / 2 + 8);
        else if (!level && len < 60)
            at.x += out * (w / 2 + 4);
        Rect plate{at.x - w / 2, at.y - h / 2, at.x + w / 2, at.y + h / 2};
        // a figure never hides another: it steps down until it is free
        for (int tries = 0; tries < 14; ++tries) {
            const auto hit = std::find_if(labels_.begin(), labels_.end(), [&](const Label& l) { return l.plate.grown(1).meets(plate); });
            if (hit == labels_.end()) break;
            const double by = hit->plate.y1 + 2 - plate.y0;
            plate.y0 += by;
            plate.y1 += by;
        }
        d.fill({round_rect(plate, 4)}, hot ? palette::verdigris : palette::white);
        d.marks.emplace_back(PathMark{{round_rect(plate, 4)}, true, {}, Stroke{colour, 0.8, {}}});
        d.text({plate.centre().x, plate.centre().y + 4.3}, text, 12, hot ? palette::white : colour, Align::centre, true);
        labels_.push_back({t.measure, plate});
    }
}

Drawing TapeDrawing::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    labels_.clear();
    own_.clear();
    const Selection& s = room_.selection();
    const BlankStyle* style = find_style(room_.order(), s.style);
    if (style == nullptr || size_index(*style, size_shown()) < 0) return d;
    const std::string shown = size_shown();
    if (const auto fault = style_fault(*style)) {
        d.text({20, 24}, fault->said_to(room_.order().unit), 13, palette::carmine);
        return d;
    }
    Colour cloth{0.90, 0.89, 0.86, 1};
    if (!style->colours.empty()) cloth = style->colours.front().ink;
    if (const auto told = told_colour(*style, s.run.colour)) cloth = *told;
    // All faces at one scale: that of the largest size of the run, so that sizes can be compared.
    const std::vector<Face> faces = drawn_faces(style->family);
    std::vector<double> wide;
    double tallest = 1, sum = 0;
    for (const Face face : faces) {
        double w = 1;
        for (const std::string& size : {style->sizes.front(), style->sizes.back(), shown}) {
            const Rect box = drawn_box(panel_of(*style, size, face));
            w = std::max(w, box.width());
            tallest = std::max(tallest, box.height());
        }
        wide.push_back(w);
        sum += w;
    }
    const double below = height > 430 && style->sizes.size() > 1 ? 168 : 40;  // the run of one measure stands under the drawing
    const double n = double(faces.size()), side_room = 44;
    const double k = std::min((width - side_room * n) / (1.03 * sum), (height - 60 - below) / tallest);
    const double spare = (width - k * sum) / n;
    double x = 0;
    for (std::size_t i = 0; i < faces.size(); ++i) {
        const Panel panel = panel_of(*style, shown, faces[i]);
        const Rect box = drawn_box(panel);
        const double cell = k * wide[i] + spare, middle = x + cell / 2;
        const double top = faces.size() > 2 || tallest * k < height - 90 - below ? 44 + (height - 60 - below - k * box.height()) / 2 : 44;
        const std::string side = side_words(style->family, faces[i], room_.order().unit);
        const std::size_t colon = side.find(": ");
        if (colon != std::string::npos && text_width_guess(side, 12.5) > cell - 8) {  // the face and the wearer's side under one another
            d.text({middle, 12}, side.substr(0, colon), 12.5, palette::quiet, Align::centre);
            d.text({middle, 27}, fitting(side.substr(colon + 2), cell - 8, 12), 12, palette::quiet, Align::centre);
        } else {
            d.text({middle, 20}, side, 12.5, palette::quiet, Align::centre);
        }
        draw_face(d, *style, shown, panel, Affine{k, 0, 0, k, middle - k * box.centre().x, top - k * box.y0}, cloth);
        x += cell;
    }
    const double y = height - 8;
    const Measures& measures = style->chart.at(shown);
    const std::string deed =
        over_ && measures.contains(*over_)
            ? spoken(measure_name(*over_)) + ": " + spoken(source_name(measures.at(*over_).source)) + spoken(". Click to type.")
            : spoken("Click a figure and type.");
    const std::string key = spoken("ink: published    brick, dashed: taped    plum, dashed: graded between two taped sizes");
    const bool narrow = text_width_guess(deed, 13) + text_width_guess(key, 12) > width - 40;
    if (below > 100) draw_run(d, *style, {14, height - 160, width - 14, height - (narrow ? 44 : 28)});
    d.text({14, narrow ? y - 16 : y}, deed, 13, palette::ink);
    d.text({narrow ? 14 : width - 14, y}, key, 12, palette::quiet, narrow ? Align::left : Align::right);
    return d;
}

/// One measure over the whole run: what was published as a line, what holds now as marks, and by how much they differ.
void TapeDrawing::draw_run(Drawing& d, const BlankStyle& style, const Rect& room) const {
    Measure m = chosen_.value_or(over_.value_or(main_measure(style.family)));
    if (!style.chart.at(style.sizes.front()).contains(m)) m = main_measure(style.family);
    const Reading reading = room_.order().unit;
    d.marks.emplace_back(PathMark{{round_rect(room, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    d.text({room.x0 + 12, room.y0 + 20}, spoken(measure_name(m)) + spoken(", over the run"), 13, palette::ink, Align::left, true);
    d.text({room.x1 - 12, room.y0 + 20}, spoken("line: published; whiskers: least and most of the pieces"), 12, palette::quiet,
           Align::right);
    double low = 1e9, high = 0;
    for (const std::string& size : style.sizes) {
        const Figure& f = style.chart.at(size).at(m);
        for (const double v : {f.value.mm(), f.published.value_or(f.value).mm()}) {
            low = std::min(low, v);
            high = std::max(high, v);
        }
    }
    if (high - low < 1) high = low + 1;
    const double cell = (room.width() - 40) / double(style.sizes.size());
    Ring published;
    const auto y_of = [&](double v) { return room.y1 - 30 - (v - low) / (high - low) * (room.height() - 82); };
    const auto place = [&](std::size_t i, double v) { return Point{room.x0 + 20 + (double(i) + 0.5) * cell, y_of(v)}; };
    for (std::size_t i = 0; i < style.sizes.size(); ++i) {
        const Figure& f = style.chart.at(style.sizes[i]).at(m);
        published.push_back(place(i, f.published.value_or(f.value).mm()));
    }
    d.line(published, {palette::quiet, 1.2, {}});
    for (std::size_t i = 0; i < style.sizes.size(); ++i) {
        const Figure& f = style.chart.at(style.sizes[i]).at(m);
        const Point p = place(i, f.value.mm());
        const Colour colour = source_colour(f.source);
        if (f.readings.size() > 1) {
            const auto [least, most] = std::minmax_element(f.readings.begin(), f.readings.end());
            d.line({{p.x, y_of(least->mm())}, {p.x, y_of(most->mm())}}, {colour, 1.4, {}});
        }
        d.fill({disc(p, 5)}, f.source == Source::published ? palette::light : colour);
        Ring ring = disc(p, 5);
        ring.push_back(ring.front());
        d.line(ring, {colour, 1.5, {}});
        const bool here = style.sizes[i] == size_shown();
        std::string text = length_text(f.value, reading, false);
        if (f.published && cell > 50) {
            const Length off = f.value - *f.published;
            text += std::string(" (") + (off.mm() > 0 ? "+" : "") + length_text(off, reading, false) + ")";
        }
        d.text({p.x, p.y - 10}, text, 12, colour, Align::centre, here);
        d.text({p.x, room.y1 - 9}, style.sizes[i], 12, here ? palette::ink : palette::quiet, Align::centre, here);
    }
}

std::optional<Measure> TapeDrawing::at(Point p) const {
    for (const Label& l : labels_)
        if (l.plate.contains(p)) return l.measure;
    return std::nullopt;
}

std::vector<CanvasItem> TapeDrawing::items() {
    std::vector<CanvasItem> out;
    const BlankStyle* style = find_style(room_.order(), room_.selection().style);
    const std::string size = size_shown ? size_shown() : std::string();
    for (const Label& l : labels_) {
        QString name = said(measure_name(l.measure));
        if (style != nullptr && style->chart.contains(size))
            name += QStringLiteral(": ") +
                    qt(length_text(Length::from_mm(measure_mm(style->chart.at(size), l.measure, 0)), room_.order().unit));
        out.push_back({name, QRectF(l.plate.x0, l.plate.y0, l.plate.width(), l.plate.height()).toRect(), chosen_ == l.measure,
                       [this, m = l.measure] { type_on(m); }});
    }
    return out;
}

QPoint TapeDrawing::figure_place(Measure measure) const {
    for (const Label& l : labels_)
        if (l.measure == measure) return QPoint(int(l.plate.centre().x), int(l.plate.centre().y));
    return {};
}

QPoint TapeDrawing::feature_place(int feature) const {
    for (const OwnFeature& f : own_)
        if (f.index == feature) return QPoint(int(f.place.centre().x), int(f.place.centre().y));
    return {};
}

void TapeDrawing::type_on(Measure measure) {
    const BlankStyle* style = find_style(room_.order(), room_.selection().style);
    if (style == nullptr || size_index(*style, size_shown()) < 0) return;
    chosen_ = measure;
    if (figure_chosen) figure_chosen(measure);
    const QPoint c = figure_place(measure);
    field_->move(std::clamp(c.x() - 39, 0, std::max(0, width() - 80)), std::max(0, c.y() - 12));
    field_->setModified(false);
    field_->show_length(style->chart.at(size_shown()).at(measure).value, room_.order().unit);
    field_->setToolTip(said(measure_name(measure)));
    field_->show();
    field_->raise();
    field_->setFocus();
    field_->selectAll();
    refresh();
}

void TapeDrawing::mousePressEvent(QMouseEvent* event) {
    setFocus();
    const Point p = to_point(event->position());
    if (const auto m = at(p)) return type_on(*m);
    field_->hide();
    for (auto f = own_.rbegin(); f != own_.rend(); ++f)
        if (f->place.grown(3).contains(p)) {
            held_ = f->index;
            from_ = p;
            feature_ = f->index;
            if (feature_chosen) feature_chosen(f->index);
            return refresh();
        }
    chosen_.reset();
    refresh();
}

void TapeDrawing::mouseMoveEvent(QMouseEvent* event) {
    const Point p = to_point(event->position());
    if (held_ >= 0 && event->buttons().testFlag(Qt::LeftButton)) {
        for (const OwnFeature& f : own_) {
            if (f.index != held_ || !feature_dragged) continue;
            const double right = std::round((p.x - from_.x) * f.kx), down = std::round((p.y - from_.y) * f.ky);
            if (right == 0 && down == 0) return;
            from_ = from_ + Point{right / f.kx, down / f.ky};
            return feature_dragged(held_, Length::from_mm(right), Length::from_mm(down));
        }
        return;
    }
    const auto m = at(p);
    const bool on_own = std::any_of(own_.begin(), own_.end(), [&](const OwnFeature& f) { return f.place.contains(p); });
    setCursor(m ? Qt::IBeamCursor : on_own ? Qt::SizeAllCursor : Qt::ArrowCursor);
    if (m == over_) return;
    over_ = m;
    refresh();
}

void TapeDrawing::mouseReleaseEvent(QMouseEvent*) {
    if (held_ >= 0 && drag_ended) drag_ended();
    held_ = -1;
}

void TapeDrawing::keyPressEvent(QKeyEvent* event) {
    if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && over_) return type_on(*over_);
    const int by = event->key() == Qt::Key_Down || event->key() == Qt::Key_Right ? 1
                   : event->key() == Qt::Key_Up || event->key() == Qt::Key_Left  ? -1
                                                                                 : 0;
    if (by != 0 && !labels_.empty()) {
        int i = -1;
        for (std::size_t k = 0; k < labels_.size(); ++k)
            if (over_ == labels_[k].measure) i = int(k);
        const int n = int(labels_.size());
        over_ = labels_[std::size_t((i + by + n) % n)].measure;
        return refresh();
    }
    Canvas::keyPressEvent(event);
}

}  // namespace orthema::app
