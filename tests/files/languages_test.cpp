// The languages that are shipped: whole, and each sentence with its arguments.
#include "files/languages.h"

#include <regex>
#include <set>

#include <nlohmann/json.hpp>

#include "core/base/catalogue.h"
#include "core/nesting/nest.h"
#include "core/pressing/next_try.h"
#include "files/library.h"
#include "files/list.h"
#include "files/order_json.h"
#include "files/safe_file.h"
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

TEST(ShippedLanguages, ATryThatWasKeptInEnglishIsSaidInThem) {
    RecipeStep press;
    press.celsius = 150;
    press.seconds = 12;
    RecipeStep peel;
    peel.kind = StepKind::peel;
    peel.peel = Peel::warm;
    const auto said = [](const Argument& words, Reading reading) { return worded({"next: {words}", {{"words", words}}}, reading); };
    int tries = 0;
    for (const ShippedLanguage& shipped : shipped_languages) {
        const Reading reading{Unit::mm, shipped_language(shipped.code)};
        for (const bool fahrenheit : {false, true})
            for (int r = 0; r < trial_result_count; ++r)
                for (const NextTry& t : next_tries({press, peel}, static_cast<TrialResult>(r), 0, fahrenheit)) {
                    ++tries;
                    EXPECT_EQ(said(words_of_try(worded(t.words, Unit::mm)), reading), said(Phrases{{t.words}}, reading));
                    EXPECT_NE(worded(t.words, reading), worded(t.words, Unit::mm));
                }
        for (const char* other : {"tape along the lap", "", "press", "press at , not", "peel warm, not"})
            EXPECT_EQ(said(words_of_try(other), reading), std::string("next: ") + other) << "a remark of somebody's own";
    }
    EXPECT_GT(tries, 40);
}

TEST(ShippedLanguages, WhyARowIsKeptOutIsRememberedAsItWasSaid) {
    const auto table = parse_table("Item,Size,Qty\nAdult Tee,Jumbo,3\nAdult Tee,M,two\nCloak,M,1\nAdult Tee,M,2\n");
    ASSERT_TRUE(table);
    const auto& styles = starting_library().styles;
    const LineImport in = import_lines(*table, guess_columns(*table, styles), styles);
    const auto out = kept_out(in, {Unit::mm, shipped_language("de")});
    ASSERT_EQ(out.size(), 3u);
    EXPECT_EQ(out[0].reason, "„Jumbo“ ist keine bekannte Größe");
    EXPECT_EQ(out[1].reason, "„two“ ist keine Menge");
    EXPECT_EQ(out[2].reason, "„Cloak“ in Größe M passt zu keinem Rohling oder zu mehreren");
}

TEST(ShippedLanguages, WhySomethingCannotBeDoneIsSaidInThem) {
    const Language* german = shipped_language("de");
    const auto said = [&](const auto& failed, Unit unit = Unit::mm) {
        EXPECT_FALSE(failed.ok());
        return failed.error().said_to({unit, german});
    };
    EXPECT_EQ(said(read_file("/nowhere/list.csv")), "„/nowhere/list.csv“ kann nicht gelesen werden: es ist nicht da.");
    // said by the reader, a process of its own
    const std::string drawing = *test::small_art().begin()->second;
    const auto part = std::make_shared<const std::string>(drawing.substr(0, drawing.size() / 2));
    EXPECT_EQ(said(load_art(part, "kite {name}.svg")),
              "kite {name}.svg ist keine ganze SVG-Zeichnung: sie kann abgeschnitten sein; exportieren Sie sie neu.");
    // a sentence within a sentence
    EXPECT_EQ(said(order_from_json(nlohmann::json::parse(R"({"format": "orthema-order", "version": "x"})"))),
              "Die Auftragsdatei ist nicht brauchbar: version ist keine Zahl.");
    const Error wide = larger_than_medium({"flag", 1, {0}, {{{0, 0}, {508, 0}, {508, 254}, {0, 254}}, {}}});
    EXPECT_EQ(wide.said_to({Unit::inch, german}),
              "„flag“ (20 in × 10 in) ist größer als das Medium: wählen Sie ein breiteres, oder machen Sie es kleiner.");
    EXPECT_EQ(wide.sentence, "“flag” (508 mm × 254 mm) is larger than the medium: choose a wider one, or make it smaller.");
}

TEST(ShippedLanguages, EverySentenceOfTheProgramIsInAllOfThem) {
    const auto ran = test::run("python3 '" + test::source("packaging/languages.py") + "'");
    EXPECT_EQ(ran.code, 0) << ran.out;
}

/// Runs of letters, three at least and not all capital (guides' revisions are), in small ones.
std::set<std::string> words_of(const std::string& text) {
    std::set<std::string> out;
    const std::regex word("([A-Za-z]|\xC3[\x80-\xBF]|\xC5[\x92\x93])+");
    for (auto m = std::sregex_iterator(text.begin(), text.end(), word); m != std::sregex_iterator(); ++m) {
        std::string w = m->str();
        if (w.size() > 2 && std::all_of(w.begin(), w.end(), [](char c) { return c >= 'A' && c <= 'Z'; })) continue;
        for (std::size_t i = 0; i < w.size(); ++i) {
            auto& c = reinterpret_cast<unsigned char&>(w[i]);
            if (c >= 'A' && c <= 'Z') c += 0x20;
            if (i > 0 && static_cast<unsigned char>(w[i - 1]) == 0xC3 && c >= 0x80 && c <= 0x9E) c += 0x20;
        }
        if (w.size() > 2) out.insert(std::move(w));
    }
    return out;
}

/// What people and suppliers named in an order.
void names_in(const nlohmann::json& j, std::set<std::string>& out) {
    for (const auto& [key, value] : j.items()) {
        if (value.is_structured()) names_in(value, out);
        const bool named = key == "name" || key == "from" || key == "customer" || key == "colour" || key == "size" || key == "fabric";
        if (value.is_string() && named) out.merge(words_of(value.get<std::string>()));
    }
}

TEST(ShippedLanguages, WhatIsPrintedHasNoWordThatIsNeitherTheirsNorAName) {
    const test::Folder folder;
    const std::string demo = test::source("demo/marrow-hill");
    std::set<std::string> names;
    names_in(nlohmann::json::parse(*read_file(demo + "/order.json")), names);
    for (const ShippedLanguage& shipped : shipped_languages) {
        if (shipped.code != std::string("fr") && std::getenv("ORTHEMA_SWEEP") == nullptr) continue;  // what one lacks the others lack
        std::set<std::string> theirs = names;
        for (const auto& [english, said] : shipped_language(shipped.code)->sentences) theirs.merge(words_of(said));
        const std::string out = folder / shipped.code;
        const auto ran = test::run(std::string("'") + ORTHEMA_CLI + "' export '" + demo + "' --out '" + out + "' --seconds 0 --language " +
                                   shipped.code + " --formats pdf,guides,templates,press,papers");
        ASSERT_EQ(ran.code, 0) << ran.out;
        int pages = 0;
        for (const auto& file : std::filesystem::directory_iterator(out)) {
            if (file.path().extension() != ".pdf") continue;
            ++pages;
            const std::string text = test::run("pdftotext '" + file.path().string() + "' -").out;
            for (const std::string& w : words_of(text)) {
                const auto holds = [&](const std::string& whole) { return whole.find(w) != std::string::npos; };  // at a tile's edge
                EXPECT_TRUE(theirs.contains(w) || std::any_of(theirs.begin(), theirs.end(), holds))
                    << w << " in " << file.path().filename();
            }
        }
        EXPECT_GT(pages, 20);
    }
}

}  // namespace TESTED
}  // namespace orthema
