#include "app/benches/fit/person_row.h"

#include <QComboBox>
#include <QHBoxLayout>

#include "app/widgets/speech.h"
#include "core/order/edit.h"
#include "core/order/roster.h"

namespace orthema::app {

PersonRow::PersonRow(Workroom& room) : room_(room) {
    bare();
    who_ = choice_row(tr("Shown"), tr("Whose garment stands on the wall; the longest names and widest numbers come first"));
    who_->setObjectName(QStringLiteral("Shown"));
    auto* back = push(tr("‹ before"), tr("The person before in that list"));
    auto* on = push(tr("next ›"), tr("The next person in that list"));
    side_by_side({back, on});
    letters_ = length_row(tr("Letter height"), tr("On the base size; on the others it grows with the field"));
    connect(who_, &QComboBox::activated, this, [this](int i) { show_person(who_->itemData(i).toString().toInt()); });
    connect(back, &QPushButton::clicked, this, [this] { step(-1); });
    connect(on, &QPushButton::clicked, this, [this] { step(1); });
    letters_->entered = [this](Length l, bool) -> std::optional<QString> {
        const Decoration* d = room_.decoration();
        if (d == nullptr) return std::nullopt;
        auto next = with_letter_height(room_.order(), d->art, l, d->sizing.base_width);
        if (!next) return refusal(next.error());
        room_.edit(tr("letter height"), std::move(*next));
        return std::nullopt;
    };
}

void PersonRow::show_person(int line) {
    Selection s = room_.selection();
    s.person = line;
    if (line >= 0) s.size = room_.order().lines.all()[std::size_t(line)].size;
    room_.select(s);
}

void PersonRow::step(int by) {
    const int n = who_->count(), at = who_->currentIndex();
    if (n > 0) show_person(who_->itemData((at + by + n) % n).toString().toInt());
}

void PersonRow::refresh() {
    const Order& order = room_.order();
    const Decoration* d = room_.decoration();
    const Lettering* lettering = d == nullptr ? nullptr : lettering_of(order, *d);
    setVisible(lettering != nullptr);
    if (lettering == nullptr) return;
    letters_->show_length(Length::from_mm(lettering->height * d->sizing.base_width.mm()), order.unit);
    std::vector<std::pair<std::string, QString>> items{{"-1", tr("on each size the widest")}};
    for (const int i : hardest_to_fit(order, d->run, room_.facts())) {
        const OrderLine& line = order.lines.all()[std::size_t(i)];
        items.emplace_back(std::to_string(i), qt(person_text(line)) + QStringLiteral("  ") + qt(line.size));
    }
    set_items(who_, items, std::to_string(room_.selection().person));
}

}  // namespace orthema::app
