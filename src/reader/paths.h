// Areas as a path of cairo.
#pragma once

#include <cairo.h>

#include "core/geometry/geometry.h"

namespace orthema::reader {

/// Adds a closed ring to the path.
inline void add(cairo_t* cr, const Ring& ring) {
    for (std::size_t i = 0; i < ring.size(); ++i) (i == 0 ? cairo_move_to : cairo_line_to)(cr, ring[i].x, ring[i].y);
    cairo_close_path(cr);
}
inline void add(cairo_t* cr, const Region& region) {
    for (const Polygon& p : region) {
        add(cr, p.outer);
        for (const Ring& hole : p.holes) add(cr, hole);
    }
}

}  // namespace orthema::reader
