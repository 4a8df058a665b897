// Press record: what was really done to a load, how it came out, and where the ink landed. Records are added, never changed in
// place: what is learned later (a wash, a remark) is a later version under the same id.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/shop/recipe.h"

namespace orthema {

enum class Outcome {
    good,
    not_released,
    lifted,
    ghosted,
    scorched,
    crooked,
    off_place,
    upside_down,
    wrong_side,
    dye_migrated,
    cracked,
    seam_gaping,
    seam_dark,
    backing_showing,
    other,  ///< in the shop's own words: the record's cause
};
constexpr int outcome_count = static_cast<int>(Outcome::other) + 1;
const char* outcome_name(Outcome o);

/// What was done about it.
enum class Mended { nothing, pressed_again, printed_again, second_quality, spoiled };
constexpr int mended_count = static_cast<int>(Mended::spoiled) + 1;
const char* mended_name(Mended m);

/// How the paper of a sublimation press looks: even and pale where the ink has gone over.
enum class Proof { none, even, pale, patches };
constexpr int proof_count = static_cast<int>(Proof::patches) + 1;
const char* proof_name(Proof p);

/// Corners of the plate, as whoever stands before it sees them; patches may lie in several.
enum PlateCorner : unsigned { far_left = 1, far_right = 2, near_left = 4, near_right = 8, middle = 16 };

constexpr int plate_corner_count = 5;
const char* plate_corner_name(int corner);  ///< "far left", by the bit's number

/// One act as it was done.
struct ActDone {
    StepKind kind = StepKind::press;
    double asked = 0, celsius = 0;  ///< °C; celsius 0: nobody read it
    double seconds = 0;
    Pressure pressure = Pressure::medium;
    Peel peel = Peel::cool;
    bool operator==(const ActDone&) const = default;
};

/// Where the ink of one piece landed against its card. The wearer's side is the other one: these are as the garment lies before
/// whoever measures it.
struct Landing {
    int piece = 0;                 ///< its number among those of its blank, colour and size; 0: not said
    std::optional<double> aside;   ///< mm to the viewer's right
    std::optional<double> down;    ///< mm too low
    std::optional<double> tilt;    ///< degrees, clockwise
    std::optional<double> wider;   ///< per cent
    std::optional<double> gap;     ///< mm that a wrap gapes; negative: laps
    double across = 0, along = 0;  ///< mm that its card allows aside and down; 0: not said
    bool operator==(const Landing&) const = default;
};

struct Wash {
    std::string date;  ///< ISO
    int washes = 0;    ///< after so many
    std::string changed;
    bool operator==(const Wash&) const = default;
};

struct PressRecord {
    std::string id;   ///< lasts; no other record of any shop has it
    int version = 1;  ///< the highest of an id holds
    std::string at;   ///< ISO, "2027-06-12T09:14:30": when the piece came off
    std::string order, job, load;
    std::string design, size;
    std::string style, colour, fabric;
    std::string box;                    ///< batch of the blank, as its box says
    std::string method, medium, batch;  ///< batch: of the medium
    std::string press, platen, pad;
    std::string hands;  ///< a mark or initials; may be empty
    int first = 0, pieces = 1;
    bool trial = false;
    bool rehearsal = false;  ///< made by the simulated hand
    double planned = 0;      ///< seconds of handling that the plan allowed, and that it took; 0: not known
    double took = 0;
    std::vector<ActDone> acts;
    Outcome outcome = Outcome::good;
    std::string cause;
    Mended mended = Mended::nothing;
    double lost = 0;  ///< what blank and transfer cost that were spoiled
    std::optional<Landing> landing;
    Proof proof = Proof::none;
    unsigned patches = 0;  ///< PlateCorner, added
    std::optional<Wash> wash;
    std::string remark;
    bool operator==(const PressRecord&) const = default;
};

/// Adds what is not there, and puts a later version in an earlier one's place: the same whatever comes first or twice.
void merge_records(std::vector<PressRecord>& into, const std::vector<PressRecord>& more);

/// The set of filters that every picture of the bench answers to; empty parts let all through.
struct RecordFilter {
    std::string press, platen, style, size, method, design, hands, batch, box;
    std::vector<std::string> jobs = {};  ///< any of them; none: all
    std::string from, to;                ///< ISO days, both counted in
    bool rehearsals = false;
    std::string words;  ///< somewhere in remark, cause, order, load or one of the batches
    bool operator==(const RecordFilter&) const = default;
};
/// What is filtered by being equal, by the name that people and the command line have for it.
struct FilterColumn {
    const char* name;
    std::string RecordFilter::*wanted;
    std::string PressRecord::*has;
};
inline constexpr FilterColumn filter_columns[] = {
    {"press", &RecordFilter::press, &PressRecord::press},    {"platen", &RecordFilter::platen, &PressRecord::platen},
    {"blank", &RecordFilter::style, &PressRecord::style},    {"size", &RecordFilter::size, &PressRecord::size},
    {"method", &RecordFilter::method, &PressRecord::method}, {"design", &RecordFilter::design, &PressRecord::design},
    {"hands", &RecordFilter::hands, &PressRecord::hands},    {"batch", &RecordFilter::batch, &PressRecord::batch},
    {"box", &RecordFilter::box, &PressRecord::box}};
/// So many of them are worth a box at the bench; the others are asked for by who looks for one batch.
constexpr std::size_t usual_filters = 7;
bool passes(const PressRecord& record, const RecordFilter& filter);
/// The places of those that pass, in time order as `all` is.
std::vector<std::size_t> filtered(const std::vector<PressRecord>& all, const RecordFilter& filter);

}  // namespace orthema
