#include "reader/colour_profile.h"

#include <lcms2.h>
#include <libdeflate.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <functional>
#include <map>
#include <memory>
#include <thread>

namespace orthema::reader {

namespace {

struct CloseProfile {
    void operator()(void* p) const { cmsCloseProfile(p); }
};
struct CloseTransform {
    void operator()(void* t) const { cmsDeleteTransform(t); }
};
using Profile = std::unique_ptr<void, CloseProfile>;
using Transform = std::unique_ptr<void, CloseTransform>;

/// Null where it is damaged or of other colours.
Profile opened(const std::string& bytes, cmsColorSpaceSignature of) {
    if (bytes.empty() || bytes.size() > most_profile) return nullptr;
    Profile p(cmsOpenProfileFromMem(bytes.data(), static_cast<cmsUInt32Number>(bytes.size())));
    if (p && cmsGetColorSpace(p.get()) != of) return nullptr;
    return p;
}

Transform transform(const Profile& from, cmsUInt32Number in, cmsUInt32Number out) {
    const Profile srgb(cmsCreate_sRGBProfile());
    if (!from || !srgb) return nullptr;
    // without the cache of one pixel it may run on several threads
    return Transform(cmsCreateTransform(from.get(), in, srgb.get(), out, INTENT_RELATIVE_COLORIMETRIC,
                                        cmsFLAGS_NOCACHE | cmsFLAGS_BLACKPOINTCOMPENSATION | cmsFLAGS_COPY_ALPHA));
}

void each_band(const Pixels& p, const std::function<void(std::size_t, std::size_t)>& act) {
    const std::size_t all = p.rgba.size() / 4;
    const std::size_t threads = std::clamp<std::size_t>(std::thread::hardware_concurrency(), 1, 8);
    const std::size_t each = all / threads + 1;
    std::vector<std::jthread> others;
    for (std::size_t from = each; from < all; from += each) others.emplace_back(act, from, std::min(each, all - from));
    act(0, std::min(each, all));
}

std::uint32_t big(const std::string& b, std::size_t at) {
    std::uint32_t v = 0;
    for (std::size_t k = 0; k < 4; ++k) v = v << 8 | static_cast<std::uint8_t>(b[at + k]);
    return v;
}

std::string from_png(const std::string& b) {
    for (std::size_t at = 8; at + 12 <= b.size();) {
        const std::size_t size = big(b, at);
        if (size > b.size() - at - 12 || b.compare(at + 4, 4, "IDAT") == 0) break;
        if (b.compare(at + 4, 4, "iCCP") == 0) {
            const std::size_t name = b.find('\0', at + 8);
            if (name == std::string::npos || name + 2 >= at + 8 + size) return {};
            std::unique_ptr<libdeflate_decompressor, decltype(&libdeflate_free_decompressor)> packer(libdeflate_alloc_decompressor(),
                                                                                                     &libdeflate_free_decompressor);
            for (std::size_t room = 64u << 10; room <= most_profile; room *= 8) {
                std::string out(room, '\0');
                std::size_t got = 0;
                const auto done =
                    libdeflate_zlib_decompress(packer.get(), b.data() + name + 2, at + 8 + size - name - 2, out.data(), room, &got);
                if (done == LIBDEFLATE_INSUFFICIENT_SPACE) continue;
                if (done != LIBDEFLATE_SUCCESS) return {};
                out.resize(got);
                return out;
            }
            return {};
        }
        at += 12 + size;
    }
    return {};
}

/// Parts of it stand in several segments, numbered.
std::string from_jpeg(const std::string& b) {
    static const std::string mark("ICC_PROFILE\0", 12);
    std::map<int, std::string> parts;
    for (std::size_t at = 2; at + 4 < b.size() && static_cast<std::uint8_t>(b[at]) == 0xff;) {
        const auto marker = static_cast<std::uint8_t>(b[at + 1]);
        const std::size_t size = static_cast<std::size_t>(static_cast<std::uint8_t>(b[at + 2])) << 8 | static_cast<std::uint8_t>(b[at + 3]);
        if (marker == 0xda || size < 2 || at + 2 + size > b.size()) break;
        if (marker == 0xe2 && size > 16 && b.compare(at + 4, 12, mark) == 0)
            parts[static_cast<std::uint8_t>(b[at + 16])] = b.substr(at + 18, size - 16);
        at += 2 + size;
    }
    std::string out;
    for (const auto& [n, part] : parts) out += part;
    return out;
}

std::string from_webp(const std::string& b) {
    for (std::size_t at = 12; at + 8 <= b.size();) {
        std::size_t size = 0;
        for (std::size_t k = 4; k-- > 0;) size = size << 8 | static_cast<std::uint8_t>(b[at + 4 + k]);
        if (size > b.size() - at - 8) break;
        if (b.compare(at, 4, "ICCP") == 0) return b.substr(at + 8, size);
        at += 8 + size + size % 2;
    }
    return {};
}

}  // namespace

std::string embedded_profile(ArtKind kind, const std::string& bytes) {
    switch (kind) {
    case ArtKind::png: return from_png(bytes);
    case ArtKind::jpeg: return from_jpeg(bytes);
    case ArtKind::webp: return from_webp(bytes);
    default: return {};
    }
}

bool to_srgb(Pixels& pixels, const std::string& profile) {
    if (const Transform grey = transform(opened(profile, cmsSigGrayData), TYPE_GRAY_8, TYPE_RGB_8)) {
        std::array<std::uint8_t, 256> in{};
        for (std::size_t k = 0; k < 256; ++k) in[k] = static_cast<std::uint8_t>(k);
        std::array<std::array<std::uint8_t, 3>, 256> out{};
        cmsDoTransform(grey.get(), in.data(), out.data(), 256);
        bool changed = false;
        for (std::size_t k = 0; k < 256; ++k) changed = changed || std::abs(out[k][1] - static_cast<int>(k)) > 1;
        if (!changed) return false;
        for (std::size_t i = 0; i + 3 < pixels.rgba.size(); i += 4) std::copy_n(out[pixels.rgba[i]].begin(), 3, &pixels.rgba[i]);
        return true;
    }
    const Transform rgb = transform(opened(profile, cmsSigRgbData), TYPE_RGBA_8, TYPE_RGBA_8);
    if (!rgb) return false;
    std::vector<std::uint8_t> tried, back;
    for (int k = 0; k < 125; ++k)
        tried.insert(tried.end(), {std::uint8_t(k % 5 * 63), std::uint8_t(k / 5 % 5 * 63), std::uint8_t(k / 25 * 63), 255});
    back = tried;
    cmsDoTransform(rgb.get(), tried.data(), back.data(), 125);
    int most = 0;
    for (std::size_t i = 0; i < tried.size(); ++i) most = std::max(most, std::abs(tried[i] - back[i]));
    if (most <= 2) return false;  // sRGB under another name
    each_band(pixels, [&](std::size_t from, std::size_t count) {
        std::uint8_t* at = pixels.rgba.data() + 4 * from;
        cmsDoTransform(rgb.get(), at, at, static_cast<cmsUInt32Number>(count));
    });
    return true;
}

void inks_to_srgb(Pixels& pixels, const std::string& profile, bool inverted) {
    const Transform inks = transform(opened(profile, cmsSigCmykData), inverted ? TYPE_CMYK_8_REV : TYPE_CMYK_8, TYPE_RGBA_8);
    each_band(pixels, [&](std::size_t from, std::size_t count) {
        std::uint8_t* at = pixels.rgba.data() + 4 * from;
        if (inks) cmsDoTransform(inks.get(), at, at, static_cast<cmsUInt32Number>(count));
        for (std::size_t i = 0; i < count; ++i, at += 4) {
            if (!inks)
                for (int k = 0; k < 3; ++k)
                    at[k] = static_cast<std::uint8_t>(inverted ? at[k] * at[3] / 255 : (255 - at[k]) * (255 - at[3]) / 255);
            at[3] = 255;
        }
    });
}

}  // namespace orthema::reader
