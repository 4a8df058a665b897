// Fitting: Order -> FitPlan, the width and place of every decoration on every ordered size, what binds each, how the
// platen lies under it, and the hand measurements that put it there.
#pragma once

#include <array>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/artwork/art_facts.h"
#include "core/fitting/bands.h"
#include "core/fitting/clear_area.h"
#include "core/fitting/platen.h"
#include "core/order/order.h"

namespace orthema {

using ArtFactsById = std::map<std::string, ArtFacts>;  ///< by art id

/// What a decoration lies on, for one size: it changes with the blank, not with the design.
struct Ground {
    std::string size;
    Panel panel;
    ClearArea area;
    std::vector<RaisedBox> raised;
};

/// The grounds of a run at one location. Kept from fit to fit: making them is the dear part.
struct GroundRun {
    BlankStyle style;
    Location location = Location::full_front;
    std::vector<Ground> sizes;
};

/// What holds a width to what it is.
enum class Binding { nothing, ideal, pinned, covering, obstacle, platen, medium, cutter, resolution, band, smallest, shared };
struct Bound {
    Binding what = Binding::nothing;
    std::string name = {};  ///< of the obstacle; of the size, and its blank where that is another, that sets the band
    bool operator==(const Bound&) const = default;
};
Words binding_words(const Bound& bound);
std::string binding_text(const Bound& bound, const Reading& reading = {});

/// A number that is put together at the press: where the ink of each digit begins, mm from the field's middle to the viewer's right.
struct Joining {
    std::string number;
    std::vector<double> lefts;
    Rect ink = {};  ///< of the whole number, on the panel
};

struct SizeFit {
    std::string size;
    int quantity = 0;
    double ideal = 0;  ///< mm, all
    double limit = 0;
    Bound limit_by;  ///< what sets the limit
    double width = 0, height = 0;
    Bound limited_by;                  ///< what sets the width
    int band = -1;                     ///< index into DecorationFit::bands; -1 when pinned to a width of its own
    bool pinned = false;               ///< width or place set by hand for this size only
    Rect ink;                          ///< the ink box on the panel
    double growth = 1;                 ///< factor by which the rule's offset has grown here
    double length = 0;                 ///< of the panel
    bool hangs_above = false;          ///< the rule holds it up from below: a larger offset moves it up
    double top_to_ink = 0;             ///< collar seam (or what the panel has at its top) down to the top of ink
    std::optional<double> ink_to_pit;  ///< top of ink above the pit line; negative when below
    double left_margin = 0;            ///< ink's edge on the viewer's left to the panel's edge there
    double right_margin = 0;
    double ink_to_bottom = 0;            ///< bottom of ink to the hem
    std::string below;                   ///< the landmark under the ink that ink hangs above: a pouch seam, a snap line; or empty
    double ink_to_below = 0;             ///< bottom of ink to it
    std::string word = {};               ///< of a lettering: picture of the word that is shown, the widest of this size
    std::vector<Joining> joinings = {};  ///< of a lettering of single digits
    Rect word_ink;                       ///< where it lies within `ink`
    double balance = 0;                  ///< the optical centre's distance from the ink box's middle, to the viewer's right
    PlatenFit platen;
    std::array<std::optional<double>, placing_school_count> school_tops;  ///< top of ink by each school's usual figure
};

struct BandFit {
    int first = 0, last = 0;  ///< indices into DecorationFit::sizes, both inclusive
    double width = 0;
    std::string set_by;        ///< the size whose cap sets the width
    std::string set_by_blank;  ///< name of that size's blank where several are cut together
    int quantity = 0;
    bool shared = false;  ///< printed at another blank's width
};

/// How widths were chosen over all lots that follow a rule within one class.
struct WidthReport {
    int lots = 0, blanks = 0;
    int widths = 0, widths_apart = 0;  ///< distinct ones, as cut and with each blank cut by itself
    double cost = 0, cost_apart = 0;   ///< Σ quantity × ((ideal − width) / ideal)²
    bool together = false;             ///< blanks share bands
};

struct DecorationFit {
    std::string decoration;
    double aspect = 1;           ///< ink height / ink width
    std::vector<SizeFit> sizes;  ///< smallest first
    std::vector<BandFit> bands;
    WidthReport cut;
    std::vector<BandMember> cut_from;         ///< what the bands were cut from, in that order
    Findings findings;                        ///< of this decoration on its blanks
    std::shared_ptr<const GroundRun> ground;  ///< one for each of `sizes`
    Ring hull;                                ///< convex hull of the art, in ink widths
    Ring hull_push;                           ///< for each point of it two: where they go, times mm, when it is grown
};

struct FitPlan {
    std::vector<DecorationFit> decorations;
    Findings findings;
};

/// Fits every decoration whose art, blank and garments are there; those that lack one are left out (order_findings
/// says why). Pure: same input, same output. Of several designs on one panel each keeps clear of those before it; followers of
/// one rule count from where the first of them stands.
/// Method: ideal = base width × (measure / base measure)^exponent; limit by the true shape of the design against the
/// panel's own edges and features, the platen, the medium and the resolution floor; bands by exact dynamic programming.
FitPlan fit(const Order& order, const ArtFactsById& facts);

/// The same answer, taking over from the plan of an earlier order what nothing that changed can have touched. The facts
/// must be those that the earlier plan was made with.
FitPlan refit(const Order& order, const ArtFactsById& facts, const Order& before, const FitPlan& then);

/// The same for one decoration only; nothing when something it needs is missing. `ahead` are the fits of the designs
/// that it keeps clear of; `known` may hold the grounds of an earlier fit.
std::optional<DecorationFit> fit_decoration(const Order& order, const Decoration& decoration, const ArtFacts& facts,
                                            const std::vector<const DecorationFit*>& ahead = {},
                                            std::shared_ptr<const GroundRun> known = nullptr);

/// How far sizes fall short in the optimal partition into 1, 2 … bands (the least Σ quantity × relative shortfall²), as many
/// as are worth showing.
std::vector<Shortfall> shortfall_curve(const Decoration& decoration, const DecorationFit& fit);

/// Whether two decorations lie on the same panel of the same blank.
bool on_one_panel(const Decoration& a, const Decoration& b);

/// The panel that a decoration lies on, for one size.
Panel panel_for(const BlankStyle& style, const std::string& size, Location location);

const DecorationFit* find_fit(const FitPlan& plan, const std::string& decoration);
const SizeFit* find_size(const DecorationFit& fit, const std::string& size);
inline const SizeFit& size_at(const DecorationFit& fit, int i) { return fit.sizes[static_cast<std::size_t>(i)]; }
const Ground* find_ground(const DecorationFit& fit, const std::string& size);

/// Picture and place of what is shown of a decoration on a size: a word of a lettering, else the art itself.
inline const std::string& shown_art(const Decoration& decoration, const SizeFit& size) {
    return size.word.empty() ? decoration.art : size.word;
}
inline const Rect& shown_ink(const SizeFit& size) { return size.word.empty() ? size.ink : size.word_ink; }
/// The same size with another word of its lettering shown; as it is where there is no such picture.
SizeFit with_word(SizeFit size, const Decoration& decoration, const std::string& word, const ArtFactsById& facts);

/// A size as one person wears it: with the word of that line, where it is of this lot and size.
SizeFit dressed(const Order& order, const Decoration& decoration, SizeFit size, const OrderLine& line, const ArtFactsById& facts);
/// Lines of a lot that are somebody's, whose words are the widest first.
std::vector<int> hardest_to_fit(const Order& order, const RunKey& run, const ArtFactsById& facts);

/// Where a word of a lettering lies in its field; of a picture the whole of it. In the field's frame.
Rect word_box(const Rect& field, const ArtFacts& facts);

/// The art's outline where a fitted size has it, mm on the panel.
Region placed_outline(const Region& outline, const SizeFit& size);

const char* sizing_school_name(SizingSchool school);  ///< "one size", "bands", "graded"

}  // namespace orthema
