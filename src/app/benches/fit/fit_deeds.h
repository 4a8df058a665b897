// What button, key and menu of the Fit bench do alike to the chosen design.
#pragma once

#include <QString>

#include "app/session/workroom.h"

namespace orthema::app {

/// Off its lot alone.
void take_design_off(Workroom& room);
/// What was fixed by hand for the chosen size.
void take_pin_away(Workroom& room);
/// Figures of its own on its lot, or back under the rule.
void set_own_figures(Workroom& room, bool on);
/// Why a design cannot be so wide; nothing where it can.
std::optional<QString> width_refused(Length width);

}  // namespace orthema::app
