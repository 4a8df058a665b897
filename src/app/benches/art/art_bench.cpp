#include "app/benches/art/art_bench.h"

#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/art/art_view.h"
#include "app/benches/art/lettering_page.h"
#include "app/benches/art/mending_page.h"
#include "app/benches/art/together_page.h"
#include "app/benches/art/word_page.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "core/order/rules.h"
#include "core/transfers/choices.h"

namespace orthema::app {

QImage thumbnail(const LoadedArt& art, int side) {
    for (auto level = art.screen.rbegin(); level != art.screen.rend(); ++level)
        if (std::max(level->width, level->height) >= side || level + 1 == art.screen.rend())
            return QImage(reinterpret_cast<const uchar*>(level->pixels.data()), level->width, level->height, level->width * 4,
                          QImage::Format_ARGB32_Premultiplied)
                .copy();
    return {};
}

ArtBench::ArtBench(Workroom& room) : Bench(room, QStringLiteral("art")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* head = new QHBoxLayout;
    head->addWidget(head_label(tr("Artwork")));
    head->addStretch(1);
    auto* bring = push(tr("Bring in pictures…"), tr("PNG, JPEG, TIFF, WebP, HEIC, SVG or PDF; vector stays vector"), true);
    auto* letter =
        push(tr("Add a lettering"), tr("Names or numbers, one for each person of the list, in a typeface that the order carries"));
    letter->setObjectName(QStringLiteral("Add a lettering"));
    connect(letter, &QPushButton::clicked, this, [this] { LetteringPage::begin(room_); });
    head->addWidget(letter);
    auto* word = push(tr("Add a word picture"), tr("A word whose letters each hold a picture of the order"));
    word->setObjectName(QStringLiteral("Add a word picture"));
    connect(word, &QPushButton::clicked, this, [this] { WordPage::begin(room_); });
    head->addWidget(word);
    auto* together =
        push(tr("Put a print together"), tr("A ground that fills a blank's face, with pictures and letters over it: pressed as one print"));
    together->setObjectName(QStringLiteral("Put a print together"));
    connect(together, &QPushButton::clicked, this, [this] { TogetherPage::begin(room_); });
    head->addWidget(together);
    head->addWidget(bring);
    column->addLayout(head);
    pictures_ = new ChipRow(tr("Pictures"));
    pictures_->chosen = [this](const std::string& id) {
        Selection s = room_.selection();
        s.art = id;
        room_.select(s);
    };
    column->addWidget(pictures_);
    view_ = new ArtView(room);
    view_->marked = [this](std::optional<Point> p) {
        room_.edit(p ? tr("mark the centre") : tr("take the mark away"), with_marked_centre(room_.order(), room_.selection().art, p));
    };
    column->addWidget(view_, 1);
    word_view_ = new WordView(room);
    column->addWidget(word_view_, 1);
    together_view_ = new TogetherView(room);
    column->addWidget(together_view_, 1);
    connect(bring, &QPushButton::clicked, this, &ArtBench::ask_for_pictures);

    panel_ = new FigurePanel;
    panel_->head(tr("Figures"));
    title_ = panel_->title();
    page_ = new Segments(tr("Art page"), {tr("Found in it"), tr("Clip it"), tr("Mend it")});
    page_->turn_pages();
    panel_->add(page_);
    found_ = panel_->part();
    clip_ = panel_->part();
    lettering_ = new LetteringPage(room);
    panel_->add(lettering_);
    mending_ = new MendingPage(room, *view_);
    panel_->add(mending_);
    word_page_ = new WordPage(room, *word_view_);
    panel_->add(word_page_);
    together_page_ = new TogetherPage(room, *together_view_);
    panel_->add(together_page_);
    word_page_->marking_changed = [this] { show_page(); };
    page_->chosen = [this](int i) {
        if (i == 0) subject_->setChecked(false);
        show_page();
    };
    kind_ = found_->text_row(tr("Kind"));
    planned_ = found_->text_row(tr("Largest use"));
    resolution_ = found_->text_row(tr("Resolution there"));
    stroke_ = found_->text_row(tr("Thinnest stroke"));
    stroke_->setToolTip(tr("At its smallest use; the medium says what it holds"));
    gap_ = found_->text_row(tr("Narrowest gap"));
    gap_->setToolTip(tr("At its smallest use; narrower ones close"));
    half_ = found_->text_row(tr("Half-transparent"));
    background_ = found_->text_row(tr("Flat background"));
    optical_ = found_->text_row(tr("Optical centre"));
    mark_says_ = found_->text_row(tr("Marked centre"));
    says_ = found_->note();
    says_->setProperty("caution", true);
    mark_ = push(tr("Mark the centre"),
                 tr("Then click the point that must sit on the garment's centre line, such as the gap between two letters"));
    mark_->setCheckable(true);
    connect(mark_, &QPushButton::toggled, this, [this](bool on) {
        view_->set_marking(on);
        view_->refresh();
        view_->setFocus();
    });
    auto* marking = new QHBoxLayout;
    found_->rows()->addLayout(marking);
    marked_ = found_->part();
    marks_ = marked_->choice_row(tr("Marks"), tr("Points that must meet a line of the blank; Fit watches them"));
    connect(marks_, &QComboBox::activated, this, [this] { refresh(); });
    auto* marks_row = new QHBoxLayout;
    mark_name_ = new ValueField(tr("Name of the mark"));
    mark_name_->setToolTip(tr("What it is: the gap after “HILL”"));
    mark_name_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const int i = marks_->currentIndex();
        const std::string name = t.trimmed().toStdString();
        if (name.empty() || name.size() > 60) return tr("Give the mark a name of up to 60 letters.");
        const Art* art = find_art(room_.order(), room_.selection().art);
        if (art == nullptr || i < 0 || std::size_t(i) >= art->marks.size()) return std::nullopt;
        for (std::size_t k = 0; k < art->marks.size(); ++k)
            if (int(k) != i && art->marks[k].name == name) return tr("Another mark has that name.");
        change_marks(tr("name a mark"), [i, name](std::vector<NamedMark>& all) { all[std::size_t(i)].name = name; });
        return std::nullopt;
    };
    another_ = push(tr("Set a mark"), tr("Then click the point in the picture"));
    another_->setCheckable(true);
    mark_out_ = push(tr("Out"), tr("Takes the mark out"));
    marks_row->addWidget(mark_name_, 1);
    marks_row->addWidget(mark_out_);
    marked_->rows()->addLayout(marks_row);
    marking->addWidget(mark_);
    marking->addWidget(another_);
    connect(another_, &QPushButton::toggled, this, [this](bool on) {
        if (on) mark_->setChecked(false);
        view_->set_naming(on);
        view_->refresh();
        view_->setFocus();
    });
    connect(mark_out_, &QPushButton::clicked, this, [this] {
        const int i = marks_->currentIndex();
        change_marks(tr("take a mark out"), [i](std::vector<NamedMark>& all) {
            if (i >= 0 && std::size_t(i) < all.size()) all.erase(all.begin() + i);
        });
    });
    view_->named = [this](Point p) {
        another_->setChecked(false);
        change_marks(tr("set a mark"), [p](std::vector<NamedMark>& all) {
            std::vector<std::string> taken;
            taken.reserve(all.size());
            for (const NamedMark& m : all) taken.push_back(m.name);
            std::string name = spoken("mark 1");
            for (int n = 2; std::find(taken.begin(), taken.end(), name) != taken.end(); ++n) name = spoken("mark ") + std::to_string(n);
            all.push_back({name, p});
        });
    };
    cloth_ = found_->choice_row(tr("Seen on"), tr("The colour it is judged against"));
    connect(cloth_, &QComboBox::currentIndexChanged, this, &ArtBench::show_cloth);
    build_clip();
    page_->show_choice(0);
    onto_ = panel_->part();
    onto_->rule();
    onto_->head(tr("Put it on a blank"));
    run_ = onto_->choice_row(tr("Run"), tr("Which blank and colour"));
    location_ = onto_->choice_row(tr("Location"), tr("Sides are the wearer's"));
    connect(run_, &QComboBox::currentIndexChanged, this, &ArtBench::show_locations);
    put_ = push(tr("Put it on"), tr("Adds a decoration with the usual starting figures and goes to Fit"), true);
    onto_->add(put_);
    connect(put_, &QPushButton::clicked, this, [this] { put_on(false); });
    put_all_ =
        push(tr("Put it on all that can take it"),
             tr("On this run and on every other that has this location, under one rule: the same on the same blank in every colour"));
    onto_->add(put_all_);
    connect(put_all_, &QPushButton::clicked, this, [this] { put_on(true); });
    show_page();
    panel_->fill();
    out_ = push(tr("Take this picture out"), tr("Removes it and its decorations; undo brings them back"));
    panel_->add(out_);
    connect(out_, &QPushButton::clicked, this,
            [this] { room_.edit(tr("take a picture out"), without_art(room_.order(), room_.selection().art)); });
}

void ArtBench::show_page() {
    const Art* art = find_art(room_.order(), room_.selection().art);
    const bool words = art != nullptr && art->lettering;
    const bool pictures = art != nullptr && art->word_picture, together = art != nullptr && art->together;
    const bool file = art == nullptr || is_picture(*art);
    page_->name_choice(1, together ? tr("What it is of") : file ? tr("Clip it") : tr("How it is set"));
    page_->button(2)->setVisible(file);
    if (!file && page_->choice() == 2) page_->show_choice(1);
    const int page = page_->choice();
    const std::string marked = pictures && page == 1 ? word_page_->marking() : std::string();
    found_->setVisible(page == 0);
    clip_->setVisible(page == 1 && file);
    lettering_->setVisible(page == 1 && words);
    word_page_->setVisible(page == 1 && pictures);
    together_page_->setVisible(page == 1 && together);
    mending_->setVisible(page == 2);
    onto_->setVisible(page != 2 && marked.empty() && !(page == 1 && together));
    view_->set_mending(page == 2);
    view_->set_subject_of(marked);
    view_->setVisible((!pictures && !together) || page != 1 || !marked.empty());
    together_view_->setVisible(together && page == 1);
    word_view_->setVisible(pictures && page == 1 && marked.empty());
    if (page != 2) mending_->leave();
    if (words && lettering_->isVisible()) lettering_->refresh();
    if (page == 2) mending_->refresh();
    if (word_page_->isVisible()) word_page_->refresh();
    if (together_page_->isVisible()) together_page_->refresh();
    word_view_->refresh();
    together_view_->refresh();
}

void ArtBench::change_clip(const QString& what, const std::function<void(ArtClip&)>& how) {
    const Art* art = find_art(room_.order(), room_.selection().art);
    if (art == nullptr) return;
    ArtClip clip = art->clip.value_or(ArtClip{});
    how(clip);
    room_.edit(what, with_clip(room_.order(), art->id, clip));
}

/// The blank and size that the box offers there.
void ArtBench::take_blank(ArtClip& clip, int index) const {
    const QStringList id = clip_blank_->itemData(index).toString().split('\n');
    clip.style = id.value(0).toStdString();
    clip.size = id.value(1).toStdString();
    if (const BlankStyle* style = find_style(room_.order(), clip.style)) clip.face = family_faces(style->family).front();
}

void ArtBench::build_clip() {
    clip_->head(tr("The picture within"));
    clip_to_ = new Segments(tr("Clip to"), {tr("all of it"), tr("letters"), tr("a blank")});
    clip_to_->chosen = [this](int i) {
        const std::string art = room_.selection().art;
        if (i == 0) return room_.edit(tr("the whole picture"), with_clip(room_.order(), art, std::nullopt));
        change_clip(i == 1 ? tr("clip to letters") : tr("clip to a blank"), [&](ArtClip& c) {
            c.word = i == 1 ? spoken("KITES") : "";
            if (i == 2 && clip_blank_->count() > 0) take_blank(c, std::max(0, clip_blank_->currentIndex()));
        });
    };
    clip_->add(clip_to_);
    word_ = new ValueField(tr("Letters"));
    word_->setToolTip(tr("The word whose letters are filled with the picture"));
    word_->take = [this](const QString& t, bool) -> std::optional<QString> {
        const std::string word = t.trimmed().toStdString();
        if (word.empty() || word.size() > 60) return tr("Type 1 to 60 letters.");
        change_clip(tr("letters"), [&](ArtClip& c) { c.word = word; });
        return std::nullopt;
    };
    clip_->head(tr("Letters"));
    clip_->add(word_);
    weight_ = new Segments(tr("Weight"), {tr("regular"), tr("bold")});
    weight_->chosen = [this](int i) { change_clip(tr("weight"), [i](ArtClip& c) { c.bold = i == 1; }); };
    clip_->add(weight_);
    clip_blank_ = clip_->choice_row(tr("Blank"), tr("Whose outline it takes"));
    connect(clip_blank_, &QComboBox::activated, this, [this](int i) {
        change_clip(tr("clip to a blank"), [&](ArtClip& c) {
            c.word.clear();
            take_blank(c, i);
        });
    });
    clip_bleed_ = clip_->length_row(tr("Past its edge"), tr("Bleed of the clipped picture"));
    clip_bleed_->entered = [this](Length l, bool) -> std::optional<QString> {
        if (l.mm() < 0 || l.mm() > 50) return tr("It lies between 0 and 50 mm.");
        change_clip(tr("bleed"), [l](ArtClip& c) { c.bleed = l; });
        return std::nullopt;
    };
    clip_->rule();
    subject_ = push(tr("Mark the subject"),
                    tr("Then click its ends in the whole picture: the largest picture that keeps them all inside is taken"));
    subject_->setCheckable(true);
    connect(subject_, &QPushButton::toggled, this, [this](bool on) {
        if (on) {
            mark_->setChecked(false);
            another_->setChecked(false);
        }
        view_->set_subject(on);
        view_->setFocus();
    });
    clip_->add(subject_);
    view_->kept_inside = [this](Point p) {
        const std::string within = word_page_->marking();
        const Art* art = find_art(room_.order(), within.empty() ? room_.selection().art : within);
        if (art == nullptr || art->subject.size() >= 40) return;
        std::vector<Point> more = art->subject;
        more.push_back(p);
        room_.edit(tr("keep a point inside"), with_subject(room_.order(), art->id, more));
    };
    clip_says_ = clip_->note();
}

void ArtBench::refresh_clip() {
    const Order& order = room_.order();
    const Art* art = find_art(order, room_.selection().art);
    std::vector<std::pair<std::string, QString>> blanks;
    for (const RunKey& run : room_.runs()) {
        const BlankStyle* style = find_style(order, run.style);
        if (style == nullptr || family_build(style->family) == Build::wrap) continue;
        for (const SizeCount& c : counts_of(order, run)) {
            const std::pair<std::string, QString> item{run.style + "\n" + c.size, qt(style->name + " " + c.size)};
            if (std::find(blanks.begin(), blanks.end(), item) == blanks.end()) blanks.push_back(item);
        }
    }
    const bool clipped = art != nullptr && art->clip.has_value();
    const bool letters = clipped && !art->clip->word.empty();
    set_items(clip_blank_, blanks, clipped && !letters ? art->clip->style + "\n" + art->clip->size : "");
    clip_to_->show_choice(!clipped ? 0 : letters ? 1 : 2);
    word_->setEnabled(letters);
    weight_->setEnabled(letters);
    clip_blank_->setEnabled(clipped && !letters);
    clip_bleed_->setEnabled(clipped && !letters);
    subject_->setEnabled(clipped);
    word_->show_text(letters ? qt(art->clip->word) : QString());
    weight_->show_choice(clipped && !art->clip->bold ? 0 : 1);
    clip_bleed_->show_length(clipped ? art->clip->bleed : Length{}, order.unit);
    clip_says_->setText(!clipped               ? tr("Clipped to letters or to a blank's outline, never stretched.")
                        : art->subject.empty() ? tr("Nothing is marked: the picture just covers the shape, middle on middle.")
                        : art->subject.size() == 1
                            ? tr("One point stays inside. Mark its other end, and it is shown as large as it goes.")
                            : tr("%1 points stay inside, at the largest scale that keeps them.").arg(art->subject.size()));
}

QWidget* ArtBench::figures() { return panel_; }
QWidget* ArtBench::first_focus() { return view_; }

void ArtBench::choose_run(const Subject& about) {
    const auto runs = room_.runs();
    const auto at = std::find(runs.begin(), runs.end(), RunKey{about.style, about.colour, about.lot, about.job});
    if (at != runs.end()) run_->setCurrentIndex(int(at - runs.begin()));
}

void ArtBench::put_on(bool everywhere) {
    const auto runs = room_.runs();
    const Art* art = find_art(room_.order(), room_.selection().art);
    const int r = run_->currentIndex();
    if (art == nullptr || r < 0 || std::size_t(r) >= runs.size()) return;
    const int l = location_->currentIndex();
    if (l < 0 || std::size_t(l) >= locations_.size()) return;
    std::string made;
    Order next = with_new_design(room_.order(), runs[std::size_t(r)], locations_[std::size_t(l)], *art, &made);
    next = with_new_ones_suited(std::move(next), room_.order(), room_.facts());
    std::vector<PassedOver> passed;
    if (everywhere) next = with_new_ones_suited(with_design_on(next, made, runs, &passed), next, room_.facts());
    Selection s = room_.selection();
    s.run = runs[std::size_t(r)];
    s.decoration = made;
    s.size = find_decoration(next, made)->sizing.base_size;
    const std::size_t lots = next.decorations.size() - room_.order().decorations.size();
    room_.edit(tr("put %1 on a garment").arg(qt(art->name)), std::move(next));
    room_.select(s);
    if (everywhere)
        room_.notices().say(tr("Put on %1. ").arg(counted(lots, "lot")) +
                            (passed.empty() ? QString() : qt(worded(passed_words(room_.order(), passed), room_.order().unit))));
    emit wanted(QStringLiteral("fit"));
}

/// The locations that the chosen run's blank has.
void ArtBench::show_locations() {
    const auto runs = room_.runs();
    const int r = run_->currentIndex();
    const BlankStyle* style = r >= 0 && std::size_t(r) < runs.size() ? find_style(room_.order(), runs[std::size_t(r)].style) : nullptr;
    locations_ = style == nullptr ? std::vector<Location>{} : locations_of(*style);
    std::vector<std::pair<std::string, QString>> items;
    for (const Location l : locations_) items.emplace_back(location_key(l), said(location_name(l, style->family)));
    const std::string now = location_->currentData().toString().toStdString();
    set_items(location_, items, now);
    if (location_->currentIndex() < 0 && location_->count() > 0) location_->setCurrentIndex(0);
}

void ArtBench::change_marks(const QString& what, const std::function<void(std::vector<NamedMark>&)>& how) {
    const Art* art = find_art(room_.order(), room_.selection().art);
    if (art == nullptr) return;
    std::vector<NamedMark> marks = art->marks;
    how(marks);
    room_.edit(what, with_marks(room_.order(), art->id, marks));
}

/// The colour of the first run that wears a picture; nothing when none does.
std::optional<Colour> ArtBench::own_cloth(const std::string& art) const {
    for (const Decoration& d : room_.order().decorations)
        if (d.art == art) return cloth_of(room_.order(), d);
    return std::nullopt;
}

void ArtBench::show_cloth() {
    const int i = cloth_->currentIndex();
    const auto runs = room_.runs();
    const auto both = [this](std::optional<Colour> cloth) {
        view_->set_cloth(cloth);
        word_view_->set_cloth(cloth);
        together_view_->set_cloth(cloth);
    };
    if (i <= 0)
        both(own_cloth(room_.selection().art));
    else if (i == 1 || std::size_t(i - 2) >= runs.size())
        both(std::nullopt);
    else
        both(run_colour(room_.order(), runs[std::size_t(i) - 2]));
}

void ArtBench::refresh() {
    const Order& order = room_.order();
    std::vector<Chip> chips;
    for (const Art& a : order.art) {
        Chip chip{a.id,
                  qt(a.name),
                  a.lettering      ? qt(a.lettering->words)
                  : a.word_picture ? qt(a.word_picture->word)
                  : a.together     ? tr("together")
                                   : QString::fromLatin1(kind_key(a.kind)).toUpper(),
                  standing_where([&](const Subject& about) { return about.art == a.id; }),
                  {}};
        if (const auto at = room_.art().find(a.id); at != room_.art().end()) {
            chip.picture = thumbnail(*at->second, 48);
            chip.behind = own_cloth(a.id);
        }
        chips.push_back(std::move(chip));
    }
    pictures_->show_chips(chips, room_.selection().art);
    show_cloth();
    refresh_clip();
    if (const Art* now = find_art(order, room_.selection().art); now != nullptr && !is_picture(*now) && shown_art_ != now->id)
        page_->show_choice(1);  // its words are what one comes for
    if (shown_art_ != room_.selection().art) word_page_->stop_marking();
    shown_art_ = room_.selection().art;
    if (room_.pictures().mending()) page_->show_choice(2);
    show_page();
    const Art* entry = find_art(order, room_.selection().art);
    const auto loaded = room_.facts().find(room_.selection().art);
    const bool any = entry != nullptr && loaded != room_.facts().end();
    for (QWidget* w : std::initializer_list<QWidget*>{mark_, put_, out_}) w->setEnabled(any);
    for (QPushButton* b : {put_, put_all_}) b->setEnabled(any && !room_.runs().empty());
    title_->setText(entry != nullptr ? qt(entry->name) : tr("No picture"));
    for (QLabel* l : {kind_, planned_, resolution_, stroke_, gap_, half_, background_, optical_, mark_says_, says_}) l->setText({});
    if (any) {
        const ArtFacts& f = loaded->second;
        kind_->setText(entry->word_picture ? tr("word picture")
                       : entry->together
                           ? tr("put together from %1")
                                 .arg(counted(entry->together->over.size() + (entry->together->ground.empty() ? 0 : 1), "picture"))
                       : entry->lettering ? tr("lettering, ") + qt(entry->lettering->typeface)
                                          : QString::fromLatin1(kind_key(entry->kind)).toUpper() +
                                                (f.vector ? tr(", vector") : tr(", %1 × %2 px").arg(f.width_px).arg(f.height_px)));
        double widest = 0, least = 0;
        for (const DecorationFit& fit : room_.plan().decorations)
            if (const Decoration* d = find_decoration(order, fit.decoration); d != nullptr && d->art == entry->id)
                for (const SizeFit& s : fit.sizes) {
                    widest = std::max(widest, s.width);
                    least = least == 0 ? s.width : std::min(least, s.width);
                }
        planned_->setText(widest > 0 ? qt(length_text(Length::from_mm(widest), order.unit)) + tr(" wide") : tr("not used yet"));
        const auto dpi = resolution(f, Length::from_mm(widest > 0 ? widest : 0));
        resolution_->setText(f.vector ? tr("any, vector") : dpi ? tr("%1 dpi").arg(std::lround(*dpi)) : QStringLiteral("–"));
        const auto fine = [&](double share) {
            return share == 0   ? tr("none that is thin")
                   : least == 0 ? tr("%1 % of its width").arg(fixed(share * 100, 2))
                                : tr("%1 mm").arg(fixed(share * least, 2));
        };
        stroke_->setText(fine(f.thin_stroke));
        gap_->setText(fine(f.narrow_gap));
        half_->setText(tr("%1 % of ink").arg(fixed(100 * f.half_transparent, 1)));
        background_->setText(f.flat_background ? tr("yes, not removed") : tr("none"));
        const auto off = [&](double x) {
            const double by = widest > 0 ? (x - 0.5) * widest : 0;
            const QString side = x < 0.5 ? tr("left") : tr("right");
            return widest > 0 ? qt(length_text(Length::from_mm(std::abs(by)), order.unit)) + " " + side
                              : QStringLiteral("%1 % %2").arg(fixed(std::abs(x - 0.5) * 100, 1)).arg(side);
        };
        optical_->setText(off(f.optical_centre.x) + tr(" of middle"));
        mark_says_->setText(entry->marked_centre ? off(entry->marked_centre->x) + tr(" of middle") : tr("none"));
        QStringList says;
        for (const Finding& finding : room_.findings())
            if (finding.about.art == entry->id && finding.severity != Severity::note) says << qt(finding_text(finding, order.unit));
        says_->setText(says.join('\n'));
    }
    QStringList runs;
    const QFontMetrics letters(run_->font());
    for (const RunKey& run : room_.runs()) {
        RunKey shown = run;
        if (!room_.selection().job.empty()) shown.job.clear();  // it is that job's, all of it
        const QString name = qt(run_name(order, shown));
        runs << (run.job.empty() ? name : letters.elidedText(name, Qt::ElideRight, 108));
    }
    QStringList have;
    for (int i = 0; i < run_->count(); ++i) have << run_->itemText(i);
    if (have != runs) {
        run_->clear();
        run_->addItems(runs);
        cloth_->clear();
        cloth_->addItem(tr("its own blank"));
        cloth_->addItem(tr("white paper"));
        cloth_->addItems(runs);
    }
    show_locations();
    std::vector<std::pair<std::string, QString>> marks;
    if (entry != nullptr)
        for (const NamedMark& m : entry->marks) marks.emplace_back(m.name, qt(m.name));
    const std::string mark_now = marks_->currentData().toString().toStdString();
    set_items(marks_, marks, mark_now);
    if (marks_->currentIndex() < 0 && marks_->count() > 0) marks_->setCurrentIndex(marks_->count() - 1);
    mark_name_->show_text(marks_->currentText());
    marked_->setVisible(marks_->count() > 0);
}

QString ArtBench::word() const { return QString::number(room_.order().art.size()); }

void ArtBench::ask_for_pictures() {
    const QStringList paths =
        QFileDialog::getOpenFileNames(this, tr("Bring in pictures"), {},
                                      tr("Pictures (*.png *.jpg *.jpeg *.tif *.tiff *.webp *.heic *.heif *.svg *.pdf);;All files (*)"));
    room_.pictures().bring_in(paths);
}

QString ArtBench::help() const {
    return tr(
        "Art: bring in pictures and see what a transfer makes of them: the ink box that the ruler sees, the outline that is cut, the "
        "centre that the eye sees. Then put them on a garment.");
}

}  // namespace orthema::app
