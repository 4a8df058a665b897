#include "app/benches/fit/making_pages.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>

#include "core/order/edit.h"

namespace orthema::app {

MakingPages::MakingPages(Workroom& room, QWidget* parent) : QWidget(parent), room_(room) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(3);
    page_ = new Segments(QStringLiteral("Making page"), {QStringLiteral("Method"), QStringLiteral("Layers"), QStringLiteral("Split"),
                                                         QStringLiteral("Shape"), QStringLiteral("Shop")});
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
        if (l.mm() < least || l.mm() > most) return QStringLiteral("It lies between %1 and %2 mm.").arg(least).arg(most);
        change(what, [which, l](Making& m) { m.*which = l; });
        return std::nullopt;
    };
    return f;
}

QCheckBox* MakingPages::making_flag(FigurePanel* page, const QString& name, const QString& why, bool Making::*which) {
    QCheckBox* box = page->tick(name, why);
    connect(box, &QCheckBox::clicked, this,
            [this, name, which](bool on) { change(name.toLower(), [which, on](Making& m) { m.*which = on; }); });
    return box;
}

Segments* MakingPages::making_join(FigurePanel* page, const QString& name, Join Making::*which) {
    auto* join = new Segments(name, {QStringLiteral("lap"), QStringLiteral("butt")});
    join->chosen = [this, which](int i) {
        change(QStringLiteral("join"), [which, i](Making& m) { m.*which = i == 0 ? Join::lap : Join::butt; });
    };
    page->add(join);
    return join;
}

void MakingPages::build_method() {
    FigurePanel* p = pages_[0];
    medium_ = p->choice_row(QStringLiteral("Medium"), QStringLiteral("The sheet or roll it is printed on or cut from"));
    connect(medium_, &QComboBox::activated, this, [this](int i) {
        if (const Decoration* d = room_.decoration())
            room_.edit(QStringLiteral("medium"),
                       with_decoration(room_.order(), with_medium(room_.order(), *d, medium_->itemData(i).toString().toStdString())));
    });
    p->head(QStringLiteral("Methods, with the cost a piece"));
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
        auto* b = push({}, QStringLiteral("Makes it this way, on the medium that suits"));
        b->setCheckable(true);
        b->setProperty("segment", true);
        b->setStyleSheet(QStringLiteral("text-align:left;"));
        b->setFixedHeight(24);
        p->add(b);
        auto* why = p->note();
        connect(b, &QPushButton::clicked, this, [this, i] {
            const Decoration* now = room_.decoration();
            if (now == nullptr || i >= method_media_.size() || method_media_[i].empty()) return refresh();
            room_.edit(QStringLiteral("method"), with_decoration(room_.order(), with_medium(room_.order(), *now, method_media_[i])));
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
        const QString cost = c.medium.empty() ? QString() : QStringLiteral(",  ") + qt(money_text(c.cost, room_.order().currency));
        method_buttons_[i]->setText((c.against.empty() ? QString() : QStringLiteral("✕ ")) + qt(m->name) + cost);
        method_buttons_[i]->setObjectName(QStringLiteral("Method ") + qt(c.method));
        method_buttons_[i]->setAccessibleName(qt(m->name) +
                                              (c.against.empty() ? QStringLiteral(", suits") : QStringLiteral(", does not suit")));
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
    layer_ = p->choice_row(QStringLiteral("Layer"), QStringLiteral("The stack, its top first"));
    connect(layer_, &QComboBox::activated, this, [this] { refresh(); });
    layer_name_ = new ValueField(QStringLiteral("Layer's name"));
    layer_name_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const std::string name = t.trimmed().toStdString();
        if (name.empty() || name.size() > 60) return QStringLiteral("Give the layer a name of up to 60 letters.");
        const Decoration* d = room_.decoration();
        for (std::size_t i = 0; d != nullptr && i < d->making.layers.size(); ++i)
            if (int(i) != layer_->currentIndex() && d->making.layers[i].name == name) return QStringLiteral("Another layer has that name.");
        change_layer(QStringLiteral("name a layer"), [&](Layer& l) { l.name = name; });
        return std::nullopt;
    };
    auto* row = new QHBoxLayout;
    layer_out_ = push(QStringLiteral("Out"), QStringLiteral("Takes the layer out of the stack"));
    row->addWidget(layer_name_, 1);
    row->addWidget(layer_out_);
    p->rows()->addLayout(row);
    connect(layer_out_, &QPushButton::clicked, this, [this] {
        const int i = layer_->currentIndex();
        change(QStringLiteral("take a layer out"), [i](Making& m) {
            if (i >= 0 && std::size_t(i) < m.layers.size()) m.layers.erase(m.layers.begin() + i);
        });
    });
    layer_medium_ = p->choice_row(QStringLiteral("Cut from"), QStringLiteral("Every layer has its own medium and its own sheet"));
    connect(layer_medium_, &QComboBox::activated, this, [this](int i) {
        const std::string id = layer_medium_->itemData(i).toString().toStdString();
        const Medium* m = find_medium(room_.order(), id);
        change_layer(QStringLiteral("layer's medium"), [&](Layer& l) {
            l.medium = id;
            if (m != nullptr) l.tint = m->tint;
        });
    });
    layer_grow_ =
        p->length_row(QStringLiteral("Larger than above by"), QStringLiteral("1 to 2 mm shows as an edge; with a minus it is choked"));
    layer_grow_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < -30 || l.mm() > 60) return QStringLiteral("It lies between −30 and 60 mm.");
        change_layer(QStringLiteral("layer's offset"), [l](Layer& own) { own.grow = l; });
        return std::nullopt;
    };
    auto* more = new QHBoxLayout;
    backing_ = push(QStringLiteral("Add a backing"), QStringLiteral("A layer under all others, 1.5 mm past them"));
    more->addWidget(backing_);
    p->rows()->addLayout(more);
    connect(backing_, &QPushButton::clicked, this, [this] {
        if (const Decoration* d = room_.decoration())
            room_.edit(QStringLiteral("add a backing"),
                       with_decoration(room_.order(), with_backing(room_.order(), *d, Length::from_mm(1.5))));
    });
    p->rule();
    p->head(QStringLiteral("Apart by colour"));
    colours_ = p->number_row(QStringLiteral("Colours"), QStringLiteral("At most so many; each becomes a layer cut from the nearest sheet"),
                             1, 12, 0);
    colours_->show_number(2);
    colours_->entered = [](double) {};
    tolerance_ =
        p->number_row(QStringLiteral("Same colour within"), QStringLiteral("Colours that differ by less are one (CIELAB)"), 2, 100, 0);
    tolerance_->show_number(14);
    tolerance_->entered = [](double) {};
    apart_ = push(QStringLiteral("Split by colour"), QStringLiteral("A cut layer for each colour; a backing stays"));
    p->add(apart_);
    connect(apart_, &QPushButton::clicked, this, [this] {
        const Decoration* d = room_.decoration();
        const auto facts = d == nullptr ? room_.facts().end() : room_.facts().find(d->art);
        if (facts == room_.facts().end()) return;
        room_.edit(QStringLiteral("split by colour"),
                   with_decoration(room_.order(), with_colours(room_.order(), *d, facts->second, std::max(1, colours_->text().toInt()),
                                                               std::max(2.0, tolerance_->text().toDouble()))));
    });
    overlap_ = making_length(p, QStringLiteral("Overlap"), QStringLiteral("Of a colour under the ones above; 0 knocks out"),
                             QStringLiteral("overlap"), &Making::overlap, 0, 20);
    p->rule();
    p->head(QStringLiteral("Corners of grown layers"));
    corner_ = new Segments(QStringLiteral("Corners"), {QStringLiteral("round"), QStringLiteral("square")});
    corner_->chosen = [this](int i) {
        change(QStringLiteral("corners"), [i](Making& m) { m.corner = i == 0 ? Corner::round : Corner::square; });
    };
    p->add(corner_);
    fill_holes_ = making_length(p, QStringLiteral("Fill holes under"), QStringLiteral("Narrower holes are filled in grown layers"),
                                QStringLiteral("fill holes"), &Making::fill_holes, 0, 500);
    bridges_ = making_flag(p, QStringLiteral("Join islands by bridges"), QStringLiteral("So that a cut layer stays in one piece"),
                           &Making::bridges);
    bridge_ = making_length(p, QStringLiteral("Bridges wide"), QStringLiteral("As wide as the sheet needs to hold"),
                            QStringLiteral("bridge width"), &Making::bridge, 0.2, 50);
    shrink_ = p->number_row(QStringLiteral("Shrinks by (%)"),
                            QStringLiteral("In the heat; cut sheets are cut larger by it. 0: as the method says"), 0, 50, 2);
    shrink_->entered = [this](double v) { change(QStringLiteral("shrinking"), [v](Making& m) { m.shrink = v; }); };
    white_ =
        p->tick(QStringLiteral("White under the print"), QStringLiteral("A picture of its own for printers that take the white apart"));
    connect(white_, &QCheckBox::clicked, this, [this](bool on) {
        change(QStringLiteral("white underbase"),
               [on](Making& m) { m.white = on ? std::optional<Length>(Length::from_mm(0.3)) : std::nullopt; });
    });
    white_choke_ = p->length_row(QStringLiteral("White choked by"), QStringLiteral("So that no white rim shows"));
    white_choke_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 10) return QStringLiteral("It lies between 0 and 10 mm.");
        change(QStringLiteral("white's choke"), [l](Making& m) { m.white = l; });
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
    std::vector<std::pair<std::string, QString>> media{{"", QStringLiteral("as the decoration")}};
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
    split_ = making_flag(p, QStringLiteral("Split it where there is least ink"),
                         QStringLiteral("Into the fewest parts that the medium and the platen take"), &Making::split);
    p->head(QStringLiteral("Where two parts meet"));
    split_join_ = making_join(p, QStringLiteral("Split join"), &Making::split_join);
    split_lap_ = making_length(p, QStringLiteral("Lap"), QStringLiteral("How far the part pressed first reaches under the next"),
                               QStringLiteral("lap"), &Making::split_lap, 0, 60);
    p->rule();
    parts_ = p->text_row(QStringLiteral("Parts"));
    ink_cut_ = p->text_row(QStringLiteral("Ink that is cut"));
    straight_ = p->text_row(QStringLiteral("Straight cuts would cut"));
    heat_ = p->note();
    least_ = push(QStringLiteral("Back to least ink"), QStringLiteral("Forgets the points that the seams were dragged through"));
    p->add(least_);
    connect(least_, &QPushButton::clicked, this,
            [this] { change(QStringLiteral("seams back to least ink"), [](Making& m) { m.seam_points.clear(); }); });
}

void MakingPages::refresh_split(const Decoration& d, const Made* made) {
    const Unit unit = room_.order().unit;
    split_->setChecked(d.making.split);
    split_join_->show_choice(d.making.split_join == Join::lap ? 0 : 1);
    split_lap_->show_fine(d.making.split_lap, unit);
    split_lap_->setEnabled(d.making.split_join == Join::lap);
    least_->setEnabled(!d.making.seam_points.empty());
    const SplitPlan* plan = made != nullptr && made->split ? &*made->split : nullptr;
    for (QLabel* l : {parts_, ink_cut_, straight_}) l->setText(QStringLiteral("–"));
    heat_->setText(d.making.split && plan == nullptr ? QStringLiteral("It fits in one: nothing is split.") : QString());
    if (plan == nullptr) return;
    double straight = 0;
    int most = 0;
    for (const Seam& s : plan->seams) straight += s.straight;
    for (const SplitPart& part : plan->parts) most = std::max(most, part.heated);
    parts_->setText(QStringLiteral("%1 × %2").arg(plan->columns).arg(plan->rows));
    ink_cut_->setText(qt(length_text(Length::from_mm(plan->ink_cut), unit)));
    straight_->setText(qt(length_text(Length::from_mm(straight), unit)));
    heat_->setText(
        most > 1 ? QStringLiteral(
                       "Pressed in the order of their numbers, each next one against the last; the first lies under heat up to %1 times.")
                       .arg(most)
                 : QStringLiteral("Pressed in the order of their numbers; no part is heated twice."));
}

void MakingPages::build_shape() {
    FigurePanel* p = pages_[3];
    nothing_ = p->note();
    wrap_part_ = p->part();
    right_round_ = making_flag(wrap_part_, QStringLiteral("Right round: as wide as the wall"),
                               QStringLiteral("The picture meets itself whatever the wall was taped at; nothing of its width is rounded"),
                               &Making::cover);
    wrap_part_->head(QStringLiteral("Where the wrap's ends meet"));
    wrap_join_ = making_join(wrap_part_, QStringLiteral("Wrap join"), &Making::wrap_join);
    wrap_lap_ = making_length(wrap_part_, QStringLiteral("Past the wall"), QStringLiteral("A lap prints twice; with a minus a gap is left"),
                              QStringLiteral("lap"), &Making::wrap_lap, -20, 40);
    seam_at_ = making_length(wrap_part_, QStringLiteral("Seam off the back"), QStringLiteral("Along the wall, to the viewer's right"),
                             QStringLiteral("seam's place"), &Making::seam_at, -500, 500);
    sheet_size_ = wrap_part_->text_row(QStringLiteral("Sheet"));
    cover_part_ = p->part();
    cover_ = making_flag(cover_part_, QStringLiteral("Ink past every edge"),
                         QStringLiteral("Sized to cover the blank, notch and corners included"), &Making::cover);
    bleed_ = making_length(cover_part_, QStringLiteral("Bleed"), QStringLiteral("Past the blank's edge"), QStringLiteral("bleed"),
                           &Making::bleed, 0, 50);
    misplaced_ =
        making_length(cover_part_, QStringLiteral("A hand misses by"), QStringLiteral("The coverage is proven for every shift up to this"),
                      QStringLiteral("misplacement"), &Making::misplaced, 0, 50);
    proof_ = cover_part_->note();
    sides_part_ = p->part();
    two_sided_ =
        making_flag(sides_part_, QStringLiteral("Back beside the front"),
                    QStringLiteral("The back is the mirror of the front, across a fold: for a single ply, where ink shows through"),
                    &Making::two_sided);
    fold_ = making_length(sides_part_, QStringLiteral("Edge to fold"), QStringLiteral("Between the blank's edge and the fold line"),
                          QStringLiteral("fold"), &Making::fold, 0, 500);
    jig_part_ = p->part();
    jig_ = jig_part_->choice_row(QStringLiteral("Jig"), QStringLiteral("Laid into its slots, a board at a time; backs go across the fold"));
    connect(jig_, &QComboBox::activated, this, [this](int i) {
        const std::string id = jig_->itemData(i).toString().toStdString();
        change(QStringLiteral("jig"), [&](Making& m) { m.jig = id; });
    });
    jig_says_ = jig_part_->note();
    dome_part_ = p->part();
    dome_part_->head(QStringLiteral("Round the cap"));
    snip_ = dome_part_->tick(QStringLiteral("Snip the film to lie round it"),
                             QStringLiteral("Cuts from its edge between the ink, as few and short as let it lie round the cap"));
    connect(snip_, &QCheckBox::clicked, this,
            [this](bool on) { change(QStringLiteral("snips"), [on](Making& m) { m.snip_gap = on ? usual_snip_gap : Length{}; }); });
    snip_gap_ = making_length(dome_part_, QStringLiteral("May stand off"),
                              QStringLiteral("So far the film may rise from the cap between two snips"), QStringLiteral("gap of the snips"),
                              &Making::snip_gap, 0, 20);
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
        says << (count == 0 ? QStringLiteral("It lies round the cap as it is: no snip is needed.")
                            : QStringLiteral("%1, the longest %2; cut before the contour.")
                                  .arg(counted(count, "snip"), qt(length_text(Length::from_mm(longest), room_.order().unit))));
    const bool taped = std::all_of(style->sizes.begin(), style->sizes.end(),
                                   [&](const std::string& size) { return crown_bend(style->chart.at(size)).has_value(); });
    says << (taped ? QStringLiteral("By the crown as it was taped, over its curve and along the bill.")
                   : QStringLiteral("By a usual round crown: tape it at half its height, over its curve (Blanks)."));
    snips_say_->setText(says.join(QLatin1Char('\n')));
}

void MakingPages::refresh_shape(const Decoration& d, const Made* made) {
    const Order& order = room_.order();
    const Unit unit = order.unit;
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
                          ? QStringLiteral("On a part of a wall no ends meet: nothing is to be chosen here. A full wrap has a seam.")
                          : QStringLiteral("This location has no shape of its own: full wraps, flags, tags, tiles and coasters have."));
    right_round_->setChecked(d.making.cover);
    const bool round = style != nullptr && ends_gap(style->chart.begin()->second) <= 0;
    wrap_join_->setEnabled(round);
    wrap_lap_->setEnabled(round);
    seam_at_->setEnabled(round);
    wrap_join_->show_choice(d.making.wrap_join == Join::lap ? 0 : 1);
    wrap_lap_->show_fine(d.making.wrap_lap, unit);
    seam_at_->show_fine(d.making.seam_at, unit);
    sheet_size_->setText(QStringLiteral("–"));
    if (wraps && made != nullptr && made->sector) {
        const WrapSpan span = wrap_span(made->input.style, made->input.size, made->input.making);
        const Rect box = bounds(made->sector->bent(box_region({span.from, 0, span.to, made->sector->slant})));
        sheet_size_->setText(qt(length_text(Length::from_mm(box.width()), unit, false)) + QStringLiteral(" × ") +
                             qt(length_text(Length::from_mm(box.height()), unit)));
    }
    cover_->setChecked(d.making.cover);
    bleed_->show_fine(d.making.bleed, unit);
    misplaced_->show_fine(d.making.misplaced, unit);
    proof_->setText(
        !d.making.cover || made == nullptr ? QString()
        : made->bare.empty()
            ? QStringLiteral("No rim is bare at any shift up to %1; it would stand %2.")
                  .arg(qt(mm_text(d.making.misplaced.mm(), 1)) + " mm", qt(mm_text(made->spare, 1)) + " mm")
            : QStringLiteral("Bare where it is carmine; it stands a shift of %1.").arg(qt(mm_text(std::max(0.0, made->spare), 1)) + " mm"));
    two_sided_->setChecked(d.making.two_sided);
    fold_->show_fine(d.making.fold, unit);
    std::vector<std::pair<std::string, QString>> jigs{{"", QStringLiteral("none")}};
    for (const Jig& j : order.jigs) jigs.emplace_back(j.id, qt(j.name));
    set_items(jig_, jigs, d.making.jig);
    int boards = 0, kinds = 0;
    for (const JigSheet& s : room_.transfer_set().jigs)
        if (s.jig == d.making.jig) {
            boards += s.count;
            ++kinds;
        }
    jig_says_->setText(kinds > 0 ? QStringLiteral("%1 boards, %2 of them different.").arg(boards).arg(kinds) : QString());
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
