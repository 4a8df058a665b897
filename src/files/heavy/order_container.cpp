#include "files/heavy/heavy.h"

#include <zip.h>

#include <algorithm>
#include <filesystem>
#include <set>

#include "files/library.h"
#include "files/order_json.h"
#include "files/record_book.h"
#include "files/safe_file.h"
#include "files/json_in.h"

namespace orthema {

namespace {

constexpr zip_int64_t most_entries = 2000;
constexpr zip_uint64_t most_unpacked = 1ull << 30;

/// A file of an art: where it lies, and what its bytes must come to.
struct ArtFile {
    std::string entry, hash;
};
/// Its picture, or the typefaces of a lettering.
std::vector<ArtFile> files_of(const Art& art) {
    if (art.together) return {};  // it is made of the others
    std::vector<ArtFile> out{{"art/" + art.hash + "." + kind_key(art.kind), art.hash}};
    if (art.lettering && !art.lettering->narrow.empty()) out.push_back({"art/" + art.lettering->narrow + ".face", art.lettering->narrow});
    return out;
}

/// A small photograph: an order is whole without it.
std::string entry_of(const KeptPhoto& photo) { return "photographs/" + photo.hash + ".jpg"; }

/// Calls `each` for the photographs of the order, then of every order that its jobs came with.
template <class Each>
void for_photographs(const Order& order, const Each& each) {
    for (const KeptPhoto& photo : order.photographs.all()) each(photo);
    for (const Job& job : order.jobs.all())
        if (job.own)
            for (const KeptPhoto& photo : job.own->photographs.all()) each(photo);
}

/// Checks that every picture is there and is what its hash says.
Result<OrderPackage> matched(Order order, const std::map<std::string, Bytes>& entries) {
    OrderPackage package{std::move(order), {}, {}, {}};
    for (const Art& art : package.order.art)
        for (const ArtFile& file : files_of(art)) {
            const auto at = entries.find(file.entry);
            if (at == entries.end())
                return Error{"The order lacks the picture of “{name}”: it was not packed whole.", {{"name", art.name}}};
            if (content_hash(*at->second) != file.hash)
                return Error{"The picture of “{name}” was changed or damaged since it was saved: the order is not opened.",
                             {{"name", art.name}}};
            package.art[file.hash] = at->second;
        }
    for_photographs(package.order, [&](const KeptPhoto& photo) {
        const auto at = entries.find(entry_of(photo));
        if (at != entries.end() && content_hash(*at->second) == photo.hash) package.art[photo.hash] = at->second;
    });
    const auto missing = [&](const KeptPhoto& photo) { return !package.art.contains(photo.hash); };
    erase_if(package.order.photographs, missing);
    for (std::size_t i = 0; i < package.order.jobs.size(); ++i) {
        const Job& job = package.order.jobs.all()[i];
        if (!job.own || std::ranges::none_of(job.own->photographs.all(), missing)) continue;
        Order own = *job.own;
        erase_if(own.photographs, missing);
        package.order.jobs.own()[i].own = std::make_shared<const Order>(std::move(own));
    }
    if (const auto at = entries.find("records.json"); at != entries.end()) {
        if (auto records = records_from_json(*at->second))
            package.records = std::move(*records);
        else
            package.records_fault = records.error();
    }
    return package;
}

Result<Order> parse_order(const std::string& text) {
    const auto json = parse_json(text, "The order file");
    if (!json) return json.error();
    auto order = order_from_json(*json);
    // files of before version 3 have no methods: they take the ones that the program starts with
    if (order && order->methods.empty()) order->methods = starting_library().methods;
    // and files of before jobs had ids take one from what they hold
    if (order && order->job.empty()) order->job = "job-" + content_hash(text).substr(0, 12);
    return order;
}

Result<OrderPackage> open_folder(const std::string& path) {
    const auto text = read_file(path + "/order.json", 64u << 20);
    if (!text) return text.error();
    auto order = parse_order(*text);
    if (!order) return order.error();
    std::map<std::string, Bytes> entries;
    for (const Art& art : order->art)
        for (const ArtFile& file : files_of(art))
            if (auto bytes = read_file(path + "/" + file.entry))
                entries[file.entry] = std::make_shared<const std::string>(std::move(*bytes));
    for_photographs(*order, [&](const KeptPhoto& photo) {
        if (auto bytes = read_file(path + "/" + entry_of(photo), 16u << 20))
            entries[entry_of(photo)] = std::make_shared<const std::string>(std::move(*bytes));
    });
    if (auto records = read_file(path + "/records.json"))
        entries["records.json"] = std::make_shared<const std::string>(std::move(*records));
    return matched(std::move(*order), entries);
}

bool climbs_out(const std::string& name) {
    return name.empty() || name[0] == '/' || name.find('\\') != std::string::npos || name.find('\0') != std::string::npos || name == ".." ||
           name.rfind("../", 0) == 0 || name.find("/../") != std::string::npos;
}

struct ZipCloser {
    void operator()(zip_t* z) const { zip_discard(z); }
};

/// What a container holds; `path` is for the sentence on failure.
Result<OrderPackage> unpacked(const std::string& packed, const std::string& path) {
    const Error not_ours{"“{file}” is not an order file of this program, or it is cut short.",
                         {{"file", std::filesystem::path(path).filename().string()}}};
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* source = zip_source_buffer_create(packed.data(), packed.size(), 0, &error);
    zip_t* raw = source == nullptr ? nullptr : zip_open_from_source(source, ZIP_RDONLY, &error);
    if (raw == nullptr) {
        if (source != nullptr) zip_source_free(source);
        return not_ours;
    }
    const std::unique_ptr<zip_t, ZipCloser> zip(raw);
    const zip_int64_t count = zip_get_num_entries(raw, 0);
    if (count > most_entries) return Error{"The order file has thousands of entries, which no order has: it is not opened."};
    std::map<std::string, Bytes> entries;
    zip_uint64_t total = 0;
    for (zip_int64_t i = 0; i < count; ++i) {
        zip_stat_t stat;
        if (zip_stat_index(raw, static_cast<zip_uint64_t>(i), 0, &stat) != 0 || (stat.valid & ZIP_STAT_SIZE) == 0) return not_ours;
        const std::string name = stat.name == nullptr ? "" : stat.name;
        if (climbs_out(name)) return Error{"The order file holds a path that leads out of it: it is not opened."};
        const bool wanted =
            name == "order.json" || name == "records.json" || name.rfind("art/", 0) == 0 || name.rfind("photographs/", 0) == 0;
        if (!wanted || name.back() == '/') continue;
        total += stat.size;
        if (stat.size > most_unpacked || total > most_unpacked) return Error{"The order file unpacks to more than 1 GB: it is not opened."};
        zip_file_t* file = zip_fopen_index(raw, static_cast<zip_uint64_t>(i), 0);
        if (file == nullptr) return not_ours;
        std::string content(stat.size, '\0');
        const zip_int64_t got = zip_fread(file, content.data(), stat.size);
        // A byte past the size that it states would be a lie about its size.
        char more = 0;
        const bool whole = got == static_cast<zip_int64_t>(stat.size) && zip_fread(file, &more, 1) == 0;
        if (zip_fclose(file) != 0 || !whole) return not_ours;
        if (entries.contains(name)) return not_ours;
        entries[name] = std::make_shared<const std::string>(std::move(content));
    }
    const auto text = entries.find("order.json");
    if (text == entries.end()) return not_ours;
    auto order = parse_order(*text->second);
    if (!order) return order.error();
    return matched(std::move(*order), entries);
}

}  // namespace

Result<OrderPackage> heavy::open_order(const std::string& path) {
    std::error_code none;
    if (std::filesystem::is_directory(path, none)) return open_folder(path);
    const auto packed = read_file(path);
    if (!packed) return packed.error();
    return unpacked(*packed, path);
}

Result<Done> heavy::save_order(const std::string& path, const Order& order, const ArtBytes& art, const OrderRecords& records) {
    const std::string kept = records.records.empty() && records.lessons.empty() ? std::string() : records_json(records);
    const std::string text = json_text(to_json(order), 1);
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* target = zip_source_buffer_create(nullptr, 0, 0, &error);
    zip_source_keep(target);
    zip_t* zip = zip_open_from_source(target, ZIP_CREATE | ZIP_TRUNCATE, &error);
    if (zip == nullptr) {
        zip_source_free(target);
        return Error{"The order could not be packed."};
    }
    const auto add = [&](const std::string& name, const std::string& bytes, bool deflate) {
        zip_source_t* source = zip_source_buffer(zip, bytes.data(), bytes.size(), 0);
        const zip_int64_t at = zip_file_add(zip, name.c_str(), source, ZIP_FL_ENC_UTF_8);
        if (at < 0) return false;
        // a fixed time, so that the same order gives the same bytes
        zip_file_set_mtime(zip, static_cast<zip_uint64_t>(at), 1577836800, 0);
        zip_set_file_compression(zip, static_cast<zip_uint64_t>(at), deflate ? ZIP_CM_DEFLATE : ZIP_CM_STORE, 0);
        return true;
    };
    bool fine = add("order.json", text, true);
    if (!kept.empty()) fine = fine && add("records.json", kept, true);
    std::set<std::string> done;
    for (const Art& a : order.art)
        for (const ArtFile& file : files_of(a)) {
            const auto bytes = art.find(file.hash);
            if (bytes == art.end()) {
                zip_discard(zip);
                zip_source_free(target);
                return Error{"The picture of “{name}” is no longer in memory: bring it in again, then save.", {{"name", a.name}}};
            }
            if (!done.insert(file.entry).second) continue;
            fine = fine && add(file.entry, *bytes->second, a.kind == ArtKind::svg || a.lettering.has_value());
        }
    for_photographs(order, [&](const KeptPhoto& photo) {
        if (const auto bytes = art.find(photo.hash); bytes != art.end() && done.insert(entry_of(photo)).second)
            fine = fine && add(entry_of(photo), *bytes->second, false);
    });
    if (!fine || zip_close(zip) != 0) {
        zip_discard(zip);
        zip_source_free(target);
        return Error{"The order could not be packed."};
    }
    zip_stat_t stat;
    zip_source_stat(target, &stat);
    std::string packed(stat.size, '\0');
    zip_source_open(target);
    zip_source_read(target, packed.data(), stat.size);
    zip_source_close(target);
    zip_source_free(target);
    // what could not be opened again does not take the place of what can
    const auto back = unpacked(packed, path);
    if (!back || back->records_fault)
        return Error{"The order was not saved, for it could not be opened again. {why} What was saved before stays.",
                     {{"why", (back ? *back->records_fault : back.error()).said()}}};
    return write_file(path, packed);
}

}  // namespace orthema
