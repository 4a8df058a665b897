// The notice: one sentence that hangs over a corner of the bench, with what can be done about it. It moves nothing that the
// pointer aims at.
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
    /// Hangs over the lower left corner of this, above its last `up` pixels.
    void hang_over(QWidget* ground, int up);
    [[nodiscard]] QString text() const;
    [[nodiscard]] QPushButton* action() const { return action_; }

protected:
    bool eventFilter(QObject* of, QEvent* event) override;

private:
    void next();
    void place();
    QWidget* ground_ = nullptr;
    int up_ = 0;
    QLabel* text_;
    QPushButton* action_;
    std::function<void()> act_;
    QTimer away_;
    std::vector<Notice> waiting_;
};

}  // namespace orthema::app
