#include "core/nesting/rect_strip.h"

#include <algorithm>
#include <limits>
#include <numeric>
#include <random>

namespace orthema {

namespace {

struct Stretch {
    std::int64_t y = 0, across = 0, x = 0;
};

/// How well a rectangle fills a stretch between walls: whole and level with a wall first.
int score_of(std::int64_t across, std::int64_t along, const Stretch& s, std::int64_t taller, std::int64_t lower) {
    if (across == s.across) return along == taller ? 6 : along == lower ? 5 : along < taller ? 4 : 3;
    return along == taller ? 2 : along == lower ? 1 : 0;
}

}  // namespace

StripPacking pack_skyline(const std::vector<StripRect>& rects, const std::vector<int>& sequence, std::int64_t width, bool strict) {
    constexpr std::int64_t wall = std::numeric_limits<std::int64_t>::max() / 4;
    StripPacking out;
    out.places.resize(rects.size());
    std::vector<Stretch> line = {{0, width, 0}};
    std::vector<int> left = sequence;
    while (!left.empty()) {
        std::size_t low = 0;
        for (std::size_t i = 1; i < line.size(); ++i)
            if (line[i].x < line[low].x) low = i;
        const Stretch s = line[low];
        const std::int64_t before = low > 0 ? line[low - 1].x - s.x : wall - s.x;
        const std::int64_t after = low + 1 < line.size() ? line[low + 1].x - s.x : wall - s.x;
        const std::int64_t taller = std::max(before, after), lower = std::min(before, after);
        int best = -1;
        std::size_t which = 0;
        bool turned = false;
        for (std::size_t k = 0; k < left.size() && best < (strict ? 0 : 6); ++k) {
            const StripRect& r = rects[static_cast<std::size_t>(left[k])];
            if (r.across <= s.across)
                if (const int score = score_of(r.across, r.along, s, taller, lower); score > best) {
                    best = score;
                    which = k;
                    turned = false;
                }
            if (r.may_turn && r.along <= s.across)
                if (const int score = score_of(r.along, r.across, s, taller, lower); score > best) {
                    best = score;
                    which = k;
                    turned = true;
                }
        }
        if (best < 0) {  // nothing fits: the stretch is lost up to its lower wall
            line[low].x = s.x + lower;
        } else {
            const int id = left[which];
            left.erase(left.begin() + static_cast<std::ptrdiff_t>(which));
            const StripRect& r = rects[static_cast<std::size_t>(id)];
            const std::int64_t across = turned ? r.along : r.across, along = turned ? r.across : r.along;
            const bool at_start = before >= after;
            const std::int64_t y = at_start ? s.y : s.y + s.across - across;
            out.places[static_cast<std::size_t>(id)] = {s.x, y, turned};
            out.length = std::max(out.length, s.x + along);
            const Stretch top{y, across, s.x + along};
            if (across == s.across) {
                line[low] = top;
            } else if (at_start) {
                line[low] = {s.y + across, s.across - across, s.x};
                line.insert(line.begin() + static_cast<std::ptrdiff_t>(low), top);
            } else {
                line[low].across -= across;
                line.insert(line.begin() + static_cast<std::ptrdiff_t>(low) + 1, top);
            }
        }
        for (std::size_t i = 0; i + 1 < line.size();) {
            if (line[i].x == line[i + 1].x) {
                line[i].across += line[i + 1].across;
                line.erase(line.begin() + static_cast<std::ptrdiff_t>(i) + 1);
            } else {
                ++i;
            }
        }
    }
    return out;
}

void pack_rects(const std::vector<StripRect>& rects, std::int64_t width, std::uint64_t seed, long packings,
                const std::function<bool()>& stop, const std::function<void(const StripPacking&)>& better) {
    if (rects.empty()) return;
    std::mt19937_64 random(seed);
    std::int64_t least = std::numeric_limits<std::int64_t>::max();
    std::vector<int> best, now;
    std::int64_t now_length = least;
    long done = 0;
    bool strict = false, next_strict = false;
    const auto look = [&](const std::vector<int>& sequence) {
        const StripPacking p = pack_skyline(rects, sequence, width, next_strict);
        ++done;
        if (p.length < least) {
            least = p.length;
            best = sequence;
            better(p);
        }
        return p.length;
    };
    std::vector<int> first(rects.size());
    std::iota(first.begin(), first.end(), 0);
    const auto by = [&](auto&& measure) {
        std::stable_sort(first.begin(), first.end(), [&](int a, int b) {
            return measure(rects[static_cast<std::size_t>(a)]) > measure(rects[static_cast<std::size_t>(b)]);
        });
        if (const auto length = look(first); length < now_length) {
            now_length = length;
            now = first;
        }
    };
    by([](const StripRect& r) { return r.across * r.along; });
    by([](const StripRect& r) { return std::max(r.across, r.along); });
    by([](const StripRect& r) { return r.across + r.along; });
    by([](const StripRect& r) { return std::min(r.across, r.along); });
    const std::size_t n = rects.size();
    if (n < 2) return;
    long idle = 0;
    while (packings < 0 || done < packings) {
        if (done % 16 == 0 && stop()) return;
        std::vector<int> next = now;
        for (std::uint64_t k = 1 + random() % 3; k > 0; --k) {
            const std::size_t a = random() % n;
            std::size_t b = random() % n;
            if (random() % 4 == 0) {  // or one moves to another place in the sequence
                const int id = next[a];
                next.erase(next.begin() + static_cast<std::ptrdiff_t>(a));
                b = std::min(b, next.size());
                next.insert(next.begin() + static_cast<std::ptrdiff_t>(b), id);
            } else {
                std::swap(next[a], next[b]);
            }
        }
        next_strict = strict != (random() % 50 == 0);
        const std::int64_t length = look(next);
        // a little worse is taken now and then, more rarely the worse
        const auto slack = static_cast<std::int64_t>(static_cast<double>(now_length) * 0.004 * static_cast<double>(random() % 1000) / 1000 *
                                                     (random() % 20 == 0 ? 1 : 0));
        if (length <= now_length + slack) {
            now_length = length;
            now = std::move(next);
            strict = next_strict;
        }
        idle = length < least ? 0 : idle + 1;
        if (idle > 20000) {
            now = best;
            now_length = least;
            idle = 0;
        }
    }
}

}  // namespace orthema
