// The three pages of figures beside the size wall: Size, Place and Press.
#include "app/widgets/choice_box.h"
#include "app/widgets/speech.h"
#include "app/benches/fit/fit_bench.h"

#include <QCheckBox>
#include <QHBoxLayout>

#include <cmath>
#include <set>

#include "app/benches/fit/fit_deeds.h"
#include "app/benches/fit/fit_wall.h"
#include "app/widgets/figures.h"
#include "core/fitting/exactness.h"
#include "core/order/edit.h"
#include "core/order/rules.h"

namespace orthema::app {

namespace {

/// "5 widths for 7 sizes": rounding makes some of them one.
QString graded_words(const DecorationFit& fit) {
    std::set<long> widths;
    for (const SizeFit& s : fit.sizes) widths.insert(std::lround(s.width * 10));
    if (widths.size() == fit.sizes.size()) return tr("a width for each size");
    return widths.size() == 1 ? tr("one width for %1 sizes").arg(fit.sizes.size())
                              : tr("%1 widths for %2 sizes").arg(widths.size()).arg(fit.sizes.size());
}

}  // namespace

void FitBench::build_size() {
    FigurePanel* p = pages_[0];
    width_ = p->length_row(tr("Ink width"), tr("Enter changes the rule, Ctrl+Enter pins this size only"));
    width_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        const Decoration* d = room_.decoration();
        const SizeFit* on = chosen_size();
        if (d == nullptr || on == nullptr) return std::nullopt;
        if (auto why = width_refused(l)) return why;
        const Reach reach = pin ? Reach::this_size : wall_->reach();
        room_.edit(tr("ink width"), with_decoration(room_.order(), changed_in_hand(room_.selection(), *d, *room_.fit(), *on, reach,
                                                                                   [&](const Decoration& was, const SizeFit& s, Reach r) {
                                                                                       return widened(was, s, l, r);
                                                                                   })));
        return std::nullopt;
    };
    height_ = p->text_row(tr("Ink height"));
    held_ = p->text_row(tr("Held by"));
    held_->setToolTip(tr("What keeps the width from being larger"));
    short_ = p->note();
    short_->setProperty("caution", true);
    unpin_ = push(tr("Take the pin away"), tr("This size follows the rule again (Delete)"));
    p->add(unpin_);
    connect(unpin_, &QPushButton::clicked, this, [this] { take_pin_away(room_); });
    p->rule();
    p->head(tr("Sizing"));
    follows_ = p->note();
    follows_->setObjectName(QStringLiteral("Follows"));
    sizing_ = new Segments(tr("Sizing"), {tr("one size"), tr("bands"), tr("graded")});
    sizing_->chosen = [this](int i) {
        change(tr("sizing school"), [i](Decoration& d) {
            d.sizing.school = static_cast<SizingSchool>(i);
            d.sizing.band_starts.clear();
            d.sizing.band_count = 0;
            d.sizing.shared.clear();
        });
    };
    p->add(sizing_);
    bands_says_ = p->note();
    within_ = p->number_row(tr("Short by at most, %"),
                            tr("As few bands as keep every size within this of its ideal width; less gives more bands"), 1, 90, 1);
    within_->entered = [this](double v) {
        change(tr("how far a size may be short"), [v](Decoration& d) {
            d.sizing.school = SizingSchool::bands;
            d.sizing.within = v / 100;
            d.sizing.band_count = 0;
            d.sizing.band_starts.clear();
            d.sizing.shared.clear();
        });
    };
    count_ = p->number_row(tr("Number of bands"), tr("So many, whatever that leaves a size short by"), 1, 400, 0);
    count_->entered = [this](double v) {
        change(tr("number of bands"), [v](Decoration& d) {
            d.sizing.school = SizingSchool::bands;
            d.sizing.band_count = int(v);
            d.sizing.band_starts.clear();
            d.sizing.shared.clear();
        });
    };
    base_width_ = p->length_row(tr("Base width"), tr("The ideal width on the base size; others grow from it"));
    base_width_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (auto why = width_refused(l)) return why;
        change(tr("base width"), [l](Decoration& d) { d.sizing.base_width = l; });
        return std::nullopt;
    };
    measure_ = p->choice_row(tr("Grows with"), tr("The measure that the ideal width follows"));
    connect(measure_, &QComboBox::activated, this, [this](int i) {
        if (const auto m = measure_from_key(measure_->itemData(i).toString().toStdString()))
            change(tr("measure to grow with"), [m](Decoration& d) { d.sizing.measure = *m; });
    });
    exponent_ = p->number_row(tr("And how much"), tr("As much as the measure, not at all, or a share of it in per cent"), 0, 200, 1);
    exponent_->name_number(0, tr("not at all"));
    exponent_->name_number(100, tr("as much"));
    exponent_->entered = [this](double v) { change(tr("growth of the width"), [v](Decoration& d) { d.sizing.exponent = v / 100; }); };
    step_ = p->length_row(tr("Rounds down to"), tr("Widths round down to whole steps"));
    step_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 100) return tr("A step lies between 0 and 100 mm.");
        change(tr("rounding step"), [l](Decoration& d) { d.sizing.step = l; });
        return std::nullopt;
    };
    spares_ = p->number_row(tr("Spares a transfer"), tr("Printed beyond the quantity, of each distinct width"), 0, 1000, 0);
    spares_->entered = [this](double v) { change(tr("spares"), [v](Decoration& d) { d.spares = int(v); }); };
    share_says_ = p->note();
    share_ = push(tr("Share that transfer"), tr("Prints this band at the other blank's width: one transfer fewer"));
    p->add(share_);
    connect(share_, &QPushButton::clicked, this, [this] {
        if (proposal_) room_.edit(tr("share a transfer"), with_sharing(room_.order(), room_.plan(), *proposal_));
    });
}

void FitBench::build_place() {
    FigurePanel* p = pages_[1];
    top_ = p->length_row(tr("Top to ink"), tr("From the collar seam, or what the blank has at its top, down to the top of ink"));
    top_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        move_by([l](const SizeFit& s) { return Point{0, l.mm() - s.top_to_ink}; }, pin);
        return std::nullopt;
    };
    pit_ = p->length_row(tr("Ink above pit line"), tr("Top of ink above the line between the armpits; negative is below"));
    pit_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        move_by([l](const SizeFit& s) { return Point{0, s.ink_to_pit ? *s.ink_to_pit - l.mm() : 0}; }, pin);
        return std::nullopt;
    };
    across_ = p->length_row(tr("Off its line"), tr("Its middle to your right of the line it is centred on; negative is to your left"));
    across_->entered = [this](Length l, bool pin) -> std::optional<QString> {
        if (const Decoration* d = room_.decoration())
            move_by([l, was = *d](const SizeFit& s) { return Point{(l - across_on(was, s.size)).mm(), 0}; }, pin);
        return std::nullopt;
    };
    sides_ = p->text_row(tr("To the sides"));
    bottom_ = p->text_row(tr("Ink to bottom"));
    below_ = p->text_row(tr("Feature below"));
    exact_ = p->text_row(tr("How exact"));
    exact_->setToolTip(tr("How far it may slip up or down, and sideways: half of the clearance that is left"));
    p->rule();
    p->head(tr("Placing"));
    placing_ = new Segments(tr("Placing"), {tr("top"), tr("pit line"), tr("share"), tr("feature")}, nullptr, true);
    placing_->setToolTip(tr("What the height hangs from. The chosen size keeps its place; the others follow the new school."));
    placing_->chosen = [this](int i) {
        wall_->school_wanted(static_cast<PlacingSchool>(i));  // as keys 1 to 4 do, where its ghost shows it
        refresh();
    };
    p->add(placing_);
    landmark_ = p->choice_row(tr("Hangs from"), tr("The feature that the height is measured from"));
    landmark_->setPlaceholderText(tr("a feature"));
    connect(landmark_, &QComboBox::activated, this, [this](int i) {
        const Decoration* d = room_.decoration();
        const SizeFit* on = chosen_size();
        const Panel* panel = chosen_panel();
        if (d != nullptr && on != nullptr && panel != nullptr)
            room_.edit(tr("feature to hang from"), with_decoration(room_.order(), under_school(*d, *on, *panel, PlacingSchool::feature,
                                                                                               landmark_->itemText(i).toStdString())));
    });
    offset_ = p->length_row(tr("At the base size"), tr("The rule's own figure, on the base size"));
    offset_->entered = [this](Length l, bool) -> std::optional<QString> {
        change(tr("the rule's figure"), [l](Decoration& d) { d.placing.offset = l; });
        return std::nullopt;
    };
    growth_ = p->number_row(tr("Grows"), tr("The figure over the sizes: with the body's length, not at all, or a share of it in per cent"),
                            0, 200, 1);
    growth_->name_number(0, tr("not at all"));
    growth_->name_number(100, tr("with the length"));
    growth_->entered = [this](double v) { change(tr("growth of the offset"), [v](Decoration& d) { d.placing.growth = v / 100; }); };
    apart_ = p->length_row(tr("From other designs"), tr("Kept from the designs before it on the same panel"));
    apart_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 500) return tr("Designs keep between 0 and 500 mm apart.");
        change(tr("distance of designs"), [l](Decoration& d) { d.apart = l; });
        return std::nullopt;
    };
    p->head(tr("Centred by"));
    centre_ = new Segments(tr("Centred by"), {tr("ink box"), tr("optical"), tr("marked")});
    centre_->setToolTip(tr("Which middle of the design sits on the centre line"));
    centre_->chosen = [this](int i) { change(tr("centre"), [i](Decoration& d) { d.placing.centre = static_cast<Centre>(i); }); };
    p->add(centre_);
    balance_ = p->note();
    no_marks_ = p->note();
    no_marks_->setText(tr("Set a mark on the Art bench to have it meet a line of the blank."));
    meetings_ = p->part();
    p = meetings_;
    p->head(tr("A mark in it must meet"));
    auto* line = new QHBoxLayout;
    meet_mark_ = new ChoiceBox;
    meet_mark_->setObjectName(QStringLiteral("Mark to meet"));
    meet_mark_->setAccessibleName(tr("Mark to meet"));
    meet_mark_->setToolTip(tr("Marks are set on the Art bench"));
    meet_line_ = new ChoiceBox;
    meet_line_->setObjectName(QStringLiteral("Landmark to meet"));
    meet_line_->setAccessibleName(tr("Landmark to meet"));
    line->addWidget(meet_mark_, 1);
    line->addWidget(meet_line_, 1);
    p->rows()->addLayout(line);
    auto* act = new QHBoxLayout;
    meet_ = push(tr("Watch"), tr("Says on every size whether the mark meets that line"));
    meet_now_ = push(tr("Bring together"), tr("Moves the rule so that they meet on this size"));
    part_ = push(tr("Let go"), tr("No longer watches"));
    for (QPushButton* b : {meet_, meet_now_, part_}) act->addWidget(b);
    p->rows()->addLayout(act);
    meet_says_ = p->note();
    const auto wanted = [this] { return Meeting{meet_mark_->currentText().toStdString(), meet_line_->currentText().toStdString()}; };
    connect(meet_, &QPushButton::clicked, this, [this, wanted] {
        const Meeting m = wanted();
        if (m.mark.empty()) return;
        change(tr("watch a mark"), [m](Decoration& d) {
            if (std::find(d.meetings.begin(), d.meetings.end(), m) == d.meetings.end()) d.meetings.push_back(m);
        });
    });
    connect(part_, &QPushButton::clicked, this, [this, wanted] {
        const Meeting m = wanted();
        change(tr("let a mark go"), [m](Decoration& d) { std::erase(d.meetings, m); });
    });
    connect(meet_now_, &QPushButton::clicked, this, [this, wanted] {
        const Decoration* d = room_.decoration();
        if (d != nullptr && chosen_size() != nullptr && chosen_panel() != nullptr)
            room_.edit(tr("bring a mark to its line"),
                       with_decoration(room_.order(), brought_together(room_.order(), *d, *chosen_size(), *chosen_panel(), wanted())));
    });
}

void FitBench::build_press() {
    FigurePanel* p = pages_[2];
    picture_ = p->choice_row(tr("Picture"), tr("Another picture in the same place on this lot; the page Lots changes it on all"));
    connect(picture_, &QComboBox::activated, this, [this](int i) {
        const Art* art = find_art(room_.order(), picture_->itemData(i).toString().toStdString());
        const Decoration* d = room_.decoration();
        if (art != nullptr && d != nullptr) room_.edit(tr("picture"), with_picture(room_.order(), d->id, *art, false));
    });
    location_ = p->choice_row(tr("Location"), tr("On every lot that follows the rule. Sides are the wearer's."));
    connect(location_, &QComboBox::activated, this, [this](int i) {
        if (i < 0 || std::size_t(i) >= locations_.size()) return;
        const Decoration* d = room_.decoration();
        if (d == nullptr) return;
        std::vector<PassedOver> passed;
        room_.edit(tr("location"), with_design_moved(room_.order(), d->id, locations_[std::size_t(i)], &passed));
        if (!passed.empty())
            room_.notices().say(tr("Moved where it can be. ") + qt(worded(passed_words(room_.order(), passed), room_.order().unit)));
    });
    medium_ = p->choice_row(tr("Medium"), tr("What it is printed on"));
    connect(medium_, &QComboBox::activated, this, [this](int i) {
        change(tr("film or paper"), [id = medium_->itemData(i).toString().toStdString()](Decoration& d) { d.medium = id; });
    });
    press_ = p->choice_row(tr("Press"), tr("Its platens limit the size"));
    connect(press_, &QComboBox::activated, this,
            [this](int i) { change(tr("press"), [id = press_->itemData(i).toString().toStdString()](Decoration& d) { d.press = id; }); });
    auto* off = push(tr("Take this design off"), tr("From this lot alone; undo brings it back"));
    p->add(off);
    connect(off, &QPushButton::clicked, this, [this] { take_design_off(room_); });
    p->rule();
    p->head(tr("How the platen lies, on this size"));
    platen_says_ = p->note();
    platen_says_->setObjectName(QStringLiteral("Platen says"));
    platen_says_->setStyleSheet(QStringLiteral("color:#22303C; font-size:13px;"));
    pad_says_ = p->note();
    past_platen_ = new QCheckBox(tr("may be larger than the platen"));
    past_platen_->setObjectName(QStringLiteral("Past the platen"));
    past_platen_->setToolTip(tr("It is then pressed several times, each press overlapping the last"));
    p->add(past_platen_);
    connect(past_platen_, &QCheckBox::clicked, this,
            [this](bool on) { change(tr("several presses"), [on](Decoration& d) { d.sizing.past_platen = on; }); });
}

void FitBench::refresh_size(const Decoration& d, const DecorationFit& fit, const SizeFit& on) {
    const Order& order = room_.order();
    const Reading reading = order.unit;
    const auto text = [reading](double mm) { return qt(length_text(Length::from_mm(mm), reading)); };
    width_->show_length(Length::from_mm(on.width), reading);
    height_->setText(text(on.height));
    held_->setText(qt(binding_text(on.limited_by, order.unit)));
    const double lack = on.ideal - on.width;
    short_->setText(lack > 0.5    ? text(lack) + tr(" short of ideal ") + text(on.ideal)
                    : lack < -0.5 ? text(-lack) + tr(" over ideal ") + text(on.ideal)
                                  : tr("at its ideal"));
    const QString look = std::abs(lack) > 0.5 ? QString() : QStringLiteral("color:#4F6D2F; font-size:12px;");
    if (short_->styleSheet() != look) short_->setStyleSheet(look);
    unpin_->setVisible(pinned_in_hand(room_, d));
    unpin_->setText(!room_.selection().also.empty() ? tr("Take their pins away") : tr("Take the pin away"));
    sizing_->show_choice(int(d.sizing.school));
    base_width_->show_length(d.sizing.base_width, reading);
    base_width_->setToolTip(
        tr("The ideal width on %1; others grow from it. Another base size is chosen on the page Lots.").arg(qt(d.sizing.base_size)));
    const auto lots = std::count_if(order.decorations.begin(), order.decorations.end(),
                                    [&](const Decoration& o) { return !d.rule.empty() && o.rule == d.rule && !o.departs; });
    follows_->setText(d.departs  ? tr("This lot has figures of its own.")
                      : lots > 1 ? tr("%1 lots follow this rule: all move.").arg(lots)
                                 : QString());
    follows_->setVisible(!follows_->text().isEmpty());
    const BlankStyle* style = find_style(order, d.run.style);
    std::vector<std::pair<std::string, QString>> items;
    if (style != nullptr)
        for (const Measure m : family_measures(style->family))
            if (!may_be_zero(m) || m == d.sizing.measure) items.emplace_back(measure_key(m), said(measure_short(m)));
    set_items(measure_, items, measure_key(d.sizing.measure));
    exponent_->show_number(100 * d.sizing.exponent);
    const bool bands = d.sizing.school == SizingSchool::bands;
    within_->setEnabled(bands);
    if (bands && d.sizing.within > 0 && d.sizing.band_count == 0)
        within_->show_number(100 * d.sizing.within);
    else
        within_->show_text({});
    within_->setPlaceholderText(bands ? tr("not asked") : QString());
    count_->show_number(double(fit.bands.size()));
    step_->show_length(d.sizing.step, reading);
    spares_->show_number(d.spares);
    const bool by_hand = d.sizing.school == SizingSchool::bands && !d.sizing.band_starts.empty();
    QString says;
    if (d.sizing.school == SizingSchool::bands) {
        double worst = 0;
        for (const SizeFit& size : fit.sizes) worst = std::max(worst, 1 - size.width / size.ideal);
        says = counted(fit.bands.size(), "band") + (by_hand ? tr(", set by hand") : QString()) +
               (worst > 0.005 ? tr("; the most a size is short by is %1\u00a0%").arg(fixed(100 * worst, 0))
                              : tr("; every size has its ideal"));
    } else {
        says = d.sizing.school == SizingSchool::one_size ? tr("one transfer, sized by the smallest") : graded_words(fit);
    }
    if (fit.cut.blanks > 1) {
        int pieces = 0;
        for (const BandMember& m : fit.cut_from) pieces += m.quantity;
        const auto short_of = [&](double cost) {
            return QStringLiteral("%1\u00a0%").arg(fixed(100 * std::sqrt(cost / std::max(1, pieces)), 1));
        };
        const QString now = short_of(fit.cut.cost), apart = short_of(fit.cut.cost_apart);
        const QString widths = tr("%1 widths for %2 blanks").arg(fit.cut.widths).arg(fit.cut.blanks);
        says = fit.cut.together ? widths + tr(" together; each by itself they would be %1. Pieces fall about %2 short of their ideal, %3.")
                                               .arg(fit.cut.widths_apart)
                                               .arg(now, now == apart ? tr("the same as by itself") : tr("by itself ") + apart)
                                : widths + tr(", each cut by itself: together would cost more.");
    }
    bands_says_->setText(says);
    proposal_.reset();
    for (const SharingProposal& s : sharing_proposals(order, room_.plan()))
        if (s.decoration == d.id && (d.rule.empty() || lots < 2)) {
            proposal_ = s;
            break;
        }
    share_says_->setVisible(proposal_.has_value());
    share_->setVisible(proposal_.has_value());
    if (proposal_) {
        const Decoration* with = find_decoration(order, proposal_->with);
        share_says_->setText(tr("%1 at %2 instead of %3 would share the transfer of %4: shortfall %5, a transfer is worth %6.")
                                 .arg(tr("Band %1").arg(proposal_->band + 1), text(proposal_->to), text(proposal_->from),
                                      with != nullptr ? qt(run_name(order, with->run)) : QString())
                                 .arg(fixed(proposal_->cost, 3))
                                 .arg(fixed(proposal_->worth, 3)));
    }
}

void FitBench::refresh_place(const Decoration& d, const DecorationFit& fit, const SizeFit& on) {
    const Order& order = room_.order();
    const Reading reading = order.unit;
    const auto text = [reading](double mm) { return qt(length_text(Length::from_mm(mm), reading)); };
    const Ground* ground = find_ground(fit, on.size);
    if (ground == nullptr) return;
    const Panel& panel = ground->panel;
    top_->show_length(Length::from_mm(on.top_to_ink), reading);
    top_->setToolTip(qt(capitalised(spoken(panel.top_name))) + tr(" down to the top of ink"));
    pit_->setEnabled(on.ink_to_pit.has_value());
    if (on.ink_to_pit)
        pit_->show_length(Length::from_mm(*on.ink_to_pit), reading);
    else
        pit_->show_text(tr("none"));
    across_->show_length(across_on(d, on.size), reading);
    sides_->setText(qt(length_text(Length::from_mm(on.left_margin), reading, false)) + tr(" and ") + text(on.right_margin));
    sides_->setToolTip(tr("From the ink's edges to the %1, your left and your right, at the ink's middle height")
                           .arg(said(side_name_at(panel, margin_height(panel, on.ink)))));
    bottom_->setText(text(on.ink_to_bottom) + tr(" to the ") + said(panel.bottom_name));
    below_->setText(on.below.empty() ? tr("none") : said(on.below) + ", " + text(on.ink_to_below));
    const Exactness exact = exactness_of(slack_of(*ground, fit, on));
    exact_->setText(tr("± %1 up, %2 across").arg(text(exact.level), text(exact.sideways)));
    placing_->show_choice(int(d.placing.school));
    placing_->button(1)->setEnabled(panel.pit_y.has_value());
    std::vector<std::pair<std::string, QString>> items;
    for (const std::string& name : hanging_landmarks(panel)) items.emplace_back(name, qt(name));
    set_items(landmark_, items, d.placing.school == PlacingSchool::feature ? d.placing.landmark : "");
    offset_->setEnabled(d.placing.school != PlacingSchool::body_fraction);
    if (d.placing.school == PlacingSchool::body_fraction)
        offset_->show_text(QStringLiteral("%1 %").arg(fixed(d.placing.share * 100, 1)));
    else
        offset_->show_length(d.placing.offset, reading);
    growth_->show_number(100 * d.placing.growth);
    apart_->show_length(d.apart, reading);
    centre_->show_choice(int(d.placing.centre));
    balance_->setText(std::abs(on.balance) < 0.5 ? tr("The eye sees its middle where the ink box has it.")
                                                 : tr("The eye sees its middle %1 to your %2 of the ink box's.")
                                                       .arg(text(std::abs(on.balance)), on.balance > 0 ? tr("right") : tr("left")));
    items.clear();
    const Art* art = find_art(order, d.art);
    const std::string mark_now = meet_mark_->currentData().toString().toStdString(),
                      line_now = meet_line_->currentData().toString().toStdString();
    if (art != nullptr)
        for (const NamedMark& m : art->marks) items.emplace_back(m.name, qt(m.name));
    set_items(meet_mark_, items, mark_now.empty() && !items.empty() ? items.front().first : mark_now);
    if (meet_mark_->currentIndex() < 0 && meet_mark_->count() > 0) meet_mark_->setCurrentIndex(0);
    items.clear();
    for (const Landmark& l : panel.landmarks) items.emplace_back(l.name, qt(l.name));
    set_items(meet_line_, items, line_now);
    if (meet_line_->currentIndex() < 0 && meet_line_->count() > 0) meet_line_->setCurrentIndex(0);
    meetings_->setVisible(meet_mark_->count() > 0);
    no_marks_->setVisible(meet_mark_->count() == 0);
    QStringList watched;
    for (const Meeting& m : d.meetings) watched << qt(m.mark) + tr(" on the ") + qt(m.landmark);
    meet_says_->setText(watched.isEmpty() ? QString() : tr("Watched: ") + watched.join(QStringLiteral(", ")));
}

void FitBench::refresh_press(const Decoration& d, const DecorationFit&, const SizeFit& on) {
    const Order& order = room_.order();
    const BlankStyle* style = find_style(order, d.run.style);
    if (style != nullptr) {
        std::vector<Location> now = locations_of(*style);
        if (std::find(now.begin(), now.end(), d.location) == now.end()) now.push_back(d.location);
        std::vector<std::pair<std::string, QString>> items;
        items.reserve(now.size());
        for (const Location l : now) items.emplace_back(location_key(l), said(location_name(l, style->family)));
        locations_ = now;
        set_items(location_, items, location_key(d.location));
    }
    std::vector<std::pair<std::string, QString>> items;
    for (const Art& a : order.art) items.emplace_back(a.id, qt(a.name));
    set_items(picture_, items, d.art);
    items.clear();
    for (const Medium& m : order.media) items.emplace_back(m.id, qt(m.name));
    set_items(medium_, items, d.medium);
    items.clear();
    for (const Press& p : order.presses)
        if (takes(p.kind, location_face(d.location)) || p.id == d.press) items.emplace_back(p.id, qt(p.name));
    set_items(press_, items, d.press);
    const Press* press = find_press(order, d.press);
    platen_says_->setText(press == nullptr                 ? tr("No press is chosen.")
                          : press->kind == PressKind::flat ? qt(capitalised(worded(platen_words(on.platen, *press), order.unit))) + "."
                          : press->kind == PressKind::wrap ? tr("Wrapped round the blank in the %1.").arg(qt(press->name))
                                                           : tr("Stretched over the %1.").arg(qt(press->platens.front().name)));
    QStringList pads;
    if (press != nullptr) {
        for (const Platen& p : press->platens)
            pads << qt(p.name) + " " + qt(length_text(p.width, order.unit, false)) + " × " + qt(length_text(p.height, order.unit));
        for (const Pad& p : press->pads)
            pads << qt(p.name) + " " + qt(length_text(p.width, order.unit, false)) + " × " + qt(length_text(p.height, order.unit));
    }
    pad_says_->setText(pads.join(QStringLiteral("\n")));
    past_platen_->setChecked(d.sizing.past_platen);
    past_platen_->setEnabled(press != nullptr && press->kind == PressKind::flat);
}

}  // namespace orthema::app
