#include "app/session/jobs.h"

#include "app/widgets/speech.h"

#include <exception>
#include <new>

namespace orthema::app {

Jobs::Jobs(QObject* parent) : QObject(parent) { pool_.setMaxThreadCount(4); }

void Jobs::background(std::function<std::function<void()>()> work, std::function<void()> failed) {
    ++running_;
    pool_.start([this, work = std::move(work), failed = std::move(failed)] {
        std::function<void()> done;
        QString fault;
        try {
            done = work();
        } catch (const std::bad_alloc&) {
            fault = tr("There was not enough memory for that. The order is as it was: save it, and close what else is open.");
        } catch (const std::exception& e) {
            fault = tr("Something went wrong in the program (%1). The order is as it was: save it under another name.")
                        .arg(QString::fromUtf8(e.what()));
        }
        QMetaObject::invokeMethod(
            this,
            [this, done = std::move(done), failed, fault] {
                --running_;
                if (!fault.isEmpty()) {
                    if (failed) failed();
                    emit threw(fault);
                } else if (done) {
                    done();
                }
            },
            Qt::QueuedConnection);
    });
}

}  // namespace orthema::app
