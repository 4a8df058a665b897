// Devices: the printer and the cutter that are simulated, off the thread that draws.
#pragma once

#include <QObject>

#include "app/session/chain.h"
#include "devices/printer.h"

namespace orthema::app {

class Devices : public QObject {
    Q_OBJECT
public:
    Devices(Document& document, Chain& chain, Pictures& pictures, Jobs& jobs, QObject* parent = nullptr)
        : QObject(parent), document_(document), chain_(chain), pictures_(pictures), jobs_(jobs) {}
    /// Prints one sheet; what is whole of it when it fails is counted as printed, and the rest waits to be settled again.
    void print_sheet(const Sheet& sheet, const PrinterSetup& setup, double dpi);
    /// Follows a sheet's cutting path over what is printed on it.
    void cut_sheet(const Sheet& sheet);
    [[nodiscard]] const QString& says() const { return says_; }

signals:
    void changed();
    /// So much of the sheet is on film, mm.
    void printed(const orthema::Sheet& sheet, double length);

private:
    Document& document_;
    Chain& chain_;
    Pictures& pictures_;
    Jobs& jobs_;
    QString says_;
};

}  // namespace orthema::app
