// Records: what the shop has recorded, as the session sees it: read once, added to at once, written on a thread of its own. Proposes
// corrections, takes them into the order, and follows undo.
#pragma once

#include <QObject>
#include <QThreadPool>

#include <memory>
#include <mutex>

#include "app/session/chain.h"
#include "app/session/notices.h"
#include "app/session/shop_library.h"
#include "files/record_book.h"

namespace orthema::app {

class Records : public QObject {
    Q_OBJECT
public:
    Records(Document& document, ShopLibrary& library, Jobs& jobs, Notices& notices, QObject* parent = nullptr);
    ~Records() override;
    /// Reads the book of a shop library that was opened.
    void open(const QString& library_path);
    /// Another shop's library comes: nothing of this one's goes into it.
    void close();
    [[nodiscard]] bool opened() const { return opened_; }
    /// In time order.
    [[nodiscard]] const std::vector<PressRecord>& all() const { return all_; }
    [[nodiscard]] const std::vector<Lesson>& lessons() const { return lessons_; }
    /// What is saved with the order on the table.
    [[nodiscard]] OrderRecords of_order(const std::string& job) const;
    /// Of an order, or of a gang and all its jobs.
    [[nodiscard]] OrderRecords of_order(const Order& order) const;
    /// The corrections that every new order begins with: marks and handling times that were taken and not taken back.
    [[nodiscard]] std::vector<Correction> standing() const;
    /// Those that the order on the table lacks.
    [[nodiscard]] std::vector<Correction> lacking() const;
    /// The spread of a piece's place known so far, mm; the usual one where little is known.
    [[nodiscard]] double spread() const;

    void add(std::vector<PressRecord> records);
    /// The same record as it is known now: a later version.
    void amend(PressRecord record);
    void merge(const OrderRecords& records);
    /// A remark to come back to, about what the filter names.
    void remark(const std::string& words, const RecordFilter& about);
    void take(const Correction& proposal);
    void decline(const Correction& proposal);
    void take_standing();
    void forget_hands(const std::string& hands);
    void export_to(const QString& path);
    void import_from(const QString& path);
    /// Waits until all is on the disk.
    void flush() { writer_.waitForDone(); }

signals:
    void changed();
    /// Is on the disk now.
    void kept(const QString& id);

private:
    void write(std::vector<PressRecord> records, std::vector<Lesson> lessons);
    void decide(const Correction& c, LessonState state);
    void follow(const Order& before);
    Document& document_;
    ShopLibrary& library_;
    Jobs& jobs_;
    Notices& notices_;
    std::vector<PressRecord> all_;
    std::vector<Lesson> lessons_;
    bool opened_ = false, said_unkept_ = false;
    std::unique_ptr<RecordBook> book_;
    std::mutex guard_;
    QThreadPool writer_;  ///< one thread: records are written in their order
};

}  // namespace orthema::app
