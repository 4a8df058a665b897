// Ids: every place of an order where one of its things is named, its own id included. What renaming walks.
#pragma once

#include "core/order/order.h"

namespace orthema {

enum class IdKind { style, medium, press, method, jig, art, rule, lot, decoration };
constexpr int id_kind_count = 9;

/// What a job brought, by kind; with the kind's name in files.
struct BroughtList {
    const char* key;
    std::vector<Brought> Job::*list;
};
inline constexpr BroughtList brought_lists[id_kind_count] = {
    {"blanks", &Job::styles}, {"media", &Job::media}, {"presses", &Job::presses}, {"methods", &Job::methods},        {"jigs", &Job::jigs},
    {"art", &Job::art},       {"rules", &Job::rules}, {"lots", &Job::lots},       {"decorations", &Job::decorations}};

namespace ids_detail {
/// "crew-kite@2900-M" and "jig:oak@2" begin with what they are of.
template <class See>
void in_transfer(std::string& transfer, See& see) {
    const bool board = transfer.rfind("jig:", 0) == 0;
    const std::size_t from = board ? 4 : 0, at = transfer.find('@', from);
    if (at == std::string::npos || at < from) return;
    std::string id = transfer.substr(from, at - from);
    const std::string was = id;
    see(board ? IdKind::jig : IdKind::decoration, id);
    if (id != was) transfer.replace(from, at - from, id);
}
template <class See>
void in_layout(MediumLayout& l, See& see) {
    see(IdKind::medium, l.medium);
    for (PlacedCopy& c : l.copies) in_transfer(c.transfer, see);
    for (FillWish& f : l.fill) in_transfer(f.transfer, see);
    for (PrintedCopies& p : l.printed) in_transfer(p.transfer, see);
    if (l.kept)
        for (PlacedCopy& c : l.kept->copies) in_transfer(c.transfer, see);
}
}  // namespace ids_detail

/// Calls see(kind, id) for each; an id may be written to. What is pinned or accepted of a press plan is not walked: it names loads.
template <class See>
void each_id(Order& o, See see) {
    const auto run = [&](RunKey& r) {
        see(IdKind::style, r.style);
        see(IdKind::lot, r.lot);
    };
    for (OrderLine& l : o.lines.own()) {
        see(IdKind::style, l.style);
        see(IdKind::lot, l.lot);
    }
    for (Lot& l : o.lots) see(IdKind::lot, l.id);
    for (Art& a : o.art) {
        see(IdKind::art, a.id);
        if (a.clip) see(IdKind::style, a.clip->style);
        if (a.word_picture)
            for (WordPlace& p : a.word_picture->places)
                for (std::string* id : {&p.outline, &p.first.picture, &p.second.picture})
                    if (!id->empty()) see(IdKind::art, *id);
        if (a.together) {
            see(IdKind::style, a.together->style);
            if (!a.together->ground.empty()) see(IdKind::art, a.together->ground);
            for (LaidOver& over : a.together->over) see(IdKind::art, over.picture);
        }
    }
    for (DesignRule& r : o.rules) {
        see(IdKind::rule, r.id);
        see(IdKind::art, r.art);
        for (BlankBase& b : r.base_sizes) see(IdKind::style, b.style);
    }
    for (Decoration& d : o.decorations) {
        see(IdKind::decoration, d.id);
        see(IdKind::art, d.art);
        run(d.run);
        see(IdKind::medium, d.medium);
        see(IdKind::press, d.press);
        see(IdKind::rule, d.rule);
        see(IdKind::jig, d.making.jig);
        for (Layer& l : d.making.layers) see(IdKind::medium, l.medium);
    }
    for (BlankStyle& s : o.styles.own()) see(IdKind::style, s.id);
    for (Medium& m : o.media.own()) {
        see(IdKind::medium, m.id);
        see(IdKind::method, m.method);
    }
    for (Press& p : o.presses.own()) see(IdKind::press, p.id);
    for (Method& m : o.methods.own()) see(IdKind::method, m.id);
    for (Jig& j : o.jigs.own()) {
        see(IdKind::jig, j.id);
        for (std::string& d : j.assigned) see(IdKind::decoration, d);
    }
    for (MediumLayout& l : o.layouts.own()) ids_detail::in_layout(l, see);
    for (Trial& t : o.trials.own()) {
        see(IdKind::method, t.method);
        see(IdKind::style, t.style);
        see(IdKind::press, t.press);
    }
    for (Correction& c : o.corrections.own()) {
        see(IdKind::press, c.press);
        see(IdKind::style, c.style);
        see(IdKind::method, c.method);
        see(IdKind::decoration, c.design);
    }
    for (std::string& d : o.press_run.order) see(IdKind::decoration, d);
    for (KeptPhoto& p : o.photographs.own()) see(IdKind::style, p.style);
    for (Reprint& r : o.reprints) see(IdKind::decoration, r.decoration);
    for (PrintedGuide& g : o.guide_setup.printed) see(IdKind::decoration, g.decoration);
}

}  // namespace orthema
