// A whole shop in one file: the library with records, stock and the list of orders, and the orders themselves. The file is an SQLite
// database: the library's own tables and one of files (docs/library-format.md).
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"

namespace orthema {

struct BackupReport {
    int orders = 0;
    std::vector<std::string> missing;  ///< paths of orders that are not where they were; they are left out
};
/// Written whole or not at all, in place of what lies there. Other programs may go on with the library meanwhile.
Result<BackupReport> back_up_shop(const std::string& library_path, const std::string& to);

struct RestoreReport {
    int orders = 0;
    std::string before;  ///< where the library lies that was there; empty: none was
};
/// The shop of a backup in place of the library that lies at this path, which is moved beside. Orders are written into the folder, never
/// over another file: one that is there already just so is taken for it, else the name gets a number. A file that is no whole backup
/// changes nothing.
Result<RestoreReport> restore_shop(const std::string& backup, const std::string& library_path, const std::string& orders_folder);

}  // namespace orthema
