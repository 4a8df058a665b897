#include "devices/hand.h"

#include <cmath>

namespace orthema {

void Hand::press(PressRecord& r, double marks_aside, double marks_down) {
    std::normal_distribution<double> chance(0, 1);
    const auto tenth = [](double v) { return std::round(v * 10) / 10; };
    const double a = chance(dice_), b = chance(dice_), c = chance(dice_), d = chance(dice_);
    Landing l = r.landing.value_or(Landing{});
    double aside = setup_.aside, down = setup_.down + setup_.creep * pressed_;
    if (setup_.slips_at >= 0 && pressed_ >= setup_.slips_at) aside += setup_.slip;
    for (const std::string* who : {&r.press, &r.hands, &r.size})
        if (const auto more = setup_.more.find(*who); more != setup_.more.end()) aside += more->second;
    l.aside = tenth(aside - marks_aside + setup_.spread * a);
    l.down = tenth(down - marks_down + setup_.spread * b);
    l.tilt = tenth(0.4 * c);
    r.landing = l;
    r.took = r.planned * setup_.pace * std::exp(0.1 * d);
    for (const ActDone& act : r.acts) {
        RecipeStep step;
        step.kind = act.kind;
        if (!applies(step)) continue;
        const double plate = act.celsius > 0 ? act.celsius : act.asked;
        if (plate > setup_.scorches_above) r.outcome = Outcome::scorched;
        if (plate < setup_.ghosts_below) r.outcome = Outcome::not_released;
    }
    if (setup_.cold != 0 && r.proof != Proof::none) {
        r.proof = Proof::patches;
        r.patches |= setup_.cold;
    }
    ++pressed_;
}

}  // namespace orthema
