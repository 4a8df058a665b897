// A photograph as it comes from a camera.
#pragma once

#include <optional>

#include "core/artwork/pixel_image.h"

namespace orthema {

struct Photo {
    PixelImage image;                ///< as it is to be seen
    std::optional<double> focal_px;  ///< in pixels of this picture, where the file says it
};

}  // namespace orthema
