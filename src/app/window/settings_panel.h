// The settings: what a new order begins with, the window, the press. One page over the bench; what is typed above leaves the rows with it.
#pragma once

#include <QFrame>

#include <functional>
#include <vector>

#include "app/session/workroom.h"

class QCheckBox;
class QComboBox;
class QLineEdit;

namespace orthema::app {

class NumberField;
class Segments;
class ValueField;

class SettingsPanel : public QFrame {
    Q_OBJECT
public:
    SettingsPanel(Workroom& room, QWidget* parent);
    void rise();
    /// What only another start can do is wanted at once.
    std::function<void()> start_again;

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void section(const QString& name);
    void row(const QString& name, const QString& why, QWidget* control);
    template <class Change>
    void like(Change change);
    void filter(const QString& typed);
    void from_next_start(const QString& words);
    void show_liked();
    Workroom& room_;
    QLineEdit* find_;
    struct Row {
        QWidget* whole;
        QString words;
        int section;
    };
    std::vector<Row> rows_;
    std::vector<QWidget*> sections_;
    QWidget* body_;
    Segments *unit_, *paper_, *heat_, *size_;
    ValueField* currency_;
    NumberField* hour_;
    QComboBox *medium_, *press_, *language_;
    QCheckBox *quiet_, *sound_, *dark_;
};

}  // namespace orthema::app
