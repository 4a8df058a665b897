// Aids: papers and boards that hold a blank or a sheet in its place at the press, at real size. Which one helps follows
// from the blank and from how the transfer is made.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/guides/guides.h"

namespace orthema {

enum class AidKind {
    carry_board,      ///< slid between the layers of a double-layer garment: carries one layer to the platen
    handle_template,  ///< over a mug's handle, a line on each side where the sheet's ends lie
    jig_plate,        ///< the slots of a jig, to be cut out of a board or laid under the blanks
    fold_and_border   ///< a border to lay a two-sided sheet in, the blank's place on it, and the fold
};
const char* aid_name(AidKind kind);

struct Aid {
    AidKind kind = AidKind::carry_board;
    std::string title;
    std::string id;  ///< the same for designs that share it
    Drawing whole;   ///< mm at real size; garments in their own frame
    Rect area;       ///< of the drawing, as far as it is needed
    TemplateLayout layout;
    std::vector<GuidePage> tiles;
};

/// Which aid a decoration calls for; nothing where the template is enough.
std::optional<AidKind> aid_kind(const Order& order, const Decoration& decoration);

/// The aid of one fitted size. Nothing where none is called for, or the blank's measures do not give it. One carry board
/// serves all designs of the plan on that face and size of the blank, in every colour.
std::optional<Aid> aid_for(const Order& order, const FitPlan& plan, const Decoration& decoration, const DecorationFit& fit,
                           const SizeFit& size);

/// Every aid of the plan once: a jig's plate and a mug's paper serve several designs.
std::vector<Aid> aids_of(const Order& order, const FitPlan& plan);

}  // namespace orthema
