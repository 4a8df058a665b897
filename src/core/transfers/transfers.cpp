#include "core/transfers/transfers.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/fitting/fit_findings.h"
#include "core/order/roster.h"
#include "core/transfers/choices.h"

namespace orthema {

bool program_mirrors(const Medium& medium) { return medium.mirror == MirrorBy::program; }

int times_mirrored(const Medium& medium, const Method& method) {
    return (medium.mirror == MirrorBy::nobody ? 0 : 1) + (method.read_through ? 1 : 0);
}

std::string reading_direction(const Medium& medium) {
    switch (medium.mirror) {
    case MirrorBy::program: return "mirrored here: it reads right on the blank";
    case MirrorBy::printer_software: return "not mirrored: the printer's software mirrors";
    case MirrorBy::nobody: return "reads as printed, not mirrored";
    }
    return "";
}

Affine print_map(const Polygon& contour, bool mirrored) {
    const Rect box = bounds(contour.outer);
    if (mirrored) return {-1, 0, 0, 1, box.x1, -box.y0};
    return Affine::shift(-box.x0, -box.y0);
}

std::string sizes_text(const Transfer& t) {
    if (t.board > 0) return "board " + std::to_string(t.board);
    std::string out;
    for (const SizesFor& s : t.sizes) out += out.empty() ? joined(s.sizes) : "; " + s.garment + " " + joined(s.sizes);
    return out;
}

std::string label_text(const Transfer& t) { return sizes_text(t) + (t.whose.empty() ? "" : ", " + t.whose); }

std::map<std::string, const Transfer*> transfers_by_id(const TransferSet& set) {
    std::map<std::string, const Transfer*> out;
    for (const Transfer& t : set.transfers) out[t.id] = &t;
    return out;
}

const Transfer* find_transfer(const TransferSet& set, const std::string& id) {
    for (const Transfer& t : set.transfers)
        if (t.id == id) return &t;
    return nullptr;
}

const MakingOf* find_making(const TransferSet& set, const std::string& decoration, const std::string& size) {
    const MakingOf* any = nullptr;
    const auto first = set.first_making.find(decoration);
    const std::size_t from = set.first_making.empty() ? 0 : first == set.first_making.end() ? set.makings.size() : first->second;
    for (std::size_t i = from; i < set.makings.size(); ++i) {
        const MakingOf& m = set.makings[i];
        if (m.decoration != decoration) continue;
        if (std::find(m.sizes.begin(), m.sizes.end(), size) != m.sizes.end()) return &m;
        any = &m;
    }
    return any;
}

std::vector<const Transfer*> pieces_of(const TransferSet& set, const MakingOf& making) {
    std::vector<const Transfer*> out;
    for (const Transfer& t : set.transfers) {
        const bool own = t.decoration == making.decoration || std::find(t.also.begin(), t.also.end(), making.decoration) != t.also.end();
        if (own && t.made == making.made) out.push_back(&t);
    }
    return out;
}

namespace {

/// What lies on a blank depends on it; the rest on its width alone.
bool made_on_blank(const Decoration& d, const BlankStyle& style) {
    if (d.making.cover || d.making.two_sided) return true;
    if (location_face(d.location) != Face::wrap) return false;
    return d.location == Location::wrap_full || is_tapered(style.family) || (d.making.layers.empty() && !d.making.split);
}

/// How much the panel is domed that a design lies on; of caps that nobody taped as a usual one.
double dome_of(const BlankStyle& style, const std::string& size, Location location) {
    if (family_build(style.family) != Build::cap || location == Location::bill || style_fault(style)) return 0;
    return crown_bend(style.chart.at(size)).value_or(usual_crown_bend);
}

Transfer printed_piece(const Piece& p, bool mirrored) {
    Transfer t;
    const Affine to = print_map(p.contour, mirrored);
    t.medium = p.medium;
    t.piece = p.name;
    t.printed = p.printed;
    t.tint = p.tint;
    t.mirrored = mirrored;
    t.contour = mapped(p.contour, to);
    t.picture.reserve(p.picture.size());
    for (const Mark& m : p.picture) t.picture.push_back(mapped(m, to));
    t.shape = mapped(p.shape, to);
    t.cut = mapped(p.cut, to);
    t.white = mapped(p.white, to);
    for (const Ring& snip : p.snips) t.snips.push_back(mapped(snip, to));
    const Point a = to({p.ink.x0, p.ink.y0}), b = to({p.ink.x1, p.ink.y1});
    t.ink = {std::min(a.x, b.x), a.y, std::max(a.x, b.x), b.y};
    return t;
}

/// A medium as making sees it: how it is laid changes nothing that is made.
Medium for_making(Medium medium) {
    medium.laying = {};
    return medium;
}

/// The blank as it lies on a piece in reading frame, its back beside it where that is printed too; of the largest of the
/// sizes that share the piece. Empty for what is wrapped.
Region blank_under(const Decoration& d, const BlankStyle& style, const SizeFit& largest, bool on_blank) {
    if (location_face(d.location) == Face::wrap || style_fault(style)) return {};
    Region out = panel_for(style, largest.size, d.location).outline;
    if (!on_blank) return mapped(out, Affine::shift(-largest.ink.x0, -largest.ink.y0));
    if (d.making.two_sided) {
        const Region back = mapped(out, Affine{-1, 0, 0, 1, 2 * (bounds(out).x1 + d.making.fold.mm()), 0});
        out.insert(out.end(), back.begin(), back.end());
    }
    return out;
}

/// What making found, with who it is about.
void say_made(const Order& order, const Decoration& d, const std::string& size, const Made& made, Findings& findings) {
    for (Finding f : made.findings) {
        f.about = about(d, size);
        f.about.stage = "fit";
        f.args.emplace_back("who", who(order, d, ""));
        if (std::none_of(findings.begin(), findings.end(), [&](const Finding& o) { return o.code == f.code && o.args == f.args; }))
            findings.push_back(std::move(f));
    }
}

/// What one transfer of a design is told from another by.
struct PieceKey {
    long width = 0;  ///< of the design or its field, 0.1 mm
    std::string size, word;
    auto operator<=>(const PieceKey&) const = default;
};

/// So many of a size want this picture.
struct Wanted {
    const SizeFit* size = nullptr;
    std::string word;  ///< of a lettering
    int quantity = 0;
    std::vector<std::string> persons = {};  ///< who wear it
};

/// A picture: once for each garment. A lettering: each word that somebody wears, or each digit of it, in the order of the pile.
std::vector<Wanted> wanted(const Order& order, const Decoration& d, const Lettering* lettering, const SizeFit& size) {
    if (lettering == nullptr) return {{&size, {}, size.quantity}};
    std::vector<Wanted> out;
    const auto add = [&](const std::string& word, int n) -> Wanted& {
        auto same = std::find_if(out.begin(), out.end(), [&](const Wanted& w) { return w.word == word; });
        if (same == out.end()) same = out.insert(out.end(), {&size, word, 0});
        same->quantity += n;
        return *same;
    };
    for (const Worn& w : worn(order, *lettering, d.run, size.size)) {
        if (w.word.empty()) continue;
        for (const std::string& piece : printed_as(*lettering, w.word)) {
            Wanted& of = add(piece, w.quantity);
            if (!lettering->digits || !is_number(piece)) of.persons.push_back(person_text(*w.line));  // a digit is one of a stock
        }
    }
    return out;
}

/// Who wears a word, as far as the word does not say it itself; of many the first.
std::string whose(const std::vector<Wanted>& sizes, const std::string& word) {
    constexpr std::size_t most = 3;
    std::vector<std::string> all;
    for (const Wanted& w : sizes) all.insert(all.end(), w.persons.begin(), w.persons.end());
    if (all.size() == 1 && all.front() == word) return {};
    std::string out;
    for (std::size_t i = 0; i < std::min(most, all.size()); ++i) out += (i == 0 ? "" : ", ") + all[i];
    return out + (all.size() > most ? " and " + std::to_string(all.size() - most) + " more" : "");
}

/// How often a picture is in a word that was spoiled.
int times_in(const std::string& picture, const std::string& spoiled, const Lettering* lettering) {
    if (lettering == nullptr || spoiled == picture) return 1;
    const std::vector<std::string> pieces = printed_as(*lettering, spoiled);
    return static_cast<int>(std::count(pieces.begin(), pieces.end(), picture));
}

/// A method that does not suit its blank or its design. Strokes and gaps have findings of their own.
void say_method(const Order& order, const Decoration& d, const ArtFacts& facts, const DecorationFit& fit, Findings& findings) {
    const Method* method = method_of(order, d);
    if (method == nullptr) return;
    MethodCase what = method_case(order, d, facts, fit);
    what.thin_stroke = what.narrow_gap = 0;
    const Phrases why{against(*method, what)};
    if (why.of.all().empty()) return;
    findings.push_back(finding("method-unsuited", about(d, ""), {{"who", who(order, d, "")}, {"method", method->name}, {"why", why}}));
}

/// A medium and its method must agree on who turns the print over.
void say_mirror(const Order& order, const std::set<std::string>& used, Findings& findings) {
    for (const Medium& m : order.media) {
        const Method* method = find_method(order, m.method);
        if (!used.contains(m.id) || method == nullptr || times_mirrored(m, *method) % 2 == 0) continue;
        Subject of;
        of.medium = m.id;
        const Words why{method->read_through ? "mirror-none" : "mirror-twice", {{"method", method->name}}};
        findings.push_back(finding("mirror-parity", of, {{"medium", m.name}, {"why", Phrases{{why}}}}));
    }
}

bool same_design(const Transfer& a, const Transfer& b) {
    return a.art == b.art && a.medium == b.medium && a.piece == b.piece && std::lround(a.width * 10) == std::lround(b.width * 10);
}

/// Another design's share of the same piece: a job needs the most spares that any of its designs asks for.
void share_with(Transfer& t, const JobShare& more) {
    const auto own = std::find_if(t.shares.begin(), t.shares.end(), [&](const JobShare& s) { return s.job == more.job; });
    if (own == t.shares.end()) {
        t.shares.push_back(more);
    } else {
        own->quantity += more.quantity;
        own->spoiled += more.spoiled;
        own->spares = std::max({own->spares, more.spares, own->spoiled});
    }
    t.quantity = t.spares = t.spoiled = 0;
    for (const JobShare& s : t.shares) {
        t.quantity += s.quantity;
        t.spares += s.spares;
        t.spoiled += s.spoiled;
    }
}

}  // namespace

TransferSet transfers(const Order& order, const FitPlan& plan, const ArtFactsById& facts, const TransferSet* before) {
    TransferSet set;
    std::set<std::string> used;
    for (const DecorationFit& fit : plan.decorations) {
        const Decoration* d = find_decoration(order, fit.decoration);
        const Medium* medium = d == nullptr ? nullptr : find_medium(order, d->medium);
        const BlankStyle* style = d == nullptr ? nullptr : find_style(order, d->run.style);
        const auto art = d == nullptr ? facts.end() : facts.find(d->art);
        if (medium == nullptr || style == nullptr || art == facts.end()) continue;
        say_method(order, *d, art->second, fit, set.findings);
        const Lettering* lettering = lettering_of(order, *d);
        if (lettering == nullptr && find_jig(order, d->making.jig) != nullptr) continue;  // goes on to a board
        const bool on_blank = made_on_blank(*d, *style);
        std::map<PieceKey, std::vector<Wanted>> groups;
        for (const SizeFit& s : fit.sizes)
            for (Wanted& w : wanted(order, *d, lettering, s))
                groups[{std::lround(s.width * 10), on_blank ? s.size : "", w.word}].push_back(std::move(w));
        for (const auto& [key, sizes] : groups) {
            const auto picture = key.word.empty() ? art : facts.find(word_art(d->art, key.word));
            if (picture == facts.end()) continue;  // it is being set
            const ArtFacts& its = picture->second;
            const SizeFit& first = *sizes.front().size;
            // of a word its own part of the field
            const Rect part = its.lettered ? its.lettered->in_field : Rect{0, 0, 1, its.aspect};
            MakeInput in;
            in.art = picture->first;
            in.alpha = its.alpha;
            in.width = first.width * part.width();
            in.making = d->making;
            in.medium = for_making(*medium);
            if (const Method* m = find_method(order, medium->method)) in.method = *m;
            for (const Layer& l : d->making.layers) {
                const Medium* own = l.medium.empty() ? medium : find_medium(order, l.medium);
                in.layer_media.push_back(for_making(own == nullptr ? *medium : *own));
            }
            if (d->making.split)
                if (const Press* press = find_press(order, d->press)) in.press = *press;
            for (const Wanted& w : sizes) in.bend = std::max(in.bend, dome_of(*style, w.size->size, d->location));
            if (on_blank) {
                in.on_blank = true;
                in.style = *style;
                in.size = first.size;
                in.location = d->location;
                in.ink = word_box(first.ink, its);
            }
            std::shared_ptr<const Made> made;
            for (const TransferSet* known : {static_cast<const TransferSet*>(&set), before})
                if (known != nullptr && made == nullptr)
                    for (const MakingOf& m : known->makings)
                        if (m.made->input == in) {
                            made = m.made;
                            break;
                        }
            if (made == nullptr) made = std::make_shared<const Made>(make(in, its));
            MakingOf of{d->id, {}, in.width, made};
            int quantity = 0;
            for (const Wanted& w : sizes) {
                quantity += w.quantity;
                of.sizes.push_back(w.size->size);
            }
            say_made(order, *d, first.size, *made, set.findings);
            std::vector<Transfer> pieces;
            for (const Piece& p : made->pieces) {
                const Medium* own = find_medium(order, p.medium);
                Transfer t = printed_piece(p, program_mirrors(own == nullptr ? *medium : *own));
                t.id = d->id + "@" + std::to_string(key.width) + (key.size.empty() ? "" : "-" + key.size) +
                       (key.word.empty() ? "" : "~" + key.word) + p.suffix;
                t.decoration = d->id;
                t.art = in.art;
                t.width = in.width;
                t.height = first.width * part.height();
                t.name =
                    d->name + (key.word.empty() ? "" : " " + key.word) + " " + mm_text(t.width, 1) + (p.name.empty() ? "" : ", " + p.name);
                t.sizes = {{run_name(order, d->run), of.sizes}};
                t.garment = run_name(order, d->run);
                t.whose = whose(sizes, key.word);
                JobShare share{d->run.job, t.id, quantity, 0, 0};
                for (const Reprint& r : order.reprints)
                    if (r.decoration == d->id &&
                        std::any_of(sizes.begin(), sizes.end(), [&](const Wanted& w) { return w.size->size == r.size; }))
                        share.spoiled += r.copies * times_in(key.word, r.word, lettering);
                share.spares = std::max(d->spares, share.spoiled);  // a spare that lies ready is used first
                share_with(t, share);
                t.made = made;
                if (own != nullptr && own->laying.cutting == Cutting::on_sheet)
                    t.blanks = mapped(blank_under(*d, *style, *sizes.back().size, on_blank), print_map(p.contour, t.mirrored));
                used.insert(t.medium);
                const bool by_job = own != nullptr && own->laying.together == Together::jobs;
                // Another blank that takes the same piece: one transfer, printed once for both.
                const auto shared = std::find_if(set.transfers.begin(), set.transfers.end(), [&](const Transfer& o) {
                    const Decoration* theirs = find_decoration(order, o.decoration);
                    return !on_blank && same_design(o, t) && (!by_job || o.shares.front().job == d->run.job) &&
                           o.decoration != t.decoration && theirs != nullptr && theirs->making == d->making &&
                           find_jig(order, theirs->making.jig) == nullptr && o.made->input.bend == in.bend;
                });
                if (shared != set.transfers.end()) {
                    if (std::find(shared->also.begin(), shared->also.end(), t.decoration) == shared->also.end())
                        shared->also.push_back(t.decoration);
                    share_with(*shared, share);
                    shared->sizes.push_back(t.sizes.front());
                    if (!t.whose.empty()) shared->whose += (shared->whose.empty() ? "" : ", ") + t.whose;
                    continue;
                }
                pieces.push_back(std::move(t));
            }
            for (Transfer& t : pieces) set.transfers.push_back(std::move(t));
            set.first_making.try_emplace(of.decoration, set.makings.size());
            set.makings.push_back(std::move(of));
        }
    }
    set.jigs = jig_sheets(order, plan, facts, set.findings);
    for (std::size_t i = 0; i < set.jigs.size(); ++i) {
        const JigSheet& sheet = set.jigs[i];
        const Jig* jig = find_jig(order, sheet.jig);
        const Medium* medium = find_medium(order, sheet.medium);
        if (jig == nullptr || medium == nullptr) continue;
        Transfer t = printed_piece(sheet.piece, program_mirrors(*medium));
        int number = 1;
        for (std::size_t k = 0; k < i; ++k) number += set.jigs[k].jig == sheet.jig ? 1 : 0;
        t.id = "jig:" + jig->id + "@" + std::to_string(number);
        for (const SlotFill& f : sheet.front)
            if (t.decoration.empty()) t.decoration = f.decoration;
        if (const Decoration* d = find_decoration(order, t.decoration)) {
            t.art = d->art;
            t.garment = run_name(order, d->run);
        }
        const Rect box = bounds(t.contour.outer);
        t.width = box.width();
        t.height = box.height();
        t.name = jig->name + ", board " + std::to_string(number);
        t.board = number;
        int of_job = 1;
        for (std::size_t k = 0; k < i; ++k) of_job += set.jigs[k].jig == sheet.jig && set.jigs[k].job == sheet.job ? 1 : 0;
        share_with(t, {sheet.job, "jig:" + jig->id + "@" + std::to_string(of_job), sheet.count, 0, 0});
        used.insert(t.medium);
        set.transfers.push_back(std::move(t));
    }
    say_mirror(order, used, set.findings);
    return set;
}

}  // namespace orthema
