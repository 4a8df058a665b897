#include "app/benches/blanks/blank_pages.h"

#include <QDate>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QTimer>

#include <cmath>

#include "app/widgets/choice_box.h"
#include "app/widgets/speech.h"
#include "app/benches/blanks/blanks_bench.h"
#include "app/benches/blanks/photo_page.h"
#include "app/benches/blanks/tape_drawing.h"
#include "app/session/workroom.h"

namespace orthema::app {

namespace {

constexpr int listed = 5;

}  // namespace

MeasurePage::MeasurePage(BlanksBench& bench, Workroom& room) : bench_(bench), room_(room) {
    bare();
    head(tr("What you type is"));
    mode_ = new Segments(tr("What you type is"), {tr("on the tape"), tr("published")});
    mode_->setToolTip(tr("A figure from the tape is one more piece measured; a published one corrects the size chart"));
    mode_->show_choice(0);
    add(mode_);
    rule();
    head(tr("Measure first"));
    for (int i = 0; i < listed; ++i) {
        auto* b = push(QString(), tr("Goes there and opens the figure"));
        b->setObjectName(QStringLiteral("measure first %1").arg(i + 1));
        b->setStyleSheet(QStringLiteral("text-align:left; padding:3px 8px; font-size:12px;"));
        connect(b, &QPushButton::clicked, this, [this, i] {
            if (std::size_t(i) < list_.size()) take(list_[std::size_t(i)]);
        });
        add(b);
        first_.push_back(b);
    }
    more_ = note();
    start_ = push(tr("Go through the list"), tr("Opens one figure after the other; Enter goes on to the next"), true);
    start_->setCheckable(true);
    add(start_);
    connect(start_, &QPushButton::toggled, this, [this](bool on) {
        if (on) next();
    });
    photo_ = push(tr("From a photograph"),
                  tr("A picture of the blank with a photo card beside it gives all its figures; the Guides bench prints the card"));
    add(photo_);
    connect(photo_, &QPushButton::clicked, this, [this] {
        if (bench_.photos()->any()) return bench_.show_photos(true);
        bench_.photos()->ask();
    });
    rule();
    chosen_ = title();
    published_ = text_row(tr("Published"));
    taped_ = text_row(tr("Taped, mean"));
    differs_ = text_row(tr("Difference"));
    pieces_ = text_row(tr("Pieces, spread"));
    readings_ = note();
    last_back_ = push(tr("Last piece back"), tr("Takes the last reading of this figure back"));
    back_ = push(tr("As published"), tr("Takes back what was taped of this figure"));
    side_by_side({last_back_, back_});
    connect(last_back_, &QPushButton::clicked, this, [this] {
        const BlankStyle* style = bench_.style();
        if (style == nullptr) return;
        const Measure m = shown(*style);
        const Figure& f = style->chart.at(bench_.size()).at(m);
        std::vector<Length> left = f.readings;
        if (left.empty()) return;
        left.pop_back();
        bench_.keep(tr("take a reading back"), with_readings(*style, bench_.size(), m, left, f.date));
    });
    connect(back_, &QPushButton::clicked, this, [this] {
        const BlankStyle* style = bench_.style();
        if (style == nullptr) return;
        bench_.keep(tr("back to published"), with_readings(*style, bench_.size(), shown(*style), {}, ""));
    });
}

bool MeasurePage::session() const { return start_->isChecked(); }

void MeasurePage::take(const ToMeasure& what) {
    bench_.choose_size(what.size);
    // the drawing must show that size before the field can lie on its figure
    QTimer::singleShot(0, this, [this, m = what.measure] {
        bench_.drawing()->repaint();
        bench_.drawing()->type_on(m);
    });
}

void MeasurePage::next() {
    if (!session()) return;
    const auto list = bench_.to_measure();
    if (list.empty()) {
        start_->setChecked(false);
        room_.say({tr("Nothing more is worth a tape on this blank."), false, {}, {}});
        return;
    }
    take(list.front());
}

Measure MeasurePage::shown(const BlankStyle& style) const {
    const Measure m = bench_.drawing()->chosen().value_or(main_measure(style.family));
    return style.chart.at(bench_.size()).contains(m) ? m : main_measure(style.family);
}

void MeasurePage::refresh() {
    const BlankStyle* style = bench_.style();
    if (style == nullptr) return;
    const Reading reading = room_.order().unit;
    list_ = bench_.to_measure();
    for (int i = 0; i < listed; ++i) {
        const bool any = std::size_t(i) < list_.size();
        QPushButton* b = first_[std::size_t(i)];
        b->setVisible(any);
        if (!any) continue;
        const ToMeasure& t = list_[std::size_t(i)];
        const QString what = qt(t.size) + ", " + within(said(measure_short(t.measure))), text = what + QStringLiteral(": ") + said(t.why);
        b->setText(what + QStringLiteral("\n") + b->fontMetrics().elidedText(said(t.why), Qt::ElideRight, 205));
        b->setToolTip(text);
        b->setAccessibleName(text);
    }
    more_->setText(list_.empty()                        ? tr("Nothing more is worth a tape.")
                   : list_.size() > std::size_t(listed) ? tr("and %1 more").arg(list_.size() - std::size_t(listed))
                                                        : QString());
    const Measure m = shown(*style);
    const Figure& f = style->chart.at(bench_.size()).at(m);
    const auto text = [reading](Length l) { return qt(length_text(l, reading)); };
    chosen_->setText(qt(bench_.size()) + ", " + said(measure_short(m)));
    published_->setText(text(f.published.value_or(f.value)));
    taped_->setText(f.source == Source::measured ? text(f.value)
                    : f.source == Source::graded ? text(f.value) + tr(", graded")
                                                 : tr("not yet"));
    const Length off = f.value - f.published.value_or(f.value);
    differs_->setText(f.source == Source::published ? QStringLiteral("–") : (off.mm() > 0 ? QStringLiteral("+") : QString()) + text(off));
    const bool much = std::abs(off.mm()) > style->tolerance.mm();
    differs_->setStyleSheet(much ? QStringLiteral("color:#A32035;") : QString());
    differs_->setToolTip(much ? tr("More than the tolerance of this blank") : QString());
    pieces_->setText(f.readings.empty() ? QStringLiteral("–") : QStringLiteral("%1, %2").arg(f.readings.size()).arg(text(spread(f))));
    QStringList each;
    for (std::size_t i = 0; i < f.readings.size(); ++i) {
        const double error = i < f.errors.size() ? f.errors[i].mm() : 0;
        each << qt(length_text(f.readings[i], reading, false)) +
                    (error > 0 ? QStringLiteral(" ± ") + error_text(error, reading) : QString());
    }
    readings_->setText(each.isEmpty() ? QString()
                                      : tr("Read: %1%2").arg(each.join(", "), f.date.empty() ? QString() : tr(", on ") + qt(f.date)));
    photo_->setText(bench_.photos()->any() ? tr("The photographs") : tr("From a photograph"));
    last_back_->setEnabled(!f.readings.empty());
    back_->setEnabled(f.source == Source::measured);
}

FiguresPage::FiguresPage(BlanksBench& bench, Workroom& room) : bench_(bench), room_(room) {
    bare();
    for (int i = 0; i < measure_count; ++i) {
        const auto m = static_cast<Measure>(i);
        auto* row = new QWidget;
        auto* line = new QHBoxLayout(row);
        line->setContentsMargins(0, 0, 0, 0);
        line->setSpacing(4);
        auto* source = new QLabel;
        source->setFixedWidth(14);
        auto* name = new QLabel(said(measure_short(m)));
        name->setProperty("quiet", true);
        auto* field = new LengthField(said(measure_name(m)));
        field->setFixedWidth(78);
        field->entered = [this, m](Length v, bool) -> std::optional<QString> {
            if (v.mm() < 0 || v.mm() > 3000) return tr("A blank measures between 0 and 3 m.");
            bench_.typed(m, v);
            return std::nullopt;
        };
        line->addWidget(source);
        line->addWidget(name);
        line->addStretch(1);
        line->addWidget(field);
        add(row);
        fields_[m] = {row, field};
        sources_[m] = source;
    }
    differs_ = note();
    differs_->setProperty("caution", true);
}

void FiguresPage::refresh() {
    for (auto& [m, row] : fields_) row.first->setVisible(false);
    const BlankStyle* style = bench_.style();
    if (style == nullptr) return;
    const Reading reading = room_.order().unit;
    QStringList off;
    for (const Measure m : family_measures(style->family)) {
        const Figure& f = style->chart.at(bench_.size()).at(m);
        fields_[m].first->setVisible(true);
        fields_[m].second->show_length(f.value, reading);
        QString tip =
            QStringLiteral("%1: %2").arg(said(measure_name(m)), photographed(f) ? tr("photographed") : said(source_name(f.source)));
        if (f.source == Source::measured)
            tip += tr(" %1, published %2").arg(qt(f.date), qt(length_text(f.published.value_or(f.value), reading)));
        fields_[m].second->setToolTip(tip);
        sources_[m]->setText(f.source == Source::measured ? QStringLiteral("●")
                             : f.source == Source::graded ? QStringLiteral("◐")
                                                          : QStringLiteral("○"));
        sources_[m]->setStyleSheet(f.source == Source::measured ? QStringLiteral("color:#B5533C")
                                   : f.source == Source::graded ? QStringLiteral("color:#6A5590")
                                                                : QStringLiteral("color:#9A9F9F"));
        sources_[m]->setToolTip(tip);
        if (f.source == Source::measured && f.published && std::abs((f.value - *f.published).mm()) > style->tolerance.mm())
            off << tr("%1 by %2").arg(within(said(measure_short(m))), qt(length_text(f.value - *f.published, reading)));
    }
    differs_->setText(off.isEmpty() ? QString() : tr("Taped differs from published: ") + off.join(QStringLiteral(", ")));
}

FeaturesPage::FeaturesPage(BlanksBench& bench, Workroom& room) : bench_(bench), room_(room) {
    bare();
    head(tr("Another feature"));
    auto* line = new QHBoxLayout;
    kind_ = new ChoiceBox;
    kind_->setObjectName(QStringLiteral("Kind of feature"));
    kind_->setAccessibleName(tr("Kind of feature"));
    for (int i = 0; i < feature_kind_count; ++i) kind_->addItem(said(feature_kind_name(static_cast<FeatureKind>(i))));
    add_ = push(tr("Put it on"), tr("At its usual place; drag it on the drawing, or type its figures"), true);
    line->addWidget(kind_, 1);
    line->addWidget(add_);
    rows()->addLayout(line);
    connect(add_, &QPushButton::clicked, this, [this] {
        const BlankStyle* style = bench_.style();
        if (style == nullptr || style_fault(*style)) return;
        const std::vector<Face> faces = TapeDrawing::drawn_faces(style->family);
        const orthema::Panel panel = panel_of(*style, sample_size(*style), faces.front());  // the frame has a Panel of its own
        const StyleFeature f = usual_feature(static_cast<FeatureKind>(kind_->currentIndex()), faces.front(), panel.width, panel.length,
                                             family_build(style->family) == Build::upper_body);
        const BlankStyle next = with_feature(*style, f);
        now_ = int(next.features.size()) - 1;
        if (bench_.keep(tr("add a %1").arg(said(feature_kind_name(f.kind))), next)) choose(now_);
    });
    rule();
    one_ = part();
    which_ = one_->choice_row(tr("Feature"), tr("Click it on the drawing, or choose it here"));
    connect(which_, &QComboBox::activated, this, [this](int i) { choose(i); });
    face_ = one_->choice_row(tr("Lies on"), tr("Which face of the blank"));
    connect(face_, &QComboBox::activated, this, [this](int i) {
        const BlankStyle* style = bench_.style();
        if (style == nullptr) return;
        const auto faces = TapeDrawing::drawn_faces(style->family);
        if (i >= 0 && std::size_t(i) < faces.size())
            change(tr("face of a feature"), [face = faces[std::size_t(i)]](StyleFeature& f) { f.face = face; });
    });
    const auto field = [this](const char* name, const char* why, Length StyleFeature::*which, double least) {
        LengthField* f = one_->length_row(tr(name), tr(why));
        f->entered = [this, which, least, name](Length l, bool) -> std::optional<QString> {
            if (l.mm() < least || l.mm() > 3000) return tr("Type a length from %1 mm to 3 m.").arg(least);
            change(within(tr(name)), [which, l](StyleFeature& s) { s.*which = l; });
            return std::nullopt;
        };
        return f;
    };
    across_ = field(noted("Across"), noted("Its middle from the centre line, to your right; negative is to your left"),
                    &StyleFeature::across, -3000);
    down_ = field(noted("Down"), noted("Its top below the high point of the shoulder, or below the top edge"), &StyleFeature::down, -3000);
    width_ = field(noted("Feature width"), noted("On the sample size"), &StyleFeature::width, 1);
    height_ = field(noted("Feature height"), noted("On the sample size"), &StyleFeature::height, 1);
    raised_ = field(noted("Stands above"), noted("By which it stands above the cloth: from 1.5 mm on it must not lie under the platen"),
                    &StyleFeature::raised, 0);
    clearance_ = field(noted("Ink keeps away"), noted("Drawn dashed round it"), &StyleFeature::clearance, 0);
    growth_ = one_->number_row(tr("Size grows by"), tr("0: the same on every size, 1: in proportion. Its place always follows."), 0, 2, 2);
    growth_->entered = [this](double v) { change(tr("growth of a feature"), [v](StyleFeature& f) { f.growth = v; }); };
    says_ = note();
    out_ = push(tr("Take the feature off"), tr("Removes it from the style"));
    one_->add(out_);
    connect(out_, &QPushButton::clicked, this, [this] {
        const BlankStyle* style = bench_.style();
        if (style == nullptr || std::size_t(now_) >= style->features.size()) return;
        BlankStyle next = *style;
        next.features.erase(next.features.begin() + now_);
        now_ = 0;
        bench_.keep(tr("take a feature off"), next);
    });
}

void FeaturesPage::change(const QString& what, const std::function<void(StyleFeature&)>& how, const QString& gesture) {
    const BlankStyle* style = bench_.style();
    if (style == nullptr || now_ < 0 || std::size_t(now_) >= style->features.size()) return;
    BlankStyle next = *style;
    how(next.features[std::size_t(now_)]);
    bench_.keep(what, next, gesture);
}

void FeaturesPage::drag(int feature, Length right, Length down) {
    now_ = feature;
    change(
        tr("move a feature"),
        [right, down](StyleFeature& f) {
            f.across += right;
            f.down += down;
        },
        tr("drag a feature"));
}

void FeaturesPage::choose(int feature) {
    now_ = feature;
    bench_.drawing()->set_feature(feature);
    refresh();
}

void FeaturesPage::refresh() {
    const BlankStyle* style = bench_.style();
    if (style == nullptr) return;
    if (std::size_t(now_) >= style->features.size()) now_ = 0;
    const bool any = !style->features.empty();
    std::vector<std::pair<std::string, QString>> items;
    for (std::size_t i = 0; i < style->features.size(); ++i)
        items.emplace_back(std::to_string(i), QStringLiteral("%1 %2").arg(i + 1).arg(said(feature_kind_name(style->features[i].kind))));
    set_items(which_, items, std::to_string(now_));
    items.clear();
    for (const Face f : TapeDrawing::drawn_faces(style->family)) items.emplace_back(face_key(f), said(face_name(f)));
    one_->setVisible(any);
    says_->setText(any ? tr("Figures of the sample size, %1.").arg(said(sample_size(*style)))
                       : tr("This style has no features beyond those of its family."));
    set_items(face_, items, any ? face_key(style->features[std::size_t(now_)].face) : "");
    if (!any) return;
    const StyleFeature& f = style->features[std::size_t(now_)];
    const Reading reading = room_.order().unit;
    across_->show_length(f.across, reading);
    down_->show_length(f.down, reading);
    width_->show_length(f.width, reading);
    height_->show_length(f.height, reading);
    raised_->show_length(f.raised, reading);
    clearance_->show_length(f.clearance, reading);
    growth_->show_number(f.growth);
}

}  // namespace orthema::app
