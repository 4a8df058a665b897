#include "app/benches/press/measure_card.h"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>

#include <cmath>

#include "app/widgets/speech.h"
#include "app/benches/press/shift_recorder.h"
#include "app/widgets/canvas.h"
#include "app/widgets/figures.h"
#include "core/guides/panel_drawing.h"

namespace orthema::app {

/// The garment with the lines to measure, each by its letter.
class GarmentView : public Canvas {
public:
    GarmentView(Workroom& room, const ShiftRecorder& recorder) : Canvas(room.art()), room_(room), recorder_(recorder) {}

protected:
    Drawing draw(double width, double height) override {
        Drawing d;
        d.width = width;
        d.height = height;
        const PieceToMeasure* now = recorder_.wanted();
        if (now == nullptr) return d;
        const Decoration* dec = find_decoration(room_.order(), now->record.design);
        const DecorationFit* fit = find_fit(room_.plan(), now->record.design);
        const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, now->record.size);
        const Ground* ground = fit == nullptr ? nullptr : find_ground(*fit, now->record.size);
        if (dec == nullptr || size == nullptr || ground == nullptr) return d;
        // as large as the lines that are measured allow: of the garment what lies about them
        const Rect& ink = size->ink;
        const Rect lines{ink.x0 - std::max(0.0, size->left_margin), ink.y0 - std::max(0.0, size->top_to_ink),
                         ink.x1 + std::max(0.0, size->right_margin), ink.y1};
        constexpr double beside = 22;  // where a line is too short for its letter
        const double k = std::min((width - 2 * beside) / lines.width(), (height - 2 * beside) / lines.height());
        const Affine map{k, 0, 0, k, width / 2 - k * lines.centre().x, height / 2 - k * lines.centre().y};
        draw_panel(d, ground->panel, map, cloth_of(room_.order(), *dec), 1);
        draw_design(d, *dec, *size, map);
        DimensionStyle style, left, right;
        style.text_size = left.text_size = right.text_size = 13;
        left.aside = {-1, 0};
        right.aside = {1, 0};
        std::vector<Rect> plates;
        style.taken = left.taken = right.taken = &plates;
        const double y = ink.centre().y;
        for (const TapeAsk& a : now->asks) {
            if (a.at == TapeAt::top) draw_dimension(d, map({ink.centre().x, lines.y0}), map({ink.centre().x, ink.y0}), noted("A"), style);
            if (a.at == TapeAt::left) draw_dimension(d, map({lines.x0, y}), map({ink.x0, y}), noted("B"), left);
            if (a.at == TapeAt::right) draw_dimension(d, map({ink.x1, y}), map({lines.x1, y}), noted("C"), right);
        }
        return d;
    }

private:
    Workroom& room_;
    const ShiftRecorder& recorder_;
};

MeasureCard::MeasureCard(Workroom& room, ShiftRecorder& recorder) : room_(room), recorder_(recorder) {
    setObjectName(QStringLiteral("Measure this one"));
    setProperty("card", true);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 8, 12, 8);
    column->setSpacing(6);
    auto* warn = new QHBoxLayout;
    warning_ = new QLabel;
    warning_->setObjectName(QStringLiteral("Run warning"));
    warning_->setWordWrap(true);
    warning_->setProperty("strong", true);
    warn->addWidget(warning_, 1);
    looked_ = push(tr("Looked at it"), tr("The platen and the loading were looked at: the run begins anew"));
    looked_->setFocusPolicy(Qt::TabFocus);
    connect(looked_, &QPushButton::clicked, &recorder_, &ShiftRecorder::looked_at);
    warn->addWidget(looked_);
    column->addLayout(warn);
    work_ = new QWidget;
    auto* row = new QHBoxLayout(work_);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(12);
    view_ = new GarmentView(room, recorder);
    view_->setFixedSize(170, 150);
    row->addWidget(view_);
    auto* right = new QVBoxLayout;
    title_ = new QLabel;
    title_->setProperty("strong", true);
    title_->setWordWrap(true);
    head_ = new QHBoxLayout;
    head_->addWidget(title_, 1);
    right->addLayout(head_);
    grid_ = new QGridLayout;
    grid_->setHorizontalSpacing(10);
    grid_->setVerticalSpacing(4);
    static const char* const names[tape_at_count] = {
        noted("Measured, top"),        noted("Measured, left"),        noted("Measured, right"), noted("Measured, left edge"),
        noted("Measured, right edge"), noted("Measured, ink's width"), noted("Measured, gap")};
    for (int i = 0; i < tape_at_count; ++i) {
        const auto k = std::size_t(i);
        names_[k] = new QLabel;
        fields_[k] = new LengthField(tr(names[i]));
        fields_[k]->installEventFilter(this);
        fields_[k]->entered = [this, k](Length l, bool) -> std::optional<QString> {
            typed_.mm[k] = l.mm();
            return std::nullopt;
        };
    }
    line_ = new QHBoxLayout;
    line_->addLayout(grid_);
    line_->addStretch(1);
    right->addLayout(line_);
    keep_ = push(tr("Keep"), tr("Written to the shop's records (Return in the last field)"), true);
    skip_ = push(tr("Not this one"), tr("It is recorded without its place"));
    for (QPushButton* b : {keep_, skip_}) b->setFocusPolicy(Qt::TabFocus);
    connect(keep_, &QPushButton::clicked, this, &MeasureCard::keep);
    connect(skip_, &QPushButton::clicked, &recorder_, &ShiftRecorder::not_this_one);
    hint_ = new QLabel;
    hint_->setProperty("quiet", true);
    foot_ = new QHBoxLayout;
    right->addLayout(foot_);
    arrange();
    row->addLayout(right, 1);
    column->addWidget(work_);
    hide();
}

/// Where the window is low the step card needs the room: the figures stand in one line, with what is needed alone and no drawing.
bool MeasureCard::arrange() {
    const bool low = window()->height() < 760;
    if (low_ == low) return false;
    low_ = low;
    view_->setVisible(!low);
    for (std::size_t k = 0; k < fields_.size(); ++k) {
        const int at = k == std::size_t(TapeAt::gap) ? 0 : int(k);
        fields_[k]->setFixedWidth(low ? 70 : 92);
        grid_->addWidget(names_[k], low ? 0 : at % 3, low ? at * 2 : at / 3 * 2);
        grid_->addWidget(fields_[k], low ? 0 : at % 3, (low ? at : at / 3) * 2 + 1);
    }
    QHBoxLayout* with = low ? head_ : foot_;
    with->insertWidget(low ? 1 : 0, keep_);
    with->insertWidget(low ? 2 : 1, skip_);
    (low ? line_ : foot_)->addWidget(hint_, low ? 0 : 1);
    return true;
}

bool MeasureCard::eventFilter(QObject* watched, QEvent* event) {
    // while a figure is typed the card's keys are its own
    if (event->type() == QEvent::ShortcutOverride &&
        (static_cast<QKeyEvent*>(event)->modifiers() & (Qt::ControlModifier | Qt::AltModifier)) == Qt::NoModifier) {
        event->accept();
        return false;
    }
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            const auto at = std::find(fields_.begin(), fields_.end(), watched);
            QMetaObject::invokeMethod(
                this,
                [this, from = at - fields_.begin()] {
                    for (auto k = std::size_t(from) + 1; k < fields_.size(); ++k)
                        if (fields_[k]->isVisible() && k < std::size_t(TapeAt::left_edge)) return fields_[k]->setFocus(Qt::TabFocusReason);
                    keep();
                },
                Qt::QueuedConnection);
        }
    }
    return QFrame::eventFilter(watched, event);
}

void MeasureCard::keep() {
    if (recorder_.wanted() == nullptr) return;
    for (LengthField* f : fields_)  // what stands typed in a field counts
        if (f->isVisible() && f->hasFocus()) f->clearFocus();
    const Taped typed = typed_;
    if (!typed.any()) return hint_->setText(tr("Type what the tape reads, two figures at least."));
    for (const TapeAsk& a : recorder_.wanted()->asks)
        if (const auto& v = typed[a.at];
            v && a.planned > 0 && std::abs(*v - a.planned) > doubtful_from && hint_->property("doubt") != true) {
            hint_->setProperty("doubt", true);
            return hint_->setText(tr("%1 off its card: keep it again if it is so.")
                                      .arg(qt(length_text(Length::from_mm(std::abs(*v - a.planned)), room_.order().unit))));
        }
    recorder_.measured(typed);
}

void MeasureCard::refresh() {
    const QString warning = recorder_.warning();
    warning_->setText(warning);
    warning_->setVisible(!warning.isEmpty());
    looked_->setVisible(!warning.isEmpty());
    const PieceToMeasure* now = recorder_.wanted();
    const bool arranged_anew = arrange();
    // a piece that is gone takes its fields along: the keys go back to the work
    if (!shown_.empty() && (now == nullptr || now->record.id != shown_))
        if (QWidget* focused = window()->focusWidget(); focused != nullptr && isAncestorOf(focused)) done();
    work_->setVisible(now != nullptr);
    setVisible(now != nullptr || !warning.isEmpty());
    if (now == nullptr) {
        shown_.clear();
        return;
    }
    if (now->record.id == shown_ && !arranged_anew) return;
    shown_ = now->record.id;
    typed_ = {};
    hint_->setProperty("doubt", false);
    hint_->setText(recorder_.waiting() > 1 ? tr("%1 wait").arg(counted(recorder_.waiting(), "piece")) : QString());
    const Decoration* d = find_decoration(room_.order(), now->record.design);
    title_->setText(tr("Measure this one: %1, %2 %3, piece %4")
                        .arg(d == nullptr ? qt(now->record.design) : qt(d->name),
                             d == nullptr ? QString() : qt(run_name(room_.order(), d->run)), qt(now->record.size))
                        .arg(now->record.first));
    for (std::size_t k = 0; k < fields_.size(); ++k) {
        const auto ask = std::find_if(now->asks.begin(), now->asks.end(), [&](const TapeAsk& a) { return std::size_t(a.at) == k; });
        const bool asked = ask != now->asks.end();
        const bool there = asked && (ask->needed || low_ != true);
        fields_[k]->setVisible(there);
        names_[k]->setVisible(there);
        if (!asked) continue;
        // the letter is on the drawing, where there is one; the words are under the pointer
        static const char* const short_words[tape_at_count] = {noted("A"),           noted("B"), noted("C"), noted("left lower"),
                                                               noted("right lower"), "ink",      "gap"};
        static const char* const plain_words[] = {noted("top"), noted("left"), noted("right")};
        QString words = tr(low_ == true && k < std::size(plain_words) ? plain_words[k] : short_words[k]);
        if (ask->planned > 0) words += QStringLiteral("  %1").arg(qt(length_text(Length::from_mm(ask->planned), room_.order().unit)));
        names_[k]->setText(words);
        for (QWidget* w : std::initializer_list<QWidget*>{names_[k], fields_[k]}) w->setToolTip(qt(ask->words));
        fields_[k]->setText({});
        fields_[k]->setModified(false);
        fields_[k]->setPlaceholderText(ask->needed ? QString() : tr("if told"));
        if (const auto& read = now->tape[ask->at]) {  // a rehearsal reads its own tape
            typed_[ask->at] = *read;
            fields_[k]->show_length(Length::from_mm(std::round(*read * 10) / 10), room_.order().unit);
        } else {
            fields_[k]->show_length(Length::from_mm(0), room_.order().unit);
            fields_[k]->setText({});
        }
    }
    view_->refresh();
}

}  // namespace orthema::app
