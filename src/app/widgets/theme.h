// The look of every bench: the shipped font, the colours as Qt has them, one style sheet.
#pragma once

#include <QColor>
#include <QFont>

#include "core/base/colour.h"

class QApplication;

namespace orthema::app {

/// Loads the shipped fonts and sets palette and style sheet.
void apply_theme(QApplication& application);

inline QColor to_qt(Colour c) { return QColor::fromRgbF(float(c.r), float(c.g), float(c.b), float(c.a)); }

}  // namespace orthema::app
