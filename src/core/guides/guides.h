// Guides: FitPlan -> GuideSet, what the hand at the press needs for every blank size and location: a card with the
// garment to scale and the hand measurements, and a 1:1 paper template tiled over office paper.
#pragma once

#include <string>
#include <vector>

#include "core/base/drawing.h"
#include "core/fitting/exactness.h"
#include "core/fitting/fit.h"

namespace orthema {

struct PaperSize {
    double width = 210, height = 297;  ///< mm, upright
};
PaperSize paper_size(Paper paper);

struct GuidePage {
    Drawing drawing;  ///< millimetres, 1:1
    std::string title;
};

/// Where the template of one size lies on its tiles, for checking and for the screen.
struct TemplateLayout {
    Rect area;  ///< of the garment that the template shows, mm in the garment's frame
    int columns = 1, rows = 1;
    double tile_width = 0, tile_height = 0;  ///< printed area of one page
    double step_x = 0, step_y = 0;           ///< from tile to tile; the rest overlaps
    bool landscape = false;
    [[nodiscard]] int pages() const { return columns * rows; }
};

struct Guide {
    std::string decoration;
    std::string size;
    GuidePage card;
    Drawing whole;  ///< the template untiled, mm in the garment's frame
    std::vector<GuidePage> tiles;
    TemplateLayout layout;
};

struct GuideSet {
    std::vector<Guide> guides;
};

/// The guide of one fitted size. `outline` is the art's outline in ink widths, drawn on the template.
Guide guide_for(const Order& order, const Decoration& decoration, const DecorationFit& fit, const SizeFit& size, const Region& outline);

/// Guides for everything that is fitted, by garment and then location.
GuideSet guides(const Order& order, const FitPlan& plan, const ArtFactsById& facts);

/// Tiles that cover an area with the fewest pages, upright or across; margins of 10 mm, overlap of 12 mm.
TemplateLayout tile_layout(const Rect& area, PaperSize paper);

/// The lines of figures on a card, as "Collar seam to top of ink", the length, and how exact it needs to be.
struct CardLine {
    std::string what;
    std::string figure;
    std::string exact;  ///< "± 6 mm", or empty for what is not measured at the press
};
std::vector<CardLine> card_lines(const Panel& panel, const SizeFit& size, Location location, const Exactness& exact, Unit unit);

}  // namespace orthema
