// Settings: how the program is liked on this computer, and what it remembers of its use: two files that anybody can read, one for
// either, where the desktop keeps such things.
#pragma once

#include <QObject>
#include <QSize>
#include <QString>
#include <QVariantMap>

#include "core/order/order.h"

namespace orthema::app {

struct Liked {
    // what a new order begins with
    Unit unit = Unit::mm;
    Paper paper = Paper::a4;
    QString currency;
    double hourly = 0;
    bool fahrenheit = false;
    std::string medium, press;  ///< ids in the shop's library; empty: the first
    // the window
    QString language;        ///< ISO 639-1; empty: as the desktop speaks; taken when the program starts
    int size_percent = 100;  ///< of everything; taken when the program starts
    bool quiet = false;      ///< nothing glides
    bool sound = true;       ///< at the press, when a wait is over
    bool dark_card = false;  ///< the step card, for dim rooms
    bool operator==(const Liked&) const = default;
};

/// By the locale: inches, letter and Fahrenheit where those are used.
Liked usual_liked();

class Settings : public QObject {
    Q_OBJECT
public:
    /// `liked_file` holds what was chosen, `memory_file` what is remembered. Files that cannot be read count as none.
    Settings(QString liked_file, QString memory_file, QObject* parent = nullptr);
    [[nodiscard]] const Liked& liked() const { return liked_; }
    /// Written at once; a sentence where that fails.
    [[nodiscard]] std::optional<QString> like(const Liked& liked);
    /// A new order as it is liked.
    void begin(Order& fresh) const;

    [[nodiscard]] QVariant remembered(const QString& what) const;
    void remember(const QString& what, const QVariant& value);
    /// Of an order: the bench and what was chosen there. Those of the last hundred orders are kept.
    [[nodiscard]] QVariantMap place_in(const std::string& job) const;
    void remember_place(const std::string& job, const QVariantMap& place);
    /// The file of what was chosen.
    [[nodiscard]] const QString& file() const { return liked_file_; }

    /// The size of everything that is liked, read before there is a window.
    static int size_percent(const QString& liked_file);
    /// The language that is liked, or the first of the desktop's that is spoken here, likewise; null: English.
    static const Language* language(const QString& liked_file);

signals:
    void changed();

private:
    QString liked_file_, memory_file_;
    Liked liked_;
};

}  // namespace orthema::app
