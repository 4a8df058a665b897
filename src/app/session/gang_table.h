// Gang table: several orders laid on the table as one, another brought in, one taken out again.
#pragma once

#include <QObject>
#include <QStringList>

#include "app/session/chain.h"
#include "app/session/keeper.h"
#include "app/session/notices.h"
#include "app/session/pictures.h"
#include "app/session/records.h"

namespace orthema::app {

class GangTable : public QObject {
    Q_OBJECT
public:
    GangTable(Document& document, Pictures& pictures, Chain& chain, Keeper& keeper, Records& records, Jobs& jobs, Notices& notices,
              QObject* parent = nullptr);
    /// A new gang of these orders takes the table; the files stay as they are.
    void gang(const QStringList& paths);
    /// A new order like this one takes the table.
    void begin_like(const QString& path);
    /// Another order beside what lies on the table, which becomes a gang by it. One step for undo.
    void bring_in(const QString& path);
    /// The job is saved as an order of its own, and leaves the table where that went well. Undo brings it back; the file stays.
    void take_out(const std::string& job, const QString& path);

private:
    Document& document_;
    Pictures& pictures_;
    Chain& chain_;
    Keeper& keeper_;
    Records& records_;
    Jobs& jobs_;
    Notices& notices_;
};

}  // namespace orthema::app
