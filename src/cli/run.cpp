#include "cli/run.h"

#include <iostream>

namespace orthema {

int complain(const std::string& sentence) {
    std::cerr << "orthema-cli: " << sentence << "\n";
    return 2;
}

Result<OrderRun> run_order(const std::string& path) {
    auto package = open_order(path);
    if (!package) return package.error();
    OrderRun run;
    run.package = std::move(*package);
    run.pictures = read_all_art(run.package.order, run.package.art);
    run.work = work(run.package.order, Shop{}, run.pictures.known);
    return run;
}

}  // namespace orthema
