#include "core/transfers/transfers.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace orthema {

bool program_mirrors(const Medium& medium) { return medium.mirror == MirrorBy::program; }

std::string reading_direction(const Medium& medium) {
    switch (medium.mirror) {
    case MirrorBy::program: return "mirrored here, reads from behind";
    case MirrorBy::printer_software: return "not mirrored: the printer's software mirrors";
    case MirrorBy::nobody: return "reads as printed, not mirrored";
    }
    return "";
}

const Transfer* find_transfer(const TransferSet& set, const std::string& id) {
    for (const Transfer& t : set.transfers)
        if (t.id == id) return &t;
    return nullptr;
}

Polygon cutting_contour(const Region& outline, double margin_mm) {
    constexpr double small_hole = 25;
    constexpr double tolerance = 0.15;
    // A traced outline has a vertex every few pixels; a scissors line does not need them. What simplifying may take off
    // is added to the margin, so that the contour still keeps clear of all ink.
    Region plain;
    for (const Polygon& p : outline) {
        Polygon q{simplified(p.outer, tolerance), {}};
        for (const Ring& hole : p.holes) {
            const Rect box = bounds(hole);
            if (std::min(box.width(), box.height()) >= small_hole) q.holes.push_back(simplified(hole, tolerance));
        }
        plain.push_back(std::move(q));
    }
    for (double reach = 0; reach <= 160; reach = reach == 0 ? 2 : reach * 1.7) {
        Region grown = offset(plain, margin_mm + tolerance + reach, tolerance);
        if (grown.size() != 1) continue;
        if (reach > 0) grown = offset(grown, -reach, tolerance);
        if (grown.size() != 1) continue;
        Polygon piece{simplified(grown[0].outer, tolerance / 2), {}};
        for (const Ring& hole : grown[0].holes) {
            const Rect box = bounds(hole);
            if (std::min(box.width(), box.height()) >= small_hole) piece.holes.push_back(simplified(hole, tolerance / 2));
        }
        return piece;
    }
    return box_region(bounds(outline).grown(margin_mm))[0];
}

TransferSet transfers(const Order& order, const FitPlan& plan, const ArtFactsById& facts, const TransferSet* before) {
    TransferSet set;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        const Medium* medium = d == nullptr ? nullptr : find_medium(order, d->medium);
        const auto art = d == nullptr ? facts.end() : facts.find(d->art);
        if (medium == nullptr || art == facts.end()) continue;
        std::map<long, std::vector<const SizeFit*>> by_width;
        for (const SizeFit& s : fit.sizes) by_width[std::lround(s.width * 10)].push_back(&s);
        for (const auto& [tenths, sizes] : by_width) {
            Transfer t;
            t.id = d->id + "@" + std::to_string(tenths);
            t.decoration = d->id;
            t.art = d->art;
            t.medium = medium->id;
            t.width = sizes.front()->width;
            t.height = sizes.front()->height;
            t.name = d->name + " " + mm_text(t.width, 1);
            for (const SizeFit* s : sizes) {
                t.quantity += s->quantity;
                t.sizes += (t.sizes.empty() ? "" : " ") + s->size;
            }
            t.spares = d->spares;
            t.mirrored = program_mirrors(*medium);
            // Another blank that takes the same piece: one transfer, printed once for both.
            const auto shared = std::find_if(set.transfers.begin(), set.transfers.end(), [&](const Transfer& o) {
                return o.art == t.art && o.medium == t.medium && o.decoration != t.decoration &&
                       std::lround(o.width * 10) == std::lround(t.width * 10);
            });
            if (shared != set.transfers.end()) {
                shared->also.push_back(t.decoration);
                shared->quantity += t.quantity;
                shared->spares = std::max(shared->spares, t.spares);
                shared->sizes += "; " + run_name(order, d->run) + " " + t.sizes;
                continue;
            }
            const auto same = [&](const Transfer& o) {
                return o.art == t.art && o.mirrored == t.mirrored && o.width == t.width && o.height == t.height;
            };
            const Transfer* known = nullptr;
            if (before != nullptr)
                if (const auto at = std::find_if(before->transfers.begin(), before->transfers.end(), same); at != before->transfers.end())
                    known = &*at;
            if (const auto at = std::find_if(set.transfers.begin(), set.transfers.end(), same); at != set.transfers.end()) known = &*at;
            if (known != nullptr) {
                t.contour = known->contour;
                t.ink = known->ink;
            } else {
                const double sx = t.mirrored ? -t.width : t.width;
                const Region outline = mapped(art->second.outline, Affine::scale(sx, t.width));
                const Polygon raw = cutting_contour(outline, cut_margin_mm);
                const Rect box = bounds(raw.outer);
                t.contour = mapped(raw, Affine::shift(-box.x0, -box.y0));
                const double left = t.mirrored ? -t.width : 0;
                t.ink = {left - box.x0, -box.y0, left - box.x0 + t.width, -box.y0 + t.height};
            }
            set.transfers.push_back(std::move(t));
        }
    }
    return set;
}

}  // namespace orthema
