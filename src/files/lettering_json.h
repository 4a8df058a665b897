// A lettering in an order file.
#pragma once

#include "core/artwork/lettering.h"
#include "files/json_in.h"

namespace orthema {

json to_json(const Lettering& lettering);
Lettering read_lettering(const In& in);

}  // namespace orthema
