#include "files/lettering.h"

#include <cmath>
#include <thread>

#include "core/order/roster.h"
#include "files/art_pixels.h"
#include "files/drawing_svg.h"
#include "files/reader_process.h"

extern "C" {
extern const char orthema_font_bold[];
extern const char orthema_font_bold_end[];
extern const char orthema_face_wide[];
extern const char orthema_face_wide_end[];
extern const char orthema_face_narrow[];
extern const char orthema_face_narrow_end[];
}

namespace orthema {

namespace {

constexpr double canvas_side = 2048;  ///< pixels along the longer side, as vector art is seen
constexpr int screen_side = 400;      ///< of a word; it is looked at in half of that
constexpr std::size_t most_words = 4000;

/// A word that draws itself from its outlines.
class LetteredArt final : public LoadedArt {
public:
    Drawing drawing;  ///< canvas pixels
    void draw(cairo_t* cr) const override { paint(drawing, cr, nullptr); }
};

/// A picture of what lies in `box` of the field. Where `whole`, its ink box is all of it, ink or not.
LoadedArtPtr picture_of(const std::vector<LetterInk>& inks, const Rect& box, bool whole) {
    auto art = std::make_shared<LetteredArt>();
    const double k = canvas_side / std::max(box.width(), box.height());
    const Affine to = Affine::scale(k, k).after(Affine::shift(-box.x0, -box.y0));
    for (const LetterInk& ink : inks) art->drawing.region(mapped(ink.area, to), ink.colour, {});
    const double w = box.width() * k, h = box.height() * k;
    art->kind = ArtKind::svg;
    art->bytes = std::make_shared<const std::string>(drawing_svg(art->drawing, {0, 0, w, h}, "word"));
    art->hash = content_hash(*art->bytes);
    art->facts.width_px = static_cast<int>(std::ceil(w));
    art->facts.height_px = static_cast<int>(std::ceil(h));
    art->facts.ink_px = {0, 0, w, h};
    art->screen = screen_levels(*art, screen_side);
    // what the eye and the method want to know of it, from its pixels; its shape as it is
    const ScreenImage& seen = art->screen[std::min<std::size_t>(1, art->screen.size() - 1)];
    const std::vector<std::uint8_t> rgba = straight(seen.pixels);
    ArtFacts facts = look_at({rgba.data(), seen.width, seen.height}, true);
    facts.width_px = art->facts.width_px;
    facts.height_px = art->facts.height_px;
    facts.ink_px = art->facts.ink_px;
    facts.aspect = h / w;
    facts.flat_background = false;
    Region outline = mapped(inks.empty() ? Region{} : inks.front().area,
                            Affine::scale(1 / box.width(), 1 / box.width()).after(Affine::shift(-box.x0, -box.y0)));
    if (whole) outline = box_region({0, 0, 1, facts.aspect});
    facts.outline = std::move(outline);
    art->facts = std::move(facts);
    return art;
}

Typeface shipped(const char* name, const char* from, const char* to) {
    return typeface(name, std::string(from, static_cast<std::size_t>(to - from)));
}

}  // namespace

Typeface typeface(std::string name, std::string file) {
    std::string hash = content_hash(file);
    return {std::move(name), std::make_shared<const std::string>(std::move(file)), std::move(hash)};
}

const std::vector<Typeface>& shipped_typefaces() {
    static const std::vector<Typeface> all = {shipped("Wide", orthema_face_wide, orthema_face_wide_end),
                                              shipped("Narrow", orthema_face_narrow, orthema_face_narrow_end),
                                              shipped("Plain", orthema_font_bold, orthema_font_bold_end)};
    return all;
}

Result<LoadedArtById> lettered_art(const Order& order, const Art& art, const ArtBytes& bytes) {
    const Lettering& l = *art.lettering;
    const std::vector<std::string> words = words_of(order, art);
    if (words.size() > most_words) return Error{"{name} has more than 4,000 different words: part the order.", {{"name", art.name}}};
    const auto face = bytes.find(art.hash);
    if (face == bytes.end()) return Error{"{name} has no typeface.", {{"name", art.name}}};
    const auto wide = shaped_words(face->second, l.typeface, words, l.capitals);
    if (!wide) return wide.error();
    std::vector<ShapedWord> narrow;
    if (const auto other = bytes.find(l.narrow); !l.narrow.empty() && other != bytes.end()) {
        auto shaped = shaped_words(other->second, l.narrow_name, words, l.capitals);
        if (!shaped) return shaped.error();
        narrow = std::move(*shaped);
    }
    std::vector<SetWord> set(words.size());
    std::vector<std::vector<LetterInk>> inks(words.size());
    const auto each = [&](auto&& what) {  // on all cores: two hundred names are not to be waited for
        const std::size_t threads = std::clamp<std::size_t>(std::thread::hardware_concurrency(), 1, 8);
        std::vector<std::thread> others;
        const auto part = [&](std::size_t k) {
            for (std::size_t i = k; i < words.size(); i += threads) what(i);
        };
        for (std::size_t k = 1; k < threads && k < words.size(); ++k) others.emplace_back(part, k);
        part(0);
        for (std::thread& t : others) t.join();
    };
    each([&](std::size_t i) {
        set[i] = set_word(l, (*wide)[i], narrow.empty() ? nullptr : &narrow[i], is_number(words[i]));
        inks[i] = letter_inks(l, set[i]);
    });
    // the field is as wide as words may be, and as tall as the tallest of them
    Rect field{0, -l.height * field_side, field_side, 0};
    std::size_t widest = 0;
    double most = 0;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (set[i].letters.empty()) continue;
        const Rect box = bounds(inks[i].front().area);
        field.y0 = std::min(field.y0, box.y0);
        field.y1 = std::max(field.y1, box.y1);
        if (box.width() > most) {
            most = box.width();
            widest = i;
        }
    }
    if (most <= 0) return Error{"{name}: the typeface “{face}” has none of its letters.", {{"name", art.name}, {"face", l.typeface}}};
    std::vector<LoadedArtPtr> made(words.size());
    each([&](std::size_t i) {
        if (set[i].letters.empty()) return;
        const Rect box = bounds(inks[i].front().area);
        auto picture = std::const_pointer_cast<LoadedArt>(picture_of(inks[i], box, false));
        Lettered& how = picture->facts.lettered.emplace();
        constexpr double unit = 1 / field_side;
        how.in_field = {box.x0 * unit, (box.y0 - field.y0) * unit, box.x1 * unit, (box.y1 - field.y0) * unit};
        how.narrow = set[i].narrow;
        how.closed = set[i].closed;
        how.scale = set[i].scale;
        how.squeezed = set[i].squeezed;
        for (const double x : set[i].lefts) how.lefts.push_back(x * unit);
        how.missing = (set[i].narrow ? narrow[i] : (*wide)[i]).missing;
        made[i] = std::move(picture);
    });
    LoadedArtById out;
    for (std::size_t i = 0; i < words.size(); ++i)
        if (made[i]) out[word_art(art.id, words[i])] = made[i];
    out[art.id] = picture_of(inks[widest], field, true);
    return out;
}

std::string enrol_lettering(Order& order, ArtBytes& bytes, const Lettering& lettering, const Typeface& face, const Typeface* narrow,
                            const std::string& name) {
    Art art;
    art.name = name;
    art.hash = face.hash;
    art.kind = kind_of(*face.file).value_or(ArtKind::ttf);
    art.id = fresh_id(name, order.art);
    art.lettering = lettering;
    art.lettering->typeface = face.name;
    bytes[art.hash] = face.file;
    if (narrow != nullptr) {
        art.lettering->narrow = narrow->hash;
        art.lettering->narrow_name = narrow->name;
        bytes[art.lettering->narrow] = narrow->file;
    }
    order.art.push_back(art);
    return art.id;
}

}  // namespace orthema
