#include "app/window/keys_panel.h"

#include <QApplication>
#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/window/over.h"

namespace orthema::app {

namespace {

KeySaid said(const char* stage, const char* keys, const char* what) { return {QString::fromUtf8(stage), tr(keys), tr(what)}; }

/// One group: its name, then a line for each key.
QWidget* group(const QString& name, const std::vector<KeySaid>& lines) {
    auto* out = new QWidget;
    auto* grid = new QGridLayout(out);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(14);
    grid->setVerticalSpacing(5);
    grid->setColumnStretch(1, 1);
    grid->addWidget(head_label(name), 0, 0, 1, 2);
    int row = 1;
    for (const KeySaid& k : lines) {
        auto* keys = new QLabel(k.keys);
        keys->setProperty("strong", true);
        auto* what = new QLabel(k.what);
        what->setWordWrap(true);
        grid->addWidget(keys, row, 0, Qt::AlignTop);
        grid->addWidget(what, row++, 1, Qt::AlignTop);
    }
    grid->setRowStretch(row, 1);
    return out;
}

}  // namespace

const std::vector<KeySaid>& all_keys() {
    static const std::vector<KeySaid> keys = {
        said("", "Ctrl+1 … Ctrl+8", "The stages, from Order to Records"),
        said("", "Ctrl+0", "The desk: all orders of the shop"),
        said("", "Ctrl+K", "Look up a bench, deed, figure, design, size, person or finding"),
        said("", "?", "These keys"),
        said("", "Ctrl+,", "Settings"),
        said("", "F1", "The manual, at this bench"),
        said("", "F7", "All findings; the same again puts them down"),
        said("", "F8 or Shift+F8", "The next finding or the one before, and to it"),
        said("", "Ctrl+Z or Ctrl+Shift+Z", "Undo; do it again (Ctrl+Y too)"),
        said("", "Ctrl+N or Ctrl+O", "A new order; open one"),
        said("", "Ctrl+S or Ctrl+Shift+S", "Save; save under another name"),
        said("", "Ctrl+E", "Export"),
        said("", "Tab or Shift+Tab", "On through the fields and buttons, and back"),
        said("", "Enter in a field", "Takes what was typed; with Ctrl for this size alone, where sizes differ"),
        said("desk", "Arrows or Page Down", "From card to card; with Shift they are taken in hand together"),
        said("desk", "Space", "Takes a card in hand beside the others"),
        said("desk", "Enter", "Opens the order; on a bin, takes what was counted"),
        said("order", "Arrows", "From size to size, from run to run"),
        said("order", "Digits", "Set the quantity; Backspace takes the last one back"),
        said("order", "+ or −", "One piece more or less"),
        said("order", "Delete", "None of this size"),
        said("blanks", "Arrows", "From figure to figure on the drawing"),
        said("blanks", "Enter", "Types what the tape says"),
        said("blanks", "Page Down or Delete", "On a photograph: from point to point of the outline; takes a point back"),
        said("art", "Arrows", "Move the mark, letter's picture or laid picture that is chosen; with Shift further"),
        said("art", "Page Down or Page Up", "The next letter or laid picture, or the one before"),
        said("art", "+ or −", "Larger or smaller, where a picture is chosen"),
        said("art", "Delete", "Takes the chosen mark or picture out"),
        said("fit", "Arrows",
             "Move the design by a sixteenth of an inch or a millimetre; with Shift eight times that; with Ctrl on this size alone"),
        said("fit", "Page Down or Page Up", "The next size, or the one before; with Shift it is taken in hand too"),
        said("fit", "Enter", "This garment large, and back (Escape)"),
        said("fit", "L", "All lots that follow the rule, one below the other"),
        said("fit", "+ or −", "Nearer or further"),
        said("fit", "G, P or B", "The other placing schools, the platen, the balance"),
        said("fit", "1 … 4", "Place by collar drop, pit line, body fraction or feature"),
        said("fit", "Delete", "Takes the pin of this size out"),
        said("fit", "Left or Right", "In the making of a wrap: turns it; with Shift further"),
        said("sheets", "Arrows", "Move the pieces that are chosen; with Shift further"),
        said("sheets", "R, L or X", "A quarter turn; lock; two pieces exchange their places"),
        said("sheets", "N or Shift+N", "The next piece, or the one before"),
        said("sheets", "A", "All pieces of this sheet; Escape lets them go"),
        said("sheets", "Page Down or Page Up", "Sends what is chosen to the next sheet, or to the one before"),
        said("sheets", "F or 0", "Goes to what is chosen; back to the whole width"),
        said("sheets", "+ or −", "Nearer or further"),
        said("sheets", "Home or End", "The beginning of the film, or its end"),
        said("press", "Space or Enter", "On the step card: this is done, on to the next"),
        said("press", "Backspace", "On the step card: back to the step before"),
        said("press", "P or F", "On the step card: pause; report a fault"),
        said("press", "Arrows", "On the plan: from load to load, and along the hours"),
        said("press", "+ or −", "On the plan: a shorter or a longer stretch of the shift (Home: all of it)"),
        said("records", "Arrows", "From piece to piece"),
    };
    return keys;
}

KeysPanel::KeysPanel(QWidget* parent) : QFrame(parent) {
    make_over(this, "KeysPanel", tr("All keys"));
    setFocusPolicy(Qt::StrongFocus);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(22, 18, 22, 18);
    hide();
}

void KeysPanel::rise(const QString& stage, const QString& name) {
    delete body_;
    body_ = new QWidget;
    auto* columns = new QHBoxLayout(body_);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->setSpacing(30);
    std::vector<KeySaid> everywhere, here;
    for (const KeySaid& k : all_keys())
        if (k.stage.isEmpty() || k.stage == stage) (k.stage.isEmpty() ? everywhere : here).push_back(k);
    columns->addWidget(group(name, here), 1);
    columns->addWidget(group(tr("Everywhere"), everywhere), 1);
    layout()->addWidget(body_);
    before_ = QApplication::focusWidget();
    constexpr int widest = 900;
    lay_over(this, widest, 10);
    lay_over(this, widest, layout()->hasHeightForWidth() ? layout()->heightForWidth(width()) : layout()->sizeHint().height());
    show();
    raise();
    setFocus();
}

void KeysPanel::put_down() {
    hide();
    if (before_) before_->setFocus();
}

void KeysPanel::keyPressEvent(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Escape:
    case Qt::Key_Return:
    case Qt::Key_Enter:
    case Qt::Key_Question: return put_down();
    default: QFrame::keyPressEvent(event);
    }
}

void KeysPanel::focusOutEvent(QFocusEvent* event) {
    QFrame::focusOutEvent(event);
    hide();
}

void KeysPanel::mousePressEvent(QMouseEvent*) { put_down(); }

}  // namespace orthema::app
