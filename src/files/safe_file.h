// Reading with limits and writing that never leaves half a file: to a temporary file beside it, flushed, renamed.
#pragma once

#include <cstdint>
#include <cstdio>
#include <string>

#include "core/base/result.h"

namespace orthema {

/// The whole file; fails with a sentence when it cannot be read or is larger than `most` bytes.
Result<std::string> read_file(const std::string& path, std::size_t most = 512u << 20);

/// A file under way. Nothing at `path` changes until commit(); the temporary file is removed if it never comes, and those
/// of programs that died are removed by the next that writes there. A link stays a link, and mode and owner stay as they
/// were; what is no file (a device, a pipe) is refused.
class SafeFile {
public:
    explicit SafeFile(std::string path);
    ~SafeFile();
    SafeFile(const SafeFile&) = delete;
    SafeFile& operator=(const SafeFile&) = delete;
    /// False when the folder cannot be written to.
    [[nodiscard]] bool open() const { return file_ != nullptr; }
    bool write(const void* data, std::size_t size);
    [[nodiscard]] std::FILE* handle() { return file_; }
    /// Flushes, syncs and renames. A sentence on failure (a full disk, for one): the old file is then untouched.
    Result<Done> commit();
    [[nodiscard]] Error fault() const;
    /// Somebody else wrote to it, and could not; the sentence.
    Error failed(int error) {
        error_ = error;
        failed_ = true;
        return fault();
    }

private:
    std::string path_, temporary_;  ///< what a link points to, not the link; beside it
    std::FILE* file_ = nullptr;
    bool failed_ = false;
    int error_ = 0;
};

/// Which file lies at a path, in which state; all 0 where there is none. Of an order in a folder: its order.json.
struct FileStamp {
    std::uint64_t device = 0, node = 0, size = 0, changed = 0;
    bool operator==(const FileStamp&) const = default;
};
FileStamp file_stamp(const std::string& path);

Result<Done> write_file(const std::string& path, const std::string& content);

/// A name that is safe in any folder: letters of any script, digits and dashes, at most 60 bytes.
std::string file_stem(const std::string& name);

}  // namespace orthema
