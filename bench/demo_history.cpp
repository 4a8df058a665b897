// The believable past of the demo order: three shifts by a simulated hand, what was found and what was taken from it. Writes records.json,
// and order.json with the corrections. usage: demo_history ORDER-FOLDER
#include <cstdio>
#include <fstream>

#include "core/pipeline/work.h"
#include "core/records/of_load.h"
#include "core/records/lessons.h"
#include "devices/hand.h"
#include "files/json_in.h"
#include "files/order_file.h"
#include "files/order_json.h"
#include "files/record_book.h"
#include "files/safe_file.h"

using namespace orthema;

int main(int argc, char** argv) {
    if (argc < 2) return 2;
    const std::string folder = argv[1];
    auto package = open_order(folder);
    if (!package) return std::fprintf(stderr, "%s\n", package.sentence().c_str()), 1;
    Order order = package->order;
    order.corrections.clear();
    auto known = std::make_shared<KnownArt>();
    known->facts = facts_of(load_all_art(order, package->art, &known->faults));
    const Work w = work(order, Shop{}, Shared<KnownArt>(known));
    const PressPlan& plan = w.press_plan();
    // the loads in the order in which they are done
    std::vector<std::size_t> loads;
    for (std::size_t i = 0; i < plan.loads.size(); ++i)
        if (plan.loads[i].film.sheet == 0 && !plan.loads[i].apart && !plan.loads[i].parts.empty() && !plan.loads[i].tasks.empty())
            loads.push_back(i);
    const auto start = [&](std::size_t i) { return plan.schedule.places[static_cast<std::size_t>(plan.loads[i].tasks.front())].start; };
    std::sort(loads.begin(), loads.end(), [&](std::size_t a, std::size_t b) { return start(a) < start(b); });
    const std::string large = "press-large";
    HandSetup setup;
    setup.seed = 12;
    setup.spread = 2.4;
    setup.pace = 1.02;
    std::mt19937 dice(5);
    std::normal_distribution<double> plate(-0.6, 1.1);
    OrderRecords all;
    std::vector<Correction> taken;
    for (int shift = 0; shift < 3; ++shift) {
        setup.seed += 7;
        Hand hand(setup);
        const std::string day = std::string("2027-06-") + (shift == 2 ? "10" : shift == 1 ? "09" : "08");
        int count = 0;
        for (std::size_t k = static_cast<std::size_t>(shift); k < loads.size() && count < 41; k += 3) {
            const Load& load = plan.loads[loads[k]];
            PressRecord r = record_of(order, w.plan(), plan, load);
            const Press* press = find_press(order, r.press);
            if (press == nullptr || press->kind != PressKind::flat || r.platen.empty()) continue;
            ++count;
            const int seconds = 9 * 3600 + count * 164;
            char at[32];
            std::snprintf(at, sizeof at, "T%02d:%02d:%02d", seconds / 3600, seconds / 60 % 60, seconds % 60);
            r.id = order.job + "/history-" + std::to_string(shift + 1) + "/" + load.id;
            r.at = day + at;
            r.hands = count / 7 % 3 == 2 ? "TS" : "MK";  // who relieves the other
            r.rehearsal = true;
            r.planned = 38;
            for (ActDone& a : r.acts)
                if (a.asked > 0) a.celsius = std::round((a.asked + plate(dice)) * 10) / 10;
            PressRecord pressed = r;
            const MarksMoved moved = marks_moved(taken, r.press, r.platen, r.hands);
            // the large press lands to the right; one pair of hands lays a little low
            hand.press(pressed, moved.aside - (r.press == large ? 4.6 : 0), moved.down - (r.hands == "TS" ? 3.8 : 0));
            const DecorationFit* fit = find_fit(w.plan(), r.design);
            const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, r.size);
            const Decoration* d = find_decoration(order, r.design);
            if (size != nullptr && d != nullptr) {
                const auto asks = tape_asks(*d, *fit, *size, {});
                const Landing l = landing_of(taped_of(*pressed.landing, *size, asks), *size, asks);
                pressed.landing->across = l.across;
                pressed.landing->along = l.along;
                pressed.landing->piece = r.first;
            }
            if (count % 41 == 17) {
                pressed.outcome = shift == 1 ? Outcome::scorched : Outcome::not_released;
                pressed.mended = shift == 1 ? Mended::spoiled : Mended::pressed_again;
                pressed.lost = std::round(100 * price_of_loss(order, w.plan(), pressed)) / 100;
                if (shift == 1) pressed.cause = "plate was hotter than its reading";
            }
            if (count % 41 == 29 && shift == 0) pressed.remark = "corner held with tape, lies flatter";
            all.records.push_back(std::move(pressed));
        }
        // at the end of the day somebody looks at what is proposed
        std::vector<std::size_t> which;
        for (std::size_t i = 0; i < all.records.size(); ++i) which.push_back(i);
        for (Correction c : proposals(all.records, which, all.lessons, order)) {
            std::printf("%s: %s (%s)\n", day.c_str(), proposal_words(c, order).c_str(), proposal_reason(c, Unit::mm).c_str());
            if (c.kind != CorrectionKind::loading_marks || taken.size() >= 2 || shift == 2) continue;
            c.id = "rehearsal/" + c.id;
            c.since = day + "T17:00:00";
            Lesson l;
            l.correction = c;
            l.state = LessonState::taken;
            l.at = c.since;
            l.job = order.job;
            all.lessons.push_back(l);
            taken.push_back(c);
        }
    }
    Lesson open;
    open.correction.kind = CorrectionKind::look;
    open.correction.id = "remark/history/rim";
    open.correction.words = "A narrower rim under the crossed kites next time: it shows on the totes.";
    open.at = "2027-06-10T17:10:00";
    open.job = order.job;
    all.lessons.push_back(open);
    std::printf("%zu records, %zu lessons\n", all.records.size(), all.lessons.size());
    for (const Correction& c : taken) order.corrections.push_back(c);
    if (!write_file(folder + "/records.json", records_json(all)) ||
        !write_file(folder + "/order.json", json_text(to_json(order), 1) + "\n"))
        return 1;
    return 0;
}
