#include "app/desk/buy_desk.h"

#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>

#include "app/widgets/speech.h"
#include "app/desk/bin_page.h"
#include "app/widgets/figures.h"

namespace orthema::app {

BuyDesk::BuyDesk(Workroom& room) : room_(room) {
    table_ = new QTableWidget;
    table_->setObjectName(QStringLiteral("To buy list"));
    table_->setAccessibleName(tr("What is to be bought for all open orders"));
    table_->setColumnCount(6);
    table_->setHorizontalHeaderLabels({tr("What"), tr("Wanted"), tr("For spoilage"), tr("On hand"), tr("To buy"), tr("For")});
    table_->verticalHeader()->hide();
    table_->setShowGrid(false);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->horizontalHeader()->setStretchLastSection(true);
    constexpr int name_wide = 180, figure_wide = 70;
    table_->setColumnWidth(0, name_wide);
    for (int c = 1; c < 5; ++c) table_->setColumnWidth(c, figure_wide);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(table_, 1);
    panel_ = new FigurePanel;
    panel_->head(tr("To buy"));
    lacks_ = panel_->title();
    note_ = panel_->note();
    note_->setText(
        tr("What all orders on the desk still want, less what lies there. Blanks with so many more as are usually spoiled, where records "
           "say how many. Only what is counted can be lacking."));
    out_ = push(tr("As a table…"), tr("CSV, for the supplier's order"), true);
    panel_->add(out_);
    connect(out_, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("What to buy"), QStringLiteral("to-buy.csv"), tr("CSV (*.csv)"));
        if (!path.isEmpty()) room_.stock().export_to(path, true);
    });
    panel_->fill();
    connect(&room_.stock(), &StockRoom::changed, this, [this] {
        if (isVisible()) refresh();
    });
}

void BuyDesk::refresh() {
    const std::vector<ToBuy>& rows = room_.stock().buying();
    const Reading reading = room_.order().unit;
    table_->setUpdatesEnabled(false);
    table_->setRowCount(int(rows.size()));
    std::size_t lacking = 0;
    for (int r = 0; r < int(rows.size()); ++r) {
        const ToBuy& b = rows[std::size_t(r)];
        StockEntry kind;
        kind.kind = b.kind;
        const auto amount = [&](double n) { return n <= 0 ? QStringLiteral("–") : count_text(kind, n, reading); };
        QStringList orders;
        for (const std::string& o : b.orders) orders << qt(o);
        const QString whose = orders.size() == 1 ? orders.front() : counted(std::size_t(orders.size()), "order");
        const QStringList cells{qt(b.name), amount(b.asked), amount(b.spare), count_text(kind, b.on_hand, reading), amount(b.lacking),
                                whose};
        for (int c = 0; c < cells.size(); ++c) {
            auto* item = new QTableWidgetItem(cells[c]);
            if (c > 0 && c < 5) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (b.lacking > 0 && (c == 4 || c == 0)) {
                QFont font = table_->font();
                font.setBold(true);
                item->setFont(font);
            }
            item->setToolTip(some(orders));
            table_->setItem(r, c, item);
        }
        lacking += b.lacking > 0 ? 1 : 0;
    }
    table_->setUpdatesEnabled(true);
    lacks_->setText(rows.empty()   ? tr("Nothing is counted that an order wants")
                    : lacking == 0 ? tr("Nothing is lacking")
                                   : tr("%1 lacking").arg(counted(lacking, "thing is", "things are")));
    out_->setEnabled(!rows.empty());
}

}  // namespace orthema::app
