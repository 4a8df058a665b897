// Record book: the records of every press of a shop, and its lessons, in the shop library's database. Rows are added, never changed; of
// one id the highest version holds. The one exception is hands, whose marks go from all rows when they are asked to.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/records/lessons.h"
#include "core/records/press_record.h"

struct sqlite3;

namespace orthema {

class RecordBook {
public:
    /// On the database of a shop library, which Library::open has brought to the newest version before. Safe beside other
    /// programs that have it open: each addition is one transaction, and waits for theirs.
    static Result<std::unique_ptr<RecordBook>> open(const std::string& library_path);
    ~RecordBook();
    RecordBook(const RecordBook&) = delete;
    RecordBook& operator=(const RecordBook&) = delete;

    /// All or nothing; what is there already under its id and version stays as it is. When it returns they are on the disk.
    Result<Done> add(const std::vector<PressRecord>& records);
    Result<Done> add(const Lesson& lesson);
    /// In time order.
    Result<std::vector<PressRecord>> records() const;
    Result<std::vector<Lesson>> lessons() const;
    /// Takes a mark of hands out of all records, lessons too.
    Result<Done> forget_hands(const std::string& hands);

private:
    explicit RecordBook(sqlite3* db) : db_(db) {}
    Result<Done> run(const char* sql) const;
    sqlite3* db_;
};

/// "orthema-records", version 1 (docs/records.md), and back.
std::string records_json(const OrderRecords& records);
Result<OrderRecords> records_from_json(const std::string& text);
/// One row for each record, with a header; what a spreadsheet would take for a formula is escaped.
std::string records_csv(const std::vector<PressRecord>& records);
/// Reads such a table back; columns in any order, those that are not known are left. The sentence names the first row that cannot be.
Result<std::vector<PressRecord>> records_from_csv(const std::string& text);
std::string lesson_json(const Lesson& lesson);
Result<Lesson> lesson_from_json(const std::string& text);

}  // namespace orthema
