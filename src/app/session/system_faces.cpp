#include "app/session/system_faces.h"

#include <fontconfig/fontconfig.h>

#include <algorithm>
#include <map>
#include <memory>

#include "core/base/utf8.h"

namespace orthema::app {

namespace {

std::string text_of(FcPattern* face, const char* what) {
    FcChar8* text = nullptr;
    return FcPatternGetString(face, what, 0, &text) == FcResultMatch ? whole_utf8(reinterpret_cast<const char*>(text)) : std::string();
}

int number_of(FcPattern* face, const char* what) {
    int value = 0;
    FcPatternGetInteger(face, what, 0, &value);
    return value;
}

bool ends_with(const std::string& s, const char* end) {
    const std::string_view tail(end);
    return s.size() >= tail.size() &&
           std::equal(tail.rbegin(), tail.rend(), s.rbegin(), [](char a, char b) { return a == (b | 32) || a == b; });
}

}  // namespace

std::vector<SystemFace> system_faces() {
    const std::unique_ptr<FcConfig, void (*)(FcConfig*)> config(FcInitLoadConfigAndFonts(), FcConfigDestroy);
    if (!config) return {};
    const std::unique_ptr<FcPattern, void (*)(FcPattern*)> any(FcPatternCreate(), FcPatternDestroy);
    const std::unique_ptr<FcObjectSet, void (*)(FcObjectSet*)> wanted(
        FcObjectSetBuild(FC_FAMILY, FC_STYLE, FC_FILE, FC_INDEX, FC_SLANT, FC_OUTLINE, nullptr), FcObjectSetDestroy);
    const std::unique_ptr<FcFontSet, void (*)(FcFontSet*)> all(FcFontList(config.get(), any.get(), wanted.get()), FcFontSetDestroy);
    std::map<std::string, std::string> found;
    for (int i = 0; all && i < all->nfont; ++i) {
        FcPattern* face = all->fonts[i];
        FcBool outline = FcFalse;
        FcPatternGetBool(face, FC_OUTLINE, 0, &outline);
        const std::string file = text_of(face, FC_FILE), family = text_of(face, FC_FAMILY), style = text_of(face, FC_STYLE);
        // a collection's file holds several faces, and one that varies has no weight of its own
        if (outline != FcTrue || number_of(face, FC_INDEX) != 0 || number_of(face, FC_SLANT) != 0 || family.empty()) continue;
        if (!ends_with(file, ".ttf") && !ends_with(file, ".otf")) continue;
        found.try_emplace(style.empty() || style == "Regular" ? family : family + " " + style, file);
    }
    std::vector<SystemFace> out;
    out.reserve(found.size());
    for (const auto& [name, path] : found) out.push_back({name, path});
    return out;
}

}  // namespace orthema::app
