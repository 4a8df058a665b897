#include "core/order/limits.h"

#include "core/base/utf8.h"
#include "core/order/order_fields.h"

namespace orthema {

namespace {

/// "20,000"
std::string grouped(std::size_t n) {
    std::string out = std::to_string(n);
    for (std::size_t at = out.size(); at > 3;) out.insert(at -= 3, ",");
    return out;
}

struct Look {
    std::optional<Words> found;

    template <class T>
    void count(const std::vector<T>& list, const char* name) {
        if (found) return;
        if (list.size() > most<T>) {
            found = Words{"limit-count", {{"what", name}, {"most", grouped(most<T>)}}};
            return;
        }
        for (const T& one : list) look(one, name);
    }
    template <class T>
    void look(const T& value, const char* name) {
        if (found) return;
        if constexpr (std::is_same_v<T, std::string>) {
            if (value.size() > most_text) found = Words{"limit-text", {{"begins", first_bytes(value, 24)}, {"most", grouped(most_text)}}};
        } else if constexpr (requires { value.all(); }) {
            count(value.all(), name);
        } else if constexpr (requires {
                                 typename T::value_type;
                                 value.size();
                             }) {
            if constexpr (Listed<typename T::value_type> || std::is_same_v<typename T::value_type, std::string>) count(value, name);
        } else if constexpr (requires { value.held.get(); }) {
            if (value.held) look(*value.held, name);
        } else if constexpr (requires { value.has_value(); }) {
            if (value) look(*value, name);
        } else if constexpr (Listed<T>) {
            each_field(value, [&](const char* part, const auto& own) { look(own, part); });
        }
    }
};

/// Whether two members are one and the same list.
template <class T>
bool shared(const T& a, const T& b) {
    if constexpr (requires { a.all(); })
        return &a.all() == &b.all();
    else
        return false;
}

}  // namespace

std::optional<Words> over_limit(const Order& order, const Order* before) {
    Look look;
    const auto one = [&](const auto& field) {
        const auto& own = order.*field.part;
        if (before == nullptr || !shared(own, before->*field.part)) look.look(own, field.name);
    };
    std::apply([&](const auto&... field) { (one(field), ...); }, FieldsOf<Order>::list);
    return std::move(look.found);
}

}  // namespace orthema
