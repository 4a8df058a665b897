// Platen map: where collar, centre fold, pit line, shoulders and ink lie on the press's own platen, so that every garment
// of a run is loaded alike.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/base/units.h"
#include "core/fitting/fit.h"

namespace orthema {

struct MapLine {
    std::string what;
    std::optional<double> mm = {};  ///< none: the words say it all
};

struct PlatenMap {
    Rect platen;        ///< on the panel, mm
    std::string press;  ///< names
    std::string platen_name;
    std::vector<MapLine> lines;
    int columns = 1, rows = 1;  ///< blanks that fill it, about its middle
    double pitch_x = 0, pitch_y = 0;
    bool turned = false;
    int field = 0;  ///< of a design larger than the platen: which of its fields lies under it, from 0
};

/// `field`: of a design larger than the platen. `hands`: whoever loads, whose own marks count too. Nothing where no platen lies under the
/// design: caps, wraps, designs that no platen takes.
std::optional<PlatenMap> platen_map(const Order& order, const Decoration& decoration, const SizeFit& size, const Ground& ground,
                                    const std::string& hands = {}, int field = 0);

/// The platen with what lies on it, fitted into `box` of a drawing; `scale` is told how many drawing units a millimetre is.
void draw_platen_map(Drawing& to, const Order& order, const Decoration& decoration, const SizeFit& size, const Ground& ground,
                     const PlatenMap& map, const Rect& box, double hair, double text_size, double* scale = nullptr);

/// "collar seam below the platen's top edge: 62.5 mm": to a tenth, or as the tape reads in inches.
std::string map_words(const MapLine& line, Reading reading);

}  // namespace orthema
