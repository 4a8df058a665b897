#include "app/benches/art/lettering_page.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/art/colour_choice.h"
#include "core/order/edit.h"
#include "core/order/roster.h"
#include "files/safe_file.h"

namespace orthema::app {

namespace {

constexpr const char* patterns[] = {"{name}", "{number}", "{initials}"};
constexpr double usual_field = 280;             ///< mm, where it is on no garment yet
constexpr std::uint64_t most_face = 32u << 20;  ///< bytes of a typeface

}  // namespace

LetteringPage::LetteringPage(Workroom& room) : room_(room) {
    bare();
    head(tr("What each garment gets"));
    kind_ = new Segments(tr("Words"), {tr("name"), tr("number"), tr("initials"), tr("own")});
    kind_->chosen = [this](int i) {
        change(tr("what each garment gets"), [i](Lettering& l) { l.words = i < 3 ? patterns[i] : spoken("{number} {name}"); });
    };
    add(kind_);
    pattern_ = new ValueField(tr("Words with fields"));
    pattern_->read_from_left();
    pattern_->setToolTip(tr("Fields stand in braces: {name}, {number}, {initials}, {note}; what stands beside them is on every garment"));
    pattern_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const std::string words = t.trimmed().toStdString();
        if (words.empty() || words.size() > 200) return tr("Type words with a field, such as {number} {name}.");
        change(tr("what each garment gets"), [&](Lettering& l) { l.words = words; });
        return std::nullopt;
    };
    add(pattern_);
    face_ = choice_row(tr("Typeface"), tr("Goes along inside the order, so that it reads the same everywhere"));
    narrow_ = choice_row(tr("Narrower one"), tr("Taken for names that are still too long when their letters have closed up"));
    connect(face_, &QComboBox::activated, this, [this] { pick_face(face_, false); });
    connect(narrow_, &QComboBox::activated, this, [this] { pick_face(narrow_, true); });
    letters_ = length_row(tr("Letter height"), tr("On the base size; it grows with the field"));
    letters_->entered = [this](Length l, bool) -> std::optional<QString> {
        auto next = with_letter_height(room_.order(), room_.selection().art, l, Length::from_mm(field_width()));
        if (!next) return refusal(next.error());
        room_.edit(tr("letter height"), std::move(*next));
        return std::nullopt;
    };
    capitals_ = tick(tr("All in capitals"), tr("However the list has them"));
    connect(capitals_, &QCheckBox::clicked, this, [this](bool on) { change(tr("capitals"), [on](Lettering& l) { l.capitals = on; }); });
    arch_ = number_row(tr("Arch, degrees"), tr("That the field's width spans on a circle; below 0 it hangs"), -180, 180, 0);
    arch_->entered = [this](double v) { change(tr("arch"), [v](Lettering& l) { l.arch = v; }); };
    spacing_ = number_row(tr("Spacing, %"), tr("Of the letter height, added between letters"), -50, 200, 1);
    spacing_->entered = [this](double v) { change(tr("spacing"), [v](Lettering& l) { l.spacing = v / 100; }); };
    gap_ = number_row(tr("Closest, %"), tr("Of the letter height: long names close up until their letters are this near"), 0, 100, 1);
    gap_->entered = [this](double v) { change(tr("closest letters"), [v](Lettering& l) { l.least_gap = v / 100; }); };
    squeeze_ =
        tick(tr("Still too long: narrower, not smaller"), tr("Keeps the height and stretches one axis; usually long names get smaller"));
    connect(squeeze_, &QCheckBox::clicked, this,
            [this](bool on) { change(tr("what long names do"), [on](Lettering& l) { l.squeeze = on; }); });
    digits_ = tick(tr("Single digits, joined at the press"), tr("Numbers are put together from a stock of 0 to 9"));
    connect(digits_, &QCheckBox::clicked, this, [this](bool on) { change(tr("single digits"), [on](Lettering& l) { l.digits = on; }); });
    colour_ = choice_row(tr("Colour"), tr("Of the letters"));
    connect(colour_, &QComboBox::activated, this, [this] {
        pick_colour(colour_, tr("colour of the letters"), [](Lettering& l, std::optional<Colour> c) { l.colour = c.value_or(l.colour); });
    });
    const auto rim = [](std::size_t at) {
        return [at](Lettering& l, std::optional<Colour> c) {
            if (!c) {
                l.rims.resize(std::min(l.rims.size(), at));
                return;
            }
            const double width = l.rims.empty() ? LetterRim{}.width : l.rims.front().width;
            while (l.rims.size() <= at) l.rims.push_back({*c, width});
            l.rims[at].colour = *c;
        };
    };
    rim_ = choice_row(tr("Outline"), tr("A further colour round the letters, printed with them"));
    connect(rim_, &QComboBox::activated, this, [this, rim] { pick_colour(rim_, tr("outline"), rim(0)); });
    second_ = choice_row(tr("One more"), tr("One more colour"));
    connect(second_, &QComboBox::activated, this, [this, rim] { pick_colour(second_, tr("second outline"), rim(1)); });
    rim_width_ = length_row(tr("Outline's width"), tr("On the base size, of each"));
    rim_width_->entered = [this](Length l, bool) -> std::optional<QString> {
        const Art* art = find_art(room_.order(), room_.selection().art);
        if (art == nullptr || !art->lettering) return std::nullopt;
        const double share = l.mm() / (field_width() * art->lettering->height);
        if (!(share > 0 && share <= 0.5)) return tr("An outline is at most half as wide as the letters are tall.");
        change(tr("outline's width"), [share](Lettering& x) {
            for (LetterRim& r : x.rims) r.width = share;
        });
        return std::nullopt;
    };
    says_ = note();
}

void LetteringPage::begin(Workroom& room) {
    const auto& faces = shipped_typefaces();
    for (const Typeface& f : faces) room.pictures().keep_typeface(f);
    Order next = room.order();
    ArtBytes bytes;
    const std::string id = enrol_lettering(next, bytes, Lettering{}, faces[0], &faces[1], spoken("Names"));
    room.edit(tr("a lettering"), std::move(next));
    Selection s = room.selection();
    s.art = id;
    room.select(s);
}

void LetteringPage::change(const QString& what, const std::function<void(Lettering&)>& how) {
    const Art* art = find_art(room_.order(), room_.selection().art);
    if (art == nullptr || !art->lettering) return;
    Lettering next = *art->lettering;
    how(next);
    room_.edit(what, with_lettering(room_.order(), art->id, next));
}

std::vector<Typeface> typefaces_in(const Order& order, const ArtBytes& files) {
    std::vector<Typeface> out = shipped_typefaces();
    std::set<std::string> known;
    for (const Typeface& f : out) known.insert(f.hash);
    const auto take = [&](const std::string& hash, const std::string& name) {
        const auto bytes = files.find(hash);
        if (!hash.empty() && bytes != files.end() && known.insert(hash).second) out.push_back({name, bytes->second, hash});
    };
    for (const Art& a : order.art) {
        if (a.word_picture) take(a.hash, a.word_picture->typeface);
        if (!a.lettering) continue;
        take(a.hash, a.lettering->typeface);
        take(a.lettering->narrow, a.lettering->narrow_name);
    }
    return out;
}

void LetteringPage::choose_face(const Typeface& face, bool narrow) {
    room_.pictures().keep_typeface(face);
    Order next = room_.order();
    for (Art& a : next.art)
        if (a.id == room_.selection().art && a.lettering) {
            if (narrow) {
                a.lettering->narrow = face.hash;
                a.lettering->narrow_name = face.name;
            } else {
                a.hash = face.hash;
                a.kind = kind_of(*face.file).value_or(ArtKind::ttf);
                a.lettering->typeface = face.name;
            }
        }
    room_.edit(narrow ? tr("narrower typeface") : tr("typeface"), std::move(next));
}

void LetteringPage::pick_face(QComboBox* box, bool narrow) {
    const QString which = box->currentData().toString();
    if (which == QStringLiteral("file")) {
        refresh();
        const QString path = QFileDialog::getOpenFileName(this, tr("A typeface"), {}, tr("Typefaces (*.ttf *.otf)"));
        if (!path.isEmpty()) take_file(path, narrow);
        return;
    }
    if (which.isEmpty()) return change(tr("no narrower typeface"), [](Lettering& l) { l.narrow = l.narrow_name = ""; });
    for (const Typeface& f : typefaces_in(room_.order(), room_.pictures().bytes()))
        if (qt(f.hash) == which) return choose_face(f, narrow);
    for (const SystemFace& f : faces_here_)
        if (qt(f.path) == which) return take_file(which, narrow, qt(f.name));
}

void LetteringPage::take_file(const QString& path, bool narrow, const QString& name) {
    auto bytes = read_file(path.toStdString(), most_face);
    if (!bytes) return room_.notices().complain(bytes.error());
    const auto kind = kind_of(*bytes);
    if (!kind || (*kind != ArtKind::ttf && *kind != ArtKind::otf))
        return room_.notices().complain(
            tr("%1 is not a typeface that can be used: take a TTF or OTF file.").arg(QFileInfo(path).fileName()));
    const Art* art = find_art(room_.order(), room_.selection().art);
    if (art == nullptr || !art->lettering) begin(room_);
    choose_face(typeface((name.isEmpty() ? QFileInfo(path).completeBaseName() : name).toStdString(), std::move(*bytes)), narrow);
}

void LetteringPage::pick_colour(QComboBox* box, const QString& what, const std::function<void(Lettering&, std::optional<Colour>)>& how) {
    const auto picked = picked_colour(box, this);
    if (!picked) return refresh();
    change(what, [&](Lettering& l) { how(l, *picked); });
}

double LetteringPage::field_width() const {
    for (const Decoration& d : room_.order().decorations)
        if (d.art == room_.selection().art) return std::max(1.0, d.sizing.base_width.mm());
    return usual_field;
}

void LetteringPage::refresh() {
    const Order& order = room_.order();
    const Art* art = find_art(order, room_.selection().art);
    if (art == nullptr || !art->lettering) return;
    if (!asked_faces_) {  // not before a lettering is looked at: reading them takes a while
        asked_faces_ = true;
        room_.jobs().background([this]() -> std::function<void()> {
            return [this, found = system_faces()] {
                faces_here_ = found;
                refresh();
            };
        });
    }
    const Lettering& l = *art->lettering;
    int kind = 3;
    for (int i = 0; i < 3; ++i)
        if (l.words == patterns[i]) kind = i;
    kind_->show_choice(kind);
    pattern_->setVisible(kind == 3);
    pattern_->show_text(qt(l.words));
    std::vector<std::pair<std::string, QString>> items, narrower{{"", tr("none")}};
    for (const Typeface& f : typefaces_in(room_.order(), room_.pictures().bytes())) {
        items.emplace_back(f.hash, qt(f.name));
        narrower.push_back(items.back());
    }
    items.emplace_back("file", tr("from a file…"));
    for (const SystemFace& f : faces_here_) items.emplace_back(f.path, qt(f.name));
    narrower.push_back(items.back());
    set_items(face_, items, art->hash);
    set_items(narrow_, narrower, l.narrow);
    letters_->show_length(Length::from_mm(l.height * field_width()), order.unit);
    capitals_->setChecked(l.capitals);
    arch_->show_number(l.arch);
    spacing_->show_number(l.spacing * 100);
    gap_->show_number(l.least_gap * 100);
    squeeze_->setChecked(l.squeeze);
    digits_->setChecked(l.digits);
    digits_->setVisible(l.words == patterns[1]);
    show_colours(colour_, order, l.colour, false);
    show_colours(rim_, order, l.rims.empty() ? std::nullopt : std::optional(l.rims[0].colour), true);
    show_colours(second_, order, l.rims.size() < 2 ? std::nullopt : std::optional(l.rims[1].colour), true);
    second_->setEnabled(!l.rims.empty());
    rim_width_->setEnabled(!l.rims.empty());
    rim_width_->show_length(Length::from_mm(l.rims.empty() ? 0 : l.rims.front().width * l.height * field_width()), order.unit);
    const bool named = std::any_of(order.lines.begin(), order.lines.end(), [](const OrderLine& line) { return is_person(line); });
    says_->setText(named ? QString()
                         : tr("Nobody is named yet: the list brings names and numbers in, or they are typed on the Order bench."));
    says_->setVisible(!named);
}

}  // namespace orthema::app
