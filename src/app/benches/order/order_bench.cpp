#include "app/benches/order/order_bench.h"

#include <QMenu>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QScrollArea>

#include "app/widgets/speech.h"
#include "app/benches/order/jobs_page.h"
#include "app/benches/order/price_page.h"
#include "app/benches/order/list_preview.h"
#include "app/benches/order/roster_view.h"
#include "app/benches/order/run_picture.h"
#include "app/widgets/figures.h"
#include "app/widgets/menus.h"
#include "app/widgets/typed.h"
#include "core/order/edit.h"
#include "core/order/lots.h"
#include "core/order/roster.h"
#include "files/safe_file.h"

namespace orthema::app {

OrderBench::OrderBench(Workroom& room) : Bench(room, QStringLiteral("order")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* head = new QHBoxLayout;
    title_ = head_label(tr("The run, by blank and size"));
    head->addWidget(title_);
    head->addSpacing(12);
    views_ = new Segments(tr("Seen"), {tr("by size"), tr("by person")});
    views_->button(1)->setToolTip(tr("The roster: who wears which garment, with name and number"));
    views_->chosen = [this](int i) { show_roster(i == 1); };
    views_->show_choice(0);
    head->addWidget(views_);
    head->addStretch(1);
    auto* bring = push(tr("Bring in a list…"), tr("Order lines as CSV, XLSX or ODS, as a web shop or a club keeps them"), true);
    head->addWidget(bring);
    column->addLayout(head);
    picture_ = new RunPicture(room);
    picture_->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(picture_, &QWidget::customContextMenuRequested, this, &OrderBench::run_menu);
    auto* scroll = new QScrollArea;
    scroll->setWidget(picture_);
    scroll->setWidgetResizable(true);
    scroll->setFocusPolicy(Qt::NoFocus);
    column->addWidget(scroll, 1);
    by_size_ = scroll;
    roster_ = new RosterView(room);
    roster_->hide();
    column->addWidget(roster_, 1);
    connect(bring, &QPushButton::clicked, this, &OrderBench::ask_for_list);

    whole_ = new FigurePanel;
    pages_ = new Segments(tr("Figures of"), {tr("Order"), tr("Jobs"), tr("Price"), tr("Papers")});
    pages_->turn_pages();
    pages_->chosen = [this](int i) { show_page(i); };
    whole_->add(pages_);
    panel_ = whole_->part();
    jobs_ = new JobsPage(room);
    price_ = new PricePage(room);
    papers_ = new PapersPage(room);
    for (FigurePanel* page : {static_cast<FigurePanel*>(jobs_), static_cast<FigurePanel*>(price_), static_cast<FigurePanel*>(papers_)})
        whole_->rows()->addWidget(page, 1);
    name_ = new ValueField(tr("Order name"));
    name_->read_from_left();
    name_->setToolTip(tr("Stands on every sheet and guide, and in the names of files"));
    name_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (t.trimmed().isEmpty() || t.size() > 120) return tr("Give the order a name of up to 120 letters.");
        Order next = room_.order();
        next.name = t.trimmed().toStdString();
        room_.edit(tr("order name"), std::move(next));
        return std::nullopt;
    };
    panel_->add(name_);
    auto* due_row = new QHBoxLayout;
    auto* due_label = new QLabel(tr("Due"));
    due_label->setProperty("quiet", true);
    due_row->addWidget(due_label);
    due_ = new ValueField(tr("Due date"));
    due_->setFixedWidth(130);
    due_->setToolTip(tr("Like 2027-06-12 or 12 June 2027"));
    due_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const auto date = iso_date(t);
        if (!date) return tr("Type the date like 2027-06-12 or 12 June 2027.");
        Order next = room_.order();
        next.due = date->toStdString();
        room_.edit(tr("due date"), std::move(next));
        return std::nullopt;
    };
    due_row->addStretch(1);
    due_row->addWidget(due_);
    panel_->rows()->addLayout(due_row);
    panel_->head(tr("Paper for guides"));
    paper_ = new Segments(tr("Paper"), {QStringLiteral("A4"), tr("letter")});
    paper_->chosen = [this](int i) {
        Order next = room_.order();
        next.paper = i == 0 ? Paper::a4 : Paper::letter;
        room_.edit(tr("paper"), std::move(next));
    };
    panel_->add(paper_);
    currency_ = panel_->field_row(tr("Prices in"), tr("What stands before a price, in every place: €, £, kr; may stay empty"));
    currency_->setFixedWidth(84);
    currency_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (t.trimmed().size() > 6) return tr("A sign or a short word, up to six letters.");
        Order next = room_.order();
        next.currency = t.trimmed().toStdString();
        room_.edit(tr("currency"), std::move(next));
        return std::nullopt;
    };
    hourly_ = panel_->number_row(tr("An hour costs"), tr("Of one pair of hands: the plan's time is priced by it"), 0, 100000, 2);
    hourly_->entered = [this](double v) {
        Order next = room_.order();
        next.hourly = v;
        room_.edit(tr("what an hour costs"), std::move(next));
    };
    panel_->rule();
    panel_->head(tr("Figures"));
    chosen_ = panel_->title();
    quantity_ = panel_->number_row(tr("Quantity"), tr("Type it here, or straight on the picture"), 0, 100000, 0);
    quantity_->entered = [this](double q) {
        const Selection& s = room_.selection();
        room_.edit(tr("quantity"), with_quantity(room_.order(), s.run, s.size, int(q)));
    };
    total_ = panel_->text_row(tr("In this run"));
    notes_ = panel_->note();
    take_out_ = push(tr("Take this run out"), tr("Removes its lines and decorations; undo brings them back"));
    panel_->add(take_out_);
    connect(take_out_, &QPushButton::clicked, this,
            [this] { room_.edit(tr("take a run out"), without_run(room_.order(), room_.selection().run)); });
    build_lots();
    kept_out_ = panel_->part();
    kept_out_says_ = kept_out_->note();
    auto* dismiss = push(tr("Dismiss"), tr("These rows of the list are not wanted"));
    kept_out_->add(dismiss);
    connect(dismiss, &QPushButton::clicked, this, [this] {
        Order next = room_.order();
        next.kept_out.clear();
        room_.edit(tr("dismiss rows of the list"), std::move(next));
    });
    panel_->rule();
    panel_->head(tr("Another run"));
    blank_ = panel_->choice_row(tr("Blank"), tr("Which garment"));
    colour_ = panel_->choice_row(tr("Colour"), tr("Which colour; another can be typed"));
    colour_->setEditable(true);
    colour_->lineEdit()->setAccessibleName(tr("Colour, typed"));
    auto* add = push(tr("Add the run"), tr("One piece in the middle size to begin with; then type the quantities"));
    panel_->add(add);
    connect(add, &QPushButton::clicked, this, &OrderBench::add_run);
    connect(blank_, &QComboBox::currentIndexChanged, this, &OrderBench::show_colours);
    panel_->fill();
    whole_->fill();
    show_page(0);
}

void OrderBench::show_roster(bool on) {
    views_->show_choice(on ? 1 : 0);
    title_->setText(on ? tr("The roster, by person") : tr("The run, by blank and size"));
    by_size_->setVisible(!on);
    roster_->setVisible(on);
    refresh();
}

void OrderBench::show_page(int page) {
    pages_->show_choice(page);
    panel_->setVisible(page == 0);
    jobs_->setVisible(page == 1);
    price_->setVisible(page == 2);
    papers_->setVisible(page == 3);
    if (page == 1) jobs_->refresh();
    if (page == 2) price_->refresh();
    if (page == 3) papers_->refresh();
}

void OrderBench::go(const Subject& about) {
    Bench::go(about);
    const RunKey run = room_.selection().run;
    const bool named = std::any_of(room_.order().lines.begin(), room_.order().lines.end(),
                                   [&](const OrderLine& l) { return run_of(l) == run && is_person(l); });
    show_roster(find_decoration(room_.order(), about.decoration) != nullptr || (named && about.style == run.style));
    if (!about.job.empty()) show_page(1);
}

/// What can be done with the run and size that were pointed at.
void OrderBench::run_menu(QPoint at) {
    if (garments_in(room_.order(), room_.selection().run) == 0) return;
    QMenu menu;
    menu.setObjectName(QStringLiteral("Run menu"));
    add_heading(menu, chosen_->text());
    QMenu* part = menu.addMenu(tr("Part off"));
    part->setEnabled(part_->isEnabled());
    for (int i = 0; i < parting_->count(); ++i)
        part->addAction(parting_->itemText(i), this, [this, i] {
            parting_->setCurrentIndex(i);
            part_lot();
        });
    add_button(menu, join_);
    add_button(menu, take_out_);
    menu.addSeparator();
    menu.addAction(tr("Measure this blank"), this, [this] { emit wanted(QStringLiteral("blanks")); });
    menu.addAction(tr("See it on the size wall"), this, [this] { emit wanted(QStringLiteral("fit")); });
    menu.exec(picture_->mapToGlobal(at));
}

/// Garments of one blank and colour that are to carry different art are parted into lots.
void OrderBench::build_lots() {
    parting_ = panel_->choice_row(tr("Part off"), tr("Which pieces get designs of their own"));
    for (const QString& way : {tr("one of this size"), tr("all of this size"), tr("by whose they are"), tr("every piece alone")})
        parting_->addItem(way);
    part_ = push(tr("Part"), tr("They become a lot of their own, with the same designs to begin with"));
    join_ = push(tr("Join again"), tr("This lot goes back to the others of its blank and colour; its designs go"));
    panel_->side_by_side({part_, join_});
    connect(part_, &QPushButton::clicked, this, &OrderBench::part_lot);
    connect(join_, &QPushButton::clicked, this,
            [this] { room_.edit(tr("join a lot"), with_lot_joined(room_.order(), room_.selection().run)); });
    lot_name_ = new ValueField(tr("Lot name"));
    lot_name_->read_from_left();
    lot_name_->setToolTip(tr("What this lot is called on cards, labels and lists"));
    lot_name_->take = [this](const QString& text, bool) -> std::optional<QString> {
        if (text.trimmed().isEmpty() || text.size() > 60) return tr("Give the lot a name of up to 60 letters.");
        room_.edit(tr("lot name"), with_lot_named(room_.order(), room_.selection().run.lot, text.trimmed().toStdString()));
        return std::nullopt;
    };
    panel_->add(lot_name_);
}

void OrderBench::part_lot() {
    const Order& order = room_.order();
    Selection s = room_.selection();
    int of_size = 0;
    for (const SizeCount& c : counts_of(order, s.run))
        if (c.size == s.size) of_size = c.quantity;
    RunKey made = s.run;
    Order next = parting_->currentIndex() == 0   ? with_lot_parted(order, s.run, {{}, {{s.size, 1}}}, &made)
                 : parting_->currentIndex() == 1 ? with_lot_parted(order, s.run, {s.size, {{s.size, of_size}}}, &made)
                 : parting_->currentIndex() == 2 ? with_lots_by_note(order, s.run)
                                                 : with_lots_by_piece(order, s.run);
    if (next == order) {
        room_.say({tr("There is nothing to part so: each lot keeps at least one piece."), false, {}, {}});
        return;
    }
    room_.edit(tr("part a lot"), std::move(next));
    s.run = made;
    s.decoration.clear();
    room_.select(s);
}

QWidget* OrderBench::figures() { return whole_; }
QWidget* OrderBench::first_focus() { return roster_->isVisible() ? static_cast<QWidget*>(roster_->grid()) : picture_; }

ListPreview* OrderBench::preview() const { return preview_; }

/// The colours of the blank that is about to be added.
void OrderBench::show_colours() {
    colour_->clear();
    if (const BlankStyle* style = find_style(room_.order(), blank_->currentData().toString().toStdString()))
        for (const BlankColour& c : style->colours) colour_->addItem(qt(c.name));
}

void OrderBench::add_run() {
    const BlankStyle* style = find_style(room_.order(), blank_->currentData().toString().toStdString());
    if (style == nullptr) return;
    RunKey run{style->id, colour_->currentText().trimmed().toStdString()};
    if (!room_.order().jobs.empty())  // it is somebody's
        run.job = !room_.selection().job.empty()       ? room_.selection().job
                  : !room_.selection().run.job.empty() ? room_.selection().run.job
                                                       : room_.order().jobs.front().id;
    const std::string size = style->sizes[style->sizes.size() / 2];
    const int have = garments_in(room_.order(), run);
    if (have == 0) room_.edit(tr("add a run"), with_quantity(room_.order(), run, size, 1));
    Selection s = room_.selection();
    s.run = run;
    s.style = style->id;
    s.size = size;
    room_.select(s);
    picture_->setFocus();
}

void OrderBench::ask_for_list() {
    const QString path =
        QFileDialog::getOpenFileName(this, tr("Bring in a list"), {}, tr("Lists (*.csv *.tsv *.txt *.xlsx *.ods);;All files (*)"));
    if (!path.isEmpty()) bring_in_list(path);
}

void OrderBench::bring_in_list(const QString& path) {
    room_.jobs().background([this, path]() -> std::function<void()> {
        const auto text = read_file(path.toStdString(), 64u << 20);
        auto tables = text ? read_list(*text) : Result<std::vector<NamedTable>>(text.error());
        return [this, path, tables = std::move(tables)] {
            const QString name = QFileInfo(path).fileName();
            if (!tables) {
                room_.say({QStringLiteral("%1: %2").arg(name, refusal(tables.error())), true, {}, {}});
                return;
            }
            if (preview_) preview_->reject();
            preview_ = new ListPreview(room_, name, *tables, window());
            preview_->setAttribute(Qt::WA_DeleteOnClose);
            preview_->open();
        };
    });
}

void OrderBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    name_->show_text(qt(order.name));
    due_->show_text(qt(order.due));
    paper_->show_choice(order.paper == Paper::a4 ? 0 : 1);
    currency_->show_text(qt(order.currency));
    hourly_->show_number(order.hourly);
    if (roster_->isVisible()) roster_->refresh();
    if (jobs_->isVisible()) jobs_->refresh();
    if (price_->isVisible()) price_->refresh();
    if (papers_->isVisible()) papers_->refresh();
    const bool any = !s.run.style.empty();
    chosen_->setText(any ? qt(run_name(order, s.run)) + " " + qt(s.size) : tr("No run yet"));
    int quantity = 0;
    for (const SizeCount& c : counts_of(order, s.run))
        if (c.size == s.size) quantity = c.quantity;
    quantity_->setEnabled(any);
    quantity_->show_number(quantity);
    total_->setText(QString::number(garments_in(order, s.run)));
    QStringList notes;
    for (const OrderLine& l : order.lines)
        if (run_of(l) == s.run && l.size == s.size && !l.note.empty() && notes.size() < 6)
            notes << tr("%1 for %2").arg(l.quantity).arg(qt(l.note));
    notes_->setText(notes.join(QStringLiteral(", ")));
    part_->setEnabled(garments_in(order, s.run) > 1);
    const Lot* lot = find_lot(order, s.run.lot);
    join_->setEnabled(lot != nullptr);
    lot_name_->setVisible(lot != nullptr);
    if (lot != nullptr) lot_name_->show_text(qt(lot->name));
    kept_out_->setVisible(!order.kept_out.empty());
    QStringList rows;
    for (const KeptOut& k : order.kept_out)
        if (rows.size() < 4) rows << tr("row %1: %2").arg(k.row).arg(qt(k.reason));
    if (order.kept_out.size() > 4) rows << tr("and %1 more").arg(order.kept_out.size() - 4);
    kept_out_says_->setText(tr("Not come in from the list: ") + rows.join(QStringLiteral("; ")) + ".");
    std::vector<std::pair<std::string, QString>> blanks;
    for (const BlankStyle& style : order.styles)
        if (!style.archived) blanks.emplace_back(style.id, qt(style.name));
    const std::string blank_now = blank_->currentData().toString().toStdString();
    set_items(blank_, blanks, blank_now.empty() && !blanks.empty() ? blanks.front().first : blank_now);
    if (colour_->count() == 0) show_colours();
    picture_->setMinimumHeight(picture_->sizeHint().height());
    picture_->refresh();
}

QString OrderBench::word() const { return QString::number(garments_in(room_.order())); }

QString OrderBench::help() const {
    return tr(
        "Order: what is to be pressed. Bring in the shop's list, or add a run and type quantities on the picture: arrows choose a size, "
        "digits set it, Delete empties it.");
}

}  // namespace orthema::app
