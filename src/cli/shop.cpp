#include "cli/shop.h"

#include <filesystem>
#include <iostream>

#include "cli/run.h"
#include "core/pipeline/order_papers.h"
#include "files/json_in.h"
#include "files/library.h"
#include "files/order_book.h"
#include "files/page_export.h"
#include "files/record_book.h"
#include "files/safe_file.h"
#include "files/shop_backup.h"
#include "files/stock_book.h"

namespace orthema {

namespace {

json entry_words(const StockEntry& e) {
    json j{{"id", e.id}, {"kind", stock_kind_key(e.kind)}, {"name", e.name}, {"on_hand", e.on_hand}, {"spoiled", e.spoiled}};
    if (e.kind == StockKind::transfers) {
        j["held"] = still_held(e);
        j["width_mm"] = e.mark.width;
        j["printed"] = e.printed;
        j["until"] = e.until;
    }
    if (!e.place.empty()) j["place"] = e.place;
    return j;
}

}  // namespace

int print_stock(const std::string& path, const std::string& count_from, const std::string& out, bool buying, bool as_json) {
    if (!std::filesystem::exists(path)) return complain("There is no shop library at “" + path + "”.");
    const auto library = Library::open(path);
    if (!library) return complain(library.sentence());
    const auto content = (*library)->content();
    if (!content) return complain(content.sentence());
    const auto book = StockBook::open(path);
    if (!book) return complain(book.sentence());
    if (!count_from.empty()) {
        const auto text = read_file(count_from);
        if (!text) return complain(text.sentence());
        const auto counted = stock_from_csv(*text, content->styles, content->media);
        if (!counted) return complain(counted.sentence());
        if (auto done = (*book)->count(*counted, today()); !done) return complain(done.sentence());
    }
    const auto stock = (*book)->all();
    if (!stock) return complain(stock.sentence());
    std::vector<ToBuy> rows;
    if (buying) {
        const auto shop = shop_from(path);
        if (!shop) return complain(shop.sentence());
        rows = to_buy(stock_in(*shop), shop->open.all(), shop->spoiled);
    }
    const std::string table = buying ? to_buy_csv(rows) : stock_csv(*stock);
    if (!out.empty()) {
        if (auto done = write_file(out, table); !done) return unwritten(done.sentence());
    } else if (as_json) {
        json list = json::array();
        if (buying)
            for (const ToBuy& r : rows)
                list.push_back({{"item", r.item},
                                {"name", r.name},
                                {"asked", r.asked},
                                {"spare", r.spare},
                                {"on_hand", r.on_hand},
                                {"to_buy", r.lacking},
                                {"orders", r.orders}});
        else
            for (const StockEntry& e : stock->entries) list.push_back(entry_words(e));
        std::cout << json_text(list, 1) << "\n";
    } else {
        std::cout << table;
    }
    return 0;
}

int print_quote(const std::string& path, const std::string& shop, const std::string& job, const std::string& pdf, bool what_if,
                bool as_json) {
    const auto run = run_order(path, shop);
    if (!run) return complain(run.sentence());
    const Order& order = run->package.order;
    if (!job.empty() && find_job(order, job) == nullptr) return complain("There is no job “" + job + "” in it.");
    const Work& w = run->work;
    const Quote quote = quote_of(order, w, job);
    if (!pdf.empty()) {
        const auto pages = quote_pages(paper_of(order, w, job), quote);
        if (auto done = write_pages(pdf, pages, run->pictures.art, order.name + ", quote"); !done) return unwritten(done.sentence());
    }
    const auto money = [](Pence p) { return static_cast<double>(p) / 100; };
    json ways = json::array();
    if (what_if)
        for (const Otherwise& way : otherwise(order, w.plan(), run->pictures.known->facts)) {
            const Quote q = quote_of(way.order, work(way.order, run->shop, run->pictures.known));
            ways.push_back({{"name", way.name}, {"pieces", q.pieces()}, {"cost", q.cost}, {"price", money(q.before_tax())}});
        }
    if (as_json) {
        json lines = json::array();
        for (const LinePrice& l : quote.lines)
            lines.push_back({{"run", run_name(order, l.run)},
                             {"size", l.size},
                             {"pieces", l.pieces},
                             {"each", money(l.each)},
                             {"cost",
                              {{"film", l.cost.film},
                               {"ink", l.cost.ink},
                               {"blank", l.cost.blank},
                               {"work", l.cost.work},
                               {"set_up", l.cost.set_up},
                               {"spoilage", l.cost.spoilage},
                               {"total", l.cost.total()}}}});
        std::cout << json_text(json{{"lines", lines},
                                    {"set_up", money(quote.set_up)},
                                    {"before_tax", money(quote.before_tax())},
                                    {"tax", money(quote.tax)},
                                    {"total", money(quote.total())},
                                    {"cost", quote.cost},
                                    {"margin", quote.margin()},
                                    {"otherwise", ways}},
                               1)
                  << "\n";
        return 0;
    }
    for (const LinePrice& l : quote.lines)
        std::cout << l.pieces << " × " << run_name(order, l.run) << " " << l.size << ": " << pence_text(l.each, order.currency)
                  << " each, costs " << pence_text(std::llround(100 * l.cost.total()), order.currency) << "\n";
    std::cout << "together " << pence_text(quote.total(), order.currency) << ", costs "
              << pence_text(std::llround(100 * quote.cost), order.currency) << "\n";
    for (const json& way : ways)
        std::cout << way["name"].get<std::string>() << ": costs "
                  << pence_text(std::llround(100 * way["cost"].get<double>()), order.currency) << ", sold for "
                  << pence_text(std::llround(100 * way["price"].get<double>()), order.currency) << "\n";
    return 0;
}

int back_up(const std::string& library, const std::string& to, bool as_json) {
    if (!std::filesystem::exists(library)) return complain("There is no shop library at “" + library + "”.");
    const auto done = back_up_shop(library, to);
    if (!done) return complain(done.sentence());
    if (as_json)
        std::cout << json_text(json{{"orders", done->orders}, {"missing", done->missing}}, 1) << "\n";
    else
        std::cout << done->orders << " orders and the library\n";
    for (const std::string& m : done->missing) std::cerr << "orthema-cli: “" << m << "” is not where it was, and is left out.\n";
    return 0;
}

int restore(const std::string& backup, const std::string& library, const std::string& folder, bool as_json) {
    const auto done = restore_shop(backup, library, folder);
    if (!done) return complain(done.sentence());
    if (as_json)
        std::cout << json_text(json{{"orders", done->orders}, {"before", done->before}}, 1) << "\n";
    else
        std::cout << done->orders << " orders" << (done->before.empty() ? "" : "; what was there lies at " + done->before) << "\n";
    return 0;
}

}  // namespace orthema
