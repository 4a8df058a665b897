#include "files/library.h"

#include <array>
#include <filesystem>

#include "files/order_json.h"
#include "files/json_in.h"
#include "files/pressing_json.h"
#include "files/safe_file.h"
#include "files/sqlite.h"
#include "files/stock_book.h"

extern "C" {
extern const char orthema_library_json[];
extern const char orthema_library_json_end[];
}

namespace orthema {

using nlohmann::json;

std::string library_json(const LibraryContent& c) {
    json j{{"format", "orthema-library"}, {"version", 1},
           {"blanks", json::array()},     {"media", json::array()},
           {"presses", json::array()},    {"methods", json::array()},
           {"jigs", json::array()}};
    for (const BlankStyle& s : c.styles) j["blanks"].push_back(to_json(s));
    for (const Medium& m : c.media) j["media"].push_back(to_json(m));
    for (const Press& p : c.presses) j["presses"].push_back(to_json(p));
    for (const Method& m : c.methods) j["methods"].push_back(to_json(m));
    for (const Jig& g : c.jigs) j["jigs"].push_back(to_json(g));
    if (!c.words.empty()) j["words"] = {{"blanks", c.words.blanks}, {"sizes", c.words.sizes}};
    return json_text(j, 1);
}

namespace {

template <class T, class Read>
std::optional<Error> read_items(const json& j, const char* key, std::vector<T>& to, Read read) {
    if (!j.contains(key)) return std::nullopt;
    if (!j[key].is_array() || j[key].size() > 2000)
        return Error{"The library's “{list}” is not a list that can be used.", {{"list", std::string(key)}}};
    for (const json& e : j[key]) {
        auto item = read(e);
        if (!item) return item.error();
        to.push_back(std::move(*item));
    }
    return std::nullopt;
}

/// What is offered under ids that nothing in `have` has.
template <class T>
std::vector<T> lacking(const std::vector<T>& have, const std::vector<T>& offered) {
    std::vector<T> out;
    for (const T& item : offered)
        if (std::none_of(have.begin(), have.end(), [&](const T& h) { return h.id == item.id; })) out.push_back(item);
    return out;
}

Error damaged() { return Error{"The shop library is damaged: move it away to start a new one."}; }

}  // namespace

Result<LibraryContent> library_from_json(const std::string& text) {
    const auto j = parse_json(text, "The library file");
    if (!j) return j.error();
    if (!j->is_object() || j->value("format", json()) != json("orthema-library"))
        return Error{"This is not a library file of this program."};
    LibraryContent c;
    if (auto e = read_items(*j, "blanks", c.styles, style_from_json)) return *e;
    if (auto e = read_items(*j, "media", c.media, medium_from_json)) return *e;
    if (auto e = read_items(*j, "presses", c.presses, press_from_json)) return *e;
    if (auto e = read_items(*j, "methods", c.methods, method_from_json)) return *e;
    if (auto e = read_items(*j, "jigs", c.jigs, jig_from_json)) return *e;
    if (j->contains("words")) {
        const json& words = (*j)["words"];
        const auto take = [&](const char* key, std::map<std::string, std::string>& to) {
            if (!words.contains(key)) return true;
            if (!words[key].is_object()) return false;
            for (const auto& [wording, means] : words[key].items())
                if (means.is_string() && wording.size() <= 400) to[wording] = means.get<std::string>();
            return true;
        };
        if (!words.is_object() || !take("blanks", c.words.blanks) || !take("sizes", c.words.sizes))
            return Error{"The library's words are not in pairs."};
    }
    for (const BlankStyle& s : c.styles)
        if (const auto fault = style_fault(s)) return *fault;
    return c;
}

const LibraryContent& starting_library() {
    static const LibraryContent content = [] {
        const std::string text(orthema_library_json, static_cast<std::size_t>(orthema_library_json_end - orthema_library_json));
        return library_from_json(text).value();
    }();
    return content;
}

Library::~Library() { sqlite3_close(db_); }

Result<Done> Library::run(const std::string& sql) const {
    char* message = nullptr;
    if (sqlite3_exec(db_, sql.c_str(), nullptr, nullptr, &message) == SQLITE_OK) return Done{};
    const std::string said = message == nullptr ? "" : message;
    sqlite3_free(message);
    return Error{"The shop library cannot be used ({why}): move it away to start a new one.", {{"why", said}}};
}

int Library::version() const {
    sqlite3_stmt* s = nullptr;
    int v = -1;
    if (sqlite3_prepare_v2(db_, "PRAGMA user_version", -1, &s, nullptr) == SQLITE_OK && sqlite3_step(s) == SQLITE_ROW)
        v = sqlite3_column_int(s, 0);
    sqlite3_finalize(s);
    return v;
}

Result<Done> Library::migrate() {
    const int have = version();
    if (have < 0) return damaged();
    if (have > newest_version) return Error{"The shop library is of a newer version of the program: update first."};
    // Each entry brings the version before it up by one.
    static const char* steps[newest_version] = {
        "CREATE TABLE item(kind TEXT NOT NULL, id TEXT NOT NULL, json TEXT NOT NULL, PRIMARY KEY(kind, id));",
        // NOLINTNEXTLINE(bugprone-suspicious-missing-comma): one step of three statements
        "ALTER TABLE item ADD COLUMN name TEXT NOT NULL DEFAULT '';"
        "UPDATE item SET name = coalesce(json_extract(json, '$.name'), id);"
        "CREATE INDEX item_name ON item(kind, name);",
        "",  // what the starting library has learned since is added below
        "",
        "",
        // NOLINTNEXTLINE(bugprone-suspicious-missing-comma): one step of several statements
        "CREATE TABLE record(rowid INTEGER PRIMARY KEY, "
        "id TEXT NOT NULL, version REAL NOT NULL, at TEXT NOT NULL, order_name TEXT, job TEXT, load TEXT, design TEXT, "
        "size TEXT, blank TEXT, colour TEXT, fabric TEXT, method TEXT, medium TEXT, batch TEXT, press TEXT, platen "
        "TEXT, pad TEXT, hands TEXT, first REAL, pieces REAL, trial REAL, rehearsal REAL, planned_seconds REAL, "
        "took_seconds REAL, acts TEXT, result TEXT, cause TEXT, done_about_it TEXT, lost REAL, aside_mm REAL, down_mm "
        "REAL, tilt_degrees REAL, wider_per_cent REAL, gap_mm REAL, allowed_aside_mm REAL, allowed_down_mm REAL, "
        "measured_piece REAL, proof TEXT, patches REAL, wash_date TEXT, washes REAL, after_wash TEXT, remark TEXT, "
        "UNIQUE(id, version));"
        "CREATE INDEX record_at ON record(at);"
        "CREATE TABLE lesson(rowid INTEGER PRIMARY KEY, id TEXT NOT NULL, version INTEGER NOT NULL, json TEXT NOT NULL, UNIQUE(id, "
        "version));",
        "ALTER TABLE record ADD COLUMN box TEXT;",
        "CREATE TABLE known_order(job TEXT PRIMARY KEY, path TEXT NOT NULL, card TEXT NOT NULL, picture BLOB, away INTEGER NOT NULL "
        "DEFAULT 0);",
        stock_tables,
    };
    if (have == newest_version) return Done{};
    // One transaction for all of it: either it is of the newest version and has everything, or it is as it was.
    if (auto begun = run("BEGIN IMMEDIATE;"); !begun) return begun;
    const auto all = [&]() -> Result<Done> {
        std::string sql;
        for (int v = have; v < newest_version; ++v) sql += steps[v];
        if (auto done = run(sql + "PRAGMA user_version = " + std::to_string(newest_version) + ";"); !done) return done;
        const auto own = content();
        if (!own) return own.error();
        const LibraryContent& start = starting_library();
        std::vector<Method> methods = lacking(own->methods, start.methods);
        if (have > 0 && have < 5)  // recipes were words that nothing read: now they are steps, with rules for fabrics
            for (const Method& had : own->methods)
                for (const Method& known : start.methods)
                    if (known.id == had.id && had.fabric_rules.empty()) {
                        methods.push_back(had);
                        methods.back().recipe = known.recipe;
                        methods.back().fabric_rules = known.fabric_rules;
                        methods.back().bears_seconds = known.bears_seconds;
                        methods.back().bears_heats = known.bears_heats;
                    }
        return put_all({lacking(own->styles, start.styles), lacking(own->media, start.media), lacking(own->presses, start.presses),
                        std::move(methods), lacking(own->jigs, start.jigs)});
    };
    return finish(all());
}

Result<Done> Library::finish(Result<Done> done) const {
    if (done) return run("COMMIT;");
    (void)run("ROLLBACK;");
    return done;
}

Result<std::unique_ptr<Library>> Library::open(const std::string& path) {
    sqlite3* db = nullptr;
    if (sqlite3_open_v2(path.c_str(), &db, SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE, nullptr) != SQLITE_OK) {
        sqlite3_close(db);
        return Error{"The shop library “{path}” cannot be opened.", {{"path", path}}};
    }
    std::unique_ptr<Library> library(new Library(db));
    wait_for_others(db);
    sqlite3_stmt* s = nullptr;
    bool whole = sqlite3_prepare_v2(db, "PRAGMA integrity_check(1)", -1, &s, nullptr) == SQLITE_OK && sqlite3_step(s) == SQLITE_ROW;
    const unsigned char* said = whole ? sqlite3_column_text(s, 0) : nullptr;
    whole = said != nullptr && std::string(reinterpret_cast<const char*>(said)) == "ok";
    sqlite3_finalize(s);
    if (!whole) return damaged();
    if (auto done = library->migrate(); !done) return done.error();
    return library;
}

Result<Done> Library::put_row(const char* kind, const std::string& id, const std::string& name, const std::string& text) {
    sqlite3_stmt* s = nullptr;
    if (sqlite3_prepare_v2(db_,
                           "INSERT INTO item(kind, id, name, json) VALUES(?1, ?2, ?3, ?4) ON CONFLICT(kind, id) DO UPDATE SET "
                           "name = excluded.name, json = excluded.json",
                           -1, &s, nullptr) != SQLITE_OK)
        return Error{"The shop library cannot be written."};
    const std::string values[] = {kind, id, name, text};
    for (int i = 0; i < 4; ++i) sqlite3_bind_text(s, i + 1, values[i].data(), static_cast<int>(values[i].size()), SQLITE_TRANSIENT);
    const int code = sqlite3_step(s);
    sqlite3_finalize(s);
    if (code != SQLITE_DONE)
        return Error{code == SQLITE_FULL ? "The disk is full: the shop library was not changed." : "The shop library cannot be written."};
    return Done{};
}

Result<Done> Library::put(const BlankStyle& s) { return put_row("blank", s.id, s.name, json_text(to_json(s))); }
Result<Done> Library::put(const Medium& m) { return put_row("medium", m.id, m.name, json_text(to_json(m))); }
Result<Done> Library::put(const Press& p) { return put_row("press", p.id, p.name, json_text(to_json(p))); }

Result<Done> Library::put(const Method& m) { return put_row("method", m.id, m.name, json_text(to_json(m))); }
Result<Done> Library::put(const Trial& t) {
    return put_row("trial", t.method + '/' + t.style + '/' + t.press, t.note, json_text(to_json(t)));
}
Result<Done> Library::put(const Jig& g) { return put_row("jig", g.id, g.name, json_text(to_json(g))); }

Result<Done> Library::put_all(const LibraryContent& c) {
    Result<Done> done = Done{};
    const auto each = [&](const auto& list) {
        for (const auto& item : list)
            if (done) done = put(item);
    };
    each(c.styles);
    each(c.media);
    each(c.presses);
    each(c.methods);
    each(c.jigs);
    each(c.trials);
    for (const auto& [wording, style] : c.words.blanks)
        if (done) done = put_row("word for a blank", wording, wording, json_text(json(style)));
    for (const auto& [wording, size] : c.words.sizes)
        if (done) done = put_row("word for a size", wording, wording, json_text(json(size)));
    return done;
}

Result<Done> Library::merge(const LibraryContent& c) {
    if (auto begun = run("BEGIN IMMEDIATE;"); !begun) return begun;
    return finish(put_all(c));
}

Result<LibraryContent> Library::content() const {
    LibraryContent c;
    sqlite3_stmt* s = nullptr;
    if (sqlite3_prepare_v2(db_, "SELECT kind, json, id FROM item ORDER BY rowid", -1, &s, nullptr) != SQLITE_OK) return damaged();
    std::optional<Error> fault;
    int code = SQLITE_ROW;
    while (!fault && (code = sqlite3_step(s)) == SQLITE_ROW) {
        std::array<std::string, 3> row;
        for (int k = 0; k < 3; ++k)
            if (const unsigned char* cell = sqlite3_column_text(s, k))
                row[static_cast<std::size_t>(k)] = reinterpret_cast<const char*>(cell);
            else
                fault = damaged();
        if (fault) break;
        const std::string &kind = row[0], &text = row[1];
        const auto j = parse_json(text, "The shop library");
        const auto take = [&](auto read, auto& list) {
            auto item = read(*j);
            if (item)
                list.push_back(std::move(*item));
            else
                fault = item.error();
        };
        if (!j)
            fault = j.error();
        else if (kind == "blank")
            take(style_from_json, c.styles);
        else if (kind == "medium")
            take(medium_from_json, c.media);
        else if (kind == "press")
            take(press_from_json, c.presses);
        else if (kind == "method")
            take(method_from_json, c.methods);
        else if (kind == "jig")
            take(jig_from_json, c.jigs);
        else if (kind == "trial")
            take([](const json& t) { return guarded([&] { return read_trial({t, ""}); }); }, c.trials);
        else if (kind.rfind("word for a ", 0) == 0 && j->is_string())
            (kind == "word for a size" ? c.words.sizes : c.words.blanks)[row[2]] = j->get<std::string>();
        else
            fault = damaged();
    }
    sqlite3_finalize(s);
    if (!fault && code != SQLITE_DONE) fault = damaged();  // an error is not the end
    if (fault) return *fault;
    return c;
}

Result<Done> Library::back_up(const std::string& to) const {
    sqlite3_int64 size = 0;
    unsigned char* bytes = sqlite3_serialize(db_, "main", &size, 0);
    if (bytes == nullptr) return Error{"The copy of the shop library cannot be written."};
    const std::string copy(reinterpret_cast<const char*>(bytes), static_cast<std::size_t>(size));
    sqlite3_free(bytes);
    return write_file(to, copy);
}

Result<std::string> Library::put_back(const std::string& path, const std::string& copy, const std::string& was) {
    const auto bytes = read_file(copy);
    if (!bytes) return bytes.error();
    std::string beside;
    for (int k = 1; k < 1000 && (beside.empty() || std::filesystem::exists(beside)); ++k)
        beside = path + "." + was + "-" + std::to_string(k);
    std::error_code error;
    if (std::filesystem::exists(path)) std::filesystem::rename(path, beside, error);
    if (error) return Error{"The copy of the shop library cannot be put in its place: {why}.", {{"why", error.message()}}};
    if (const auto done = write_file(path, *bytes); !done) {
        std::filesystem::rename(beside, path, error);
        return done.error();
    }
    return beside;
}

void adopt_library(Order& order, const LibraryContent& content) {
    const auto adopt = [](auto& have, const auto& offered) {
        const auto fresh = lacking(have.all(), offered);
        if (!fresh.empty()) have.own().insert(have.own().end(), fresh.begin(), fresh.end());
    };
    adopt(order.styles, content.styles);
    adopt(order.media, content.media);
    adopt(order.presses, content.presses);
    adopt(order.methods, content.methods);
    adopt(order.jigs, content.jigs);
    for (const Trial& t : content.trials)  // what another order found out
        if (std::none_of(order.trials.all().begin(), order.trials.all().end(),
                         [&](const Trial& own) { return own.method == t.method && own.style == t.style && own.press == t.press; }))
            order.trials.push_back(t);
}

}  // namespace orthema
