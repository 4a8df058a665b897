#include "files/safe_file.h"

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>

namespace orthema {

namespace {

std::string reason(int error) {
    switch (error) {
    case ENOENT: return "it is not there";
    case EACCES:
    case EPERM: return "access is not allowed";
    case ENOSPC:
    case EDQUOT: return "the disk is full";
    case EISDIR: return "it is a folder";
    case EROFS: return "the disk is read-only";
    default: return std::strerror(error);
    }
}

}  // namespace

Result<std::string> read_file(const std::string& path, std::size_t most) {
    std::FILE* file = std::fopen(path.c_str(), "rb");
    if (file == nullptr) return Error{"“" + path + "” cannot be read: " + reason(errno) + "."};
    std::string out;
    char buffer[65536];
    std::size_t got = 0;
    while ((got = std::fread(buffer, 1, sizeof buffer, file)) > 0) {
        out.append(buffer, got);
        if (out.size() > most) break;
    }
    const int error = std::ferror(file) != 0 ? errno : 0;
    std::fclose(file);
    if (error != 0) return Error{"“" + path + "” cannot be read: " + reason(error) + "."};
    if (out.size() > most) return Error{"“" + path + "” is larger than can be used."};
    return out;
}

SafeFile::SafeFile(std::string path) : path_(std::move(path)), temporary_(path_ + ".part" + std::to_string(::getpid())) {
    file_ = std::fopen(temporary_.c_str(), "wb");
    if (file_ == nullptr) error_ = errno;
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

Error SafeFile::fault() const { return Error{"“" + path_ + "” cannot be written: " + reason(error_) + ". Nothing was changed."}; }

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

Result<Done> write_file(const std::string& path, const std::string& content) {
    SafeFile file(path);
    if (!file.write(content.data(), content.size())) return file.fault();
    return file.commit();
}

std::string file_stem(const std::string& name) {
    std::string out;
    for (const char c : name) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u) != 0)
            out += static_cast<char>(std::tolower(u));
        else if (!out.empty() && out.back() != '-')
            out += '-';
    }
    while (!out.empty() && out.back() == '-') out.pop_back();
    if (out.size() > 60) out.resize(60);
    return out.empty() ? "order" : out;
}

}  // namespace orthema
