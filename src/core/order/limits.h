// How much an order may hold: one set of limits for what is made, read and written.
#pragma once

#include <optional>

#include "core/base/words.h"
#include "core/order/order.h"

namespace orthema {

/// Bytes of any one text.
constexpr std::size_t most_text = 4000;

/// How many of a kind a list may hold.
template <class T>
inline constexpr std::size_t most = 20000;
template <>
inline constexpr std::size_t most<Art> = 500;
template <>
inline constexpr std::size_t most<BlankStyle> = 2000;
template <>
inline constexpr std::size_t most<Medium> = 200;
template <>
inline constexpr std::size_t most<Press> = 200;
template <>
inline constexpr std::size_t most<Method> = 200;
template <>
inline constexpr std::size_t most<Jig> = 200;
template <>
inline constexpr std::size_t most<Job> = 200;
template <>
inline constexpr std::size_t most<MediumLayout> = 200;
template <>
inline constexpr std::size_t most<KeptPhoto> = 200;
template <>
inline constexpr std::size_t most<PlacedCopy> = 400000;
template <>
inline constexpr std::size_t most<PlanTurn> = 400000;
template <>
inline constexpr std::size_t most<PlanKeep> = 1000;

/// What the order holds too much of, as a sentence; nothing where it keeps the limits. Lists that it shares with `before`
/// are not looked through again.
std::optional<Words> over_limit(const Order& order, const Order* before = nullptr);

}  // namespace orthema
