#include "core/order/roster.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/base/text.h"

namespace orthema {

namespace {

constexpr char mark = '\n';  // no name of an art holds it

/// The first letters of each word, as UTF-8 has them.
std::string initials(const std::string& name) {
    std::string out;
    bool begins = true;
    for (std::size_t i = 0; i < name.size();) {
        std::size_t n = 1;
        while (i + n < name.size() && (static_cast<unsigned char>(name[i + n]) & 0xC0) == 0x80) ++n;
        const bool space = n == 1 && (name[i] == ' ' || name[i] == '-' || name[i] == '.');
        if (begins && !space) out += name.substr(i, n);
        begins = space;
        i += n;
    }
    return out;
}

struct Filled {
    std::string text;
    bool asked = false, found = false;
};

Filled filled_in(const std::string& words, const OrderLine& line) {
    Filled out;
    for (std::size_t i = 0; i < words.size();) {
        const std::size_t end = words[i] == '{' ? words.find('}', i) : std::string::npos;
        const std::string field = end == std::string::npos ? "" : words.substr(i + 1, end - i - 1);
        const std::map<std::string, std::string> values = {
            {"name", line.name}, {"number", line.number}, {"initials", initials(line.name)}, {"note", line.note}};
        const auto value = values.find(field);
        if (value == values.end()) {
            out.text += words[i++];
            continue;
        }
        out.asked = true;
        out.found = out.found || !value->second.empty();
        out.text += value->second;
        i = end + 1;
    }
    out.text = trimmed(out.text);
    return out;
}

}  // namespace

std::string word_for(const Lettering& lettering, const OrderLine& line) {
    const Filled f = filled_in(lettering.words, line);
    return f.asked && !f.found ? std::string() : f.text;
}

std::string sample_word(const Lettering& lettering) {
    OrderLine anybody;
    anybody.name = "Name";
    anybody.number = "00";
    anybody.note = "Note";
    return word_for(lettering, anybody);
}

bool is_number(const std::string& word) {
    return !word.empty() && std::all_of(word.begin(), word.end(), [](char c) { return c >= '0' && c <= '9'; });
}

std::vector<std::string> printed_as(const Lettering& lettering, const std::string& word) {
    if (!lettering.digits || !is_number(word)) return {word};
    std::vector<std::string> out;
    for (const char c : word) out.emplace_back(1, c);
    return out;
}

const Lettering* lettering_of(const Order& order, const Decoration& d) {
    const Art* art = find_art(order, d.art);
    return art == nullptr || !art->lettering ? nullptr : &*art->lettering;
}

std::string drawn_id(const Order& order, const std::string& id) {
    const Art* art = find_art(order, id);
    if (art == nullptr || !art->lettering) return id;
    const std::vector<std::string> words = words_of(order, *art);
    return words.empty() ? id : word_art(id, words.front());
}

std::vector<std::string> words_of(const Order& order, const Art& art) {
    std::vector<std::string> out;
    if (!art.lettering) return out;
    std::set<RunKey> runs;
    for (const Decoration& d : order.decorations)
        if (d.art == art.id) runs.insert(d.run);
    std::set<std::string> seen;
    const auto take = [&](const std::string& word) {
        if (!word.empty() && seen.insert(word).second) out.push_back(word);
    };
    for (const OrderLine& l : order.lines.all()) {
        if (l.quantity <= 0 || (!runs.empty() && !runs.contains(run_of(l)))) continue;
        const std::string word = word_for(*art.lettering, l);
        take(word);
        for (const std::string& piece : printed_as(*art.lettering, word)) take(piece);
    }
    if (out.empty()) take(sample_word(*art.lettering));
    return out;
}

std::string word_art(const std::string& art, const std::string& word) { return art + mark + word; }
std::string art_of_word(const std::string& id) { return id.substr(0, id.find(mark)); }
std::string word_in(const std::string& id) {
    const auto at = id.find(mark);
    return at == std::string::npos ? std::string() : id.substr(at + 1);
}

std::vector<Worn> worn(const Order& order, const Lettering& lettering, const RunKey& run, const std::string& size) {
    std::vector<Worn> out;
    for (const OrderLine& l : order.lines.all())
        if (l.quantity > 0 && l.size == size && run_of(l) == run) out.push_back({word_for(lettering, l), &l, l.quantity});
    return out;
}

std::vector<Worn> pile_of(const Order& order, const Decoration& d, const std::string& size) {
    const Lettering* lettering = lettering_of(order, d);
    return lettering == nullptr ? std::vector<Worn>{} : worn(order, *lettering, d.run, size);
}

const OrderLine* line_of_piece(const Order& order, const RunKey& run, const std::string& size, int piece) {
    for (const OrderLine& l : order.lines.all()) {
        if (l.size != size || run_of(l) != run) continue;
        if (piece < l.quantity) return &l;
        piece -= l.quantity;
    }
    return nullptr;
}

namespace {

void add_person(std::string& out, const OrderLine& line) {
    if (is_person(line)) out += (out.empty() ? "" : ", ") + person_text(line);
}

}  // namespace

std::string wearers(const Order& order, const RunKey& run, const std::string& size, int first, int pieces) {
    std::string out;
    for (int i = first; i < first + pieces; ++i)
        if (const OrderLine* l = line_of_piece(order, run, size, i); l != nullptr) add_person(out, *l);
    return out;
}

Wearers::Wearers(const Order& order) {
    std::set<std::pair<RunKey, std::string>> named;
    for (const OrderLine& l : order.lines.all())
        if (is_person(l)) named.insert({run_of(l), l.size});
    if (named.empty()) return;
    for (const OrderLine& l : order.lines.all()) {
        const std::pair<RunKey, std::string> pile{run_of(l), l.size};
        if (named.contains(pile)) piles_[pile].insert(piles_[pile].end(), static_cast<std::size_t>(std::max(0, l.quantity)), &l);
    }
}

std::string Wearers::of(const RunKey& run, const std::string& size, int first, int pieces) const {
    const auto pile = piles_.find({run, size});
    std::string out;
    if (pile == piles_.end()) return out;
    for (int i = first; i < std::min(first + pieces, static_cast<int>(pile->second.size())); ++i)
        add_person(out, *pile->second[static_cast<std::size_t>(i)]);
    return out;
}

std::string word_on(const Order& order, const Decoration& d, const std::string& size, int piece) {
    const Lettering* lettering = lettering_of(order, d);
    const OrderLine* line = lettering == nullptr ? nullptr : line_of_piece(order, d.run, size, piece);
    return line == nullptr ? std::string() : word_for(*lettering, *line);
}

std::string lettered_words(const Order& order, const Decoration& d, const std::string& size) {
    const Lettering* lettering = lettering_of(order, d);
    if (lettering == nullptr) return {};
    std::string out = set_words(*lettering, "");
    for (const Worn& w : worn(order, *lettering, d.run, size)) out += "|" + w.word + " " + std::to_string(w.quantity);
    return out;
}

std::string set_words(const Lettering& l, const std::string& word) {
    const auto part = [](double v) { return " " + std::to_string(std::lround(v * 10000)); };
    const auto ink = [&](const Colour& c) { return part(c.r) + part(c.g) + part(c.b); };
    std::string out = "letters " + word + (l.capitals ? " in capitals" : "") + (l.squeeze ? ", squeezed" : "") + ", " + l.narrow +
                      part(l.height) + part(l.spacing) + part(l.least_gap) + part(l.arch) + ink(l.colour);
    for (const LetterRim& r : l.rims) out += ", rim" + ink(r.colour) + part(r.width);
    return out;
}

std::string person_text(const OrderLine& line) { return line.number + (line.number.empty() || line.name.empty() ? "" : " ") + line.name; }

Findings roster_findings(const Order& order) {
    Findings out;
    const auto about = [](const RunKey& run, const std::string& size) {
        Subject s;
        s.style = run.style;
        s.colour = run.colour;
        s.lot = run.lot;
        s.job = run.job;
        s.size = size;
        return s;
    };
    // garments under a lettering that have nothing to put there
    for (const Decoration& d : order.decorations) {
        const Lettering* lettering = lettering_of(order, d);
        if (lettering == nullptr) continue;
        int without = 0, all = 0;
        for (const OrderLine& l : order.lines.all()) {
            if (run_of(l) != d.run) continue;
            all += l.quantity;
            if (word_for(*lettering, l).empty()) without += l.quantity;
        }
        if (without > 0)
            out.push_back(finding("roster-lacks", subject_of("order", d),
                                  {{"n", without}, {"all", all}, {"design", d.name}, {"run", run_name(order, d.run)}}));
    }
    std::map<RunKey, std::map<std::string, int>> numbers;
    for (const OrderLine& l : order.lines.all()) {
        if (l.quantity <= 0 || !is_person(l)) continue;
        if (!l.number.empty()) ++numbers[run_of(l)][l.number];
        if (l.quantity > 1)
            out.push_back(finding("roster-several", about(run_of(l), l.size), {{"who", person_text(l)}, {"n", l.quantity}}));
    }
    for (const auto& [run, of] : numbers)
        for (const auto& [number, n] : of)
            if (n > 1)
                out.push_back(finding("roster-twice", about(run, ""), {{"number", number}, {"n", n}, {"run", run_name(order, run)}}));
    return out;
}

}  // namespace orthema
