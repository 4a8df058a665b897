#include "app/widgets/menus.h"

#include <QLabel>
#include <QMenu>
#include <QWidgetAction>

namespace orthema::app {

void add_heading(QMenu& menu, const QString& text) {
    if (!menu.isEmpty()) menu.addSeparator();
    // the style sheet's menus draw no words in a section
    auto* line = new QWidgetAction(&menu);
    auto* label = new QLabel(text);
    label->setProperty("quiet", true);
    label->setContentsMargins(12, 4, 24, 2);
    line->setDefaultWidget(label);
    line->setEnabled(false);
    menu.addAction(line);
}

}  // namespace orthema::app
