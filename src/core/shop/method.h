// Methods: how a design gets from a sheet into a blank. Data that a shop edits, never code: what each takes, who mirrors,
// its layers, its smallest features, what it costs. Figures are typical of the trade; the supplier's sheet comes first.
#pragma once

#include <string>
#include <vector>

#include "core/base/colour.h"
#include "core/base/length.h"
#include "core/base/words.h"
#include "core/shop/layer.h"
#include "core/shop/recipe.h"

namespace orthema {

enum class Handling { none, trimmed, weeded };
struct Method {
    std::string id;  ///< media name it as their method
    std::string name;
    bool read_through = true;          ///< read through its carrier, so somebody mirrors
    std::vector<std::string> fabrics;  ///< words of which a blank's fabric must have one; empty: any
    std::vector<std::string> never;    ///< words that a blank's fabric must not have
    double lightest = 0;               ///< CIELAB L* that the cloth must have at least; 0: any colour
    bool flat_colours = false;         ///< cut from sheets of one colour: no tones, no photographs
    bool stretches = true;             ///< gives with a knit
    Handling handling = Handling::none;
    Length min_stroke = Length::from_mm(0.5);
    Length min_gap = Length::from_mm(0.5);
    Length min_island = Length::from_mm(2);  ///< smaller loose parts are lost when weeded
    bool powder = false;                     ///< adhesive powder is melted on to the wet ink, and cured
    int keeps_days = 0;                      ///< printed and stored; 0: press at once
    double ink_cost = 0;                     ///< a square decimetre of ink
    double minutes = 1;                      ///< of work a piece, pressing included
    double shrink = 0;                       ///< per cent in the heat
    std::vector<Layer> layers;               ///< the usual stack, top first; empty: the print alone
    std::vector<RecipeStep> recipe;
    std::vector<RecipeStep> oven_recipe;   ///< where the press is an oven; empty: as on a press
    std::vector<FabricRule> fabric_rules;  ///< the first that fits holds
    double bears_seconds = 0;              ///< under heat in all, for a layer that is on; 0: not limited
    int bears_heats = 0;                   ///< times that it may be heated; 0: not limited
    std::string care;                      ///< what to mind, in a sentence
    bool operator==(const Method&) const = default;
};

struct Medium;

/// Whether its top layer holds only where the layer under it does: it is cut past that, and comes away beside it.
bool is_foil(const Method& method);
/// Whether a design in one layer is printed; flat colours that are weeded are cut from their sheet.
bool prints_alone(const Method& method);

/// What a choice of method is judged by, for one decoration at its least and largest width.
struct MethodCase {
    std::string fabric;
    Colour cloth;
    double least_width = 0;                  ///< mm
    double thin_stroke = 0, narrow_gap = 0;  ///< mm at the least width; 0 where none is thin
    int colours = 1;                         ///< flat colours in the art; many where it has tones
    double half_transparent = 0;             ///< share of the ink
    double ink_area = 0;                     ///< mm², the piece most printed
    double box_area = 0;                     ///< mm² of the ink box
};

/// Why a method does not suit: a short clause each, "cotton does not take it". Empty: it suits.
std::vector<Words> against(const Method& method, const MethodCase& what);

/// What a square millimetre of the medium costs.
double area_price(const Medium& medium);
/// What a square millimetre costs in film, vinyl or paper, of all its layers.
double material_price(const Method& method, const Medium& medium);
/// Material, ink and work for one piece. `minute` is what a minute of work costs.
double piece_cost(const Method& method, const Medium& medium, const MethodCase& what, double minute);

}  // namespace orthema
