#include "app/benches/guides/guides_bench.h"

#include <QCheckBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QMenu>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/guides/guide_view.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "core/drawing/code2d.h"
#include "core/guides/aids.h"
#include "core/guides/panel_drawing.h"
#include "core/guides/photo_card.h"
#include "core/guides/run_guides.h"
#include "drawing/painter.h"
#include "files/page_export.h"
#include "files/safe_file.h"

namespace orthema::app {

GuidesBench::GuidesBench(Workroom& room) : Bench(room, QStringLiteral("guides")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    decorations_ = new ChipRow(tr("Decorations"));
    decorations_->fold(1);
    decorations_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        if (const Decoration* d = find_decoration(room_.order(), id)) {
            s.decoration = id;
            s.run = d->run;
            s.style = d->run.style;
            if (const DecorationFit* fit = find_fit(room_.plan(), id); fit != nullptr && find_size(*fit, s.size) == nullptr)
                s.size = fit->sizes[fit->sizes.size() / 2].size;
        }
        room_.select(s);
    };
    column->addWidget(decorations_);
    auto* row = new QHBoxLayout;
    sizes_ = new ChipRow(tr("Sizes"));
    sizes_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.size = id;
        room_.select(s);
    };
    row->addWidget(sizes_, 1);
    what_ = new Segments(tr("Show"), {tr("card"), tr("template"), tr("at real size"), tr("platen map"), tr("master"), tr("aid"),
                                      tr("wall chart"), tr("photo card")});
    what_->turn_pages();
    what_->button(aid)->setToolTip(
        tr("A carry board for two layers, a paper over a mug's handle, a jig's plate, a border for a folded sheet"));
    what_->button(photo_card)->setToolTip(tr("Lies beside a blank in a photograph, so that the Blanks bench can measure from it"));
    what_->show_choice(card);
    what_->chosen = [this](int) { refresh(); };
    column->addLayout(row);
    column->addWidget(what_);
    view_ = new GuideView(room);
    column->addWidget(view_, 1);

    view_->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(view_, &QWidget::customContextMenuRequested, this, [this](QPoint at) {
        QMenu menu;
        for (QPushButton* b : {print_, write_}) add_button(menu, b);
        menu.addAction(tr("This size on the size wall"), this, [this] { emit wanted(QStringLiteral("fit")); });
        menu.exec(view_->mapToGlobal(at));
    });

    panel_ = new FigurePanel;
    panel_->head(tr("Figures"));
    title_ = panel_->title();
    lines_ = panel_->note();
    lines_->setTextFormat(Qt::RichText);
    panel_->rule();
    panel_->head(tr("Paper"));
    paper_ = new Segments(tr("Paper for guides"), {QStringLiteral("A4"), tr("letter")});
    paper_->chosen = [this](int i) {
        Order next = room_.order();
        next.paper = i == 0 ? Paper::a4 : Paper::letter;
        room_.edit(tr("paper"), std::move(next));
    };
    panel_->add(paper_);
    measured_ = panel_->length_row(tr("100 mm prints as"), tr("Measure the 100 mm mark of a printed template: what it measures is "
                                                              "corrected from then on"));
    measured_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 80 || l.mm() > 120) return tr("Between 80 and 120 mm: a printer is never further off.");
        setup(tr("correction"), [&](GuideSetup& g) { g.measured = l; });
        return std::nullopt;
    };
    const auto flag = [&](const QString& name, const QString& why, bool GuideSetup::*which) {
        QCheckBox* b = panel_->tick(name, why);
        connect(b, &QCheckBox::clicked, this, [this, which, name](bool on) { setup(within(name), [&](GuideSetup& g) { g.*which = on; }); });
        return b;
    };
    large_ = flag(tr("Larger paper too"), tr("A3, or legal and tabloid: taken for a template that then needs fewer sheets"),
                  &GuideSetup::large_paper);
    short_ =
        flag(tr("Short templates"), tr("From the collar to the ink's top, with the centre and the upper corners: one sheet for most sizes"),
             &GuideSetup::short_templates);
    windows_ = flag(tr("Cut-out windows"), tr("The ink's place is cut out of the template, to lay the transfer in"), &GuideSetup::windows);
    codes_ = flag(tr("Codes on piece labels"), tr("A square code before a piece's label on the sheet, where there is room"),
                  &GuideSetup::label_codes);
    pages_ = panel_->note();
    stale_ = panel_->note();
    stale_->setObjectName(QStringLiteral("Guide revision"));
    scan_ = panel_->field_row(tr("Code"),
                              tr("Scan a card's code here, or type it: it leads to the design and size; a piece label's code does too"));
    scan_->take = [this](const QString& text, bool) -> std::optional<QString> { return scanned(text); };
    print_ = push(tr("Print what is shown…"), tr("Through the system's own dialog"));
    panel_->add(print_);
    connect(print_, &QPushButton::clicked, this, [this] { print_shown(); });
    write_ = push(tr("Write this guide…"), tr("The card and its template as one PDF, 1:1"));
    panel_->add(write_);
    connect(write_, &QPushButton::clicked, this, [this] {
        if (what_->choice() == photo_card) return write_photo_cards();
        const Decoration* d = room_.decoration();
        const DecorationFit* fit = room_.fit();
        const SizeFit* on = shown_size();
        if (d == nullptr || on == nullptr) return;
        const QString name = qt(file_stem(room_.order().name + " " + d->name + " " + on->size)) + "_guide.pdf";
        const QString path = QFileDialog::getSaveFileName(this, tr("Write the guide"), name, tr("PDF (*.pdf)"));
        if (path.isEmpty()) return;
        room_.jobs().background([this, path, guide = guide_for(room_.order(), *d, *fit, *on, room_.facts().at(d->art).outline),
                                 art = room_.art()]() -> std::function<void()> {
            std::vector<const Drawing*> pages{&guide.card.drawing};
            for (const GuidePage& p : guide.tiles) pages.push_back(&p.drawing);
            const auto done = write_pdf(path.toStdString(), pages, art, guide.card.title);
            return [this, path, done, decoration = guide.decoration, size = guide.size] {
                if (done) room_.exporter().guides_printed(decoration, size);
                room_.notices().tell(done, tr("Written: %1").arg(path));
            };
        });
    });
    panel_->fill();
    auto* caution = panel_->note();
    caution->setText(
        tr("Hot platen: gloves, and never leave it closed unattended. Ventilate. Supplier's sheet and local rules come first."));
}

QWidget* GuidesBench::figures() { return panel_; }
QWidget* GuidesBench::first_focus() { return view_; }

void GuidesBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    std::vector<Chip> chips;
    for (const DecorationFit& f : room_.plan().decorations)
        if (const Decoration* d = find_decoration(order, f.decoration); d != nullptr && s.shows(d->run.job))
            chips.push_back({d->id, qt(d->name), qt(run_name(order, d->run)), Standing::settled, {}});
    decorations_->show_chips(chips, s.decoration);
    const Decoration* d = room_.decoration();
    const DecorationFit* fit = room_.fit();
    chips.clear();
    if (fit != nullptr)
        for (const SizeFit& f : fit->sizes) chips.push_back({f.size, qt(f.size), {}, Standing::settled, {}});
    const SizeFit* on = shown_size();
    sizes_->show_chips(chips, on != nullptr ? on->size : "");
    paper_->show_choice(order.paper == Paper::a4 ? 0 : 1);
    write_->setEnabled(on != nullptr);
    print_->setEnabled(on != nullptr);
    measured_->show_fine(order.guide_setup.measured, Unit::mm);
    short_->setChecked(order.guide_setup.short_templates);
    large_->setChecked(order.guide_setup.large_paper);
    windows_->setChecked(order.guide_setup.windows);
    codes_->setChecked(order.guide_setup.label_codes);
    if (what_->choice() == photo_card) {
        title_->setText(tr("Photo cards"));
        lines_->setText(
            tr("One lies flat beside the blank when it is photographed for the Blanks bench; four, one at each side, make "
               "its figures more exact. The small one is for small blanks: cut it out along its line."));
        stale_->clear();
        std::vector<GuidePage> pages = photo_cards();
        pages_->setText(tr("%1 pages. Check the 100 mm mark on what was printed.").arg(pages.size()));
        write_->setEnabled(true);
        print_->setEnabled(true);
        return view_->show_pages(std::move(pages), 3, {}, photo_card, {});
    }
    if (d == nullptr || on == nullptr || !room_.facts().contains(d->art)) {
        title_->setText(tr("Nothing chosen"));
        lines_->clear();
        pages_->clear();
        view_->show_guide(std::nullopt, std::nullopt, {}, what_->choice());
        return;
    }
    const Guide guide = guide_for(order, *d, *fit, *on, room_.facts().at(d->art).outline);
    title_->setText(qt(on->size) + ", " + qt(d->name));
    QString rows = QStringLiteral("<table width='100%' cellspacing='0' cellpadding='2'>");
    const Ground* ground = find_ground(*fit, on->size);
    if (ground == nullptr) return;
    const Exactness exact = exactness_of(slack_of(*ground, *fit, *on));
    for (const CardLine& l : card_lines(ground->panel, *on, d->location, exact, order.unit))
        rows +=
            QStringLiteral("<tr><td>%1</td><td align='right' style='color:#22303C'><b>%2</b></td><td style='color:#B5533C'>%3</td></tr>")
                .arg(qt(l.what).toHtmlEscaped(), qt(l.figure).replace(' ', QChar(0xA0)), qt(l.exact).replace(' ', QChar(0xA0)));
    lines_->setText(rows + QStringLiteral("</table>"));
    int all = 0;
    for (const DecorationFit& f : room_.plan().decorations) all += int(f.sizes.size());
    pages_->setText(tr("This template takes %1 %2, %3. The whole order has %4 cards.")
                        .arg(guide.tiles.size())
                        .arg((guide.tiles.size() == 1 ? tr("page of ") : tr("pages of ")) + paper_name(guide.layout.paper),
                             guide.layout.landscape ? tr("across") : tr("upright"))
                        .arg(all));
    switch (printed_as(order, *d, *on)) {
    case Printed::never: stale_->setText(tr("Revision %1, not printed yet.").arg(qt(guide.revision))); break;
    case Printed::current: stale_->setText(tr("Revision %1, printed, still holds.").arg(qt(guide.revision))); break;
    case Printed::stale: stale_->setText(tr("Revision %1: what was printed is stale.").arg(qt(guide.revision))); break;
    }
    const auto helps = aid_kind(order, *d);
    what_->name_choice(aid, helps ? said(aid_name(*helps)) : tr("aid"));
    view_->show_guide(guide, ground->panel, cloth_of(order, *d), what_->choice());
    if (what_->choice() >= maps) {
        int columns = 1;
        std::vector<GuidePage> made = pages_shown(*d, *fit, *on, columns);
        if (!made.empty())
            pages_->setText(tr("What is shown takes %1 %2. The whole order has %3 cards.")
                                .arg(made.size())
                                .arg(made.size() == 1 ? tr("page") : tr("pages"))
                                .arg(all));
        std::function<void(Drawing&, const Rect&)> beside;
        if (what_->choice() == maps) {
            std::erase_if(made, [&](const GuidePage& p) { return std::find(p.sizes.begin(), p.sizes.end(), on->size) == p.sizes.end(); });
            beside = map_beside(*d, *on, *ground);
        }
        view_->show_pages(std::move(made), columns,
                          what_->choice() == maps  ? tr("No flat platen lies under this design, so there is no map.")
                          : what_->choice() == aid ? tr("The template is enough here: nothing else has to hold it in place.")
                                                   : tr("Nothing to show here."),
                          what_->choice(), std::move(beside));
    }
}

std::function<void(Drawing&, const Rect&)> GuidesBench::map_beside(const Decoration& d, const SizeFit& on, const Ground& ground) const {
    const auto map = platen_map(room_.order(), d, on, ground);
    if (!map) return {};
    return [this, d, on, ground, map = *map](Drawing& to, const Rect& box) {
        const Order& order = room_.order();
        const double line = 19, words = line * double(map.lines.size()) + 8;
        to.text({box.x0, box.y0 + 18}, on.size + spoken(" on the ") + map.press + ", " + map.platen_name, 15, palette::ink, Align::left,
                true);
        draw_platen_map(to, order, d, on, ground, map, {box.x0, box.y0 + 28, box.x1, box.y1 - words}, 1, 14);
        double y = box.y1 - words + line;
        for (const MapLine& l : map.lines) {
            const std::string says = map_words(l, order.unit);
            to.text({box.x0, y}, says, std::min(13.5, 13.5 * box.width() / std::max(1.0, text_width(says, 13.5))), palette::ink);
            y += line;
        }
    };
}

const SizeFit* GuidesBench::shown_size() const {
    const DecorationFit* fit = room_.fit();
    if (fit == nullptr || fit->sizes.empty()) return nullptr;
    const SizeFit* chosen = find_size(*fit, room_.selection().size);
    return chosen != nullptr ? chosen : &fit->sizes[fit->sizes.size() / 2];
}

std::vector<GuidePage> GuidesBench::pages_shown(const Decoration& d, const DecorationFit& fit, const SizeFit& on, int& columns) const {
    const Order& order = room_.order();
    const auto known = room_.facts().find(d.art);
    columns = 2;
    switch (what_->choice()) {
    case maps: return platen_map_pages(order, room_.plan(), d);
    case chart: return {wall_chart(order, room_.plan(), d.run)};
    case aid: {
        auto made = aid_for(order, room_.plan(), d, fit, on);
        if (!made) return {};
        columns = made->layout.columns;
        return std::move(made->tiles);
    }
    case master:
        if (known != room_.facts().end())
            for (MasterTemplate& m : master_templates(order, room_.plan(), d, known->second.outline))
                if (std::find(m.sizes.begin(), m.sizes.end(), on.size) != m.sizes.end()) {
                    columns = m.layout.columns;
                    return std::move(m.tiles);
                }
        return {};
    default: break;
    }
    if (known == room_.facts().end()) return {};
    Guide guide = guide_for(order, d, fit, on, known->second.outline);
    columns = guide.layout.columns;
    if (what_->choice() == card) return {guide.card};
    return std::move(guide.tiles);
}

std::vector<GuidePage> GuidesBench::photo_cards() const {
    const Order& order = room_.order();
    std::vector<GuidePage> out = card_pages(order.guide_setup, CardSize::large, order.paper, 1, 4);
    for (GuidePage& p : card_pages(order.guide_setup, CardSize::small, order.paper, 1, 1)) out.push_back(std::move(p));
    return out;
}

void GuidesBench::write_photo_cards() {
    const QString path =
        QFileDialog::getSaveFileName(this, tr("Write the photo cards"), QStringLiteral("photo-cards.pdf"), tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    room_.jobs().background([this, path, pages = photo_cards()]() -> std::function<void()> {
        const auto done = write_pages(path.toStdString(), pages, {}, spoken("Photo cards"));
        return [this, path, done] { room_.notices().tell(done, tr("Written: %1").arg(path)); };
    });
}

void GuidesBench::setup(const QString& what, const std::function<void(GuideSetup&)>& by) {
    Order next = room_.order();
    by(next.guide_setup);
    room_.edit(what, std::move(next));
}

std::optional<QString> GuidesBench::scanned(const QString& text) {
    const auto code = code_from(text.trimmed().toStdString());
    if (!code) return tr("That is not the code of a card.");
    const Decoration* d = find_decoration(room_.order(), code->decoration);
    const DecorationFit* fit = d == nullptr ? nullptr : find_fit(room_.plan(), d->id);
    const SizeFit* on = fit == nullptr ? nullptr : find_size(*fit, code->size);
    if (on == nullptr) return tr("This order has no such design and size.");
    select_subject(room_, subject_of("guides", *d, on->size));
    if (!code->revision.empty() && guide_revision(room_.order(), *d, *on) != code->revision)
        room_.say({tr("That card was made from other figures: print it again."), false, {}, {}});
    return std::nullopt;
}

void GuidesBench::print_shown() {
    auto printer = std::make_shared<QPrinter>(QPrinter::HighResolution);
    QPrintDialog dialog(printer.get(), this);
    if (dialog.exec() == QDialog::Accepted) print_on(std::move(printer));
}

void GuidesBench::print_on(std::shared_ptr<QPrinter> printer) {
    const Decoration* d = room_.decoration();
    const DecorationFit* fit = room_.fit();
    const SizeFit* on = shown_size();
    const bool cards = what_->choice() == photo_card;
    if (!cards && (d == nullptr || on == nullptr)) return;
    int columns = 1;
    std::vector<GuidePage> pages = cards ? photo_cards() : pages_shown(*d, *fit, *on, columns);
    if (pages.empty()) return;
    printer->setDocName(qt(pages.front().title));
    printer->setFullPage(true);
    const Drawing& first = pages.front().drawing;
    printer->setPageSize(
        QPageSize(QSizeF(std::min(first.width, first.height), std::max(first.width, first.height)), QPageSize::Millimeter));
    printer->setPageOrientation(first.width > first.height ? QPageLayout::Landscape : QPageLayout::Portrait);
    const bool marks_printed = what_->choice() <= real_size;
    room_.jobs().background([this, printer = std::move(printer), pages = std::move(pages), art = room_.art(), marks_printed,
                             id = cards ? std::string() : d->id, size = cards ? std::string() : on->size]() -> std::function<void()> {
        QPainter painter;
        const bool taken = painter.begin(printer.get());
        constexpr double k = 300 / 25.4;
        for (std::size_t i = 0; taken && i < pages.size(); ++i) {
            if (i > 0) printer->newPage();
            const Drawing& page = pages[i].drawing;
            Drawing at_print;
            for (const Mark& m : page.marks) at_print.marks.push_back(mapped(m, Affine{k, 0, 0, k, 0, 0}));
            QImage image;
            const int across = int(page.width * k), down = int(page.height * k);
            paint_image(image, at_print, art, across, down, 1.0);
            const double dot = printer->resolution() / 25.4;
            painter.drawImage(QRectF(0, 0, image.width() / k * dot, image.height() / k * dot), image);
        }
        if (taken) painter.end();
        return [this, taken, marks_printed, id, size] {
            if (taken && marks_printed) room_.exporter().guides_printed(id, size);
            if (!taken) room_.say({tr("The printer did not take the pages: see whether it is on and has paper."), true, {}, {}});
        };
    });
}

QString GuidesBench::word() const {
    int all = 0;
    for (const DecorationFit& f : room_.plan().decorations) all += int(f.sizes.size());
    return all == 0 ? tr("none yet") : tr(is_one(long(all), reading_in()) ? noted("%1 card") : noted("%1 cards")).arg(all);
}

QString GuidesBench::help() const {
    return tr(
        "Guides: what the hand at the press needs for each size. The card has the figures; the template is laid on the garment, its notch "
        "in the collar. Print at 100 % and check the 100 mm mark.");
}

}  // namespace orthema::app
