#include "cli/records.h"

#include <filesystem>
#include <iostream>

#include "cli/run.h"
#include "core/records/place.h"
#include "core/records/plots.h"
#include "files/json_in.h"
#include "files/library.h"
#include "files/order_file.h"
#include "files/record_book.h"
#include "files/safe_file.h"

namespace orthema {

namespace {

struct Source {
    Order order;  ///< for names and recipes; of a library only what it owns
    OrderRecords records;
};

Result<Source> opened(const std::string& path) {
    Source out;
    if (std::filesystem::path(path).extension() == ".sqlite") {
        if (!std::filesystem::exists(path)) return Error{"There is no shop library “" + path + "”."};
        const auto library = Library::open(path);
        if (!library) return library.error();
        const auto content = (*library)->content();
        if (!content) return content.error();
        adopt_library(out.order, *content);
        const auto book = RecordBook::open(path);
        if (!book) return book.error();
        auto records = (*book)->records();
        if (!records) return records.error();
        auto lessons = (*book)->lessons();
        if (!lessons) return lessons.error();
        out.records = {std::move(*records), std::move(*lessons)};
        return out;
    }
    auto package = open_order(path);
    if (!package) return package.error();
    if (package->records_fault) return *package->records_fault;
    out.order = std::move(package->order);
    out.records = std::move(package->records);
    return out;
}

/// Where all that is known comes from rehearsals, an empty answer would be a riddle.
void say_rehearsals(const std::vector<PressRecord>& all, const std::vector<std::size_t>& which, const RecordFilter& filter) {
    if (!which.empty() || filter.rehearsals || all.empty()) return;
    RecordFilter with = filter;
    with.rehearsals = true;
    if (const std::size_t n = filtered(all, with).size(); n > 0)
        std::cerr << n << (n == 1 ? " record is" : " records are") << " of rehearsals: --rehearsals counts them too\n";
}

}  // namespace

int list_records(const std::string& path, const RecordFilter& filter, const std::string& out, bool as_json) {
    const auto source = opened(path);
    if (!source) return complain(source.sentence());
    std::vector<PressRecord> passed;
    const std::vector<std::size_t> which = filtered(source->records.records, filter);
    passed.reserve(which.size());
    for (const std::size_t i : which) passed.push_back(source->records.records[i]);
    say_rehearsals(source->records.records, which, filter);
    if (!out.empty()) {
        const bool table = std::filesystem::path(out).extension() == ".csv";
        if (const auto done = write_file(out, table ? records_csv(passed) : records_json({passed, source->records.lessons})); !done)
            return unwritten(done.sentence());
        std::cout << passed.size() << " records\n";
        return 0;
    }
    std::cout << (as_json ? records_json({passed, source->records.lessons}) + "\n" : records_csv(passed));
    return 0;
}

int report_records(const std::string& path, const RecordFilter& filter, bool as_json) {
    const auto source = opened(path);
    if (!source) return complain(source.sentence());
    const std::vector<PressRecord>& all = source->records.records;
    const std::vector<std::size_t> which = filtered(all, filter);
    say_rehearsals(all, which, filter);
    const CleanShare clean = clean_share(all, which);
    const auto mean = mean_place(all, which);
    PlotAsk ask;
    ask.all = &all;
    ask.which = which;
    ask.order = &source->order;
    const std::vector<std::string> drifted = run_words(ask);
    const std::vector<Correction> proposed = proposals(all, which, source->records.lessons, source->order);
    int measured = 0;
    for (const std::size_t i : which) measured += all[i].landing ? 1 : 0;
    if (as_json) {
        json j{{"records", which.size()},
               {"measured", measured},
               {"clean", {{"tries", clean.tries}, {"clean", clean.clean}, {"low", clean.share.low}, {"high", clean.share.high}}}};
        if (mean)
            j["mean"] = {{"aside_mm", mean->mean.x},
                         {"down_mm", mean->mean.y},
                         {"spread_aside_mm", mean->spread_aside},
                         {"spread_down_mm", mean->spread_down}};
        j["runs"] = drifted;
        j["proposals"] = json::array();
        for (const Correction& c : proposed)
            j["proposals"].push_back({{"kind", correction_key(c.kind)},
                                      {"words", proposal_words(c, source->order)},
                                      {"pieces", c.pieces},
                                      {"low", c.low},
                                      {"high", c.high},
                                      {"by", c.by},
                                      {"aside_mm", c.aside},
                                      {"down_mm", c.down}});
        std::cout << json_text(j, 1) << "\n";
        return 0;
    }
    std::cout << which.size() << " records, " << measured << " measured\n";
    if (clean.tries > 0)
        std::cout << clean.clean << " of " << clean.tries << " clean, " << mm_text(100 * clean.share.low, 0) << " to "
                  << mm_text(100 * clean.share.high, 0) << " % with 95 %\n";
    if (mean)
        std::cout << "mean place " << mm_text(mean->mean.x, 1) << " mm to the right, " << mm_text(mean->mean.y, 1) << " mm low; spread "
                  << mm_text(mean->spread_aside, 1) << " and " << mm_text(mean->spread_down, 1) << " mm\n";
    for (const std::string& s : drifted) std::cout << "run: " << s << "\n";
    for (const Correction& c : proposed)
        std::cout << "proposed: " << proposal_words(c, source->order) << " (" << proposal_reason(c, source->order.unit) << ")\n";
    for (const Lesson& l : source->records.lessons) {
        std::cout << lesson_state_name(l.state) << ": " << proposal_words(l.correction, source->order);
        if (l.state == LessonState::taken) std::cout << " (" << taken_words(l.correction, source->order.unit) << ")";
        std::cout << "\n";
    }
    if (proposed.empty()) std::cout << (measured < least_pieces ? "too few measured to propose anything\n" : "nothing to correct\n");
    return 0;
}

}  // namespace orthema
