// How a garment, its design and its dimensions are drawn, on the wall, on cards and on templates alike.
#pragma once

#include <string>

#include "core/drawing/drawing.h"
#include "core/drawing/text_width.h"
#include "core/base/units.h"
#include "core/fitting/fit.h"

namespace orthema {

/// The garment with its seams, through `map` (mm -> drawing units). `hair` is the width of its outline.
void draw_panel(Drawing& to, const Panel& garment, const Affine& map, Colour cloth, double hair);

/// The design in its ink box.
void draw_design(Drawing& to, const std::string& art_id, const Rect& ink, const Affine& map, double opacity = 1);

/// A decoration as a fitted size has it; of a lettering the word that the size shows.
void draw_design(Drawing& to, const Decoration& decoration, const SizeFit& size, const Affine& map, double opacity = 1);

/// The same as it is seen on the blank: what is printed past a covered one's edge is not.
void draw_pressed_design(Drawing& to, const Panel& garment, const Decoration& decoration, const SizeFit& size, const Affine& map);

/// Pit line, where there is one, and centre line, dashed.
void draw_landmarks(Drawing& to, const Panel& garment, const Affine& map, double hair);

struct DimensionStyle {
    Colour colour = palette::brick;
    double hair = 1;
    double text_size = 12;
    Colour plate = palette::white;  ///< behind the figure
    Point aside{0, -1};             ///< to which side of a level line that is too short its figure goes
    std::vector<Rect>* taken = {};  ///< plates that are there: a figure keeps clear of them, and is added
};
/// A dimension line with end bars and its figure on a plate in the middle, or beside it where the line is short.
void draw_dimension(Drawing& to, Point a, Point b, const std::string& figure, const DimensionStyle& style);

/// The hand measurements of a fitted size as dimension lines: collar to ink, ink to both side seams, width, hem.
void draw_hand_measurements(Drawing& to, const Panel& garment, const SizeFit& fit, const Affine& map, Reading reading,
                            const DimensionStyle& style);

/// The optical centre against the middle of the ink box, as two ticks over the ink and the way between them; nothing
/// where they fall together.
void draw_balance(Drawing& to, const SizeFit& fit, const Affine& map, Reading reading, const DimensionStyle& style);

/// The fields in which a design larger than the platen is pressed, numbered; the one of now filled. Nothing where there is one.
void draw_fields(Drawing& to, const std::vector<Rect>& fields, int now, const Rect& window, const Affine& map, double hair,
                 double text_size);

/// Where the platen lies, or each of several, and the pad; raised parts under them are hatched.
void draw_platen(Drawing& to, const PlatenFit& platen, const std::vector<RaisedBox>& raised, const Rect& window, const Affine& map,
                 double hair);

}  // namespace orthema
