#include "core/transfers/make.h"

#include <algorithm>

#include "core/base/units.h"
#include "core/fitting/coverage.h"
#include "core/transfers/snips.h"

namespace orthema {

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
    // Of very many parts, such as specks, each reach is grown from the last one, where they have run together: large rounds that all
    // cross each other take too long. Each step may add its tolerance.
    constexpr std::size_t many = 150;
    const bool in_steps = plain.size() > many;
    double had = 0;
    for (double reach = 0; reach <= 160; reach = reach == 0 ? 2 : reach * 1.7) {
        Region grown = offset(plain, margin_mm + tolerance + reach - had, tolerance);
        if (grown.size() != 1) {
            if (!in_steps) continue;
            plain = std::move(grown);
            for (Polygon& p : plain) p = {simplified(p.outer, tolerance), {}};
            had = margin_mm + reach;  // what was simplified is made up for
            continue;
        }
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

FoldedSheet folded_sheet(const Panel& panel, const Making& making, const Medium& medium) {
    const Rect box = bounds(panel.outline);
    const double fold = box.x1 + making.fold.mm();
    return {fold, Rect{box.x0, box.y0, 2 * fold - box.x0, box.y1}.grown(medium.cut_offset.mm() + 2)};
}

double fold_difference(const Region& front, const Region& back, double fold_x) {
    const Region folded = mapped(front, Affine{-1, 0, 0, 1, 2 * fold_x, 0});
    // a reflection turns every ring round: the boolean operations want outer rings one way
    return area(subtract(folded, back)) + area(subtract(back, folded));
}

namespace {

/// A ring with a cross in it: two of them, level with the ink's middle, outside it. They are cut and printed with the
/// piece and trimmed off before pressing.
Region register_shapes(const Rect& around) {
    Region out;
    for (const double x : {around.x0 - stack_mark_off, around.x1 + stack_mark_off})
        out.push_back({disc({x, around.centre().y}, stack_mark_radius, 24), {disc({x, around.centre().y}, stack_mark_radius * 0.35, 16)}});
    return out;
}

/// A little line in the seam's run just outside the ink, at both of its ends.
std::vector<Ring> seam_ticks(const Seam& s, const Rect& ink) {
    const Point out = s.upright ? Point{0, 1} : Point{1, 0};
    const double first = s.upright ? ink.y0 : ink.x0, last = s.upright ? ink.y1 : ink.x1;
    const auto from = [&](Point end, double at, double sign) {
        const Point foot = s.upright ? Point{end.x, at} : Point{at, end.y};
        return Ring{foot + out * (sign * 1.5), foot + out * (sign * 7)};
    };
    return {from(s.line.front(), first, -1), from(s.line.back(), last, 1)};
}

/// Along a line, for contours.
Region line_region(const Ring& line, double half) {
    const Point d = line.back() - line.front();
    const Point n = Point{-d.y, d.x} * (half / norm(d));
    return {Polygon{{line.front() - n, line.back() - n, line.back() + n, line.front() + n}, {}}};
}

/// A contour with a tab out to a mark that is trimmed off: as wide as the mark needs, no web of sheet between.
Polygon with_tab(const Polygon& contour, const Region& mark, double margin_mm) {
    Region out = unite({contour}, offset(mark, margin_mm, 0.1));
    if (out.size() > 1) {
        const Polygon around{offset(mark, margin_mm, 0.1)[0].outer, {}};
        const auto [a, b] = nearest_points(contour, around);
        const Point d = b - a, along = d * (1 / std::max(norm(d), 1e-9));
        out = unite(out, line_region({a - along * 1.5, b + along * 1.5}, 1.5));
    }
    const auto largest = std::max_element(out.begin(), out.end(), [](const Polygon& p, const Polygon& q) { return area(p) < area(q); });
    return out.size() == 1 ? out[0] : *largest;
}

std::vector<PieceLimit> piece_limits(const MakeInput& in) {
    const Medium& m = in.medium;
    const double edge = 2 * m.cut_offset.mm(), off = 2 * m.margin.mm() + edge + 1;
    double across = m.width.mm() - off, along = m.length.mm() - off;
    if (m.cut_width.mm() > 0) across = std::min(across, m.cut_width.mm() - edge);
    if (m.cut_length.mm() > 0) along = std::min(along, m.cut_length.mm() - edge);
    std::vector<PieceLimit> out;
    std::vector<Platen> platens = in.press.platens;
    if (platens.empty()) platens.push_back({"", Length::from_mm(1e6), Length::from_mm(1e6)});
    for (const Platen& p : platens) {
        const double w = p.width.mm() - 2 * in.press.margin.mm(), h = p.height.mm() - 2 * in.press.margin.mm();
        out.push_back({std::min(w, across), std::min(h, along)});
        if (m.quarter_turns) out.push_back({std::min(w, along), std::min(h, across)});
    }
    return out;
}

void say_weeding(const Region& shape, const std::string& name, const MakeInput& in, Made& out) {
    if (in.method.handling != Handling::weeded) return;
    int slivers = 0, gaps = 0, islands = 0;
    for (const WeedFault& f : weed_faults(shape, in.method.min_stroke.mm(), in.method.min_gap.mm(), in.method.min_island.mm()))
        ++(f.kind == WeedFault::Kind::sliver ? slivers : f.kind == WeedFault::Kind::gap ? gaps : islands);
    const Phrases of = part_if(!name.empty(), "of-layer", {{"layer", name}});
    const auto speak = [&](int n, const char* code, Length least) {
        if (n > 0) out.findings.push_back(finding(code, {}, {{"of", of}, {"n", n}, {"least", Fine{least.mm()}}}));
    };
    speak(slivers, "weed-sliver", in.method.min_stroke);
    speak(gaps, "weed-gap", in.method.min_gap);
    speak(islands, "weed-island", in.method.min_island);
}

/// Whole shapes of the layers, top first.
bool shape_layers(const MakeInput& in, const ArtFacts& facts, const std::vector<Layer>& layers, const Region& base, Made& out) {
    const Making& m = in.making;
    const double w = in.width;
    int wanted = 0;
    for (const Layer& l : layers) wanted += l.colour ? 1 : 0;
    std::optional<Separation> colours;
    if (wanted > 0 && facts.picture) {
        colours = separate(facts.picture->view(), 24, 14);
        if (colours->unsure > 0.25) out.findings.push_back(finding("colours-tones", {}, {{"share", Share{colours->unsure}}}));
    }
    Region above;  // all that lies on top
    for (const Layer& l : layers) {
        Region shape;
        if (l.colour && colours) {
            // every separated colour that comes nearest to this layer's belongs to it
            for (std::size_t k = 0; k < colours->colours.size(); ++k) {
                const Layer* nearest = nullptr;
                double least = 1e9;
                for (const Layer& other : layers)
                    if (other.colour)
                        if (const double d = colour_difference(*other.colour, colours->colours[k]); d < least) {
                            least = d;
                            nearest = &other;
                        }
                if (nearest == &l) shape = unite(shape, mapped(colour_shape(*colours, k), Affine::scale(w, w)));
            }
            if (m.overlap.mm() > 0 && !above.empty()) shape = unite(shape, intersect(offset(shape, m.overlap.mm(), 0.03, m.corner), above));
            if (m.bridges) shape = bridged(shape, m.bridge.mm());
        } else if (l.printed) {
            shape = base;
        } else {
            const LayerRule rule{l.grow.mm(), m.corner, m.fill_holes.mm(), m.bridges, m.bridge.mm()};
            const auto grown = layer_shape(above.empty() ? base : above, rule);
            if (!grown) {
                out.findings.push_back(finding("layer-swallowed", {}, {{"layer", l.name}, {"fault", grown.error().said()}}));
                return false;
            }
            shape = *grown;
        }
        if (area(shape) < 0.05) {
            out.findings.push_back(finding("layer-empty", {}, {{"layer", l.name}}));
            return false;
        }
        if (!l.printed) say_weeding(shape, l.name, in, out);
        above = unite(above, shape);
        out.layers.push_back(std::move(shape));
    }
    return true;
}

/// What lies under a print, or over an adhesive, must reach past it: ink without adhesive lifts, and adhesive without
/// foil sticks to the cover.
void say_reach(const MakeInput& in, const std::vector<Layer>& layers, Made& out) {
    constexpr double slack = 0.5;  // mm²: round ends that an offset and its inverse do not bring back
    const bool foil = is_foil(in.method);
    for (std::size_t i = 1; i < layers.size(); ++i) {
        if (layers[i].printed || layers[i].colour) continue;
        const auto short_by = [&](const Region& outer, const Region& inner) {  // the least that mends it, to 0.1 mm
            double by = 0;
            while (by < 20 && area(subtract(inner, by > 0 ? offset(outer, by, 0.02, Corner::square) : outer)) > slack) by += 0.1;
            return by;
        };
        if (layers[i - 1].printed) {
            if (const double by = short_by(out.layers[i], out.layers[i - 1]); by > 0)
                out.findings.push_back(finding("layer-short", {}, {{"layer", layers[i].name}, {"by", Fine{by}}}));
            else if (in.method.handling == Handling::trimmed)
                out.findings.push_back(finding("layers-married", {}, {{"layer", layers[i].name}}));
        } else if (foil && i == 1) {
            if (const double by = short_by(out.layers[0], out.layers[1]); by > 0)
                out.findings.push_back(finding("foil-short", {}, {{"layer", layers[1].name}, {"upper", layers[0].name}, {"by", Fine{by}}}));
        }
    }
}

/// Cuts that let a film lie round a dome; where none are wanted, what it would stand off without.
void snip(const MakeInput& in, Piece& p, Made& out) {
    const double wish = in.making.snip_gap.mm();
    if (wish > 0) {
        const SnipPlan plan = snips(p.contour, p.shape, in.bend, wish);
        p.snips = plan.snips;
        if (plan.stands > wish + 0.05)
            out.findings.push_back(finding("snips-ink", {}, {{"stands", Fine{plan.stands}}, {"gap", Fine{wish}}}));
        return;
    }
    if (const double stands = stands_whole(p.contour, in.bend); stands > snips_worth)
        out.findings.push_back(finding("snips-wanted", {}, {{"stands", Fine{stands}}}));
}

void make_layers(const MakeInput& in, const ArtFacts& facts, Made& out) {
    const Making& m = in.making;
    const Region base = mapped(facts.outline, Affine::scale(in.width, in.width));
    const Rect ink{0, 0, in.width, in.width * facts.aspect};
    std::vector<Layer> layers = m.layers;
    if (layers.empty()) layers.push_back({"", "", prints_alone(in.method), {}, in.medium.tint, {}});
    const bool stacked = layers.size() > 1;
    if (!shape_layers(in, facts, layers, base, out)) return;
    say_reach(in, layers, out);
    Rect all = ink;
    for (const Region& shape : out.layers) all = united(all, bounds(shape));
    const Region marks = stacked ? register_shapes(all) : Region{};

    if (m.split) {
        SplitRule rule{m.split_join, m.split_lap.mm(), m.seam_points, piece_limits(in), 0, 0};
        if (!in.press.platens.empty()) {
            const Platen most = largest_platen(in.press);
            rule.platen_width = most.width.mm();
            rule.platen_height = most.height.mm();
        }
        auto plan = facts.alpha ? split(*facts.alpha, in.width, rule) : Result<SplitPlan>(Error{"There is no ink to split."});
        if (!plan) {
            out.findings.push_back(finding("split-impossible", {}, {{"fault", plan.error().said()}}));
            return;
        }
        if (plan->parts.size() > 1) out.split = std::move(*plan);
    }

    for (std::size_t i = 0; i < layers.size(); ++i) {
        const Layer& l = layers[i];
        const Medium& medium = i < in.layer_media.size() ? in.layer_media[i] : in.medium;
        const double k = l.printed ? 1 : shrink_factor(m.shrink > 0 ? m.shrink : in.method.shrink);
        const Affine stretch =
            Affine::shift(ink.centre().x, ink.centre().y).after(Affine::scale(k, k)).after(Affine::shift(-ink.centre().x, -ink.centre().y));
        const Region shape = k == 1 ? out.layers[i] : mapped(out.layers[i], stretch);
        const std::size_t parts = out.split ? out.split->parts.size() : 1;
        for (std::size_t part = 0; part < parts; ++part) {
            Piece p;
            p.medium = medium.id;
            p.printed = l.printed;
            p.tint = l.tint;
            p.suffix = (stacked ? "/" + l.name : "") + (parts > 1 ? "#" + std::to_string(part + 1) : "");
            p.name =
                (stacked ? l.name : "") +
                (parts > 1 ? std::string(stacked ? ", " : "") + "part " + std::to_string(part + 1) + " of " + std::to_string(parts) : "");
            p.ink = ink;
            p.shape = parts > 1 ? intersect(shape, out.split->parts[part].reach) : shape;
            if (p.shape.empty()) continue;
            if (l.printed) {
                if (parts > 1) {
                    const Region window = intersect(out.split->parts[part].reach, box_region(ink.grown(1)));
                    p.picture.emplace_back(ClipMark{rings_of(window)});
                }
                p.picture.emplace_back(art_in(in.art, ink));
                if (parts > 1) p.picture.emplace_back(ClipMark{});
                if (m.white) {
                    p.white = m.white->mm() == 0 ? p.shape : offset(p.shape, -m.white->mm());
                    if (p.white.empty() && part == 0) out.findings.push_back(finding("white-swallowed", {}, {{"by", Fine{m.white->mm()}}}));
                }
            } else {
                p.picture.emplace_back(PathMark{rings_of(p.shape), true, l.tint, Stroke{palette::quiet, 0.15, {}}});
                p.cut = p.shape;
            }
            p.contour = cutting_contour(p.shape, medium.cut_offset.mm());
            const auto add_mark = [&](const Region& mark, bool filled) {
                p.picture.emplace_back(PathMark{rings_of(mark), true, filled ? std::optional<Colour>(palette::ink) : std::nullopt,
                                                filled ? std::nullopt : std::optional<Stroke>(Stroke{palette::ink, 0.2, {}})});
                if (!l.printed) p.cut.insert(p.cut.end(), mark.begin(), mark.end());
                p.contour = with_tab(p.contour, mark, medium.cut_offset.mm());
            };
            for (const Polygon& mark : marks)
                if (parts == 1 || inside(out.split->parts[part].own, bounds(mark.outer).centre())) add_mark({mark}, l.printed);
            if (parts > 1)
                for (const Seam& seam : out.split->seams)
                    for (const Ring& tick : seam_ticks(seam, ink)) {
                        // each part that touches the seam's end has the tick
                        const Region near = line_region(tick, 0.4);
                        const Region wide = offset(near, 4);
                        if (intersect(wide, out.split->parts[part].own).empty()) continue;
                        p.picture.emplace_back(PathMark{{tick}, false, {}, Stroke{palette::ink, 0.35, {}}});
                        p.contour = with_tab(p.contour, near, medium.cut_offset.mm());
                    }
            if (in.bend > 0 && l.printed && parts == 1) snip(in, p, out);
            out.pieces.push_back(std::move(p));
        }
    }
}

// ---- on the blank: walls, whole surfaces, two sides

Panel panel_under(const MakeInput& in) { return panel_for(in.style, in.size, in.location); }

/// A tab of the sheet past the rim, off the wall, so that its tick and TOP never transfer: prints go on upside down. `u` is
/// what it marks, `from` the height that it hangs together with the sheet at. Adds the tab's shape.
void add_rim_tab(const RingSector& sector, double u, double from, Region& sheet, std::vector<Mark>& picture) {
    constexpr double half = 11, up = 9;
    sheet = unite(sheet, sector.bent(box_region({u - half, -up, u + half, from})));
    const Point foot = sector.bent({u, -0.6});
    picture.emplace_back(PathMark{{{foot, sector.bent({u - 1.8, -4}), sector.bent({u + 1.8, -4})}}, true, palette::ink, {}});
    picture.emplace_back(PathMark{{{sector.bent({u, -4}), sector.bent({u, -7.5})}}, false, {}, Stroke{palette::ink, 0.3, {}}});
    picture.emplace_back(TextMark{sector.bent({u + 2.4, -4}), "TOP", 3, palette::ink});
}

void make_wrap(const MakeInput& in, const ArtFacts& facts, const CupWall& wall, Made& out) {
    const auto sector = unrolled(wall);
    if (!sector) {
        out.findings.push_back(finding("wall-impossible", {}, {{"fault", sector.error().said()}}));
        return;
    }
    out.sector = *sector;
    const Measures& measures = in.style.chart.at(in.size);
    const double gap = ends_gap(measures), tolerance = in.style.tolerance.mm();
    if (is_tapered(in.style.family) && sector->straight()) out.findings.push_back(finding("taper-none", {}, {}));
    ArtMark art = art_in(in.art, in.ink);
    art.bend = *sector;
    Piece p;
    p.medium = in.medium.id;
    p.ink = in.ink;
    const Region base = mapped(facts.outline, art.place);
    if (in.location == Location::wrap_full) {
        const WrapSpan span = wrap_span(in.style, in.size, in.making);
        const Rect sheet{span.from, 0, span.to, sector->slant};
        const Region flat = sector->bent(box_region(sheet));
        p.picture.emplace_back(ClipMark{rings_of(flat)});
        Region ink;
        const double around = wall.middle_circumference();
        for (const int turn : {-1, 0, 1}) {  // what runs over the seam comes in again at the other end
            if (gap > 0 && turn != 0) continue;
            const Region copy = intersect(mapped(base, Affine::shift(turn * around, 0)), box_region(sheet));
            if (copy.empty()) continue;
            ink = unite(ink, copy);
            ArtMark mark = art;
            mark.place = Affine::shift(turn * around, 0).after(art.place);
            p.picture.emplace_back(mark);
        }
        p.picture.emplace_back(ClipMark{});
        p.shape = sector->bent(ink);
        Ring edge = flat[0].outer;  // where it is trimmed
        edge.push_back(edge.front());
        p.picture.emplace_back(PathMark{{edge}, false, {}, Stroke{palette::quiet, 0.2, {2, 1.5}}});
        Region whole = flat;
        add_rim_tab(*sector, (span.from + span.to) / 2, 0.5, whole, p.picture);
        p.contour = Polygon{whole[0].outer, {}};
        if (gap <= 0) {
            const double lap = span.to - span.from - around;
            if (lap > 0 && lap < tolerance)
                out.findings.push_back(finding("lap-short", {}, {{"lap", Fine{lap}}, {"tolerance", Fine{tolerance}}}));
            else if (lap > 0)
                out.findings.push_back(finding("lap-dark", {}, {{"lap", Fine{lap}}}));
            else
                out.findings.push_back(finding("butt-line", {}, {{"tolerance", Fine{tolerance}}, {"line", Fine{tolerance - lap}}}));
        }
    } else {
        p.picture.emplace_back(art);
        p.shape = sector->bent(base);
        Region whole = p.shape;
        add_rim_tab(*sector, in.ink.centre().x, std::max(in.ink.centre().y, 1.0), whole, p.picture);
        p.contour = cutting_contour(whole, in.medium.cut_offset.mm());
    }
    out.layers.push_back(p.shape);
    out.pieces.push_back(std::move(p));
}

void make_covered(const MakeInput& in, const ArtFacts& facts, Made& out) {
    const Panel panel = panel_under(in);
    const Region ink = mapped(facts.outline, art_in(in.art, in.ink).place);
    const Region printed = offset(panel.outline, in.making.bleed.mm(), 0.02, Corner::round);
    Region window;  // holes of the blank need no bleed into them
    for (const Polygon& q : printed) window.push_back({q.outer, {}});
    Piece p;
    p.medium = in.medium.id;
    p.ink = in.ink;
    p.picture.emplace_back(ClipMark{rings_of(window)});
    p.picture.emplace_back(art_in(in.art, in.ink));
    p.picture.emplace_back(ClipMark{});
    p.shape = intersect(ink, window);
    Region around = window;
    const Rect box = bounds(panel.outline);
    // corner ticks where the blank's own box lies, to tape it by
    for (const double x : {box.x0, box.x1})
        for (const double y : {box.y0, box.y1}) {
            const double sx = x == box.x0 ? -1 : 1, sy = y == box.y0 ? -1 : 1;
            const double from = in.making.bleed.mm() + 1;
            const Ring a{{x, y + sy * from}, {x, y + sy * (from + 4)}}, b{{x + sx * from, y}, {x + sx * (from + 4), y}};
            for (const Ring& tick : {a, b}) {
                p.picture.emplace_back(PathMark{{tick}, false, {}, Stroke{palette::ink, 0.2, {}}});
                around = unite(around, line_region(tick, 0.3));
            }
        }
    p.contour = cutting_contour(around, in.medium.cut_offset.mm());
    const Coverage proof = coverage(p.shape, panel.outline, in.making.misplaced.mm());
    // what some shift bares, as it lies on the blank
    if (!proof.bare.empty()) out.bare = intersect(offset(proof.bare, in.making.misplaced.mm(), 0.005), panel.outline);
    out.spare = proof.worst;
    if (!proof.bare.empty())
        out.findings.push_back(
            finding("rim-bare", {}, {{"missed", Fine{in.making.misplaced.mm()}}, {"stands", Fine{std::max(0.0, proof.worst)}}}));
    out.layers.push_back(p.shape);
    out.pieces.push_back(std::move(p));
}

void make_two_sided(const MakeInput& in, const ArtFacts& facts, Made& out) {
    const Panel panel = panel_under(in);
    const Rect box = bounds(panel.outline);
    const auto [fold, sheet] = folded_sheet(panel, in.making, in.medium);
    const Affine over{-1, 0, 0, 1, 2 * fold, 0};
    Piece p;
    p.medium = in.medium.id;
    p.ink = in.ink;
    const ArtMark front = art_in(in.art, in.ink);
    ArtMark back = front;
    back.place = over.after(front.place);
    const Region back_outline = mapped(panel.outline, over);
    const Stroke border{palette::quiet, 0.3, {}};
    p.picture.emplace_back(PathMark{rings_of(panel.outline), true, {}, border});
    p.picture.emplace_back(PathMark{rings_of(back_outline), true, {}, border});
    p.picture.emplace_back(front);
    p.picture.emplace_back(back);
    p.picture.emplace_back(PathMark{{{{fold, box.y0}, {fold, box.y1}}}, false, {}, Stroke{palette::quiet, 0.3, {3, 2}}});
    p.picture.emplace_back(TextMark{{fold - 1.5, box.centre().y}, "fold", 3, palette::quiet, Align::centre, false, -90});
    p.shape = unite(mapped(facts.outline, front.place), mapped(mapped(facts.outline, front.place), over));
    p.contour = box_region(sheet)[0];
    // the back as the blank itself has it must be what the fold brings there
    const auto faces = family_faces(in.style.family);
    if (std::find(faces.begin(), faces.end(), Face::back) != faces.end()) {
        const Region own = panel_of(in.style, in.size, Face::back).outline;
        const Rect b = bounds(own), at = bounds(back_outline);
        const double off = fold_difference(panel.outline, mapped(own, Affine::shift(at.x0 - b.x0, at.y0 - b.y0)), fold);
        if (off > 1) out.findings.push_back(finding("back-differs", {}, {}));
    }
    out.layers.push_back(p.shape);
    out.pieces.push_back(std::move(p));
}

}  // namespace

WrapSpan wrap_span(const BlankStyle& style, const std::string& size, const Making& making) {
    const Measures& m = style.chart.at(size);
    const CupWall wall = wall_of(style.family, m).value_or(CupWall{});
    const double around = wall.middle_circumference();
    const double gap = ends_gap(m);
    if (gap > 0) {
        const double half = fitting_panel(style, size, Face::wrap).width / 2;
        return {-half, half};
    }
    const double from = making.seam_at.mm() - around / 2;
    const double lap = making.wrap_join == Join::lap ? making.wrap_lap.mm() : std::min(0.0, making.wrap_lap.mm());
    return {from, from + around + lap};
}

Made make(const MakeInput& in, const ArtFacts& facts) {
    Made out;
    out.input = in;
    if (facts.empty() || !(in.width > 0)) return out;
    if (in.on_blank) {
        const auto wall = wall_of(in.style.family, in.style.chart.at(in.size));
        if (wall)
            make_wrap(in, facts, *wall, out);
        else if (in.making.two_sided)
            make_two_sided(in, facts, out);
        else
            make_covered(in, facts, out);
        return out;
    }
    make_layers(in, facts, out);
    return out;
}

}  // namespace orthema
