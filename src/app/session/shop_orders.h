// Shop orders: every order that the shop has, as the desk shows them: found again where they were saved, read when the program starts.
#pragma once

#include <QObject>
#include <QStringList>

#include <memory>
#include <mutex>
#include <set>

#include "app/session/chain.h"
#include "app/session/notices.h"
#include "app/session/pictures.h"
#include "files/order_book.h"

namespace orthema::app {

class ShopOrders : public QObject {
    Q_OBJECT
public:
    ShopOrders(Document& document, Pictures& pictures, Chain& chain, Jobs& jobs, Notices& notices, QObject* parent = nullptr);
    ~ShopOrders() override;
    /// Reads them on a thread; what was noted before is written then.
    void open(const QString& library_path);
    /// Another shop's library comes: nothing of this one's goes into it.
    void close();
    /// In the order of a desk; put away ones last.
    [[nodiscard]] const std::vector<KnownOrder>& all() const { return all_; }
    [[nodiscard]] const KnownOrder* find(const std::string& job) const;
    [[nodiscard]] bool opened() const { return opened_; }
    /// The order on the table lies at this path now: its card is made anew.
    void note(const QString& path);
    void put_away(const std::string& job, bool away);
    void forget(const std::string& job);
    /// Looks on a thread for orders that lie beside those that are known.
    void look_around();

signals:
    void changed();
    /// These were put away, or are known no more: orders, and the jobs of a gang.
    void gone(const std::vector<std::string>& jobs);

private:
    /// The order, and those jobs of it that lie in no other that is still on the desk.
    [[nodiscard]] std::vector<std::string> leaving(const std::string& job) const;
    /// Writes on the one thread that does, in turn.
    void write(std::function<Result<Done>(OrderBook&)> what);
    void take_in(KnownOrder order);
    void look_at(const std::string& path, const std::string& saved);
    void sort();
    Document& document_;
    Pictures& pictures_;
    Chain& chain_;
    Jobs& jobs_;
    Notices& notices_;
    std::vector<KnownOrder> all_;
    std::unique_ptr<OrderBook> book_;
    std::mutex guard_;
    QThreadPool writer_;
    std::set<std::string> passed_over_;  ///< files that were looked at
    QString waiting_;                    ///< path of an order whose work is not ready yet
    bool opened_ = false;
};

}  // namespace orthema::app
