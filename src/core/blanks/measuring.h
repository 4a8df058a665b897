// Measuring: what to put the tape on first, and what the figures of a chart look wrong by.
#pragma once

#include "core/base/finding.h"
#include "core/blanks/style.h"

namespace orthema {

/// One thing worth a tape, the most worth first.
struct ToMeasure {
    std::string size;
    Measure measure = Measure::chest;
    std::string why;    ///< "sets the width of its band", "out of step with its neighbours" …
    double weight = 0;  ///< for ordering
};

/// `ordered` are the sizes that are wanted, `band_smallest` those that set a band's width. Figures that are measured
/// already are left out; those that are suspicious come first, whether measured or not.
std::vector<ToMeasure> what_to_measure(const BlankStyle& style, const std::vector<std::string>& ordered,
                                       const std::vector<std::string>& band_smallest);

enum class Doubt {
    unit_slip,       ///< typed in another unit: 18 in as 18 cm
    swapped,         ///< two fields of one size exchanged
    out_of_step,     ///< smaller than the size before it, though the run grows
    off_the_grading  ///< far from where its neighbours put it
};

struct DoubtfulFigure {
    Doubt doubt = Doubt::out_of_step;
    std::string size;
    Measure measure = Measure::chest;
    std::optional<Measure> other;  ///< what it seems to be swapped with
    double value = 0;              ///< mm
    double expected = 0;           ///< mm, from its neighbours
    double factor = 1;             ///< of a unit slip: expected ≈ value × factor
};

/// Figures that are implausible. Each is held against what the rest of its row and run let one expect; for a run of two
/// sizes or fewer against the proportions of the family's pattern, when one is given.
std::vector<DoubtfulFigure> doubtful_figures(const BlankStyle& style, const BlankStyle* pattern = nullptr);

/// What a single typed figure would be: doubtful at once, before it is kept. Nothing when it is plausible.
std::optional<DoubtfulFigure> doubt_about(const BlankStyle& style, const std::string& size, Measure measure, Length typed);

/// A sentence that says what is odd and what to do; lengths stand as {value} and {expected}.
Finding doubt_finding(const BlankStyle& style, const DoubtfulFigure& doubt);

}  // namespace orthema
