#include "core/base/units.h"
#include "core/base/language.h"
#include "core/base/utf8.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <numeric>
#include <optional>

namespace orthema {

namespace {

/// Digits with a point.
std::string plain_text(double value, int digits) {
    char buffer[64];
    std::snprintf(buffer, sizeof buffer, "%.*f", digits, value);
    return buffer;
}

/// With the sign that the reader has between whole and part.
std::string as_read(std::string figure, const Reading& reading) {
    if (reading.language != nullptr) std::replace(figure.begin(), figure.end(), '.', reading.language->decimal);
    return figure;
}

}  // namespace

std::string mm_text(double mm, int digits) {
    std::string text = plain_text(mm, digits);
    if (text.find('.') != std::string::npos) {
        while (text.back() == '0') text.pop_back();
        if (text.back() == '.') text.pop_back();
    }
    return text == "-0" ? "0" : text;
}

std::string figure_text(double value, int digits, const Reading& reading) { return as_read(mm_text(value, digits), reading); }
std::string fixed_text(double value, int digits, const Reading& reading) { return as_read(plain_text(value, digits), reading); }

bool is_one(long n, const Reading& reading) { return n == 1 || (n == 0 && reading.language != nullptr && reading.language->none_is_one); }

std::string money_text(double amount, const std::string& currency, const Reading& reading) {
    const std::string figure = fixed_text(amount, 2, reading);
    return currency.empty() ? figure : currency + "\u00a0" + figure;
}

std::string capitalised(std::string text) {
    if (!text.empty()) text.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(text.front())));
    return text;
}

std::string joined(const std::vector<std::string>& items, const std::string& between) {
    std::string out;
    for (const std::string& s : items) out += (out.empty() ? "" : between) + s;
    return out;
}

namespace {

/// Whole parts of a length, rounded; what is within a ten thousandth of a part is that part.
double parts_of(double value, Rounding rounding) {
    switch (rounding) {
    case Rounding::down: return std::floor(value + 1e-4);
    case Rounding::up: return std::ceil(value - 1e-4);
    case Rounding::nearest: break;
    }
    return std::round(value);
}

/// "3 1/16", of so many parts of an inch.
std::string fraction_text(long parts, long to_the_inch) {
    std::string text = parts < 0 ? "-" : "";
    const long whole = std::abs(parts) / to_the_inch, part = std::abs(parts) % to_the_inch;
    if (part == 0) return text + std::to_string(whole);
    const long common = std::gcd(part, to_the_inch);
    if (whole != 0) text += std::to_string(whole) + " ";
    return text + std::to_string(part / common) + "/" + std::to_string(to_the_inch / common);
}

}  // namespace

std::string length_text(Length length, Reading reading, bool with_unit, Rounding rounding) {
    if (reading == Unit::mm) return figure_text(parts_of(length.mm() * 10, rounding) / 10, 1, reading) + (with_unit ? " mm" : "");
    return fraction_text(static_cast<long>(parts_of(length.inches() * 16, rounding)), 16) + (with_unit ? " in" : "");
}

std::string stored_text(Length length, Reading reading) {
    if (reading == Unit::mm) return figure_text(length.mm(), 2, reading);
    const double parts = std::round(length.inches() * 64);
    if (std::abs(length.inches() * 64 - parts) < 64 * 0.0002) return fraction_text(static_cast<long>(parts), 64);
    return figure_text(length.inches(), 3, reading);
}

namespace {

/// A cursor over what was typed.
struct Cursor {
    std::string_view text;
    std::size_t at = 0;
    void skip_space() {
        while (at < text.size() && std::isspace(static_cast<unsigned char>(text[at])) != 0) ++at;
    }
    [[nodiscard]] char peek() const { return at < text.size() ? text[at] : '\0'; }
    [[nodiscard]] bool digit_next() const { return std::isdigit(static_cast<unsigned char>(peek())) != 0; }
    std::optional<double> number() {
        std::string digits;
        bool point = false;
        while (at < text.size()) {
            const char c = text[at];
            if (std::isdigit(static_cast<unsigned char>(c)) != 0) {
                digits += c;
            } else if ((c == '.' || c == ',') && !point) {
                digits += '.';
                point = true;
            } else {
                break;
            }
            ++at;
        }
        if (digits.empty() || digits == "." || digits.size() > 15) return std::nullopt;
        return std::strtod(digits.c_str(), nullptr);
    }
};

std::optional<double> mm_per(std::string_view word, Unit unit) {
    if (word.empty()) return unit == Unit::mm ? 1.0 : 25.4;
    if (word == "mm") return 1.0;
    if (word == "cm") return 10.0;
    if (word == "m") return 1000.0;
    if (word == "in" || word == "\"" || word == "inch" || word == "inches") return 25.4;
    if (word == "ft" || word == "'") return 304.8;
    return std::nullopt;
}

}  // namespace

Result<Length> parse_length(std::string_view text, Unit unit) {
    const Error unreadable{"“" + whole_utf8(first_bytes(text, 40)) + "” is not a length: type it like 3 1/16, 3.06in, 7.8cm or 78 mm."};
    Cursor in{text};
    in.skip_space();
    double sign = 1;
    if (in.peek() == '-' || in.peek() == '+') {
        sign = in.peek() == '-' ? -1 : 1;
        ++in.at;
        in.skip_space();
    }
    const auto first = in.number();
    if (!first) return unreadable;
    double value = *first;
    const auto fraction_of = [&](double numerator) -> std::optional<double> {
        ++in.at;  // the slash
        in.skip_space();
        const auto denominator = in.number();
        if (!denominator || *denominator == 0) return std::nullopt;
        return numerator / *denominator;
    };
    in.skip_space();
    if (in.peek() == '/') {
        const auto part = fraction_of(value);
        if (!part) return unreadable;
        value = *part;
    } else {
        if (in.peek() == '-') ++in.at;
        in.skip_space();
        if (in.digit_next()) {
            const auto numerator = in.number();
            in.skip_space();
            if (!numerator || in.peek() != '/') return unreadable;
            const auto part = fraction_of(*numerator);
            if (!part) return unreadable;
            value += *part;
        }
    }
    in.skip_space();
    std::string word;
    while (in.at < text.size() && std::isspace(static_cast<unsigned char>(text[in.at])) == 0)
        word += static_cast<char>(std::tolower(static_cast<unsigned char>(text[in.at++])));
    in.skip_space();
    const auto factor = mm_per(word, unit);
    if (!factor || in.at != text.size()) return unreadable;
    const double mm = sign * value * *factor;
    if (!(std::abs(mm) <= 100000.0)) return Error{"That length is past 100 m; check the unit."};
    return Length::from_mm(mm);
}

}  // namespace orthema
