#include "core/blanks/cloth_colours.h"

#include <array>
#include <string_view>

#include "core/base/text.h"

namespace orthema {

namespace {

struct Cloth {
    std::string_view words;  ///< with spaces between and about them
    Colour colour;
};

constexpr Colour of(int r, int g, int b) { return {r / 255.0, g / 255.0, b / 255.0, 1}; }

// dyed cotton as it lies there: never quite black, never quite white
constexpr std::array cloths{Cloth{" white weiss weiß blanco blanca blanc blanche ", of(247, 246, 242)},
                            Cloth{" black schwarz negro negra noir noire ", of(28, 28, 30)},
                            Cloth{" grey gray grau gris sport ", of(164, 165, 166)},
                            Cloth{" ash silver ice ", of(224, 223, 218)},
                            Cloth{" charcoal graphite anthracite anthrazit slate ", of(66, 68, 72)},
                            Cloth{" navy marine marineblau marino ", of(42, 53, 80)},
                            Cloth{" blue blau azul bleu royal ", of(38, 84, 156)},
                            Cloth{" sky himmelblau celeste ciel ", of(170, 202, 224)},
                            Cloth{" turquoise türkis turquesa teal petrol ", of(38, 128, 136)},
                            Cloth{" red rot rojo roja rouge ", of(182, 36, 44)},
                            Cloth{" maroon burgundy wine bordeaux burdeos ", of(104, 32, 46)},
                            Cloth{" brick rust ", of(156, 75, 58)},
                            Cloth{" orange naranja ", of(228, 116, 40)},
                            Cloth{" yellow gelb amarillo amarilla jaune ", of(242, 208, 68)},
                            Cloth{" gold mustard sun ocker ", of(226, 178, 60)},
                            Cloth{" green grün verde vert kelly ", of(44, 120, 66)},
                            Cloth{" forest bottle ", of(32, 66, 48)},
                            Cloth{" lime mint ", of(160, 206, 130)},
                            Cloth{" olive khaki oliv moss military ", of(104, 106, 72)},
                            Cloth{" purple violet lila violett morado ", of(94, 62, 130)},
                            Cloth{" lilac lavender ", of(188, 172, 214)},
                            Cloth{" pink rosa rose ", of(236, 166, 186)},
                            Cloth{" fuchsia magenta pinkes berry ", of(196, 48, 118)},
                            Cloth{" brown braun marrón marron chocolate ", of(88, 62, 48)},
                            Cloth{" tan sand beige arena sable ", of(212, 192, 160)},
                            Cloth{" natural natur cream ecru creme crème crudo oatmeal ", of(233, 223, 200)}};

}  // namespace

std::optional<Colour> usual_cloth(const std::string& name) {
    std::optional<Colour> out;
    const std::string words = " " + lower(name) + " ";
    constexpr const char* between = " -/,";
    for (std::size_t from = 0, to = 0; (from = words.find_first_not_of(between, to)) != std::string::npos;) {
        to = words.find_first_of(between, from);
        const std::string word = " " + words.substr(from, to - from) + " ";
        for (const Cloth& c : cloths)
            if (c.words.find(word) != std::string_view::npos) out = c.colour;
    }
    return out;
}

std::optional<Colour> told_colour(const BlankStyle& style, const std::string& name) {
    if (const BlankColour* own = find_colour(style, name)) return own->ink;
    return usual_cloth(name);
}

}  // namespace orthema
