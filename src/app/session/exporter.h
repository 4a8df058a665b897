// Exporter: writes the order out in one go, and notes which guides were printed.
#pragma once

#include <QObject>
#include <QStringList>

#include <atomic>

#include "app/session/chain.h"
#include "app/session/notices.h"
#include "files/export_order.h"

namespace orthema::app {

class Exporter : public QObject {
    Q_OBJECT
public:
    Exporter(Document& document, Chain& chain, Pictures& pictures, Jobs& jobs, Notices& notices, QObject* parent = nullptr)
        : QObject(parent), document_(document), chain_(chain), pictures_(pictures), jobs_(jobs), notices_(notices) {}
    ~Exporter() override { stop(); }
    void export_to(const QString& folder, const ExportChoice& choice);
    void stop() { stop_ = true; }
    [[nodiscard]] bool running() const { return running_; }
    /// Of the last export that came to its end.
    [[nodiscard]] const ExportReport& report() const { return report_; }
    /// Notes that guides were printed from the figures of now: all, or one.
    void guides_printed(const std::string& decoration = {}, const std::string& size = {});

signals:
    void progress(double share, const QString& doing);
    void finished(const QStringList& files, const QString& fault);

private:
    Document& document_;
    Chain& chain_;
    Pictures& pictures_;
    Jobs& jobs_;
    Notices& notices_;
    bool running_ = false;
    ExportReport report_;
    std::atomic<bool> stop_ = false;
};

}  // namespace orthema::app
