// Which mending ends a finding, and the figures that it begins with.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// A mending of that kind with the figures that an art's uses ask for: what its media and methods hold, where they are printed smallest;
/// for dots where they are printed largest. With the usual figures where it is on no garment.
Mending usual_mending(const Order& order, const FitPlan& plan, const std::string& art, MendKind kind);

struct MendingOffer {
    std::string art;
    Mending mending;
};
/// What ends this finding; nothing where no mending does, or the art is a lettering.
std::optional<MendingOffer> mending_for(const Order& order, const FitPlan& plan, const Finding& finding);

}  // namespace orthema
