// The findings panel: rises over the bench with all there is to say, like ones folded with their number, the worst first. A
// double click or Enter goes there.
#pragma once

#include <QFrame>

#include <set>

#include "app/session/workroom.h"

class QCheckBox;
class QLabel;
class QLineEdit;
class QTreeWidget;
class QTreeWidgetItem;

namespace orthema::app {

class FindingsPanel : public QFrame {
    Q_OBJECT
public:
    explicit FindingsPanel(Workroom& room, QWidget* parent = nullptr);
    void refresh();
    /// Notes that were put away as seen are not counted among those to step through.
    [[nodiscard]] bool seen(const Finding& finding) const;
    [[nodiscard]] QTreeWidget* list() const { return list_; }

signals:
    /// The place among the work's findings.
    void chosen(int finding);

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void showEvent(QShowEvent* event) override;

private:
    void fill();
    void mark_seen();
    Workroom& room_;
    QLineEdit* filter_;
    QCheckBox* all_;
    QLabel* says_;
    QTreeWidget* list_;
    std::set<QString> seen_;  ///< sentences in mm: another figure is another note
    Findings shown_;
    Unit unit_ = Unit::mm;
};

}  // namespace orthema::app
