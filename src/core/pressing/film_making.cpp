#include "core/pressing/film_making.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

/// What lies on one sheet of a film.
struct FilmSheet {
    std::vector<std::pair<std::string, std::string>> of;  ///< decoration and size, each once
    int pieces = 0;
    double metres = 0;
};

std::map<int, FilmSheet> film_sheets(const Order& order, const MediumLayout& layout, const TransferSet& set) {
    std::map<int, FilmSheet> out;
    for (const PlacedCopy& c : layout.copies) {
        const Transfer* t = find_transfer(set, c.transfer);
        if (t == nullptr) continue;
        FilmSheet& sheet = out[c.sheet];
        ++sheet.pieces;
        const Rect box = bounds(t->contour.outer);
        const double along = c.turn % 180 == 0 ? box.width() : box.height();
        sheet.metres = std::max(sheet.metres, (c.x + along) / 1000);
        std::vector<std::string> ids{t->decoration};
        ids.insert(ids.end(), t->also.begin(), t->also.end());
        for (const std::string& id : ids) {
            const Decoration* d = find_decoration(order, id);
            if (d == nullptr) continue;
            for (const SizesFor& f : t->sizes) {
                if (f.garment != run_name(order, d->run)) continue;
                for (const std::string& size : f.sizes)
                    if (const std::pair key{id, size}; std::find(sheet.of.begin(), sheet.of.end(), key) == sheet.of.end())
                        sheet.of.push_back(key);
            }
        }
    }
    return out;
}

RecipeStep lasting(double seconds) {
    RecipeStep s;
    s.kind = StepKind::wait;
    s.seconds = std::round(seconds);
    return s;
}

}  // namespace

FilmReady make_film(PressPlan& plan, std::map<std::string, int>& stages, const Order& order, const TransferSet& set) {
    FilmReady ready;
    if (!order.press_run.makes_film) return ready;
    const FilmTimes times;
    int printed = -1;  // the printer has one run at a time
    for (const Medium& medium : order.media) {
        const Method* method = find_method(order, medium.method);
        const bool wanted =
            method != nullptr && method->powder &&
            std::any_of(set.transfers.begin(), set.transfers.end(), [&](const Transfer& t) { return t.medium == medium.id; });
        if (!wanted) continue;
        const MediumLayout* layout = find_layout(order, medium.id);
        const std::map<int, FilmSheet> sheets = layout == nullptr ? std::map<int, FilmSheet>{} : film_sheets(order, *layout, set);
        if (sheets.empty()) {
            plan.findings.push_back(finding("film-not-laid", {}, {{"medium", medium.name}}));
            continue;
        }
        int before = 0;  // printed already: another film of the same number is another load
        for (const PrintedCopies& p : layout->printed) before += p.copies;
        for (const auto& [number, sheet] : sheets) {
            if (sheet.of.empty()) continue;
            Load load;
            load.id = medium.id + "/film " + std::to_string(number + 1);
            if (before > 0) load.id += " after " + std::to_string(before);
            load.film = {medium.id, number + 1};
            load.decoration = sheet.of.front().first;
            load.size = sheet.of.front().second;
            load.pieces = sheet.pieces;
            load.apart = true;
            const auto add = [&](const char* stage, std::vector<ActInfo> acts, const std::vector<double>& seconds,
                                 const std::vector<bool>& hand, std::vector<After> after) {
                ShopTask job;
                for (std::size_t k = 0; k < acts.size(); ++k) job.phases.push_back({seconds[k], hand[k], static_cast<int>(k)});
                job.after = std::move(after);
                job.stage = stages.try_emplace(load.id + "/" + stage, static_cast<int>(stages.size())).first->second;
                const auto id = static_cast<int>(plan.shop.tasks.size());
                load.tasks.push_back(id);
                plan.alone.push_back(id);
                plan.shop.tasks.push_back(std::move(job));
                plan.tasks.push_back({static_cast<int>(plan.loads.size()), std::move(acts), false});
                return id;
            };
            const double prints = std::max(30.0, sheet.metres * times.print_metre);
            printed = add("print", {{ActKind::print, {}}, {ActKind::wait, lasting(prints)}}, {times.ready, prints}, {true, false},
                          printed < 0 ? std::vector<After>{} : std::vector<After>{{printed, 0, {}}});
            const int cured =
                add("powder", {{ActKind::powder, {}}, {ActKind::cure, lasting(times.cure)}},
                    {std::max(30.0, sheet.metres * times.powder_metre), times.cure}, {true, true}, {{printed, 0, times.powder_by}});
            const int cut = add("cut", {{ActKind::cut, {}}}, {times.cut_piece * sheet.pieces}, {true}, {{cured, times.cool, {}}});
            for (const auto& key : sheet.of) ready[key] = cut;
            plan.loads.push_back(std::move(load));
        }
    }
    return ready;
}

}  // namespace orthema
