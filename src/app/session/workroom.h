// Workroom: what a session is made of: the order on the table, what the stages make of it, and those who open, settle, plan,
// print and export it. All benches show this and edit through it; none holds a second truth.
#pragma once

#include "app/session/chain.h"
#include "app/session/devices.h"
#include "app/session/document.h"
#include "app/session/exporter.h"
#include "app/session/gang_table.h"
#include "app/session/jobs.h"
#include "app/session/keeper.h"
#include "app/session/notices.h"
#include "app/session/pictures.h"
#include "app/session/planner.h"
#include "app/session/records.h"
#include "app/session/selection.h"
#include "app/session/settings.h"
#include "app/session/settler.h"
#include "app/session/shop_library.h"
#include "app/session/shop_orders.h"
#include "app/session/stock_room.h"
#include "core/guides/guides.h"

namespace orthema::app {

class Workroom : public QObject {
    Q_OBJECT
public:
    /// `data_folder` keeps the shop library, recent orders and what was put aside; it is made when needed.
    /// What was chosen in the settings lies in `liked_file`; empty: in the data folder too.
    explicit Workroom(QString data_folder, QString liked_file = {}, QObject* parent = nullptr);
    ~Workroom() override;

    [[nodiscard]] Document& document() { return document_; }
    [[nodiscard]] Pictures& pictures() { return pictures_; }
    [[nodiscard]] Chain& chain() { return chain_; }
    [[nodiscard]] Keeper& keeper() { return keeper_; }
    [[nodiscard]] Settler& settler() { return settler_; }
    [[nodiscard]] Planner& planner() { return planner_; }
    [[nodiscard]] Devices& devices() { return devices_; }
    [[nodiscard]] Exporter& exporter() { return exporter_; }
    [[nodiscard]] ShopLibrary& library() { return library_; }
    [[nodiscard]] Records& records() { return records_; }
    [[nodiscard]] ShopOrders& orders() { return orders_; }
    [[nodiscard]] StockRoom& stock() { return stock_; }
    [[nodiscard]] GangTable& gang_table() { return gang_table_; }
    [[nodiscard]] Settings& settings() { return settings_; }
    [[nodiscard]] Jobs& jobs() { return jobs_; }
    [[nodiscard]] Notices& notices() { return notices_; }

    // What every bench asks for
    [[nodiscard]] const Order& order() const { return document_.order(); }
    [[nodiscard]] const LoadedArtById& art() const { return pictures_.art(); }
    [[nodiscard]] const ArtFactsById& facts() const { return pictures_.known()->facts; }
    [[nodiscard]] const Work& work() const { return chain_.work(); }
    [[nodiscard]] const FitPlan& plan() const { return work().plan(); }
    [[nodiscard]] const TransferSet& transfer_set() const { return work().transfer_set(); }
    [[nodiscard]] const SheetPlan& sheets() const { return work().sheet_plan(); }
    [[nodiscard]] const PressPlan& press_plan() const { return work().press_plan(); }
    [[nodiscard]] const Findings& findings() const { return work().findings; }
    [[nodiscard]] bool catching_up() const { return chain_.catching_up(); }
    /// True while anything runs in the background: opening, saving, catching up, settling, exporting.
    [[nodiscard]] bool busy() const { return jobs_.busy(); }
    void edit(const QString& what, Order next, const QString& gesture = {}) { document_.edit(what, std::move(next), gesture); }
    void end_gesture() { document_.end_gesture(); }
    /// Library, records, stock and all known orders into one file.
    void back_up_shop(const QString& path);
    /// A shop from such a file in place of this one, which is moved beside; its orders into the folder.
    void restore_shop(const QString& path, const QString& folder);
    void say(const Notice& notice) { notices_.say(notice); }

    [[nodiscard]] const Selection& selection() const { return selection_; }
    void select(const Selection& selection);
    /// Those that are looked at: in a gang of one job, where one is chosen.
    [[nodiscard]] std::vector<RunKey> runs() const { return runs_shown(order(), selection_); }
    [[nodiscard]] const Decoration* decoration() const { return find_decoration(order(), selection_.decoration); }
    [[nodiscard]] const DecorationFit* fit() const { return find_fit(plan(), selection_.decoration); }

signals:
    void updated();  ///< the order, the selection or what was worked out changed

private:
    void tell();
    void offer_corrections();
    Settings settings_;
    Notices notices_;
    Document document_;
    Jobs jobs_;
    Pictures pictures_;
    ShopLibrary library_;
    Records records_;
    Chain chain_;
    Keeper keeper_;
    ShopOrders orders_;
    StockRoom stock_;
    GangTable gang_table_;
    Settler settler_;
    Planner planner_;
    Devices devices_;
    Exporter exporter_;
    Selection selection_;
};

}  // namespace orthema::app
