// Guides beyond the single size: platen maps, master templates of a band, carry boards for double-layer garments, and the
// wall chart of a run.
#pragma once

#include "core/guides/guides.h"
#include "core/guides/platen_map.h"

namespace orthema {

/// The sizes of a decoration on their platens, some to a page.
std::vector<GuidePage> platen_map_pages(const Order& order, const FitPlan& plan, const Decoration& decoration);

/// A template at real size about the ink of one band: every size of it with a collar line and a pit line of its own.
struct MasterTemplate {
    std::string sizes;  ///< "S M L"
    Drawing whole;      ///< mm, the ink box's top left at the origin
    TemplateLayout layout;
    std::vector<GuidePage> tiles;
    std::vector<std::pair<std::string, double>> collar;  ///< by size: how far its collar seam lies above the ink, mm
};
/// One for each band of the decoration.
std::vector<MasterTemplate> master_templates(const Order& order, const FitPlan& plan, const Decoration& decoration, const Region& outline);

/// The board that is slid between the layers of a double-layer garment: it carries one layer to the platen, registered at
/// the table by collar notch, centre and shoulders. Nothing for other garments.
struct CarryBoard {
    Drawing whole;  ///< mm, in the garment's frame
    Rect board;
    TemplateLayout layout;
    std::vector<GuidePage> tiles;
};
std::optional<CarryBoard> carry_board(const Order& order, const Decoration& decoration, const DecorationFit& fit, const SizeFit& size);

/// One page for a run: every size with its designs at one scale, and the figures beneath.
GuidePage wall_chart(const Order& order, const FitPlan& plan, const RunKey& run);

}  // namespace orthema
