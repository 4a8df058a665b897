#include "app/benches/art/word_page.h"

#include <QCheckBox>
#include <QComboBox>

#include "app/widgets/speech.h"
#include "app/benches/art/lettering_page.h"
#include "core/order/edit.h"

namespace orthema::app {

namespace {

/// The pictures of the order that a letter can hold.
std::vector<std::pair<std::string, QString>> pictures_in(const Order& order) {
    std::vector<std::pair<std::string, QString>> out;
    for (const Art& a : order.art)
        if (is_picture(a)) out.emplace_back(a.id, qt(a.name));
    return out;
}

}  // namespace

WordPage::WordPage(Workroom& room, WordView& view) : room_(room), view_(view) {
    bare();
    head(tr("The word"));
    word_ = new ValueField(tr("Word of pictures"));
    word_->setToolTip(tr("Each letter is a place for a picture"));
    word_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const std::string text = t.trimmed().toStdString();
        if (text.empty() || t.trimmed().size() > int(most_places)) return tr("Type 1 to 40 letters.");
        change(tr("the word"), [&](WordPicture& w) { w.word = text; });
        return std::nullopt;
    };
    add(word_);
    face_ = choice_row(tr("Typeface"), tr("A bold one leaves the pictures most room"));
    connect(face_, &QComboBox::activated, this, &WordPage::pick_face);
    apart_ = number_row(tr("Apart, %"), tr("Of the letter height, to which letters close up"), 0, 100 * most_apart, 1);
    apart_->entered = [this](double v) { change(tr("letters apart"), [v](WordPicture& w) { w.apart = v / 100; }); };
    rim_ = number_row(tr("Rim, %"), tr("Of the letter height, that who matters keeps from the letter's edge"), 0, 100 * most_rim, 1);
    rim_->entered = [this](double v) { change(tr("rim"), [v](WordPicture& w) { w.rim = v / 100; }); };
    suggest_ = push(tr("Suggest pictures"),
                    tr("Puts the order's pictures where who is marked in them can be largest, all letters taken together"), true);
    add(suggest_);
    connect(suggest_, &QPushButton::clicked, this, &WordPage::suggest);
    rule();
    place_name_ = head(tr("This place"));
    shape_ = choice_row(tr("Shape"), tr("A shape as tall as the letters may stand in a letter's place"));
    std::vector<std::pair<std::string, QString>> shapes;
    shapes.reserve(place_shapes);
    for (int k = 0; k < place_shapes; ++k)
        shapes.emplace_back(place_key(static_cast<PlaceShape>(k)), said(place_name(static_cast<PlaceShape>(k))));
    set_items(shape_, shapes);
    connect(shape_, &QComboBox::activated, this, [this](int i) {
        change_place(tr("shape of a place"), [&](WordPlace& p) {
            p.shape = static_cast<PlaceShape>(i);
            if (p.shape == PlaceShape::outline && p.outline.empty()) p.outline = chosen_id(outline_);
        });
    });
    outlined_ = part();
    outline_ = outlined_->choice_row(tr("Outline of"), tr("A drawing of the order, by its outline"));
    connect(outline_, &QComboBox::activated, this,
            [this] { change_place(tr("outline of a place"), [this](WordPlace& p) { p.outline = chosen_id(outline_); }); });
    first_ = choice_row(tr("Picture"), tr("As sharp as it came, never stretched"));
    connect(first_, &QComboBox::activated, this, [this] {
        change_place(tr("picture of a letter"), [this](WordPlace& p) { p.first = {chosen_id(first_), {}}; });
    });
    shared_ = tick(tr("Two pictures share it"), tr("Along a line that can be dragged and turned"));
    connect(shared_, &QCheckBox::clicked, this,
            [this](bool on) { change_place(tr("share a letter"), [on](WordPlace& p) { p.shared = on; }); });
    sharing_ = part();
    second_ = sharing_->choice_row(tr("The other"), tr("On the other side of the line"));
    connect(second_, &QComboBox::activated, this, [this] {
        change_place(tr("picture of a letter"), [this](WordPlace& p) { p.second = {chosen_id(second_), {}}; });
    });
    degrees_ = sharing_->number_row(tr("Line, degrees"), tr("0 lies level, 90 stands upright"), -180, 180, 1);
    degrees_->entered = [this](double v) { change_place(tr("the line"), [v](WordPlace& p) { p.line.degrees = v; }); };
    mark_ = push(tr("Mark who matters"), tr("Then click two or more points in its picture: they stay inside the letter, with a rim"));
    mark_->setCheckable(true);
    alone_ = push(tr("By itself"), tr("As large as keeps who matters inside; forgets what was moved by hand"));
    side_by_side({mark_, alone_});
    connect(mark_, &QPushButton::toggled, this, [this] {
        if (marking_changed) marking_changed();
    });
    connect(alone_, &QPushButton::clicked, this,
            [this] { change_place(tr("picture by itself"), [](WordPlace& p) { p.first.at = p.second.at = std::nullopt; }); });
    says_ = note();
    view_.picked = [this](std::size_t) { refresh(); };
    view_.placed = [this](std::size_t place, bool second, const PictureAt& at) {
        change(tr("place a picture"), [&](WordPicture& w) {
            if (place < w.places.size()) (second ? w.places[place].second : w.places[place].first).at = at;
        });
    };
    view_.lined = [this](std::size_t place, const SharingLine& line) {
        change(tr("the line"), [&](WordPicture& w) {
            if (place < w.places.size()) w.places[place].line = line;
        });
    };
    view_.swapped = [this](std::size_t from, std::size_t to) {
        change(tr("swap two pictures"), [&](WordPicture& w) {
            if (std::max(from, to) >= w.places.size()) return;
            std::swap(w.places[from].first.picture, w.places[to].first.picture);
            w.places[from].first.at = w.places[to].first.at = std::nullopt;
        });
    };
    view_.taken_out = [this](std::size_t place, bool second) {
        change(tr("take a picture out of its letter"), [&](WordPicture& w) {
            if (place < w.places.size()) (second ? w.places[place].second : w.places[place].first) = {};
        });
    };
}

void WordPage::begin(Workroom& room) {
    const Typeface& face = shipped_typefaces().back();
    room.pictures().keep_typeface(face);
    Order next = room.order();
    ArtBytes bytes;
    const std::string id = enrol_word_picture(next, bytes, WordPicture{}, face, spoken("Word picture"));
    Selection s = room.selection();
    s.art = id;
    room.edit(tr("a word picture"), std::move(next));
    room.select(s);
}

const Art* WordPage::art() const { return art_for(room_.selection().art); }

void WordPage::change(const QString& what, const std::function<void(WordPicture&)>& how) {
    const Art* a = art();
    if (a == nullptr) return;
    WordPicture next = *a->word_picture;
    how(next);
    suggested_.clear();
    room_.edit(what, with_word_picture(room_.order(), a->id, next));
}

void WordPage::change_place(const QString& what, const std::function<void(WordPlace&)>& how) {
    change(what, [&](WordPicture& w) {
        if (view_.chosen() < w.places.size()) how(w.places[view_.chosen()]);
    });
}

void WordPage::pick_face(int) {
    const Art* a = art();
    if (a == nullptr) return;
    for (const Typeface& f : typefaces_in(room_.order(), room_.pictures().bytes())) {
        if (f.hash != chosen_id(face_)) continue;
        room_.pictures().keep_typeface(f);
        Order next = room_.order();
        for (Art& one : next.art)
            if (one.id == a->id) {
                one.hash = f.hash;
                one.kind = kind_of(*f.file).value_or(ArtKind::ttf);
                one.word_picture->typeface = f.name;
            }
        return room_.edit(tr("typeface"), std::move(next));
    }
}

std::string WordPage::marking() const {
    const Art* a = art();
    if (!mark_->isChecked() || a == nullptr || view_.chosen() >= a->word_picture->places.size()) return {};
    return a->word_picture->places[view_.chosen()].first.picture;
}

void WordPage::stop_marking() { mark_->setChecked(false); }

void WordPage::suggest() {
    const Art* a = art();
    const auto loaded = a == nullptr ? room_.art().end() : room_.art().find(a->id);
    if (loaded == room_.art().end() || !loaded->second->word) return;
    std::set<std::string> outlines;
    for (const WordPlace& p : a->word_picture->places)
        if (p.shape == PlaceShape::outline) outlines.insert(p.outline);
    std::vector<std::string> pictures;
    for (const auto& [id, name] : pictures_in(room_.order()))
        if (!outlines.contains(id)) pictures.push_back(id);
    suggest_->setEnabled(false);
    room_.jobs().background(
        [this, laid = loaded->second->word, order = room_.order(), art = room_.art(), pictures, id = a->id,
         rim = a->word_picture->rim]() -> std::function<void()> {
            const WordSuits found = word_suits(*laid, order, art, pictures, rim);
            return [this, found, laid, id] {
                suggest_->setEnabled(true);
                const Art* now = art_for(id);
                if (now == nullptr) return;
                WordPicture next = *now->word_picture;
                double sum = 0;
                int filled = 0;
                std::set<std::size_t> used;
                for (std::size_t k = 0; k < laid->parts.size(); ++k) {
                    const WordPartLaid& part = laid->parts[k];
                    if (found.best[k] < 0 || part.place >= next.places.size()) continue;
                    const auto p = std::size_t(found.best[k]);
                    used.insert(p);
                    (part.second ? next.places[part.place].second : next.places[part.place].first) = {found.pictures[p], {}};
                    sum += found.suits[k][p].share;
                    ++filled;
                }
                QStringList says;
                says << tr("%1 of %2 places filled; together the pictures have %3 % of the size that each could have at best.")
                            .arg(filled)
                            .arg(laid->parts.size())
                            .arg(filled > 0 ? std::lround(100 * sum / filled) : 0);
                for (std::size_t p = 0; p < found.pictures.size(); ++p) {
                    const bool goes =
                        std::any_of(found.suits.begin(), found.suits.end(), [&](const auto& row) { return row[p].why_not.empty(); });
                    if (goes || found.suits.empty()) continue;
                    says << qt(find_art(room_.order(), found.pictures[p])->name) + tr(" suits no letter: ") +
                                qt(found.suits.front()[p].why_not);
                }
                room_.edit(tr("suggested pictures"), with_word_picture(room_.order(), id, next));
                suggested_ = says.join(QLatin1Char('\n'));
                refresh();
            };
        },
        [this] { suggest_->setEnabled(true); });
}

const Art* WordPage::art_for(const std::string& id) const {
    const Art* a = find_art(room_.order(), id);
    return a == nullptr || !a->word_picture ? nullptr : a;
}

void WordPage::refresh() {
    const Art* a = art();
    if (a == nullptr) return;
    const WordPicture& w = *a->word_picture;
    word_->show_text(qt(w.word));
    std::vector<std::pair<std::string, QString>> faces;
    for (const Typeface& f : typefaces_in(room_.order(), room_.pictures().bytes())) faces.emplace_back(f.hash, qt(f.name));
    set_items(face_, faces, a->hash);
    apart_->show_number(100 * w.apart);
    rim_->show_number(100 * w.rim);
    const bool any = view_.chosen() < w.places.size();
    if (!any && !w.places.empty()) return view_.choose(0), refresh();
    const WordPlace place = any ? w.places[view_.chosen()] : WordPlace{};
    place_name_->setText(tr("Place %1 of %2").arg(view_.chosen() + 1).arg(w.places.size()));
    shape_->setCurrentIndex(static_cast<int>(place.shape));
    auto pictures = pictures_in(room_.order());
    set_items(outline_, pictures, place.outline);
    outlined_->setVisible(place.shape == PlaceShape::outline);
    pictures.insert(pictures.begin(), {std::string(), tr("none yet")});
    set_items(first_, pictures, place.first.picture);
    set_items(second_, pictures, place.second.picture);
    shared_->setChecked(place.shared);
    sharing_->setVisible(place.shared);
    degrees_->show_number(place.line.degrees);
    mark_->setEnabled(!place.first.picture.empty());
    alone_->setEnabled(place.first.at || place.second.at);
    QStringList says;
    if (!suggested_.isEmpty()) says << suggested_;
    const Art* picture = find_art(room_.order(), place.first.picture);
    if (picture != nullptr && picture->subject.size() < 2)
        says << tr("Nobody is marked in %1: it covers its letter, middle on middle.").arg(qt(picture->name));
    if (pictures.size() < 2) says << tr("Bring in pictures first: each letter holds one.");
    says_->setText(says.join(QLatin1Char('\n')));
}

}  // namespace orthema::app
