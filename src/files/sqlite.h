// SQLite: a prepared statement, and what every database of the shop is opened with.
#pragma once

#include <sqlite3.h>
#include <unistd.h>

#include <string>

namespace orthema {

/// A prepared statement; `ok` says whether it could be.
struct Statement {
    sqlite3_stmt* s = nullptr;
    bool ok = false;
    Statement(sqlite3* db, const std::string& sql) { ok = sqlite3_prepare_v2(db, sql.c_str(), -1, &s, nullptr) == SQLITE_OK; }
    ~Statement() { sqlite3_finalize(s); }
    Statement(const Statement&) = delete;
    Statement& operator=(const Statement&) = delete;
    void bind(int at, double n) const { sqlite3_bind_double(s, at, n); }
    void bind(int at, const std::string& t) const { sqlite3_bind_text(s, at, t.data(), static_cast<int>(t.size()), SQLITE_TRANSIENT); }
    void bind_bytes(int at, const std::string& t) const {
        sqlite3_bind_blob(s, at, t.data(), static_cast<int>(t.size()), SQLITE_TRANSIENT);
    }
    void bind_nothing(int at) const { sqlite3_bind_null(s, at); }
    /// Text or bytes of a column; "" for nothing.
    [[nodiscard]] std::string text(int column) const {
        const void* bytes = sqlite3_column_blob(s, column);
        return bytes == nullptr ? std::string()
                                : std::string(static_cast<const char*>(bytes), static_cast<std::size_t>(sqlite3_column_bytes(s, column)));
    }
    [[nodiscard]] double number(int column) const { return sqlite3_column_double(s, column); }
};

/// Another program's transaction is waited for, up to some twenty seconds. SQLite's own waiting asks ever more seldom (every
/// tenth of a second in the end) and so hardly ever meets the moment between two transactions of a program that writes a lot;
/// asked every millisecond it is met.
inline void wait_for_others(sqlite3* db) {
    sqlite3_busy_handler(
        db,
        [](void*, int asked) {
            if (asked >= 15000) return 0;
            usleep(700 + static_cast<useconds_t>(asked * 37 % 600));
            return 1;
        },
        nullptr);
}

/// A database that is there, to read and write; another program's transaction is waited for. Null where it cannot be opened.
inline sqlite3* open_database(const std::string& path) {
    sqlite3* db = nullptr;
    if (sqlite3_open_v2(path.c_str(), &db, SQLITE_OPEN_READWRITE, nullptr) != SQLITE_OK) {
        sqlite3_close(db);
        return nullptr;
    }
    wait_for_others(db);
    return db;
}

}  // namespace orthema
