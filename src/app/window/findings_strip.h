// Findings along the bottom: the gravest first, a line each; a click leads to what it is about.
#pragma once

#include <QFrame>

#include <functional>

#include "app/session/workroom.h"
#include "core/fitting/mendings.h"

class QLabel;
class QToolButton;

namespace orthema::app {

class FindingsStrip : public QFrame {
    Q_OBJECT
public:
    explicit FindingsStrip(Workroom& room, QWidget* parent = nullptr);
    void refresh();
    [[nodiscard]] int shown() const { return at_; }
    /// Shows that one, and goes there.
    void show_at(int finding);
    /// The next or the one before that is not put away, and there.
    void step_and_go(int by);
    std::function<bool(const Finding&)> away;  ///< put away as seen

signals:
    void wanted(const Subject& about);
    void all_wanted();
    /// What ends the finding that is shown.
    void mending_wanted(const MendingOffer& offer);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void step(int by);
    void go();
    Workroom& room_;
    int at_ = 0;
    QLabel* text_;
    QToolButton* count_;
    QToolButton* back_;
    QToolButton* on_;
    QToolButton* mend_;
    std::optional<MendingOffer> offer_;
    Severity severity_ = Severity::note;
    bool any_ = false;
    QString full_;
};

}  // namespace orthema::app
