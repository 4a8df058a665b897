#include "files/record_book.h"

#include <algorithm>
#include <charconv>

#include "core/order/limits.h"
#include "files/art_file.h"
#include "files/csv.h"
#include "files/json_in.h"
#include "files/order_json.h"
#include "files/pressing_json.h"
#include "files/record_columns.h"
#include "files/sqlite.h"

namespace orthema {

namespace {

constexpr std::size_t most_records = 1000000;

void put_cell(const Statement& to, int at, const Cell& cell) {
    if (const double* n = std::get_if<double>(&cell))
        to.bind(at, *n);
    else if (const std::string* t = std::get_if<std::string>(&cell))
        to.bind(at, *t);
    else
        to.bind_nothing(at);
}

Error not_written(int code) {
    return Error{code == SQLITE_FULL ? "The disk is full: the records were not kept."
                                     : "The records cannot be written to the shop library."};
}
Error not_read() { return Error{"The records in the shop library cannot be read."}; }

std::string column_list() {
    std::string out;
    for (const RecordColumn& c : record_columns()) out += (out.empty() ? "" : ", ") + std::string(c.name);
    return out;
}

json to_json(const Lesson& l) {
    json j{{"correction", orthema::to_json(l.correction)}, {"state", lesson_state_name(l.state)}, {"version", l.version}, {"at", l.at}};
    if (!l.job.empty()) j["job"] = l.job;
    return j;
}

Result<Lesson> read_lesson(const json& j) {
    return guarded([&] {
        const In in{j, ""};
        Lesson l;
        l.correction = read_correction(in["correction"]);
        l.state = in["state"].one_of<LessonState>(lesson_state_count, lesson_state_name);
        l.version = in["version"].whole(1, 1000000);
        l.at = in["at"].text();
        if (in.has("job")) l.job = in["job"].text();
        return l;
    });
}

std::optional<Error> record_fault(const PressRecord& r) {
    if (r.id.empty()) return Error{"A record has no id."};
    if (r.at.empty()) return Error{"A record has no date."};
    return std::nullopt;
}

}  // namespace

RecordBook::~RecordBook() { sqlite3_close(db_); }

Result<Done> RecordBook::run(const char* sql) const {
    const int code = sqlite3_exec(db_, sql, nullptr, nullptr, nullptr);
    if (code == SQLITE_OK) return Done{};
    return not_written(code);
}

Result<std::unique_ptr<RecordBook>> RecordBook::open(const std::string& path) {
    sqlite3* db = open_database(path);
    if (db == nullptr) return not_read();
    std::unique_ptr<RecordBook> book(new RecordBook(db));
    if (!Statement(db, "SELECT " + column_list() + " FROM record LIMIT 0").ok || !Statement(db, "SELECT json FROM lesson LIMIT 0").ok)
        return not_read();
    return book;
}

Result<Done> RecordBook::add(const std::vector<PressRecord>& records) {
    for (const PressRecord& r : records)
        if (const auto fault = record_fault(r)) return *fault;
    if (auto begun = run("BEGIN IMMEDIATE;"); !begun) return begun;
    std::string places;
    for (std::size_t i = 0; i < record_columns().size(); ++i) places += i == 0 ? "?" : ", ?";
    int code = SQLITE_DONE;
    {
        const Statement insert(db_, "INSERT OR IGNORE INTO record(" + column_list() + ") VALUES(" + places + ")");
        if (!insert.ok) code = SQLITE_ERROR;
        for (std::size_t k = 0; k < records.size() && code == SQLITE_DONE; ++k) {
            int at = 0;
            for (const RecordColumn& c : record_columns()) put_cell(insert, ++at, c.get(records[k]));
            code = sqlite3_step(insert.s);
            sqlite3_reset(insert.s);
        }
    }
    if (code == SQLITE_DONE) return run("COMMIT;");
    (void)run("ROLLBACK;");
    return not_written(code);
}

Result<Done> RecordBook::add(const Lesson& lesson) {
    const Statement insert(db_, "INSERT OR IGNORE INTO lesson(id, version, json) VALUES(?, ?, ?)");
    if (!insert.ok) return not_written(SQLITE_ERROR);
    insert.bind(1, lesson.correction.id);
    insert.bind(2, static_cast<double>(lesson.version));
    insert.bind(3, lesson_json(lesson));
    const int code = sqlite3_step(insert.s);
    if (code != SQLITE_DONE) return not_written(code);
    return Done{};
}

Result<std::vector<PressRecord>> RecordBook::records() const {
    const Statement all(db_, "SELECT " + column_list() + " FROM record ORDER BY at, rowid");
    if (!all.ok) return not_read();
    std::vector<PressRecord> out;
    std::vector<std::size_t> later;  // places of versions above the first
    int code = SQLITE_ROW;
    while ((code = sqlite3_step(all.s)) == SQLITE_ROW) {
        PressRecord r;
        int at = 0;
        for (const RecordColumn& c : record_columns()) {
            const int type = sqlite3_column_type(all.s, at);
            Cell cell;
            if (type == SQLITE_TEXT)
                cell = std::string(reinterpret_cast<const char*>(sqlite3_column_text(all.s, at)),
                                   static_cast<std::size_t>(sqlite3_column_bytes(all.s, at)));
            else if (type != SQLITE_NULL)
                cell = sqlite3_column_double(all.s, at);
            if (type != SQLITE_NULL && !c.set(r, cell)) return not_read();
            ++at;
        }
        if (record_fault(r)) return not_read();
        if (r.version > 1) later.push_back(out.size());
        out.push_back(std::move(r));
    }
    if (code != SQLITE_DONE) return not_read();
    if (!later.empty()) {  // of one id the highest holds, at its first place
        std::vector<PressRecord> newer;
        std::vector<PressRecord> kept;
        std::size_t next = 0;
        for (std::size_t i = 0; i < out.size(); ++i)
            (next < later.size() && later[next] == i ? (++next, newer) : kept).push_back(std::move(out[i]));
        merge_records(kept, newer);
        out = std::move(kept);
    }
    return out;
}

Result<std::vector<Lesson>> RecordBook::lessons() const {
    const Statement all(db_, "SELECT json FROM lesson ORDER BY rowid");
    if (!all.ok) return not_read();
    std::vector<Lesson> out;
    int code = SQLITE_ROW;
    while ((code = sqlite3_step(all.s)) == SQLITE_ROW) {
        const unsigned char* text = sqlite3_column_text(all.s, 0);
        auto lesson = text == nullptr ? Result<Lesson>(not_read()) : lesson_from_json(reinterpret_cast<const char*>(text));
        if (!lesson) return lesson.error();
        const auto same = std::find_if(out.begin(), out.end(), [&](const Lesson& l) { return l.correction.id == lesson->correction.id; });
        if (same == out.end())
            out.push_back(std::move(*lesson));
        else if (lesson->version > same->version)
            *same = std::move(*lesson);
    }
    if (code != SQLITE_DONE) return not_read();
    return out;
}

Result<Done> RecordBook::forget_hands(const std::string& hands) {
    const auto all = lessons();
    if (!all) return all.error();
    if (auto begun = run("BEGIN IMMEDIATE;"); !begun) return begun;
    int code = SQLITE_ERROR;
    {
        const Statement clear(db_, "UPDATE record SET hands = NULL WHERE hands = ?");
        clear.bind(1, hands);
        if (clear.ok) code = sqlite3_step(clear.s);
        for (const Lesson& l : *all) {
            if (l.correction.hands != hands || code != SQLITE_DONE) continue;
            Lesson without = l;
            without.correction.hands.clear();
            const Statement put(db_, "UPDATE lesson SET json = ? WHERE id = ?");
            put.bind(1, lesson_json(without));
            put.bind(2, l.correction.id);
            code = put.ok ? sqlite3_step(put.s) : SQLITE_ERROR;
        }
    }
    if (code == SQLITE_DONE) return run("COMMIT;");
    (void)run("ROLLBACK;");
    return not_written(code);
}

std::string records_json(const OrderRecords& all) {
    json j{{"format", "orthema-records"}, {"version", 1}, {"records", json::array()}};
    for (const PressRecord& r : all.records) {
        json one = json::object();
        for (const RecordColumn& c : record_columns()) {
            const Cell cell = c.get(r);
            if (const double* n = std::get_if<double>(&cell))
                one[c.name] = *n;
            else if (const std::string* t = std::get_if<std::string>(&cell))
                one[c.name] = *t;
        }
        j["records"].push_back(std::move(one));
    }
    for (const Lesson& l : all.lessons) j["lessons"].push_back(to_json(l));
    return json_text(j, 1);
}

Result<OrderRecords> records_from_json(const std::string& text) {
    const auto j = parse_json(text, "The file of records");
    if (!j) return j.error();
    if (!j->is_object() || j->value("format", json()) != json("orthema-records") || !j->contains("records") || !(*j)["records"].is_array())
        return Error{"This is not a file of records of this program."};
    if (j->value("version", json()) != json(1)) return Error{"These records are of a newer version of the program: update first."};
    if ((*j)["records"].size() > most_records) return Error{"The file holds more than 1,000,000 records."};
    OrderRecords out;
    for (const json& e : (*j)["records"]) {
        PressRecord r;
        const auto nth = static_cast<int>(out.records.size() + 1);
        if (!e.is_object()) return Error{"Record {n} of the file cannot be used.", {{"n", nth}}};
        for (const RecordColumn& c : record_columns()) {
            if (!e.contains(c.name)) continue;
            const json& v = e[c.name];
            if ((!v.is_number() && !v.is_string()) || !c.set(r, v.is_number() ? Cell(v.get<double>()) : Cell(v.get<std::string>())))
                return Error{"Record {n} of the file: its “{column}” cannot be used.", {{"n", nth}, {"column", std::string(c.name)}}};
        }
        if (record_fault(r)) return Error{"Record {n} of the file has no id or no date.", {{"n", nth}}};
        out.records.push_back(std::move(r));
    }
    if (j->contains("lessons")) {
        const json& lessons = (*j)["lessons"];
        if (!lessons.is_array() || lessons.size() > 20000) return Error{"The lessons of the file cannot be used."};
        for (const json& e : lessons) {
            auto lesson = read_lesson(e);
            if (!lesson) return lesson.error();
            out.lessons.push_back(std::move(*lesson));
        }
    }
    return out;
}

std::string records_csv(const std::vector<PressRecord>& records) {
    std::string out;
    for (const RecordColumn& c : record_columns()) out += (out.empty() ? "" : ",") + std::string(c.name);
    out += "\r\n";
    for (const PressRecord& r : records) {
        bool first = true;
        for (const RecordColumn& c : record_columns()) {
            if (!first) out += ',';
            first = false;
            const Cell cell = c.get(r);
            if (const double* n = std::get_if<double>(&cell)) {
                char buffer[32];
                out.append(buffer, std::to_chars(buffer, buffer + sizeof buffer, *n).ptr);
            } else if (const std::string* t = std::get_if<std::string>(&cell)) {
                out += csv_field(*t);
            }
        }
        out += "\r\n";
    }
    return out;
}

Result<std::vector<PressRecord>> records_from_csv(const std::string& text) {
    const auto table = parse_table(text);
    if (!table) return table.error();
    std::vector<const RecordColumn*> columns;
    for (const std::string& name : table->header) {
        const auto at =
            std::find_if(record_columns().begin(), record_columns().end(), [&](const RecordColumn& c) { return name == c.name; });
        columns.push_back(at == record_columns().end() ? nullptr : &*at);
    }
    if (std::none_of(columns.begin(), columns.end(), [](const RecordColumn* c) { return c != nullptr && std::string(c->name) == "at"; }))
        return Error{"The table has no column “at” with the dates: it is not one of records."};
    std::vector<PressRecord> out;
    for (std::size_t i = 0; i < table->rows.size(); ++i) {
        PressRecord r;
        const int row = table->line_of(i);
        for (std::size_t k = 0; k < std::min(columns.size(), table->rows[i].size()); ++k) {
            std::string field = table->rows[i][k];
            if (columns[k] == nullptr || field.empty()) continue;
            Cell cell;
            if (columns[k]->number) {
                double v = 0;
                const auto [stop, fault] = std::from_chars(field.data(), field.data() + field.size(), v);
                if (fault != std::errc() || stop != field.data() + field.size())
                    return Error{"Row {row}: “{field}” is no number.", {{"row", row}, {"field", field}}};
                cell = v;
            } else {
                cell = csv_plain(field);
            }
            if (!columns[k]->set(r, cell))
                return Error{"Row {row}: “{field}” cannot be its “{column}”.",
                             {{"row", row}, {"field", field}, {"column", std::string(columns[k]->name)}}};
        }
        if (r.at.empty()) return Error{"Row {row} has no date.", {{"row", row}}};
        if (r.id.empty()) {  // typed elsewhere: the same row is the same record
            std::string all;
            for (const std::string& f : table->rows[i]) all += f + '\n';
            r.id = "row-" + content_hash(all).substr(0, 20);
        }
        out.push_back(std::move(r));
    }
    return out;
}

std::string lesson_json(const Lesson& l) { return json_text(to_json(l)); }

Result<Lesson> lesson_from_json(const std::string& text) {
    const auto j = parse_json(text, "A lesson of the shop library");
    if (!j) return j.error();
    return read_lesson(*j);
}

}  // namespace orthema
