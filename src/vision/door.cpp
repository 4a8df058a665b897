#include "vision/vision.h"

extern "C" const orthema::vision::Door* orthema_vision_door() {
    using namespace orthema;
    static const vision::Door door{&vision::find_table, &vision::measure_blank, &vision::find_design};
    return &door;
}
