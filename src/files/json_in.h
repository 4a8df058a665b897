// Reading JSON with its path, so that every complaint says where; shared by the readers of orders and of the shop's data.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <string>

#include <nlohmann/json.hpp>

#include "core/order/limits.h"
#include "core/base/colour.h"
#include "core/base/length.h"
#include "core/base/result.h"

namespace orthema {

using nlohmann::json;

inline std::string colour_text(Colour c) {
    char buffer[8];
    const auto byte = [](double v) { return static_cast<unsigned>(std::lround(std::clamp(v, 0.0, 1.0) * 255)); };
    std::snprintf(buffer, sizeof buffer, "#%02x%02x%02x", byte(c.r), byte(c.g), byte(c.b));
    return buffer;
}

/// Text of JSON. What is no letter becomes U+FFFD: writing never fails for what is written.
inline std::string json_text(const json& j, int indent = -1) { return j.dump(indent, ' ', false, json::error_handler_t::replace); }

/// Thrown by readers only, and turned into an Error at their edge by guarded().
struct Fault {
    Error error;
};

/// A JSON value with its path, so that every complaint says where.
struct In {
    const json& at;
    std::string path;

    [[noreturn]] void fail(const Argument& what) const {
        throw Fault{{"The order file is not usable: {where} {what}.",
                     {{"where", path.empty() ? Argument{Term{"it"}} : Argument{path}}, {"what", what}}}};
    }
    [[nodiscard]] bool has(const char* key) const { return at.is_object() && at.contains(key) && !at[key].is_null(); }
    [[nodiscard]] In operator[](const char* key) const {
        if (!at.is_object()) fail("is not an object");
        if (!has(key)) fail(Phrases{{{"lacks “{field}”", {{"field", std::string(key)}}}}});
        return {at[key], path.empty() ? key : path + "." + key};
    }
    [[nodiscard]] std::string text() const {
        if (!at.is_string()) fail("is not text");
        const auto& s = at.get_ref<const std::string&>();
        if (s.size() > most_text) fail("is too long");
        return s;
    }
    /// Of a file's bytes.
    [[nodiscard]] std::string hash() const {
        std::string s = text();
        if (s.size() != 64 || s.find_first_not_of("0123456789abcdef") != std::string::npos) fail("is not a SHA-256 in hexadecimal");
        return s;
    }
    [[nodiscard]] double number(double low, double high) const {
        if (!at.is_number()) fail("is not a number");
        const double v = at.get<double>();
        if (!(v >= low && v <= high)) fail("is out of range");
        return v;
    }
    [[nodiscard]] int whole(int low, int high) const {
        const double v = number(low, high);
        if (v != std::floor(v)) fail("is not a whole number");
        return static_cast<int>(v);
    }
    [[nodiscard]] bool flag() const {
        if (!at.is_boolean()) fail("is not true or false");
        return at.get<bool>();
    }
    [[nodiscard]] Length length(double low = -100000) const { return Length::from_mm(number(low, 100000)); }
    template <class F>
    void each(std::size_t most, F use) const {
        if (!at.is_array()) fail("is not a list");
        if (at.size() > most) fail("has too many entries");
        for (std::size_t i = 0; i < at.size(); ++i) use(In{at[i], path + "[" + std::to_string(i) + "]"});
    }
    /// One of the enum's values by its key.
    template <class E, class Key>
    [[nodiscard]] E one_of(int count, Key key) const {
        const std::string s = text();
        for (int i = 0; i < count; ++i)
            if (s == key(static_cast<E>(i))) return static_cast<E>(i);
        fail(Phrases{{{"is “{word}”, which is not known", {{"word", s.substr(0, 40)}}}}});
    }
};

template <class F>
auto guarded(F read) -> Result<decltype(read())> {
    try {
        return read();
    } catch (const Fault& f) {
        return f.error;
    } catch (const json::exception&) {
        return Error{"The order file is not usable: it is not in the documented form."};
    }
}

inline Colour read_colour(const In& in) {
    const std::string s = in.text();
    unsigned v = 0;
    if (s.size() != 7 || s[0] != '#' || std::sscanf(s.c_str() + 1, "%6x", &v) != 1) in.fail("is not a colour like #e3e1da");
    return {((v >> 16) & 255) / 255.0, ((v >> 8) & 255) / 255.0, (v & 255) / 255.0, 1};
}

}  // namespace orthema
