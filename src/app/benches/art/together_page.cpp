#include "app/benches/art/together_page.h"

#include <QCheckBox>
#include <QComboBox>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/art/colour_choice.h"
#include "core/order/edit.h"
#include "core/order/roster.h"

namespace orthema::app {

namespace {

/// The art of the order that a print can be put together from.
std::vector<std::pair<std::string, QString>> grounds_in(const Order& order) {
    std::vector<std::pair<std::string, QString>> out;
    for (const Art& a : order.art) {
        const bool personal = a.lettering && a.lettering->words.find('{') != std::string::npos;
        if (!a.together && !personal) out.emplace_back(a.id, qt(a.name));
    }
    return out;
}

const std::vector<std::pair<std::string, QString>>& levels() {
    static const std::vector<std::pair<std::string, QString>> all{
        {"start", tr("from the left")}, {"middle", tr("from the middle")}, {"end", tr("from the right")}};
    return all;
}
const std::vector<std::pair<std::string, QString>>& uprights() {
    static const std::vector<std::pair<std::string, QString>> all{
        {"start", tr("from the top")}, {"middle", tr("from the middle")}, {"end", tr("from the bottom")}};
    return all;
}

/// A blank's key in the box: style, size.
std::string blank_key(const std::string& style, const std::string& size) { return style + "\n" + size; }

std::vector<std::pair<std::string, QString>> blanks_in(const Order& order) {
    std::vector<std::pair<std::string, QString>> out;
    std::set<std::string> known;
    const auto add = [&](const BlankStyle& s, const std::string& size) {
        if (known.insert(blank_key(s.id, size)).second && !style_fault(s))
            out.emplace_back(blank_key(s.id, size), s.sizes.size() == 1 ? qt(s.name) : qt(s.name) + ", " + qt(size));
    };
    for (const OrderLine& l : order.lines.all())  // what is ordered first
        if (const BlankStyle* s = find_style(order, l.style); s != nullptr && size_index(*s, l.size) >= 0) add(*s, l.size);
    for (const BlankStyle& s : order.styles.all())
        for (const std::string& size : s.sizes) add(s, size);
    return out;
}

}  // namespace

TogetherPage::TogetherPage(Workroom& room, TogetherView& view) : room_(room), view_(view) {
    bare();
    head(tr("The face that it fills"));
    blank_ = choice_row(tr("Blank"), tr("Whose face is filled; on its other sizes the whole print is sized"));
    connect(blank_, &QComboBox::activated, this, &TogetherPage::take_blank);
    face_ = choice_row(tr("Face"), tr("Sides are the wearer's"));
    connect(face_, &QComboBox::activated, this, [this] {
        change(tr("another face"), [this](PutTogether& p) {
            const BlankStyle* style = find_style(room_.order(), p.style);
            for (const Face f : style == nullptr ? std::vector<Face>{} : family_faces(style->family))
                if (face_key(f) == chosen_id(face_)) p = made_for(p, *style, *style, p.size, f);
        });
    });
    bleed_ = length_row(tr("Bleed"), tr("Of the ground past the blank's edge; with a minus it stays inside, clear of loops and seams"));
    bleed_->entered = [this](Length v, bool) -> std::optional<QString> {
        if (v.mm() < -200 || v.mm() > 50) return tr("A bleed is at most 50 mm; with a minus the ground stays inside the edge.");
        change(tr("bleed"), [v](PutTogether& p) { p.bleed = v; });
        return std::nullopt;
    };
    clear_ = length_row(tr("Kept clear"), tr("What lies over it keeps so far from edges, loops and seams"));
    clear_->entered = [this](Length v, bool) -> std::optional<QString> {
        if (v.mm() < 0 || v.mm() > 200) return tr("Between 0 and 200 mm.");
        change(tr("kept clear"), [v](PutTogether& p) { p.clear = v; });
        return std::nullopt;
    };
    ground_ = choice_row(tr("Ground"), tr("The picture that fills the face; who is marked in it stays inside"));
    connect(ground_, &QComboBox::activated, this,
            [this] { change(tr("the ground"), [this](PutTogether& p) { p.ground = chosen_id(ground_); }); });
    plain_ = choice_row(tr("Colour"), tr("Of a plain ground, under its picture"));
    connect(plain_, &QComboBox::activated, this, [this] {
        const auto c = picked_colour(plain_, this);
        if (!c) return refresh();
        change(tr("colour of the ground"), [&](PutTogether& p) { p.plain = *c; });
    });
    rule();
    head(tr("Over it"));
    add_ = choice_row(tr("Picture"), tr("A picture or a lettering of the order, to lay over the rest"));
    add_->setObjectName(QStringLiteral("Picture to lay over"));
    lay_ = push(tr("Lay it over"), tr("On the middle of the face; then drag it, or type its place"), true);
    add(lay_);
    connect(lay_, &QPushButton::clicked, this, &TogetherPage::lay_over);
    which_ = choice_row(tr("Chosen"), tr("Topmost first; click it on the face, or Page up and Page down there"));
    connect(which_, &QComboBox::activated, this, [this](int i) {
        view_.choose(std::size_t(which_->count() - 1 - i));
        refresh();
    });
    chosen_ = part();
    up_ = push(tr("Up"), tr("Over the next one"));
    under_ = push(tr("Under"), tr("Under the one below"));
    off_ = push(tr("Take off"), tr("The picture stays in the order"));
    chosen_->side_by_side({up_, under_, off_});
    connect(up_, &QPushButton::clicked, this, [this] { raise(view_.chosen(), 1); });
    connect(under_, &QPushButton::clicked, this, [this] { raise(view_.chosen(), -1); });
    connect(off_, &QPushButton::clicked, this, [this] { take_off(view_.chosen()); });
    width_ = chosen_->length_row(tr("Width"), tr("Of its ink; its height follows"));
    width_->entered = [this](Length v, bool) -> std::optional<QString> {
        if (v.mm() < 2 || v.mm() > 3000) return tr("Between 2 mm and 3 m.");
        change_over(tr("width on the print"), [v](LaidOver& o) { o.width = v; });
        return std::nullopt;
    };
    const auto edge_choice = [this](const QString& name, const QString& why, From LaidOver::*which) {
        QComboBox* box = chosen_->choice_row(name, why);
        connect(box, &QComboBox::activated, this, [this, box, which] {
            const auto picture = [this](const LaidOver& o) { return art_aspect(room_.art(), drawn_id(room_.order(), o.picture)); };
            const auto loaded = room_.art().find(room_.selection().art);
            if (loaded == room_.art().end() || !loaded->second->together) return;
            const Rect face = loaded->second->together->face;
            const auto to = static_cast<From>(box->currentIndex());
            change_over(tr("measured from"), [&](LaidOver& o) {
                o = measured_from(o, which == &LaidOver::level ? to : o.level, which == &LaidOver::upright ? to : o.upright, picture(o),
                                  face);
            });
        });
        return box;
    };
    const auto away = [this](const QString& name, const QString& why, Length LaidOver::*which) {
        LengthField* field = chosen_->length_row(name, why);
        field->entered = [this, which](Length v, bool) -> std::optional<QString> {
            if (std::abs(v.mm()) > 3000) return tr("At most 3 m.");
            change_over(tr("place on the print"), [v, which](LaidOver& o) { o.*which = v; });
            return std::nullopt;
        };
        return field;
    };
    level_ = edge_choice(tr("Across"), tr("What its place is measured from; on other sizes it stays so"), &LaidOver::level);
    across_ = away(tr("… by"), tr("From that edge inwards; from the middle to the viewer's right"), &LaidOver::across);
    upright_ = edge_choice(tr("Down"), tr("What its height is measured from"), &LaidOver::upright);
    down_ = away(tr("… and by"), tr("From that edge inwards; from the middle downwards"), &LaidOver::down);
    degrees_ = chosen_->number_row(tr("Turned, degrees"), tr("Clockwise"), -180, 180, 1);
    degrees_->entered = [this](double v) { change_over(tr("turned"), [v](LaidOver& o) { o.degrees = v; }); };
    through_ = chosen_->tick(tr("See through its inside"), tr("What lies under it shows inside a firm edge"));
    connect(through_, &QCheckBox::clicked, this,
            [this](bool on) { change_over(tr("see through"), [on](LaidOver& o) { o.see_through = on; }); });
    letters_ = chosen_->part();
    tint_ = letters_->number_row(tr("Own colour, %"), tr("That stays inside; 0 leaves the edge alone"), 0, 100, 0);
    tint_->entered = [this](double v) { change_over(tr("own colour"), [v](LaidOver& o) { o.tint = v / 100; }); };
    edge_ = letters_->length_row(tr("Edge"), tr("How wide the firm edge is, inwards"));
    edge_->entered = [this](Length v, bool) -> std::optional<QString> {
        if (v.mm() < 0 || v.mm() > 50) return tr("Between 0 and 50 mm.");
        change_over(tr("edge"), [v](LaidOver& o) { o.edge = v; });
        return std::nullopt;
    };
    edge_colour_ = letters_->choice_row(tr("Its colour"), tr("Of the firm edge"));
    connect(edge_colour_, &QComboBox::activated, this, [this] {
        const auto c = picked_colour(edge_colour_, this);
        if (!c || !*c) return refresh();
        change_over(tr("colour of the edge"), [&](LaidOver& o) { o.edge_colour = **c; });
    });
    says_ = note();
    view_.picked = [this](std::size_t) { refresh(); };
    view_.changed = [this](std::size_t over, const LaidOver& to) {
        change(tr("place on the print"), [&](PutTogether& p) {
            if (over < p.over.size()) p.over[over] = to;
        });
    };
    view_.taken_off = [this](std::size_t over) { take_off(over); };
    view_.raised = [this](std::size_t over, int by) { raise(over, by); };
}

void TogetherPage::begin(Workroom& room) {
    const Order& order = room.order();
    PutTogether print;
    const auto fits = [&](const RunKey& run) {
        const BlankStyle* s = find_style(order, run.style);
        if (s == nullptr || style_fault(*s)) return false;
        const auto counts = counts_of(order, run);
        print.style = s->id;
        print.size = counts.empty() ? s->sizes.front() : counts.front().size;
        print.face = family_faces(s->family).front();
        return true;
    };
    const auto runs = room.runs();
    const auto whole = [&](const RunKey& run) {
        const BlankStyle* s = find_style(order, run.style);
        if (s == nullptr) return false;
        const auto all = locations_of(*s);
        return std::any_of(all.begin(), all.end(), [](Location l) { return l == Location::whole_front || l == Location::wrap_full; });
    };
    bool found = false;
    for (const RunKey& run : runs) found = found || (whole(run) && fits(run));
    for (const RunKey& run : runs) found = found || fits(run);
    if (!found) return room.notices().complain(tr("A print is put together for a blank: bring in a list or add a blank first."));
    Order next = order;
    const std::string id = enrol_together(next, print, spoken("Print put together"));
    Selection s = room.selection();
    s.art = id;
    room.edit(tr("a print put together"), std::move(next));
    room.select(s);
}

const Art* TogetherPage::art() const {
    const Art* a = find_art(room_.order(), room_.selection().art);
    return a == nullptr || !a->together ? nullptr : a;
}

void TogetherPage::change(const QString& what, const std::function<void(PutTogether&)>& how) {
    const Art* a = art();
    if (a == nullptr) return;
    PutTogether next = *a->together;
    how(next);
    room_.edit(what, with_together(room_.order(), a->id, next));
}

void TogetherPage::change_over(const QString& what, const std::function<void(LaidOver&)>& how) {
    change(what, [&](PutTogether& p) {
        if (view_.chosen() < p.over.size()) how(p.over[view_.chosen()]);
    });
}

void TogetherPage::take_blank() {
    change(tr("another blank"), [this](PutTogether& p) {
        const std::string key = chosen_id(blank_);
        const std::size_t at = key.find('\n');
        const BlankStyle* to = at == std::string::npos ? nullptr : find_style(room_.order(), key.substr(0, at));
        if (to == nullptr) return;
        const BlankStyle* was = find_style(room_.order(), p.style);
        const auto faces = family_faces(to->family);
        const Face face = std::find(faces.begin(), faces.end(), p.face) != faces.end() ? p.face : faces.front();
        p = made_for(p, was == nullptr ? *to : *was, *to, key.substr(at + 1), face);
    });
}

void TogetherPage::lay_over() {
    const Art* a = art();
    const auto loaded = a == nullptr ? room_.art().end() : room_.art().find(a->id);
    if (a == nullptr || chosen_id(add_).empty()) return;
    if (a->together->over.size() >= most_over) return room_.notices().complain(tr("A print is put together from at most 40 pictures."));
    LaidOver over;
    over.picture = chosen_id(add_);
    if (loaded != room_.art().end() && loaded->second->together) {
        // half the face, at most
        const Rect face = loaded->second->together->face;
        const double aspect = std::max(0.01, art_aspect(room_.art(), drawn_id(room_.order(), over.picture)));
        over.width = Length::from_mm(std::max(2.0, std::floor(std::min(face.width() / 2, face.height() / 2 / aspect))));
    }
    const std::size_t at = a->together->over.size();
    change(tr("lay a picture over"), [&](PutTogether& p) { p.over.push_back(over); });
    view_.choose(at);
    refresh();
}

void TogetherPage::raise(std::size_t over, int by) {
    const Art* a = art();
    if (a == nullptr || over >= a->together->over.size()) return;
    const std::size_t to = over + std::size_t(by);
    if (to >= a->together->over.size()) return;  // also below none
    change(by > 0 ? tr("over the next") : tr("under the one below"), [&](PutTogether& p) { std::swap(p.over[over], p.over[to]); });
    view_.choose(to);
    refresh();
}

void TogetherPage::take_off(std::size_t over) {
    change(tr("take a picture off"), [&](PutTogether& p) {
        if (over < p.over.size()) p.over.erase(p.over.begin() + static_cast<std::ptrdiff_t>(over));
    });
    if (over > 0) view_.choose(over - 1);
    refresh();
}

void TogetherPage::refresh() {
    const Art* a = art();
    if (a == nullptr) return;
    const Order& order = room_.order();
    const PutTogether& p = *a->together;
    set_items(blank_, blanks_in(order), blank_key(p.style, p.size));
    const BlankStyle* style = find_style(order, p.style);
    std::vector<std::pair<std::string, QString>> faces;
    for (const Face f : style == nullptr ? std::vector<Face>{} : family_faces(style->family))
        faces.emplace_back(face_key(f), said(face_name(f)));
    set_items(face_, faces, face_key(p.face));
    face_->setEnabled(faces.size() > 1);
    bleed_->show_length(p.bleed, order.unit);
    bleed_->setEnabled(p.face != Face::wrap);
    clear_->show_length(p.clear, order.unit);
    auto pictures = grounds_in(order);
    set_items(add_, pictures);
    lay_->setEnabled(!pictures.empty());
    pictures.insert(pictures.begin(), {std::string(), tr("no picture")});
    set_items(ground_, pictures, p.ground);
    show_colours(plain_, order, p.plain, true);
    if (view_.chosen() >= p.over.size() && !p.over.empty()) view_.choose(p.over.size() - 1);
    std::vector<std::pair<std::string, QString>> over;
    for (std::size_t i = p.over.size(); i-- > 0;) {
        const Art* picture = find_art(order, p.over[i].picture);
        over.emplace_back(std::to_string(i), QStringLiteral("%1  %2").arg(i + 1).arg(picture == nullptr ? tr("gone") : qt(picture->name)));
    }
    set_items(which_, over, std::to_string(view_.chosen()));
    which_->setEnabled(!over.empty());
    const bool any = view_.chosen() < p.over.size();
    chosen_->setVisible(any);
    if (any) {
        const LaidOver& o = p.over[view_.chosen()];
        width_->show_length(o.width, order.unit);
        set_items(level_, levels(), from_key(o.level));
        set_items(upright_, uprights(), from_key(o.upright));
        across_->show_length(o.across, order.unit);
        down_->show_length(o.down, order.unit);
        degrees_->show_number(o.degrees);
        through_->setChecked(o.see_through);
        letters_->setVisible(o.see_through);
        tint_->show_number(100 * o.tint);
        edge_->show_fine(o.edge, order.unit);
        show_colours(edge_colour_, order, o.edge_colour, false);
        up_->setEnabled(view_.chosen() + 1 < p.over.size());
        under_->setEnabled(view_.chosen() > 0);
    }
    QStringList says;
    for (const Finding& f : room_.findings())
        if (f.about.art == a->id && f.code.rfind("together-", 0) == 0) says << qt(finding_text(f, order.unit));
    says_->setText(says.join(QLatin1Char('\n')));
    view_.refresh();
}

}  // namespace orthema::app
