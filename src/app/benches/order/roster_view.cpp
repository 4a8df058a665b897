#include "app/benches/order/roster_view.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QTableWidget>

#include "app/widgets/speech.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "app/widgets/theme.h"
#include "core/order/roster.h"

namespace orthema::app {

namespace {

enum Cell { size_cell, pieces_cell, number_cell, name_cell, note_cell, cells };
constexpr int longest = 120;  ///< letters of a name

}  // namespace

RosterView::RosterView(Workroom& room) : room_(room) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    runs_ = new ChipRow(tr("Lots"));
    runs_->chosen = [this](const std::string& id) {
        const auto runs = room_.runs();
        const auto at = std::size_t(std::stoul(id));
        if (at >= runs.size()) return;
        Selection s = room_.selection();
        s.run = runs[at];
        s.person = -1;
        room_.select(s);
    };
    column->addWidget(runs_);
    auto* row = new QHBoxLayout;
    says_ = new QLabel;
    says_->setProperty("quiet", true);
    says_->setWordWrap(true);
    row->addWidget(says_, 1);
    each_ = push(tr("A row for each piece"), tr("Every garment of this lot gets a row of its own, to be named"));
    paste_ = push(tr("Paste persons"), tr("One a line: name, number and size, parted by tabs or commas, in any order (Ctrl+V)"));
    row->addWidget(each_);
    row->addWidget(paste_);
    column->addLayout(row);
    grid_ = new QTableWidget(0, cells);
    grid_->setObjectName(QStringLiteral("Roster"));
    grid_->setAccessibleName(tr("Roster: who wears which garment"));
    grid_->setHorizontalHeaderLabels({tr("Size"), tr("Pieces"), tr("Number"), tr("Name"), tr("For, or a note")});
    grid_->verticalHeader()->setDefaultSectionSize(28);
    grid_->verticalHeader()->setFixedWidth(34);
    grid_->horizontalHeader()->setSectionResizeMode(QHeaderView::Interactive);
    grid_->horizontalHeader()->setStretchLastSection(true);
    for (const auto& [cell, wide] : {std::pair{size_cell, 80}, {pieces_cell, 70}, {number_cell, 90}, {name_cell, 260}})
        grid_->setColumnWidth(cell, wide);
    grid_->setSelectionMode(QAbstractItemView::SingleSelection);
    grid_->setCornerButtonEnabled(false);
    grid_->installEventFilter(this);
    column->addWidget(grid_, 1);
    // once the cell's editor is gone: rows may come and go with what was typed
    connect(grid_, &QTableWidget::cellChanged, this, [this](int r, int c) {
        if (!filling_)
            QMetaObject::invokeMethod(
                this, [this, r, c] { take_cell(r, c); }, Qt::QueuedConnection);
    });
    connect(grid_, &QTableWidget::currentCellChanged, this, [this](int r) {
        if (filling_ || r < 0 || std::size_t(r) >= lines_.size()) return;
        const OrderLine& line = room_.order().lines.all()[lines_[std::size_t(r)]];
        Selection s = room_.selection();
        s.size = line.size;
        s.person = is_person(line) ? int(lines_[std::size_t(r)]) : -1;
        room_.select(s);
    });
    connect(each_, &QPushButton::clicked, this,
            [this] { room_.edit(tr("a row for each piece"), with_rows_for_each(room_.order(), room_.selection().run)); });
    connect(paste_, &QPushButton::clicked, this, [this] { take_text(QApplication::clipboard()->text()); });
}

bool RosterView::eventFilter(QObject* watched, QEvent* event) {
    if (watched == grid_ && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->matches(QKeySequence::Paste)) {
            take_text(QApplication::clipboard()->text());
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

void RosterView::take_text(const QString& text) {
    if (text.size() > 2'000'000) return room_.notices().complain(tr("That is over two million letters: bring it in as a list."));
    PastedRoster taken = with_roster_text(room_.order(), room_.selection().run, text.toStdString());
    if (taken.taken == 0)
        return room_.notices().complain(tr("Nobody was found in what was copied: copy one person a line, with name, number and size."));
    room_.edit(tr("paste persons"), std::move(taken.order));
    QString left;
    for (std::size_t i = 0; i < std::min<std::size_t>(3, taken.left.size()); ++i) left += (i == 0 ? "" : "; ") + qt(taken.left[i]);
    if (taken.left.empty())
        room_.notices().say(tr("%1 came in.").arg(counted(std::size_t(taken.taken), "person")));
    else
        room_.notices().complain(
            tr("%1 came in; no nameless garment was left for: %2%3")
                .arg(counted(std::size_t(taken.taken), "person"), left, taken.left.size() > 3 ? QStringLiteral(" …") : QString()));
}

void RosterView::take_cell(int row, int column) {
    if (filling_ || row < 0 || std::size_t(row) >= lines_.size()) return;
    const std::size_t at = lines_[std::size_t(row)];
    const OrderLine& line = room_.order().lines.all()[at];
    const QString text = grid_->item(row, column)->text().trimmed();
    const auto refuse = [&](const QString& why) {
        room_.notices().complain(why);
        show_rows();
    };
    if (text.size() > longest) return refuse(tr("A name has up to %1 letters.").arg(longest));
    const std::string typed = text.toStdString();
    if (column == number_cell || column == name_cell) {
        const std::string name = column == name_cell ? typed : line.name, number = column == number_cell ? typed : line.number;
        if (name == line.name && number == line.number) return;
        return room_.edit(tr("who wears it"), with_person(room_.order(), at, name, number));
    }
    Order next = room_.order();
    if (column == size_cell) {
        const BlankStyle* style = find_style(next, line.style);
        if (style == nullptr || size_index(*style, typed) < 0)
            return refuse(tr("%1 has no size %2.").arg(style == nullptr ? QString() : qt(style->name), text));
        next = with_size_of(next, at, typed);
    } else if (column == note_cell) {
        next.lines.own()[at].note = typed;
    }
    room_.edit(tr("roster"), std::move(next));
}

void RosterView::refresh() {
    const auto runs = room_.runs();
    std::vector<Chip> chips;
    std::string now;
    for (std::size_t i = 0; i < runs.size(); ++i) {
        int persons = 0;
        for (const OrderLine& l : room_.order().lines.all()) persons += run_of(l) == runs[i] && is_person(l) ? l.quantity : 0;
        chips.push_back(
            {std::to_string(i),
             qt(run_name(room_.order(), runs[i])),
             persons > 0 ? counted(std::size_t(persons), "person") : counted(std::size_t(garments_in(room_.order(), runs[i])), "piece"),
             Standing::settled,
             {}});
        if (runs[i] == room_.selection().run) now = std::to_string(i);
    }
    runs_->show_chips(chips, now);
    show_rows();
}

void RosterView::show_rows() {
    filling_ = true;
    const Order& order = room_.order();
    const RunKey& run = room_.selection().run;
    lines_.clear();
    const auto& lines = order.lines.all();
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (run_of(lines[i]) == run && lines[i].quantity > 0) lines_.push_back(i);
    const BlankStyle* style = find_style(order, run.style);
    std::stable_sort(lines_.begin(), lines_.end(), [&](std::size_t a, std::size_t b) {
        return style != nullptr && size_index(*style, lines[a].size) < size_index(*style, lines[b].size);
    });
    std::map<std::string, int> numbers;
    int named = 0, all = 0;
    bool together = false;
    for (const std::size_t i : lines_) {
        ++numbers[lines[i].number];
        all += lines[i].quantity;
        if (is_person(lines[i]))
            named += lines[i].quantity;
        else
            together = together || lines[i].quantity > 1;
    }
    grid_->setRowCount(int(lines_.size()));
    int current = -1;
    for (int r = 0; r < int(lines_.size()); ++r) {
        const OrderLine& l = lines[lines_[std::size_t(r)]];
        const std::string texts[cells] = {l.size, std::to_string(l.quantity), l.number, l.name, l.note};
        const bool twice = !l.number.empty() && numbers[l.number] > 1;
        for (int c = 0; c < cells; ++c) {
            QTableWidgetItem* item = grid_->item(r, c);
            if (item == nullptr) grid_->setItem(r, c, item = new QTableWidgetItem);
            if (item->text() != qt(texts[c])) item->setText(qt(texts[c]));
            item->setFlags(c == pieces_cell ? Qt::ItemIsEnabled | Qt::ItemIsSelectable
                                            : Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
            if (c == pieces_cell || c == number_cell) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            const bool bad = c == number_cell && twice;
            item->setForeground(to_qt(bad ? palette::carmine : palette::ink));
            item->setToolTip(bad ? tr("This number stands twice in the lot") : QString());
        }
        if (int(lines_[std::size_t(r)]) == room_.selection().person) current = r;
    }
    if (current >= 0 && grid_->currentRow() != current) grid_->setCurrentCell(current, std::max(0, grid_->currentColumn()));
    says_->setText(all == 0      ? tr("Nothing of this lot is ordered.")
                   : named == 0  ? tr("Nobody is named yet. Type a name or number: one garment of the row is parted off for it.")
                   : named < all ? tr("%1 of %2 garments are somebody's.").arg(named).arg(all)
                                 : tr("Each of the %1 garments is somebody's.").arg(all));
    each_->setEnabled(together);
    filling_ = false;
}

}  // namespace orthema::app
