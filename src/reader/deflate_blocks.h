// Pixels deflated block by block on all cores. Each block is deflated by itself; to stand in one stream its end mark is
// taken back and it is filled up to a whole byte.
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <thread>
#include <vector>

struct libdeflate_compressor;

namespace orthema::reader {

/// A part of a stream, and what it holds.
struct Packed {
    std::string bytes;
    std::uint32_t adler = 1;
    std::size_t size = 0;  ///< before it was deflated
};

class Packer {
public:
    Packer();
    /// A part that others may follow.
    Packed part(std::string_view raw);
    /// A zlib stream of its own.
    std::string whole(std::string_view raw) const;
    /// How long it becomes with the least effort.
    std::size_t guess(std::string_view raw);

private:
    struct Free {
        void operator()(libdeflate_compressor* c) const;
    };
    std::unique_ptr<libdeflate_compressor, Free> good_, quick_;
    std::vector<char> room_;
};

/// A deflated stream whose last block is no longer the last, up to a whole byte; empty where it is no such stream. Method: the codes of
/// every block (RFC 1951) are followed to its end, without writing out what they stand for.
std::string opened(std::string stream);
/// What ends a stream of parts: an empty last block and the check of them all.
std::string stream_end(std::uint32_t adler);
/// The check of two parts one after the other.
std::uint32_t adler_of(std::uint32_t first, std::uint32_t second, std::size_t second_size);

/// Does `act` for 0 … n − 1 on all cores; the packer is the caller's own meanwhile.
class Packers {
public:
    Packers();
    void each(std::size_t n, const std::function<void(Packer&, std::size_t)>& act);

private:
    std::vector<std::unique_ptr<Packer>> all_;
};

}  // namespace orthema::reader
