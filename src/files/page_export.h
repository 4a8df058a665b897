// Pages and pixels: PDF at 1:1 with vector art kept vector, PNG with alpha in bands, cut lines as SVG and DXF.
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

#include "core/drawing/drawing.h"
#include "core/base/result.h"
#include "core/base/task.h"
#include "core/guides/guides.h"
#include "core/sheets/cut_path.h"
#include "files/art_file.h"

namespace orthema {

/// One PDF page for each drawing (millimetres, 1:1). Art that appears more than once is stored once.
Result<Done> write_pdf(const std::string& path, const std::vector<const Drawing*>& pages, const LoadedArtById& art,
                       const std::string& title, const Task& task = {});

/// The same of pages that were drawn as guides are.
Result<Done> write_pages(const std::string& path, const std::vector<GuidePage>& pages, const LoadedArtById& art, const std::string& title,
                         const Task& task = {});

/// PNG with alpha, `dpi` pixels to the inch, pHYs set. Rendered in bands on a second thread while the last band is
/// compressed, so that memory stays bounded however long the page.
Result<Done> write_png(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task = {});

/// TIFF with straight alpha, otherwise as write_png(); of the large kind where it may pass 4 GB.
Result<Done> write_tiff(const std::string& path, const Drawing& page, const LoadedArtById& art, double dpi, const Task& task = {});

/// Rows of a page as they are drawn: premultiplied alpha, red, green, blue in one word each.
struct PixelBand {
    const std::uint32_t* pixels = nullptr;
    int width = 0, first = 0, rows = 0;
};
/// Uses one band; false: no more are wanted.
using PixelRows = std::function<bool(const PixelBand&)>;
/// Draws a page from the top, band by band, and hands each on.
Result<Done> draw_rows(const Drawing& page, const LoadedArtById& art, double dpi, const PixelRows& take, const Task& task = {});

/// Closed contours in mm, in the order in which they are cut: SVG (one path each, class "inside" or "outside", y down),
/// DXF R12 (closed polylines on layers CUT_INSIDE and CUT_OUTSIDE, y up, so that both look the same way round) and HPGL
/// (1/40 mm, y up, pen 1). `width` and `height` are the page's. Register marks, by their middles, are class "register" and layer
/// REGISTER; a plotter's file has none.
Result<Done> write_cut_svg(const std::string& path, const std::vector<CutStep>& cuts, double width, double height, const std::string& title,
                           const std::vector<Point>& registers = {});
Result<Done> write_cut_dxf(const std::string& path, const std::vector<CutStep>& cuts, double height,
                           const std::vector<Point>& registers = {});
Result<Done> write_cut_plt(const std::string& path, const std::vector<CutStep>& cuts, double height);
std::string cut_plt(const std::vector<CutStep>& cuts, double height);

}  // namespace orthema
