#include "core/base/words.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "core/base/catalogue.h"
#include "core/base/language.h"
#include "core/base/units.h"

namespace orthema {

namespace {

const Argument& argument(const Words& words, std::string_view name) {
    for (const auto& [key, value] : words.args)
        if (key == name) return value;
    throw std::logic_error("“" + words.code + "” lacks " + std::string(name));
}

struct Saying {
    Reading reading;
    std::string operator()(const std::string& s) const { return s; }
    std::string operator()(const Term& t) const { return said(reading, t.english); }
    std::string operator()(Length l) const { return length_text(l, reading); }
    std::string operator()(const AtMost& a) const { return length_text(Length::from_mm(a.mm), reading, true, Rounding::down); }
    std::string operator()(const AtLeast& a) const { return length_text(Length::from_mm(a.mm), reading, true, Rounding::up); }
    std::string operator()(const Fine& f) const {
        return reading == Unit::mm ? figure_text(f.mm, f.digits, reading) + " mm" : figure_text(f.mm / 25.4, f.digits + 2, reading) + " in";
    }
    std::string operator()(const Share& s) const { return figure_text(100 * s.of_one, 0, reading) + " %"; }
    std::string operator()(const Number& n) const { return figure_text(n.value, n.digits, reading); }
    std::string operator()(int n) const { return std::to_string(n); }
    std::string operator()(const Phrases& p) const {
        std::string out;
        for (const Words& w : p.of.all()) out += (out.empty() ? "" : said(reading, p.joint)) + worded(w, reading);
        return out;
    }
};

}  // namespace

WordsList::WordsList() = default;
WordsList::WordsList(std::initializer_list<Words> all) : all_(all) {}
WordsList::WordsList(std::vector<Words> all) : all_(std::move(all)) {}
WordsList::WordsList(const WordsList& other) = default;
WordsList::WordsList(WordsList&& other) noexcept = default;
WordsList& WordsList::operator=(const WordsList& other) = default;
WordsList& WordsList::operator=(WordsList&& other) noexcept = default;
WordsList::~WordsList() = default;
void WordsList::add(Words words) { all_.push_back(std::move(words)); }

std::string worded(const Words& words, Reading reading) {
    const Entry* entry = find_entry(words.code);
    if (entry == nullptr && words.code.find(' ') == std::string::npos)
        throw std::logic_error("“" + words.code + "” is not in the catalogue");
    std::string out;
    std::string_view rest = said_in(reading.language, entry != nullptr ? std::string_view(entry->text) : std::string_view(words.code));
    for (;;) {
        const auto open = rest.find('{');
        out += rest.substr(0, open);
        if (open == std::string_view::npos) return out;
        const auto close = rest.find('}', open);
        const std::string_view slot = rest.substr(open + 1, close - open - 1);
        rest.remove_prefix(close + 1);
        if (const auto choice = slot.find('?'); choice != std::string_view::npos) {
            const auto bar = slot.find('|', choice);
            const bool one = is_one(std::get<int>(argument(words, slot.substr(0, choice))), reading);
            out += one ? slot.substr(choice + 1, bar - choice - 1) : slot.substr(bar + 1);
        } else {
            out += std::visit(Saying{reading}, argument(words, slot));
        }
    }
}

std::string said(const Reading& reading, std::string_view english) { return std::string(said_in(reading.language, english)); }

std::map<std::string, double> figures_of(const Arguments& args) {
    std::map<std::string, double> out;
    for (const auto& [name, value] : args) {
        if (const auto* l = std::get_if<Length>(&value)) out[name] = l->mm();
        if (const auto* f = std::get_if<Fine>(&value)) out[name] = f->mm;
        if (const auto* m = std::get_if<AtMost>(&value)) out[name] = m->mm;
        if (const auto* m = std::get_if<AtLeast>(&value)) out[name] = m->mm;
        if (const auto* s = std::get_if<Share>(&value)) out[name] = s->of_one;
        if (const auto* n = std::get_if<Number>(&value)) out[name] = n->value;
        if (const auto* i = std::get_if<int>(&value)) out[name] = *i;
    }
    return out;
}

Finding finding(const char* code, Subject about, Arguments args) {
    const Entry* entry = find_entry(code);
    if (entry == nullptr) throw std::logic_error("“" + std::string(code) + "” is not in the catalogue");
    about.stage = entry->stage;
    return {entry->severity, code, std::move(about), std::move(args)};
}

std::string finding_text(const Finding& f, Reading reading) { return worded({f.code, f.args}, reading); }

double figure_of(const Finding& f, const std::string& name) { return figures_of(f.args).at(name); }

std::vector<FoldedFindings> folded(const Findings& all) {
    std::vector<FoldedFindings> out;
    for (std::size_t i = 0; i < all.size(); ++i) {
        const Finding& f = all[i];
        const auto same = std::find_if(out.begin(), out.end(), [&](const FoldedFindings& g) {
            return g.code == f.code && g.stage == f.about.stage && g.severity == f.severity;
        });
        if (same == out.end())
            out.push_back({f.severity, f.about.stage, f.code, {i}});
        else
            same->of.push_back(i);
    }
    std::stable_sort(out.begin(), out.end(), [](const FoldedFindings& a, const FoldedFindings& b) { return a.severity > b.severity; });
    return out;
}

}  // namespace orthema
