// How a medium is laid, and layouts, as JSON: parts of the order's and the library's files.
#pragma once

#include "core/order/order.h"
#include "files/json_in.h"

namespace orthema {

Laying read_laying(const In& in);
json to_json(const Laying& laying);
MediumLayout read_layout(const In& in);
json to_json(const MediumLayout& layout);

}  // namespace orthema
