// The languages that are shipped: whole, and each sentence with its arguments.
#include "files/languages.h"

#include <regex>

#include "core/base/catalogue.h"
#include "support/support.h"

namespace orthema {
namespace TESTED {

TEST(ShippedLanguages, AreFoundByCode) {
    ASSERT_EQ(shipped_languages.size(), 3u);
    EXPECT_EQ(shipped_language("de")->name, "Deutsch");
    EXPECT_EQ(shipped_language("de_AT.UTF-8"), shipped_language("de"));
    EXPECT_EQ(shipped_language("es-MX"), shipped_language("es"));
    EXPECT_EQ(shipped_language("en"), nullptr);
    EXPECT_EQ(shipped_language("d"), nullptr);
    EXPECT_EQ(shipped_language(""), nullptr);
}

TEST(ShippedLanguages, EverySentenceOfTheCatalogueIsWordedInEachWithAllItsArguments) {
    const std::regex slot("\\{([a-z0-9_-]+)(\\?[^}]*)?\\}");
    for (const ShippedLanguage& shipped : shipped_languages) {
        const Language& l = *shipped_language(shipped.code);
        int other = 0;
        for (const Entry& e : catalogue()) {
            const std::string text(e.text);
            std::map<std::string, Argument> args;
            for (auto m = std::sregex_iterator(text.begin(), text.end(), slot); m != std::sregex_iterator(); ++m) {
                const std::string name = (*m)[1];
                if ((*m)[2].matched)
                    args[name] = 7;  // it chooses by it
                else
                    args.try_emplace(name, "⟨" + name + "⟩");
            }
            const Arguments all(args.begin(), args.end());
            std::string words;
            ASSERT_NO_THROW(words = worded({std::string(e.code), all}, {Unit::mm, &l})) << l.code << " " << e.code;
            for (const auto& [name, value] : args) {
                if (const auto* said = std::get_if<std::string>(&value))
                    EXPECT_NE(words.find(*said), std::string::npos) << l.code << " " << e.code << " loses " << name;
            }
            EXPECT_EQ(words.find('{'), std::string::npos) << words;
            if (words != worded({std::string(e.code), all}, Unit::mm)) ++other;
        }
        EXPECT_GT(other, int(catalogue().size()) * 95 / 100) << l.code;
    }
}

TEST(ShippedLanguages, EverySentenceOfTheProgramIsInAllOfThem) {
    const auto ran = test::run("python3 '" + test::source("packaging/languages.py") + "'");
    EXPECT_EQ(ran.code, 0) << ran.out;
}

}  // namespace TESTED
}  // namespace orthema
