#include "reader/png_bytes.h"

#include <libdeflate.h>

#include "reader/deflate_blocks.h"

namespace orthema::reader {

void put_number(std::string& to, std::uint32_t v) {
    for (int k = 3; k >= 0; --k) to += static_cast<char>(v >> (8 * k));
}

std::string png_chunk(const std::string& name, const std::string& data) {
    std::string out;
    out.reserve(data.size() + 12);
    put_number(out, static_cast<std::uint32_t>(data.size()));
    out += name;
    out += data;
    put_number(out, libdeflate_crc32(0, out.data() + 4, data.size() + 4));
    return out;
}

std::string png_head(int width, int height) {
    std::string part;
    put_number(part, static_cast<std::uint32_t>(width));
    put_number(part, static_cast<std::uint32_t>(height));
    part += std::string("\x08\x06\x00\x00\x00", 5);  // 8 bits of red, green, blue, alpha
    return "\x89PNG\r\n\x1a\n" + png_chunk("IHDR", part);
}

std::string png_of(const PixelImage& p) {
    constexpr std::size_t block_bytes = 1 << 20;
    std::string out = png_head(p.width, p.height);
    const std::size_t stride = 4 * static_cast<std::size_t>(p.width);
    const int rows = std::max(1, static_cast<int>(block_bytes / (stride + 1)));
    std::vector<Packed> parts(static_cast<std::size_t>((p.height + rows - 1) / rows));
    Packers packers;
    packers.each(parts.size(), [&](Packer& packer, std::size_t i) {
        const int first = static_cast<int>(i) * rows, last = std::min(p.height, first + rows);
        std::string raw;
        raw.reserve((stride + 1) * static_cast<std::size_t>(last - first));
        for (int y = first; y < last; ++y) {
            const std::uint8_t* row = p.at(0, y);
            const std::uint8_t* above = y > first ? row - stride : nullptr;
            raw += above != nullptr ? '\x02' : '\x00';  // what differs from the row above
            for (std::size_t k = 0; k < stride; ++k) raw += static_cast<char>(above != nullptr ? row[k] - above[k] : row[k]);
        }
        parts[i] = packer.part(raw);
    });
    std::string data("\x78\x9c");
    std::uint32_t adler = 1;
    for (const Packed& part : parts) {
        data += part.bytes;
        adler = adler_of(adler, part.adler, part.size);
        if (data.size() < (64u << 20)) continue;
        out += png_chunk("IDAT", data);
        data.clear();
    }
    return out + png_chunk("IDAT", data + stream_end(adler)) + png_chunk("IEND", {});
}

}  // namespace orthema::reader
