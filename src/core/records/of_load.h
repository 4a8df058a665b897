// Of a load: what the plan knows of a load becomes the record of its pressing; what was taped on the piece becomes where it landed.
#pragma once

#include "core/guides/guides.h"
#include "core/pressing/press_plan.h"
#include "core/records/press_record.h"

namespace orthema {

/// All of the record that the order and its plan know: what it is, where and how it was pressed, as asked. Without id, time and result.
PressRecord record_of(const Order& order, const FitPlan& fit, const PressPlan& plan, const Load& load);

/// What blank and transfer cost that this record says were spoiled, in the order's currency; the transfer by its area on the medium.
double price_of_loss(const Order& order, const FitPlan& fit, const PressRecord& record);
/// Minutes that were worked for nothing: of a piece that was pressed again, printed again or spoiled.
double minutes_lost(const PressRecord& record);

/// What a tape can read on a pressed piece, mm; as the piece lies before whoever measures.
enum class TapeAt { top, left, right, left_edge, right_edge, width, gap };
constexpr int tape_at_count = 7;

struct TapeAsk {
    TapeAt at = TapeAt::top;
    std::string words;   ///< "Collar seam to top of ink"
    double planned = 0;  ///< mm
    double allowed = 0;  ///< mm either way; 0: not held to any
    bool needed = true;  ///< the others make it more exact
};
/// What is asked of a piece of this size: two to four figures, and what may be told besides. Empty where nothing is there to measure from.
std::vector<TapeAsk> tape_asks(const Decoration& decoration, const DecorationFit& fit, const SizeFit& size, const Reading& reading);

/// Figures that were read, by TapeAt.
struct Taped {
    std::array<std::optional<double>, tape_at_count> mm;
    std::optional<double>& operator[](TapeAt at) { return mm[static_cast<std::size_t>(at)]; }
    const std::optional<double>& operator[](TapeAt at) const { return mm[static_cast<std::size_t>(at)]; }
    [[nodiscard]] bool any() const;
};
/// Where that puts the ink. Aside by both margins where both are there (half their difference: the width of the garment falls out), else
/// by the one; tilt by how much lower one edge is than the other over the ink's width.
Landing landing_of(const Taped& taped, const SizeFit& size, const std::vector<TapeAsk>& asks);
/// What a tape would read on a piece that landed so.
Taped taped_of(const Landing& landing, const SizeFit& size, const std::vector<TapeAsk>& asks);

/// What a tape would read on a piece whose ink lies so on its panel, as that was measured: `ink` upright about its middle, turned by
/// `turned` radians clockwise as seen.
Taped taped_on(const Panel& measured, const Rect& ink, double turned);

/// A figure so far from the planned one that a slip of the tape or the keys is likelier, mm.
constexpr double doubtful_from = 60;

}  // namespace orthema
