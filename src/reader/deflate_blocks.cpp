#include "reader/deflate_blocks.h"

#include <libdeflate.h>

#include <algorithm>
#include <array>
#include <atomic>
#include <cstring>
#include <exception>
#include <mutex>
#include <new>
#include <stdexcept>

namespace orthema::reader {

namespace {

constexpr int level = 6, quick_level = 1;
constexpr std::uint32_t base = 65521;

/// A symbol and how many bits of the stream stand for it.
struct Found {
    unsigned symbol = 0, bits = 0;  ///< 0 bits: none
};

/// A table of code lengths: short codes are looked up, long ones, which are rare, are counted out.
class Codes {
public:
    bool build(const std::uint8_t* lengths, int n) {
        count_.fill(0);
        for (int i = 0; i < n; ++i) ++count_[lengths[i]];
        count_[0] = 0;
        std::array<std::uint16_t, 16> next{}, at{};
        unsigned code = 0, before = 0;
        for (std::size_t bits = 1; bits < 16; ++bits) {
            code = (code + count_[bits - 1]) << 1;
            if (code + count_[bits] > 1u << bits) return false;
            next[bits] = static_cast<std::uint16_t>(code);
            at[bits] = static_cast<std::uint16_t>(before);
            before += count_[bits];
        }
        table_.fill(0);
        for (int i = 0; i < n; ++i) {
            const std::size_t bits = lengths[i];
            if (bits == 0) continue;
            symbols_[at[bits]++] = static_cast<std::uint16_t>(i);
            const unsigned own = next[bits]++;
            if (bits > short_bits) continue;
            unsigned turned = 0;  // the stream has the first bit lowest
            for (std::size_t k = 0; k < bits; ++k) turned |= ((own >> k) & 1) << (bits - 1 - k);
            for (std::size_t slot = turned; slot < table_.size(); slot += 1u << bits)
                table_[slot] = static_cast<std::uint16_t>(static_cast<unsigned>(i) << 4 | bits);
        }
        return true;
    }
    [[nodiscard]] Found find(std::uint64_t stream) const {
        if (const unsigned hit = table_[stream & ((1u << short_bits) - 1)]; hit != 0) return {hit >> 4, hit & 15};
        unsigned code = 0, first = 0, at = 0;
        for (unsigned bits = 1; bits < 16; ++bits, stream >>= 1) {
            code |= static_cast<unsigned>(stream & 1);
            const unsigned n = count_[bits];
            if (code < first + n) return {symbols_[at + code - first], bits};
            at += n;
            first = (first + n) << 1;
            code <<= 1;
        }
        return {};
    }

private:
    static constexpr std::size_t short_bits = 10;
    std::array<std::uint16_t, 1 << short_bits> table_{};
    std::array<std::uint16_t, 16> count_{};
    std::array<std::uint16_t, 320> symbols_{};
};

class Stream {
public:
    explicit Stream(const std::string& bytes) : bytes_(bytes) {}
    [[nodiscard]] std::uint64_t peek() const {  // at least 56 bits, noughts past the end
        const std::size_t at = bit_ / 8;
        std::uint64_t word = 0;
        const std::size_t n = at < bytes_.size() ? std::min<std::size_t>(8, bytes_.size() - at) : 0;
        std::memcpy(&word, bytes_.data() + at, n);
        return word >> (bit_ % 8);
    }
    std::uint32_t take(unsigned bits) {
        const auto v = static_cast<std::uint32_t>(peek() & ((1ull << bits) - 1));
        bit_ += bits;
        return v;
    }
    void skip(std::size_t bits) { bit_ += bits; }
    void to_byte() { bit_ = (bit_ + 7) / 8 * 8; }
    [[nodiscard]] std::size_t at() const { return bit_; }
    [[nodiscard]] bool past() const { return bit_ > 8 * bytes_.size(); }

private:
    const std::string& bytes_;
    std::size_t bit_ = 0;
};

struct Tables {
    Codes letters, distances, lengths;
};

/// The two tables of a block of the second kind.
bool read_tables(Stream& s, Tables& t) {
    const unsigned letters = s.take(5) + 257, distances = s.take(5) + 1, lengths = s.take(4) + 4;
    static constexpr std::array<std::uint8_t, 19> turn = {16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15};
    std::array<std::uint8_t, 19> own{};
    for (unsigned i = 0; i < lengths; ++i) own[turn[i]] = static_cast<std::uint8_t>(s.take(3));
    if (!t.lengths.build(own.data(), 19)) return false;
    std::array<std::uint8_t, 286 + 32 + 138> all{};
    for (unsigned i = 0; i < letters + distances && !s.past();) {
        const auto [symbol, bits] = t.lengths.find(s.peek());
        if (bits == 0) return false;
        s.skip(bits);
        if (symbol < 16) {
            all[i++] = static_cast<std::uint8_t>(symbol);
            continue;
        }
        const std::uint8_t value = symbol == 16 && i > 0 ? all[i - 1] : 0;
        const unsigned times = symbol == 16 ? 3 + s.take(2) : symbol == 17 ? 3 + s.take(3) : 11 + s.take(7);
        for (unsigned k = 0; k < times && i < all.size(); ++k) all[i++] = value;
    }
    return t.letters.build(all.data(), static_cast<int>(letters)) && t.distances.build(all.data() + letters, static_cast<int>(distances));
}

bool fixed_tables(Tables& t) {
    std::array<std::uint8_t, 288> letters{};
    for (std::size_t i = 0; i < 288; ++i) letters[i] = i < 144 ? 8 : i < 256 ? 9 : i < 280 ? 7 : 8;
    std::array<std::uint8_t, 32> distances{};
    distances.fill(5);
    return t.letters.build(letters.data(), 288) && t.distances.build(distances.data(), 32);
}

/// Over the codes of a block, to behind its end mark.
bool follow(Stream& s, const Tables& t) {
    static constexpr std::array<std::uint8_t, 29> more = {0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 2, 2, 2,
                                                          2, 3, 3, 3, 3, 4, 4, 4, 4, 5, 5, 5, 5, 0};
    while (!s.past()) {
        std::uint64_t stream = s.peek();
        const auto [symbol, n] = t.letters.find(stream);
        if (n == 0 || symbol > 285) return false;
        if (symbol <= 256) {
            s.skip(n);
            if (symbol == 256) return true;
            continue;
        }
        const unsigned extra = more[symbol - 257];
        stream >>= n + extra;
        const auto [slot, away] = t.distances.find(stream);
        if (away == 0) return false;
        s.skip(n + extra + away + (slot < 4 ? 0 : slot / 2 - 1));
    }
    return false;
}

}  // namespace

std::string opened(std::string stream) {
    thread_local const auto tables = std::make_unique<Tables>();
    Stream s(stream);
    for (;;) {
        const std::size_t head = s.at();
        const bool last = s.take(1) == 1;
        const unsigned kind = s.take(2);
        if (kind == 0) {
            s.to_byte();
            const unsigned size = s.take(16);
            s.skip(16 + 8 * static_cast<std::size_t>(size));
        } else if (kind == 3 || !(kind == 1 ? fixed_tables(*tables) : read_tables(s, *tables)) || !follow(s, *tables)) {
            return {};
        }
        if (s.past()) return {};
        if (!last) continue;
        stream[head / 8] = static_cast<char>(static_cast<unsigned char>(stream[head / 8]) & ~(1u << (head % 8)));
        // an empty stored block, not the last, fills the byte
        stream.resize((s.at() + 3 + 7) / 8, '\0');
        stream.append("\x00\x00\xff\xff", 4);
        return stream;
    }
}

std::string stream_end(std::uint32_t adler) {
    std::string out("\x01\x00\x00\xff\xff", 5);
    for (int k = 3; k >= 0; --k) out += static_cast<char>(adler >> (8 * k));
    return out;
}

std::uint32_t adler_of(std::uint32_t first, std::uint32_t second, std::size_t second_size) {
    const std::uint64_t a = first & 0xffff, b = first >> 16, c = second & 0xffff, d = second >> 16;
    const std::uint64_t low = (a + c + base - 1) % base;
    const std::uint64_t high = (b + d + (second_size % base) * ((a + base - 1) % base)) % base;
    return static_cast<std::uint32_t>(high << 16 | low);
}

void Packer::Free::operator()(libdeflate_compressor* c) const { libdeflate_free_compressor(c); }

Packer::Packer() : good_(libdeflate_alloc_compressor(level)), quick_(libdeflate_alloc_compressor(quick_level)) {
    if (!good_ || !quick_) throw std::bad_alloc();
}

Packed Packer::part(std::string_view raw) {
    room_.resize(std::max(room_.size(), libdeflate_deflate_compress_bound(good_.get(), raw.size())));
    const std::size_t size = libdeflate_deflate_compress(good_.get(), raw.data(), raw.size(), room_.data(), room_.size());
    Packed out{opened(std::string(room_.data(), size)), libdeflate_adler32(1, raw.data(), raw.size()), raw.size()};
    if (out.bytes.empty()) throw std::runtime_error("a block could not be packed");
    return out;
}

std::string Packer::whole(std::string_view raw) const {
    std::string out(libdeflate_zlib_compress_bound(good_.get(), raw.size()), '\0');
    out.resize(libdeflate_zlib_compress(good_.get(), raw.data(), raw.size(), out.data(), out.size()));
    return out;
}

std::size_t Packer::guess(std::string_view raw) {
    room_.resize(std::max(room_.size(), libdeflate_deflate_compress_bound(quick_.get(), raw.size())));
    return libdeflate_deflate_compress(quick_.get(), raw.data(), raw.size(), room_.data(), room_.size());
}

Packers::Packers() {
    for (unsigned k = 0; k < std::clamp(std::thread::hardware_concurrency(), 1u, 8u); ++k) all_.push_back(std::make_unique<Packer>());
}

void Packers::each(std::size_t n, const std::function<void(Packer&, std::size_t)>& act) {
    std::atomic<std::size_t> next{0};
    std::exception_ptr fault;
    std::mutex guard;
    const auto work = [&](Packer& packer) {
        try {
            for (std::size_t i = next++; i < n; i = next++) act(packer, i);
        } catch (...) {
            const std::scoped_lock lock(guard);
            fault = std::current_exception();
            next = n;
        }
    };
    std::vector<std::jthread> hands;
    for (std::size_t k = 1; k < std::min(n, all_.size()); ++k) hands.emplace_back([&, k] { work(*all_[k]); });
    work(*all_.front());
    hands.clear();
    if (fault) std::rethrow_exception(fault);
}

}  // namespace orthema::reader
