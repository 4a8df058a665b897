#include "app/benches/fit/lots_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QMenu>
#include <QScrollArea>

#include "app/widgets/speech.h"
#include "app/benches/fit/fit_deeds.h"
#include "app/benches/fit/lot_ticks.h"
#include "core/order/edit.h"
#include "core/order/rules.h"
#include "core/transfers/choices.h"

namespace orthema::app {

namespace {

int lots_under(const Order& order, const Decoration& d) {
    if (d.rule.empty()) return 1;
    return int(std::count_if(order.decorations.begin(), order.decorations.end(), [&](const Decoration& o) { return o.rule == d.rule; }));
}

/// Others that carry the same art at the same place, but loose.
int loose_alike(const Order& order, const Decoration& d) {
    return int(std::count_if(order.decorations.begin(), order.decorations.end(), [&](const Decoration& o) {
        return o.id != d.id && o.rule.empty() && o.art == d.art && o.location == d.location;
    }));
}

QString lots_text(std::size_t n) { return n == 1 ? tr("1 lot") : tr("%1 lots").arg(n); }

}  // namespace

LotsPage::LotsPage(Workroom& room, QWidget* parent) : FigurePanel(parent), room_(room) {
    bare();
    rows()->setSpacing(3);
    says_ = note();
    says_->setObjectName(QStringLiteral("Rule says"));
    own_ = tick(tr("Figures of its own on this lot"),
                tr("This lot no longer follows the rule, until the tick is taken away: then it has the rule's figures again"));
    connect(own_, &QCheckBox::clicked, this, [this](bool on) { set_own_figures(room_, on); });
    picture_ = choice_row(tr("Picture"), tr("Another picture in the same place, on every lot that follows the rule"));
    picture_->setObjectName(QStringLiteral("Picture on all lots"));
    connect(picture_, &QComboBox::activated, this, [this](int i) {
        const Art* art = find_art(room_.order(), picture_->itemData(i).toString().toStdString());
        const Decoration* d = room_.decoration();
        if (art != nullptr && d != nullptr) room_.edit(tr("picture on all lots"), with_picture(room_.order(), d->id, *art, true));
    });
    base_size_ = choice_row(tr("Base size"), tr("The size of this blank that the base figures hold for; others grow from it"));
    connect(base_size_, &QComboBox::activated, this, [this](int i) {
        const Decoration* d = room_.decoration();
        if (d == nullptr) return;
        Decoration next = *d;
        next.sizing.base_size = base_size_->itemData(i).toString().toStdString();
        room_.edit(tr("base size"), with_decoration(room_.order(), next));
    });
    bases_ = part();
    rule();
    head(tr("On these lots"));
    ticks_ = new LotTicks(room);
    auto* scroll = new QScrollArea;
    scroll->setWidget(ticks_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setMinimumHeight(116);
    rows()->addWidget(scroll, 1);
    ticks_->ticked = [this](const RunKey& run, bool on) {
        const Decoration* d = room_.decoration();
        if (d == nullptr) return;
        if (on)
            return room_.edit(tr("put a design on a lot"),
                              with_new_ones_suited(with_design_on(room_.order(), d->id, {run}), room_.order(), room_.facts()));
        const bool shown = run == d->run;
        const Order next = with_design_off(room_.order(), d->id, {run});
        Selection s = room_.selection();
        if (shown)  // another lot of the rule is looked at from then on
            for (const Decoration& o : next.decorations)
                if (!d->rule.empty() && o.rule == d->rule) {
                    s.decoration = o.id;
                    s.run = o.run;
                    break;
                }
        room_.edit(tr("take a design off a lot"), next);
        if (shown) room_.select(s);
    };
    all_ = push(tr("On all that can take it"), tr("Puts the design on every lot that has this location, under one rule"));
    class_ = push(tr("Same class"), tr("Puts the design on every lot of this age class"));
    family_ = push(tr("Same kind"), tr("Puts the design on every lot of this kind of blank"));
    add(all_);
    side_by_side({class_, family_});
    connect(all_, &QPushButton::clicked, this, [this] { put_on(Which::all); });
    connect(class_, &QPushButton::clicked, this, [this] { put_on(Which::of_class); });
    connect(family_, &QPushButton::clicked, this, [this] { put_on(Which::of_family); });
    one_rule_ = push(tr("Bring all under one rule"), tr("Lots that carry it loose get these figures, and move along from then on"));
    add(one_rule_);
    connect(one_rule_, &QPushButton::clicked, this, [this] {
        if (const Decoration* d = room_.decoration()) room_.edit(tr("one rule for all"), with_one_rule(room_.order(), d->id));
    });
    off_ = push(tr("Take it off this lot"), tr("From this lot alone (Delete); undo brings it back"));
    add(off_);
    connect(off_, &QPushButton::clicked, this, [this] { take_design_off(room_); });
}

void LotsPage::put_on(Which which) {
    const Decoration* d = room_.decoration();
    const BlankStyle* mine = d == nullptr ? nullptr : find_style(room_.order(), d->run.style);
    if (mine == nullptr) return;
    std::vector<RunKey> runs;
    for (const RunKey& run : room_.runs()) {
        const BlankStyle* style = find_style(room_.order(), run.style);
        if (style == nullptr) continue;
        if (which == Which::of_class && class_of(style->family) != class_of(mine->family)) continue;
        if (which == Which::of_family && style->family != mine->family) continue;
        runs.push_back(run);
    }
    std::vector<PassedOver> passed;
    const std::size_t before = room_.order().decorations.size();
    const Order next = with_new_ones_suited(with_design_on(room_.order(), d->id, runs, &passed), room_.order(), room_.facts());
    const std::size_t more = next.decorations.size() - before;
    room_.edit(tr("put a design on many lots"), next);
    QString text = more == 0 ? tr("Nothing was left to put it on.") : tr("Put on %1 more.").arg(lots_text(more));
    if (!passed.empty()) text += QStringLiteral(" ") + qt(worded(passed_words(room_.order(), passed), room_.order().unit));
    room_.notices().say(text);
}

void LotsPage::fill(QMenu& menu) {
    const Decoration* d = room_.decoration();
    if (d == nullptr) return;
    const Order& order = room_.order();
    const std::string id = d->id;
    const QString name = qt(d->name), run = qt(run_name(order, d->run));
    const int lots = lots_under(order, *d);
    if (pinned_in_hand(room_, *d))
        menu.addAction(room_.selection().also.empty() ? tr("Take the pin of %1 away").arg(qt(room_.selection().size))
                                                      : tr("Take the pins of these sizes away"),
                       this, [this] { take_pin_away(room_); });
    if (d->departs)
        menu.addAction(tr("Back to the rule's figures"), this, [this] { set_own_figures(room_, false); });
    else if (lots > 1)
        menu.addAction(tr("Figures of its own on this lot"), this, [this] { set_own_figures(room_, true); });
    menu.addAction(tr("Put it on all lots that can take it"), this, [this] { put_on(Which::all); });
    menu.addSeparator();
    menu.addAction(tr("Take “%1” off %2").arg(name, run), this, [this] { take_design_off(room_); });
    if (lots > 1)
        menu.addAction(tr("Take “%1” off all %2 lots").arg(name).arg(lots), this, [this, id] {
            room_.edit(tr("take a design off all lots"), with_design_off(room_.order(), id, runs_of(room_.order())));
        });
}

void LotsPage::show_bases(const DesignRule* rule, const Decoration& d) {
    std::vector<GarmentClass> classes;
    if (rule != nullptr && !d.departs)
        for (const ClassBase& b : rule->bases) classes.push_back(b.of);
    if (classes != base_classes_ || (classes.empty() && base_fields_.empty())) {
        delete base_rows_;
        FigurePanel* rows_now = base_rows_ = bases_->part();
        base_fields_.clear();
        if (classes.empty()) {
            auto* field = rows_now->length_row(tr("Base width"), tr("The ideal width on the base size"));
            field->setObjectName(QStringLiteral("Base width of the lot"));
            field->entered = [this](Length l, bool) -> std::optional<QString> {
                if (auto why = width_refused(l)) return why;
                const Decoration* now = room_.decoration();
                if (now == nullptr) return std::nullopt;
                Decoration next = *now;
                next.sizing.base_width = l;
                room_.edit(tr("base width"), with_decoration(room_.order(), next));
                return std::nullopt;
            };
            base_fields_.push_back(field);
        }
        for (const GarmentClass& of : classes) {
            const QString name = said(class_name(of));
            auto* field =
                rows_now->length_row(tr("%1, width").arg(name), tr("On the base size of every %1 blank that carries it").arg(within(name)));
            field->entered = [this, of](Length l, bool) -> std::optional<QString> {
                if (auto why = width_refused(l)) return why;
                const Decoration* now = room_.decoration();
                const DesignRule* r = now == nullptr ? nullptr : find_rule(room_.order(), now->rule);
                const ClassBase* base = r == nullptr ? nullptr : find_base(*r, of);
                if (base == nullptr) return std::nullopt;
                ClassBase next = *base;
                next.width = l;
                room_.edit(tr("base width"), with_class_base(room_.order(), r->id, next));
                return std::nullopt;
            };
            base_fields_.push_back(field);
        }
        base_classes_ = classes;
    }
    const Reading reading = room_.order().unit;
    if (classes.empty()) {
        base_fields_.front()->show_length(d.sizing.base_width, reading);
        return;
    }
    for (std::size_t i = 0; i < classes.size(); ++i) base_fields_[i]->show_length(find_base(*rule, classes[i])->width, reading);
}

void LotsPage::refresh() {
    const Decoration* d = room_.decoration();
    setEnabled(d != nullptr);
    if (d == nullptr) return;
    const Order& order = room_.order();
    const DesignRule* rule = find_rule(order, d->rule);
    const int lots = lots_under(order, *d), loose = loose_alike(order, *d);
    QString text;
    if (d->departs)
        text = tr("This lot has figures of its own. The rule is on %1.").arg(lots_text(std::size_t(lots - 1)));
    else if (lots > 1) {
        int pieces = 0;
        for (const Decoration& o : order.decorations)
            if (o.rule == d->rule) pieces += garments_in(order, o.run);
        text = tr("One rule for %1, %2: a change on any of them moves all.")
                   .arg(lots_text(std::size_t(lots)), counted(std::size_t(pieces), "piece"));
    } else {
        text = tr("On this lot alone. Tick others, and one rule holds for all.");
    }
    if (loose > 0) text += tr(" %1 carry it with figures that no rule holds together.").arg(lots_text(std::size_t(loose)));
    says_->setText(text);
    own_->setChecked(d->departs);
    own_->setEnabled(rule != nullptr && (lots > 1 || d->departs));
    std::vector<std::pair<std::string, QString>> items;
    for (const Art& a : order.art) items.emplace_back(a.id, qt(a.name));
    set_items(picture_, items, d->art);
    items.clear();
    if (const BlankStyle* style = find_style(order, d->run.style))
        for (const std::string& size : style->sizes) items.emplace_back(size, qt(size));
    set_items(base_size_, items, d->sizing.base_size);
    show_bases(rule, *d);
    one_rule_->setVisible(loose > 0);
    ticks_->count_lots();
    ticks_->refresh();
}

}  // namespace orthema::app
