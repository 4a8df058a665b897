#include "app/benches/press/press_pages.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDate>
#include <QMenu>
#include <QRegularExpression>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/typed.h"
#include "app/widgets/menus.h"

namespace orthema::app {

namespace {

QString table_row(const QString& a, const QString& b, const QString& colour = QStringLiteral("#22303C")) {
    return QStringLiteral("<tr><td>%1</td><td align='right' style='color:%3'>%2</td></tr>").arg(a, b, colour);
}

}  // namespace

PlanPage::PlanPage(Workroom& room) : room_(room) {
    bare();
    ends_ = text_row(tr("Ends"));
    bound_ = text_row(tr("No sooner than"));
    bound_->setToolTip(tr("What presses, hands and the longest chain need at the least"));
    alone_ = text_row(tr("One at a time"));
    alone_->setToolTip(tr("Each load from loading to its last peel before the next"));
    rule();
    const auto time = [&](const QString& name, const QString& why, int PressRun::*which) {
        ValueField* f = field_row(name, why);
        f->take = [this, which, name](const QString& text, bool) -> std::optional<QString> {
            const auto m = minutes_from(text);
            if (!m) return tr("A time like 8:00.");
            change(within(name), [&](PressRun& r) { r.*which = *m; });
            return std::nullopt;
        };
        return f;
    };
    start_ = time(tr("Begins"), tr("Time of day; presses are cold then"), &PressRun::start);
    due_ = time(tr("Due by"), tr("Time of day on which all must be pressed"), &PressRun::due);
    hands_ = number_row(tr("People at the presses"), tr("People who load, peel and change at the same time"), 1, 40, 0);
    hands_->entered = [this](double v) { change(tr("hands"), [&](PressRun& r) { r.hands = int(std::lround(v)); }); };
    breaks_ = field_row(tr("Breaks"), tr("Like 12:00-12:30, 15:00-15:10: nothing is pressed then"));
    breaks_->take = [this](const QString& text, bool) -> std::optional<QString> {
        std::vector<PressBreak> all;
        for (const QString& part : text.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
            const QStringList ends = part.split(QRegularExpression(QStringLiteral("\\s*[-–]\\s*")));
            if (ends.size() != 2) return tr("Breaks are like 12:00-12:30.");
            const int a = minutes_from(ends[0]).value_or(-1), b = minutes_from(ends[1]).value_or(-1);
            if (a < 0 || b <= a) return tr("Breaks are like 12:00-12:30.");
            all.push_back({a, b});
        }
        change(tr("breaks"), [&](PressRun& r) { r.breaks = all; });
        return std::nullopt;
    };
    const auto box = [&](const QString& name, const QString& why, bool PressRun::*which) {
        QCheckBox* b = tick(name, why);
        connect(b, &QCheckBox::clicked, this, [this, which, name](bool on) { change(within(name), [&](PressRun& r) { r.*which = on; }); });
        return b;
    };
    share_ = box(tr("Presses share the work"), tr("Another press of the kind helps where its platen takes the design"),
                 &PressRun::share_presses);
    trials_ = box(tr("A trial piece first"), tr("One piece before the others, where a recipe was not tried here"), &PressRun::trials);
    film_ =
        box(tr("Film is made on the day"),
            tr("Printing, powder, cure and cutting apart stand in the plan, before the loads that take the film"), &PressRun::makes_film);
    fahrenheit_ = box(tr("Degrees Fahrenheit"), tr("How heat is shown; it is kept in Celsius"), &PressRun::fahrenheit);
    rule();
    head(tr("Chosen load"));
    load_ = note();
    load_->setObjectName(QStringLiteral("Chosen load"));
    load_about_ = note();
    press_ = choice_row(tr("Press"), tr("Where this load is pressed"));
    connect(press_, &QComboBox::activated, this, [this](int) {
        const std::string to = press_->currentData().toString().toStdString();
        change(tr("press of a load"), [&](PressRun& r) {
            for (const auto& held : in_hand_) {
                const auto it = std::find_if(r.pins.begin(), r.pins.end(), [&](const LoadPin& p) { return p.load == held.first; });
                if (it == r.pins.end())
                    r.pins.push_back({held.first, to, -1});
                else
                    it->press = to;
            }
        });
    });
    pin_ = push(tr("Pin it there"), tr("It begins at this time whatever else changes; Shift and a click takes several loads in hand"));
    loose_ = push(tr("Unpin it"), tr("It goes where the plan has it"));
    side_by_side({pin_, loose_});
    connect(pin_, &QPushButton::clicked, this, [this] {
        change(tr("pin a load"), [&](PressRun& r) {
            std::erase_if(r.pins, [&](const LoadPin& p) { return in_hand_.contains(p.load); });
            for (const auto& [id, start] : in_hand_) r.pins.push_back({id, {}, std::round(start)});
        });
    });
    connect(loose_, &QPushButton::clicked, this, [this] {
        change(tr("unpin a load"),
               [&](PressRun& r) { std::erase_if(r.pins, [&](const LoadPin& p) { return in_hand_.contains(p.load); }); });
    });
    fill();
}

void PlanPage::offer(QMenu& menu) {
    add_heading(menu, load_->text());
    for (QPushButton* b : {pin_, loose_}) add_button(menu, b);
    if (press_->count() < 2 || !press_->isEnabled()) return;
    QMenu* to = menu.addMenu(tr("Press it on"));
    for (int i = 0; i < press_->count(); ++i)
        to->addAction(press_->itemText(i), this, [this, i] {
            press_->setCurrentIndex(i);
            emit press_->activated(i);
        });
}

void PlanPage::change(const QString& what, const std::function<void(PressRun&)>& by) {
    Order next = room_.order();
    by(next.press_run);
    room_.edit(what, std::move(next));
}

void PlanPage::show_plan(const PressPlan& plan, int load, const std::set<int>& in_hand) {
    const PressRun& r = room_.order().press_run;
    const bool any = !plan.shop.tasks.empty();
    const auto end = [&](double s) { return any ? qt(time_of_day(r, s)) + ", " + qt(duration_words(s)) : QStringLiteral("–"); };
    ends_->setText(end(plan.schedule.end));
    bound_->setText(end(plan.bound));
    alone_->setText(end(plan.one_by_one));
    start_->show_text(clock_words(r.start));
    due_->show_text(clock_words(r.due));
    const bool gang = !room_.order().jobs.empty();
    due_->setEnabled(!gang);
    due_->setToolTip(gang ? tr("The first of the jobs: each has its own on the Order bench, page Jobs")
                          : tr("Time of day on which all must be pressed"));
    hands_->show_number(r.hands);
    QStringList breaks;
    for (const PressBreak& b : r.breaks) breaks << clock_words(b.from) + "-" + clock_words(b.to);
    breaks_->show_text(breaks.join(QStringLiteral(", ")));
    share_->setChecked(r.share_presses);
    trials_->setChecked(r.trials);
    film_->setChecked(r.makes_film);
    fahrenheit_->setChecked(r.fahrenheit);
    const bool one = load >= 0 && load < int(plan.loads.size()) && !plan.loads[std::size_t(load)].tasks.empty();
    press_->setEnabled(one);
    pin_->setEnabled(one);
    if (!one) {
        load_->setText(tr("Click one on the lanes."));
        load_about_->clear();
        loose_->setEnabled(false);
        return;
    }
    const Load& l = plan.loads[std::size_t(load)];
    const auto task = std::size_t(l.tasks.front());
    const Slot& s = plan.schedule.places[task];
    in_hand_ = {{l.id, s.start}};
    std::set<int> machines(plan.shop.tasks[task].machines.begin(), plan.shop.tasks[task].machines.end());
    for (const int other : in_hand) {
        if (other < 0 || other >= int(plan.loads.size()) || plan.loads[std::size_t(other)].tasks.empty()) continue;
        const Load& o = plan.loads[std::size_t(other)];
        in_hand_[o.id] = plan.schedule.places[std::size_t(o.tasks.front())].start;
        const std::vector<int>& can = plan.shop.tasks[std::size_t(o.tasks.front())].machines;
        std::erase_if(machines, [&](int m) { return std::find(can.begin(), can.end(), m) == can.end(); });
    }
    load_->setText(qt(load_words(room_.order(), l)) +
                   (in_hand_.size() > 1 ? tr(", and %1 more in hand").arg(in_hand_.size() - 1) : QString()));
    const bool pinned = std::any_of(r.pins.begin(), r.pins.end(), [&](const LoadPin& p) { return in_hand_.contains(p.load); });
    load_about_->setText(tr("%1 to %2%3")
                             .arg(qt(time_of_day(r, s.start)), qt(time_of_day(r, plan.schedule.places[std::size_t(l.tasks.back())].end)),
                                  pinned ? tr(", pinned") : QString()));
    std::vector<std::pair<std::string, QString>> items;
    items.reserve(machines.size());
    for (const int m : machines)  // those that take all of them
        items.emplace_back(plan.presses[std::size_t(m)], qt(plan.shop.machines[std::size_t(m)].name));
    set_items(press_, items, s.machine >= 0 ? plan.presses[std::size_t(s.machine)] : "");
    loose_->setEnabled(pinned);
}

RecipePage::RecipePage(Workroom& room) : room_(room) {
    bare();
    title_ = title();
    from_ = note();
    from_->setObjectName(QStringLiteral("Recipe from"));
    steps_ = choice_row(tr("Step"), tr("The steps in their order"));
    connect(steps_, &QComboBox::activated, this, [this](int i) {
        step_ = i;
        show_decoration(find_decoration(room_.order(), decoration_));
    });
    kind_ = choice_row(tr("What"), tr("What is done in this step"));
    connect(kind_, &QComboBox::activated, this, [this](int i) { change([i](RecipeStep& s) { s.kind = StepKind(i); }); });
    heat_ = number_row(tr("Heat"), tr("Of the plate; 0: no heat"), 0, 450, 0);
    heat_->entered = [this](double v) {
        change([&](RecipeStep& s) { s.celsius = room_.order().press_run.fahrenheit && v > 0 ? (v - 32) * 5 / 9 : std::min(v, 240.0); });
    };
    seconds_ = number_row(tr("Seconds"), tr("Under heat; of a wait or a peel: how long it cools first"), 0, 3600, 1);
    seconds_->entered = [this](double v) { change([&](RecipeStep& s) { s.seconds = v; }); };
    pressure_ = choice_row(tr("Pressure"), tr("By class; a gauge's figure beside it"));
    connect(pressure_, &QComboBox::activated, this, [this](int i) { change([i](RecipeStep& s) { s.pressure = Pressure(i); }); });
    gauge_ = number_row(tr("Gauge, bar"), tr("Where the press has one; 0: by the class alone"), 0, 20, 1);
    gauge_->entered = [this](double v) { change([&](RecipeStep& s) { s.gauge_bar = v; }); };
    peel_ = choice_row(tr("Peel"), tr("When the carrier comes off"));
    connect(peel_, &QComboBox::activated, this, [this](int i) { change([i](RecipeStep& s) { s.peel = Peel(i); }); });
    cover_ = field_row(tr("Cover"), tr("Sheet over it"));
    cover_->take = [this](const QString& t, bool) -> std::optional<QString> {
        change([&](RecipeStep& s) { s.cover = t.trimmed().left(80).toStdString(); });
        return std::nullopt;
    };
    how_ = field_row(tr("How"), tr("A word to the hand at the press"));
    how_->take = [this](const QString& t, bool) -> std::optional<QString> {
        change([&](RecipeStep& s) { s.how = t.trimmed().left(120).toStdString(); });
        return std::nullopt;
    };
    how_whole_ = note();
    protect_ = tick(tr("Protect the other side"), tr("A sheet between this side and what is pressed on the other"));
    connect(protect_, &QCheckBox::clicked, this, [this](bool on) { change([on](RecipeStep& s) { s.protect_other = on; }); });
    add_ = push(tr("Add a step"), tr("After this one"));
    remove_ = push(tr("Take it out"), tr("This step is left out"));
    side_by_side({add_, remove_});
    const auto steps_now = [this] {
        const Decoration* d = find_decoration(room_.order(), decoration_);
        return d == nullptr ? std::vector<RecipeStep>{} : recipe_for(room_.order(), *d).steps;
    };
    connect(add_, &QPushButton::clicked, this, [this, steps_now] {
        auto steps = steps_now();
        RecipeStep fresh;
        fresh.kind = StepKind::wait;
        fresh.seconds = 10;
        const auto at = std::min(steps.size(), std::size_t(step_ + 1));
        steps.insert(steps.begin() + std::ptrdiff_t(at), fresh);
        step_ = int(at);
        keep(std::move(steps), tr("add a step"));
    });
    connect(remove_, &QPushButton::clicked, this, [this, steps_now] {
        auto steps = steps_now();
        if (steps.size() < 2 || step_ >= int(steps.size())) return;
        steps.erase(steps.begin() + step_);
        step_ = std::max(0, step_ - 1);
        keep(std::move(steps), tr("take a step out"));
    });
    own_ = push(tr("Back to the usual values"), tr("What you set or tried for this blank and press is forgotten"));
    add(own_);
    connect(own_, &QPushButton::clicked, this, [this] {
        const Decoration* d = find_decoration(room_.order(), decoration_);
        if (d == nullptr) return;
        Order next = room_.order();
        erase_if(next.trials, [&](const Trial& t) { return is_trial_of(t, room_.order(), *d); });
        room_.edit(tr("usual recipe"), std::move(next));
    });
    came_out_ = choice_row(tr("It came out"), tr("Notes how a piece pressed by this recipe came out"));
    came_out_->addItem(tr("not noted"));
    for (int i = 0; i < trial_result_count; ++i)
        if (TrialResult(i) != TrialResult::to_try) came_out_->addItem(said(trial_result_name(TrialResult(i))), i);
    connect(came_out_, &QComboBox::activated, this, [this](int i) {
        const Decoration* d = find_decoration(room_.order(), decoration_);
        auto trial = d == nullptr || i == 0
                         ? std::nullopt
                         : trial_of(room_.order(), *d, recipe_for(room_.order(), *d).steps, TrialResult(came_out_->itemData(i).toInt()));
        came_out_->setCurrentIndex(0);
        if (!trial) return;
        trial->date = QDate::currentDate().toString(Qt::ISODate).toStdString();
        Order next = room_.order();
        next.trials.push_back(std::move(*trial));
        room_.edit(tr("note a result"), std::move(next));
    });
    limit_ = note();
    trials_ = note();
    fill();
}

void RecipePage::keep(std::vector<RecipeStep> steps, const QString& what) {
    const Decoration* d = find_decoration(room_.order(), decoration_);
    auto trial = d == nullptr ? std::nullopt : trial_of(room_.order(), *d, std::move(steps), TrialResult::to_try);
    if (!trial) return;
    Order next = room_.order();
    if (!next.trials.empty() && is_trial_of(next.trials.back(), next, *d) && next.trials.back().result == TrialResult::to_try)
        next.trials.back().steps = std::move(trial->steps);
    else
        next.trials.push_back(std::move(*trial));
    room_.edit(what, std::move(next), tr("recipe"));
}

void RecipePage::change(const std::function<void(RecipeStep&)>& by) {
    const Decoration* d = find_decoration(room_.order(), decoration_);
    if (d == nullptr) return;
    std::vector<RecipeStep> steps = recipe_for(room_.order(), *d).steps;
    if (step_ < 0 || step_ >= int(steps.size())) return;
    const RecipeStep was = steps[std::size_t(step_)];
    by(steps[std::size_t(step_)]);
    if (steps[std::size_t(step_)] == was) return;
    keep(std::move(steps), tr("recipe"));
}

void RecipePage::show_decoration(const Decoration* d) {
    const bool other = d == nullptr || d->id != decoration_;
    decoration_ = d == nullptr ? "" : d->id;
    const ChosenRecipe recipe = d == nullptr ? ChosenRecipe{} : recipe_for(room_.order(), *d);
    const bool f = room_.order().press_run.fahrenheit, oven = d != nullptr && in_oven(room_.order(), *d);
    if (other || step_ >= int(recipe.steps.size())) {
        step_ = 0;
        for (std::size_t i = 0; i < recipe.steps.size(); ++i)
            if (applies(recipe.steps[i])) step_ = int(i);
    }
    title_->setText(d == nullptr ? tr("Nothing chosen") : qt(d->name));
    from_->setText(
        d == nullptr
            ? QString()
            : tr("%1%2: the supplier's sheet comes first.").arg(qt(recipe.from), recipe.tried ? QString() : tr(", not tried here")));
    std::vector<std::pair<std::string, QString>> items;
    for (std::size_t i = 0; i < recipe.steps.size(); ++i)
        items.emplace_back(std::to_string(i), QStringLiteral("%1  %2").arg(i + 1).arg(
                                                  qt(step_words(recipe.steps[i], f, oven, reading_in())).section(QLatin1Char(','), 0, 0)));
    set_items(steps_, items, std::to_string(step_));
    const bool any = !recipe.steps.empty();
    for (QWidget* w :
         std::initializer_list<QWidget*>{steps_, kind_, heat_, seconds_, pressure_, gauge_, peel_, cover_, how_, protect_, add_, remove_})
        w->setEnabled(any);
    if (!any) return;
    const RecipeStep& s = recipe.steps[std::size_t(step_)];
    items.clear();
    for (int i = 0; i < step_kind_count; ++i) items.emplace_back(std::to_string(i), said(step_name(StepKind(i))));
    set_items(kind_, items, std::to_string(int(s.kind)));
    items.clear();
    for (int i = 0; i < 4; ++i) items.emplace_back(std::to_string(i), said(pressure_name(Pressure(i))));
    set_items(pressure_, items, std::to_string(int(s.pressure)));
    items.clear();
    for (int i = 0; i < 3; ++i) items.emplace_back(std::to_string(i), said(peel_name(Peel(i))));
    set_items(peel_, items, std::to_string(int(s.peel)));
    heat_->show_number(std::round(f && s.celsius > 0 ? fahrenheit_of(s.celsius) : s.celsius));
    seconds_->show_number(s.seconds);
    gauge_->show_number(s.gauge_bar);
    cover_->show_text(qt(s.cover));
    how_->show_text(qt(s.how));
    protect_->setChecked(s.protect_other);
    peel_->setEnabled(s.kind == StepKind::peel);
    const bool hot = heats(s) || s.kind == StepKind::marry;
    for (QWidget* w : std::initializer_list<QWidget*>{heat_, cover_, protect_}) w->setEnabled(hot);
    for (QWidget* w : std::initializer_list<QWidget*>{pressure_, gauge_}) w->setEnabled(hot && !oven);
    const bool cut = how_->fontMetrics().horizontalAdvance(qt(s.how)) > how_->width() - 16;
    how_whole_->setText(cut ? qt(s.how) : QString());  // a long remark is read whole
    how_whole_->setVisible(cut);
    limit_->setText(recipe.most_celsius > 0 ? tr("This blank bears %1: %2.").arg(qt(heat_words(recipe.most_celsius, f)), qt(recipe.because))
                                            : QString());
    QStringList tried;
    for (const Trial& t : room_.order().trials)
        if (is_trial_of(t, room_.order(), *d)) tried << (t.date.empty() ? QString() : qt(t.date) + " ") + said(trial_result_name(t.result));
    trials_->setText(tried.isEmpty() ? QString() : tr("Trials: ") + tried.join(QStringLiteral("; ")));
    own_->setEnabled(!tried.isEmpty());
}

HeatPage::HeatPage(Workroom& room) : room_(room) {
    bare();
    title_ = title();
    turns_ = note();
    turns_->setTextFormat(Qt::RichText);
    up_ = push(tr("Sooner"), tr("The chosen design is pressed before the one ahead of it on the garment"));
    down_ = push(tr("Later"), tr("The chosen design is pressed after the next one on the garment"));
    side_by_side({up_, down_});
    connect(up_, &QPushButton::clicked, this, [this] { sooner(-1); });
    connect(down_, &QPushButton::clicked, this, [this] { sooner(1); });
    rule();
    head(tr("Heat ledger"));
    lines_ = note();
    lines_->setTextFormat(Qt::RichText);
    lines_->setObjectName(QStringLiteral("Heat ledger"));
    fill();
}

void HeatPage::sooner(int by) {
    const Decoration* d = find_decoration(room_.order(), decoration_);
    if (d == nullptr) return;
    std::vector<std::string> ids;
    for (const PressTurn& t : press_turns(room_.order(), room_.plan(), room_.transfer_set(), d->run)) ids.push_back(t.decoration->id);
    const auto at = std::find(ids.begin(), ids.end(), d->id) - ids.begin();
    const auto to = at + by;
    if (at >= std::ptrdiff_t(ids.size()) || to < 0 || to >= std::ptrdiff_t(ids.size())) return;
    std::swap(ids[std::size_t(at)], ids[std::size_t(to)]);
    Order next = room_.order();
    std::erase_if(next.press_run.order, [&](const std::string& id) { return std::find(ids.begin(), ids.end(), id) != ids.end(); });
    next.press_run.order.insert(next.press_run.order.end(), ids.begin(), ids.end());
    room_.edit(tr("order on the garment"), std::move(next));
}

void HeatPage::show_garment(const Decoration* d, const std::string& wanted) {
    decoration_ = d == nullptr ? "" : d->id;
    title_->setText(d == nullptr ? tr("Nothing chosen") : qt(run_name(room_.order(), d->run)));
    up_->setEnabled(false);
    down_->setEnabled(false);
    if (d == nullptr) {
        turns_->clear();
        lines_->clear();
        return;
    }
    const auto turns = press_turns(room_.order(), room_.plan(), room_.transfer_set(), d->run);
    QString words;
    std::vector<const Decoration*> in_order;
    for (std::size_t i = 0; i < turns.size(); ++i) {
        const bool mine = turns[i].decoration->id == d->id;
        words += QStringLiteral("%1  %2%3%4<br><span style='color:#5B6770'>%5</span><br>")
                     .arg(i + 1)
                     .arg(mine ? QStringLiteral("<b>") : QString(), qt(turns[i].decoration->name).toHtmlEscaped(),
                          mine ? QStringLiteral("</b>") : QString(), qt(turns[i].reason).toHtmlEscaped());
        in_order.push_back(turns[i].decoration);
        if (mine) {
            up_->setEnabled(i > 0);
            down_->setEnabled(i + 1 < turns.size());
        }
    }
    turns_->setText(words);
    std::string size = wanted;
    const DecorationFit* fit = find_fit(room_.plan(), d->id);
    if (fit != nullptr && find_size(*fit, size) == nullptr && !fit->sizes.empty()) size = fit->sizes.front().size;
    QString rows = QStringLiteral("<table width='100%' cellspacing='0' cellpadding='2'>");
    const auto heat = [&](double celsius) { return qt(heat_words(celsius, room_.order().press_run.fahrenheit)); };
    for (const HeatLine& l : heat_ledger(room_.order(), room_.plan(), room_.transfer_set(), size, in_order)) {
        const QString colour = l.holds() ? QStringLiteral("#4F6D2F") : QStringLiteral("#A32035");
        rows += table_row(QStringLiteral("<b>%1</b>").arg(qt(l.name).toHtmlEscaped()), l.holds() ? tr("holds") : tr("too much"), colour);
        rows += table_row(tr("under heat"), l.limit > 0 ? tr("%1 of %2 s").arg(fixed(l.seconds, 0)).arg(fixed(l.limit, 0))
                                                        : QStringLiteral("%1 s").arg(fixed(l.seconds, 0)));
        rows += table_row(tr("times"), l.most_heats > 0 ? tr("%1 of %2").arg(l.heats).arg(l.most_heats) : QString::number(l.heats));
        rows +=
            table_row(tr("hottest"), l.most_celsius > 0 ? tr("%1, bears %2").arg(heat(l.celsius), heat(l.most_celsius)) : heat(l.celsius));
    }
    lines_->setText(tr("Size %1").arg(qt(size)) + rows + QStringLiteral("</table>"));
}

}  // namespace orthema::app
