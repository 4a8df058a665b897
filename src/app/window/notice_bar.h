// The notice bar: one sentence above the bench, with what can be done about it. It never blocks the work.
#pragma once

#include <QFrame>

#include "app/session/workroom.h"

class QLabel;
class QPushButton;

namespace orthema::app {

class NoticeBar : public QFrame {
    Q_OBJECT
public:
    explicit NoticeBar(QWidget* parent = nullptr);
    void show_notice(const Notice& notice);
    [[nodiscard]] QString text() const;
    [[nodiscard]] QPushButton* action() const { return action_; }

private:
    void next();
    QLabel* text_;
    QPushButton* action_;
    std::function<void()> act_;
    QTimer away_;
    std::vector<Notice> waiting_;
};

}  // namespace orthema::app
