// What wordings of lists mean that no rule reads, as somebody in the shop chose it once.
#pragma once

#include <map>
#include <string>

namespace orthema {

/// Keys are wordings without case and outer space.
struct ShopWords {
    std::map<std::string, std::string> blanks;  ///< style id
    std::map<std::string, std::string> sizes;   ///< size code, of any blank that has it
    [[nodiscard]] bool empty() const { return blanks.empty() && sizes.empty(); }
    bool operator==(const ShopWords&) const = default;
};

}  // namespace orthema
