// Times of many records: kept, read back, filtered, judged, drawn; beside writing and parsing the same as JSON. usage: record_bench FOLDER
// [RECORDS]
#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <random>

#include "core/records/lessons.h"
#include "core/records/plots.h"
#include "devices/hand.h"
#include "files/library.h"
#include "files/record_book.h"

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
    HandSetup setup;
    Hand hand(setup);
    std::mt19937 dice(1);
    std::vector<PressRecord> made;
    for (int i = 0; i < count; ++i) {
        PressRecord r;
        r.id = "job-" + std::to_string(i % 300) + "/shift/load-" + std::to_string(i);
        char at[32];
        std::snprintf(at, sizeof at, "20%02d-%02d-%02dT%02d:%02d:%02d", 24 + i * 3 / count, 1 + i * 36 / count % 12, 1 + i % 28, 8 + i % 9,
                      i % 60, i * 7 % 60);
        r.at = at;
        r.order = "order " + std::to_string(i % 300);
        r.job = "job-" + std::to_string(i % 300);
        r.load = "load-" + std::to_string(i);
        r.design = "design-" + std::to_string(dice() % 60);
        r.size = std::string(1, "SMLX"[dice() % 4]);
        r.style = "style-" + std::to_string(dice() % 12);
        r.method = "method-" + std::to_string(dice() % 4);
        r.press = "press-" + std::to_string(dice() % 4);
        r.platen = "large";
        r.hands = dice() % 3 == 0 ? "TS" : "MK";
        r.planned = 38;
        r.acts = {{StepKind::pre_press, 150, 149, 4, Pressure::medium, Peel::cool},
                  {StepKind::press, 150, 148.6, 12, Pressure::medium, Peel::cool}};
        hand.press(r);
        if (i % 5 != 0) r.landing.reset();
        made.push_back(std::move(r));
    }
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
