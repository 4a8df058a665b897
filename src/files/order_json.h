// The order, blanks, media, presses, methods and jigs as JSON. The format is documented in docs/order-format.md.
#pragma once

#include <nlohmann/json.hpp>

#include "core/base/result.h"
#include "core/order/order.h"

namespace orthema {

constexpr int order_format_version = 13;

nlohmann::json to_json(const Order& order);
nlohmann::json to_json(const BlankStyle& style);
nlohmann::json to_json(const Medium& medium);
nlohmann::json to_json(const Press& press);
nlohmann::json to_json(const Method& method);
nlohmann::json to_json(const Jig& jig);

/// Reads what to_json writes. Fails with a sentence that names the place ("decorations[2].sizing.step_mm") on a
/// missing or wrong field, an absurd number, or a newer version.
Result<Order> order_from_json(const nlohmann::json& json);
Result<BlankStyle> style_from_json(const nlohmann::json& json);
Result<Medium> medium_from_json(const nlohmann::json& json);
Result<Press> press_from_json(const nlohmann::json& json);
Result<Method> method_from_json(const nlohmann::json& json);
Result<Jig> jig_from_json(const nlohmann::json& json);

/// Parses text without exceptions; a sentence that begins with `name` on failure.
Result<nlohmann::json> parse_json(const std::string& text, const std::string& name);

}  // namespace orthema
