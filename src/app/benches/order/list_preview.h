// The preview of a list from a web shop: which column means what, what comes in, and what is kept out and why.
#pragma once

#include <QDialog>

#include "app/session/workroom.h"
#include "files/csv.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace orthema::app {

class ListPreview : public QDialog {
    Q_OBJECT
public:
    ListPreview(Workroom& room, const QString& file, Table table, QWidget* parent = nullptr);
    [[nodiscard]] QComboBox* column(int index) const { return choices_[std::size_t(index)]; }
    [[nodiscard]] QPushButton* accept_button() const { return take_; }
    [[nodiscard]] const LineImport& result() const { return import_; }

private:
    void read();
    Workroom& room_;
    Table table_;
    std::vector<QComboBox*> choices_;
    LineImport import_;
    QLabel *says_, *out_;
    QTableWidget* bad_;
    QPushButton* take_;
    int round_ = 0;
};

}  // namespace orthema::app
