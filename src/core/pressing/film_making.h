// Film that is made on the day it is pressed: each run is printed, powdered, cured and cut apart before the loads that take
// its pieces. Work at the table, with the cards and cautions of that work.
#pragma once

#include <map>
#include <string>
#include <utility>

#include "core/pressing/press_plan.h"

namespace orthema {

/// Starting values, to be measured on one's own printer: what a metre of film takes.
struct FilmTimes {
    double ready = 60;         ///< seconds to put the roll in and begin
    double print_metre = 360;  ///< no hand works
    double powder_metre = 60;
    double cure = 150;       ///< somebody stays with it
    double powder_by = 120;  ///< from the end of printing, while the ink is wet
    double cool = 60;        ///< before it is cut apart
    double cut_piece = 8;
};

/// By decoration and size: the task after which its film can be pressed.
using FilmReady = std::map<std::pair<std::string, std::string>, int>;

/// Puts the making of every laid sheet of a powdered film at the head of the plan, one after the other on one printer; the
/// stages' numbers go on in `stages`. A size of which pieces lie on several sheets is ready with the last of them. A film
/// whose pieces are not laid out yet is left out, with a finding.
FilmReady make_film(PressPlan& plan, std::map<std::string, int>& stages, const Order& order, const TransferSet& set);

}  // namespace orthema
