// The demo shop: the fair's order and its neighbours' on one desk, with a stock that lacks one thing and a shelf with some transfers; as a
// whole shop that the window restores.
// usage: demo_shop DEMO-FOLDER WORK-FOLDER OUT-FILE
#include <filesystem>

#include "whole_window.h"

using namespace orthema;
using namespace orthema::app;

namespace {

StockEntry roll(const std::string& medium, int number, const char* place) {
    StockEntry e;
    e.kind = StockKind::roll;
    e.medium = medium;
    e.id = "roll/" + medium + "/" + std::to_string(number);
    e.name = "Roll " + std::to_string(number);
    e.place = place;
    return e;
}

StockEntry jar(const char* name, const char* unit, double per_dm2) {
    StockEntry e;
    e.kind = StockKind::supply;
    e.method = "direct-to-film";
    e.id = std::string("supply/direct-to-film/") + (unit == std::string("g") ? "powder" : "ink");
    e.name = name;
    e.unit = unit;
    e.per_dm2 = per_dm2;
    return e;
}

}  // namespace

int main(int argc, char** argv) {
    QApplication application(argc, argv);
    if (argc < 4) return 2;
    namespace fs = std::filesystem;
    const fs::path demo = argv[1], work = argv[2];
    fs::create_directories(work);
    WholeWindow whole(application);
    Workroom& room = whole.room;
    const auto wait = [&] {
        whole.wait(100);
        room.stock().flush();
        whole.wait(100);
    };
    wait();
    room.stock().set_today("2027-05-20");
    std::vector<fs::path> orders;
    for (const auto& file : fs::directory_iterator(demo / "neighbours")) {
        fs::copy_file(file.path(), work / file.path().filename(), fs::copy_options::overwrite_existing);
        orders.push_back(work / file.path().filename());
    }
    room.keeper().open(QString::fromStdString((demo / "marrow-hill").string()));
    wait();
    // what the fair printed for the race team's practice day, and did not press
    std::vector<LeftOver> left;
    for (const Transfer& t : room.transfer_set().transfers)
        if (keeps_days(room.order(), t) > 0 && left.size() < 7) left.push_back({t.id, {}, 2 + int(left.size()) % 3 * 2});
    room.stock().to_shelf(left, true);
    wait();
    int shelf = 0;
    for (const StockEntry& bag : room.stock().stock().entries)
        if (bag.kind == StockKind::transfers) {
            const std::string place = "drawer " + std::to_string(1 + shelf++ / 3);
            room.stock().change(bag.id, [place](StockEntry& e) {
                e.place = place;
                e.from = "Practice day";
            });
        }
    room.keeper().save(QString::fromStdString((work / "marrow-hill-kite-fair.orthema").string()));
    wait();
    for (const fs::path& order : orders) {
        room.keeper().open(QString::fromStdString(order.string()));
        wait();
    }
    std::map<std::string, double> wanted;
    std::map<std::string, Want> named;
    for (const OpenOrder& o : room.stock().shop().open.all())
        for (const Want& w : o.wants) {
            wanted[w.item] += w.amount;
            named[w.item] = w;
        }
    std::vector<Counted> counted{{roll("film-559", 1, "rack"), 1400},
                                 {roll("film-559", 2, "rack"), 38000},
                                 {jar("Powder", "g", 0.3), 2400},
                                 {jar("Ink", "ml", 0.18), 900}};
    for (const BlankStyle& s : room.library().content().styles)
        for (const BlankColour& c : s.colours)
            for (const std::string& size : s.sizes) {
                const auto at = wanted.find(blanks_id(s.id, c.name, size));
                if (at == wanted.end()) continue;
                StockEntry e;
                e.kind = StockKind::blanks;
                e.id = at->first;
                e.style = s.id;
                e.colour = c.name;
                e.size = size;
                e.name = named[at->first].name;
                const bool lacking = s.id == "youth-tee" && c.name == "sun" && size == "M";
                counted.push_back({e, lacking ? at->second - 3 : at->second + int(at->second) % 4});
            }
    room.stock().count(counted);
    wait();
    room.back_up_shop(QString::fromLocal8Bit(argv[3]));
    wait();
    return fs::exists(argv[3]) ? 0 : 1;
}
