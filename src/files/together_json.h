// A print put together, in an order file.
#pragma once

#include "core/artwork/put_together.h"
#include "files/json_in.h"

namespace orthema {

json to_json(const PutTogether& print);
PutTogether read_together(const In& in);

}  // namespace orthema
