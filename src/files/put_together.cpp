#include "files/put_together.h"

#include <cmath>

#include "core/order/roster.h"
#include "files/reader_process.h"

namespace orthema {

namespace {

constexpr double most_side = 9000, most_area = 60e6;  ///< pixels of the whole
constexpr double firm = 300 / 25.4;                   ///< pixels to the mm for edges and what is drawn
constexpr double rim = 2;

/// The art as it is drawn, whatever it is made of.
Result<LoadedArtPtr> drawn(const Order& order, const std::string& id, const ArtBytes& bytes) {
    const Art* art = find_art(order, id);
    if (art == nullptr || art->together) return Error{"a picture of it is no longer there: choose another"};
    const auto pictures = pictures_of(order, *art, bytes);
    if (!pictures) return pictures.error();
    const auto own = pictures->find(drawn_id(order, id));
    if (own == pictures->end() || own->second->facts.empty()) return Error{"“" + art->name + "” has no ink"};
    return own->second;
}

}  // namespace

Result<LoadedArtPtr> together_art(const Order& order, const Art& art, const ArtBytes& bytes) {
    const PutTogether& print = *art.together;
    const auto failed = [&](const std::string& why) { return Error{art.name + ": " + why + "."}; };
    const BlankStyle* style = find_style(order, print.style);
    if (!face_there(print, style)) return failed("the blank that it is made for is no longer there: choose another");
    const Region shape = ground_shape(print, *style);
    const Rect face = face_box(print, *style), box = bounds(shape);
    if (box.width() < 1 || box.height() < 1) return failed("its blank has no face to print on");

    LoadedArtById pictures;
    const auto fetch = [&](const std::string& id) -> std::optional<std::string> {
        if (pictures.contains(id)) return std::nullopt;
        auto picture = drawn(order, id, bytes);
        if (!picture) return picture.sentence();
        pictures[id] = *picture;
        return std::nullopt;
    };
    std::optional<ClipFit> ground;
    double sharpest = print.over.empty() && !print.plain ? 0 : firm, coarsest = 1e30;
    const auto sharp = [&](const ArtFacts& f, double width_mm) {
        const double own = f.vector ? firm : f.ink_px.width() / width_mm;
        sharpest = std::max(sharpest, own);
        if (!f.vector) coarsest = std::min(coarsest, own / softness(f));
    };
    bool whole = true;
    if (!print.ground.empty()) {
        if (const auto why = fetch(print.ground)) return failed(*why);
        const ArtFacts& f = pictures[print.ground]->facts;
        const std::vector<Point>& subject = find_art(order, print.ground)->subject;
        auto fit = clip_fit(shape, f.aspect, subject, 0, true);
        if (!fit) {  // who is marked cannot all be inside: it covers all the same, and that is said
            whole = false;
            fit = clip_fit(shape, f.aspect, {});
        }
        if (!fit) return failed(fit.sentence());
        ground = *fit;
        sharp(f, fit->scale);
    }
    for (const LaidOver& o : print.over) {
        if (const auto why = fetch(o.picture)) return failed(*why);
        sharp(pictures[o.picture]->facts, o.width.mm());
    }
    auto laid = std::make_shared<TogetherLaid>();
    const Panel panel = fitting_panel(*style, print.size, print.face);
    *laid = {shape, face, print.face == Face::wrap ? shape : panel.outline, {}, panel.seams, ground};
    laid->lines.insert(laid->lines.end(), panel.details.begin(), panel.details.end());
    for (const Feature& f : panel.features)
        if (f.kind == Feature::Kind::raised) laid->raised = unite(laid->raised, f.place);
    if (print.ground.empty() && !print.plain && print.over.empty()) {  // a face alone: an outline of nothing would be no picture
        auto empty = std::make_shared<LoadedArt>();
        empty->together = laid;
        return LoadedArtPtr(empty);
    }

    const double k =
        std::min({sharpest, most_side / std::max(box.width(), box.height()), std::sqrt(most_area / (box.width() * box.height()))});
    const Affine to = Affine::shift(rim, rim).after(Affine::scale(k, k)).after(Affine::shift(-box.x0, -box.y0));
    const Region on = mapped(shape, to);
    std::vector<Filling> fillings;
    const auto lay_plain = [&](Region where, const Colour& colour) {
        Filling f;
        f.clip.shape = std::move(where);
        f.plain = colour;
        fillings.push_back(std::move(f));
    };
    if (print.plain) lay_plain(on, *print.plain);
    if (ground) {
        Filling f;
        f.picture = print.ground;
        f.clip.shape = on;
        f.clip.unit = ground->scale * k;
        f.clip.at = to(ground->at);
        f.clip.whole_ink = pictures[print.ground]->facts.ink_px;
        fillings.push_back(std::move(f));
    }
    for (const LaidOver& o : print.over) {
        const ArtFacts& facts = pictures[o.picture]->facts;
        const Affine place = to.after(place_over(o, facts.aspect, face));
        Filling f;
        f.picture = o.picture;
        f.clip.shape = on;
        f.clip.unit = o.width.mm() * k;
        const Point middle = place({0.5, facts.aspect / 2});
        f.clip.at = middle - Point{f.clip.unit / 2, f.clip.unit * facts.aspect / 2};
        f.clip.degrees = o.degrees;
        f.clip.whole_ink = facts.ink_px;
        if (o.see_through) f.opacity = o.tint;
        if (f.opacity > 0) fillings.push_back(std::move(f));
        if (!o.see_through || o.edge.mm() <= 0) continue;
        const Region letters = mapped(facts.outline, place);
        lay_plain(intersect(subtract(letters, offset(letters, -o.edge.mm() * k, 0.2)), on), o.edge_colour);
    }
    auto out = read_composed(pictures, fillings, static_cast<int>(std::ceil(box.width() * k + 2 * rim)),
                             static_cast<int>(std::ceil(box.height() * k + 2 * rim)), art.name);
    if (!out) return out.error();
    if ((*out)->facts.empty()) return failed("nothing of it lies on the blank");
    auto own = std::const_pointer_cast<LoadedArt>(*out);
    own->together = laid;
    own->facts.flat_background = false;  // a plain ground is meant
    if (coarsest < k) own->facts.sharpness = coarsest / k;
    if (!whole) own->facts.cut_off.push_back(find_art(order, print.ground)->name);
    return LoadedArtPtr(own);
}

std::string enrol_together(Order& order, const PutTogether& print, const std::string& name) {
    Art art;
    art.name = name;
    art.id = fresh_id(name, order.art);
    art.together = print;
    order.art.push_back(art);
    return art.id;
}

}  // namespace orthema
