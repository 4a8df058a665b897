#include "app/benches/order/list_preview.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>

#include "app/widgets/figures.h"
#include "core/order/edit.h"

namespace orthema::app {

namespace {

constexpr std::array<Column, 6> meanings = {Column::none, Column::blank, Column::colour, Column::size, Column::quantity, Column::note};
constexpr int rows_shown = 40;

QTableWidgetItem* item(const std::string& text) {
    auto* i = new QTableWidgetItem(qt(text));
    i->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    return i;
}

}  // namespace

ListPreview::ListPreview(Workroom& room, const QString& file, Table table, QWidget* parent)
    : QDialog(parent), room_(room), table_(std::move(table)) {
    setObjectName(QStringLiteral("List preview"));
    setWindowTitle(QStringLiteral("Bring in %1").arg(file));
    resize(860, 620);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(18, 14, 18, 14);
    auto* title = new QLabel(QStringLiteral("What each column means"));
    title->setProperty("head", true);
    rows->addWidget(title);

    auto* grid = new QTableWidget(std::min(rows_shown, int(table_.rows.size())) + 1, int(table_.header.size()));
    QStringList header;
    for (const std::string& h : table_.header) header << qt(h);
    grid->setHorizontalHeaderLabels(header);
    grid->verticalHeader()->hide();
    grid->setAccessibleName(QStringLiteral("The list's first rows"));
    const auto guess = guess_columns(table_, room.order().styles);
    for (int c = 0; c < int(table_.header.size()); ++c) {
        auto* choice = new QComboBox;
        for (const Column m : meanings) choice->addItem(QString::fromLatin1(column_name(m)));
        choice->setAccessibleName(QStringLiteral("Meaning of column %1").arg(header[c]));
        choice->setCurrentIndex(int(std::find(meanings.begin(), meanings.end(), guess[std::size_t(c)]) - meanings.begin()));
        connect(choice, &QComboBox::currentIndexChanged, this, &ListPreview::read);
        grid->setCellWidget(0, c, choice);
        choices_.push_back(choice);
        for (int r = 1; r < grid->rowCount(); ++r) {
            const auto& row = table_.rows[std::size_t(r - 1)];
            if (std::size_t(c) < row.size()) grid->setItem(r, c, item(row[std::size_t(c)]));
        }
    }
    grid->setRowHeight(0, 30);
    grid->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    rows->addWidget(grid, 3);

    says_ = new QLabel;
    says_->setObjectName(QStringLiteral("Import says"));
    says_->setProperty("strong", true);
    rows->addWidget(says_);
    out_ = new QLabel;
    out_->setProperty("caution", true);
    rows->addWidget(out_);
    bad_ = new QTableWidget(0, 3);
    bad_->setHorizontalHeaderLabels({QStringLiteral("Row"), QStringLiteral("Why it is kept out"), QStringLiteral("What it says")});
    bad_->verticalHeader()->hide();
    bad_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    bad_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
    bad_->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);
    bad_->setAccessibleName(QStringLiteral("Rows kept out"));
    rows->addWidget(bad_, 2);

    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    auto* leave = push(QStringLiteral("Leave it"), QStringLiteral("Close without bringing anything in"));
    take_ = push(QStringLiteral("Bring in"), QStringLiteral("Adds the lines to the order; undo takes them out again"), true);
    buttons->addWidget(leave);
    buttons->addWidget(take_);
    rows->addLayout(buttons);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(take_, &QPushButton::clicked, this, [this, file] {
        room_.edit(QStringLiteral("bring in %1").arg(file), with_lines(room_.order(), import_.lines));
        accept();
    });
    read();
}

/// Long lists take a moment: they are read beside, and only the latest answer counts.
void ListPreview::read() {
    std::vector<Column> columns;
    for (const QComboBox* c : choices_) columns.push_back(meanings[std::size_t(c->currentIndex())]);
    const int round = ++round_;
    take_->setEnabled(false);
    const QPointer<ListPreview> self(this);
    room_.jobs().background([self, round, columns, table = table_, styles = room_.order().styles]() -> std::function<void()> {
        const auto import = std::make_shared<LineImport>(import_lines(table, columns, styles));
        return [self, round, import] {
            if (!self || self->round_ != round) return;
            self->import_ = std::move(*import);
            const LineImport& in = self->import_;
            self->says_->setText(QStringLiteral("%1 lines come in, %2 garments.").arg(in.lines.size()).arg(in.garments));
            self->out_->setText(in.bad.empty() ? QStringLiteral("No row is kept out.")
                                               : QStringLiteral("%1 rows are kept out:").arg(in.bad.size()));
            const int n = int(std::min<std::size_t>(in.bad.size(), 500));
            self->bad_->setRowCount(n);
            for (int r = 0; r < n; ++r) {
                const BadRow& b = in.bad[std::size_t(r)];
                self->bad_->setItem(r, 0, item(std::to_string(b.row)));
                self->bad_->setItem(r, 1, item(b.reason));
                self->bad_->setItem(r, 2, item(b.text));
            }
            self->take_->setEnabled(!in.lines.empty());
            self->take_->setText(QStringLiteral("Bring in %1 lines").arg(in.lines.size()));
        };
    });
}

}  // namespace orthema::app
