#include "files/safe_file.h"

#include <fcntl.h>
#include <signal.h>
#include <sys/stat.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <cstdlib>
#include <cstring>
#include <filesystem>
#include <mutex>
#include <set>

#include "core/base/utf8.h"

namespace orthema {

namespace {

Argument reason(int error) {
    switch (error) {
    case ENOENT: return "it is not there";
    case EACCES:
    case EPERM: return "access is not allowed";
    case ENOSPC:
    case EDQUOT: return "the disk is full";
    case EISDIR: return "it is a folder";
    case EROFS: return "the disk is read-only";
    case ENOTSUP: return "it is no file";
    case ENAMETOOLONG: return "the name is too long";
    default: return std::string(std::strerror(error));
    }
}

Error unread(const std::string& path, int error) {
    return Error{"“{path}” cannot be read: {why}.", {{"path", path}, {"why", reason(error)}}};
}

}  // namespace

Result<std::string> read_file(const std::string& path, std::size_t most) {
    std::FILE* file = std::fopen(path.c_str(), "rb");
    if (file == nullptr) return unread(path, errno);
    std::string out;
    char buffer[65536];
    std::size_t got = 0;
    while ((got = std::fread(buffer, 1, sizeof buffer, file)) > 0) {
        out.append(buffer, got);
        if (out.size() > most) break;
    }
    const int error = std::ferror(file) != 0 ? errno : 0;
    std::fclose(file);
    if (error != 0) return unread(path, error);
    if (out.size() > most) return Error{"“{path}” is larger than can be used.", {{"path", path}}};
    return out;
}

namespace {

constexpr const char* part_prefix = ".orthema-";
constexpr const char* part_suffix = ".part";

/// Parts that programs left that are no longer there. Once for each folder.
void clear_parts(const std::filesystem::path& folder) {
    static std::mutex guard;
    static std::set<std::string> cleared;
    {
        const std::scoped_lock lock(guard);
        if (!cleared.insert(folder.string()).second) return;
    }
    std::error_code error;
    int looked = 0;
    for (auto it = std::filesystem::directory_iterator(folder, error);
         !error && it != std::filesystem::directory_iterator() && ++looked < 20000; it.increment(error)) {
        const std::string name = it->path().filename().string();
        const std::string begin = part_prefix, end = part_suffix;
        if (name.rfind(begin, 0) != 0 || name.size() < begin.size() + end.size() || !name.ends_with(end)) continue;
        const int owner = std::atoi(name.c_str() + begin.size());
        if (owner > 0 && ::kill(owner, 0) != 0 && errno == ESRCH) ::unlink(it->path().c_str());
    }
}

}  // namespace

SafeFile::SafeFile(std::string path) : path_(std::move(path)) {
    static std::atomic<unsigned> number{0};
    std::error_code error;
    std::filesystem::path target = path_;
    for (int k = 0; k < 40 && std::filesystem::is_symlink(target, error); ++k) {
        const std::filesystem::path to = std::filesystem::read_symlink(target, error);
        target = to.is_absolute() ? to : target.parent_path() / to;
    }
    path_ = target.string();
    const std::filesystem::path folder = target.has_parent_path() ? target.parent_path() : std::filesystem::path(".");
    clear_parts(folder);
    temporary_ = (folder / (part_prefix + std::to_string(::getpid()) + "-" + std::to_string(++number) + part_suffix)).string();
    struct stat there {};
    const bool is_there = ::stat(path_.c_str(), &there) == 0;
    if (is_there && !S_ISREG(there.st_mode)) {
        error_ = S_ISDIR(there.st_mode) ? EISDIR : ENOTSUP;
        return;
    }
    file_ = std::fopen(temporary_.c_str(), "wb");
    if (file_ == nullptr) {
        error_ = errno;
        return;
    }
    if (!is_there) return;
    (void)::fchmod(::fileno(file_), there.st_mode & 07777);
    if (there.st_uid != ::geteuid() || there.st_gid != ::getegid())
        if (::fchown(::fileno(file_), there.st_uid, there.st_gid) != 0) errno = 0;  // only who may
}

SafeFile::~SafeFile() {
    if (file_ != nullptr) {
        std::fclose(file_);
        ::unlink(temporary_.c_str());
    }
}

bool SafeFile::write(const void* data, std::size_t size) {
    if (file_ == nullptr || failed_) return false;
    if (size > 0 && std::fwrite(data, 1, size, file_) != size) {
        error_ = errno;
        failed_ = true;
    }
    return !failed_;
}

Error SafeFile::fault() const {
    return Error{"“{path}” cannot be written: {why}. Nothing was changed.", {{"path", path_}, {"why", reason(error_)}}};
}

Result<Done> SafeFile::commit() {
    if (file_ == nullptr || failed_) return fault();
    if (std::fflush(file_) != 0 || ::fsync(::fileno(file_)) != 0) {
        error_ = errno;
        return fault();
    }
    const bool closed = std::fclose(file_) == 0;
    file_ = nullptr;
    if (!closed || std::rename(temporary_.c_str(), path_.c_str()) != 0) {
        error_ = errno;
        ::unlink(temporary_.c_str());
        return fault();
    }
    return Done{};
}

FileStamp file_stamp(const std::string& path) {
    struct stat there {};
    if (::stat(path.c_str(), &there) != 0) return {};
    if (S_ISDIR(there.st_mode) && ::stat((path + "/order.json").c_str(), &there) != 0) return {};
    return {there.st_dev, there.st_ino, static_cast<std::uint64_t>(there.st_size),
            static_cast<std::uint64_t>(there.st_mtim.tv_sec) * 1'000'000'000u + static_cast<std::uint64_t>(there.st_mtim.tv_nsec)};
}

Result<Done> write_file(const std::string& path, const std::string& content) {
    SafeFile file(path);
    if (!file.write(content.data(), content.size())) return file.fault();
    return file.commit();
}

std::string file_stem(const std::string& name) {
    std::string out;
    for (const char c : whole_utf8(name)) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u) != 0)
            out += static_cast<char>(std::tolower(u));
        else if (u >= 0x80)
            out += c;
        else if (!out.empty() && out.back() != '-')
            out += '-';
    }
    while (!out.empty() && out.back() == '-') out.pop_back();
    out = first_bytes(out, 60);
    return out.empty() ? "order" : out;
}

}  // namespace orthema
