#include "app/widgets/choice_box.h"

#include <QAbstractItemView>
#include <QStyledItemDelegate>
#include <QStylePainter>

#include <algorithm>

#include "app/widgets/fitting_label.h"

namespace orthema::app {

ChoiceBox::ChoiceBox(QWidget* parent) : QComboBox(parent) {
    setItemDelegate(new QStyledItemDelegate(this));  // the combo box's own knows nothing of the theme's rows
}

QString ChoiceBox::fitting() const {
    QStyleOptionComboBox how;
    initStyleOption(&how);
    const QRect room = style()->subControlRect(QStyle::CC_ComboBox, &how, QStyle::SC_ComboBoxEditField, this);
    return fontMetrics().elidedText(currentText(), Qt::ElideRight, room.width());
}

bool ChoiceBox::event(QEvent* event) {
    return (event->type() == QEvent::ToolTip && whole_in_tip(*this, *event, currentText(), fitting())) || QComboBox::event(event);
}

void ChoiceBox::paintEvent(QPaintEvent* /*event*/) {
    QStylePainter painter(this);
    QStyleOptionComboBox how;
    initStyleOption(&how);
    painter.drawComplexControl(QStyle::CC_ComboBox, how);
    how.currentText = fitting();
    painter.drawControl(QStyle::CE_ComboBoxLabel, how);
}

void ChoiceBox::showPopup() {
    view()->setMinimumWidth(std::min(view()->sizeHintForColumn(0) + 28, 520));  // what it offers may be longer than the box
    QComboBox::showPopup();
}

}  // namespace orthema::app
