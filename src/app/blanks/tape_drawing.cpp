#include "app/blanks/tape_drawing.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include "app/shell/figures.h"
#include "core/guides/garment_drawing.h"

namespace orthema::app {

namespace {

Colour source_colour(Source s) {
    return s == Source::measured ? palette::brick : s == Source::graded ? Colour{0.42, 0.33, 0.56, 1} : palette::ink;
}

}  // namespace

TapeDrawing::TapeDrawing(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Tape drawing"));
    setAccessibleName(QStringLiteral("The blank with its points of measure. Tab goes from figure to figure, Enter types."));
    setMouseTracking(true);
    field_ = new LengthField(QStringLiteral("What the tape says"), this);
    field_->setFixedWidth(78);
    field_->hide();
    field_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 3000) return QStringLiteral("A garment measures between 0 and 3 m.");
        if (chosen_ && taped) taped(*chosen_, l);
        field_->hide();
        setFocus();
        return std::nullopt;
    };
}

Drawing TapeDrawing::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    labels_.clear();
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    const BlankStyle* style = find_style(order, s.style);
    if (style == nullptr || size_index(*style, s.size) < 0) return d;
    const Measures& measures = style->chart.at(s.size);
    if (const auto fault = style_fault(*style)) d.text({20, 24}, *fault, 13, palette::carmine);
    Colour cloth{0.90, 0.89, 0.86, 1};
    for (const BlankColour& c : style->colours)
        if (c.name == s.run.colour) cloth = c.ink;
    const Garment front = garment_of(style->family, measures, Side::front);
    const Garment back = garment_of(style->family, measures, Side::back);
    // Both sides at one scale; the scale of the largest size of the run, so that sizes can be compared.
    double widest = 1, tallest = 1;
    for (const std::string& size : style->sizes) {
        const Rect box = bounds(garment_of(style->family, style->chart.at(size), Side::front).outline);
        widest = std::max(widest, box.width());
        tallest = std::max(tallest, box.height());
    }
    const double below = height > 430 ? 168 : 40;  // the run of one measure stands under the garments
    const double k = std::min((width - 90) / (2.06 * widest), (height - 60 - below) / tallest);
    int column = 0;
    for (const Garment* g : {&front, &back}) {
        const Rect box = bounds(g->outline);
        const Point c{width * (column == 0 ? 0.26 : 0.75), 44 - k * box.y0};
        const Affine map{k, 0, 0, k, c.x, c.y};
        draw_garment(d, *g, map, cloth, 1);
        draw_landmarks(d, *g, map, 0.8);
        d.text({c.x, 20}, column == 0 ? "front: the wearer's left is on your right" : "back: the wearer's left is on your left", 12.5,
               palette::quiet, Align::centre);
        const auto lines = tape_lines(style->family, measures, g->side);
        const auto colour_for = [&](const TapeLine& t) {
            return is_hot(t.measure) ? palette::verdigris : source_colour(measures.at(t.measure).source);
        };
        for (const TapeLine& t : lines) {
            const Point a = map(t.from), b = map(t.to), v = b - a;
            const Colour colour = colour_for(t);
            const double len = std::max(1.0, norm(v));
            const Point n = Point{-v.y, v.x} * (4 / len);
            d.line({a, b}, {colour, is_hot(t.measure) ? 2.0 : 1.1,
                            measures.at(t.measure).source == Source::published ? std::vector<double>{} : std::vector<double>{5, 3}});
            d.line({a - n, a + n}, {colour, 1.2, {}});
            d.line({b - n, b + n}, {colour, 1.2, {}});
        }
        for (const TapeLine& t : lines) {
            const Figure& figure = measures.at(t.measure);
            const bool hot = is_hot(t.measure);
            const Colour colour = colour_for(t);
            const Point a = map(t.from), b = map(t.to), v = b - a;
            const double len = norm(v);
            std::string text = length_text(figure.value, order.unit, false);
            if (figure.source == Source::measured) text += " taped";
            if (figure.source == Source::graded) text += " graded";
            const double w = text_width_guess(text, 12) + 12, h = 18;
            const bool level = std::abs(v.x) > std::abs(v.y);
            // Short lines have their figure beside them, outside the garment's middle.
            Point at = (a + b) * 0.5;
            const bool out_right = at.x >= c.x;
            if (level && len < w + 8) at.y += 16;
            if (!level && len < h + 10)
                at.x += (out_right ? 1 : -1) * (w / 2 + 8);
            else if (!level && len < 60)
                at.x += (out_right ? 1 : -1) * (w / 2 + 4);
            Rect plate{at.x - w / 2, at.y - h / 2, at.x + w / 2, at.y + h / 2};
            // a figure never hides another: it steps down until it is free
            for (int tries = 0; tries < 14; ++tries) {
                const auto hit =
                    std::find_if(labels_.begin(), labels_.end(), [&](const Label& l) { return l.plate.grown(1).meets(plate); });
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
        ++column;
    }
    if (below > 100) draw_run(d, *style, {14, height - 160, width - 14, height - 28});
    const double y = height - 8;
    d.text({14, y},
           over_
               ? std::string(measure_name(*over_)) + ": " + source_name(measures.at(*over_).source) + ". Click to type what the tape says."
               : "Click a figure and type what the tape says.",
           13, palette::ink);
    d.text({width - 14, y}, "ink: published    brick, dashed: taped    plum, dashed: graded between two taped sizes", 12, palette::quiet,
           Align::right);
    return d;
}

/// One measure over the whole run: what was published as a line, what holds now as marks.
void TapeDrawing::draw_run(Drawing& d, const BlankStyle& style, const Rect& room) const {
    const Measure m = chosen_.value_or(over_.value_or(Measure::chest));
    d.marks.emplace_back(PathMark{{round_rect(room, 6)}, true, palette::light, Stroke{palette::rule, 1, {}}});
    d.text({room.x0 + 12, room.y0 + 20}, std::string(measure_name(m)) + ", over the run", 13, palette::ink, Align::left, true);
    d.text({room.x1 - 12, room.y0 + 20}, "line: published", 12, palette::quiet, Align::right);
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
    const auto place = [&](std::size_t i, double v) {
        return Point{room.x0 + 20 + (double(i) + 0.5) * cell, room.y1 - 30 - (v - low) / (high - low) * (room.height() - 82)};
    };
    for (std::size_t i = 0; i < style.sizes.size(); ++i) {
        const Figure& f = style.chart.at(style.sizes[i]).at(m);
        published.push_back(place(i, f.published.value_or(f.value).mm()));
    }
    d.line(published, {palette::quiet, 1.2, {}});
    for (std::size_t i = 0; i < style.sizes.size(); ++i) {
        const Figure& f = style.chart.at(style.sizes[i]).at(m);
        const Point p = place(i, f.value.mm());
        const Colour colour = source_colour(f.source);
        d.fill({disc(p, 5)}, f.source == Source::published ? palette::light : colour);
        Ring ring = disc(p, 5);
        ring.push_back(ring.front());
        d.line(ring, {colour, 1.5, {}});
        const bool here = style.sizes[i] == room_.selection().size;
        d.text({p.x, p.y - 10}, length_text(f.value, room_.order().unit, false), 12, colour, Align::centre, here);
        d.text({p.x, room.y1 - 9}, style.sizes[i], 12, here ? palette::ink : palette::quiet, Align::centre, here);
    }
}

std::optional<Measure> TapeDrawing::at(Point p) const {
    for (const Label& l : labels_)
        if (l.plate.contains(p)) return l.measure;
    return std::nullopt;
}

QPoint TapeDrawing::figure_place(Measure measure) const {
    for (const Label& l : labels_)
        if (l.measure == measure) return QPoint(int(l.plate.centre().x), int(l.plate.centre().y));
    return {};
}

void TapeDrawing::type_on(Measure measure) {
    const BlankStyle* style = find_style(room_.order(), room_.selection().style);
    if (style == nullptr) return;
    chosen_ = measure;
    const QPoint c = figure_place(measure);
    field_->move(std::clamp(c.x() - 39, 0, std::max(0, width() - 80)), c.y() - 12);
    field_->setModified(false);
    field_->show_length(style->chart.at(room_.selection().size).at(measure).value, room_.order().unit);
    field_->setToolTip(qt(measure_name(measure)));
    field_->show();
    field_->raise();
    field_->setFocus();
    field_->selectAll();
    refresh();
}

void TapeDrawing::mousePressEvent(QMouseEvent* event) {
    setFocus();
    if (const auto m = at(to_point(event->position()))) {
        type_on(*m);
    } else {
        chosen_.reset();
        field_->hide();
        refresh();
    }
}

void TapeDrawing::mouseMoveEvent(QMouseEvent* event) {
    const auto m = at(to_point(event->position()));
    if (m == over_) return;
    over_ = m;
    setCursor(m ? Qt::IBeamCursor : Qt::ArrowCursor);
    refresh();
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
