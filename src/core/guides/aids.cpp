#include "core/guides/aids.h"

#include <algorithm>
#include <set>

#include "core/guides/handle_template.h"
#include "core/guides/panel_drawing.h"
#include "core/transfers/jig_sheets.h"
#include "core/transfers/make.h"

namespace orthema {

namespace {

constexpr Colour board_paper{0.957, 0.945, 0.918, 1};
const Stroke cut_line{palette::ink, 0.5, {}}, fold_line{palette::ink, 0.3, {4, 2}}, pale{palette::quiet, 0.25, {}};

/// Where ink lies on a size of a blank, each place once, whatever the colour.
std::vector<Rect> inks_on(const Order& order, const FitPlan& plan, const std::string& style, Face face, const std::string& size) {
    std::vector<Rect> out;
    for (const DecorationFit& f : plan.decorations) {
        const Decoration* d = find_decoration(order, f.decoration);
        const SizeFit* s = d == nullptr || d->run.style != style || location_face(d->location) != face ? nullptr : find_size(f, size);
        if (s != nullptr && std::none_of(out.begin(), out.end(), [&](const Rect& r) {
                return norm(Point{r.x0, r.y0} - Point{s->ink.x0, s->ink.y0}) + norm(Point{r.x1, r.y1} - Point{s->ink.x1, s->ink.y1}) < 0.5;
            }))
            out.push_back(s->ink);
    }
    return out;
}

/// As wide as goes between the side seams, from the collar to well below the lowest ink; registered at the table by
/// collar notch and centre.
void carry_board(const Panel& p, const std::vector<Rect>& inks, const Reading& reading, Aid& out) {
    Rect all = inks.front();
    for (const Rect& r : inks) all = united(all, r);
    const double half = std::max({-all.x0 + 25, all.x1 + 25, 0.36 * p.width});
    out.area = {-half, p.top_y - 25, half, all.y1 + 45};
    Drawing& d = out.whole;
    d.marks.emplace_back(PathMark{{round_rect(out.area, 18)}, true, board_paper, cut_line});
    for (const double way : {1.0, -1.0}) {
        Ring seam;
        for (const Point& q : p.neck_edge) seam.push_back({way * q.x, q.y});
        d.line(seam, cut_line);
    }
    d.line({{0, out.area.y0}, {0, out.area.y1}}, fold_line);
    if (p.pit_y) {
        d.line({{-half, *p.pit_y}, {half, *p.pit_y}}, {palette::brick, 0.3, {3, 2}});
        d.text({-half + 3, *p.pit_y - 1.2}, phrase("page-pit-line", reading), 3.2, palette::brick_text);
    }
    for (const Rect& r : inks) d.rect(r, {}, Stroke{palette::verdigris, 0.4, {5, 2}});
    const double foot = out.area.y1;
    d.marks.emplace_back(PathMark{{round_rect({-45, foot - 32, 45, foot - 12}, 10)}, true, palette::white, cut_line});
    calibration_bar(d, {-50, foot - 40}, 100, "100 mm");
    d.text({0, foot - 20}, phrase("page-hand-hole", reading), 3.2, palette::quiet, Align::centre);
    d.text({-half + 6, all.y1 + 8}, out.title, 4.2, palette::ink, Align::left, true);
    wrapped(d, {-half + 6, all.y1 + 12.5}, phrase("page-slide-it-between-the-layers", reading), 3.2, 2 * half - 12, palette::ink);
}

/// The backer with its slots as the sheet has them. The sheet is laid on it corner on corner.
void jig_plate(const Jig& jig, const Panel& blank, const Reading& reading, Aid& out) {
    Drawing& d = out.whole;
    const double w = jig.backer_width.mm(), h = jig.backer_height.mm();
    const Rect backer{0, 0, w, h};
    d.rect(backer, board_paper, cut_line);
    if (const double m = jig.margin.mm(); m > 0) d.rect(backer.grown(-m), {}, Stroke{palette::quiet, 0.2, {2, 2}});
    for (int s = 0; s < jig.rows * jig.columns; ++s) {
        const Point c = slot_middle(jig, s);
        d.marks.emplace_back(PathMark{slot_edge(jig, &blank, c), true, palette::white, cut_line});
        d.line({c - Point{2, 0}, c + Point{2, 0}}, pale);
        d.line({c - Point{0, 2}, c + Point{0, 2}}, pale);
        const std::string behind = std::to_string(slot_behind(jig, s) + 1);
        d.text(c + Point{0, -2.6}, std::to_string(s + 1), 3.4, palette::ink, Align::centre, true);
        d.text(c + Point{0, 5.4}, phrase("page-back-of", reading, {{"slot", behind}}), 2.2, palette::quiet, Align::centre);
    }
    d.text({0, -11.5}, jig.name + said(reading, ", plate for the slots"), 4.2, palette::ink, Align::left, true);
    d.text({0, -6.5}, phrase("page-lay-the-sheet-on-it", reading), 2.8, palette::quiet);
    calibration_bar(d, {0, h + 8}, 100, "100 mm");
    const double words = 0.55 * 2.8 * 110;
    out.area = {-4, -18, std::max({w + 4, 104.0, std::min(words, w + 60)}), h + 14};
}

/// The sheet's border, the blank's outline on it for the front and, across the fold, for the back.
void fold_and_border(const Decoration& dec, const Panel& panel, const Medium& medium, const SizeFit& size, const Reading& reading,
                     Aid& out) {
    Drawing& d = out.whole;
    const FoldedSheet sheet = folded_sheet(panel, dec.making, medium);
    const Affine over{-1, 0, 0, 1, 2 * sheet.fold, 0};
    const Rect frame = sheet.sheet.grown(12);
    d.rect(frame, board_paper, cut_line);
    d.rect(sheet.sheet, palette::white, Stroke{palette::verdigris, 0.5, {}});
    d.region(panel.outline, {}, Stroke{palette::brick, 0.4, {}});
    d.region(mapped(panel.outline, over), {}, pale);
    d.rect(size.ink, {}, Stroke{palette::quiet, 0.2, {3, 2}});
    d.line({{sheet.fold, frame.y0}, {sheet.fold, frame.y1}}, fold_line);
    const Point front = bounds(panel.outline).centre();
    d.text({front.x, front.y}, phrase("page-lay-the-blank-here", reading), 4, palette::brick_text, Align::centre);
    d.text({over(front).x, front.y}, phrase("page-the-back-folds-over-from", reading), 4, palette::quiet, Align::centre);
    d.text({sheet.fold - 1.5, front.y}, said(reading, "fold"), 3.2, palette::ink, Align::centre, false, -90);
    d.text({frame.x0 + 4, frame.y0 + 5.5}, phrase("page-border-the-printed-sheet-lies", reading), 3, palette::verdigris_text);
    d.text({frame.x0, frame.y1 + 8}, out.title, 4.2, palette::ink, Align::left, true);
    d.text({frame.x0, frame.y1 + 13}, phrase("page-sheet-inside-the-border-print", reading), 2.8, palette::ink);
    calibration_bar(d, {frame.x0, frame.y1 + 22}, 100, "100 mm");
    out.area = {frame.x0 - 3, frame.y0 - 3, std::max(frame.x1, frame.x0 + 150) + 3, frame.y1 + 27};
}

}  // namespace

const char* aid_name(AidKind kind) {
    switch (kind) {
    case AidKind::carry_board: return "carry board";
    case AidKind::handle_template: return "handle template";
    case AidKind::jig_plate: return "jig plate";
    case AidKind::fold_and_border: return "fold and border";
    }
    return "";
}

std::optional<AidKind> aid_kind(const Order& order, const Decoration& dec) {
    const BlankStyle* style = find_style(order, dec.run.style);
    if (style == nullptr) return std::nullopt;
    if (find_jig(order, dec.making.jig) != nullptr) return AidKind::jig_plate;
    if (dec.making.two_sided) return AidKind::fold_and_border;
    if (location_face(dec.location) == Face::wrap) return AidKind::handle_template;
    if (is_double_layer(style->family) || style->fabric.find("double-layer") != std::string::npos) return AidKind::carry_board;
    return std::nullopt;
}

std::optional<Aid> aid_for(const Order& order, const FitPlan& plan, const Decoration& dec, const DecorationFit& fit, const SizeFit& size) {
    const auto kind = aid_kind(order, dec);
    const Ground* ground = find_ground(fit, size.size);
    if (!kind || ground == nullptr) return std::nullopt;
    const BlankStyle& style = *find_style(order, dec.run.style);
    Aid out;
    out.kind = *kind;
    const std::string name = capitalised(said(order.unit, aid_name(*kind)));
    out.title = name + ", " + run_name(order, dec.run) + " " + size.size;
    out.id = std::string(aid_name(*kind)) + " " + dec.id + " " + size.size;
    switch (*kind) {
    case AidKind::carry_board: {
        const Face face = location_face(dec.location);
        std::vector<Rect> inks = inks_on(order, plan, style.id, face, size.size);
        if (inks.empty()) inks.push_back(size.ink);
        out.title = name + ", " + style.name + ", " + said(order.unit, face_name(face)) + ", " + size.size;
        out.id = std::string(aid_name(*kind)) + " " + style.id + " " + face_key(face) + " " + size.size;
        carry_board(ground->panel, inks, order.unit, out);
        break;
    }
    case AidKind::handle_template: {
        auto paper = handle_template(style, size.size, order.name + "   " + run_name(order, dec.run) + " " + size.size, order.unit);
        if (!paper) return std::nullopt;
        out.id = std::string(aid_name(*kind)) + " " + dec.run.style + " " + size.size;
        out.area = {0, 0, std::max(paper->width, 124.0), paper->height + 10};
        out.whole = std::move(*paper);
        calibration_bar(out.whole, {12, out.area.y1 - 6}, 100, "100 mm");
        break;
    }
    case AidKind::jig_plate: {
        const Jig& jig = *find_jig(order, dec.making.jig);
        out.title = name + ", " + jig.name;
        out.id = std::string(aid_name(*kind)) + " " + jig.id;
        jig_plate(jig, ground->panel, order.unit, out);
        break;
    }
    case AidKind::fold_and_border: {
        const Medium* medium = find_medium(order, dec.medium);
        if (medium == nullptr) return std::nullopt;
        fold_and_border(dec, ground->panel, *medium, size, order.unit, out);
        break;
    }
    }
    out.layout = tile_layout(out.area.grown(3), template_papers(order), print_correction(order.guide_setup));
    out.tiles = template_tiles(out.whole, out.layout, out.title, out.title, order.unit);
    return out;
}

std::vector<Aid> aids_of(const Order& order, const FitPlan& plan) {
    std::vector<Aid> out;
    std::set<std::string> had;
    for (const DecorationFit& f : plan.decorations) {
        const Decoration* dec = find_decoration(order, f.decoration);
        if (dec == nullptr) continue;
        for (const SizeFit& s : f.sizes) {
            auto aid = aid_for(order, plan, *dec, f, s);
            if (aid && had.insert(aid->id).second) out.push_back(std::move(*aid));
        }
    }
    return out;
}

}  // namespace orthema
