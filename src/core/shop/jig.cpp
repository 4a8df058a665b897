#include "core/shop/jig.h"

namespace orthema {

std::optional<Words> jig_fault(const Jig& j, double blank_width, double blank_height) {
    const double w = j.slot_width.mm() > 0 ? j.slot_width.mm() : blank_width;
    const double h = j.slot_height.mm() > 0 ? j.slot_height.mm() : blank_height;
    const auto said = [&](const char* code, double wide, double high, double width = 0, double height = 0) {
        return Words{code, {{"jig", j.name}, {"wide", Fine{wide}}, {"high", Fine{high}}, {"width", Fine{width}}, {"height", Fine{height}}}};
    };
    if (j.rows < 1 || j.columns < 1) return said("jig-no-slots", 0, 0);
    if (!(w > 0) || !(h > 0)) return said("jig-no-size", 0, 0);
    if (w + 0.01 < blank_width || h + 0.01 < blank_height) return said("jig-tight", w, h, blank_width, blank_height);
    if ((j.columns > 1 && j.pitch_x.mm() < w) || (j.rows > 1 && j.pitch_y.mm() < h)) return said("jig-overlap", w, h);
    const double all_w = (j.columns - 1) * j.pitch_x.mm() + w + 2 * j.margin.mm();
    const double all_h = (j.rows - 1) * j.pitch_y.mm() + h + 2 * j.margin.mm();
    if (all_w > j.backer_width.mm() + 0.01 || all_h > j.backer_height.mm() + 0.01)
        return said("jig-off-backer", all_w, all_h, j.backer_width.mm(), j.backer_height.mm());
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
