#include "app/desk/shelf_desk.h"

#include <QFileDialog>
#include <QLabel>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/papers/papers.h"
#include "files/page_export.h"

namespace orthema::app {

ShelfDesk::ShelfDesk(Workroom& room)
    : BinPage(room, tr("Bags"),
              tr("Nothing lies on the shelf. Spares, fillings and what was called off can be laid there from "
                 "the Sheets bench, page Shelf; the next order with the same design takes them first."),
              tr("Finished transfers")) {
    width_ = one_->text_row(tr("Wide"));
    add_on_hand(tr("As they were counted"));
    held_ = one_->text_row(tr("Promised"));
    printed_ = one_->text_row(tr("Printed"));
    until_ = one_->text_row(tr("Press until"));
    add_place(tr("Where the bag is found"));
    from_ = one_->note();
    add_deeds(tr("Throw away"), tr("The bag leaves the shelf; not while some of it is promised"));
    panel_->rule();
    labels_ = push(tr("Labels for the bags…"), tr("A page of labels with codes: what it is, how many, until when"));
    panel_->add(labels_);
    connect(labels_, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("Labels for the shelf"), QStringLiteral("shelf-labels.pdf"), tr("PDF (*.pdf)"));
        if (!path.isEmpty()) print_labels(path);
    });
    note_ = panel_->note();
    panel_->fill();
}

void ShelfDesk::print_labels(const QString& path) {
    std::vector<StockEntry> bags;
    for (const StockEntry& e : room_.stock().stock().entries)
        if (e.kind == StockKind::transfers && e.on_hand > 0) bags.push_back(e);
    if (bags.empty()) return room_.say({tr("No bag lies on the shelf."), true, {}, {}});
    room_.jobs().background([this, path, pages = shelf_labels(bags, room_.order().paper, room_.order().unit)]() -> std::function<void()> {
        const auto done = write_pages(path.toStdString(), pages, {}, spoken("Labels for the shelf"));
        return [this, done, path] { room_.notices().tell(done, tr("Written to %1.").arg(path)); };
    });
}

void ShelfDesk::refresh() {
    const Reading reading = room_.order().unit;
    const std::string& today = room_.stock().shop().today;
    std::map<QString, BinRow> by_order;  // which they were printed with
    std::vector<QString> in_order;
    int past = 0;
    for (const StockEntry& e : room_.stock().stock().entries) {
        if (e.kind != StockKind::transfers) continue;
        Bin bin;
        bin.entry = e;
        bin.name = qt(e.name);
        bin.count = e.on_hand;
        bin.figure = QStringLiteral("%1 × %2").arg(e.on_hand).arg(qt(length_text(Length::from_mm(e.mark.width), reading)));
        const double held = still_held(e);
        if (is_past(e, today)) {
            bin.note = tr("past its time");
            bin.bad = true;
            ++past;
        } else if (held > 0) {
            bin.note = tr("%1 promised").arg(held);
        } else if (!e.until.empty()) {
            bin.note = tr("until %1").arg(qt(e.until));
        }
        const QString from = e.from.empty() ? tr("Of no order") : qt(e.from);
        if (!by_order.contains(from)) {
            in_order.push_back(from);
            by_order[from].title = from;
        }
        by_order[from].bins.push_back(std::move(bin));
    }
    std::vector<BinRow> rows;
    for (const QString& from : in_order) {
        BinRow& row = by_order[from];
        row.beside = counted(row.bins.size(), "bag");
        rows.push_back(std::move(row));
    }
    labels_->setEnabled(!rows.empty());
    wall_->show_rows(std::move(rows));
    note_->setText(past > 0 ? tr("%1 past the time that the film keeps: a test piece first, or throw them away.")
                                  .arg(counted(std::size_t(past), "bag is", "bags are"))
                            : QString());
    show_chosen();
}

void ShelfDesk::show_chosen() {
    const Bin* now = wall_->current();
    one_->setVisible(now != nullptr);
    if (now == nullptr) return;
    const StockEntry& e = now->entry;
    const double held = still_held(e);
    QStringList whose;
    for (const StockShare& s : e.shares)
        if (s.held > s.taken) {
            const KnownOrder* order = room_.orders().find(s.job);
            whose << (order != nullptr ? qt(order->card.name) : s.job == room_.order().job ? qt(room_.order().name) : tr("an order"));
        }
    title_->setText(qt(e.name));
    width_->setText(qt(length_text(Length::from_mm(e.mark.width), room_.order().unit)) + (e.mark.mirrored ? tr(", mirrored") : QString()));
    on_hand_->show_text(QString::number(e.on_hand));
    held_->setText(held > 0 ? tr("%1 to %2").arg(held).arg(whose.join(QStringLiteral(", "))) : tr("none"));
    printed_->setText(qt(e.printed));
    until_->setText(e.until.empty() ? tr("for good") : qt(e.until));
    place_->show_text(qt(e.place));
    from_->setText(e.from.empty() ? QString() : tr("Printed with “%1”.").arg(qt(e.from)));
    spoiled_->setEnabled(e.on_hand >= 1);
    remove_->setEnabled(held == 0);
}

}  // namespace orthema::app
