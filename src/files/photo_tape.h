// Photographs to measure from: read by the picture reader, measured by the module that is loaded when the first one comes.
#pragma once

#include "files/art_file.h"
#include "vision/vision.h"

namespace orthema {

/// A picture's pixels as it is to be seen, at most 26 million. Fails with a sentence that begins with `name`.
Result<Photo> read_photo(const Bytes& bytes, const std::string& name);

/// As the functions of the same name in vision/vision.h.
Result<TableSeen> find_table(const Photo& photo, const Task& task = {});
Result<BlankSeen> measure_blank(const Photo& photo, const TableSeen& table, const BlankAsked& asked, const Task& task = {});
Result<DesignSeen> find_design(const Photo& photo, const TableSeen& table, const BlankSeen& blank, const DesignAsked& asked,
                               const Task& task = {});

/// The panel of the piece as it is: what was measured of it in place of what its chart says.
Panel measured_panel(const BlankAsked& asked, const BlankSeen& seen);

}  // namespace orthema
