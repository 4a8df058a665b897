// What goes on paper of a press plan: the pick list of blanks and transfers by load, and the run sheet.
#pragma once

#include <string>
#include <vector>

#include "core/guides/guides.h"
#include "core/pressing/press_plan.h"

namespace orthema {

/// Loads of one design and size that follow each other on a press.
struct PickRow {
    double start = 0, end = 0;  ///< seconds from the start of pressing
    std::string press, decoration, size;
    std::string blank;     ///< "Adult tee, ash M"
    std::string transfer;  ///< "Kite on wind, 255 mm"
    std::string platen;
    std::string who = {};  ///< of a roster, in the order of the pile: "1 Nye, 4 Marlow"
    int pieces = 0, loads = 0;
    bool trial = false;
    bool again = false;         ///< a trial's later visit to a press: of pieces that are counted already
    std::vector<int> load_ids;  ///< into plan.loads
};
/// In time order.
std::vector<PickRow> pick_rows(const Order& order, const FitPlan& fit, const PressPlan& plan);

/// Pages of the run sheet: what is loaded when and where, by which recipe, with the cautions that stand with it.
std::vector<GuidePage> run_sheet(const Order& order, const FitPlan& fit, const PressPlan& plan);

/// The cautions that a run needs, each once: heat, powder and fumes, ceramic and glass, infant wear; they defer to the
/// supplier's sheet and local codes.
std::vector<std::string> press_cautions(const Order& order, const PressPlan& plan);

}  // namespace orthema
