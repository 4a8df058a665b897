#include "app/benches/sheets/ribbon.h"

#include <QPainter>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/guides/panel_drawing.h"
#include "core/sheets/sheet_drawing.h"

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
void draw_rule(Drawing& d, const Affine& map, double from, double to, double zoom, Reading reading, double x_min, double x_max) {
    const double inch = 25.4;
    double label = reading == Unit::mm ? 100 : 4 * inch;
    while (label * zoom < 56) label *= reading == Unit::mm ? (label < 150 ? 2 : 2.5) : 3;
    const double tick = label / (reading == Unit::mm ? 10 : 4);
    for (double v = std::max(0.0, std::floor(from / tick) * tick); v <= to; v += tick) {
        const double x = map({v, 0}).x;
        if (x < x_min - 1 || x > x_max + 1) continue;
        const bool big = std::abs(std::remainder(v, label)) < tick / 4;
        d.line({{x, rule_height - (big ? 11 : 5)}, {x, rule_height}}, {palette::quiet, 0.9, {}});
        if (big)
            d.text({x + 3, rule_height - 10},
                   (reading == Unit::mm ? mm_text(v, 0) : mm_text(v / inch, 0)) +
                       (v == 0 ? (reading == Unit::mm ? spoken(" mm") : spoken(" in")) : ""),
                   11.5, palette::quiet);
    }
}

}  // namespace

Ribbon::Ribbon(Workroom& room, QWidget* parent) : Canvas(room.art(), parent), room_(room), tiles_(this) {
    connect(&tiles_, &StripTiles::ready, this, [this] { refresh(); });
    still_.setSingleShot(true);
    still_.setInterval(120);
    connect(&still_, &QTimer::timeout, this, [this] { refresh(); });
    setObjectName(QStringLiteral("Ribbon"));
    setAccessibleName(tr("The film with its pieces. Tab-free keys: N next piece, arrows nudge, R turns, L locks, plus and minus zoom."));
    glide_.setDuration(260);
    glide_.setStartValue(0.0);
    glide_.setEndValue(1.0);
    glide_.setEasingCurve(QEasingCurve::OutCubic);
    connect(&glide_, &QVariantAnimation::valueChanged, this, [this] { refresh(); });
}

const Medium* Ribbon::medium() const { return medium_of(room_); }

Affine Ribbon::strip_map_of(double start) const { return {zoom_, 0, 0, zoom_, (start - first_) * zoom_ + 6, rule_height - top_ * zoom_}; }

Affine Ribbon::strip_map(int sheet) const {
    return strip_map_of(std::size_t(sheet) < sheets_.starts.size() ? sheets_.starts[std::size_t(sheet)] : 0);
}

Point Ribbon::to_strip(Point p, int& sheet) const {
    const RibbonSheets& all = sheets_;
    const double along = (p.x - 6) / zoom_ + first_;
    sheet = 0;
    for (std::size_t i = 0; i < all.starts.size(); ++i)
        if (along >= all.starts[i] - sheet_gap / 2) sheet = int(i);
    return {along - (all.starts.empty() ? 0 : all.starts[std::size_t(sheet)]), (p.y - rule_height) / zoom_ + top_};
}

double Ribbon::last_mm() const { return zoom_ > 0 ? first_ + width() / zoom_ : first_; }

void Ribbon::zoom_to_width() {
    const Medium* m = medium();
    if (m == nullptr || height() < 60) return;
    zoom_ = (height() - rule_height - foot) / std::max(m->width.mm(), sheets_.width);
    top_ = 0;
}

void Ribbon::resizeEvent(QResizeEvent* event) {
    zoom_to_width();
    Canvas::resizeEvent(event);
    emit moved_view();
}

void Ribbon::show_from(double mm) {
    const double total = sheets_.total;
    const double zoom = std::max(0.01, zoom_);
    first_ = std::clamp(mm, 0.0, std::max(0.0, total - 0.5 * width() / zoom));
    top_ = std::clamp(top_, 0.0, std::max(0.0, sheets_.width - (height() - rule_height - foot) / zoom));
    if (tiled()) still_.start();
    refresh();
    emit moved_view();
}

void Ribbon::zoom_by(double factor, QPointF at) {
    const double along = (at.x() - 6) / zoom_ + first_, across = (at.y() - rule_height) / zoom_ + top_;
    zoom_ = std::clamp(zoom_ * factor, 0.004, 60.0);
    top_ = across - (at.y() - rule_height) / zoom_;
    show_from(along - (at.x() - 6) / zoom_);
}

void Ribbon::zoom_to_chosen() {
    const auto& copies = copies_of(room_);
    const Medium* m = medium();
    if (m == nullptr || chosen_.empty()) return;
    std::vector<PlacedCopy> them;
    for (const int i : chosen_) them.push_back(copies[std::size_t(i)]);
    Rect all;
    const auto boxes = laid_boxes(*m, room_.transfer_set(), them);
    for (std::size_t k = 0; k < boxes.size(); ++k) {
        const double start = sheets_.starts[std::size_t(them[k].sheet)];
        const Rect at{boxes[k].x0 + start, boxes[k].y0, boxes[k].x1 + start, boxes[k].y1};
        all = k == 0 ? at : united(all, at);
    }
    const double high = height() - rule_height - foot;
    zoom_ = std::clamp(0.8 * std::min(width() / std::max(1.0, all.width()), high / std::max(1.0, all.height())), 0.02, 60.0);
    top_ = all.centre().y - high / 2 / zoom_;
    show_from(all.centre().x - width() / 2.0 / zoom_);
}

void Ribbon::refresh_pieces() {
    sheets_ = ribbon_sheets(room_);
    const auto& copies = copies_of(room_);
    std::map<std::pair<std::string, int>, PlacedCopy> now;
    for (const PlacedCopy& c : copies) now[{c.transfer, c.copy}] = c;
    const bool same_medium = shown_medium_ == room_.selection().medium;
    if (!same_medium) {
        chosen_.clear();
        cut_sheet_ = -1;
        zoom_to_width();
        first_ = 0;
    }
    if (same_medium && !dragging_ && now != shown_ && copies.size() <= 600) {
        gliding_from_ = shown_;
        glide_.stop();
        if (!room_.settings().liked().quiet) glide_.start();
    }
    shown_ = std::move(now);
    shown_medium_ = room_.selection().medium;
    std::erase_if(chosen_, [&](int i) { return i >= int(copies.size()); });
    laid_ = false;
    refresh();
}

/// Many pieces are laid down as pictures; few, and what moves, are drawn each time.
bool Ribbon::tiled() const { return glide_.state() != QAbstractAnimation::Running && copies_of(room_).size() >= 100; }

/// Where everything lies along the ribbon; the tiles get it without what is under the hand.
void Ribbon::lay_items() {
    if (transfers_number_ != room_.chain().transfers_number()) {
        transfers_.clear();
        for (const Transfer& t : room_.transfer_set().transfers) transfers_[t.id] = std::make_shared<const Transfer>(t);
        transfers_number_ = room_.chain().transfers_number();
    }
    std::vector<StripTiles::Item> items;
    const auto& copies = copies_of(room_);
    items.reserve(copies.size());
    boxes_.assign(copies.size(), {});
    std::map<const Transfer*, Rect> own;
    for (std::size_t i = 0; i < copies.size(); ++i) {
        const PlacedCopy& c = copies[i];
        const auto t = transfers_.find(c.transfer);
        if (t == transfers_.end()) continue;
        const double start = std::size_t(c.sheet) < sheets_.starts.size() ? sheets_.starts[std::size_t(c.sheet)] : 0;
        StripTiles::Item item{t->second, Affine::shift(start, 0).after(copy_map(c)), {}, c.locked, 0};
        const Rect box = own.try_emplace(t->second.get(), bounds(t->second->contour.outer)).first->second;
        boxes_[i] = item.box = bounds(mapped(box_region(box)[0].outer, item.map));
        if (dragging_ && is_chosen(int(i))) continue;
        std::size_t mark = std::hash<const void*>{}(t->second.get()) ^ (c.locked ? 77 : 0);
        for (const double v : {c.x + start, c.y, double(c.turn)}) mark = (mark ^ std::hash<double>{}(v)) * 1099511628211ull;
        item.mark = mark;
        items.push_back(std::move(item));
    }
    tiles_.show(std::move(items), room_.art());
    laid_ = true;
}

const QImage* Ribbon::ground(double ratio) {
    if (zoom_ <= 0 || medium() == nullptr || !tiled()) return nullptr;
    Drawing sheets;
    sheets.width = width();
    sheets.height = height();
    for (std::size_t i = 0; i < sheets_.starts.size(); ++i) draw_sheet(sheets, i, width());
    paint_image(ground_, sheets, art(), width(), height(), ratio);
    QPainter painter(&ground_);
    const double left = first_ - 6 / zoom_;
    tiles_.paint(painter, {left, top_, left + width() / zoom_, top_ + (height() - rule_height) / zoom_}, zoom_, QPointF(0, rule_height),
                 ratio, !still_.isActive());
    return &ground_;
}

void Ribbon::draw_label(Drawing& d, const Transfer& t, const PlacedCopy& at, const Affine& map, const Rect& box,
                        const std::string& of_job) const {
    std::string label = label_text(t) + (t.count() > 1 ? "  " + std::to_string(at.copy + 1) + "/" + std::to_string(t.count()) : "");
    const double room = box.width() - 8;
    if (const Job* job = find_job(room_.order(), of_job); job != nullptr)  // whose it is, where there is room for it
        if (const std::string with = job->name + "  " + label; text_width_guess(with, 10.5) <= room) label = with;
    if (!t.whose.empty() && text_width_guess(label, 10.5) > room) label = sizes_text(t);
    const double need = text_width_guess(label, 10.5) + 8;
    if (box.width() <= need || box.height() <= 30) return;
    const Point p = map(inner_point(t));
    const double y = at.locked ? p.y + 16 : p.y;
    d.fill({round_rect({p.x - need / 2, y - 8, p.x + need / 2, y + 8}, 4)}, Colour{0.984, 0.980, 0.965, 0.88});
    d.text({p.x, y + 3.5}, label, 10.5, palette::ink, Align::centre);
}

void Ribbon::draw_rope_and_rule(Drawing& d) const {
    if (roping_)
        d.rect({std::min(rope_from_.x, rope_to_.x), std::min(rope_from_.y, rope_to_.y), std::max(rope_from_.x, rope_to_.x),
                std::max(rope_from_.y, rope_to_.y)},
               {}, Stroke{palette::verdigris, 1.2, {5, 3}});
    // the rule lies over what is scrolled up under it
    d.rect({0, 0, d.width, rule_height}, palette::paper);
    for (std::size_t i = 0; i < sheets_.starts.size(); ++i)
        draw_rule(d, strip_map(int(i)), std::max(0.0, first_ - sheets_.starts[i]),
                  std::min(sheets_.lengths[i], last_mm() - sheets_.starts[i]), zoom_, room_.order().unit, 0, d.width);
}

Drawing Ribbon::draw(double width, double height) {
    Drawing d;
    d.width = width;
    d.height = height;
    const Medium* m = medium();
    if (m == nullptr) return d;
    if (zoom_ <= 0) zoom_to_width();
    if (zoom_ <= 0) return d;
    const TransferSet& set = room_.transfer_set();
    const TransferIndex index(set);
    const auto& copies = copies_of(room_);
    const Rect window{0, rule_height, width, height};
    const bool tiles = tiled();
    if (!laid_) lay_items();
    if (!tiles)
        for (std::size_t i = 0; i < sheets_.starts.size(); ++i) draw_sheet(d, i, width);
    const double t = glide_.state() == QAbstractAnimation::Running ? glide_.currentValue().toDouble() : 1.0;
    struct Seen {
        const Transfer* transfer;
        PlacedCopy at;
        Affine map;
        Rect box;
    };
    std::vector<Seen> seen;
    const MediumLayout* layout = find_layout(room_.order(), m->id);
    const CopyJobs jobs(set, layout != nullptr ? *layout : MediumLayout{m->id, {}});
    const Affine along = strip_map_of(0);
    for (std::size_t i = 0; i < copies.size(); ++i) {
        const Point a = along({boxes_[i].x0, boxes_[i].y0}), b = along({boxes_[i].x1, boxes_[i].y1});
        const Rect box{a.x, a.y, b.x, b.y};
        if (t >= 1 && !box.meets(window)) continue;
        const Transfer* tr = index.find(copies[i].transfer);
        if (tr == nullptr) continue;
        PlacedCopy at = copies[i];
        if (t < 1)
            if (const auto was = gliding_from_.find({at.transfer, at.copy}); was != gliding_from_.end()) at = between(was->second, at, t);
        const Affine map = strip_map(at.sheet).after(copy_map(at));
        seen.push_back({tr, at, map, box});
        if (!tiles || is_chosen(int(i))) draw_piece(d, *tr, map, is_chosen(int(i)), at.locked);
        if (!room_.selection().shows(jobs.of(at.transfer, at.copy)))
            d.region(mapped(Region{tr->contour}, map), Colour{film.r, film.g, film.b, 0.78}, {});
        if (!at.locked) continue;
        const Point c = box.centre();
        const Rect body{c.x - 6, c.y - 3, c.x + 6, c.y + 7};
        d.fill({round_rect(body.grown(3), 4)}, Colour{1, 1, 1, 0.9});
        d.rect(body, palette::brick);
        Ring bow;
        for (int s = 0; s <= 12; ++s) bow.push_back({c.x - 4 * std::cos(M_PI * s / 12), c.y - 3 - 6 * std::sin(M_PI * s / 12)});
        d.line(bow, {palette::brick, 2, {}});
    }
    // over all pieces, so that a neighbour never hides one
    if (!still_.isActive() || seen.size() <= 80)  // many words wait until the view rests
        for (const Seen& s : seen)
            if (const std::string& job = jobs.of(s.at.transfer, s.at.copy); room_.selection().shows(job))
                draw_label(d, *s.transfer, s.at, s.map, s.box, job);
    if (kept_shown_) draw_kept(d);
    draw_cuts(d);
    draw_rope_and_rule(d);
    if (copies.empty()) {
        const bool any = std::any_of(set.transfers.begin(), set.transfers.end(), [&](const Transfer& tr) { return tr.medium == m->id; });
        d.fill({round_rect({width / 2 - 250, height / 2 - 36, width / 2 + 250, height / 2 + 30}, 6)}, palette::light);
        d.text({width / 2, height / 2 - 8}, any ? spoken("Nothing is laid out yet.") : spoken("Nothing is made with this medium."), 16,
               palette::ink, Align::centre, true);
        d.text({width / 2, height / 2 + 16},
               any ? spoken("Settle the pieces: a layout comes at once and betters while it runs.")
                   : spoken("Fit a design, and choose its medium on the Fit bench."),
               13, palette::quiet, Align::centre);
    }
    return d;
}

/// One sheet or run: its edges, margins, what is kept free, and the left-over behind the last run.
void Ribbon::draw_sheet(Drawing& d, std::size_t i, double width) const {
    const Medium* m = medium();
    const RibbonSheets& all = sheets_;
    const Affine map = strip_map(int(i));
    const Point a = map({0, 0}), b = map({all.lengths[i], all.widths[i]});
    if (m == nullptr || b.x < -50 || a.x > width + 50) return;
    const Stroke edge{palette::rule, 1.2, {}};
    if (all.shapes[i].outer.empty())
        d.rect({a.x, a.y, b.x, b.y}, film, edge);
    else
        d.region(mapped(Region{all.shapes[i]}, map), film, edge);
    const double margin = m->margin.mm();
    // no farther than is seen: dashes are counted out one by one
    const auto seen = [&](Point p) { return Point{std::clamp(p.x, -30.0, width + 30), std::clamp(p.y, -30.0, d.height + 30)}; };
    const Point ma = seen(map({margin, margin})), mb = seen(map({all.lengths[i] - margin, all.widths[i] - margin}));
    if (all.shapes[i].outer.empty()) d.line({ma, {mb.x, ma.y}, mb, {ma.x, mb.y}, ma}, {palette::rule, 0.8, {3, 3}});
    const auto boxed = [&](const Rect& r, const std::string& name) {
        const Point p = map({r.x0, r.y0}), q = map({r.x1, r.y1});
        const Rect box{p.x, p.y, q.x, q.y};
        hatch(d, box, palette::brick);
        d.rect(box, {}, Stroke{palette::brick, 1, {}});
        if (box.width() > text_width_guess(name, 11) + 8 && box.height() > 18) {
            d.fill({round_rect({box.x0 + 3, box.y0 + 2, box.x0 + 9 + text_width_guess(name, 11), box.y0 + 17}, 3)}, palette::light);
            d.text({box.x0 + 6, box.y0 + 13}, name, 11, palette::brick_text);
        }
    };
    for (const Exclusion& e : m->laying.excluded)
        boxed({e.along.mm(), e.across.mm(), std::min(all.lengths[i], (e.along + e.length).mm()),
               std::min(all.widths[i], (e.across + e.breadth).mm())},
              e.name);
    if (all.shapes[i].outer.empty())
        for (const Point& at : register_marks(*m, all.lengths[i])) {
            const double r = register_radius;
            for (const Ring& line : {Ring{{at.x - r, at.y}, {at.x + r, at.y}}, Ring{{at.x, at.y - r}, {at.x, at.y + r}}})
                d.line(mapped(line, map), {palette::ink, 1.2, {}});
        }
    if (!all.names[i].empty()) {
        const double x = std::max(4.0, a.x + 4);
        d.fill({round_rect({x, a.y + 3, x + text_width_guess(all.names[i], 11.5) + 10, a.y + 20}, 4)}, palette::light);
        d.text({x + 5, a.y + 15.5}, all.names[i], 11.5, palette::ink);
    }
    if (i + 1 == all.starts.size() && m->shape == MediumShape::roll && all.shapes[i].outer.empty()) {
        const double left = m->length.mm() > 0 ? m->length.mm() - all.lengths[i] : 1e6;
        const Rect over{b.x, a.y, std::min(width, b.x + left * zoom_), b.y};
        if (over.x1 > over.x0) {
            d.rect(over, palette::light, Stroke{palette::rule, 1, {}});
            hatch(d, over, palette::rule);
            if (over.width() > 90) {
                d.fill({round_rect({over.x0 + 8, over.y0 + 8, over.x0 + 84, over.y0 + 28}, 4)}, palette::light);
                d.text({over.x0 + 14, over.y0 + 22}, spoken("left-over"), 12, palette::quiet);
            }
        }
    }
}

/// The trimmer's cuts on one sheet: those made as gaps, the next one as a blade, what it cuts framed, waste hatched.
void Ribbon::draw_cuts(Drawing& d) const {
    if (cut_sheet_ < 0 || std::size_t(cut_sheet_) >= sheets_.starts.size()) return;
    const Affine map = strip_map(cut_sheet_);
    const auto box = [&](int part) {
        const Rect& r = cuts_.parts[std::size_t(part)].box;
        const Point a = map({r.x0, r.y0}), b = map({r.x1, r.y1});
        return Rect{a.x, a.y, b.x, b.y};
    };
    for (int k = 0; k < std::min(cut_, int(cuts_.cuts.size())); ++k) {
        const TrimCut& c = cuts_.cuts[std::size_t(k)];
        for (const int part : {c.near, c.far})
            if (cuts_.parts[std::size_t(part)].waste) {
                d.rect(box(part), Colour{0.957, 0.945, 0.918, 0.75}, {});
                hatch(d, box(part), palette::rule);
            }
        const Rect r = box(c.part);
        const Point at = map({c.at, c.at});
        const Ring line = c.across ? Ring{{at.x, r.y0}, {at.x, r.y1}} : Ring{{r.x0, at.y}, {r.x1, at.y}};
        d.line(line, {palette::paper, 3.5, {}});
        d.line(line, {palette::quiet, 1, {}});
    }
    if (cut_ >= int(cuts_.cuts.size())) return;
    const TrimCut& c = cuts_.cuts[std::size_t(cut_)];
    const Rect r = box(c.part);
    d.rect(r, {}, Stroke{palette::verdigris, 2.5, {}});
    const Point at = map({c.at, c.at});
    const Ring blade = c.across ? Ring{{at.x, r.y0 - 8}, {at.x, r.y1 + 8}} : Ring{{r.x0 - 8, at.y}, {r.x1 + 8, at.y}};
    d.line(blade, {palette::brick, 2.5, {9, 4}});
    // the fence, from the near edge to the blade
    const Ring fence = c.across ? Ring{{r.x0, r.y0 + 14}, {at.x, r.y0 + 14}} : Ring{{r.x0 + 14, r.y0}, {r.x0 + 14, at.y}};
    d.line(fence, {palette::brick, 1.4, {}});
    const std::string text = length_text(Length::from_mm(c.fence), room_.order().unit);
    const double half = text_width_guess(text, 12) / 2 + 5;
    Point middle = (fence[0] + fence[1]) * 0.5 + (c.across ? Point{0, 16} : Point{half + 4, 4});
    if (norm(fence[1] - fence[0]) < (c.across ? 2 * half : 20))
        middle = c.across ? Point{at.x + half + 6, r.y0 + 18} : Point{r.x0 + half + 20, at.y + 18};
    d.fill({round_rect({middle.x - half, middle.y - 12, middle.x + half, middle.y + 5}, 4)}, palette::light);
    d.text(middle, text, 12, palette::brick_text, Align::centre, true);
}

void Ribbon::draw_kept(Drawing& d) const {
    const Medium* m = medium();
    const MediumLayout* layout = m == nullptr ? nullptr : find_layout(room_.order(), m->id);
    if (layout == nullptr || !layout->kept) return;
    const TransferIndex index(room_.transfer_set());
    for (const PlacedCopy& c : layout->kept->copies)
        if (const Transfer* t = index.find(c.transfer))
            d.region(mapped(Region{t->contour}, strip_map(c.sheet).after(copy_map(c))), {}, Stroke{palette::ochre, 1.3, {5, 3}});
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

std::vector<CanvasItem> Ribbon::items() {
    std::vector<CanvasItem> out;
    const Reading reading = room_.order().unit;
    const auto& copies = copies_of(room_);
    for (std::size_t i = 0; i < copies.size(); ++i) {
        const PlacedCopy& c = copies[i];
        const Transfer* t = find_transfer(room_.transfer_set(), c.transfer);
        if (t == nullptr) continue;
        const auto mm = [&](double v) { return qt(length_text(Length::from_mm(v), reading)); };
        QString name =
            tr("%1, %2 wide, sheet %3, %4 along and %5 across").arg(qt(t->name), mm(t->width)).arg(c.sheet + 1).arg(mm(c.y), mm(c.x));
        if (c.locked) name += tr(", locked");
        const QPoint at = place_of(int(i));
        out.push_back({name, QRect(at.x() - 10, at.y() - 10, 20, 20), is_chosen(int(i)), [this, i] {
                           choose(int(i));
                           zoom_to_chosen();
                       }});
    }
    return out;
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

}  // namespace orthema::app
