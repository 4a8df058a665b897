// Fitting: Order -> FitPlan, the width and place of every decoration on every ordered size, what binds each, and the
// hand measurements that put it there.
#pragma once

#include <array>
#include <map>
#include <string>
#include <vector>

#include "core/artwork/art_facts.h"
#include "core/fitting/bands.h"
#include "core/order/order.h"

namespace orthema {

using ArtFactsById = std::map<std::string, ArtFacts>;  ///< by art id

struct SizeFit {
    std::string size;
    int quantity = 0;
    double ideal = 0;  ///< mm, all
    double limit = 0;
    std::string limit_by;  ///< what sets the limit: "side seam", "platen", "medium" …
    double width = 0, height = 0;
    std::string limited_by;    ///< what sets the width: "ideal", a limit, "band (S)", "smallest (S)", "pinned by hand"
    int band = -1;             ///< index into DecorationFit::bands; -1 when pinned to a width of its own
    bool pinned = false;       ///< width or place set by hand for this size only
    Rect ink;                  ///< the ink box on the garment
    double collar_to_ink = 0;  ///< collar seam down to the top of ink
    double ink_to_pit = 0;     ///< top of ink above the pit line; negative when below
    double left_margin = 0;    ///< ink's edge on the viewer's left to the body's edge there
    double right_margin = 0;
    double ink_to_hem = 0;                ///< bottom of ink to the hem
    double ink_to_pouch = 0;              ///< bottom of ink to the pouch's top seam; 0 where there is no pouch
    std::array<double, 3> school_tops{};  ///< top of ink that each placing school's usual figure would give
};

struct BandFit {
    int first = 0, last = 0;  ///< indices into DecorationFit::sizes, both inclusive
    double width = 0;
    std::string set_by;  ///< the member whose cap sets the width
    int quantity = 0;
};

struct DecorationFit {
    std::string decoration;
    double aspect = 1;           ///< ink height / ink width
    std::vector<SizeFit> sizes;  ///< smallest first
    std::vector<BandFit> bands;
    std::vector<double> cost_by_count;  ///< of the optimal partition into 1, 2 … bands
    Findings findings;                  ///< of this decoration on its garments
};

struct FitPlan {
    std::vector<DecorationFit> decorations;
    Findings findings;
};

/// Fits every decoration whose art, blank and garments are there; those that lack one are left out (order_findings
/// says why). Pure: same input, same output.
/// Method: ideal = base width × (measure / base measure)^exponent; limit by bisection on the garment's own outline,
/// the platen and the medium; bands by exact dynamic programming.
FitPlan fit(const Order& order, const ArtFactsById& facts);

/// The same answer, taking over from the plan of an earlier order what nothing that changed can have touched. The facts
/// must be those that the earlier plan was made with.
FitPlan refit(const Order& order, const ArtFactsById& facts, const Order& before, const FitPlan& then);

/// The same for one decoration only; nothing when something it needs is missing.
std::optional<DecorationFit> fit_decoration(const Order& order, const Decoration& decoration, const ArtFacts& facts);

/// The garment that a decoration lies on, for one size.
Garment garment_for(const BlankStyle& style, const std::string& size, Location location);

const DecorationFit* find_fit(const FitPlan& plan, const std::string& decoration);
const SizeFit* find_size(const DecorationFit& fit, const std::string& size);

const char* placing_school_name(PlacingSchool school);  ///< "collar drop", "pit line", "body share"
const char* sizing_school_name(SizingSchool school);    ///< "one size", "bands", "graded"

}  // namespace orthema
