#include "files/shop_backup.h"

#include <filesystem>

#include "files/library.h"
#include "files/order_file.h"
#include "files/safe_file.h"
#include "files/sqlite.h"

namespace orthema {

namespace {

namespace fs = std::filesystem;

constexpr const char* backup_kind = "orthema-shop";

/// A file that goes when it is no longer wanted.
struct Passing {
    std::string path;
    ~Passing() {
        std::error_code none;
        fs::remove(path, none);
    }
};

struct Closing {
    sqlite3* db;
    ~Closing() { sqlite3_close(db); }
};

Error not_written() { return Error{"The shop cannot be written to that file."}; }
Error not_ours(const std::string& path) {
    return Error{"“{file}” is not a whole shop that this program wrote: nothing was changed.",
                 {{"file", fs::path(path).filename().string()}}};
}

bool run(sqlite3* db, const char* sql) { return sqlite3_exec(db, sql, nullptr, nullptr, nullptr) == SQLITE_OK; }

/// The order's file, or a folder's order packed as one.
Result<std::string> packed(const std::string& path, const std::string& beside) {
    std::error_code none;
    if (!fs::is_directory(path, none)) return read_file(path);
    const auto package = open_order(path);
    if (!package) return package.error();
    const Passing file{beside + ".order"};
    if (auto saved = save_order(file.path, package->order, package->art, package->records); !saved) return saved.error();
    return read_file(file.path);
}

/// Beside the names that are there: "kites.orthema", "kites-2.orthema"; one that holds just this content is taken for it.
Result<std::string> written_beside(const std::string& folder, const std::string& name, const std::string& content) {
    const fs::path wanted = fs::path(name).filename();
    const std::string stem = wanted.stem().empty() ? "order" : wanted.stem().string();
    for (int k = 1; k < 10000; ++k) {
        const std::string path = folder + "/" + stem + (k == 1 ? "" : "-" + std::to_string(k)) + ".orthema";
        std::error_code none;
        if (fs::exists(path, none)) {
            if (const auto there = read_file(path); there && *there == content) return path;
            continue;
        }
        if (auto done = write_file(path, content); !done) return done.error();
        return path;
    }
    return Error{"The folder holds too many orders of the name “{name}”.", {{"name", stem}}};
}

}  // namespace

Result<BackupReport> back_up_shop(const std::string& library_path, const std::string& to) {
    BackupReport report;
    const Passing copy{to + ".writing"};
    {
        auto library = Library::open(library_path);
        if (!library) return library.error();
        if (auto done = (*library)->back_up(copy.path); !done) return done.error();
    }
    {
        sqlite3* db = open_database(copy.path);
        if (db == nullptr) return not_written();
        const Closing closing{db};
        if (!run(db,
                 "BEGIN; CREATE TABLE order_file(job TEXT PRIMARY KEY, name TEXT NOT NULL, content BLOB NOT NULL);"
                 "CREATE TABLE backup(kind TEXT NOT NULL, version INTEGER NOT NULL); INSERT INTO backup VALUES('orthema-shop', 1);"))
            return not_written();
        std::vector<std::pair<std::string, std::string>> orders;
        {
            const Statement known(db, "SELECT job, path FROM known_order");
            if (!known.ok) return not_written();
            while (sqlite3_step(known.s) == SQLITE_ROW) orders.emplace_back(known.text(0), known.text(1));
        }
        for (const auto& [job, path] : orders) {
            {  // where it lay on this machine is nobody else's business
                const Statement name(db, "UPDATE known_order SET path = ? WHERE job = ?");
                if (!name.ok) return not_written();
                name.bind(1, fs::path(path).filename().string());
                name.bind(2, job);
                if (sqlite3_step(name.s) != SQLITE_DONE) return not_written();
            }
            const auto content = packed(path, copy.path);
            if (!content) {
                report.missing.push_back(path);
                continue;
            }
            const Statement put(db, "INSERT INTO order_file(job, name, content) VALUES(?, ?, ?)");
            if (!put.ok) return not_written();
            put.bind(1, job);
            put.bind(2, fs::path(path).filename().string());
            put.bind_bytes(3, *content);
            if (const int code = sqlite3_step(put.s); code != SQLITE_DONE)
                return code == SQLITE_FULL ? Error{"The disk is full: the shop was not written."} : not_written();
            ++report.orders;
        }
        if (!run(db, "COMMIT; VACUUM;")) return not_written();
    }
    std::error_code error;
    fs::rename(copy.path, to, error);
    if (error) return Error{"The shop cannot be written to that file: {why}.", {{"why", error.message()}}};
    return report;
}

Result<RestoreReport> restore_shop(const std::string& backup, const std::string& library_path, const std::string& orders_folder) {
    RestoreReport report;
    const auto bytes = read_file(backup, 8ull << 30);
    if (!bytes) return bytes.error();
    std::error_code error;
    fs::create_directories(orders_folder, error);
    const fs::path beside = fs::path(library_path).parent_path();
    if (!error && !beside.empty()) fs::create_directories(beside, error);
    if (error) return Error{"The folder for the orders cannot be made: {why}.", {{"why", error.message()}}};
    const Passing copy{library_path + ".coming"};
    if (auto done = write_file(copy.path, *bytes); !done) return done.error();
    {
        sqlite3* db = open_database(copy.path);
        if (db == nullptr) return not_ours(backup);
        const Closing closing{db};
        {
            const Statement kind(db, "SELECT kind, version FROM backup");
            if (!kind.ok || sqlite3_step(kind.s) != SQLITE_ROW || kind.text(0) != backup_kind) return not_ours(backup);
            if (kind.number(1) > 1) return Error{"This shop was written by a newer version of the program: update first."};
        }
    }
    {
        // looked through and brought to the newest version before anything is replaced
        const auto library = Library::open(copy.path);
        if (!library) return library.error();
        if (const auto content = (*library)->content(); !content) return content.error();
    }
    {
        sqlite3* db = open_database(copy.path);
        if (db == nullptr) return not_ours(backup);
        const Closing closing{db};
        std::vector<std::pair<std::string, std::string>> paths;
        {
            const Statement files(db, "SELECT job, name, content FROM order_file");
            if (!files.ok) return not_ours(backup);
            int code = SQLITE_ROW;
            while ((code = sqlite3_step(files.s)) == SQLITE_ROW) {
                auto path = written_beside(orders_folder, files.text(1), files.text(2));
                if (!path) return path.error();
                paths.emplace_back(files.text(0), fs::absolute(*path).string());
                ++report.orders;
            }
            if (code != SQLITE_DONE) return not_ours(backup);
        }
        for (const auto& [job, path] : paths) {
            const Statement set(db, "UPDATE known_order SET path = ? WHERE job = ?");
            if (!set.ok) return not_ours(backup);
            set.bind(1, path);
            set.bind(2, job);
            if (sqlite3_step(set.s) != SQLITE_DONE) return not_ours(backup);
        }
        if (!run(db, "DROP TABLE order_file; DROP TABLE backup; VACUUM;")) return not_ours(backup);
    }
    if (fs::exists(library_path, error)) {
        auto before = Library::put_back(library_path, copy.path, "before");
        if (!before) return before.error();
        report.before = *before;
    } else {
        const auto whole = read_file(copy.path, 8ull << 30);
        if (!whole) return whole.error();
        if (auto done = write_file(library_path, *whole); !done) return done.error();
    }
    return report;
}

}  // namespace orthema
