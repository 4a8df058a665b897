// The Blanks bench's page of a style: its name, run, material, colours, and what is special about it.
#include <QCheckBox>
#include <QFileDialog>
#include <QMenu>
#include <QRegularExpression>

#include <functional>

#include "app/widgets/speech.h"
#include "app/benches/blanks/blank_pages.h"
#include "app/benches/blanks/blanks_bench.h"
#include "app/session/workroom.h"
#include "core/order/edit.h"
#include "files/chart_csv.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

/// A name and a field that takes the rest of the row.
ValueField* wide_row(FigurePanel* page, const QString& name, const QString& why) {
    page->head(name);
    auto* f = new ValueField(name);
    f->setToolTip(why);
    f->read_from_left();
    page->add(f);
    return f;
}

std::vector<std::string> words_of(const QString& text, const QString& parting) {
    std::vector<std::string> out;
    for (const QString& w : text.split(QRegularExpression(parting), Qt::SkipEmptyParts)) out.push_back(w.trimmed().toStdString());
    std::erase(out, std::string());
    return out;
}

QString joined(const std::vector<std::string>& words, const char* with) {
    QStringList out;
    for (const std::string& w : words) out << qt(w);
    return out.join(QString::fromLatin1(with));
}

/// The style in view, changed and kept; false where there is none, or it is refused.
bool change(BlanksBench& bench, const QString& what, const std::function<void(BlankStyle&)>& how) {
    if (bench.style() == nullptr) return false;
    BlankStyle next = *bench.style();
    how(next);
    return bench.keep(what, next);
}

}  // namespace

StylePage::StylePage(BlanksBench& bench, Workroom& room) : bench_(bench), room_(room) {
    bare();
    name_ = wide_row(this, tr("Name of the blank"), tr("As the order and the guides name it"));
    name_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (t.trimmed().isEmpty() || t.size() > 80) return tr("Give the blank a name of up to 80 letters.");
        change(bench_, tr("name of a blank"), [&](BlankStyle& s) { s.name = t.trimmed().toStdString(); });
        return std::nullopt;
    };
    sizes_ = wide_row(this, tr("Size run"), tr("Smallest first, with commas between: S, M, L, XL. New sizes continue the run."));
    sizes_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (bench_.style() == nullptr) return std::nullopt;
        std::vector<std::string> sizes = words_of(t, QStringLiteral("[,;]"));
        if (sizes.size() == 1 && !t.contains(',')) sizes = words_of(t, QStringLiteral("\\s+"));
        if (sizes.empty() || sizes.size() > 60) return tr("Type between 1 and 60 sizes, with commas between.");
        for (std::size_t i = 0; i < sizes.size(); ++i) {
            if (sizes[i].size() > 20) return tr("A size's name has up to 20 letters.");
            if (std::find(sizes.begin(), sizes.begin() + long(i), sizes[i]) != sizes.begin() + long(i))
                return tr("“%1” stands twice.").arg(qt(sizes[i]));
        }
        bench_.keep(tr("size run"), with_sizes(*bench_.style(), sizes));
        return std::nullopt;
    };
    fabric_ = wide_row(this, tr("Fabric or material"), tr("What it is made of"));
    fabric_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (t.size() > 200) return std::nullopt;
        change(bench_, tr("fabric"), [&](BlankStyle& s) { s.fabric = t.trimmed().toStdString(); });
        return std::nullopt;
    };
    batch_ = field_row(tr("Batch"), tr("Of those in use, as their box says: what is measured and pressed is kept by it"));
    batch_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (t.size() > 80) return tr("Up to 80 letters.");
        change(bench_, tr("batch"), [&](BlankStyle& s) { s.batch = t.trimmed().toStdString(); });
        return std::nullopt;
    };
    price_ = number_row(tr("Price of one"), tr("What a spoiled one costs; 0 where it is the customer's"), 0, 1e5, 2);
    price_->entered = [this](double v) { change(bench_, tr("price of a blank"), [v](BlankStyle& s) { s.price = v; }); };
    colours_ = wide_row(this, tr("Colours"), tr("A name and its colour: ash #d8d4ca, navy #2a3550"));
    colours_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (bench_.style() == nullptr) return std::nullopt;
        BlankStyle next = *bench_.style();
        next.colours.clear();
        for (const std::string& w : words_of(t, QStringLiteral(","))) {
            const QString one = qt(w);
            const QString name = one.section('#', 0, 0).trimmed();
            const QColor c(one.contains('#') ? "#" + one.section('#', 1).trimmed() : name);
            if (name.isEmpty() || !c.isValid()) return tr("“%1” is not a name with a colour like #d8d4ca.").arg(one);
            next.colours.push_back({name.toStdString(), {c.red() / 255.0, c.green() / 255.0, c.blue() / 255.0, 1}});
        }
        bench_.keep(tr("colours"), next);
        return std::nullopt;
    };
    tags_ = wide_row(this, tr("Tags"), tr("Words to find it by, with commas between"));
    tags_->take = [this](const QString& t, bool) -> std::optional<QString> {
        if (bench_.style() == nullptr) return std::nullopt;
        BlankStyle next = *bench_.style();
        next.tags = words_of(t, QStringLiteral("[,;]"));
        if (next.tags.size() > 40) return tr("Up to 40 tags.");
        bench_.keep(tr("tags"), next);
        return std::nullopt;
    };
    tolerance_ = length_row(tr("May differ by"), tr("A taped figure further from the published one is a finding"));
    tolerance_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 200) return tr("Between 0 and 200 mm.");
        change(bench_, tr("tolerance"), [l](BlankStyle& s) { s.tolerance = l; });
        return std::nullopt;
    };
    shrinks_ =
        tick(tr("Shrinks in the heat"), tr("A piece is pressed bare before it is measured, and every piece before it is printed on"));
    connect(shrinks_, &QCheckBox::clicked, this,
            [this](bool on) { change(bench_, tr("shrinking"), [on](BlankStyle& s) { s.shrinks = on; }); });
    other_side_ = tick({}, tr("For those that are made the other way round"));
    connect(other_side_, &QCheckBox::clicked, this,
            [this](bool on) { change(bench_, tr("the other side"), [on](BlankStyle& s) { s.other_side = on; }); });
    rule();
    auto* copy = push(tr("Duplicate"), tr("A style of its own with the same figures and features"));
    archive_ = push(tr("Archive"), tr("Keeps it, but no longer offers it"));
    side_by_side({copy, archive_});
    connect(copy, &QPushButton::clicked, this, [this] {
        const BlankStyle* style = bench_.style();
        if (style == nullptr) return;
        BlankStyle next = *style;
        next.name += spoken(" copy");
        next.id = fresh_id(next.name, room_.order().styles);
        if (bench_.keep(tr("duplicate a blank"), next)) bench_.choose_style(next.id);
    });
    connect(archive_, &QPushButton::clicked, this, [this] {
        if (bench_.style() == nullptr) return;
        BlankStyle next = *bench_.style();
        next.archived = !next.archived;
        if (bench_.keep(next.archived ? tr("archive a blank") : tr("offer a blank again"), next)) room_.library().keep(next);
    });
    auto* chart = push(tr("Size chart"), tr("Bring in or write the size chart as CSV"));
    auto* chart_menu = new QMenu(chart);
    chart_menu->addAction(tr("Bring in a size chart…"), this, &StylePage::bring_in_chart);
    chart_menu->addAction(tr("Write the size chart…"), this, [this] {
        const BlankStyle* style = bench_.style();
        if (style == nullptr) return;
        const QString p = QFileDialog::getSaveFileName(this, tr("Write the size chart"), qt(style->id) + QStringLiteral("-chart.csv"),
                                                       tr("Table (*.csv)"));
        if (p.isEmpty()) return;
        const auto done = write_file(p.toStdString(), chart_csv(*style));
        room_.notices().tell(done, tr("The size chart is written to %1.").arg(p));
    });
    chart->setMenu(chart_menu);
    auto* shop = push(tr("Shop library"), tr("Keep this blank for later orders, or exchange the library as JSON"));
    auto* menu = new QMenu(shop);
    menu->addAction(tr("Keep this blank in the library"), this, [this] {
        if (bench_.style() != nullptr) room_.library().keep(*bench_.style());
    });
    menu->addAction(tr("Write the library to a file…"), this, [this] {
        const QString p =
            QFileDialog::getSaveFileName(this, tr("Write the library"), QStringLiteral("shop-library.json"), tr("Library (*.json)"));
        if (!p.isEmpty()) room_.library().export_to(p);
    });
    menu->addAction(tr("Bring in a library file…"), this, [this] {
        const QString p = QFileDialog::getOpenFileName(this, tr("Bring in a library"), {}, tr("Library (*.json)"));
        if (!p.isEmpty()) room_.library().import_from(p);
    });
    shop->setMenu(menu);
    side_by_side({chart, shop});
    says_ = note();
}

void StylePage::bring_in_chart() {
    const BlankStyle* style = bench_.style();
    if (style == nullptr) return;
    const QString p = QFileDialog::getOpenFileName(this, tr("Bring in a size chart"), {}, tr("Tables (*.csv *.tsv *.txt);;All files (*)"));
    if (!p.isEmpty()) bench_.bring_in_chart(p);
}

void StylePage::refresh() {
    const BlankStyle* style = bench_.style();
    if (style == nullptr) return;
    name_->show_text(qt(style->name));
    sizes_->show_text(joined(style->sizes, ", "));
    fabric_->show_text(qt(style->fabric));
    batch_->show_text(qt(style->batch));
    price_->show_number(style->price);
    tags_->show_text(joined(style->tags, ", "));
    QStringList colours;
    for (const BlankColour& c : style->colours)
        colours << qt(c.name) + " " + QColor::fromRgbF(float(c.ink.r), float(c.ink.g), float(c.ink.b)).name();
    colours_->show_text(colours.join(", "));
    colours_->setCursorPosition(0);
    tolerance_->show_length(style->tolerance, room_.order().unit);
    shrinks_->setVisible(!is_hard(style->family));
    shrinks_->setChecked(style->shrinks);
    const bool hoist = style->family == Family::flag || style->family == Family::pennant;
    other_side_->setVisible(has_sides(style->family));
    other_side_->setText(hoist                          ? tr("Hoist on the other side")
                         : style->family == Family::tag ? tr("Hole at the other end")
                                                        : tr("Notch at the other edge"));
    other_side_->setAccessibleName(other_side_->text());
    other_side_->setObjectName(QStringLiteral("On the other side"));
    other_side_->setChecked(style->other_side);
    archive_->setText(style->archived ? tr("Offer again") : tr("Archive"));
    says_->setText(tr("Family: %1").arg(said(family_name(style->family))));
}

}  // namespace orthema::app
