#include "core/nesting/glue.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/nesting/overlap.h"

namespace orthema {

namespace {

constexpr double seam = 0.03;  ///< mm that outlines are grown by, so that glued ones close
constexpr std::size_t most_copies = 600;
constexpr double chance = 0.3;
constexpr double slack = 0.15;  ///< mm

double around(double degrees) {
    const double r = std::fmod(degrees, 360);
    return r < -1e-9 ? r + 360 : r;
}

struct Member {
    std::size_t copy = 0;
    int turn = 0;
    Point middle;
};

}  // namespace

bool can_glue(const NestProblem& problem, const std::vector<std::vector<MatePlace>>& mates) {
    if (problem.gap > 0 || !problem.locked.empty() || problem.pieces.empty()) return false;
    const std::vector<double>& turns = problem.pieces.front().rotations;
    const auto quarter = [](double r) { return std::fmod(r, 90) == 0; };
    if (turns.front() != 0 || !std::all_of(turns.begin(), turns.end(), quarter) || turns.size() == 3 ||
        (turns.size() == 2 && turns[1] != 180))
        return false;
    std::size_t copies = 0, fitting = 0;
    for (std::size_t k = 0; k < problem.pieces.size(); ++k) {
        if (problem.pieces[k].rotations != turns) return false;
        copies += static_cast<std::size_t>(problem.pieces[k].count);
        if (!mates[k].empty()) fitting += static_cast<std::size_t>(problem.pieces[k].count);
    }
    return copies > 2 && copies <= most_copies && 2 * fitting >= copies;
}

std::vector<Compound> glued(const NestProblem& problem, const std::vector<std::vector<Cast>>& casts,
                            const std::vector<std::vector<MatePlace>>& mates, std::size_t most, bool loosely, std::mt19937& random) {
    std::vector<std::pair<int, int>> copies;  // kind and number
    std::vector<std::vector<std::size_t>> of_kind(problem.pieces.size());
    for (std::size_t k = 0; k < problem.pieces.size(); ++k)
        for (int c = 0; c < problem.pieces[k].count; ++c) {
            of_kind[k].push_back(copies.size());
            copies.emplace_back(static_cast<int>(k), c);
        }
    const std::vector<double>& turns = problem.pieces.front().rotations;
    const auto turn_of = [&](double degrees) {
        for (std::size_t t = 0; t < turns.size(); ++t)
            if (std::abs(turns[t] - around(degrees)) < 1e-6) return static_cast<int>(t);
        return -1;
    };
    const auto angle = [&](int turn) { return turns[static_cast<std::size_t>(turn)]; };

    struct Seam {
        std::size_t a, b;
        const MatePlace* mate;
        double rank;
    };
    std::vector<Seam> seams;
    std::uniform_real_distribution<double> share(0, 1);
    for (std::size_t a = 0; a < copies.size(); ++a)
        for (const MatePlace& m : mates[static_cast<std::size_t>(copies[a].first)]) {
            if (m.other_turn != 0 || m.apart > 1.5 * seam) continue;  // the same place at other turns of both
            for (const std::size_t b : of_kind[static_cast<std::size_t>(m.other)])
                if (a != b) seams.push_back({a, b, &m, m.shared * (1 - chance * share(random))});
        }
    std::stable_sort(seams.begin(), seams.end(), [](const Seam& x, const Seam& y) { return x.rank > y.rank; });

    std::vector<std::vector<Member>> clusters;
    std::vector<std::size_t> at(copies.size());
    std::iota(at.begin(), at.end(), std::size_t{0});
    for (std::size_t i = 0; i < copies.size(); ++i) clusters.push_back({{i, 0, {}}});
    const auto cast_of = [&](const Member& m) -> const Cast& {
        return casts[static_cast<std::size_t>(copies[m.copy].first)][static_cast<std::size_t>(m.turn)];
    };
    std::vector<std::vector<Cast>> thin;
    if (loosely)
        for (const NestPiece& p : problem.pieces) thin.push_back(casts_of(search_outline(p.outline, -slack, 0), p.rotations));
    const auto felt_of = [&](const Member& m) -> const Cast& {
        return (loosely ? thin : casts)[static_cast<std::size_t>(copies[m.copy].first)][static_cast<std::size_t>(m.turn)];
    };
    /// Where the middle of what is felt lies: shaved corners move it.
    const auto felt_at = [&](const Member& m) { return m.middle + (felt_of(m).middle - cast_of(m).middle); };
    const double across = problem.width - 2 * problem.margin + (loosely ? 2 * slack : 0), along = problem.max_length - 2 * problem.margin;
    for (const Seam& s : seams) {
        const std::size_t from = at[s.a], to = at[s.b];
        if (from == to || clusters[from].size() + clusters[to].size() > most) continue;
        const auto in = [](const std::vector<Member>& c, std::size_t copy) {
            return *std::find_if(c.begin(), c.end(), [&](const Member& m) { return m.copy == copy; });
        };
        const Member moved = in(clusters[from], s.a), stays = in(clusters[to], s.b);
        // the mate's place, turned as the other lies in its cluster; the whole cluster goes along
        const double its = angle(stays.turn);
        const Point beside = loosely ? Point{s.mate->edge_x, s.mate->edge_y} : Point{s.mate->dx, s.mate->dy};
        const Point wanted = stays.middle + Affine::turn(its)(beside);
        const double by = angle(s.mate->turn) + its - angle(moved.turn);
        const Affine turn = Affine::turn(by);
        const Point shift = wanted - turn(moved.middle);
        std::vector<Member> coming = clusters[from];
        bool sound = true;
        for (Member& m : coming) {
            m.turn = turn_of(angle(m.turn) + by);
            sound = sound && m.turn >= 0;
            m.middle = turn(m.middle) + shift;
        }
        if (!sound) continue;
        Rect box{1e300, 1e300, -1e300, -1e300};
        for (const auto* group : {&coming, &clusters[to]})
            for (const Member& m : *group) {
                const Cast& c = cast_of(m);
                box = united(box, {m.middle.x + c.x0, m.middle.y + c.y0, m.middle.x + c.x1, m.middle.y + c.y1});
            }
        const bool lies = box.height() <= across && box.width() <= along;
        if (!lies && !(turns.size() == 4 && box.width() <= across && box.height() <= along)) continue;
        for (const Member& m : coming)
            for (const Member& o : clusters[to]) {
                const Point from_it = felt_at(o) - felt_at(m);
                sound = sound && overlap(felt_of(m), felt_of(o), static_cast<float>(from_it.x), static_cast<float>(from_it.y)) <= 0;
            }
        if (!sound) continue;
        for (const Member& m : coming) at[m.copy] = to;
        clusters[to].insert(clusters[to].end(), coming.begin(), coming.end());
        clusters[from].clear();
    }

    std::vector<Compound> out;
    for (const auto& cluster : clusters) {
        if (cluster.empty()) continue;
        Compound c;
        Region whole;
        for (const Member& m : cluster) {
            const auto [kind, number] = copies[m.copy];
            const Point place = m.middle - cast_of(m).middle;
            c.members.push_back({kind, number, 0, angle(m.turn), place.x, place.y, false});
            const NestPiece& p = problem.pieces[static_cast<std::size_t>(kind)];
            if (cluster.size() == 1) {
                c.members[0] = {kind, number, 0, 0, 0, 0, false};
                whole = {p.outline};
                break;
            }
            const Region grown =
                offset({mapped(p.outline, Affine::shift(place.x, place.y).after(Affine::turn(angle(m.turn))))}, seam, 0.02, Corner::square);
            whole = unite(whole, grown);
        }
        c.piece.id = "c" + std::to_string(out.size());
        c.piece.rotations = turns;
        c.piece.outline =
            *std::max_element(whole.begin(), whole.end(), [](const Polygon& a, const Polygon& b) { return area(a) < area(b); });
        std::erase_if(c.piece.outline.holes, [](const Ring& hole) { return std::abs(signed_area(hole)) < 4; });
        out.push_back(std::move(c));
    }
    return out;
}

std::vector<NestPlacement> taken_apart(const Compound& compound, const NestPlacement& laid) {
    std::vector<NestPlacement> out;
    const Affine turn = Affine::turn(laid.rotation);
    for (NestPlacement m : compound.members) {
        const Point at = turn(Point{m.x, m.y}) + Point{laid.x, laid.y};
        m.x = at.x;
        m.y = at.y;
        m.rotation = around(m.rotation + laid.rotation);
        m.bin = laid.bin;
        out.push_back(m);
    }
    return out;
}

}  // namespace orthema
