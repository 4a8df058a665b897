#include "files/heavy/heavy.h"

extern "C" const orthema::heavy::Door* orthema_heavy_door() {
    using namespace orthema;
    static const heavy::Door door{&heavy::load_art,  &heavy::open_order, &heavy::save_order, &heavy::write_pdf,
                                  &heavy::write_png, &heavy::write_tiff, &heavy::draw_rows,  &heavy::read_spreadsheet};
    return &door;
}
