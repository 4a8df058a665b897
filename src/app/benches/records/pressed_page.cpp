#include "app/benches/records/pressed_page.h"

#include <QFileInfo>

#include <cmath>
#include <numbers>

#include "app/widgets/speech.h"
#include "app/photos/kept_photo.h"
#include "core/order/gang.h"
#include "core/records/of_load.h"
#include "files/design_picture.h"

namespace orthema::app {

namespace {

constexpr double degrees = 180 / std::numbers::pi;

/// Pixels of the design that is looked for: two a mm, fewer where it is large.
double px_a_mm(const Rect& ink) { return std::min(2.0, 700 / std::max(ink.width(), ink.height())); }

/// What belongs to a record in the order that lies open; nothing where it is of another.
struct Pressed {
    const BlankStyle* style = nullptr;
    const Decoration* design = nullptr;
    const DecorationFit* fit = nullptr;
    const SizeFit* size = nullptr;
    const Ground* ground = nullptr;
    explicit operator bool() const { return ground != nullptr; }
};

Pressed pressed_of(const Workroom& room, const PressRecord& r) {
    Pressed out;
    const Order& order = room.order();
    out.style = find_style(order, r.style);
    out.design = find_decoration(order, r.design);
    if (!holds_job(order, r.job) || out.style == nullptr || !out.style->chart.contains(r.size) || out.design == nullptr) return out;
    out.fit = find_fit(room.plan(), r.design);
    out.size = out.fit == nullptr ? nullptr : find_size(*out.fit, r.size);
    out.ground = out.size == nullptr ? nullptr : find_ground(*out.fit, r.size);
    return out;
}

BlankAsked blank_asked(const Pressed& of) { return app::blank_asked(*of.style, of.size->size, of.ground->panel.face); }

Rect moved(const Rect& r, Point by) { return {r.x0 + by.x, r.y0 + by.y, r.x1 + by.x, r.y1 + by.y}; }

}  // namespace

PressedPage::PressedPage(Workroom& room, PhotoView& view) : room_(room), view_(view) {
    bare();
    head(tr("Pressed piece, photographed"));
    of_ = note();
    says_ = note();
    says_->setObjectName(QStringLiteral("says of the piece"));
    says_->setProperty("strong", true);
    rule();
    figures_ = part();
    aside_ = figures_->text_row(tr("Aside"));
    down_ = figures_->text_row(tr("Down"));
    tilt_ = figures_->text_row(tr("Turned"));
    width_ = figures_->text_row(tr("Width"));
    wider_ = figures_->text_row(tr("Against plan"));
    beyond_ = figures_->note();
    beyond_->setProperty("strong", true);
    differs_ = figures_->note();
    sure_ = figures_->note();
    keep_ = push(tr("Keep as where it landed"), tr("These figures go to the record, as if they had been taped"), true);
    again_ = push(tr("Without my points"), tr("Takes away what was put on the outline by hand"));
    away_ = push(tr("Put away"), tr("Back to the records; the photograph stays where it is"));
    small_ = keep_button();
    connect(small_, &QPushButton::clicked, this, [this] {
        if (photo_) keep_or_leave(room_, *photo_, record_.id);
        refresh();
    });
    add(keep_);
    side_by_side({again_, away_});
    add(small_);
    connect(keep_, &QPushButton::clicked, this, [this] { keep(); });
    connect(again_, &QPushButton::clicked, this, [this] {
        photo_->by_hand.clear();
        measure();
    });
    connect(away_, &QPushButton::clicked, this, [this] {
        if (!photo_ || !photo_->busy) return put_away();
        stop_measuring(*photo_);
        refresh();
    });
    view_.by_hand = [this](std::vector<Point> points) {
        photo_->by_hand = std::move(points);
        measure();
    };
}

std::optional<QString> PressedPage::look(const PressRecord& record, const QString& path) {
    if (!holds_job(room_.order(), record.job)) return tr("This record is of another order: open that order first.");
    const Pressed of = pressed_of(room_, record);
    if (!of) return tr("The order no longer has this design or this size: there is no plan to measure against.");
    if (family_build(of.style->family) == Build::wrap) return tr("Where a print lies that goes round a wall is measured with a tape.");
    view_.show_photo(nullptr);
    record_ = record;
    photo_.emplace();
    photo_->path = path;
    photo_->style = record.style;
    photo_->size = record.size;
    measure();
    return std::nullopt;
}

bool PressedPage::look_at_kept(const PressRecord& record) {
    for (const KeptPhoto& k : room_.order().photographs.all()) {
        if (k.record != record.id) continue;
        auto one = to_look_at(room_, k);
        if (!one) continue;
        view_.show_photo(nullptr);
        record_ = record;
        photo_ = std::move(*one);
        landing_.reset();
        measure_photo(room_.jobs(), *photo_, {}, std::nullopt, [this](const TapedPhoto& photo) { found(photo); });
        refresh();
        return true;
    }
    return false;
}

void PressedPage::measure() {
    const Pressed of = pressed_of(room_, record_);
    if (!of || !photo_) return;
    photo_->busy = true;
    photo_->taken = false;
    landing_.reset();
    const BlankAsked blank = blank_asked(of);
    PieceAsked asked;
    asked.picture = design_picture(*of.design, *of.size, room_.art(), px_a_mm(shown_ink(*of.size)));
    // from where nothing of it has slipped, on this piece
    asked.planned = [blank, size = *of.size](const BlankSeen& seen) {
        const Landing off = landing_of(taped_on(measured_panel(blank, seen), size.ink, 0), size, {});
        return moved(shown_ink(size), {-off.aside.value_or(0), -off.down.value_or(0)});
    };
    measure_photo(room_.jobs(), *photo_, blank, std::move(asked), [this](const TapedPhoto& photo) { found(photo); });
    refresh();
}

void PressedPage::found(const TapedPhoto& photo) {
    if (!photo_ || photo_->path != photo.path) return;  // another was asked for since
    take_found(*photo_, photo);
    landing_.reset();
    const Pressed of = pressed_of(room_, record_);
    if (of && photo_->design && photo_->fault.isEmpty() && photo_->blank) {
        const DesignSeen& seen = *photo_->design;
        const Rect& shown = shown_ink(*of.size);
        const Rect& whole = of.size->ink;  // of a lettering the field, about which the words stand as planned
        const Point half{whole.width() / 2 * seen.width / shown.width(), whole.height() / 2 * seen.height / shown.height()};
        const Point middle = seen.middle + (whole.centre() - shown.centre());
        const Rect ink{middle.x - half.x, middle.y - half.y, middle.x + half.x, middle.y + half.y};
        Landing l = landing_of(taped_on(measured_panel(blank_asked(of), *photo_->blank), ink, std::remainder(seen.angle, std::numbers::pi)),
                               *of.size, tape_asks(*of.design, *of.fit, *of.size, room_.order().unit));
        l.piece = record_.landing && record_.landing->piece > 0 ? record_.landing->piece : record_.first;
        const auto rounded = [](std::optional<double>& v, double to) {
            if (v) v = std::round(*v / to) * to;
        };
        rounded(l.aside, 0.1);
        rounded(l.down, 0.1);
        rounded(l.tilt, 0.05);
        rounded(l.wider, 0.1);
        landing_ = l;
    }
    refresh();
}

void PressedPage::keep() {
    if (!landing_) return;
    for (const PressRecord& r : room_.records().all())
        if (r.id == record_.id) {
            PressRecord next = r;
            next.landing = landing_;
            record_ = next;
            room_.records().amend(std::move(next));
            break;
        }
    photo_->taken = true;
    room_.say({tr("Kept with the record: where it landed, from the photograph."), false, {}, {}});
    put_away();
}

void PressedPage::put_away() {
    view_.show_photo(nullptr);
    photo_.reset();
    landing_.reset();
    if (left) left();
}

void PressedPage::refresh() {
    view_.show_photo(photo());
    if (!photo_) return;
    const Reading reading = room_.order().unit;
    const Pressed of = pressed_of(room_, record_);
    of_->setText(
        of ? tr("%1 on %2, %3: %4").arg(qt(of.design->name), qt(of.style->name), qt(record_.size), QFileInfo(photo_->path).fileName())
           : QString());
    if (photo_->kept) of_->setText(QStringLiteral("%1, %2").arg(of ? qt(of.style->name) : qt(record_.style), qt(record_.size)));
    const DesignSeen* seen = photo_->design ? &*photo_->design : nullptr;
    says_->setText(photo_->busy               ? tr("Being measured.")
                   : !photo_->fault.isEmpty() ? photo_->fault
                   : photo_->kept    ? tr("Kept with the order, to be looked at: where it landed was read off the photograph itself.")
                   : seen == nullptr ? QString()
                   : seen->mirrored  ? tr("It reads mirrored: film or paper was printed the wrong way round.")
                   : std::abs(seen->angle) > 1 ? tr("It lies upside down.")
                                               : tr("Planned: dashed. As it landed: the full line."));
    figures_->setVisible(landing_.has_value() && seen != nullptr);
    if (landing_ && seen != nullptr) {
        const Landing& l = *landing_;
        const auto length = [&](double mm) { return qt(length_text(Length::from_mm(std::abs(mm)), reading)); };
        const auto off = [&](const std::optional<double>& mm, double error, const char* more, const char* less) {
            if (!mm) return tr("not seen");
            const QString by =
                std::abs(*mm) < 0.05 ? tr("as planned") : QStringLiteral("%1 %2").arg(length(*mm), tr(*mm > 0 ? more : less));
            return QStringLiteral("%1 ± %2").arg(by, error_text(error, reading));
        };
        aside_->setText(off(l.aside, seen->middle_error.x, noted("to your right"), noted("to your left")));
        down_->setText(off(l.down, seen->middle_error.y, noted("too low"), noted("too high")));
        const double turned = std::remainder(seen->angle, std::numbers::pi) * degrees;
        tilt_->setText(QStringLiteral("%1 ± %2°")
                           .arg(std::abs(turned) < 0.05 ? tr("not at all")
                                                        : QStringLiteral("%1° %2")
                                                              .arg(fixed(std::abs(turned), 1))
                                                              .arg(turned > 0 ? tr("clockwise") : tr("against the clock")))
                           .arg(fixed(seen->angle_error * degrees, 1)));
        width_->setText(QStringLiteral("%1 ± %2").arg(length(seen->width), error_text(seen->width_error, reading)));
        const double wider = l.wider.value_or(0);
        wider_->setText(
            std::abs(wider) < 0.1
                ? tr("as wide")
                : QStringLiteral("%1 % %2").arg(fixed(std::abs(wider), 1)).arg(tr(wider > 0 ? noted("wider") : noted("narrower"))));
        QStringList beyond;
        if (l.across > 0 && std::abs(l.aside.value_or(0)) > l.across) beyond << tr("%1 aside").arg(length(l.across));
        if (l.along > 0 && std::abs(l.down.value_or(0)) > l.along) beyond << tr("%1 up or down").arg(length(l.along));
        beyond_->setText(tr("Its card allows %1.").arg(beyond.join(tr(" and "))));
        beyond_->setVisible(!beyond.isEmpty());
        QStringList differs;
        if (!seen->missing.empty())
            differs << tr("without ink at %1 (%2 % of it)")
                           .arg(counted(seen->missing.size(), "place"))
                           .arg(fixed(std::max(0.1, 100 * seen->missing_share), 1));
        if (!seen->more.empty()) differs << tr("something more at %1").arg(counted(seen->more.size(), "place"));
        differs_->setText(differs.isEmpty() ? tr("Nothing of the design is missing, as far as it can be seen.")
                                            : tr("Against the design: %1. Marked on the picture; whether it matters is yours to say.")
                                                  .arg(differs.join(QStringLiteral(", "))));
        sure_->setText(tr("Nineteen of twenty lie within what stands after ±. Where the outline lies wrong, drag it to the piece's edge."));
    }
    keep_->setEnabled(landing_.has_value() && !photo_->busy);
    show_on(*small_, room_.order(), &*photo_, record_.id);
    again_->setEnabled(!photo_->by_hand.empty() && !photo_->busy);
    away_->setText(photo_->busy ? tr("Stop") : tr("Put away"));
}

}  // namespace orthema::app
