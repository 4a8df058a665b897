#include "app/benches/sheets/sheets_bench.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QMenu>
#include <QScrollArea>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/sheets/laying_page.h"
#include "app/benches/sheets/print_page.h"
#include "app/benches/sheets/shelf_page.h"
#include "app/benches/sheets/ribbon.h"
#include "app/benches/sheets/whole_roll.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "app/widgets/fitting_label.h"
#include "core/sheets/lay_out.h"
#include "core/sheets/sheet_drawing.h"
#include "core/order/roster.h"
#include "core/sheets/trimmer_drawing.h"

namespace orthema::app {

/// Every transfer of the medium: its picture, its size, how many of it are placed.
class PieceList : public Canvas {
public:
    explicit PieceList(Workroom& room) : Canvas(room.art()), room_(room) {
        setFocusPolicy(Qt::NoFocus);
        setAccessibleName(tr("Pieces laid out, of those needed"));
    }
    void fit() { setFixedHeight(std::max(1, int(rows().size())) * row_height); }

protected:
    static constexpr int row_height = 40;
    [[nodiscard]] std::vector<const Transfer*> rows() const {
        std::vector<const Transfer*> out;
        for (const Transfer& t : room_.transfer_set().transfers)
            if (t.medium == room_.selection().medium) out.push_back(&t);
        return out;
    }
    Drawing draw(double width, double height) override {
        Drawing d;
        d.rect({0, 0, width, height}, palette::light);
        std::map<std::string, int> placed;
        for (const PlacedCopy& c : copies_of(room_)) ++placed[c.transfer];
        double y = 0;
        for (const Transfer* t : rows()) {
            // on its garment's colour, or white ink would not show
            if (const Decoration* on = find_decoration(room_.order(), t->decoration))
                d.fill({round_rect({0, y + 2, 34, y + 36}, 4)}, cloth_of(room_.order(), *on));
            // shown as it reads on the garment, whatever the medium mirrors
            const Rect box = bounds(t->contour.outer);
            const double j = 30 / std::max(box.width(), box.height());
            const Affine read = t->mirrored ? Affine{-j, 0, 0, j, 17 + j * box.width() / 2, y + 19 - j * box.height() / 2}
                                            : Affine{j, 0, 0, j, 17 - j * box.width() / 2, y + 19 - j * box.height() / 2};
            draw_transfer(d, *t, read, reading_in());
            const Decoration* dec = find_decoration(room_.order(), t->decoration);
            const std::string word = word_in(t->art);
            const QString name = !word.empty() ? qt(word) + QStringLiteral(", ") + qt(dec == nullptr ? "" : dec->name)
                                 : t->piece.empty() && dec != nullptr ? qt(dec->name)
                                                                      : qt(t->name);
            d.text({40, y + 16}, (name.size() > 17 ? name.left(16) + QChar(0x2026) : name).toStdString(), 12.5, palette::ink, Align::left,
                   true);
            d.text({40, y + 31},
                   fitting(length_text(Length::from_mm(t->width), room_.order().unit, false) + " × " +
                               length_text(Length::from_mm(t->height), room_.order().unit) + "  " + label_text(*t),
                           width - 46, 11),
                   11, palette::quiet);
            const bool all = placed[t->id] == t->count();
            d.text({width - 6, y + 16}, std::to_string(placed[t->id]) + spoken(" of ") + std::to_string(t->count()), 12.5,
                   all ? Colour{0.30, 0.42, 0.18, 1} : palette::carmine, Align::right, true);
            d.line({{0, y + row_height - 0.5}, {width - 4, y + row_height - 0.5}}, {palette::rule, 1, {}});
            y += row_height;
        }
        if (rows().empty()) d.text({0, 22}, spoken("No pieces on this medium."), 12, palette::quiet);
        return d;
    }

private:
    Workroom& room_;
};

SheetsBench::SheetsBench(Workroom& room) : Bench(room, QStringLiteral("sheets")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    media_ = new ChipRow(tr("Media"));
    media_->chosen = [this](const std::string& id) {
        room_.settler().stop();
        Selection s = room_.selection();
        s.medium = id;
        room_.select(s);
    };
    column->addWidget(media_);
    auto* head = new QHBoxLayout;
    title_ = new FittingLabel;
    title_->setProperty("head", true);
    about_ = new FittingLabel;
    about_->setProperty("quiet", true);
    piece_ = new FittingLabel;
    piece_->setProperty("quiet", true);
    swap_ = push(tr("Swap"), tr("Two chosen pieces exchange their places (X); Shift and click chooses a second"));
    send_ = push(tr("Send to"), tr("The chosen pieces go to another sheet (Page Down, Page Up)"));
    turn_ = push(tr("Turn"), tr("A quarter turn of the chosen piece (R)"));
    lock_ = push(tr("Lock"), tr("A locked piece stays where it is while the others settle (L)"));
    settle_ = push(tr("Settle"), tr("Lays out every piece that is not locked; better the longer it runs"), true);
    settle_all_ = push(tr("Settle all"), tr("Every medium, one after the other, each for as long as one"));
    connect(settle_all_, &QPushButton::clicked, this, &SheetsBench::settle_all);
    head->addWidget(title_);
    head->addWidget(about_);
    head->addStretch(1);
    head->addWidget(piece_);
    head->addWidget(turn_);
    head->addWidget(lock_);
    head->addWidget(swap_);
    head->addWidget(send_);
    head->addWidget(settle_all_);
    head->addWidget(settle_);
    column->addLayout(head);
    ribbon_ = new Ribbon(room);
    cut_bar_ = new QWidget;
    auto* cuts = new QHBoxLayout(cut_bar_);
    cuts->setContentsMargins(0, 0, 0, 0);
    back_ = push(tr("◂ Cut back"), tr("Takes the last cut back, on screen"));
    next_ = push(tr("Make this cut ▸"), tr("Shows the sheet after it, and the next one"));
    cut_says_ = new QLabel;
    cut_says_->setObjectName(QStringLiteral("Cut says"));
    cuts->addWidget(back_);
    cuts->addWidget(next_);
    cuts->addWidget(cut_says_, 1);
    column->addWidget(cut_bar_);
    connect(back_, &QPushButton::clicked, this, [this] { step_cut(-1); });
    connect(next_, &QPushButton::clicked, this, [this] { step_cut(1); });
    column->addWidget(ribbon_, 1);
    roll_ = new WholeRoll(room, *ribbon_);
    column->addWidget(roll_);
    connect(settle_, &QPushButton::clicked, this, [this] {
        if (room_.settler().running()) {
            room_.settler().stop();
            refresh();
        } else {
            room_.settler().settle(room_.selection().medium, settle_seconds_);
        }
    });
    connect(turn_, &QPushButton::clicked, ribbon_, &Ribbon::turn_chosen);
    connect(lock_, &QPushButton::clicked, ribbon_, &Ribbon::lock_chosen);
    connect(swap_, &QPushButton::clicked, ribbon_, &Ribbon::swap_chosen);
    connect(send_, &QPushButton::clicked, this, &SheetsBench::send_menu);
    connect(ribbon_, &Ribbon::chosen_changed, this, &SheetsBench::show_piece);

    panel_ = new FigurePanel;
    pages_ = new Segments(tr("Figures of"), {tr("Sheets"), tr("Laying"), tr("Stock"), tr("Shelf"), tr("Print")});
    pages_->turn_pages();
    pages_->chosen = [this](int i) { show_page(i); };
    panel_->add(pages_);
    sheet_page_ = panel_->part();
    sheet_page_->head(tr("Pieces laid out, of those needed"));
    pieces_ = new PieceList(room);
    auto* scroll = new QScrollArea;
    scroll->setWidget(pieces_);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setMinimumHeight(120);
    sheet_page_->rows()->addWidget(scroll, 1);
    sheet_page_->rule();
    used_ = sheet_page_->text_row(tr("Film used"));
    density_ = sheet_page_->text_row(tr("Share of it covered"));
    cut_ = sheet_page_->text_row(tr("Cut length"));
    left_ = sheet_page_->text_row(tr("Left on the roll"));
    from_ = sheet_page_->text_row(tr("Printed from"));
    cost_ = sheet_page_->text_row(tr("Cost"));
    each_ = sheet_page_->text_row(tr("Cost a piece"));
    reads_ = sheet_page_->note();
    reads_->setProperty("brick", true);
    sheet_page_->rule();
    keep_ = push(tr("Keep beside"), tr("Puts this layout beside, to compare another with it"));
    change_over_ = push(tr("Swap with kept"), tr("The layout that is beside comes on the table, this one goes beside"));
    sheet_page_->side_by_side({keep_, change_over_});
    kept_ = sheet_page_->note();
    kept_->setObjectName(QStringLiteral("Kept layout"));
    kept_outlines_ = new QCheckBox(tr("Its outlines over this one"));
    kept_outlines_->setObjectName(kept_outlines_->text());
    sheet_page_->add(kept_outlines_);
    connect(kept_outlines_, &QCheckBox::toggled, ribbon_, &Ribbon::show_kept);
    connect(keep_, &QPushButton::clicked, this, [this] {
        MediumLayout layout = layout_of(room_.order(), room_.selection().medium);
        layout.kept = LaidSheets{layout.copies, layout.stock};
        room_.edit(tr("keep a layout beside"), with_layout(room_.order(), std::move(layout)));
    });
    connect(change_over_, &QPushButton::clicked, this, [this] {
        MediumLayout layout = layout_of(room_.order(), room_.selection().medium);
        if (!layout.kept) return;
        room_.settler().stop();
        std::swap(layout.copies, layout.kept->copies);
        std::swap(layout.stock, layout.kept->stock);
        room_.edit(tr("change layouts over"), with_layout(room_.order(), std::move(layout)));
    });
    sheet_page_->rule();
    seconds_ = sheet_page_->number_row(tr("Settle for (s)"), tr("How long the layout is bettered; Stop ends it earlier"), 0.2, 3600, 1);
    seconds_->show_number(settle_seconds_);
    seconds_->entered = [this](double v) { settle_seconds_ = v; };
    laying_ = new LayingPage(room);
    stock_ = new StockPage(room);
    stock_->sheet = [this] { return sheet_in_view(); };
    shelf_ = new ShelfPage(room);
    print_ = new PrintPage(room);
    for (FigurePanel* page : {static_cast<FigurePanel*>(laying_), static_cast<FigurePanel*>(stock_), static_cast<FigurePanel*>(shelf_),
                              static_cast<FigurePanel*>(print_)})
        panel_->rows()->addWidget(page, 1);
    show_page(0);
}

void SheetsBench::show_page(int page) {
    page_ = page;
    pages_->show_choice(page);
    FigurePanel* const all[] = {sheet_page_, laying_, stock_, shelf_, print_};
    for (int i = 0; i < 5; ++i) all[i]->setVisible(i == page);
    refresh_page();
}

/// The page beside the ribbon that is seen; the sheets' own figures are shown with the bench.
void SheetsBench::refresh_page() {
    if (page_ == 1) laying_->refresh();
    if (page_ == 2) stock_->refresh();
    if (page_ == 3) shelf_->refresh();
    if (page_ == 4) print_->refresh();
}

int SheetsBench::sheet_in_view() const {
    const auto& copies = copies_of(room_);
    if (const int i = ribbon_->chosen(); i >= 0 && i < int(copies.size())) return copies[std::size_t(i)].sheet;
    const RibbonSheets all = ribbon_sheets(room_);
    for (std::size_t i = 0; i < all.starts.size(); ++i)
        if (all.starts[i] + all.lengths[i] > ribbon_->first_mm() + 1) return int(i);
    return 0;
}

void SheetsBench::send_menu() {
    QMenu menu;
    const int sheets = sheet_count(copies_of(room_));
    for (int i = 0; i <= sheets; ++i) {
        QAction* a = menu.addAction(i < sheets ? tr("sheet %1").arg(i + 1) : tr("a fresh sheet"));
        connect(a, &QAction::triggered, this, [this, i] { ribbon_->send_chosen(i); });
    }
    menu.exec(send_->mapToGlobal(QPoint(0, send_->height())));
}

/// The replay of the trimmer's cuts: one sheet after the other.
void SheetsBench::step_cut(int by) {
    const int sheets = sheet_count(copies_of(room_));
    const auto plan = cuts_of_sheet(room_, cut_sheet_);
    const int cuts = plan ? int(plan->cuts.size()) : 0;
    cut_at_ += by;
    if (cut_at_ > cuts && cut_sheet_ + 1 < sheets) {
        ++cut_sheet_;
        cut_at_ = 0;
    } else if (cut_at_ < 0 && cut_sheet_ > 0) {
        --cut_sheet_;
        const auto before = cuts_of_sheet(room_, cut_sheet_);
        cut_at_ = before ? int(before->cuts.size()) : 0;
    }
    cut_at_ = std::clamp(cut_at_, 0, std::max(cuts, cut_at_));
    show_cuts();
}

void SheetsBench::show_cuts() {
    const Medium* m = medium_of(room_);
    const bool on = m != nullptr && m->laying.cutting == Cutting::trimmer && !copies_of(room_).empty();
    cut_bar_->setVisible(on);
    if (!on) return ribbon_->show_cut(-1, 0, {});
    const auto plan = cuts_of_sheet(room_, cut_sheet_);
    if (!plan) {
        cut_sheet_ = cut_at_ = 0;
        cut_says_->setText(refusal(plan.error()));
        return ribbon_->show_cut(-1, 0, {});
    }
    const int cuts = int(plan->cuts.size());
    cut_at_ = std::clamp(cut_at_, 0, cuts);
    back_->setEnabled(cut_at_ > 0 || cut_sheet_ > 0);
    QString text = tr("Sheet %1, ").arg(cut_sheet_ + 1);
    if (cut_at_ < cuts) {
        const TrimCut& c = plan->cuts[std::size_t(cut_at_)];
        text += tr("cut %1 of %2: blade %3, fence at %4")
                    .arg(cut_at_ + 1)
                    .arg(cuts)
                    .arg(qt(cut_direction(c, room_.order().unit)), qt(length_text(Length::from_mm(c.fence), room_.order().unit)));
    } else {
        text += tr("all %1 cuts made").arg(cuts);
    }
    cut_says_->setText(text);
    ribbon_->show_cut(cut_sheet_, cut_at_, *plan);
}

void SheetsBench::show_compared() {
    const Medium* m = medium_of(room_);
    const MediumLayout layout = layout_of(room_.order(), room_.selection().medium);
    keep_->setEnabled(!layout.copies.empty());
    change_over_->setEnabled(layout.kept.has_value());
    kept_outlines_->setVisible(layout.kept.has_value());
    kept_->setVisible(layout.kept.has_value());
    if (!layout.kept || m == nullptr) return;
    const LaidOut kept = measured(*m, room_.transfer_set(), *layout.kept);
    kept_->setText(tr("Beside: %1 %2, %3 % covered, costs %4")
                       .arg(kept.bins)
                       .arg(kept.bins == 1 ? tr("sheet") : tr("sheets"))
                       .arg(fixed(100 * kept.density, 1))
                       .arg(qt(money_text(kept.cost, room_.order().currency, reading_in()))));
}

QWidget* SheetsBench::figures() { return panel_; }
QWidget* SheetsBench::first_focus() { return ribbon_; }

void SheetsBench::show_piece() {
    const auto& copies = copies_of(room_);
    const int i = ribbon_->chosen();
    const bool any = i >= 0 && i < int(copies.size());
    const std::size_t count = ribbon_->all_chosen().size();
    turn_->setEnabled(any);
    lock_->setEnabled(any);
    send_->setEnabled(any);
    swap_->setEnabled(count == 2);
    lock_->setText(any && copies[std::size_t(i)].locked ? tr("Unlock") : tr("Lock"));
    const Transfer* t = any ? find_transfer(room_.transfer_set(), copies[std::size_t(i)].transfer) : nullptr;
    QString text = count > 1 ? tr("%1 pieces").arg(count) : t != nullptr ? qt(t->name) + tr(", for ") + qt(label_text(*t)) : QString();
    piece_->setToolTip(text);
    piece_->say(text.size() > 34 ? text.left(33) + QChar(0x2026) : text);
}

void SheetsBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    std::vector<Chip> chips;
    for (const Medium& m : order.media) {
        int pieces = 0;
        for (const Transfer& t : room_.transfer_set().transfers)
            if (t.medium == m.id) pieces += t.count();
        if (pieces == 0 && m.id != s.medium) continue;
        chips.push_back({m.id,
                         qt(m.name),
                         counted(std::size_t(pieces), "piece"),
                         standing_where([&](const Subject& about) { return about.medium == m.id; }),
                         {}});
    }
    media_->show_chips(chips, s.medium);
    media_->setVisible(chips.size() > 1);
    const Medium* m = find_medium(order, s.medium);
    if (m == nullptr) return;
    title_->say(qt(m->name) + ", " + qt(length_text(m->width, order.unit)));
    const MediumPlan* plan = plan_of(room_);
    about_->say((m->laying.cutting == Cutting::trimmer    ? tr("cut by trimmer")
                 : m->laying.cutting == Cutting::on_sheet ? tr("blanks on the sheet")
                                                          : tr("cut by contour")) +
                (plan != nullptr && plan->mixed ? tr("; groups lie mixed, settle to part them") : QString()));
    const bool laid = plan != nullptr && plan->placed > 0 && !plan->stale && !plan->mixed;
    settle_->setText(room_.settler().running() ? tr("Stop") : laid ? tr("Settle more") : tr("Settle"));
    settle_->setEnabled(room_.settler().running() || (plan != nullptr && plan->asked > 0 && !room_.catching_up()));
    settle_all_->setVisible(chips.size() > 1 && !room_.settler().running());
    settle_all_->setEnabled(!room_.catching_up());
    ribbon_->refresh_pieces();
    if (!ribbon_->dragging()) {  // in small, a piece under way is not worth a frame
        roll_->refresh();
        pieces_->fit();
        pieces_->refresh();
    }
    show_piece();
    show_cuts();
    show_compared();
    refresh_page();
    for (QLabel* l : {used_, density_, cut_, left_, from_, cost_, each_}) l->setText(QStringLiteral("–"));
    if (plan != nullptr && plan->placed > 0) {
        double cut = 0, last = 0;
        for (const Sheet& sheet : plan->sheets) {
            cut += sheet.cut_length;
            last = sheet.length;
        }
        const bool roll = m->shape == MediumShape::roll;
        used_->setText(roll ? film_text(plan->length, order.unit) : tr("%1 sheets").arg(plan->sheets.size()));
        density_->setText(QStringLiteral("%1 %").arg(fixed(100 * plan->density, 1)));
        cut_->setText(order.unit == Unit::mm ? QStringLiteral("%1 m").arg(fixed(cut / 1000, 1)) : tr("%1 ft").arg(fixed(cut / 304.8, 1)));
        // of rolls that are counted what the runs leave; else of the longest run
        double left = m->length.mm() - last;
        const Stock& stock = room_.stock().stock();
        QStringList from;
        if (roll && counts_rolls(stock, m->id)) {
            left = 0;
            for (const RollLeft& r : rolls_of(stock, m->id)) left += r.left;
            for (const Sheet& run : plan->sheets) {
                left -= run.length + m->laying.waste.mm();
                if (const StockEntry* e = find_entry(stock, run.stock);
                    e != nullptr && e->kind == StockKind::roll && !from.contains(qt(e->name)))
                    from << qt(e->name);
            }
        }
        left_->setText(roll ? film_text(std::max(0.0, left), order.unit) : QStringLiteral("–"));
        from_->setText(from.isEmpty() ? QString() : from.join(QStringLiteral(", ")));
        cost_->setText(qt(money_text(plan->cost, order.currency, reading_in())));
        each_->setText(qt(money_text(plan->cost / std::max(1, plan->placed), order.currency, reading_in())));
    }
    reads_->setText((program_mirrors(*m) ? QStringLiteral("← ") : QStringLiteral("→ ")) + said(reading_direction(*m)));
}

QString SheetsBench::word() const {
    if (room_.settler().running()) return tr("settling");
    if (room_.catching_up()) return tr("working");
    const auto& media = room_.sheets().media;
    if (media.empty()) return tr("no pieces");
    for (const MediumPlan& m : media)
        if (m.stale || m.placed < m.asked) return m.placed == 0 ? tr("to settle") : tr("stale");
    return media.size() == 1 ? tr("1 medium") : tr("%1 media").arg(media.size());
}

void SheetsBench::settle_all() { room_.settler().settle_all(settle_seconds_); }

QString SheetsBench::help() const {
    return tr(
        "Sheets: settle the pieces on the film; a layout comes at once and betters while it runs. Drag a piece, R turns it, L locks it; "
        "Shift and click chooses more, X swaps two, Page Down sends to the next sheet. Wheel scrolls, Ctrl and wheel zooms, F goes to what "
        "is "
        "chosen, 0 back to the whole width. How pieces are parted, and stock, are beside.");
}

}  // namespace orthema::app
