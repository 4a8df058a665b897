#include "app/desk/desk.h"

#include <QCheckBox>
#include <QCoreApplication>
#include <QDate>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QStackedWidget>

#include "app/widgets/speech.h"
#include "app/desk/card_wall.h"
#include "app/desk/buy_desk.h"
#include "app/desk/shelf_desk.h"
#include "app/desk/stock_desk.h"
#include "app/widgets/figures.h"
#include "app/widgets/menus.h"
#include "core/papers/papers.h"

namespace orthema::app {

namespace {

/// Where a part of the demo lies: beside the program as it was built, or as it was installed.
QString demo(const char* name) {
    for (const char* from : {"/../../demo/", "/../share/orthema/demo/"}) {
        const QFileInfo there(QCoreApplication::applicationDirPath() + QString::fromLatin1(from) + QString::fromLatin1(name));
        if (there.exists()) return there.canonicalFilePath();
    }
    return {};
}

/// Every word is found in the card.
bool found(const KnownOrder& order, const QString& words) {
    const QString all = qt(order.card.name + " " + order.card.customer + " " + order.card.due + " " + order.path).toLower();
    for (const QString& w : words.toLower().split(' ', Qt::SkipEmptyParts))
        if (!all.contains(w)) return false;
    return true;
}

/// "Lacks 12 blanks, 3.2 m of film"; at length by their names.
QString lacking_words(const std::vector<Standby>& all, Reading reading, bool at_length) {
    QStringList parts;
    double blanks = 0, film = 0, sheets = 0;
    for (const Standby& s : all) {
        (s.want.kind == StockKind::roll ? film : s.want.kind == StockKind::blanks ? blanks : sheets) += s.lacking;
        if (at_length)
            parts << QStringLiteral("%1 %2").arg(
                s.want.kind == StockKind::roll ? film_text(s.lacking, reading) : QString::number(std::ceil(s.lacking - 1e-6)),
                qt(s.want.name));
    }
    if (!at_length) {
        if (blanks > 0) parts << counted(std::size_t(std::lround(blanks)), "blank");
        if (film > 0) parts << film_text(film, reading) + tr(" of film");
        if (sheets > 0) parts << counted(std::size_t(std::ceil(sheets)), "sheet or supply", "sheets or supplies");
    }
    return tr("Lacks ") + parts.join(QStringLiteral(", "));
}

}  // namespace

Desk::Desk(Workroom& room) : room_(room) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(8);
    auto* head = new QHBoxLayout;
    parts_ = new Segments(tr("Desk"), {tr("Orders"), tr("Stock"), tr("Shelf"), tr("To buy")});
    parts_->button(0)->setToolTip(tr("The shop's orders, the most urgent first"));
    parts_->button(1)->setToolTip(tr("Blanks, rolls and sheets: how many lie there, and who wants them"));
    parts_->button(2)->setToolTip(tr("Finished transfers that wait for an order"));
    parts_->button(3)->setToolTip(tr("What all open orders lack"));
    parts_->show_choice(0);
    parts_->chosen = [this](int i) { show_page(i); };
    head->addWidget(parts_);
    head->addStretch(1);
    scan_ = new QCheckBox(tr("a scan counts one in"));
    scan_->setObjectName(scan_->text());
    scan_->setToolTip(tr("Each code that is read in the field beside adds one of it"));
    head->addWidget(scan_);
    find_ = new QLineEdit;
    find_->setObjectName(QStringLiteral("Find an order"));
    find_->setAccessibleName(tr("Find an order"));
    find_->setPlaceholderText(tr("Find: name, customer, day"));
    find_->setMinimumWidth(100);
    find_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);  // gives way before the choices beside it
    find_->setMaximumWidth(210);
    find_->setClearButtonEnabled(true);
    head->addWidget(find_, 3);
    show_away_ = push(tr("Put away too"), tr("Shows those that are done as well"));
    show_away_->setCheckable(true);
    head->addWidget(show_away_);
    fresh_ = push(tr("New order"), tr("Begins with what the shop has, and no lines"), true);
    head->addWidget(fresh_);
    column->addLayout(head);
    stack_ = new QStackedWidget;
    wall_ = new CardWall;
    stack_->addWidget(wall_);
    stack_->addWidget(build_beginning());
    pages_ = new QStackedWidget;
    panels_ = new QStackedWidget;
    stock_ = new StockDesk(room_);
    shelf_ = new ShelfDesk(room_);
    buy_ = new BuyDesk(room_);
    for (QWidget* page :
         {static_cast<QWidget*>(stack_), static_cast<QWidget*>(stock_), static_cast<QWidget*>(shelf_), static_cast<QWidget*>(buy_)})
        pages_->addWidget(page);
    column->addWidget(pages_, 1);

    panel_ = new FigurePanel;
    details_ = panel_->part();
    details_->head(tr("Order"));
    title_ = details_->title();
    title_->setWordWrap(true);
    customer_ = details_->text_row(tr("For"));
    due_ = details_->text_row(tr("Due"));
    pieces_ = details_->text_row(tr("Pieces"));
    next_ = details_->note();
    lacks_ = details_->note();
    where_ = details_->note();
    details_->rule();
    open_ = push(tr("Open"), tr("Lays it on the table (Enter, or a double click)"), true);
    gang_ = push(tr("Gang these orders"), tr("The chosen orders as one: their pieces share the film, each stays its own"));
    like_ = push(tr("Begin another like it"), tr("A new order with its lines, designs and blanks, and nothing printed yet"));
    away_ = push(tr("Put away"), tr("It is done: it leaves the desk and stays in its file"));
    forget_ = push(tr("Take off the desk"), tr("Its file is not where it was: it is no longer listed"));
    for (QPushButton* b : {open_, gang_, like_, away_, forget_}) details_->add(b);
    note_ = details_->note();
    panel_->rule();
    panel_->head(tr("The whole shop"));
    auto* back_up = push(tr("Back up…"), tr("Library, records, stock and all orders in one file: for safety, or another machine"));
    auto* restore = push(tr("Restore…"), tr("A shop from such a file in place of this one, which is kept beside"));
    panel_->side_by_side({back_up, restore});
    connect(back_up, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("Back up the shop"), QStringLiteral("shop.orthema-shop"),
                                                          tr("Whole shops (*.orthema-shop)"));
        if (!path.isEmpty()) room_.back_up_shop(path);
    });
    connect(restore, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getOpenFileName(this, tr("Restore a shop"), {}, tr("Whole shops (*.orthema-shop);;All files (*)"));
        if (path.isEmpty()) return;
        const QString folder = QFileDialog::getExistingDirectory(this, tr("A folder for its orders"));
        if (!folder.isEmpty()) room_.restore_shop(path, folder);
    });
    panel_->fill();
    for (QWidget* panel : {static_cast<QWidget*>(panel_), static_cast<QWidget*>(stock_->figures()),
                           static_cast<QWidget*>(shelf_->figures()), static_cast<QWidget*>(buy_->figures())})
        panels_->addWidget(panel);

    connect(find_, &QLineEdit::textChanged, this, [this] {
        if (parts_->choice() == 0) refresh();
    });
    connect(find_, &QLineEdit::returnPressed, this, &Desk::scanned);
    connect(&room_.stock(), &StockRoom::changed, this, [this] {
        if (isVisible() && parts_->choice() == 0) refresh();
    });
    connect(show_away_, &QPushButton::toggled, this, &Desk::refresh);
    connect(fresh_, &QPushButton::clicked, this, [this] {
        room_.keeper().start_new();
        emit leaving();
    });
    connect(open_, &QPushButton::clicked, this, &Desk::open_current);
    connect(gang_, &QPushButton::clicked, this, &Desk::gang_chosen);
    connect(like_, &QPushButton::clicked, this, &Desk::begin_like);
    connect(away_, &QPushButton::clicked, this, [this] {
        const std::set<std::string> chosen = wall_->chosen();
        const KnownOrder* now = wall_->current();
        const bool away = now != nullptr && !now->away;
        for (const std::string& job : chosen) room_.orders().put_away(job, away);
    });
    connect(forget_, &QPushButton::clicked, this, [this] {
        if (const KnownOrder* now = wall_->current()) room_.orders().forget(std::string(now->card.job));
    });
    connect(&room_.orders(), &ShopOrders::changed, this, [this] {
        if (isVisible()) refresh();
    });
    wall_->changed = [this] { show_chosen(); };
    wall_->opened = [this](const KnownOrder&) { open_current(); };
    wall_->asked = [this](QPoint where) { menu(where); };
    scan_->hide();
    wall_->name_of = [this](const std::string& job) -> std::string {
        for (const KnownOrder& o : room_.orders().all())
            if (!o.away && std::find(o.card.jobs.begin(), o.card.jobs.end(), job) != o.card.jobs.end()) return o.card.name;
        return {};
    };
}

void Desk::begin_with(const QString& path) {
    if (!room_.order().lines.empty() || !room_.order().art.empty()) room_.keeper().start_new();
    emit bring_in({path});
}

/// Where there is no order yet: the ways to begin.
QWidget* Desk::build_beginning() {
    auto* page = new QWidget;
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(40, 30, 40, 30);
    column->setSpacing(10);
    column->addWidget(head_label(tr("No order lies here yet. Begin with what you have:")));
    const auto way = [&](const QString& name, const QString& says, auto act) {
        auto* button = push(name, says, true);
        button->setFixedWidth(210);
        auto* row = new QHBoxLayout;
        row->addWidget(button);
        auto* words = new QLabel(says);
        words->setWordWrap(true);
        words->setProperty("quiet", true);
        row->addWidget(words, 1);
        column->addLayout(row);
        connect(button, &QPushButton::clicked, this, act);
    };
    way(tr("A list…"), tr("What a web shop or a club sends: CSV, XLSX or ODS. Its columns are recognised and shown first."), [this] {
        const QString path =
            QFileDialog::getOpenFileName(this, tr("Bring in a list"), {}, tr("Lists (*.csv *.tsv *.txt *.xlsx *.ods);;All files (*)"));
        if (!path.isEmpty()) begin_with(path);
    });
    way(tr("A picture…"), tr("The design: it is measured, and says what it is fit for. Garments come after."), [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("Bring in a picture"));
        if (!path.isEmpty()) begin_with(path);
    });
    if (const QString order = demo("marrow-hill"); !order.isEmpty())
        way(tr("The demo order"), tr("A kite fair's tees, caps, fleece and mugs, from the list to the press."),
            [this, order] { room_.keeper().open(order); });
    if (const QString shop = demo("kite-fair.orthema-shop"); !shop.isEmpty())
        way(tr("The demo shop"),
            tr("The fair and three neighbours on one desk, a stock that lacks one thing, a shelf with transfers. It takes the "
               "place of this "
               "empty shop."),
            [this, shop] { room_.restore_shop(shop, room_.keeper().data_folder() + QStringLiteral("/demo orders")); });
    column->addStretch(1);
    return page;
}

QWidget* Desk::figures() { return panels_; }

QWidget* Desk::first_focus() const {
    return parts_->choice() == 1   ? static_cast<QWidget*>(stock_->wall())
           : parts_->choice() == 2 ? static_cast<QWidget*>(shelf_->wall())
                                   : wall_;
}

void Desk::show_page(int page) {
    parts_->show_choice(page);
    pages_->setCurrentIndex(page);
    panels_->setCurrentIndex(page);
    find_->setVisible(page != 3);
    find_->setPlaceholderText(page == 0   ? tr("Find: name, customer, day")
                              : page == 1 ? tr("Find, or scan a box")
                                          : tr("Find, or scan a bag"));
    scan_->setVisible(page == 1);
    show_away_->setVisible(page == 0);
    fresh_->setVisible(page == 0);
    if (page > 0) room_.stock().look_again();
    refresh();
}

/// What was typed or scanned on the pages of the stock and the shelf.
void Desk::scanned() {
    const QString text = find_->text().trimmed();
    if (text.isEmpty() || parts_->choice() == 0) return;
    bool there = false;
    if (const auto bag = bag_from_code(text.toStdString())) {
        show_page(2);
        there = shelf_->wall()->choose(*bag);
    } else if (parts_->choice() == 1) {
        there = stock_->found(text, scan_->isChecked());
    } else {
        for (const BinRow& row : shelf_->wall()->rows())
            for (const Bin& b : row.bins)
                if (!there && qt(b.entry.name + " " + b.entry.from + " " + b.entry.place).contains(text, Qt::CaseInsensitive))
                    there = shelf_->wall()->choose(std::string(b.entry.id));
    }
    if (there)
        find_->clear();
    else
        room_.say({tr("“%1” is not found here.").arg(text), true, {}, {}});
}

QStringList Desk::chosen_paths() const {
    QStringList out;
    for (const KnownOrder& o : wall_->cards())
        if (wall_->chosen().contains(o.card.job)) out << qt(o.path);
    return out;
}

void Desk::open_current() {
    const KnownOrder* now = wall_->current();
    if (now == nullptr) return;
    room_.keeper().open(qt(now->path));
}

std::optional<NextStep> Desk::next() const {
    std::vector<OrderCard> cards;
    for (const KnownOrder& o : room_.orders().all())
        if (!o.away) cards.push_back(o.card);
    return next_order(cards, [&](const std::string& job) { return room_.stock().lacking().contains(job); });
}

void Desk::open(const std::string& job) {
    if (const KnownOrder* known = room_.orders().find(job)) room_.keeper().open(qt(known->path));
}

void Desk::gang_chosen() {
    const QStringList paths = chosen_paths();
    if (paths.size() < 2) return;
    room_.gang_table().gang(paths);
}

void Desk::begin_like() {
    const KnownOrder* now = wall_->current();
    if (now == nullptr) return;
    room_.gang_table().begin_like(qt(now->path));
}

void Desk::menu(QPoint where) {
    QMenu menu;
    menu.setObjectName(QStringLiteral("Card menu"));
    add_heading(menu, title_->text());
    for (QPushButton* b : {open_, gang_, like_, away_, forget_})
        if (!b->isHidden()) add_button(menu, b);
    menu.exec(where);
}

std::string Desk::today() const { return today_.empty() ? QDate::currentDate().toString(Qt::ISODate).toStdString() : today_; }

void Desk::refresh() {
    const int page = parts_->choice();
    if (page == 1) return stock_->refresh();
    if (page == 2) return shelf_->refresh();
    if (page == 3) return buy_->refresh();
    const std::vector<KnownOrder>& all = room_.orders().all();
    std::vector<KnownOrder> shown;
    for (const KnownOrder& o : all)
        if ((show_away_->isChecked() || !o.away) && found(o, find_->text())) shown.push_back(o);
    std::map<std::string, QString> lacks;
    for (const auto& [job, what] : room_.stock().lacking()) lacks[job] = lacking_words(what, room_.order().unit, false);
    wall_->show_cards(std::move(shown), today(), std::move(lacks));
    const bool none = all.empty() && room_.orders().opened();
    details_->setVisible(!none);
    stack_->setCurrentIndex(none ? 1 : 0);
    show_chosen();
}

/// What is said of the cards in hand, and what can be done with them.
void Desk::show_chosen() {
    const std::string today = this->today();
    const KnownOrder* now = wall_->current();
    const std::size_t chosen = now == nullptr ? 0 : wall_->chosen().size();
    const KnownOrder* one = chosen > 1 ? nullptr : now;
    const bool there = now != nullptr && QFileInfo::exists(qt(now->path));
    title_->setText(now == nullptr ? tr("Nothing chosen")
                    : chosen > 1   ? tr("%1 chosen").arg(counted(chosen, "order"))
                                   : qt(now->card.name));
    int pieces = 0;
    std::set<std::string> customers;
    const KnownOrder* first = nullptr;  // that is due
    for (const KnownOrder& o : wall_->cards())
        if (wall_->chosen().contains(o.card.job)) {
            pieces += o.card.garments;
            customers.insert(o.card.customer);
            if (first == nullptr || lies_before(o.card, first->card)) first = &o;
        }
    QString whose, file;
    if (one != nullptr) {
        whose = one->card.jobs.empty() ? qt(one->card.customer) : tr("%1 together").arg(counted(one->card.jobs.size(), "order"));
        file = QFileInfo(qt(one->path)).fileName();
        if (!there) file = tr("%1 is not where it was: was it moved?").arg(file);
    }
    if (chosen > 1) whose = counted(customers.size(), "customer");
    customer_->setText(whose);
    const QString due = first == nullptr ? QString() : due_words(first->card, today);
    due_->setText(chosen > 1 && !due.isEmpty() ? tr("first %1").arg(due) : due);
    pieces_->setText(now == nullptr ? QString() : QString::number(pieces));
    next_->setText(one == nullptr ? QString() : qt(one->card.next));
    const auto& lacking = room_.stock().lacking();
    const auto lacks = one == nullptr ? lacking.end() : lacking.find(one->card.job);
    lacks_->setText(lacks == lacking.end() ? QString() : lacking_words(lacks->second, room_.order().unit, true));
    lacks_->setVisible(lacks != lacking.end());
    where_->setText(file);
    open_->setEnabled(chosen == 1 && there);
    gang_->setEnabled(chosen > 1);
    like_->setEnabled(chosen == 1 && there);
    away_->setEnabled(chosen > 0);
    away_->setText(now != nullptr && now->away ? tr("Back on the desk") : tr("Put away"));
    forget_->setVisible(chosen == 1 && !there);
    note_->setText(chosen == 1 ? tr("Choose more with Ctrl and the mouse, or with Space, to gang them.") : QString());
}

QString Desk::help() const {
    return tr(
        "Desk: the shop's orders, the most urgent first. A double click opens one; several that are chosen can be ganged, so that they "
        "share the film. A list or an order dropped here begins or joins one. Stock, shelf and what is to be bought lie on the pages "
        "beside: a "
        "number typed on a bin counts it.");
}

}  // namespace orthema::app
