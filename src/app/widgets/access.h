// What a canvas shows, as a list of items that a screen reader walks: each with its name, its place and what choosing it does.
#pragma once

#include <QRect>
#include <QString>

#include <functional>

namespace orthema::app {

class Canvas;

struct CanvasItem {
    QString name;
    QRect at;  ///< on the canvas
    bool chosen = false;
    std::function<void()> choose;  ///< none: it is only read
};

/// From now on every canvas is such a list.
void make_canvases_accessible();

/// What is chosen may have changed: it is told to whoever listens.
void tell_chosen(Canvas& canvas, QString& told);

}  // namespace orthema::app
