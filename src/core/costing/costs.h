// Costs: what an order's film, blanks and work come to, parted among its jobs by what each uses, to the last penny.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <vector>

#include "core/pressing/press_plan.h"
#include "core/sheets/sheets.h"

namespace orthema {

/// Hundredths of the order's currency: whole numbers, so that parts add up.
using Pence = long long;

/// A total in parts as near to the weights as whole numbers come; they add up to it. With no weight at all the first takes it. Method:
/// largest remainders.
std::vector<Pence> parted(Pence total, const std::vector<double>& weights);

/// What each copy on these sheets costs in film: each sheet's price parted by the pieces' area. Copies whose transfer is gone are passed
/// over.
void each_copy_cost(const Medium& medium, const MediumPlan& plan, const std::map<std::string, const Transfer*>& transfers,
                    const std::function<void(const PlacedCopy& copy, double area, double cost)>& see);

/// What one job, or the order where it is no gang, comes to.
struct JobCost {
    std::string job;  ///< id; "" of what is in no job: printed for the shelf, or an order that is no gang
    int pieces = 0;   ///< garments
    Pence film = 0;   ///< of all media, by the area of its pieces on their sheets
    Pence blanks = 0;
    Pence work = 0;        ///< by the seconds that hands and presses are at its loads
    double film_area = 0;  ///< mm² of its pieces
    double seconds = 0;    ///< of hands and presses at its loads
    [[nodiscard]] Pence total() const { return film + blanks + work; }
};

struct Costs {
    std::vector<JobCost> jobs;  ///< in the order of the jobs; last what fills for the shelf, where there is any
    Pence film = 0, blanks = 0, work = 0;
    [[nodiscard]] Pence total() const { return film + blanks + work; }
};

/// Sheets that are laid, loads that are planned, and blanks at their price; an hour of one pair of hands at the order's rate, from the
/// run's start to its end.
Costs costs_of(const Order& order, const TransferSet& set, const SheetPlan& sheets, const PressPlan& plan);

/// "€12.40", or with the comma of the language.
std::string pence_text(Pence pence, const std::string& currency, const Reading& reading = {});

}  // namespace orthema
