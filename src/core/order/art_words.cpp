#include "core/order/art_words.h"

#include <cmath>

#include "core/order/roster.h"

namespace orthema {

namespace {

/// Words with figures among them.
struct Telling {
    const Order& order;
    std::string all = {};
    void figure(double v) { all += " " + std::to_string(std::lround(v * 10000)); }
    void figures(std::initializer_list<double> list) {
        for (const double v : list) figure(v);
    }
    void colour(const Colour& c) { figures({c.r, c.g, c.b}); }
    /// The picture as it comes: its file, mended, and who is marked in it.
    void picture(const std::string& id) {
        const Art* a = id.empty() ? nullptr : find_art(order, id);
        if (a == nullptr) return;
        all += " " + a->hash.substr(0, 16) + mending_words(a->mendings);
        for (const Point& p : a->subject) figures({p.x, p.y});
    }
    /// The picture as it is drawn: clipped, set in words, or composed itself.
    void drawn(const std::string& id) {
        picture(id);
        const Art* a = id.empty() ? nullptr : find_art(order, id);
        if (a == nullptr) return;
        if (a->clip) all += " " + clip_words(*a->clip);
        if (a->lettering)
            for (const std::string& word : words_of(order, *a)) all += " " + set_words(*a->lettering, word);
        if (!a->together) all += composed_words(order, *a);
    }
};

void tell(Telling& t, const WordPicture& w) {
    t.all += w.word;
    const auto part = [&](const PlacePart& p) {
        t.picture(p.picture);
        if (p.at) t.figures({p.at->width, p.at->middle.x, p.at->middle.y, p.at->degrees});
    };
    t.figures({w.apart, w.rim});
    for (const WordPlace& p : w.places) {
        t.all += std::string(", ") + place_key(p.shape);
        if (p.shape == PlaceShape::outline) t.picture(p.outline);
        part(p.first);
        if (!p.shared) continue;
        t.figures({p.line.through.x, p.line.through.y, p.line.degrees});
        part(p.second);
    }
}

void tell(Telling& t, const PutTogether& p) {
    t.all += "together " + p.size + " " + face_key(p.face);
    if (const BlankStyle* style = find_style(t.order, p.style); face_there(p, style)) {
        const Rect box = face_box(p, *style);
        t.figures({box.width(), box.height(), area(ground_shape(p, *style))});
    }
    t.figure(p.bleed.mm());
    if (p.plain) t.colour(*p.plain);
    t.drawn(p.ground);
    for (const LaidOver& o : p.over) {
        t.all += ", over";
        t.drawn(o.picture);
        t.figures({o.width.mm(), double(o.level), double(o.upright), o.across.mm(), o.down.mm(), o.degrees});
        if (!o.see_through) continue;
        t.figures({o.tint, o.edge.mm()});
        t.colour(o.edge_colour);
    }
}

}  // namespace

std::string clip_words(const ArtClip& c) {
    return "clip " + c.word + (c.bold ? " bold " : " ") + c.style + " " + c.size + " " + std::to_string(static_cast<int>(c.face)) + " " +
           std::to_string(std::lround(c.bleed.mm() * 10));
}

std::string composed_words(const Order& order, const Art& art) {
    Telling t{order};
    if (art.word_picture) tell(t, *art.word_picture);
    if (art.together) tell(t, *art.together);
    return t.all;
}

}  // namespace orthema
