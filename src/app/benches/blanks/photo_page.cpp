#include "app/benches/blanks/photo_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QDate>
#include <QFileDialog>
#include <QFileInfo>

#include <utility>

#include "app/widgets/speech.h"
#include "app/benches/blanks/blanks_bench.h"
#include "app/photos/kept_photo.h"
#include "core/records/lessons.h"
#include "core/records/photo_scale.h"

namespace orthema::app {

namespace {

constexpr std::size_t most_photos = 60;

}  // namespace

PhotoPage::PhotoPage(BlanksBench& bench, Workroom& room, PhotoView& view) : bench_(bench), room_(room), view_(view), folder_(room.jobs()) {
    bare();
    head(tr("From a photograph"));
    which_ = choice_row(tr("Photograph"), tr("One for each piece: the figures become their mean"));
    connect(which_, &QComboBox::activated, this, [this] { show_one(qt(chosen_id(which_))); });
    cups_ = part();
    cup_ = cups_->choice_row(tr("The cup"), tr("How it was photographed: either way its handle to one side"));
    cup_->addItems({tr("lies on its side"), tr("stands before the card")});
    connect(cup_, &QComboBox::activated, this, [this](int standing) {
        if (TapedPhoto* p = shown()) {
            p->standing = standing == 1;
            measure(*p);
        }
    });
    of_ = note();
    says_ = note();
    rule();
    list_ = part();
    for (int i = 0; i < measure_count; ++i) {
        const auto m = static_cast<Measure>(i);
        auto* t = list_->tick(QStringLiteral("photo ") + qt(measure_key(m)), tr("Taken as a reading of this piece"));
        t->setChecked(true);
        t->setMinimumHeight(21);
        ticks_[m] = t;
    }
    sure_ = note();
    scale_ = note();
    learn_ =
        push(tr("Take that off photographs"), tr("Of those that are measured from now on, in every order; Records shows it under Lessons"));
    add(learn_);
    connect(learn_, &QPushButton::clicked, this, [this] {
        if (const auto c = lesson()) room_.records().take(*c);
        refresh();
    });
    anew_ = push(tr("Measure as chosen"), tr("The photograph shows the blank and size that are chosen above"), true);
    add(anew_);
    connect(anew_, &QPushButton::clicked, this, [this] {
        TapedPhoto* p = shown();
        const BlankStyle* style = bench_.style();
        if (p == nullptr || style == nullptr) return;
        p->style = style->id;
        p->size = bench_.size();
        measure(*p);
    });
    take_ = push(tr("Take these figures"), tr("Each becomes one more piece measured, with its error"), true);
    again_ = push(tr("Without my points"), tr("Takes away what was put on the outline by hand"));
    away_ = push(tr("Put away"), tr("Takes this photograph off the list; its file stays where it is"));
    back_ = push(tr("Back to the tape"), tr("The drawing with its tapes; photographs stay on the list"));
    add(take_);
    side_by_side({again_, away_});
    keep_ = keep_button();
    connect(keep_, &QPushButton::clicked, this, [this] {
        if (const TapedPhoto* p = shown()) keep_or_leave(room_, *p, {});
        refresh();
    });
    add(keep_);
    another_ = push(tr("Another photograph…"), tr("Of one more piece, or of another size: choose that first"));
    connect(another_, &QPushButton::clicked, this, [this] { ask(); });
    add(another_);
    watch_ = push(folder_.offer(), tr("Photographs that come into it are measured as the blank and size that are chosen then"));
    add(watch_);
    add(back_);
    connect(watch_, &QPushButton::clicked, this, [this] {
        folder_.ask(this);
        refresh();
    });
    folder_.came = [this](const QStringList& paths) { bring_in(paths); };
    folder_.lost = [this](const QString& sentence) {
        room_.say({sentence, true, {}, {}});
        refresh();
    };
    connect(take_, &QPushButton::clicked, this, [this] { take(); });
    connect(again_, &QPushButton::clicked, this, [this] {
        if (TapedPhoto* p = shown()) {
            p->by_hand.clear();
            measure(*p);
        }
    });
    connect(away_, &QPushButton::clicked, this, [this] {
        if (TapedPhoto* p = shown(); p != nullptr && p->busy) {
            stop_measuring(*p);
            return refresh();
        }
        view_.show_photo(nullptr);
        photos_.remove_if([this](const TapedPhoto& p) { return p.path == shown_; });
        shown_ = photos_.empty() ? QString() : photos_.back().path;
        if (changed) changed();
        if (photos_.empty() && left) left();
        refresh();
    });
    connect(back_, &QPushButton::clicked, this, [this] {
        if (left) left();
    });
    view_.by_hand = [this](std::vector<Point> points) {
        if (TapedPhoto* p = shown()) {
            p->by_hand = std::move(points);
            measure(*p);
        }
    };
}

TapedPhoto* PhotoPage::shown() {
    for (TapedPhoto& p : photos_)
        if (p.path == shown_) return &p;
    return nullptr;
}

void PhotoPage::ask() {
    const QStringList paths = QFileDialog::getOpenFileNames(this, tr("Photographs of this blank"), {}, photo_choice());
    if (!paths.isEmpty()) bench_.take_pictures(paths);
}

std::vector<KeptPhoto> PhotoPage::kept_here() const {
    std::vector<KeptPhoto> out;
    if (const BlankStyle* style = bench_.style())
        for (const KeptPhoto& k : room_.order().photographs.all())
            if (k.style == style->id && k.record.empty() && room_.pictures().bytes().contains(k.hash)) out.push_back(k);
    return out;
}

void PhotoPage::show_one(const QString& id) {
    shown_ = id;
    if (shown() == nullptr)
        for (const KeptPhoto& k : kept_here())
            if (auto one = to_look_at(room_, k); one && one->path == id) {
                photos_.push_back(std::move(*one));
                measure(photos_.back());
                break;
            }
    refresh();
}

void PhotoPage::bring_in(const QStringList& paths) {
    const BlankStyle* style = bench_.style();
    if (style == nullptr) return;
    for (const QString& path : paths) {
        if (photos_.size() >= most_photos) {
            room_.say({tr("%1 photographs lie here already: put some away first.").arg(photos_.size()), true, {}, {}});
            break;
        }
        photos_.remove_if([&](const TapedPhoto& p) { return p.path == path; });
        TapedPhoto photo;
        photo.path = shown_ = path;
        photo.style = style->id;
        photo.size = bench_.size();
        photo.standing = cup_->currentIndex() == 1;
        photos_.push_back(std::move(photo));
        measure(photos_.back());
    }
    if (changed) changed();
    refresh();
}

void PhotoPage::measure(TapedPhoto& photo) {
    const BlankStyle* style = find_style(room_.order(), photo.style);
    if (style == nullptr || !style->chart.contains(photo.size)) return;
    photo.busy = true;
    photo.taken = false;
    measure_photo(room_.jobs(), photo, blank_asked(*style, photo.size, family_faces(style->family).front()), std::nullopt,
                  [this](const TapedPhoto& found) {
                      for (TapedPhoto& p : photos_) {
                          if (p.path == found.path)
                              take_found(p, found);
                          else
                              p.photo.reset();  // of one at a time: they are large
                      }
                      refresh();
                  });
    refresh();
}

void PhotoPage::take() {
    TapedPhoto* p = shown();
    const BlankStyle* style = p == nullptr ? nullptr : find_style(room_.order(), p->style);
    if (style == nullptr || !p->blank || p->busy) return;
    const std::string today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    BlankStyle next = *style;
    const double factor = photo_factor(room_.order().corrections.all());
    int n = 0;
    for (const auto& [m, f] : p->blank->figures)
        if (ticks_.at(m)->isChecked() && next.chart[p->size].contains(m)) {
            const double tenth = std::round(f.mm / factor * 10) / 10;
            next = with_reading(next, p->size, m, Length::from_mm(tenth), today,
                                Length::from_mm(std::max(0.1, std::round(f.error * 10) / 10)));
            ++n;
        }
    if (n == 0 || !bench_.keep(tr("take %1 figures from a photograph").arg(n), next)) return;
    p->taken = true;
    room_.say({tr("%1 taken for %2, %3.").arg(counted(std::size_t(n), "figure"), qt(style->name), qt(p->size)), false, {}, {}});
    refresh();
}

std::optional<Correction> PhotoPage::lesson() const {
    for (const Correction& c : proposals({}, {}, room_.records().lessons(), room_.order()))
        if (c.kind == CorrectionKind::photo_scale) return c;
    return std::nullopt;
}

QString PhotoPage::scale_words() const {
    const auto per_cent = [](double by, const QString& more, const QString& less) {
        return QStringLiteral("%1 % %2").arg(figure(std::abs(by), 2), by > 0 ? more : less);
    };
    QString says;
    std::string since;
    for (const Correction& c : room_.order().corrections.all())
        if (c.kind == CorrectionKind::photo_scale) since = std::max(since, c.since);
    if (const double factor = photo_factor(room_.order().corrections.all()); factor != 1)
        says = per_cent(100 * (factor - 1), tr("is taken off"), tr("is put on")) + tr(", as your tape has taught. ");
    if (const auto seen = photo_scale(room_.order().styles, since))
        says += tr("Against your tape, photographs come out %1 (%2 measured both ways; between %3 and %4 %).")
                    .arg(per_cent(seen->by, tr("longer"), tr("shorter")), counted(std::size_t(seen->sizes), "size"),
                         figure(seen->sure.low, 2), figure(seen->sure.high, 2));
    return says;
}

void PhotoPage::refresh() {
    if (std::exchange(job_, room_.order().job) != room_.order().job && !photos_.empty()) {  // another order: its pieces are others
        view_.show_photo(nullptr);
        photos_.clear();
        shown_.clear();
        if (changed) changed();
        if (left) left();
    }
    const Reading reading = room_.order().unit;
    const double factor = photo_factor(room_.order().corrections.all());
    std::vector<std::pair<std::string, QString>> items;
    items.reserve(photos_.size());
    for (const TapedPhoto& p : photos_)
        if (!p.kept) items.emplace_back(p.path.toStdString(), QFileInfo(p.path).fileName() + (p.taken ? tr(", taken") : QString()));
    for (const KeptPhoto& k : kept_here()) {
        const bool here =
            std::any_of(photos_.begin(), photos_.end(), [&](const TapedPhoto& p) { return !p.kept && p.small_hash == k.hash; });
        if (!here) items.emplace_back(spoken("kept ") + k.hash, tr("%1, kept %2").arg(qt(k.size), qt(k.date)));
    }
    if (shown() == nullptr && !items.empty() && isVisible()) return show_one(qt(items.front().first));
    set_items(which_, items, shown_.toStdString());
    watch_->setText(folder_.offer());
    TapedPhoto* p = shown();
    view_.show_photo(p);
    const BlankStyle* style = p == nullptr ? nullptr : find_style(room_.order(), p->style);
    const bool cup = style != nullptr && family_build(style->family) == Build::wrap;
    cups_->setVisible(cup);
    if (cup) cup_->setCurrentIndex(p->standing ? 1 : 0);
    of_->setText(style == nullptr
                     ? QString()
                     : QStringLiteral("%1%2, %3.").arg(p->kept ? QString() : tr("Measured as "), qt(style->name), qt(p->size)));
    QString says;
    if (p != nullptr && p->busy)
        says = tr("Being measured.");
    else if (p != nullptr && !p->fault.isEmpty())
        says = p->fault;
    else if (p != nullptr && p->kept)
        says = tr("Kept with the order, to be looked at: its figures were read off the photograph itself.");
    else if (p != nullptr && p->table)
        says = tr("%1 found%2.")
                   .arg(counted(p->table->cards.size(), "card"),
                        p->by_hand.empty() ? QString() : tr(", %1 put by hand").arg(counted(p->by_hand.size(), "point")));
    says_->setText(says);
    const bool found = p != nullptr && p->blank && !p->blank->figures.empty() && style != nullptr;
    list_->setVisible(found);
    for (const auto& [m, tick] : ticks_) {
        const auto f = found ? p->blank->figures.find(m) : std::map<Measure, FigureSeen>::const_iterator{};
        const bool is = found && f != p->blank->figures.end() && style->chart.contains(p->size) && style->chart.at(p->size).contains(m);
        tick->setVisible(is);
        if (!is) continue;
        const Figure& chart = style->chart.at(p->size).at(m);
        const Length seen = Length::from_mm(f->second.mm / factor);
        Length off = seen - chart.published.value_or(chart.value);
        if (std::abs(off.mm()) >= 10) off = Length::from_mm(std::round(off.mm()));  // of another size, mostly
        tick->setText(QStringLiteral("%1  %2 ± %3  (%4%5)")
                          .arg(said(measure_short(m)), qt(length_text(seen, reading, false)), error_text(f->second.error, reading),
                               off.mm() > 0 ? QStringLiteral("+") : QString(), qt(length_text(off, reading, false))));
    }
    sure_->setText(found ? tr("In %1; nineteen of twenty lie within what stands after ±; in brackets against the chart. Where "
                              "the outline lies wrong, drag it to the blank's edge.")
                               .arg(reading == Unit::mm ? tr("mm") : tr("inches"))
                         : QString());
    scale_->setText(p != nullptr ? scale_words() : QString());
    scale_->setVisible(!scale_->text().isEmpty());
    learn_->setVisible(p != nullptr && lesson().has_value());
    const BlankStyle* chosen = bench_.style();
    const bool to_measure =
        p != nullptr && !p->kept && chosen != nullptr && (p->style != chosen->id || p->size != bench_.size() || p->stopped());
    anew_->setVisible(to_measure);
    anew_->setEnabled(to_measure && !p->busy);
    if (to_measure) anew_->setText(tr("Measure as %1, %2").arg(qt(chosen->name), qt(bench_.size())));
    take_->setVisible(!to_measure && (p == nullptr || !p->kept));
    take_->setEnabled(found && !p->busy && !p->taken);
    again_->setEnabled(p != nullptr && !p->by_hand.empty() && !p->busy);
    show_on(*keep_, room_.order(), p, {});
    away_->setEnabled(p != nullptr);
    away_->setText(p != nullptr && p->busy ? tr("Stop") : tr("Put away"));
}

}  // namespace orthema::app
