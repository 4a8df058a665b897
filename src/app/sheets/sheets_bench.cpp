#include "app/sheets/sheets_bench.h"

#include <QHBoxLayout>
#include <QScrollArea>

#include <cmath>

#include "app/sheets/ribbon.h"
#include "app/sheets/whole_roll.h"
#include "app/shell/chips.h"
#include "app/shell/figures.h"
#include "core/nesting/sheet_drawing.h"

namespace orthema::app {

/// Every transfer of the medium: its picture, its size, how many of it are placed.
class PieceList : public Canvas {
public:
    explicit PieceList(Workroom& room) : Canvas(room.art()), room_(room) {
        setFocusPolicy(Qt::NoFocus);
        setAccessibleName(QStringLiteral("Pieces, placed of asked"));
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
                d.fill({round_rect({0, y + 2, 34, y + 36}, 4)}, run_colour(room_.order(), on->run));
            // shown as it reads on the garment, whatever the medium mirrors
            const Rect box = bounds(t->contour.outer);
            const double j = 30 / std::max(box.width(), box.height());
            const Affine read = t->mirrored ? Affine{-j, 0, 0, j, 17 + j * box.width() / 2, y + 19 - j * box.height() / 2}
                                            : Affine{j, 0, 0, j, 17 - j * box.width() / 2, y + 19 - j * box.height() / 2};
            draw_transfer(d, *t, read);
            const Decoration* dec = find_decoration(room_.order(), t->decoration);
            const QString name = t->piece.empty() && dec != nullptr ? qt(dec->name) : qt(t->name);
            d.text({40, y + 16}, (name.size() > 17 ? name.left(16) + QChar(0x2026) : name).toStdString(), 12.5, palette::ink, Align::left,
                   true);
            d.text({40, y + 31},
                   length_text(Length::from_mm(t->width), room_.order().unit, false) + " × " +
                       length_text(Length::from_mm(t->height), room_.order().unit) + "  " + t->sizes,
                   11, palette::quiet);
            const bool all = placed[t->id] == t->count();
            d.text({width - 6, y + 16}, std::to_string(placed[t->id]) + " of " + std::to_string(t->count()), 12.5,
                   all ? Colour{0.30, 0.42, 0.18, 1} : palette::carmine, Align::right, true);
            d.line({{0, y + row_height - 0.5}, {width - 4, y + row_height - 0.5}}, {palette::rule, 1, {}});
            y += row_height;
        }
        if (rows().empty()) d.text({0, 22}, "No pieces on this medium.", 12, palette::quiet);
        return d;
    }

private:
    Workroom& room_;
};

SheetsBench::SheetsBench(Workroom& room) : Bench(room, QStringLiteral("sheets")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    media_ = new ChipRow(QStringLiteral("Media"));
    media_->chosen = [this](const std::string& id) {
        room_.stop_settling();
        Selection s = room_.selection();
        s.medium = id;
        room_.select(s);
    };
    column->addWidget(media_);
    auto* head = new QHBoxLayout;
    title_ = new QLabel;
    title_->setProperty("head", true);
    about_ = new QLabel;
    about_->setProperty("quiet", true);
    piece_ = new QLabel;
    piece_->setProperty("quiet", true);
    turn_ = push(QStringLiteral("Turn"), QStringLiteral("A quarter turn of the chosen piece (R)"));
    lock_ = push(QStringLiteral("Lock"), QStringLiteral("A locked piece stays where it is while the others settle (L)"));
    settle_ = push(QStringLiteral("Settle"), QStringLiteral("Lays out every piece that is not locked; better the longer it runs"), true);
    head->addWidget(title_);
    head->addWidget(about_);
    head->addStretch(1);
    head->addWidget(piece_);
    head->addWidget(turn_);
    head->addWidget(lock_);
    head->addWidget(settle_);
    column->addLayout(head);
    ribbon_ = new Ribbon(room);
    column->addWidget(ribbon_, 1);
    roll_ = new WholeRoll(room, *ribbon_);
    column->addWidget(roll_);
    connect(settle_, &QPushButton::clicked, this, [this] {
        if (room_.settling()) {
            room_.stop_settling();
            refresh();
        } else {
            room_.settle(room_.selection().medium, settle_seconds_);
        }
    });
    connect(turn_, &QPushButton::clicked, ribbon_, &Ribbon::turn_chosen);
    connect(lock_, &QPushButton::clicked, ribbon_, &Ribbon::lock_chosen);
    connect(ribbon_, &Ribbon::chosen_changed, this, &SheetsBench::show_piece);

    panel_ = new FigurePanel;
    panel_->head(QStringLiteral("Pieces, placed of asked"));
    pieces_ = new PieceList(room);
    auto* scroll = new QScrollArea;
    scroll->setWidget(pieces_);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setMinimumHeight(120);
    panel_->rows()->addWidget(scroll, 1);
    panel_->rule();
    used_ = panel_->text_row(QStringLiteral("Film used"));
    density_ = panel_->text_row(QStringLiteral("Share of it covered"));
    cut_ = panel_->text_row(QStringLiteral("Cut length"));
    left_ = panel_->text_row(QStringLiteral("Left on the roll"));
    cost_ = panel_->text_row(QStringLiteral("Cost"));
    each_ = panel_->text_row(QStringLiteral("Cost a piece"));
    reads_ = panel_->note();
    reads_->setProperty("brick", true);
    panel_->rule();
    gap_ = panel_->length_row(QStringLiteral("Gap between pieces"), QStringLiteral("The least distance between two contours"));
    gap_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 100) return QStringLiteral("A gap lies between 0 and 100 mm.");
        change_medium(QStringLiteral("gap"), [l](Medium& m) { m.gap = l; });
        return std::nullopt;
    };
    margin_ = panel_->length_row(QStringLiteral("Margin"), QStringLiteral("Kept free along every edge"));
    margin_->entered = [this](Length l, bool) -> std::optional<QString> {
        const Medium* m = find_medium(room_.order(), room_.selection().medium);
        if (l.mm() < 0 || m == nullptr || l.mm() * 3 > m->width.mm()) return QStringLiteral("The margins must leave room for the pieces.");
        change_medium(QStringLiteral("margin"), [l](Medium& medium) { medium.margin = l; });
        return std::nullopt;
    };
    panel_->head(QStringLiteral("Pieces may be turned"));
    turns_ = new Segments(QStringLiteral("Pieces may be turned"),
                          {QStringLiteral("not"), QStringLiteral("by quarters"), QStringLiteral("freely")});
    turns_->setToolTip(QStringLiteral("Grain, nap and foil forbid turning; freely nests round and crooked pieces closer"));
    turns_->chosen = [this](int i) {
        change_medium(QStringLiteral("turning"), [i](Medium& m) {
            m.quarter_turns = i > 0;
            m.free_turns = i == 2;
        });
    };
    panel_->add(turns_);
    seconds_ = panel_->number_row(QStringLiteral("Settle for (s)"), QStringLiteral("How long the layout is bettered; Stop ends it earlier"),
                                  0.2, 3600, 1);
    seconds_->show_number(settle_seconds_);
    seconds_->entered = [this](double v) { settle_seconds_ = v; };
}

QWidget* SheetsBench::figures() { return panel_; }
QWidget* SheetsBench::first_focus() { return ribbon_; }

void SheetsBench::change_medium(const QString& what, const std::function<void(Medium&)>& how) {
    Order next = room_.order();
    for (Medium& m : next.media)
        if (m.id == room_.selection().medium) how(m);
    room_.edit(what, std::move(next));
}

void SheetsBench::show_piece() {
    const auto& copies = copies_of(room_);
    const int i = ribbon_->chosen();
    const bool any = i >= 0 && i < int(copies.size());
    turn_->setEnabled(any);
    lock_->setEnabled(any);
    lock_->setText(any && copies[std::size_t(i)].locked ? QStringLiteral("Unlock") : QStringLiteral("Lock"));
    const Transfer* t = any ? find_transfer(room_.transfer_set(), copies[std::size_t(i)].transfer) : nullptr;
    piece_->setText(t != nullptr ? qt(t->name) + QStringLiteral(", for ") + qt(t->sizes) : QString());
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
                         QStringLiteral("%1 pieces").arg(pieces),
                         standing_where([&](const Subject& about) { return about.medium == m.id; }),
                         {}});
    }
    media_->show_chips(chips, s.medium);
    media_->setVisible(chips.size() > 1);
    const Medium* m = find_medium(order, s.medium);
    if (m == nullptr) return;
    title_->setText(qt(m->name) + ", " + qt(length_text(m->width, order.unit)));
    about_->setText(QStringLiteral("gap %1, %2, cut by contour")
                        .arg(qt(length_text(m->gap, order.unit)), !m->quarter_turns ? QStringLiteral("no turning")
                                                                  : m->free_turns   ? QStringLiteral("turned freely")
                                                                                    : QStringLiteral("quarter turns")));
    const MediumPlan* plan = nullptr;
    for (const MediumPlan& p : room_.sheets().media)
        if (p.medium == m->id) plan = &p;
    const bool laid = plan != nullptr && plan->placed > 0 && !plan->stale;
    settle_->setText(room_.settling() ? QStringLiteral("Stop") : laid ? QStringLiteral("Settle more") : QStringLiteral("Settle"));
    settle_->setEnabled(room_.settling() || (plan != nullptr && plan->asked > 0 && !room_.catching_up()));
    ribbon_->refresh_pieces();
    if (!ribbon_->dragging()) {  // in small, a piece under way is not worth a frame
        roll_->refresh();
        pieces_->fit();
        pieces_->refresh();
    }
    show_piece();
    for (QLabel* l : {used_, density_, cut_, left_, cost_, each_}) l->setText(QStringLiteral("–"));
    if (plan != nullptr && plan->placed > 0) {
        double cut = 0, last = 0;
        for (const Sheet& sheet : plan->sheets) {
            cut += sheet.cut_length;
            last = sheet.length;
        }
        const bool roll = m->shape == MediumShape::roll;
        used_->setText(roll ? qt(length_text(Length::from_mm(plan->length), order.unit))
                            : QStringLiteral("%1 sheets").arg(plan->sheets.size()));
        density_->setText(QStringLiteral("%1 %").arg(100 * plan->density, 0, 'f', 1));
        cut_->setText(order.unit == Unit::mm ? QStringLiteral("%1 m").arg(cut / 1000, 0, 'f', 1)
                                             : QStringLiteral("%1 ft").arg(cut / 304.8, 0, 'f', 1));
        left_->setText(roll ? qt(length_text(Length::from_mm(std::max(0.0, m->length.mm() - last)), order.unit)) : QStringLiteral("–"));
        cost_->setText(QString::number(plan->cost, 'f', 2));
        each_->setText(QString::number(plan->cost / std::max(1, plan->placed), 'f', 2));
    }
    reads_->setText((program_mirrors(*m) ? QStringLiteral("← ") : QStringLiteral("→ ")) + qt(reading_direction(*m)));
    turns_->show_choice(!m->quarter_turns ? 0 : m->free_turns ? 2 : 1);
    gap_->show_length(m->gap, order.unit);
    margin_->show_length(m->margin, order.unit);
}

QString SheetsBench::word() const {
    if (room_.settling()) return QStringLiteral("settling");
    if (room_.catching_up()) return QStringLiteral("working");
    const auto& media = room_.sheets().media;
    if (media.empty()) return QStringLiteral("no pieces");
    for (const MediumPlan& m : media)
        if (m.stale || m.placed < m.asked) return m.placed == 0 ? QStringLiteral("to settle") : QStringLiteral("stale");
    return media.size() == 1 ? QStringLiteral("1 medium") : QStringLiteral("%1 media").arg(media.size());
}

QString SheetsBench::help() const {
    return QStringLiteral(
        "Sheets: settle the pieces on the film; a layout comes at once and betters while it runs. Drag a piece, R turns it, L locks it. "
        "Wheel scrolls, Ctrl and wheel zooms.");
}

}  // namespace orthema::app
