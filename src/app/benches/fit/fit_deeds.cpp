#include "app/benches/fit/fit_deeds.h"

#include "app/widgets/speech.h"
#include "core/fitting/adjust.h"
#include "core/order/edit.h"
#include "core/order/rules.h"

namespace orthema::app {

void take_design_off(Workroom& room) {
    if (const Decoration* d = room.decoration()) room.edit(tr("take a design off"), without_decoration(room.order(), d->id));
}

void take_pin_away(Workroom& room) {
    const Decoration* d = room.decoration();
    if (d == nullptr) return;
    Decoration next = *d;
    for (const std::string& size : sizes_in_hand(room.selection())) next = unpinned(next, size);
    room.edit(tr("take the pin away"), with_decoration(room.order(), next));
}

bool pinned_in_hand(const Workroom& room, const Decoration& decoration) {
    const std::set<std::string> in_hand = sizes_in_hand(room.selection());
    return std::any_of(in_hand.begin(), in_hand.end(), [&](const std::string& size) { return find_pin(decoration, size) != nullptr; });
}

Decoration changed_in_hand(const Selection& in_hand, const Decoration& decoration, const DecorationFit& fit, const SizeFit& on, Reach reach,
                           const std::function<Decoration(const Decoration&, const SizeFit&, Reach)>& how) {
    if (in_hand.also.empty()) return how(decoration, on, reach);
    Decoration out = decoration;
    for (const std::string& size : sizes_in_hand(in_hand))
        if (const SizeFit* s = find_size(fit, size)) out = how(out, *s, Reach::this_size);
    return out;
}

void set_own_figures(Workroom& room, bool on) {
    if (const Decoration* d = room.decoration())
        room.edit(on ? tr("part from the rule") : tr("back to the rule"),
                  on ? with_departure(room.order(), d->id) : with_return(room.order(), d->id));
}

std::optional<QString> width_refused(Length width) {
    if (width.mm() >= 5 && width.mm() <= 3000) return std::nullopt;
    return tr("A design is between 5 mm and 3 m wide.");
}

}  // namespace orthema::app
