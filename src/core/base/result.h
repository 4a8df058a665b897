// Result: a value, or a sentence that tells the user what is wrong and what to do. Exceptions stay for bugs.
#pragma once

#include <optional>
#include <stdexcept>
#include <string>
#include <utility>
#include <variant>

#include "core/base/words.h"

namespace orthema {

struct Error {
    Error(std::string text) : sentence(std::move(text)) {}                           // NOLINT: implicit on purpose
    Error(const char* text) : sentence(text) {}                                      // NOLINT
    Error(Words said) : sentence(worded(said, Unit::mm)), words(std::move(said)) {}  // NOLINT
    /// A sentence of its own with places for what it is about: "{name} is empty."
    Error(const char* text, Arguments args) : Error(Words{text, std::move(args)}) {}
    std::string sentence;        ///< in English, with figures in mm
    std::optional<Words> words;  ///< where it has arguments: for a reader of either unit, in any language
    [[nodiscard]] std::string said_to(Reading reading) const { return words ? worded(*words, reading) : orthema::said(reading, sentence); }
    /// As an argument of a finding, or of another error.
    [[nodiscard]] Argument said() const { return words ? Argument{Phrases{{*words}}} : Argument{Term{sentence}}; }
};

template <class T>
class [[nodiscard]] Result {
public:
    Result(T value) : held_(std::in_place_index<0>, std::move(value)) {}      // NOLINT: implicit on purpose
    Result(Error error) : held_(std::in_place_index<1>, std::move(error)) {}  // NOLINT: implicit on purpose
    [[nodiscard]] bool ok() const { return held_.index() == 0; }
    explicit operator bool() const { return ok(); }
    /// The value; asking for it where there is none is a bug and throws.
    T& value() {
        require();
        return std::get<0>(held_);
    }
    const T& value() const {
        require();
        return std::get<0>(held_);
    }
    T& operator*() { return value(); }
    const T& operator*() const { return value(); }
    T* operator->() { return &value(); }
    const T* operator->() const { return &value(); }
    [[nodiscard]] const std::string& sentence() const { return std::get<1>(held_).sentence; }
    [[nodiscard]] Error error() const { return std::get<1>(held_); }

private:
    void require() const {
        if (!ok()) throw std::logic_error("Result without a value: " + std::get<1>(held_).sentence);
    }
    std::variant<T, Error> held_;
};

/// For work that yields nothing but may fail.
struct Done {};

}  // namespace orthema
