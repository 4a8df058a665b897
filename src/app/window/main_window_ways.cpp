// The ways about: what next, the look-up, keys, manual, settings, what to report, and the place that an order was left at.
#include <QClipboard>
#include <QGuiApplication>

#include "app/widgets/speech.h"
#include "app/benches/art/art_bench.h"
#include "app/benches/order/order_bench.h"
#include "app/benches/press/press_bench.h"
#include "app/benches/press/press_desk.h"
#include "app/benches/records/records_bench.h"
#include "app/benches/sheets/sheets_bench.h"
#include "app/desk/desk.h"
#include "app/session/log.h"
#include "app/widgets/figures.h"
#include "app/window/all_known.h"
#include "app/window/findings_panel.h"
#include "app/window/findings_strip.h"
#include "app/window/keys_panel.h"
#include "app/window/look_up.h"
#include "app/window/main_window.h"
#include "app/window/manual.h"
#include "app/window/next_line.h"
#include "app/window/settings_panel.h"
#include "core/order/gang.h"

namespace orthema::app {

/// Of the bench that is looked at, or of the desk.
void MainWindow::show_next() {
    next_->setFixedHeight(std::max(40, findings_->height()));
    const Order& order = room_.order();
    if (at_desk_) {
        const auto step = desk()->next();
        next_->setVisible(step.has_value());  // an empty desk has its own beginnings
        return next_->show_step(step, false, order.unit);
    }
    next_->setVisible(true);
    NextAsked asked;
    asked.stage = stages()[std::size_t(current_)].key;
    if (auto* press = static_cast<PressBench*>(benches_[std::size_t(stage_index("press"))])) asked.running = press->desk().running();
    asked.sent_out = [&] { return sent_out_ && *sent_out_ == order; };
    asked.pressed = [&] {
        const auto& records = room_.records().all();
        return std::any_of(records.rbegin(), records.rend(), [&](const PressRecord& r) { return !r.rehearsal && holds_job(order, r.job); });
    };
    if (auto* bench = static_cast<RecordsBench*>(benches_[std::size_t(stage_index("records"))]))
        asked.lessons = int(bench->proposed().size());
    asked.seen = [this](const Finding& f) { return all_findings_->seen(f); };
    const bool behind = room_.catching_up();
    next_->show_step(behind ? std::nullopt : next_step(order, room_.work(), asked), behind, order.unit);
}

void MainWindow::do_next(const NextStep& step) {
    if (step.deed == Deed::send_out) return (void)show_export();
    if (step.deed == Deed::buy) return desk()->show_page(3);
    if (step.deed == Deed::take_up) return step.about.job == room_.order().job ? go_to(current_) : desk()->open(step.about.job);
    const bool was_there = !at_desk_ && stages()[std::size_t(current_)].key == step.about.stage;
    go_to(qt(step.about.stage));
    Bench* there = made(current_);
    switch (step.deed) {
    case Deed::go: there->go(step.about); break;
    case Deed::list: static_cast<OrderBench*>(there)->ask_for_list(); break;
    case Deed::pictures: static_cast<ArtBench*>(there)->ask_for_pictures(); break;
    case Deed::put_on: {  // seen before it is done
        auto* art = static_cast<ArtBench*>(there);
        art->choose_run(step.about);
        if (was_there) art->put_on_chosen();
        break;
    }
    case Deed::settle: static_cast<SheetsBench*>(there)->settle_all(); break;
    case Deed::lessons: static_cast<RecordsBench*>(there)->show_lessons(); break;
    case Deed::shift:
    case Deed::buy:
    case Deed::take_up:
    case Deed::send_out: break;
    }
}

/// The manual's page of what is looked at; where there is no manual, what the bench says of itself.
void MainWindow::help() {
    if (manual_ == nullptr) manual_ = Manual::found(this);
    if (manual_ == nullptr) return room_.say({at_desk_ ? desk()->help() : made(current_)->help(), false, {}, {}});
    manual_->show_page(at_desk_ ? QStringLiteral("desk") : QString::fromLatin1(stages()[std::size_t(current_)].key));
}

void MainWindow::look_up() {
    if (look_up_ == nullptr) {
        look_up_ = new LookUp(centralWidget());
        look_up_->all = [this] { return everything(); };
    }
    look_up_->rise();
}

/// What the window itself does, then what stands on the benches, then what is in the order.
std::vector<Known> MainWindow::everything() {
    std::vector<Known> out;
    const auto deed = [&](const QString& text, const QString& where, const std::function<void()>& go, int weight) {
        out.push_back({text, where, {}, go, weight});
    };
    deed(
        tr("Desk"), tr("Ctrl+0"), [this] { show_desk(); }, 20);
    for (std::size_t i = 0; i < benches_.size(); ++i)
        deed(
            tr(stages()[i].name), tr("bench, Ctrl+%1").arg(i + 1), [this, i] { go_to(int(i)); }, 20);
    for (QAction* a : actions())
        if (a->isEnabled() && !a->text().isEmpty() && a->shortcut() != QKeySequence(QStringLiteral("Ctrl+K")))
            deed(
                a->text(), a->shortcut().toString(QKeySequence::NativeText), [a] { a->trigger(); }, 15);
    deed(
        tr("Export…"), tr("Ctrl+E"), [this] { (void)show_export(); }, 16);
    deed(
        tr("All findings"), QStringLiteral("F7"), [this] { show_findings(); }, 15);
    Ways ways;
    ways.at = [this](const QString& stage, const Subject& about) {
        go_to(stage);
        made(current_)->go(about);
    };
    ways.part = [this](const QString& stage, QWidget* part) {
        go_to(stage);
        Bench* b = made(current_);
        if (bring_to_light(part, {b, b->figures()}))
            part->setFocus(Qt::ShortcutFocusReason);
        else
            room_.say({tr("That is not there for what is chosen now."), false, {}, {}});
    };
    ways.finding = [this](int at) { findings_->show_at(at); };
    ways.open = [this](const QString& path) { room_.keeper().open(path); };
    for (Bench* b : benches_)
        if (b != nullptr)
            for (QWidget* of : {static_cast<QWidget*>(b), b->figures()}) add_parts(out, b->stage(), of, ways);
    add_order(out, room_, ways);
    return out;
}

void MainWindow::show_settings() {
    if (settings_ == nullptr) {
        settings_ = new SettingsPanel(room_, centralWidget());
        settings_->start_again = [this] {
            const QString path = room_.keeper().path();
            if (close()) emit again_wanted(path);
        };
    }
    settings_->rise();
}

void MainWindow::copy_report() {
    QGuiApplication::clipboard()->setText(report_text(room_));
    room_.say({tr("Copied: version, system, counts and the last of the log. Nothing of the order's words, pictures or files is in it."),
               false,
               {},
               {}});
}

/// The bench and what was chosen there when this order was last left.
void MainWindow::keep_place() {
    const Order& order = room_.order();
    if (room_.keeper().path().isEmpty() || order.job.empty()) return;
    const Selection& s = room_.selection();
    QVariantMap place = room_.settings().place_in(order.job);
    place[QStringLiteral("bench")] = QString::fromLatin1(stages()[std::size_t(current_)].key);
    place[QStringLiteral("design")] = qt(s.decoration);
    place[QStringLiteral("blank")] = qt(s.style);
    place[QStringLiteral("size")] = qt(s.size);
    place[QStringLiteral("art")] = qt(s.art);
    place[QStringLiteral("medium")] = qt(s.medium);
    room_.settings().remember_place(order.job, place);
}

void MainWindow::go_back_to_place() {
    const QVariantMap place = room_.settings().place_in(room_.order().job);
    if (place.isEmpty()) return at_desk_ ? go_to(0) : void();
    const auto text = [&](const char* key) { return place.value(QString::fromLatin1(key)).toString().toStdString(); };
    Subject chosen;
    chosen.decoration = text("design");
    chosen.size = text("size");
    chosen.style = text("blank");
    chosen.art = text("art");
    chosen.medium = text("medium");
    Bench::select_subject(room_, chosen);
    go_to(std::max(0, stage_index(text("bench"))));
}

void MainWindow::show_keys() {
    if (keys_ == nullptr) keys_ = new KeysPanel(centralWidget());
    const Stage& s = stages()[std::size_t(current_)];
    keys_->rise(at_desk_ ? QStringLiteral("desk") : QString::fromLatin1(s.key), at_desk_ ? tr("Desk") : tr(s.name));
}

}  // namespace orthema::app
