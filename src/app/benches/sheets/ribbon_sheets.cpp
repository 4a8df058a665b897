#include "app/benches/sheets/ribbon_sheets.h"

namespace orthema::app {

const Medium* medium_of(const Workroom& room) { return find_medium(room.order(), room.selection().medium); }

const MediumPlan* plan_of(const Workroom& room) {
    for (const MediumPlan& m : room.sheets().media)
        if (m.medium == room.selection().medium) return &m;
    return nullptr;
}

const std::vector<PlacedCopy>& copies_of(const Workroom& room) {
    static const std::vector<PlacedCopy> none;
    for (const MediumLayout& l : room.order().layouts)
        if (l.medium == room.selection().medium) return l.copies;
    return none;
}

RibbonSheets ribbon_sheets(const Workroom& room) {
    RibbonSheets out;
    const Medium* medium = medium_of(room);
    if (medium == nullptr) return out;
    const MediumLayout layout = layout_of(room.order(), medium->id);
    const int count = std::max(1, sheet_count(layout.copies));
    std::vector<double> ends(std::size_t(count), 0);
    const std::vector<Rect> boxes = laid_boxes(*medium, room.transfer_set(), layout.copies);
    for (std::size_t i = 0; i < boxes.size(); ++i) {
        double& end = ends[std::size_t(layout.copies[i].sheet)];
        end = std::max(end, boxes[i].x1 + medium->margin.mm());
    }
    double x = 0;
    for (int i = 0; i < count; ++i) {
        const std::string stock = stock_of(layout.stock, i);
        const Bed bed = bed_of(*medium, stock);
        out.starts.push_back(x);
        out.lengths.push_back(bed.medium.shape == MediumShape::sheet ? bed.medium.length.mm() : std::max(ends[std::size_t(i)], 100.0));
        out.widths.push_back(bed.medium.width.mm());
        out.shapes.push_back(bed.shape);
        out.names.emplace_back();
        for (const StockItem& s : medium->laying.stock)
            if (s.id == stock) out.names.back() = s.name;
        out.width = std::max(out.width, out.widths.back());
        x += out.lengths.back() + sheet_gap;
    }
    out.total = x - sheet_gap;
    return out;
}

Result<TrimPlan> cuts_of_sheet(const Workroom& room, int sheet) {
    const Medium* medium = medium_of(room);
    if (const MediumPlan* plan = plan_of(room); plan != nullptr && medium != nullptr)
        for (const Sheet& s : plan->sheets)
            if (s.number == sheet) return sheet_cuts(*medium, room.transfer_set(), s);
    return Error{"There is no such sheet."};
}

}  // namespace orthema::app
