// What button, key and menu of the Fit bench do alike to the chosen design.
#pragma once

#include <QString>

#include <functional>

#include "app/session/workroom.h"
#include "core/fitting/adjust.h"

namespace orthema::app {

/// Off its lot alone.
void take_design_off(Workroom& room);
/// What was fixed by hand for the sizes in hand.
void take_pin_away(Workroom& room);
/// Whether one of them has a pin.
bool pinned_in_hand(const Workroom& room, const Decoration& decoration);
/// A change that is made on the size `on`: with several sizes in hand each of them is pinned by it, else it goes as far as
/// `reach` says.
Decoration changed_in_hand(const Selection& in_hand, const Decoration& decoration, const DecorationFit& fit, const SizeFit& on, Reach reach,
                           const std::function<Decoration(const Decoration&, const SizeFit&, Reach)>& how);
/// Figures of its own on its lot, or back under the rule.
void set_own_figures(Workroom& room, bool on);
/// Why a design cannot be so wide; nothing where it can.
std::optional<QString> width_refused(Length width);

}  // namespace orthema::app
