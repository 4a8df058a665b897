// Platen fit: where the platen lies under a design so that the ink is pressed and raised features are not. Ink and its
// margin must be inside the platen, raised features outside it. Tried in turn: as it is; shifted so that the feature
// hangs off the edge; another platen; a pad that is larger than the ink and clear of the features; several presses.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/order/order.h"

namespace orthema {

/// From this height on a part must not lie between the platens.
constexpr double raised_from_mm = 1.5;
/// A pad reaches this far past the ink on every side.
constexpr double pad_reach_mm = 3;
/// Neighbouring presses of a large design overlap by this.
constexpr double press_overlap_mm = 10;

struct RaisedBox {
    std::string name;
    Rect box;  ///< on the panel, mm
    double height = 0;
};

/// The raised parts of a panel, as the boxes that a platen must stay out of.
std::vector<RaisedBox> raised_boxes(const Panel& panel);

enum class PlatenWay { as_is, shifted, other_platen, pad, several, none };

struct PlatenFit {
    PlatenWay way = PlatenWay::as_is;
    int platen = -1;                ///< into the press's platens
    int pad = -1;                   ///< into the press's pads
    Point shift;                    ///< from the ink's middle to the platen's (or the pad's)
    std::string because;            ///< the feature that is in the way as it is, or "size"
    std::vector<Rect> presses;      ///< where the platen lies on the panel, in order; several for a large design
    std::optional<Rect> pad_place;  ///< where the pad lies
};

/// The least shift of a rectangle `size` about the ink's middle that keeps ink + margin inside it and no box under it;
/// nothing where there is none. Exact: in the plane of shifts the boxes forbid open rectangles, and the nearest free
/// point has each coordinate at 0, at the end of the slack, or on an edge of a forbidden one.
std::optional<Point> least_shift(const Rect& ink, double margin, Point size, const std::vector<RaisedBox>& boxes);

/// `outline`: the ink itself, on the panel: where several fields are needed, those without ink of their own are left out.
PlatenFit platen_fit(const Press& press, const Rect& ink, const std::vector<RaisedBox>& raised, const Region* outline = nullptr);

/// Of the fields of a large design those without which some of the ink would be in none, `margin` inside its edge; in their order.
/// Exact: by the difference of polygons.
std::vector<Rect> needed_fields(std::vector<Rect> fields, double margin, const Region& outline);

/// In how many of the fields the ink that lies in most of them lies; at least 1.
int most_fields_over(const std::vector<Rect>& fields, const Rect& ink);

/// "the platen lies lower by 30 mm, so that the collar seam hangs off its edge" and the like.
Words platen_words(const PlatenFit& fit, const Press& press);

/// How many blanks of this size lie on a platen at once, in rows and columns about its middle; at least one. mm.
struct PlatenGrid {
    int columns = 1, rows = 1;
    double pitch_x = 0, pitch_y = 0;
    bool turned = false;
    [[nodiscard]] int count() const { return columns * rows; }
    [[nodiscard]] Point middle(int k) const {
        const int column = k % columns, row = k / columns;
        return {(column - (columns - 1) / 2.0) * pitch_x, (row - (rows - 1) / 2.0) * pitch_y};
    }
};
PlatenGrid platen_grid(const Platen& platen, double margin, double width, double height, double gap);

}  // namespace orthema
