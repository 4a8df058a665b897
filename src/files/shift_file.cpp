#include "files/shift_file.h"

#include "files/json_in.h"

namespace orthema {

namespace {

constexpr const char* format = "orthema-shift/1";
constexpr int most_loads = 100000;
constexpr std::size_t most_tasks = 1000;
constexpr double far = 1e8;  ///< seconds

}  // namespace

std::string shift_json(const KeptShift& s) {
    json pieces = json::array(), notes = json::array(), held = json::array();
    for (const ShiftRecord::Piece& p : s.record.pieces) {
        json j{{"load", p.load}, {"done", p.done}, {"ended", p.ended}};
        if (p.left_out) j["left_out"] = true;
        if (p.under_heat) j["under_heat"] = true;
        pieces.push_back(std::move(j));
    }
    for (const HeldRun& h : s.record.held) held.push_back({{"trial", h.trial}, {"fault", press_fault_name(h.fault)}});
    for (const ShiftNote& n : s.record.notes) notes.push_back({{"at", n.at}, {"load", n.load}, {"what", n.what}});
    json all{
        {"format", format}, {"order", s.order},           {"trials", s.trials}, {"rehearsal", s.rehearsal},    {"speed", s.speed},
        {"loads", s.loads}, {"loads_done", s.loads_done}, {"at", s.record.at},  {"pieces", std::move(pieces)}, {"notes", std::move(notes)}};
    if (!s.id.empty()) all["id"] = s.id;
    if (!held.empty()) all["held"] = std::move(held);
    return json_text(all);
}

Result<KeptShift> shift_from(const std::string& text) {
    return guarded([&] {
        const json all = json::parse(text);
        const In in{all, ""};
        if (in["format"].text() != format) throw Fault{"That is not a shift of this program, or of a newer one."};
        KeptShift s;
        s.order = in["order"].text();
        if (in.has("id")) s.id = in["id"].text();
        in["trials"].each(most_loads, [&](const In& t) { s.trials.push_back(t.text()); });
        s.rehearsal = in["rehearsal"].flag();
        s.speed = in["speed"].number(0.01, 10000);
        s.loads = in["loads"].whole(0, most_loads);
        s.loads_done = in["loads_done"].whole(0, most_loads);
        s.record.at = in["at"].number(0, far);
        in["pieces"].each(most_loads, [&](const In& p) {
            ShiftRecord::Piece piece;
            piece.load = p["load"].text();
            piece.left_out = p.has("left_out") && p["left_out"].flag();
            piece.under_heat = p.has("under_heat") && p["under_heat"].flag();
            p["done"].each(most_tasks, [&](const In& d) { piece.done.push_back(d.whole(0, 10000)); });
            p["ended"].each(most_tasks, [&](const In& e) { piece.ended.push_back(e.number(-far, far)); });
            if (piece.done.size() != piece.ended.size()) p.fail("has a task without its end");
            s.record.pieces.push_back(std::move(piece));
        });
        in["notes"].each(most_loads * 4, [&](const In& n) {
            s.record.notes.push_back({n["at"].number(-far, far), n["load"].text(), n["what"].text()});
        });
        if (in.has("held"))
            in["held"].each(most_loads, [&](const In& h) {
                s.record.held.push_back({h["trial"].text(), h["fault"].one_of<PressFault>(press_fault_count, press_fault_name)});
            });
        return s;
    });
}

}  // namespace orthema
