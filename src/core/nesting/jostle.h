// Jostling: pieces that overlap are moved, one at a time, to where they overlap least, and pairs that keep overlapping
// weigh more and more, until nothing overlaps in a room that was too short before.
// Method: guided local search over overlaps (Egeblad, Nielsen, Odgaard 2007), with inscribed discs for the measure, random and
// local samples and a coordinate search for every move, as in recent work on strip packing.
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <vector>

#include "core/nesting/mates.h"
#include "core/nesting/overlap.h"

namespace orthema {

struct JostledPiece {
    int kind = 0;         ///< into the casts
    int turn = 0;         ///< into the casts of its kind
    double x = 0, y = 0;  ///< the middle of the cast's box
    int bin = 0;
    bool fixed = false;
    bool seam = false;     ///< what `crosses` may lie over
    bool crosses = false;  ///< may lie over seams
};

/// Where cast boxes may lie: [x0, x1] × [y0, y1] of every bin, the last one shorter.
struct JostleRoom {
    double x0 = 0, y0 = 0, y1 = 0;
    double x1 = 0;       ///< of every bin but the last
    double last_x1 = 0;  ///< of the last
    int bins = 1;
};

struct JostleLimits {
    int sweeps_without_gain = 200;
    int strikes = 3;
    long sweeps = -1;            ///< in all, when not negative: then the outcome depends on the seed alone
    std::function<bool()> stop;  ///< asked between moves
};

class Jostle {
public:
    /// `casts[kind][turn]` and `mates[kind]` (or none) must outlive this. `threads` search at once; the outcome does not depend on their
    /// number.
    Jostle(const std::vector<std::vector<Cast>>& casts, const std::vector<std::vector<MatePlace>>& mates, std::vector<JostledPiece> pieces,
           const JostleRoom& room, std::uint64_t seed, int threads);
    ~Jostle();
    Jostle(const Jostle&) = delete;
    Jostle& operator=(const Jostle&) = delete;

    /// Moves pieces until none overlap; false when it gave up, with the least overlapping layout in place.
    bool separate(JostleLimits& limits);

    void set_pieces(std::vector<JostledPiece> pieces);
    [[nodiscard]] const std::vector<JostledPiece>& pieces() const;
    void set_room(const JostleRoom& room);  ///< pieces outside are pushed in
    [[nodiscard]] const JostleRoom& room() const;
    /// Shortens the last bin by `by` and moves what lies right of `cut` along.
    void shorten(double by, double cut);
    /// One or two pairs of pieces change places; larger ones rather.
    void shake();
    [[nodiscard]] double total_overlap() const;
    [[nodiscard]] std::uint64_t sweeps() const;
    /// The right edge of what lies in the last bin.
    [[nodiscard]] double last_end() const;

private:
    struct Inside;
    std::unique_ptr<Inside> in_;
};

}  // namespace orthema
