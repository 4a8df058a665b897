// Size codes: one spelling for each garment size, whatever a shop calls it.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace orthema {

/// The age group a size's spelling speaks of; `any` where it does not say.
enum class AgeGroup { any, infant, toddler, youth, adult };

struct SizeName {
    std::string code;  ///< "OS" for one size, "NB", "3M" … "24M", "2T" … "5T", "XS" … "5XL"
    AgeGroup group = AgeGroup::any;
    bool operator==(const SizeName&) const = default;
};

/// "Yth M" -> M (youth), "XXL" -> 2XL, "6-12M" -> 12M (infant: a range is named for its upper month),
/// "4T" -> 4T (toddler), "Adult Large" -> L (adult). Nothing where no size can be read.
std::optional<SizeName> normalise_size(std::string_view text);

/// Place along every size run known, smallest first; unknown codes sort last.
int size_rank(std::string_view code);

const char* age_group_name(AgeGroup group);

}  // namespace orthema
