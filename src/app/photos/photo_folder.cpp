#include "app/photos/photo_folder.h"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>

#include <utility>

#include "app/widgets/speech.h"
#include "app/photos/taped_photo.h"

namespace orthema::app {

namespace {

constexpr int every_ms = 1000;

}  // namespace

PhotoFolder::PhotoFolder(Jobs& jobs, QObject* parent) : QObject(parent), jobs_(jobs) {
    timer_.setInterval(every_ms);
    connect(&timer_, &QTimer::timeout, this, &PhotoFolder::look);
}

void PhotoFolder::watch(const QString& folder) {
    folder_ = folder;
    growing_.clear();
    known_.clear();
    first_ = true;
    looking_ = false;
    if (folder_.isEmpty()) {
        timer_.stop();
        return;
    }
    timer_.start();
    look();
}

QString PhotoFolder::offer() const {
    return folder_.isEmpty() ? tr("Watch a folder for photographs…") : tr("No longer watch “%1”").arg(QFileInfo(folder_).fileName());
}

void PhotoFolder::ask(QWidget* parent) {
    watch(folder_.isEmpty() ? QFileDialog::getExistingDirectory(parent, tr("The folder that photographs come into")) : QString());
}

/// On a thread: a folder on another machine may take its time.
void PhotoFolder::look() {
    if (looking_ || folder_.isEmpty()) return;
    looking_ = true;
    jobs_.background(
        [this, folder = folder_]() -> std::function<void()> {
            const QDir dir(folder);
            QMap<QString, qint64> sizes;
            for (const QFileInfo& f : dir.entryInfoList(photo_files(), QDir::Files | QDir::Readable, QDir::Name))
                sizes[f.absoluteFilePath()] = f.size();
            return [this, folder, sizes, there = dir.exists()] { seen(folder, sizes, there); };
        },
        [this] { looking_ = false; });
}

void PhotoFolder::seen(const QString& folder, const QMap<QString, qint64>& sizes, bool there) {
    if (folder != folder_) return;
    looking_ = false;
    if (!there) {
        watch({});
        if (lost) lost(tr("“%1” cannot be read any more: it is watched no longer.").arg(QFileInfo(folder).fileName()));
        return;
    }
    QStringList whole;
    for (auto it = sizes.begin(); it != sizes.end(); ++it) {
        if (known_.contains(it.key())) continue;
        if (first_) {
            known_.insert(it.key());
        } else if (it.value() > 0 && growing_.value(it.key(), -1) == it.value()) {  // no larger than a second ago
            known_.insert(it.key());
            growing_.remove(it.key());
            whole << it.key();
        } else {
            growing_[it.key()] = it.value();
        }
    }
    first_ = false;
    if (!whole.isEmpty() && came) came(whole);
}

}  // namespace orthema::app
