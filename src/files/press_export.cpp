#include "files/press_export.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <ctime>
#include <map>
#include <set>

#include "core/base/dates.h"
#include "core/base/units.h"
#include "files/csv.h"

namespace orthema {

namespace {

/// Local date and time, as the calendar has it.
std::string stamp(long day, long minutes) {
    const std::time_t t = static_cast<std::time_t>((day * 1440 + minutes) * 60);
    std::tm parts{};
    gmtime_r(&t, &parts);
    char text[32];
    std::strftime(text, sizeof text, "%Y%m%dT%H%M%S", &parts);
    return text;
}

std::string escaped(const std::string& words) {
    std::string out;
    for (const char c : words) {
        if (c == '\n') {
            out += "\\n";
            continue;
        }
        if (c == ',' || c == ';' || c == '\\') out += '\\';
        out += c;
    }
    return out;
}

/// Lines of at most 75 bytes, never within a letter.
std::string folded(const std::string& line) {
    std::string out;
    std::size_t in_line = 0;
    for (std::size_t i = 0; i < line.size();) {
        std::size_t n = 1;
        while (i + n < line.size() && (static_cast<unsigned char>(line[i + n]) & 0xC0) == 0x80) ++n;
        if (in_line + n > 74) {
            out += "\r\n ";
            in_line = 1;
        }
        out.append(line, i, n);
        in_line += n;
        i += n;
    }
    return out + "\r\n";
}

}  // namespace

std::string press_plan_csv(const Order& order, const PressPlan& plan) {
    std::string out = "from,to,seconds_from_start,press,load,blank,size,design,pieces,doing,celsius,pressure,hands,trial\r\n";
    std::vector<std::size_t> in_time(plan.shop.tasks.size());
    for (std::size_t i = 0; i < in_time.size(); ++i) in_time[i] = i;
    std::stable_sort(in_time.begin(), in_time.end(),
                     [&](std::size_t a, std::size_t b) { return plan.schedule.places[a].start < plan.schedule.places[b].start; });
    for (const std::size_t i : in_time) {
        const Slot& s = plan.schedule.places[i];
        const Load& load = plan.loads[static_cast<std::size_t>(plan.tasks[i].load)];
        const Decoration* dec = find_decoration(order, load.decoration);
        if (dec == nullptr) continue;
        std::string designs = dec->name, blanks = run_name(order, dec->run);
        for (std::size_t k = 1; k < load.parts.size(); ++k)
            if (const Decoration* more = find_decoration(order, load.parts[k].decoration); more != nullptr) {
                designs += "; " + more->name;
                blanks += "; " + run_name(order, more->run);
            }
        std::string doing;
        for (const ActInfo& a : plan.tasks[i].acts) {
            const std::string words = a.kind == ActKind::press ? step_name(a.step.kind) : act_name(a.kind);
            doing += (doing.empty() ? "" : "; ") + words;
        }
        std::set<int> hands;
        for (const int h : s.hands)
            if (h >= 0) hands.insert(h + 1);
        std::string by;
        for (const int h : hands) by += (by.empty() ? "" : " ") + std::to_string(h);
        const bool hot = s.machine >= 0;
        out += time_of_day(order.press_run, s.start) + "," + time_of_day(order.press_run, s.end) + "," +
               std::to_string(std::lround(s.start)) + "," +
               csv_field(hot ? plan.shop.machines[static_cast<std::size_t>(s.machine)].name : "") + "," + csv_field(load.id) + "," +
               csv_field(blanks) + "," + csv_field(load.size) + "," + csv_field(designs) + "," + std::to_string(load.pieces) + "," +
               csv_field(doing) + "," + (hot ? mm_text(plan.shop.tasks[i].state.celsius, 0) : "") + "," +
               (hot ? pressure_name(static_cast<Pressure>(plan.shop.tasks[i].state.pressure)) : "") + "," + by + "," +
               (load.trial ? "yes" : "") + "\r\n";
    }
    return out;
}

std::string pick_csv(const Order& order, const FitPlan& fit, const PressPlan& plan) {
    std::string out = "from,press,platen,blank,pieces,transfer,trial\r\n";
    for (const PickRow& r : pick_rows(order, fit, plan))
        out += time_of_day(order.press_run, r.start) + "," + csv_field(r.press) + "," + csv_field(r.platen) + "," + csv_field(r.blank) +
               "," + std::to_string(r.pieces) + "," + csv_field(r.transfer) + "," +
               (r.again   ? "again"
                : r.trial ? "yes"
                          : "") +
               "\r\n";
    return out;
}

std::optional<std::string> press_ics(const Order& order, const FitPlan& fit, const PressPlan& plan) {
    const auto day = day_number(order.due);
    if (!day || plan.shop.tasks.empty()) return std::nullopt;
    std::string out = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Orthema//press plan//EN\r\nCALSCALE:GREGORIAN\r\n";
    int number = 0;
    const auto event = [&](long from, long to, const std::string& what, const std::string& about) {
        out += "BEGIN:VEVENT\r\n";
        out += folded("UID:" + std::to_string(++number) + "-" + std::to_string(*day) + "@press-plan.orthema");
        out += "DTSTAMP:" + stamp(*day, 0) + "Z\r\n";
        out += "DTSTART:" + stamp(*day, from) + "\r\nDTEND:" + stamp(*day, std::max(to, from + 1)) + "\r\n";
        out += folded("SUMMARY:" + escaped(what));
        if (!about.empty()) out += folded("DESCRIPTION:" + escaped(about));
        out += "END:VEVENT\r\n";
    };
    const PressRun& run = order.press_run;
    const auto minute = [&](double seconds) { return run.start + std::lround(seconds / 60); };
    event(run.start, minute(plan.schedule.end), "Pressing: " + order.name,
          std::to_string(plan.loads.size()) + " loads, " + duration_words(plan.schedule.end) +
              ". Supplier's sheets and local rules come first.");
    // each press from its first load to its last
    std::map<std::string, std::pair<double, double>> presses;
    for (const PickRow& r : pick_rows(order, fit, plan)) {
        auto [it, fresh] = presses.try_emplace(r.press, r.start, r.end);
        if (!fresh) it->second.second = std::max(it->second.second, r.end);
    }
    for (const auto& [press, span] : presses) event(minute(span.first), minute(span.second), press, "");
    for (const PressBreak& b : run.breaks) event(b.from, b.to, "Break", "");
    event(run.due, run.due + 1, "Due: " + order.name, "");
    return out + "END:VCALENDAR\r\n";
}

}  // namespace orthema
