#include "app/window/settings_panel.h"

#include <QCheckBox>
#include <QKeyEvent>
#include <QLabel>

#include "app/widgets/choice_box.h"
#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "app/window/over.h"
#include "files/languages.h"
#include "app/window/look_up.h"

namespace orthema::app {

namespace {

constexpr int sizes_percent[] = {100, 125, 150, 200};

}  // namespace

template <class Change>
void SettingsPanel::like(Change change) {
    Liked next = room_.settings().liked();
    change(next);
    if (const auto fault = room_.settings().like(next)) room_.notices().complain(*fault);
    show_liked();
}

SettingsPanel::SettingsPanel(Workroom& room, QWidget* parent) : QFrame(parent), room_(room) {
    make_over(this, "SettingsPanel", tr("Settings"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(18, 14, 18, 14);
    column->setSpacing(6);
    auto* head = new QHBoxLayout;
    head->addWidget(head_label(tr("Settings")));
    head->addStretch(1);
    find_ = new QLineEdit;
    find_->setObjectName(QStringLiteral("Find a setting"));
    find_->setAccessibleName(tr("Find a setting"));
    find_->setPlaceholderText(tr("only with this word"));
    find_->setFixedWidth(180);
    head->addWidget(find_);
    auto* close = push(tr("Close"), tr("Back to the bench (Escape)"));
    head->addWidget(close);
    column->addLayout(head);
    body_ = new QWidget;
    auto* rows = new QVBoxLayout(body_);
    rows->setContentsMargins(0, 4, 0, 0);
    rows->setSpacing(7);
    column->addWidget(body_);
    connect(close, &QPushButton::clicked, this, &QWidget::hide);
    connect(find_, &QLineEdit::textChanged, this, &SettingsPanel::filter);

    const auto choice = [](const char* name, const QStringList& of) {
        auto* s = new Segments(tr(name), of);
        s->setFixedWidth(240);
        return s;
    };
    section(tr("A new order begins with"));
    unit_ = choice(noted("Lengths in"), {tr("inches"), tr("millimetres")});
    unit_->chosen = [this](int i) { like([&](Liked& l) { l.unit = i == 0 ? Unit::inch : Unit::mm; }); };
    row(tr("Lengths in"), tr("Shown so; any unit can be typed at any time"), unit_);
    paper_ = choice(noted("Paper of the office"), {QStringLiteral("A4"), tr("letter")});
    paper_->chosen = [this](int i) { like([&](Liked& l) { l.paper = i == 1 ? Paper::letter : Paper::a4; }); };
    row(tr("Paper of the office"), tr("For guides, templates, tickets and quotes"), paper_);
    heat_ = choice(noted("Heat in"), {QStringLiteral("°C"), QStringLiteral("°F")});
    heat_->chosen = [this](int i) { like([&](Liked& l) { l.fahrenheit = i == 1; }); };
    row(tr("Heat in"), tr("Shown so on recipes, cards and in the records"), heat_);
    medium_ = new ChoiceBox;
    press_ = new ChoiceBox;
    for (QComboBox* box : {medium_, press_}) {
        box->setMinimumWidth(240);
        box->setMaximumWidth(260);
    }
    connect(medium_, &QComboBox::activated, this, [this] { like([&](Liked& l) { l.medium = chosen_id(medium_); }); });
    connect(press_, &QComboBox::activated, this, [this] { like([&](Liked& l) { l.press = chosen_id(press_); }); });
    row(tr("Film or paper"), tr("Of a new design, until another is chosen on Fit"), medium_);
    row(tr("Press"), tr("Of a new design, where this kind of press takes it"), press_);
    currency_ = new ValueField(tr("Prices in"));
    currency_->setFixedWidth(70);
    currency_->take = [this](const QString& text, bool) -> std::optional<QString> {
        if (text.trimmed().size() > 8) return tr("Eight letters at most: it stands before every price.");
        like([&](Liked& l) { l.currency = text.trimmed(); });
        return std::nullopt;
    };
    row(tr("Prices in"), tr("What stands before a price; may be empty"), currency_);
    hour_ = new NumberField(tr("An hour costs"), 0, 100000, 2);
    hour_->setFixedWidth(70);
    hour_->entered = [this](double v) { like([&](Liked& l) { l.hourly = v; }); };
    row(tr("An hour costs"), tr("Of one pair of hands, for prices and costs"), hour_);

    section(tr("Window"));
    language_ = new ChoiceBox;
    language_->setMinimumWidth(240);
    language_->setMaximumWidth(260);
    connect(language_, &QComboBox::activated, this, [this] {
        like([&](Liked& l) { l.language = qt(chosen_id(language_)); });
        from_next_start(tr("Another language is spoken when the program starts again."));
    });
    row(tr("Language"), tr("Of the window, findings and guides, from the next start; the manual is English"), language_);
    size_ = choice(noted("Everything at"),
                   {QStringLiteral("100 %"), QStringLiteral("125 %"), QStringLiteral("150 %"), QStringLiteral("200 %")});
    size_->chosen = [this](int i) {
        like([&](Liked& l) { l.size_percent = sizes_percent[i]; });
        from_next_start(tr("Everything is at %1 % when the program starts again, as far as the screen has room.").arg(sizes_percent[i]));
    };
    row(tr("Everything at"), tr("Type, buttons and drawings alike, from the next start"), size_);
    const auto tick = [](const QString& name) {
        auto* box = new QCheckBox;
        box->setObjectName(name);
        box->setAccessibleName(name);
        return box;
    };
    quiet_ = tick(tr("Nothing glides"));
    connect(quiet_, &QCheckBox::clicked, this, [this](bool on) { like([&](Liked& l) { l.quiet = on; }); });
    row(tr("Nothing glides"), tr("Pieces that move on the film are at their place at once"), quiet_);

    section(tr("Press"));
    sound_ = tick(tr("A sound when a wait is over"));
    connect(sound_, &QCheckBox::clicked, this, [this](bool on) { like([&](Liked& l) { l.sound = on; }); });
    row(tr("A sound when a wait is over"), tr("For hands that look elsewhere meanwhile"), sound_);
    dark_ = tick(tr("A dark step card"));
    connect(dark_, &QCheckBox::clicked, this, [this](bool on) { like([&](Liked& l) { l.dark_card = on; }); });
    row(tr("A dark step card"), tr("For dim rooms; the map beside it stays light, its cloth is seen as it is"), dark_);
    hide();
}

void SettingsPanel::from_next_start(const QString& words) {
    room_.say({words, false, tr("Start again"), [this] {
                   if (start_again) start_again();
               }});
}

void SettingsPanel::section(const QString& name) {
    auto* head = new QLabel(name);
    head->setProperty("strong", true);
    head->setContentsMargins(0, 6, 0, 0);
    body_->layout()->addWidget(head);
    sections_.push_back(head);
}

void SettingsPanel::row(const QString& name, const QString& why, QWidget* control) {
    auto* whole = new QWidget;
    auto* line = new QHBoxLayout(whole);
    line->setContentsMargins(0, 0, 0, 0);
    line->setSpacing(12);
    auto* label = new QLabel(name);
    label->setFixedWidth(180);
    label->setWordWrap(true);
    label->setBuddy(control);
    line->addWidget(label);
    line->addWidget(control);
    auto* says = new QLabel(why);
    says->setProperty("quiet", true);
    says->setWordWrap(true);
    line->addWidget(says, 1);
    if (control->accessibleName().isEmpty()) {
        control->setAccessibleName(name);
        control->setObjectName(name);
    }
    control->setToolTip(why);
    body_->layout()->addWidget(whole);
    rows_.push_back({whole, name + QLatin1Char(' ') + why, int(sections_.size()) - 1});
}

void SettingsPanel::filter(const QString& typed) {
    std::vector<bool> any(sections_.size(), false);
    for (const Row& r : rows_) {
        const bool fits = fitness(typed, r.words).has_value();
        r.whole->setVisible(fits);
        if (fits) any[std::size_t(r.section)] = true;
    }
    for (std::size_t i = 0; i < sections_.size(); ++i) sections_[i]->setVisible(any[i]);
}

void SettingsPanel::show_liked() {
    const Liked& l = room_.settings().liked();
    unit_->show_choice(l.unit == Unit::inch ? 0 : 1);
    paper_->show_choice(l.paper == Paper::letter ? 1 : 0);
    heat_->show_choice(l.fahrenheit ? 1 : 0);
    std::vector<std::pair<std::string, QString>> languages{{"", tr("as the desktop")}, {"en", QStringLiteral("English")}};
    for (const ShippedLanguage& other : shipped_languages) languages.emplace_back(other.code, QString::fromUtf8(other.name));
    set_items(language_, languages, l.language.toStdString());
    const LibraryContent& shop = room_.library().content();
    std::vector<std::pair<std::string, QString>> media, presses;
    for (const Medium& m : shop.media) media.emplace_back(m.id, qt(m.name));
    for (const Press& p : shop.presses) presses.emplace_back(p.id, qt(p.name));
    set_items(medium_, media, l.medium.empty() && !media.empty() ? media.front().first : l.medium);
    set_items(press_, presses, l.press.empty() && !presses.empty() ? presses.front().first : l.press);
    currency_->show_text(l.currency);
    hour_->show_number(l.hourly);
    for (int i = 0; i < int(std::size(sizes_percent)); ++i)
        if (sizes_percent[i] == l.size_percent) size_->show_choice(i);
    quiet_->setChecked(l.quiet);
    sound_->setChecked(l.sound);
    dark_->setChecked(l.dark_card);
}

void SettingsPanel::rise() {
    show_liked();
    find_->clear();
    constexpr int widest = 820;
    lay_over(this, widest, 10);
    lay_over(this, widest, layout()->sizeHint().height() + 10);
    show();
    raise();
    find_->setFocus();
}

void SettingsPanel::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape) return hide();
    QFrame::keyPressEvent(event);
}

}  // namespace orthema::app
