// A family's panel as figures that can be sought: its measures, where it lies and how, and the lines that a picture shows of it.
#pragma once

#include <Eigen/Core>
#include <set>

#include "vision/camera.h"

namespace orthema::vision {

/// The panel on the table: where, how it lies, and by which measures.
struct PanelGuess {
    Point at;
    double angle = 0;
    Lying lying;
    Measures measures;
};

/// What of a panel is seen against the table, mm in the panel's frame: closed rings, holes too. Of an upper body's front the back shows
/// in the collar's opening. Of a wall its side, the rim's middle at the origin.
std::vector<Ring> seen_outline(const BlankAsked& asked, const Measures& measures, const Lying& lying);

/// The area that is seen of it by the chart's figures, mm².
double seen_area(const BlankAsked& asked);

/// Within what a search begins: the chart's figure may be off by so much, one standard deviation.
inline double usual_doubt(double mm) { return 0.05 * mm + 6; }

struct Lines {
    std::vector<Ring> outline;  ///< closed
    std::vector<Ring> inner;    ///< open, each by itself
    std::size_t stitched = 0;   ///< index of the first of `inner` that is a dark line rather than a step
    bool any_step = false;      ///< a step of whatever colours counts, and rather one farther out
};

/// The figures that are sought, each as a number of about one.
class Shape {
public:
    /// Those in `held` stay as they are guessed.
    Shape(const BlankAsked& asked, const PanelGuess& guess, const std::set<Measure>& held = {});
    [[nodiscard]] long count() const { return 3 + (sleeves_ ? 2 : 0) + static_cast<long>(measures_.size()); }
    [[nodiscard]] const std::vector<Measure>& measures() const { return measures_; }
    [[nodiscard]] long first_measure() const { return 3 + (sleeves_ ? 2 : 0); }
    [[nodiscard]] double unit_of(std::size_t k) const { return doubts_[k]; }
    [[nodiscard]] Eigen::VectorXd start() const;
    [[nodiscard]] PanelGuess at(const Eigen::VectorXd& v) const;
    [[nodiscard]] Lines lines(const PanelGuess& g) const;

private:
    const BlankAsked& asked_;
    PanelGuess guess_;
    std::vector<Measure> measures_;
    std::vector<double> doubts_;
    bool sleeves_ = false;
};

}  // namespace orthema::vision
