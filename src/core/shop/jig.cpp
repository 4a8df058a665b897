#include "core/shop/jig.h"

#include "core/base/units.h"

namespace orthema {

std::optional<std::string> jig_fault(const Jig& j, double blank_width, double blank_height) {
    const double w = j.slot_width.mm() > 0 ? j.slot_width.mm() : blank_width;
    const double h = j.slot_height.mm() > 0 ? j.slot_height.mm() : blank_height;
    if (j.rows < 1 || j.columns < 1) return "A jig has at least one row and one column of slots.";
    if (!(w > 0) || !(h > 0)) return "The slots of “" + j.name + "” have no size: give them one, or choose a blank that has.";
    if (w + 0.01 < blank_width || h + 0.01 < blank_height)
        return "The slots of “" + j.name + "” are " + mm_text(w, 1) + " × " + mm_text(h, 1) + " mm, smaller than the blank (" +
               mm_text(blank_width, 1) + " × " + mm_text(blank_height, 1) + " mm): it will not go in.";
    if ((j.columns > 1 && j.pitch_x.mm() < w) || (j.rows > 1 && j.pitch_y.mm() < h))
        return "The slots of “" + j.name + "” overlap: the pitch must be at least " + mm_text(w, 1) + " × " + mm_text(h, 1) + " mm.";
    const double all_w = (j.columns - 1) * j.pitch_x.mm() + w + 2 * j.margin.mm();
    const double all_h = (j.rows - 1) * j.pitch_y.mm() + h + 2 * j.margin.mm();
    if (all_w > j.backer_width.mm() + 0.01 || all_h > j.backer_height.mm() + 0.01)
        return "The slots of “" + j.name + "” need " + mm_text(all_w, 1) + " × " + mm_text(all_h, 1) + " mm, the backer has " +
               mm_text(j.backer_width.mm(), 1) + " × " + mm_text(j.backer_height.mm(), 1) +
               " mm: take rows or columns out, narrow the pitch, or use a larger backer.";
    return std::nullopt;
}

Point slot_middle(const Jig& j, int slot) {
    const int row = slot / j.columns, column = slot % j.columns;
    const double x0 = j.backer_width.mm() / 2 - (j.columns - 1) * j.pitch_x.mm() / 2;
    const double y0 = j.backer_height.mm() / 2 - (j.rows - 1) * j.pitch_y.mm() / 2;
    return {x0 + column * j.pitch_x.mm(), y0 + row * j.pitch_y.mm()};
}

int slot_behind(const Jig& j, int slot) { return slot / j.columns * j.columns + (j.columns - 1 - slot % j.columns); }

}  // namespace orthema
