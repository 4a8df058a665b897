// Keeper: where the order is kept: opened, saved, put aside when unsaved, and offered again.
#pragma once

#include <QObject>
#include <QStringList>
#include <QTimer>

#include "app/session/chain.h"
#include "app/session/notices.h"
#include "app/session/shop_library.h"

namespace orthema::app {

class Keeper : public QObject {
    Q_OBJECT
public:
    /// `data_folder` keeps recent orders and what was put aside; it is made when needed.
    Keeper(QString data_folder, Document& document, Pictures& pictures, ShopLibrary& library, Jobs& jobs, Notices& notices,
           QObject* parent = nullptr);
    [[nodiscard]] const QString& data_folder() const { return data_folder_; }
    [[nodiscard]] const QString& path() const { return path_; }
    /// A new order with what the shop has.
    void start_new();
    void open(const QString& path);
    void save(const QString& path);
    [[nodiscard]] QStringList recent() const;
    /// Offers what was put aside when the program last ended early.
    void offer_put_aside();
    /// Writes what is unsaved aside, at once; false when there is nothing to keep. For the moment before the window closes.
    bool put_aside_now();
    /// Keeps what is unsaved aside when it has rested for a while.
    void autosave_soon() { autosave_timer_.start(); }

signals:
    void about_to_take_over();
    /// Another order lies on the table, with its fit.
    void taken_over(const orthema::Work& fitted);
    void changed();

private:
    void take_over(Order order, Order saved, ArtBytes bytes, LoadedArtById art, Shared<KnownArt> known, const Work& fitted,
                   const QString& path);
    void put_aside_if_changed();
    [[nodiscard]] bool worth_keeping() const;
    void autosave();
    [[nodiscard]] QString aside_path() const;
    void name_aside();
    void remember(const QString& path);
    QString data_folder_;
    Document& document_;
    Pictures& pictures_;
    ShopLibrary& library_;
    Jobs& jobs_;
    Notices& notices_;
    QString path_;
    QString aside_;  ///< file name for an order without a path
    QTimer autosave_timer_;
};

}  // namespace orthema::app
