// Fields: the members of a value as a list that can be walked. A list that leaves a member out does not compile.
#pragma once

#include <optional>
#include <tuple>
#include <type_traits>

namespace orthema {

template <class Whole, class Part>
struct Field {
    const char* name;
    Part Whole::*part;
};
template <class Whole, class Part>
Field(const char*, Part Whole::*) -> Field<Whole, Part>;

/// Specialised with `static constexpr auto list = std::tuple{Field{…}, …}` for each value that has a list.
template <class T>
struct FieldsOf;

namespace fields_detail {
template <class T>
struct is_optional : std::false_type {};
template <class T>
struct is_optional<std::optional<T>> : std::true_type {};
/// Turns into whatever a member is.
struct Anything {
    template <class T>
    requires(!is_optional<T>::value) operator T() const;  // NOLINT: implicit on purpose
};
template <class T, class... Known>
consteval std::size_t members() {
    if constexpr (requires { T{Known{}..., Anything{}}; })
        return members<T, Known..., Anything>();
    else
        return sizeof...(Known);
}
}  // namespace fields_detail

/// How many members an aggregate has. Method: the most braces that initialise it.
template <class T>
consteval std::size_t member_count() {
    return fields_detail::members<T>();
}

template <class T>
concept Listed = requires {
    FieldsOf<T>::list;
};

/// Calls `see(name, member)` for each member.
template <class T, class See>
void each_field(T& value, See see) {
    using Plain = std::remove_const_t<T>;
    static_assert(member_count<Plain>() == std::tuple_size_v<std::remove_const_t<decltype(FieldsOf<Plain>::list)>>,
                  "a member is missing in the list of fields");
    std::apply([&](const auto&... field) { (see(field.name, value.*field.part), ...); }, FieldsOf<Plain>::list);
}

}  // namespace orthema
