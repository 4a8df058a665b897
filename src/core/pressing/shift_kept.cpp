// What is kept of a shift, how it goes on from that, and how it takes in what a newer plan has.
#include <algorithm>
#include <map>
#include <utility>

#include "core/pressing/shift.h"

namespace orthema {

std::vector<int> Shift::planned_tasks(const Load& load) const {
    std::vector<int> out;
    for (const int t : load.tasks)
        if (!plan_.tasks[static_cast<std::size_t>(t)].once_more) out.push_back(t);
    return out;
}

ShiftRecord Shift::record(double now) const {
    ShiftRecord out;
    out.at = now;
    out.notes = notes_;
    out.held = held_;
    for (const Load& load : plan_.loads) {
        ShiftRecord::Piece piece;
        piece.load = load.id;
        bool begun = false;
        for (const int t : planned_tasks(load)) {
            const Live& l = live(t);
            begun = begun || l.done > 0 || l.start >= 0 || l.end >= 0;
            piece.left_out = piece.left_out || l.skipped;
            piece.done.push_back(l.done);
            piece.ended.push_back(l.end);
        }
        for (const Countdown& c : counting_)
            piece.under_heat = piece.under_heat || (c.machine >= 0 && plan_.tasks[static_cast<std::size_t>(c.task)].load ==
                                                                          static_cast<int>(&load - plan_.loads.data()));
        if (begun) out.pieces.push_back(std::move(piece));
    }
    return out;
}

ShiftRecord Shift::record_to_try_again(const std::string& trial, double now) const {
    ShiftRecord r = record(now);
    std::erase_if(r.held, [&](const HeldRun& h) { return h.trial == trial; });
    std::erase_if(r.pieces, [&](const ShiftRecord::Piece& p) { return p.load == trial; });
    r.notes.push_back({now, trial, "tried again"});
    return r;
}

std::vector<std::string> Shift::restore(const ShiftRecord& record, const Reading& reading) {
    std::vector<std::string> says;
    notes_ = record.notes;
    held_ = record.held;
    std::erase_if(held_, [&](const HeldRun& h) {  // the order no longer has it
        const Load* load = find_load(plan_, h.trial);
        return load == nullptr || !load->trial;
    });
    for (const ShiftRecord::Piece& piece : record.pieces) {
        const Load* load = find_load(plan_, piece.load);
        if (load == nullptr) continue;  // the order no longer has it
        const bool whole = std::none_of(piece.ended.begin(), piece.ended.end(), [](double e) { return e < 0; });
        const bool same = piece.done.size() == load->tasks.size() && piece.ended.size() == load->tasks.size();
        if (!same && !whole) {
            says.push_back(
                phrase("“{load}” was begun by another recipe: see how far it is; it begins anew.", reading, {{"load", piece.load}}));
            continue;
        }
        for (std::size_t k = 0; k < load->tasks.size(); ++k) {
            Live& l = live(load->tasks[k]);
            const auto phases = static_cast<int>(job(load->tasks[k]).phases.size());
            l.end = same ? piece.ended[k] : record.at;
            l.done = l.end >= 0 ? phases : std::clamp(piece.done[k], 0, phases);
            l.skipped = piece.left_out && l.end >= 0 && (!same || piece.done[k] < phases);
            l.changed = l.done > 0;
            if (l.done > 0 || l.end >= 0) l.start = std::min(record.at, l.end >= 0 ? l.end : record.at);
        }
        if (!piece.under_heat) continue;
        says.push_back(phrase("“{load}” lay under heat when the shift stopped: look at it, and report it if it had too much.", reading,
                              {{"load", piece.load}}));
        // it had its heat, and nobody knows how much: not a second time unasked
        for (std::size_t k = 0; k < load->tasks.size(); ++k) {
            Live& l = live(load->tasks[k]);
            const ShopTask& j = job(load->tasks[k]);
            if (l.end >= 0 || l.start < 0 || j.machines.empty()) continue;
            const auto& acts = plan_.tasks[static_cast<std::size_t>(load->tasks[k])].acts;
            if (static_cast<std::size_t>(l.done) < acts.size() && acts[static_cast<std::size_t>(l.done)].kind == ActKind::press) ++l.done;
            finish(load->tasks[k], record.at);
            break;
        }
    }
    put_anew({}, record.at);
    return says;
}

std::vector<std::size_t> Shift::missing(const PressPlan& newer) const {
    std::vector<std::size_t> out;
    if (newer.presses != plan_.presses || newer.shop.machines.size() != plan_.shop.machines.size()) return out;
    for (std::size_t i = 0; i < newer.loads.size(); ++i)
        if (const Load& wanted = newer.loads[i]; std::none_of(plan_.loads.begin(), plan_.loads.end(), [&](const Load& l) {
                if (wanted.makes_film()) return l.id == wanted.id;
                return std::any_of(l.parts.begin(), l.parts.end(), [&](const LoadPart& p) {
                    return std::any_of(wanted.parts.begin(), wanted.parts.end(), [&](const LoadPart& w) {
                        return p.decoration == w.decoration && p.size == w.size && p.first < w.first + w.pieces &&
                               w.first < p.first + p.pieces;
                    });
                });
            }))
            out.push_back(i);
    return out;
}

int Shift::bring_in(const PressPlan& newer, double now) {
    const std::vector<std::size_t> loads = missing(newer);
    if (loads.empty()) return 0;
    std::vector<int> at(newer.shop.tasks.size(), -1);
    std::map<int, int> stage;
    for (const std::size_t i : loads) {
        Load load = newer.loads[i];
        for (int& t : load.tasks) {
            const auto from = static_cast<std::size_t>(t);
            t = static_cast<int>(plan_.shop.tasks.size());
            at[from] = t;
            ShopTask j = newer.shop.tasks[from];
            const auto [its, fresh] = stage.try_emplace(j.stage, 0);
            if (fresh)
                its->second =
                    add_stage(plan_, newer.stages[static_cast<std::size_t>(j.stage)] + ", taken in " + std::to_string(plan_.stages.size()));
            j.stage = its->second;
            j.fixed.reset();
            // a trial of its own that is not taken in has been passed
            std::erase_if(j.after, [&](const After& a) { return at[static_cast<std::size_t>(a.task)] < 0; });
            for (After& a : j.after) a.task = at[static_cast<std::size_t>(a.task)];
            plan_.shop.tasks.push_back(std::move(j));
            TaskInfo info = newer.tasks[from];
            info.load = static_cast<int>(plan_.loads.size());
            plan_.tasks.push_back(std::move(info));
            plan_.alone.push_back(t);
        }
        plan_.loads.push_back(std::move(load));
    }
    live_.resize(plan_.shop.tasks.size());
    put_anew({}, now);
    return static_cast<int>(loads.size());
}

}  // namespace orthema
