#include "cli/run.h"

#include <ctime>
#include <filesystem>
#include <iostream>

#include "core/supply/supply.h"
#include "files/library.h"
#include "files/order_book.h"
#include "files/record_book.h"
#include "files/stock_book.h"

namespace orthema {

int complain(const std::string& sentence) {
    std::cerr << "orthema-cli: " << sentence << "\n";
    return 2;
}

int unwritten(const std::string& sentence) {
    complain(sentence);
    return 3;
}

std::string today() {
    const std::time_t now = std::time(nullptr);
    char out[16];
    return {out, std::strftime(out, sizeof out, "%Y-%m-%d", std::localtime(&now))};
}

Result<Shop> shop_from(const std::string& path) {
    Shop shop;
    if (path.empty()) return shop;
    if (!std::filesystem::exists(path)) return Error{"There is no shop library at “" + path + "”."};
    if (const auto library = Library::open(path); !library) return library.error();
    const auto book = StockBook::open(path);
    if (!book) return book.error();
    auto stock = (*book)->all();
    if (!stock) return stock.error();
    const auto orders = OrderBook::open(path);
    const auto known = orders ? (*orders)->all() : Result<std::vector<KnownOrder>>(orders.error());
    if (!known) return known.error();
    const auto records = RecordBook::open(path);
    const auto all = records ? (*records)->records() : Result<std::vector<PressRecord>>(records.error());
    if (!all) return all.error();
    shop.stock = std::make_shared<const Stock>(std::move(*stock));
    shop.today = today();
    shop.open = open_orders(*known);
    shop.spoiled = spoilage(*all);
    return shop;
}

Result<OrderRun> run_order(const std::string& path, const std::string& library, const Language* language) {
    auto shop = shop_from(library);
    if (!shop) return shop.error();
    auto package = open_order(path);
    if (!package) return package.error();
    OrderRun run;
    run.package = std::move(*package);
    run.package.order.unit.language = language;
    run.pictures = read_all_art(run.package.order, run.package.art);
    run.shop = std::move(*shop);
    run.work = work(run.package.order, run.shop, run.pictures.known);
    return run;
}

}  // namespace orthema
