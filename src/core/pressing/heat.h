// Heat ledger: what every layer and every pressed design of a garment gets of heat in the plan, against what it bears;
// and in which order the designs of one garment are best pressed.
#pragma once

#include <string>
#include <vector>

#include "core/order/recipes.h"
#include "core/transfers/transfers.h"

namespace orthema {

/// Heat that comes through the garment counts by this share where no sheet protects the other side.
constexpr double through_share = 0.5;

struct HeatSource {
    std::string decoration;  ///< whose step it is
    StepKind step = StepKind::press;
    double seconds = 0;  ///< as it counts
    double celsius = 0;
    bool through = false;  ///< from the garment's other side
};

struct HeatLine {
    std::string decoration;
    int layer = 0;     ///< from the bottom
    int part = -1;     ///< of a split design
    std::string name;  ///< "Kite on wind, backing"
    double seconds = 0, limit = 0;
    int heats = 0, most_heats = 0;
    double celsius = 0, most_celsius = 0;
    std::vector<HeatSource> from;
    [[nodiscard]] bool holds() const {
        return (limit <= 0 || seconds <= limit + 1e-9) && (most_heats <= 0 || heats <= most_heats) &&
               (most_celsius <= 0 || celsius <= most_celsius + 1e-9);
    }
};

/// How many layers and parts a decoration is pressed in on a size.
struct Stack {
    int layers = 1, parts = 1;
    std::vector<std::string> names;  ///< of the layers, bottom first
};
Stack stack_of(const Decoration& decoration, const TransferSet& set, const std::string& size);

/// The designs of one garment in this order, their layers bottom first. Method: a step heats what lies under its platen
/// on the same panel in full, and on the panel's other side by through_share, unless that side is protected.
std::vector<HeatLine> heat_ledger(const Order& order, const FitPlan& plan, const TransferSet& set, const std::string& size,
                                  const std::vector<const Decoration*>& in_order);

/// A decoration's turn on its garment, and why.
struct PressTurn {
    const Decoration* decoration = nullptr;
    std::string reason;
};
/// The order in which the designs of a run are pressed: as the artist set it, else the first by the trade's rules (hotter
/// before cooler, small before large, front before back, sleeves last) of those in which every heat limit holds, and the
/// one that breaks fewest where none does.
std::vector<PressTurn> press_turns(const Order& order, const FitPlan& plan, const TransferSet& set, const RunKey& run);

/// Findings of all runs: where no order keeps the limits, and what heat meets on the blank (dye that migrates, snaps
/// under the platen, glued seams).
Findings heat_findings(const Order& order, const FitPlan& plan, const TransferSet& set);

}  // namespace orthema
