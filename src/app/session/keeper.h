// Keeper: where the order is kept: opened, saved, put aside when unsaved, and offered again.
#pragma once

#include <QObject>
#include <QStringList>
#include <QTimer>

#include <atomic>
#include <functional>
#include <memory>
#include <mutex>

#include "app/session/chain.h"
#include "app/session/notices.h"
#include "app/session/settings.h"
#include "app/session/shop_library.h"
#include "files/order_file.h"
#include "files/safe_file.h"

namespace orthema::app {

class Keeper : public QObject {
    Q_OBJECT
public:
    /// `data_folder` keeps what was put aside; it is made when needed.
    Keeper(QString data_folder, Document& document, Pictures& pictures, ShopLibrary& library, Jobs& jobs, Notices& notices,
           Settings& settings, QObject* parent = nullptr);
    [[nodiscard]] const QString& data_folder() const { return data_folder_; }
    [[nodiscard]] const QString& path() const { return path_; }
    /// A new order with what the shop has.
    void start_new();
    void open(const QString& path);
    /// Where the order's own file is no longer as it was opened or saved, nothing is written and other_wrote() says so.
    void save(const QString& path);
    /// An order that lies in no file yet takes the table, with its pictures and records.
    void begin_with(const OrderPackage& package, const ReadArt& pictures, const Work& fitted);
    /// Beside its file, under a name that is free.
    void save_beside();
    [[nodiscard]] QStringList recent() const;
    /// Offers what was put aside when the program last ended early.
    void offer_put_aside();
    /// What became of unsaved work: there was none, it is kept, or it could be kept nowhere.
    enum class Kept { nothing, kept, nowhere };
    /// Writes what is unsaved aside, at once. For the moment before the window closes.
    Kept put_aside_now();
    /// The last attempt to put unsaved work aside failed everywhere: it is said until one succeeds.
    [[nodiscard]] bool kept_nowhere() const { return kept_nowhere_; }
    /// Saves at once, not beside; a sentence where that fails. For the moment before the window closes.
    [[nodiscard]] std::optional<QString> save_now(const QString& path);
    /// Keeps what is unsaved aside when it has rested for a while.
    void autosave_soon() { autosave_timer_.start(); }
    /// Keeps it aside now, on a thread.
    void autosave();
    /// What the shop has recorded of the order on the table: it is saved with it.
    std::function<OrderRecords()> own_records = [] { return OrderRecords{}; };

    /// What every new order begins with.
    std::function<std::vector<Correction>()> standing_corrections = [] { return std::vector<Correction>{}; };

signals:
    void about_to_take_over();
    /// Another order lies on the table, with its fit.
    void taken_over(const orthema::Work& fitted);
    void changed();
    /// The order on the table lies in this file: it was opened from it or saved to it.
    void lies_at(const QString& path);
    /// An order came with these.
    void came_with(const orthema::OrderRecords& records);
    /// Another program wrote the order's file meanwhile.
    void other_wrote(const QString& path);

private:
    void take_over(Order order, Order saved, ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known, const Work& fitted,
                   const QString& path);
    /// False when there is unsaved work that can be kept nowhere.
    bool put_aside_if_changed();
    struct Attempt {
        QString kept;      ///< where; empty: nowhere
        QString why;       ///< it is not at the usual place
        FileStamp beside;  ///< of what it wrote beside the order's file
    };
    /// To its usual place, or else to the second. On any thread.
    static Attempt put_aside(const Order& order, const ArtBytes& bytes, const OrderRecords& records, const QString& usual,
                             const QString& second);
    /// Tells what became of an attempt to put aside, once and until it is mended.
    void told(const QString& wanted, const Attempt& done);
    /// What lies beside the order's file is this program's, where one was written.
    void own_beside(FileStamp written);
    /// Where work is put aside when it cannot be at its usual place.
    [[nodiscard]] QString second_place(const QString& path) const;
    [[nodiscard]] bool worth_keeping() const;
    [[nodiscard]] QString aside_path() const;
    /// What lies beside the saved order goes: its own away, another program's to where it is offered.
    void clear_beside(const QString& path);
    void name_aside();
    void remember(const QString& path);
    /// What the threads that put this order aside share: one writes at a time, and only what was wanted last.
    struct Aside {
        std::mutex writing;
        std::atomic<int> wanted = 0;
        FileStamp beside;  ///< of what they wrote beside the order's file; read and written while `writing` is held
    };
    /// Waits for one that is being written, and takes what was written beside the order's file.
    static FileStamp written_by(Aside& under_way);
    QString data_folder_;
    Document& document_;
    Pictures& pictures_;
    ShopLibrary& library_;
    Jobs& jobs_;
    Notices& notices_;
    Settings& settings_;
    QString path_;
    FileStamp stamp_;   ///< of it, as it was opened or saved
    FileStamp beside_;  ///< of the later state beside it that is this program's: written by it, or opened
    QString aside_;     ///< file name for an order without a path
    std::shared_ptr<Aside> under_way_ = std::make_shared<Aside>();
    bool kept_nowhere_ = false, kept_elsewhere_ = false;
    QTimer autosave_timer_;
};

}  // namespace orthema::app
