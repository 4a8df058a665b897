// Readers of single shop items, for the readers of orders; they throw Fault (json_in.h).
#pragma once

#include "core/order/order.h"
#include "files/json_in.h"

namespace orthema {

BlankStyle read_style(const In& in);
Medium read_medium(const In& in);
Press read_press(const In& in);
Method read_method(const In& in);
Jig read_jig(const In& in);
Layer read_layer(const In& in);
Making read_making(const In& in);
nlohmann::json to_json(const Layer& layer);
/// Only what differs from a plain print.
nlohmann::json to_json(const Making& making);

}  // namespace orthema
