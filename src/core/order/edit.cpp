#include "core/order/edit.h"

#include <algorithm>

#include "core/order/pieces.h"
#include "core/order/roster.h"
#include "core/order/rules.h"

namespace orthema {

namespace {

template <class List, class Item>
void put(List& list, const Item& item) {
    const auto at = std::find_if(list.begin(), list.end(), [&](const auto& other) { return other.id == item.id; });
    if (at != list.end())
        *at = item;
    else
        list.push_back(item);
}

}  // namespace

Order with_quantity(const Order& order, const RunKey& run, const std::string& size, int quantity) {
    const BlankStyle* style = find_style(order, run.style);
    if (style == nullptr || size_index(*style, size) < 0) return order;  // nothing is chosen that could be asked for
    Order out = numbered(order);
    const auto ours = [&](const OrderLine& l) { return run_of(l) == run && l.size == size; };
    int have = 0;
    for (const OrderLine& l : out.lines)
        if (ours(l)) have += l.quantity;
    int change = std::clamp(quantity, 0, 100000) - have;
    if (change == 0) return out;
    const auto last = std::find_if(out.lines.rbegin(), out.lines.rend(), ours);
    if (change > 0) {
        // the last line grows where its numbers are the highest: no piece of another line may get another number
        const bool highest =
            last != out.lines.rend() && !is_person(*last) && std::none_of(out.lines.begin(), out.lines.end(), [&](const OrderLine& l) {
                return l.style == run.style && l.colour == run.colour && l.size == size && l.job == run.job && l.first > last->first;
            });
        if (highest)
            last->quantity += change;
        else
            out.lines.push_back({run.style,
                                 run.colour,
                                 size,
                                 change,
                                 last != out.lines.rend() && !is_person(*last) ? last->note : "",
                                 run.lot,
                                 0,
                                 {},
                                 run.job});
        return numbered(std::move(out));
    }
    for (auto line = out.lines.rbegin(); line != out.lines.rend() && change < 0; ++line) {
        if (!ours(*line)) continue;
        const int taken = std::min(line->quantity, -change);
        line->quantity -= taken;
        change += taken;
    }
    erase_if(out.lines, [&](const OrderLine& l) { return ours(l) && l.quantity <= 0; });
    return out;
}

Order begun_like(const Order& order, const std::string& job) {
    Order out = order;
    out.job = job;
    out.name += " again";
    out.due.clear();
    out.layouts.clear();
    out.reprints.clear();
    out.kept_out.clear();
    out.press_run.pins.clear();
    out.press_run.accepted = {};
    out.guide_setup.printed.clear();
    out.approval = {};
    for (OrderLine& l : out.lines.own()) l.ref.clear();
    for (Job& j : out.jobs.own()) j.due.clear();
    return out;
}

Order without_run(const Order& order, const RunKey& run) {
    Order out = order;
    erase_if(out.lines, [&](const OrderLine& l) { return run_of(l) == run; });
    if (!run.lot.empty()) std::erase_if(out.lots, [&](const Lot& l) { return l.id == run.lot; });
    std::erase_if(out.decorations, [&](const Decoration& d) { return d.run == run; });
    return followed(std::move(out));
}

Order with_lines(const Order& order, const std::vector<OrderLine>& lines) {
    Order out = order;
    for (OrderLine l : lines) {
        l.first = 0;
        out.lines.push_back(std::move(l));
    }
    return numbered(std::move(out));
}

Order with_style(const Order& order, const BlankStyle& style) {
    Order out = order;
    put(out.styles, style);
    return followed(std::move(out));
}

Order with_decoration(const Order& order, const Decoration& decoration) {
    Order out = order;
    const Decoration* before = find_decoration(order, decoration.id);
    put(out.decorations, decoration);
    if (decoration.rule.empty() || decoration.departs) return out;
    return with_rule_edited(out, before == nullptr ? decoration : *before, decoration);
}

Order without_decoration(const Order& order, const std::string& id) {
    Order out = order;
    std::erase_if(out.decorations, [&](const Decoration& d) { return d.id == id; });
    return followed(std::move(out));
}

Order without_art(const Order& order, const std::string& id) {
    Order out = order;
    std::erase_if(out.art, [&](const Art& a) { return a.id == id; });
    std::erase_if(out.decorations, [&](const Decoration& d) { return d.art == id; });
    return followed(std::move(out));
}

namespace {

template <class How>
Order with_art(const Order& order, const std::string& art, How how) {
    Order out = order;
    for (Art& a : out.art)
        if (a.id == art) how(a);
    return out;
}

}  // namespace

Order with_marked_centre(const Order& order, const std::string& art, std::optional<Point> centre) {
    return with_art(order, art, [&](Art& a) { a.marked_centre = centre; });
}

Order with_clip(const Order& order, const std::string& art, const std::optional<ArtClip>& clip) {
    return with_art(order, art, [&](Art& a) { a.clip = clip; });
}

Order with_mendings(const Order& order, const std::string& art, const std::vector<Mending>& mendings, const Affine& marks) {
    return with_art(order, art, [&](Art& a) {
        a.mendings = mendings;
        const auto moved = [&](Point& p) {
            const Point to = marks(p);
            p = {std::clamp(to.x, -10.0, 1000.0), std::clamp(to.y, -10.0, 1000.0)};  // as an order's file has them
        };
        for (Point& p : a.subject) moved(p);
        if (a.clip) return;  // the others are marks of what was clipped
        if (a.marked_centre) moved(*a.marked_centre);
        for (NamedMark& m : a.marks) moved(m.at);
    });
}

Order with_together(const Order& order, const std::string& art, const PutTogether& print) {
    return with_art(order, art, [&](Art& a) {
        if (a.together) a.together = print;
    });
}

Order with_word_picture(const Order& order, const std::string& art, const WordPicture& word) {
    return with_art(order, art, [&](Art& a) {
        if (a.word_picture) a.word_picture = with_places(word);
    });
}

Order with_lettering(const Order& order, const std::string& art, const Lettering& lettering) {
    return with_art(order, art, [&](Art& a) {
        if (a.lettering) a.lettering = lettering;
    });
}

Result<Order> with_letter_height(const Order& order, const std::string& art, Length letters, Length field) {
    const Art* entry = find_art(order, art);
    if (entry == nullptr || !entry->lettering) return order;
    Lettering next = *entry->lettering;
    next.height = letters.mm() / std::max(1.0, field.mm());
    if (!(next.height >= least_letters && next.height <= most_letters))
        return Error{"Letters are between a fiftieth and four times as tall as their field is wide."};
    return with_lettering(order, art, next);
}

Order with_subject(const Order& order, const std::string& art, const std::vector<Point>& subject) {
    return with_art(order, art, [&](Art& a) { a.subject = subject; });
}

Order with_marks(const Order& order, const std::string& art, const std::vector<NamedMark>& marks) {
    Order out = order;
    Art* entry = nullptr;
    for (Art& a : out.art)
        if (a.id == art) entry = &a;
    if (entry == nullptr) return out;
    // A mark that kept its place has only been renamed: what watches it follows.
    const auto keep_up = [&](auto& watchers) {
        for (auto& d : watchers) {
            if (d.art != art) continue;
            for (const NamedMark& was : entry->marks) {
                const auto same = std::find_if(marks.begin(), marks.end(), [&](const NamedMark& m) { return m.at == was.at; });
                if (same == marks.end()) {
                    std::erase_if(d.meetings, [&](const Meeting& m) { return m.mark == was.name; });
                } else {
                    for (Meeting& m : d.meetings)
                        if (m.mark == was.name) m.mark = same->name;
                }
            }
        }
    };
    keep_up(out.decorations);
    keep_up(out.rules);
    entry->marks = marks;
    return out;
}

}  // namespace orthema
