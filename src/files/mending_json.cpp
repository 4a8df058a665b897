#include "files/mending_json.h"

namespace orthema {

json to_json(const Mending& m) {
    const Mending usual;
    json e{{"kind", mend_key(m.kind)}};
    if (m.degrees != usual.degrees) e["degrees"] = m.degrees;
    if (m.keep != usual.keep) e["keep"] = {m.keep.x0, m.keep.y0, m.keep.x1, m.keep.y1};
    if (m.tolerance != usual.tolerance) e["tolerance"] = m.tolerance;
    if (m.counters != usual.counters) e["counters"] = m.counters;
    if (m.least != usual.least) e["least_mm"] = m.least.mm();
    if (m.at != usual.at) e["at_mm"] = m.at.mm();
    if (m.threshold != usual.threshold) e["threshold"] = m.threshold;
    if (m.dpi != usual.dpi) e["dpi"] = m.dpi;
    if (m.apart != usual.apart) e["apart_mm"] = m.apart.mm();
    return e;
}

std::vector<Mending> read_mendings(const In& list) {
    std::vector<Mending> out;
    list.each(mend_kinds, [&](const In& in) {
        Mending m;
        m.kind = in["kind"].one_of<MendKind>(mend_kinds, mend_key);
        const auto number = [&](const char* key, double& to, double low, double high) {
            if (in.has(key)) to = in[key].number(low, high);
        };
        const auto length = [&](const char* key, Length& to, double low, double high) {
            if (in.has(key)) to = Length::from_mm(in[key].number(low, high));
        };
        number("degrees", m.degrees, -most_straightened, most_straightened);
        if (in.has("keep")) {
            std::vector<double> xy;
            in["keep"].each(4, [&](const In& e) { xy.push_back(e.number(0, 1)); });
            if (xy.size() != 4 || xy[2] - xy[0] < least_kept || xy[3] - xy[1] < least_kept) in["keep"].fail("is no part of the picture");
            m.keep = {xy[0], xy[1], xy[2], xy[3]};
        }
        number("tolerance", m.tolerance, 0, most_tolerance);
        if (in.has("counters")) m.counters = in["counters"].flag();
        length("least_mm", m.least, 0.05, most_held);
        length("at_mm", m.at, 1, 5000);
        number("threshold", m.threshold, 0.02, 0.98);
        number("dpi", m.dpi, least_dots_dpi, most_dots_dpi);
        length("apart_mm", m.apart, 0.2, most_held);
        out = with_mending(std::move(out), m);
    });
    return out;
}

}  // namespace orthema
