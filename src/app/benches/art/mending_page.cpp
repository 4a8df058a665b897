#include "app/benches/art/mending_page.h"

#include <QCheckBox>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/art/art_view.h"
#include "app/widgets/theme.h"
#include "core/fitting/mendings.h"

namespace orthema::app {

namespace {

struct Said {
    const char *name, *why, *done;
};
constexpr Said mend_words[mend_kinds] = {
    {noted("Straighten"), noted("Turned until a line that you draw lies level or upright"), noted("straighten")},
    {noted("Crop"), noted("Only what lies in the box that you draw"), noted("crop")},
    {noted("Take the background out"), noted("From the edge inwards; the rim gets its true cover and loses the colour it was seen against"),
     noted("take the background out")},
    {noted("Clean specks away"), noted("What is smaller than the smallest thing that holds"), noted("clean specks away")},
    {noted("Open gaps"), noted("Only where they are narrower than the method keeps open"), noted("open gaps")},
    {noted("Thicken strokes"), noted("Only where they are thinner than the method holds"), noted("thicken strokes")},
    {noted("Harden soft edges"), noted("Ink of enough cover becomes solid, the rest clear"), noted("harden soft edges")},
    {noted("Soft ink as dots"), noted("Film cannot hold a tone: dots with cloth between them can stand for it"),
     noted("soft ink as dots")}};

bool at_a_width(MendKind k) { return k == MendKind::clean || k == MendKind::open || k == MendKind::thicken || k == MendKind::dots; }

}  // namespace

MendingPage::MendingPage(Workroom& room, ArtView& view) : room_(room), view_(view) {
    bare();
    head(tr("What is done to it, in this order"));
    for (int k = 0; k < mend_kinds; ++k) {
        const auto kind = static_cast<MendKind>(k);
        Row& r = row(kind);
        r.on = tick(tr(mend_words[k].name), tr(mend_words[k].why));
        connect(r.on, &QCheckBox::clicked, this, [this, kind](bool on) {
            const Art* a = art();
            if (a == nullptr) return;
            const QString what = tr(mend_words[static_cast<int>(kind)].done);
            if (on) return change(what, usual_mending(room_.order(), room_.plan(), a->id, kind));
            room_.pictures().mend(a->id, tr("take a mending back: ") + what, without_mending(a->mendings, kind));
        });
        if (kind == MendKind::straighten || kind == MendKind::crop) {
            QPushButton*& draw = kind == MendKind::straighten ? level_ : keep_;
            draw = kind == MendKind::straighten ? push(tr("Draw a line"), tr("Then drag along what should lie level or stand upright"))
                                                : push(tr("Draw the box"), tr("Then drag over what is kept"));
            draw->setCheckable(true);
            side_by_side({r.on, draw});
        }
        r.figures = part();
    }
    FigurePanel* p = row(MendKind::straighten).figures;
    degrees_ = p->number_row(tr("Degrees"), tr("Clockwise"), -most_straightened, most_straightened, 2);
    degrees_->entered = [this](double v) { change(MendKind::straighten, tr("straighten"), [v](Mending& m) { m.degrees = v; }); };
    const auto draws = [this](QPushButton* button, QPushButton* other, ArtView::Drawn what) {
        connect(button, &QPushButton::toggled, this, [this, other, what](bool on) {
            if (on) other->setChecked(false);
            if (on || !other->isChecked()) view_.set_drawing(on ? what : ArtView::Drawn::nothing);
        });
    };
    draws(level_, keep_, ArtView::Drawn::line);
    draws(keep_, level_, ArtView::Drawn::box);
    view_.levelled = [this](double degrees) {
        level_->setChecked(false);
        change(MendKind::straighten, tr("straighten"), [&](Mending& m) { m.degrees = std::round(degrees * 100) / 100; });
    };
    view_.kept = [this](Rect box) {
        keep_->setChecked(false);
        change(MendKind::crop, tr("crop"), [&](Mending& m) { m.keep = box; });
    };
    p = row(MendKind::background).figures;
    tolerance_ = p->number_row(tr("Within, %"), tr("So near to the background's colour is background; 100 is from black to white"), 0,
                               100 * most_tolerance, 1);
    tolerance_->entered = [this](double v) {
        change(MendKind::background, tr("what is background"), [v](Mending& m) { m.tolerance = v / 100; });
    };
    counters_ = p->tick(tr("Closed places too"), tr("Inside letters and rings, where it is of the background's colour"));
    connect(counters_, &QCheckBox::clicked, this,
            [this](bool on) { change(MendKind::background, tr("closed places"), [on](Mending& m) { m.counters = on; }); });
    held(MendKind::clean, tr("Smaller than"), tr("Across and down"));
    held(MendKind::open, tr("At least"), tr("That the method keeps open"));
    held(MendKind::thicken, tr("At least"), tr("That the method holds"));
    p = row(MendKind::harden).figures;
    threshold_ = p->number_row(tr("Ink from, %"), tr("Of full cover; less keeps more of a glow"), 2, 98, 0);
    threshold_->entered = [this](double v) { change(MendKind::harden, tr("what is ink"), [v](Mending& m) { m.threshold = v / 100; }); };
    p = row(MendKind::dots).figures;
    apart_ = p->length_row(tr("Apart"), tr("From the middle of one dot to the next"));
    apart_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0.2 || l.mm() > most_held) return tr("It lies between 0.2 and 10 mm.");
        change(MendKind::dots, tr("dots apart"), [l](Mending& m) { m.apart = l; });
        return std::nullopt;
    };
    held(MendKind::dots, tr("Smallest dot"), tr("And the smallest hole between dots"));
    dpi_ = p->number_row(tr("Print's dpi"), tr("Dots are made of the print's own pixels, so no second pattern arises"), least_dots_dpi,
                         most_dots_dpi, 0);
    dpi_->entered = [this](double v) { change(MendKind::dots, tr("the print's dpi"), [v](Mending& m) { m.dpi = v; }); };
    wide_ = part();
    at_ = wide_->length_row(tr("Printed so wide"),
                            tr("What is too thin is judged at this width; from its smallest use, for dots its largest"));
    at_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 1 || l.mm() > 5000) return tr("It lies between 1 mm and 5 m.");
        const Art* a = art();
        if (a == nullptr) return std::nullopt;
        std::vector<Mending> all = a->mendings;
        for (Mending& m : all)
            if (at_a_width(m.kind)) m.at = l;
        room_.pictures().mend(a->id, tr("width of mending"), all);
        return std::nullopt;
    };
    says_ = note();
}

LengthField* MendingPage::held(MendKind kind, const QString& name, const QString& why) {
    LengthField* field = row(kind).figures->length_row(name, why);
    field->entered = [this, kind](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0.05 || l.mm() > most_held) return tr("It lies between 0.05 and 10 mm.");
        change(kind, tr(mend_words[static_cast<int>(kind)].done), [l](Mending& m) { m.least = l; });
        return std::nullopt;
    };
    return least_[static_cast<std::size_t>(kind)] = field;
}

const Art* MendingPage::art() const {
    const Art* a = find_art(room_.order(), room_.selection().art);
    return a == nullptr || a->lettering ? nullptr : a;
}

void MendingPage::change(const QString& what, const Mending& mending) {
    const Art* a = art();
    if (a != nullptr) room_.pictures().mend(a->id, what, with_mending(a->mendings, mending));
}

void MendingPage::change(MendKind kind, const QString& what, const std::function<void(Mending&)>& how) {
    const Art* a = art();
    if (a == nullptr) return;
    const Mending* now = find_mending(a->mendings, kind);
    Mending m = now != nullptr ? *now : usual_mending(room_.order(), room_.plan(), a->id, kind);
    how(m);
    change(what, m);
}

void MendingPage::leave() {
    level_->setChecked(false);
    keep_->setChecked(false);
}

void MendingPage::refresh() {
    const Art* a = art();
    setEnabled(a != nullptr && room_.art().contains(a->id));
    if (a == nullptr) return;
    bool asked[mend_kinds] = {};
    for (const Finding& f : room_.findings())
        if (const auto offer = mending_for(room_.order(), room_.plan(), f); offer && offer->art == a->id)
            asked[static_cast<std::size_t>(offer->mending.kind)] = true;
    const Mending* wide = nullptr;
    int any_asked = 0;
    for (int k = 0; k < mend_kinds; ++k) {
        const auto kind = static_cast<MendKind>(k);
        const Mending* m = find_mending(a->mendings, kind);
        Row& r = row(kind);
        r.on->setChecked(m != nullptr);
        const bool wanted = asked[k] && m == nullptr;
        any_asked += wanted ? 1 : 0;
        r.on->setText(tr(mend_words[k].name) + (wanted ? tr("  · asked for") : QString()));
        r.figures->setVisible(m != nullptr && kind != MendKind::crop);
        if (m != nullptr && least_[k] != nullptr) least_[k]->show_fine(m->least, room_.order().unit);
        if (m != nullptr && at_a_width(kind)) wide = m;
    }
    const auto figure = [&](MendKind kind) {
        const Mending* m = find_mending(a->mendings, kind);
        Mending none;
        none.kind = kind;
        return m != nullptr ? *m : none;
    };
    degrees_->show_number(figure(MendKind::straighten).degrees);
    tolerance_->show_number(100 * figure(MendKind::background).tolerance);
    counters_->setChecked(figure(MendKind::background).counters);
    threshold_->show_number(100 * figure(MendKind::harden).threshold);
    apart_->show_fine(figure(MendKind::dots).apart, room_.order().unit);
    dpi_->show_number(figure(MendKind::dots).dpi);
    wide_->setVisible(wide != nullptr);
    if (wide != nullptr) at_->show_length(wide->at, room_.order().unit);
    QString says = room_.pictures().mending() ? tr("Being mended…")
                   : any_asked > 0            ? tr("A finding asks for what is marked: tick it, and look at both sides.")
                                              : tr("The file stays as it is. Each mending can be taken back by itself.");
    const auto shown = room_.art().find(a->id);
    if (shown != room_.art().end() && !a->mendings.empty() && !room_.pictures().mending() &&
        (a->kind == ArtKind::svg || a->kind == ArtKind::pdf))
        says += shown->second->facts.vector ? tr(" It is still a drawing, sharp at any size.")
                                            : tr(" It is made of pixels now, no longer a drawing.");
    says_->setText(says);
}

}  // namespace orthema::app
