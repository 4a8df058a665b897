#include "files/word_picture.h"

#include <cmath>

#include "files/composing.h"
#include "files/reader_process.h"

namespace orthema {

namespace {

constexpr double vector_side = 2048;

/// The picture by itself, mended and whole.
Result<LoadedArtPtr> whole_of(const Order& order, const std::string& id, const ArtBytes& bytes) {
    const Art* art = find_art(order, id);
    if (art == nullptr || !is_picture(*art)) return Error{"a picture of it is no longer there: choose another"};
    const auto file = bytes.find(art->hash);
    if (file == bytes.end()) return Error{"{name} has no picture", {{"name", art->name}}};
    return mended_art(file->second, art->name, art->mendings);
}

}  // namespace

Result<LoadedArtPtr> word_picture_art(const Order& order, const Art& art, const ArtBytes& bytes) {
    const WordPicture& word = *art.word_picture;
    const auto failed = [&](const Error& why) { return of_picture(art.name, why); };
    const auto face = bytes.find(art.hash);
    if (face == bytes.end()) return failed("its typeface is not there");
    const auto shaped = shaped_words(face->second, word.typeface, {word.word}, false);
    if (!shaped) return shaped.error();
    LoadedArtById wholes;
    std::map<std::string, Region> outlines;
    for (const WordPlace& p : word.places) {
        for (const PlacePart* part : {&p.first, &p.second}) {
            if (part->picture.empty() || wholes.contains(part->picture) || (part == &p.second && !p.shared)) continue;
            auto whole = whole_of(order, part->picture, bytes);
            if (!whole) return failed(whole.error());
            if ((*whole)->facts.empty()) return failed("a picture of it has no ink");
            wholes[part->picture] = *whole;
        }
        if (p.shape == PlaceShape::outline && !p.outline.empty())
            if (const auto shape = whole_of(order, p.outline, bytes)) {
                Region& outline = outlines[p.outline];
                for (const Polygon& part : (*shape)->facts.outline)
                    outline.push_back({part.outer, {}});  // what is inside is for the picture
            }
    }
    const auto shapes = word_shapes(word, shaped->front(), outlines);
    if (!shapes) return failed(shapes.error());
    auto laid = std::make_shared<WordLaid>();
    for (std::size_t k = 0; k < shapes->size(); ++k) {
        const Region& shape = (*shapes)[k];
        const Rect box = bounds(shape);
        laid->box = k == 0 ? box : united(laid->box, box);
        const WordPlace place = k < word.places.size() ? word.places[k] : WordPlace{};
        const auto add = [&](const Region& part, const PlacePart& wish, bool second) {
            WordPartLaid p{k, second, part, box, wish.picture, 1, {}};
            if (const auto whole = wholes.find(wish.picture); whole != wholes.end()) {
                p.aspect = whole->second->facts.aspect;
                p.filled = fill_part(part, box, {p.aspect, find_art(order, wish.picture)->subject}, wish, word.rim);
            }
            laid->parts.push_back(std::move(p));
        };
        if (!place.shared) {
            add(shape, place.first, false);
            continue;
        }
        const auto [one, other] = parted(shape, place.line);
        if (!one.empty()) add(one, place.first, false);
        if (!other.empty()) add(other, place.second, true);
    }
    // as many pixels to a letter as the sharpest picture has in it
    const Rect& box = laid->box;
    double sharpest = 0, coarsest = 1e30;
    for (const WordPartLaid& p : laid->parts) {
        if (p.picture.empty()) continue;
        const ArtFacts& f = wholes[p.picture]->facts;
        const double own = f.vector ? vector_side / std::max(box.width(), box.height()) : f.ink_px.width() / p.filled.at.width;
        sharpest = std::max(sharpest, own);
        if (!f.vector) coarsest = std::min(coarsest, own / softness(f));
    }
    if (sharpest <= 0) {  // places alone: an outline of nothing would be no picture
        auto empty = std::make_shared<LoadedArt>();
        empty->word = laid;
        empty->bytes = face->second;
        empty->hash = art.hash;
        return LoadedArtPtr(empty);
    }
    const ComposingCanvas canvas = composing_canvas(box, sharpest);
    std::vector<Filling> fillings;
    for (const WordPartLaid& p : laid->parts) {
        if (p.picture.empty()) continue;
        Region shape = mapped(p.shape, canvas.to);
        // the first of two that share a place runs on a little under the second: so no sliver stays between them
        if (!p.second && p.place < word.places.size() && word.places[p.place].shared)
            shape = intersect(offset(shape, 1.5), mapped((*shapes)[p.place], canvas.to));
        const PictureAt& at = p.filled.at;
        fillings.push_back(
            filling_of(canvas, p.picture, wholes[p.picture]->facts, std::move(shape), at.width, p.box.centre() + at.middle, at.degrees));
    }
    const auto out = composed_art(canvas, wholes, fillings, coarsest, art.name);
    if (!out) return out.error();
    const auto& own = *out;
    own->word = laid;
    for (const WordPartLaid& p : laid->parts)
        if (!p.picture.empty() && !p.filled.whole) own->facts.cut_off.push_back(find_art(order, p.picture)->name);
    return LoadedArtPtr(own);
}

WordSuits word_suits(const WordLaid& laid, const Order& order, const LoadedArtById& art, const std::vector<std::string>& pictures,
                     double rim) {
    WordSuits out;
    std::vector<WordFill> fills;
    for (const std::string& id : pictures) {
        const Art* entry = find_art(order, id);
        auto loaded = art.find(whole_id(id));
        if (loaded == art.end()) loaded = art.find(id);
        if (entry == nullptr || loaded == art.end() || loaded->second->facts.empty()) continue;
        out.pictures.push_back(id);
        fills.push_back({loaded->second->facts.aspect, entry->subject});
    }
    std::vector<Region> parts;
    for (const WordPartLaid& p : laid.parts) parts.push_back(p.shape);
    out.suits = suits(parts, fills, rim);
    out.best = best_assignment(out.suits);
    return out;
}

std::string enrol_word_picture(Order& order, ArtBytes& bytes, const WordPicture& word, const Typeface& face, const std::string& name) {
    Art art;
    art.name = name;
    art.hash = face.hash;
    art.kind = kind_of(*face.file).value_or(ArtKind::ttf);
    art.id = fresh_id(name, order.art);
    art.word_picture = with_places(word);
    art.word_picture->typeface = face.name;
    bytes[art.hash] = face.file;
    order.art.push_back(art);
    return art.id;
}

}  // namespace orthema
