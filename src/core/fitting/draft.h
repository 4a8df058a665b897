// A draft: one decoration on its blanks before its widths are chosen. Ideal and limit on every size, and the point it grows about.
#pragma once

#include <map>
#include <tuple>

#include "core/fitting/fit.h"

namespace orthema {

/// Where the ink's fixed point lies.
struct Place {
    Point anchor;
    double point = 0;  ///< share of the ink's height
};

struct Draft {
    const Order* order = nullptr;
    const Decoration* decoration = nullptr;
    const BlankStyle* style = nullptr;
    const ArtFacts* facts = nullptr;
    std::vector<const DecorationFit*> ahead;  ///< fits of the designs that it keeps clear of
    double centre_x = 0.5;                    ///< the point of the ink that is put on the anchor, in ink widths
    double base_measure = 0, base_length = 0;
    StarHull hull;
    double other_limit = 3000;  ///< of platen, medium and resolution, mm
    Bound other_by;
    std::vector<Place> places;      ///< for each size
    std::vector<ClearLimit> clear;  ///< for each size
    DecorationFit fit;              ///< sizes with ideal and limit, no widths yet
};

/// What one pass of fitting made for one design and the next can take over: lots of one style differ in their colour alone.
struct DraftsSoFar {
    struct Hull {
        StarHull star;
        Ring ring, push;
    };
    std::map<std::pair<std::string, Location>, std::vector<std::shared_ptr<const GroundRun>>> grounds;  ///< by style
    std::map<std::tuple<const ArtFacts*, double, double>, Hull> hulls;                                  ///< by what stays put
};

/// Nothing where the blank, the art, the garments or the location are not there. `same_style`: the known ground was made of the
/// style as it is now. What is pointed to must outlive the draft.
std::optional<Draft> draft_of(const Order& order, const Decoration& decoration, const ArtFacts& facts,
                              std::vector<const DecorationFit*> ahead, std::shared_ptr<const GroundRun> known, bool same_style,
                              DraftsSoFar& so_far);

/// The widths of a design that covers its blank: the least at which the ink reaches past all edges by the bleed, middle on middle;
/// on a full wrap as wide as the wall, and nothing of it rounded.
void cover_blank(Draft& draft);

/// The fit, once the widths are there: place, hand measurements, platen and findings.
DecorationFit finished(Draft draft);

}  // namespace orthema
