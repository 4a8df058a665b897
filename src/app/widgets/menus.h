// Menus by right click: headings that are seen under every style.
#pragma once

#include <QString>

class QMenu;

namespace orthema::app {

/// A heading over what follows in the menu; it cannot be chosen.
void add_heading(QMenu& menu, const QString& text);

}  // namespace orthema::app
