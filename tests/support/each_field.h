// Walks the fields of all that an order holds, and changes the n-th.
#pragma once

#include <gtest/gtest.h>

#include <map>
#include <optional>
#include <string>
#include <typeinfo>
#include <vector>

#include "core/order/order_fields.h"

namespace orthema::test {

template <class T>
void change(T& value);
template <class T>
struct Change {
    static void of(T& v) {
        if constexpr (std::is_same_v<T, bool>)
            v = !v;
        else if constexpr (std::is_enum_v<T>)
            v = static_cast<T>(static_cast<int>(v) == 0 ? 1 : 0);
        else if constexpr (std::is_arithmetic_v<T>)
            v = v + 1;
        else if constexpr (std::is_same_v<T, std::string>)
            v += "x";
        else if constexpr (std::is_same_v<T, Length>)
            v += Length::from_mm(7);
        else if constexpr (std::is_same_v<T, Reading>)
            v.unit = v.unit == Unit::mm ? Unit::inch : Unit::mm;  // files have no language
        else if constexpr (std::is_same_v<T, Point>)
            v.x += 0.125;
        else if constexpr (std::is_same_v<T, Rect>)
            v.x0 += 0.125;
        else if constexpr (std::is_same_v<T, Colour>)
            v.r = v.r > 0.5 ? 0 : 1;  // files have eight bits of it
        else if constexpr (Listed<T>)
            each_field(v, [n = 0](const char*, auto& part) mutable {
                if (n++ == 0) change(part);
            });
        else
            ADD_FAILURE() << "no way to change " << typeid(T).name();
    }
};
template <class T>
struct Change<std::optional<T>> {
    static void of(std::optional<T>& v) {
        if (v)
            v.reset();
        else
            v.emplace();
    }
};
template <class T>
struct Change<std::vector<T>> {
    static void of(std::vector<T>& v) {
        if (v.empty())
            v.emplace_back();
        else
            v.pop_back();
    }
};
template <class K, class T>
struct Change<std::map<K, T>> {
    static void of(std::map<K, T>& v) {
        for (auto& [key, item] : v) return change(item);
    }
};
template <>
struct Change<Shared<Order>> {
    static void of(Shared<Order>& v) {
        Order other = v ? *v : Order{};
        other.name += "x";
        v = std::make_shared<const Order>(std::move(other));
    }
};
template <class T>
void change(T& value) {
    Change<T>::of(value);
}

/// Walks to the n-th field of all that an order holds (the first item of each list stands for the list) and changes it.
struct Nth {
    int left;
    std::string path;  ///< of what was changed; empty: there is no n-th
    template <class T>
    void walk(T& value, const std::string& at) {
        if (!path.empty()) return;
        if (left-- == 0) {
            change(value);
            path = at;
        } else if constexpr (Listed<T>) {
            each_field(value, [&](const char* name, auto& part) { walk(part, at + "." + name); });
        }
    }
    template <class T>
    void walk(std::vector<T>& list, const std::string& at) {
        if (!path.empty()) return;
        if (left-- == 0) {
            change(list);
            path = at;
        } else if (!list.empty()) {
            if constexpr (Listed<T>) each_field(list.front(), [&](const char* name, auto& part) { walk(part, at + "[]." + name); });
        }
    }
    template <class T>
    void walk(SharedList<T>& list, const std::string& at) {
        if (path.empty()) walk(list.own(), at);
    }
};

}  // namespace orthema::test
