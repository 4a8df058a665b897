// A PDF as cairo wrote it, made to keep to the format.
#pragma once

#include <string>

namespace orthema::reader {

/// cairo names a picture again in a page's resources each time it is used, which the format forbids. Reading the pages
/// and writing them anew leaves each name once; it also packs the objects.
std::string tidied(const std::string& pdf);

}  // namespace orthema::reader
