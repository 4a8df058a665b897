#include "core/shop/press.h"

namespace orthema {

Platen largest_platen(const Press& press) {
    Platen best;
    for (const Platen& p : press.platens)
        if (p.width.mm() * p.height.mm() > best.width.mm() * best.height.mm()) best = p;
    return best;
}

bool takes(PressKind kind, Face face) {
    const bool cap =
        face == Face::cap_front || face == Face::cap_left || face == Face::cap_right || face == Face::cap_back || face == Face::bill;
    switch (kind) {
    case PressKind::wrap:
    case PressKind::oven: return face == Face::wrap;
    case PressKind::cap: return cap;
    case PressKind::flat: return face != Face::wrap;  // a small flat platen presses a cap's panel over a pad
    }
    return true;
}

}  // namespace orthema
