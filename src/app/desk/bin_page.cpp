#include "app/desk/bin_page.h"

#include <QLabel>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"

namespace orthema::app {

namespace {

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
    return e.kind == StockKind::roll ? tr("A length: 7.5 are metres; 24 ft and 800 mm are understood too.")
                                     : tr("A whole number of 0 or more.");
}

}  // namespace

QString count_text(const StockEntry& e, double n, Reading reading) {
    if (e.kind == StockKind::roll) return film_text(n, reading);
    if (e.kind == StockKind::supply) return fixed(n, n < 100 ? 1 : 0) + QLatin1Char(' ') + qt(e.unit);
    return QString::number(std::lround(n));
}

QString some(const QStringList& names) {
    constexpr int most = 5;
    if (names.size() <= most) return names.join(QStringLiteral(", "));
    return tr("%1 and %2 more").arg(names.mid(0, most).join(QStringLiteral(", "))).arg(names.size() - most);
}

BinPage::BinPage(Workroom& room, const QString& name, const QString& empty_words, const QString& head) : room_(room) {
    wall_ = new BinWall(name, empty_words);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(wall_, 1);
    panel_ = new FigurePanel;
    one_ = panel_->part();
    one_->head(head);
    title_ = one_->title();
    title_->setWordWrap(true);
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

void BinPage::add_on_hand(const QString& why) {
    on_hand_ = one_->field_row(tr("On hand"), why);
    on_hand_->take = [this](const QString& text, bool) -> std::optional<QString> {
        const Bin* now = wall_->current();
        return now == nullptr ? std::nullopt : count(*now, text);
    };
}

void BinPage::add_place(const QString& why) { place_ = text_field(one_, tr("Lies"), why, &StockEntry::place); }

void BinPage::add_deeds(const QString& remove, const QString& why) {
    spoiled_ = push(tr("One is spoiled"), tr("It is taken out, and counted as spoiled"));
    remove_ = push(remove, why);
    one_->side_by_side({spoiled_, remove_});
    connect(spoiled_, &QPushButton::clicked, this, [this] {
        if (const Bin* now = wall_->current(); now != nullptr && now->count >= 1) room_.stock().spoil(now->entry.id, 1);
    });
    connect(remove_, &QPushButton::clicked, this, [this] {
        if (const Bin* now = wall_->current()) room_.stock().remove(now->entry.id);
    });
}

ValueField* BinPage::text_field(FigurePanel* on, const QString& name, const QString& why, std::string StockEntry::*part) {
    constexpr int wide = 150;
    ValueField* field = on->field_row(name, why);
    field->read_from_left(wide);
    field->take = [this, part](const QString& text, bool) -> std::optional<QString> {
        if (text.size() > 80) return tr("Up to 80 letters.");
        const std::string t = text.trimmed().toStdString();
        if (part != &StockEntry::name || !t.empty()) change([t, part](StockEntry& e) { e.*part = t; });
        return std::nullopt;
    };
    return field;
}

void BinPage::change(const std::function<void(StockEntry&)>& how) {
    const Bin* now = wall_->current();
    if (now != nullptr && now->count >= 0) room_.stock().change(now->entry.id, how);
}

std::optional<QString> BinPage::count(const Bin& bin, const QString& text) {
    const auto n = count_from(bin.entry, text);
    if (!n) return refused_count(bin.entry);
    room_.stock().count({{bin.entry, *n}});
    return std::nullopt;
}

}  // namespace orthema::app
