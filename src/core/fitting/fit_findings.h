// What the fit has to say: everything that an artist checks on each size, as sentences that say what to do.
#pragma once

#include "core/fitting/fit.h"

namespace orthema {

/// How a decoration is spoken of, and the subject of what is said: on one size, or on all with an empty one.
Phrases who(const Order& order, const Decoration& decoration, const std::string& size);
Subject about(const Decoration& decoration, const std::string& size);

/// Of one size: ink over a seam or feature, or too close to one; hidden under a hood; marks that miss their landmark;
/// far short of its ideal.
void say_size(const Order& order, const Decoration& decoration, const Panel& panel, const std::vector<Clash>& clashes, const SizeFit& size,
              Findings& findings);

/// Of the decoration as a whole: how the platen must lie, a press that does not take the blank, strokes and gaps finer
/// than the method holds, ink that vanishes on the cloth.
void say_decoration(const Order& order, const Decoration& decoration, const ArtFacts& facts, DecorationFit& fit);

/// The plan's findings: each decoration's own, and those of the art at its largest use.
void gather_findings(const Order& order, const ArtFactsById& facts, FitPlan& plan);

}  // namespace orthema
