// What plots of records are drawn with.
#pragma once

#include <string>

#include "core/records/plots.h"

namespace orthema {

/// A mark that colour is not needed for: ring, square, triangle, lozenge, pentagon.
void draw_mark(Drawing& d, Point at, std::size_t kind, Colour colour, double r, bool filled);
/// A press by name, or a mark of hands.
std::string name_of(const PlotAsk& ask, const std::string& id, TellApart by);
/// What is missing, and how it comes about.
void say_nothing(Plot& plot, const std::string& what, const std::string& how);
/// An empty plot of the size that is asked for.
Plot begun(const PlotAsk& ask);
inline Colour faded(Colour c, double a) {
    c.a = a;
    return c;
}

}  // namespace orthema
