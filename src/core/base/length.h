// Length: every measure that crosses a boundary. Kept in millimetres as a double; inches exist only where people
// read and type.
#pragma once

#include <compare>

namespace orthema {

class Length {
public:
    constexpr Length() = default;
    static constexpr Length from_mm(double value) { return Length(value); }
    static constexpr Length from_inches(double value) { return Length(value * 25.4); }
    [[nodiscard]] constexpr double mm() const { return mm_; }
    [[nodiscard]] constexpr double inches() const { return mm_ / 25.4; }
    constexpr auto operator<=>(const Length&) const = default;
    constexpr Length operator-() const { return Length(-mm_); }
    constexpr Length& operator+=(Length other) {
        mm_ += other.mm_;
        return *this;
    }
    constexpr Length& operator-=(Length other) {
        mm_ -= other.mm_;
        return *this;
    }
    friend constexpr Length operator+(Length a, Length b) { return Length(a.mm_ + b.mm_); }
    friend constexpr Length operator-(Length a, Length b) { return Length(a.mm_ - b.mm_); }
    friend constexpr Length operator*(Length a, double k) { return Length(a.mm_ * k); }
    friend constexpr Length operator*(double k, Length a) { return Length(a.mm_ * k); }
    friend constexpr Length operator/(Length a, double k) { return Length(a.mm_ / k); }
    friend constexpr double operator/(Length a, Length b) { return a.mm_ / b.mm_; }

private:
    constexpr explicit Length(double value) : mm_(value) {}
    double mm_ = 0;
};

namespace literals {
constexpr Length operator""_mm(long double v) { return Length::from_mm(static_cast<double>(v)); }
constexpr Length operator""_mm(unsigned long long v) { return Length::from_mm(static_cast<double>(v)); }
constexpr Length operator""_in(long double v) { return Length::from_inches(static_cast<double>(v)); }
constexpr Length operator""_in(unsigned long long v) { return Length::from_inches(static_cast<double>(v)); }
}  // namespace literals

}  // namespace orthema
