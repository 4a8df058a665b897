#include "app/benches/order/price_page.h"

#include <QComboBox>
#include <QFileDialog>

#include <algorithm>
#include <utility>

#include "app/widgets/speech.h"
#include "core/order/gang.h"
#include "core/papers/approval.h"
#include "core/pipeline/order_papers.h"
#include "files/page_export.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

/// "10: 5 %, 50: 12.5 %"
QString steps_text(const std::vector<QuantityStep>& steps) {
    QStringList parts;
    for (const QuantityStep& s : steps) parts << QStringLiteral("%1: %2 %").arg(s.from).arg(s.off);
    return parts.join(QStringLiteral(", "));
}

/// Pairs of numbers: from how many pieces, how many per cent less.
std::optional<std::vector<QuantityStep>> steps_from(const QString& text) {
    static const QRegularExpression number(QStringLiteral("\\d+(?:\\.\\d+)?"));
    std::vector<double> all;
    auto it = number.globalMatch(text);
    while (it.hasNext()) all.push_back(it.next().captured().toDouble());
    if (all.size() % 2 != 0 || all.size() > 100) return std::nullopt;
    std::vector<QuantityStep> out;
    for (std::size_t i = 0; i < all.size(); i += 2) {
        if (all[i] < 1 || all[i] > 1e6 || all[i + 1] > 100) return std::nullopt;
        out.push_back({int(all[i]), all[i + 1]});
    }
    std::sort(out.begin(), out.end(), [](const QuantityStep& a, const QuantityStep& b) { return a.from < b.from; });
    return out;
}

QString money(double amount, const Order& order) { return qt(money_text(amount, order.currency, reading_in())); }
QString money(Pence amount, const Order& order) { return qt(pence_text(amount, order.currency, reading_in())); }

/// The job that is looked at in a gang; "" for all.
std::string job_in_view(const Workroom& room) { return room.selection().job; }

}  // namespace

PricePage::PricePage(Workroom& room) : room_(room) {
    bare();
    head(tr("How the price comes about"));
    way_ = new Segments(tr("Price by"), {tr("by margin"), tr("by the shop's steps")});
    way_->button(0)->setToolTip(tr("So much of the price is left when all is paid"));
    way_->button(1)->setToolTip(tr("A price for each print by its place, so much on a blank, less from so many pieces on"));
    way_->chosen = [this](int i) { change(tr("way of pricing"), [i](Pricing& p) { p.by_steps = i == 1; }); };
    add(way_);
    margin_ = number_row(tr("Margin, per cent"), tr("Of the price"), 0, 95, 1);
    margin_->entered = [this](double v) { change(tr("margin"), [v](Pricing& p) { p.margin = v; }); };
    steps_part_ = part();
    on_blank_ = steps_part_->number_row(tr("On a blank, per cent"), tr("On what the blank costs"), -100, 1000, 1);
    on_blank_->entered = [this](double v) { change(tr("price of blanks"), [v](Pricing& p) { p.on_blank = v; }); };
    location_ = steps_part_->choice_row(tr("A print at"), tr("Places that this order prints at"));
    connect(location_, &QComboBox::activated, this, [this] { refresh(); });
    print_ = steps_part_->number_row(tr("costs"), tr("The customer, for each; 0: what it costs the shop, with the margin"), 0, 1e6, 2);
    print_->entered = [this](double v) {
        const auto at = location_from_key(chosen_id(location_));
        if (!at) return;
        change(tr("price of a print"), [&](Pricing& p) {
            std::erase_if(p.prints, [&](const LocationPrice& l) { return l.location == *at; });
            if (v > 0) p.prints.push_back({*at, v});
        });
    };
    steps_ = steps_part_->field_row(tr("Less from"), tr("Pieces and per cent, like 10: 5 %, 50: 12 %"));
    steps_->setFixedWidth(170);
    steps_->take = [this](const QString& text, bool) -> std::optional<QString> {
        const auto steps = steps_from(QString(text).replace(QRegularExpression(QStringLiteral("(\\d),(\\d)")), QStringLiteral("\\1.\\2")));
        if (!steps) return tr("Pairs of pieces and per cent, like 10: 5 %, 50: 12 %.");
        change(tr("steps of quantity"), [&](Pricing& p) { p.steps = *steps; });
        return std::nullopt;
    };
    set_up_ = number_row(tr("Setting up a design"), tr("Once for each picture, on the quote by itself"), 0, 1e6, 2);
    set_up_->entered = [this](double v) { change(tr("price of setting up"), [v](Pricing& p) { p.set_up = v; }); };
    tax_ = number_row(tr("Tax, per cent"), tr("Said beside the price"), 0, 100, 1);
    tax_->entered = [this](double v) { change(tr("tax"), [v](Pricing& p) { p.tax = v; }); };
    rule();
    piece_ = part();
    piece_->head(tr("A piece of"));
    line_ = piece_->title();
    line_->setWordWrap(true);
    film_ = piece_->text_row(tr("Film, by its area"));
    ink_ = piece_->text_row(tr("Ink"));
    blank_ = piece_->text_row(tr("Blank"));
    work_ = piece_->text_row(tr("Work by hand"));
    set_up_share_ = piece_->text_row(tr("Heating, changing, waiting"));
    spoilage_ = piece_->text_row(tr("Spares and spoilage"));
    costs_ = piece_->text_row(tr("Costs"));
    sold_ = piece_->text_row(tr("Is sold for"));
    rule();
    order_costs_ = text_row(tr("All of it costs"));
    order_sold_ = text_row(tr("All of it is sold for"));
    out_ = push(tr("If it were made otherwise"), tr("One width, bands, graded; another medium; more or fewer pieces"));
    add(out_);
    connect(out_, &QPushButton::clicked, this, [this] {
        if (otherwise_->isHidden())
            work_out();
        else
            show_otherwise(false);
    });
    otherwise_ = note();
    otherwise_->setObjectName(QStringLiteral("Otherwise"));
    show_otherwise(false);
    fill();
}

void PricePage::change(const QString& what, const std::function<void(Pricing&)>& how) {
    Order next = room_.order();
    how(next.pricing);
    if (next.pricing != room_.order().pricing) {
        show_otherwise(false);
        room_.edit(what, std::move(next));
    }
}

/// What it would be otherwise stands where the piece's figures stand.
void PricePage::show_otherwise(bool on) {
    otherwise_->setVisible(on);
    piece_->setVisible(!on);
    out_->setText(on ? tr("Back to the piece") : tr("If it were made otherwise"));
}

void PricePage::work_out() {
    if (working_) return;
    working_ = true;
    otherwise_->setText(tr("Being worked out …"));
    show_otherwise(true);
    room_.jobs().background(
        [this, order = room_.order(), plan = room_.work().fit.out, shop = room_.stock().shop(),
         known = room_.pictures().known()]() -> std::function<void()> {
            struct Row {
                std::string name;
                double each = 0, cost = 0;
                Pence price = 0;
            };
            std::vector<Row> rows;
            for (const Otherwise& way : otherwise(order, *plan, known->facts)) {
                const Quote q = quote_of(way.order, work(way.order, shop, known));
                rows.push_back({way.name, q.cost / std::max(1, q.pieces()), q.cost, q.before_tax()});
            }
            return [this, rows, order] {
                working_ = false;
                if (order != room_.order()) {
                    show_otherwise(false);
                    return;
                }
                QString text =
                    tr("<table cellspacing='0' cellpadding='2'><tr><td></td><td align='right'>a piece&nbsp;</td><td "
                       "align='right'>costs&nbsp;</td><td align='right'>sold</td></tr>");
                for (const Row& r : rows)
                    text += QStringLiteral(
                                "<tr><td>%1&nbsp;&nbsp;</td><td align='right'>%2&nbsp;</td><td align='right'>%3&nbsp;</td><td "
                                "align='right'>%4</td></tr>")
                                .arg(qt(r.name).toHtmlEscaped(), money(r.each, order), money(r.cost, order), money(r.price, order));
                otherwise_->setText(text + tr("</table>Film by the usual fill in each, nothing settled."));
            };
        },
        [this] { working_ = false; });
}

void PricePage::refresh() {
    const Order& order = room_.order();
    const Pricing& p = order.pricing;
    way_->show_choice(p.by_steps ? 1 : 0);
    margin_->show_number(p.margin);
    steps_part_->setVisible(p.by_steps);
    on_blank_->show_number(p.on_blank);
    steps_->show_text(steps_text(p.steps));
    set_up_->show_number(p.set_up);
    tax_->show_number(p.tax);
    std::vector<std::pair<std::string, QString>> places;
    for (const Decoration& d : order.decorations)
        if (std::none_of(places.begin(), places.end(), [&](const auto& e) { return e.first == location_key(d.location); }))
            places.emplace_back(location_key(d.location), said(location_name(d.location)));
    set_items(location_, places);
    double price = 0;
    for (const LocationPrice& l : p.prints)
        if (chosen_id(location_) == location_key(l.location)) price = l.price;
    print_->show_number(price);
    const Quote quote = quote_of(order, room_.work(), job_in_view(room_));
    const LinePrice* line = nullptr;
    for (const LinePrice& l : quote.lines)
        if (l.run == room_.selection().run && (line == nullptr || l.size == room_.selection().size)) line = &l;
    if (line == nullptr && !quote.lines.empty()) line = &quote.lines.front();
    line_->setText(line == nullptr ? tr("Nothing yet") : qt(run_name(order, line->run) + ", " + line->size));
    const PieceCost cost = line == nullptr ? PieceCost{} : line->cost;
    film_->setText(money(cost.film, order));
    ink_->setText(money(cost.ink, order));
    blank_->setText(money(cost.blank, order));
    work_->setText(money(cost.work, order));
    set_up_share_->setText(money(cost.set_up, order));
    spoilage_->setText(money(cost.spoilage, order));
    costs_->setText(money(cost.total(), order));
    sold_->setText(line == nullptr ? QString() : money(line->each, order));
    order_costs_->setText(money(quote.cost, order));
    order_sold_->setText(tr("%1, %2 % left").arg(money(quote.before_tax(), order)).arg(std::lround(100 * quote.margin())));
}

// ---- papers

PapersPage::PapersPage(Workroom& room) : room_(room) {
    bare();
    head(tr("Promised"));
    promise_ = new ValueField(tr("Promise"));
    promise_->setToolTip(tr("Stands on the quote and on the sheet for approval: “ready on Friday, collected”"));
    promise_->read_from_left();
    promise_->take = [this](const QString& text, bool) -> std::optional<QString> {
        if (text.size() > 300) return tr("Up to 300 letters.");
        Order next = room_.order();
        next.pricing.promise = text.trimmed().toStdString();
        room_.edit(tr("promise"), std::move(next));
        return std::nullopt;
    };
    add(promise_);
    rule();
    head(tr("Papers"));
    const auto paper = [this](const QString& name, const QString& why, Which which) {
        auto* button = push(name, why);
        add(button);
        connect(button, &QPushButton::clicked, this, [this, which] { write(which); });
    };
    paper(tr("Quote…"), tr("What each garment costs the customer, with what is promised"), Which::quote);
    paper(tr("Job ticket…"), tr("What the workshop needs of this order, on as few pages as it takes"), Which::ticket);
    paper(tr("Sheet for approval…"), tr("Every garment with its design, sizes and places, for the customer to sign"), Which::approval);
    rule();
    head(tr("Approval"));
    by_ = field_row(tr("Approved by"), tr("Who looked at the sheet and agreed"));
    by_->read_from_left(150);
    by_->take = [](const QString& text, bool) -> std::optional<QString> {
        if (text.size() > 80) return tr("Up to 80 letters.");
        return std::nullopt;
    };
    approve_ = push(tr("Approved as it is now"), tr("From now on whatever differs from this is said"), true);
    take_back_ = push(tr("Take back"), tr("Nobody has approved it"));
    side_by_side({approve_, take_back_});
    state_ = note();
    state_->setObjectName(QStringLiteral("Approval"));
    connect(approve_, &QPushButton::clicked, this, [this] {
        const Order& order = room_.order();
        const std::string job = job_in_view(room_);
        const Job* whose = find_job(order, job);
        std::string who = by_->text().trimmed().toStdString();
        if (who.empty()) who = whose != nullptr ? whose->customer : order.customer;
        if (who.empty()) who = spoken("the customer");
        room_.edit(tr("approval"), with_approval(order, room_.plan(), who, room_.stock().shop().today, job));
    });
    connect(take_back_, &QPushButton::clicked, this, [this] {
        by_->clear();
        room_.edit(tr("approval taken back"), with_approval(room_.order(), room_.plan(), {}, {}, job_in_view(room_)));
    });
    fill();
}

void PapersPage::write(Which which) {
    const char* names[] = {"quote", "job-ticket", "approval"};
    const QString name = QString::fromLatin1(names[int(which)]);
    const QString wanted = qt(file_stem(room_.order().name)) + QLatin1Char('_') + name + QStringLiteral(".pdf");
    const QString path = QFileDialog::getSaveFileName(this, tr("Save the paper"), wanted, tr("PDF (*.pdf)"));
    if (path.isEmpty()) return;
    room_.jobs().background([this, which, path, order = room_.order(), w = room_.work(), art = room_.art(),
                             job = job_in_view(room_)]() -> std::function<void()> {
        const PaperOf of = paper_of(order, w, job);
        const auto pages = which == Which::quote    ? quote_pages(of, quote_of(order, w, job))
                           : which == Which::ticket ? ticket_pages(of)
                                                    : approval_pages(of);
        const auto done = write_pages(path.toStdString(), pages, art, order.name);
        return [this, done, path, n = pages.size()] { room_.notices().tell(done, tr("%1 written to %2.").arg(counted(n, "page"), path)); };
    });
}

namespace {

QString words_of(const Order& order, const std::string& job, const ApprovalState& state) {
    if (!state.given) return tr("Nobody has approved it yet. Show the sheet before anything is printed.");
    const Approval& a = approval_of(order, job);
    const QString by = tr("Approved by %1 on %2").arg(qt(a.by), qt(a.at));
    if (state.holds()) return by + tr(", and nothing of it has changed.");
    QStringList changed;
    for (const auto& [id, sizes] : state.changed)
        if (const Decoration* d = find_decoration(order, id)) changed << QStringLiteral("“%1” (%2)").arg(qt(d->name), qt(sizes));
    if (state.list_changed) changed << tr("the list");
    if (state.gone > 0) changed << counted(std::size_t(state.gone), "design that is gone", "designs that are gone");
    if (changed.size() > 6) changed = changed.mid(0, 5) << tr("%1 more").arg(changed.size() - 5);
    return by + tr("; changed since: %1.").arg(changed.join(QStringLiteral(", ")));
}

}  // namespace

void PapersPage::refresh() {
    const Order& order = room_.order();
    promise_->show_text(qt(order.pricing.promise));
    // of a gang the job in view, or all of them one below the other
    std::vector<std::string> whose = jobs_apart(order);
    const std::string in_view = job_in_view(room_);
    if (find_job(order, in_view) != nullptr) whose = {in_view};
    if (std::exchange(shown_for_, in_view) != in_view) by_->clear();
    bool all_hold = true, any_given = false;
    QStringList said;
    for (const std::string& job : whose) {
        const ApprovalState state = approval_state(order, room_.plan(), job);
        const Job* of = find_job(order, job);
        if (state.given && whose.size() == 1) by_->show_text(qt(approval_of(order, job).by));
        all_hold = all_hold && state.holds();
        any_given = any_given || state.given;
        said << (of != nullptr && whose.size() > 1 ? qt(of->name) + QStringLiteral(": ") : QString()) + words_of(order, job, state);
    }
    take_back_->setEnabled(any_given);
    approve_->setEnabled(!all_hold && !room_.plan().decorations.empty());
    state_->setText(said.join(QStringLiteral("\n")));
}

}  // namespace orthema::app
