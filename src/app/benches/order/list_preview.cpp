#include "app/benches/order/list_preview.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QTableWidget>

#include "app/widgets/choice_box.h"
#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

namespace {

constexpr std::array<Column, 10> meanings = {Column::none, Column::blank,     Column::colour,  Column::size,   Column::quantity,
                                             Column::note, Column::reference, Column::of_size, Column::person, Column::number};
constexpr int rows_shown = 40;
constexpr std::size_t bad_shown = 500, changes_shown = 6;

QTableWidgetItem* item(const std::string& text) {
    auto* i = new QTableWidgetItem(qt(text));
    i->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable);
    i->setToolTip(qt(text));
    return i;
}

/// A box that says something once: keys and the wheel open it rather than step through what it offers.
class OpeningBox : public ChoiceBox {
protected:
    void keyPressEvent(QKeyEvent* event) override {
        const bool steps =
            event->key() == Qt::Key_Up || event->key() == Qt::Key_Down || event->key() == Qt::Key_Space || event->key() == Qt::Key_Return;
        steps ? showPopup() : event->ignore();
    }
    void wheelEvent(QWheelEvent* event) override { event->ignore(); }
};

/// "Adult tee, ash M 12 → 14".
QString change_text(const Order& order, const CountChange& c) {
    return qt(run_name(order, c.run)) + " " + qt(c.size) + QStringLiteral(" %1\u00a0→\u00a0%2").arg(c.before).arg(c.after);
}

}  // namespace

ListPreview::ListPreview(Workroom& room, const QString& file, std::vector<NamedTable> tables, QWidget* parent)
    : QDialog(parent), room_(room), file_(file), tables_(std::move(tables)), words_(room.library().content().words) {
    setObjectName(QStringLiteral("List preview"));
    setWindowTitle(tr("Bring in %1").arg(file));
    resize(900, 640);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(18, 14, 18, 14);
    auto* head = new QHBoxLayout;
    head->addWidget(head_label(tr("What each column means")));
    head->addStretch(1);
    if (tables_.size() > 1) {
        auto* sheet = new ChoiceBox;
        sheet->setObjectName(QStringLiteral("Sheet of the list"));
        sheet->setAccessibleName(tr("Sheet of the list"));
        for (const NamedTable& t : tables_) sheet->addItem(qt(t.name));
        connect(sheet, &QComboBox::currentIndexChanged, this, [this](int i) {
            sheet_ = i;
            show_columns();
        });
        head->addWidget(sheet);
    }
    rows->addLayout(head);
    grid_ = new QTableWidget;
    grid_->verticalHeader()->hide();
    grid_->setAccessibleName(tr("The list's first rows"));
    rows->addWidget(grid_, 3);

    how_ = new Segments(tr("Taking in"), {tr("Add to the order"), tr("In place of its lines"), tr("Bring up to date")});
    how_->button(0)->setToolTip(tr("Behind what is there"));
    how_->button(1)->setToolTip(tr("All lines go that are there now; designs stay"));
    how_->button(2)->setToolTip(tr("By the list's order numbers, or names: what changed changes, what was taken back goes"));
    how_->chosen = [this](int) { show_result(); };
    how_->setVisible(!room.order().lines.empty());
    how_->show_choice(0);
    rows->addWidget(how_);
    const auto label = [&](const char* name, const char* property) {
        auto* l = new QLabel;
        l->setObjectName(QString::fromLatin1(name));
        l->setProperty(property, true);
        l->setWordWrap(true);
        rows->addWidget(l);
        return l;
    };
    says_ = label("Import says", "strong");
    changes_ = label("Import changes", "quiet");
    out_ = label("Import keeps out", "caution");
    bad_ = new QTableWidget(0, 4);
    bad_->setObjectName(QStringLiteral("Rows kept out"));
    bad_->setHorizontalHeaderLabels({tr("Row"), tr("Why it is kept out"), tr("What it says"), tr("What it means")});
    bad_->verticalHeader()->hide();
    bad_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    for (const int c : {1, 2}) bad_->horizontalHeader()->setSectionResizeMode(c, QHeaderView::Stretch);
    bad_->horizontalHeader()->setSectionResizeMode(3, QHeaderView::Fixed);
    bad_->setColumnWidth(3, 190);
    bad_->setAccessibleName(tr("Rows kept out"));
    rows->addWidget(bad_, 2);

    auto* buttons = new QHBoxLayout;
    buttons->addStretch(1);
    auto* leave = push(tr("Leave it"), tr("Close without bringing anything in"));
    take_ = push(tr("Bring in"), tr("The lines come into the order; undo takes them out again"), true);
    buttons->addWidget(leave);
    buttons->addWidget(take_);
    rows->addLayout(buttons);
    connect(leave, &QPushButton::clicked, this, &QDialog::reject);
    connect(take_, &QPushButton::clicked, this, &ListPreview::take);
    show_columns();
}

void ListPreview::show_columns() {
    const Table& t = table();
    choices_.clear();
    grid_->clear();
    grid_->setRowCount(std::min(rows_shown, int(t.rows.size())) + 1);
    grid_->setColumnCount(int(t.header.size()));
    QStringList header;
    for (const std::string& h : t.header) header << qt(h);
    grid_->setHorizontalHeaderLabels(header);
    const auto guess = guess_columns(t, room_.order().styles);
    for (int c = 0; c < int(t.header.size()); ++c) {
        auto* choice = new ChoiceBox;
        for (const Column m : meanings) choice->addItem(said(column_name(m)));
        choice->setAccessibleName(tr("Meaning of column %1").arg(header[c]));
        choice->setCurrentIndex(int(std::find(meanings.begin(), meanings.end(), guess[std::size_t(c)]) - meanings.begin()));
        connect(choice, &QComboBox::currentIndexChanged, this, &ListPreview::read);
        grid_->setCellWidget(0, c, choice);
        choices_.push_back(choice);
        for (int r = 1; r < grid_->rowCount(); ++r) {
            const auto& row = t.rows[std::size_t(r - 1)];
            if (std::size_t(c) < row.size()) grid_->setItem(r, c, item(row[std::size_t(c)]));
        }
    }
    grid_->setRowHeight(0, 30);
    grid_->horizontalHeader()->setSectionResizeMode(t.header.size() > 9 ? QHeaderView::ResizeToContents : QHeaderView::Stretch);
    read();
}

/// Long lists take a moment: they are read beside, and only the latest answer counts.
void ListPreview::read() {
    std::vector<Column> columns;
    for (const QComboBox* c : choices_) columns.push_back(meanings[std::size_t(c->currentIndex())]);
    const int round = ++round_;
    take_->setEnabled(false);
    const QPointer<ListPreview> self(this);
    room_.jobs().background(
        [self, round, columns, table = table(), styles = room_.order().styles, words = words_, mends = mends_]() -> std::function<void()> {
            const auto import = std::make_shared<LineImport>(import_lines(table, columns, styles, words, mends));
            return [self, round, import] {
                if (!self || self->round_ != round) return;
                self->import_ = std::move(*import);
                // a list with numbers that the order knows is its newer state
                const auto& lines = self->room_.order().lines.all();
                const bool known = std::any_of(self->import_.lines.begin(), self->import_.lines.end(), [&](const OrderLine& in) {
                    return !in.ref.empty() && std::any_of(lines.begin(), lines.end(), [&](const OrderLine& l) { return l.ref == in.ref; });
                });
                if (known && round == 1) self->how_->show_choice(2);
                self->show_result();
                self->show_bad();
            };
        });
}

void ListPreview::show_result() {
    QString says =
        tr("%1 in, %2.").arg(counted(import_.lines.size(), "line comes", "lines come"), counted(std::size_t(import_.garments), "garment"));
    if (import_.filled > 0)
        says += tr(" %1 blank from the row above.").arg(counted(std::size_t(import_.filled), "row takes its", "rows take their"));
    QStringList off;
    for (const TotalRow& t : import_.totals)
        if (t.says != t.sum) off << tr("row %1 gives %2 in all, and %3 came in").arg(t.row).arg(t.says).arg(t.sum);
    if (!import_.totals.empty() && off.empty()) says += tr(" The list's own total agrees.");
    if (!off.empty()) says += tr(" It does not add up: %1.").arg(off.join(QStringLiteral("; ")));
    if (import_.bad.empty()) says += tr(" No row is kept out.");
    says_->setText(says);
    QStringList changes;
    const Order& order = room_.order();
    std::size_t more = 0;
    if (!order.lines.empty()) {
        for (const CountChange& c : list_changes(order, with_list(order, import_.lines, Intake(how_->choice())))) {
            if (changes.size() < int(changes_shown))
                changes << change_text(order, c);
            else
                ++more;
        }
    }
    changes_->setVisible(!order.lines.empty());
    changes_->setText(changes.isEmpty() ? tr("Nothing changes.")
                                        : tr("Changes: ") + changes.join(QStringLiteral(" · ")) +
                                              (more > 0 ? tr(" · and %1 more").arg(more) : QString()));
    take_->setEnabled(!import_.lines.empty());
    take_->setText(tr("Bring in %1").arg(counted(import_.lines.size(), "line")));
}

void ListPreview::show_bad() {
    out_->setText(tr("%1 kept out. Choose what it means, or bring in the others:").arg(counted(import_.bad.size(), "row is", "rows are")));
    out_->setVisible(!import_.bad.empty());
    bad_->setVisible(!import_.bad.empty());
    const int n = int(std::min(import_.bad.size(), bad_shown));
    bad_->setRowCount(n);
    for (int r = 0; r < n; ++r) {
        const BadRow& b = import_.bad[std::size_t(r)];
        bad_->setItem(r, 0, item(std::to_string(b.row)));
        bad_->setItem(r, 1, item(refusal(b.reason).toStdString()));
        bad_->setItem(r, 2, item(b.text));
        bad_->removeCellWidget(r, 3);
        if (QWidget* w = mending(b)) bad_->setCellWidget(r, 3, w);
    }
}

QWidget* ListPreview::mend(int row) const { return bad_->cellWidget(row, 3); }

QWidget* ListPreview::mending(const BadRow& b) {
    // what is chosen reads the list anew, and this box goes with its row: not while it still speaks
    const auto later = [this] { QMetaObject::invokeMethod(this, &ListPreview::read, Qt::QueuedConnection); };
    if (b.lacks == BadRow::Lacks::quantity) {
        auto* field = new NumberField(tr("Quantity of row %1").arg(b.row), 1, 100000, 0);
        field->setPlaceholderText(tr("how many"));
        field->entered = [this, later, row = b.row](double q) {
            mends_.quantities[row] = int(q);
            later();
        };
        return field;
    }
    if (b.lacks == BadRow::Lacks::nothing) return nullptr;
    const bool blank = b.lacks == BadRow::Lacks::blank;
    auto* box = new OpeningBox;
    box->setAccessibleName(tr("What row %1 means").arg(b.row));
    box->addItem(blank ? tr("choose its blank …") : tr("choose its size …"));
    for (const BlankStyle& s : room_.order().styles) {
        if (blank && !s.archived) box->addItem(qt(s.name), qt(s.id));
        if (!blank && s.id == b.style)
            for (const std::string& size : s.sizes) box->addItem(qt(size), qt(size));
    }
    if (box->count() < 2) {
        delete box;
        return nullptr;
    }
    connect(box, &QComboBox::activated, this, [this, box, later, blank, row = b.row, wording = said_as(b.wording)](int i) {
        if (i == 0) return;
        const std::string means = box->itemData(i).toString().toStdString();
        if (wording.empty())  // nothing that could be learned: for this row alone
            (blank ? mends_.blanks : mends_.sizes)[row] = means;
        else
            for (ShopWords* w : {&words_, &learned_}) (blank ? w->blanks : w->sizes)[wording] = means;
        later();
    });
    return box;
}

void ListPreview::take() {
    Order next = with_list(room_.order(), import_.lines, room_.order().lines.empty() ? Intake::add : Intake(how_->choice()));
    next.kept_out = kept_out(import_, next.unit);
    if (room_.order().lines.empty() && next.name == spoken("New order")) {  // by the list's own title, or its file's
        const std::vector<std::string>& above = table().above;
        const QString title = above.empty() ? QFileInfo(file_).completeBaseName() : qt(above.front());
        if (!title.trimmed().isEmpty()) next.name = title.trimmed().left(80).toStdString();
    }
    room_.edit(tr("bring in %1").arg(file_), std::move(next));
    room_.library().learn(learned_);
    accept();
}

}  // namespace orthema::app
