// Media: what designs are printed on or cut from, with what it holds, who mirrors, and how it is laid.
#pragma once

#include <string>

#include "core/base/colour.h"
#include "core/base/length.h"
#include "core/shop/laying.h"

namespace orthema {

enum class MediumShape { roll, sheet };
/// Who mirrors a medium that is read through its carrier.
enum class MirrorBy { program, printer_software, nobody };

struct Medium {
    std::string id;
    std::string name;
    std::string method;  ///< method id
    MediumShape shape = MediumShape::roll;
    Length width;
    Length length;  ///< a roll's longest run, a sheet's height
    Length margin;
    Length gap;  ///< between pieces
    MirrorBy mirror = MirrorBy::program;
    bool quarter_turns = true;
    bool free_turns = false;                   ///< by any angle, in steps of three degrees; where quarter turns are allowed
    double price = 0;                          ///< a metre of roll, or a sheet
    Length min_stroke = Length::from_mm(0.5);  ///< thinner strokes do not hold
    Length min_gap = Length::from_mm(0.5);     ///< narrower gaps close
    Length cut_width, cut_length;              ///< the cutter's largest area; 0 where nothing limits it
    Length taped_at;                           ///< two sheets taped: where the seam lies along the feed; 0: one sheet
    Length taped_lap = Length::from_mm(8);     ///< how far the seam reaches to both sides of that
    Colour tint{1, 1, 1, 1};                   ///< of a sheet that is cut, not printed
    Length cut_offset = Length::from_mm(2);    ///< from the ink to the line that is cut
    Laying laying;
    std::string batch;  ///< of the roll or box in use; empty: not said
    bool operator==(const Medium&) const = default;
};

}  // namespace orthema
