#include "app/benches/order/run_picture.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "core/guides/panel_drawing.h"

namespace orthema::app {

namespace {

constexpr double label_width = 178;
constexpr double row_gap = 7;

int most_of(const Order& order, const std::vector<RunKey>& runs) {
    int most = 1;
    for (const RunKey& run : runs)
        for (const SizeCount& c : counts_of(order, run)) most = std::max(most, c.quantity);
    return most;
}

int quantity_of(const Order& order, const RunKey& run, const std::string& size) {
    for (const SizeCount& c : counts_of(order, run))
        if (c.size == size) return c.quantity;
    return 0;
}

}  // namespace

RunPicture::RunPicture(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room) {
    setObjectName(QStringLiteral("Run picture"));
    setAccessibleName(tr("Quantities by size. Arrows choose a size, digits type its quantity."));
    setMinimumWidth(600);
}

QSize RunPicture::sizeHint() const {
    const auto rows = room_.runs().size();
    return {700, int(std::max<std::size_t>(1, rows) * std::size_t(run_row_height + row_gap)) + 8};
}

std::vector<RunPicture::Slot> RunPicture::places(double width) const {
    std::vector<Slot> out;
    double y = 4;
    for (const RunKey& run : room_.runs()) {
        if (const BlankStyle* style = find_style(room_.order(), run.style)) {
            const double room = width - label_width - 16;
            const double each = std::min(70.0, room / double(style->sizes.size()));
            for (std::size_t i = 0; i < style->sizes.size(); ++i) {
                const double x = label_width + double(i) * each;
                out.push_back({{x, y, x + each, y + run_row_height}, run, style->sizes[i]});
            }
        }
        y += run_row_height + row_gap;
    }
    return out;
}

std::vector<CanvasItem> RunPicture::items() {
    std::vector<CanvasItem> out;
    const Selection& chosen = room_.selection();
    for (const Slot& s : places(width()))
        out.push_back({QStringLiteral("%1 %2: %3")
                           .arg(QString::fromStdString(run_name(room_.order(), s.run)), QString::fromStdString(s.size),
                                counted(std::size_t(quantity_of(room_.order(), s.run, s.size)), "piece")),
                       QRectF(s.box.x0, s.box.y0, s.box.width(), s.box.height()).toRect(), s.run == chosen.run && s.size == chosen.size,
                       [this, run = s.run, size = s.size] {
                           Selection next = room_.selection();
                           next.run = run;
                           next.style = run.style;
                           next.size = size;
                           room_.select(next);
                       }});
    return out;
}

QPoint RunPicture::slot_centre(const RunKey& run, const std::string& size) const {
    for (const Slot& s : places(width()))
        if (s.run == run && s.size == size) return QPoint(int(s.box.centre().x), int(s.box.centre().y));
    return {};
}

Drawing RunPicture::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Order& order = room_.order();
    const auto runs = room_.runs();
    if (runs.empty()) {
        d.text({width / 2, 150}, spoken("An order begins with what is to be pressed."), 17, palette::ink, Align::centre, true);
        d.text({width / 2, 178}, spoken("Bring in the shop's list, drop it here, or choose a blank on the right and type how many."), 13.5,
               palette::quiet, Align::centre);
        return d;
    }
    const int most = most_of(order, room_.runs());
    double y = 4;
    for (const RunKey& run : runs) {
        const Rect card{1, y, width - 2, y + run_row_height};
        d.fill({round_rect(card, 6)}, palette::light);
        d.marks.emplace_back(PathMark{{round_rect(card, 6)}, true, {}, Stroke{palette::rule, 1, {}}});
        // the blank itself, small, in its colour
        const BlankStyle* style = find_style(order, run.style);
        if (style != nullptr && !style_fault(*style)) {
            const auto counts = counts_of(order, run);
            const std::string middle = counts.empty() ? style->sizes.front() : counts[counts.size() / 2].size;
            const Panel g = panel_of(*style, middle, family_faces(style->family).front());
            const Rect box = drawn_box(g);
            const double k = std::min(46 / box.width(), 44 / box.height());
            draw_panel(d, g, Affine{k, 0, 0, k, 38 - k * box.centre().x, y + 30 - k * box.centre().y}, run_colour(order, run), 0.8);
        }
        RunKey of_any = run;
        of_any.job.clear();
        const Job* job = find_job(order, run.job);
        const std::string name = run_name(order, of_any);
        const auto comma = job != nullptr ? std::string::npos : name.find(", ");  // in a gang whose it is stands below
        d.text({72, y + 26}, fitting(name.substr(0, comma), label_width - 70, 13.5, true), 13.5, palette::ink, Align::left, true);
        d.text({72, y + 44},
               fitting(job != nullptr               ? job->name
                       : comma == std::string::npos ? spoken("no colour")
                                                    : name.substr(comma + 2),
                       label_width - 72, 13),
               13, palette::quiet);
        const int pieces = garments_in(order, run);
        d.text({14, y + 68}, std::to_string(pieces) + (pieces == 1 ? spoken(" piece") : spoken(" pieces")), 13, palette::ink, Align::left,
               true);
        int decorations = 0;
        for (const Decoration& dec : order.decorations)
            if (dec.run == run) ++decorations;
        d.text({14, y + 86},
               decorations == 0   ? spoken("nothing on it yet")
               : decorations == 1 ? spoken("1 decoration")
                                  : std::to_string(decorations) + spoken(" decorations"),
               12, decorations == 0 ? palette::ochre_text : palette::quiet);
        if (style == nullptr) d.text({label_width + 10, y + 60}, spoken("This blank is not in the order's library."), 13, palette::carmine);
        d.line({{label_width, y + run_row_height - 26}, {width - 14, y + run_row_height - 26}}, {palette::rule, 1, {}});
        y += run_row_height + row_gap;
    }
    const Selection& chosen = room_.selection();
    for (const Slot& s : places(width)) {
        const int quantity = quantity_of(order, s.run, s.size);
        const bool selected = s.run == chosen.run && s.size == chosen.size;
        const double floor = s.box.y1 - 26, x = s.box.centre().x;
        if (selected) {
            const Rect frame{s.box.x0 + 3, s.box.y0 + 5, s.box.x1 - 3, s.box.y1 - 4};
            d.marks.emplace_back(PathMark{{round_rect(frame, 5)}, true, Colour{0.86, 0.92, 0.91, 1}, Stroke{palette::verdigris, 1.5, {}}});
        }
        if (quantity > 0) {
            const double tall = std::max(3.0, 44.0 * quantity / most);
            const double half = std::min(13.0, s.box.width() / 4);
            Colour cloth = run_colour(order, s.run);
            d.rect({x - half, floor - tall, x + half, floor}, cloth, Stroke{palette::quiet, 0.8, {}});
            d.text({x, floor - tall - 5}, std::to_string(quantity), 13, palette::ink, Align::centre, true);
        } else {
            d.text({x, floor - 5}, "–", 12, palette::quiet, Align::centre);
        }
        d.text({x, s.box.y1 - 10}, s.size, 12.5, quantity > 0 ? palette::ink : palette::quiet, Align::centre, selected);
    }
    return d;
}

void RunPicture::mousePressEvent(QMouseEvent* event) {
    setFocus();
    typed_.clear();
    const Point p = to_point(event->position());
    const auto runs = room_.runs();
    Selection s = room_.selection();
    const int row = int((p.y - 4) / (run_row_height + row_gap));
    if (row >= 0 && row < int(runs.size())) {
        s.run = runs[std::size_t(row)];
        s.style = s.run.style;
    }
    for (const Slot& place : places(width()))
        if (place.box.contains(p)) {
            s.run = place.run;
            s.size = place.size;
        }
    room_.select(s);
}

void RunPicture::step(int across, int down) {
    Selection s = room_.selection();
    const auto runs = room_.runs();
    const auto at = std::find(runs.begin(), runs.end(), s.run);
    if (at == runs.end()) return;
    const auto row = std::clamp<std::ptrdiff_t>(at - runs.begin() + down, 0, std::ptrdiff_t(runs.size()) - 1);
    s.run = runs[std::size_t(row)];
    s.style = s.run.style;
    if (const BlankStyle* style = find_style(room_.order(), s.run.style)) {
        const int n = int(style->sizes.size());
        const int i = std::clamp(std::max(0, size_index(*style, s.size)) + across, 0, n - 1);
        s.size = style->sizes[std::size_t(i)];
    }
    typed_.clear();
    room_.end_gesture();
    room_.select(s);
}

void RunPicture::keyPressEvent(QKeyEvent* event) {
    const Selection& s = room_.selection();
    const auto put = [&](int quantity) {
        room_.edit(tr("quantity"), with_quantity(room_.order(), s.run, s.size, quantity),
                   tr("quantity ") + QString::fromStdString(s.run.style + s.run.colour + s.run.lot + s.size));
    };
    switch (event->key()) {
    case Qt::Key_Left: return step(-1, 0);
    case Qt::Key_Right: return step(1, 0);
    case Qt::Key_Up: return step(0, -1);
    case Qt::Key_Down: return step(0, 1);
    case Qt::Key_Plus: return put(quantity_of(room_.order(), s.run, s.size) + 1);
    case Qt::Key_Minus: return put(quantity_of(room_.order(), s.run, s.size) - 1);
    case Qt::Key_Delete: typed_.clear(); return put(0);
    case Qt::Key_Backspace: typed_.chop(1); return put(typed_.toInt());
    default: break;
    }
    if (event->text().size() == 1 && event->text()[0].isDigit() && event->modifiers() == Qt::NoModifier) {
        if (typed_.size() < 5) typed_ += event->text();
        return put(typed_.toInt());
    }
    Canvas::keyPressEvent(event);
}

}  // namespace orthema::app
