#include "app/window/main_window.h"

#include <QAction>
#include <QCloseEvent>
#include <QDate>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>
#include <QMimeData>
#include <QProcess>
#include <QPushButton>
#include <QShortcut>
#include <QStackedWidget>
#include <QTimer>
#include <QToolButton>

#include "app/widgets/speech.h"
#include "app/benches/art/art_bench.h"
#include "app/benches/blanks/blanks_bench.h"
#include "app/benches/fit/fit_bench.h"
#include "app/benches/guides/guides_bench.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/records/records_bench.h"
#include "app/benches/sheets/sheets_bench.h"
#include "app/desk/desk.h"
#include "app/widgets/chips.h"
#include "core/order/gang.h"
#include "app/window/about.h"
#include "app/window/export_panel.h"
#include "app/widgets/figures.h"
#include "app/window/findings_strip.h"
#include "app/window/job_line.h"
#include "app/window/findings_panel.h"
#include "app/window/next_line.h"
#include "app/window/notice_bar.h"

namespace orthema::app {

namespace {

/// The bench of each stage, by its key.
const std::map<std::string, Bench* (*)(Workroom&)>& bench_makers() {
    static const std::map<std::string, Bench* (*)(Workroom&)> makers = {
        {"order", [](Workroom& r) -> Bench* { return new OrderBench(r); }},
        {"blanks", [](Workroom& r) -> Bench* { return new BlanksBench(r); }},
        {"art", [](Workroom& r) -> Bench* { return new ArtBench(r); }},
        {"fit", [](Workroom& r) -> Bench* { return new FitBench(r); }},
        {"sheets", [](Workroom& r) -> Bench* { return new SheetsBench(r); }},
        {"guides", [](Workroom& r) -> Bench* { return new GuidesBench(r); }},
        {"press", [](Workroom& r) -> Bench* { return new PressBench(r); }},
        {"records", [](Workroom& r) -> Bench* { return new RecordsBench(r); }},
    };
    return makers;
}

QString order_filter() { return tr("Orders (*.orthema);;All files (*)"); }

}  // namespace

MainWindow::MainWindow(Workroom& room) : room_(room) {
    setWindowTitle(tr("Orthema"));
    connect(&room_.keeper(), &Keeper::other_wrote, this, &MainWindow::two_wrote);
    setAcceptDrops(true);
    const QSize room_on_screen = screen()->availableSize();
    resize(std::min(1280, room_on_screen.width()), std::min(800, room_on_screen.height()));
    setMinimumSize(1024, 700);
    if (const QByteArray was = room_.settings().remembered(QStringLiteral("window")).toByteArray(); !was.isEmpty()) restoreGeometry(was);
    const bool fits_at_all = room_on_screen.width() >= minimumWidth() && room_on_screen.height() >= minimumHeight();
    if (fits_at_all && (width() > room_on_screen.width() || height() > room_on_screen.height())) {  // another screen, or larger than then
        resize(size().boundedTo(room_on_screen));
        move(screen()->availableGeometry().topLeft());
    }
    auto* whole = new QWidget;
    setCentralWidget(whole);
    auto* column = new QVBoxLayout(whole);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* top = new QFrame;
    top->setObjectName(QStringLiteral("Top"));
    top->setStyleSheet(QStringLiteral("#Top { background:#FBFAF6; border:none; border-bottom:1px solid #DAD5C8; }"));
    top->setFixedHeight(46);
    build_top(top);
    column->addWidget(top);

    auto* middle = new QHBoxLayout;
    middle->setContentsMargins(0, 0, 0, 0);
    middle->setSpacing(0);
    column->addLayout(middle, 1);

    benches_.assign(stages().size(), nullptr);
    QStringList names;
    for (const Stage& s : stages()) names << tr(s.name);
    line_ = new JobLine(names);
    middle->addWidget(line_);
    auto* centre = new QVBoxLayout;
    centre->setContentsMargins(4, 10, 10, 10);
    centre->setSpacing(8);
    middle->addLayout(centre, 1);
    jobs_ = new ChipRow(tr("Jobs"));
    jobs_->setObjectName(QStringLiteral("Job chips"));
    jobs_->fold(1);
    jobs_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.job = id == "all" ? "" : id;
        room_.select(s);
    };
    jobs_->hide();
    centre->addWidget(jobs_);
    middle_ = new QStackedWidget;
    centre->addWidget(middle_, 1);
    findings_ = new FindingsStrip(room);
    right_ = new QStackedWidget;
    right_->setFixedWidth(256);
    auto* side = new QVBoxLayout;
    side->setContentsMargins(0, 10, 14, 10);
    side->setSpacing(8);
    side->addWidget(right_, 1);
    next_ = new NextLine;
    next_->wanted = [this](const NextStep& step) { do_next(step); };
    side->addWidget(next_);
    middle->addLayout(side);
    centre->addWidget(findings_);
    all_findings_ = new FindingsPanel(room, middle_->parentWidget());
    findings_->away = [this](const Finding& f) { return all_findings_->seen(f); };
    connect(findings_, &FindingsStrip::all_wanted, this, &MainWindow::show_findings);
    connect(all_findings_, &FindingsPanel::chosen, this, [this](int i) {
        all_findings_->hide();
        findings_->show_at(i);
    });
    connect(new QShortcut(QKeySequence(Qt::Key_F7), this), &QShortcut::activated, this, &MainWindow::show_findings);
    connect(new QShortcut(QKeySequence(Qt::Key_F8), this), &QShortcut::activated, this, [this] { findings_->step_and_go(1); });
    connect(new QShortcut(QKeySequence(Qt::SHIFT | Qt::Key_F8), this), &QShortcut::activated, this, [this] { findings_->step_and_go(-1); });
    notice_ = new NoticeBar(middle_->parentWidget());
    notice_->hang_over(middle_, 8);
    for (std::size_t i = 0; i < benches_.size(); ++i) {
        middle_->addWidget(new QWidget);  // its place, until it is made
        right_->addWidget(new QWidget);
        connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+%1").arg(i + 1)), this), &QShortcut::activated, this,
                [this, i] { go_to(int(i)); });
    }
    connect(line_, &JobLine::chosen, this, [this](int i) { go_to(i); });
    connect(line_->desk(), &QAbstractButton::clicked, this, &MainWindow::show_desk);
    connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+0")), this), &QShortcut::activated, this, &MainWindow::show_desk);
    connect(findings_, &FindingsStrip::wanted, this, [this](const Subject& about) {
        go_to(qt(about.stage));
        made(current_)->go(about);
    });
    connect(findings_, &FindingsStrip::mending_wanted, this, [this](const MendingOffer& offer) {
        const Art* art = find_art(room_.order(), offer.art);
        if (art == nullptr) return;
        Selection s = room_.selection();
        s.art = offer.art;
        room_.select(s);
        go_to(QStringLiteral("art"));
        room_.pictures().mend(offer.art, tr("mend %1").arg(qt(art->name)), with_mending(art->mendings, offer.mending));
    });
    connect(&room.keeper(), &Keeper::about_to_take_over, this, &MainWindow::keep_place);
    connect(&room.keeper(), &Keeper::taken_over, this, [this] {  // an order was opened: the benches are wanted
        const Order& order = room_.order();
        if (!room_.keeper().path().isEmpty() || !order.lines.empty() || !order.art.empty()) go_back_to_place();
    });
    connect(&room_.exporter(), &Exporter::finished, this, [this](const QStringList& files, const QString& fault) {
        if (fault.isEmpty() && !files.isEmpty()) sent_out_ = std::make_shared<const Order>(room_.order());
        show_next();
    });
    connect(&room, &Workroom::updated, this, &MainWindow::refresh);
    connect(&room.notices(), &Notices::noticed, notice_, &NoticeBar::show_notice);
    build_actions();
    go_to(0);
}

void MainWindow::build_top(QWidget* top) {
    auto* row = new QHBoxLayout(top);
    row->setContentsMargins(18, 0, 16, 0);
    row->setSpacing(10);
    name_ = new QLabel;
    name_->setProperty("head", true);
    about_ = new QLabel;
    about_->setProperty("quiet", true);
    row->addWidget(name_);
    row->addWidget(about_);
    auto* papers = new QToolButton;
    papers->setText(tr("Order file"));
    papers->setObjectName(QStringLiteral("Order file"));
    papers->setAccessibleName(tr("Order file"));
    papers->setPopupMode(QToolButton::InstantPopup);
    papers->setToolTip(tr("New, open, save, recent orders"));
    auto* menu = new QMenu(papers);
    menu->addAction(tr("New order"), QKeySequence::New, this, [this] { room_.keeper().start_new(); });
    menu->addAction(tr("Open…"), QKeySequence::Open, this, &MainWindow::open);
    recent_ = menu->addMenu(tr("Recent orders"));
    connect(menu, &QMenu::aboutToShow, this, [this] {
        recent_->clear();
        for (const QString& p : room_.keeper().recent())
            recent_->addAction(QFileInfo(p).fileName(), this, [this, p] { room_.keeper().open(p); })->setToolTip(p);
        recent_->setEnabled(!recent_->isEmpty());
    });
    menu->addSeparator();
    menu->addAction(tr("Save"), QKeySequence::Save, this, &MainWindow::save);
    menu->addAction(tr("Save as…"), QKeySequence(QStringLiteral("Ctrl+Shift+S")), this, &MainWindow::save_as);
    menu->addSeparator();
    undo_ = menu->addAction(tr("Undo"), QKeySequence::Undo, this, [this] { room_.document().undo(); });
    redo_ = menu->addAction(tr("Redo"), QKeySequence(QStringLiteral("Ctrl+Shift+Z")), this, [this] { room_.document().redo(); });
    papers->setMenu(menu);
    row->addWidget(papers);
    auto* helps = new QToolButton;
    helps->setText(tr("Help"));
    helps->setObjectName(QStringLiteral("Help"));
    helps->setAccessibleName(tr("Help"));
    helps->setPopupMode(QToolButton::InstantPopup);
    helps->setToolTip(tr("What this bench is for, all keys, and where things are"));
    auto* help_menu = new QMenu(helps);
    help_menu->addAction(tr("Manual, at this bench"), QKeySequence(Qt::Key_F1), this, &MainWindow::help);
    help_menu->addAction(tr("Look up…"), QKeySequence(QStringLiteral("Ctrl+K")), this, &MainWindow::look_up);
    help_menu->addAction(tr("All keys"), QKeySequence(Qt::Key_Question), this, &MainWindow::show_keys);
    help_menu->addSeparator();
    help_menu->addAction(tr("Settings…"), QKeySequence(QStringLiteral("Ctrl+,")), this, &MainWindow::show_settings);
    help_menu->addAction(tr("Copy what to report"), this, &MainWindow::copy_report)
        ->setToolTip(tr("Version, system and the last of the log; nothing of what an order holds"));
    help_menu->addAction(tr("About Orthema"), this, [this] { About(this).exec(); });
    helps->setMenu(help_menu);
    row->addWidget(helps);
    addActions(menu->actions());  // so that the keys work with the menus closed
    addActions(help_menu->actions());
    row->addStretch(1);
    film_ = new FittingLabel;  // gives way first where the window is narrow
    film_->setProperty("quiet", true);
    row->addWidget(film_);
    units_ = new Segments(tr("Units"), {tr("in"), tr("mm")});
    units_->setFixedWidth(92);
    units_->setToolTip(tr("Show lengths in inches or millimetres; any unit can be typed"));
    units_->chosen = [this](int i) {
        Order next = room_.order();
        next.unit = i == 0 ? Unit::inch : Unit::mm;
        room_.edit(tr("units"), std::move(next));
    };
    row->addWidget(units_);
    ready_ = new QLabel;
    ready_->setObjectName(QStringLiteral("Readiness"));
    ready_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(ready_);
    auto* out = push(tr("Export…"), tr("Gang sheets, cut lines, guides and tables in one go (Ctrl+E)"), true);
    row->addWidget(out);
    connect(out, &QPushButton::clicked, this, [this] { (void)show_export(); });
}

void MainWindow::build_actions() {
    connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+E")), this), &QShortcut::activated, this, [this] { (void)show_export(); });
    connect(new QShortcut(QKeySequence(QStringLiteral("Ctrl+Y")), this), &QShortcut::activated, this, [this] { room_.document().redo(); });
}

/// A bench is made when it is first wanted: the first frame does not wait for them all.
Bench* MainWindow::made(int index) {
    Bench*& b = benches_[std::size_t(index)];
    if (b != nullptr) return b;
    b = bench_makers().at(stages()[std::size_t(index)].key)(room_);
    for (const auto& [stack, widget] : {std::pair<QStackedWidget*, QWidget*>{middle_, b}, {right_, b->figures()}}) {
        QWidget* place = stack->widget(index);
        const bool shown = stack->currentWidget() == place;
        stack->insertWidget(index, widget);
        if (shown) stack->setCurrentWidget(widget);
        stack->removeWidget(place);
        delete place;
    }
    connect(b, &Bench::wanted, this, [this](const QString& stage) { go_to(stage); });
    return b;
}

/// One at a time, when nothing else is to be done.
void MainWindow::make_the_rest() {
    for (std::size_t i = 0; i < benches_.size(); ++i) {
        if (benches_[i] != nullptr) continue;
        Bench* b = made(int(i));
        for (QWidget* part : {static_cast<QWidget*>(b), b->figures()})  // styled now, not when it is first looked at
            for (QWidget* child : part->findChildren<QWidget*>()) child->ensurePolished();
        QTimer::singleShot(0, this, &MainWindow::make_the_rest);
        return;
    }
    refresh();
}

Bench* MainWindow::bench(const QString& stage) {
    const int i = stage_index(stage.toStdString());
    return i < 0 ? nullptr : made(i);
}

void MainWindow::go_to(const QString& stage) { go_to(stage_index(stage.toStdString())); }

void MainWindow::go_to(int index) {
    if (index < 0 || index >= int(benches_.size())) return;
    current_ = index;
    at_desk_ = false;
    findings_->show();
    made(index);
    middle_->setCurrentIndex(index);
    right_->setCurrentIndex(index);
    made(index)->first_focus()->setFocus();
    refresh();
}

Desk* MainWindow::desk() {
    if (desk_ == nullptr) {
        desk_ = new Desk(room_);
        middle_->addWidget(desk_);
        right_->addWidget(desk_->figures());
        connect(desk_, &Desk::leaving, this, [this] { go_to(0); });
        connect(desk_, &Desk::bring_in, this, &MainWindow::bring_in);
        const auto first_anew = [this] {
            if (at_desk_) show_next();
        };
        connect(&room_.orders(), &ShopOrders::changed, this, first_anew);
        connect(&room_.stock(), &StockRoom::changed, this, first_anew);
    }
    return desk_;
}

void MainWindow::show_desk() {
    Desk* d = desk();
    at_desk_ = true;
    all_findings_->hide();
    findings_->hide();
    middle_->setCurrentWidget(d);
    right_->setCurrentWidget(d->figures());
    d->first_focus()->setFocus();
    room_.orders().look_around();
    refresh();
}

/// In a gang a row of its jobs, of which one may be looked at alone.
void MainWindow::show_jobs() {
    const Order& order = room_.order();
    const bool any = is_gang(order) && !at_desk_;
    if (any) {
        std::vector<Chip> chips{{"all", tr("All jobs"), counted(std::size_t(garments_in(order)), "piece")}};
        for (const Job& j : order.jobs.all()) {
            int pieces = 0;
            for (const OrderLine& l : order.lines.all()) pieces += l.job == j.id ? l.quantity : 0;
            const QDate due = QDate::fromString(qt(j.due), Qt::ISODate);
            const QString when = due.isValid() ? QStringLiteral(", ") + day_text(due) : QString();
            const bool late = std::any_of(room_.findings().begin(), room_.findings().end(),
                                          [&](const Finding& f) { return f.code == "job-late" && f.about.job == j.id; });
            chips.push_back({j.id, qt(j.name), counted(std::size_t(pieces), "piece") + when, late ? Standing::look : Standing::settled});
        }
        jobs_->show_chips(chips, room_.selection().job.empty() ? "all" : room_.selection().job);
    }
    jobs_->setVisible(any);
}

void MainWindow::refresh() {
    const Order& order = room_.order();
    show_jobs();
    const bool changed = room_.document().changed_since_saved();  // compares whole orders: once is enough
    name_->setText(qt(order.name));
    QString about = counted(std::size_t(garments_in(order)), "piece");
    if (const QDate due = QDate::fromString(qt(order.due), Qt::ISODate); due.isValid()) about += tr(", due ") + day_text(due);
    if (changed) about += room_.keeper().kept_nowhere() ? tr(", kept nowhere: save it") : tr(", not saved");
    about_->setText(about);
    double film = 0, used = 0;
    for (const MediumPlan& m : room_.sheets().media)
        if (m.length > 0) {
            film += m.length;
            used += m.length * m.density;
        }
    film_->say(film > 0 ? tr("film %1 m, %2 % used").arg(fixed(film / 1000, 2)).arg(std::lround(100 * used / film)) : QString());
    units_->show_choice(order.unit == Unit::inch ? 0 : 1);
    undo_->setEnabled(room_.document().can_undo());
    undo_->setText(room_.document().can_undo() ? tr("Undo ") + room_.document().undo_what() : tr("Undo"));
    redo_->setEnabled(room_.document().can_redo());
    int settled = 0, prepare = 0;
    for (std::size_t i = 0; i < benches_.size(); ++i) {
        const StageState state = stage_state(stages()[i], order, room_.work(), room_.catching_up());
        line_->stage(int(i))->show_state(state.standing, state.waiting, state.count,
                                         benches_[i] != nullptr ? benches_[i]->word() : QString(), int(i) == current_ && !at_desk_);
        if (!stages()[i].prepares) continue;
        ++prepare;
        if (!state.waiting && state.standing == Standing::settled) ++settled;
    }
    ready_->setText(tr("%1 of %2 settled").arg(settled).arg(prepare));
    const QString ready =
        settled == prepare ? QStringLiteral("color:#4F6D2F; font-weight:bold;") : QStringLiteral("color:#5B6770; font-weight:bold;");
    if (ready_->styleSheet() != ready) ready_->setStyleSheet(ready);  // setting it again would restyle
    findings_->refresh();
    all_findings_->refresh();
    show_next();
    line_->desk()->show_chosen(at_desk_);
    if (at_desk_)
        desk()->refresh();
    else
        made(current_)->refresh();
    setWindowTitle(qt(order.name) + (changed ? tr(" (not saved) – Orthema") : tr(" – Orthema")));
}

void MainWindow::open() {
    const QString path = QFileDialog::getOpenFileName(this, tr("Open an order"), {}, order_filter());
    if (!path.isEmpty()) room_.keeper().open(path);
}

void MainWindow::save() {
    if (room_.keeper().path().isEmpty())
        save_as();
    else
        room_.keeper().save(room_.keeper().path());
}

void MainWindow::save_as() {
    QFileDialog dialog(this, tr("Save the order as"), {}, order_filter());
    dialog.setAcceptMode(QFileDialog::AcceptSave);
    dialog.setDefaultSuffix(QStringLiteral("orthema"));
    if (dialog.exec() == QDialog::Accepted && !dialog.selectedFiles().isEmpty()) room_.keeper().save(dialog.selectedFiles().front());
}

ExportPanel* MainWindow::show_export() {
    if (export_ == nullptr || !export_->isVisible()) {
        delete export_;
        export_ = new ExportPanel(room_, this);
        connect(export_, &ExportPanel::findings_wanted, this, &MainWindow::show_findings);
        export_->show();
    }
    export_->raise();
    return export_;
}

/// Rises over the bench, from the findings line up; the same again puts it down.
void MainWindow::show_findings() {
    if (all_findings_->isVisible()) return all_findings_->hide();
    const QPoint corner = middle_->mapTo(all_findings_->parentWidget(), QPoint(0, 0));
    const int up = std::min(middle_->height(), std::max(320, middle_->height() * 7 / 10));
    all_findings_->setGeometry(corner.x(), corner.y() + middle_->height() - up, middle_->width(), up);
    all_findings_->show();
    all_findings_->raise();
}

void MainWindow::bring_in(const QStringList& paths) {
    QStringList pictures;
    for (const QString& path : paths) {
        const QString ending = QFileInfo(path).suffix().toLower();
        if (ending == QLatin1String("orthema") || QFileInfo(path).isDir()) {
            room_.keeper().open(path);
        } else if (QStringList{QStringLiteral("csv"), QStringLiteral("tsv"), QStringLiteral("txt"), QStringLiteral("xlsx"),
                               QStringLiteral("ods")}
                       .contains(ending)) {
            go_to(QStringLiteral("order"));
            static_cast<OrderBench*>(bench(QStringLiteral("order")))->bring_in_list(path);
        } else {
            pictures << path;
        }
    }
    if (!pictures.isEmpty() && (at_desk_ || !made(current_)->take_pictures(pictures))) {
        go_to(QStringLiteral("art"));
        room_.pictures().bring_in(pictures);
    }
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    if (event->mimeData()->hasUrls()) event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    QStringList paths;
    for (const QUrl& url : event->mimeData()->urls())
        if (url.isLocalFile()) paths << url.toLocalFile();
    event->acceptProposedAction();
    bring_in(paths);
}

void MainWindow::closeEvent(QCloseEvent* event) {
    event->setAccepted(room_.keeper().put_aside_now() != Keeper::Kept::nowhere || let_go_unkept());
    if (!event->isAccepted()) return;
    keep_place();
    room_.settings().remember(QStringLiteral("window"), saveGeometry());
}

/// The order's file was written by another program: whose stays is not for this one to decide.
void MainWindow::two_wrote(const QString& path) {
    QMessageBox ask(this);
    ask.setObjectName(QStringLiteral("Written by another"));
    ask.setText(tr("“%1” was written by another program since it was opened here.").arg(QFileInfo(path).fileName()));
    ask.setInformativeText(
        tr("Nothing was saved yet. Yours can go beside it, or theirs can take its place here; yours is put aside then."));
    QPushButton* beside = ask.addButton(tr("Save beside"), QMessageBox::AcceptRole);
    QPushButton* theirs = ask.addButton(tr("Take theirs"), QMessageBox::ActionRole);
    QPushButton* both = ask.addButton(tr("Look at both"), QMessageBox::ActionRole);
    QPushButton* stay = ask.addButton(tr("Stay here"), QMessageBox::RejectRole);
    ask.setDefaultButton(beside);
    ask.setEscapeButton(stay);
    ask.exec();
    if (ask.clickedButton() == beside) room_.keeper().save_beside();
    if (ask.clickedButton() == theirs) room_.keeper().open(path);
    if (ask.clickedButton() == both) QProcess::startDetached(QCoreApplication::applicationFilePath(), {path});
}

/// Work that could be put aside nowhere: saved where the artist says, or let go knowingly.
bool MainWindow::let_go_unkept() {
    for (;;) {
        QMessageBox ask(this);
        ask.setObjectName(QStringLiteral("Kept nowhere"));
        ask.setText(tr("“%1” has changes that could be kept nowhere.").arg(qt(room_.order().name)));
        ask.setInformativeText(tr("Neither beside the order nor in the program's own folders can anything be written."));
        QPushButton* save = ask.addButton(tr("Save to…"), QMessageBox::AcceptRole);
        QPushButton* stay = ask.addButton(tr("Stay here"), QMessageBox::RejectRole);
        ask.addButton(tr("Close and lose them"), QMessageBox::DestructiveRole);
        ask.setDefaultButton(save);
        ask.setEscapeButton(stay);
        ask.exec();
        if (ask.clickedButton() == stay) return false;
        if (ask.clickedButton() != save) return true;
        const QString path = QFileDialog::getSaveFileName(this, tr("Save the order"), QDir::homePath(), tr("Order (*.orthema)"));
        if (path.isEmpty()) continue;
        const auto fault = room_.keeper().save_now(path);
        if (!fault) return true;
        room_.notices().complain(*fault);
    }
}

void MainWindow::paintEvent(QPaintEvent* event) {
    QMainWindow::paintEvent(event);
    if (!painted_) {
        painted_ = true;
        QMetaObject::invokeMethod(this, &MainWindow::first_painted, Qt::QueuedConnection);
        QTimer::singleShot(0, this, &MainWindow::make_the_rest);
    }
}

}  // namespace orthema::app
