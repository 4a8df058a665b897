// SHA-256 after FIPS 180-4, so that no cryptographic library is needed for naming art by its content.
#include <array>
#include <cstdint>

#include "files/art_file.h"

namespace orthema {

namespace {

/// The first 32 bits of the fractional parts of the cube roots of the first 64 primes.
constexpr std::array<std::uint32_t, 64> keys = {
    0x428a2f98, 0x71374491, 0xb5c0fbcf, 0xe9b5dba5, 0x3956c25b, 0x59f111f1, 0x923f82a4, 0xab1c5ed5, 0xd807aa98, 0x12835b01, 0x243185be,
    0x550c7dc3, 0x72be5d74, 0x80deb1fe, 0x9bdc06a7, 0xc19bf174, 0xe49b69c1, 0xefbe4786, 0x0fc19dc6, 0x240ca1cc, 0x2de92c6f, 0x4a7484aa,
    0x5cb0a9dc, 0x76f988da, 0x983e5152, 0xa831c66d, 0xb00327c8, 0xbf597fc7, 0xc6e00bf3, 0xd5a79147, 0x06ca6351, 0x14292967, 0x27b70a85,
    0x2e1b2138, 0x4d2c6dfc, 0x53380d13, 0x650a7354, 0x766a0abb, 0x81c2c92e, 0x92722c85, 0xa2bfe8a1, 0xa81a664b, 0xc24b8b70, 0xc76c51a3,
    0xd192e819, 0xd6990624, 0xf40e3585, 0x106aa070, 0x19a4c116, 0x1e376c08, 0x2748774c, 0x34b0bcb5, 0x391c0cb3, 0x4ed8aa4a, 0x5b9cca4f,
    0x682e6ff3, 0x748f82ee, 0x78a5636f, 0x84c87814, 0x8cc70208, 0x90befffa, 0xa4506ceb, 0xbef9a3f7, 0xc67178f2};

std::uint32_t turn(std::uint32_t v, int by) { return (v >> by) | (v << (32 - by)); }

}  // namespace

std::string content_hash(const std::string& bytes) {
    std::array<std::uint32_t, 8> h = {0x6a09e667, 0xbb67ae85, 0x3c6ef372, 0xa54ff53a, 0x510e527f, 0x9b05688c, 0x1f83d9ab, 0x5be0cd19};
    std::string data = bytes;
    data += '\x80';
    while (data.size() % 64 != 56) data += '\0';
    const std::uint64_t bits = static_cast<std::uint64_t>(bytes.size()) * 8;
    for (int i = 7; i >= 0; --i) data += static_cast<char>((bits >> (8 * i)) & 0xff);
    std::array<std::uint32_t, 64> w{};
    for (std::size_t block = 0; block < data.size(); block += 64) {
        for (std::size_t i = 0; i < 16; ++i) {
            w[i] = 0;
            for (std::size_t k = 0; k < 4; ++k) w[i] = (w[i] << 8) | static_cast<unsigned char>(data[block + i * 4 + k]);
        }
        for (std::size_t i = 16; i < 64; ++i) {
            const std::uint32_t s0 = turn(w[i - 15], 7) ^ turn(w[i - 15], 18) ^ (w[i - 15] >> 3);
            const std::uint32_t s1 = turn(w[i - 2], 17) ^ turn(w[i - 2], 19) ^ (w[i - 2] >> 10);
            w[i] = w[i - 16] + s0 + w[i - 7] + s1;
        }
        auto v = h;
        for (std::size_t i = 0; i < 64; ++i) {
            const std::uint32_t s1 = turn(v[4], 6) ^ turn(v[4], 11) ^ turn(v[4], 25);
            const std::uint32_t t1 = v[7] + s1 + ((v[4] & v[5]) ^ (~v[4] & v[6])) + keys[i] + w[i];
            const std::uint32_t s0 = turn(v[0], 2) ^ turn(v[0], 13) ^ turn(v[0], 22);
            const std::uint32_t t2 = s0 + ((v[0] & v[1]) ^ (v[0] & v[2]) ^ (v[1] & v[2]));
            v = {t1 + t2, v[0], v[1], v[2], v[3] + t1, v[4], v[5], v[6]};
        }
        for (std::size_t i = 0; i < 8; ++i) h[i] += v[i];
    }
    static const char* hex = "0123456789abcdef";
    std::string out;
    for (const std::uint32_t v : h)
        for (int k = 7; k >= 0; --k) out += hex[(v >> (4 * k)) & 0xf];
    return out;
}

}  // namespace orthema
