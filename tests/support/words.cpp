#include "words.h"

#include <filesystem>
#include <regex>

#include "drawing/painter.h"
#include "support.h"

namespace orthema::test {

namespace {

struct Word {
    Rect box;  ///< of its ink, nearly
    std::string text;
    std::size_t at = 0;  ///< among the marks
    double size = 0;
    bool whole = true;  ///< not cut by a clip
};

Rect ink_box(const TextMark& t) {
    const double w = text_width(t.text, t.size, t.bold);
    const double x = t.align == Align::left ? 0 : t.align == Align::right ? -w : -w / 2;
    const Affine to = Affine::shift(t.at.x, t.at.y).after(Affine::turn(t.degrees));
    return bounds(mapped(Ring{{x, -0.66 * t.size}, {x + w, -0.66 * t.size}, {x + w, 0.04 * t.size}, {x, 0.04 * t.size}}, to));
}

bool level(const TextMark& t) {
    const double quarter = t.degrees / 90;
    return std::abs(quarter - std::round(quarter)) < 0.02;
}

Rect common(const Rect& a, const Rect& b) {
    return {std::max(a.x0, b.x0), std::max(a.y0, b.y0), std::min(a.x1, b.x1), std::min(a.y1, b.y1)};
}

bool some(const Rect& r) { return r.x1 > r.x0 && r.y1 > r.y0; }

/// Even-odd, as drawings are filled.
bool within(const std::vector<Ring>& rings, Point p) {
    return std::count_if(rings.begin(), rings.end(), [&](const Ring& r) { return inside(r, p); }) % 2 == 1;
}

}  // namespace

std::vector<std::string> word_troubles(const Drawing& drawing, const Rect& page) {
    std::vector<std::string> out;
    std::vector<Word> words;
    std::vector<Rect> clips{page}, seen_in(drawing.marks.size());  // the second: where each mark shows
    for (std::size_t i = 0; i < drawing.marks.size(); ++i) {
        seen_in[i] = clips.back();
        if (const auto* clip = std::get_if<ClipMark>(&drawing.marks[i])) {
            if (clip->to.empty()) {
                if (clips.size() > 1) clips.pop_back();
            } else {
                Ring all;
                for (const Ring& r : clip->to) all.insert(all.end(), r.begin(), r.end());
                clips.push_back(common(clips.back(), bounds(all)));
            }
        } else if (const auto* t = std::get_if<TextMark>(&drawing.marks[i]); t != nullptr && level(*t) && !t->text.empty()) {
            const Rect box = ink_box(*t), seen = common(box, clips.back());
            if (!some(seen) || t->colour.a < 0.1) continue;
            const double lost = std::max(box.width() - seen.width(), box.height() - seen.height());
            if (clips.size() == 1 && lost > 0.06 * t->size) out.push_back("cut by the edge: " + t->text);
            words.push_back({seen, t->text, i, t->size, lost < 0.06 * t->size});
        }
    }
    // what lies over them
    for (std::size_t w = 0; w < words.size();) {
        constexpr int across = 12;
        std::vector<bool> covered(across * 3);
        const Rect& b = words[w].box;
        for (std::size_t i = words[w].at + 1; i < drawing.marks.size(); ++i) {
            const auto* path = std::get_if<PathMark>(&drawing.marks[i]);
            if (path == nullptr || !path->fill || path->fill->a < 0.85 || path->rings.empty() || path->rings[0].empty()) continue;
            Ring all;
            for (const Ring& r : path->rings) all.insert(all.end(), r.begin(), r.end());
            if (!some(common(bounds(all), b))) continue;
            for (int k = 0; k < across * 3; ++k) {
                const Point p{b.x0 + b.width() * (k % across + 0.5) / across, b.y0 + b.height() * (k / across + 0.5) / 3};
                if (!covered[std::size_t(k)] && seen_in[i].contains(p) && within(path->rings, p)) covered[std::size_t(k)] = true;
            }
        }
        const auto n = std::count(covered.begin(), covered.end(), true);
        if (n == across * 3) {
            words.erase(words.begin() + std::ptrdiff_t(w));
            continue;
        }
        if (n > 2) out.push_back("half covered: " + words[w].text);
        ++w;
    }
    for (std::size_t i = 0; i < words.size(); ++i)
        for (std::size_t j = i + 1; j < words.size(); ++j) {
            const Rect c = common(words[i].box, words[j].box);
            const double least = 0.12 * std::min(words[i].size, words[j].size);
            if (c.width() > least && c.height() > least) out.push_back("one over the other: " + words[i].text + " | " + words[j].text);
        }
    return out;
}

std::string PageWords::text() const {
    std::string all;
    for (const Word& w : words) all += w.text + " ";
    return all;
}

std::vector<PageWords> read_words(const std::string& pdf) {
    std::vector<PageWords> pages;
    const std::string out = run("pdftotext -bbox '" + pdf + "' -").out;
    static const std::regex page(R"re(<page width="([0-9.]+)" height="([0-9.]+)">)re");
    static const std::regex word(R"re(<word xMin="([-0-9.]+)" yMin="([-0-9.]+)" xMax="([-0-9.]+)" yMax="([-0-9.]+)">(.*)</word>)re");
    std::size_t at = 0;
    while (at < out.size()) {
        const std::size_t end = std::min(out.find('\n', at), out.size());
        const std::string line = out.substr(at, end - at);
        at = end + 1;
        std::smatch m;
        if (line.find("<word") != std::string::npos && std::regex_search(line, m, word) && !pages.empty())
            pages.back().words.push_back({{std::stod(m[1]), std::stod(m[2]), std::stod(m[3]), std::stod(m[4])}, m[5]});
        else if (line.find("<page") != std::string::npos && std::regex_search(line, m, page))
            pages.push_back({{0, 0, std::stod(m[1]), std::stod(m[2])}, {}});
    }
    return pages;
}

std::vector<std::string> page_troubles(const std::string& pdf) {
    std::vector<std::string> out;
    const std::vector<PageWords> pages = read_words(pdf);
    const std::string name = std::filesystem::path(pdf).filename();
    if (pages.empty()) out.push_back(name + " has no page");
    bool tiles = false;  // words go on over a join
    for (const char* kind : {"template", "board", "border", "plate"}) tiles = tiles || name.find(kind) != std::string::npos;
    for (std::size_t p = 0; p < pages.size(); ++p) {
        const std::string where = name + " page " + std::to_string(p + 1) + ": ";
        std::vector<PageWords::Word> words;
        for (PageWords::Word w : pages[p].words) {
            // from the line's box to that of its ink, whichever way it runs
            const bool level = w.box.height() < w.box.width() || w.text.size() < 3;
            const double high = level ? w.box.height() : w.box.width();
            (level ? w.box.y0 : w.box.x0) += 0.25 * high;
            (level ? w.box.y1 : w.box.x1) -= 0.25 * high;
            // no printer reaches the last millimetres
            const double edge = std::max(pages[p].page.width(), pages[p].page.height()) < 1300 ? 8 : 0;  // of rolls it is the margin
            const Rect inner = pages[p].page.grown(-edge);
            if (!tiles && (w.box.x0 < inner.x0 || w.box.x1 > inner.x1 || w.box.y0 < inner.y0 || w.box.y1 > inner.y1))
                out.push_back(where + "out of the page: " + w.text);
            words.push_back(w);
        }
        std::sort(words.begin(), words.end(), [](const auto& a, const auto& b) { return a.box.x0 < b.box.x0; });
        for (std::size_t i = 0; i < words.size(); ++i)
            for (std::size_t j = i + 1; j < words.size() && words[j].box.x0 < words[i].box.x1; ++j) {
                const Rect c = common(words[i].box, words[j].box);
                if (c.width() > 0.6 && c.height() > 0.6)
                    out.push_back(where + "one over the other: " + words[i].text + " | " + words[j].text);
            }
    }
    return out;
}

}  // namespace orthema::test
