#include "app/benches/records/history_model.h"

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

namespace {

const QStringList& heads() {
    static const QStringList all{tr("pressed"), tr("order"),    tr("design"), tr("blank"), tr("size"),  tr("press"),
                                 tr("by"),      tr("came out"), tr("aside"),  tr("low"),   tr("remark")};
    return all;
}

}  // namespace

void HistoryModel::show(const std::vector<std::size_t>& which) {
    beginResetModel();
    which_ = which;
    endResetModel();
}

int HistoryModel::columnCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : int(heads().size()); }

QVariant HistoryModel::headerData(int section, Qt::Orientation way, int role) const {
    if (role != Qt::DisplayRole || way != Qt::Horizontal) return {};
    return heads()[section];
}

QVariant HistoryModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || std::size_t(index.row()) >= which_.size()) return {};
    if (role != Qt::DisplayRole && role != Qt::ToolTipRole) return {};
    const std::size_t at = record_at(index.row());
    if (at >= room_.records().all().size()) return {};
    const PressRecord& r = room_.records().all()[at];
    const Order& order = room_.order();
    const auto off = [&](const std::optional<double>& v) { return v ? figure(*v, 1) : QString(); };
    switch (index.column()) {
    case 0: return qt(r.at.substr(0, 16)).replace('T', ' ');
    case 1: return qt(r.order);
    case 2: {
        const Decoration* d = find_decoration(order, r.design);
        return d == nullptr ? qt(r.design) : qt(d->name);
    }
    case 3: {
        const BlankStyle* s = find_style(order, r.style);
        return s == nullptr ? qt(r.style) : qt(s->name);
    }
    case 4: return qt(r.size);
    case 5: {
        const Press* p = find_press(order, r.press);
        return p == nullptr ? qt(r.press) : qt(p->name);
    }
    case 6: return qt(r.hands);
    case 7: return said(outcome_name(r.outcome));
    case 8: return off(r.landing ? r.landing->aside : std::nullopt);
    case 9: return off(r.landing ? r.landing->down : std::nullopt);
    default: return qt(r.remark);
    }
}

}  // namespace orthema::app
