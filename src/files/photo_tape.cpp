#include "files/photo_tape.h"

#include "files/module_door.h"

namespace orthema {

namespace {

const vision::Door& vision_door() {
    static const vision::Door& open = module_door<vision::Door>("liborthema_vision.so", "orthema_vision_door");
    return open;
}

}  // namespace

Result<TableSeen> find_table(const Photo& photo, const Task& task) { return vision_door().find_table(photo, task); }
Result<BlankSeen> measure_blank(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task) {
    return vision_door().measure_blank(photo, table, asked, task);
}
Result<DesignSeen> find_design(const Photo& photo, const TableSeen& table, const BlankSeen& blank, const DesignAsked& asked,
                               const Task& task) {
    return vision_door().find_design(photo, table, blank, asked, task);
}

Panel measured_panel(const BlankAsked& asked, const BlankSeen& seen) {
    Measures m = asked.expected;
    for (const auto& [which, f] : seen.figures)
        if (m.contains(which)) m[which].value = Length::from_mm(f.mm);
    return family_panel(asked.family, m, asked.face, asked.other_side);
}

}  // namespace orthema
