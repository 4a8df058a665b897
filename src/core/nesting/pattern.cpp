#include "core/nesting/pattern.h"

#include <algorithm>
#include <cmath>

#include "core/nesting/cast.h"

namespace orthema {

namespace {

constexpr double never = -1e12;  ///< they pass each other without touching
constexpr int strips = 256;      ///< of a shape's height
constexpr int samples = 192;     ///< of a contact over the other axis
constexpr int offsets = 40, shifts = 60;
constexpr double most_crossed = 40;  ///< others of its row that a shape may reach past: slanting hairs in rows are left to others
constexpr std::size_t pattern_turns = 6, most_refined = 4;

struct PatternEdge {
    Point a, b;  ///< a.y <= b.y
};

/// An outline as rows see it: `along` is x, `across` is y, whichever way they run in the strip.
struct Seen {
    Ring ring;
    Rect box;
    std::vector<PatternEdge> edges;
    std::vector<std::vector<std::size_t>> at_height;  ///< edges that pass through each of so many equal parts of the height
    explicit Seen(Ring r) : ring(std::move(r)), box(bounds(ring)), at_height(48) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            Point p = ring[i], q = ring[(i + 1) % ring.size()];
            if (p.y > q.y) std::swap(p, q);
            for (std::size_t k = part(p.y); k <= part(q.y); ++k) at_height[k].push_back(edges.size());
            edges.push_back({p, q});
        }
    }
    /// Pre: y within the box.
    [[nodiscard]] std::size_t part(double y) const {
        return std::min(at_height.size() - 1,
                        static_cast<std::size_t>((y - box.y0) / box.height() * static_cast<double>(at_height.size())));
    }
};

Ring swapped(Ring ring) {
    for (Point& p : ring) std::swap(p.x, p.y);
    return ring;
}

/// The least x at which `b`, moved by (x, up), keeps clear of `a` there and at any greater x: the most by which a's right side stands out
/// past b's left at one height. Piecewise linear, so that corners decide.
double contact(const Seen& a, const Seen& b, double up) {
    double x = never;
    if (a.box.y1 <= b.box.y0 + up || b.box.y1 + up <= a.box.y0) return x;
    const auto at = [](const PatternEdge& e, double y) {
        const double high = e.b.y - e.a.y;
        if (high < 1e-12) return std::pair(std::min(e.a.x, e.b.x), std::max(e.a.x, e.b.x));
        const double x_there = e.a.x + (e.b.x - e.a.x) * (y - e.a.y) / high;
        return std::pair(x_there, x_there);
    };
    for (const Point& p : b.ring)
        if (const double y = p.y + up; y >= a.box.y0 && y <= a.box.y1)
            for (const std::size_t k : a.at_height[a.part(y)])
                if (const PatternEdge& e = a.edges[k]; y >= e.a.y && y <= e.b.y) x = std::max(x, at(e, y).second - p.x);
    for (const Point& q : a.ring)
        if (const double y = q.y - up; y >= b.box.y0 && y <= b.box.y1)
            for (const std::size_t k : b.at_height[b.part(y)])
                if (const PatternEdge& e = b.edges[k]; y >= e.a.y && y <= e.b.y) x = std::max(x, q.x - at(e, y).first);
    return x;
}

/// How far a shape reaches to both sides in each of many strips of its height: contacts from that err apart, by little.
struct Reach {
    double low = 0, cell = 1;
    std::vector<double> left, right;  ///< least and greatest x of each strip
    Reach(const Seen& s, double cell_mm) : low(s.box.y0), cell(cell_mm) {
        const auto n = static_cast<std::size_t>(std::ceil(s.box.height() / cell)) + 1;
        left.assign(n, -never);
        right.assign(n, never);
        for (const PatternEdge& e : s.edges) {
            const auto from = static_cast<std::size_t>((e.a.y - low) / cell),
                       to = std::min(n - 1, static_cast<std::size_t>((e.b.y - low) / cell));
            for (std::size_t i = from; i <= to; ++i) {
                const double y0 = std::max(e.a.y, low + static_cast<double>(i) * cell),
                             y1 = std::min(e.b.y, low + static_cast<double>(i + 1) * cell);
                const double slope = e.b.y - e.a.y < 1e-12 ? 0 : (e.b.x - e.a.x) / (e.b.y - e.a.y);
                const double x0 = e.a.x + slope * (y0 - e.a.y), x1 = slope == 0 ? e.b.x : e.a.x + slope * (y1 - e.a.y);
                left[i] = std::min({left[i], x0, x1});
                right[i] = std::max({right[i], x0, x1});
            }
        }
    }
};

double contact(const Reach& a, const Reach& b, double up) {
    double x = never;
    const double off = (a.low - b.low - up) / a.cell;
    const auto whole = static_cast<long>(std::floor(off));
    const long n = static_cast<long>(b.left.size());
    for (long i = std::max(0L, -whole - 1); i < static_cast<long>(a.right.size()) && i + whole < n; ++i) {
        const long j = i + whole;
        double left = -never;
        if (j >= 0) left = b.left[static_cast<std::size_t>(j)];
        if (j + 1 < n) left = std::min(left, b.left[static_cast<std::size_t>(j + 1)]);
        x = std::max(x, a.right[static_cast<std::size_t>(i)] - left);
    }
    return x;
}

/// Contacts across the rows over the distance along them, sampled; between samples the greater counts, so that it errs apart.
class Across {
public:
    Across(const Seen& a, const Seen& b, const Reach& ra, const Reach& rb) : from_(a.box.x0 - b.box.x1), to_(a.box.x1 - b.box.x0) {
        for (int i = 0; i <= samples; ++i) of_.push_back(contact(ra, rb, from_ + (to_ - from_) * i / samples));
    }
    [[nodiscard]] double at(double along) const {
        if (along <= from_ || along >= to_) return never;
        const double t = (along - from_) / (to_ - from_) * samples;
        const auto i = std::min(static_cast<std::size_t>(t), static_cast<std::size_t>(samples) - 1);
        return std::max(of_[i], of_[i + 1]);
    }

private:
    double from_, to_;
    std::vector<double> of_;
};

/// Two shapes in turn, in rows.
struct Rows {
    std::vector<Seen> shapes;  ///< both
    std::vector<Point> at;     ///< where they lie in a period
    double period = 0;
    double shift = 0, pitch = 0;
};

/// How far the next row has to lie off, moved on by `shift`, exactly or by the samples.
template <class Contact>
double pitch_at(const Rows& r, double shift, Contact&& across) {
    double pitch = 0;
    for (std::size_t i = 0; i < r.at.size(); ++i)
        for (std::size_t j = 0; j < r.at.size(); ++j) {
            const Rect &a = r.shapes[i].box, &b = r.shapes[j].box;
            const double apart = r.at[j].x - r.at[i].x + shift;
            const double low = a.x0 - b.x1, high = a.x1 - b.x0;
            for (double k = std::floor((low - apart) / r.period); k <= std::ceil((high - apart) / r.period); ++k)
                pitch = std::max(pitch, across(i, j, apart + k * r.period) + r.at[i].y - r.at[j].y);
        }
    return pitch;
}

double rows_height(const Rows& r) {
    double low = 1e12, high = -1e12;
    for (std::size_t i = 0; i < r.at.size(); ++i) {
        low = std::min(low, r.at[i].y + r.shapes[i].box.y0);
        high = std::max(high, r.at[i].y + r.shapes[i].box.y1);
    }
    return high - low;
}

/// Pieces in a millimetre of the strip. `width` counts the half gap that grown outlines may stand out on both sides.
double pieces_a_mm(const Rows& r, bool across, double width) {
    if (!across) {
        const double high = rows_height(r);
        if (high > width || r.pitch <= 0) return 0;
        return static_cast<double>(r.at.size()) * (1 + std::floor((width - high) / r.pitch + 1e-9)) / r.period;
    }
    // a column holds as many as fit, whichever begins the first; the next ones begin where the shift has brought them
    constexpr int columns = 12;
    double most = 0;
    for (std::size_t first = 0; first < r.at.size(); ++first) {
        const double begin = r.at[first].x + r.shapes[first].box.x0;
        double count = 0;
        for (int c = 0; c < columns; ++c)
            for (std::size_t i = 0; i < r.at.size(); ++i) {
                const double at = r.at[i].x + c * r.shift;
                count += std::max(0.0, std::floor((begin + width - at - r.shapes[i].box.x1) / r.period + 1e-9) -
                                           std::ceil((begin - at - r.shapes[i].box.x0) / r.period - 1e-9) + 1);
            }
        most = std::max(most, count / columns);
    }
    return r.pitch > 0 ? most / r.pitch : 0;
}

/// A shape at one turn in rows, alone or with its half turn: the best offset of the two and shift of the rows, first by samples.
struct Way {
    bool across = false, paired = false;
    double turn = 0;
    Rows rows;
    std::vector<Seen> over;  ///< the shapes with their axes swapped
    double alone = 0;        ///< least period of either by itself
    double up = 0, shift = 0, worth = 0;

    Way(const Polygon& grown, bool rows_across, double turned, bool with_half_turn, double room)
        : across(rows_across), paired(with_half_turn), turn(turned) {
        const auto seen = [&](double t) {
            Ring ring = mapped(grown, Affine::turn(t)).outer;
            return Seen(across ? swapped(std::move(ring)) : std::move(ring));
        };
        rows.shapes = {seen(turn), seen(paired ? turn + 180 : turn)};
        for (const Seen& s : rows.shapes) {
            over.emplace_back(swapped(s.ring));
            alone = std::max(alone, contact(s, s, 0));
        }
        const Seen &a = rows.shapes[0], &b = rows.shapes[1];
        const double fine = std::max(a.box.height(), b.box.height()) / strips, fine_too = std::max(a.box.width(), b.box.width()) / strips;
        const Reach near[2] = {Reach(a, fine), Reach(b, fine)}, far[2] = {Reach(over[0], fine_too), Reach(over[1], fine_too)};
        const Across tables[2][2] = {{Across(a, a, far[0], far[0]), Across(a, b, far[0], far[1])},
                                     {Across(b, a, far[1], far[0]), Across(b, b, far[1], far[1])}};
        const auto sampled = [&](std::size_t i, std::size_t j, double along) { return tables[i][j].at(along); };
        for (int i = 0; i < offsets; ++i) {
            constexpr int middle = offsets / 2;
            const double at = (i - middle) * step_up() + a.box.y0 - b.box.y0;
            if (!lay(contact(near[0], near[1], at), contact(near[1], near[0], -at), at)) continue;
            for (int k = 0; k < shifts; ++k) {
                rows.shift = rows.period * k / shifts;
                rows.pitch = pitch_at(rows, rows.shift, sampled);
                const double w = pieces_a_mm(rows, across, room);
                if (w <= worth) continue;
                worth = w;
                up = at;
                shift = static_cast<double>(k) / shifts;
            }
        }
    }

    /// Exactly, and in ever smaller steps about the best.
    void refine(double room) {
        worth = exactly(up, shift, room);
        for (double step = 0.5; step > 0.01; step /= 2)
            for (const auto& [du, ds] : {std::pair(1.0, 0.0), {-1.0, 0.0}, {0.0, 1.0}, {0.0, -1.0}, {1.0, 1.0}, {-1.0, -1.0}}) {
                const double up_there = up + du * step * step_up(), shift_there = shift + ds * step / shifts;
                if (const double w = exactly(up_there, shift_there, room); w > worth) {
                    worth = w;
                    up = up_there;
                    shift = shift_there;
                }
            }
        (void)exactly(up, shift, room);
    }

private:
    [[nodiscard]] double step_up() const { return rows.shapes[0].box.height() * 1.8 / offsets; }
    bool lay(double there, double back, double at) {
        const Rect &a = rows.shapes[0].box, &b = rows.shapes[1].box;
        if (there <= never / 2 && back <= never / 2) return false;  // one above the other: rows of their own
        rows.at = {{0, 0}, {std::max(there, a.x0 - b.x1), at}};
        rows.period = std::max(alone, rows.at[1].x + std::max(back, b.x0 - a.x1));
        return rows.period * most_crossed > std::max(a.width(), b.width());
    }
    double exactly(double at, double moved, double room) {
        const Seen &a = rows.shapes[0], &b = rows.shapes[1];
        if (!lay(contact(a, b, at), contact(b, a, -at), at)) return 0;
        rows.shift = moved * rows.period;
        rows.pitch =
            pitch_at(rows, rows.shift, [&](std::size_t i, std::size_t j, double along) { return contact(over[i], over[j], along); });
        return pieces_a_mm(rows, across, room);
    }
};

}  // namespace

std::optional<Pattern> best_pattern(const NestPiece& piece, double gap, double width, double hair) {
    const Rect box = bounds(piece.outline.outer);
    const double by = gap / 2 + hair, room = width + 2 * by;
    const Polygon grown = search_outline(piece.outline, by, std::clamp(0.0015 * std::hypot(box.width(), box.height()), 0.02, 0.3));
    const auto allowed = [&](double turn) {
        return std::any_of(piece.rotations.begin(), piece.rotations.end(),
                           [&](double r) { return std::abs(std::remainder(r - turn, 360)) < 1e-6; });
    };
    std::vector<double> turns;
    const std::size_t every = std::max<std::size_t>(1, piece.rotations.size() / pattern_turns);
    for (std::size_t i = 0; i < piece.rotations.size(); i += every) {
        const double turn = piece.rotations[i];
        // a half turn of the whole is the same pattern
        if (std::none_of(turns.begin(), turns.end(), [&](double t) { return std::abs(std::remainder(t - turn, 180)) < 1e-6; }))
            turns.push_back(turn);
    }
    std::vector<Way> ways;
    for (const bool across : {false, true})
        for (const double turn : turns)
            for (const bool paired : {false, true})
                if (!paired || allowed(turn + 180)) ways.emplace_back(grown, across, turn, paired, room);
    std::sort(ways.begin(), ways.end(), [](const Way& a, const Way& b) { return a.worth > b.worth; });
    if (ways.size() > most_refined) ways.erase(ways.begin() + most_refined, ways.end());
    for (Way& w : ways) w.refine(room);
    const auto best = std::max_element(ways.begin(), ways.end(), [](const Way& a, const Way& b) { return a.worth < b.worth; });
    if (best == ways.end() || best->worth <= 0) return std::nullopt;
    Pattern out;
    out.across = best->across;
    const auto in_strip = [&](Point q) { return best->across ? Point{q.y, q.x} : q; };
    for (std::size_t i = 0; i < 2; ++i) {
        const Point at = in_strip(best->rows.at[i]);
        out.members.push_back({i == 0 || !best->paired ? best->turn : std::fmod(best->turn + 180, 360), at.x, at.y});
    }
    out.period = in_strip({best->rows.period, 0});
    out.step = in_strip({best->rows.shift, best->rows.pitch});
    out.density = best->worth * area(piece.outline) / width;
    return out;
}

PatternPlaces pattern_places(const Pattern& pattern, const NestPiece& piece, int count, double width, double most_length) {
    std::vector<Rect> boxes;
    for (const PatternMember& m : pattern.members) boxes.push_back(bounds(mapped(piece.outline.outer, Affine::turn(m.turn))));
    // in units of rows and periods, more than are needed
    const int rows_in = static_cast<int>(width / std::max(1e-6, pattern.step.y)) + 1;
    const int rows_most = pattern.across ? count + 2 : rows_in + 1;
    const int periods =
        pattern.across ? static_cast<int>(width / std::max(pattern.period.y, 1.0)) + 2 : count / std::max(1, rows_in / 2) + 4;
    PatternPlaces best;
    // whichever member begins
    for (std::size_t first = 0; first < pattern.members.size(); ++first) {
        const PatternMember& f = pattern.members[first];
        const Rect& fb = boxes[first];
        std::vector<std::pair<Rect, PatternMember>> all;  // those that lie in the strip
        double low_y = fb.y0;
        if (!pattern.across)
            for (std::size_t i = 0; i < pattern.members.size(); ++i) low_y = std::min(low_y, pattern.members[i].y - f.y + boxes[i].y0);
        for (int row = 0; row < rows_most; ++row) {
            // the drift of the rows is taken back by whole periods
            const double drift = pattern.across ? pattern.step.y * row / pattern.period.y : pattern.step.x * row / pattern.period.x;
            const auto back = static_cast<int>(std::floor(drift));
            for (int k = -2; k < periods; ++k)
                for (std::size_t i = 0; i < pattern.members.size(); ++i) {
                    const PatternMember& m = pattern.members[i];
                    const Point at{m.x - f.x + pattern.period.x * (k - back) + pattern.step.x * row,
                                   m.y - f.y + pattern.period.y * (k - back) + pattern.step.y * row};
                    const Rect lies{boxes[i].x0 + at.x, boxes[i].y0 + at.y - low_y, boxes[i].x1 + at.x, boxes[i].y1 + at.y - low_y};
                    if (lies.y0 < -1e-9 || lies.y1 > width + 1e-9) continue;
                    all.emplace_back(lies, PatternMember{m.turn, at.x, at.y - low_y});
                }
        }
        if (all.empty()) continue;
        std::sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.first.x1 < b.first.x1; });
        // rows along the strip begin anywhere: those that stand out before the most even start are left
        double start = fb.x0;
        if (pattern.across)
            for (const auto& [lies, m] : all) start = std::min(start, lies.x0);
        PatternPlaces found;
        for (const auto& [lies, m] : all) {
            if (lies.x0 < start - 1e-9 || static_cast<int>(found.places.size()) == count) continue;
            if (lies.x1 - start > most_length + 1e-9) break;
            found.places.push_back({m.turn, m.x - start, m.y});
            found.length = lies.x1 - start;
        }
        if (found.places.size() > best.places.size() || (found.places.size() == best.places.size() && found.length < best.length))
            best = std::move(found);
    }
    return best;
}

}  // namespace orthema
