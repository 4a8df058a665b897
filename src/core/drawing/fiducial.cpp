#include "core/drawing/fiducial.h"

#include <apriltag/apriltag.h>
#include <apriltag/tag36h11.h>

#include <memory>

#include "core/drawing/code2d.h"

namespace orthema {

std::vector<std::vector<bool>> fiducial(int id) {
    static const std::unique_ptr<apriltag_family_t, decltype(&tag36h11_destroy)> family(tag36h11_create(), &tag36h11_destroy);
    const std::unique_ptr<image_u8_t, decltype(&image_u8_destroy)> image(apriltag_to_image(family.get(), static_cast<std::uint32_t>(id)),
                                                                         &image_u8_destroy);
    std::vector<std::vector<bool>> out(fiducial_cells, std::vector<bool>(fiducial_cells));
    for (int y = 0; y < fiducial_cells; ++y)
        for (int x = 0; x < fiducial_cells; ++x)
            out[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] = image->buf[(y + 1) * image->stride + x + 1] < 128;
    return out;
}

void draw_fiducial(Drawing& to, int id, Point at, double side) { draw_cells(to, fiducial(id), at, side / fiducial_cells); }

}  // namespace orthema
