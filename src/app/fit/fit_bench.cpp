#include "app/fit/fit_bench.h"

#include <QComboBox>
#include <QHBoxLayout>

#include <cmath>

#include "app/fit/fit_wall.h"
#include "app/shell/chips.h"
#include "app/shell/figures.h"
#include "core/order/edit.h"

namespace orthema::app {

/// The ladder under the wall.
class Ladder : public Canvas {
public:
    explicit Ladder(Workroom& room) : Canvas(room.art()), room_(room) {
        setFixedHeight(122);
        setFocusPolicy(Qt::NoFocus);
        setAccessibleName(QStringLiteral("Ladder: width by size"));
    }

protected:
    Drawing draw(double width, double height) override {
        const Decoration* d = room_.decoration();
        const DecorationFit* fit = room_.fit();
        return d != nullptr && fit != nullptr ? ladder_drawing(room_.order(), *d, *fit, room_.selection().size, width, height) : Drawing{};
    }

private:
    Workroom& room_;
};

namespace {

std::string run_id(const RunKey& run) { return run.style + "\n" + run.colour; }

void set_items(QComboBox* box, const std::vector<std::pair<std::string, QString>>& items, const std::string& chosen) {
    QStringList have, want;
    for (int i = 0; i < box->count(); ++i) have << box->itemText(i);
    for (const auto& [id, name] : items) want << name;
    const QSignalBlocker quiet(box);
    if (have != want) {
        box->clear();
        for (const auto& [id, name] : items) box->addItem(name, qt(id));
    }
    box->setCurrentIndex(box->findData(qt(chosen)));
}

}  // namespace

FitBench::FitBench(Workroom& room) : Bench(room, QStringLiteral("fit")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    runs_ = new ChipRow(QStringLiteral("Runs"));
    runs_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        for (const RunKey& run : runs_of(room_.order()))
            if (run_id(run) == id) s.run = run;
        s.style = s.run.style;
        room_.select(s);
    };
    column->addWidget(runs_);
    auto* row = new QHBoxLayout;
    decorations_ = new ChipRow(QStringLiteral("Decorations"));
    decorations_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.decoration = id;
        if (const Decoration* d = find_decoration(room_.order(), id)) s.art = d->art;
        room_.select(s);
    };
    row->addWidget(decorations_, 1);
    auto* says = new QVBoxLayout;
    says->setSpacing(0);
    school_ = new QLabel;
    school_->setProperty("brick", true);
    school_->setAlignment(Qt::AlignRight);
    disagree_ = new QLabel;
    disagree_->setProperty("quiet", true);
    disagree_->setAlignment(Qt::AlignRight | Qt::AlignTop);
    disagree_->setWordWrap(true);
    disagree_->setFixedWidth(330);
    says->addWidget(school_);
    says->addWidget(disagree_);
    row->addLayout(says);
    column->addLayout(row);
    wall_ = new FitWall(room);
    column->addWidget(wall_, 1);
    ladder_ = new Ladder(room);
    column->addWidget(ladder_);

    panel_ = new FigurePanel;
    panel_->rows()->setSpacing(2);
    build_figures();
    panel_->rule();
    build_rule();
    panel_->rule();
    build_made_with();
    panel_->fill();
}

QWidget* FitBench::figures() { return panel_; }
QWidget* FitBench::first_focus() { return wall_; }

void FitBench::build_figures() {
    panel_->head(QStringLiteral("Figures"));
    title_ = panel_->title();
    panel_->head(QStringLiteral("A change is for"));
    reach_ = new Segments(QStringLiteral("A change is for"), {QStringLiteral("every size"), QStringLiteral("this size")});
    reach_->setToolTip(
        QStringLiteral("Whether a drag or a typed figure changes the rule for all, or pins this size only. Holding Ctrl pins, too."));
    reach_->chosen = [this](int i) { wall_->set_reach(i == 0 ? Reach::every_size : Reach::this_size); };
    reach_->show_choice(0);
    panel_->add(reach_);
    width_ = panel_->length_row(QStringLiteral("Ink width"), QStringLiteral("Enter changes the rule, Ctrl+Enter pins this size only"));
    width_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        const Decoration* d = room_.decoration();
        const SizeFit* on = room_.fit() == nullptr ? nullptr : find_size(*room_.fit(), room_.selection().size);
        if (d == nullptr || on == nullptr) return std::nullopt;
        if (l.mm() < 5 || l.mm() > 3000) return QStringLiteral("A design is between 5 mm and 3 m wide.");
        const Reach reach = pin ? Reach::this_size : wall_->reach();
        room_.edit(QStringLiteral("ink width"), with_decoration(room_.order(), widened(*d, *on, l, reach)));
        return std::nullopt;
    };
    height_ = panel_->text_row(QStringLiteral("Ink height"));
    collar_ = panel_->length_row(QStringLiteral("Collar to ink"), QStringLiteral("From the collar seam down to the top of ink"));
    collar_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        if (const SizeFit* on = room_.fit() == nullptr ? nullptr : find_size(*room_.fit(), room_.selection().size))
            move_by(0, l.mm() - on->collar_to_ink, pin);
        return std::nullopt;
    };
    pit_ = panel_->length_row(QStringLiteral("Ink above pit line"),
                              QStringLiteral("Top of ink above the line between the armpits; negative is below"));
    pit_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        if (const SizeFit* on = room_.fit() == nullptr ? nullptr : find_size(*room_.fit(), room_.selection().size))
            move_by(0, on->ink_to_pit - l.mm(), pin);
        return std::nullopt;
    };
    sides_ = panel_->text_row(QStringLiteral("To side seams"));
    sides_->setToolTip(QStringLiteral("From the ink's edges to the seams, your left and your right"));
    hem_ = panel_->text_row(QStringLiteral("Ink to hem"));
    held_ = panel_->text_row(QStringLiteral("Width held by"));
    short_ = panel_->note();
    short_->setProperty("caution", true);
    unpin_ = push(QStringLiteral("Take the pin away"), QStringLiteral("This size follows the rule again (Delete)"));
    panel_->add(unpin_);
    connect(unpin_, &QPushButton::clicked, this, [this] {
        if (const Decoration* d = room_.decoration())
            room_.edit(QStringLiteral("take the pin away"), with_decoration(room_.order(), unpinned(*d, room_.selection().size)));
    });
}

void FitBench::build_rule() {
    panel_->head(QStringLiteral("Sizing"));
    sizing_ = new Segments(QStringLiteral("Sizing"), {QStringLiteral("one size"), QStringLiteral("bands"), QStringLiteral("graded")});
    sizing_->chosen = [this](int i) {
        change(QStringLiteral("sizing school"), [i](Decoration& d) {
            d.sizing.school = static_cast<SizingSchool>(i);
            d.sizing.band_starts.clear();
            d.sizing.band_count = 0;
        });
    };
    panel_->add(sizing_);
    bands_says_ = panel_->note();
    base_width_ = panel_->length_row(QStringLiteral("Base width"), QStringLiteral("The ideal width on the base size; others grow from it"));
    base_width_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 5 || l.mm() > 3000) return QStringLiteral("A design is between 5 mm and 3 m wide.");
        change(QStringLiteral("base width"), [l](Decoration& d) { d.sizing.base_width = l; });
        return std::nullopt;
    };
    exponent_ = panel_->number_row(QStringLiteral("Grows with chest"), QStringLiteral("0 the same on all, 1 in full proportion"), 0, 2, 2);
    exponent_->entered = [this](double v) { change(QStringLiteral("growth of the width"), [v](Decoration& d) { d.sizing.exponent = v; }); };
    price_ = panel_->number_row(
        QStringLiteral("Extra transfer costs"),
        QStringLiteral("What one more distinct transfer is worth, against pieces × (shortfall)². Lower gives more bands."), 0, 100, 3);
    price_->entered = [this](double v) {
        change(QStringLiteral("price of a transfer"), [v](Decoration& d) {
            d.sizing.price = v;
            d.sizing.band_starts.clear();
        });
    };
    step_ = panel_->length_row(QStringLiteral("Rounds down to"), QStringLiteral("Widths round down to whole steps"));
    step_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 100) return QStringLiteral("A step lies between 0 and 100 mm.");
        change(QStringLiteral("rounding step"), [l](Decoration& d) { d.sizing.step = l; });
        return std::nullopt;
    };
    panel_->head(QStringLiteral("Placing"));
    placing_ = new Segments(QStringLiteral("Placing"),
                            {QStringLiteral("collar drop"), QStringLiteral("pit line"), QStringLiteral("body share")}, nullptr, true);
    placing_->setToolTip(QStringLiteral("What the height hangs from. The chosen size keeps its place; the others follow the new school."));
    placing_->chosen = [this](int i) {
        const Decoration* d = room_.decoration();
        const SizeFit* on = room_.fit() == nullptr ? nullptr : find_size(*room_.fit(), room_.selection().size);
        if (d != nullptr && on != nullptr)
            room_.edit(QStringLiteral("placing school"),
                       with_decoration(room_.order(), under_school(room_.order(), *d, *on, static_cast<PlacingSchool>(i))));
    };
    panel_->add(placing_);
    growth_ = panel_->number_row(QStringLiteral("Offset grows with size"), QStringLiteral("0 fixed, 1 in proportion to the body length"), 0,
                                 2, 2);
    growth_->entered = [this](double v) { change(QStringLiteral("growth of the offset"), [v](Decoration& d) { d.placing.growth = v; }); };
    panel_->head(QStringLiteral("Centred by"));
    centre_ = new Segments(QStringLiteral("Centred by"), {QStringLiteral("ink box"), QStringLiteral("optical"), QStringLiteral("marked")});
    centre_->setToolTip(QStringLiteral("Which middle of the design sits on the centre line"));
    centre_->chosen = [this](int i) {
        change(QStringLiteral("centre"), [i](Decoration& d) { d.placing.centre = static_cast<Centre>(i); });
    };
    panel_->add(centre_);
}

void FitBench::build_made_with() {
    location_ = panel_->choice_row(QStringLiteral("Location"), QStringLiteral("Sides are the wearer's"));
    for (const Location l : all_locations) location_->addItem(QString::fromLatin1(location_name(l)), QString::fromLatin1(location_key(l)));
    connect(location_, &QComboBox::activated, this, [this](int i) {
        change(QStringLiteral("location"), [this, i](Decoration& d) {
            d.location = all_locations[std::size_t(i)];
            const BlankStyle* style = find_style(room_.order(), d.run.style);
            const AgeGroup group = style != nullptr ? family_group(style->family) : AgeGroup::adult;
            d.placing.offset = Length::from_mm(std::round(default_offset(d.location, d.placing.school, group)));
            d.placing.share = default_offset(d.location, PlacingSchool::body_fraction, group);
        });
    });
    medium_ = panel_->choice_row(QStringLiteral("Medium"), QStringLiteral("What it is printed on"));
    connect(medium_, &QComboBox::activated, this, [this](int i) {
        change(QStringLiteral("medium"), [id = medium_->itemData(i).toString().toStdString()](Decoration& d) { d.medium = id; });
    });
    press_ = panel_->choice_row(QStringLiteral("Press"), QStringLiteral("Its platen limits the size"));
    connect(press_, &QComboBox::activated, this, [this](int i) {
        change(QStringLiteral("press"), [id = press_->itemData(i).toString().toStdString()](Decoration& d) { d.press = id; });
    });
    spares_ = panel_->number_row(QStringLiteral("Spares a transfer"), QStringLiteral("Printed beyond the quantity, of each distinct width"),
                                 0, 1000, 0);
    spares_->entered = [this](double v) { change(QStringLiteral("spares"), [v](Decoration& d) { d.spares = int(v); }); };
}

void FitBench::change(const QString& what, const std::function<void(Decoration&)>& how) {
    const Decoration* now = room_.decoration();
    if (now == nullptr) return;
    Decoration d = *now;
    how(d);
    room_.edit(what, with_decoration(room_.order(), d));
}

void FitBench::move_by(double right, double down, bool pin) {
    const Decoration* d = room_.decoration();
    const SizeFit* on = room_.fit() == nullptr ? nullptr : find_size(*room_.fit(), room_.selection().size);
    if (d == nullptr || on == nullptr) return;
    const Reach reach = pin ? Reach::this_size : wall_->reach();
    room_.edit(QStringLiteral("place the design"),
               with_decoration(room_.order(), moved(room_.order(), *d, *on, Length::from_mm(right), Length::from_mm(down), reach)));
}

void FitBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    std::vector<Chip> chips;
    for (const RunKey& run : runs_of(order)) {
        chips.push_back({run_id(run),
                         qt(run_name(order, run)),
                         {},
                         standing_where([&](const Subject& about) {
                             const Decoration* d = find_decoration(order, about.decoration);
                             return d != nullptr && d->run == run;
                         }),
                         {}});
    }
    runs_->show_chips(chips, run_id(s.run));
    chips.clear();
    for (const Decoration& d : order.decorations) {
        if (d.run != s.run) continue;
        const Medium* medium = find_medium(order, d.medium);
        chips.push_back({d.id,
                         qt(d.name),
                         QString::fromLatin1(location_name(d.location)) + (medium != nullptr ? ", " + qt(medium->name) : QString()),
                         standing_where([&](const Subject& about) { return about.decoration == d.id; }),
                         {}});
    }
    decorations_->show_chips(chips, s.decoration);
    const Decoration* d = room_.decoration();
    const DecorationFit* fit = room_.fit();
    const SizeFit* on = fit == nullptr ? nullptr : find_size(*fit, s.size);
    if (fit != nullptr && on == nullptr && !fit->sizes.empty()) {
        Selection next = s;
        next.size = fit->sizes[fit->sizes.size() / 2].size;
        QMetaObject::invokeMethod(
            this, [this, next] { room_.select(next); }, Qt::QueuedConnection);
    }
    school_->setText(d != nullptr && fit != nullptr
                         ? QStringLiteral("placed by ") + QString::fromLatin1(placing_school_name(d->placing.school))
                         : QString());
    disagree_->setText(d != nullptr && fit != nullptr ? qt(schools_disagree(*fit, d->placing.school, order.unit)) : QString());
    wall_->refresh();
    ladder_->refresh();
    panel_->setEnabled(d != nullptr && on != nullptr);
    title_->setText(d != nullptr && on != nullptr ? qt(on->size) + ", " + qt(d->name) : QStringLiteral("Nothing chosen"));
    if (d == nullptr || on == nullptr) return;
    const Unit unit = order.unit;
    const auto text = [unit](double mm) { return qt(length_text(Length::from_mm(mm), unit)); };
    width_->show_length(Length::from_mm(on->width), unit);
    height_->setText(text(on->height));
    collar_->show_length(Length::from_mm(on->collar_to_ink), unit);
    pit_->show_length(Length::from_mm(on->ink_to_pit), unit);
    sides_->setText(qt(length_text(Length::from_mm(on->left_margin), unit, false)) + QStringLiteral(" and ") + text(on->right_margin));
    hem_->setText(text(on->ink_to_hem) + (on->ink_to_pouch != 0 ? QStringLiteral(", pouch ") + text(on->ink_to_pouch) : QString()));
    held_->setText(qt(on->limited_by));
    const double lack = on->ideal - on->width;
    short_->setText(lack > 0.5    ? text(lack) + QStringLiteral(" short of ideal ") + text(on->ideal)
                    : lack < -0.5 ? text(-lack) + QStringLiteral(" over ideal ") + text(on->ideal)
                                  : QStringLiteral("at its ideal"));
    const QString look = std::abs(lack) > 0.5 ? QString() : QStringLiteral("color:#4F6D2F; font-size:12px;");
    if (short_->styleSheet() != look) short_->setStyleSheet(look);
    unpin_->setVisible(find_pin(*d, on->size) != nullptr);
    sizing_->show_choice(int(d->sizing.school));
    base_width_->show_length(d->sizing.base_width, unit);
    base_width_->setToolTip(QStringLiteral("The ideal width on %1; others grow from it").arg(qt(d->sizing.base_size)));
    exponent_->show_number(d->sizing.exponent);
    price_->show_number(d->sizing.price);
    step_->show_length(d->sizing.step, unit);
    const bool by_hand = d->sizing.school == SizingSchool::bands && !d->sizing.band_starts.empty();
    QString says;
    if (d->sizing.school == SizingSchool::bands) {
        says = QStringLiteral("%1 bands%2").arg(fit->bands.size()).arg(by_hand ? QStringLiteral(", set by hand") : QString());
        if (!by_hand && fit->bands.size() <= fit->cost_by_count.size()) {
            // the range of prices over which this count stays the cheapest
            const std::size_t k = fit->bands.size() - 1;
            double low = 0, high = 1e9;
            for (std::size_t j = 0; j < fit->cost_by_count.size(); ++j) {
                const double gain = fit->cost_by_count[std::min(j, k)] - fit->cost_by_count[std::max(j, k)];
                const double between = gain / std::abs(double(j) - double(k));
                if (j > k) low = std::max(low, between);
                if (j < k) high = std::min(high, between);
            }
            says += QStringLiteral(", best from a price of %1%2")
                        .arg(low, 0, 'f', 3)
                        .arg(high < 1e8 ? QStringLiteral(" to %1").arg(high, 0, 'f', 3) : QStringLiteral(" up"));
        }
    } else {
        says = d->sizing.school == SizingSchool::one_size ? QStringLiteral("one transfer, sized by the smallest")
                                                          : QStringLiteral("%1 widths, one for each size").arg(fit->bands.size());
    }
    bands_says_->setText(says);
    placing_->show_choice(int(d->placing.school));
    growth_->show_number(d->placing.growth);
    centre_->show_choice(int(d->placing.centre));
    location_->setCurrentIndex(int(std::find(all_locations.begin(), all_locations.end(), d->location) - all_locations.begin()));
    std::vector<std::pair<std::string, QString>> items;
    for (const Medium& m : order.media) items.emplace_back(m.id, qt(m.name));
    set_items(medium_, items, d->medium);
    items.clear();
    for (const Press& p : order.presses) items.emplace_back(p.id, qt(p.name));
    set_items(press_, items, d->press);
    spares_->show_number(d->spares);
}

QString FitBench::word() const {
    const Decoration* d = room_.decoration();
    return d != nullptr ? QString::fromLatin1(sizing_school_name(d->sizing.school)) : QStringLiteral("empty");
}

QString FitBench::help() const {
    return QStringLiteral(
        "Fit: every size at one scale with the design in place. Drag the design or a corner and all sizes follow the rule; hold Ctrl and "
        "only that size is pinned. Drag a rail's end to move a size to the next band.");
}

}  // namespace orthema::app
