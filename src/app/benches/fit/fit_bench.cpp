#include "app/benches/fit/fit_bench.h"

#include <QHBoxLayout>

#include "app/widgets/speech.h"
#include "app/benches/fit/fit_deeds.h"
#include "app/benches/fit/fit_strip.h"
#include "app/benches/fit/fit_wall.h"
#include "app/benches/fit/lots_page.h"
#include "app/benches/fit/making_pages.h"
#include "app/benches/fit/making_view.h"
#include "app/benches/fit/person_row.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "app/widgets/fitting_label.h"
#include "core/order/edit.h"

namespace orthema::app {

namespace {

constexpr int lots_page_index = 3;

std::string run_id(const RunKey& run) { return run.style + "\n" + run.colour + "\n" + run.lot; }

QPushButton* look_button(const QString& text, const QString& why) {
    auto* b = push(text, why);
    b->setCheckable(true);
    b->setProperty("segment", true);
    b->setFixedHeight(24);
    b->setFocusPolicy(Qt::TabFocus);
    return b;
}

}  // namespace

FitBench::FitBench(Workroom& room) : Bench(room, QStringLiteral("fit")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    runs_ = new ChipRow(tr("Runs"));
    runs_->fold(1);
    runs_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        for (const RunKey& run : room_.runs())
            if (run_id(run) == id) s.run = run;
        s.style = s.run.style;
        room_.select(s);
    };
    column->addWidget(runs_);
    decorations_ = new ChipRow(tr("Decorations"));
    decorations_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.decoration = id;
        if (const Decoration* d = find_decoration(room_.order(), id)) s.art = d->art;
        room_.select(s);
    };
    column->addWidget(decorations_);
    auto* row = new QHBoxLayout;
    look_ = new Segments(tr("Look at"), {tr("size wall"), tr("making")});
    look_->turn_pages();
    look_->setToolTip(tr("Every size with the design in place, or the pieces that are printed and cut for it (M)"));
    look_->setFixedWidth(170);
    look_->chosen = [this](int i) { show_making(i == 1); };
    look_->show_choice(0);
    row->addWidget(look_);
    row->addSpacing(10);
    ghosts_ = look_button(tr("schools"), tr("Where the other placing schools would put it (G); 1 to 4 choose one"));
    platen_look_ = look_button(tr("platen"), tr("How the platen or pad lies under it, raised parts in ochre (P)"));
    balance_look_ = look_button(tr("balance"), tr("Where the eye sees its middle, against the ink box (B)"));
    lots_look_ = look_button(tr("all lots"), tr("Every lot under this rule, one below the other (L); the wheel goes on"));
    for (QPushButton* b : {lots_look_, ghosts_, platen_look_, balance_look_}) row->addWidget(b);
    school_ = new QLabel;
    school_->setProperty("brick", true);
    disagree_ = new FittingLabel;
    disagree_->setProperty("quiet", true);
    disagree_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    disagree_->setWordWrap(true);
    disagree_->setFixedHeight(34);  // two lines: the wall below stays where it is while a drag changes the words
    row->addSpacing(10);
    row->addWidget(school_);
    row->addWidget(disagree_, 1);
    row->addStretch(0);
    column->addLayout(row);
    wall_side_ = new QWidget;
    auto* wall_column = new QVBoxLayout(wall_side_);
    wall_column->setContentsMargins(0, 0, 0, 0);
    wall_column->setSpacing(6);
    column->addWidget(wall_side_, 1);
    making_ = new MakingView(room);
    making_->hide();
    column->addWidget(making_, 1);
    making_->seam_moved = [this](SeamPoint p) {
        change(tr("drag a seam"), [p](Decoration& d) {
            // a point near an earlier one takes its place
            std::erase_if(d.making.seam_points, [&](const SeamPoint& o) {
                return o.upright == p.upright && o.seam == p.seam && std::abs(p.upright ? o.at.y - p.at.y : o.at.x - p.at.x) < 0.12;
            });
            d.making.seam_points.push_back(p);
        });
    };
    wall_ = new FitWall(room);
    wall_column->addWidget(wall_, 1);
    const auto connect_look = [this](QPushButton* b, bool WallLook::*which) {
        connect(b, &QPushButton::toggled, this, [this, which](bool on) {
            wall_->look().*which = on;
            wall_->refresh();
        });
    };
    connect_look(ghosts_, &WallLook::ghosts);
    connect_look(platen_look_, &WallLook::platen);
    connect_look(balance_look_, &WallLook::balance);
    connect(lots_look_, &QPushButton::toggled, this, [this](bool on) { wall_->show_all_lots(on); });
    wall_->fill_menu = [this](QMenu& menu) { lots_page_->fill(menu); };
    wall_->look_changed = [this] {
        lots_look_->setChecked(wall_->shows_all_lots());
        ghosts_->setChecked(wall_->look().ghosts);
        platen_look_->setChecked(wall_->look().platen);
        balance_look_->setChecked(wall_->look().balance);
    };
    wall_->look_changed();
    wall_->school_wanted = [this](PlacingSchool school) {
        const Decoration* d = room_.decoration();
        const DecorationFit* fit = room_.fit();
        if (d == nullptr || fit == nullptr || fit->ground == nullptr || fit->ground->sizes.empty()) return;
        const Ground* base = find_ground(*fit, d->sizing.base_size);
        const Panel& panel = base != nullptr ? base->panel : fit->ground->sizes.front().panel;
        if (!school_applies(school, panel) || (school == PlacingSchool::feature && usual_landmark(d->location, panel).empty())) return;
        const BlankStyle* style = find_style(room_.order(), d->run.style);
        room_.edit(tr("placing school"), with_decoration(room_.order(), with_usual_place(*d, panel, family_group(style->family), school)));
    };
    auto* under = new QHBoxLayout;
    under->setSpacing(6);
    strip_ = new FitStrip(room);
    under->addWidget(strip_, 1);
    strip_choice_ = new Segments(tr("Strip"), {tr("ladder"), tr("bands"), tr("drift")}, nullptr, false, true);
    strip_choice_->turn_pages();
    strip_choice_->setToolTip(
        tr("What the strip shows: widths, what each number of bands is short by, or how each school drifts over the run"));
    strip_choice_->setFixedWidth(66);
    strip_choice_->chosen = [this](int i) { strip_->set_show(static_cast<FitStrip::Show>(i)); };
    strip_choice_->show_choice(0);
    under->addWidget(strip_choice_);
    wall_column->addLayout(under);
    strip_->count_wanted = [this](int n) {
        change(tr("number of bands"), [n](Decoration& d) {
            d.sizing.school = SizingSchool::bands;
            d.sizing.band_count = n;
            d.sizing.band_starts.clear();
            d.sizing.shared.clear();
        });
    };

    panel_ = new FigurePanel;
    panel_->rows()->setSpacing(3);
    panel_->head(tr("Figures"));
    title_ = panel_->title();
    auto* wall_figures = panel_->part();
    wall_figures_ = wall_figures;
    person_ = new PersonRow(room);
    wall_figures->add(person_);
    making_pages_ = new MakingPages(room);
    making_pages_->hide();
    panel_->add(making_pages_);
    reach_ = new Segments(tr("A change is for"), {tr("every size"), tr("this size")});
    reach_->setToolTip(tr("Whether a drag or a typed figure changes the rule for all, or pins this size only. Holding Ctrl pins, too."));
    reach_->chosen = [this](int i) { wall_->set_reach(i == 0 ? Reach::every_size : Reach::this_size); };
    reach_->show_choice(0);
    wall_figures->head(tr("A change is for"));
    wall_figures->add(reach_);
    page_ = new Segments(tr("Figures page"), {tr("Size"), tr("Place"), tr("Press"), tr("Lots")});
    page_->turn_pages();
    page_->chosen = [this](int i) { show_page(i); };
    wall_figures->rows()->addSpacing(4);
    wall_figures->add(page_);
    for (FigurePanel*& page : pages_) page = wall_figures->part();
    lots_page_ = new LotsPage(room);
    wall_figures->add(lots_page_);
    build_size();
    build_place();
    build_press();
    page_->show_choice(0);
    show_page(0);
    panel_->fill();
}

QWidget* FitBench::figures() { return panel_; }
QWidget* FitBench::first_focus() {
    if (making_shown_) return making_;
    return wall_;
}

void FitBench::show_making(bool on) {
    making_shown_ = on;
    wall_side_->setVisible(!on);
    making_->setVisible(on);
    wall_figures_->setVisible(!on);
    making_pages_->setVisible(on);
    for (QWidget* w : std::initializer_list<QWidget*>{lots_look_, ghosts_, platen_look_, balance_look_, school_}) w->setVisible(!on);
    look_->show_choice(on ? 1 : 0);
    refresh();
    first_focus()->setFocus();
}

void FitBench::show_page(int shown) {
    for (int i = 0; i < 3; ++i) pages_[i]->setVisible(i == shown);
    lots_page_->setVisible(shown == lots_page_index);
    if (shown == lots_page_index) lots_page_->refresh();
}

const SizeFit* FitBench::chosen_size() const { return room_.fit() == nullptr ? nullptr : find_size(*room_.fit(), room_.selection().size); }

const Panel* FitBench::chosen_panel() const {
    const Ground* g = room_.fit() == nullptr ? nullptr : find_ground(*room_.fit(), room_.selection().size);
    return g == nullptr ? nullptr : &g->panel;
}

void FitBench::change(const QString& what, const std::function<void(Decoration&)>& how) {
    const Decoration* now = room_.decoration();
    if (now == nullptr) return;
    Decoration d = *now;
    how(d);
    room_.edit(what, with_decoration(room_.order(), d));
}

void FitBench::move_by(const std::function<Point(const SizeFit&)>& by, bool pin) {
    const Decoration* d = room_.decoration();
    const SizeFit* on = chosen_size();
    if (d == nullptr || on == nullptr) return;
    const Reach reach = pin ? Reach::this_size : wall_->reach();
    room_.edit(tr("place the design"),
               with_decoration(room_.order(), changed_in_hand(room_.selection(), *d, *room_.fit(), *on, reach,
                                                              [&](const Decoration& was, const SizeFit& size, Reach r) {
                                                                  const Point p = by(size);
                                                                  return moved(was, size, Length::from_mm(p.x), Length::from_mm(p.y), r);
                                                              })));
}

void FitBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    std::vector<Chip> chips;
    for (const RunKey& run : room_.runs()) {
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
        chips.push_back({d.id,
                         qt(d.name),
                         said(location_name(d.location, family_of(order, d.run))) + (d.departs ? tr(", own figures") : QString()),
                         standing_where([&](const Subject& about) { return about.decoration == d.id; }),
                         {}});
    }
    decorations_->show_chips(chips, s.decoration);
    const Decoration* d = room_.decoration();
    const DecorationFit* fit = room_.fit();
    const SizeFit* on = chosen_size();
    if (fit != nullptr && on == nullptr && !fit->sizes.empty()) {
        Selection next = s;
        next.size = fit->sizes[fit->sizes.size() / 2].size;
        QMetaObject::invokeMethod(
            this, [this, next] { room_.select(next); }, Qt::QueuedConnection);
    }
    const bool shown = d != nullptr && fit != nullptr && fit->ground != nullptr && !fit->ground->sizes.empty();
    school_->setText(shown ? tr("placed by ") + said(school_name(d->placing.school, fit->ground->sizes.front().panel)) +
                                 (d->placing.school == PlacingSchool::feature ? QStringLiteral(", ") + qt(d->placing.landmark) : QString())
                           : QString());
    disagree_->say(making_shown_ ? tr("how the chosen design is made, piece by piece")
                   : shown       ? qt(schools_disagree(*fit, d->placing.school, order.unit))
                                 : QString());
    if (making_shown_) {
        making_->refresh();
        making_pages_->refresh();
    } else {
        wall_->refresh();
        strip_->refresh();
    }
    panel_->setEnabled(d != nullptr && on != nullptr);
    QStringList in_hand;
    if (fit != nullptr)
        for (const SizeFit& size : fit->sizes)
            if (sizes_in_hand(s).contains(size.size)) in_hand << qt(size.size);
    title_->setText(d != nullptr && on != nullptr ? in_hand.join(QStringLiteral(" ")) + ", " + qt(d->name) : tr("Nothing chosen"));
    reach_->name_choice(1, in_hand.size() > 1 ? tr("these %1 sizes").arg(in_hand.size()) : tr("this size"));
    reach_->show_choice(in_hand.size() > 1 || wall_->reach() == Reach::this_size ? 1 : 0);
    reach_->button(0)->setEnabled(in_hand.size() < 2);
    person_->refresh();
    if (d == nullptr || on == nullptr || !shown || making_shown_) return;
    refresh_size(*d, *fit, *on);
    refresh_place(*d, *fit, *on);
    refresh_press(*d, *fit, *on);
    if (page_->choice() == lots_page_index) lots_page_->refresh();
}

QString FitBench::word() const {
    const Decoration* d = room_.decoration();
    return d != nullptr ? said(sizing_school_name(d->sizing.school)) : tr("empty");
}

QString FitBench::help() const {
    return tr(
        "Fit: every size at one scale with the design in place. Drag the design or a corner and all sizes follow the rule; hold Ctrl and "
        "only that size is pinned; Shift and click (or Shift and Page Down) takes several sizes in hand, and a change pins each of them. "
        "Drag a rail's end to move a size to the next band. G shows the other placing schools, 1 to 4 choose "
        "one; P shows the platen, B the balance. A double click makes one garment large, the wheel zooms; what is dragged snaps to centre, "
        "margins and other designs unless Alt is held. Making shows the pieces that are printed and cut: layers, parts, wraps, backs, "
        "jigs.");
}

}  // namespace orthema::app
