// The Shop page beside the making: methods, media, jigs and presses as the shop has them. A change is the order's; one button keeps
// it in the library for the next.
#include <QCheckBox>
#include <QComboBox>

#include "app/widgets/speech.h"
#include "app/benches/fit/making_pages.h"

namespace orthema::app {

template <class T>
void MakingPages::change_item(const QString& what, SharedList<T> Order::*list, QComboBox* box, const std::function<void(T&)>& how) {
    const std::string id = box->currentData().toString().toStdString();
    Order next = room_.order();
    for (T& item : next.*list)
        if (item.id == id) how(item);
    room_.edit(what, std::move(next));
}

namespace {

template <class T>
const T* item_of(const SharedList<T>& list, const QComboBox* box) {
    const std::string id = box->currentData().toString().toStdString();
    for (const T& item : list)
        if (item.id == id) return &item;
    return nullptr;
}

/// "cotton, polyester" and back.
QString as_list(const std::vector<std::string>& words) {
    QStringList out;
    for (const std::string& w : words) out << qt(w);
    return out.join(QStringLiteral(", "));
}
std::vector<std::string> apart(const QString& text) {
    std::vector<std::string> out;
    for (const QString& w : text.split(',', Qt::SkipEmptyParts))
        if (!w.trimmed().isEmpty()) out.push_back(w.trimmed().toLower().toStdString());
    return out;
}

}  // namespace

void MakingPages::build_shop() {
    FigurePanel* p = pages_[4];
    kind_ = new Segments(tr("Shop data"), {tr("method"), tr("film or paper"), tr("jig"), tr("press")});
    kind_->turn_pages();
    p->add(kind_);
    for (FigurePanel*& k : kinds_) k = p->part();
    kind_->chosen = [this](int shown) {
        for (int i = 0; i < 4; ++i) kinds_[i]->setVisible(i == shown);
    };
    kind_->show_choice(0);
    kind_->chosen(0);

    // One field of an item: how it is shown, and how what was typed is taken.
    const auto length = [this](FigurePanel* page, const QString& name, const QString& why, auto list, QComboBox* box, auto which,
                               double least, double most) {
        LengthField* f = page->length_row(name, why);
        f->entered = [this, name, list, box, which, least, most](Length l, bool) -> std::optional<QString> {
            if (l.mm() < least || l.mm() > most) return tr("It lies between %1 and %2 mm.").arg(least).arg(most);
            using T = typename std::decay_t<decltype(room_.order().*list)>::value_type;
            change_item<T>(within(name), list, box, [which, l](T& item) { item.*which = l; });
            return std::nullopt;
        };
        shop_shown_.push_back([this, f, list, box, which] {
            if (const auto* item = item_of(room_.order().*list, box)) f->show_fine(item->*which, room_.order().unit);
        });
    };
    const auto number = [this](FigurePanel* page, const QString& name, const QString& why, auto list, QComboBox* box, auto which,
                               double least, double most, int digits) {
        NumberField* f = page->number_row(name, why, least, most, digits);
        f->entered = [this, name, list, box, which](double v) {
            using T = typename std::decay_t<decltype(room_.order().*list)>::value_type;
            change_item<T>(within(name), list, box,
                           [which, v](T& item) { item.*which = static_cast<std::decay_t<decltype(item.*which)>>(v); });
        };
        shop_shown_.push_back([this, f, list, box, which] {
            if (const auto* item = item_of(room_.order().*list, box)) f->show_number(double(item->*which));
        });
    };
    const auto chooser = [this](FigurePanel* page, const QString& name, const QString& why) {
        QComboBox* box = page->choice_row(name, why);
        connect(box, &QComboBox::activated, this, [this] { refresh_shop(); });
        return box;
    };

    // Every kind has a name of its own, and another of it can be made.
    const auto naming = [this](FigurePanel* page, const QString& what, auto list, QComboBox* box) {
        using T = typename std::decay_t<decltype(room_.order().*list)>::value_type;
        page->head(what);
        auto* f = new ValueField(what);
        f->setAlignment(Qt::AlignLeft);
        f->take = [this, list, box](const QString& t, bool) -> std::optional<QString> {
            const std::string name = t.trimmed().toStdString();
            if (name.empty()) return tr("It needs a name.");
            for (const T& other : room_.order().*list)
                if (other.name == name && other.id != box->currentData().toString().toStdString())
                    return tr("There is another of that name.");
            change_item<T>(tr("name"), list, box, [&](T& item) { item.name = name; });
            return std::nullopt;
        };
        page->add(f);
        shop_shown_.push_back([this, f, list, box] {
            if (const auto* item = item_of(room_.order().*list, box)) f->show_text(qt(item->name));
        });
    };
    const auto another = [this](FigurePanel* page, const QString& what, auto list, QComboBox* box) {
        using T = typename std::decay_t<decltype(room_.order().*list)>::value_type;
        QPushButton* b = push(tr("Another %1").arg(what), tr("A copy of this one, to be changed"));
        page->add(b);
        connect(b, &QPushButton::clicked, this, [this, what, list, box] {
            const T* own = item_of(room_.order().*list, box);
            Order next = room_.order();
            T copy = own != nullptr ? *own : T{};
            copy.id = fresh_id(what.toStdString(), next.*list);
            copy.name = what.left(1).toUpper().toStdString() + what.mid(1).toStdString() + " " + std::to_string((next.*list).size() + 1);
            (next.*list).push_back(copy);
            room_.edit(tr("another %1").arg(what), std::move(next));
            box->setCurrentIndex(box->count() - 1);
            refresh_shop();
        });
    };

    FigurePanel* m = kinds_[0];
    shop_method_ = chooser(m, tr("This method"), tr("Its figures are starting values: the supplier's sheet comes first"));
    const auto methods = &Order::methods;
    naming(m, tr("Method’s name"), methods, shop_method_);
    const auto words = [&](const QString& name, const QString& why, std::vector<std::string> Method::*which) {
        m->head(name);
        auto* f = new ValueField(name);
        f->setAlignment(Qt::AlignLeft);
        f->setToolTip(why);
        f->take = [this, name, which](const QString& t, bool) -> std::optional<QString> {
            change_item<Method>(within(name), &Order::methods, shop_method_, [&](Method& own) { own.*which = apart(t); });
            return std::nullopt;
        };
        m->add(f);
        shop_shown_.push_back([this, f, which] {
            if (const Method* own = item_of(room_.order().methods, shop_method_)) {
                f->show_text(as_list(own->*which));
                if (!f->hasFocus()) f->setCursorPosition(0);
            }
        });
    };
    words(tr("Fabrics it takes"), tr("Words of which the blank's fabric must have one; empty takes all"), &Method::fabrics);
    words(tr("Never on"), tr("Words that the blank's fabric must not have"), &Method::never);
    m->head(tr("Reads"));
    reads_ = new Segments(tr("Reads"), {tr("through its carrier"), tr("as printed")});
    reads_->chosen = [this](int i) {
        change_item<Method>(tr("reading side"), &Order::methods, shop_method_, [i](Method& own) { own.read_through = i == 0; });
    };
    m->add(reads_);
    m->head(tr("Afterwards it is"));
    handling_ = new Segments(tr("Afterwards it is"), {tr("left as it is"), tr("trimmed"), tr("weeded")});
    handling_->chosen = [this](int i) {
        change_item<Method>(tr("handling"), &Order::methods, shop_method_, [i](Method& own) { own.handling = static_cast<Handling>(i); });
    };
    m->add(handling_);
    const auto flag = [this](FigurePanel* page, const QString& name, const QString& why, bool Method::*which) {
        QCheckBox* box = page->tick(name, why);
        connect(box, &QCheckBox::clicked, this, [this, name, which](bool on) {
            change_item<Method>(within(name), &Order::methods, shop_method_, [which, on](Method& own) { own.*which = on; });
        });
        shop_shown_.push_back([this, box, which] {
            if (const Method* own = item_of(room_.order().methods, shop_method_)) box->setChecked(own->*which);
        });
    };
    flag(m, tr("Cut from sheets of one colour"), tr("No tones and no photographs"), &Method::flat_colours);
    flag(m, tr("Stretches with the cloth"), tr("Else a stretching blank cracks it"), &Method::stretches);
    flag(m, tr("Adhesive powder"), tr("Melted on to the wet ink, and cured; with the cautions of that work"), &Method::powder);
    number(m, tr("Lightest it needs"), tr("Lightness of the cloth, 0 black to 100 white; 0 takes any colour"), methods, shop_method_,
           &Method::lightest, 0, 100, 0);
    length(m, tr("Thinnest stroke"), tr("That it holds"), methods, shop_method_, &Method::min_stroke, 0, 50);
    length(m, tr("Narrowest gap"), tr("That stays open, or weeds"), methods, shop_method_, &Method::min_gap, 0, 50);
    length(m, tr("Smallest island"), tr("Smaller loose parts are lost when weeded"), methods, shop_method_, &Method::min_island, 0, 100);
    number(m, tr("Shrinks (%)"), tr("In the heat"), methods, shop_method_, &Method::shrink, 0, 50, 2);
    number(m, tr("Keeps for (days)"), tr("Once printed; 0: press at once"), methods, shop_method_, &Method::keeps_days, 0, 10000, 0);
    number(m, tr("Ink a dm²"), tr("What a square decimetre of ink costs"), methods, shop_method_, &Method::ink_cost, 0, 1000, 2);
    number(m, tr("Minutes a piece"), tr("Of work; a minute is reckoned at 0.45"), methods, shop_method_, &Method::minutes, 0, 1000, 1);
    QPushButton* stack = push(tr("Usual layers as here"), tr("The layers of the decoration in view become what this method starts with"));
    m->add(stack);
    connect(stack, &QPushButton::clicked, this, [this] {
        const Decoration* d = room_.decoration();
        if (d == nullptr) return;
        change_item<Method>(tr("usual layers"), &Order::methods, shop_method_,
                            [layers = d->making.layers](Method& own) { own.layers = layers; });
    });
    another(m, tr("method"), methods, shop_method_);

    FigurePanel* s = kinds_[1];
    shop_medium_ = chooser(s, tr("This medium"), tr("Rolls and sheets"));
    const auto media = &Order::media;
    naming(s, tr("Medium’s name"), media, shop_medium_);
    medium_method_ = s->choice_row(tr("Its method"), tr("What it is used for"));
    connect(medium_method_, &QComboBox::activated, this, [this](int i) {
        const std::string id = medium_method_->itemData(i).toString().toStdString();
        change_item<Medium>(tr("its method"), &Order::media, shop_medium_, [&](Medium& own) { own.method = id; });
    });
    shape_ = new Segments(tr("Comes as"), {tr("a roll"), tr("sheets")});
    shape_->chosen = [this](int i) {
        change_item<Medium>(tr("roll or sheets"), &Order::media, shop_medium_,
                            [i](Medium& own) { own.shape = i == 0 ? MediumShape::roll : MediumShape::sheet; });
    };
    s->add(shape_);
    s->head(tr("Who mirrors"));
    mirror_ = new Segments(tr("Who mirrors"), {tr("this program"), tr("printer"), tr("nobody")});
    mirror_->chosen = [this](int i) {
        change_item<Medium>(tr("who mirrors"), &Order::media, shop_medium_, [i](Medium& own) { own.mirror = static_cast<MirrorBy>(i); });
    };
    s->add(mirror_);
    length(s, tr("Width"), tr("Of the roll or sheet"), media, shop_medium_, &Medium::width, 10, 5000);
    length(s, tr("Longest run"), tr("Of a roll; a sheet's height"), media, shop_medium_, &Medium::length, 10, 100000);
    length(s, tr("Sheet margin"), tr("Kept free along every edge"), media, shop_medium_, &Medium::margin, 0, 200);
    length(s, tr("Cutter's width"), tr("Its largest area; 0: nothing limits it"), media, shop_medium_, &Medium::cut_width, 0, 5000);
    length(s, tr("Taped seam at"), tr("Two sheets taped: along the feed; 0: one sheet"), media, shop_medium_, &Medium::taped_at, 0, 5000);
    length(s, tr("Seam's reach"), tr("To both sides, kept free of ink where it can be"), media, shop_medium_, &Medium::taped_lap, 0, 200);
    number(s, tr("Price"), tr("A metre of roll, or a sheet"), media, shop_medium_, &Medium::price, 0, 1e6, 2);
    another(s, tr("film or paper"), media, shop_medium_);

    FigurePanel* j = kinds_[2];
    shop_jig_ = chooser(j, tr("This jig"), tr("Slots on a backer board"));
    const auto jigs = &Order::jigs;
    naming(j, tr("Jig’s name"), jigs, shop_jig_);
    number(j, tr("Rows"), tr("Of slots"), jigs, shop_jig_, &Jig::rows, 1, 100, 0);
    number(j, tr("Columns"), tr("Of slots"), jigs, shop_jig_, &Jig::columns, 1, 100, 0);
    length(j, tr("Pitch across"), tr("Slot to slot"), jigs, shop_jig_, &Jig::pitch_x, 0, 2000);
    length(j, tr("Pitch down"), tr("Slot to slot"), jigs, shop_jig_, &Jig::pitch_y, 0, 2000);
    length(j, tr("Slot width"), tr("0: the blank's own outline"), jigs, shop_jig_, &Jig::slot_width, 0, 2000);
    length(j, tr("Slot height"), tr("0: the blank's own outline"), jigs, shop_jig_, &Jig::slot_height, 0, 2000);
    length(j, tr("Slot's corner"), tr("Half the width makes it round"), jigs, shop_jig_, &Jig::slot_corner, 0, 1000);
    length(j, tr("Backer width"), tr("The board, and so the sheet at 1:1"), jigs, shop_jig_, &Jig::backer_width, 10, 5000);
    length(j, tr("Backer height"), tr("The board, and so the sheet at 1:1"), jigs, shop_jig_, &Jig::backer_height, 10, 5000);
    length(j, tr("Board's margin"), tr("Kept free along its edges"), jigs, shop_jig_, &Jig::margin, 0, 500);
    auto* first = j->choice_row(tr("Slot"), tr("Which slot, row by row from the top left"));
    auto* fill = j->choice_row(tr("Holds"), tr("A design for that slot; in turn: the next one that is waiting"));
    connect(first, &QComboBox::activated, this, [this] { refresh_shop(); });
    connect(fill, &QComboBox::activated, this, [this, first, fill](int i) {
        const auto slot = std::size_t(std::max(0, first->currentIndex()));
        const std::string id = fill->itemData(i).toString().toStdString();
        change_item<Jig>(tr("a slot's design"), &Order::jigs, shop_jig_, [&](Jig& own) {
            own.assigned.resize(std::size_t(own.rows * own.columns));
            if (slot < own.assigned.size()) own.assigned[slot] = id;
            if (std::all_of(own.assigned.begin(), own.assigned.end(), [](const std::string& a) { return a.empty(); })) own.assigned.clear();
        });
    });
    shop_shown_.push_back([this, first, fill] {
        const Jig* own = item_of(room_.order().jigs, shop_jig_);
        if (own == nullptr) return;
        std::vector<std::pair<std::string, QString>> slots_there, designs{{"", tr("in turn")}};
        for (int i = 0; i < own->rows * own->columns; ++i)
            slots_there.emplace_back(std::to_string(i), tr("row %1, column %2").arg(i / own->columns + 1).arg(i % own->columns + 1));
        for (const Decoration& d : room_.order().decorations)
            if (d.making.jig == own->id) designs.emplace_back(d.id, qt(d.name) + ", " + qt(run_name(room_.order(), d.run)));
        const int slot = std::max(0, first->currentIndex());
        set_items(first, slots_there, std::to_string(std::min<int>(slot, int(slots_there.size()) - 1)));
        const auto at = std::size_t(std::max(0, first->currentIndex()));
        set_items(fill, designs, at < own->assigned.size() ? own->assigned[at] : "");
    });
    another(j, tr("jig"), jigs, shop_jig_);

    FigurePanel* q = kinds_[3];
    shop_press_ = chooser(q, tr("This press"), tr("Hand press, flat press, cap press, wrap press or oven"));
    const auto presses = &Order::presses;
    naming(q, tr("Press’s name"), presses, shop_press_);
    press_kind_ = new Segments(tr("Kind of press"), {tr("flat"), tr("cap"), tr("wrap"), tr("oven")});
    press_kind_->chosen = [this](int i) {
        change_item<Press>(tr("kind of press"), &Order::presses, shop_press_, [i](Press& own) { own.kind = static_cast<PressKind>(i); });
    };
    q->add(press_kind_);
    length(q, tr("Ink keeps inside"), tr("From the platen's edge: its rim is cooler"), presses, shop_press_, &Press::margin, 0, 100);
    number(q, tr("Heats, °C/min"), tr("How fast it gets hotter"), presses, shop_press_, &Press::heat_rate, 0.1, 200, 1);
    number(q, tr("Cools, °C/min"), tr("How fast it gets cooler"), presses, shop_press_, &Press::cool_rate, 0.1, 200, 1);
    number(q, tr("Platen change (s)"), tr("By hand, to mount another"), presses, shop_press_, &Press::platen_seconds, 0, 36000, 0);
    number(q, tr("Pressure change (s)"), tr("By hand"), presses, shop_press_, &Press::pressure_seconds, 0, 36000, 0);
    number(q, tr("Pieces at once"), tr("That an oven or a wrap press takes"), presses, shop_press_, &Press::pieces, 1, 200, 0);
    // Platens and pads: which one, its name and its size.
    const auto parts = [&](const QString& what, const QString& why, auto which, bool may_lack) {
        using Part = typename std::decay_t<decltype(Press{}.*which)>::value_type;
        QComboBox* box = q->choice_row(what, why);
        connect(box, &QComboBox::activated, this, [this] { refresh_shop(); });
        const auto change = [this, which, box, what](const std::function<void(Part&)>& how) {
            change_item<Press>(within(what), &Order::presses, shop_press_, [&](Press& own) {
                const int i = box->currentIndex();
                if (i >= 0 && std::size_t(i) < (own.*which).size()) how((own.*which)[std::size_t(i)]);
            });
        };
        auto* name = q->field_row(tr("%1’s name").arg(what), tr("As the guides call it"));
        name->take = [change](const QString& t, bool) -> std::optional<QString> {
            const std::string text = t.trimmed().toStdString();
            if (text.empty() || text.size() > 80) return tr("It needs a name of up to 80 letters.");
            change([&](Part& one) { one.name = text; });
            return std::nullopt;
        };
        const auto side = [&](const QString& row, Length Part::*member, double least, double most) {
            LengthField* f = q->length_row(row.arg(what), tr("Measured on the press"));
            f->entered = [change, member, least, most](Length l, bool) -> std::optional<QString> {
                if (l.mm() < least || l.mm() > most) return tr("It lies between %1 and %2 mm.").arg(least).arg(most);
                change([&](Part& one) { one.*member = l; });
                return std::nullopt;
            };
            shop_shown_.push_back([this, f, box, which, member] {
                const Press* own = item_of(room_.order().presses, shop_press_);
                const int i = box->currentIndex();
                const bool there = own != nullptr && i >= 0 && std::size_t(i) < (own->*which).size();
                f->setEnabled(there);
                f->show_fine(there ? (own->*which)[std::size_t(i)].*member : Length{}, room_.order().unit);
            });
        };
        shop_shown_.push_back([this, box, which, name] {
            const Press* own = item_of(room_.order().presses, shop_press_);
            std::vector<std::pair<std::string, QString>> items;
            if (own != nullptr)
                for (std::size_t i = 0; i < (own->*which).size(); ++i) items.emplace_back(std::to_string(i), qt((own->*which)[i].name));
            set_items(box, items);
            name->setEnabled(!items.empty());
            name->show_text(box->currentText());
        });
        side(tr("%1 width"), &Part::width, 10, 3000);
        side(tr("%1 height"), &Part::height, 10, 3000);
        if constexpr (requires { &Part::thickness; }) side(tr("%1 thickness"), &Part::thickness, 1, 200);
        QPushButton* more = push(tr("Another %1").arg(within(what)), tr("To be named and measured"));
        QPushButton* less = push(tr("Out with it"), tr("Takes this one off the press"));
        less->setObjectName(tr("Out with this %1").arg(within(what)));
        q->side_by_side({more, less});
        connect(more, &QPushButton::clicked, this, [this, which, box, what] {
            change_item<Press>(tr("another %1").arg(within(what)), &Order::presses, shop_press_, [&](Press& own) {
                Part one = (own.*which).empty() ? Part{} : (own.*which).back();
                if ((own.*which).empty()) one.width = one.height = Length::from_mm(100);
                one.name = what.toStdString() + " " + std::to_string((own.*which).size() + 1);
                if ((own.*which).size() < 40) (own.*which).push_back(one);
            });
            box->setCurrentIndex(box->count() - 1);
            refresh_shop();
        });
        connect(less, &QPushButton::clicked, this, [this, which, box, what, may_lack] {
            change_item<Press>(tr("%1 out").arg(within(what)), &Order::presses, shop_press_, [&](Press& own) {
                const int i = box->currentIndex();
                if (i >= 0 && std::size_t(i) < (own.*which).size() && (may_lack || (own.*which).size() > 1))
                    (own.*which).erase((own.*which).begin() + i);
            });
            refresh_shop();
        });
    };
    parts(tr("Platen"), tr("The first is the one that is mounted"), &Press::platens, false);
    parts(tr("Pad"), tr("Lifts the ink above seams and closures"), &Press::pads, true);
    another(q, tr("press"), presses, shop_press_);
    p->rule();
    QPushButton* keep = push(tr("Keep it in the library"), tr("For the orders to come"));
    p->add(keep);
    connect(keep, &QPushButton::clicked, this, [this] {
        LibraryContent own;
        if (const Method* one = item_of(room_.order().methods, shop_method_); one != nullptr && kind_->choice() == 0)
            own.methods.push_back(*one);
        if (const Medium* one = item_of(room_.order().media, shop_medium_); one != nullptr && kind_->choice() == 1)
            own.media.push_back(*one);
        if (const Jig* one = item_of(room_.order().jigs, shop_jig_); one != nullptr && kind_->choice() == 2) own.jigs.push_back(*one);
        if (const Press* one = item_of(room_.order().presses, shop_press_); one != nullptr && kind_->choice() == 3)
            own.presses.push_back(*one);
        room_.library().keep(own);
    });
}

void MakingPages::refresh_shop() {
    const Order& order = room_.order();
    const auto fill = [](QComboBox* box, const auto& list) {
        std::vector<std::pair<std::string, QString>> items;
        for (const auto& item : list) items.emplace_back(item.id, qt(item.name));
        const std::string now = box->currentData().toString().toStdString();
        set_items(box, items, now);
        if (box->currentIndex() < 0 && box->count() > 0) {
            const QSignalBlocker quiet(box);
            box->setCurrentIndex(0);
        }
    };
    fill(shop_method_, order.methods);
    fill(shop_medium_, order.media);
    fill(shop_jig_, order.jigs);
    fill(shop_press_, order.presses);
    for (const auto& show : shop_shown_) show();
    if (const Press* own = item_of(order.presses, shop_press_)) press_kind_->show_choice(static_cast<int>(own->kind));
    if (const Method* m = item_of(order.methods, shop_method_)) {
        reads_->show_choice(m->read_through ? 0 : 1);
        handling_->show_choice(static_cast<int>(m->handling));
    }
    if (const Medium* m = item_of(order.media, shop_medium_)) {
        mirror_->show_choice(static_cast<int>(m->mirror));
        shape_->show_choice(m->shape == MediumShape::roll ? 0 : 1);
        std::vector<std::pair<std::string, QString>> methods_there;
        for (const Method& o : order.methods) methods_there.emplace_back(o.id, qt(o.name));
        set_items(medium_method_, methods_there, m->method);
    }
}

}  // namespace orthema::app
