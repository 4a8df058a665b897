// Choosing how a decoration is made: every method, why it does not suit, and what a piece costs by it.
#pragma once

#include "core/transfers/transfers.h"

namespace orthema {

struct MethodChoice {
    std::string method;
    std::string medium;          ///< that it would go on; empty: none of this method is there
    std::vector<Words> against;  ///< clauses; empty: it suits
    double cost = 0;             ///< a piece of the most printed width
};

/// What a number of bands costs over a run, in the order's currency.
struct BandsCost {
    double film = 0, print = 0, sorting = 0;
    [[nodiscard]] double total() const { return film + print + sorting; }
};
/// `squares`: Σ quantity × width², mm²; `widths`: how many are printed. Film as far as pieces usually fill it, ink by the
/// design's own area, and what it takes to keep one more width apart from printing to press.
BandsCost bands_cost(const Order& order, const Decoration& decoration, const DecorationFit& fit, const ArtFacts& facts, double squares,
                     int widths);
constexpr double usual_fill = 0.6;       ///< of film that pieces cover
constexpr double minutes_a_width = 2.5;  ///< to lay apart, label, sort and change over; a typical figure
constexpr double minute_cost = 0.45;     ///< of work, in the order's currency; a typical figure

/// What a method is judged by: the decoration at its least width, its blank and its art.
MethodCase method_case(const Order& order, const Decoration& decoration, const ArtFacts& facts, const DecorationFit& fit);

/// One for each of the order's methods, those that suit first, the cheapest of them first.
std::vector<MethodChoice> method_choices(const Order& order, const Decoration& decoration, const ArtFacts& facts, const DecorationFit& fit);

/// The decoration on that medium, with its method's usual layers; what else was made of it stays.
Decoration with_medium(const Order& order, const Decoration& decoration, const std::string& medium);

/// Designs that `before` does not have begin as it suits their blank: each on a medium for its cloth, and a full wrap whose
/// picture fills both its sides goes right round. Those whose picture was not looked at stay as they are.
Order with_new_ones_suited(Order next, const Order& before, const ArtFactsById& facts);

/// With a layer under all others, grown past them by `grow`: a backing.
Decoration with_backing(const Order& order, const Decoration& decoration, Length grow);

/// Taken apart into at most `colours` layers by colour, each on the cut medium whose sheet comes nearest to it. Layers
/// of other kinds that lie under them stay. The largest colour lies lowest.
Decoration with_colours(const Order& order, const Decoration& decoration, const ArtFacts& facts, int colours, double tolerance);

}  // namespace orthema
