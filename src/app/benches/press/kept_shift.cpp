// Press desk, the part that keeps how far a shift is: on disk, after every step, under a name that only its order has.
#include <QDir>
#include <QFileInfo>

#include <utility>

#include "app/widgets/speech.h"
#include "app/benches/press/press_desk.h"
#include "app/widgets/figures.h"
#include "devices/printer.h"
#include "files/safe_file.h"

namespace orthema::app {

/// Of its job too: orders of one name are not one order.
std::string PressDesk::kept_name() const {
    const Order& order = room_.order();
    const std::string job = order.job.substr(std::min(order.job.size(), order.job.find('-') + 1)).substr(0, 12);
    return file_stem(order.name) + (job.empty() ? "" : "-" + file_stem(job));
}

QString PressDesk::kept_path(const std::string& name) const { return room_.keeper().data_folder() + "/shifts/" + qt(name) + ".json"; }

void PressDesk::look_for_kept() {
    keeper_.waitForDone();
    looked_for_ = kept_name();
    kept_.reset();
    const QString path = kept_path(looked_for_);
    if (!QFileInfo::exists(path)) QFile::rename(kept_path(file_stem(room_.order().name)), path);  // as they were named before
    if (!QFileInfo::exists(path)) return;
    const auto text = read_file(path.toStdString());
    auto shift = text ? shift_from(*text) : Result<KeptShift>(text.error());
    if (!shift)
        room_.say({tr("The shift that was kept cannot be read: ") + refusal(shift.error()), true, {}, {}});
    else if (shift->order == room_.order().name)
        kept_ = std::move(*shift);
}

void PressDesk::keep() {
    if (!shift_) return;
    std::string text;
    if (!shift_->over()) {
        KeptShift k;
        k.order = order_;
        k.id = id_;
        k.rehearsal = simulated_;
        k.speed = speed_;
        k.loads = int(shift_->plan().loads.size());
        k.loads_done = shift_->loads_done();
        k.record = shift_->record(now());
        for (const Load& l : shift_->plan().loads)
            if (l.trial) k.trials.push_back(l.id);
        if (!k.record.pieces.empty()) text = shift_json(k);
    }
    keeper_.clear();  // what was not written yet is older
    keeper_.start([this, path = kept_path(kept_as_), text = std::move(text)] {
        room_.records().flush();  // what the shift counts as done is in the book before the shift says so
        if (text.empty()) {
            QFile::remove(path);
            return;
        }
        QDir().mkpath(QFileInfo(path).path());
        if (const auto done = write_file(path.toStdString(), text); !done)
            QMetaObject::invokeMethod(this, [this, why = done.error()] {
                if (!std::exchange(said_unkept_, true))
                    room_.say({tr("How far the shift is cannot be kept: ") + refusal(why), true, {}, {}});
            });
    });
}

}  // namespace orthema::app
