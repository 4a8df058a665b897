// Guides: FitPlan -> GuideSet, what the hand at the press needs for every blank size and location: a card with the
// garment to scale and the hand measurements, and a 1:1 paper template tiled over office paper.
#pragma once

#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/fitting/exactness.h"
#include "core/fitting/fit.h"

namespace orthema {

struct PaperSize {
    double width = 210, height = 297;  ///< mm, upright
};
PaperSize paper_size(Paper paper);
/// What templates may be printed on, smallest first.
std::vector<PaperSize> template_papers(const Order& order);
/// "A4", "tabloid".
const char* paper_name(const PaperSize& paper);

struct GuidePage {
    Drawing drawing;  ///< millimetres, 1:1
    std::string title;
    std::vector<std::string> sizes = {};  ///< where it shows some of a run's
};

/// Where the template of one size lies on its tiles, for checking and for the screen.
struct TemplateLayout {
    Rect area;  ///< of the garment that the template shows, mm in the garment's frame
    int columns = 1, rows = 1;
    double tile_width = 0, tile_height = 0;  ///< printed area of one page
    double step_x = 0, step_y = 0;           ///< from tile to tile; the rest overlaps
    bool landscape = false;
    PaperSize paper;
    double scale = 1;  ///< pages are drawn larger by this; the figures above are the garment's
    [[nodiscard]] int pages() const { return columns * rows; }
};

struct Guide {
    std::string decoration;
    std::string size;
    GuidePage card;
    Drawing whole;  ///< the template untiled, mm in the garment's frame
    std::vector<GuidePage> tiles;
    TemplateLayout layout;
    std::string revision;  ///< of what it was made from
};

struct GuideSet {
    std::vector<Guide> guides;
};

/// The guide of one fitted size. `outline` is the art's outline in ink widths, drawn on the template.
Guide guide_for(const Order& order, const Decoration& decoration, const DecorationFit& fit, const SizeFit& size, const Region& outline);

/// Guides for everything that is fitted, by garment and then location.
GuideSet guides(const Order& order, const FitPlan& plan, const ArtFactsById& facts);

/// Tiles that cover an area with the fewest pages of one of the papers, upright or across, and of those the smallest paper; margins of 10
/// mm, overlap of 12 mm. `scale` is by how much the pages are drawn larger for a printer that prints small.
TemplateLayout tile_layout(const Rect& area, const std::vector<PaperSize>& papers, double scale = 1);
/// The pages of a template drawn in the garment's frame. Where it is said what a template is there for, pages that show
/// none of it are left out.
std::vector<GuidePage> template_tiles(const Drawing& whole, const TemplateLayout& layout, const std::string& title,
                                      const std::string& footer, const Reading& reading, const std::vector<Rect>& needed = {});
/// A line of this length with end bars and its name, to lay a ruler on.
void calibration_bar(Drawing& to, Point at, double length, const std::string& name);
/// By how much pages are drawn larger so that what a printer prints measures true.
double print_correction(const GuideSetup& setup);

/// What a guide was made from, in six letters: its figures, place, press, recipe and blank.
std::string guide_revision(const Order& order, const Decoration& decoration, const SizeFit& size);

enum class Printed { never, current, stale };
/// Whether the guide of a size was printed, and still holds.
Printed printed_as(const Order& order, const Decoration& decoration, const SizeFit& size);
/// The order with the guides of the plan noted as printed now: all, or of one decoration and size.
Order with_guides_printed(Order order, const FitPlan& plan, const std::string& decoration = {}, const std::string& size = {});
/// How many printed guides no longer hold, as a finding; nothing where all do.
Findings stale_guides(const Order& order, const FitPlan& plan);

/// Words in lines no wider than `width`; where the next line would stand.
double wrapped(Drawing& to, Point at, const std::string& words, double size, double width, Colour colour, bool bold = false,
               double leading = 1.4);
/// "Marrow Hill Kite Fair, due 12 June 2027"
std::string date_line(const Order& order);
std::string date_line(const std::string& name, const std::string& due, const Reading& reading);

/// The lines of figures on a card, as "Collar seam to top of ink", the length, and how exact it needs to be.
struct CardLine {
    std::string what;
    std::string figure;
    std::string exact;  ///< "± 6 mm", or empty for what is not measured at the press
};
std::vector<CardLine> card_lines(const Panel& panel, const SizeFit& size, Location location, const Exactness& exact, Reading reading);

/// "page 2 of 5" at the foot of each, to the right.
void number_pages(std::vector<GuidePage>& pages, const PaperSize& paper, double right, const Reading& reading);

}  // namespace orthema
