#include "app/sheets/ribbon_sheets.h"

namespace orthema::app {

const std::vector<PlacedCopy>& copies_of(const Workroom& room) {
    static const std::vector<PlacedCopy> none;
    for (const MediumLayout& l : room.order().layouts)
        if (l.medium == room.selection().medium) return l.copies;
    return none;
}

RibbonSheets ribbon_sheets(const Workroom& room) {
    RibbonSheets out;
    const Medium* medium = find_medium(room.order(), room.selection().medium);
    if (medium == nullptr) return out;
    out.width = medium->width.mm();
    int count = 1;
    for (const PlacedCopy& c : copies_of(room)) count = std::max(count, c.sheet + 1);
    std::vector<double> ends(std::size_t(count), 0);
    const TransferIndex index(room.transfer_set());
    for (const PlacedCopy& c : copies_of(room))
        if (const Transfer* t = index.find(c.transfer)) {
            const Rect box = bounds(t->contour.outer);
            const Affine map = copy_map(c);
            for (const Point p : {Point{box.x0, box.y0}, Point{box.x1, box.y1}})
                ends[std::size_t(c.sheet)] = std::max(ends[std::size_t(c.sheet)], map(p).x + medium->margin.mm());
        }
    double x = 0;
    for (const double end : ends) {
        out.starts.push_back(x);
        out.lengths.push_back(medium->shape == MediumShape::sheet ? medium->length.mm() : std::max(end, 100.0));
        x += out.lengths.back() + sheet_gap;
    }
    out.total = x - sheet_gap;
    return out;
}

}  // namespace orthema::app
