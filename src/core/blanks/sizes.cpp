#include "core/blanks/sizes.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <vector>

namespace orthema {

namespace {

constexpr std::array<const char*, 21> run = {"OS", "NB", "3M", "6M", "9M", "12M", "18M", "24M", "2T",  "3T", "4T",
                                             "5T", "XS", "S",  "M",  "L",  "XL",  "2XL", "3XL", "4XL", "5XL"};

/// Lower-case words and numbers: "6-12M" -> 6 12 m; "YthM" stays one word.
std::vector<std::string> words_of(std::string_view text) {
    std::vector<std::string> words;
    std::string now;
    const auto flush = [&] {
        if (!now.empty()) words.push_back(now);
        now.clear();
    };
    for (const char c : text) {
        const auto u = static_cast<unsigned char>(c);
        if (std::isalnum(u) == 0) {
            flush();
            continue;
        }
        const bool digit = std::isdigit(u) != 0;
        if (!now.empty() && (std::isdigit(static_cast<unsigned char>(now.back())) != 0) != digit) flush();
        now += static_cast<char>(std::tolower(u));
    }
    flush();
    return words;
}

bool is_number(const std::string& word) { return std::isdigit(static_cast<unsigned char>(word[0])) != 0; }

std::optional<AgeGroup> group_word(const std::string& w) {
    if (w == "y" || w == "yth" || w == "youth" || w == "kids" || w == "kid" || w == "child" || w == "childrens") return AgeGroup::youth;
    if (w == "a" || w == "adult" || w == "adults" || w == "ad" || w == "mens" || w == "unisex" || w == "men") return AgeGroup::adult;
    if (w == "infant" || w == "baby" || w == "inf") return AgeGroup::infant;
    if (w == "toddler" || w == "tod") return AgeGroup::toddler;
    return std::nullopt;
}

std::optional<std::string> letter_size(const std::string& w) {
    if (w == "s" || w == "small" || w == "sm") return "S";
    if (w == "m" || w == "medium" || w == "med") return "M";
    if (w == "l" || w == "large" || w == "lg" || w == "lrg") return "L";
    if (w == "xs" || w == "xsmall") return "XS";
    if (w == "xl" || w == "xlarge" || w == "xlg") return "XL";
    const auto xs = std::count(w.begin(), w.end(), 'x');
    if (xs >= 2 && xs <= 5 && w == std::string(static_cast<std::size_t>(xs), 'x') + "l") return std::to_string(xs) + "XL";
    return std::nullopt;
}

std::optional<std::string> month_size(int from, int to) {
    const int upper = std::max(from, to);
    for (const int month : {3, 6, 9, 12, 18, 24})
        if (upper == month) return std::to_string(month) + "M";
    return std::nullopt;
}

}  // namespace

std::optional<SizeName> normalise_size(std::string_view text) {
    if (text.size() > 60) return std::nullopt;
    AgeGroup group = AgeGroup::any;
    std::vector<std::string> rest;
    for (const std::string& w : words_of(text)) {
        if (const auto g = group_word(w); g && group == AgeGroup::any) {
            group = *g;
        } else if (w.size() > 1 && w != "yxl" && (w[0] == 'y' || w.rfind("yth", 0) == 0) &&
                   letter_size(w.substr(w.rfind("yth", 0) == 0 ? 3 : 1))) {
            group = AgeGroup::youth;
            rest.push_back(w.substr(w.rfind("yth", 0) == 0 ? 3 : 1));
        } else if (w == "yxl") {
            group = AgeGroup::youth;
            rest.emplace_back("xl");
        } else if (w != "size" && w != "extra" && w != "x") {
            rest.push_back(w);
        } else if (w != "size") {
            rest.emplace_back("x");
        }
    }
    if (rest.empty()) return std::nullopt;
    if (rest[0] == "os" || rest[0] == "osfa" || rest[0] == "onesize" ||
        (rest[0] == "one" && text.find_first_of("sS") != std::string_view::npos))
        return SizeName{"OS", group};
    const auto named = [&](std::string code, AgeGroup own) -> std::optional<SizeName> {
        return SizeName{std::move(code), group == AgeGroup::any ? own : group};
    };
    if (rest.size() == 1) {
        if (rest[0] == "nb" || rest[0] == "newborn") return named("NB", AgeGroup::infant);
        if (const auto s = letter_size(rest[0])) return named(*s, AgeGroup::any);
        return std::nullopt;
    }
    const std::string& last = rest.back();
    if (is_number(rest[0]) && rest[0].size() <= 2) {
        const int n = std::stoi(rest[0]);
        if (rest.size() == 2 && (last == "t" || last == "toddler") && n >= 2 && n <= 5)
            return named(std::to_string(n) + "T", AgeGroup::toddler);
        if (last == "m" || last == "mo" || last == "mos" || last == "mth" || last == "months" || last == "month") {
            const bool range = rest.size() >= 3 && is_number(rest[rest.size() - 2]) && rest[rest.size() - 2].size() <= 2;
            if (rest.size() == 2 || range)
                if (const auto m = month_size(n, range ? std::stoi(rest[rest.size() - 2]) : n)) return named(*m, AgeGroup::infant);
            return std::nullopt;
        }
        if (rest.size() == 2 && (last == "xl" || last == "x" || last == "xlarge") && n >= 1 && n <= 5)
            return named(n == 1 ? "XL" : std::to_string(n) + "XL", AgeGroup::any);
        return std::nullopt;
    }
    if (rest[0] == "new" && rest.size() == 2 && last == "born") return named("NB", AgeGroup::infant);
    // "Extra Large", "X Small"; "x" stands for each "extra"
    std::string joined;
    for (std::size_t i = 0; i + 1 < rest.size(); ++i) {
        if (rest[i] != "x" && rest[i] != "xx") return std::nullopt;
        joined += rest[i];
    }
    const auto base = letter_size(last);
    if (!base || (*base != "S" && *base != "L")) return std::nullopt;
    if (*base == "S") return joined == "x" ? named("XS", AgeGroup::any) : std::nullopt;
    if (const auto s = letter_size(joined + "l")) return named(*s, AgeGroup::any);
    return std::nullopt;
}

int size_rank(std::string_view code) {
    const auto* const at = std::find(run.begin(), run.end(), code);
    return static_cast<int>(at - run.begin());
}

const char* age_group_name(AgeGroup group) {
    switch (group) {
    case AgeGroup::any: return "";
    case AgeGroup::infant: return "infant";
    case AgeGroup::toddler: return "toddler";
    case AgeGroup::youth: return "youth";
    case AgeGroup::adult: return "adult";
    }
    return "";
}

}  // namespace orthema
