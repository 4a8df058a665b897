// Guides beyond the single size: platen maps, master templates of a band, and the wall chart of a run.
#pragma once

#include "core/guides/guides.h"
#include "core/guides/platen_map.h"

namespace orthema {

/// The sizes of a decoration on their platens, some to a page.
std::vector<GuidePage> platen_map_pages(const Order& order, const FitPlan& plan, const Decoration& decoration);

/// A template at real size about the ink of one band: every size of it with a collar line and a pit line of its own.
struct MasterTemplate {
    std::vector<std::string> sizes;
    Drawing whole;  ///< mm, the ink box's top left at the origin
    TemplateLayout layout;
    std::vector<GuidePage> tiles;
    std::vector<std::pair<std::string, double>> collar;  ///< by size: how far its collar seam lies above the ink, mm
};
/// One for each band of the decoration.
std::vector<MasterTemplate> master_templates(const Order& order, const FitPlan& plan, const Decoration& decoration, const Region& outline);
/// Those of them that serve several sizes with fewer sheets than the templates of these sizes take: printed in their place.
std::vector<MasterTemplate> masters_that_serve(std::vector<MasterTemplate> masters, const GuideSet& guides, const std::string& decoration);

/// One page for a run: every size with its designs at one scale, and the figures beneath.
GuidePage wall_chart(const Order& order, const FitPlan& plan, const RunKey& run);

}  // namespace orthema
