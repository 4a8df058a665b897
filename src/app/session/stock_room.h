// Stock room: what the shop has and has promised, as the session sees it: a snapshot for the stages, and the one that writes counts. What
// the order on the table uses of the shelf is held for it, follows undo, and is taken when it is pressed.
#pragma once

#include <QObject>
#include <QThreadPool>

#include <memory>
#include <mutex>
#include <optional>

#include "app/session/chain.h"
#include "app/session/notices.h"
#include "app/session/records.h"
#include "app/session/shop_orders.h"
#include "files/stock_book.h"

namespace orthema::app {

class StockRoom : public QObject {
    Q_OBJECT
public:
    StockRoom(Document& document, Chain& chain, Records& records, ShopOrders& orders, Jobs& jobs, Notices& notices,
              QObject* parent = nullptr);
    ~StockRoom() override;
    void open(const QString& library_path);
    [[nodiscard]] const Shop& shop() const { return shop_; }
    [[nodiscard]] const Stock& stock() const { return stock_in(shop_); }
    [[nodiscard]] bool opened() const { return opened_; }
    /// What is to be bought for all open orders.
    [[nodiscard]] const std::vector<ToBuy>& buying() const;
    /// What each open order lacks, by its id.
    [[nodiscard]] const std::map<std::string, std::vector<Standby>>& lacking() const;

    void count(std::vector<Counted> counted);
    void move(std::vector<StockMove> moves);
    void change(const std::string& id, std::function<void(StockEntry&)> how);
    void remove(const std::string& id);
    /// So many of it are spoiled: taken out, and counted so.
    void spoil(const std::string& id, double n);
    /// Does this when what was written so far is read back.
    void then(std::function<void()> what);
    /// Transfers go into their bags: those that are left over, or all that were printed for what was called off. Said again it is the same.
    void to_shelf(const std::vector<LeftOver>& left, bool called_off = false);
    /// A picture of a transfer for its bag, as PNG.
    std::function<std::string(const Transfer&)> picture_of = [](const Transfer&) { return std::string(); };
    /// So much of a sheet was printed.
    void printed(const Sheet& sheet, double length);
    /// What the job of a card was promised goes back: it is put away.
    void release(const std::vector<std::string>& jobs);
    /// The order on the table is as its file has it, or will never be: promises that it made since go back.
    void table_cleared();
    /// The order on the table was saved.
    void table_kept() { saved_holds_ = held_; }
    void count_in_from(const QString& path);
    void export_to(const QString& path, bool to_buy);
    /// Reads again what other programs may have changed.
    void look_again();
    /// The day of the snapshot, for tests and pictures; the clock's own where none is given.
    void set_today(const std::string& iso);
    /// Waits until all is on the disk.
    void flush() { writer_.waitForDone(); }

signals:
    void changed();

private:
    /// Writes on the one thread that does, in turn, and reads back.
    void write(std::function<Result<Done>(StockBook&)> what, std::function<void()> then = {});
    void take_in(Stock stock);
    void follow();
    /// These promises in place of all that the jobs have.
    void hold(const std::vector<std::string>& jobs, const std::vector<Hold>& wanted);
    [[nodiscard]] std::string now() const;
    /// An id that no other deed has.
    std::string deed(const std::string& what);
    Document& document_;
    Chain& chain_;
    Records& records_;
    ShopOrders& orders_;
    Jobs& jobs_;
    Notices& notices_;
    Shop shop_;
    std::unique_ptr<StockBook> book_;
    std::mutex guard_;
    QThreadPool writer_;
    std::vector<std::string> held_for_;  ///< jobs of the order on the table, and what was asked to be held for them
    std::vector<Hold> held_, saved_holds_;
    std::vector<StockMove> pressed_;
    int reading_ = 0;  ///< the latest reading holds
    int deeds_ = 0;    ///< of this session, so that each has an id of its own
    // worked out once for a snapshot
    mutable std::optional<std::vector<ToBuy>> buying_;
    mutable std::optional<std::map<std::string, std::vector<Standby>>> lacking_;
    std::string today_;
    std::map<std::string, double> spoiled_;  ///< as Shop has it
    bool pressed_due_ = false;               ///< what was pressed, or what is counted of it, may have changed
    bool opened_ = false;
};

}  // namespace orthema::app
