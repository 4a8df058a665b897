#include "core/nesting/jostle.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

#include "core/nesting/crew.h"

namespace orthema {

namespace {

constexpr int over_room = 40;    ///< samples over the whole room
constexpr int near_by = 20;      ///< and around where the piece lies
constexpr int by_mates = 10;     ///< and edge on edge with others, where edges fit
constexpr int kept_samples = 3;  ///< that are followed down
constexpr int few_at_once = 2;   ///< pieces that are searched for at once; more would not see each other move
constexpr int most_at_once = 4;  ///< among many, which lie further apart
constexpr std::size_t many = 100;
constexpr std::size_t look_ahead = 8;  ///< for one that overlaps none of those that are searched for at once
constexpr float least_raise = 1.1F, most_raise = 1.5F, decay = 0.95F, most_weight = 1e12F;

/// A small generator of its own for every search: which thread runs it does not matter.
class Dice {
public:
    explicit Dice(std::uint64_t seed) : state_(seed + 0x9E3779B97F4A7C15ULL) {}
    std::uint64_t next() {
        std::uint64_t z = (state_ += 0x9E3779B97F4A7C15ULL);
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9ULL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBULL;
        return z ^ (z >> 31);
    }
    double real() { return static_cast<double>(next() >> 11) * 0x1.0p-53; }
    double between(double a, double b) { return a + (b - a) * real(); }
    int below(int n) { return static_cast<int>(next() % static_cast<std::uint64_t>(n)); }

private:
    std::uint64_t state_;
};

struct Spot {
    double x = 0, y = 0;
    int turn = 0, bin = 0;
    float cost = 0;
};

}  // namespace

struct Jostle::Inside {
    const std::vector<std::vector<Cast>>& casts;
    const std::vector<std::vector<MatePlace>>& mates;
    std::vector<std::vector<std::size_t>> of_kind;
    std::vector<JostledPiece> pieces;
    JostleRoom room;
    std::uint64_t seed;
    std::uint64_t tick = 0, sweeps = 0;
    Dice dice;
    Crew crew;
    std::size_t n = 0;
    std::vector<float> overlaps, weights;  ///< n × n, symmetric
    std::vector<int> touching;             ///< how many others each overlaps
    Boxes boxes;
    std::vector<const Cast*> cast;
    struct Scratch {
        std::vector<int> near;
        struct Undecided {
            int piece;
            float dx, dy;
        };
        std::vector<Undecided> undecided;
        Boxes about;  ///< neighbours of a spot that is walked from, and who they are
        std::vector<int> who;
    };
    std::vector<Scratch> scratch;

    Inside(const std::vector<std::vector<Cast>>& all, const std::vector<std::vector<MatePlace>>& fitting, std::vector<JostledPiece> lying,
           const JostleRoom& where, std::uint64_t seed_, int threads)
        : casts(all),
          mates(fitting),
          pieces(std::move(lying)),
          room(where),
          seed(seed_),
          dice(seed_ * 77 + 5),
          crew(std::max(0, threads - 1)) {
        n = pieces.size();
        of_kind.resize(casts.size());
        for (std::size_t i = 0; i < n; ++i) of_kind[static_cast<std::size_t>(pieces[i].kind)].push_back(i);
        overlaps.assign(n * n, 0);
        weights.assign(n * n, 1);
        touching.assign(n, 0);
        cast.resize(n);
        boxes.resize(n);
        scratch.resize(static_cast<std::size_t>(std::max(1, threads)));
        for (Scratch& s : scratch) s.near.resize(boxes.bin.size());
        place_all();
    }

    [[nodiscard]] const Cast& cast_at(int kind, int turn) const {
        return casts[static_cast<std::size_t>(kind)][static_cast<std::size_t>(turn)];
    }
    [[nodiscard]] double end_of(int bin) const { return bin + 1 == room.bins ? room.last_x1 : room.x1; }

    void into_room(const Cast& c, double& x, double& y, int bin) const {
        x = std::max(room.x0 - c.x0, std::min(x, end_of(bin) - c.x1));
        y = std::max(room.y0 - c.y0, std::min(y, room.y1 - c.y1));
    }
    /// Whether it fits the bin at all, at this turn.
    [[nodiscard]] bool has_room(const Cast& c, int bin) const {
        return c.x1 - c.x0 <= end_of(bin) - room.x0 + 1e-4 && c.y1 - c.y0 <= room.y1 - room.y0 + 1e-4;
    }

    void put(std::size_t i) {
        const JostledPiece& p = pieces[i];
        const Cast& c = cast_at(p.kind, p.turn);
        cast[i] = &c;
        constexpr float hair = 1e-3F;
        boxes.x0[i] = static_cast<float>(p.x) + c.x0 - hair;
        boxes.x1[i] = static_cast<float>(p.x) + c.x1 + hair;
        boxes.y0[i] = static_cast<float>(p.y) + c.y0 - hair;
        boxes.y1[i] = static_cast<float>(p.y) + c.y1 + hair;
        boxes.bin[i] = p.bin;
    }

    [[nodiscard]] bool may_cross(std::size_t i, std::size_t j) const {
        return (pieces[i].crosses && pieces[j].seam) || (pieces[i].seam && pieces[j].crosses);
    }

    void measure(std::size_t i, Scratch& s) {
        for (std::size_t j = 0; j < n; ++j)
            if (overlaps[i * n + j] > 0) {
                overlaps[i * n + j] = overlaps[j * n + i] = 0;
                --touching[i];
                --touching[j];
            }
        const int count = boxes_meeting(boxes, boxes.x0[i], boxes.y0[i], boxes.x1[i], boxes.y1[i], boxes.bin[i], s.near.data());
        for (int k = 0; k < count; ++k) {
            const auto j = static_cast<std::size_t>(s.near[static_cast<std::size_t>(k)]);
            if (j == i || (pieces[i].fixed && pieces[j].fixed) || may_cross(i, j)) continue;
            const float o =
                overlap(*cast[i], *cast[j], static_cast<float>(pieces[j].x - pieces[i].x), static_cast<float>(pieces[j].y - pieces[i].y));
            if (o <= 0) continue;
            overlaps[i * n + j] = overlaps[j * n + i] = o;
            ++touching[i];
            ++touching[j];
        }
    }

    void place_all() {
        for (std::size_t i = 0; i < n; ++i) put(i);
        for (std::size_t i = 0; i < n; ++i) measure(i, scratch[0]);
    }

    [[nodiscard]] double total() const {
        double sum = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (touching[i] > 0)
                for (std::size_t j = 0; j < i; ++j) sum += overlaps[i * n + j];
        return sum;
    }

    /// Weighted overlap of piece i, were it there; given up once it reaches `bound`.
    float weigh(std::size_t i, const Spot& at, const Cast& c, float bound, Scratch& s, bool walking = false) const {
        const auto fx = static_cast<float>(at.x), fy = static_cast<float>(at.y);
        const int count = boxes_meeting(walking ? s.about : boxes, fx + c.x0, fy + c.y0, fx + c.x1, fy + c.y1, at.bin, s.near.data());
        if (walking)
            for (int k = 0; k < count; ++k)
                s.near[static_cast<std::size_t>(k)] = s.who[static_cast<std::size_t>(s.near[static_cast<std::size_t>(k)])];
        const float* weight = &weights[i * n];
        float sum = 0;
        s.undecided.clear();
        const auto feel = [&](std::size_t j, float dx, float dy) {
            const float enough = std::min(most_overlap, (bound - sum) / weight[j]);
            sum += weight[j] * discs_depth(c, *cast[j], dx, dy, 0.01F * std::max(c.span, cast[j]->span), enough);
            return sum >= bound;
        };
        for (int k = 0; k < count; ++k) {  // first what discs prove: it may be enough to give up
            const int j = s.near[static_cast<std::size_t>(k)];
            const auto at_j = static_cast<std::size_t>(j);
            if (at_j == i || may_cross(i, at_j)) continue;
            const auto dx = static_cast<float>(pieces[at_j].x - at.x), dy = static_cast<float>(pieces[at_j].y - at.y);
            if (!discs_hit(c, *cast[at_j], dx, dy))
                s.undecided.push_back({j, dx, dy});
            else if (feel(at_j, dx, dy))
                return sum;
        }
        for (const auto& u : s.undecided)
            if (outlines_meet(c, *cast[static_cast<std::size_t>(u.piece)], u.dx, u.dy) &&
                feel(static_cast<std::size_t>(u.piece), u.dx, u.dy))
                return sum;
        return sum;
    }

    /// Keeps who lies within `reach` of a spot, for the short steps of a walk.
    void look_about(const Spot& at, const Cast& c, double reach, Scratch& s) const {
        const auto fx = static_cast<float>(at.x), fy = static_cast<float>(at.y), r = static_cast<float>(reach);
        const int count = boxes_meeting(boxes, fx + c.x0 - r, fy + c.y0 - r, fx + c.x1 + r, fy + c.y1 + r, at.bin, s.near.data());
        const auto n_about = static_cast<std::size_t>(count);
        s.who.assign(s.near.begin(), s.near.begin() + count);
        s.about.bin.clear();
        s.about.resize(n_about);
        for (std::size_t k = 0; k < n_about; ++k) {
            const auto j = static_cast<std::size_t>(s.who[k]);
            s.about.x0[k] = boxes.x0[j];
            s.about.y0[k] = boxes.y0[j];
            s.about.x1[k] = boxes.x1[j];
            s.about.y1[k] = boxes.y1[j];
            s.about.bin[k] = at.bin;
        }
    }

    /// Walks downhill along the axes and diagonals, with steps that grow on success and shrink on failure.
    void refine(std::size_t i, Spot& spot, double step, double last_step, Dice& d, Scratch& s) const {
        const Cast& c = cast_at(pieces[i].kind, spot.turn);
        double sx = step, sy = step;
        const double reach = 4 * step;
        Spot looked = spot;
        look_about(looked, c, reach, s);
        while ((sx > last_step || sy > last_step) && spot.cost > 0) {
            const int axis = d.below(4);
            const double ux = axis == 1 ? 0 : sx, uy = axis == 0 ? 0 : axis == 3 ? -sy : sy;
            bool better = false;
            Spot best = spot;
            if (std::max(std::abs(spot.x - looked.x) + sx, std::abs(spot.y - looked.y) + sy) > reach) {
                looked = spot;
                look_about(looked, c, std::max(reach, 2 * std::max(sx, sy)), s);
            }
            for (const int way : {1, -1}) {
                Spot to = spot;
                to.x += way * ux;
                to.y += way * uy;
                into_room(c, to.x, to.y, to.bin);
                if (to.x == spot.x && to.y == spot.y) continue;
                to.cost = weigh(i, to, c, best.cost, s, true);
                if (to.cost < best.cost) {
                    best = to;
                    better = true;
                }
            }
            spot = best;
            const double by = better ? 1.1 : 0.5;
            if (axis != 1) sx *= by;
            if (axis != 0) sy *= by;
        }
    }

    /// The least weighted overlap that samples find for piece i.
    Spot search(std::size_t i, std::uint64_t roll, Scratch& s) const {
        const JostledPiece& p = pieces[i];
        const auto& turns = casts[static_cast<std::size_t>(p.kind)];
        Dice d(roll);
        Spot now{p.x, p.y, p.turn, p.bin, 0};
        now.cost = weigh(i, now, *cast[i], 3e38F, s);
        std::array<Spot, kept_samples> best;
        best.fill(now);
        for (std::size_t k = 1; k < best.size(); ++k) best[k].cost = 3e38F;
        const auto offer = [&](Spot at) {
            const Cast& c = turns[static_cast<std::size_t>(at.turn)];
            if (!has_room(c, at.bin)) return;
            into_room(c, at.x, at.y, at.bin);
            at.cost = weigh(i, at, c, best.back().cost, s);
            if (at.cost >= best.back().cost) return;
            std::size_t k = best.size() - 1;
            for (; k > 0 && at.cost < best[k - 1].cost; --k) best[k] = best[k - 1];
            best[k] = at;
        };
        const int count = static_cast<int>(turns.size());
        for (int k = 0; k < over_room && best[0].cost > 0; ++k) {
            const int turn = d.below(count), bin = room.bins > 1 ? d.below(room.bins) : 0;
            const Cast& c = turns[static_cast<std::size_t>(turn)];
            offer({d.between(room.x0 - c.x0, end_of(bin) - c.x1), d.between(room.y0 - c.y0, room.y1 - c.y1), turn, bin, 0});
        }
        if (const auto own = static_cast<std::size_t>(p.kind); own < mates.size() && !mates[own].empty() && best[0].cost > 0) {
            // edge on edge with another, from anywhere in the list
            const auto& places = mates[own];
            const std::size_t from = d.next() % places.size();
            int offered = 0;
            for (std::size_t k = 0; k < places.size() && offered < by_mates; ++k) {
                const MatePlace& m = places[(from + k) % places.size()];
                const auto& others = of_kind[static_cast<std::size_t>(m.other)];
                const std::size_t j = others[others.size() == 1 ? 0 : static_cast<std::size_t>(d.below(static_cast<int>(others.size())))];
                if (j == i || pieces[j].turn != m.other_turn) continue;
                ++offered;
                offer({pieces[j].x + m.dx, pieces[j].y + m.dy, m.turn, pieces[j].bin, 0});
            }
        }
        const double w = cast[i]->x1, h = cast[i]->y1;
        for (int k = 0; k < near_by && best[0].cost > 0; ++k) {
            int turn = p.turn;
            if (count > 24)  // turns a few degrees apart
                turn = (p.turn + d.below(7) - 3 + count) % count;
            else if (d.below(2) == 0)
                turn = d.below(count);
            offer({p.x + d.between(-w, w), p.y + d.between(-h, h), turn, p.bin, 0});
        }
        const double small = std::min(w, h) * 2;
        for (Spot& spot : best)
            if (spot.cost < 3e38F && best[0].cost > 0) refine(i, spot, 0.25 * small, 0.02 * small, d, s);
        std::sort(best.begin(), best.end(), [](const Spot& a, const Spot& b) { return a.cost < b.cost; });
        if (count > 24)
            for (int k = 0; k < 4 && best[0].cost > 0; ++k) {  // a little turn either way
                Spot at = best[0];
                at.turn = (at.turn + (k % 2 == 0 ? 1 : -1) + count) % count;
                const Cast& c = turns[static_cast<std::size_t>(at.turn)];
                if (!has_room(c, at.bin)) continue;
                into_room(c, at.x, at.y, at.bin);
                at.cost = weigh(i, at, c, best[0].cost, s);
                if (at.cost < best[0].cost) best[0] = at;
            }
        refine(i, best[0], 0.01 * small, 0.001 * small, d, s);
        return best[0].cost < now.cost ? best[0] : now;
    }

    void move_to(std::size_t i, const Spot& to) {
        JostledPiece& p = pieces[i];
        if (p.x == to.x && p.y == to.y && p.turn == to.turn && p.bin == to.bin) return;
        p.x = to.x;
        p.y = to.y;
        p.turn = to.turn;
        p.bin = to.bin;
        put(i);
        measure(i, scratch[0]);
    }

    void raise_weights() {
        float most = 0;
        for (std::size_t i = 0; i < n; ++i)
            if (touching[i] > 0)
                for (std::size_t j = 0; j < i; ++j) most = std::max(most, overlaps[i * n + j]);
        for (std::size_t i = 0; i < n; ++i) {
            float* w = &weights[i * n];
            const float* o = &overlaps[i * n];
            if (touching[i] == 0) {
                for (std::size_t j = 0; j < n; ++j) w[j] = std::max(1.0F, w[j] * decay);
                continue;
            }
            for (std::size_t j = 0; j < n; ++j)
                w[j] = o[j] > 0 ? std::min(most_weight, w[j] * (least_raise + (most_raise - least_raise) * o[j] / most))
                                : std::max(1.0F, w[j] * decay);
        }
    }

    void sweep(const std::function<bool()>& stop) {
        std::vector<std::size_t> order;
        for (std::size_t i = 0; i < n; ++i)
            if (touching[i] > 0 && !pieces[i].fixed) order.push_back(i);
        for (std::size_t k = order.size(); k > 1; --k)
            std::swap(order[k - 1], order[static_cast<std::size_t>(dice.below(static_cast<int>(k)))]);
        std::array<std::size_t, most_at_once> who{};
        std::array<Spot, most_at_once> to;
        const int batch = n > many ? most_at_once : few_at_once;
        std::size_t at = 0;
        while (at < order.size()) {
            int count = 0;
            const auto apart = [&](std::size_t i) {
                return std::all_of(who.begin(), who.begin() + count, [&](std::size_t j) { return overlaps[i * n + j] <= 0; });
            };
            while (count < batch && at < order.size()) {
                for (std::size_t k = at; count > 0 && k < std::min(order.size(), at + look_ahead); ++k)
                    if (touching[order[k]] > 0 && apart(order[k])) {
                        std::swap(order[at], order[k]);
                        break;
                    }
                const std::size_t i = order[at];
                if (count > 0 && !apart(i)) break;  // it sees first where they went
                ++at;
                if (touching[i] > 0) who[static_cast<std::size_t>(count++)] = i;
            }
            const std::uint64_t first = seed * 1000003 + tick;
            crew.run(count, [&](int k, int worker) {
                const auto at_k = static_cast<std::size_t>(k);
                to[at_k] = search(who[at_k], (first + at_k) * 0xD1342543DE82EF95ULL, scratch[static_cast<std::size_t>(worker)]);
            });
            tick += static_cast<std::uint64_t>(count);
            for (std::size_t k = 0; k < static_cast<std::size_t>(count); ++k) move_to(who[k], to[k]);
            if (stop && stop()) return;
        }
        raise_weights();
        ++sweeps;
    }
};

Jostle::Jostle(const std::vector<std::vector<Cast>>& casts, const std::vector<std::vector<MatePlace>>& mates,
               std::vector<JostledPiece> pieces, const JostleRoom& room, std::uint64_t seed, int threads)
    : in_(std::make_unique<Inside>(casts, mates, std::move(pieces), room, seed, threads)) {}
Jostle::~Jostle() = default;

const std::vector<JostledPiece>& Jostle::pieces() const { return in_->pieces; }
const JostleRoom& Jostle::room() const { return in_->room; }
double Jostle::total_overlap() const { return in_->total(); }
std::uint64_t Jostle::sweeps() const { return in_->sweeps; }

double Jostle::last_end() const {
    double end = in_->room.x0;
    for (std::size_t i = 0; i < in_->n; ++i)
        if (in_->pieces[i].bin + 1 == in_->room.bins) end = std::max(end, in_->pieces[i].x + in_->cast[i]->x1);
    return end;
}

void Jostle::set_pieces(std::vector<JostledPiece> pieces) {
    in_->pieces = std::move(pieces);
    std::fill(in_->overlaps.begin(), in_->overlaps.end(), 0.0F);
    std::fill(in_->touching.begin(), in_->touching.end(), 0);
    in_->place_all();
}

void Jostle::set_room(const JostleRoom& room) {
    in_->room = room;
    for (std::size_t i = 0; i < in_->n; ++i) {
        JostledPiece& p = in_->pieces[i];
        if (p.fixed) continue;
        p.bin = std::min(p.bin, room.bins - 1);
        const auto& turns = in_->casts[static_cast<std::size_t>(p.kind)];
        const auto fits = [&](int bin) {
            return std::any_of(turns.begin(), turns.end(), [&](const Cast& c) { return in_->has_room(c, bin); });
        };
        if (!fits(p.bin)) p.bin = 0;
        if (!in_->has_room(*in_->cast[i], p.bin))
            for (std::size_t t = 0; t < turns.size(); ++t)
                if (in_->has_room(turns[t], p.bin)) p.turn = static_cast<int>(t);
        in_->into_room(in_->cast_at(p.kind, p.turn), p.x, p.y, p.bin);
    }
    set_pieces(std::vector<JostledPiece>(in_->pieces));
}

void Jostle::shorten(double by, double cut) {
    for (JostledPiece& p : in_->pieces)
        if (!p.fixed && p.bin + 1 == in_->room.bins && p.x > cut) p.x -= by;
    JostleRoom room = in_->room;
    room.last_x1 -= by;
    set_room(room);
}

void Jostle::shake() {
    std::vector<std::size_t> loose;
    for (std::size_t i = 0; i < in_->n; ++i)
        if (!in_->pieces[i].fixed) loose.push_back(i);
    if (loose.size() < 2) return;
    const auto size = [&](std::size_t i) { return in_->cast[i]->bulk; };
    std::stable_sort(loose.begin(), loose.end(), [&](std::size_t a, std::size_t b) { return size(a) > size(b); });
    // two of the larger ones, or any two
    const int among = in_->dice.below(2) == 0 ? std::max(2, static_cast<int>(loose.size() * 3 / 10)) : static_cast<int>(loose.size());
    const auto any = [&] { return loose[static_cast<std::size_t>(in_->dice.below(among))]; };
    for (int times = 1 + in_->dice.below(2); times > 0; --times) {
        const std::size_t a = any();
        std::size_t b = a;
        for (int tries = 0; tries < 20 && (b == a || in_->pieces[a].kind == in_->pieces[b].kind); ++tries) b = any();
        if (a == b) continue;
        JostledPiece &p = in_->pieces[a], &q = in_->pieces[b];
        std::swap(p.x, q.x);
        std::swap(p.y, q.y);
        std::swap(p.bin, q.bin);
    }
    set_room(in_->room);
}

bool Jostle::separate(JostleLimits& limits) {
    Inside& in = *in_;
    std::fill(in.weights.begin(), in.weights.end(), 1.0F);
    double least = in.total();
    std::vector<JostledPiece> best = in.pieces;
    const auto over = [&] { return (limits.stop && limits.stop()) || limits.sweeps == 0; };
    for (int strikes = 0; strikes < limits.strikes && least > 0;) {
        const double before = least;
        for (int idle = 0; idle < limits.sweeps_without_gain && least > 0; ++idle) {
            if (over()) break;
            if (limits.sweeps > 0) --limits.sweeps;
            in.sweep(limits.stop);
            const double now = in.total();
            if (now < least) {
                if (now < 0.98 * least) idle = -1;
                least = now;
                best = in.pieces;
            }
        }
        if (least == 0) break;
        set_pieces(best);
        if (over()) return false;
        strikes = least < 0.98 * before ? 0 : strikes + 1;
    }
    set_pieces(best);
    return least == 0;
}

}  // namespace orthema
