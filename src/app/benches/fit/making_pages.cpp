#include "app/benches/fit/making_pages.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>

#include "app/widgets/speech.h"
#include "core/order/edit.h"

namespace orthema::app {

MakingPages::MakingPages(Workroom& room, QWidget* parent) : QWidget(parent), room_(room) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(3);
    page_ = new Segments(tr("Making page"), {tr("Method"), tr("Layers"), tr("Split"), tr("Shape"), tr("Shop")});
    page_->turn_pages();
    page_->chosen = [this](int i) { show_page(i); };
    column->addWidget(page_);
    for (FigurePanel*& page : pages_) {
        page = new FigurePanel;
        page->bare();
        column->addWidget(page);
    }
    build_method();
    build_layers();
    build_split();
    build_shape();
    build_shop();
    page_->show_choice(0);
    show_page(0);
    column->addStretch(1);
}

void MakingPages::show_page(int shown) {
    for (int i = 0; i < page_count; ++i) pages_[i]->setVisible(i == shown);
    page_->show_choice(shown);
}

void MakingPages::change(const QString& what, const std::function<void(Making&)>& how) {
    const Decoration* now = room_.decoration();
    if (now == nullptr) return;
    Decoration d = *now;
    how(d.making);
    room_.edit(what, with_decoration(room_.order(), d));
}

void MakingPages::change_layer(const QString& what, const std::function<void(Layer&)>& how) {
    const int i = layer_->currentIndex();
    change(what, [&](Making& m) {
        if (i >= 0 && std::size_t(i) < m.layers.size()) how(m.layers[std::size_t(i)]);
    });
}

LengthField* MakingPages::making_length(FigurePanel* page, const QString& name, const QString& why, const QString& what,
                                        Length Making::*which, double least, double most) {
    LengthField* f = page->length_row(name, why);
    f->entered = [this, what, which, least, most](Length l, bool) -> std::optional<QString> {
        if (l.mm() < least || l.mm() > most) return tr("It lies between %1 and %2 mm.").arg(least).arg(most);
        change(what, [which, l](Making& m) { m.*which = l; });
        return std::nullopt;
    };
    return f;
}

QCheckBox* MakingPages::making_flag(FigurePanel* page, const QString& name, const QString& why, bool Making::*which) {
    QCheckBox* box = page->tick(name, why);
    connect(box, &QCheckBox::clicked, this,
            [this, name, which](bool on) { change(within(name), [which, on](Making& m) { m.*which = on; }); });
    return box;
}

Segments* MakingPages::making_join(FigurePanel* page, const QString& name, Join Making::*which) {
    auto* join = new Segments(name, {tr("lap"), tr("butt")});
    join->chosen = [this, which](int i) { change(tr("join"), [which, i](Making& m) { m.*which = i == 0 ? Join::lap : Join::butt; }); };
    page->add(join);
    return join;
}

void MakingPages::build_method() {
    FigurePanel* p = pages_[0];
    medium_ = p->choice_row(tr("Medium"), tr("The sheet or roll it is printed on or cut from"));
    connect(medium_, &QComboBox::activated, this, [this](int i) {
        if (const Decoration* d = room_.decoration())
            room_.edit(tr("film or paper"),
                       with_decoration(room_.order(), with_medium(room_.order(), *d, medium_->itemData(i).toString().toStdString())));
    });
    p->head(tr("Methods, with the cost a piece"));
    p->rows()->addSpacing(2);
}

void MakingPages::refresh_method(const Decoration& d) {
    const Order& order = room_.order();
    std::vector<std::pair<std::string, QString>> media;
    for (const Medium& m : order.media) media.emplace_back(m.id, qt(m.name));
    set_items(medium_, media, d.medium);
    FigurePanel* p = pages_[0];
    while (method_buttons_.size() < order.methods.size()) {
        const std::size_t i = method_buttons_.size();
        auto* b = push({}, tr("Makes it this way, on the medium that suits"));
        b->setCheckable(true);
        b->setProperty("segment", true);
        b->setStyleSheet(QStringLiteral("text-align:left;"));
        b->setFixedHeight(24);
        p->add(b);
        auto* why = p->note();
        connect(b, &QPushButton::clicked, this, [this, i] {
            const Decoration* now = room_.decoration();
            if (now == nullptr || i >= method_media_.size() || method_media_[i].empty()) return refresh();
            room_.edit(tr("method"), with_decoration(room_.order(), with_medium(room_.order(), *now, method_media_[i])));
            refresh();
        });
        method_buttons_.push_back(b);
        method_says_.push_back(why);
    }
    const auto facts = room_.facts().find(d.art);
    const DecorationFit* fit = room_.fit();
    if (facts == room_.facts().end() || fit == nullptr) return;
    const auto choices = method_choices(order, d, facts->second, *fit);
    const Medium* own = find_medium(order, d.medium);
    method_media_.assign(choices.size(), {});
    for (std::size_t i = 0; i < method_buttons_.size(); ++i) {
        const bool shown = i < choices.size();
        method_buttons_[i]->setVisible(shown);
        const bool chosen = shown && own != nullptr && own->method == choices[i].method;
        method_says_[i]->setVisible(chosen || (shown && !choices[i].against.empty()));
        if (!shown) continue;
        const MethodChoice& c = choices[i];
        const Method* m = find_method(order, c.method);
        method_media_[i] = c.medium;
        const QString cost =
            c.medium.empty() ? QString() : QStringLiteral(",  ") + qt(money_text(c.cost, room_.order().currency, reading_in()));
        method_buttons_[i]->setText((c.against.empty() ? QString() : QStringLiteral("✕ ")) + qt(m->name) + cost);
        method_buttons_[i]->setObjectName(QStringLiteral("Method ") + qt(c.method));
        method_buttons_[i]->setAccessibleName(qt(m->name) + (c.against.empty() ? tr(", suits") : tr(", does not suit")));
        method_buttons_[i]->setToolTip(qt(m->care));
        method_buttons_[i]->setChecked(chosen);
        QString says;
        for (const Words& a : c.against) says += (says.isEmpty() ? QString() : QStringLiteral("; ")) + qt(worded(a, room_.order().unit));
        if (chosen) says += (says.isEmpty() ? QString() : QStringLiteral(". ")) + qt(m->care);
        method_says_[i]->setText(says);
    }
}

void MakingPages::build_layers() {
    FigurePanel* p = pages_[1];
    layer_ = p->choice_row(tr("Layer"), tr("The stack, its top first"));
    connect(layer_, &QComboBox::activated, this, [this] { refresh(); });
    layer_name_ = new ValueField(tr("Layer's name"));
    layer_name_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const std::string name = t.trimmed().toStdString();
        if (name.empty() || name.size() > 60) return tr("Give the layer a name of up to 60 letters.");
        const Decoration* d = room_.decoration();
        for (std::size_t i = 0; d != nullptr && i < d->making.layers.size(); ++i)
            if (int(i) != layer_->currentIndex() && d->making.layers[i].name == name) return tr("Another layer has that name.");
        change_layer(tr("name a layer"), [&](Layer& l) { l.name = name; });
        return std::nullopt;
    };
    auto* row = new QHBoxLayout;
    layer_out_ = push(tr("Out"), tr("Takes the layer out of the stack"));
    row->addWidget(layer_name_, 1);
    row->addWidget(layer_out_);
    p->rows()->addLayout(row);
    connect(layer_out_, &QPushButton::clicked, this, [this] {
        const int i = layer_->currentIndex();
        change(tr("take a layer out"), [i](Making& m) {
            if (i >= 0 && std::size_t(i) < m.layers.size()) m.layers.erase(m.layers.begin() + i);
        });
    });
    layer_medium_ = p->choice_row(tr("Cut from"), tr("Every layer has its own medium and its own sheet"));
    connect(layer_medium_, &QComboBox::activated, this, [this](int i) {
        const std::string id = layer_medium_->itemData(i).toString().toStdString();
        const Medium* m = find_medium(room_.order(), id);
        change_layer(tr("layer's medium"), [&](Layer& l) {
            l.medium = id;
            if (m != nullptr) l.tint = m->tint;
        });
    });
    layer_grow_ = p->length_row(tr("Larger than above by"), tr("1 to 2 mm shows as an edge; with a minus it is choked"));
    layer_grow_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < -30 || l.mm() > 60) return tr("It lies between −30 and 60 mm.");
        change_layer(tr("layer's offset"), [l](Layer& own) { own.grow = l; });
        return std::nullopt;
    };
    auto* more = new QHBoxLayout;
    backing_ = push(tr("Add a backing"), tr("A layer under all others, 1.5 mm past them"));
    more->addWidget(backing_);
    p->rows()->addLayout(more);
    connect(backing_, &QPushButton::clicked, this, [this] {
        if (const Decoration* d = room_.decoration())
            room_.edit(tr("add a backing"), with_decoration(room_.order(), with_backing(room_.order(), *d, Length::from_mm(1.5))));
    });
    p->rule();
    p->head(tr("Apart by colour"));
    colours_ = p->number_row(tr("Colours"), tr("At most so many; each becomes a layer cut from the nearest sheet"), 1, 12, 0);
    colours_->show_number(2);
    colours_->entered = [](double) {};
    tolerance_ = p->number_row(tr("Same colour within"), tr("Colours that differ by less are one (CIELAB)"), 2, 100, 0);
    tolerance_->show_number(14);
    tolerance_->entered = [](double) {};
    apart_ = push(tr("Split by colour"), tr("A cut layer for each colour; a backing stays"));
    p->add(apart_);
    connect(apart_, &QPushButton::clicked, this, [this] {
        const Decoration* d = room_.decoration();
        const auto facts = d == nullptr ? room_.facts().end() : room_.facts().find(d->art);
        if (facts == room_.facts().end()) return;
        room_.edit(tr("split by colour"),
                   with_decoration(room_.order(), with_colours(room_.order(), *d, facts->second, std::max(1, colours_->text().toInt()),
                                                               std::max(2.0, tolerance_->text().toDouble()))));
    });
    overlap_ =
        making_length(p, tr("Overlap"), tr("Of a colour under the ones above; 0 knocks out"), tr("overlap"), &Making::overlap, 0, 20);
    p->rule();
    p->head(tr("Corners of grown layers"));
    corner_ = new Segments(tr("Corners"), {tr("round"), tr("square")});
    corner_->chosen = [this](int i) { change(tr("corners"), [i](Making& m) { m.corner = i == 0 ? Corner::round : Corner::square; }); };
    p->add(corner_);
    fill_holes_ = making_length(p, tr("Fill holes under"), tr("Narrower holes are filled in grown layers"), tr("fill holes"),
                                &Making::fill_holes, 0, 500);
    bridges_ = making_flag(p, tr("Join islands by bridges"), tr("So that a cut layer stays in one piece"), &Making::bridges);
    bridge_ = making_length(p, tr("Bridges wide"), tr("As wide as the sheet needs to hold"), tr("bridge width"), &Making::bridge, 0.2, 50);
    shrink_ = p->number_row(tr("Shrinks by (%)"), tr("In the heat; cut sheets are cut larger by it. 0: as the method says"), 0, 50, 2);
    shrink_->entered = [this](double v) { change(tr("shrinking"), [v](Making& m) { m.shrink = v; }); };
    white_ = p->tick(tr("White under the print"), tr("A picture of its own for printers that take the white apart"));
    connect(white_, &QCheckBox::clicked, this, [this](bool on) {
        change(tr("white underbase"), [on](Making& m) { m.white = on ? std::optional<Length>(Length::from_mm(0.3)) : std::nullopt; });
    });
    white_choke_ = p->length_row(tr("White choked by"), tr("So that no white rim shows"));
    white_choke_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 10) return tr("It lies between 0 and 10 mm.");
        change(tr("white's choke"), [l](Making& m) { m.white = l; });
        return std::nullopt;
    };
}

void MakingPages::refresh_layers(const Decoration& d) {
    const Order& order = room_.order();
    const Making& m = d.making;
    std::vector<std::pair<std::string, QString>> names;
    for (std::size_t i = 0; i < m.layers.size(); ++i) names.emplace_back(std::to_string(i), qt(m.layers[i].name));
    const int was = std::max(0, layer_->currentIndex());
    set_items(layer_, names, std::to_string(std::min<int>(was, int(names.size()) - 1)));
    const bool any = layer_->currentIndex() >= 0;
    for (QWidget* w : std::initializer_list<QWidget*>{layer_, layer_name_, layer_out_, layer_medium_, layer_grow_}) w->setEnabled(any);
    std::vector<std::pair<std::string, QString>> media{{"", tr("as the decoration")}};
    for (const Medium& medium : order.media) media.emplace_back(medium.id, qt(medium.name));
    const Layer* l = any ? &m.layers[std::size_t(layer_->currentIndex())] : nullptr;
    set_items(layer_medium_, media, l != nullptr ? l->medium : "");
    layer_name_->show_text(l != nullptr ? qt(l->name) : QString());
    layer_grow_->show_fine(l != nullptr ? l->grow : Length{}, order.unit);
    layer_grow_->setEnabled(any && !l->printed && !l->colour);
    overlap_->show_fine(m.overlap, order.unit);
    corner_->show_choice(m.corner == Corner::round ? 0 : 1);
    fill_holes_->show_fine(m.fill_holes, order.unit);
    bridges_->setChecked(m.bridges);
    bridge_->show_fine(m.bridge, order.unit);
    shrink_->show_number(m.shrink);
    white_->setChecked(m.white.has_value());
    white_choke_->setEnabled(m.white.has_value());
    if (m.white)
        white_choke_->show_fine(*m.white, order.unit);
    else
        white_choke_->show_text({});
}

void MakingPages::build_split() {
    FigurePanel* p = pages_[2];
    split_ = making_flag(p, tr("Split it where there is least ink"), tr("Into the fewest parts that the medium and the platen take"),
                         &Making::split);
    p->head(tr("Where two parts meet"));
    split_join_ = making_join(p, tr("Split join"), &Making::split_join);
    split_lap_ =
        making_length(p, tr("Lap"), tr("How far the part pressed first reaches under the next"), tr("lap"), &Making::split_lap, 0, 60);
    p->rule();
    parts_ = p->text_row(tr("Parts"));
    ink_cut_ = p->text_row(tr("Ink that is cut"));
    straight_ = p->text_row(tr("Straight cuts would cut"));
    heat_ = p->note();
    least_ = push(tr("Back to least ink"), tr("Forgets the points that the seams were dragged through"));
    p->add(least_);
    connect(least_, &QPushButton::clicked, this,
            [this] { change(tr("seams back to least ink"), [](Making& m) { m.seam_points.clear(); }); });
}

void MakingPages::refresh_split(const Decoration& d, const Made* made) {
    const Reading reading = room_.order().unit;
    split_->setChecked(d.making.split);
    split_join_->show_choice(d.making.split_join == Join::lap ? 0 : 1);
    split_lap_->show_fine(d.making.split_lap, reading);
    split_lap_->setEnabled(d.making.split_join == Join::lap);
    least_->setEnabled(!d.making.seam_points.empty());
    const SplitPlan* plan = made != nullptr && made->split ? &*made->split : nullptr;
    for (QLabel* l : {parts_, ink_cut_, straight_}) l->setText(QStringLiteral("–"));
    heat_->setText(d.making.split && plan == nullptr ? tr("It fits in one: nothing is split.") : QString());
    if (plan == nullptr) return;
    double straight = 0;
    int most = 0;
    for (const Seam& s : plan->seams) straight += s.straight;
    for (const SplitPart& part : plan->parts) most = std::max(most, part.heated);
    parts_->setText(QStringLiteral("%1 × %2").arg(plan->columns).arg(plan->rows));
    ink_cut_->setText(qt(length_text(Length::from_mm(plan->ink_cut), reading)));
    straight_->setText(qt(length_text(Length::from_mm(straight), reading)));
    heat_->setText(
        most > 1 ? tr("Pressed in the order of their numbers, each next one against the last; the first lies under heat up to %1 times.")
                       .arg(most)
                 : tr("Pressed in the order of their numbers; no part is heated twice."));
}

void MakingPages::build_shape() {
    FigurePanel* p = pages_[3];
    nothing_ = p->note();
    wrap_part_ = p->part();
    right_round_ =
        making_flag(wrap_part_, tr("Right round: as wide as the wall"),
                    tr("The picture meets itself whatever the wall was taped at; nothing of its width is rounded"), &Making::cover);
    wrap_part_->head(tr("Where the wrap's ends meet"));
    wrap_join_ = making_join(wrap_part_, tr("Wrap join"), &Making::wrap_join);
    wrap_lap_ = making_length(wrap_part_, tr("Past the wall"), tr("A lap prints twice; with a minus a gap is left"), tr("lap"),
                              &Making::wrap_lap, -20, 40);
    seam_at_ = making_length(wrap_part_, tr("Seam off the back"), tr("Along the wall, to the viewer's right"), tr("seam's place"),
                             &Making::seam_at, -500, 500);
    sheet_size_ = wrap_part_->text_row(tr("Sheet"));
    cover_part_ = p->part();
    cover_ =
        making_flag(cover_part_, tr("Ink past every edge"), tr("Sized to cover the blank, notch and corners included"), &Making::cover);
    bleed_ = making_length(cover_part_, tr("Bleed"), tr("Past the blank's edge"), tr("bleed"), &Making::bleed, 0, 50);
    misplaced_ = making_length(cover_part_, tr("A hand misses by"), tr("The coverage is proven for every shift up to this"),
                               tr("misplacement"), &Making::misplaced, 0, 50);
    proof_ = cover_part_->note();
    sides_part_ = p->part();
    two_sided_ = making_flag(sides_part_, tr("Back beside the front"),
                             tr("The back is the mirror of the front, across a fold: for a single ply, where ink shows through"),
                             &Making::two_sided);
    fold_ =
        making_length(sides_part_, tr("Edge to fold"), tr("Between the blank's edge and the fold line"), tr("fold"), &Making::fold, 0, 500);
    jig_part_ = p->part();
    jig_ = jig_part_->choice_row(tr("Jig"), tr("Laid into its slots, a board at a time; backs go across the fold"));
    connect(jig_, &QComboBox::activated, this, [this](int i) {
        const std::string id = jig_->itemData(i).toString().toStdString();
        change(tr("jig"), [&](Making& m) { m.jig = id; });
    });
    jig_says_ = jig_part_->note();
    dome_part_ = p->part();
    dome_part_->head(tr("Round the cap"));
    snip_ = dome_part_->tick(tr("Snip the film to lie round it"),
                             tr("Cuts from its edge between the ink, as few and short as let it lie round the cap"));
    connect(snip_, &QCheckBox::clicked, this,
            [this](bool on) { change(tr("snips"), [on](Making& m) { m.snip_gap = on ? usual_snip_gap : Length{}; }); });
    snip_gap_ = making_length(dome_part_, tr("May stand off"), tr("So far the film may rise from the cap between two snips"),
                              tr("gap of the snips"), &Making::snip_gap, 0, 20);
    snips_say_ = dome_part_->note();
}

/// How many snips, how long, and what the form is taken from.
void MakingPages::refresh_snips(const Decoration& d, const Made* made) {
    const BlankStyle* style = find_style(room_.order(), d.run.style);
    const bool domed = made != nullptr && made->input.bend > 0;
    dome_part_->setVisible(domed);
    if (!domed || style == nullptr) return;
    snip_->setChecked(d.making.snip_gap.mm() > 0);
    snip_gap_->setEnabled(d.making.snip_gap.mm() > 0);
    snip_gap_->show_fine(d.making.snip_gap, room_.order().unit);
    std::size_t count = 0;
    double longest = 0;
    for (const Piece& piece : made->pieces)
        for (const Ring& s : piece.snips) {
            ++count;
            longest = std::max(longest, norm(s[1] - s[0]));
        }
    QStringList says;
    if (d.making.snip_gap.mm() > 0)
        says << (count == 0 ? tr("It lies round the cap as it is: no snip is needed.")
                            : tr("%1, the longest %2; cut before the contour.")
                                  .arg(counted(count, "snip"), qt(length_text(Length::from_mm(longest), room_.order().unit))));
    const bool taped = std::all_of(style->sizes.begin(), style->sizes.end(),
                                   [&](const std::string& size) { return crown_bend(style->chart.at(size)).has_value(); });
    says << (taped ? tr("By the crown as it was taped, over its curve and along the bill.")
                   : tr("By a usual round crown: tape it at half its height, over its curve (Blanks)."));
    snips_say_->setText(says.join(QLatin1Char('\n')));
}

void MakingPages::refresh_shape(const Decoration& d, const Made* made) {
    const Order& order = room_.order();
    const Reading reading = order.unit;
    const bool whole = d.location == Location::whole_front || d.location == Location::whole_back;
    const BlankStyle* style = find_style(order, d.run.style);
    const bool wraps = d.location == Location::wrap_full;
    wrap_part_->setVisible(wraps);
    cover_part_->setVisible(whole);
    sides_part_->setVisible(whole && style != nullptr && family_faces(style->family).size() > 1 && !is_hard(style->family));
    jig_part_->setVisible(whole);
    refresh_snips(d, made);
    nothing_->setVisible(!wraps && !whole && dome_part_->isHidden());
    nothing_->setText(location_face(d.location) == Face::wrap
                          ? tr("On a part of a wall no ends meet: nothing is to be chosen here. A full wrap has a seam.")
                          : tr("This location has no shape of its own: full wraps, flags, tags, tiles and coasters have."));
    right_round_->setChecked(d.making.cover);
    const bool round = style != nullptr && ends_gap(style->chart.begin()->second) <= 0;
    wrap_join_->setEnabled(round);
    wrap_lap_->setEnabled(round);
    seam_at_->setEnabled(round);
    wrap_join_->show_choice(d.making.wrap_join == Join::lap ? 0 : 1);
    wrap_lap_->show_fine(d.making.wrap_lap, reading);
    seam_at_->show_fine(d.making.seam_at, reading);
    sheet_size_->setText(QStringLiteral("–"));
    if (wraps && made != nullptr && made->sector) {
        const WrapSpan span = wrap_span(made->input.style, made->input.size, made->input.making);
        const Rect box = bounds(made->sector->bent(box_region({span.from, 0, span.to, made->sector->slant})));
        sheet_size_->setText(qt(length_text(Length::from_mm(box.width()), reading, false)) + QStringLiteral(" × ") +
                             qt(length_text(Length::from_mm(box.height()), reading)));
    }
    cover_->setChecked(d.making.cover);
    bleed_->show_fine(d.making.bleed, reading);
    misplaced_->show_fine(d.making.misplaced, reading);
    proof_->setText(!d.making.cover || made == nullptr ? QString()
                    : made->bare.empty()
                        ? tr("No rim is bare at any shift up to %1; it would stand %2.")
                              .arg(figure(d.making.misplaced.mm(), 1) + " mm", figure(made->spare, 1) + " mm")
                        : tr("Bare where it is carmine; it stands a shift of %1.").arg(figure(std::max(0.0, made->spare), 1) + " mm"));
    two_sided_->setChecked(d.making.two_sided);
    fold_->show_fine(d.making.fold, reading);
    std::vector<std::pair<std::string, QString>> jigs{{"", tr("none")}};
    for (const Jig& j : order.jigs) jigs.emplace_back(j.id, qt(j.name));
    set_items(jig_, jigs, d.making.jig);
    int boards = 0, kinds = 0;
    for (const JigSheet& s : room_.transfer_set().jigs)
        if (s.jig == d.making.jig) {
            boards += s.count;
            ++kinds;
        }
    jig_says_->setText(kinds > 0 ? tr("%1 boards, %2 of them different.").arg(boards).arg(kinds) : QString());
}

void MakingPages::refresh() {
    const Decoration* d = room_.decoration();
    setEnabled(d != nullptr);
    refresh_shop();
    if (d == nullptr) return;
    const MakingOf* of = find_making(room_.transfer_set(), d->id, room_.selection().size);
    refresh_method(*d);
    refresh_layers(*d);
    refresh_split(*d, of != nullptr ? of->made.get() : nullptr);
    refresh_shape(*d, of != nullptr ? of->made.get() : nullptr);
}

}  // namespace orthema::app
