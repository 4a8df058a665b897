#include "files/lettering_json.h"

namespace orthema {

namespace {
constexpr std::size_t most_rims = 8;
constexpr std::size_t most_pattern = 200;  ///< bytes of the pattern that words are made by
}  // namespace

json to_json(const Lettering& l) {
    json e{{"words", l.words}, {"typeface", l.typeface}, {"height", l.height},   {"spacing", l.spacing}, {"least_gap", l.least_gap},
           {"arch", l.arch},   {"capitals", l.capitals}, {"squeeze", l.squeeze}, {"digits", l.digits},   {"colour", colour_text(l.colour)}};
    if (!l.narrow.empty()) e["narrow"] = {{"hash", l.narrow}, {"typeface", l.narrow_name}};
    for (const LetterRim& r : l.rims) e["rims"].push_back({{"colour", colour_text(r.colour)}, {"width", r.width}});
    return e;
}

Lettering read_lettering(const In& in) {
    Lettering l;
    l.words = in["words"].text();
    if (l.words.size() > most_pattern) in["words"].fail("is too long");
    l.typeface = in["typeface"].text();
    l.height = in["height"].number(least_letters, most_letters);
    l.spacing = in["spacing"].number(-0.5, 2);
    l.least_gap = in["least_gap"].number(0, 1);
    l.arch = in["arch"].number(-180, 180);
    l.capitals = in["capitals"].flag();
    l.squeeze = in["squeeze"].flag();
    l.digits = in["digits"].flag();
    l.colour = read_colour(in["colour"]);
    if (in.has("narrow")) {
        l.narrow = in["narrow"]["hash"].hash();
        l.narrow_name = in["narrow"]["typeface"].text();
    }
    if (in.has("rims"))
        in["rims"].each(most_rims, [&](const In& r) { l.rims.push_back({read_colour(r["colour"]), r["width"].number(0, 1)}); });
    return l;
}

}  // namespace orthema
