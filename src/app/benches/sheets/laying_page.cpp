#include "app/benches/sheets/laying_page.h"

#include <QCheckBox>
#include <QComboBox>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/sheets/ribbon_sheets.h"
#include "core/supply/film.h"

namespace orthema::app {

namespace {

/// Two lengths as people type them: "400 x 300", "16 × 12 in", "40 cm, 30 cm".
std::optional<std::pair<Length, Length>> two_lengths(const QString& text, Reading reading) {
    static const QRegularExpression between(QStringLiteral("\\s*[x×;,*]\\s*"));
    const QStringList parts = text.split(between, Qt::SkipEmptyParts);
    if (parts.size() != 2) return std::nullopt;
    // a unit behind the second holds for the first too
    static const QRegularExpression bare(QStringLiteral("^[0-9./ ]+$"));
    static const QRegularExpression behind(QStringLiteral("(mm|cm|in|\")\\s*$"));
    QString first = parts[0];
    if (const auto m = behind.match(parts[1]); m.hasMatch() && bare.match(first).hasMatch()) first += m.captured(1);
    const auto a = parse_length(first.toStdString(), reading), b = parse_length(parts[1].toStdString(), reading);
    if (!a || !b) return std::nullopt;
    return std::pair{*a, *b};
}

QString two_text(Length a, Length b, Reading reading) { return qt(length_text(a, reading, false) + " × " + length_text(b, reading)); }

/// The medium as the shop's shelf has it; as the order has it where the shelf has none.
Medium on_the_shelf(Workroom& room, const Medium& medium) {
    for (const Medium& m : room.library().content().media)
        if (m.id == medium.id) return m;
    return medium;
}

}  // namespace

void change_medium(Workroom& room, const QString& what, const std::function<void(Medium&)>& how) {
    Order next = room.order();
    for (Medium& m : next.media)
        if (m.id == room.selection().medium) how(m);
    if (next != room.order()) room.edit(what, std::move(next));
}

LayingPage::LayingPage(Workroom& room) : room_(room) {
    bare();
    head(tr("How it is cut, or left whole"));
    cutting_ = new Segments(tr("Parted"), {tr("contours"), tr("trimmer"), tr("on sheet")});
    cutting_->button(0)->setToolTip(tr("By scissors or a cutter: true shapes, small pieces in the bays of large ones"));
    cutting_->button(1)->setToolTip(tr("Every cut goes from edge to edge; the cut list can be replayed and printed"));
    cutting_->button(2)->setToolTip(tr("Blanks are taped to the whole sheet and pressed together; their outlines show"));
    cutting_->chosen = [this](int i) {
        change_medium(room_, tr("how it is parted"), [i](Medium& m) { m.laying.cutting = static_cast<Cutting>(i); });
    };
    add(cutting_);
    for_trimmer_ = part();
    for_trimmer_->head(tr("Cuts change direction"));
    stages_ = new Segments(tr("Cuts change direction"), {tr("freely"), tr("once"), tr("twice")});
    stages_->setToolTip(tr("Fewer changes of direction cut faster and waste more; trimming one piece's edges does not count"));
    stages_->chosen = [this](int i) {
        change_medium(room_, tr("stages of cuts"), [i](Medium& m) { m.laying.stages = i == 0 ? 0 : i + 1; });
    };
    for_trimmer_->add(stages_);
    for_sheet_ = part();
    fingers_ = for_sheet_->length_row(tr("Between two blanks"), tr("Room for tape and fingers"));
    fingers_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 200) return tr("It lies between 0 and 200 mm.");
        change_medium(room_, tr("room for tape"), [l](Medium& m) { m.laying.fingers = l; });
        return std::nullopt;
    };
    for_roll_ = part();
    waste_ = for_roll_->length_row(tr("Lost with every run"), tr("Film at the clamp and the knife that nothing is printed on"));
    waste_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 2000) return tr("0 to 2 m.");
        change_medium(room_, tr("film lost with a run"), [&](Medium& m) { m.laying.waste = l; });
        return std::nullopt;
    };
    gap_ = length_row(tr("Gap between pieces"), tr("The least distance between two contours; a blade passes in its middle"));
    gap_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 100) return tr("A gap lies between 0 and 100 mm.");
        change_medium(room_, tr("gap"), [l](Medium& m) { m.gap = l; });
        return std::nullopt;
    };
    margin_ = length_row(tr("Margin"), tr("Kept free along every edge"));
    margin_->entered = [this](Length l, bool) -> std::optional<QString> {
        const Medium* m = medium_of(room_);
        if (l.mm() < 0 || m == nullptr || l.mm() * 3 > m->width.mm()) return tr("The margins must leave room for the pieces.");
        change_medium(room_, tr("margin"), [l](Medium& medium) { medium.margin = l; });
        return std::nullopt;
    };
    offset_ = length_row(tr("Ink to cut line"), tr("How far outside the ink the contour runs"));
    offset_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 50) return tr("It lies between 0 and 50 mm.");
        change_medium(room_, tr("cut line"), [l](Medium& m) { m.cut_offset = l; });
        return std::nullopt;
    };
    head(tr("Pieces may be turned"));
    turns_ = new Segments(tr("Pieces may be turned"), {tr("not"), tr("halves"), tr("quarters"), tr("freely")});
    turns_->setToolTip(tr("Nap and foil forbid turning; a grain allows halves; freely nests round and crooked pieces closer"));
    turns_->chosen = [this](int i) {
        change_medium(room_, tr("turning"), [i](Medium& m) {
            m.laying.grain = i == 1;
            m.quarter_turns = i > 1;
            m.free_turns = i == 3;
        });
    };
    add(turns_);
    together_ = choice_row(tr("Together"), tr("Laid one after the other along the feed, so that a straight cut parts them"));
    set_items(together_,
              {{"0", tr("nothing")}, {"1", tr("each design")}, {"2", tr("each garment")}, {"3", tr("each size")}, {"4", tr("each job")}},
              "0");
    connect(together_, &QComboBox::activated, this, [this](int i) {
        change_medium(room_, tr("what is kept together"), [i](Medium& m) { m.laying.together = static_cast<Together>(i); });
    });
    for_contour_ = part();
    registers_ =
        for_contour_->tick(tr("Register marks for the cutter"),
                           tr("Rings with a cross in the corners; their places are kept clear, and they are trimmed off before pressing"));
    connect(registers_, &QCheckBox::clicked, this,
            [this](bool on) { change_medium(room_, tr("register marks"), [on](Medium& m) { m.laying.registers = on; }); });
    rule();
    excluded_ = choice_row(tr("Kept free"), tr("Clamps, scratches, labels: on every sheet or run"));
    connect(excluded_, &QComboBox::activated, this, [this] { show_exclusion(); });
    name_ = field_row(tr("Called"), tr("A clamp, a scratch"));
    place_ = field_row(tr("Begins at"), tr("Along the feed × across it, from the start and the near edge"));
    size_ = field_row(tr("Size"), tr("Along the feed × across it"));
    name_->take = [](const QString&, bool) -> std::optional<QString> { return std::nullopt; };
    const auto two = [this](const QString& text, bool) -> std::optional<QString> {
        if (!two_lengths(text, room_.order().unit)) return tr("Two lengths with a × between them: 0 × 40 mm.");
        return std::nullopt;
    };
    place_->take = size_->take = two;
    add_ = push(tr("Keep free"), tr("Adds it, or changes the one that is shown"));
    remove_ = push(tr("Give back"), tr("Pieces may lie there again"));
    side_by_side({add_, remove_});
    connect(add_, &QPushButton::clicked, this, [this] { keep_free(); });
    connect(remove_, &QPushButton::clicked, this, [this] {
        const int at = excluded_->currentIndex() - 1;
        change_medium(room_, tr("give back what was kept free"), [at](Medium& m) {
            if (at >= 0 && at < int(m.laying.excluded.size())) m.laying.excluded.erase(m.laying.excluded.begin() + at);
        });
        show_exclusion();
    });
    fill();
}

void LayingPage::show_exclusion() {
    const Medium* m = medium_of(room_);
    const int at = excluded_->currentIndex() - 1;
    const bool any = m != nullptr && at >= 0 && at < int(m->laying.excluded.size());
    const Exclusion e = any ? m->laying.excluded[std::size_t(at)] : Exclusion{};
    const Reading reading = room_.order().unit;
    remove_->setEnabled(any);
    // what is being typed for the next stays until the place that is shown is another
    std::tuple showing{m == nullptr ? std::string() : m->id, at, m == nullptr ? std::size_t{0} : m->laying.excluded.size(), e, reading};
    if (shown_ == showing) return;
    shown_ = std::move(showing);
    name_->show_text(qt(e.name));
    place_->show_text(any ? two_text(e.along, e.across, reading) : QString());
    size_->show_text(any ? two_text(e.length, e.breadth, reading) : QString());
}

void LayingPage::keep_free() {
    const Reading reading = room_.order().unit;
    const auto place = two_lengths(place_->text(), reading), size = two_lengths(size_->text(), reading);
    if (!place || !size || size->first.mm() <= 0 || size->second.mm() <= 0 || place->first.mm() < 0 || place->second.mm() < 0)
        return room_.say({tr("Say where it begins and how large it is: two lengths each, with a × between them."), true, {}, {}});
    const int at = excluded_->currentIndex() - 1;
    const std::string name = name_->text().trimmed().isEmpty() ? spoken("kept free") : name_->text().trimmed().toStdString();
    change_medium(room_, tr("keep a place free"), [&](Medium& m) {
        const Exclusion e{name, place->first, place->second, size->first, size->second};
        if (at >= 0 && at < int(m.laying.excluded.size()))
            m.laying.excluded[std::size_t(at)] = e;
        else
            m.laying.excluded.push_back(e);
    });
}

void LayingPage::refresh() {
    const Medium* m = medium_of(room_);
    if (m == nullptr) return;
    const Reading reading = room_.order().unit;
    cutting_->show_choice(int(m->laying.cutting));
    for_trimmer_->setVisible(m->laying.cutting == Cutting::trimmer);
    for_sheet_->setVisible(m->laying.cutting == Cutting::on_sheet);
    for_contour_->setVisible(m->laying.cutting == Cutting::contour);
    stages_->show_choice(m->laying.stages == 0 ? 0 : m->laying.stages - 1);
    fingers_->show_length(m->laying.fingers, reading);
    gap_->show_length(m->gap, reading);
    for_roll_->setVisible(m->shape == MediumShape::roll);
    waste_->show_length(m->laying.waste, reading);
    margin_->show_length(m->margin, reading);
    offset_->show_length(m->cut_offset, reading);
    turns_->show_choice(m->quarter_turns ? (m->free_turns ? 3 : 2) : m->laying.grain ? 1 : 0);
    together_->setCurrentIndex(int(m->laying.together));
    registers_->setChecked(m->laying.registers);
    std::vector<std::pair<std::string, QString>> items{{"", tr("one more")}};
    for (std::size_t i = 0; i < m->laying.excluded.size(); ++i) items.emplace_back(std::to_string(i), qt(m->laying.excluded[i].name));
    const int was = excluded_->currentIndex();
    set_items(excluded_, items, was > 0 && was < int(items.size()) ? items[std::size_t(was)].first : "");
    show_exclusion();
}

// ---- stock

StockPage::StockPage(Workroom& room) : room_(room) {
    bare();
    head(tr("Sizes that it is bought in"));
    items_ = choice_row(tr("Size"), tr("Settling takes the cheapest mix, offcuts first"));
    connect(items_, &QComboBox::activated, this, [this](int) {
        item_ = items_->currentData().toString().toStdString();
        refresh();
    });
    name_ = field_row(tr("Name"), tr("What the shop calls it"));
    size_ = field_row(tr("Measures"), tr("Width × length: a roll's width and what is left on it; a sheet's width and height"));
    price_ = field_row(tr("Price"), tr("A metre of roll, or a sheet"));
    on_hand_ = field_row(tr("On hand"), tr("How many sheets there are; of a roll the metres on it. Empty: not counted"));
    name_->take = [this](const QString& text, bool) -> std::optional<QString> {
        if (text.trimmed().isEmpty()) return tr("It needs a name.");
        change_item(tr("name of a size"), [&](StockItem& s) { s.name = text.trimmed().toStdString(); });
        return std::nullopt;
    };
    size_->take = [this](const QString& text, bool) -> std::optional<QString> {
        const auto two = two_lengths(text, room_.order().unit);
        if (!two || two->first.mm() < 20 || two->second.mm() < 20) return tr("Two lengths of 20 mm and more, with a × between them.");
        change_item(tr("size of stock"), [&](StockItem& s) {
            s.width = two->first;
            s.length = two->second;
        });
        return std::nullopt;
    };
    price_->take = [this](const QString& text, bool) -> std::optional<QString> {
        bool fine = false;
        const double v = QString(text).replace(',', '.').toDouble(&fine);
        if (!fine || !(v >= 0) || v > 1e5) return tr("A price of 0 or more.");
        change_item(tr("price"), [&](StockItem& s) { s.price = v; });
        return std::nullopt;
    };
    on_hand_->take = [this](const QString& text, bool) -> std::optional<QString> {
        bool fine = text.trimmed().isEmpty();
        const int v = fine ? -1 : text.trimmed().toInt(&fine);
        if (!fine || v > 100000) return tr("A whole number, or nothing.");
        return count_sheets(v);
    };
    batch_ = field_row(tr("Batch"), tr("Of the roll or box in use: what is pressed from it is kept by it"));
    batch_->take = [this](const QString& text, bool) -> std::optional<QString> {
        if (text.size() > 80) return tr("Up to 80 letters.");
        change_medium(room_, tr("batch"), [&](Medium& m) { m.batch = text.trimmed().toStdString(); });
        return std::nullopt;
    };
    add_ = push(tr("One more size"), tr("Another size that this medium is bought in"));
    remove_ = push(tr("Take out"), tr("It is not offered any more"));
    side_by_side({add_, remove_});
    connect(add_, &QPushButton::clicked, this, [this] {
        change_medium(room_, tr("one more size"), [this](Medium& m) {
            StockItem s;
            s.id = item_ = fresh_id("size", m.laying.stock);
            s.name = spoken("Another size");
            s.width = m.width;
            s.length = m.length;
            s.price = m.price;
            m.laying.stock.push_back(s);
        });
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        change_medium(room_, tr("take a size out"),
                      [this](Medium& m) { std::erase_if(m.laying.stock, [&](const StockItem& s) { return s.id == item_; }); });
    });
    keep_ = push(tr("Keep this sheet's left-over"), tr("With its true shape; it is offered first the next time"));
    connect(keep_, &QPushButton::clicked, this, [this] { keep_left_over(); });
    add(keep_);
    from_shelf_ = push(tr("As the shop has them"), tr("The sizes and offcuts that the shop library has of this medium"));
    add(from_shelf_);
    connect(from_shelf_, &QPushButton::clicked, this, [this] {
        change_medium(room_, tr("stock as on the shelf"), [this](Medium& m) { m.laying.stock = on_the_shelf(room_, m).laying.stock; });
    });
    needs_ = note();
    rule();
    head(tr("Fill what is left"));
    filler_ = choice_row(tr("With"), tr("More of a transfer than was ordered, for the shelf"));
    connect(filler_, &QComboBox::activated, this, [this](int) { refresh(); });
    value_ = number_row(tr("One more is worth"), tr("Against the others; 0: not wanted"), 0, 1e6, 2);
    value_->entered = [this](double v) {
        const std::string id = filler_->currentData().toString().toStdString();
        MediumLayout layout = layout_of(room_.order(), room_.selection().medium);
        const auto at = std::find_if(layout.fill.begin(), layout.fill.end(), [&](const FillWish& f) { return f.transfer == id; });
        if (at == layout.fill.end()) {
            if (v > 0) layout.fill.push_back({id, v, 0});
        } else {
            at->value = v;
        }
        room_.edit(tr("worth of a filling"), with_layout(room_.order(), std::move(layout)));
    };
    fill_ = push(tr("Fill"), tr("As much worth as finds room on the sheets that are there"));
    empty_ = push(tr("Take fillings out"), tr("What is ordered stays"));
    side_by_side({fill_, empty_});
    connect(fill_, &QPushButton::clicked, this, [this] { fill(); });
    connect(empty_, &QPushButton::clicked, this, [this] {
        MediumLayout layout = layout_of(room_.order(), room_.selection().medium);
        for (FillWish& f : layout.fill) f.value = 0;
        if (const Medium* m = medium_of(room_)) layout = filled(*m, room_.transfer_set(), layout);
        layout.fill.clear();
        room_.edit(tr("take fillings out"), with_layout(room_.order(), std::move(layout)));
    });
    filled_ = note();
    FigurePanel::fill();
}

void StockPage::change_item(const QString& what, const std::function<void(StockItem&)>& how) {
    change_medium(room_, what, [&](Medium& m) {
        for (StockItem& s : m.laying.stock)
            if (s.id == item_) how(s);
    });
}

void StockPage::keep_left_over() {
    const Medium* m = medium_of(room_);
    const int number = sheet ? sheet() : 0;
    if (const MediumPlan* plan = plan_of(room_); plan != nullptr && m != nullptr)
        for (const Sheet& s : plan->sheets) {
            if (s.number != number) continue;
            auto left = left_over(*m, room_.transfer_set(), s);
            if (!left) return room_.say({tr("No piece of 40 × 40 mm is left on this sheet."), false, {}, {}});
            // on the shelf for the next order, and not for the sheet that it comes from
            Medium shelf = on_the_shelf(room_, *m);
            left->id = fresh_id("offcut", shelf.laying.stock);
            left->name = spoken("Offcut ") + length_text(left->width, room_.order().unit, false) + " × " +
                         length_text(left->length, room_.order().unit);
            shelf.laying.stock.push_back(*left);
            StockEntry counted_as;
            counted_as.kind = StockKind::sheets;
            counted_as.id = sheets_id(m->id, left->id);
            counted_as.medium = m->id;
            counted_as.stock = left->id;
            counted_as.name = left->name;
            room_.stock().count({{counted_as, 1}});
            return room_.library().keep(LibraryContent{{}, {shelf}, {}, {}, {}},
                                        qt(left->name) + tr(" is kept on the shop's shelf; the next order takes it first."));
        }
    room_.say({tr("Settle the pieces first: there is no sheet to keep anything of."), true, {}, {}});
}

std::map<std::string, int> StockPage::used() const {
    std::map<std::string, int> out;
    if (const MediumPlan* plan = plan_of(room_))
        for (const Sheet& s : plan->sheets) ++out[s.stock];
    return out;
}

/// What the shop counts of this size: sheets; of a roll medium's own size the metres on its rolls.
QString StockPage::counted_text() const {
    const Medium* m = medium_of(room_);
    if (m == nullptr) return {};
    const Stock& stock = room_.stock().stock();
    if (m->shape == MediumShape::roll && item_.empty()) {
        if (!counts_rolls(stock, m->id)) return {};
        double mm = 0;
        for (const RollLeft& r : rolls_of(stock, m->id)) mm += r.left;
        return film_text(mm, room_.order().unit);
    }
    const StockEntry* e = find_entry(stock, sheets_id(m->id, item_));
    return e == nullptr ? QString() : QString::number(e->on_hand);
}

std::optional<QString> StockPage::count_sheets(int n) {
    const Medium* m = medium_of(room_);
    if (m == nullptr) return std::nullopt;
    if (m->shape == MediumShape::roll && item_.empty()) return tr("Rolls are counted one by one, on the desk's page Stock.");
    StockEntry e;
    e.kind = StockKind::sheets;
    e.id = sheets_id(m->id, item_);
    e.medium = m->id;
    e.stock = item_;
    e.name = m->name;
    for (const StockItem& s : m->laying.stock)
        if (s.id == item_) e.name = s.name;
    if (const StockEntry* before = find_entry(room_.stock().stock(), e.id)) e.place = before->place;
    if (n < 0)
        room_.stock().remove(e.id);
    else
        room_.stock().count({{e, double(n)}});
    return std::nullopt;
}

void StockPage::fill() {
    const Medium* m = medium_of(room_);
    if (m == nullptr) return;
    const MediumLayout layout = layout_of(room_.order(), m->id);
    if (layout.fill.empty()) return room_.say({tr("Say first what one of a transfer is worth."), true, {}, {}});
    room_.settler().fill(m->id);
}

std::vector<std::pair<std::string, QString>> StockPage::fillers() const {
    std::vector<std::pair<std::string, QString>> out;
    for (const Transfer& t : room_.transfer_set().transfers)
        if (t.medium == room_.selection().medium) out.emplace_back(t.id, qt(t.name));
    return out;
}

void StockPage::refresh() {
    const Medium* m = medium_of(room_);
    if (m == nullptr) return;
    const Reading reading = room_.order().unit;
    std::vector<std::pair<std::string, QString>> items{{"", qt(m->name)}};
    const StockItem* chosen = nullptr;
    for (const StockItem& s : m->laying.stock) {
        items.emplace_back(s.id, qt(s.name));
        if (s.id == item_) chosen = &s;
    }
    if (chosen == nullptr) item_.clear();
    set_items(items_, items, item_);
    for (ValueField* f : {name_, size_, price_}) f->setEnabled(chosen != nullptr);
    on_hand_->setEnabled(room_.stock().opened());
    size_->setEnabled(chosen != nullptr && chosen->shape.empty());
    remove_->setEnabled(chosen != nullptr);
    name_->show_text(qt(chosen != nullptr ? chosen->name : m->name));
    size_->show_text(chosen != nullptr ? two_text(chosen->width, chosen->length, reading) : two_text(m->width, m->length, reading));
    price_->show_text(fixed(chosen != nullptr ? chosen->price : m->price, 2));
    on_hand_->show_text(counted_text());
    batch_->show_text(qt(m->batch));
    const std::map<std::string, int> taken = used();
    QStringList parts;
    for (const auto& [id, name] : items)
        if (taken.contains(id)) parts << QStringLiteral("%1 × %2").arg(taken.at(id)).arg(name);
    needs_->setText(parts.isEmpty() ? tr("Nothing is laid out yet.") : tr("This layout takes ") + parts.join(QStringLiteral(", ")) + ".");
    const auto list = fillers();
    set_items(filler_, list);
    const MediumLayout layout = layout_of(room_.order(), m->id);
    double value = 0;
    int extra = 0;
    for (const FillWish& f : layout.fill) {
        if (f.transfer == filler_->currentData().toString().toStdString()) value = f.value;
        extra += f.copies;
    }
    value_->show_number(value);
    empty_->setEnabled(!layout.fill.empty());
    filled_->setText(extra == 0 ? tr("Spares for each transfer are said on the Fit bench.")
                                : tr("%1 pieces more than ordered are laid out.").arg(extra));
}

}  // namespace orthema::app
