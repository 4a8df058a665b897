#include "app/benches/sheets/shelf_page.h"

#include "app/widgets/speech.h"

#include <QComboBox>

#include <map>

namespace orthema::app {

ShelfPage::ShelfPage(Workroom& room) : room_(room) {
    bare();
    head(tr("Lying there for this order"));
    offered_ = note();
    offered_->setObjectName(QStringLiteral("On the shelf"));
    use_ = push(tr("Use what lies there"), tr("Oldest first; only what is missing is printed. Held for this order from now on"), true);
    add(use_);
    connect(use_, &QPushButton::clicked, this, [this] {
        room_.edit(tr("use the shelf"),
                   with_shelf_used(room_.order(), room_.transfer_set(), room_.stock().stock(), room_.stock().shop().today));
    });
    promised_ = note();
    promised_->setObjectName(QStringLiteral("From the shelf"));
    back_ = push(tr("Print them after all"), tr("What was to come from the shelf goes back there"));
    add(back_);
    connect(back_, &QPushButton::clicked, this, [this] {
        Order next = room_.order();
        for (const FromShelf& f : from_shelf(room_.order(), room_.transfer_set())) next = without_from_shelf(next, f.bag);
        room_.edit(tr("put back on the shelf"), std::move(next));
    });
    near_part_ = part();
    near_part_->head(tr("Nearly as wide as asked"));
    near_which_ = near_part_->choice_row(tr("Bag"), tr("The same design a little narrower or wider"));
    near_which_->setMinimumWidth(170);
    near_ = push(tr("Take that width"), tr("The sizes that asked for the other width are pinned to this one, and use the bag"));
    near_part_->add(near_);
    connect(near_, &QPushButton::clicked, this, [this] {
        const auto& offers = room_.work().supplies().offers;
        const auto at = std::size_t(std::max(0, near_which_->currentData().toString().toInt()));
        if (at >= offers.size()) return;
        room_.edit(tr("width from the shelf"), with_width_of(room_.order(), room_.transfer_set(), offers[at], room_.stock().stock()));
    });
    rule();
    head(tr("Left over"));
    left_ = note();
    left_->setObjectName(QStringLiteral("Left over"));
    lay_ = push(tr("Lay them on the shelf"), tr("Spares that replaced nothing, and fillings, each in its bag"));
    add(lay_);
    connect(lay_, &QPushButton::clicked, this,
            [this] { room_.stock().to_shelf(left_over_transfers(room_.order(), room_.transfer_set())); });
    off_part_ = part();
    off_part_->head(tr("Called off, or printed ahead"));
    job_ = off_part_->choice_row(tr("Job"), tr("Whose transfers lie there unused"));
    called_off_says_ = off_part_->note();
    lay_off_ = push(tr("All of it on the shelf"), tr("Every transfer that was printed for it"));
    off_part_->add(lay_off_);
    connect(job_, &QComboBox::activated, this, [this] { refresh(); });
    connect(lay_off_, &QPushButton::clicked, this, [this] { room_.stock().to_shelf(off(), true); });
    fill();
}

std::vector<LeftOver> ShelfPage::off() const {
    return called_off(room_.order(), room_.transfer_set(), chosen_id(job_), room_.records().of_order(room_.order()).records);
}

void ShelfPage::refresh() {
    const Order& order = room_.order();
    const TransferSet& set = room_.transfer_set();
    const Reading reading = order.unit;
    const Stock& stock = room_.stock().stock();
    const auto& offers = room_.work().supplies().offers;
    std::map<std::string, int> here;  // by transfer, just as asked
    std::vector<std::pair<std::string, QString>> near;
    int all = 0;
    for (std::size_t i = 0; i < offers.size(); ++i) {
        const ShelfOffer& o = offers[i];
        const StockEntry* bag = find_entry(stock, o.bag);
        const Transfer* t = find_transfer(set, o.transfer);
        if (bag == nullptr || t == nullptr) continue;
        if (o.narrower == 0) {
            here[o.transfer] += o.use;
            all += o.use;
        } else {
            near.emplace_back(std::to_string(i), tr("%1 at %2, asked %3")
                                                     .arg(o.free)
                                                     .arg(qt(length_text(Length::from_mm(bag->mark.width), reading)),
                                                          qt(length_text(Length::from_mm(t->width), reading))));
        }
    }
    QStringList lines;
    for (const auto& [transfer, n] : here) lines << QStringLiteral("%1 × %2").arg(n).arg(qt(find_transfer(set, transfer)->name));
    if (lines.size() > 6) lines = lines.mid(0, 5) << tr("and %1 more").arg(lines.size() - 5);
    offered_->setText(all == 0 ? tr("Nothing that is still to be printed lies there.") : lines.join('\n'));
    use_->setEnabled(all > 0);
    int promised = 0;
    for (const FromShelf& f : from_shelf(order, set)) promised += f.copies;
    promised_->setText(tr("%1 from the shelf, and not laid out.").arg(counted(std::size_t(promised), "piece comes", "pieces come")));
    promised_->setVisible(promised > 0);
    back_->setVisible(promised > 0);
    near_part_->setVisible(!near.empty());
    set_items(near_which_, near);
    int left = 0, lying = 0;
    for (const LeftOver& l : left_over_transfers(order, set)) {
        left += l.copies;
        if (const Transfer* t = find_transfer(set, l.transfer))
            if (const StockEntry* e = find_entry(stock, bag_of(order, *t, l, "").id)) lying += int(e->on_hand);
    }
    left_->setText(left == 0
                       ? tr("No spares and no fillings that the shelf could take.")
                       : tr("%1: spares that replaced nothing, and fillings.").arg(counted(std::size_t(left), "transfer")) +
                             (lying > 0 ? tr(" %1 on the shelf already.").arg(counted(std::size_t(lying), "lies", "lie")) : QString()));
    lay_->setEnabled(left > 0 && room_.stock().opened());
    std::vector<std::pair<std::string, QString>> jobs;
    for (const Job& j : order.jobs.all()) jobs.emplace_back(j.id, qt(j.name));
    if (jobs.empty()) jobs.emplace_back("", tr("the whole order"));
    set_items(job_, jobs);
    int here_off = 0;
    for (const LeftOver& l : off()) here_off += l.copies;
    called_off_says_->setText(QStringLiteral("%1.").arg(counted(std::size_t(here_off), "transfer")));
    lay_off_->setEnabled(here_off > 0 && room_.stock().opened());
}

}  // namespace orthema::app
