#include "core/transfers/jig_sheets.h"

#include <algorithm>

#include "core/order/roster.h"

namespace orthema {

namespace {

struct Waiting {
    const Decoration* decoration;
    const SizeFit* fit;
    const Ground* ground;
    int left = 0;
};

/// Where a slot lies on the sheet: fronts as on the board, backs across the fold in the slot behind.
Point on_sheet(const Jig& jig, int slot, bool back) {
    if (!back) return slot_middle(jig, slot);
    return slot_middle(jig, slot_behind(jig, slot)) + Point{jig.backer_width.mm(), 0};
}

/// A design in its slot: the blank's middle on the slot's.
void lay(Piece& p, const Decoration& d, const SizeFit& s, const Ground& g, Point middle, const ArtFactsById& facts) {
    const Affine to =
        Affine::shift(middle.x, middle.y).after(Affine::shift(-bounds(g.panel.outline).centre().x, -bounds(g.panel.outline).centre().y));
    const ArtMark art = std::get<ArtMark>(mapped(Mark{art_in(d.art, s.ink)}, to));
    Region window;
    if (d.making.cover) {
        for (const Polygon& q : offset(g.panel.outline, d.making.bleed.mm())) window.push_back({mapped(q.outer, to), {}});
        p.picture.emplace_back(ClipMark{rings_of(window)});
    }
    p.picture.emplace_back(art);
    if (d.making.cover) p.picture.emplace_back(ClipMark{});
    if (const auto f = facts.find(d.art); f != facts.end()) {
        Region ink = mapped(f->second.outline, art.place);
        if (!window.empty()) ink = intersect(ink, window);
        p.shape.insert(p.shape.end(), ink.begin(), ink.end());
    }
}

const Decoration* back_of(const Order& order, const Decoration& front) {
    for (const Decoration& d : order.decorations)
        if (d.run == front.run && d.making.jig == front.making.jig && location_face(d.location) == Face::back) return &d;
    return nullptr;
}

void draw_board(const Jig& jig, const Ground* blank, bool back, Piece& p) {
    const double x = back ? jig.backer_width.mm() : 0;
    const Stroke line{palette::quiet, 0.25, {}};
    p.picture.emplace_back(PathMark{{box_region({x, 0, x + jig.backer_width.mm(), jig.backer_height.mm()})[0].outer}, true, {}, line});
    for (int s = 0; s < jig.rows * jig.columns; ++s) {
        std::vector<Ring> edge = slot_edge(jig, blank != nullptr ? &blank->panel : nullptr, on_sheet(jig, s, back), back);
        if (!edge.empty()) p.picture.emplace_back(PathMark{std::move(edge), true, {}, line});
    }
}

}  // namespace

std::vector<Ring> slot_edge(const Jig& jig, const Panel* blank, Point at, bool back) {
    const double w = jig.slot_width.mm() / 2, h = jig.slot_height.mm() / 2;
    if (w > 0 && h > 0) return {round_rect({at.x - w, at.y - h, at.x + w, at.y + h}, jig.slot_corner.mm())};
    if (blank == nullptr) return {};
    const Point m = bounds(blank->outline).centre();
    return rings_of(mapped(blank->outline, Affine{back ? -1.0 : 1.0, 0, 0, 1, at.x + (back ? m.x : -m.x), at.y - m.y}));
}

std::vector<JigSheet> jig_sheets(const Order& order, const FitPlan& plan, const ArtFactsById& facts, Findings& findings) {
    std::vector<JigSheet> out;
    std::vector<std::string> jobs;
    for (const Decoration& d : order.decorations)
        if (!d.making.jig.empty() && !is_lettering(order, d) && std::find(jobs.begin(), jobs.end(), d.run.job) == jobs.end())
            jobs.push_back(d.run.job);
    std::vector<std::pair<const Jig*, std::string>> loads;
    for (const Jig& jig : order.jigs)
        for (const std::string& job : jobs) loads.emplace_back(&jig, job);
    for (const auto& [of, job] : loads) {
        const Jig& jig = *of;
        std::vector<Waiting> units;
        std::string medium;
        Subject about;
        double widest = 0, tallest = 0;
        for (const Decoration& d : order.decorations) {
            if (is_lettering(order, d) || d.run.job != job || d.making.jig != jig.id || location_face(d.location) == Face::back) continue;
            const DecorationFit* fit = find_fit(plan, d.id);
            if (fit == nullptr || fit->ground == nullptr) continue;
            if (medium.empty()) {
                medium = d.medium;
                about.decoration = d.id;
            }
            if (d.medium != medium) {
                findings.push_back(finding("jig-media", about, {{"jig", jig.name}}));
                continue;
            }
            for (std::size_t i = 0; i < fit->sizes.size(); ++i) {
                const Rect box = bounds(fit->ground->sizes[i].panel.outline);
                widest = std::max(widest, box.width());
                tallest = std::max(tallest, box.height());
                units.push_back({&d, &fit->sizes[i], &fit->ground->sizes[i], fit->sizes[i].quantity});
            }
        }
        if (units.empty()) continue;
        if (const auto fault = jig_fault(jig, widest, tallest)) {
            findings.push_back(finding("jig-impossible", about, {{"fault", Phrases{{*fault}}}}));
            continue;
        }
        const int slots = jig.rows * jig.columns;
        const auto take = [&](int slot) -> Waiting* {
            const std::string own =
                static_cast<std::size_t>(slot) < jig.assigned.size() ? jig.assigned[static_cast<std::size_t>(slot)] : "";
            for (Waiting& u : units)
                if (u.left > 0 && (own.empty() || u.decoration->id == own)) {
                    --u.left;
                    return &u;
                }
            return nullptr;
        };
        const auto find_unit = [&](const SlotFill& f) -> const Waiting* {
            for (const Waiting& u : units)
                if (u.decoration->id == f.decoration && u.fit->size == f.size) return &u;
            return nullptr;
        };
        std::vector<JigSheet> boards;
        for (bool any = true; any;) {
            any = false;
            JigSheet b;
            b.jig = jig.id;
            b.medium = medium;
            b.job = job;
            for (int s = 0; s < slots; ++s) {
                const Waiting* u = take(s);
                any = any || u != nullptr;
                b.front.push_back(u == nullptr ? SlotFill{} : SlotFill{u->decoration->id, u->fit->size});
                const Decoration* back = u == nullptr ? nullptr : back_of(order, *u->decoration);
                b.back.push_back(back == nullptr ? SlotFill{} : SlotFill{back->id, u->fit->size});
            }
            if (!any) break;
            const auto same =
                std::find_if(boards.begin(), boards.end(), [&](const JigSheet& o) { return o.front == b.front && o.back == b.back; });
            if (same != boards.end())
                ++same->count;
            else {
                b.count = 1;
                boards.push_back(std::move(b));
            }
        }
        for (const Waiting& u : units)
            if (u.left > 0) {
                findings.push_back(finding("jig-left", about, {{"n", u.left}, {"design", u.decoration->name}, {"jig", jig.name}}));
                break;
            }
        for (JigSheet& b : boards) {
            const bool backs = std::any_of(b.back.begin(), b.back.end(), [](const SlotFill& f) { return !f.decoration.empty(); });
            Piece& p = b.piece;
            p.medium = medium;
            p.name = "board";
            b.fold = backs ? jig.backer_width.mm() : 0;
            draw_board(jig, units.front().ground, false, p);
            if (backs) {
                draw_board(jig, units.front().ground, true, p);
                p.picture.emplace_back(
                    PathMark{{{{b.fold, 0}, {b.fold, jig.backer_height.mm()}}}, false, {}, Stroke{palette::quiet, 0.3, {3, 2}}});
            }
            for (int s = 0; s < slots; ++s) {
                const auto i = static_cast<std::size_t>(s);
                if (const Waiting* u = find_unit(b.front[i])) lay(p, *u->decoration, *u->fit, *u->ground, on_sheet(jig, s, false), facts);
                if (const Decoration* back = find_decoration(order, b.back[i].decoration)) {
                    const DecorationFit* fit = find_fit(plan, back->id);
                    const SizeFit* size = fit == nullptr ? nullptr : find_size(*fit, b.back[i].size);
                    const Ground* ground = fit == nullptr ? nullptr : find_ground(*fit, b.back[i].size);
                    if (size != nullptr && ground != nullptr) lay(p, *back, *size, *ground, on_sheet(jig, s, true), facts);
                }
            }
            p.ink = bounds(p.shape);
            p.contour = box_region({0, 0, jig.backer_width.mm() * (backs ? 2 : 1), jig.backer_height.mm()})[0];
            out.push_back(std::move(b));
        }
    }
    return out;
}

std::vector<int> folded_pairs(const Jig& jig, const JigSheet& sheet) {
    std::vector<int> out;
    const int slots = jig.rows * jig.columns;
    for (int s = 0; s < slots; ++s) {
        const Point front = on_sheet(jig, s, false);
        int found = -1;
        for (int b = 0; b < slots && sheet.fold > 0; ++b) {
            const Point at = on_sheet(jig, b, true);
            const Point folded{2 * sheet.fold - at.x, at.y};
            if (norm(folded - front) < 0.01) found = b;
        }
        out.push_back(found);
    }
    return out;
}

}  // namespace orthema
