#include "app/benches/records/records_bench.h"

#include <QCheckBox>
#include <QDate>
#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QStackedWidget>
#include <QTableView>
#include <QTimer>

#include <cmath>
#include <numeric>
#include <set>
#include <span>
#include <string_view>
#include <unordered_set>

#include "app/widgets/choice_box.h"
#include "app/widgets/speech.h"
#include "app/benches/records/history_model.h"
#include "app/benches/records/lesson_list.h"
#include "app/benches/records/plot_view.h"
#include "app/benches/records/pressed_page.h"
#include "app/benches/records/record_page.h"
#include "app/photos/photo_folder.h"
#include "app/widgets/figures.h"
#include "core/drawing/code2d.h"
#include "core/guides/panel_drawing.h"
#include "core/order/recipes.h"
#include "core/pressing/next_try.h"
#include "core/records/place.h"

namespace orthema::app {

namespace {

enum View { target_view, run_view, recipes_view, spoilage_view, lessons_view, history_view };
constexpr int photo_index = 3;  ///< among what lies in the middle

/// The step of a recipe that does most, as a point of the tried plot.
std::optional<Point> usual_point(const Order& order, const Decoration& d) {
    const ChosenRecipe recipe = recipe_for(order, d);
    const RecipeStep* main = main_step(recipe.steps);
    if (main == nullptr) return std::nullopt;
    return Point{main->celsius, main->seconds};
}

}  // namespace

RecordsBench::RecordsBench(Workroom& room) : Bench(room, QStringLiteral("records")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* first = new QHBoxLayout;
    views_ = new Segments(tr("Records view"), {tr("target"), tr("run"), tr("recipes"), tr("spoilage"), tr("lessons"), tr("history")});
    views_->turn_pages();
    views_->setMinimumWidth(410);
    views_->setMaximumWidth(520);
    views_->chosen = [this](int i) { show_view(i); };
    first->addWidget(views_, 1);
    first->addStretch(1);
    ways_ = new Segments(tr("Told apart by"), {tr("press"), tr("hands"), tr("garment")});
    ways_->turn_pages();
    ways_->setFixedWidth(204);
    ways_->chosen = [this](int i) {
        ways_->show_choice(i);
        refresh();
    };
    ways_->show_choice(0);
    first->addWidget(ways_);
    losses_ = new ChoiceBox;
    losses_->setAccessibleName(tr("Spoilage by"));
    set_items(losses_,
              {{"0", tr("by cause")},
               {"1", tr("by press")},
               {"2", tr("by blank")},
               {"3", tr("by method")},
               {"4", tr("by design")},
               {"5", tr("by month")}},
              "0");
    connect(losses_, &QComboBox::activated, this, [this] { plot_->refresh(); });
    first->addWidget(losses_);
    column->addLayout(first);
    filters_ = new QGridLayout;
    filters_->setHorizontalSpacing(4);
    filters_->setVerticalSpacing(4);
    for (const FilterColumn& c : std::span(filter_columns).first(usual_filters)) filter_box(c);
    span_ = new ChoiceBox;
    span_->setAccessibleName(tr("Span of time"));
    set_items(span_,
              {{"", tr("at any time")},
               {"order", tr("this order")},
               {"7", tr("last 7 days")},
               {"30", tr("last 30 days")},
               {"365", tr("last year")}},
              "");
    connect(span_, &QComboBox::activated, this, [this] { look(); });
    rehearsals_ = new QCheckBox(tr("rehearsals"));
    rehearsals_->setObjectName(QStringLiteral("rehearsals"));
    rehearsals_->setToolTip(tr("With what was pressed in rehearsals"));
    connect(rehearsals_, &QCheckBox::toggled, this, [this] {
        asked_ = true;
        look();
    });
    column->addLayout(filters_);
    arrange();
    said_ = new QLabel;
    said_->setObjectName(QStringLiteral("What the records say"));
    said_->setWordWrap(true);
    said_->setProperty("strong", true);
    column->addWidget(said_);
    middle_ = new QStackedWidget;
    plot_ = new PlotView(room.art());
    plot_->make = [this](double w, double h) { return plot_of(w, h); };
    plot_->picked = [this](std::size_t i) { choose(i); };
    plot_->is_chosen = [this](std::size_t i) { return chosen_ == i; };
    plot_->words = [this](std::size_t i) {
        const PressRecord& r = room_.records().all()[i];
        QString out = QStringLiteral("%1, %2, %3").arg(qt(r.at.substr(0, 10)), qt(r.design), qt(r.size));
        const Reading reading = room_.order().unit;
        if (r.landing && r.landing->aside)
            out += QStringLiteral(", %1 %2").arg(qt(length_text(Length::from_mm(std::abs(*r.landing->aside)), reading)),
                                                 *r.landing->aside > 0 ? tr("to your right") : tr("to your left"));
        if (r.landing && r.landing->down)
            out += QStringLiteral(", %1 %2").arg(qt(length_text(Length::from_mm(std::abs(*r.landing->down)), reading)),
                                                 *r.landing->down > 0 ? tr("too low") : tr("too high"));
        return out;
    };
    lessons_ = new LessonList(room);
    table_ = new QTableView;
    table_->setObjectName(QStringLiteral("History"));
    model_ = new HistoryModel(room, this);
    table_->setModel(model_);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    table_->verticalHeader()->setDefaultSectionSize(26);
    table_->horizontalHeader()->setStretchLastSection(true);
    for (const auto& [at, wide] :
         std::vector<std::pair<int, int>>{{0, 120}, {1, 100}, {2, 112}, {3, 104}, {4, 48}, {5, 86}, {6, 38}, {7, 98}, {8, 46}, {9, 42}})
        table_->setColumnWidth(at, wide);
    connect(table_->selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& now) {
        if (now.isValid()) choose(model_->record_at(now.row()));
    });
    photo_view_ = new PhotoView(room);
    for (QWidget* w : std::initializer_list<QWidget*>{plot_, lessons_, table_, photo_view_}) middle_->addWidget(w);
    column->addWidget(middle_, 1);
    auto* last = new QHBoxLayout;
    find_ = new QLineEdit;
    find_->setObjectName(QStringLiteral("Find records"));
    find_->setAccessibleName(tr("Find records"));
    find_->setPlaceholderText(tr("Find by the code of a card or label, an order, a batch, a remark"));
    connect(find_, &QLineEdit::textChanged, this, [this] { look(); });
    last->addWidget(find_, 1);
    more_ = push(tr("More…"), tr("Records out and in, and hands taken out of them"));
    connect(more_, &QPushButton::clicked, this, [this] {
        QMenu menu;
        menu.addAction(tr("Write all records to a file…"), this, [this] {
            const QString to = QFileDialog::getSaveFileName(this, tr("Write all records"), QStringLiteral("records.csv"),
                                                            tr("Tables (*.csv);;Records (*.json)"));
            if (!to.isEmpty()) room_.records().export_to(to);
        });
        menu.addAction(tr("Bring records in from a file…"), this, [this] {
            const QString from = QFileDialog::getOpenFileName(this, tr("Bring records in"), {}, tr("Records (*.csv *.json)"));
            if (!from.isEmpty()) room_.records().import_from(from);
        });
        menu.addAction(folder_->offer(), this, [this] { folder_->ask(this); });
        if (!filter_.hands.empty())
            menu.addAction(tr("Take “%1” out of all records").arg(qt(filter_.hands)), this, [this] {
                const std::string mark = std::exchange(filter_.hands, {});
                gathered_ = not_gathered;
                room_.records().forget_hands(mark);
            });
        menu.exec(more_->mapToGlobal(QPoint(0, -menu.sizeHint().height())));
    });
    last->addWidget(more_);
    column->addLayout(last);

    panel_ = new FigurePanel;
    of_all_ = panel_->part();
    of_all_->head(tr("What passes the filters"));
    summary_ = of_all_->part();
    count_ = summary_->text_row(tr("Records"));
    mean_ = summary_->text_row(tr("Mean place"));
    spread_ = summary_->text_row(tr("Spread"));
    clean_ = summary_->text_row(tr("Clean"));
    next_ = summary_->note();
    of_all_->rule();
    page_ = new RecordPage(room);
    page_->photograph = [this] {
        const QString from = QFileDialog::getOpenFileName(this, tr("A photograph of the pressed piece"), {}, photo_choice());
        if (!from.isEmpty()) look_at_photo(from);
    };
    page_->kept = [this] {
        if (chosen_ && pressed_->look_at_kept(room_.records().all()[*chosen_])) show_photo(true);
    };
    of_all_->add(page_);
    pressed_ = new PressedPage(room, *photo_view_);
    folder_ = new PhotoFolder(room.jobs(), this);
    folder_->came = [this](const QStringList& paths) {
        if (isVisible()) look_at_photo(paths.back());
    };
    folder_->lost = [this](const QString& sentence) { room_.say({sentence, true, {}, {}}); };
    pressed_->left = [this] { show_photo(false); };
    pressed_->hide();
    panel_->add(pressed_);
    panel_->fill();
    connect(&room_.records(), &Records::changed, this, [this] {
        looked_at_.clear();
        if (isVisible()) refresh();
    });
    views_->show_choice(view_);  // filtered and judged once it is seen
}

void RecordsBench::filter_box(const FilterColumn& column) {
    const QString name = tr(column.name);
    auto* box = new ChoiceBox;
    box->setAccessibleName(tr("Only this ") + name);
    box->setObjectName(QStringLiteral("Filter ") + name);
    box->setMinimumWidth(60);
    box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    connect(box, &QComboBox::activated, this, [this, box, part = column.wanted] {
        filter_.*part = box->currentData().toString().toStdString();
        look();
    });
    boxes_.emplace_back(box, &column);
}

QWidget* RecordsBench::figures() { return panel_; }
QWidget* RecordsBench::first_focus() { return middle_->currentWidget(); }

/// In one row where there is room, else in two.
void RecordsBench::arrange() {
    const int columns = width() < 820 ? 5 : 9;
    if (columns == columns_) return;
    columns_ = columns;
    std::vector<QWidget*> all;
    for (const auto& [box, column] : boxes_) all.push_back(box);
    all.push_back(span_);
    all.push_back(rehearsals_);
    for (int k = 0; k < int(all.size()); ++k) {
        filters_->addWidget(all[std::size_t(k)], k / columns, k % columns);
        filters_->setColumnStretch(k % columns, all[std::size_t(k)] == rehearsals_ && columns == 9 ? 0 : 1);
    }
    if (columns == 5)
        for (int k = 5; k < 9; ++k) filters_->setColumnStretch(k, 0);
}

void RecordsBench::resizeEvent(QResizeEvent* event) {
    Bench::resizeEvent(event);
    arrange();
    make_room();
}

void RecordsBench::make_room() {
    summary_->setVisible(true);
    if (!chosen_ || !panel_->isVisible()) return;
    QLayout* rows = panel_->layout();
    rows->invalidate();
    const int wants = rows->hasHeightForWidth() ? rows->heightForWidth(panel_->width()) : rows->sizeHint().height();
    summary_->setVisible(wants <= panel_->height());
}

void RecordsBench::show_middle(bool photo) {
    middle_->setCurrentIndex(photo ? photo_index : view_ == lessons_view ? 1 : view_ == history_view ? 2 : 0);
}

/// The photograph in the middle, and what it says on the right.
void RecordsBench::show_photo(bool shown) {
    pressed_->setVisible(shown);
    of_all_->setVisible(!shown);
    show_middle(shown);
    pressed_->refresh();
    if (!shown) refresh();
}

void RecordsBench::look_at_photo(const QString& path) {
    if (!chosen_) {
        room_.say({tr("Choose the record of the piece in the photograph first: a dot, or a line of the history."), false, {}, {}});
        return;
    }
    if (const auto why = pressed_->look(room_.records().all()[*chosen_], path)) {
        room_.say({*why, true, {}, {}});
        return;
    }
    show_photo(true);
}

bool RecordsBench::take_pictures(const QStringList& paths) {
    look_at_photo(paths.front());
    return true;
}

void RecordsBench::show_view(int view) {
    view_ = view;
    if (pressed_->any()) show_photo(false);
    views_->show_choice(view);
    show_middle(false);
    refresh();
}

void RecordsBench::show_lessons() { show_view(lessons_view); }

/// What there is to choose from, gathered once for all records.
void RecordsBench::gather() {
    if (gathered_ == room_.records().all().size()) return;
    gathered_ = room_.records().all().size();
    values_.clear();
    for (const auto& [box, column] : boxes_) {
        std::unordered_set<std::string_view> seen;
        for (const PressRecord& r : room_.records().all())
            if (const std::string& v = r.*(column->has); !v.empty()) seen.insert(v);
        values_.emplace_back(seen.begin(), seen.end());
    }
}

void RecordsBench::fill_boxes() {
    const Order& order = room_.order();
    gather();
    for (std::size_t k = 0; k < boxes_.size(); ++k) {
        const auto& [box, column] = boxes_[k];
        const auto part = column->wanted;
        const std::set<std::string>& seen = values_[k];
        std::vector<std::pair<std::string, QString>> items{{"", tr("any %1").arg(tr(column->name))}};
        for (const std::string& v : seen) {
            QString words = qt(v);
            if (const Press* p = find_press(order, v); p != nullptr && part == &RecordFilter::press) words = qt(p->name);
            if (const BlankStyle* s = find_style(order, v); s != nullptr && part == &RecordFilter::style) words = qt(s->name);
            if (const Method* m = find_method(order, v); m != nullptr && part == &RecordFilter::method) words = qt(m->name);
            if (const Decoration* d = find_decoration(order, v); d != nullptr && part == &RecordFilter::design)
                words = qt(d->name) + ", " + qt(run_name(order, d->run));
            items.emplace_back(v, words);
            if (items.size() > 400) break;
        }
        set_items(box, items, filter_.*part);
    }
}

void RecordsBench::look() {
    // where all that is known comes from rehearsals it is shown without being asked for
    const auto& known = room_.records().all();
    if (!asked_ && !known.empty()) {
        const QSignalBlocker quiet(rehearsals_);
        rehearsals_->setChecked(std::all_of(known.begin(), known.end(), [](const PressRecord& r) { return r.rehearsal; }));
    }
    filter_.rehearsals = rehearsals_->isChecked();
    const QString span = span_->currentData().toString();
    filter_.jobs.clear();
    if (!room_.selection().job.empty()) {
        filter_.jobs = {room_.selection().job};
    } else if (span == QLatin1String("order")) {
        filter_.jobs = {room_.order().job};
        for (const Job& j : room_.order().jobs.all()) filter_.jobs.push_back(j.id);
    }
    filter_.from = span.toInt() > 0 ? QDate::currentDate().addDays(-span.toInt()).toString(Qt::ISODate).toStdString() : std::string();
    RecordFilter now = filter_;
    const std::string words = find_->text().trimmed().toStdString();
    if (const auto code = code_from(words)) {  // as a scanner types it
        now.design = code->decoration;
        now.size = code->size;
    } else {
        now.words = words;
    }
    which_ = filtered(room_.records().all(), now);
    chosen_.reset();
    for (const std::size_t i : which_)
        if (room_.records().all()[i].id == chosen_id_) chosen_ = i;
    fill_boxes();
    model_->show(which_);
    QTimer::singleShot(0, this, &RecordsBench::judge);  // once what was chosen is seen
    refresh();
}

void RecordsBench::judge() {
    // a copy of the latest alone: more are not looked at, and the others may grow meanwhile
    const auto& all = room_.records().all();
    std::vector<PressRecord> latest;
    for (std::size_t k = which_.size() - std::min(which_.size(), most_judged); k < which_.size(); ++k) latest.push_back(all[which_[k]]);
    room_.jobs().background([this, latest = std::move(latest), lessons = room_.records().lessons(), order = room_.order(),
                             number = ++asked_for_]() -> std::function<void()> {
        std::vector<std::size_t> every(latest.size());
        std::iota(every.begin(), every.end(), std::size_t(0));
        std::vector<Correction> found = proposals(latest, every, lessons, order);
        const bool unsure = found.empty() && undecided(landings_as_it_is(latest, every, lessons));
        return [this, found = std::move(found), unsure, number] {
            if (number != asked_for_) return;
            proposed_ = found;
            unsure_ = unsure;
            refresh();
        };
    });
}

PlotAsk RecordsBench::ask(double width, double height) const {
    PlotAsk a;
    a.all = &room_.records().all();
    a.which = which_;
    a.chosen = chosen_;
    a.unit = room_.order().unit;
    a.width = width;
    a.height = height;
    a.order = &room_.order();
    a.by = ways_->choice() == 1 ? TellApart::hands : TellApart::press;
    return a;
}

/// Recipes are compared within a method: the filtered one, or that of the design that is looked at.
std::string RecordsBench::method_shown() const {
    if (!filter_.method.empty()) return filter_.method;
    const Decoration* d = filter_.design.empty() ? room_.decoration() : find_decoration(room_.order(), filter_.design);
    const Method* m = d == nullptr ? nullptr : method_of(room_.order(), *d);
    return m == nullptr ? std::string() : m->id;
}

PlotAsk RecordsBench::of_one_method(PlotAsk ask) const {
    const std::string method = method_shown();
    if (!method.empty()) std::erase_if(ask.which, [&](std::size_t i) { return (*ask.all)[i].method != method; });
    return ask;
}

Plot RecordsBench::plot_of(double width, double height) const {
    const PlotAsk a = ask(width, height);
    const Decoration* d = filter_.design.empty() ? room_.decoration() : find_decoration(room_.order(), filter_.design);
    switch (view_) {
    case run_view: return run_plot(a);
    case recipes_view:
        return tried_plot(of_one_method(a), d == nullptr ? std::nullopt : usual_point(room_.order(), *d),
                          room_.order().press_run.fahrenheit);
    case spoilage_view: return loss_plot(a, LossBy(losses_->currentData().toString().toInt()), room_.order().currency);
    default: break;
    }
    if (ways_->choice() != 2) return target_plot(a);
    // on the garment: the chosen record's, or the design that is looked at
    const PressRecord* r = chosen_ ? &room_.records().all()[*chosen_] : nullptr;
    if (r != nullptr && find_decoration(room_.order(), r->design) != nullptr) d = find_decoration(room_.order(), r->design);
    const DecorationFit* fit = d == nullptr ? nullptr : find_fit(room_.plan(), d->id);
    const SizeFit* size = nullptr;
    if (fit != nullptr && !fit->sizes.empty()) {
        size = r == nullptr ? nullptr : find_size(*fit, r->size);
        if (size == nullptr) size = &fit->sizes[fit->sizes.size() / 2];
    }
    const Ground* ground = size == nullptr ? nullptr : find_ground(*fit, size->size);
    if (ground == nullptr) return target_plot(a);
    Plot plot;
    plot.drawing.width = width;
    plot.drawing.height = height;
    const Rect all = drawn_box(ground->panel);
    const double k = std::min((width - 20) / all.width(), (height - 50) / all.height());
    const Affine map{k, 0, 0, k, width / 2 - k * all.centre().x, (height - 34) / 2 - k * all.centre().y + 6};
    draw_panel(plot.drawing, ground->panel, map, cloth_of(room_.order(), *d), 1);
    draw_design(plot.drawing, *d, *size, map, 0.35);
    add_landings(plot, a, map.after(Affine::shift(size->ink.centre().x, size->ink.centre().y)));
    return plot;
}

void RecordsBench::choose(std::size_t record) {
    if (record >= room_.records().all().size()) return;
    chosen_ = record;
    chosen_id_ = room_.records().all()[record].id;
    page_->show_record(&room_.records().all()[record]);
    make_room();
    plot_->refresh();
}

void RecordsBench::show_summary() {
    const auto& all = room_.records().all();
    const Reading reading = room_.order().unit;
    std::size_t measured = 0;
    for (const std::size_t i : which_) measured += all[i].landing ? 1 : 0;
    count_->setText(tr("%1, %2 measured").arg(which_.size()).arg(measured));
    const auto mean = mean_place(all, which_);
    const auto mm = [&](double v) { return qt(length_text(Length::from_mm(std::round(std::abs(v) * 10) / 10), reading)); };
    mean_->setText(mean ? QStringLiteral("%1 %2, %3 %4")
                              .arg(mm(mean->mean.x), tr(mean->mean.x < 0 ? noted("left") : noted("right")), mm(mean->mean.y),
                                   tr(mean->mean.y < 0 ? noted("high") : noted("low")))
                        : QStringLiteral("–"));
    spread_->setText(mean ? tr("%1 aside, %2 down").arg(mm(mean->spread_aside), mm(mean->spread_down)) : QStringLiteral("–"));
    const CleanShare clean = clean_share(all, which_);
    clean_->setText(clean.tries == 0 ? QStringLiteral("–")
                                     : tr("%1 of %2, %3 to %4 %")
                                           .arg(clean.clean)
                                           .arg(clean.tries)
                                           .arg(figure(100 * clean.share.low, 0), figure(100 * clean.share.high, 0)));
    const int more = least_pieces - int(measured);
    next_->setText(proposed_.empty()
                       ? (more > 0  ? tr("Measure %1 more before anything can be proposed.").arg(counted(std::size_t(more), "piece"))
                          : unsure_ ? tr("Presses or hands seem to differ, and it cannot be said yet which: measure eight more on each.")
                                    : tr("Nothing here that chance does not explain."))
                       : qt(proposal_words(proposed_.front(), room_.order())) + tr(" See Lessons."));
    QStringList said;
    if (!room_.records().opened()) said << tr("The shop's records are not open yet: what is pressed now goes with its order.");
    if (view_ == run_view)
        for (const std::string& s : run_words(ask(100, 100))) said << qt(s);
    if (view_ == recipes_view)
        if (const Method* m = find_method(room_.order(), method_shown()))
            said << QStringLiteral("%1, %2, %3.").arg(qt(m->name), boxes_[2].first->currentText(), boxes_[0].first->currentText());
    if (view_ == recipes_view)
        for (const Correction& c : proposed_)
            if (c.kind == CorrectionKind::recipe) said << qt(proposal_words(c, room_.order()));
    if (view_ == target_view)
        for (const Correction& c : proposed_)
            if (c.kind == CorrectionKind::loading_marks || c.kind == CorrectionKind::neck_drop)
                said << qt(proposal_words(c, room_.order()));
    while (said.size() > 2) said.removeLast();
    said_->setText(said.join(QStringLiteral("  ")));
    said_->setVisible(!said.isEmpty());
}

void RecordsBench::refresh() {
    const std::string now = std::to_string(room_.records().all().size()) + '/' + room_.order().job + '/' + room_.selection().job + '/' +
                            std::to_string(room_.order().corrections.size()) + '/' + std::to_string(room_.records().lessons().size()) +
                            std::to_string(room_.order().decorations.size());
    if (looked_at_ != now) {
        looked_at_ = now;
        look();
        return;
    }
    ways_->setVisible(view_ == target_view || view_ == run_view);
    losses_->setVisible(view_ == spoilage_view);
    views_->name_choice(lessons_view, proposed_.empty() ? tr("lessons") : tr("lessons ▲ %1").arg(proposed_.size()));
    show_summary();
    page_->show_record(chosen_ && *chosen_ < room_.records().all().size() ? &room_.records().all()[*chosen_] : nullptr);
    make_room();
    if (view_ == lessons_view) lessons_->show_lessons(proposed_, filter_);
    plot_->refresh();
}

QString RecordsBench::word() const {
    const std::size_t n = room_.records().all().size();
    return n == 0 ? tr("none yet") : QString::number(n);
}

QString RecordsBench::help() const {
    return tr(
        "Records: where pieces really land, what came out by which heat and time, what was spoiled, and what the next order takes from it. "
        "A "
        "shift writes them by itself; what they propose is done only when you take it. Drop a photograph of a pressed piece here, with a "
        "photo card "
        "beside it, and where it landed is read off it.");
}

}  // namespace orthema::app
