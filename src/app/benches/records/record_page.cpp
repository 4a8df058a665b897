#include "app/benches/records/record_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDate>

#include "app/widgets/speech.h"
#include "app/session/workroom.h"
#include "core/order/gang.h"
#include "core/records/of_load.h"

namespace orthema::app {

namespace {

template <class Name>
std::vector<std::pair<std::string, QString>> choices(int count, Name name) {
    std::vector<std::pair<std::string, QString>> out;
    out.reserve(static_cast<std::size_t>(count));
    for (int i = 0; i < count; ++i) out.emplace_back(std::to_string(i), said(name(i)));
    return out;
}

}  // namespace

RecordPage::RecordPage(Workroom& room) : room_(room) {
    bare();
    head(tr("Record"));
    title_ = title();
    when_ = text_row(tr("Pressed"));
    where_ = text_row(tr("On"));
    acts_ = note();
    landed_ = text_row(tr("Landed"));
    aside_ = number_row(tr("Aside, mm"), tr("To the right as it lies before you; to the left is less than nought"), -500, 500, 1);
    aside_->entered = [this](double v) {
        change([v](PressRecord& r) {
            if (!r.landing) r.landing.emplace();
            r.landing->aside = v;
        });
    };
    down_ = number_row(tr("Too low, mm"), tr("Too high is less than nought"), -500, 500, 1);
    down_->entered = [this](double v) {
        change([v](PressRecord& r) {
            if (!r.landing) r.landing.emplace();
            r.landing->down = v;
        });
    };
    auto* photo = push(tr("From a photograph…"),
                       tr("Reads off where it landed from a picture of the piece with a photo card beside it (Guides prints it)"));
    add(photo);
    connect(photo, &QPushButton::clicked, this, [this] {
        if (photograph) photograph();
    });
    photo_kept_ = push(tr("The kept photograph"), tr("The small picture of this piece that lies in the order file"));
    add(photo_kept_);
    connect(photo_kept_, &QPushButton::clicked, this, [this] {
        if (kept) kept();
    });
    outcome_ = choice_row(tr("Came out"), tr("How it came off the press"));
    connect(outcome_, &QComboBox::activated, this, [this](int i) { change([i](PressRecord& r) { r.outcome = Outcome(i); }); });
    cause_ = field_row(tr("Cause"), tr("In the shop's own words"));
    cause_->take = [this](const QString& text, bool) -> std::optional<QString> {
        change([&](PressRecord& r) { r.cause = text.trimmed().toStdString(); });
        return std::nullopt;
    };
    mended_ = choice_row(tr("Done about it"), tr("What became of the piece"));
    connect(mended_, &QComboBox::activated, this, [this](int i) {
        change([this, i](PressRecord& r) {
            r.mended = Mended(i);
            if (holds_job(room_.order(), r.job)) r.lost = price_of_loss(room_.order(), room_.plan(), r);  // else its prices are not at hand
        });
    });
    proof_ = choice_row(tr("Paper"), tr("How the paper of a sublimation press looks: even and pale where the ink has gone over"));
    connect(proof_, &QComboBox::activated, this, [this](int i) { change([i](PressRecord& r) { r.proof = Proof(i); }); });
    patches_ = part();
    for (std::size_t k = 0; k < corners_.size(); ++k) {
        corners_[k] = patches_->tick(tr("Dark: ") + said(plate_corner_name(int(k))),
                                     tr("Where the paper stayed dark: heat or pressure was missing there"));
        connect(corners_[k], &QCheckBox::clicked, this,
                [this, k](bool on) { change([&](PressRecord& r) { r.patches = on ? r.patches | 1U << k : r.patches & ~(1U << k); }); });
    }
    washes_ = number_row(tr("Washed, times"), tr("After how many washes it was looked at"), 0, 1000, 0);
    washes_->entered = [this](double v) {
        change([v](PressRecord& r) {
            if (!r.wash) r.wash.emplace();
            r.wash->washes = int(v);
            r.wash->date = QDate::currentDate().toString(Qt::ISODate).toStdString();
        });
    };
    after_ = field_row(tr("After wash"), tr("What changed"));
    after_->take = [this](const QString& text, bool) -> std::optional<QString> {
        change([&](PressRecord& r) {
            if (!r.wash) r.wash.emplace();
            r.wash->changed = text.trimmed().toStdString();
        });
        return std::nullopt;
    };
    remark_ = field_row(tr("Remark"), tr("What is worth remembering of this piece"));
    remark_->take = [this](const QString& text, bool) -> std::optional<QString> {
        change([&](PressRecord& r) { r.remark = text.trimmed().toStdString(); });
        return std::nullopt;
    };
    kept_ = note();
}

void RecordPage::change(const std::function<void(PressRecord&)>& how) {
    for (const PressRecord& r : room_.records().all())
        if (r.id == id_) {
            PressRecord next = r;
            how(next);
            if (next != r) room_.records().amend(std::move(next));
            return;
        }
}

void RecordPage::show_record(const PressRecord* r) {
    setVisible(r != nullptr);
    if (r == nullptr) return;
    const bool other = id_ != r->id;
    id_ = r->id;
    const Order& order = room_.order();
    const auto& photos = order.photographs.all();
    photo_kept_->setVisible(std::any_of(photos.begin(), photos.end(), [&](const KeptPhoto& k) { return k.record == r->id; }));
    const Decoration* d = find_decoration(order, r->design);
    const BlankStyle* s = find_style(order, r->style);
    const Press* p = find_press(order, r->press);
    title_->setText(QStringLiteral("%1, %2 %3")
                        .arg(d == nullptr ? qt(r->design) : qt(d->name), s == nullptr ? qt(r->style) : qt(s->name), qt(r->size)));
    when_->setText(qt(r->at.substr(0, 16)).replace('T', ' ') + (r->hands.empty() ? QString() : QStringLiteral(", ") + qt(r->hands)));
    where_->setText((p == nullptr ? qt(r->press) : qt(p->name)) + (r->platen.empty() ? QString() : QStringLiteral(", ") + qt(r->platen)));
    QStringList acts;
    for (const ActDone& a : r->acts)
        if (a.asked > 0)
            acts << tr("%1 %2 s at %3%4")
                        .arg(said(step_name(a.kind)), figure(a.seconds, 1), qt(heat_words(a.asked, order.press_run.fahrenheit)),
                             a.celsius > 0 ? tr(" (it was %1)").arg(qt(heat_words(a.celsius, order.press_run.fahrenheit))) : QString());
    acts_->setText(acts.join(QStringLiteral("; ")));
    acts_->setVisible(!acts.isEmpty());
    landed_->setText(r->landing ? tr("piece %1").arg(r->landing->piece > 0 ? r->landing->piece : r->first) : tr("not measured"));
    if (other)
        for (QWidget* w : std::initializer_list<QWidget*>{aside_, down_, washes_, cause_, remark_, after_}) w->clearFocus();
    const auto show = [](NumberField* f, const std::optional<double>& v) { v ? f->show_number(*v) : f->show_text({}); };
    show(aside_, r->landing ? r->landing->aside : std::nullopt);
    show(down_, r->landing ? r->landing->down : std::nullopt);
    set_items(outcome_, choices(outcome_count, [](int i) { return outcome_name(Outcome(i)); }), std::to_string(int(r->outcome)));
    set_items(mended_, choices(mended_count, [](int i) { return mended_name(Mended(i)); }), std::to_string(int(r->mended)));
    set_items(proof_, choices(proof_count, [](int i) { return proof_name(Proof(i)); }), std::to_string(int(r->proof)));
    patches_->setVisible(r->proof == Proof::patches);
    for (std::size_t k = 0; k < corners_.size(); ++k) corners_[k]->setChecked((r->patches >> k & 1U) != 0);
    cause_->show_text(qt(r->cause));
    remark_->show_text(qt(r->remark));
    show(washes_, r->wash ? std::optional<double>(r->wash->washes) : std::nullopt);
    after_->show_text(r->wash ? qt(r->wash->changed) : QString());
    kept_->setText(r->rehearsal ? tr("From a rehearsal: it teaches nothing by itself.") : QString());
    kept_->setVisible(r->rehearsal);
}

}  // namespace orthema::app
