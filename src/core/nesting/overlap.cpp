#include "core/nesting/overlap.h"

#include <cstring>

// Each function is compiled for wide registers and for plain ones; the loader takes what the machine has. Nothing is
// contracted or reordered, so both give the same answer. (The thread sanitizer is not there yet when the loader chooses.)
#if defined(__x86_64__) && defined(__GNUC__) && !defined(__clang__) && !defined(__SANITIZE_THREAD__)
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

ORTHEMA_WIDE bool discs_hit(const Cast& a, const Cast& b, float dx, float dy) {
    constexpr float proof = 2e-3F;  // rounding is far less: what meets by this much meets
    const float *ax = a.dx.data(), *ay = a.dy.data(), *ar = a.dr.data();
    const float *bx = b.dx.data(), *by = b.dy.data(), *br = b.dr.data();
    const int rows = a.discs, columns = b.discs;
    for (int i = 0; i < rows; i += 2) {  // two rows to a question: asking costs as much as measuring
        if (ar[i] <= proof) break;
        Marks hit = {};
        for (int k = i; k < i + 2; ++k) {
            const float r = ar[k] - proof, x = ax[k] - dx, y = ay[k] - dy;
            for (int j = 0; j < columns; j += lane_count) {
                Lanes ox, oy, reach;
                load(ox, bx + j);
                load(oy, by + j);
                load(reach, br + j);
                ox -= x;
                oy -= y;
                reach += r;
                hit |= (ox * ox + oy * oy < reach * reach) & (reach > 0.0F);
            }
        }
        if (any(hit)) return true;
    }
    return false;
}

ORTHEMA_WIDE float discs_depth(const Cast& a, const Cast& b, float dx, float dy, float fade, float enough) {
    const float fade2 = fade * fade, bulk = a.bulk * b.bulk;
    const float limit = enough / bulk * (enough / bulk) * 1.0001F - fade2;
    const float *ax = a.dx.data(), *ay = a.dy.data(), *ar = a.dr.data();
    const float *bx = b.dx.data(), *by = b.dy.data(), *br = b.dr.data();
    const int rows = a.discs, columns = b.discs;
    float out = 0;
    for (int i = 0; i < rows; i += 2) {
        if (ar[i] == 0) break;
        Lanes sum = {};
        for (int k = i; k < i + 2; ++k) {
            const float r = ar[k], x = ax[k] - dx, y = ay[k] - dy;
            for (int j = 0; j < columns; j += lane_count) {
                Lanes ox, oy, other;
                load(ox, bx + j);
                load(oy, by + j);
                load(other, br + j);
                ox -= x;
                oy -= y;
                const Lanes square = ox * ox + oy * oy;
                Lanes distance;
                for (int l = 0; l < lane_count; ++l) distance[l] = __builtin_sqrtf(square[l]);
                const Lanes depth = other + r - distance;
                const Lanes faded = fade2 / (2 * fade - depth);
                const Lanes felt = depth >= fade ? depth : faded;
                const Lanes less = other < r ? other : other * 0 + r;
                sum += felt * less;
            }
        }
        out += ((sum[0] + sum[4]) + (sum[2] + sum[6])) + ((sum[1] + sum[5]) + (sum[3] + sum[7]));
        if (out >= limit) break;
    }
    return __builtin_sqrtf(out + fade2) * bulk;
}

ORTHEMA_WIDE bool outlines_meet(const Cast& a, const Cast& b, float dx, float dy) {
    for (std::size_t g = 0; g < a.gx0.size(); ++g) {  // runs of edges whose boxes meet, then edge by edge
        const float gx0 = a.gx0[g] - dx, gx1 = a.gx1[g] - dx, gy0 = a.gy0[g] - dy, gy1 = a.gy1[g] - dy;
        if (gx0 > b.x1 || gx1 < b.x0 || gy0 > b.y1 || gy1 < b.y0) continue;
        for (std::size_t h = 0; h < b.gx0.size(); h += lane_count) {
            Lanes hx0, hy0, hx1, hy1;
            load(hx0, &b.gx0[h]);
            load(hy0, &b.gy0[h]);
            load(hx1, &b.gx1[h]);
            load(hy1, &b.gy1[h]);
            const Marks runs = (hx0 <= gx1) & (hx1 >= gx0) & (hy0 <= gy1) & (hy1 >= gy0);
            if (!any(runs)) continue;
            for (std::size_t l = 0; l < lane_count; ++l) {
                if (runs[l] == 0) continue;
                const std::size_t j = (h + l) * lane_count;
                const float lx = b.gx0[h + l], hx = b.gx1[h + l], ly = b.gy0[h + l], hy = b.gy1[h + l];
                Lanes cx, cy, ex, ey;
                load(cx, &b.ax[j]);
                load(cy, &b.ay[j]);
                load(ex, &b.bx[j]);
                load(ey, &b.by[j]);
                const Lanes vx = ex - cx, vy = ey - cy;
                const Lanes left = cx < ex ? cx : ex, right = cx < ex ? ex : cx, low = cy < ey ? cy : ey, high = cy < ey ? ey : cy;
                for (std::size_t k = g * lane_count; k < (g + 1) * lane_count; ++k) {
                    const float px = a.ax[k] - dx, py = a.ay[k] - dy, qx = a.bx[k] - dx, qy = a.by[k] - dy;
                    const float l0 = px < qx ? px : qx, l1 = px < qx ? qx : px, m0 = py < qy ? py : qy, m1 = py < qy ? qy : py;
                    if (l0 > hx || l1 < lx || m0 > hy || m1 < ly) continue;
                    const Marks near = (left <= l1) & (right >= l0) & (low <= m1) & (high >= m0);
                    if (!any(near)) continue;
                    const float ux = qx - px, uy = qy - py;
                    const Lanes s1 = ux * (cy - py) - uy * (cx - px), s2 = ux * (ey - py) - uy * (ex - px);
                    const Lanes s3 = vx * (py - cy) - vy * (px - cx), s4 = vx * (qy - cy) - vy * (qx - cx);
                    if (any(near & (s1 * s2 <= 0) & (s3 * s4 <= 0))) return true;
                }
            }
        }
    }
    // no edges meet: one may lie wholly inside the other, which its own point then does too
    if (a.x0 - dx >= b.x0 && a.x1 - dx <= b.x1 && a.y0 - dy >= b.y0 && a.y1 - dy <= b.y1 && holds(b, a.inner_x - dx, a.inner_y - dy))
        return true;
    if (b.x0 + dx >= a.x0 && b.x1 + dx <= a.x1 && b.y0 + dy >= a.y0 && b.y1 + dy <= a.y1 && holds(a, b.inner_x + dx, b.inner_y + dy))
        return true;
    return false;
}

float overlap(const Cast& a, const Cast& b, float dx, float dy) {
    if (a.x1 < b.x0 + dx || b.x1 + dx < a.x0 || a.y1 < b.y0 + dy || b.y1 + dy < a.y0) return 0;
    if (!discs_hit(a, b, dx, dy) && !outlines_meet(a, b, dx, dy)) return 0;
    return discs_depth(a, b, dx, dy, 0.01F * (a.span > b.span ? a.span : b.span), most_overlap);
}

void Boxes::resize(std::size_t n) {
    constexpr std::size_t block = 2 * lane_count;
    const std::size_t padded = (n + block - 1) / block * block;
    for (auto* v : {&x0, &y0, &x1, &y1}) v->resize(padded);
    bin.resize(padded, -1);
}

ORTHEMA_WIDE int boxes_meeting(const Boxes& boxes, float x0, float y0, float x1, float y1, int bin, int* out) {
    int n = 0;
    const std::size_t size = boxes.bin.size();
    for (std::size_t i = 0; i < size; i += 2 * lane_count) {
        Marks meets[2];
        for (std::size_t k = 0; k < 2; ++k) {
            const std::size_t at = i + k * lane_count;
            Lanes bx0, by0, bx1, by1;
            Marks in;
            load(bx0, &boxes.x0[at]);
            load(by0, &boxes.y0[at]);
            load(bx1, &boxes.x1[at]);
            load(by1, &boxes.y1[at]);
            load(in, &boxes.bin[at]);
            meets[k] = (bx0 <= x1) & (bx1 >= x0) & (by0 <= y1) & (by1 >= y0) & (in == bin);
        }
        if (!any(meets[0] | meets[1])) continue;
        for (int l = 0; l < 2 * lane_count; ++l)
            if (meets[l / lane_count][l % lane_count] != 0) out[n++] = static_cast<int>(i) + l;
    }
    return n;
}

}  // namespace orthema
