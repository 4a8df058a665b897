// What is done to the transfers before the press day, medium by medium: printed, powdered, cured, cut, weeded. On paper,
// with the cautions of that work, for whoever makes film in the house.
#pragma once

#include "core/guides/guides.h"

namespace orthema {

/// What is done to the sheets of one medium, in its order. Empty where nothing is to be made on it.
std::vector<std::string> making_words(const Order& order, const Medium& medium);

/// The media that the order's layouts use, each with its sheets, pieces, acts and cautions; no page without a layout.
std::vector<GuidePage> making_sheet(const Order& order);

}  // namespace orthema
