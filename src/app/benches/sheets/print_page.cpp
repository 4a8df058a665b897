#include "app/benches/sheets/print_page.h"

#include <QCheckBox>
#include <QComboBox>

#include "app/widgets/speech.h"
#include "app/benches/sheets/ribbon_sheets.h"

namespace orthema::app {

PrintPage::PrintPage(Workroom& room) : room_(room) {
    bare();
    head(tr("Simulated film printer"));
    sheets_ = choice_row(tr("Sheet"), tr("A sheet, or a run of the roll"));
    connect(sheets_, &QComboBox::activated, this, [this](int) { refresh(); });
    dpi_ = choice_row(tr("Pixels an inch"), tr("Finer takes longer"));
    set_items(dpi_, {{"300", QStringLiteral("300")}, {"600", QStringLiteral("600")}, {"720", QStringLiteral("720")}}, "300");
    mirrors_ = tick(tr("The printer mirrors by itself"), tr("Then the program must not: a sheet that is mirrored twice is refused"));
    fails_ = tick(tr("Rehearse a failure"),
                  tr("It stops midway, as on a blocked nozzle: whole pieces count as printed, the rest is settled again"));
    connect(fails_, &QCheckBox::toggled, this, [this] { refresh(); });
    after_ = length_row(tr("It stops after"), tr("Length printed until then"));
    after_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 1) return tr("At least 1 mm.");
        fails_after_ = l;
        refresh();
        return std::nullopt;
    };
    print_ = push(tr("Print this sheet"), tr("Checks width, margin and mirror, and says time and ink"));
    connect(print_, &QPushButton::clicked, this, [this] {
        const Sheet* s = sheet();
        if (s == nullptr) return;
        PrinterSetup setup;
        setup.mirrors = mirrors_->isChecked();
        if (fails_->isChecked()) setup.fails_after = fails_after_;
        room_.devices().print_sheet(*s, setup, dpi_->currentData().toString().toDouble());
    });
    add(print_);
    printed_ = note();
    again_ = push(tr("Print all of it anew"), tr("What was counted as printed is asked for again"));
    connect(again_, &QPushButton::clicked, this, [this] {
        MediumLayout layout = layout_of(room_.order(), room_.selection().medium);
        std::erase_if(layout.printed, [](const PrintedCopies& p) { return p.bag.empty(); });  // what lies on the shelf is not asked for
        room_.edit(tr("print anew"), with_layout(room_.order(), std::move(layout)));
    });
    add(again_);
    rule();
    head(tr("Simulated cutter"));
    cut_ = push(tr("Cut this sheet"), tr("Follows the plotter's file and looks whether a line crosses ink"));
    connect(cut_, &QPushButton::clicked, this, [this] {
        if (const Sheet* s = sheet()) room_.devices().cut_sheet(*s);
    });
    add(cut_);
    rule();
    says_ = note();
    says_->setObjectName(QStringLiteral("Device says"));
    fill();
}

const Sheet* PrintPage::sheet() const {
    if (const MediumPlan* plan = plan_of(room_); plan != nullptr && !plan->stale)
        for (const Sheet& s : plan->sheets)
            if (std::to_string(s.number) == sheets_->currentData().toString().toStdString()) return &s;
    return nullptr;
}

void PrintPage::refresh() {
    std::vector<std::pair<std::string, QString>> items;
    if (const MediumPlan* plan = plan_of(room_))
        for (const Sheet& s : plan->sheets)
            items.emplace_back(std::to_string(s.number),
                               QStringLiteral("%1, %2").arg(QString::number(s.number + 1), counted(s.copies.size(), "piece")));
    set_items(sheets_, items);
    after_->show_length(fails_after_, room_.order().unit);
    after_->setEnabled(fails_->isChecked());
    print_->setEnabled(sheet() != nullptr);
    const Medium* m = medium_of(room_);
    cut_->setEnabled(sheet() != nullptr && m != nullptr && m->laying.cutting == Cutting::contour);
    int printed = 0;
    for (const PrintedCopies& p : layout_of(room_.order(), room_.selection().medium).printed) printed += p.bag.empty() ? p.copies : 0;
    printed_->setText(printed == 0
                          ? QString()
                          : tr("%1 printed already and not laid out again.").arg(counted(std::size_t(printed), "piece is", "pieces are")));
    printed_->setVisible(printed > 0);
    again_->setVisible(printed > 0);
    says_->setText(room_.devices().says());
}

}  // namespace orthema::app
