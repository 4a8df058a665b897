#include "app/session/settler.h"

#include <QThread>

#include <algorithm>
#include <chrono>
#include <optional>

#include "app/widgets/speech.h"
#include "app/widgets/figures.h"
#include "core/supply/film.h"

namespace orthema::app {

void Settler::settle(const std::string& medium_id, double seconds) { settle(medium_id, seconds, false); }

void Settler::settle(const std::string& medium_id, double seconds, bool quiet) {
    const Medium* medium = find_medium(document_.order(), medium_id);
    if (medium == nullptr || running_ || chain_.catching_up()) return;
    const MediumLayout now = layout_of(document_.order(), medium_id);
    // A sound layout is replaced only by a better one; one that mixes groups by any that parts them.
    std::optional<LaidOut> present;
    curve_.clear();
    for (const MediumPlan& plan : chain_.work().sheet_plan().media)
        if (plan.medium == medium_id && !plan.stale && !plan.mixed && plan.placed == plan.asked) {
            present = measured(*medium, chain_.work().transfer_set(), {now.copies, now.stock});
            curve_.push_back({0, present->density});
        }
    running_ = true;
    stop_ = std::make_shared<std::atomic<bool>>(false);
    document_.end_gesture();
    const auto begun = std::chrono::steady_clock::now();
    jobs_.background(
        [this, medium = *medium, set = chain_.work().transfer_set(), shop = chain_.shop(), now, begun, seconds, quiet, stop = stop_,
         present, seed = ++seed_]() -> std::function<void()> {
            NestOptions options;
            options.seconds = seconds;
            options.threads = std::max(1, QThread::idealThreadCount());
            options.seed = seed;
            const auto passed = [begun] { return std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count(); };
            bool gained = false;
            const auto show = [&](const LaidOut& laid) {
                if (present && !beats(medium, laid, *present)) return;
                gained = true;
                QMetaObject::invokeMethod(
                    this,
                    [this, stop, id = medium.id, at = passed(), density = laid.density, sheets = laid.sheets] {
                        if (*stop || !running_) return;
                        curve_.push_back({at, density});
                        document_.edit(tr("settle"), with_layout(document_.order(), id, sheets), QStringLiteral("settle"));
                    },
                    Qt::QueuedConnection);
            };
            const Stock& stock = stock_in(shop);
            const auto solution = lay_out_on_stock(medium, set, now, options, stock, Task{{}, stop.get()}, show);
            // which rolls it is printed from; where what lies there fits on none, what was laid for them takes its place
            std::optional<LaidSheets> at_last;
            if (solution && !gained) at_last = with_rolls(medium, set, {now.copies, now.stock}, stock);
            if (solution && !at_last && (gained || with_rolls(medium, set, solution->sheets, stock))) at_last = solution->sheets;
            return [this, stop, solution, gained, quiet, at_last, id = medium.id, at = passed()] {
                if (stop_ == stop) {
                    if (at_last && running_ && !*stop) {
                        Order rolled = with_layout(document_.order(), id, *at_last);
                        if (rolled.layouts != document_.order().layouts)
                            document_.edit(tr("settle"), std::move(rolled), QStringLiteral("settle"));
                    }
                    running_ = false;
                    document_.end_gesture();
                    if (!curve_.empty()) curve_.push_back({at, curve_.back().density});
                    if (solution && !gained && !*stop && !quiet)
                        notices_.say(tr("No better layout was found in that time: this one stays."));
                }
                if (!solution) notices_.complain(solution.error());
                next();
                emit changed();
            };
        },
        [this] { stop(); });
    emit changed();
}

void Settler::settle_all(double seconds) {
    if (running()) return;
    each_ = seconds;
    for (const MediumPlan& plan : chain_.work().sheet_plan().media)
        if (plan.asked > 0) waiting_.insert(waiting_.begin(), plan.medium);
    next();
    emit changed();
}

/// The next medium, once what was laid before is worked out.
void Settler::next() {
    if (running_ || waiting_.empty() || chain_.catching_up()) return;
    const std::string medium = waiting_.back();
    waiting_.pop_back();
    settle(medium, each_, true);
}

void Settler::stop() {
    waiting_.clear();
    if (!running_) return;
    *stop_ = true;
    running_ = false;
    document_.end_gesture();
}

void Settler::fill(const std::string& medium_id) {
    const Medium* medium = find_medium(document_.order(), medium_id);
    if (medium == nullptr || running_ || chain_.catching_up()) return;
    document_.end_gesture();
    jobs_.background([this, medium = *medium, set = chain_.work().transfer_set(),
                      before = layout_of(document_.order(), medium_id)]() -> std::function<void()> {
        const MediumLayout after = filled(medium, set, before);
        return [this, before, after] {
            if (layout_of(document_.order(), before.medium) != before) return;  // changed in the meantime
            int more = 0;
            for (const FillWish& f : after.fill) more += f.copies;
            document_.edit(tr("fill what is left"), with_layout(document_.order(), after));
            notices_.say(more > 0 ? tr("%1 pieces more found room.").arg(more) : tr("Nothing of that finds room on these sheets."));
        };
    });
    emit changed();
}

}  // namespace orthema::app
