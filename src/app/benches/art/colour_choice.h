// Choosing the colour of letters, edges and grounds from what the order is dyed in.
#pragma once

#include <QComboBox>

#include <optional>

#include "core/order/order.h"

namespace orthema::app {

/// Fills the box and shows what is chosen; `may_lack`: none may be.
void show_colours(QComboBox* box, const Order& order, const std::optional<Colour>& now, bool may_lack);

/// What was picked in it; nothing where another colour was asked for and then none taken.
std::optional<std::optional<Colour>> picked_colour(QComboBox* box, QWidget* parent);

}  // namespace orthema::app
