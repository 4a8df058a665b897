// Times of many records: kept, read back, filtered, judged, drawn; beside writing and parsing the same as JSON. usage: record_bench FOLDER
// [RECORDS]
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <filesystem>

#include "core/records/lessons.h"
#include "core/records/plots.h"
#include "files/library.h"
#include "files/record_book.h"
#include "many_records.h"

using namespace orthema;

int main(int argc, char** argv) {
    if (argc < 2) return 2;
    const int count = argc > 2 ? std::atoi(argv[2]) : 100000;
    const std::string path = std::string(argv[1]) + "/shop.sqlite";
    std::filesystem::create_directories(argv[1]);
    std::filesystem::remove(path);
    const auto timed = [](const char* what, auto work) {
        const auto from = std::chrono::steady_clock::now();
        work();
        std::printf("%-44s %8.1f ms\n", what, std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - from).count());
    };
    const std::vector<PressRecord> made = many_records(count);
    (void)Library::open(path);
    auto book = RecordBook::open(path);
    if (!book) return 1;
    timed("kept, all at once", [&] { (void)(*book)->add(made); });
    timed("one more, by itself", [&] {
        PressRecord r = made.back();
        r.id += "/more";
        (void)(*book)->add({r});
    });
    std::vector<PressRecord> all;
    timed("read back", [&] { all = *(*book)->records(); });
    std::string json;
    timed("the same written as JSON", [&] { json = records_json({made, {}}); });
    timed("and parsed", [&] { (void)records_from_json(json); });
    std::vector<std::size_t> which;
    RecordFilter filter;
    filter.press = "press-2";
    filter.hands = "MK";
    timed("filtered", [&] { which = filtered(all, filter); });
    filter.words = "order 17";
    timed("filtered by words", [&] { (void)filtered(all, filter); });
    Order order;
    std::vector<std::size_t> every(all.size());
    for (std::size_t i = 0; i < every.size(); ++i) every[i] = i;
    timed("proposals of all", [&] { (void)proposals(all, every, {}, order); });
    PlotAsk ask;
    ask.all = &all;
    ask.which = every;
    timed("target of all", [&] { (void)target_plot(ask); });
    timed("run of all", [&] { (void)run_plot(ask); });
    std::printf("%zu records, %zu pass the filter, %.1f MB on disk\n", all.size(), which.size(),
                static_cast<double>(std::filesystem::file_size(path)) / 1e6);
    return 0;
}
