// Order: the whole document as one value. Everything that an artist decides is in here; everything else is computed
// from it. Holds copies of the blanks, media and presses that it uses, so that it reads the same on any machine.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/length.h"
#include "core/base/finding.h"
#include "core/base/shared.h"
#include "core/base/units.h"
#include "core/blanks/location.h"
#include "core/blanks/style.h"
#include "core/artwork/lettering.h"
#include "core/artwork/mending.h"
#include "core/artwork/put_together.h"
#include "core/artwork/word_picture.h"
#include "core/order/making.h"
#include "core/shop/correction.h"
#include "core/shop/jig.h"
#include "core/shop/medium.h"
#include "core/shop/method.h"
#include "core/shop/press.h"

namespace orthema {

struct OrderLine {
    std::string style;  ///< blank style id
    std::string colour;
    std::string size;  ///< size code of that style
    int quantity = 0;
    std::string note;      ///< whose it is
    std::string lot = {};  ///< lot id; empty: the usual one
    int first = 0;  ///< number of its first piece among all of that blank, colour and size (core/order/pieces.h); 0: not numbered yet
    std::string ref = {};     ///< the list's own order number: by it a newer list brings the line up to date
    std::string job = {};     ///< job id, in a gang of several; empty: of the order itself
    std::string name = {};    ///< that stands on it: the line is one person's
    std::string number = {};  ///< that stands on it
    bool operator==(const OrderLine&) const = default;
};

/// A lot that was parted from the usual one of its blank and colour, with designs of its own. Ids last as long as the order.
struct Lot {
    std::string id;
    std::string name;
    bool operator==(const Lot&) const = default;
};

/// The garments of one lot: a blank in one colour over its sizes, which one set of decorations goes on. Nearly always all of
/// that blank and colour; where they were parted, `lot` says which.
struct RunKey {
    std::string style;
    std::string colour;
    std::string lot = {};  ///< lot id; empty: the usual one
    std::string job = {};  ///< job id, in a gang of several
    auto operator<=>(const RunKey&) const = default;
};

enum class SizingSchool { one_size, bands, graded };

/// The band that begins at `first` is printed at this width, which must not be above its own.
struct SharedWidth {
    std::string first;
    Length width;
    bool operator==(const SharedWidth&) const = default;
};

/// A size that is short of its ideal by more than this looks small beside the others.
constexpr double usual_within = 0.15;

struct SizingRule {
    SizingSchool school = SizingSchool::bands;
    std::string base_size;
    Length base_width;
    Measure measure = Measure::chest;
    double exponent = 1;                   ///< 0 fixed … 1 fully proportional
    Length step = Length::from_mm(5);      ///< widths round down to this
    double within = 0;                     ///< bands: no size is short of its ideal by more than this share; 0: by price
    double price = 0.05;                   ///< of one more distinct transfer, in units of Σ quantity × (relative shortfall)²
    int band_count = 0;                    ///< so many bands; 0: as few as keep within, or by price
    std::vector<std::string> band_starts;  ///< by hand: the first size of every band but the smallest's
    std::vector<SharedWidth> shared;       ///< bands printed at a width that another blank has too
    bool past_platen = false;              ///< may be larger than the platen: pressed several times
    bool operator==(const SizingRule&) const = default;
};

enum class Centre { ink_box, optical, marked };

struct PlacingRule {
    PlacingSchool school = PlacingSchool::collar_drop;
    Length offset;         ///< at the base size: below the collar seam, above the pit line, or from the landmark
    double share = 0.46;   ///< body fraction: centre of ink at this share of the panel's length
    std::string landmark;  ///< that the feature school hangs from
    double growth = 0;     ///< of the offset with the panel's length, 0 fixed … 1 proportional
    Length across;         ///< of the ink's centre from the location's anchor, to the viewer's right
    Centre centre = Centre::ink_box;
    bool operator==(const PlacingRule&) const = default;
};

/// What the artist fixed by hand for one size only.
struct SizePin {
    std::string size;
    std::optional<Length> width;
    std::optional<Length> down;    ///< added to the rule's height, downwards
    std::optional<Length> across;  ///< added to the rule's place, to the viewer's right
    bool operator==(const SizePin&) const = default;
};

/// A mark in the design that must lie on a landmark of the panel: the gap between two letters on the centre line.
struct Meeting {
    std::string mark;      ///< a mark of the art, by name
    std::string landmark;  ///< of the panel
    bool operator==(const Meeting&) const = default;
};

/// Garments that share base figures: an age class; among goods without one, a family.
struct GarmentClass {
    AgeGroup group = AgeGroup::any;
    Family family = {};  ///< where there is no age class
    bool operator==(const GarmentClass&) const = default;
};

/// What a rule starts from on one class, at the base size of each of its blanks.
struct ClassBase {
    GarmentClass of;
    Length width;
    Length offset;
    double share = PlacingRule{}.share;
    Length across;
    bool operator==(const ClassBase&) const = default;
};

/// A base size that was chosen for a blank.
struct BlankBase {
    std::string style;
    std::string size;
    bool operator==(const BlankBase&) const = default;
};

/// One art at one location, sized and placed alike on every lot that carries it (core/order/rules.h).
struct DesignRule {
    std::string id;
    std::string name;
    std::string art;  ///< art id
    Location location = Location::full_front;
    SizingRule sizing;                  ///< base size and base width stand in what follows
    PlacingRule placing;                ///< offset, share and across stand in what follows
    std::vector<ClassBase> bases;       ///< for each class that it was put on
    std::vector<BlankBase> base_sizes;  ///< where not the usual one
    std::vector<Meeting> meetings;
    Length apart = Length::from_mm(15);
    bool operator==(const DesignRule&) const = default;
};

struct Decoration {
    std::string id;
    std::string name;
    std::string art;  ///< art id
    RunKey run;
    Location location = Location::full_front;
    std::string medium;
    std::string press;
    SizingRule sizing;
    PlacingRule placing;
    std::vector<SizePin> pins;
    std::vector<Meeting> meetings;
    Length apart = Length::from_mm(15);  ///< kept from the designs before it on the same panel
    int spares = 0;                      ///< for each distinct transfer
    Making making;
    std::string rule = {};  ///< id of the rule that its art, location, sizing and placing are of; empty: loose
    bool departs = false;   ///< has figures of its own for now; the rule is what it can come back to
    bool operator==(const Decoration&) const = default;
};

enum class ArtKind { png, jpeg, tiff, webp, heic, svg, pdf, ttf, otf };  ///< the last two: a typeface, of a lettering

struct NamedMark {
    std::string name;
    Point at;  ///< unit: the ink's width, from the ink box's top left
    bool operator==(const NamedMark&) const = default;
};

/// Art clipped to a shape: to the letters of a word, or to a blank's outline. The picture keeps its aspect.
struct ArtClip {
    std::string word;  ///< letters to fill, in the shipped font; empty: a blank's outline
    bool bold = true;
    std::string style, size;  ///< of the blank
    Face face = Face::front;
    Length bleed;  ///< past the blank's outline
    bool operator==(const ArtClip&) const = default;
};

struct Art {
    std::string id;
    std::string name;
    ArtKind kind = ArtKind::png;
    std::string hash;                              ///< SHA-256 of the file's bytes, hexadecimal
    std::optional<Point> marked_centre;            ///< unit: the ink's width, from the ink box's top left
    std::vector<NamedMark> marks;                  ///< that must meet landmarks of a panel
    std::optional<ArtClip> clip;                   ///< the file's picture within this shape
    std::vector<Point> subject;                    ///< marks that must stay inside the shape; unit: the whole picture's ink width
    std::optional<Lettering> lettering;            ///< words in a typeface, which is the file; no picture then
    std::optional<WordPicture> word_picture = {};  ///< a word of pictures; its file is the typeface
    std::optional<PutTogether> together = {};      ///< a print put together from other art; it has no file of its own
    std::vector<Mending> mendings = {};            ///< done to the file's picture before anything else, in the order of their kinds
    bool operator==(const Art&) const = default;
};

/// It shows a picture's file, clipped or not; else it is set from a typeface or made of other art.
inline bool is_picture(const Art& art) { return !art.lettering && !art.word_picture && !art.together; }

/// Where one copy of a transfer lies on a sheet, as the artist left or locked it. Strip frame: x along the feed,
/// y across, the piece turned about its own top left corner and then moved.
struct PlacedCopy {
    std::string transfer;
    int copy = 0;
    int sheet = 0;
    int turn = 0;  ///< degrees, quarter turns
    double x = 0, y = 0;
    bool locked = false;
    bool operator==(const PlacedCopy&) const = default;
};

/// A transfer of which more than was ordered may be printed where room is left, for the shelf.
struct FillWish {
    std::string transfer;
    double value = 1;  ///< of one, against the others
    int copies = 0;    ///< that the filling placed
    bool operator==(const FillWish&) const = default;
};

/// Copies of a transfer that are there: printed for this order and sound, or promised from the shelf. Not laid out again.
struct PrintedCopies {
    std::string transfer;
    int copies = 0;
    std::string job = {};  ///< whose, in a gang of several
    std::string bag = {};  ///< id of what lies on the shelf; empty: printed for this order
    bool operator==(const PrintedCopies&) const = default;
};

/// A layout with the stock that each of its sheets is of; "" or none: the medium's own size.
struct LaidSheets {
    std::vector<PlacedCopy> copies;
    std::vector<std::string> stock;
    bool operator==(const LaidSheets&) const = default;
};

struct MediumLayout {
    std::string medium;
    std::vector<PlacedCopy> copies;
    std::vector<std::string> stock = {};  ///< as in LaidSheets
    std::vector<FillWish> fill = {};
    std::vector<PrintedCopies> printed = {};
    std::optional<LaidSheets> kept = {};  ///< another layout, put beside to compare
    bool operator==(const MediumLayout&) const = default;
};

enum class Paper { a4, letter };

/// A time in which no hand works, minutes from midnight.
struct PressBreak {
    int from = 0, to = 0;
    bool operator==(const PressBreak&) const = default;
};

/// A load that the artist put at a time, or on a press, by hand.
struct LoadPin {
    std::string load;   ///< id of the load
    std::string press;  ///< id; empty: as planned
    double start = -1;  ///< seconds from the start of pressing; negative: as planned
    bool operator==(const LoadPin&) const = default;
};

/// Loads that follow one another, and the press they go to.
struct PlanTurn {
    std::string stage;  ///< "crew-kite/M/0": the design, its size and the visit
    std::string press;  ///< id; empty: the first that is free
    double ahead = 0;   ///< seconds of head start, in a woven plan
    bool operator==(const PlanTurn&) const = default;
};

/// Seconds by which a load that changes the press comes later in a woven plan.
struct PlanKeep {
    std::string press;
    double seconds = 0;
    bool operator==(const PlanKeep&) const = default;
};

/// A press plan that somebody agreed to: the turns that it was put by, and what it then came to.
struct AcceptedPlan {
    std::vector<PlanTurn> turns;  ///< none: the plan is the one that is found at once
    bool woven = false;           ///< turns with head starts; otherwise one after the other as they stand
    double fill = 0;              ///< woven: seconds of head start for each second by hand that fills a wait
    std::vector<PlanKeep> keep;
    std::string revision;
    bool operator==(const AcceptedPlan&) const = default;
};

/// How the order is to be pressed.
struct PressRun {
    int start = 8 * 60;  ///< minutes from midnight, on the due day
    int due = 17 * 60;   ///< when it must be done
    int hands = 1;
    bool share_presses = false;  ///< a press of the same kind may help where its platen takes the design
    bool trials = true;          ///< one piece first where a recipe was not tried
    bool fahrenheit = false;
    bool makes_film = false;  ///< film is printed, powdered and cured in the run, not before it
    std::vector<PressBreak> breaks;
    std::vector<LoadPin> pins;
    std::vector<std::string> order;  ///< decorations as they follow on one garment, where not as proposed
    AcceptedPlan accepted;
    bool operator==(const PressRun&) const = default;
};

/// A guide that was printed, and what it was made from.
struct PrintedGuide {
    std::string decoration, size, revision;
    bool operator==(const PrintedGuide&) const = default;
};

/// How guides are made for this shop's printer, and what was printed.
struct GuideSetup {
    Length measured = Length::from_mm(100);  ///< what a printed 100 mm measures: templates are corrected by it
    bool windows = false;                    ///< the ink's place is cut out of the template
    bool large_paper = false;                ///< A3, or legal and tabloid, for templates that then need fewer sheets
    bool label_codes = false;                ///< a square code on piece labels where there is room
    bool short_templates = false;            ///< from the collar to the ink's top alone: one sheet for most sizes
    std::vector<PrintedGuide> printed;
    bool operator==(const GuideSetup&) const = default;
};

/// What the customer agreed to: every design on every size as it was then, and what is ordered.
struct Approval {
    std::string by;                     ///< who, in words; empty: nobody yet
    std::string at;                     ///< ISO date
    std::vector<PrintedGuide> designs;  ///< as the customer saw them
    std::string lines;                  ///< revision of the list
    bool operator==(const Approval&) const = default;
};

/// From so many pieces on, so many per cent less.
struct QuantityStep {
    int from = 1;
    double off = 0;
    bool operator==(const QuantityStep&) const = default;
};

/// What a print at a place costs the customer.
struct LocationPrice {
    Location location = Location::full_front;
    double price = 0;
    bool operator==(const LocationPrice&) const = default;
};

/// How the price comes about: a margin on what a piece costs, or the shop's own steps.
struct Pricing {
    bool by_steps = false;
    double margin = 40;                 ///< per cent of the price
    std::vector<LocationPrice> prints;  ///< by steps; a place that is not named costs what its piece costs with the margin
    double on_blank = 30;               ///< by steps: per cent on what a blank costs
    std::vector<QuantityStep> steps;
    double set_up = 0;    ///< once for each design, shared by its pieces
    double tax = 0;       ///< per cent, said beside the price
    std::string promise;  ///< what the quote promises: "ready on Friday, collected"
    bool operator==(const Pricing&) const = default;
};

/// A row of the list that did not come in: a finding until it is mended or dismissed.
struct KeptOut {
    int row = 0;  ///< as a spreadsheet counts it
    std::string text, reason;
    bool operator==(const KeptOut&) const = default;
};

/// A small picture of what a blank or a pressed piece was measured from, kept with the order to be looked at again.
struct KeptPhoto {
    std::string style, size;
    std::string record;  ///< of the pressed piece; empty: a bare blank
    std::string date;    ///< ISO, when it was kept
    std::string hash;    ///< SHA-256 of its bytes, a JPEG
    bool operator==(const KeptPhoto&) const = default;
};

/// Transfers that were spoiled at the press: printed again with the next sheet.
struct Reprint {
    std::string decoration, size;
    int copies = 0;
    std::string cause;
    std::string word = {};  ///< of a lettering: whose
    bool operator==(const Reprint&) const = default;
};

struct Order;

/// Under which id a thing came into a gang, and under which it lies there; "": it stayed out, in what the job has for itself.
struct Brought {
    std::string was, is;
    bool operator==(const Brought&) const = default;
};

/// One of several orders that are made together: a gang's lines, lots and decorations say whose they are (core/order/gang.h).
struct Job {
    std::string id;  ///< of the order that it was
    std::string name;
    std::string customer;
    std::string due;       ///< ISO date, or empty
    int due_at = 17 * 60;  ///< minutes from midnight
    std::string note;
    Shared<Order> own;  ///< what of it nobody else in the gang needs: its settings, and its layouts as they were
    std::vector<Brought> styles, media, presses, methods, jigs, art, rules, lots, decorations;  ///< in its own order
    bool operator==(const Job&) const = default;
};

struct Order {
    std::string name;
    std::string job;       ///< id of the order; lasts, and no other order has it
    std::string customer;  ///< whose it is
    std::string note;
    std::string due;  ///< ISO date, or empty
    Reading unit;
    Paper paper = Paper::a4;
    std::string currency;  ///< what stands before a price: "€"; may be empty
    double hourly = 0;     ///< what an hour of one pair of hands costs
    SharedList<Job> jobs;  ///< of a gang; none: the order is one
    SharedList<OrderLine> lines;
    std::vector<Lot> lots;  ///< those that were parted
    std::vector<Art> art;
    std::vector<DesignRule> rules;
    std::vector<Decoration> decorations;
    SharedList<BlankStyle> styles;
    SharedList<Medium> media;
    SharedList<Press> presses;
    SharedList<Method> methods;
    SharedList<Jig> jigs;
    SharedList<MediumLayout> layouts;
    SharedList<Trial> trials;
    SharedList<Correction> corrections;  ///< of the shop, as this order is worked by; the latest last
    PressRun press_run;
    std::vector<Reprint> reprints;
    SharedList<KeptOut> kept_out;
    SharedList<KeptPhoto> photographs;
    GuideSetup guide_setup;
    Pricing pricing;
    Approval approval;
    bool operator==(const Order&) const = default;
};

const BlankStyle* find_style(const Order& order, const std::string& id);
const Art* find_art(const Order& order, const std::string& id);
const Medium* find_medium(const Order& order, const std::string& id);
const Press* find_press(const Order& order, const std::string& id);
const Method* find_method(const Order& order, const std::string& id);
const Jig* find_jig(const Order& order, const std::string& id);
const MediumLayout* find_layout(const Order& order, const std::string& medium);
const Lot* find_lot(const Order& order, const std::string& id);
const DesignRule* find_rule(const Order& order, const std::string& id);
DesignRule* find_rule(Order& order, const std::string& id);
const Job* find_job(const Order& order, const std::string& id);
/// The lot that a line belongs to.
RunKey run_of(const OrderLine& line);
const Decoration* find_decoration(const Order& order, const std::string& id);
Decoration* find_decoration(Order& order, const std::string& id);
/// The method of a decoration's medium; null where either is not there.
const Method* method_of(const Order& order, const Decoration& decoration);
/// What a finding about a decoration on its run is about.
Subject subject_of(const std::string& stage, const Decoration& decoration, const std::string& size = {});
SizePin* find_pin(Decoration& decoration, const std::string& size);
const SizePin* find_pin(const Decoration& decoration, const std::string& size);
/// How far it lies to the viewer's right of its anchor on this size, the size's own pin included.
Length across_on(const Decoration& decoration, const std::string& size);

/// The runs of the order in the order in which their lines first appear.
std::vector<RunKey> runs_of(const Order& order);

struct SizeCount {
    std::string size;
    int quantity = 0;
};
/// Quantities of a run along its style's size run, sizes without garments left out.
std::vector<SizeCount> counts_of(const Order& order, const RunKey& run);
int garments_in(const Order& order);
int garments_in(const Order& order, const RunKey& run);
/// "Adult tee, ash"; of a parted lot "Coaster, oak · Kite at dusk"; in a gang with its job: "Adult tee, ash · Millrace rowers"
std::string run_name(const Order& order, const RunKey& run);
/// The kind of blank of a run; a tee's where the style is not there.
Family family_of(const Order& order, const RunKey& run);
/// Of the blank, else by the colour's name; nothing where neither tells.
std::optional<Colour> told_colour(const Order& order, const RunKey& run);
/// The same, and light cloth where it is not told.
Colour run_colour(const Order& order, const RunKey& run);
/// Of the cloth that a decoration lies on: of a reversible the layer that it is on.
Colour cloth_of(const Order& order, const Decoration& decoration);
Colour cloth_of(const Order& order, const RunKey& run, const Side& side);

/// A loose decoration with the location's usual starting values, sized from the base size of the blank.
Decoration new_decoration(const Order& order, const RunKey& run, Location location, const Art& art);

/// Under a placing school with its usual figure for the location on this panel (of the base size).
Decoration with_usual_place(const Decoration& decoration, const Panel& panel, AgeGroup group, PlacingSchool school);

/// `stem`, or `stem-2`, `stem-3` … whichever `taken` does not hold.
std::string fresh_id(const std::string& stem, const std::vector<std::string>& taken);
/// The same, of a list of things with ids.
template <class List>
requires requires(const List& list) { list.begin()->id; }
std::string fresh_id(const std::string& stem, const List& list) {
    std::vector<std::string> taken;
    taken.reserve(list.size());
    for (const auto& item : list) taken.push_back(item.id);
    return fresh_id(stem, taken);
}

/// Findings of the order itself and of its size charts: lines of an unknown blank, size or colour, decorations
/// without art, measured figures that differ from the published ones, art without a decoration.
Findings order_findings(const Order& order);

}  // namespace orthema
