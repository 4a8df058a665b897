#include "app/widgets/theme.h"

#include "app/widgets/access.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QPalette>
#include <QStyleFactory>

#include "core/drawing/drawing.h"
#include "drawing/painter.h"

namespace orthema::app {

namespace {

const char* sheet = R"(
QWidget { color: #22303C; font-size: 13px; }
QMainWindow, QDialog { background: #F4F1EA; }
QToolTip { background: #22303C; color: #FBFAF6; border: none; padding: 5px; }
QLabel[quiet="true"] { color: #5B6770; font-size: 12px; }
QLabel[head="true"] { font-size: 16px; font-weight: bold; }
QLabel[strong="true"] { font-weight: bold; }
QLabel[caution="true"] { color: #8B5F05; font-weight: bold; font-size: 12px; }
QLabel[brick="true"] { color: #9A432C; font-weight: bold; font-size: 12px; }
QFrame[over="true"] { background: #FBFAF6; border: 1px solid #8C9BA5; border-radius: 6px; }
QFrame[card="true"] { background: #FBFAF6; border: 1px solid #DAD5C8; border-radius: 6px; }
QPushButton, QToolButton { background: #FBFAF6; border: 1px solid #CFC9BA; border-radius: 5px; padding: 4px 10px; }
QPushButton:hover, QToolButton:hover { border-color: #2F7F79; }
QPushButton:focus, QToolButton:focus { border: 2px solid #2F7F79; padding: 3px 9px; }
QPushButton:pressed, QToolButton:pressed { background: #E9E4D8; }
QPushButton:disabled, QToolButton:disabled { color: #9A9F9F; border-color: #E2DDD0; }
QPushButton[main="true"] { background: #2F7F79; border-color: #2F7F79; color: #FFFFFF; font-weight: bold; }
QPushButton[main="true"]:hover { background: #276C67; }
QPushButton[main="true"]:focus { border-color: #22303C; }
QPushButton[main="true"]:disabled { background: #A9C2BE; border-color: #A9C2BE; color: #FFFFFF; }
QFileDialog QToolButton { padding: 2px; }
QFileDialog QToolButton:focus { padding: 1px; }
QToolButton::menu-indicator { image: none; }
QPushButton::menu-indicator { image: url(:/icons/chevron.png); width: 10px; height: 6px; right: 8px; subcontrol-position: right center; }
QPushButton[segment="true"] { border-radius: 4px; padding: 3px 4px; background: #F4F1EA; font-size: 12px; }
QPushButton[segment="true"]:focus { padding: 2px 3px; }
QPushButton[segment="true"]:checked { background: #22303C; border-color: #22303C; color: #FBFAF6; font-weight: bold; }
QPushButton[segment="true"][brick="true"]:checked { background: #B5533C; border-color: #B5533C; color: #FFFFFF; }
QLineEdit { background: #FFFFFF; border: 1px solid #CFC9BA; border-radius: 4px; padding: 1px 5px; selection-background-color: #2F7F79; }
QLineEdit:hover { border-color: #8FB5B1; }
QLineEdit:focus { border: 2px solid #2F7F79; padding: 0px 4px; }
QLineEdit[wrong="true"] { border: 2px solid #A32035; padding: 0px 4px; }
QLineEdit[figure="true"] { font-weight: bold; qproperty-alignment: AlignRight; color: #22303C; }
QComboBox { combobox-popup: 0; background: #FFFFFF; border: 1px solid #CFC9BA; border-radius: 4px; padding: 1px 6px; min-height: 20px; }
QComboBox:focus { border: 2px solid #2F7F79; padding: 0px 5px; }
QComboBox::drop-down { border: none; width: 16px; }
QComboBox::down-arrow { image: url(:/icons/chevron.png); width: 10px; height: 6px; }
QComboBox QAbstractItemView { background: #FFFFFF; border: 1px solid #CFC9BA; selection-background-color: #2F7F79; selection-color: #FFFFFF; }
QComboBox QAbstractItemView::item { min-height: 23px; }
QComboBox QAbstractItemView::item:selected { background: #2F7F79; color: #FFFFFF; }
QMenu { background: #FBFAF6; border: 1px solid #CFC9BA; padding: 4px; }
QMenu::item { padding: 5px 24px 5px 12px; border-radius: 3px; }
QMenu::item:selected { background: #2F7F79; color: #FFFFFF; }
QMenu::item:disabled { color: #9A9F9F; }
QMenu::separator { height: 1px; background: #DAD5C8; margin: 4px 8px; }
QTableWidget, QListWidget, QPlainTextEdit { background: #FFFFFF; border: 1px solid #DAD5C8; border-radius: 4px; gridline-color: #EAE6DB; selection-background-color: #DCEBE9; selection-color: #22303C; }
QHeaderView::section { background: #F4F1EA; border: none; border-bottom: 1px solid #DAD5C8; border-right: 1px solid #EAE6DB; padding: 3px; }
QProgressBar { background: #E9E4D8; border: none; border-radius: 4px; height: 10px; text-align: center; }
QProgressBar::chunk { background: #2F7F79; border-radius: 4px; }
QCheckBox { spacing: 7px; }
QScrollBar:vertical { background: transparent; width: 10px; margin: 0; }
QScrollBar::handle:vertical { background: #CFC9BA; border-radius: 5px; min-height: 24px; }
QScrollBar:horizontal { background: transparent; height: 10px; margin: 0; }
QScrollBar::handle:horizontal { background: #CFC9BA; border-radius: 5px; min-width: 24px; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QScrollArea { border: none; background: transparent; }
)";

}  // namespace

void apply_theme(QApplication& application) {
    make_canvases_accessible();
    for (const bool bold : {false, true}) {
        const auto bytes = font_bytes(bold);
        QFontDatabase::addApplicationFontFromData(QByteArray::fromRawData(bytes.data(), qsizetype(bytes.size())));
    }
    QFont font(QStringLiteral("Lato"));
    font.setPixelSize(13);
    font.setHintingPreference(QFont::PreferNoHinting);
    application.setFont(font);
    application.setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    QPalette p;
    p.setColor(QPalette::Window, to_qt(palette::paper));
    p.setColor(QPalette::Base, Qt::white);
    p.setColor(QPalette::Text, to_qt(palette::ink));
    p.setColor(QPalette::WindowText, to_qt(palette::ink));
    p.setColor(QPalette::Highlight, to_qt(palette::verdigris));
    p.setColor(QPalette::PlaceholderText, to_qt(palette::quiet));
    application.setPalette(p);
    application.setStyleSheet(QString::fromLatin1(sheet));
}

void draw_severity(QPainter& painter, QPointF centre, Severity severity) {
    painter.setPen(Qt::NoPen);
    switch (severity) {
    case Severity::stop:
        painter.setBrush(to_qt(palette::carmine));
        painter.drawRoundedRect(QRectF(centre.x() - 7, centre.y() - 7, 14, 14), 2, 2);
        return;
    case Severity::caution:
        painter.setBrush(to_qt(palette::ochre));
        painter.drawPolygon(QPolygonF({centre + QPointF(0, -8), centre + QPointF(9, 7), centre + QPointF(-9, 7)}));
        return;
    case Severity::note:
        painter.setPen(QPen(to_qt(palette::quiet), 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(centre, 6, 6);
        return;
    }
}

}  // namespace orthema::app
