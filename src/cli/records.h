// Records from the command line: of an order or of a shop library.
#pragma once

#include <string>

#include "core/records/press_record.h"

namespace orthema {

/// Lists them, or writes them to `out` (.csv or .json); the exit code.
int list_records(const std::string& source, const RecordFilter& filter, const std::string& out, bool as_json);
/// Where pieces land, how much comes out clean, what drifted, what is proposed; the exit code.
int report_records(const std::string& source, const RecordFilter& filter, bool as_json);

}  // namespace orthema
