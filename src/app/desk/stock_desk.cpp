#include "app/desk/stock_desk.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/blanks/cloth_colours.h"

namespace orthema::app {

StockDesk::StockDesk(Workroom& room)
    : BinPage(room, tr("Bins"),
              tr("Nothing is counted yet. Choose a blank on the right and type on its sizes how many lie "
                 "there; count the rolls in by their metres. What the orders want is then known at once."),
              tr("In the bin")) {
    add_on_hand(tr("As it was counted; of a roll the metres that are left, half a roll too"));
    add_place(tr("Where it is found: a shelf, a box"));
    names_ = one_->part();
    name_ = text_field(names_, tr("Called"), tr("A roll's or jar's own name"), &StockEntry::name);
    code_ = text_field(one_, tr("Code"), tr("What a scanner reads on its box"), &StockEntry::code);
    supply_ = one_->part();
    uses_ = supply_->field_row(tr("A dm² of ink takes"), tr("By the supplier's sheet, or what was used over some metres"));
    uses_->take = [this](const QString& text, bool) -> std::optional<QString> {
        bool fine = false;
        const double n = QString(text).replace(',', '.').toDouble(&fine);
        if (!fine || !(n >= 0) || n > 1000) return tr("A number of 0 or more.");
        change([n](StockEntry& e) { e.per_dm2 = n; });
        return std::nullopt;
    };
    wanted_ = one_->note();
    spoiled_says_ = one_->note();
    add_deeds(tr("Do not count"), tr("Its counts go; what is not counted is never lacking"));
    panel_->rule();
    panel_->head(tr("Count in"));
    style_ = panel_->choice_row(tr("Blank"), tr("Of the shop's library"));
    colour_ = panel_->choice_row(tr("Colour"), tr("Its run is laid out on the left, to type on"));
    auto* lay = push(tr("Lay its run out"), tr("Then type how many on each size"));
    panel_->add(lay);
    connect(style_, &QComboBox::activated, this, [this] { refresh(); });
    connect(lay, &QPushButton::clicked, this, [this] {
        const std::pair run{chosen_id(style_), chosen_id(colour_)};
        if (run.first.empty() || run.second.empty()) return;
        if (std::find(shown_.begin(), shown_.end(), run) == shown_.end()) shown_.push_back(run);
        refresh();
        for (const BlankStyle& s : room_.library().content().styles)
            if (s.id == run.first && !s.sizes.empty()) wall_->choose(blanks_id(s.id, run.second, s.sizes.front()));
        wall_->setFocus();
    });
    medium_ = panel_->choice_row(tr("Film"), tr("What the new roll, powder or ink is for"));
    auto* roll = push(tr("A new roll"), tr("Then type how many metres are on it"));
    auto* jar = push(tr("Powder or ink"), tr("Used up by the area of ink that is printed"));
    panel_->side_by_side({roll, jar});
    connect(roll, &QPushButton::clicked, this, &StockDesk::new_roll);
    connect(jar, &QPushButton::clicked, this, &StockDesk::new_supply);
    auto* in = push(tr("From a table…"), tr("CSV: blank, colour, size and count, as a delivery note has it"));
    auto* out = push(tr("As a table…"), tr("All of it as CSV, to count with on paper or elsewhere"));
    panel_->side_by_side({in, out});
    connect(in, &QPushButton::clicked, this, [this] {
        const QString path =
            QFileDialog::getOpenFileName(this, tr("Count in from a table"), {}, tr("Tables (*.csv *.tsv *.txt);;All files (*)"));
        if (!path.isEmpty()) room_.stock().count_in_from(path);
    });
    connect(out, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getSaveFileName(this, tr("Stock as a table"), QStringLiteral("stock.csv"), tr("CSV (*.csv)"));
        if (!path.isEmpty()) room_.stock().export_to(path, false);
    });
    note_ = panel_->note();
    panel_->fill();
}

/// With none of it yet: the next figure that is typed says how many.
void StockDesk::begin_counting(const StockEntry& e) {
    room_.stock().count({{e, 0}});
    room_.stock().then([this, made = e.id] {
        refresh();
        wall_->choose(made);
        wall_->setFocus();
    });
}

void StockDesk::new_roll() {
    const std::string id = chosen_id(medium_);
    for (const Medium& m : room_.library().content().media) {
        if (m.id != id || m.shape != MediumShape::roll) continue;
        StockEntry e;
        e.kind = StockKind::roll;
        e.medium = m.id;
        for (int k = 1; k < 10000; ++k) {
            e.id = "roll/" + m.id + "/" + std::to_string(k);
            e.name = spoken("Roll ") + std::to_string(k);
            if (find_entry(room_.stock().stock(), e.id) == nullptr) break;
        }
        return begin_counting(e);
    }
    room_.say({tr("Choose a film that comes on rolls."), true, {}, {}});
}

void StockDesk::new_supply() {
    const std::string id = chosen_id(medium_);
    const Method* method = nullptr;
    for (const Medium& m : room_.library().content().media)
        for (const Method& known : room_.library().content().methods)
            if (m.id == id && known.id == m.method) method = &known;
    if (method == nullptr || method->ink_cost <= 0) return room_.say({tr("Nothing is printed on that medium."), true, {}, {}});
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
    e.name = powder ? spoken("Powder") : spoken("Ink");
    e.unit = powder ? "g" : "ml";
    e.per_dm2 = powder ? powder_g : ink_ml;
    begin_counting(e);
}

void StockDesk::note_wanted(Bin& bin) const {
    if (const auto w = wanted_of_.find(bin.entry.id); w != wanted_of_.end()) bin.wanted = w->second;
    if (const auto l = lacking_of_.find(bin.entry.id); l != lacking_of_.end()) bin.lacking = l->second;
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
        bin.tint = told_colour(style, colour).value_or(palette::rule);
        note_wanted(bin);
        asked += bin.wanted;
        most = std::max({most, bin.count, bin.wanted});
        row.bins.push_back(std::move(bin));
    }
    for (Bin& b : row.bins) b.full = most;
    row.beside = asked > 0 ? tr("%1 on hand, %2 wanted").arg(all).arg(asked) : tr("%1 on hand").arg(all);
    return row;
}

std::vector<BinRow> StockDesk::rows() const {
    const Stock& stock = room_.stock().stock();
    const LibraryContent& shop = room_.library().content();
    const Reading reading = room_.order().unit;
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
                note_wanted(bin);
            } else {
                left += e.on_hand;
                if (e.on_hand < 500) bin.note = tr("nearly used up");
            }
            most = std::max({most, bin.count, bin.wanted});
            row.bins.push_back(std::move(bin));
        }
        if (row.bins.empty()) continue;
        for (Bin& b : row.bins) b.full = most;
        if (m.shape == MediumShape::roll) {
            const auto w = wanted_of_.find(film_id(m.id));
            row.beside = film_text(left, reading) + tr(" left");
            if (w != wanted_of_.end() && w->second > 0)
                row.beside += tr(", %1 wanted").arg(film_text(w->second, reading)) +
                              (w->second > left ? tr(": %1 short").arg(film_text(w->second - left, reading)) : QString());
        }
        out.push_back(std::move(row));
    }
    BinRow jars;
    jars.title = tr("Powder and ink");
    for (const StockEntry& e : stock.entries) {
        if (e.kind != StockKind::supply) continue;
        Bin bin;
        bin.entry = e;
        bin.name = qt(e.name);
        bin.count = e.on_hand;
        note_wanted(bin);
        bin.full = std::max({1.0, bin.count, bin.wanted});
        bin.tint = e.id.ends_with("/ink") ? Colour{0.30, 0.36, 0.48, 1} : Colour{0.93, 0.92, 0.88, 1};
        jars.bins.push_back(std::move(bin));
    }
    if (!jars.bins.empty()) out.push_back(std::move(jars));
    for (BinRow& row : out)
        for (Bin& b : row.bins) {
            b.figure = b.count < 0 ? QString() : count_text(b.entry, b.count, reading);
            if (b.lacking > 1e-6) {
                b.note = tr("%1 lacking").arg(count_text(b.entry, std::ceil(b.lacking - 1e-6), reading));
                b.bad = true;
            } else if (b.wanted > 0) {
                b.note = tr("%1 wanted").arg(count_text(b.entry, b.wanted, reading));
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
    for (const OpenOrder* o : standing_alone(room_.stock().shop().open))
        for (const Want& w : o->wants) {
            if (w.kind != StockKind::blanks || counted_items.contains(w.item)) continue;
            wanted_of_[w.item] += w.amount;
            if (!wanted_by_[w.item].contains(qt(o->name))) wanted_by_[w.item] << qt(o->name);
            if (const auto at = runs.find(w.item); at != runs.end()) uncounted_.insert(at->second);
        }
    std::vector<std::pair<std::string, QString>> styles, colours, media;
    for (const BlankStyle& s : shop.styles)
        if (!s.archived) styles.emplace_back(s.id, qt(s.name));
    for (const Medium& m : shop.media) media.emplace_back(m.id, qt(m.name));
    set_items(style_, styles);
    for (const BlankStyle& s : shop.styles)
        if (s.id == chosen_id(style_))
            for (const BlankColour& c : s.colours) colours.emplace_back(c.name, qt(c.name));
    set_items(colour_, colours);
    set_items(medium_, media);
    wall_->show_rows(rows());
    double spoiled = 0;
    for (const StockEntry& e : room_.stock().stock().entries) spoiled += e.kind == StockKind::blanks ? e.spoiled : 0;
    note_->setText(spoiled > 0 ? tr("%1 spoiled so far.").arg(counted(std::size_t(spoiled), "blank")) : QString());
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
    wanted_->setText(by == wanted_by_.end() ? QString() : tr("Wanted by %1.").arg(some(by->second)));
    wanted_->setVisible(by != wanted_by_.end());
    spoiled_says_->setText(e.spoiled > 0 ? tr("%1 of them spoiled so far.").arg(e.spoiled) : QString());
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

}  // namespace orthema::app
