// Values on their way between the program and its picture reader, as bytes. Both ends are of one build and one machine;
// whoever reads trusts nothing: counts are held against what is there, and a value that does not fit ends the reading.
#pragma once

#include <sys/socket.h>

#include <cerrno>
#include <cstdint>
#include <cstring>
#include <optional>
#include <string>
#include <string_view>
#include <tuple>
#include <type_traits>
#include <variant>
#include <vector>

#include "core/drawing/drawing.h"
#include "files/art_file.h"

namespace orthema::wire {

class Out {
public:
    std::string bytes;
    static constexpr bool writes = true;
    void raw(const void* data, std::size_t size) { bytes.append(static_cast<const char*>(data), size); }
};

class In {
public:
    static constexpr bool writes = false;
    explicit In(std::string_view bytes) : bytes_(bytes) {}
    void raw(void* data, std::size_t size) {
        if (failed_ || size > bytes_.size()) {
            failed_ = true;
            std::memset(data, 0, size);
            return;
        }
        std::memcpy(data, bytes_.data(), size);
        bytes_.remove_prefix(size);
    }
    void fail() { failed_ = true; }
    [[nodiscard]] std::size_t left() const { return failed_ ? 0 : bytes_.size(); }
    /// All of it was read, and it was sound.
    [[nodiscard]] bool whole() const { return !failed_ && bytes_.empty(); }
    [[nodiscard]] bool sound() const { return !failed_; }

private:
    std::string_view bytes_;
    bool failed_ = false;
};

// What each value is made of.
inline auto parts(Rect& v) { return std::tie(v.x0, v.y0, v.x1, v.y1); }
inline auto parts(Affine& v) { return std::tie(v.a, v.b, v.c, v.d, v.tx, v.ty); }
inline auto parts(RingSector& v) { return std::tie(v.rim_radius, v.base_radius, v.slant); }
inline auto parts(Polygon& v) { return std::tie(v.outer, v.holes); }
inline auto parts(Stroke& v) { return std::tie(v.colour, v.width, v.dash); }
inline auto parts(PathMark& v) { return std::tie(v.rings, v.closed, v.fill, v.stroke); }
inline auto parts(TextMark& v) { return std::tie(v.at, v.text, v.size, v.colour, v.align, v.bold, v.degrees); }
inline auto parts(ArtMark& v) { return std::tie(v.art, v.place, v.opacity, v.bend, v.bent); }
inline auto parts(ClipMark& v) { return std::tie(v.to); }
inline auto parts(Drawing& v) { return std::tie(v.width, v.height, v.marks); }
inline auto parts(ArtFacts::Ink& v) { return std::tie(v.colour, v.share); }
inline auto parts(AlphaMap& v) { return std::tie(v.width, v.height, v.ink); }
inline auto parts(SmallPicture& v) { return std::tie(v.width, v.height, v.rgba); }
inline auto parts(ShapedLetter& v) { return std::tie(v.outline, v.at, v.advance); }
inline auto parts(ShapedWord& v) { return std::tie(v.letters, v.missing); }
inline auto parts(Mending& v) {
    return std::tie(v.kind, v.degrees, v.keep, v.tolerance, v.counters, v.least, v.at, v.threshold, v.dpi, v.apart);
}
inline auto parts(ScreenImage& v) { return std::tie(v.width, v.height, v.pixels); }
inline auto parts(ClipOf& v) { return std::tie(v.shape, v.unit, v.at, v.whole_ink, v.degrees); }
inline auto parts(Filling& v) { return std::tie(v.picture, v.clip, v.opacity, v.plain); }
inline auto parts(ArtFacts& v) {
    return std::tie(v.width_px, v.height_px, v.vector, v.ink_px, v.aspect, v.outline, v.optical_centre, v.thin_stroke, v.narrow_gap, v.inks,
                    v.half_transparent, v.flat_background, v.background, v.missing_fonts, v.alpha, v.picture, v.edge_px);
}

/// Copied as they lie in memory.
template <class T>
constexpr bool flat =
    std::is_arithmetic_v<T> || std::is_enum_v<T> || std::is_same_v<T, Point> || std::is_same_v<T, Colour> || std::is_same_v<T, Length>;

template <class Io, class T>
void pass(Io& io, T& value);

template <class Io, class T>
void pass_list(Io& io, std::vector<T>& list) {
    std::uint64_t n = list.size();
    pass(io, n);
    if constexpr (!Io::writes) {
        if (n > io.left() / (flat<T> ? sizeof(T) : 1)) return io.fail();
        list.clear();
        list.resize(n);
    }
    if constexpr (flat<T>) {
        if (n > 0) io.raw(list.data(), n * sizeof(T));
    } else {
        for (T& one : list) pass(io, one);
    }
}

template <class T>
struct IsVector : std::false_type {};
template <class T>
struct IsVector<std::vector<T>> : std::true_type {};
template <class T>
struct IsOptional : std::false_type {};
template <class T>
struct IsOptional<std::optional<T>> : std::true_type {};
template <class T>
struct IsShared : std::false_type {};
template <class T>
struct IsShared<Shared<T>> : std::true_type {
    using Held = T;
};

template <std::size_t K = 0, class Io>
void pass_mark(Io& io, Mark& mark, std::size_t index) {
    if constexpr (K < std::variant_size_v<Mark>) {
        if (index != K) return pass_mark<K + 1>(io, mark, index);
        if constexpr (!Io::writes) mark.emplace<K>();
        pass(io, std::get<K>(mark));
    } else if constexpr (!Io::writes) {
        io.fail();
    }
}

template <class Io, class T>
void pass(Io& io, T& value) {
    if constexpr (std::is_same_v<T, bool>) {  // any byte is no bool
        std::uint8_t byte = value ? 1 : 0;
        io.raw(&byte, 1);
        if constexpr (!Io::writes) {
            if (byte > 1) io.fail();
            value = byte == 1;
        }
    } else if constexpr (flat<T>) {
        io.raw(&value, sizeof value);
    } else if constexpr (std::is_same_v<T, std::string>) {
        std::uint64_t n = value.size();
        pass(io, n);
        if constexpr (!Io::writes) {
            if (n > io.left()) return io.fail();
            value.resize(n);
        }
        if (n > 0) io.raw(value.data(), n);
    } else if constexpr (IsVector<T>::value) {
        pass_list(io, value);
    } else if constexpr (IsOptional<T>::value) {
        bool there = value.has_value();
        pass(io, there);
        if constexpr (!Io::writes) {
            if (there) value.emplace();
        }
        if (there && value) pass(io, *value);
    } else if constexpr (IsShared<T>::value) {
        using Held = typename IsShared<T>::Held;
        bool there = value.held != nullptr;
        pass(io, there);
        if (!there) return;
        if constexpr (Io::writes) {
            pass(io, const_cast<Held&>(*value.held));
        } else {
            auto held = std::make_shared<Held>();
            pass(io, *held);
            value = Shared<Held>(std::move(held));
        }
    } else if constexpr (std::is_same_v<T, Mark>) {
        std::uint64_t index = value.index();
        pass(io, index);
        pass_mark(io, value, index);
    } else {
        std::apply([&](auto&... part) { (pass(io, part), ...); }, parts(value));
    }
}

/// Several values one after the other.
template <class... T>
std::string packed(const T&... values) {
    Out out;
    (pass(out, const_cast<T&>(values)), ...);
    return std::move(out.bytes);
}
/// Back again; false where they do not fit.
template <class... T>
[[nodiscard]] bool unpacked(std::string_view bytes, T&... values) {
    In in(bytes);
    (pass(in, values), ...);
    return in.whole();
}

/// What is asked of the reader, and what it says.
enum class Kind : std::uint32_t {
    keep = 1,
    forget,
    look,
    look_clipped,
    pdf,
    png,
    tiff,
    rows,
    done,
    failed,
    progress,
    band,
    there,
    letters,
    mend,
    compose,
    photo
};

struct Header {
    std::uint32_t magic = 0x4f525231;
    Kind kind = Kind::done;
    std::uint64_t size = 0;
};
constexpr std::uint64_t most_frame = 3ull << 30;

/// All of it through a socket; false where nobody reads it.
inline bool send_all(int socket, const void* data, std::size_t size) {
    const char* at = static_cast<const char*>(data);
    while (size > 0) {
        const ssize_t sent = ::send(socket, at, size, MSG_NOSIGNAL);
        if (sent < 0 && errno == EINTR) continue;
        if (sent <= 0) return false;
        at += sent;
        size -= static_cast<std::size_t>(sent);
    }
    return true;
}

/// Why something could not be done: a sentence with places, and what stands in them.
struct Refusal {
    std::string sentence;
    std::vector<std::string> names, values;
};
inline auto parts(Refusal& v) { return std::tie(v.sentence, v.names, v.values); }

/// A picture that a page shows: its bytes were kept before.
struct ArtRef {
    std::string id, hash;
    ArtFacts facts;  ///< without its maps
    std::optional<ClipOf> clip;
    ArtFacts whole;  ///< of the picture that it is cut from
};
inline auto parts(ArtRef& v) { return std::tie(v.id, v.hash, v.facts, v.clip, v.whole); }

}  // namespace orthema::wire
