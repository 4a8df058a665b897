// Everything an order exports, in one action: gang sheets, cut lines, guides, tables.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/task.h"
#include "core/pipeline/work.h"
#include "files/art_file.h"

namespace orthema {

struct ExportChoice {
    bool sheets_pdf = true, sheets_png = true, cut_lines = true, guides = true, tables = true;
    double dpi = 300;
    bool sheets_tiff = false;
    bool labels = true;                   ///< beside the pieces, on sheets that are printed
    bool press = true;                    ///< run sheet, press plan, pick list and calendar
    bool templates_svg = false;           ///< each template whole, in a folder of its own
    std::string guide_order = "garment";  ///< of cards and templates: "garment", "location" or "press"
    bool papers = true;                   ///< quote, job ticket and sheet for approval, of each job
    std::vector<std::string> media = {};  ///< ids whose sheets are written; none: of all
};

struct ExportReport {
    std::vector<std::string> files;        ///< paths, in the order written
    std::vector<std::string> unchanged;    ///< paths of what lay there from the export before, and would come out the same
    std::vector<std::string> from_before;  ///< names of what an export before wrote there and this one does not
    Findings findings;
};

/// Writes into `folder`, which is made when it is not there; what lies there unchanged from the export before stays. A stale or empty
/// layout exports no sheets of that medium and says so. `before` is the work of the order so far: what holds of it is not made again.
/// Stopping leaves the files that are whole and no others. The report has every finding of the work, and what the writing found.
Result<ExportReport> export_order(const std::string& folder, const Order& order, const Shop& shop, const LoadedArtById& art,
                                  const ExportChoice& choice, const Task& task = {}, const Work* before = nullptr);

}  // namespace orthema
