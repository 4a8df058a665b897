// The mendings of a picture in an order file.
#pragma once

#include "core/artwork/mending.h"
#include "files/json_in.h"

namespace orthema {

/// Figures as usual are left out.
json to_json(const Mending& mending);
std::vector<Mending> read_mendings(const In& list);

}  // namespace orthema
