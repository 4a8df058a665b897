// The near side of the heavy module: loads it once, and hands the calls on.
#include <dlfcn.h>

#include <stdexcept>

#include "files/heavy/heavy.h"

namespace orthema {

namespace {

/// A program without its module was not built or installed whole: a fault of ours, not of the user.
const heavy::Door& door() {
    static const heavy::Door* const open = [] {
        void* module = ::dlopen("liborthema_heavy.so", RTLD_NOW | RTLD_LOCAL);
        if (module == nullptr) throw std::runtime_error(std::string("a part of the program is missing: ") + ::dlerror());
        auto* get = reinterpret_cast<const heavy::Door* (*)()>(::dlsym(module, "orthema_heavy_door"));
        if (get == nullptr) throw std::runtime_error("a part of the program is of another version: liborthema_heavy.so");
        return get();
    }();
    return *open;
}

}  // namespace

Result<OrderPackage> open_order(const std::string& path) { return door().open_order(path); }
Result<Done> save_order(const std::string& path, const Order& order, const ArtBytes& art, const OrderRecords& records) {
    return door().save_order(path, order, art, records);
}
Result<std::vector<SheetRows>> read_spreadsheet(const std::string& bytes) { return door().read_spreadsheet(bytes); }

}  // namespace orthema
