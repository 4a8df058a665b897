#include "files/languages.h"

#include <stdexcept>

extern "C" {
extern const char orthema_language_de[], orthema_language_de_end[];
extern const char orthema_language_es[], orthema_language_es_end[];
extern const char orthema_language_fr[], orthema_language_fr_end[];
}

namespace orthema {

const std::vector<Language>& shipped_languages() {
    static const std::vector<Language> all = [] {
        std::vector<Language> out;
        using Text = std::pair<const char*, const char*>;
        for (const auto& [from, to] :
             {Text{orthema_language_de, orthema_language_de_end}, Text{orthema_language_es, orthema_language_es_end},
              Text{orthema_language_fr, orthema_language_fr_end}}) {
            auto language = read_language({from, static_cast<std::size_t>(to - from)});
            if (!language) throw std::logic_error("a language that is shipped: " + language.sentence());
            out.push_back(std::move(*language));
        }
        return out;
    }();
    return all;
}

const Language* shipped_language(std::string_view code) {
    const std::string_view base = code.substr(0, code.find_first_of("_-."));
    for (const Language& l : shipped_languages())
        if (l.code == base) return &l;
    return nullptr;
}

}  // namespace orthema
