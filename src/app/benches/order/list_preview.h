// The preview of a list: which column means what, what comes in, what is kept out and why, and how it is taken in. What a
// wording means is chosen beside the row that is kept out, once for all rows that say the same.
#pragma once

#include <QDialog>

#include "app/session/workroom.h"
#include "core/order/intake.h"
#include "files/list.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTableWidget;

namespace orthema::app {

class Segments;

class ListPreview : public QDialog {
    Q_OBJECT
public:
    ListPreview(Workroom& room, const QString& file, std::vector<NamedTable> tables, QWidget* parent = nullptr);
    [[nodiscard]] QComboBox* column(int index) const { return choices_[std::size_t(index)]; }
    [[nodiscard]] QPushButton* accept_button() const { return take_; }
    [[nodiscard]] const LineImport& result() const { return import_; }
    /// What mends a row that is kept out: a box of blanks or sizes, or a field for its quantity; null where nothing does.
    [[nodiscard]] QWidget* mend(int row) const;

private:
    void show_columns();
    void read();
    void show_result();
    void show_bad();
    QWidget* mending(const BadRow& row);
    void take();
    [[nodiscard]] const Table& table() const { return tables_[std::size_t(sheet_)].table; }
    Workroom& room_;
    QString file_;
    std::vector<NamedTable> tables_;
    int sheet_ = 0;
    std::vector<QComboBox*> choices_;
    LineImport import_;
    ShopWords words_, learned_;
    RowMends mends_;
    QTableWidget* grid_;
    Segments* how_;
    QLabel *says_, *changes_, *out_;
    QTableWidget* bad_;
    QPushButton* take_;
    int round_ = 0;
};

}  // namespace orthema::app
