#include "files/word_json.h"

namespace orthema {

namespace {

json to_json(const PlacePart& part) {
    json e = json::object();
    if (!part.picture.empty()) e["picture"] = part.picture;
    if (part.at) e["at"] = {{"width", part.at->width}, {"x", part.at->middle.x}, {"y", part.at->middle.y}, {"degrees", part.at->degrees}};
    return e;
}

PlacePart read_part(const In& in) {
    PlacePart part;
    if (in.has("picture")) part.picture = in["picture"].text();
    if (in.has("at")) {
        const In at = in["at"];
        part.at = PictureAt{
            at["width"].number(0.01, 1000), {at["x"].number(-1000, 1000), at["y"].number(-1000, 1000)}, at["degrees"].number(-360, 360)};
    }
    return part;
}

}  // namespace

json to_json(const WordPicture& w) {
    json e{{"word", w.word}, {"typeface", w.typeface}, {"apart", w.apart}, {"rim", w.rim}, {"places", json::array()}};
    for (const WordPlace& p : w.places) {
        json place{{"shape", place_key(p.shape)}, {"first", to_json(p.first)}};
        if (!p.outline.empty()) place["outline"] = p.outline;
        if (p.shared || p.second != PlacePart{} || p.line != SharingLine{}) {
            place["shared"] = p.shared;
            place["second"] = to_json(p.second);
            place["line"] = {{"x", p.line.through.x}, {"y", p.line.through.y}, {"degrees", p.line.degrees}};
        }
        e["places"].push_back(place);
    }
    return e;
}

WordPicture read_word_picture(const In& in) {
    WordPicture w;
    w.word = in["word"].text();
    if (w.word.size() > 4 * most_places) in["word"].fail("is too long");
    w.typeface = in["typeface"].text();
    w.apart = in["apart"].number(0, most_apart);
    w.rim = in["rim"].number(0, most_rim);
    in["places"].each(most_places, [&](const In& e) {
        WordPlace p;
        p.shape = e["shape"].one_of<PlaceShape>(place_shapes, place_key);
        p.first = read_part(e["first"]);
        if (e.has("outline")) p.outline = e["outline"].text();
        if (e.has("shared")) p.shared = e["shared"].flag();
        if (e.has("second")) p.second = read_part(e["second"]);
        if (e.has("line")) p.line = {{e["line"]["x"].number(-1, 2), e["line"]["y"].number(-1, 2)}, e["line"]["degrees"].number(-360, 360)};
        w.places.push_back(p);
    });
    return w;
}

}  // namespace orthema
