#include "core/nesting/mates.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <tuple>
#include <unordered_map>

#include "core/nesting/overlap.h"

namespace orthema {

namespace {

constexpr double fits_to = 1e-3;     ///< mm that an edge and its reverse may differ by
constexpr double least_edge = 2;     ///< mm; shorter ones fit too much by chance
constexpr double least_share = 0.1;  ///< of the shorter outline
constexpr std::size_t most_turns = 24, most_edges = 60000;

struct Edge {
    int kind = 0, turn = 0;
    Point from, along;  ///< from the cast's middle
};

double outline_length(const Ring& ring) {
    double sum = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) sum += norm(ring[(i + 1) % ring.size()] - ring[i]);
    return sum;
}

std::int64_t key_of(std::int64_t x, std::int64_t y) { return x * 0x100000001LL + y; }
std::int64_t cell(double v) { return std::llround(v / (2 * fits_to)); }

/// How far along `way` the second must go, at least, so that the casts keep apart; nothing where that is far.
std::optional<double> parted(const Cast& a, const Cast& b, Point at, Point way, double most) {
    const auto meet = [&](double t) {
        return overlap(a, b, static_cast<float>(at.x + way.x * t), static_cast<float>(at.y + way.y * t)) > 0;
    };
    if (meet(most)) return std::nullopt;
    double low = 0, high = most;
    for (int k = 0; k < 16; ++k) (meet((low + high) / 2) ? low : high) = (low + high) / 2;
    return high;
}

}  // namespace

std::vector<std::vector<MatePlace>> mates_of(const std::vector<Polygon>& outlines, const std::vector<std::vector<Cast>>& casts,
                                             std::size_t most) {
    std::vector<std::vector<MatePlace>> out(outlines.size());
    std::vector<Edge> edges;
    std::vector<double> length;
    for (std::size_t k = 0; k < outlines.size(); ++k) {
        length.push_back(outline_length(outlines[k].outer));
        if (casts[k].size() > most_turns) return out;
        Ring outer = outlines[k].outer;
        if (signed_area(outer) < 0) std::reverse(outer.begin(), outer.end());
        for (std::size_t t = 0; t < casts[k].size(); ++t) {
            const Ring ring = mapped(outer, Affine::turn(casts[k][t].turn));
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point along = ring[(i + 1) % ring.size()] - ring[i];
                if (norm(along) >= least_edge)
                    edges.push_back({static_cast<int>(k), static_cast<int>(t), ring[i] - casts[k][t].middle, along});
            }
            if (edges.size() > most_edges) return out;
        }
    }
    std::unordered_map<std::int64_t, std::vector<int>> by_vector;
    for (std::size_t e = 0; e < edges.size(); ++e)
        by_vector[key_of(cell(edges[e].along.x), cell(edges[e].along.y))].push_back(static_cast<int>(e));

    // of each pair at each place, all edges that fit there
    struct Contact {
        double shared = 0;
        Point at, outwards;
    };
    std::map<std::tuple<int, int, int, int, std::int64_t, std::int64_t>, Contact> contacts;
    for (const Edge& e : edges)
        for (std::int64_t x = -1; x <= 1; ++x)
            for (std::int64_t y = -1; y <= 1; ++y) {
                const auto found = by_vector.find(key_of(cell(-e.along.x) + x, cell(-e.along.y) + y));
                if (found == by_vector.end()) continue;
                for (const int index : found->second) {
                    const Edge& o = edges[static_cast<std::size_t>(index)];
                    if (norm(o.along + e.along) > fits_to) continue;
                    const Point at = o.from + o.along - e.from;  // this one's middle from the other's
                    // a place on the border of two cells may be split between them; it loses only in rank
                    Contact& c = contacts[{e.kind, e.turn, o.kind, o.turn, cell(at.x / 4), cell(at.y / 4)}];
                    const double l = norm(e.along);
                    c.at = at;
                    c.shared += l;
                    c.outwards = c.outwards + Point{e.along.y, -e.along.x};
                }
            }
    for (const auto& [who, c] : contacts) {
        const auto& [kind, turn, other, other_turn, cx, cy] = who;
        const double share = c.shared / std::min(length[static_cast<std::size_t>(kind)], length[static_cast<std::size_t>(other)]);
        const double out_by = norm(c.outwards);
        if (share < least_share || out_by < 0.3 * c.shared) continue;
        const Cast& mine = casts[static_cast<std::size_t>(kind)][static_cast<std::size_t>(turn)];
        const Cast& its = casts[static_cast<std::size_t>(other)][static_cast<std::size_t>(other_turn)];
        // away from the other, against what faces it
        const Point away = c.outwards * (-1 / out_by);
        const auto far = parted(its, mine, c.at, away, 8);
        if (!far) continue;
        const Point at = c.at + away * (*far + 1e-3);
        out[static_cast<std::size_t>(kind)].push_back({turn, other, other_turn, static_cast<float>(at.x), static_cast<float>(at.y),
                                                       static_cast<float>(c.at.x), static_cast<float>(c.at.y), static_cast<float>(*far),
                                                       static_cast<float>(share)});
    }
    for (auto& places : out) {
        std::stable_sort(places.begin(), places.end(), [](const MatePlace& a, const MatePlace& b) { return a.shared > b.shared; });
        std::map<int, std::size_t> had;
        std::erase_if(places, [&](const MatePlace& p) { return ++had[p.turn] > most; });
    }
    return out;
}

}  // namespace orthema
