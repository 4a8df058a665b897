// Size charts as tables: written one row a size, read in either direction, in inches, centimetres or millimetres.
#pragma once

#include "core/blanks/style.h"
#include "files/csv.h"

namespace orthema {

/// "size, Chest (mm), Chest measured (mm), …": published figures, and measured ones where there are any.
std::string chart_csv(const BlankStyle& style);

struct ChartImport {
    BlankStyle style;
    std::vector<Words> said;  ///< what was understood and what was not, one sentence each
};

/// Reads a size chart for a blank of `like`'s family. Rows may be sizes or measures. Measures are known by their names,
/// keys and the usual words ("width" is the chest of a tee); the unit by the header, the cells, or the one that puts the
/// figures nearest to those of `like`. Sizes that `like` lacks are continued from its run; measures that the chart lacks
/// follow `like` in proportion to the main measure. Published figures are replaced, measured ones stay. The family,
/// features, colours and name of `like` come along. Fails with a sentence where no size or no measure is found.
Result<ChartImport> import_chart(const Table& table, const BlankStyle& like);

}  // namespace orthema
