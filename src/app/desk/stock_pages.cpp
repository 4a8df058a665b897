#include "app/desk/stock_pages.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QTableWidget>

#include <cmath>
#include <set>

#include "app/widgets/figures.h"
#include "core/papers/papers.h"
#include "files/page_export.h"

namespace orthema::app {

namespace {

/// What a bin's count is called: pieces, metres, or the supply's own unit.
QString count_text(const StockEntry& e, double n, Unit unit) {
    if (e.kind == StockKind::roll) return film_text(n, unit);
    if (e.kind == StockKind::supply) return QString::number(n, 'f', n < 100 ? 1 : 0) + QLatin1Char(' ') + qt(e.unit);
    return QString::number(std::lround(n));
}

/// A count as it is typed; of a roll metres, or a length with its unit.
std::optional<double> count_from(const StockEntry& e, QString text) {
    text = text.trimmed().replace(',', '.');
    if (e.kind == StockKind::roll) {
        bool plain = false;
        const double metres = text.toDouble(&plain);
        if (plain) return metres >= 0 && metres <= 10000 ? std::optional(metres * 1000) : std::nullopt;
        if (text.endsWith('m') && !text.endsWith(QLatin1String("mm")) && !text.endsWith(QLatin1String("cm"))) {
            const double m = text.chopped(1).toDouble(&plain);
            return plain && m >= 0 && m <= 10000 ? std::optional(m * 1000) : std::nullopt;
        }
        const auto length = parse_length(text.toStdString(), Unit::mm);
        return length && length->mm() >= 0 && length->mm() <= 1e7 ? std::optional(length->mm()) : std::nullopt;
    }
    if (e.kind == StockKind::supply && !e.unit.empty() && text.endsWith(qt(e.unit))) text.chop(int(qt(e.unit).size()));
    bool fine = false;
    const double n = text.trimmed().toDouble(&fine);
    if (!fine || !(n >= 0) || n > 1e6) return std::nullopt;
    if (e.kind != StockKind::supply && n != std::floor(n)) return std::nullopt;
    return n;
}

QString refused_count(const StockEntry& e) {
    return e.kind == StockKind::roll ? QStringLiteral("A length: 7.5 are metres; 24 ft and 800 mm are understood too.")
                                     : QStringLiteral("A whole number of 0 or more.");
}

Colour colour_of(const BlankStyle& style, const std::string& name) {
    for (const BlankColour& c : style.colours)
        if (c.name == name) return c.ink;
    return palette::rule;
}

void left_aligned(ValueField* field, int width) {
    field->setFixedWidth(width);
    field->setStyleSheet(QStringLiteral("qproperty-alignment: AlignLeft;"));
}

/// As many of these names as are read.
QString some(const QStringList& names) {
    constexpr int most = 5;
    if (names.size() <= most) return names.join(QStringLiteral(", "));
    return QStringLiteral("%1 and %2 more").arg(names.mid(0, most).join(QStringLiteral(", "))).arg(names.size() - most);
}

QVBoxLayout* plain_column(QWidget* of) {
    auto* column = new QVBoxLayout(of);
    column->setContentsMargins(0, 0, 0, 0);
    return column;
}

/// Where something lies, and what its box says: text of an entry that is not its count.
std::function<std::optional<QString>(const QString&, bool)> takes_text(std::function<void(const std::string&)> take) {
    return [take = std::move(take)](const QString& text, bool) -> std::optional<QString> {
        if (text.size() > 80) return QStringLiteral("Up to 80 letters.");
        take(text.trimmed().toStdString());
        return std::nullopt;
    };
}

}  // namespace

// ---- stock

StockDesk::StockDesk(Workroom& room) : room_(room) {
    wall_ = new BinWall(QStringLiteral("Bins"),
                        QStringLiteral("Nothing is counted yet. Choose a blank on the right and type on its sizes how many lie "
                                       "there; count the rolls in by their metres. What the orders want is then known at once."));
    plain_column(this)->addWidget(wall_, 1);
    panel_ = new FigurePanel;
    one_ = panel_->part();
    one_->head(QStringLiteral("In the bin"));
    title_ = one_->title();
    title_->setWordWrap(true);
    on_hand_ = one_->field_row(QStringLiteral("On hand"),
                               QStringLiteral("As it was counted; of a roll the metres that are left, half a roll too"));
    on_hand_->take = [this](const QString& text, bool) -> std::optional<QString> {
        const Bin* now = wall_->current();
        return now == nullptr ? std::nullopt : count(*now, text);
    };
    place_ = one_->field_row(QStringLiteral("Lies"), QStringLiteral("Where it is found: a shelf, a box"));
    place_->take = takes_text([this](const std::string& t) { change([t](StockEntry& e) { e.place = t; }); });
    names_ = one_->part();
    name_ = names_->field_row(QStringLiteral("Called"), QStringLiteral("A roll's or jar's own name"));
    name_->take = takes_text([this](const std::string& t) {
        if (!t.empty()) change([t](StockEntry& e) { e.name = t; });
    });
    code_ = one_->field_row(QStringLiteral("Code"), QStringLiteral("What a scanner reads on its box"));
    code_->take = takes_text([this](const std::string& t) { change([t](StockEntry& e) { e.code = t; }); });
    for (ValueField* f : {place_, name_, code_}) left_aligned(f, 150);
    supply_ = one_->part();
    uses_ = supply_->field_row(QStringLiteral("A dm² of ink takes"),
                               QStringLiteral("By the supplier's sheet, or what was used over some metres"));
    uses_->take = [this](const QString& text, bool) -> std::optional<QString> {
        bool fine = false;
        const double n = QString(text).replace(',', '.').toDouble(&fine);
        if (!fine || !(n >= 0) || n > 1000) return QStringLiteral("A number of 0 or more.");
        change([n](StockEntry& e) { e.per_dm2 = n; });
        return std::nullopt;
    };
    wanted_ = one_->note();
    spoiled_says_ = one_->note();
    spoiled_ = push(QStringLiteral("One is spoiled"), QStringLiteral("It is taken out, and counted as spoiled"));
    remove_ = push(QStringLiteral("Do not count"), QStringLiteral("Its counts go; what is not counted is never lacking"));
    one_->side_by_side({spoiled_, remove_});
    connect(spoiled_, &QPushButton::clicked, this, [this] {
        if (const Bin* now = wall_->current(); now != nullptr && now->count >= 1) room_.stock().spoil(now->entry.id, 1);
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        if (const Bin* now = wall_->current()) room_.stock().remove(now->entry.id);
    });
    panel_->rule();
    panel_->head(QStringLiteral("Count in"));
    style_ = panel_->choice_row(QStringLiteral("Blank"), QStringLiteral("Of the shop's library"));
    colour_ = panel_->choice_row(QStringLiteral("Colour"), QStringLiteral("Its run is laid out on the left, to type on"));
    auto* lay = push(QStringLiteral("Lay its run out"), QStringLiteral("Then type how many on each size"));
    panel_->add(lay);
    connect(style_, &QComboBox::activated, this, [this] { refresh(); });
    connect(lay, &QPushButton::clicked, this, [this] {
        const std::pair run{style_->currentData().toString().toStdString(), colour_->currentData().toString().toStdString()};
        if (run.first.empty() || run.second.empty()) return;
        if (std::find(shown_.begin(), shown_.end(), run) == shown_.end()) shown_.push_back(run);
        refresh();
        for (const BlankStyle& s : room_.library().content().styles)
            if (s.id == run.first && !s.sizes.empty()) wall_->choose(blanks_id(s.id, run.second, s.sizes.front()));
        wall_->setFocus();
    });
    medium_ = panel_->choice_row(QStringLiteral("Film"), QStringLiteral("What the new roll, powder or ink is for"));
    roll_ = push(QStringLiteral("A new roll"), QStringLiteral("Then type how many metres are on it"));
    jar_ = push(QStringLiteral("Powder or ink"), QStringLiteral("Used up by the area of ink that is printed"));
    panel_->side_by_side({roll_, jar_});
    connect(roll_, &QPushButton::clicked, this, &StockDesk::new_roll);
    connect(jar_, &QPushButton::clicked, this, &StockDesk::new_supply);
    auto* in = push(QStringLiteral("From a table…"), QStringLiteral("CSV: blank, colour, size and count, as a delivery note has it"));
    auto* out = push(QStringLiteral("As a table…"), QStringLiteral("All of it as CSV, to count with on paper or elsewhere"));
    panel_->side_by_side({in, out});
    connect(in, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, QStringLiteral("Count in from a table"), {},
                                                          QStringLiteral("Tables (*.csv *.tsv *.txt);;All files (*)"));
        if (!path.isEmpty()) room_.stock().count_in_from(path);
    });
    connect(out, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, QStringLiteral("Stock as a table"), QStringLiteral("stock.csv"),
                                                          QStringLiteral("CSV (*.csv)"));
        if (!path.isEmpty()) room_.stock().export_to(path, false);
    });
    note_ = panel_->note();
    panel_->fill();
    wall_->changed = [this] { show_chosen(); };
    wall_->counted = [this](const Bin& bin, const QString& text) {
        auto refused = count(bin, text);
        if (refused) room_.say({*refused, true, {}, {}});
        return refused;
    };
    connect(&room_.stock(), &StockRoom::changed, this, [this] {
        if (isVisible()) refresh();
    });
}

std::optional<QString> StockDesk::count(const Bin& bin, const QString& text) {
    const auto n = count_from(bin.entry, text);
    if (!n) return refused_count(bin.entry);
    room_.stock().count({{bin.entry, *n}});
    return std::nullopt;
}

void StockDesk::change(const std::function<void(StockEntry&)>& how) {
    const Bin* now = wall_->current();
    if (now != nullptr && now->count >= 0) room_.stock().change(now->entry.id, how);
}

void StockDesk::new_roll() {
    const std::string id = medium_->currentData().toString().toStdString();
    for (const Medium& m : room_.library().content().media) {
        if (m.id != id || m.shape != MediumShape::roll) continue;
        StockEntry e;
        e.kind = StockKind::roll;
        e.medium = m.id;
        for (int k = 1; k < 10000; ++k) {
            e.id = "roll/" + m.id + "/" + std::to_string(k);
            e.name = "Roll " + std::to_string(k);
            if (find_entry(room_.stock().stock(), e.id) == nullptr) break;
        }
        room_.stock().count({{e, 0}});
        room_.stock().then([this, made = e.id] {
            refresh();
            wall_->choose(made);
            wall_->setFocus();
        });
        return;
    }
    room_.say({QStringLiteral("Choose a film that comes on rolls."), true, {}, {}});
}

void StockDesk::new_supply() {
    const std::string id = medium_->currentData().toString().toStdString();
    const Method* method = nullptr;
    for (const Medium& m : room_.library().content().media)
        for (const Method& known : room_.library().content().methods)
            if (m.id == id && known.id == m.method) method = &known;
    if (method == nullptr || method->ink_cost <= 0) return room_.say({QStringLiteral("Nothing is printed on that medium."), true, {}, {}});
    constexpr double powder_g = 0.3, ink_ml = 0.18;  // a dm²; typical figures to be edited
    StockEntry e;
    e.kind = StockKind::supply;
    e.method = method->id;
    const bool powder_there = find_entry(room_.stock().stock(), "supply/" + method->id + "/powder") != nullptr;
    const bool powder = method->powder && !powder_there;
    e.id = "supply/" + method->id + (powder ? "/powder" : "/ink");
    if (find_entry(room_.stock().stock(), e.id) != nullptr) {
        wall_->choose(e.id);
        return;
    }
    e.name = powder ? "Powder" : "Ink";
    e.unit = powder ? "g" : "ml";
    e.per_dm2 = powder ? powder_g : ink_ml;
    room_.stock().count({{e, 0}});
    room_.stock().then([this, made = e.id] {
        refresh();
        wall_->choose(made);
        wall_->setFocus();
    });
}

BinRow StockDesk::blanks_row(const BlankStyle& style, const std::string& colour) const {
    BinRow row;
    row.title = qt(style.name + ", " + colour);
    double all = 0, most = 1, asked = 0;
    for (const std::string& size : style.sizes) {
        Bin bin;
        bin.entry.kind = StockKind::blanks;
        bin.entry.id = blanks_id(style.id, colour, size);
        bin.entry.style = style.id;
        bin.entry.colour = colour;
        bin.entry.size = size;
        bin.entry.name = style.name + ", " + colour + " " + size;
        if (const StockEntry* e = find_entry(room_.stock().stock(), bin.entry.id)) {
            bin.entry = *e;
            bin.count = e->on_hand;
            all += e->on_hand;
        }
        bin.name = qt(size);
        bin.tint = colour_of(style, colour);
        if (const auto w = wanted_of_.find(bin.entry.id); w != wanted_of_.end()) bin.wanted = w->second;
        if (const auto l = lacking_of_.find(bin.entry.id); l != lacking_of_.end()) bin.lacking = l->second;
        asked += bin.wanted;
        most = std::max({most, bin.count, bin.wanted});
        row.bins.push_back(std::move(bin));
    }
    for (Bin& b : row.bins) b.full = most;
    row.beside = asked > 0 ? QStringLiteral("%1 on hand, %2 wanted").arg(all).arg(asked) : QStringLiteral("%1 on hand").arg(all);
    return row;
}

std::vector<BinRow> StockDesk::rows() const {
    const Stock& stock = room_.stock().stock();
    const LibraryContent& shop = room_.library().content();
    const Unit unit = room_.order().unit;
    std::vector<BinRow> out;
    std::set<std::pair<std::string, std::string>> runs(shown_.begin(), shown_.end());
    runs.insert(uncounted_.begin(), uncounted_.end());
    for (const StockEntry& e : stock.entries)
        if (e.kind == StockKind::blanks) runs.emplace(e.style, e.colour);
    for (const BlankStyle& style : shop.styles) {
        for (const BlankColour& c : style.colours)
            if (runs.contains({style.id, c.name})) out.push_back(blanks_row(style, c.name));
    }
    for (const Medium& m : shop.media) {
        BinRow row;
        row.title = qt(m.name);
        double left = 0, most = 1;
        for (const StockEntry& e : stock.entries) {
            if ((e.kind != StockKind::roll && e.kind != StockKind::sheets) || e.medium != m.id) continue;
            Bin bin;
            bin.entry = e;
            bin.name = qt(e.name);
            bin.count = e.on_hand;
            bin.tint = m.tint == Colour{1, 1, 1, 1} ? Colour{0.88, 0.91, 0.90, 1} : m.tint;
            if (e.kind == StockKind::sheets) {
                if (const auto w = wanted_of_.find(e.id); w != wanted_of_.end()) bin.wanted = w->second;
                if (const auto l = lacking_of_.find(e.id); l != lacking_of_.end()) bin.lacking = l->second;
            } else {
                left += e.on_hand;
                if (e.on_hand < 500) bin.note = QStringLiteral("nearly used up");
            }
            most = std::max({most, bin.count, bin.wanted});
            row.bins.push_back(std::move(bin));
        }
        if (row.bins.empty()) continue;
        for (Bin& b : row.bins) b.full = most;
        if (m.shape == MediumShape::roll) {
            const auto w = wanted_of_.find(film_id(m.id));
            row.beside = film_text(left, unit) + QStringLiteral(" left");
            if (w != wanted_of_.end() && w->second > 0)
                row.beside += QStringLiteral(", %1 wanted").arg(film_text(w->second, unit)) +
                              (w->second > left ? QStringLiteral(": %1 short").arg(film_text(w->second - left, unit)) : QString());
        }
        out.push_back(std::move(row));
    }
    BinRow jars;
    jars.title = QStringLiteral("Powder and ink");
    for (const StockEntry& e : stock.entries) {
        if (e.kind != StockKind::supply) continue;
        Bin bin;
        bin.entry = e;
        bin.name = qt(e.name);
        bin.count = e.on_hand;
        if (const auto w = wanted_of_.find(e.id); w != wanted_of_.end()) bin.wanted = w->second;
        if (const auto l = lacking_of_.find(e.id); l != lacking_of_.end()) bin.lacking = l->second;
        bin.full = std::max({1.0, bin.count, bin.wanted});
        bin.tint = e.id.ends_with("/ink") ? Colour{0.30, 0.36, 0.48, 1} : Colour{0.93, 0.92, 0.88, 1};
        jars.bins.push_back(std::move(bin));
    }
    if (!jars.bins.empty()) out.push_back(std::move(jars));
    for (BinRow& row : out)
        for (Bin& b : row.bins) {
            b.figure = b.count < 0 ? QString() : count_text(b.entry, b.count, unit);
            if (b.lacking > 1e-6) {
                b.note = QStringLiteral("%1 lacking").arg(count_text(b.entry, std::ceil(b.lacking - 1e-6), unit));
                b.bad = true;
            } else if (b.wanted > 0) {
                b.note = QStringLiteral("%1 wanted").arg(count_text(b.entry, b.wanted, unit));
            }
        }
    return out;
}

void StockDesk::refresh() {
    wanted_of_.clear();
    lacking_of_.clear();
    wanted_by_.clear();
    for (const ToBuy& b : room_.stock().buying()) {
        wanted_of_[b.item] = b.asked;
        lacking_of_[b.item] = std::max(0.0, b.asked - b.on_hand);
        for (const std::string& o : b.orders) wanted_by_[b.item] << qt(o);
    }
    const LibraryContent& shop = room_.library().content();
    uncounted_.clear();
    std::map<std::string, std::pair<std::string, std::string>> runs;  // style and colour of every blank that could be counted
    for (const BlankStyle& s : shop.styles)
        for (const BlankColour& c : s.colours)
            for (const std::string& size : s.sizes) runs[blanks_id(s.id, c.name, size)] = {s.id, c.name};
    std::set<std::string> counted_items;
    for (const StockEntry& e : room_.stock().stock().entries) counted_items.insert(e.id);
    std::set<std::string> ganged;
    for (const OpenOrder& o : room_.stock().shop().open.all()) ganged.insert(o.jobs.begin(), o.jobs.end());
    for (const OpenOrder& o : room_.stock().shop().open.all())
        for (const Want& w : o.wants) {
            if (w.kind != StockKind::blanks || ganged.contains(o.job) || counted_items.contains(w.item)) continue;
            wanted_of_[w.item] += w.amount;
            if (!wanted_by_[w.item].contains(qt(o.name))) wanted_by_[w.item] << qt(o.name);
            if (const auto at = runs.find(w.item); at != runs.end()) uncounted_.insert(at->second);
        }
    std::vector<std::pair<std::string, QString>> styles, colours, media;
    for (const BlankStyle& s : shop.styles)
        if (!s.archived) styles.emplace_back(s.id, qt(s.name));
    for (const Medium& m : shop.media) media.emplace_back(m.id, qt(m.name));
    const auto kept = [](QComboBox* box, const auto& items) {
        const std::string now = box->currentData().toString().toStdString();
        const bool there = std::any_of(items.begin(), items.end(), [&](const auto& i) { return i.first == now; });
        set_items(box, items, there ? now : items.empty() ? "" : items.front().first);
    };
    kept(style_, styles);
    for (const BlankStyle& s : shop.styles)
        if (s.id == style_->currentData().toString().toStdString())
            for (const BlankColour& c : s.colours) colours.emplace_back(c.name, qt(c.name));
    kept(colour_, colours);
    kept(medium_, media);
    wall_->show_rows(rows());
    double spoiled = 0;
    for (const StockEntry& e : room_.stock().stock().entries) spoiled += e.kind == StockKind::blanks ? e.spoiled : 0;
    note_->setText(spoiled > 0 ? QStringLiteral("%1 spoiled so far.").arg(counted(std::size_t(spoiled), "blank")) : QString());
    show_chosen();
}

void StockDesk::show_chosen() {
    const Bin* now = wall_->current();
    one_->setVisible(now != nullptr);
    if (now == nullptr) return;
    const StockEntry& e = now->entry;
    const bool is_counted = now->count >= 0;
    title_->setText(qt(e.name));
    on_hand_->show_text(is_counted ? now->figure : QString());
    place_->show_text(qt(e.place));
    name_->show_text(qt(e.name));
    code_->show_text(qt(e.code));
    for (ValueField* f : {place_, code_}) f->setEnabled(is_counted);
    names_->setVisible(e.kind == StockKind::roll || e.kind == StockKind::supply);
    supply_->setVisible(e.kind == StockKind::supply);
    uses_->show_text(QStringLiteral("%1 %2").arg(e.per_dm2).arg(qt(e.unit)));
    const std::string item = e.kind == StockKind::roll ? film_id(e.medium) : e.id;
    const auto by = wanted_by_.find(item);
    wanted_->setText(by == wanted_by_.end() ? QString() : QStringLiteral("Wanted by %1.").arg(some(by->second)));
    wanted_->setVisible(by != wanted_by_.end());
    spoiled_says_->setText(e.spoiled > 0 ? QStringLiteral("%1 of them spoiled so far.").arg(e.spoiled) : QString());
    spoiled_says_->setVisible(e.spoiled > 0);
    spoiled_->setEnabled(now->count >= 1);
    spoiled_->setVisible(e.kind == StockKind::blanks || e.kind == StockKind::sheets);
    remove_->setEnabled(is_counted);
}

bool StockDesk::found(const QString& text, bool count_one) {
    const std::string code = text.trimmed().toStdString();
    if (code.empty()) return false;
    for (const StockEntry& e : room_.stock().stock().entries) {
        if (e.kind == StockKind::transfers || (e.code != code && e.id != code)) continue;
        wall_->choose(e.id);
        if (count_one && e.kind != StockKind::roll) room_.stock().count({{e, e.on_hand + 1}});
        return true;
    }
    for (const BinRow& row : wall_->rows())
        for (const Bin& b : row.bins)
            if (qt(b.entry.name).contains(text.trimmed(), Qt::CaseInsensitive)) return wall_->choose(b.entry.id);
    return false;
}

// ---- shelf

ShelfDesk::ShelfDesk(Workroom& room) : room_(room) {
    wall_ = new BinWall(QStringLiteral("Bags"),
                        QStringLiteral("Nothing lies on the shelf. Spares, fillings and what was called off can be laid there from "
                                       "the Sheets bench, page Shelf; the next order with the same design takes them first."));
    plain_column(this)->addWidget(wall_, 1);
    panel_ = new FigurePanel;
    one_ = panel_->part();
    one_->head(QStringLiteral("Finished transfers"));
    title_ = one_->title();
    title_->setWordWrap(true);
    width_ = one_->text_row(QStringLiteral("Wide"));
    on_hand_ = one_->field_row(QStringLiteral("On hand"), QStringLiteral("As they were counted"));
    on_hand_->take = [this](const QString& text, bool) -> std::optional<QString> {
        const Bin* now = wall_->current();
        return now == nullptr ? std::nullopt : count(*now, text);
    };
    held_ = one_->text_row(QStringLiteral("Promised"));
    printed_ = one_->text_row(QStringLiteral("Printed"));
    until_ = one_->text_row(QStringLiteral("Press until"));
    place_ = one_->field_row(QStringLiteral("Lies"), QStringLiteral("Where the bag is found"));
    left_aligned(place_, 150);
    place_->take = takes_text([this](const std::string& t) {
        if (const Bin* now = wall_->current()) room_.stock().change(now->entry.id, [t](StockEntry& e) { e.place = t; });
    });
    from_ = one_->note();
    spoiled_ = push(QStringLiteral("One is spoiled"), QStringLiteral("It is taken out, and counted as spoiled"));
    remove_ = push(QStringLiteral("Throw away"), QStringLiteral("The bag leaves the shelf; not while some of it is promised"));
    one_->side_by_side({spoiled_, remove_});
    connect(spoiled_, &QPushButton::clicked, this, [this] {
        if (const Bin* now = wall_->current(); now != nullptr && now->count >= 1) room_.stock().spoil(now->entry.id, 1);
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        if (const Bin* now = wall_->current()) room_.stock().remove(now->entry.id);
    });
    panel_->rule();
    labels_ = push(QStringLiteral("Labels for the bags…"), QStringLiteral("A page of labels with codes: what it is, how many, until when"));
    panel_->add(labels_);
    connect(labels_, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, QStringLiteral("Labels for the shelf"), QStringLiteral("shelf-labels.pdf"),
                                                          QStringLiteral("PDF (*.pdf)"));
        if (!path.isEmpty()) print_labels(path);
    });
    note_ = panel_->note();
    panel_->fill();
    wall_->changed = [this] { show_chosen(); };
    wall_->counted = [this](const Bin& bin, const QString& text) {
        auto refused = count(bin, text);
        if (refused) room_.say({*refused, true, {}, {}});
        return refused;
    };
    connect(&room_.stock(), &StockRoom::changed, this, [this] {
        if (isVisible()) refresh();
    });
}

std::optional<QString> ShelfDesk::count(const Bin& bin, const QString& text) {
    const auto n = count_from(bin.entry, text);
    if (!n) return refused_count(bin.entry);
    room_.stock().count({{bin.entry, *n}});
    return std::nullopt;
}

void ShelfDesk::print_labels(const QString& path) {
    std::vector<StockEntry> bags;
    for (const StockEntry& e : room_.stock().stock().entries)
        if (e.kind == StockKind::transfers && e.on_hand > 0) bags.push_back(e);
    if (bags.empty()) return room_.say({QStringLiteral("No bag lies on the shelf."), true, {}, {}});
    room_.jobs().background([this, path, pages = shelf_labels(bags, room_.order().paper, room_.order().unit)]() -> std::function<void()> {
        std::vector<const Drawing*> drawings;
        for (const GuidePage& p : pages) drawings.push_back(&p.drawing);
        const auto done = write_pdf(path.toStdString(), drawings, {}, "Labels for the shelf");
        return [this, done, path] {
            if (done)
                room_.say({QStringLiteral("Written to %1.").arg(path), false, {}, {}});
            else
                room_.notices().complain(qt(done.sentence()));
        };
    });
}

void ShelfDesk::refresh() {
    const Unit unit = room_.order().unit;
    const std::string& today = room_.stock().shop().today;
    std::map<QString, BinRow> by_order;  // which they were printed with
    std::vector<QString> in_order;
    int past = 0;
    for (const StockEntry& e : room_.stock().stock().entries) {
        if (e.kind != StockKind::transfers) continue;
        Bin bin;
        bin.entry = e;
        bin.name = qt(e.name);
        bin.count = e.on_hand;
        bin.figure = QStringLiteral("%1 × %2").arg(e.on_hand).arg(qt(length_text(Length::from_mm(e.mark.width), unit)));
        double held = 0;
        for (const StockShare& s : e.shares) held += std::max(0.0, s.held - s.taken);
        if (is_past(e, today)) {
            bin.note = QStringLiteral("past its time");
            bin.bad = true;
            ++past;
        } else if (held > 0) {
            bin.note = QStringLiteral("%1 promised").arg(held);
        } else if (!e.until.empty()) {
            bin.note = QStringLiteral("until %1").arg(qt(e.until));
        }
        const QString from = e.from.empty() ? QStringLiteral("Of no order") : qt(e.from);
        if (!by_order.contains(from)) {
            in_order.push_back(from);
            by_order[from].title = from;
        }
        by_order[from].bins.push_back(std::move(bin));
    }
    std::vector<BinRow> rows;
    for (const QString& from : in_order) {
        BinRow& row = by_order[from];
        row.beside = counted(row.bins.size(), "bag");
        rows.push_back(std::move(row));
    }
    labels_->setEnabled(!rows.empty());
    wall_->show_rows(std::move(rows));
    note_->setText(past > 0 ? QStringLiteral("%1 past the time that the film keeps: a test piece first, or throw them away.")
                                  .arg(counted(std::size_t(past), "bag is", "bags are"))
                            : QString());
    show_chosen();
}

void ShelfDesk::show_chosen() {
    const Bin* now = wall_->current();
    one_->setVisible(now != nullptr);
    if (now == nullptr) return;
    const StockEntry& e = now->entry;
    double held = 0;
    QStringList whose;
    for (const StockShare& s : e.shares)
        if (s.held > s.taken) {
            held += s.held - s.taken;
            const KnownOrder* order = room_.orders().find(s.job);
            whose << (order != nullptr             ? qt(order->card.name)
                      : s.job == room_.order().job ? qt(room_.order().name)
                                                   : QStringLiteral("an order"));
        }
    title_->setText(qt(e.name));
    width_->setText(qt(length_text(Length::from_mm(e.mark.width), room_.order().unit)) +
                    (e.mark.mirrored ? QStringLiteral(", mirrored") : QString()));
    on_hand_->show_text(QString::number(e.on_hand));
    held_->setText(held > 0 ? QStringLiteral("%1 to %2").arg(held).arg(whose.join(QStringLiteral(", "))) : QStringLiteral("none"));
    printed_->setText(qt(e.printed));
    until_->setText(e.until.empty() ? QStringLiteral("for good") : qt(e.until));
    place_->show_text(qt(e.place));
    from_->setText(e.from.empty() ? QString() : QStringLiteral("Printed with “%1”.").arg(qt(e.from)));
    spoiled_->setEnabled(e.on_hand >= 1);
    remove_->setEnabled(held == 0);
}

// ---- to buy

BuyDesk::BuyDesk(Workroom& room) : room_(room) {
    table_ = new QTableWidget;
    table_->setObjectName(QStringLiteral("To buy list"));
    table_->setAccessibleName(QStringLiteral("What is to be bought for all open orders"));
    table_->setColumnCount(6);
    table_->setHorizontalHeaderLabels({QStringLiteral("What"), QStringLiteral("Wanted"), QStringLiteral("For spoilage"),
                                       QStringLiteral("On hand"), QStringLiteral("To buy"), QStringLiteral("For")});
    table_->verticalHeader()->hide();
    table_->setShowGrid(false);
    table_->setFrameShape(QFrame::NoFrame);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->horizontalHeader()->setStretchLastSection(true);
    constexpr int name_wide = 180, figure_wide = 70;
    table_->setColumnWidth(0, name_wide);
    for (int c = 1; c < 5; ++c) table_->setColumnWidth(c, figure_wide);
    plain_column(this)->addWidget(table_, 1);
    panel_ = new FigurePanel;
    panel_->head(QStringLiteral("To buy"));
    lacks_ = panel_->title();
    note_ = panel_->note();
    note_->setText(QStringLiteral(
        "What all orders on the desk still want, less what lies there. Blanks with so many more as are usually spoiled, where records "
        "say how many. Only what is counted can be lacking."));
    out_ = push(QStringLiteral("As a table…"), QStringLiteral("CSV, for the supplier's order"), true);
    panel_->add(out_);
    connect(out_, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, QStringLiteral("What to buy"), QStringLiteral("to-buy.csv"), QStringLiteral("CSV (*.csv)"));
        if (!path.isEmpty()) room_.stock().export_to(path, true);
    });
    panel_->fill();
    connect(&room_.stock(), &StockRoom::changed, this, [this] {
        if (isVisible()) refresh();
    });
}

void BuyDesk::refresh() {
    const std::vector<ToBuy>& rows = room_.stock().buying();
    const Unit unit = room_.order().unit;
    table_->setUpdatesEnabled(false);
    table_->setRowCount(int(rows.size()));
    std::size_t lacking = 0;
    for (int r = 0; r < int(rows.size()); ++r) {
        const ToBuy& b = rows[std::size_t(r)];
        StockEntry kind;
        kind.kind = b.kind;
        const auto amount = [&](double n) { return n <= 0 ? QStringLiteral("–") : count_text(kind, n, unit); };
        QStringList orders;
        for (const std::string& o : b.orders) orders << qt(o);
        const QString whose = orders.size() == 1 ? orders.front() : counted(std::size_t(orders.size()), "order");
        const QStringList cells{qt(b.name), amount(b.asked), amount(b.spare), count_text(kind, b.on_hand, unit), amount(b.lacking), whose};
        for (int c = 0; c < cells.size(); ++c) {
            auto* item = new QTableWidgetItem(cells[c]);
            if (c > 0 && c < 5) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (b.lacking > 0 && (c == 4 || c == 0)) {
                QFont font = table_->font();
                font.setBold(true);
                item->setFont(font);
            }
            item->setToolTip(some(orders));
            table_->setItem(r, c, item);
        }
        lacking += b.lacking > 0 ? 1 : 0;
    }
    table_->setUpdatesEnabled(true);
    lacks_->setText(rows.empty()   ? QStringLiteral("Nothing is counted that an order wants")
                    : lacking == 0 ? QStringLiteral("Nothing is lacking")
                                   : QStringLiteral("%1 lacking").arg(counted(lacking, "thing is", "things are")));
    out_->setEnabled(!rows.empty());
}

}  // namespace orthema::app
