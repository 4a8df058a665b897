#include "app/benches/press/press_bench.h"

#include <QHBoxLayout>
#include <QMenu>
#include <QShortcut>
#include <QStackedWidget>

#include <cmath>

#include "app/widgets/choice_box.h"
#include "app/widgets/speech.h"
#include "app/benches/press/held_runs.h"
#include "app/benches/press/lanes_view.h"
#include "app/benches/press/measure_card.h"
#include "app/benches/press/pick_list.h"
#include "app/benches/press/press_desk.h"
#include "app/benches/press/press_pages.h"
#include "app/benches/press/step_card.h"
#include "app/widgets/figures.h"
#include "app/widgets/menus.h"

namespace orthema::app {

namespace {

constexpr int lanes_view = 0, card_view = 1, picks_view = 2;
constexpr double planning_seconds = 8;

/// Hands as a trainee may meet them.
HandSetup hand_setup(const std::string& kind, std::size_t loads) {
    HandSetup h;
    h.spread = 2.5;
    if (kind == "aside") h.aside = 5;
    if (kind == "slips") {
        h.slips_at = static_cast<int>(loads / 3);
        h.slip = 7;
    }
    if (kind == "tired") h.creep = 0.2;
    return h;
}

}  // namespace

PressBench::PressBench(Workroom& room) : Bench(room, QStringLiteral("press")) {
    desk_ = new PressDesk(room);
    desk_->setParent(this);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* first = new QHBoxLayout;
    views_ = new Segments(tr("Press view"), {tr("plan"), tr("step card"), tr("pick list")});
    views_->turn_pages();
    views_->setFixedWidth(280);
    views_->chosen = [this](int i) { show_view(i); };
    first->addWidget(views_);
    summary_ = new QLabel;
    summary_->setObjectName(QStringLiteral("Plan summary"));
    summary_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    first->addWidget(summary_, 1);
    column->addLayout(first);
    auto* second = new QHBoxLayout;
    better_ = push(tr("Find a shorter plan"), tr("Looks for a shorter plan for a few seconds"));
    connect(better_, &QPushButton::clicked, this, [this] {
        if (room_.planner().running())
            room_.planner().stop();
        else
            room_.planner().better(planning_seconds);
        refresh();
    });
    second->addWidget(better_);
    second->addStretch(1);
    speed_ = new ChoiceBox;
    speed_->setObjectName(QStringLiteral("Speed"));
    speed_->setAccessibleName(tr("Speed of the shift"));
    speed_->setToolTip(tr("A rehearsal runs against the simulated presses; at the clock's speed it is for the work itself"));
    set_items(speed_,
              {{"10", tr("rehearsal, ten times as fast")},
               {"1", tr("rehearsal, by the clock")},
               {"60", tr("rehearsal, a minute a second")},
               {"0", tr("by the clock, presses by hand")}},
              "10");
    second->addWidget(speed_);
    hand_ = new ChoiceBox;
    hand_->setObjectName(QStringLiteral("Hand"));
    hand_->setAccessibleName(tr("Hand of the rehearsal"));
    hand_->setToolTip(tr("How the rehearsal's pieces land: what you then measure, and what the records say of it"));
    set_items(hand_, {{"steady", tr("steady hand")}, {"aside", tr("lands aside")}, {"slips", tr("platen slips")}, {"tired", tr("tires")}},
              "steady");
    second->addWidget(hand_);
    marks_ = new QLineEdit;
    marks_->setObjectName(QStringLiteral("Hands"));
    marks_->setAccessibleName(tr("Who presses"));
    marks_->setPlaceholderText(tr("by"));
    marks_->setToolTip(tr("A mark or initials of who presses, for the records; may stay empty"));
    marks_->setMaxLength(12);
    marks_->setFixedWidth(58);
    connect(marks_, &QLineEdit::editingFinished, this, [this] { desk_->recorder().set_hands(marks_->text().trimmed().toStdString()); });
    second->addWidget(marks_);
    connect(speed_, &QComboBox::currentIndexChanged, this, [this] { refresh(); });
    take_in_ = push(tr("Add to the shift"), tr("Loads that came to the order since the shift began, replacements mostly: "
                                               "press them in this shift, once their transfers are at hand"));
    connect(take_in_, &QPushButton::clicked, desk_, &PressDesk::take_in);
    second->addWidget(take_in_);
    go_on_ = push(tr("Go on"), tr("The shift that stopped before all was pressed, from where it stopped"), true);
    connect(go_on_, &QPushButton::clicked, this, [this] {
        desk_->go_on();
        show_view(card_view);
    });
    second->addWidget(go_on_);
    begin_ = push(tr("Begin the shift"), tr("The step card says what to do, one thing after the other"), true);
    connect(begin_, &QPushButton::clicked, this, [this] { begin(); });
    second->addWidget(begin_);
    column->addLayout(second);

    middle_ = new QStackedWidget;
    lanes_ = new LanesView(room);
    card_ = new StepCard(room, *desk_);
    picks_ = new PickList(room);
    for (QWidget* w : std::initializer_list<QWidget*>{lanes_, card_, picks_}) middle_->addWidget(w);
    column->addWidget(middle_, 1);
    lanes_->picked = picks_->picked = [this](int load) {
        lanes_->choose(load);
        const PressPlan& plan = desk_->running() ? desk_->shift().plan() : room_.press_plan();
        if (load < 0 || load >= int(plan.loads.size())) return;
        const Load& l = plan.loads[std::size_t(load)];
        if (const Decoration* d = find_decoration(room_.order(), l.decoration)) select_subject(room_, subject_of("press", *d, l.size));
        refresh();
    };
    lanes_->moved = [this](const std::map<int, double>& starts) {
        if (desk_->running()) return;
        Order next = room_.order();
        for (const auto& [load, start] : starts) {
            if (load >= int(room_.press_plan().loads.size())) continue;
            const std::string id = room_.press_plan().loads[std::size_t(load)].id;
            std::erase_if(next.press_run.pins, [&](const LoadPin& p) { return p.load == id; });
            next.press_run.pins.push_back({id, {}, start});
        }
        room_.edit(starts.size() > 1 ? tr("move loads") : tr("move a load"), std::move(next));
    };

    held_ = new HeldRuns(room, *desk_);
    column->addWidget(held_);
    measure_ = new MeasureCard(room, desk_->recorder());
    measure_->done = [this] { card_->setFocus(); };
    column->addWidget(measure_);
    connect(&desk_->recorder(), &ShiftRecorder::changed, this, [this] {
        if (isVisible()) refresh();
    });
    for (QWidget* w : std::initializer_list<QWidget*>{lanes_, card_}) w->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(lanes_, &QWidget::customContextMenuRequested, this, [this](QPoint at) {
        if (lanes_->chosen() < 0) return;
        QMenu menu;
        menu.setObjectName(QStringLiteral("Load menu"));
        plan_page_->offer(menu);
        menu.addSeparator();
        menu.addAction(tr("Its recipe"), this, [this] {
            page_ = 1;
            refresh();
        });
        menu.addAction(tr("Its design on the size wall"), this, [this] { emit wanted(QStringLiteral("fit")); });
        menu.exec(lanes_->mapToGlobal(at));
    });
    connect(card_, &QWidget::customContextMenuRequested, this, [this](QPoint at) {
        if (!desk_->running()) return;
        QMenu menu;
        for (QPushButton* b : {next_, back_, pause_, skip_, fault_}) add_button(menu, b);
        menu.exec(card_->mapToGlobal(at));
    });
    keys_ = new QWidget;
    auto* keys = new QHBoxLayout(keys_);
    keys->setContentsMargins(0, 0, 0, 0);
    next_ = push(tr("Next  (space)"), tr("This is done: on to the next"), true);
    back_ = push(tr("Back"), tr("Takes the last step back (Backspace)"));
    pause_ = push(tr("Pause"), tr("The clock stands while nothing is under heat (P)"));
    skip_ = push(tr("Leave this load out"), tr("Nothing more is done with it in this shift"));
    fault_ = push(tr("Report a fault…"), tr("Not released, crooked, scorched, lifted, ghosted; a press that fails (F)"));
    take_in_->setFocusPolicy(Qt::TabFocus);
    for (QPushButton* b : {next_, back_, pause_, skip_, fault_}) {
        b->setFocusPolicy(Qt::TabFocus);  // a click leaves the keys with the card
        b->setMinimumHeight(44);
        keys->addWidget(b, b == next_ ? 3 : 1);
    }
    connect(next_, &QPushButton::clicked, desk_, &PressDesk::next);
    connect(back_, &QPushButton::clicked, desk_, &PressDesk::again);
    connect(pause_, &QPushButton::clicked, desk_, &PressDesk::pause);
    connect(skip_, &QPushButton::clicked, desk_, &PressDesk::skip);
    connect(fault_, &QPushButton::clicked, this, [this] { fault_menu(); });
    column->addWidget(keys_);
    // wherever the focus is while the card is seen; fields keep what is typed in them, and a button that was reached with Tab its space
    const auto key = [this](Qt::Key k, QPushButton* button) {
        auto* s = new QShortcut(QKeySequence(k), this);
        s->setContext(Qt::WindowShortcut);
        card_keys_.push_back(s);
        connect(s, &QShortcut::activated, button, [this, k, button] {
            auto* focused = qobject_cast<QAbstractButton*>(window()->focusWidget());
            const bool own = focused != nullptr && focused->isVisible() && (k == Qt::Key_Space || k == Qt::Key_Return);
            (own ? focused : button)->click();
        });
    };
    key(Qt::Key_Space, next_);
    key(Qt::Key_Return, next_);
    key(Qt::Key_Backspace, back_);
    key(Qt::Key_P, pause_);
    key(Qt::Key_F, fault_);

    panel_ = new FigurePanel;
    pages_ = new Segments(tr("Press figures"), {tr("Plan"), tr("Recipe"), tr("Heat")});
    pages_->turn_pages();
    pages_->chosen = [this](int i) {
        page_ = i;
        refresh();
    };
    panel_->add(pages_);
    plan_page_ = new PlanPage(room);
    rule_ = plan_page_->choice_row(tr("Measured pieces"),
                                   tr("Which pieces the step card asks you to measure: enough to see a shift of 5 mm within "
                                      "30 pieces, worked out from the spread known so far"));
    set_items(rule_, {{"rule", tr("as needed")}, {"1", tr("every piece")}, {"0", tr("none")}}, "rule");
    connect(rule_, &QComboBox::currentIndexChanged, this, [this] {
        SamplingRule rule;
        const QString which = rule_->currentData().toString();
        rule.on = which != QLatin1String("0");
        rule.every = which == QLatin1String("1") ? 1 : 0;
        desk_->recorder().set_rule(rule);
    });
    recipe_page_ = new RecipePage(room);
    heat_page_ = new HeatPage(room);
    for (FigurePanel* p : std::initializer_list<FigurePanel*>{plan_page_, recipe_page_, heat_page_}) panel_->add(p);
    panel_->fill();
    auto* caution = panel_->note();
    caution->setText(tr("Hot platen: gloves; never leave it closed unattended. Ventilate. Supplier's sheet and local rules first."));

    connect(desk_, &PressDesk::card_changed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(desk_, &PressDesk::ticked, this, [this] {
        if (!isVisible()) return;
        if (middle_->currentIndex() == card_view)
            card_->refresh();
        else if (middle_->currentIndex() == lanes_view && desk_->running())
            lanes_->show_plan(&desk_->shift().plan(), desk_->now());
    });
    show_view(lanes_view);
}

PressBench::~PressBench() { delete desk_; }

QWidget* PressBench::figures() { return panel_; }
QWidget* PressBench::first_focus() { return middle_->currentWidget(); }

void PressBench::show_view(int view) {
    middle_->setCurrentIndex(view);
    views_->show_choice(view);
    middle_->currentWidget()->setFocus();
    refresh();
}

void PressBench::begin() {
    if (desk_->running()) {
        desk_->end();
        return show_view(lanes_view);
    }
    const double speed = speed_->currentData().toString().toDouble();
    room_.planner().stop();
    desk_->begin(speed > 0 ? speed : 1, speed > 0,
                 hand_setup(hand_->currentData().toString().toStdString(), room_.press_plan().loads.size()));
    show_view(card_view);
}

void PressBench::fault_menu() {
    if (!desk_->running()) return;
    QMenu menu;
    menu.setObjectName(QStringLiteral("Faults"));
    const Load* load = desk_->shift().in_question();
    if (load != nullptr) add_heading(menu, qt(load_words(room_.order(), *load)));
    const bool film = load != nullptr && load->makes_film();
    if (film) menu.addAction(tr("What is wrong with a film is printed again before it is pressed"))->setEnabled(false);
    for (int i = 0; i < press_fault_count && !film; ++i) {
        QString name = said(press_fault_name(PressFault(i)));
        name[0] = name[0].toUpper();
        if (load == nullptr || load->parts.size() < 2 || PressFault(i) == PressFault::not_released) {
            menu.addAction(name, this, [this, i] { desk_->report(PressFault(i)); });
            continue;
        }
        // several designs lie under the press: which of them
        QMenu* which = menu.addMenu(name);
        for (std::size_t k = 0; k < load->parts.size(); ++k)
            if (const Decoration* d = find_decoration(room_.order(), load->parts[k].decoration))
                which->addAction(qt(d->name) + ", " + qt(run_name(room_.order(), d->run)), this,
                                 [this, i, k] { desk_->report(PressFault(i), k); });
    }
    const auto card = desk_->shift().card();
    if (card && card->machine >= 0 && desk_->rehearses()) {
        const int m = card->machine;
        add_heading(menu, tr("Rehearse that the %1 fails").arg(qt(desk_->shift().plan().shop.machines[std::size_t(m)].name)));
        const std::pair<const char*, const char*> troubles[] = {
            {noted("It overheats"), "overheats"},       {noted("It never gets hot"), "never-reaches"}, {noted("It drifts"), "drifts"},
            {noted("Its power is lost"), "power-lost"}, {noted("It says nothing"), "silent"},          {noted("It is mended"), "none"}};
        for (const auto& [words, which] : troubles)
            menu.addAction(tr(words), this, [this, m, w = QString::fromLatin1(which)] { desk_->trouble(m, w); });
        menu.addAction(tr("Its cable is unplugged"), this, [this, m] { desk_->cut_line(m); });
        menu.addAction(tr("Its cable is plugged in"), this, [this, m] { desk_->connect_line(m); });
    }
    menu.exec(fault_->mapToGlobal(QPoint(0, -menu.sizeHint().height())));
    card_->setFocus();
}

void PressBench::show_summary() {
    const PressPlan& plan = desk_->running() ? desk_->shift().plan() : room_.press_plan();
    if (plan.shop.tasks.empty()) {
        summary_->setText(room_.catching_up() ? tr("Being worked out …") : QString());
        return;
    }
    const PressRun& run = room_.order().press_run;
    QStringList parts{tr("Ends %1").arg(qt(time_of_day(run, plan.schedule.end)))};
    if (desk_->running())
        parts << tr("it is %1").arg(qt(time_of_day(run, desk_->now())))
              << tr("%1 of %2 loads").arg(desk_->shift().loads_done()).arg(plan.loads.size());
    else
        parts << tr("%1 % less than one after the other").arg(std::lround(100 * (1 - plan.schedule.end / std::max(1.0, plan.one_by_one))))
              << tr("none ends before %1").arg(qt(time_of_day(run, plan.bound)));
    summary_->setToolTip(parts.join(QStringLiteral(" · ")));
    while (parts.size() > 1 && summary_->fontMetrics().horizontalAdvance(parts.join(QStringLiteral(" · "))) + 12 > summary_->width())
        parts.removeLast();  // as much as there is room for
    parts[0] = QStringLiteral("<b>%1</b>").arg(parts[0]);
    summary_->setText(parts.join(QStringLiteral(" · ")));
}

void PressBench::resizeEvent(QResizeEvent* event) {
    Bench::resizeEvent(event);
    QMetaObject::invokeMethod(this, &PressBench::show_summary, Qt::QueuedConnection);  // once it has been laid out
}

void PressBench::refresh() {
    const bool runs = desk_->running();
    const PressPlan& plan = runs ? desk_->shift().plan() : room_.press_plan();
    show_summary();
    begin_->setText(runs ? tr("End the shift") : desk_->kept() ? tr("Begin anew") : tr("Begin the shift"));
    begin_->setEnabled(runs || !plan.shop.tasks.empty());
    const auto& kept = desk_->kept();
    go_on_->setVisible(!runs && kept.has_value());
    if (kept)
        go_on_->setText(tr("Go on from %1, %2 of %3 done")
                            .arg(qt(time_of_day(room_.order().press_run, kept->record.at)))
                            .arg(kept->loads_done)
                            .arg(kept->loads));
    const int waiting = desk_->waiting();
    take_in_->setVisible(waiting > 0);
    take_in_->setText(tr("Add %1 to the shift").arg(counted(std::size_t(waiting), "more load")));
    speed_->setEnabled(!runs);
    better_->setText(room_.planner().running() ? tr("Stop looking") : tr("Find a shorter plan"));
    better_->setEnabled(!runs && !plan.shop.tasks.empty());
    held_->refresh();
    measure_->refresh();
    if (!runs || middle_->currentIndex() != card_view) measure_->hide();
    hand_->setEnabled(!runs);
    hand_->setVisible(speed_->currentData().toString() != QLatin1String("0"));
    for (QShortcut* s : card_keys_) s->setEnabled(runs && middle_->currentIndex() == card_view);
    keys_->setVisible(middle_->currentIndex() == card_view);
    for (QPushButton* b : {next_, back_, pause_, skip_, fault_}) b->setEnabled(runs);
    if (runs) pause_->setText(desk_->shift().paused() ? tr("Go on") : tr("Pause"));
    const double now = runs ? desk_->now() : -1;
    switch (middle_->currentIndex()) {
    case lanes_view: lanes_->show_plan(&plan, now); break;
    case card_view: card_->refresh(); break;
    default: picks_->show_rows(pick_rows(room_.order(), room_.plan(), plan), now);
    }
    pages_->show_choice(page_);
    plan_page_->setVisible(page_ == 0);
    recipe_page_->setVisible(page_ == 1);
    heat_page_->setVisible(page_ == 2);
    if (page_ == 0) plan_page_->show_plan(plan, lanes_->chosen(), lanes_->in_hand());
    if (page_ == 1) recipe_page_->show_decoration(room_.decoration());
    if (page_ == 2) heat_page_->show_garment(room_.decoration(), room_.selection().size);
}

QString PressBench::word() const {
    const PressPlan& plan = room_.press_plan();
    if (desk_->running()) return tr("at work");
    return plan.shop.tasks.empty() ? tr("no plan yet") : qt(duration_words(plan.schedule.end));
}

QString PressBench::help() const {
    return tr(
        "Press: when each load goes into which press, so that waits and peels fall between others. The step card leads the hand; space "
        "goes on. Begin with a rehearsal against the simulated presses.");
}

}  // namespace orthema::app
