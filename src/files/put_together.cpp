#include "files/put_together.h"

#include "core/order/roster.h"
#include "files/composing.h"

namespace orthema {

namespace {

constexpr double firm = 300 / 25.4;  ///< pixels to the mm for edges and what is drawn

/// The art as it is drawn, whatever it is made of.
Result<LoadedArtPtr> drawn(const Order& order, const std::string& id, const ArtBytes& bytes) {
    const Art* art = find_art(order, id);
    if (art == nullptr || art->together) return Error{"a picture of it is no longer there: choose another"};
    const auto pictures = pictures_of(order, *art, bytes);
    if (!pictures) return pictures.error();
    const auto own = pictures->find(drawn_id(order, id));
    if (own == pictures->end() || own->second->facts.empty()) return Error{"“{name}” has no ink", {{"name", art->name}}};
    return own->second;
}

}  // namespace

Result<LoadedArtPtr> together_art(const Order& order, const Art& art, const ArtBytes& bytes) {
    const PutTogether& print = *art.together;
    const auto failed = [&](const Error& why) { return of_picture(art.name, why); };
    const BlankStyle* style = find_style(order, print.style);
    if (!face_there(print, style)) return failed("the blank that it is made for is no longer there: choose another");
    const Region shape = ground_shape(print, *style);
    const Rect face = face_box(print, *style), box = bounds(shape);
    if (box.width() < 1 || box.height() < 1) return failed("its blank has no face to print on");

    LoadedArtById pictures;
    const auto fetch = [&](const std::string& id) -> std::optional<Error> {
        if (pictures.contains(id)) return std::nullopt;
        auto picture = drawn(order, id, bytes);
        if (!picture) return picture.error();
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
        if (!fit) return failed(fit.error());
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

    const ComposingCanvas canvas = composing_canvas(box, sharpest);
    const Region on = mapped(shape, canvas.to);
    std::vector<Filling> fillings;
    const auto lay_plain = [&](Region where, const Colour& colour) {
        Filling f;
        f.clip.shape = std::move(where);
        f.plain = colour;
        fillings.push_back(std::move(f));
    };
    if (print.plain) lay_plain(on, *print.plain);
    if (ground) {
        const ArtFacts& facts = pictures[print.ground]->facts;
        const Point middle = ground->at + Point{0.5, facts.aspect / 2} * ground->scale;
        fillings.push_back(filling_of(canvas, print.ground, facts, on, ground->scale, middle, 0));
    }
    for (const LaidOver& o : print.over) {
        const ArtFacts& facts = pictures[o.picture]->facts;
        const Affine place = place_over(o, facts.aspect, face);
        Filling f = filling_of(canvas, o.picture, facts, on, o.width.mm(), place({0.5, facts.aspect / 2}), o.degrees);
        if (o.see_through) f.opacity = o.tint;
        if (f.opacity > 0) fillings.push_back(std::move(f));
        if (!o.see_through || o.edge.mm() <= 0) continue;
        const Region letters = mapped(facts.outline, canvas.to.after(place));
        lay_plain(intersect(subtract(letters, offset(letters, -o.edge.mm() * canvas.k, 0.2)), on), o.edge_colour);
    }
    const auto out = composed_art(canvas, pictures, fillings, coarsest, art.name);
    if (!out) return out.error();
    if ((*out)->facts.empty()) return failed("nothing of it lies on the blank");
    const auto& own = *out;
    own->together = laid;
    own->facts.flat_background = false;  // a plain ground is meant
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
