#include "app/benches/fit/fit_deeds.h"

#include "core/fitting/adjust.h"
#include "core/order/edit.h"
#include "core/order/rules.h"

namespace orthema::app {

void take_design_off(Workroom& room) {
    if (const Decoration* d = room.decoration()) room.edit(QStringLiteral("take a design off"), without_decoration(room.order(), d->id));
}

void take_pin_away(Workroom& room) {
    if (const Decoration* d = room.decoration())
        room.edit(QStringLiteral("take the pin away"), with_decoration(room.order(), unpinned(*d, room.selection().size)));
}

void set_own_figures(Workroom& room, bool on) {
    if (const Decoration* d = room.decoration())
        room.edit(on ? QStringLiteral("part from the rule") : QStringLiteral("back to the rule"),
                  on ? with_departure(room.order(), d->id) : with_return(room.order(), d->id));
}

std::optional<QString> width_refused(Length width) {
    if (width.mm() >= 5 && width.mm() <= 3000) return std::nullopt;
    return QStringLiteral("A design is between 5 mm and 3 m wide.");
}

}  // namespace orthema::app
