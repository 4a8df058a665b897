// History: records as rows, the latest first, as many as there are.
#pragma once

#include <QAbstractTableModel>

#include "app/session/workroom.h"

namespace orthema::app {

class HistoryModel : public QAbstractTableModel {
    Q_OBJECT
public:
    HistoryModel(Workroom& room, QObject* parent) : QAbstractTableModel(parent), room_(room) {}
    void show(const std::vector<std::size_t>& which);
    [[nodiscard]] std::size_t record_at(int row) const { return which_[which_.size() - 1 - std::size_t(row)]; }
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : int(which_.size()); }
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation way, int role) const override;

private:
    Workroom& room_;
    std::vector<std::size_t> which_;
};

}  // namespace orthema::app
