// A folder that photographs come into, from a telephone or a camera: each is handed on once it is there whole.
#pragma once

#include <QMap>
#include <QObject>
#include <QSet>
#include <QStringList>
#include <QTimer>

#include "app/session/jobs.h"

namespace orthema::app {

class PhotoFolder : public QObject {
    Q_OBJECT
public:
    explicit PhotoFolder(Jobs& jobs, QObject* parent = nullptr);
    /// From now on; what lies there already is left alone. Empty: no more.
    void watch(const QString& folder);
    [[nodiscard]] const QString& folder() const { return folder_; }
    /// What a button or menu says of it: that one may be watched, or that this one no longer is to be.
    [[nodiscard]] QString offer() const;
    /// Does that: asks which, or ends it.
    void ask(QWidget* parent);

    std::function<void(const QStringList& photographs)> came;  ///< a few at a time
    std::function<void(const QString& sentence)> lost;         ///< it cannot be read any more, and is watched no longer

private:
    void look();
    void seen(const QString& folder, const QMap<QString, qint64>& sizes, bool there);
    Jobs& jobs_;
    QTimer timer_;
    QString folder_;
    bool first_ = false, looking_ = false;
    QMap<QString, qint64> growing_;  ///< with the size that it had when it was looked at last
    QSet<QString> known_;
};

}  // namespace orthema::app
