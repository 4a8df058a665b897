// What rises over the bench: one look, which is the theme's, and one place.
#pragma once

#include <QFrame>

namespace orthema::app {

/// A card over the window's middle, called so.
inline void make_over(QFrame* panel, const char* object_name, const QString& name) {
    panel->setObjectName(QString::fromLatin1(object_name));
    panel->setAccessibleName(name);
    panel->setProperty("over", true);
}

/// As wide and tall as it would be, where there is that room, in the middle under the top line.
inline void lay_over(QFrame* panel, int widest, int tall) {
    constexpr int top = 56, sides = 40, foot = 70;
    const QSize room = panel->parentWidget()->size();
    const int width = std::min(widest, room.width() - sides);
    panel->setGeometry((room.width() - width) / 2, top, width, std::min(tall, room.height() - foot));
}

}  // namespace orthema::app
