#include "core/base/language.h"

namespace orthema {

namespace {

/// What stands between the quotes of `line`, its escapes undone; nothing where it is not one quoted text.
std::optional<std::string> unquoted(std::string_view line) {
    if (line.size() < 2 || line.front() != '"' || line.back() != '"') return std::nullopt;
    std::string out;
    for (std::size_t i = 1; i + 1 < line.size(); ++i) {
        if (line[i] != '\\') {
            out += line[i];
            continue;
        }
        if (++i + 1 >= line.size()) return std::nullopt;
        switch (line[i]) {
        case 'n': out += '\n'; break;
        case 't': out += '\t'; break;
        case '"':
        case '\\': out += line[i]; break;
        default: return std::nullopt;
        }
    }
    return out;
}

std::string header_field(const std::string& header, const std::string& name) {
    const auto at = ("\n" + header).find("\n" + name + ": ");
    if (at == std::string::npos) return {};
    const auto from = at + name.size() + 2;
    return header.substr(from, header.find('\n', from) - from);
}

}  // namespace

std::string_view said_in(const Language* language, std::string_view english) {
    if (language == nullptr) return english;
    const auto at = language->sentences.find(english);
    return at == language->sentences.end() ? english : std::string_view(at->second);
}

Result<Language> read_language(std::string_view po) {
    Language out;
    std::string id, text, header;
    std::string* into = nullptr;
    bool fuzzy = false, fuzzy_next = false;
    const auto take = [&] {
        if (into == nullptr) return;
        if (id.empty())
            header = text;
        else if (!text.empty() && !fuzzy)
            out.sentences[id] = text;
        id.clear();
        text.clear();
        into = nullptr;
    };
    int number = 0;
    while (!po.empty()) {
        ++number;
        const auto end = po.find('\n');
        std::string_view line = po.substr(0, end);
        po.remove_prefix(end == std::string_view::npos ? po.size() : end + 1);
        while (!line.empty() && (line.back() == '\r' || line.back() == ' ')) line.remove_suffix(1);
        const auto begins = [&](std::string_view word) { return line.substr(0, word.size()) == word; };
        if (line.empty() || begins("#")) {
            if (begins("#,") && line.find("fuzzy") != std::string_view::npos) fuzzy_next = true;
            continue;
        }
        std::string_view quoted = line;
        if (begins("msgid ")) {
            take();
            fuzzy = fuzzy_next;
            fuzzy_next = false;
            into = &id;
            quoted.remove_prefix(6);
        } else if (begins("msgstr ")) {
            into = &text;
            quoted.remove_prefix(7);
        }
        const auto words = unquoted(quoted);
        if (!words || into == nullptr) return Error{"line " + std::to_string(number) + " is not of a table of sentences"};
        *into += *words;
    }
    take();
    out.code = header_field(header, "Language");
    out.name = header_field(header, "X-Name");
    const std::string decimal = header_field(header, "X-Decimal");
    if (out.code.empty() || out.name.empty() || decimal.size() > 1) return Error{"its header says no language, or no name"};
    if (!decimal.empty()) out.decimal = decimal.front();
    out.none_is_one = header_field(header, "Plural-Forms").find("n > 1") != std::string::npos;
    return out;
}

}  // namespace orthema
