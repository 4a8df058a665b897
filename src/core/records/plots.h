// Plots: records as drawings. Every dot is a record and says which.
#pragma once

#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/base/units.h"
#include "core/drawing/drawing.h"
#include "core/records/drift.h"
#include "core/records/lessons.h"
#include "core/records/press_record.h"

namespace orthema {

struct Plot {
    Drawing drawing;
    std::vector<std::pair<Point, std::size_t>> dots;  ///< where each record lies, by its place among all
};

/// What colour and mark tell apart.
enum class TellApart { press, hands };

struct PlotAsk {
    const std::vector<PressRecord>* all = nullptr;
    std::vector<std::size_t> which;
    std::optional<std::size_t> chosen;
    Reading unit;
    double width = 700, height = 500;
    const Order* order = nullptr;  ///< for names; may be null
    TellApart by = TellApart::press;
};

/// The mean of the landings and the region that holds it with 95 % chance, as a ring of points. Method: Hotelling, from their own
/// covariance. Nothing of fewer than three.
struct MeanPlace {
    Point mean;
    Ring region;
    int pieces = 0;
    double spread_aside = 0, spread_down = 0;
};
std::optional<MeanPlace> mean_place(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which);

/// Each measured piece about where it should be, at one scale across and down.
Plot target_plot(const PlotAsk& ask);
/// The same through `map` from mm about the ink's centre, over a garment that is drawn already.
void add_landings(Plot& to, const PlotAsk& ask, const Affine& map);
/// Place, tilt and heat over the measured pieces in order, with limits from their own spread; what drifts is said on it.
Plot run_plot(const PlotAsk& ask);
/// What the run plot says in words: drift, jump, creep and when they began.
std::vector<std::string> run_words(const PlotAsk& ask);
/// Heat across, seconds up: what was tried and how it came out; `usual` is the recipe's own point, °C and s.
Plot tried_plot(const PlotAsk& ask, std::optional<Point> usual, bool fahrenheit);

enum class LossBy { cause, press, blank, method, design, month };
/// Bars by what was lost.
Plot loss_plot(const PlotAsk& ask, LossBy by, const std::string& currency);

}  // namespace orthema
