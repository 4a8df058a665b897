// The near side of the heavy module: loads it once, and hands the calls on.
#include "files/heavy/heavy.h"
#include "files/module_door.h"

namespace orthema {

namespace {

const heavy::Door& door() {
    static const heavy::Door& open = module_door<heavy::Door>("liborthema_heavy.so", "orthema_heavy_door");
    return open;
}

}  // namespace

Result<OrderPackage> open_order(const std::string& path) { return door().open_order(path); }
Result<Done> save_order(const std::string& path, const Order& order, const ArtBytes& art, const OrderRecords& records) {
    return door().save_order(path, order, art, records);
}
Result<std::vector<SheetRows>> read_spreadsheet(const std::string& bytes) { return door().read_spreadsheet(bytes); }

}  // namespace orthema
