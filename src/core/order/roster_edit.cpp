// The roster typed and pasted: persons put on garments.
#include <algorithm>

#include "core/base/text.h"
#include "core/order/pieces.h"
#include "core/order/roster.h"

namespace orthema {

namespace {

std::vector<std::string> fields_of(const std::string& row) {
    char by = '\t';
    for (const char c : {'\t', ';', ','})
        if (row.find(c) != std::string::npos) {
            by = c;
            break;
        }
    std::vector<std::string> out;
    for (std::size_t at = 0; at <= row.size();) {
        const std::size_t end = std::min(row.find(by, at), row.size());
        out.push_back(trimmed(row.substr(at, end - at)));
        at = end + 1;
    }
    if (out.size() > 1) return out;
    // "7 Kestrel", "Kestrel 7"
    const std::string all = out.front();
    const auto first = all.find(' '), last = all.rfind(' ');
    if (first != std::string::npos && is_number(all.substr(0, first))) return {all.substr(0, first), trimmed(all.substr(first))};
    if (last != std::string::npos && is_number(all.substr(last + 1))) return {trimmed(all.substr(0, last)), all.substr(last + 1)};
    return out;
}

}  // namespace

Order with_person(const Order& order, std::size_t line, const std::string& name, const std::string& number) {
    if (line >= order.lines.all().size()) return order;
    Order out = numbered(order);
    auto& lines = out.lines.own();
    if (!is_person(lines[line]) && lines[line].quantity > 1) {
        OrderLine rest = lines[line];
        lines[line].quantity = 1;
        --rest.quantity;
        ++rest.first;
        lines.insert(lines.begin() + static_cast<std::ptrdiff_t>(line) + 1, std::move(rest));
    }
    lines[line].name = name;
    lines[line].number = number;
    return out;
}

Order with_size_of(const Order& order, std::size_t line, const std::string& size) {
    if (line >= order.lines.all().size()) return order;
    const OrderLine& was = order.lines.all()[line];
    const BlankStyle* style = find_style(order, was.style);
    if (style == nullptr || size_index(*style, size) < 0 || was.size == size) return order;
    Order out = order;
    OrderLine& l = out.lines.own()[line];
    l.size = size;
    l.first = 0;  // another garment
    return numbered(std::move(out));
}

Order with_rows_for_each(const Order& order, const RunKey& run) {
    Order out = numbered(order);
    std::vector<OrderLine> lines;
    for (const OrderLine& l : out.lines.all()) {
        const int n = run_of(l) == run ? std::max(1, l.quantity) : 1;
        for (int i = 0; i < n; ++i) {
            lines.push_back(l);
            if (n == 1) break;
            lines.back().quantity = 1;
            lines.back().first = l.first + i;
        }
    }
    out.lines.own() = std::move(lines);
    return out;
}

PastedRoster with_roster_text(const Order& order, const RunKey& run, const std::string& text) {
    PastedRoster out{order, 0, {}};
    const BlankStyle* style = find_style(order, run.style);
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = std::min(text.find('\n', at), text.size());
        const std::string row = trimmed(text.substr(at, end - at));
        at = end + 1;
        if (row.empty()) continue;
        std::string name, number, size;
        for (const std::string& f : fields_of(row)) {
            if (f.empty()) continue;
            if (style != nullptr && size.empty() && size_index(*style, f) >= 0)
                size = f;
            else if (number.empty() && is_number(f))
                number = f;
            else if (name.empty())
                name = f;
        }
        const auto& lines = out.order.lines.all();
        const auto free = std::find_if(lines.begin(), lines.end(), [&](const OrderLine& l) {
            return run_of(l) == run && !is_person(l) && l.quantity > 0 && (size.empty() || l.size == size);
        });
        if ((name.empty() && number.empty()) || (free == lines.end() && size.empty())) {
            out.left.push_back(row);
            continue;
        }
        if (free != lines.end()) {
            out.order = with_person(out.order, static_cast<std::size_t>(free - lines.begin()), name, number);
        } else {
            OrderLine more{run.style, run.colour, size, 1, "", run.lot, 0, {}, run.job};
            more.name = name;
            more.number = number;
            out.order.lines.push_back(std::move(more));
            out.order = numbered(std::move(out.order));
        }
        ++out.taken;
    }
    return out;
}

}  // namespace orthema
