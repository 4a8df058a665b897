#include "files/languages.h"

#include <mutex>
#include <stdexcept>

extern "C" {
extern const char orthema_language_de[], orthema_language_de_end[];
extern const char orthema_language_es[], orthema_language_es_end[];
extern const char orthema_language_fr[], orthema_language_fr_end[];
}

namespace orthema {

namespace {

struct Text {
    const char *from, *to;
};
const std::array<Text, shipped_languages.size()> texts{{{orthema_language_de, orthema_language_de_end},
                                                        {orthema_language_es, orthema_language_es_end},
                                                        {orthema_language_fr, orthema_language_fr_end}}};

Language read_shipped(const ShippedLanguage& which, const Text& text) {
    auto language = read_language({text.from, static_cast<std::size_t>(text.to - text.from)});
    if (!language) throw std::logic_error("a language that is shipped: " + language.sentence());
    if (language->code != which.code || language->name != which.name) throw std::logic_error("it is not " + std::string(which.name));
    return std::move(*language);
}

}  // namespace

const Language* shipped_language(std::string_view code) {
    const std::string_view base = code.substr(0, code.find_first_of("_-."));
    for (std::size_t i = 0; i < shipped_languages.size(); ++i) {
        if (shipped_languages[i].code != base) continue;
        static std::array<Language, shipped_languages.size()> read;
        static std::array<std::once_flag, shipped_languages.size()> once;
        std::call_once(once[i], [i] { read[i] = read_shipped(shipped_languages[i], texts[i]); });
        return &read[i];
    }
    return nullptr;
}

}  // namespace orthema
