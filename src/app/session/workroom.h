// Workroom: the order on the table, what the stages make of it, its earlier values, and where it is kept. All benches
// show this and edit through it; none holds a second truth. Long work runs on threads of its own.
#pragma once

#include <QObject>
#include <QStringList>
#include <QThreadPool>
#include <QTimer>

#include <atomic>
#include <functional>
#include <memory>
#include <vector>

#include "core/guides/guides.h"
#include "core/sheets/sheets.h"
#include "core/pressing/press_plan.h"
#include "devices/printer.h"
#include "files/export_order.h"
#include "files/library.h"
#include "files/order_file.h"

namespace orthema::app {

/// What the artist has in hand. Parts that the order no longer has are replaced by the nearest that it has.
struct Selection {
    RunKey run;
    std::string decoration, size, art, medium, style;
    bool operator==(const Selection&) const = default;
};

/// A line at the top of the bench, with what can be done about it.
struct Notice {
    QString text;
    bool bad = false;
    QString action;
    std::function<void()> act;
};

/// One point of the curve of film used while pieces settle.
struct SettlePoint {
    double seconds = 0, density = 0;
};

class Workroom : public QObject {
    Q_OBJECT
public:
    /// `data_folder` keeps the shop library, recent orders and what was put aside; it is made when needed.
    explicit Workroom(QString data_folder, QObject* parent = nullptr);
    ~Workroom() override;

    [[nodiscard]] const Order& order() const { return order_; }
    [[nodiscard]] const LoadedArtById& art() const { return art_; }
    [[nodiscard]] const ArtFactsById& facts() const { return facts_; }
    [[nodiscard]] const FitPlan& plan() const { return plan_; }
    [[nodiscard]] const TransferSet& transfer_set() const { return set_; }
    /// Another number whenever the transfers look different.
    [[nodiscard]] std::uint64_t transfers_number() const { return set_number_; }
    [[nodiscard]] const SheetPlan& sheets() const { return sheets_; }
    [[nodiscard]] const Findings& findings() const { return findings_; }
    /// True while transfers and sheets are being worked out for the order of now.
    [[nodiscard]] bool catching_up() const { return computing_ || compute_again_; }
    /// True while anything runs in the background: opening, saving, catching up, settling, exporting.
    [[nodiscard]] bool busy() const { return jobs_ > 0; }

    [[nodiscard]] const Selection& selection() const { return selection_; }
    void select(Selection selection);
    [[nodiscard]] const Decoration* decoration() const { return find_decoration(order_, selection_.decoration); }
    [[nodiscard]] const DecorationFit* fit() const { return find_fit(plan_, selection_.decoration); }

    /// Replaces the order. Edits of the same non-empty gesture are one step for undo, until end_gesture().
    void edit(const QString& what, Order next, const QString& gesture = {});
    void end_gesture() { gesture_.clear(); }
    [[nodiscard]] bool can_undo() const { return !past_.empty(); }
    [[nodiscard]] bool can_redo() const { return !future_.empty(); }
    [[nodiscard]] QString undo_what() const { return past_.empty() ? QString() : past_.back().what; }
    void undo() { step(past_, future_); }
    void redo() { step(future_, past_); }

    // Files
    [[nodiscard]] const QString& data_folder() const { return data_folder_; }
    [[nodiscard]] const QString& path() const { return path_; }
    [[nodiscard]] bool changed() const { return order_ != saved_; }
    void start_new();
    void open(const QString& path);
    void save(const QString& path);
    [[nodiscard]] QStringList recent() const;
    void bring_in_art(const QStringList& paths);
    /// Offers what was put aside when the program last ended early.
    void offer_put_aside();
    /// Writes what is unsaved aside, at once; false when there is nothing to keep. For the moment before the window closes.
    bool put_aside_now();

    // Settling
    void settle(const std::string& medium, double seconds);
    void stop_settling();
    [[nodiscard]] bool settling() const { return settling_; }
    [[nodiscard]] const std::vector<SettlePoint>& settle_curve() const { return curve_; }

    /// As many fillings as find room on the sheets that are there.
    void fill_sheets(const std::string& medium);

    // Pressing
    [[nodiscard]] const PressPlan& press_plan() const { return *press_; }
    /// Betters the press plan for so long; what it finds is shown as it comes.
    void plan_pressing(double seconds);
    void stop_planning();
    [[nodiscard]] bool planning() const { return planning_; }

    // Simulated devices
    /// Prints one sheet; what is whole of it when it fails is counted as printed, and the rest waits to be settled again.
    void print_sheet(const Sheet& sheet, const PrinterSetup& setup, double dpi);
    /// Follows a sheet's cutting path over what is printed on it.
    void cut_sheet(const Sheet& sheet);
    [[nodiscard]] const QString& device_says() const { return device_says_; }

    // Export
    void export_to(const QString& folder, const ExportChoice& choice);
    void stop_export() { stop_export_ = true; }
    /// Notes that guides were printed from the figures of now: all, or one.
    void guides_printed(const std::string& decoration = {}, const std::string& size = {});
    [[nodiscard]] bool exporting() const { return exporting_; }

    // Shop library
    [[nodiscard]] const LibraryContent& library() const { return library_; }
    /// Adds or replaces by id; says what it kept, or the sentence.
    void keep_in_library(const LibraryContent& content, const QString& sentence = {});
    void keep_in_library(const BlankStyle& style) { keep_in_library(LibraryContent{{style}, {}, {}, {}, {}}); }
    void export_library(const QString& path);
    void import_library(const QString& path);

    /// Runs `work` on a thread, and what it returns on this one.
    void background(std::function<std::function<void()>()> work);

    void say(const Notice& notice) { emit noticed(notice); }

signals:
    void updated();  ///< the order, the selection or what was worked out changed
    void noticed(const Notice& notice);
    void export_progress(double share, const QString& doing);
    void export_finished(const QStringList& files, const QString& fault);

private:
    struct Step {
        Order order;
        QString what;
    };
    void take_over(Order order, ArtBytes bytes, LoadedArtById art, FitPlan plan, const QString& path);
    void put_aside_if_changed();
    void step(std::vector<Step>& from, std::vector<Step>& to);
    void refit_now(const Order& before);
    void clip_anew(const Order& before);
    void gather();
    void compute_later();
    void tidy_selection();
    [[nodiscard]] bool worth_keeping() const;
    void autosave();
    [[nodiscard]] QString aside_path() const;
    void remember(const QString& path);
    QString data_folder_;
    QThreadPool pool_;
    int jobs_ = 0;
    Order order_, saved_;
    ArtBytes bytes_;
    LoadedArtById art_;
    ArtFactsById facts_;
    FitPlan plan_;
    TransferSet set_;
    std::uint64_t set_number_ = 0;
    SheetPlan sheets_;
    Findings art_faults_, findings_;
    Findings stale_;  ///< printed guides that no longer hold
    Selection selection_;
    std::vector<Step> past_, future_;
    QString gesture_;
    QString path_;
    QString aside_;  ///< file name for an order without a path
    QTimer autosave_timer_;
    bool computing_ = false, compute_again_ = false;
    bool settling_ = false;
    std::shared_ptr<std::atomic<bool>> stop_settling_;
    std::vector<SettlePoint> curve_;
    unsigned settle_seed_ = 0;  ///< settling more tries something else
    QString device_says_;
    std::shared_ptr<const PressPlan> press_ = std::make_shared<PressPlan>();
    bool planning_ = false;
    std::shared_ptr<std::atomic<bool>> stop_planning_;
    unsigned plan_seed_ = 0;
    bool exporting_ = false;
    std::atomic<bool> stop_export_ = false;
    LibraryContent library_;
    std::unique_ptr<Library> shop_;
    std::mutex shop_guard_;
};

}  // namespace orthema::app
