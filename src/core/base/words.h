// Words: what is to be said, as a code and its arguments. Lengths stay lengths until the reader's unit is known, and the
// text of every code stands in one catalogue (catalogue.cpp), so that it can be worded anew in one place.
#pragma once

#include <initializer_list>
#include <map>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "core/base/length.h"

namespace orthema {

struct Language;

enum class Unit { inch, mm };

/// Who reads it: in which unit, and in which language (null: English).
struct Reading {
    Unit unit = Unit::mm;
    const Language* language = nullptr;
    Reading() = default;
    Reading(Unit in, const Language* spoken = nullptr) : unit(in), language(spoken) {}  // NOLINT: a unit alone is read in English
    operator Unit() const { return unit; }                                              // NOLINT
    bool operator==(const Reading&) const = default;
    bool operator==(Unit other) const { return unit == other; }
};

/// A word of the program's own, such as the name of a measure, as its source has it. What people typed is plain text.
struct Term {
    std::string english;
    bool operator==(const Term&) const = default;
};

/// A length too small for whole millimetres: a stroke, a growth.
struct Fine {
    double mm = 0;
    int digits = 1;  ///< of millimetres; inches have two more
    bool operator==(const Fine&) const = default;
};
/// A limit: rounded down, so that what is said is never past it.
struct AtMost {
    double mm = 0;
    bool operator==(const AtMost&) const = default;
};
/// What a remedy asks for: rounded up, so that doing it is enough.
struct AtLeast {
    double mm = 0;
    bool operator==(const AtLeast&) const = default;
};
/// 0 … 1, said in per cent.
struct Share {
    double of_one = 0;
    bool operator==(const Share&) const = default;
};
/// A figure whose unit stands in the text: degrees, seconds, dots.
struct Number {
    double value = 0;
    int digits = 0;
    bool operator==(const Number&) const = default;
};

struct Words;
/// A list of what its items are themselves made of: nothing of it is made here, where an item is not known yet (some compilers
/// would make a plain list of it too early).
class WordsList {
public:
    WordsList();
    WordsList(std::initializer_list<Words> all);
    WordsList(std::vector<Words> all);  // NOLINT: implicit on purpose
    WordsList(const WordsList& other);
    WordsList(WordsList&& other) noexcept;
    WordsList& operator=(const WordsList& other);
    WordsList& operator=(WordsList&& other) noexcept;
    ~WordsList();
    [[nodiscard]] const std::vector<Words>& all() const { return all_; }
    void add(Words words);

private:
    std::vector<Words> all_;
};

/// Phrases within a sentence, with what stands between two of them.
struct Phrases {
    WordsList of;
    std::string joint = "; ";
    bool operator==(const Phrases&) const;
};

/// A whole number decides a plural; a literal is a word of the program's own.
struct Argument : std::variant<std::string, Term, Length, Fine, AtMost, AtLeast, Share, Number, int, Phrases> {
    using variant::variant;
    Argument(const char* word) : variant(Term{word}) {}  // NOLINT: implicit on purpose
    bool operator==(const Argument&) const = default;
};
using Arguments = std::vector<std::pair<std::string, Argument>>;

struct Words {
    std::string code;  ///< of the catalogue; or the text itself, where it is said in one place alone: it has a space
    Arguments args;
    bool operator==(const Words&) const = default;
};
inline bool Phrases::operator==(const Phrases& o) const { return joint == o.joint && of.all() == o.of.all(); }

/// A part of a sentence that is there or not.
inline Phrases part_if(bool there, const char* code, Arguments args = {}) { return there ? Phrases{{{code, std::move(args)}}} : Phrases{}; }

/// The catalogue's text, in the reader's language, with its arguments in place: {name} is an argument, {name?one|many} a choice by a
/// whole number. A code or an argument that is not there is a bug and throws.
std::string worded(const Words& words, Reading reading);

/// The same of a code and its arguments: words of cards and pages.
inline std::string phrase(const char* code, Reading reading, Arguments args = {}) { return worded({code, std::move(args)}, reading); }

/// A word or a part of a sentence in the reader's language, where no arguments stand in it.
std::string said(const Reading& reading, std::string_view english);

/// The figures among arguments: lengths in mm, shares 0 … 1.
std::map<std::string, double> figures_of(const Arguments& args);

}  // namespace orthema
