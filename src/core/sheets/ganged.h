// A gang's layouts: those of its jobs behind one another, and out of them again. The sets of transfers are those of the gang.
#pragma once

#include "core/sheets/sheets.h"

namespace orthema {

/// The gang with the layouts that this job came with, on sheets behind those that it has. Copies whose transfer is gone are left out;
/// what filled before fills on.
Order with_job_laid(const Order& gang, const TransferSet& set, const std::string& job);

/// The job's layouts by its own names: its copies on the sheets that they lie on, counted anew. Just those that it came with where they
/// lie as they did; else without its fillings.
std::vector<MediumLayout> layouts_of_job(const Order& gang, const TransferSet& set, const std::string& job);

/// The gang's layouts without the job's copies and by the names that the others' transfers then have; the gang is otherwise as it was.
Order without_copies_of(const Order& gang, const TransferSet& set, const std::string& job);

}  // namespace orthema
