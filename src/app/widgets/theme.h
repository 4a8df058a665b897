// The look of every bench: the shipped font, the colours as Qt has them, one style sheet.
#pragma once

#include <QColor>
#include <QFont>

#include "core/base/colour.h"
#include "core/base/finding.h"

class QApplication;
class QPainter;
class QPointF;

namespace orthema::app {

/// Loads the shipped fonts and sets palette and style sheet.
void apply_theme(QApplication& application);

inline QColor to_qt(Colour c) { return QColor::fromRgbF(float(c.r), float(c.g), float(c.b), float(c.a)); }

/// The mark of a severity, never colour alone: a square stops, a triangle cautions, a ring notes. Within 9 of its centre.
void draw_severity(QPainter& painter, QPointF centre, Severity severity);

}  // namespace orthema::app
