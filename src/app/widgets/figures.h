// The pieces that the Figures panel of every bench is made of: rows of a name and a figure, fields that read lengths
// as people type them, and short exclusive choices.
#pragma once

#include <QFrame>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <functional>

#include "core/base/units.h"

class QCheckBox;
class QComboBox;
class QHBoxLayout;
class QMenu;

namespace orthema::app {

/// A field for one value. What cannot be read stays, framed in carmine, with the sentence as tool tip; nothing changes.
class ValueField : public QLineEdit {
    Q_OBJECT
public:
    explicit ValueField(const QString& name, QWidget* parent = nullptr);
    /// For words: they stand at the left. 0: as wide as it is.
    void read_from_left(int width = 0);
    /// Shows the text unless the user is in the middle of typing.
    void show_text(const QString& text);
    /// Reads and takes what was typed; a sentence when it cannot be used.
    std::function<std::optional<QString>(const QString& text, bool with_ctrl)> take;

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;

private:
    void commit(bool with_ctrl);
    void set_wrong(const QString& why);
    QString shown_;
};

/// Reads lengths in any unit.
class LengthField : public ValueField {
    Q_OBJECT
public:
    explicit LengthField(const QString& name, QWidget* parent = nullptr);
    void show_length(Length length, Reading reading);
    /// To the hundredth of a millimetre, or the thousandth of an inch: for offsets and laps.
    void show_fine(Length length, Reading reading);
    /// Called with what was typed; returns a sentence to refuse it.
    std::function<std::optional<QString>(Length, bool with_ctrl)> entered;

private:
    Unit unit_ = Unit::mm;
};

/// Reads plain numbers within a range.
class NumberField : public ValueField {
    Q_OBJECT
public:
    NumberField(const QString& name, double least, double most, int digits, QWidget* parent = nullptr);
    void show_number(double value);
    /// Words that stand for a number: shown in its place, and understood where they are typed.
    void name_number(double value, const QString& words);
    std::function<void(double)> entered;

private:
    double least_, most_;
    int digits_;
    std::vector<std::pair<double, QString>> names_;
};

/// A button that says as much as it has room for, with an ellipsis, and then all of it in its tip.
class Push : public QPushButton {
    Q_OBJECT
public:
    using QPushButton::QPushButton;

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent* event) override;

private:
    [[nodiscard]] QString fitting() const;
};

/// One choice of a few, as buttons in a row, or one above the other.
class Segments : public QWidget {
    Q_OBJECT
public:
    Segments(const QString& name, const QStringList& choices, QWidget* parent = nullptr, bool brick = false, bool upright = false);
    void show_choice(int index);
    /// Other words on one of the choices.
    void name_choice(int index, const QString& text);
    [[nodiscard]] int choice() const;
    [[nodiscard]] QPushButton* button(int index) const { return buttons_[std::size_t(index)]; }
    /// Its choices only show another page: none of them changes anything.
    void turn_pages() { turns_pages_ = true; }
    [[nodiscard]] bool turns_pages() const { return turns_pages_; }
    std::function<void(int)> chosen;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    std::vector<QPushButton*> buttons_;
    bool turns_pages_ = false;
    bool may_shrink_ = false;  ///< its words get smaller where there is no room for them
    int natural_ = 0;          ///< width that they would take; 0: not known yet
};

/// The panel: a card with rows.
class FigurePanel : public QFrame {
    Q_OBJECT
public:
    explicit FigurePanel(QWidget* parent = nullptr);
    QLabel* head(const QString& text);      ///< a quiet caption
    QLabel* title();                        ///< what is selected
    QLabel* text_row(const QString& name);  ///< name and a bold value
    LengthField* length_row(const QString& name, const QString& why);
    NumberField* number_row(const QString& name, const QString& why, double least, double most, int digits);
    ValueField* field_row(const QString& name, const QString& why);  ///< for anything that is typed
    QComboBox* choice_row(const QString& name, const QString& why);
    QLabel* note();                                            ///< a wrapped line
    QCheckBox* tick(const QString& name, const QString& why);  ///< a box to tick, called by its name
    void add(QWidget* widget);
    void side_by_side(std::initializer_list<QWidget*> widgets);  ///< in one row
    void rule();
    void bare();          ///< without a card of its own: a page or a part of another panel
    FigurePanel* part();  ///< rows that come and go together
    void fill();          ///< takes up what room is left
    [[nodiscard]] QVBoxLayout* rows() const { return rows_; }

private:
    QHBoxLayout* row(const QString& name);
    template <class Field>
    Field* placed(Field* field, const QString& name, const QString& why, int width);
    QVBoxLayout* rows_;
};

/// Fills a box with (id, name) pairs and shows the chosen one, leaving it alone where nothing changed.
void set_items(QComboBox* box, const std::vector<std::pair<std::string, QString>>& items, const std::string& chosen);

/// The same, keeping what is chosen while it is among them; else the first.
void set_items(QComboBox* box, const std::vector<std::pair<std::string, QString>>& items);
/// The id that is chosen.
std::string chosen_id(const QComboBox* box);

/// The title of a page or panel.
QLabel* head_label(const QString& text);
/// What a button does, as a line of a menu; dead where the button is.
void add_button(QMenu& menu, QPushButton* button);
QPushButton* push(const QString& text, const QString& why, bool main = false);
/// Film by its run: metres or feet, from a metre on.
QString film_text(double mm, Reading reading);
/// By how much a figure may be off: 0.6, or 0.02 in inches.
QString error_text(double mm, Reading reading);
/// "1 piece", "12 pieces"; without a plural of its own an s is added.
QString counted(std::size_t n, const char* one, const char* many = nullptr);
inline QString qt(const std::string& s) { return QString::fromStdString(s); }

}  // namespace orthema::app
