#include "files/heavy/heavy.h"

extern "C" const orthema::heavy::Door* orthema_heavy_door() {
    using namespace orthema;
    static const heavy::Door door{&heavy::open_order, &heavy::save_order, &heavy::read_spreadsheet};
    return &door;
}
