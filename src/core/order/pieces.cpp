#include "core/order/pieces.h"

#include <algorithm>
#include <map>
#include <tuple>

namespace orthema {

Order numbered(Order order) {
    struct Span {
        int first, last;
    };
    std::map<std::tuple<std::string, std::string, std::string, std::string>, std::vector<Span>> taken;
    std::vector<std::size_t> without;
    const auto spans_of = [&](const OrderLine& l) -> std::vector<Span>& { return taken[{l.style, l.colour, l.size, l.job}]; };
    const auto& lines = order.lines.all();
    for (std::size_t i = 0; i < lines.size(); ++i) {
        const OrderLine& l = lines[i];
        std::vector<Span>& spans = spans_of(l);
        const Span mine{l.first, l.first + std::max(1, l.quantity) - 1};
        const bool free = l.first > 0 && std::none_of(spans.begin(), spans.end(),
                                                      [&](const Span& s) { return mine.first <= s.last && s.first <= mine.last; });
        if (free)
            spans.push_back(mine);
        else
            without.push_back(i);
    }
    for (const std::size_t i : without) {
        OrderLine& l = order.lines.own()[i];
        std::vector<Span>& spans = spans_of(l);
        int last = 0;
        for (const Span& s : spans) last = std::max(last, s.last);
        l.first = last + 1;
        spans.push_back({l.first, l.first + std::max(1, l.quantity) - 1});
    }
    return order;
}

std::vector<int> piece_numbers(const Order& order, const RunKey& run, const std::string& size) {
    std::vector<int> out;
    for (const OrderLine& l : order.lines) {
        if (l.size != size || run_of(l) != run) continue;
        const int first = l.first > 0 ? l.first : static_cast<int>(out.size()) + 1;
        for (int k = 0; k < l.quantity; ++k) out.push_back(first + k);
    }
    return out;
}

}  // namespace orthema
