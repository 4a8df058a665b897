// The art view while a picture is mended: the file's picture beside the mended one, on the garment's colour, and a loupe over both.
#include <QMouseEvent>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/art/art_view.h"

namespace orthema::app {

struct ArtView::Tile {
    std::string id;
    const ArtFacts* facts;
    Affine from_file;  ///< from the file's canvas to its own
    double width, height;
    Affine on_widget;  ///< from its own canvas
    Affine art_place;  ///< of the art's unit frame in its own canvas
    std::string says;
};

namespace {

constexpr double rim = 16, caption = 26, loupe = 66;
constexpr double screen_mm = 96 / 25.4;  ///< pixels that a millimetre takes on the usual screen

}  // namespace

void ArtView::set_mending(bool on) {
    if (mending_ == on) return;
    mending_ = on;
    pointer_.reset();
    setMouseTracking(on);
    refresh();
}

void ArtView::set_drawing(Drawn what) {
    drawn_ = what;
    from_.reset();
    setCursor(what == Drawn::nothing ? Qt::ArrowCursor : Qt::CrossCursor);
    refresh();
}

/// What stands side by side; one alone while something is drawn on the file's picture, or where nothing is mended.
std::vector<ArtView::Tile> ArtView::tiles(double width, double height) const {
    const std::string& id = room_.selection().art;
    const Art* entry = find_art(room_.order(), id);
    if (entry == nullptr) return {};
    const std::string mended = entry->clip ? whole_id(id) : id;
    const auto file = art().find(unmended_id(id)), done = art().find(mended);
    std::vector<Tile> out;
    const auto add = [&](const std::string& what, const LoadedArt& a, const MendFrame& frame, const Affine& canvas,
                         const std::string& says) {
        const double k = a.facts.ink_px.width();
        out.push_back({what,
                       &a.facts,
                       frame.from_file,
                       frame.width,
                       frame.height,
                       {},
                       canvas.after(Affine{k, 0, 0, k, a.facts.ink_px.x0, a.facts.ink_px.y0}),
                       says});
    };
    const auto& before = file != art().end() ? file : done;
    if (before == art().end()) return {};
    const ArtFacts& f = before->second->facts;
    const double w = f.width_px, h = f.height_px;
    if (drawn_ == Drawn::box) {  // on the straightened picture
        std::vector<Mending> turned;
        if (const Mending* m = find_mending(entry->mendings, MendKind::straighten)) turned.push_back(*m);
        const MendFrame frame = mend_frame(w, h, turned);
        add(before->first, *before->second, frame, frame.from_file, spoken("drag over what is kept"));
    } else {
        add(before->first, *before->second, {{}, w, h}, {},
            drawn_ == Drawn::line ? spoken("drag along what should lie level or stand upright") : spoken("as the file has it"));
        if (drawn_ == Drawn::nothing && file != art().end() && done != art().end()) {
            const ArtFacts& m = done->second->facts;
            add(mended, *done->second, {done->second->from_file, double(m.width_px), double(m.height_px)}, {}, spoken("mended"));
        }
    }
    const double each = width / double(out.size());
    for (std::size_t i = 0; i < out.size(); ++i) {
        Tile& t = out[i];
        const double k = std::min((each - 2 * rim - 24) / t.width, (height - 2 * rim - 2 * caption) / t.height);
        t.on_widget = Affine::shift(each * (double(i) + 0.5) - k * t.width / 2, height / 2 - k * t.height / 2).after(Affine::scale(k, k));
    }
    return out;
}

QPoint ArtView::drawing_place_of(Point share) const {
    const auto all = tiles(width(), height());
    if (all.empty()) return {};
    const Point p = all.front().on_widget({share.x * all.front().width, share.y * all.front().height});
    return {int(std::lround(p.x)), int(std::lround(p.y))};
}

void ArtView::draw_mending(Drawing& d) const {
    const auto all = tiles(d.width, d.height);
    const Colour cloth = cloth_.value_or(palette::white);
    for (const Tile& t : all) {
        const Point a = t.on_widget({0, 0}), b = t.on_widget({t.width, t.height});
        d.fill({round_rect({a.x - rim, a.y - rim, b.x + rim, b.y + rim}, 6)}, cloth);
        d.marks.emplace_back(ArtMark{t.id, t.on_widget.after(t.art_place), 1});
        d.text({(a.x + b.x) / 2, b.y + rim + 18}, t.says, 12.5, palette::quiet, Align::centre);
    }
    if (drawn_ != Drawn::nothing && from_ && pointer_) {
        if (drawn_ == Drawn::line) {
            d.line({*from_, *pointer_}, {palette::white, 4, {}});
            d.line({*from_, *pointer_}, {palette::brick, 2, {}});
        } else {
            const Rect box{std::min(from_->x, pointer_->x), std::min(from_->y, pointer_->y), std::max(from_->x, pointer_->x),
                           std::max(from_->y, pointer_->y)};
            d.rect(box, {}, Stroke{palette::white, 3.5, {}});
            d.rect(box, {}, Stroke{palette::brick, 1.8, {}});
        }
    } else if (drawn_ == Drawn::nothing && pointer_) {
        draw_loupes(d, all);
    }
}

/// The same place of the file in every tile, twice as large as it is printed, or three times as large as it is shown where that is more.
void ArtView::draw_loupes(Drawing& d, const std::vector<Tile>& all) const {
    std::optional<Point> at;
    for (const Tile& t : all) {
        const Point p = inverse(t.on_widget)(*pointer_);
        if (p.x >= 0 && p.y >= 0 && p.x <= t.width && p.y <= t.height) at = inverse(t.from_file)(p);
    }
    if (!at) return;
    double printed = 0;  // pixels that an ink width takes
    for (const DecorationFit& fit : room_.plan().decorations)
        if (const Decoration* on = find_decoration(room_.order(), fit.decoration); on != nullptr && on->art == room_.selection().art)
            for (const SizeFit& size : fit.sizes) printed = std::max(printed, 2 * size.width * screen_mm);
    const Tile& last = all.back();
    const double shown = 3 * last.on_widget.a;
    const double k = std::max(shown, printed / last.facts->ink_px.width());
    for (const Tile& t : all) {
        const Point q = t.from_file(*at), middle = t.on_widget(q);
        // one pixel of the last tile's canvas is so many of this one's
        const double own = k * std::sqrt(std::abs(last.from_file.determinant() / t.from_file.determinant()));
        const Ring glass = disc(middle, loupe, 72);
        d.fill({disc(middle, loupe + 2.5, 72)}, palette::quiet);
        d.fill({glass}, cloth_.value_or(palette::white));
        d.clip({{glass, {}}});
        d.marks.emplace_back(ArtMark{
            t.id, Affine::shift(middle.x, middle.y).after(Affine::scale(own, own)).after(Affine::shift(-q.x, -q.y)).after(t.art_place), 1});
        d.unclip();
    }
    if (printed > 0 && k > shown)
        d.text({d.width / 2, 16}, spoken("in the glass: twice as large as its largest print"), 11.5, palette::quiet, Align::centre);
}

void ArtView::mouseMoveEvent(QMouseEvent* event) {
    if (!mending_) return Canvas::mouseMoveEvent(event);
    pointer_ = to_point(event->position());
    refresh();
}

void ArtView::leaveEvent(QEvent* event) {
    if (mending_ && !from_) {
        pointer_.reset();
        refresh();
    }
    Canvas::leaveEvent(event);
}

void ArtView::mouseReleaseEvent(QMouseEvent* event) {
    if (drawn_ == Drawn::nothing || !from_) return Canvas::mouseReleaseEvent(event);
    const auto all = tiles(width(), height());
    const Point a = *from_, b = to_point(event->position());
    from_.reset();
    refresh();
    if (all.empty() || norm(b - a) < 8) return;  // a click draws nothing
    if (drawn_ == Drawn::line) {
        double degrees = std::atan2(b.y - a.y, b.x - a.x) * 180 / M_PI;
        degrees -= 90 * std::round(degrees / 90);
        if (levelled) levelled(-degrees);
        return;
    }
    const Tile& t = all.front();
    const Point p = inverse(t.on_widget)(a), q = inverse(t.on_widget)(b);
    const auto share = [](double v, double of) { return std::clamp(std::round(v / of * 10000) / 10000, 0.0, 1.0); };
    const Rect box{share(std::min(p.x, q.x), t.width), share(std::min(p.y, q.y), t.height), share(std::max(p.x, q.x), t.width),
                   share(std::max(p.y, q.y), t.height)};
    if (box.width() >= least_kept && box.height() >= least_kept && kept) kept(box);
}

}  // namespace orthema::app
