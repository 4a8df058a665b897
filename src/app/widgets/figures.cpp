#include "app/widgets/figures.h"

#include "app/widgets/choice_box.h"
#include "app/widgets/fitting_label.h"
#include "app/widgets/speech.h"
#include "app/widgets/wrapped_label.h"

#include <QAbstractItemView>
#include <QButtonGroup>
#include <QCheckBox>
#include <QKeyEvent>
#include <QMenu>
#include <QStyle>
#include <QStyleOptionButton>
#include <QStylePainter>

#include <algorithm>
#include <cmath>

namespace orthema::app {

namespace {

void set_flag(QWidget* w, const char* name, bool on) {
    if (w->property(name).toBool() == on) return;
    w->setProperty(name, on);
    w->style()->unpolish(w);
    w->style()->polish(w);
}

}  // namespace

ValueField::ValueField(const QString& name, QWidget* parent) : QLineEdit(parent) {
    setAccessibleName(name);
    setObjectName(name);
    setProperty("figure", true);
    setFixedHeight(23);
}

void ValueField::read_from_left(int width) {
    if (width > 0) setFixedWidth(width);
    setStyleSheet(QStringLiteral("qproperty-alignment: AlignLeft;"));
}

void ValueField::show_text(const QString& text) {
    if (hasFocus() && isModified()) return;
    shown_ = text;
    set_flag(this, "wrong", false);
    if (this->text() != text) setText(text);
    if (!hasFocus()) setCursorPosition(0);  // of a long list its beginning shows
    setModified(false);
}

void ValueField::set_wrong(const QString& why) {
    set_flag(this, "wrong", true);
    setToolTip(why);
}

void ValueField::commit(bool with_ctrl) {
    const QString typed = text();
    if (typed == shown_ && !with_ctrl) {
        set_flag(this, "wrong", false);
        setModified(false);
        return;
    }
    setModified(false);
    if (!take) return;
    shown_ = typed;
    if (const auto why = take(typed, with_ctrl)) {
        set_wrong(*why);
        setModified(true);
        shown_.clear();
    } else {
        set_flag(this, "wrong", false);
    }
}

void ValueField::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        commit(event->modifiers().testFlag(Qt::ControlModifier));
        selectAll();
        return;
    }
    if (event->key() == Qt::Key_Escape) {
        setModified(false);
        show_text(shown_);
        return;
    }
    QLineEdit::keyPressEvent(event);
}

void ValueField::focusOutEvent(QFocusEvent* event) {
    if (isModified()) commit(false);
    QLineEdit::focusOutEvent(event);
}

LengthField::LengthField(const QString& name, QWidget* parent) : ValueField(name, parent) {
    take = [this](const QString& text, bool with_ctrl) -> std::optional<QString> {
        const auto length = parse_length(text.toStdString(), unit_);
        if (!length) return refusal(length.error());
        return entered ? entered(*length, with_ctrl) : std::nullopt;
    };
}

void LengthField::show_length(Length length, Reading reading) {
    unit_ = reading;
    show_text(qt(stored_text(length, reading)));
}

void LengthField::show_fine(Length length, Reading reading) {
    unit_ = reading;
    show_text(reading == Unit::mm ? figure(length.mm(), 2) : figure(length.mm() / 25.4, 3));
}

NumberField::NumberField(const QString& name, double least, double most, int digits, QWidget* parent)
    : ValueField(name, parent), least_(least), most_(most), digits_(digits) {
    take = [this](const QString& text, bool) -> std::optional<QString> {
        for (const auto& [value, words] : names_)
            if (text.trimmed().compare(words, Qt::CaseInsensitive) == 0) {
                if (entered) entered(value);
                return std::nullopt;
            }
        bool fine = false;
        const double value = QString(text).replace(',', '.').remove('%').trimmed().toDouble(&fine);
        if (!fine || !(value >= least_) || !(value <= most_)) return tr("Type a number from %1 to %2.").arg(least_).arg(most_);
        if (entered) entered(digits_ == 0 ? std::round(value) : value);
        return std::nullopt;
    };
}

void NumberField::show_number(double value) {
    for (const auto& [named, words] : names_)
        if (std::abs(named - value) < 1e-9) return show_text(words);
    show_text(figure(value, digits_) + (names_.empty() ? QString() : QStringLiteral(" %")));
}

void NumberField::name_number(double value, const QString& words) {
    std::erase_if(names_, [&](const auto& n) { return n.first == value; });
    names_.emplace_back(value, words);
}

Segments::Segments(const QString& name, const QStringList& choices, QWidget* parent, bool brick, bool upright) : QWidget(parent) {
    auto* row = new QBoxLayout(upright ? QBoxLayout::TopToBottom : QBoxLayout::LeftToRight, this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(4);
    auto* group = new QButtonGroup(this);
    group->setExclusive(true);
    // alike in English, which the rows are cut for; elsewhere by their words, and smaller where the panel has no room for them
    const auto longest = std::max_element(choices.begin(), choices.end(), [](auto& a, auto& b) { return a.size() < b.size(); });
    const bool alike = language_spoken() == nullptr || upright || (choices.size() < 3 && longest->size() < 14);
    may_shrink_ = !alike && (choices.size() == 4 || choices.size() == 5) && choices.join(QString()).size() > 42 - 4 * choices.size();
    for (const QString& choice : choices) {
        auto* b = new QPushButton(choice);
        b->setCheckable(true);
        b->setProperty("segment", true);
        if (may_shrink_) b->setMinimumWidth(1);  // else the row would push its panel wider
        if (brick) b->setProperty("brick", true);
        b->setAccessibleName(name + ": " + choice);
        b->setObjectName(name + "/" + choice);
        b->setFixedHeight(25);
        const int index = int(buttons_.size());
        connect(b, &QPushButton::clicked, this, [this, index] {
            if (chosen) chosen(index);
        });
        group->addButton(b);
        row->addWidget(b, alike ? 1 : b->fontMetrics().horizontalAdvance(choice) + 6);
        buttons_.push_back(b);
    }
}

void Segments::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    if (!may_shrink_) return;
    if (natural_ == 0) natural_ = layout()->sizeHint().width();
    const QString style = width() < natural_ ? QStringLiteral("font-size:10px; padding:3px 1px;") : QString();
    for (QPushButton* b : buttons_)
        if (b->styleSheet() != style) b->setStyleSheet(style);
}

void Segments::show_choice(int index) {
    for (std::size_t i = 0; i < buttons_.size(); ++i)
        if (int(i) == index) buttons_[i]->setChecked(true);
}

void Segments::name_choice(int index, const QString& text) {
    QPushButton* b = button(index);
    b->setText(text);
    b->setAccessibleName(b->accessibleName().section(QStringLiteral(": "), 0, 0) + ": " + text);
}

int Segments::choice() const {
    for (std::size_t i = 0; i < buttons_.size(); ++i)
        if (buttons_[i]->isChecked()) return int(i);
    return -1;
}

FigurePanel::FigurePanel(QWidget* parent) : QFrame(parent) {
    setProperty("card", true);
    rows_ = new QVBoxLayout(this);
    rows_->setContentsMargins(14, 10, 14, 10);
    rows_->setSpacing(3);
}

QLabel* FigurePanel::head(const QString& text) {
    auto* l = new QLabel(text);
    l->setProperty("quiet", true);
    rows_->addWidget(l);
    return l;
}

QLabel* FigurePanel::title() {
    auto* l = new WrappedLabel;
    l->setProperty("head", true);
    rows_->addWidget(l);
    return l;
}

QHBoxLayout* FigurePanel::row(const QString& name) {
    auto* line = new QHBoxLayout;
    auto* l = new QLabel(name);
    l->setProperty("quiet", true);
    line->addWidget(l);
    line->addStretch(1);
    rows_->addLayout(line);
    return line;
}

QLabel* FigurePanel::text_row(const QString& name) {
    auto* value = new QLabel;
    value->setProperty("strong", true);
    value->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    value->setMinimumHeight(21);
    value->setAccessibleName(name);
    value->setObjectName(name);
    row(name)->addWidget(value);
    return value;
}

template <class Field>
Field* FigurePanel::placed(Field* field, const QString& name, const QString& why, int width) {
    field->setToolTip(why);
    field->setFixedWidth(width);
    row(name)->addWidget(field);
    return field;
}

LengthField* FigurePanel::length_row(const QString& name, const QString& why) { return placed(new LengthField(name), name, why, 84); }

NumberField* FigurePanel::number_row(const QString& name, const QString& why, double least, double most, int digits) {
    return placed(new NumberField(name, least, most, digits), name, why, 84);
}

ValueField* FigurePanel::field_row(const QString& name, const QString& why) { return placed(new ValueField(name), name, why, 150); }

QComboBox* FigurePanel::choice_row(const QString& name, const QString& why) {
    auto* c = new ChoiceBox;
    c->setAccessibleName(name);
    c->setObjectName(name);
    c->setToolTip(why);
    c->setFixedWidth(150);
    QHBoxLayout* line = row(name);
    if (auto* l = qobject_cast<QLabel*>(line->itemAt(0)->widget())) l->setBuddy(c);
    line->addWidget(c);
    return c;
}

QLabel* FigurePanel::note() {
    auto* l = new WrappedLabel;
    l->setProperty("quiet", true);
    rows_->addWidget(l);
    return l;
}

QCheckBox* FigurePanel::tick(const QString& name, const QString& why) {
    auto* box = new QCheckBox(name);
    box->setObjectName(name);
    box->setAccessibleName(name);
    box->setToolTip(why);
    add(box);
    return box;
}

void FigurePanel::add(QWidget* widget) { rows_->addWidget(widget); }

void FigurePanel::side_by_side(std::initializer_list<QWidget*> widgets) {
    auto* line = new QHBoxLayout;
    for (QWidget* w : widgets) line->addWidget(w);
    rows_->addLayout(line);
}

void FigurePanel::rule() {
    auto* line = new QFrame;
    line->setFixedHeight(1);
    line->setStyleSheet(QStringLiteral("background:#DAD5C8; border:none;"));
    rows_->addSpacing(4);
    rows_->addWidget(line);
    rows_->addSpacing(4);
}

void FigurePanel::bare() {
    setProperty("card", false);
    rows_->setContentsMargins(0, 2, 0, 0);
    rows_->setSpacing(3);
}

FigurePanel* FigurePanel::part() {
    auto* p = new FigurePanel;
    p->bare();
    add(p);
    return p;
}

void FigurePanel::fill() { rows_->addStretch(1); }

namespace {
constexpr int panel_room = 226;  ///< of the figures' panel, its margins taken off
}

std::string chosen_id(const QComboBox* box) { return box->currentData().toString().toStdString(); }

void set_items(QComboBox* box, const std::vector<std::pair<std::string, QString>>& items) {
    const std::string was = chosen_id(box);
    const bool there = std::any_of(items.begin(), items.end(), [&](const auto& i) { return i.first == was; });
    set_items(box, items, there || items.empty() ? was : items.front().first);
}

void set_items(QComboBox* box, const std::vector<std::pair<std::string, QString>>& items, const std::string& chosen) {
    QStringList have, want;
    for (int i = 0; i < box->count(); ++i) have << box->itemText(i);
    for (const auto& [id, name] : items) want << name;
    const QSignalBlocker quiet(box);
    if (have != want) {
        box->clear();
        int longest = 0;
        for (const auto& [id, name] : items) {
            box->addItem(name, qt(id));
            longest = std::max(longest, box->fontMetrics().horizontalAdvance(name));
        }
        // what drops down shows all of each; the box itself grows a little for it
        box->view()->setMinimumWidth(longest + 34);
        if (box->minimumWidth() == box->maximumWidth()) {
            int room = 176;  // of a panel, beside its label
            const QWidget* panel = box->parentWidget();
            for (const QLabel* l : panel == nullptr ? QList<QLabel*>() : panel->findChildren<QLabel*>())
                if (l->buddy() == box) room = std::min(room, panel_room - l->sizeHint().width() - 8);
            const int least = std::min({150, room, box->minimumWidth()});
            box->setFixedWidth(std::clamp(longest + 36, least, std::max(least, room)));
        }
    }
    box->setCurrentIndex(box->findData(qt(chosen)));
}

QLabel* head_label(const QString& text) {
    auto* l = new QLabel(text);
    l->setProperty("head", true);
    return l;
}

void add_button(QMenu& menu, QPushButton* button) {
    QAction* a = menu.addAction(button->text(), button, [button] { button->click(); });
    a->setToolTip(button->toolTip());
    a->setEnabled(button->isEnabled());
}

QString Push::fitting() const {
    QStyleOptionButton how;
    initStyleOption(&how);
    const int room = style()->subElementRect(QStyle::SE_PushButtonContents, &how, this).width();
    QStringList lines = text().split('\n');  // elided together they would be measured as one
    for (QString& line : lines) line = fontMetrics().elidedText(line, Qt::ElideRight, std::max(room + 2, 20), Qt::TextShowMnemonic);
    return lines.join('\n');
}

bool Push::event(QEvent* event) {
    return (event->type() == QEvent::ToolTip && whole_in_tip(*this, *event, text(), fitting())) || QPushButton::event(event);
}

void Push::paintEvent(QPaintEvent* /*event*/) {
    QStylePainter painter(this);
    QStyleOptionButton how;
    initStyleOption(&how);
    how.text = fitting();
    painter.drawControl(QStyle::CE_PushButton, how);
}

QPushButton* push(const QString& text, const QString& why, bool main) {
    auto* b = new Push(text);
    b->setToolTip(why);
    b->setAccessibleName(text);
    b->setObjectName(text);
    b->setAutoDefault(false);  // Enter in a dialog's field belongs to the field
    if (main) b->setProperty("main", true);
    return b;
}

QString film_text(double mm, Reading reading) {
    if (mm < 1000) return qt(length_text(Length::from_mm(mm), reading));
    return reading == Unit::mm ? QStringLiteral("%1 m").arg(fixed(mm / 1000, 2)) : tr("%1 ft").arg(fixed(mm / 304.8, 1));
}

QString error_text(double mm, Reading reading) { return reading == Unit::mm ? figure(mm, 1) : figure(mm / 25.4, 2); }

QString counted(std::size_t n, const char* one, const char* many) {
    const QString word = is_one(long(n), reading_in()) ? tr(one) : many != nullptr ? tr(many) : tr((std::string(one) + "s").c_str());
    return QString::number(n) + " " + word;
}

}  // namespace orthema::app
