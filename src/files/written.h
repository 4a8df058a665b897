// What lies in a folder from the export before, so that what would come out the same is not written again.
// Kept beside the files as `<order>_export.json` (docs/command-line.md): of each its name, what it was made of, its length and time.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/drawing/drawing.h"

namespace orthema {

/// All that decides what a file will hold, gathered bit by bit and made one short word of.
class MadeOf {
public:
    explicit MadeOf(const std::string& kind) { add(kind); }
    MadeOf& add(const std::string& text);
    MadeOf& add(double figure);
    MadeOf& add(std::size_t count) { return add(static_cast<double>(count)); }
    MadeOf& add(Point p) { return add(p.x).add(p.y); }
    MadeOf& add(const std::vector<Ring>& rings);
    /// Every mark; a picture by the bytes that `art` (id -> hash) knows it by.
    MadeOf& add(const Drawing& page, const std::map<std::string, std::string>& art);
    /// SHA-256, hexadecimal.
    [[nodiscard]] std::string word() const;

private:
    MadeOf& add(const Mark& mark, const std::map<std::string, std::string>& art);
    std::string bytes_;
};

/// The note of one folder.
class Written {
public:
    /// Reads `note`; a missing or broken one knows nothing, and then all is written.
    explicit Written(std::string note);
    /// Whether the file at `path` was made of this, and nobody has touched it since.
    [[nodiscard]] bool holds(const std::string& path, const std::string& made_of) const;
    void now(const std::string& path, const std::string& made_of);
    /// Names of files of exports before, still as they were written, that `now` was not told of.
    [[nodiscard]] std::vector<std::string> left_from_before() const;
    [[nodiscard]] Result<Done> save() const;

private:
    struct Entry {
        std::string made_of;
        std::uintmax_t length = 0;
        long long time = 0;  ///< of its last change, nanoseconds
        bool told = false;
    };
    std::string note_;
    std::map<std::string, Entry> files_;  ///< by the path from the note's folder
};

}  // namespace orthema
