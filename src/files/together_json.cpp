#include "files/together_json.h"

#include "core/blanks/style.h"

namespace orthema {

json to_json(const PutTogether& p) {
    json e{{"blank", p.style},         {"size", p.size},           {"face", face_key(p.face)},
           {"bleed_mm", p.bleed.mm()}, {"clear_mm", p.clear.mm()}, {"over", json::array()}};
    if (!p.ground.empty()) e["ground"] = p.ground;
    if (p.plain) e["plain"] = colour_text(*p.plain);
    for (const LaidOver& o : p.over) {
        json over{{"picture", o.picture},       {"width_mm", o.width.mm()}, {"level", from_key(o.level)}, {"upright", from_key(o.upright)},
                  {"across_mm", o.across.mm()}, {"down_mm", o.down.mm()},   {"degrees", o.degrees}};
        const LaidOver usual;
        if (o.see_through || o.tint != usual.tint || o.edge != usual.edge || o.edge_colour != usual.edge_colour)
            over["see_through"] = {
                {"on", o.see_through}, {"tint", o.tint}, {"edge_mm", o.edge.mm()}, {"edge_colour", colour_text(o.edge_colour)}};
        e["over"].push_back(over);
    }
    return e;
}

PutTogether read_together(const In& in) {
    PutTogether p;
    p.style = in["blank"].text();
    p.size = in["size"].text();
    p.face = in["face"].one_of<Face>(face_count, face_key);
    p.bleed = in["bleed_mm"].length();
    p.clear = in["clear_mm"].length(0);
    if (in.has("ground")) p.ground = in["ground"].text();
    if (in.has("plain")) p.plain = read_colour(in["plain"]);
    in["over"].each(most_over, [&](const In& e) {
        LaidOver o;
        o.picture = e["picture"].text();
        o.width = e["width_mm"].length(1);
        o.level = e["level"].one_of<From>(3, from_key);
        o.upright = e["upright"].one_of<From>(3, from_key);
        o.across = e["across_mm"].length();
        o.down = e["down_mm"].length();
        o.degrees = e["degrees"].number(-360, 360);
        if (e.has("see_through")) {
            const In s = e["see_through"];
            o.see_through = s["on"].flag();
            o.tint = s["tint"].number(0, 1);
            o.edge = s["edge_mm"].length(0);
            o.edge_colour = read_colour(s["edge_colour"]);
        }
        p.over.push_back(o);
    });
    return p;
}

}  // namespace orthema
