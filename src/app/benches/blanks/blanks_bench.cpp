#include "app/benches/blanks/blanks_bench.h"

#include <QDate>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QMenu>
#include <QPointer>

#include "app/widgets/speech.h"
#include "app/benches/blanks/blank_pages.h"
#include "app/benches/blanks/photo_page.h"
#include "app/benches/blanks/tape_drawing.h"
#include "app/widgets/chips.h"
#include "app/widgets/figures.h"
#include "core/order/edit.h"
#include "files/chart_csv.h"
#include "files/safe_file.h"

namespace orthema::app {

BlanksBench::BlanksBench(Workroom& room) : Bench(room, QStringLiteral("blanks")) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    auto* head = new QHBoxLayout;
    search_ = new QLineEdit;
    search_->setObjectName(QStringLiteral("Find a blank"));
    search_->setAccessibleName(tr("Find a blank"));
    search_->setPlaceholderText(tr("Find a blank by name, tag, fabric or colour"));
    search_->setClearButtonEnabled(true);
    search_->setFixedWidth(320);
    connect(search_, &QLineEdit::textChanged, this, [this] { refresh(); });
    all_ = push(tr("all blanks"), tr("Shows every blank of the shop, not only those of this order"));
    archived_ = push(tr("archived"), tr("Shows those that are kept but no longer offered"));
    for (QPushButton* b : {all_, archived_}) {
        b->setCheckable(true);
        b->setProperty("segment", true);
        b->setFixedHeight(25);
        connect(b, &QPushButton::toggled, this, [this] { refresh(); });
    }
    auto* make = push(tr("New blank"), tr("A style of your own from a family: then its run, figures and features"), true);
    auto* families = new QMenu(make);
    const std::pair<const char*, std::vector<Build>> groups[] = {{noted("Worn on the body"), {Build::upper_body, Build::trousers}},
                                                                 {noted("Bags, aprons, caps"), {Build::apron, Build::bag, Build::cap}},
                                                                 {noted("Flat pieces"), {Build::flat}},
                                                                 {noted("Drinkware"), {Build::wrap}}};
    for (const auto& [name, builds] : groups) {
        auto* sub = families->addMenu(tr(name));
        for (int i = 0; i < family_count; ++i) {
            const auto f = static_cast<Family>(i);
            if (std::find(builds.begin(), builds.end(), family_build(f)) == builds.end()) continue;
            auto* action = sub->addAction(said(family_name(f)), this, [this, f] { new_blank(f); });
            action->setObjectName(QStringLiteral("new ") + QString::fromLatin1(family_key(f)));
        }
    }
    make->setMenu(families);
    head->addWidget(search_);
    head->addWidget(all_);
    head->addWidget(archived_);
    head->addStretch(1);
    head->addWidget(make);
    column->addLayout(head);
    styles_ = new ChipRow(tr("Blanks"));
    styles_->fold(2);
    styles_->chosen = [this](const std::string& id) { choose_style(id); };
    column->addWidget(styles_);
    sizes_ = new ChipRow(tr("Sizes"));
    sizes_->chosen = [this](const std::string& id) { choose_size(id); };
    column->addWidget(sizes_);
    drawing_ = new TapeDrawing(room);
    drawing_->size_shown = [this] { return size(); };
    drawing_->typed = [this](Measure m, Length v) { typed(m, v); };
    drawing_->figure_chosen = [this](Measure) { measure_->refresh(); };
    drawing_->feature_chosen = [this](int i) {
        page_->show_choice(2);
        show_page(2);
        features_->choose(i);
    };
    drawing_->feature_dragged = [this](int i, Length right, Length down) { features_->drag(i, right, down); };
    drawing_->drag_ended = [this] { room_.end_gesture(); };
    column->addWidget(drawing_, 1);
    photo_view_ = new PhotoView(room);
    photo_view_->hide();
    column->addWidget(photo_view_, 1);

    panel_ = new FigurePanel;
    panel_->head(tr("Figures"));
    title_ = panel_->title();
    fabric_ = panel_->note();
    page_ = new Segments(tr("Blank page"), {tr("Measure"), tr("Figures"), tr("Features"), tr("Style")});
    page_->turn_pages();
    page_->chosen = [this](int i) { show_page(i); };
    panel_->add(page_);
    measure_ = new MeasurePage(*this, room);
    figures_ = new FiguresPage(*this, room);
    features_ = new FeaturesPage(*this, room);
    style_ = new StylePage(*this, room);
    photos_ = new PhotoPage(*this, room, *photo_view_);
    photos_->left = [this] { show_photos(false); };
    photos_->changed = [this] { measure_->refresh(); };
    for (FigurePanel* p : std::initializer_list<FigurePanel*>{measure_, figures_, features_, style_, photos_}) panel_->add(p);
    page_->show_choice(0);
    show_page(0);
    panel_->fill();
}

QWidget* BlanksBench::figures() { return panel_; }
QWidget* BlanksBench::first_focus() { return photos_shown_ ? static_cast<QWidget*>(photo_view_) : drawing_; }

bool BlanksBench::take_pictures(const QStringList& paths) {
    if (style() == nullptr) return false;
    show_photos(true);
    photos_->bring_in(paths);
    return true;
}

void BlanksBench::show_photos(bool shown) {
    photos_shown_ = shown;
    show_page(page_->choice());
    photos_->refresh();
}

void BlanksBench::show_page(int shown) {
    FigurePanel* const pages[] = {measure_, figures_, features_, style_};
    for (int i = 0; i < 4; ++i) pages[i]->setVisible(i == shown && !(photos_shown_ && i == 0));
    photos_->setVisible(photos_shown_ && shown == 0);
    photo_view_->setVisible(photos_shown_ && shown == 0);
    drawing_->setVisible(!(photos_shown_ && shown == 0));
    drawing_->set_feature(shown == 2 ? features_->chosen() : -1);
}

const BlankStyle* BlanksBench::style() const {
    const BlankStyle* s = find_style(room_.order(), room_.selection().style);
    return s != nullptr && !s->sizes.empty() ? s : nullptr;
}

std::string BlanksBench::size() const {
    const BlankStyle* s = style();
    if (s == nullptr) return {};
    if (s->id == room_.selection().run.style && size_index(*s, room_.selection().size) >= 0) return room_.selection().size;
    return size_index(*s, own_size_) >= 0 ? own_size_ : s->sizes[s->sizes.size() / 2];
}
bool BlanksBench::published_mode() const { return measure_->published(); }

void BlanksBench::choose_style(const std::string& id) {
    Selection s = room_.selection();
    s.style = id;
    for (const RunKey& run : room_.runs())
        if (run.style == id) s.run = run;
    room_.select(s);
}

void BlanksBench::choose_size(const std::string& size) {
    own_size_ = size;
    Selection s = room_.selection();
    if (s.run.style == s.style) {
        s.size = size;
        room_.select(s);
    } else {
        refresh();
    }
}

void BlanksBench::go(const Subject& about) {
    Bench::go(about);
    if (about.style.empty()) return;
    choose_style(about.style);
    if (!about.size.empty()) choose_size(about.size);
}

bool BlanksBench::keep(const QString& what, const BlankStyle& next, const QString& gesture) {
    if (const auto fault = style_fault(next)) {
        room_.notices().complain(*fault);
        refresh();
        return false;
    }
    room_.edit(what, with_style(room_.order(), next), gesture);
    return true;
}

void BlanksBench::typed(Measure measure, Length value) {
    const BlankStyle* now = style();
    if (now == nullptr) return;
    const BlankStyle before = *now;
    const std::string on = size();
    const std::string today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    const auto put = [this, before, on, measure, today](Length v) {
        const QString name = within(said(measure_short(measure)));
        return published_mode() ? keep(tr("publish %1").arg(name), with_published(before, on, measure, v))
                                : keep(tr("tape %1").arg(name), with_reading(before, on, measure, v, today));
    };
    const auto doubt = doubt_about(before, on, measure, value);
    if (!put(value)) return;
    if (doubt) {
        Notice notice{qt(finding_text(doubt_finding(before, *doubt), room_.order().unit)), true, {}, {}};
        if (doubt->doubt == Doubt::unit_slip) {
            const Length likely = value * doubt->factor;
            notice.action = tr("Use %1").arg(qt(length_text(likely, room_.order().unit)));
            notice.act = [this, put, likely] {
                room_.document().undo();
                put(likely);
            };
        }
        room_.say(notice);
        return;  // a session waits until the doubt is settled
    }
    measure_->next();
}

std::vector<ToMeasure> BlanksBench::to_measure() const {
    const BlankStyle* now = style();
    if (now == nullptr || style_fault(*now)) return {};
    std::vector<std::string> ordered, smallest;
    for (const RunKey& run : room_.runs()) {
        if (run.style != now->id) continue;
        for (const SizeCount& c : counts_of(room_.order(), run)) ordered.push_back(c.size);
    }
    for (const DecorationFit& fit : room_.plan().decorations) {
        const Decoration* d = find_decoration(room_.order(), fit.decoration);
        if (d == nullptr || d->run.style != now->id) continue;
        for (const BandFit& b : fit.bands) smallest.push_back(b.set_by);
    }
    return what_to_measure(*now, ordered, smallest);
}

void BlanksBench::new_blank(Family family) {
    const BlankStyle* pattern = nullptr;
    for (const BlankStyle& s : starting_library().styles)
        if (s.family == family) {
            pattern = &s;
            break;
        }
    if (pattern == nullptr) return;
    const std::string name = tr("New %1").arg(within(said(family_name(family)))).toStdString();
    BlankStyle next = new_style(*pattern, fresh_id(name, room_.order().styles), name, pattern->sizes);
    next.features.clear();
    if (!keep(tr("new blank"), next)) return;
    search_->clear();
    choose_style(next.id);
    page_->show_choice(3);
    show_page(3);
}

void BlanksBench::bring_in_chart(const QString& path) {
    const BlankStyle* now = style();
    if (now == nullptr) return;
    const BlankStyle like = *now;
    room_.jobs().background([this, path, like]() -> std::function<void()> {
        const auto text = read_file(path.toStdString(), 8u << 20);
        const auto table = text ? parse_table(*text) : Result<Table>(text.error());
        const auto chart = table ? import_chart(*table, like) : Result<ChartImport>(table.error());
        return [this, path, chart] {
            if (!chart) {
                room_.say({QFileInfo(path).fileName() + ": " + refusal(chart.error()), true, {}, {}});
                return;
            }
            if (!keep(tr("bring in a size chart"), chart->style)) return;
            QStringList said{tr("%1 sizes from %2.").arg(chart->style.sizes.size()).arg(QFileInfo(path).fileName())};
            for (const Words& w : chart->said) said << qt(worded(w, room_.order().unit));
            room_.say({said.join(' '), false, {}, {}});
        };
    });
}

void BlanksBench::refresh() {
    const Order& order = room_.order();
    const Selection& s = room_.selection();
    const std::string words = search_->text().toStdString();
    std::vector<Chip> chips;
    for (const BlankStyle& one : order.styles) {
        int ordered = 0;
        for (const OrderLine& l : order.lines)
            if (l.style == one.id) ordered += l.quantity;
        if (one.id != s.style) {
            if (one.archived != archived_->isChecked()) continue;
            if (!words.empty() ? !matches(one, words) : ordered == 0 && !all_->isChecked() && !archived_->isChecked()) continue;
        }
        chips.push_back({one.id,
                         qt(one.name),
                         one.archived   ? tr("archived")
                         : ordered == 0 ? tr("not in this order")
                                        : tr("%1 ordered").arg(ordered),
                         standing_where([&](const Subject& about) { return about.style == one.id; }),
                         {}});
    }
    styles_->show_chips(chips, s.style);
    const BlankStyle* now = style();
    chips.clear();
    if (now != nullptr) {
        for (const std::string& one : now->sizes) {
            int taped = 0;
            for (const auto& [m, f] : now->chart.at(one)) taped += f.source == Source::measured ? 1 : 0;
            chips.push_back({one,
                             qt(one),
                             taped > 0 ? tr("%1 taped").arg(taped) : tr("published"),
                             standing_where([&](const Subject& about) { return about.style == now->id && about.size == one; }),
                             {}});
        }
    }
    sizes_->show_chips(chips, size());
    drawing_->refresh();
    panel_->setEnabled(now != nullptr);
    if (now == nullptr) return;
    title_->setText(qt(now->name) + ", " + qt(size()));
    fabric_->setText(qt(now->fabric));
    measure_->refresh();
    figures_->refresh();
    features_->refresh();
    style_->refresh();
    photos_->refresh();
}

QString BlanksBench::word() const {
    int taped = 0;
    for (const BlankStyle& one : room_.order().styles)
        for (const auto& [size, row] : one.chart)
            for (const auto& [m, f] : row) taped += f.source == Source::measured ? 1 : 0;
    return taped == 0 ? tr("published") : tr("%1 taped").arg(taped);
}

QString BlanksBench::help() const {
    return tr(
        "Blanks: what is pressed, lying flat. Measure says where to put the tape; click a figure on the drawing and type what it says, or "
        "drop "
        "photographs of the blank here, with a photo card lying beside it (Guides prints it). "
        "Sizes between two taped ones are graded. Features and Style make a blank of your own. Everything is sized from these figures.");
}

}  // namespace orthema::app
