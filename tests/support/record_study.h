// Runs of measured pieces by a simulated hand, and how often what is said of them is right. Used by tests with few seeds and by bench with
// many.
#pragma once

#include <cmath>
#include <vector>

#include "core/records/drift.h"
#include "core/records/place.h"
#include "devices/hand.h"

namespace orthema::test {

/// Pieces in order; presses take turns, sizes follow crossed with them.
inline std::vector<PressRecord> measured_run(const HandSetup& setup, int pieces, int presses = 1, int sizes = 1, double marks_aside = 0) {
    Hand hand(setup);
    std::vector<PressRecord> out;
    for (int i = 0; i < pieces; ++i) {
        PressRecord r;
        r.id = std::to_string(setup.seed) + "-" + std::to_string(i);
        r.at = "2027-06-12T08:00:00";
        r.press = "press-" + std::to_string(i % presses + 1);
        r.platen = "large";
        r.style = "tee";
        r.size = "size-" + std::to_string((i / presses) % sizes + 1);
        r.hands = "MK";
        hand.press(r, marks_aside);
        out.push_back(std::move(r));
    }
    return out;
}

inline std::vector<Displaced> displaced_of(const std::vector<PressRecord>& all, std::size_t first = 1u << 30) {
    std::vector<const PressRecord*> rows;
    for (const PressRecord& r : all)
        if (rows.size() < first) rows.push_back(&r);
    return displaced(rows);
}

struct Study {
    int seeds = 0;
    int false_place = 0;                      ///< runs of 60 without a bias in which a correction was proposed at any moment
    int found_by_16 = 0, press_named = 0;     ///< 4 mm at a spread of 3
    int slip_known = 0, slip_unknown = 0;     ///< 6 mm, said within 8 pieces
    long false_alarms = 0, false_pieces = 0;  ///< of drift, both axes, centre from the run
    long known_alarms = 0;                    ///< centre known
    int covers = 0, intervals = 0;            ///< the interval of a proposal of place
    int within_17 = 0, within_10 = 0;         ///< the mean after the correction, from 16 and from 48
};

inline Study study(int seeds, unsigned first_seed) {
    Study out;
    out.seeds = seeds;
    for (int s = 0; s < seeds; ++s) {
        HandSetup h;
        h.seed = first_seed + static_cast<unsigned>(s) * 16;
        const int sizes = 1 + s % 4;
        const auto quiet = measured_run(h, 60, 1, sizes);
        bool any = false;
        for (std::size_t n = 8; n <= quiet.size(); ++n)
            if (n == 8 || n == 12 || n == 16 || n == 24 || n == 32 || n == 44 || n == 60) any = any || !displaced_of(quiet, n).empty();
        out.false_place += any ? 1 : 0;
        std::vector<double> aside, down;
        for (const PressRecord& r : quiet) {
            aside.push_back(*r.landing->aside);
            down.push_back(*r.landing->down);
        }
        RunBefore known;
        known.centre = 0;
        out.false_alarms += static_cast<long>(drifts(aside).size() + drifts(down).size());
        out.known_alarms += static_cast<long>(drifts(aside, known).size() + drifts(down, known).size());
        out.false_pieces += static_cast<long>(quiet.size());

        h.seed += 1;
        h.aside = 4;
        for (const int pieces : {16, 48}) {
            h.seed += 1;
            double by = 0;
            for (const Displaced& d : displaced_of(measured_run(h, pieces, 1, sizes)))
                if (d.axis == Axis::aside && d.cause == Cause::all) {
                    by = std::round(d.by * 2) / 2;
                    ++out.intervals;
                    out.covers += d.sure.low <= 4 && 4 <= d.sure.high ? 1 : 0;
                }
            if (pieces == 16) out.found_by_16 += by != 0 ? 1 : 0;
            if (by == 0) continue;
            const bool near = std::abs(4 - by) <= (pieces == 16 ? 1.7 : 1.0);
            (pieces == 16 ? out.within_17 : out.within_10) += near ? 1 : 0;
        }

        HandSetup two;
        two.seed = h.seed + 3;
        two.more["press-2"] = 4;
        for (const Displaced& d : displaced_of(measured_run(two, 60, 2, 3)))
            if (d.axis == Axis::aside && d.cause == Cause::press && d.press == "press-2") {
                ++out.press_named;
                break;
            }

        for (const bool centred : {true, false}) {
            HandSetup slips;
            slips.seed = h.seed + (centred ? 5u : 6u);
            slips.slips_at = centred ? s % 25 : 16;
            slips.slip = 6;
            std::vector<double> y;
            for (const PressRecord& r : measured_run(slips, slips.slips_at + 8)) y.push_back(*r.landing->aside);
            for (const Drift& d : drifts(y, centred ? known : RunBefore{}))
                if (d.seen_at >= slips.slips_at && d.by > 0) {
                    (centred ? out.slip_known : out.slip_unknown) += 1;
                    break;
                }
        }
    }
    return out;
}

}  // namespace orthema::test
