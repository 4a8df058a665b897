// The shop library: the blanks, media, presses, methods and jigs that a shop has, in SQLite with versioned migrations.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/order/order.h"
#include "core/shop/shop_words.h"

struct sqlite3;

namespace orthema {

struct LibraryContent {
    std::vector<BlankStyle> styles;
    std::vector<Medium> media;
    std::vector<Press> presses;
    std::vector<Method> methods;
    std::vector<Jig> jigs;
    ShopWords words = {};
    std::vector<Trial> trials = {};  ///< the latest of a method on a blank and press that came out clean
    bool operator==(const LibraryContent&) const = default;
};

/// What the program starts with: invented, plausible figures.
const LibraryContent& starting_library();

/// JSON of a library ("orthema-library", version 1) and back.
std::string library_json(const LibraryContent& content);
Result<LibraryContent> library_from_json(const std::string& text);

class Library {
public:
    /// Opens or makes the database, brings it to the newest version (in one transaction), and fills a new one with the
    /// starting library. Fails with a sentence on a damaged file (its pages are looked through) or one of a newer version;
    /// it is then left as it was.
    static Result<std::unique_ptr<Library>> open(const std::string& path);
    ~Library();
    Library(const Library&) = delete;
    Library& operator=(const Library&) = delete;

    Result<LibraryContent> content() const;
    /// Adds or replaces by id.
    Result<Done> put(const BlankStyle& style);
    Result<Done> put(const Medium& medium);
    Result<Done> put(const Press& press);
    Result<Done> put(const Method& method);
    Result<Done> put(const Jig& jig);
    Result<Done> put(const Trial& trial);
    /// Adds or replaces everything in `content`, all or nothing.
    Result<Done> merge(const LibraryContent& content);
    [[nodiscard]] int version() const;
    /// A whole copy of it, in place of what lies there.
    Result<Done> back_up(const std::string& to) const;
    /// Puts a copy in the library's place; what lies there is moved beside under a name with `was` in it, which is given back.
    static Result<std::string> put_back(const std::string& path, const std::string& copy, const std::string& was = "damaged");

    static constexpr int newest_version = 9;

private:
    explicit Library(sqlite3* db) : db_(db) {}
    Result<Done> run(const std::string& sql) const;
    Result<Done> migrate();
    Result<Done> put_all(const LibraryContent& content);
    /// Ends the transaction: for good where all went well, back to how it was otherwise.
    Result<Done> finish(Result<Done> done) const;
    Result<Done> put_row(const char* kind, const std::string& id, const std::string& name, const std::string& json);
    sqlite3* db_;
};

/// Gives an order copies of everything in the library that it lacks.
void adopt_library(Order& order, const LibraryContent& content);

}  // namespace orthema
