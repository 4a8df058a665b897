#include "core/nesting/overlap.h"

#include <cstring>

// Each function is compiled for wide registers and for plain ones; the loader takes what the machine has. Nothing is
// contracted or reordered, so both give the same answer.
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__)
#define ORTHEMA_WIDE __attribute__((target_clones("avx2", "default")))
#else
#define ORTHEMA_WIDE
#endif

namespace orthema {

namespace {

using Lanes = float __attribute__((vector_size(lane_count * sizeof(float))));
using Marks = int __attribute__((vector_size(lane_count * sizeof(int))));

inline __attribute__((always_inline)) void load(Lanes& to, const float* from) { std::memcpy(&to, from, sizeof to); }
inline __attribute__((always_inline)) void load(Marks& to, const int* from) { std::memcpy(&to, from, sizeof to); }
inline __attribute__((always_inline)) bool any(const Marks& m) {
    long long words[lane_count / 2];
    std::memcpy(words, &m, sizeof m);
    return (words[0] | words[1] | words[2] | words[3]) != 0;
}

/// Even-odd.
bool holds(const Cast& c, float x, float y) {
    bool in = false;
    for (int i = 0; i < c.edges; ++i) {
        const auto k = static_cast<std::size_t>(i);
        if ((c.ay[k] > y) != (c.by[k] > y) && x < (c.bx[k] - c.ax[k]) * (y - c.ay[k]) / (c.by[k] - c.ay[k]) + c.ax[k]) in = !in;
    }
    return in;
}

}  // namespace

ORTHEMA_WIDE DiscMeeting discs_meeting(const Cast& a, const Cast& b, float dx, float dy, float fade) {
    constexpr float proof = 2e-3F;  // rounding is far less: what meets by this much meets
    Lanes sum = {};
    Marks hits = {};
    const float fade2 = fade * fade;
    for (int i = 0; i < a.discs; ++i) {
        const auto k = static_cast<std::size_t>(i);
        const float r = a.dr[k];
        if (r == 0) break;
        const float x = a.dx[k] - dx, y = a.dy[k] - dy;
        for (int j = 0; j < b.discs; j += lane_count) {
            Lanes bx, by, br;
            load(bx, &b.dx[static_cast<std::size_t>(j)]);
            load(by, &b.dy[static_cast<std::size_t>(j)]);
            load(br, &b.dr[static_cast<std::size_t>(j)]);
            const Lanes ox = bx - x, oy = by - y;
            const Lanes square = ox * ox + oy * oy;
            Lanes distance;
            for (int l = 0; l < lane_count; ++l) distance[l] = __builtin_sqrtf(square[l]);
            const Lanes depth = br + r - distance;
            const Lanes faded = fade2 / (2 * fade - depth);
            const Lanes felt = depth >= fade ? depth : faded;
            const Lanes less = br < r ? br : br * 0 + r;
            sum += felt * less;
            hits |= (depth > proof) & (br > 0);
        }
    }
    DiscMeeting out;
    for (int l = 0; l < lane_count; ++l) out.sum += sum[l];
    out.hit = any(hits);
    return out;
}

ORTHEMA_WIDE bool outlines_meet(const Cast& a, const Cast& b, float dx, float dy) {
    // only edges of a that reach into b's box
    const float x0 = b.x0 + dx, x1 = b.x1 + dx, y0 = b.y0 + dy, y1 = b.y1 + dy;
    for (int i = 0; i < a.edges; ++i) {
        const auto k = static_cast<std::size_t>(i);
        const float ax = a.ax[k], ay = a.ay[k], bx = a.bx[k], by = a.by[k];
        const float lx = ax < bx ? ax : bx, hx = ax < bx ? bx : ax, ly = ay < by ? ay : by, hy = ay < by ? by : ay;
        if (lx > x1 || hx < x0 || ly > y1 || hy < y0) continue;
        const float px = ax - dx, py = ay - dy, ux = bx - ax, uy = by - ay;
        const float qx = bx - dx, qy = by - dy;
        const float blx = lx - dx, bhx = hx - dx, bly = ly - dy, bhy = hy - dy;
        for (int j = 0; j < b.edges; j += lane_count) {
            Lanes cx, cy, ex, ey;
            load(cx, &b.ax[static_cast<std::size_t>(j)]);
            load(cy, &b.ay[static_cast<std::size_t>(j)]);
            load(ex, &b.bx[static_cast<std::size_t>(j)]);
            load(ey, &b.by[static_cast<std::size_t>(j)]);
            const Lanes vx = ex - cx, vy = ey - cy;
            const Lanes left = cx < ex ? cx : ex, right = cx < ex ? ex : cx, low = cy < ey ? cy : ey, high = cy < ey ? ey : cy;
            const Marks near = (left <= bhx) & (right >= blx) & (low <= bhy) & (high >= bly);
            if (!any(near)) continue;
            const Lanes s1 = ux * (cy - py) - uy * (cx - px), s2 = ux * (ey - py) - uy * (ex - px);
            const Lanes s3 = vx * (py - cy) - vy * (px - cx), s4 = vx * (qy - cy) - vy * (qx - cx);
            if (any(near & (s1 * s2 <= 0) & (s3 * s4 <= 0))) return true;
        }
    }
    // no edges meet: one may lie wholly inside the other, which its own point then does too
    if (a.x1 - a.x0 < b.x1 - b.x0 || a.y1 - a.y0 < b.y1 - b.y0) {
        if (holds(b, a.inner_x - dx, a.inner_y - dy)) return true;
    }
    if (b.x1 - b.x0 < a.x1 - a.x0 || b.y1 - b.y0 < a.y1 - a.y0) {
        if (holds(a, b.inner_x + dx, b.inner_y + dy)) return true;
    }
    return false;
}

float overlap(const Cast& a, const Cast& b, float dx, float dy, float fade) {
    if (a.x1 < b.x0 + dx || b.x1 + dx < a.x0 || a.y1 < b.y0 + dy || b.y1 + dy < a.y0) return 0;
    const DiscMeeting m = discs_meeting(a, b, dx, dy, fade);
    if (!m.hit && !outlines_meet(a, b, dx, dy)) return 0;
    return overlap_of(m, a, b, fade);
}

void Boxes::resize(std::size_t n) {
    const std::size_t padded = (n + lane_count - 1) / lane_count * lane_count;
    for (auto* v : {&x0, &y0, &x1, &y1}) v->resize(padded);
    bin.resize(padded, -1);
}

ORTHEMA_WIDE int boxes_meeting(const Boxes& boxes, float x0, float y0, float x1, float y1, int bin, int* out) {
    int n = 0;
    for (std::size_t i = 0; i < boxes.bin.size(); i += lane_count) {
        Lanes bx0, by0, bx1, by1;
        Marks in;
        load(bx0, &boxes.x0[i]);
        load(by0, &boxes.y0[i]);
        load(bx1, &boxes.x1[i]);
        load(by1, &boxes.y1[i]);
        load(in, &boxes.bin[i]);
        const Marks meets = (bx0 <= x1) & (bx1 >= x0) & (by0 <= y1) & (by1 >= y0) & (in == bin);
        if (!any(meets)) continue;
        for (int l = 0; l < lane_count; ++l)
            if (meets[l] != 0) out[n++] = static_cast<int>(i) + l;
    }
    return n;
}

}  // namespace orthema
