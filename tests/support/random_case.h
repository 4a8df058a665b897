// Random orders with what is known of their pictures.
#pragma once

#include <random>

#include "core/pipeline/work.h"
#include "support/support.h"

namespace orthema::test {

inline ArtFacts square_facts(double aspect) {
    ArtFacts f = test::plain_facts(aspect);
    f.optical_centre = {0.45, aspect / 2};
    f.inks = {{{1, 1, 1, 1}, 1}};
    return f;
}

struct Case {
    Order order;
    Shared<KnownArt> art;
};

/// An order of some designs on some of the library's blanks, laid out, with every kind of list filled.
inline Case random_case(unsigned seed) {
    std::mt19937 random(seed);
    const auto pick = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
    Case c;
    Order& o = c.order;
    o = test::small_order();
    o.decorations.clear();
    o.lines.clear();
    o.due = "2027-06-12";
    KnownArt art;
    for (const char* id : {"one", "two"}) {
        Art a = test::small_order().art[0];
        a.id = a.name = id;
        a.marks = {{"gap", {0.5, 0.2}}};
        if (id == std::string("one")) o.art.clear();
        const std::size_t shape = pick(9);
        a.hash = std::string(63, '0') + std::to_string(shape);  // one file, one shape
        o.art.push_back(a);
        art.facts[id] = square_facts(0.4 + 0.1 * static_cast<double>(shape));
    }
    c.art = std::make_shared<const KnownArt>(std::move(art));
    for (int k = 0; k < 2; ++k) {
        const BlankStyle style = o.styles.all()[pick(o.styles.size())];
        const RunKey run{style.id, style.colours.empty() ? "" : style.colours[pick(style.colours.size())].name};
        for (const std::string& size : style.sizes)
            if (random() % 2 == 0) o.lines.push_back({run.style, run.colour, size, 1 + static_cast<int>(pick(4)), "note"});
        const auto locations = locations_of(style);
        if (counts_of(o, run).empty() || locations.empty()) continue;
        Decoration d = new_decoration(o, run, locations[pick(locations.size())], o.art[pick(2)]);
        d.pins = {{counts_of(o, run).front().size, std::nullopt, Length::from_mm(3), std::nullopt}};
        d.meetings = {{"gap", "centre line"}};
        d.spares = 1;
        o.decorations.push_back(d);
    }
    o.press_run.breaks = {{12 * 60, 12 * 60 + 30}};
    if (!o.decorations.empty()) {
        o.reprints = {{o.decorations[0].id, counts_of(o, o.decorations[0].run).front().size, 1, "scorched"}};
        o.guide_setup.printed = {{o.decorations[0].id, counts_of(o, o.decorations[0].run).front().size, "AAAAAA"}};
    }
    return c;
}

}  // namespace orthema::test
