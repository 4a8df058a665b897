// Size names as shops write them.
#include "core/blanks/sizes.h"

namespace orthema {
namespace TESTED {

struct Case {
    const char* text;
    const char* code;
    AgeGroup group;
};

TEST(Sizes, OneSpellingForEach) {
    const Case cases[] = {
        {"Yth M", "M", AgeGroup::youth},
        {"YM", "M", AgeGroup::youth},
        {"Youth Large", "L", AgeGroup::youth},
        {"YXL", "XL", AgeGroup::youth},
        {"youth x-small", "XS", AgeGroup::youth},
        {"2XL", "2XL", AgeGroup::any},
        {"XXL", "2XL", AgeGroup::any},
        {"xxxl", "3XL", AgeGroup::any},
        {"3X", "3XL", AgeGroup::any},
        {"5xl", "5XL", AgeGroup::any},
        {"1XL", "XL", AgeGroup::any},
        {"Extra Large", "XL", AgeGroup::any},
        {"X-Large", "XL", AgeGroup::any},
        {"Adult Large", "L", AgeGroup::adult},
        {"Mens S", "S", AgeGroup::adult},
        {"6-12M", "12M", AgeGroup::infant},
        {"6M", "6M", AgeGroup::infant},
        {"12-18 months", "18M", AgeGroup::infant},
        {"0-3 mo", "3M", AgeGroup::infant},
        {"Newborn", "NB", AgeGroup::infant},
        {"NB", "NB", AgeGroup::infant},
        {"4T", "4T", AgeGroup::toddler},
        {"Toddler 3T", "3T", AgeGroup::toddler},
        {"Size M", "M", AgeGroup::any},
        {"medium", "M", AgeGroup::any},
        {" s ", "S", AgeGroup::any},
    };
    for (const Case& c : cases) {
        const auto size = normalise_size(c.text);
        ASSERT_TRUE(size) << c.text;
        EXPECT_EQ(size->code, c.code) << c.text;
        EXPECT_EQ(size->group, c.group) << c.text;
    }
}

TEST(Sizes, NothingIsMadeUp) {
    for (const char* text : {"", "Jumbo", "12", "7T", "13M", "XXS L", "9XL", "----", "Large-ish", "M/L"})
        EXPECT_FALSE(normalise_size(text)) << text;
    EXPECT_FALSE(normalise_size(std::string(5000, 'x')));
}

TEST(Sizes, CodesReadAsThemselvesAndRiseAlongTheRun) {
    const char* const run[] = {"NB", "3M", "6M", "9M", "12M", "18M", "24M", "2T",  "3T",  "4T",
                               "5T", "XS", "S",  "M",  "L",   "XL",  "2XL", "3XL", "4XL", "5XL"};
    int before = -1;
    for (const char* code : run) {
        const auto size = normalise_size(code);
        ASSERT_TRUE(size) << code;
        EXPECT_EQ(size->code, code);
        EXPECT_GT(size_rank(code), before) << code;
        before = size_rank(code);
    }
    EXPECT_GT(size_rank("Jumbo"), before);
}

}  // namespace TESTED
}  // namespace orthema
