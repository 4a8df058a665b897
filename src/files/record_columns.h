// The fields of a press record as columns, listed once for the database, for JSON and for tables.
#pragma once

#include <functional>
#include <string>
#include <variant>
#include <vector>

#include "core/records/press_record.h"

namespace orthema {

/// Nothing, a number, or text.
using Cell = std::variant<std::monostate, double, std::string>;

struct RecordColumn {
    const char* name;
    bool number;
    std::function<Cell(const PressRecord&)> get;
    /// False where the cell cannot be such a field.
    std::function<bool(PressRecord&, const Cell&)> set;
};
const std::vector<RecordColumn>& record_columns();

}  // namespace orthema
